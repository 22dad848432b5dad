"""Reading JSON against the shipped schemas, with every fault told as key, value read and what is
allowed.
"""

from __future__ import annotations

import json
from functools import cache
from importlib import resources
from typing import Any

from jsonschema import Draft202012Validator
from jsonschema.exceptions import ValidationError, best_match

from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.formats.shelf_schema import shelf_schema

NAMES = ("setup", "shelf", "enquiry", "cost", "trial", "log")


class UnreadableFile(JolvekError):
    """The file is not JSON at all."""


@cache
def schema(name: str) -> dict[str, Any]:
    """The JSON Schema called `name`; raises ValueRefused with the known names."""
    if name not in NAMES:
        raise ValueRefused("schema", name, "one of " + ", ".join(NAMES))
    if name == "shelf":
        return shelf_schema()
    text = (
        resources.files("jolvek.formats")
        .joinpath("schemas", f"{name}.json")
        .read_text(encoding="utf-8")
    )
    found: dict[str, Any] = json.loads(text)
    return found


@cache
def _validator(name: str) -> Draft202012Validator:
    return Draft202012Validator(schema(name))


def loads(text: str | bytes) -> Any:
    """JSON with NaN, Infinity and broken text refused in one sentence."""

    def refuse(word: str) -> None:
        raise UnreadableFile(f"file: read {word}, allowed are finite numbers")

    try:
        found = json.loads(text, parse_constant=refuse)
        json.dumps(found, ensure_ascii=False).encode()
        return found
    except UnicodeEncodeError:
        raise UnreadableFile("file: a text holds half a character, allowed is plain text") from None
    except UnicodeDecodeError as error:
        raise UnreadableFile(
            f"file: not UTF-8 text (byte {error.start}), allowed is JSON in UTF-8"
        ) from None
    except json.JSONDecodeError as error:
        raise UnreadableFile(
            f"file: not JSON, line {error.lineno} column {error.colno}: {error.msg}"
        ) from None
    except ValueError:  # an integer of thousands of digits
        raise UnreadableFile("file: a number is too long, allowed are 300 digits") from None
    except RecursionError:
        raise UnreadableFile(
            "file: nested too deep, allowed is the format of `jolvek schema`"
        ) from None


def check_schema(data: Any, name: str) -> None:
    """Raise ValueRefused for the first fault of `data` against schema `name`."""
    errors = list(_validator(name).iter_errors(data))
    if errors:
        raise refused(best_match(errors) or errors[0])


def refused(error: ValidationError) -> ValueRefused:
    """One schema fault as key, value read, what is allowed."""
    path = ".".join(str(part) for part in error.absolute_path)
    kind, wanted, read = error.validator, error.validator_value, error.instance
    if kind == "required":
        missing = next(key for key in wanted if key not in read)
        return ValueRefused(f"{path}.{missing}".lstrip("."), None, "a value: this key is needed")
    if kind == "additionalProperties":
        extra = next(key for key in read if key not in error.schema.get("properties", {}))
        allowed = ", ".join(error.schema.get("properties", {}))
        return ValueRefused(
            f"{path}.{extra}".lstrip("."), read[extra], f"one of the keys {allowed}"
        )
    return ValueRefused(path or "file", _short(read), _allowed(kind, wanted, error.schema))


def _short(value: Any) -> Any:
    text = json.dumps(value, ensure_ascii=False)
    return value if len(text) <= 60 else text[:57] + "…"


def _allowed(kind: str, wanted: Any, rule: dict[str, Any]) -> str:
    if kind in ("enum", "const"):
        return "one of " + ", ".join(map(str, wanted)) if kind == "enum" else str(wanted)
    low, high = rule.get("minimum", rule.get("exclusiveMinimum")), rule.get("maximum")
    if kind in ("minimum", "maximum", "exclusiveMinimum", "type") and low is not None:
        above = "above " if "exclusiveMinimum" in rule else ""
        return f"a number {above}{low:g}" + (f" to {high:g}" if high is not None else " or more")
    names = {
        "number": "a number",
        "integer": "a whole number",
        "string": "a text",
        "object": "an object",
        "array": "a list",
        "boolean": "true or false",
        "null": "null",
    }
    if kind == "type":
        return " or ".join(
            names.get(w, str(w)) for w in (wanted if isinstance(wanted, list) else [wanted])
        )
    return f"{kind} {wanted}"
