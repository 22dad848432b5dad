"""What every page shares: the request's connection, page or fragment, stored or 404, the frame."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, fields, is_dataclass
from typing import Any, NoReturn
from urllib.parse import urlencode, urlsplit

from flask import Response, abort, flash, render_template, request, url_for
from flask_login import current_user

from jolvek.formats import tables
from jolvek.store import enquiries, erasing, jobs, owners, setups
from jolvek.store.enquiries import Stored
from jolvek.store.setups import Broken, Pinned
from jolvek.web.data import conn as conn
from jolvek.web.data import settings as settings
from jolvek.web.kit import dates, display, learning
from jolvek.web.kit.card import Card, card_of
from jolvek.web.kit.figures import unmarked
from jolvek.web.kit.language import tr
from jolvek.web.kit.matches import shelf_of
from jolvek.web.kit.moved import Moved, moved

LARGEST_ID = 2**63 - 1  # of an SQLite row


def is_fragment() -> bool:
    """Whether htmx asked for a part of a page; boosted links and history restores need the
    whole.
    """
    h = request.headers
    return (
        h.get("HX-Request") == "true"
        and h.get("HX-Boosted") != "true"
        and h.get("HX-History-Restore-Request") != "true"
    )


def who() -> str:
    """The name of who is signed in; empty for nobody."""
    return str(current_user.person.shown) if current_user.is_authenticated else ""


def own_address(text: str) -> str:
    """An address within this application; its counter where the text leads elsewhere."""
    try:
        way = urlsplit(text)
    except ValueError:
        return "/"
    inside = way.path.startswith("/") and way.path[1:2] not in ("/", "\\")
    if way.scheme or way.netloc or not inside:
        return "/"
    return way.path + (f"?{way.query}" if way.query else "")


def form_id(name: str) -> int:
    """A number sent by a form; 0, which is nobody's, where it is none that a row can have."""
    value = request.form.get(name, type=int) or 0
    return value if 0 < value <= LARGEST_ID else 0


def again(endpoint: str, where: Mapping[str, Any], **changes: Any) -> str:
    """An address with all that this request's address asks, something of it changed; None and empty
    drop it. What was asked is never taken for a part of the way: `?endpoint=x` is only a query.
    """
    asked = {**request.args.to_dict(flat=False), **changes}
    query = urlencode({k: v for k, v in asked.items() if v not in (None, "")}, doseq=True)
    way = url_for(endpoint, **where)
    return f"{way}?{query}" if query else way


def gone(enquiry_id: int) -> NoReturn:
    """The page of a paper that was erased with its customer."""
    on = erasing.erased_on(conn(), enquiry_id)
    abort(410, tr("This paper was erased on %(day)s, with its customer.", day=dates.day(on[:10])))


def flash_left_out(rows: Sequence[str]) -> None:
    """Say which rows of a file were left out, and why."""
    if rows:
        more = tr(" and %(n)s more", n=len(rows) - 2) if len(rows) > 2 else ""
        which = "; ".join(rows[:2])
        flash(tr("Left out: %(which)s%(more)s.", which=which, more=more))


def skipped() -> int:
    """How many rows of a list its page begins after."""
    asked = request.args.get("skip", type=int) or 0
    return asked if 0 < asked <= LARGEST_ID else 0


def stored_or_404(enquiry_id: int) -> Stored:
    """The enquiry, or a page that says there is none."""
    stored = enquiries.get(conn(), enquiry_id) if enquiry_id <= LARGEST_ID else None
    if stored is None:
        abort(404)
    return learning.with_fleet_fit(conn(), stored)


@dataclass(frozen=True)
class Frame:
    """What stands round every station: enquiry, pinned setups, those broken, boat card, here."""

    e: Stored
    pinned: list[Pinned]
    broken: list[Broken]
    card: Card
    here: str
    boats: list[jobs.Boat]  # of the same job
    moves: list[Moved]  # parts of the pinned setups that the catalogue has otherwise today

    @property
    def need(self) -> Any:
        """Boat, load, site and day."""
        return self.e.need


def spoken_to(enquiry_id: int) -> str:
    """In which language the customer of a job is written to: the one chosen, or the shop's."""
    return owners.language_of(conn(), enquiry_id) or display.language_of_shop()


def frame(enquiry_id: int, here: str) -> Frame:
    """What every station's page needs."""
    stored = stored_or_404(enquiry_id)
    pinned = setups.of_enquiry(conn(), enquiry_id)
    broken = setups.broken(conn(), enquiry_id)
    boats = jobs.boats(conn(), enquiry_id)
    offered = shelf_of(conn()) if pinned else None
    moves = [x for p in pinned for x in moved(p, offered)] if offered else []
    return Frame(stored, pinned, broken, card_of(stored, pinned), here, boats, moves=moves)


def table_file(rows: Sequence[Sequence[str]], name: str, form: str) -> Response:
    """A table as a file to be kept; 404 for a form that there is not."""
    if form == "csv":
        body: str | bytes = tables.as_csv(rows)
        mime = "text/csv"
    elif form == "xlsx":
        body, mime = tables.as_xlsx(unmarked(rows), name), tables.XLSX
    else:
        abort(404)
    values = {"Content-Disposition": f'attachment; filename="{name}.{form}"'}
    return Response(body, mimetype=mime, headers=values)


def show(template: str, *records: Any, **more: Any) -> str:
    """A template with the fields of frozen records as its names."""
    names: dict[str, Any] = {}
    for record in records:
        if record is not None and is_dataclass(record):
            names |= {f.name: getattr(record, f.name) for f in fields(record)}
        if isinstance(record, Frame):
            names["need"] = record.need
    return render_template(template, **{**names, **more})
