"""Sentences that know what they are made of: English to read at once, a message and its values to
say it in another language where it is shown.
"""

from __future__ import annotations

from collections.abc import Iterable
from functools import reduce
from typing import Any


class Message(str):
    """English text with the message it was made from and what fills its named places; `many` and
    `n` where the message goes by number.
    """

    message: str
    many: str
    values: dict[str, Any]


def msg(message: str, /, **values: Any) -> str:
    """A sentence whose named places are filled.

    >>> msg("%(n)s of %(all)s", n=1, all=2), msg("done").message
    ('1 of 2', 'done')
    """
    return _made(message, "", message, values)


def msg_n(one: str, many: str, n: int, /, **values: Any) -> str:
    """The same by number, `n` among its places.

    >>> msg_n("%(n)s person", "%(n)s people", 2)
    '2 people'
    """
    return _made(one, many, one if n == 1 else many, {"n": n, **values})


def msg_all(items: Iterable[str], between: str = ", ") -> str:
    """Things side by side, each of which may be a sentence.

    >>> msg_all(["one", msg("two")])
    'one, two'
    """
    return reduce(lambda a, b: msg(f"%(a)s{between}%(b)s", a=a, b=b), items)


def percent(share: float) -> str:
    """A share as every page writes it.

    >>> percent(0.2)
    '20\xa0%'
    """
    return f"{100 * share:.0f}\u00a0%"


def words(thing: Any, *names: str) -> None:
    """Texts of a record of a table become sentences: to be called as it is made.

    >>> from types import SimpleNamespace
    >>> chair = SimpleNamespace(name="Chair")
    >>> words(chair, "name")
    >>> chair.name.message
    'Chair'
    """
    for name in names:
        text = getattr(thing, name)
        if text and not isinstance(text, Message):
            object.__setattr__(thing, name, msg(text))


def _made(message: str, many: str, english: str, values: dict[str, Any]) -> Message:
    out = Message(english % values if values else english)
    out.message, out.many, out.values = message, many, values
    return out
