"""jolvek-enquiry: a whole enquiry as JSON, for hand-over and for matching on files alone."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from jolvek.core.enquiry.enquiry import Enquiry, as_now, as_plain, from_plain
from jolvek.formats import schema

REST = ("stage", "archived", "setups", "own", "photos")


def read(text: str | bytes) -> Enquiry:
    """An enquiry from JSON text; raises ValueRefused or UnreadableFile with one sentence."""
    return read_whole(text)[0]


def read_whole(text: str | bytes) -> tuple[Enquiry, dict[str, Any]]:
    """The enquiry, and what hangs on it: stage, setups, own gear, names of photos."""
    data = as_now(schema.loads(text))
    schema.check_schema(data, "enquiry")
    return from_plain(data), {key: data[key] for key in REST if key in data}


def write(enquiry: Enquiry, rest: Mapping[str, Any] | None = None) -> dict[str, Any]:
    """The plain data of the format, values not given left out."""
    return {"format": "jolvek-enquiry", "version": 1, **as_plain(enquiry), **(rest or {})}
