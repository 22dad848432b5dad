"""jolvek-enquiry: a whole enquiry as JSON, for hand-over and for matching on files alone."""

from __future__ import annotations

from typing import Any

from jolvek.core.enquiry.enquiry import Enquiry, as_plain, from_plain
from jolvek.formats import schema


def read(text: str | bytes) -> Enquiry:
    """An enquiry from JSON text; raises ValueRefused or UnreadableFile with one sentence."""
    data = schema.loads(text)
    schema.check_schema(data, "enquiry")
    return from_plain(data)


def write(enquiry: Enquiry) -> dict[str, Any]:
    """The plain data of the format, values not given left out."""
    return {"format": "jolvek-enquiry", "version": 1, **as_plain(enquiry)}
