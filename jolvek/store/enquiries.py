"""Enquiries with their boat, load, bays and day; how far they have come; finding them again."""

from __future__ import annotations

import json
import re
import sqlite3
from dataclasses import asdict, dataclass
from typing import Any

from jolvek.core.enquiry.need import DEFAULT_WEIGHTS, Day, Leg, Need
from jolvek.core.enquiry.site import Bay, Site
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.water import Water
from jolvek.formats.enquiry_file import Enquiry

_HULL = (
    "family",
    "length_m",
    "beam_m",
    "mass_kg",
    "waterline_length_m",
    "waterline_beam_m",
    "bodies",
    "body_spacing_m",
    "body_beam_m",
    "chine_beam_m",
    "deadrise_deg",
    "transom_height_m",
    "max_power_w",
    "bottom",
)
_SITE = (
    "transom_thickness_m",
    "transom_width_m",
    "remote_steering",
    "max_motor_kg",
    "max_load_kg",
    "max_people",
    "approval_power_w",
    "approval_thrust_n",
    "approval_from_year",
    "approval_to_year",
    "model_year",
    "rake_deg",
    "rudder_chord_m",
    "room_ahead_m",
)
_DAY = (
    "speed_m_s",
    "distance_m",
    "reserve",
    "wind_m_s",
    "current_m_s",
    "charge_h",
    "max_lift_kg",
    "budget",
    "hands_free",
    "max_noise_db",
    "reserve_school",
    "speed_limit_m_s",
    "electric_only",
    "temperature_c",
    "hotel_w",
    "shore_power",
    "solar_w",
    "sky",
    "latitude_deg",
    "longitude_deg",
    "date",
    "start_h",
)
_BAY = (
    "name",
    "length_m",
    "width_m",
    "height_m",
    "max_kg",
    "ahead_m",
    "ventilated",
    "off_m",
    "above_m",
    "lid_length_m",
    "lid_width_m",
)
_LEG = (
    "name",
    "speed_m_s",
    "distance_m",
    "duration_s",
    "current_m_s",
    "wind_m_s",
    "hold_s",
    "latitude_deg",
    "longitude_deg",
)
_LOAD = ("people", "people_kg", "gear_kg", "seat_kg")
_ENQUIRY = ("customer", "title", "note", "changed_at", "water", *_DAY, "weights")
_BOAT = (*_HULL, *_SITE, "places", "model", "storage")
_TRUTHS = ("hands_free", "electric_only", "shore_power", "remote_steering", "ventilated")
STAGES = ("open", "offered", "ordered", "delivered")
WAITS = {
    "data": "Waiting for data",
    "choice": "Waiting for a choice",
    "offer": "Waiting for an offer",
    "answer": "Waiting for the customer",
    "handover": "Waiting for handover",
    "service": "In service",
}


def _select(table: str, columns: tuple[str, ...], rest: str) -> str:
    return f"SELECT {', '.join(columns)} FROM {table} {rest}"


def _insert(table: str, columns: tuple[str, ...], verb: str = "INSERT") -> str:
    return (
        f"{verb} INTO {table} ({', '.join(columns)}) VALUES ({', '.join(':' + c for c in columns)})"
    )


_GET_ENQUIRY = _select("enquiry", ("id", "stage", "archived", *_ENQUIRY), "WHERE id = :id")
_GET_BOAT = _select("boat", ("photo", *_BOAT), "WHERE enquiry_id = :id")
_GET_LOAD = _select("load", _LOAD, "WHERE enquiry_id = :id")
_GET_BAYS = _select("bay", _BAY, "WHERE enquiry_id = :id ORDER BY place")
_GET_LEGS = _select("leg", _LEG, "WHERE enquiry_id = :id ORDER BY place")
_ADD_ENQUIRY = _insert("enquiry", _ENQUIRY) + " RETURNING id"
_SAVE_ENQUIRY = f"UPDATE enquiry SET {', '.join(f'{c} = :{c}' for c in _ENQUIRY)} WHERE id = :id"
_PUT_BOAT = (
    _insert("boat", ("enquiry_id", *_BOAT))
    + f" ON CONFLICT (enquiry_id) DO UPDATE SET {', '.join(f'{c} = excluded.{c}' for c in _BOAT)}"
)
_PUT_LOAD = _insert("load", ("enquiry_id", *_LOAD), "INSERT OR REPLACE")
_ADD_BAY = _insert("bay", ("enquiry_id", "place", *_BAY))
_ADD_LEG = _insert("leg", ("enquiry_id", "place", *_LEG))
_LIST = (
    "SELECT e.id, e.customer, e.title, b.family, b.length_m, l.people, e.changed_at, e.stage,"
    " b.transom_height_m, b.places, (SELECT count(*) FROM setup s WHERE s.enquiry_id = e.id) AS"
    " pinned, (SELECT letter FROM setup s WHERE s.enquiry_id = e.id AND s.chosen = 1) AS chosen"
    " FROM enquiry e JOIN boat b ON b.enquiry_id = e.id JOIN load l ON l.enquiry_id = e.id"
)


