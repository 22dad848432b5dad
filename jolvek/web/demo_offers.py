"""Offers that the demo's dealer has sent, and what their customers did: by the pages themselves, so
that paper, link and mail are those of any shop.
"""

from __future__ import annotations

import re
from html import unescape

from jolvek.web import create_app
from jolvek.web.settings import Settings

DRAFT = {"years_shown": "1", "deposit": "30", "instalments": "1", "valid_days": "30"}
ASKED = "Would it also carry four of us, if we go slowly?"
# jobs of the demo: number, setups offered, what the customer did
SENT = ((9, "ABC", "asked"), (13, "A", "accepted"))


def send(settings: Settings) -> None:
    """Send the demo's offers, where none was sent yet."""
    app = create_app(settings)
    app.config["WTF_CSRF_ENABLED"] = False
    for number, letters, did in SENT:
        desk, here = app.test_client(), f"/enquiry/{number}/offer"
        desk.post("/play", data={"role": "advisor"})
        desk.post(here, data={f"letter_{x}": x for x in letters} | DRAFT)
        keys = re.findall(r'name="caution"\s+value="([^"]+)"', desk.get(here).text)
        desk.post(f"{here}/acknowledge", data={"caution": [unescape(k) for k in keys]})
        desk.post(f"{here}/send", data={"after": "0"})
        link = re.search(r'id="customer-link"\s+value="[^"]*(/o/[\w-]+)"', desk.get(here).text)
        if link is None:  # no PDF library here: the demo goes on without
            continue
        offer = re.search(r'name="offer"\s+value="(\d+)"', app.test_client().get(link[1]).text)
        answer = {"do": did, "offer": offer[1] if offer else "", "text": ASKED}
        if did == "accepted":
            answer |= {"text": "", "name": "Signe Merrel", "agree": "1", "letter": letters}
        app.test_client().post(link[1], data=answer)
