"""Keeping what a form says: valid fields at once, refused ones told, two people merged."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from flask import abort, request

from jolvek import shop
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.enquiry.merging import Clash
from jolvek.core.enquiry.need import Need
from jolvek.shop import By
from jolvek.store import enquiries
from jolvek.web import shared
from jolvek.web.kit import learning
from jolvek.web.shared import conn, who


def now() -> str:
    """The time as kept: UTC."""
    return datetime.now(UTC).isoformat(timespec="microseconds")


def by() -> By:
    """Who acts in this request, now."""
    return By(who(), now())


@dataclass(frozen=True)
class Kept:
    """What became of a form: when it was kept, which fields were refused and why, and what two
    people changed at once.
    """

    enquiry: Enquiry
    at: str
    refused: tuple[tuple[str, str, str], ...] = ()  # (field, its label, why)
    unfinished: tuple[tuple[str, str], ...] = ()  # (field of a row that is begun, what it needs)
    clashes: tuple[Clash, ...] = ()
    theirs: tuple[str, ...] = ()

    @property
    def code(self) -> int:
        """HTTP status: 422 where something of it was not kept."""
        return 422 if self.refused or self.clashes else 200


def change(enquiry_id: int, edit: Callable[[Enquiry], Enquiry]) -> Enquiry:
    """Change an enquiry by one gesture, from what stands now."""
    return shop.enquiries.change(conn(), by(), enquiry_id, edit).enquiry


def answer_to(enquiry_id: int, read: Callable[[Enquiry], tuple[Enquiry, Any]]) -> Need:
    """The need that a form says, as far as it is valid, while one still types: nothing is kept."""
    seen, page = request.form.get("changed", ""), request.form.get("page", "")[:40]
    try:
        tried = enquiries.tried(conn(), enquiry_id, lambda base: read(base)[0], seen, page)
    except KeyError:
        abort(404)
    return learning.with_fleet_fit(conn(), tried).need


def keep_form(enquiry_id: int, read: Callable[[Enquiry], tuple[Enquiry, Any]]) -> tuple[Kept, Any]:
    """Keep what a form says. `read` builds the form over the enquiry it was filled from and gives
    the enquiry in it, with the form that then says what it refused.
    """
    forms: list[Any] = []

    def edit(base: Enquiry) -> Enquiry:
        mine, form = read(base)
        forms.append(form)
        return mine

    seen, page = request.form.get("changed", ""), request.form.get("page", "")[:40]
    over = request.form.get("override", "")
    versions = (over or seen, "" if over else page)
    turn = shared.form_id("turn")
    done = shop.enquiries.change(conn(), by(), enquiry_id, edit, *versions, turn)
    form = forms[-1]
    refused = tuple(
        (field.name, field.label.text, field.errors[0]) for field in form if field.errors
    )
    begun = tuple((x.name, x.unfinished) for x in form if getattr(x, "unfinished", ""))
    merged = done.merged
    at, clashes, theirs = done.changed_at, merged.clashes, merged.theirs
    return Kept(done.enquiry, at, refused, begun, clashes, theirs), form
