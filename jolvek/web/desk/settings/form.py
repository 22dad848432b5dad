"""The shop's settings as entries of a page, and read back from it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields
from typing import Any

from jolvek.core.base import typed_figures
from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.store.shop import Shop
from jolvek.web.kit.language import decimal, tr

LONG = ("address", "terms", "opening", "closing", "thanks", "mail_words")


@dataclass(frozen=True)
class Entry:
    """One entry: its kind is check, pick, long or line."""

    key: str
    label: str
    kind: str
    value: Any
    choices: tuple[str, ...]
    hint: str
    wrong: str


def entries(shop: Shop, typed: Mapping[str, str], refused: Mapping[str, str]) -> dict[str, Any]:
    """The entries by their group, with what was typed where it was refused."""
    out: dict[str, list[Entry]] = {}
    for f in fields(Shop):
        if "label" not in f.metadata:
            continue
        choices = tuple(Shop.CHOICES.get(f.name, ()))
        kind = "check" if f.type == "bool" else "pick" if choices else "line"
        kind = "long" if f.name in LONG else kind
        value = typed.get(f.name, "") if f.name in refused else _shown(getattr(shop, f.name))
        rows = (f.metadata["label"], kind, value, choices, f.metadata["hint"])
        out.setdefault(f.metadata["group"], []).append(
            Entry(f.name, *rows, refused.get(f.name, ""))
        )
    return out


def values(shop: Shop) -> dict[str, Any]:
    """What the entries are filled with."""
    return {f.name: _shown(getattr(shop, f.name)) for f in fields(Shop) if "label" in f.metadata}


def labels() -> dict[str, str]:
    """The entries' labels by name."""
    return {f.name: f.metadata["label"] for f in fields(Shop) if "label" in f.metadata}


def _shown(value: Any) -> Any:
    if isinstance(value, tuple):
        return "; ".join(decimal(f"{x:g}") for x in value)
    return value if isinstance(value, bool | str) else decimal(f"{value:g}")


def read(form: Mapping[str, str], before: Shop) -> tuple[Shop, dict[str, str]]:
    """The settings in a form; what is refused stays as before and is told by its entry."""
    now, refused = before, {}
    for f in fields(Shop):
        if "label" not in f.metadata or (f.name in Shop.CHOICES and f.name not in form):
            continue
        try:
            value = _value(form.get(f.name, "").strip(), str(f.type))
            now = Shop(**{**vars(now), f.name: value})
        except ValueRefused as error:
            refused[f.name] = tr(
                "read “%(name)s”; allowed is %(allowed)s",
                name=form.get(f.name, "")[:60],
                allowed=error.allowed,
            )
        except JolvekError as error:
            refused[f.name] = str(error)
    return now, refused


def _value(text: str, kind: str) -> Any:
    if kind == "bool":
        return bool(text)
    if kind.startswith("tuple"):
        words = [w for part in text.replace("%", "").split(";") if (w := part.strip())]
        return tuple(typed_figures.parse(w, "number", "") for w in words)
    if kind == "str":
        return text.replace("\r\n", "\n")
    value = typed_figures.parse(text or "0", "number", "")
    if kind == "int" and not value.is_integer():
        raise JolvekError(tr("read “%(text)s”; allowed is a whole number", text=text))
    return int(value) if kind == "int" else value
