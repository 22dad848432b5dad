"""The shop's people, for its owner: who may come in, as what, and who is in."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from flask import Blueprint, abort, flash, redirect, request, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.store import people as store
from jolvek.store.people import ROLES, Person
from jolvek.web import shared
from jolvek.web.kit import pages
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.fields.chosen import chosen
from jolvek.web.kit.fields.merged import merged
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import OWNER
from jolvek.web.saving import now

bp = Blueprint("people", __name__, url_prefix="/people")
pages.add(
    bp,
    {
        "page": OWNER,
        "add": OWNER,
        "change": OWNER,
        "invite": OWNER,
        "leave": OWNER,
    },
)
MOST_NAME = 80
ROLE_WORDS = {
    "reader": msg("looks, changes nothing"),
    "rigger": msg("and keeps fitting and photos"),
    "advisor": msg("and keeps enquiries, setups, offers and the catalogue"),
    "owner": msg("and people, settings, backups and the trail"),
}
LABELS = {"role": msg("Role"), "active": msg("may sign in")}


@bp.get("")
def page(refused: dict[str, str] | None = None, way: str = "", whose: str = "") -> Any:
    """Everybody, with sessions; a one-time address is shown once."""
    everybody = store.everybody(shared.conn())
    sessions = {
        p.id: [s for s in store.sessions(shared.conn()) if s.person_id == p.id] for p in everybody
    }
    shown = {"everybody": everybody, "sessions": sessions, "roles": ROLE_WORDS, "way": way}
    typed = request.form if refused else {}
    return shared.show(
        "desk/people/people.html", refused=refused or {}, typed=typed, whose=whose, **shown
    )


def _somebody() -> Person:
    who = store.by_id(shared.conn(), shared.form_id("person"))
    if who is None:
        abort(404)
    return who


def _way(person_id: int) -> str:
    token = shop.people.invite(shared.conn(), person_id, datetime.now(UTC))
    return url_for("sign_in.welcome", token=token, _external=True)


@bp.post("/add")
def add() -> Any:
    """Somebody new, with a one-time address to choose a password."""
    name = request.form.get("name", "").strip()[:MOST_NAME]
    shown = request.form.get("shown", "").strip()[:MOST_NAME] or name
    role = request.form.get("role", "")
    if not name or role not in ROLES:
        return page({"name": tr("a name and a role are needed")}), 422
    try:
        number = shop.people.add(shared.conn(), now(), name, shown, role)
    except shop.people.NameTaken as error:
        return page({"name": str(error)}), 422
    signing.record_activity("person added", f"{shown}, {role}")
    return page(way=_way(number), whose=shown)


@bp.post("/change")
def change() -> Any:
    """Another role, or in and out; one owner always stays."""

    def edited(who: Person) -> tuple[str, bool]:
        form = merged(request.form, {"role": who.role, "active": who.active}, LABELS)
        return chosen("role", ROLES, form), "active" in form

    try:
        who = shop.people.change(shared.conn(), shared.form_id("person"), edited)
    except shop.people.Gone:
        abort(404)
    except JolvekError as error:
        abort(422, str(error))
    role, active = who.role, who.active
    signing.record_activity("person changed", f"{who.shown}: {role}, {'in' if active else 'out'}")
    word = tr(role)
    flash(
        tr("%(name)s: %(role)s.", name=who.shown, role=word)
        if active
        else tr("%(name)s: %(role)s, may not sign in.", name=who.shown, role=word)
    )
    return redirect(url_for("people.page"), 303)


@bp.post("/invite")
def invite() -> Any:
    """A new one-time address for somebody who lost password or second factor."""
    who = _somebody()
    if not who.active:
        abort(422, tr("%(shown)s may not sign in; let them in first.", shown=who.shown))
    signing.record_activity("one-time address made", f"for {who.shown}")
    return page(way=_way(who.id), whose=who.shown)


@bp.post("/sign-out")
def leave() -> Any:
    """End all sessions of somebody, at once."""
    who = _somebody()
    shop.people.sign_out_everywhere(shared.conn(), who.id)
    signing.record_activity("sessions ended", f"of {who.shown}")
    flash(tr("All sessions of %(shown)s have ended.", shown=who.shown))
    return redirect(url_for("people.page"), 303)
