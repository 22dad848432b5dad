"""Passwords and one-time codes: how they are kept, and which ones are good enough."""

from __future__ import annotations

import time

import pyotp
from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.web.kit.language import tr

LEAST, MOST = 12, 128  # characters
GOOD = 3  # zxcvbn's score: more than 10^8 guesses
STEP_S = 30  # of one-time codes, RFC 6238

_HASHER = PasswordHasher()
_NOBODY = _HASHER.hash(msg("nobody signs in with this"))  # so that unknown names take as long


class PasswordRefused(JolvekError):
    """A password that is not good enough."""


def kept(password: str, name: str, shop: str) -> str:
    """The argon2id hash of a password that is good enough for the person of that name.

    Raises PasswordRefused: shorter than 12 characters, among the common ones of zxcvbn's lists, or
    easily guessed from name and shop.
    """
    if not LEAST <= len(password) <= MOST:
        raise PasswordRefused(
            tr(
                "read %(password)s characters; allowed is %(least)s to %(most)s",
                password=len(password),
                least=LEAST,
                most=MOST,
            )
        )
    from zxcvbn import zxcvbn  # its lists take a while to read

    found = zxcvbn(password[:72], user_inputs=[name, shop, "jolvek"])
    if found["score"] < GOOD:
        why = found["feedback"]["warning"] or tr("it is easily guessed")
        raise PasswordRefused(
            tr("%(rstrip)s: take a few words that do not belong together", rstrip=why.rstrip("."))
        )
    return _HASHER.hash(password)


def is_right(password: str, hashed: str) -> bool:
    """Whether a password is the one kept; takes as long where none is kept."""
    try:
        return _HASHER.verify(hashed or _NOBODY, password[:MOST]) and bool(hashed)
    except (VerificationError, InvalidHashError):
        return False


def new_secret() -> str:
    """A secret for one-time codes."""
    return pyotp.random_base32()


def provisioning(secret: str, name: str, shop: str) -> str:
    """The address that an authenticator reads from a QR code."""
    return pyotp.TOTP(secret).provisioning_uri(
        name=name, issuer_name=tr("Jolvek, %(shop)s", shop=shop)
    )


def step_of(code: str, secret: str, now_s: float | None = None) -> int | None:
    """The time step that a one-time code is right for, one early or late allowed; None: wrong.

    >>> secret = 2 * "JBSWY3DPEHPK3PXP"
    >>> step_of("000000", secret, 30.0) is None, step_of("503347", secret, 30.0)
    (True, 1)
    """
    now = int((time.time() if now_s is None else now_s) // STEP_S)
    clean = "".join(c for c in code if c in "0123456789")
    totp = pyotp.TOTP(secret)
    for step in (now, now - 1, now + 1):
        if pyotp.utils.strings_equal(totp.at(step * STEP_S), clean):
            return step
    return None
