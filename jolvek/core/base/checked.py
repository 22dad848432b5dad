"""Checking what a record may hold: ranges, choices and texts as data beside its fields.

A record lists them in `RANGES`, `CHOICES`, `TEXTS` and `COUNTS`; forms, schemas and the database's
own checks are held to the same figures by tests.
"""

from __future__ import annotations

import re
from calendar import monthrange
from collections.abc import Collection, Mapping
from typing import Any

from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg

Ranges = Mapping[str, tuple[float, float]]
Choices = Mapping[str, Collection[str]]
Counts = Mapping[str, int]
_DATE = re.compile(r"(\d{4})-(\d{2})-(\d{2})")


def check(thing: Any, prefix: str) -> None:
    """Raise ValueRefused for the first field of a record that holds what it may not.

    >>> from types import SimpleNamespace
    >>> check(SimpleNamespace(RANGES={"mass_kg": (1, 5)}, mass_kg=9.0), "pack")
    Traceback (most recent call last):
    ...
    jolvek.core.base.errors.ValueRefused: pack.mass_kg: read 9.0, allowed is 1 to 5
    """
    for key, most in getattr(thing, "COUNTS", {}).items():
        if len(getattr(thing, key)) > most:
            raise ValueRefused(
                f"{prefix}.{key}", len(getattr(thing, key)), msg("at most %(most)s", most=most)
            )
    for key, (low, high) in getattr(thing, "RANGES", {}).items():
        given = getattr(thing, key)
        for value in given if isinstance(given, tuple) else () if given is None else (given,):
            if isinstance(value, str) or not low <= value <= high:
                raise ValueRefused(f"{prefix}.{key}", value, f"{low:g} to {high:g}")
    for key, known in getattr(thing, "CHOICES", {}).items():
        given = getattr(thing, key)
        for value in given if isinstance(given, tuple) else (given,):
            if value not in known:
                raise ValueRefused(f"{prefix}.{key}", value, msg("one of ") + ", ".join(known))
    for key, most in getattr(thing, "TEXTS", {}).items():
        given = getattr(thing, key)
        for value in given if isinstance(given, tuple) else (given,):
            text(f"{prefix}.{key}", value, most)


def text(key: str, value: str, most: int) -> None:
    """Raise ValueRefused for a text that is too long, or holds what no file and no page can keep.

    >>> text("title", "\\ud800", 10)
    Traceback (most recent call last):
    ...
    jolvek.core.base.errors.ValueRefused: title: read '\\ud800', allowed is plain text
    """
    if len(value) > most:
        raise ValueRefused(key, value[:40] + "…", msg("at most %(most)s characters", most=most))
    if "\x00" in value or any("\ud800" <= letter <= "\udfff" for letter in value):
        raise ValueRefused(key, value, msg("plain text"))


def date(key: str, value: str) -> None:
    """Raise ValueRefused for what is no day of the calendar, ISO, from 1900 to 2200.

    >>> date("date", "2026-02-30")
    Traceback (most recent call last):
    ...
    jolvek.core.base.errors.ValueRefused: date: read '2026-02-30', allowed is a day as 2026-07-01
    """
    found = _DATE.fullmatch(value)
    year, month, day = map(int, found.groups()) if found else (0, 0, 0)
    if not (1900 <= year <= 2200 and 1 <= month <= 12 and 1 <= day <= monthrange(year, month)[1]):
        raise ValueRefused(key, value, msg("a day as 2026-07-01"))
