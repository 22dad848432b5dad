"""One job, one thread: a figure stands on every page, paper and file as the same text."""

import json
import re
from collections import defaultdict
from dataclasses import replace
from html import unescape

import pytest
from click.testing import CliRunner

from jolvek import cli
from jolvek.core.job import figures as core_figures
from jolvek.formats import enquiry_file
from jolvek.store import enquiries, setups
from jolvek.web.view import figures, pdf
from jolvek.web.view.worked import work_out
from tests.web.pages.made import AT_SEA

PAGES = (
    "boat waters shortlist side-by-side side-by-side?by=day side-by-side.csv day-out day-out?s=B"
    " fitting fitting?tab=wiring fitting?tab=sheet boats offer handover trial aftercare"
).split()
PAPERS = ("side-by-side.pdf", "day-out.pdf", "fitting/sheet.pdf")
FIGURE = re.compile(r'<span data-figure="([^"]+)">(.*?)</span>', re.S)
RUNNING = re.compile(r"(?:(\d+)\s*h)?\s*(?:(\d+)\s*min)?")


def plain(text):
    """A figure without its unit: 2 h 23 min and 2:23 are one, "12.5 kn" and "12.5" too."""
    text = unescape(re.sub(r"<[^>]+>", "", text)).replace("\u202f", "").replace("\u00a0", " ")
    spent = RUNNING.fullmatch(text.strip())
    if spent and any(spent.groups()):
        return f"{int(spent[1] or 0)}:{int(spent[2] or 0):02d}"
    number = re.search(r"-?\d[\d.,:]*", text)
    return re.sub(r"[.,]0+$", "", number[0]) if number else text.strip()


@pytest.fixture
def papers(monkeypatch):
    """The HTML of every paper that is printed; tables keep their keys."""
    printed = []
    monkeypatch.setattr(pdf, "write", lambda html: printed.append(html) or b"%PDF-1.7")
    monkeypatch.setattr(figures, "_TEXTS", ("text/html",))
    return printed


def gathered(client, number, papers=None):
    """Key → text → the pages, papers and files that say so."""
    found = defaultdict(lambda: defaultdict(set))

    def note(text, place):
        for key, said in (*FIGURE.findall(text), *figures.MARKED.findall(text)):
            found[key][plain(said)].add(place)

    for page in PAGES if papers is None else (*PAGES, *PAPERS):
        answer = client.get(f"/enquiry/{number}/{page}")
        note("" if page in PAPERS else answer.get_data(as_text=True), page.split("?")[0])
        if page in PAPERS:
            note(figures.spans(papers.pop()), page)
    return found


def twice(found):
    """The keys that stand on two or more pages, papers or files."""
    return [k for k, texts in found.items() if len(set().union(*texts.values())) > 1]


def agreed(found):
    torn = {key: {k: sorted(v) for k, v in t.items()} for key, t in found.items() if len(t) > 1}
    assert torn == {}


ODD = {
    "tender, four charges a day": {"runs_per_day": 8, "charges_per_day": 4, "days_a_season": 120.0},
    "wind all day": {"wind_m_s": 5.0, "current_m_s": 0.3, "against": "all day"},
    "sun": {"solar_w": 300.0, "hotel_w": 40.0},
    "part charge": {"start_charge": 0.7, "reserve_school": "hour"},
    "far too far": {"distance_m": 90_000.0},
}


@pytest.fixture
def odd(fitted, conn):
    """The demo's jobs with other days."""

    def change(number, **day):
        def edited(e):
            return replace(e, need=replace(e.need, day=replace(e.need.day, **day)))

        enquiries.change(conn, number, edited, "2026-12-01T00:00:00+00:00")

    return change


@pytest.mark.parametrize("number", range(1, 7))
def test_no_figure_of_a_demo_job_has_two_texts(fitted, papers, number):
    found = gathered(fitted, number, papers)
    agreed(found)
    assert len(twice(found)) >= 60, sorted(twice(found))


@pytest.mark.parametrize(("number", "name"), [(1 + i % 6, name) for i, name in enumerate(ODD)])
def test_no_figure_of_an_odd_job_has_two_texts(odd, client, papers, number, name):
    odd(number, **ODD[name])
    agreed(gathered(client, number, papers))


