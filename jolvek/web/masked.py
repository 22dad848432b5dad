"""What is written down of an address: never the secret that stands in it."""

from __future__ import annotations

import re

from flask import request

SECRETS = ("token", "name")  # parts of rules; a photo's name is one that nobody guesses
_WAYS = re.compile(r"^/(o|b|welcome|care/feed|feed)/[^/]+")


def path() -> str:
    """The path of this request with its secrets masked by what they are."""
    rule, known = request.url_rule, request.view_args or {}
    if rule is None:
        return _WAYS.sub(r"/\1/<token>", request.path)
    out = request.path
    for key in SECRETS:
        if known.get(key):
            out = out.replace(f"/{known[key]}", f"/<{key}>")
    return out
