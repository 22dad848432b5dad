"""Signed addresses that need no sign-in: a boat's own page, a calendar, a recall's answer. Each is
of one thing, and shut by counting its number on.
"""

from __future__ import annotations

from flask import abort
from itsdangerous import BadData, URLSafeSerializer

from jolvek.core.base.messages import msg
from jolvek.store import owners
from jolvek.web import shared

KINDS = ("boat", "calendar", "recall")
LOST = msg("This address is no longer good. Ask the shop for a new one.")


def _signer(kind: str) -> URLSafeSerializer:
    return URLSafeSerializer(shared.settings().secret_key, salt=f"jolvek-{kind}")


def token(kind: str, of_id: int) -> str:
    """The token that is good now for one thing (0: the whole shop)."""
    return str(_signer(kind).dumps([of_id, owners.number_of(shared.conn(), kind, of_id)]))


def of_token(kind: str, text: str) -> int:
    """What a token is for; 404 where it is not good, or no longer."""
    try:
        result = _signer(kind).loads(text)
        of_id, number = int(result[0]), int(result[1])
    except (BadData, TypeError, ValueError, IndexError, KeyError):
        abort(404, LOST)
    if number != owners.number_of(shared.conn(), kind, of_id):
        abort(404, LOST)
    return of_id
