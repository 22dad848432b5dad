"""The edge of the application: hosts, proxies, headers, limits of the server, what is logged, and
the daily backup.
"""

from __future__ import annotations

import hashlib
import json
import logging
import secrets
import sqlite3
import threading
import time
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from datetime import UTC, date, datetime
from functools import cache
from pathlib import Path
from typing import Any

from flask import Flask, Response, current_app, g, request
from werkzeug.middleware.proxy_fix import ProxyFix

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.store import backups, db
from jolvek.store import shop as settings_store
from jolvek.web import masked
from jolvek.web.desk.care import due as care_kept
from jolvek.web.mailing import post_of
from jolvek.web.settings import Settings

# of waitress: threads, open connections, seconds without a byte, bytes of header and body
SERVER: dict[str, Any] = {
    "threads": 8,
    "connection_limit": 200,
    "channel_timeout": 60,
    "cleanup_interval": 15,
    "max_request_header_size": 32_768,
    "max_request_body_size": 110_000_000,
    "backlog": 256,
}
POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src"
    " 'self'; connect-src 'self'; form-action 'self'; worker-src 'self'; manifest-src"
    " 'self'; base-uri 'none'; frame-ancestors 'none'"
)
HEADERS = {
    "Content-Security-Policy": POLICY,
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Permissions-Policy": "camera=(self), accelerometer=(self), gyroscope=(self), geolocation=(),"
    " microphone=(), payment=(), usb=()",
}
HSTS = "max-age=31536000; includeSubDomains"
LOOPBACK = ("localhost", "127.0.0.1")  # a bare IPv6 address is no host that can be trusted
LOOK_EVERY_S = 600.0

log = logging.getLogger("jolvek")


def set_up(app: Flask, settings: Settings) -> None:
    """Hosts that are answered, proxies that are believed, headers, and a line for each request."""
    app.config["TRUSTED_HOSTS"] = [*LOOPBACK, *settings.host_list]
    if settings.proxies:
        count = settings.proxies
        app.wsgi_app = ProxyFix(app.wsgi_app, count, count, count)  # type: ignore[method-assign]
    app.url_defaults(_hashed)
    app.before_request(_begin)
    app.after_request(_headers)
    app.after_request(_log)


def _begin() -> None:
    g.request_id, g.began = secrets.token_hex(8), time.perf_counter()


@cache
def _digest(folder: str, name: str) -> str:
    path = Path(folder) / name
    return hashlib.sha256(path.read_bytes()).hexdigest()[:12] if path.is_file() else ""


def _hashed(endpoint: str, values: dict[str, Any]) -> None:
    """Static files are asked for by their content's hash, so that they may be kept for ever."""
    if endpoint == "static" and "v" not in values:
        values["v"] = _digest(str(current_app.static_folder), values["filename"])


def _headers(response: Response) -> Response:
    for name, value in HEADERS.items():
        response.headers.setdefault(name, value)
    if request.is_secure:
        response.headers.setdefault("Strict-Transport-Security", HSTS)
    response.headers["X-Request-Id"] = g.get("request_id", "")
    response.vary.add("HX-Request")
    if request.endpoint != "static":
        response.headers.setdefault("Cache-Control", "no-store")
    elif response.status_code == 200 and _is_current():
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
    return response


def _is_current() -> bool:
    """Whether a static file is asked for by the hash that it has now."""
    name = (request.view_args or {}).get("filename", "")
    return request.args.get("v", "-") == _digest(str(current_app.static_folder), name)


def _log(response: Response) -> Response:
    """One line of JSON for each request but those for files: no address's query, no form."""
    if request.endpoint != "static":
        log.info(json.dumps(access_line(response.status_code)))
    return response


def access_line(status: int) -> dict[str, Any]:
    """What a line of the log says of this request."""
    took = time.perf_counter() - g.get("began", time.perf_counter())
    return {
        "at": datetime.now().astimezone().isoformat(timespec="milliseconds"),
        "id": g.get("request_id", ""),
        "from": request.remote_addr,
        "who": g.get("known", ""),
        "method": request.method,
        "path": masked.path(),
        "status": status,
        "ms": round(1000 * took, 1),
    }


def hand_on_mail(settings: Settings) -> None:
    """Hand on what a crash, or a post that was away, left in the outbox."""
    at = datetime.now(UTC).isoformat(timespec="microseconds")
    with closing(db.connect(settings.database)) as conn:
        shop.letters.hand_on(conn, post_of(settings), at)


def keep_care(settings: Settings, today: date) -> None:
    """Work out what is due on boats that changed, or were last looked at on another day."""
    with closing(db.connect(settings.database)) as conn:
        own = settings_store.load(conn, {})
        while care_kept.refresh(conn, own, today):
            pass


@contextmanager
def daily(settings: Settings) -> Iterator[None]:
    """Back the shop up once a day while it serves, by itself; not the demo."""
    over = threading.Event()

    def run() -> None:
        while True:
            try:
                hand_on_mail(settings)
                keep_care(settings, date.today())
                if backups.due(settings.data_dir, datetime.now()):
                    backups.make(settings.data_dir, datetime.now())
            except (JolvekError, sqlite3.Error) as error:
                log.error(json.dumps({"by itself": str(error)}))
            if over.wait(LOOK_EVERY_S):
                return

    keeper = threading.Thread(target=run, name="backup", daemon=True)
    if not settings.demo:
        keeper.start()
    try:
        yield
    finally:
        over.set()
        with suppress(RuntimeError):
            keeper.join(30)
