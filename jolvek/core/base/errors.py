"""One error base for what people type or store; each error makes its own sentence out of its
values.
"""

from __future__ import annotations

from jolvek.core.base.messages import msg


class JolvekError(Exception):
    """Something was read that cannot be used; `str()` is a sentence fit for a user, which a page
    says in its own language.
    """

    def __str__(self) -> str:
        text: object = self.args[0] if self.args else ""
        return text if isinstance(text, str) else str(text)


class ValueRefused(JolvekError):
    """A value lies outside what is allowed.

    >>> print(ValueRefused("hull.length_m", -2, "a number from 1.5 to 15"))
    hull.length_m: read -2, allowed is a number from 1.5 to 15
    """

    def __init__(self, key: str, read: object, allowed: str) -> None:
        self.key, self.read, self.allowed = key, read, allowed
        super().__init__(
            msg(
                "%(key)s: read %(read)s, allowed is %(allowed)s",
                key=key,
                read=repr(read),
                allowed=allowed,
            )
        )
