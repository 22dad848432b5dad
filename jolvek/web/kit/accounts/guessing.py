"""Guessing at passwords: whoever tries one name again and again from unknown devices waits longer
each time. Nobody is locked out: the right password enters, and a known device never waits.
"""

from __future__ import annotations

import secrets
import threading
import time
from collections import defaultdict
from contextlib import suppress
from datetime import UTC, datetime

from flask import Response, abort, g, request

from jolvek import shop
from jolvek.store import people
from jolvek.web import shared
from jolvek.web.kit.language import tr

COOKIE, KEPT_S = "device", 400 * 86_400
FREE, WITHIN_S, LONGEST_S = 8, 900.0, 4.0  # wrong tries that cost nothing; in how long; a wait
_WRONG: dict[str, list[float]] = defaultdict(list)
_LOCK = threading.Lock()
_WAITING = threading.BoundedSemaphore(2)  # requests that may wait at once


def is_known(name: str) -> bool:
    """Whether this device has signed in by that name before."""
    token = request.cookies.get(COOKIE, "")
    return bool(token) and people.knows_device(shared.conn(), name, token)


def wait(name: str) -> None:
    """Wait as long as the wrong tries at a name ask for; refuse where too many wait already."""
    seconds = seconds_for(name)
    if not seconds or is_known(name):
        return
    if not _WAITING.acquire(blocking=False):
        abort(429, tr("Too many people are signing in right now. Try again in a few seconds."))
    try:
        time.sleep(seconds)
    finally:
        _WAITING.release()


def seconds_for(name: str) -> float:
    """How long the next try at a name waits."""
    with _LOCK:
        _WRONG[name] = [t for t in _WRONG[name] if t > time.monotonic() - WITHIN_S]
        over = len(_WRONG[name]) - FREE
        if not _WRONG[name]:
            del _WRONG[name]
    return min(0.25 * 2.0 ** min(over, 8), LONGEST_S) if over >= 0 else 0.0


def was_wrong(name: str) -> None:
    """One more wrong try."""
    with _LOCK:
        _WRONG[name] = [*_WRONG[name][-2 * FREE :], time.monotonic()]
        while len(_WRONG) > 10_000:  # names that nobody has
            del _WRONG[next(iter(_WRONG))]


def was_right(name: str, person_id: int) -> None:
    """Forget the wrong tries and know this device from now on."""
    with _LOCK, suppress(KeyError):
        del _WRONG[name]
    if not is_known(name):
        g.new_device = secrets.token_urlsafe(32)
        now = datetime.now(UTC).isoformat()
        shop.people.know_device(shared.conn(), now, person_id, g.new_device)


def remember(response: Response) -> Response:
    """Leave this device its mark."""
    token = g.get("new_device", "")
    if token:
        more = {"httponly": True, "secure": request.is_secure, "samesite": "Lax"}
        response.set_cookie(COOKIE, token, max_age=KEPT_S, **more)  # type: ignore[arg-type]
    return response


def forget_all() -> None:
    """Forget every wrong try: for tests."""
    with _LOCK:
        _WRONG.clear()
