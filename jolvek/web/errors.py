"""What a user sees when something cannot be done: one page, one sentence, never a traceback."""

from __future__ import annotations

import sqlite3
from typing import Any

from flask import Flask, Response, current_app, g, jsonify, render_template, request
from flask_wtf.csrf import CSRFError
from werkzeug.exceptions import HTTPException, RequestEntityTooLarge, SecurityError

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.formats import openapi
from jolvek.web import masked
from jolvek.web.kit.fields import merged
from jolvek.web.kit.language import tr

_BLUEPRINT_REFUSALS: dict[str, Any] = {}


def refuses_large(endpoint: str, refuse: Any) -> None:
    """Let a page tell at its own field that a file was too large."""
    _BLUEPRINT_REFUSALS[endpoint] = refuse


def handle(app: Flask) -> None:
    """Register the handlers."""
    merged.set_up(app)
    app.register_error_handler(RequestEntityTooLarge, _large)
    app.register_error_handler(CSRFError, _csrf)
    app.register_error_handler(JolvekError, _refused)
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(sqlite3.OperationalError, _database)
    app.register_error_handler(Exception, _unexpected)


TITLES = {
    400: msg("Not understood"),
    403: msg("Not allowed"),
    404: msg("Not found"),
    405: msg("Not to be done here"),
    410: msg("Erased"),
    413: msg("Too large"),
    422: msg("Cannot be done"),
    429: msg("Too often"),
}


def _page(title: str, text: str, code: int) -> Any:
    """The one page, or the one sentence of the API; one of a server's fault asks nothing of the
    database.
    """
    g.plain = code >= 500
    if request.path.startswith(openapi.ROOT):
        return jsonify(error=text), code
    return render_template("kit/error.html", title=title, text=text), code


def _large(_error: Exception) -> Any:
    most = (request.max_content_length or 0) / 1e6
    text = tr(
        "the file is larger than %(most)s MB, which is the most allowed here", most=f"{most:g}"
    )
    refuse = _BLUEPRINT_REFUSALS.get(request.endpoint or "")
    if refuse is not None:
        return refuse(text)
    code = 413 if request.path.startswith(openapi.ROOT) else 422
    return _page(tr("Too large"), tr("More than %(most)s MB was sent.", most=f"{most:g}"), code)


def _csrf(_error: Exception) -> Any:
    text = tr(
        "The form was opened in another session. Go back, load the page again, and send it once"
        " more."
    )
    return _page(tr("Form out of date"), text, 400)


def _refused(error: Exception) -> Any:
    """A refusal of something sent is the sender's; one of something kept is a fault of ours."""
    if request.method in ("GET", "HEAD"):
        return _unexpected(error)
    return _page(tr("Cannot be done"), str(error), 422)


def _http(error: Exception) -> Any:
    assert isinstance(error, HTTPException)
    if isinstance(error, SecurityError):  # no page of ours can be made for a host we do not know
        if request.path.startswith(openapi.ROOT):
            return jsonify(error="This address is not one of this shop's."), 400
        return Response(tr("This address is not one of this shop's.\n"), 400, mimetype="text/plain")
    usual = error.code == 404 and error.description == type(error).description
    text = tr("There is nothing at this address.") if usual else str(error.description)
    title = TITLES.get(error.code or 500)
    return _page(tr(title) if title else error.name, text, error.code or 500)


DATABASE = {  # what SQLite says, how it is told, with which status
    "full": (msg("The disk is full: nothing more can be saved until there is room again."), 507),
    "unable to open": (msg("The data cannot be written just now; they can be read."), 503),
    "readonly": (msg("The data cannot be written just now; they can be read."), 503),
    "locked": (msg("Somebody else's work holds the data just now. Try again in a moment."), 503),
}


def why_not_written(error: str) -> str:
    """What a page says on top where the data can only be read; empty where all is well."""
    if not error:
        return ""
    text = next((text for word, (text, _) in DATABASE.items() if word in error), CANNOT)
    return tr("%(text)s What is shown can be read; nothing new is saved.", text=text)


CANNOT = msg("The data cannot be written just now.")


def _database(error: Exception) -> Any:
    """What a database that cannot take a change means for who made it."""
    for word, (text, code) in DATABASE.items():
        if word in str(error):
            current_app.logger.error("%s %s: %s", request.method, masked.path(), error)
            message = tr(
                "%(text)s This change was not saved; what was saved before is there.", text=text
            )
            return _page(tr("Not saved"), message, code)
    return _unexpected(error)


def _unexpected(error: Exception) -> Any:
    g.plain = True
    who = f"{request.method} {masked.path()} by {g.get('known', 'nobody')}, {g.get('request_id')}"
    current_app.logger.exception(who, exc_info=error)
    return _page(
        tr("Something went wrong"), tr("It is logged. Nothing that was kept is lost."), 500
    )
