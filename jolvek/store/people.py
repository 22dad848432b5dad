"""People of the shop, who is signed in where, and one-time addresses; secrets are kept hashed."""

from __future__ import annotations

import hashlib
import secrets
import sqlite3
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta

from jolvek.store.columns import select

ROLES = ("reader", "rigger", "advisor", "owner")  # each may what those before it may
IDLE, LONGEST = timedelta(hours=12), timedelta(days=14)
SEEN_EVERY = timedelta(minutes=1)  # a session's last use is written no oftener
INVITED = timedelta(hours=48)
PERSON = (
    *("id", "name", "shown", "role", "password", "second_factor", "factor_step", "active"),
    "language",
)


@dataclass(frozen=True)
class Person:
    """One of the shop's people; `password` is an argon2 hash, empty until one is chosen."""

    id: int
    name: str  # to sign in with
    shown: str
    role: str
    password: str
    second_factor: str  # the secret of a one-time code; empty: none
    factor_step: int  # the last one-time code's step that was used
    active: bool
    language: str = ""  # of the screens; empty: the shop's


@dataclass(frozen=True)
class SignedIn:
    """One session: whose, since when, last used, from where."""

    token: str
    person_id: int
    made_at: str
    seen_at: str
    address: str
    device: str


def hashed(token: str) -> str:
    """What is kept of a secret token.

    >>> len(hashed("x"))
    64
    """
    return hashlib.sha256(token.encode("utf-8", "surrogatepass")).hexdigest()


def _person(row: sqlite3.Row | None) -> Person | None:
    return Person(**{**dict(row), "active": bool(row["active"])}) if row else None


def by_name(conn: sqlite3.Connection, name: str) -> Person | None:
    """The person who signs in by that name, in capitals or not."""
    sql = select("person", PERSON, "WHERE name = :name")
    return _person(conn.execute(sql, {"name": name}).fetchone())


def by_id(conn: sqlite3.Connection, person_id: int) -> Person | None:
    """The person of that number."""
    sql = select("person", PERSON, "WHERE id = :id")
    return _person(conn.execute(sql, {"id": person_id}).fetchone())


def everybody(conn: sqlite3.Connection) -> list[Person]:
    """All people, by the name shown."""
    rows = conn.execute(select("person", PERSON, "ORDER BY active DESC, shown COLLATE NOCASE"))
    return [p for row in rows if (p := _person(row))]


def owners(conn: sqlite3.Connection) -> int:
    """How many may sign in as owner."""
    sql = "SELECT count(*) FROM person WHERE role = 'owner' AND active AND password <> ''"
    return int(conn.execute(sql).fetchone()[0])


def add(conn: sqlite3.Connection, name: str, shown: str, role: str, at: str) -> int:
    """A new person without a password; raises sqlite3.IntegrityError where the name is taken."""
    row = conn.execute(
        "INSERT INTO person (name, shown, role, made_at) VALUES (:name, :shown, :role, :at)"
        " RETURNING id",
        {"name": name, "shown": shown, "role": role, "at": at},
    ).fetchone()
    return int(row["id"])


def set_password(conn: sqlite3.Connection, person_id: int, password: str) -> None:
    """Keep a new hash; all sessions and one-time addresses of the person end."""
    key = {"id": person_id, "password": password}
    conn.execute("UPDATE person SET password = :password WHERE id = :id", key)
    conn.execute("DELETE FROM invitation WHERE person_id = :id", key)
    sign_out_everywhere(conn, person_id)


def set_second_factor(conn: sqlite3.Connection, person_id: int, secret: str) -> None:
    """The secret of one-time codes; empty switches them off."""
    conn.execute(
        "UPDATE person SET second_factor = :secret, factor_step = 0 WHERE id = :id",
        {"id": person_id, "secret": secret},
    )


def use_code(conn: sqlite3.Connection, person_id: int, step: int) -> bool:
    """Take the code of a time step, once: False where it or a later one was used."""
    done = conn.execute(
        "UPDATE person SET factor_step = :step WHERE id = :id AND factor_step < :step",
        {"id": person_id, "step": step},
    )
    return done.rowcount == 1


def set_language(conn: sqlite3.Connection, person_id: int, language: str) -> None:
    """The screens speak it from now on; one the table does not know is refused there."""
    conn.execute(
        "UPDATE person SET language = :language WHERE id = :id",
        {"id": person_id, "language": language},
    )


def set_role(conn: sqlite3.Connection, person_id: int, role: str, active: bool) -> None:
    """What a person may do, and whether at all; one who may not is signed out at once."""
    conn.execute(
        "UPDATE person SET role = :role, active = :active WHERE id = :id",
        {"id": person_id, "role": role, "active": int(active)},
    )
    if not active:
        conn.execute("DELETE FROM invitation WHERE person_id = :id", {"id": person_id})
        sign_out_everywhere(conn, person_id)


