"""The web application: `create_app`, its safety headers, and what every page shares."""

from __future__ import annotations

from typing import Any

from flask import Flask, Response, g, render_template, request
from flask_compress import Compress
from flask_wtf.csrf import CSRFError, CSRFProtect
from werkzeug.exceptions import HTTPException, RequestEntityTooLarge

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.units import hours
from jolvek.store import db
from jolvek.web.drawings import pictures
from jolvek.web.drawings.boat_drawing import silhouette
from jolvek.web.drawings.charts import badge
from jolvek.web.settings import Settings
from jolvek.web.view import display

POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src"
    " 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
)


COMPRESSED = [
    "text/html",
    "text/css",
    "text/javascript",
    "application/javascript",
    "application/json",
    "image/svg+xml",
    "text/csv",
]


def create_app(settings: Settings) -> Flask:
    """The application over one data folder; the database is made and migrated here."""
    app = Flask(__name__)
    app.config.update(
        SETTINGS=settings,
        SECRET_KEY=settings.secret_key,
        MAX_CONTENT_LENGTH=settings.max_upload_bytes,
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_HTTPONLY=True,
        WTF_CSRF_TIME_LIMIT=None,
        SEND_FILE_MAX_AGE_DEFAULT=3600,
        COMPRESS_ALGORITHM=["gzip"],
        COMPRESS_MIMETYPES=COMPRESSED,
    )
    app.jinja_env.trim_blocks = app.jinja_env.lstrip_blocks = True
    settings.data_dir.mkdir(parents=True, exist_ok=True)
    conn = db.connect(settings.database)
    db.migrate(conn)
    conn.close()
    CSRFProtect(app)
    Compress(app)
    _blueprints(app)
    _templates(app, settings)
    app.teardown_appcontext(_close)
    app.after_request(_headers)
    _errors(app)
    return app


def _blueprints(app: Flask) -> None:
    from jolvek.web.desk import choices, counter, patterns, rules, shelf
    from jolvek.web.stations import (
        boat,
        by_hand,
        day_out,
        fitting,
        offer,
        shortlist,
        side_by_side,
        waters,
    )

    for module in (
        counter,
        boat,
        waters,
        shelf,
        shortlist,
        by_hand,
        side_by_side,
        day_out,
        fitting,
        offer,
        rules,
        patterns,
        choices,
    ):
        app.register_blueprint(module.bp)


def _templates(app: Flask, settings: Settings) -> None:
    app.jinja_env.globals.update(
        silhouette=silhouette,
        badge=badge,
        money=display.money,
        dealer=settings.dealer,
        is_demo=settings.demo,
        strong=display.strong,
        about=display.about,
        choices=display.CHOICES,
    )
    app.jinja_env.globals.update(
        side_view_of=pictures.card_view,
        wide_view_of=pictures.wide_view,
        floating=pictures.floating,
        plan_of=pictures.plan,
        hull_speed=pictures.hull_speed,
        plain_name=display.plain_name,
        plain_rule=display.plain_rule,
    )
    app.jinja_env.filters.update(
        hours=hours,
        long_hours=display.long_hours,
        zip=zip,
        key_words=display.key_words,
        key_unit=display.key_unit,
        plain_value=display.plain_value,
    )

    @app.context_processor
    def _shared() -> dict[str, Any]:
        return {"u": display.current(), "theme": request.cookies.get("theme", "")}


def conn() -> Any:
    """The request's database connection."""
    if "conn" not in g:
        from flask import current_app

        g.conn = db.connect(current_app.config["SETTINGS"].database)
    return g.conn


def _close(_error: BaseException | None) -> None:
    opened = g.pop("conn", None)
    if opened is not None:
        opened.close()


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


def _headers(response: Response) -> Response:
    response.headers.setdefault("Content-Security-Policy", POLICY)
    response.headers.setdefault("X-Content-Type-Options", "nosniff")
    response.headers.setdefault("Referrer-Policy", "same-origin")
    response.headers.setdefault("Cross-Origin-Opener-Policy", "same-origin")
    response.vary.add("HX-Request")
    if not request.path.startswith("/static/"):
        response.headers.setdefault("Cache-Control", "no-store")
    return response


def _errors(app: Flask) -> None:
    def page(title: str, text: str, code: int) -> tuple[str, int]:
        return render_template("error.html", title=title, text=text), code

    @app.errorhandler(RequestEntityTooLarge)
    def _large(_error: RequestEntityTooLarge) -> Any:
        limit = app.config["MAX_CONTENT_LENGTH"] // 1000
        if request.endpoint == "counter.open_file":
            from jolvek.web.desk.counter import refuse_file

            return refuse_file(
                f"the file is larger than {limit} kB, which is the most an enquiry file may have"
            )
        if request.endpoint == "shelf.preview":
            from jolvek.web.desk.shelf import MOST_UPLOAD, refuse

            return refuse(
                f"the file is larger than {MOST_UPLOAD // 1_000_000} MB, which is the most a price"
                " list may have; split it"
            )
        return page("Too large", f"More than {limit} kB was sent.", 422)

    @app.errorhandler(CSRFError)
    def _csrf(error: CSRFError) -> Any:
        return page(
            "Form out of date",
            "The form was opened in another session. Go back, load the page again, and send it once"
            " more.",
            400,
        )

    @app.errorhandler(JolvekError)
    def _refused(error: JolvekError) -> Any:
        return page("Cannot be done", str(error), 422)

    @app.errorhandler(HTTPException)
    def _http(error: HTTPException) -> Any:
        text = "There is nothing at this address." if error.code == 404 else str(error.description)
        return page(error.name, text, error.code or 500)

    @app.errorhandler(Exception)
    def _unexpected(error: Exception) -> Any:
        app.logger.exception("unexpected", exc_info=error)
        return page(
            "Something went wrong", "It is logged. Nothing that was shown as kept is lost.", 500
        )