@dataclass(frozen=True)
class Stored:
    """One enquiry as kept."""

    id: int
    changed_at: str
    stage: str
    archived: bool
    photo: str
    enquiry: Enquiry

    @property
    def need(self) -> Need:
        """Boat, load, site and day."""
        return self.enquiry.need

    @property
    def title(self) -> str:
        """Its title."""
        return self.enquiry.title

    @property
    def customer(self) -> str:
        """Who asks."""
        return self.enquiry.customer

    @property
    def note(self) -> str:
        """What else was said."""
        return self.enquiry.note


@dataclass(frozen=True)
class Line:
    """One enquiry as listed, with how many setups are pinned, whether one is chosen, and what it
    waits for.
    """

    id: int
    customer: str
    title: str
    family: str
    length_m: float
    people: int
    changed_at: str
    stage: str
    transom_height_m: float | None
    places: str
    pinned: int
    chosen: str | None

    @property
    def waits(self) -> str:
        """One of WAITS."""
        if self.stage != "open":
            return {"offered": "answer", "ordered": "handover", "delivered": "service"}[self.stage]
        if self.chosen:
            return "offer"
        lacking = not self.title or (self.transom_height_m is None and '"transom"' in self.places)
        return "data" if lacking and not self.pinned else "choice"


def listed(conn: sqlite3.Connection, archived: bool = False) -> list[Line]:
    """Open (or archived) enquiries, the latest changed first."""
    rows = conn.execute(
        f"{_LIST} WHERE e.archived = :archived ORDER BY e.changed_at DESC, e.id",
        {"archived": int(archived)},
    )
    return [Line(**dict(row)) for row in rows]


def found(conn: sqlite3.Connection, text: str, most: int = 40) -> list[Line]:
    """Enquiries, open or not, in which every word typed begins a word of customer, title, note,
    boat or products.
    """
    words = re.findall(r"\w+", text)
    if not words:
        return []
    query = " ".join(f'"{word}"*' for word in words[:12])
    rows = conn.execute(
        f"{_LIST} JOIN enquiry_find f ON f.rowid = e.id WHERE enquiry_find MATCH :query"
        " ORDER BY e.archived, rank LIMIT :most",
        {"query": query, "most": most},
    )
    return [Line(**dict(row)) for row in rows]


def same_model(conn: sqlite3.Connection, text: str, most: int = 8) -> list[Stored]:
    """Earlier boats whose make and model hold the text, the latest first: to start from."""
    if not text.strip():
        return []
    escaped = re.sub(r"([\\%_])", r"\\\1", text.strip())
    rows = conn.execute(
        "SELECT b.enquiry_id AS id FROM boat b JOIN enquiry e ON e.id = b.enquiry_id WHERE b.model"
        " LIKE :like ESCAPE '\\' GROUP BY b.model ORDER BY max(e.changed_at) DESC LIMIT :most",
        {"like": f"%{escaped}%", "most": most},
    )
    return [stored for row in rows.fetchall() if (stored := get(conn, row["id"])) is not None]


def _typed(row: sqlite3.Row, keys: tuple[str, ...]) -> dict[str, Any]:
    return {k: bool(row[k]) if k in _TRUTHS else row[k] for k in keys}


def get(conn: sqlite3.Connection, enquiry_id: int) -> Stored | None:
    """One enquiry, or None."""
    key = {"id": enquiry_id}
    e = conn.execute(_GET_ENQUIRY, key).fetchone()
    if e is None:
        return None
    b, load = conn.execute(_GET_BOAT, key).fetchone(), conn.execute(_GET_LOAD, key).fetchone()
    bays = tuple(Bay(**_typed(row, _BAY)) for row in conn.execute(_GET_BAYS, key))
    legs = tuple(Leg(**dict(row)) for row in conn.execute(_GET_LEGS, key))
    site = Site(places=tuple(json.loads(b["places"])), bays=bays, **_typed(b, _SITE))
    need = Need(
        Hull(**{k: b[k] for k in _HULL}),
        Load(**{**dict(load), "seat_kg": tuple(json.loads(load["seat_kg"]))}),
        site,
        Water(e["water"]),
        Day(**_typed(e, _DAY), legs=legs),
        tuple({**DEFAULT_WEIGHTS, **json.loads(e["weights"])}.items()),
    )
    return Stored(
        e["id"],
        e["changed_at"],
        e["stage"],
        bool(e["archived"]),
        b["photo"],
        Enquiry(need, e["customer"], e["title"], e["note"], b["model"], b["storage"]),
    )


