"""Each demo boat through every station and tab, before and after setups are pinned: it opens, and
nothing is written there that nobody would say.
"""

import re

import pytest

from jolvek.web.kit.display import counted
from tests.web.steps import STATIONS

HERE = (*STATIONS, "by-hand")
TABS = (
    "day-out?wind=20&heavier=1&months=6&aged=1&cold=1&spare=1&all=1&sim=1&stream=1&arrive=3+h",
    "fitting?tab=sheet",
    "fitting?tab=wiring&load=4&school=end+taps&take=bars&engine=1&run=3+m",
    "fitting?tab=mounts",
)
# what no page may say
SLIPS = {
    "not a number": r"\b(?:nan|inf)\b",
    "Traceback": r"Traceback",
    "1 setups": r"(?<![\d.\u202f])1 (?:setups|packs|strings|motors|people)\b",
    "2.0 packs": r"\d\.0 (?:packs|strings|people)\b",
    "minus nothing": r"[^\w.,–-]-0(?:\.0+)?(?![\d.-])",
}


def words(html):
    """What is read on the page: no markup, scripts or styles."""
    return re.sub(r"<[^>]+>", " ", re.sub(r"<(script|style).*?</\1>", " ", html, flags=re.S))


def slips(html):
    return {name: re.findall(f".{{30}}(?:{r}).{{9}}", words(html)) for name, r in SLIPS.items()}


def opened(client, address):
    page = client.get(address)
    assert page.status_code == 200, address
    assert ">None<" not in page.text.replace("<strong>None</strong> of", "")
    assert not any(slips(page.text).values()), (address, slips(page.text))
    return page.text


@pytest.mark.parametrize("number", range(1, 7))
def test_every_page_of_every_boat_opens_and_reads(client, conn, pinned, number):
    for path in HERE:
        opened(client, f"/enquiry/{number}/{path}")
    pinned.backup(conn)
    named = {path: opened(client, f"/enquiry/{number}/{path}") for path in (*HERE, *TABS)}
    values = dict(re.findall(r"<dt>([^<]+)</dt>\s*<dd>([\d.]+)", named["day-out"]))
    slow, fast = (
        values.get(f"{w} speed that brings the boat home") for w in ("Slowest", "Fastest")
    )
    assert slow is None or fast is None or float(slow) <= float(fast)


def test_what_would_be_a_slip_is_seen():
    html = (
        "<p>There is a long sentence with 1 setups and 2.0 packs, nan of them, or -0.0 in all.</p>"
    )
    assert {n for n, found in slips(html).items() if found} >= {"1 setups", "2.0 packs"}
    assert slips(html)["not a number"] and slips(html)["minus nothing"]
    assert counted(1, "setup") == "1 setup" and counted(2, "setup") == "2 setups"
