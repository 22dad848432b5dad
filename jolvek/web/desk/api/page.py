"""Predict and match for a dealer's own site: by key, JSON in and out, nothing kept."""

from __future__ import annotations

from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any, cast

from flask import Blueprint, jsonify, request

from jolvek import __version__, shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.match.matching import match as run_match
from jolvek.formats import enquiry_file, match_file, openapi, setup_file
from jolvek.web.kit import pages
from jolvek.web.kit.accounts.limits import View, limiter
from jolvek.web.kit.matches import shelf_of
from jolvek.web.kit.pages import KEYED, OPEN
from jolvek.web.kit.rates import shop_rates
from jolvek.web.shared import conn

bp = Blueprint("api", __name__, url_prefix=openapi.PREFIX)
pages.add(
    bp,
    {
        "predict": KEYED,
        "match": KEYED,
        "document": OPEN,
    },
)
OFTEN = f"{openapi.PER_MINUTE} per minute"
MOST_SETUPS = 100
WRONG_KEYS = "20 per hour"


def _key() -> str:
    """The key that came along."""
    kind, _, key = request.headers.get("Authorization", "").partition(" ")
    return key.strip() if kind.lower() == "bearer" else ""


def _counted() -> str:
    """What the limit counts by: the key, or the address without one."""
    return _key() or request.remote_addr or ""


def _refused(text: str, code: int) -> Any:
    return jsonify(error=text), code


def _by_address() -> Callable[[View], View]:
    """Keys that are none are counted by address: a new key for each try is a try all the same."""
    made: Any = limiter.limit(WRONG_KEYS, deduct_when=lambda r: r.status_code == 401)
    return cast("Callable[[View], View]", made)


def _answer(work: Any) -> Any:
    """What the work gives for who has a key; every refusal in one sentence."""
    if not shop.people.use_key(conn(), _key(), datetime.now(UTC).date().isoformat()):
        return _refused("key: none, or one that is no longer good", 401)
    try:
        return jsonify(work(request.get_data()))
    except JolvekError as error:
        return _refused(" ".join(str(error).split()), 400)


@bp.post("/predict")
@limiter.limit(OFTEN, key_func=_counted)
@_by_address()
def predict() -> Any:
    """What `jolvek predict` says of a jolvek-setup."""
    return _answer(lambda body: setup_file.answer(setup_file.read(body)))


@bp.post("/match")
@limiter.limit(OFTEN, key_func=_counted)
@_by_address()
def match() -> Any:
    """What `jolvek match` says of a jolvek-enquiry, from the shop's catalogue."""
    most = request.args.get("most", "12")
    if not most.isdecimal() or not 1 <= int(most) <= MOST_SETUPS:
        return _refused(f"most: read {most[:20]!r}, allowed is 1 to {MOST_SETUPS}", 400)

    def work(body: bytes) -> Any:
        found = run_match(enquiry_file.read(body).need, shelf_of(conn()), rates=shop_rates())
        return match_file.answer(found, int(most))

    return _answer(work)


@bp.get("/openapi.json")
def document() -> Any:
    """What may be asked, as an OpenAPI document."""
    return jsonify(openapi.document(__version__))