def add(conn: sqlite3.Connection, enquiry: Enquiry, now: str) -> int:
    """A new enquiry; returns its number."""
    number = int(conn.execute(_ADD_ENQUIRY, _values(enquiry, now)).fetchone()["id"])
    _write_rest(conn, number, enquiry)
    return number


def save(conn: sqlite3.Connection, enquiry_id: int, enquiry: Enquiry, now: str) -> None:
    """Replace what an enquiry says; its pinned setups, photo and stage stay."""
    conn.execute(_SAVE_ENQUIRY, {**_values(enquiry, now), "id": enquiry_id})
    _write_rest(conn, enquiry_id, enquiry)


def touch(conn: sqlite3.Connection, enquiry_id: int, now: str) -> None:
    """Mark an enquiry as changed, and take its products into what can be found."""
    conn.execute(
        "UPDATE enquiry SET changed_at = :now WHERE id = :id", {"now": now, "id": enquiry_id}
    )
    index(conn, enquiry_id)


def set_stage(conn: sqlite3.Connection, enquiry_id: int, stage: str, now: str) -> None:
    """How far it has come: one of STAGES."""
    conn.execute(
        "UPDATE enquiry SET stage = :stage, changed_at = :now WHERE id = :id",
        {"stage": stage, "now": now, "id": enquiry_id},
    )


def archive(conn: sqlite3.Connection, enquiry_id: int, yes: bool = True) -> None:
    """Put an enquiry away, or take it out again; nothing is deleted."""
    conn.execute(
        "UPDATE enquiry SET archived = :yes WHERE id = :id", {"yes": int(yes), "id": enquiry_id}
    )


def set_photo(conn: sqlite3.Connection, enquiry_id: int, name: str) -> None:
    """The file name of the boat's photo in the data folder; empty for none."""
    conn.execute(
        "UPDATE boat SET photo = :name WHERE enquiry_id = :id", {"name": name, "id": enquiry_id}
    )


def index(conn: sqlite3.Connection, enquiry_id: int) -> None:
    """Write the words by which an enquiry is found."""
    conn.execute("DELETE FROM enquiry_find WHERE rowid = :id", {"id": enquiry_id})
    conn.execute(
        "INSERT INTO enquiry_find (rowid, customer, title, note, boat, products) SELECT e.id,"
        " e.customer, e.title, e.note, replace(b.family, '_', ' ') || ' ' || b.model,"
        " coalesce((SELECT group_concat(i.title, ' ') FROM setup s JOIN setup_item i ON i.setup_id"
        " = s.id WHERE s.enquiry_id = e.id), '') FROM enquiry e JOIN boat b ON b.enquiry_id = e.id"
        " WHERE e.id = :id",
        {"id": enquiry_id},
    )


def _values(enquiry: Enquiry, now: str) -> dict[str, Any]:
    need = enquiry.need
    day = {k: int(v) if isinstance(v := getattr(need.day, k), bool) else v for k in _DAY}
    return {
        "customer": enquiry.customer,
        "title": enquiry.title,
        "note": enquiry.note,
        "changed_at": now,
        "water": need.water.kind,
        **day,
        "weights": json.dumps(dict(need.weights)),
    }


def _write_rest(conn: sqlite3.Connection, enquiry_id: int, enquiry: Enquiry) -> None:
    need, key = enquiry.need, {"enquiry_id": enquiry_id}
    site = {k: int(v) if isinstance(v := getattr(need.site, k), bool) else v for k in _SITE}
    conn.execute(
        _PUT_BOAT,
        {
            **key,
            **{k: getattr(need.hull, k) for k in _HULL},
            **site,
            "places": json.dumps(need.site.places),
            "model": enquiry.model,
            "storage": enquiry.storage,
        },
    )
    conn.execute(_PUT_LOAD, {**key, **asdict(need.load), "seat_kg": json.dumps(need.load.seat_kg)})
    for table in ("bay", "leg"):
        conn.execute(f"DELETE FROM {table} WHERE enquiry_id = :enquiry_id", key)
    conn.executemany(
        _ADD_BAY,
        [
            {**key, "place": i, **asdict(bay), "ventilated": int(bay.ventilated)}
            for i, bay in enumerate(need.site.bays)
        ],
    )
    conn.executemany(
        _ADD_LEG, [{**key, "place": i, **asdict(leg)} for i, leg in enumerate(need.day.legs)]
    )
    index(conn, enquiry_id)
