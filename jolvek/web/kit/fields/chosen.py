"""A word of a form that is one of a few."""

from __future__ import annotations

from collections.abc import Collection, Mapping

from flask import abort, request

from jolvek.web.kit.language import tr


def chosen(field: str, allowed: Collection[str], form: Mapping[str, str] | None = None) -> str:
    """What a field of the form that was sent says; refused with 422 where it is none of those
    allowed.
    """
    word = (form or request.form).get(field, "")
    if word not in allowed:
        text = tr(
            "Read “%(word)s”; allowed is one of %(allowed)s.", word=word, allowed=", ".join(allowed)
        )
        abort(422, text)
    return word
