"""Signing in, and choosing a password by a one-time address."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from flask import Blueprint, abort, flash, redirect, request, url_for

from jolvek import shop
from jolvek.store import people
from jolvek.store.people import Person
from jolvek.web import data, shared
from jolvek.web.kit import pages
from jolvek.web.kit.accounts import guessing, limits, passwords, signing
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import OPEN
from jolvek.web.saving import now

bp = Blueprint("sign_in", __name__)
pages.add(
    bp,
    {
        "page": OPEN,
        "enter": OPEN,
        "welcome": OPEN,
        "choose": OPEN,
    },
)
MOST_NAME = 80


@bp.get("/sign-in")
def page() -> Any:
    """The form; who is in already goes on."""
    back = shared.own_address(request.args.get("back", ""))
    if signing.person():
        return redirect(back)
    return shared.show("desk/people/sign_in.html", back=back, name="", wrong="")


@bp.post("/sign-in")
@limits.limiter.limit(limits.TRIES, exempt_when=lambda: guessing.is_known(limits.name_asked()))
def enter() -> Any:
    """Name, password and, where it was set up, a one-time code."""
    name, back = limits.name_asked(), shared.own_address(request.form.get("back", ""))
    guessing.wait(name)
    found = people.by_name(shared.conn(), name)
    right = passwords.is_right(request.form.get("password", ""), found.password if found else "")
    if not found or not right or not found.active or not _code_is_right(found):
        guessing.was_wrong(name)
        signing.record_activity("sign-in refused", f"as {name[:MOST_NAME]}")
        wrong = tr("Name, password or one-time code is not right.")
        more = {"back": back, "name": request.form.get("name", ""), "wrong": wrong}
        return shared.show("desk/people/sign_in.html", **more), 422
    signing.enter(found)
    guessing.was_right(name, found.id)
    signing.record_activity("signed in", who=found)
    return redirect(back, 303)


def _code_is_right(who: Person) -> bool:
    """Whether the one-time code is right, and was not used before; or none is asked."""
    if not who.second_factor:
        return True
    step = passwords.step_of(request.form.get("code", ""), who.second_factor)
    return step is not None and shop.people.use_code(shared.conn(), who.id, step)


def _invited(token: str) -> Person | None:
    good, who = people.invited(shared.conn(), token, datetime.now(UTC))
    if not good:
        abort(404, tr("This address was used already, or its time is over. Ask for a new one."))
    return who


@bp.get("/welcome/<token>")
def welcome(token: str) -> Any:
    """The form behind a one-time address."""
    who = _invited(token)
    return shared.show("desk/people/welcome.html", token=token, who=who, refused={}, typed={})


@bp.post("/welcome/<token>")
@limits.limiter.limit(limits.TRIES)
def choose(token: str) -> Any:
    """Keep the password, and make the first owner where there is none."""
    who, typed, refused = _invited(token), request.form, {}
    name = who.name if who else typed.get("name", "").strip()[:MOST_NAME]
    shown = who.shown if who else typed.get("shown", "").strip()[:MOST_NAME]
    if not name or not shown:
        refused["name"] = tr("a name is needed, to sign in and to be shown")
    try:
        password = passwords.kept(typed.get("password", ""), name, data.shop().name)
    except passwords.PasswordRefused as error:
        refused["password"] = str(error)
    if typed.get("password") != typed.get("again"):
        refused["again"] = tr("the two are not the same")
    if not refused:
        names = (name, shown)
        try:
            shop.people.accept_invitation(shared.conn(), now(), token, who, names, password)
        except shop.people.Gone:
            abort(404)
        except shop.people.NameTaken:
            refused["name"] = tr("that name is taken")
    if refused:
        more = {"who": who, "refused": refused, "typed": typed}
        return shared.show("desk/people/welcome.html", token=token, **more), 422
    signing.record_activity("password chosen", f"for {shown}", who)
    flash(tr("The password is saved. Sign in with it."))
    return redirect(url_for("sign_in.page"), 303)
