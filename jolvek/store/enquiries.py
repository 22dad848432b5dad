"""Enquiries with their boat, load, bays and day."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import asdict, dataclass
from typing import Any

from jolvek.core.hull import Hull, Load
from jolvek.core.mounting import Bay, Site
from jolvek.core.need import DEFAULT_WEIGHTS, Day, Need
from jolvek.core.water import Water

_HULL = ("family", "length_m", "beam_m", "mass_kg", "waterline_length_m", "waterline_beam_m", "bodies", "body_spacing_m",
         "body_beam_m", "chine_beam_m", "deadrise_deg", "transom_height_m", "max_power_w", "bottom")
_SITE = ("transom_thickness_m", "transom_width_m", "remote_steering", "max_motor_kg", "max_load_kg", "max_people",
         "approval_power_w", "approval_thrust_n", "approval_from_year", "approval_to_year", "model_year", "rake_deg",
         "rudder_chord_m", "room_ahead_m")
_DAY = ("speed_m_s", "distance_m", "reserve", "wind_m_s", "current_m_s", "charge_h", "max_lift_kg", "budget", "hands_free",
        "max_noise_db")
_BAY = ("name", "length_m", "width_m", "height_m", "max_kg", "ahead_m", "ventilated", "off_m", "above_m", "lid_length_m",
        "lid_width_m")
_LOAD = ("people", "people_kg", "gear_kg")
_ENQUIRY = ("customer", "title", "note", "changed_at", "water", *_DAY, "weights")
_BOAT = (*_HULL, *_SITE, "places")


def _select(table: str, columns: tuple[str, ...], rest: str) -> str:
    return f"SELECT {', '.join(columns)} FROM {table} {rest}"


def _insert(table: str, columns: tuple[str, ...], verb: str = "INSERT") -> str:
    return f"{verb} INTO {table} ({', '.join(columns)}) VALUES ({', '.join(':' + c for c in columns)})"


_GET_ENQUIRY = _select("enquiry", ("id", *_ENQUIRY), "WHERE id = :id")
_GET_BOAT = _select("boat", _BOAT, "WHERE enquiry_id = :id")
_GET_LOAD = _select("load", _LOAD, "WHERE enquiry_id = :id")
_GET_BAYS = _select("bay", _BAY, "WHERE enquiry_id = :id ORDER BY place")
_ADD_ENQUIRY = _insert("enquiry", _ENQUIRY) + " RETURNING id"
_SAVE_ENQUIRY = f"UPDATE enquiry SET {', '.join(f'{c} = :{c}' for c in _ENQUIRY)} WHERE id = :id"
_PUT_BOAT = _insert("boat", ("enquiry_id", *_BOAT), "INSERT OR REPLACE")
_PUT_LOAD = _insert("load", ("enquiry_id", *_LOAD), "INSERT OR REPLACE")
_ADD_BAY = _insert("bay", ("enquiry_id", "place", *_BAY))


@dataclass(frozen=True)
class Stored:
    """One enquiry as kept."""

    id: int
    customer: str
    title: str
    note: str
    changed_at: str
    need: Need


@dataclass(frozen=True)
class Line:
    """One enquiry as listed, with how many setups are pinned and whether one is chosen."""

    id: int
    customer: str
    title: str
    family: str
    length_m: float
    people: int
    pinned: int
    chosen: str | None
    changed_at: str


def listed(conn: sqlite3.Connection) -> list[Line]:
    """Open enquiries, the latest changed first."""
    rows = conn.execute(
        "SELECT e.id, e.customer, e.title, b.family, b.length_m, l.people, e.changed_at,"
        " (SELECT count(*) FROM setup s WHERE s.enquiry_id = e.id) AS pinned,"
        " (SELECT letter FROM setup s WHERE s.enquiry_id = e.id AND s.chosen = 1) AS chosen"
        " FROM enquiry e JOIN boat b ON b.enquiry_id = e.id JOIN load l ON l.enquiry_id = e.id"
        " WHERE e.archived = 0 ORDER BY e.changed_at DESC, e.id")
    return [Line(**dict(row)) for row in rows]


def get(conn: sqlite3.Connection, enquiry_id: int) -> Stored | None:
    """One enquiry, or None."""
    key = {"id": enquiry_id}
    e = conn.execute(_GET_ENQUIRY, key).fetchone()
    if e is None:
        return None
    b, load = conn.execute(_GET_BOAT, key).fetchone(), conn.execute(_GET_LOAD, key).fetchone()
    bays = [Bay(**{**dict(bay), "ventilated": bool(bay["ventilated"])}) for bay in conn.execute(_GET_BAYS, key)]
    site = Site(places=tuple(json.loads(b["places"])), bays=tuple(bays),
                **{k: bool(b[k]) if k == "remote_steering" else b[k] for k in _SITE})
    day = Day(**{k: bool(e[k]) if k == "hands_free" else e[k] for k in _DAY})
    need = Need(Hull(**{k: b[k] for k in _HULL}), Load(**dict(load)), site, Water(e["water"]), day,
                tuple({**DEFAULT_WEIGHTS, **json.loads(e["weights"])}.items()))
    return Stored(e["id"], e["customer"], e["title"], e["note"], e["changed_at"], need)


def add(conn: sqlite3.Connection, need: Need, customer: str, title: str, note: str, now: str) -> int:
    """A new enquiry; returns its number."""
    number = int(conn.execute(_ADD_ENQUIRY, _enquiry_values(need, customer, title, note, now)).fetchone()["id"])
    _write_boat(conn, number, need)
    return number


def save(conn: sqlite3.Connection, enquiry_id: int, need: Need, customer: str, title: str, note: str, now: str) -> None:
    """Replace what an enquiry says; its pinned setups stay."""
    conn.execute(_SAVE_ENQUIRY, {**_enquiry_values(need, customer, title, note, now), "id": enquiry_id})
    _write_boat(conn, enquiry_id, need)


def touch(conn: sqlite3.Connection, enquiry_id: int, now: str) -> None:
    """Mark an enquiry as changed."""
    conn.execute("UPDATE enquiry SET changed_at = :now WHERE id = :id", {"now": now, "id": enquiry_id})


def _enquiry_values(need: Need, customer: str, title: str, note: str, now: str) -> dict[str, Any]:
    day = {k: getattr(need.day, k) for k in _DAY}
    return {"customer": customer, "title": title, "note": note, "changed_at": now, "water": need.water.kind, **day,
            "hands_free": int(need.day.hands_free), "weights": json.dumps(dict(need.weights))}


def _write_boat(conn: sqlite3.Connection, enquiry_id: int, need: Need) -> None:
    site = need.site
    conn.execute(_PUT_BOAT, {"enquiry_id": enquiry_id, **{k: getattr(need.hull, k) for k in _HULL}, **{k: getattr(site, k) for k in _SITE},
                             "remote_steering": int(site.remote_steering), "places": json.dumps(site.places)})
    conn.execute(_PUT_LOAD, {"enquiry_id": enquiry_id, **asdict(need.load)})
    conn.execute("DELETE FROM bay WHERE enquiry_id = :id", {"id": enquiry_id})
    conn.executemany(_ADD_BAY, [{"enquiry_id": enquiry_id, "place": i, **asdict(bay), "ventilated": int(bay.ventilated)}
                                for i, bay in enumerate(site.bays)])
