"""The web application: `create_app`, its safety headers, and the pages it is made of."""

from __future__ import annotations

import importlib
import pkgutil
from typing import Any

from flask import Flask, Response, request
from flask_compress import Compress
from flask_wtf.csrf import CSRFProtect
from werkzeug.routing import IntegerConverter

from jolvek.store import db
from jolvek.web import desk, errors, shared, stations
from jolvek.web.settings import Settings
from jolvek.web.templating import set_up

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


class RowNumber(IntegerConverter):
    """A number in an address that a row can have; larger ones lead nowhere."""

    def __init__(self, url_map: Any) -> None:
        super().__init__(url_map, max=shared.LARGEST_ID)


def create_app(settings: Settings) -> Flask:
    """The application over one data folder; the database is made and migrated here."""
    app = Flask(__name__)
    app.config.update(
        SETTINGS=settings,
        SECRET_KEY=settings.secret_key,
        MAX_CONTENT_LENGTH=settings.max_form_bytes,
        MAX_FORM_MEMORY_SIZE=settings.max_form_bytes,
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_HTTPONLY=True,
        WTF_CSRF_TIME_LIMIT=None,
        SEND_FILE_MAX_AGE_DEFAULT=3600,
        COMPRESS_ALGORITHM=["gzip"],
        COMPRESS_MIMETYPES=COMPRESSED,
    )
    app.url_map.converters["int"] = RowNumber
    settings.data_dir.mkdir(parents=True, exist_ok=True)
    conn = db.connect(settings.database)
    db.migrate(conn)
    conn.close()
    app.before_request(_limit)  # before the token of a form is read, and with it the body
    CSRFProtect(app)
    Compress(app)
    for package in (desk, stations):
        for module in modules(package):
            app.register_blueprint(module.bp)
    set_up(app, settings)
    app.teardown_appcontext(shared.close)
    app.after_request(_headers)
    errors.handle(app)
    return app


def modules(package: Any) -> list[Any]:
    """The modules of a package of pages: to be one is to be in its folder."""
    names = sorted(m.name for m in pkgutil.iter_modules(package.__path__))
    return [importlib.import_module(f"{package.__name__}.{name}") for name in names]


def _limit() -> None:
    """How much a request may send, by what it is for."""
    settings = shared.settings()
    most = {
        "boat.photo": settings.max_photo_bytes,
        "price_lists.preview": settings.max_price_list_bytes,
        "day_out.import_way": settings.max_price_list_bytes,
    }
    request.max_content_length = most.get(request.endpoint or "", settings.max_form_bytes)


def _headers(response: Response) -> Response:
    response.headers.setdefault("Content-Security-Policy", POLICY)
    response.headers.setdefault("X-Content-Type-Options", "nosniff")
    response.headers.setdefault("Referrer-Policy", "same-origin")
    response.headers.setdefault("Cross-Origin-Opener-Policy", "same-origin")
    response.vary.add("HX-Request")
    if not request.path.startswith("/static/"):
        response.headers.setdefault("Cache-Control", "no-store")
    return response
