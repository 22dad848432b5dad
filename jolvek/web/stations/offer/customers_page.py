"""The page of an offer as its customer sees it, of a sent one or of the draft."""

from __future__ import annotations

from typing import Any

from jolvek.core.base.messages import msg
from jolvek.web.shared import show
from jolvek.web.stations.offer.lines import seen

DID = {
    "asked": msg("You asked:"),
    "accepted": msg("You accepted."),
    "declined": msg("You declined:"),
}


def shown(told: dict[str, Any], **more: Any) -> str:
    """The page of a frozen offer; without a token nothing of it can be answered."""
    body = {"o": told, "seen": seen(told), "did": DID, "typed": {}, "refused": {}, **more}
    return show("public/offer/page.html", **body)
