"""What a device kept while it had no connection and sends now: whatever comes twice counts once."""

from __future__ import annotations

import re
from typing import Any

from flask import Flask, Response, request

from jolvek import shop
from jolvek.store import sent_later
from jolvek.web.data import conn
from jolvek.web.saving import now

HEADER = "X-Sent-Later"
_OP = re.compile(r"[0-9a-f]{16,60}")


def set_up(app: Flask) -> None:
    """Ask before each request, remember after it."""
    app.before_request(_known)
    app.after_request(_remember)


def _op() -> str:
    op = request.headers.get(HEADER, "")
    return op if request.method == "POST" and _OP.fullmatch(op) else ""


def _known() -> Any:
    op = _op()
    return {"kept": True} if op and sent_later.is_known(conn(), op) else None


def _remember(response: Response) -> Response:
    op = _op()
    if op and response.status_code < 400:
        shop.people.sent(conn(), now(), op)
    return response
