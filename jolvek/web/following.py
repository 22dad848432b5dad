"""Each change of a job is kept with the state before it: what followed is told, and taken back."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta
from typing import Any

from flask import Flask, Response, g, request

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.job.changes import changes
from jolvek.core.job.job_setup import JobSetup
from jolvek.store import setups, undo
from jolvek.store.enquiries import Stored
from jolvek.store.setups import Pinned
from jolvek.store.undo import Last
from jolvek.web import saving
from jolvek.web.data import conn
from jolvek.web.kit import display, learning, pages
from jolvek.web.kit.followed import Strip, strip
from jolvek.web.kit.language import tr
from jolvek.web.kit.worked import work_out
from jolvek.web.shared import who

TOLD_FOR = timedelta(minutes=15)  # after that nobody asks what the last change brought
ONE_ACT = timedelta(seconds=30)  # saves while one types, so close together, are one change


DONE = {  # what an act was, told where it moved no figure
    "": msg("The job was changed."),
    "boat.save": msg("The boat was changed."),
    "waters.save": msg("The day was changed."),
    "shortlist.pin": msg("A setup was pinned."),
    "shortlist.unpin": msg("A setup was removed."),
    "shortlist.keep_weights": msg("The wishes were changed."),
    "side_by_side.choose": msg("Another setup was made the current one."),
    "side_by_side.extra": msg("The add-ons of a setup were changed."),
    "fitting.keep": msg("The fitting was changed."),
    "own_gear.add": msg("The customer’s own gear was changed."),
    "own_gear.off": msg("The customer’s own gear was changed."),
    "repriced.today": msg("Parts were updated to today’s prices."),
}


def set_up(app: Flask) -> None:
    """Watch every request that may change a job; templates ask `followed`."""
    app.before_request(_before)
    app.after_request(_after)
    app.jinja_env.globals["followed"] = followed


def _before() -> None:
    number = (request.view_args or {}).get("enquiry_id")
    if (
        request.method == "POST"
        and pages.changes_job(request.endpoint or "")
        and number is not None
    ):
        g.state_before = undo.state(conn(), number)


def _after(response: Response) -> Response:
    _note()
    return response


def _note() -> None:
    """Keep what this request changed, once."""
    before = g.pop("state_before", None)
    if before is None:
        return
    number = (request.view_args or {})["enquiry_id"]
    after = undo.state(conn(), number)
    if after is None or after == before:
        return
    last, now, act = undo.last(conn(), number), saving.now(), request.endpoint or ""
    together = last is not None and last.after == before and (last.who, last.act) == (who(), act)
    if together and pages.saves_itself(act) and last is not None and _since(last.at) < ONE_ACT:
        before = last.before
    shop.boats.note_change(conn(), number, Last(now, who(), act, before, after))


def _since(at: str) -> timedelta:
    return datetime.now(UTC) - datetime.fromisoformat(at)


def followed(stored: Stored) -> Strip | None:
    """What the last change of a job brought to its current setup, while it is one's own and
    nothing changed since; None where there is nothing to tell.
    """
    _note()
    last = undo.last(conn(), stored.id)
    if last is None or last.who != who() or _since(last.at) > TOLD_FOR:
        return None
    if undo.state(conn(), stored.id) != last.after:
        return None
    try:
        was = replace(stored, enquiry=last.before.read, problems=())
        before = _current(learning.with_fleet_fit(conn(), was), undo.pinned_of(last.before))
    except (JolvekError, KeyError, TypeError):
        return None
    after = _current(stored, setups.of_enquiry(conn(), stored.id))
    what = tr(DONE.get(last.act, DONE[""]))
    if before is None or after is None:
        return Strip((), (), True, what)
    return replace(strip(changes(before, after), display.current(), undo=True), done=what)


def _current(stored: Stored, pinned: list[Pinned]) -> JobSetup | None:
    chosen: Any = next((p for p in pinned if p.chosen), pinned[0] if pinned else None)
    return work_out(stored.need, chosen).job if chosen else None
