"""The web application: `create_app`, its safety headers, and the pages it is made of."""

from __future__ import annotations

import importlib
import pkgutil
import zlib
from typing import Any

from flask import Flask, request
from flask_compress import Compress
from flask_wtf.csrf import CSRFProtect
from werkzeug.routing import IntegerConverter

from jolvek.store import db
from jolvek.web import data, desk, edge, errors, following, sent_later, shared, stations
from jolvek.web.accounts import limits, signing
from jolvek.web.settings import Settings
from jolvek.web.templating import set_up

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
        SESSION_COOKIE_NAME=cookie_name(settings),
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_HTTPONLY=True,
        WTF_CSRF_TIME_LIMIT=None,
        SEND_FILE_MAX_AGE_DEFAULT=3600,
        COMPRESS_ALGORITHM=["br", "gzip"],
        COMPRESS_MIMETYPES=COMPRESSED,
    )
    app.url_map.converters["int"] = RowNumber
    settings.data_dir.mkdir(mode=0o700, parents=True, exist_ok=True)
    db.ready(settings.database)
    db.shut_to_others(settings.data_dir)
    edge.set_up(app, settings)
    app.before_request(_limit)  # before the token of a form is read, and with it the body
    signing.set_up(app)
    sent_later.set_up(app)
    limits.limiter.init_app(app)
    csrf = CSRFProtect(app)
    csrf.exempt("jolvek.web.desk.api.predict")  # a key, not a cookie, says who asks
    csrf.exempt("jolvek.web.desk.api.match")
    Compress(app)
    for package in (desk, stations):
        for module in modules(package):
            app.register_blueprint(module.bp)
    set_up(app, settings)
    following.set_up(app)
    app.teardown_appcontext(data.close)
    errors.handle(app)
    return app


def cookie_name(settings: Settings) -> str:
    """The session's cookie, by data folder: cookies know no ports, and a shop and a demo on the
    same machine must not sign each other out.
    """
    return f"jolvek-{zlib.crc32(str(settings.data_dir.resolve()).encode()):08x}"


def modules(package: Any) -> list[Any]:
    """The modules of a package of pages: to be one is to be in its folder."""
    names = sorted(m.name for m in pkgutil.iter_modules(package.__path__))
    return [importlib.import_module(f"{package.__name__}.{name}") for name in names]


def _limit() -> None:
    """How much a request may send, by what it is for."""
    settings = shared.settings()
    most = {
        "boat.photo": settings.max_photo_bytes,
        "shop.logo": settings.max_photo_bytes,
        "exchange.unpack": 100_000_000,
        "ask.send": 2 * settings.max_photo_bytes,
        "price_lists.preview": settings.max_price_list_bytes,
        "day_out.import_way": settings.max_price_list_bytes,
        "trial.from_file": settings.max_price_list_bytes,
        "handover.step": settings.max_photo_bytes,
        "after_log.from_file": settings.max_price_list_bytes,
        "after_parts.fault": settings.max_photo_bytes,
        "boat_page.fault": settings.max_photo_bytes,
    }
    request.max_content_length = most.get(request.endpoint or "", settings.max_form_bytes)