def invite(conn: sqlite3.Connection, person_id: int | None, now: datetime) -> str:
    """A one-time token to choose a password with; for None, to become the first owner."""
    token = secrets.token_urlsafe(24)
    conn.execute("DELETE FROM invitation WHERE person_id IS :id", {"id": person_id})
    conn.execute(
        "INSERT INTO invitation (token, person_id, until) VALUES (:token, :id, :until)",
        {"token": hashed(token), "id": person_id, "until": (now + INVITED).isoformat()},
    )
    return token


def invited(conn: sqlite3.Connection, token: str, now: datetime) -> tuple[bool, Person | None]:
    """Whether a one-time token is good, and for whom; nobody is the first owner to be."""
    row = conn.execute(
        "SELECT person_id, until FROM invitation WHERE token = :token", {"token": hashed(token)}
    ).fetchone()
    if row is None or row["until"] < now.isoformat():
        return False, None
    if row["person_id"] is None:
        return owners(conn) == 0, None
    person = by_id(conn, row["person_id"])
    return bool(person and person.active), person


def use_up(conn: sqlite3.Connection, token: str) -> bool:
    """Take a one-time token; False where somebody else just did."""
    done = conn.execute("DELETE FROM invitation WHERE token = :token", {"token": hashed(token)})
    return done.rowcount == 1


def sign_in(
    conn: sqlite3.Connection, person_id: int, now: datetime, address: str, device: str
) -> str:
    """A new session; gives its token, which is not kept. Those past their time are cleared away."""
    token = secrets.token_urlsafe(32)
    old = {"idle": (now - IDLE).isoformat(), "longest": (now - LONGEST).isoformat()}
    conn.execute("DELETE FROM signed_in WHERE seen_at < :idle OR made_at < :longest", old)
    conn.execute(
        "INSERT INTO signed_in (token, person_id, made_at, seen_at, address, device) VALUES"
        " (:token, :id, :at, :at, :address, :device)",
        {
            "token": hashed(token),
            "id": person_id,
            "at": now.isoformat(),
            "address": address[:64],
            "device": device[:200],
        },
    )
    return token


def who_is(
    conn: sqlite3.Connection,
    token: str,
    now: datetime,
    note: Callable[[Callable[[], object]], object] = lambda write: write(),
) -> Person | None:
    """The active person of a session that has not run out; its use is noted by `note`."""
    row = conn.execute(
        "SELECT person_id, made_at, seen_at FROM signed_in WHERE token = :token",
        {"token": hashed(token)},
    ).fetchone()
    if row is None or row["made_at"] < (now - LONGEST).isoformat():
        return None
    if row["seen_at"] < (now - IDLE).isoformat():
        return None
    if row["seen_at"] < (now - SEEN_EVERY).isoformat():
        sql = "UPDATE signed_in SET seen_at = :now WHERE token = :token"
        values = {"now": now.isoformat(), "token": hashed(token)}
        note(lambda: conn.execute(sql, values))
    person = by_id(conn, row["person_id"])
    return person if person and person.active else None


def knows_device(conn: sqlite3.Connection, name: str, token: str) -> bool:
    """Whether somebody of that name has signed in from a device."""
    row = conn.execute(
        "SELECT 1 FROM known_device k JOIN person p ON p.id = k.person_id WHERE k.token = :token"
        " AND p.name = :name",
        {"token": hashed(token), "name": name},
    ).fetchone()
    return row is not None


def know_device(conn: sqlite3.Connection, person_id: int, token: str, now: str) -> None:
    """Somebody signed in from a device; of each person the latest 20 are known."""
    conn.execute(
        "INSERT OR REPLACE INTO known_device (token, person_id, seen_at) VALUES (:token, :id,"
        " :now)",
        {"token": hashed(token), "id": person_id, "now": now},
    )
    conn.execute(
        "DELETE FROM known_device WHERE person_id = :id AND token NOT IN (SELECT token FROM"
        " known_device WHERE person_id = :id ORDER BY seen_at DESC LIMIT 20)",
        {"id": person_id},
    )


def offer_factor(conn: sqlite3.Connection, person_id: int, secret: str) -> None:
    """A secret of one-time codes that is being set up; empty where none is."""
    conn.execute(
        "UPDATE person SET factor_offered = :secret WHERE id = :id",
        {"id": person_id, "secret": secret},
    )


def offered_factor(conn: sqlite3.Connection, person_id: int) -> str:
    """The secret that is being set up."""
    row = conn.execute("SELECT factor_offered AS f FROM person WHERE id = ?", (person_id,))
    return str(row.fetchone()["f"])


def sign_out(conn: sqlite3.Connection, token: str) -> None:
    """End one session."""
    conn.execute("DELETE FROM signed_in WHERE token = :token", {"token": hashed(token)})


def sign_out_everywhere(conn: sqlite3.Connection, person_id: int) -> None:
    """End all sessions of a person."""
    conn.execute("DELETE FROM signed_in WHERE person_id = :id", {"id": person_id})


def sessions(conn: sqlite3.Connection) -> list[SignedIn]:
    """All sessions, the last used first."""
    names = ("token", "person_id", "made_at", "seen_at", "address", "device")
    return [
        SignedIn(*row) for row in conn.execute(select("signed_in", names, "ORDER BY seen_at DESC"))
    ]