def test_a_german_and_an_imperial_reader_see_one_text_too(fitted, papers):
    fitted.post("/units", data={"speed": "mph", "length": "ft", "mass": "lb", "power": "hp"})
    agreed(gathered(fitted, 4, papers))
    fitted.post("/units", data={"language": "de"})
    assert 'lang="de"' in fitted.get("/enquiry/2/boat").text
    agreed(gathered(fitted, 2))  # the papers speak the customer's language


@pytest.mark.parametrize("number", [1, 5])
def test_the_command_says_what_the_pages_say(fitted, app, conn, papers, tmp_path, number):
    found = gathered(fitted, number, papers)
    need, p = enquiries.get(conn, number).need, setups.of_enquiry(conn, number)[0]
    job = work_out(need, p).job
    (tmp_path / "e.json").write_text(
        json.dumps(enquiry_file.write(enquiries.get(conn, number).enquiry))
    )
    named = [x for kind in ("motor", "battery", "mount", "charger") for x in named_part(p, kind)]
    layout = ["--series", str(p.series), "--parallel", str(p.parallel)]
    layout += ["--shaft", str(p.shaft_m)] if p.shaft_m else []
    done = CliRunner().invoke(cli.main, ["fit", str(tmp_path / "e.json"), *named, *layout])
    told = json.loads(done.output)["figures"]
    assert len(told) > 30
    with app.test_request_context():
        for key, value in told.items():
            f = replace(core_figures.figure(job, key), value=value)
            assert {plain(figures.written(f, AT_SEA))} >= set(found.get(f"A.{key}", {})), key


def named_part(p, kind):
    part = p.part(kind)
    return [f"--{kind}", part.item.id] if part else []


def test_the_offers_total_is_the_fitted_price_of_every_list(fitted, conn):
    """Nothing else on the offer: no add-on, no service, no discount; prices hold their tax."""
    fitted.post("/play", data={"role": "owner"})
    rates = {"fitting_rate": "78", "wiring_rate": "85", "cable_price": "0.6", "piece_price": "13"}
    fitted.post(
        "/settings", data={"name": "Ferrowick", "currency": "EUR", **rates, "tax_included": "1"}
    )
    fitted.post("/play", data={"role": "advisor"})
    for number in (1, 2, 5):
        compared = fitted.get(f"/enquiry/{number}/side-by-side").get_data(as_text=True)
        price = dict(FIGURE.findall(compared))["A.price.fitted"]
        listed = fitted.get(f"/enquiry/{number}/shortlist").get_data(as_text=True)
        offer = fitted.get(f"/enquiry/{number}/offer").get_data(as_text=True)
        whole = unescape(offer).replace("\u202f", "").replace("\u00a0", " ")
        figure = plain(price)
        assert re.search(rf"Total.*?{re.escape(figure)}(?:\.00)?\b", whole, re.S), number
        assert figure in unescape(listed).replace("\u202f", ""), number


def test_what_is_found_of_the_day_stands_on_every_page_and_is_confirmed_before_sending(
    odd, fitted, conn
):
    odd(2, charges_per_day=4, charge_h=2.0, runs_per_day=8, days_a_season=120.0)
    job = work_out(enquiries.get(conn, 2).need, setups.of_enquiry(conn, 2)[0]).job
    rules = {f.rule for f in job.findings}
    assert rules & {"charges-a-day", "runs-a-charge"}
    for page in ("side-by-side", "offer", "fitting?tab=sheet"):
        text = fitted.get(f"/enquiry/2/{page}").get_data(as_text=True)
        for rule in rules & {"charges-a-day", "runs-a-charge", "below-reserve"}:
            found = next(f for f in job.findings if f.rule == rule)
            assert found.cure in unescape(text), (page, rule)


def test_a_stop_of_the_sea_is_a_stop_of_the_offer(odd, fitted, conn):
    odd(2, wind_m_s=14.0)
    assert "cannot be offered" in fitted.get("/enquiry/2/offer").text
    assert "Offer A" not in fitted.get("/enquiry/2/waters").text
