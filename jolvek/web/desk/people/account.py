"""One's own account: password, second factor, signing out; and the roles of the demo."""

from __future__ import annotations

from typing import Any

import segno
from flask import Blueprint, abort, flash, redirect, request, session, url_for
from flask_login import current_user
from markupsafe import Markup

from jolvek import shop
from jolvek.store import people
from jolvek.store.people import ROLES, Person
from jolvek.web import data, shared
from jolvek.web.kit import pages
from jolvek.web.kit.accounts import limits, passwords, signing
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import READER

bp = Blueprint("account", __name__)
pages.add(
    bp,
    {
        "page": READER,
        "leave": READER,
        "leave_all": READER,
        "password": READER,
        "factor": READER,
        "play": READER,  # another role of the demo; nothing elsewhere
    },
)


def _me() -> Person:
    who = signing.person()
    assert who is not None  # the guard has seen to it
    return who


@bp.get("/account")
def page(refused: dict[str, str] | None = None) -> Any:
    """Who one is, from where one is signed in, and what can be changed."""
    me = _me()
    mine = [s for s in people.sessions(shared.conn()) if s.person_id == me.id]
    secret = "" if me.second_factor else people.offered_factor(shared.conn(), me.id)
    way = passwords.provisioning(secret, me.name, data.shop().name) if secret else ""
    code = segno.make(way).svg_inline(scale=4, border=2) if way else ""
    here = people.hashed(current_user.token)
    shown = {"me": me, "sessions": mine, "here": here, "secret": secret, "code": Markup(code)}
    return shared.show("desk/people/account.html", refused=refused or {}, **shown)


@bp.post("/account/password")
@limits.limiter.limit(limits.TRIES)
def password() -> Any:
    """A new password; all other sessions end."""
    me = _me()
    if not passwords.is_right(request.form.get("now", ""), me.password):
        return page({"now": tr("this is not the password in use")}), 422
    try:
        new = passwords.kept(request.form.get("new", ""), me.name, data.shop().name)
    except passwords.PasswordRefused as error:
        return page({"new": str(error)}), 422
    shop.people.set_password(shared.conn(), me.id, new)
    signing.enter(me)
    signing.record_activity("password changed", who=me)
    flash(tr("The password is changed; all other sessions have ended."))
    return redirect(url_for("account.page"), 303)


@bp.post("/account/factor")
@limits.limiter.limit(limits.TRIES)
def factor() -> Any:
    """Set up one-time codes, in two steps, or switch them off."""
    me, wanted = _me(), request.form.get("do", "")
    if wanted == "start" and not me.second_factor:
        shop.people.offer_codes(shared.conn(), me.id, passwords.new_secret())
    elif wanted == "confirm" and (offered := people.offered_factor(shared.conn(), me.id)):
        step = passwords.step_of(request.form.get("code", ""), offered)
        if step is None:
            return page({"code": tr("this is not the code shown now")}), 422
        shop.people.switch_codes_on(shared.conn(), me.id, offered, step)
        signing.record_activity("one-time codes switched on")
        flash(tr("From now on a one-time code is needed too."))
    elif wanted == "off":
        if not passwords.is_right(request.form.get("now", ""), me.password):
            return page({"off": tr("this is not the password in use")}), 422
        shop.people.switch_codes_off(shared.conn(), me.id)
        signing.record_activity("one-time codes switched off")
        flash(tr("No one-time code is needed any more."))
    return redirect(url_for("account.page"), 303)


@bp.post("/sign-out")
def leave() -> Any:
    """End this session."""
    signing.record_activity("signed out")
    signing.leave()
    session.clear()
    return redirect(url_for("sign_in.page"), 303)


@bp.post("/account/sign-out-everywhere")
def leave_all() -> Any:
    """End all of one's sessions, this one too."""
    signing.record_activity("signed out everywhere")
    shop.people.sign_out_everywhere(shared.conn(), _me().id)
    signing.leave()
    session.clear()
    return redirect(url_for("sign_in.page"), 303)


@bp.post("/play")
def play() -> Any:
    """Be another of the demo's people."""
    role = request.form.get("role", "")
    if not shared.settings().demo or role not in ROLES:
        abort(404)
    signing.play(role)
    return redirect(shared.own_address(request.form.get("back", "")), 303)
