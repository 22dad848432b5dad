"""The web application: `create_app`, its safety headers, and the pages it is made of."""

from __future__ import annotations

import importlib
import pkgutil
import zlib
from typing import Any

from flask import Blueprint, Flask, request
from flask_compress import Compress
from flask_wtf.csrf import CSRFProtect
from werkzeug.routing import IntegerConverter

from jolvek.store import db
from jolvek.web import data, desk, edge, errors, following, public, sent_later, shared, stations
from jolvek.web.kit import pages
from jolvek.web.kit.accounts import limits, signing
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
    app = Flask(__name__, template_folder=".")  # templates lie beside the code of their page
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
    csrf.exempt("jolvek.web.desk.api.page.predict")  # a key, not a cookie, says who asks
    csrf.exempt("jolvek.web.desk.api.page.match")
    Compress(app)
    for package in (desk, stations, public):
        for bp in blueprints(package):
            app.register_blueprint(bp)
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


def blueprints(package: Any) -> list[Blueprint]:
    """Those of a package's folders: to be a page is to lie in its folder."""
    names = sorted(m.name for m in pkgutil.walk_packages(package.__path__, f"{package.__name__}."))
    found = (getattr(importlib.import_module(name), "bp", None) for name in names)
    return [bp for bp in found if bp is not None]


def _limit() -> None:
    """How much a request may send, by what it is for."""
    settings = shared.settings()
    request.max_content_length = pages.most_bytes(request.endpoint or "", settings)
