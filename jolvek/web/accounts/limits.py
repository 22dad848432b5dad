"""How often one address may ask: in memory of the process, reset when it starts anew."""

from __future__ import annotations

from flask import request
from flask_limiter import Limiter
from flask_limiter.util import get_remote_address

TRIES = "10 per minute; 60 per hour"  # to sign in, from one address
WRONG = "8 per 15 minutes"  # for one name, from anywhere

limiter = Limiter(get_remote_address, storage_uri="memory://", headers_enabled=False)


def name_asked() -> str:
    """The name in a sign-in form, in small letters."""
    return (request.form.get("name") or "")[:200].strip().casefold()
