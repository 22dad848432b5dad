"""The shop's people: who may come in and as what, their sessions, passwords and one-time codes;
keys for the shop's own site; the trail of what was done.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Callable
from datetime import datetime

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.store import api_keys, people, trail
from jolvek.store import sent_later as late
from jolvek.store.db import transaction
from jolvek.store.people import Person
from jolvek.store.trail import Step

OWNER = "owner"


class NameTaken(JolvekError):
    """Somebody else has that name."""


class Gone(JolvekError):
    """What was asked is there no more."""


def add(conn: sqlite3.Connection, at: str, name: str, shown: str, role: str) -> int:
    """Somebody new, without a password. Raises NameTaken."""
    with transaction(conn) as c:
        return _added(c, at, name, shown, role)


def _added(c: sqlite3.Connection, at: str, name: str, shown: str, role: str) -> int:
    try:
        return people.add(c, name, shown, role, at)
    except sqlite3.IntegrityError:
        raise NameTaken(msg("read “%(name)s”; that name is taken", name=name)) from None


def change(
    conn: sqlite3.Connection, person_id: int, edit: Callable[[Person], tuple[str, bool]]
) -> Person:
    """Give somebody the role that `edit` makes of the one that stands, and whether they may sign
    in. One owner always stays. Raises Gone, JolvekError.
    """
    with transaction(conn) as c:
        who = people.by_id(c, person_id)
        if who is None:
            raise Gone(msg("That person is not here any more."))
        role, active = edit(who)
        last = people.owners(c) == 1 and who.role == OWNER and who.password
        if last and who.active and (role != OWNER or not active):
            raise JolvekError(msg("One owner must stay: make somebody else owner first."))
        people.set_role(c, who.id, role, active)
        changed = people.by_id(c, person_id)
        assert changed is not None
        return changed


def invite(conn: sqlite3.Connection, person_id: int | None, now: datetime) -> str:
    """A one-time token to choose a password by: somebody's, or the first owner's."""
    with transaction(conn) as c:
        return people.invite(c, person_id, now)


def accept_invitation(
    conn: sqlite3.Connection,
    at: str,
    token: str,
    invited: Person | None,
    names: tuple[str, str],
    password: str,
) -> None:
    """Keep the first password of who was invited, or make the first owner (`names`: to sign in, as
    shown). The token and a second factor of before are gone. Raises Gone, NameTaken.
    """
    with transaction(conn) as c:
        if not people.use_up(c, token):
            raise Gone(msg("This address was used already."))
        number = invited.id if invited else _added(c, at, *names, OWNER)
        people.set_password(c, number, password)
        people.set_second_factor(c, number, "")  # whoever lost it sets it up anew


def make_owner(conn: sqlite3.Connection, at: str, name: str, shown: str, password: str) -> None:
    """An owner with a new password, by whoever has the machine."""
    with transaction(conn) as c:
        found = people.by_name(c, name)
        number = found.id if found else _added(c, at, name, shown, OWNER)
        people.set_role(c, number, OWNER, True)
        people.set_password(c, number, password)
        people.set_second_factor(c, number, "")


def play(conn: sqlite3.Connection, at: str, name: str, shown: str, role: str) -> Person:
    """One of the demo's people, made where there is none."""
    with transaction(conn) as c:
        found = people.by_name(c, name)
        number = found.id if found else _added(c, at, name, shown, role)
        people.set_role(c, number, role, True)
        who = people.by_id(c, number)
        assert who is not None
        return who


def set_password(conn: sqlite3.Connection, person_id: int, password: str) -> None:
    """A new password; all sessions end."""
    with transaction(conn) as c:
        people.set_password(c, person_id, password)


def offer_codes(conn: sqlite3.Connection, person_id: int, secret: str) -> None:
    """A secret of one-time codes, to be confirmed by the first code."""
    with transaction(conn) as c:
        people.offer_factor(c, person_id, secret)


def switch_codes_on(conn: sqlite3.Connection, person_id: int, secret: str, step: int) -> None:
    """From now on a one-time code is needed too; that of the time step is used up."""
    with transaction(conn) as c:
        people.set_second_factor(c, person_id, secret)
        people.offer_factor(c, person_id, "")
        people.use_code(c, person_id, step)


def switch_codes_off(conn: sqlite3.Connection, person_id: int) -> None:
    """No one-time code is needed any more."""
    with transaction(conn) as c:
        people.set_second_factor(c, person_id, "")


def use_code(conn: sqlite3.Connection, person_id: int, step: int) -> bool:
    """Take the one-time code of a time step; False where it or a later one was used."""
    with transaction(conn) as c:
        return people.use_code(c, person_id, step)


def set_language(conn: sqlite3.Connection, person_id: int, language: str) -> None:
    """The language of somebody's screens."""
    with transaction(conn) as c:
        people.set_language(c, person_id, language)


def sign_in(
    conn: sqlite3.Connection, person_id: int, now: datetime, address: str, device: str
) -> str:
    """A new session; returns its token."""
    with transaction(conn) as c:
        return people.sign_in(c, person_id, now, address, device)


def sign_out(conn: sqlite3.Connection, token: str) -> None:
    """End a session."""
    with transaction(conn) as c:
        people.sign_out(c, token)


def sign_out_everywhere(conn: sqlite3.Connection, person_id: int) -> None:
    """End all sessions of somebody."""
    with transaction(conn) as c:
        people.sign_out_everywhere(c, person_id)


def know_device(conn: sqlite3.Connection, at: str, person_id: int, token: str) -> None:
    """Somebody signed in from a device."""
    with transaction(conn) as c:
        people.know_device(c, person_id, token, at)


def who_is(
    conn: sqlite3.Connection,
    token: str,
    now: datetime,
    note: Callable[[Callable[[], object]], object],
) -> Person | None:
    """Who has a session; `note` notes that it is used."""
    return people.who_is(conn, token, now, note)


def record(conn: sqlite3.Connection, step: Step, merged_after: str = "") -> None:
    """A step for the trail; joined to one's own like step since a time."""
    with transaction(conn) as c:
        trail.add(c, step, merged_after)


def make_key(conn: sqlite3.Connection, at: str, name: str) -> str:
    """A key for the shop's own site, shown once. Raises JolvekError where there are too many."""
    with transaction(conn) as c:
        if len(api_keys.every(c)) >= api_keys.MOST:
            raise JolvekError(
                msg("%(most)s are there already; take one away first", most=api_keys.MOST)
            )
        return api_keys.make(c, name, at)


def use_key(conn: sqlite3.Connection, key: str, day: str) -> bool:
    """Whether a key is good; the day of its use is noted."""
    return api_keys.use(conn, key, day)


def drop_key(conn: sqlite3.Connection, token: str) -> None:
    """Take a key away."""
    with transaction(conn) as c:
        api_keys.drop(c, token)


def sent(conn: sqlite3.Connection, at: str, op: str) -> None:
    """What a device kept while it had no connection has come; it counts once."""
    with transaction(conn) as c:
        late.add(c, op, at)
