"""Signing in and out, and the guard before every request."""

from __future__ import annotations

import sqlite3
from datetime import UTC, datetime, timedelta
from typing import Any

from flask import (
    Flask,
    Request,
    Response,
    abort,
    current_app,
    g,
    redirect,
    request,
    session,
    url_for,
)
from flask.sessions import SecureCookieSession, SecureCookieSessionInterface
from flask_login import LoginManager, UserMixin, current_user, login_user, logout_user
from itsdangerous import BadSignature

from jolvek import shop
from jolvek.store import trail
from jolvek.store.people import Person
from jolvek.web import data, masked, shared
from jolvek.web.kit import display, language, pages
from jolvek.web.kit.accounts import guessing
from jolvek.web.kit.language import tr
from jolvek.web.saving import now

DEMO_PEOPLE = {  # invented
    "reader": "Jorun Ask",
    "rigger": "Tove Sandvig",
    "advisor": "Eskil Holmgard",
    "owner": "Marit Ferrow",
}


class SessionCookies(SecureCookieSessionInterface):
    """Cookies that are only sent over TLS where the page came over it."""

    def open_session(self, app: Flask, request: Request) -> SecureCookieSession | None:
        """What the cookie holds, whatever the clock says: how long it is good, the database knows.
        By Flask's own reading a clock that was set back would sign everybody out.
        """
        signer = self.get_signing_serializer(app)
        if signer is None:
            return None
        kept = request.cookies.get(self.get_cookie_name(app), "")
        try:
            return self.session_class(signer.loads(kept)) if kept else self.session_class()
        except BadSignature:
            return self.session_class()

    def get_cookie_secure(self, app: Flask) -> bool:
        """Whether this request came by TLS."""
        return request.is_secure


class Here(UserMixin):
    """The person of this request's session."""

    def __init__(self, person: Person, token: str) -> None:
        self.person, self.token = person, token

    def get_id(self) -> str:
        """What the cookie holds: the session's token."""
        return self.token


def set_up(app: Flask) -> None:
    """Sessions by Flask-Login, kept in the database; the guard before every request."""
    app.session_interface = SessionCookies()
    manager = LoginManager(app)
    manager.session_protection = None  # sessions are the database's, revoked there
    manager.user_loader(_of_session)
    app.before_request(guard)
    app.after_request(noted)
    app.after_request(guessing.remember)


def _of_session(token: str) -> Here | None:
    if g.get("plain"):  # the page of a fault asks nothing of the database
        return None
    try:
        person = shop.people.who_is(shared.conn(), token, datetime.now(UTC), data.optional)
    except sqlite3.OperationalError:
        abort(503, "The data cannot be used just now.")
    return Here(person, token) if person else None


def person() -> Person | None:
    """Who is signed in; nobody on the page of a fault."""
    if g.get("plain") or not current_user.is_authenticated:
        return None
    found: Person = current_user.person
    return found


def may(endpoint: str) -> bool:
    """Whether who is signed in may use an address."""
    here = person()
    return pages.may(here.role if here else None, endpoint)


def enter(who: Person) -> None:
    """Start a new session for somebody: nothing of the one before stays but the units."""
    units = session.get("units")
    leave()
    session.clear()
    if units:
        session["units"] = units
    address, device = request.remote_addr or "", request.headers.get("User-Agent", "")
    token = shop.people.sign_in(shared.conn(), who.id, datetime.now(UTC), address, device)
    login_user(Here(who, token))


def leave() -> None:
    """End this session, in the database too."""
    if current_user.is_authenticated:
        shop.people.sign_out(shared.conn(), current_user.token)
        logout_user()


def play(role: str) -> None:
    """Be one of the demo's people."""
    enter(shop.people.play(shared.conn(), now(), f"demo-{role}", DEMO_PEOPLE[role], role))


def guard() -> Any:
    """Default deny: the role that the address asks for, or the way to the sign-in."""
    endpoint = request.endpoint
    if endpoint is None or pages.may(None, endpoint):
        _of_stranger(endpoint or "")
        return None
    if not current_user.is_authenticated and shared.settings().demo:
        play("advisor")
    here = person()
    if here is None:
        return _ask()
    g.known = here.shown
    language.choose("en" if request.path.endswith(AS_DATA) else here.language or _of_shop())
    if not pages.may(here.role, endpoint):
        least = pages.access_to(endpoint) or pages.OWNER
        roles = {"role": tr(here.role), "least": tr(least)}
        abort(403, tr("You are signed in as %(role)s; this is for %(least)s and above.", **roles))
    return None


AS_DATA = (".csv", ".xlsx", ".json")  # what other programs read says the same to all


def _of_shop() -> str:
    """What the shop's own pages speak where nobody chose: as it writes its dates, if they can."""
    mine = display.language_of_shop()
    return mine if mine in language.SCREENS else "en"


def _of_stranger(endpoint: str) -> None:
    """A page that needs no sign-in speaks what its reader's browser asks for, if it can."""
    known = language.LANGUAGES if endpoint.startswith("ask.") else language.SCREENS
    if endpoint != "static" and not endpoint.startswith("api."):
        here = None if endpoint else person()  # of an address that is none
        asked = request.accept_languages.best_match(list(known)) or "en"
        language.choose(here.language or _of_shop() if here else asked)


def _ask() -> Any:
    back = request.full_path if request.method == "GET" else "/"
    way = url_for("sign_in.page", back=back.rstrip("?"))
    if request.headers.get("HX-Request") == "true":
        return Response("Signed out: sign in again.", 401)  # the page asks in place
    if request.method not in ("GET", "HEAD"):
        abort(401, "You are not signed in, or no longer. Sign in and send it again.")
    return redirect(way)


def record_activity(action: str, detail: str = "", who: Person | None = None) -> None:
    """A step for the trail, besides the requests that are noted of themselves."""
    g.activity_recorded = True
    _add(action, detail, who)


def _add(action: str, detail: str, who: Person | None, merged_after: str = "") -> None:
    here = who or person()
    step = trail.Step(
        now(),
        here.shown if here else "",
        here.role if here else "",
        request.remote_addr or "",
        action,
        masked.path()[:300],
        detail=detail[:500],
    )
    shop.people.record(shared.conn(), step, merged_after)


def noted(response: Response) -> Response:
    """Note each change that was made, one's own autosaves of ten minutes as one."""
    endpoint = request.endpoint or ""
    changes = request.method not in ("GET", "HEAD", "OPTIONS") and response.status_code < 400
    if changes and person() and not pages.is_quiet(endpoint) and not g.get("activity_recorded"):
        since = datetime.now(UTC) - timedelta(seconds=trail.MERGED_S)
        merged = since.isoformat(timespec="microseconds") if pages.saves_itself(endpoint) else ""
        try:
            _add(endpoint, "", None, merged)
        except sqlite3.OperationalError as error:  # what was done is done
            current_app.logger.error("not noted: %s %s: %s", request.method, masked.path(), error)
    return response
