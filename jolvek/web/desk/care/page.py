"""What is due on every boat the shop has in service, its calendar, letters to the owners."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, timedelta
from typing import Any

from flask import Blueprint, Response, flash, redirect, request, url_for

from jolvek import shop
from jolvek.core.care.due import state_on
from jolvek.formats.contacts import ICALENDAR, Dated, calendar
from jolvek.store import due_list, service_faults
from jolvek.store.due_list import Line
from jolvek.web import data
from jolvek.web.desk.care import due as care_kept
from jolvek.web.desk.care import letters as care_letters
from jolvek.web.kit import pages
from jolvek.web.kit.accounts import limits, links, signing
from jolvek.web.kit.dates import made
from jolvek.web.kit.display import counted
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, OPEN, READER
from jolvek.web.mailing import post_of
from jolvek.web.saving import by, now
from jolvek.web.shared import conn, show, skipped, table_file
from jolvek.web.stations.aftercare import view as care_page

bp = Blueprint("care_list", __name__, url_prefix="/care")
pages.add(
    bp,
    {
        "page": READER,
        "table": ADVISOR,
        "letters": ADVISOR,
        "feed": OPEN,  # by a signed address of the shop's
        "shut": ADVISOR,
    },
)
SPANS = {"due": 0, "month": 31, "quarter": 92}
PAGE, MOST_OF_FEED, MOST_LETTERS = 100, 2000, 500


def _until(today: date) -> tuple[str, date]:
    span = request.values.get("span", "month")
    span = span if span in SPANS else "month"
    return span, today + timedelta(days=SPANS[span])


@bp.get("")
def page() -> Any:
    """What is due this month, the longest due first; boats that changed are worked out before."""
    today = date.today()
    waiting = data.optional(lambda: care_kept.refresh(conn(), data.shop(), today)) or 0
    span, until = _until(today)
    skip = skipped()
    found = due_list.lines(conn(), until, PAGE + 1, skip)
    steps, boats = due_list.count(conn(), until)
    more = {
        "rows": [(x, state_on(date.fromisoformat(x.on_day), today)) for x in found[:PAGE]],
        "next_skip": skip + PAGE if len(found) > PAGE else None,
        "steps": steps,
        "boats": boats,
        "span": span,
        "spans": {"due": tr("due now"), "month": tr("this month"), "quarter": tr("three months")},
        "states": care_page.STATE_WORDS,
        "waiting": waiting,
        "reported": service_faults.reported(conn(), service_faults.OWNER),
        "feed": url_for("care_list.feed", token=links.token("calendar", 0), _external=True),
    }
    return show("desk/care/page.html", **more)


@bp.get("/list.<form>")
def table(form: str) -> Response:
    """The same as a table."""
    until = _until(date.today())[1]
    data.optional(lambda: care_kept.refresh(conn(), data.shop(), date.today()))
    head = ("due", "boat", "customer", "mail", "what", "why", tr("written to"))
    keys = ("on_day", "title", "customer", "mail", "text", "why", "reminded")
    rows = due_list.lines(conn(), until, 100_000)
    return table_file([head, *(tuple(getattr(x, k) for k in keys) for x in rows)], "care", form)


@bp.post("/letters")
def letters() -> Any:
    """Write to the owners about what is due and nobody was told of yet; each step once."""
    span, until = _until(date.today())
    care_kept.refresh(conn(), data.shop(), date.today())
    rows = due_list.lines(conn(), until, MOST_LETTERS, told=False)

    def way(number: int) -> str:
        token = links.token("boat", number)
        return url_for("boat_page.page", token=token, _external=True)

    def write(found: Sequence[Line]) -> bytes:
        return care_letters.reminder_mail(conn(), data.shop(), found, way)

    mails, without = shop.letters.remind(conn(), by(), rows, write)
    shop.letters.hand_on(conn(), post_of(data.settings()), now())
    signing.record_activity("reminders written", str(mails))
    text = (
        tr("%(mails)s written to.", mails=counted(mails, "owner"))
        if mails
        else tr("All with an address were told.")
    )
    flash(
        text
        + (
            tr(" Without a mail address: %(without)s; call them.", without=without)
            if without
            else ""
        )
    )
    return redirect(url_for("care_list.page", span=span), 303)


@bp.get("/feed/<token>.ics")
@limits.limiter.limit("60 per hour")
def feed(token: str) -> Response:
    """What is due on all boats, for a calendar that subscribes to it; names only the boats."""
    links.of_token("calendar", token)
    care_kept.refresh(conn(), data.shop(), date.today())
    rows = due_list.lines(conn(), date.today() + timedelta(days=92), MOST_OF_FEED)
    days = [
        Dated(
            x.enquiry_id,
            date.fromisoformat(x.on_day),
            f"{x.title}: {x.text}",
            x.hazard,
            f"{x.step}-",
        )
        for x in rows
    ]
    return Response(calendar(days, data.shop().name, made()), mimetype=ICALENDAR)


@bp.post("/feed")
def shut() -> Any:
    """Calendar addresses given out so far lead nowhere any more."""
    shop.owners.shut_addresses(conn(), "calendar", 0)
    signing.record_activity("calendar address shut", "")
    flash(tr("The calendar has a new address; the old one leads nowhere."))
    return redirect(url_for("care_list.page"), 303)
