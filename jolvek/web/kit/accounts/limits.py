"""How often one address may ask: in memory of the process, reset when it starts anew."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, TypeVar, cast

from flask import Response, request
from flask_limiter import Limiter
from flask_limiter.util import get_remote_address

View = TypeVar("View", bound=Callable[..., Any])
TRIES = "10 per minute; 60 per hour"  # to sign in, from one address

OF_ONE = "12 per hour; 30 per day; 120 per 30 days"  # what one offer or boat takes, from anywhere
OF_SHOP = "40 per hour; 150 per day"  # what the shop's own page takes, from anywhere

limiter = Limiter(get_remote_address, storage_uri="memory://", headers_enabled=False)


def of_token() -> str:
    """The offer, boat or letter that an address is of, whoever sends."""
    return f"of {(request.view_args or {}).get('token', '')}"


def was_taken(response: Response) -> bool:
    """Whether something was kept: what was refused counts for nobody."""
    return response.status_code < 400


def of_one() -> Callable[[View], View]:
    """A limit on what one offer or boat takes, beside those by address."""
    made: Any = limiter.limit(OF_ONE, key_func=of_token, deduct_when=was_taken)
    return cast("Callable[[View], View]", made)


def of_shop() -> Callable[[View], View]:
    """The same for the whole shop."""
    made: Any = limiter.limit(OF_SHOP, key_func=lambda: "shop", deduct_when=was_taken)
    return cast("Callable[[View], View]", made)


def name_asked() -> str:
    """The name in a sign-in form, in small letters."""
    return (request.form.get("name") or "")[:200].strip().casefold()
