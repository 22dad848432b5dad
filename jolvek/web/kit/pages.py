"""What a module of pages says of itself: who may use which address, what may be sent to it beyond a
form, which save is made while one types, and whether it changes a job. What no page declares is
refused; a test holds the declarations against the application's addresses.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from flask import Blueprint

from jolvek.store.people import ROLES
from jolvek.web.settings import Settings

OPEN = "open"  # without sign-in
KEYED = "key"  # for the dealer's own site, by a key that the page itself asks for
READER, RIGGER, ADVISOR, OWNER = ROLES
Limit = Callable[[Settings], int]  # in bytes


def PHOTO(s: Settings) -> int:  # noqa: N802
    """One photo."""
    return s.max_photo_bytes


def TWO_PHOTOS(s: Settings) -> int:  # noqa: N802
    """A form with a few photos."""
    return 2 * s.max_photo_bytes


def PRICE_LIST(s: Settings) -> int:  # noqa: N802
    """A price list, a log or a track."""
    return s.max_price_list_bytes


def PACKED_SHOP(_: Settings) -> int:  # noqa: N802
    """A whole shop."""
    return 100_000_000


@dataclass(frozen=True)
class Page:
    """What one module of pages declares, by the names of its functions."""

    access: Mapping[str, str]
    limits: Mapping[str, Limit] = field(default_factory=dict)
    saves_itself: str = ""
    quiet: str = ""  # leaves nothing behind that others see
    changes_job: bool = False


_PAGES: dict[str, Page] = {}
_NONE = Page({})


def add(
    bp: Blueprint,
    access: Mapping[str, str],
    *,
    limits: Mapping[str, Limit] | None = None,
    saves_itself: str = "",
    quiet: str = "",
    changes_job: bool = False,
) -> None:
    """Declare a module's pages."""
    _PAGES[bp.name] = Page(access, limits or {}, saves_itself, quiet, changes_job)


def _of(endpoint: str) -> tuple[Page, str]:
    name, _, function = endpoint.partition(".")
    return _PAGES.get(name, _NONE), function


def every() -> dict[str, str]:
    """Every address that is declared, with who may use it."""
    rows = {f"{bp}.{name}": least for bp, p in _PAGES.items() for name, least in p.access.items()}
    return {"static": OPEN, **rows}


def access_to(endpoint: str) -> str | None:
    """Who may use an address; None where no page declares it."""
    page, function = _of(endpoint)
    return OPEN if endpoint == "static" else page.access.get(function)


def may(role: str | None, endpoint: str) -> bool:
    """Whether a role, or nobody (None), may use an address; an owner may what an advisor may."""
    least = access_to(endpoint)
    if least in (OPEN, KEYED):
        return True
    return least is not None and role in ROLES and ROLES.index(role) >= ROLES.index(least)


def most_bytes(endpoint: str, settings: Settings) -> int:
    """How much a request may send, by what it is for."""
    page, function = _of(endpoint)
    limit = page.limits.get(function)
    return limit(settings) if limit else settings.max_form_bytes


def saves_itself(endpoint: str) -> bool:
    """Whether an address saves while one types."""
    page, function = _of(endpoint)
    return bool(function) and function == page.saves_itself


def is_quiet(endpoint: str) -> bool:
    """Whether what an address does leaves nothing behind that others see."""
    page, function = _of(endpoint)
    return bool(function) and function == page.quiet


def changes_job(endpoint: str) -> bool:
    """Whether an address is of a page that changes a job."""
    return _of(endpoint)[0].changes_job
