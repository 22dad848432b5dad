"""The boats of one place in a table: hours, what is due, what an hour costs, faults; and when each
is charged for the bookings of a day.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from jolvek.core.base.messages import msg
from jolvek.core.care.fleet import Charged, Spent, ToCharge, charge_plan, spent
from jolvek.core.electric.chemistry import end_soc
from jolvek.store import bookings, care, enquiries, service_faults, setups, spares
from jolvek.store.bookings import Booking
from jolvek.store.once import together
from jolvek.store.shop import Shop
from jolvek.web.kit.language import tr
from jolvek.web.kit.worked import Worked, work_out
from jolvek.web.stations.aftercare import battery as battery_page
from jolvek.web.stations.aftercare import view as care_page

MOST = 60  # boats shown at once
UNKNOWN_SOC = 0.2  # of a boat whose charge nobody told: she may be empty


@dataclass(frozen=True)
class FleetRow:
    """One boat: hours, steps due, cost, open faults, her charge now (None: not told)."""

    id: int
    title: str
    hours: float
    due: int
    cost: Spent
    faults: int
    soc: float | None


@dataclass(frozen=True)
class Fleet:
    """The table, the day's bookings with their boats' titles, the plan, faults by part."""

    rows: tuple[FleetRow, ...]
    booked: tuple[tuple[Booking, str], ...]
    plan: tuple[Charged, ...]
    parts: tuple[tuple[str, int], ...]


def fleet(
    conn: sqlite3.Connection,
    shop: Shop,
    numbers: Sequence[int],
    supply_w: float,
    begin_h: float,
    today: date,
) -> Fleet:
    """The fleet of these enquiries; bookings are those of tomorrow."""
    numbers, rows, hands = numbers[:MOST], [], {}
    together(conn, numbers)
    parts: dict[str, int] = {}
    for number in numbers:
        hand = hand_of(conn, number)
        if hand is None:
            continue
        title, worked = hand
        row, aged = _row(conn, shop, number, title, worked, today)
        rows.append(row)
        hands[number] = (title, aged)
        for f in service_faults.of_enquiry(conn, number):
            parts[f.part] = parts.get(f.part, 0) + 1
    tomorrow = (today + timedelta(days=1)).isoformat()
    booked = [b for b in bookings.on(conn, tomorrow) if b.enquiry_id in hands]
    plan = charge_plan(_to_charge(conn, booked, hands), supply_w, begin_h)
    return Fleet(
        tuple(rows),
        tuple((b, hands[b.enquiry_id][0]) for b in booked),
        tuple(plan),
        tuple((tr(part or NO_PART), n) for part, n in _most_first(parts)),
    )


NO_PART = msg("part not given")


def _most_first(parts: dict[str, int]) -> list[tuple[str, int]]:
    return sorted(parts.items(), key=lambda x: -x[1])


def hand_of(conn: sqlite3.Connection, number: int) -> tuple[str, Worked] | None:
    """A boat's title and the setup in hand; None without one."""
    stored, pinned = enquiries.get(conn, number), setups.of_enquiry(conn, number)
    chosen = next((p for p in pinned if p.chosen), pinned[0] if pinned else None)
    if stored is None or chosen is None:
        return None
    return stored.title, work_out(stored.need, chosen)


def _row(
    conn: sqlite3.Connection, shop: Shop, number: int, title: str, hand: Worked, today: date
) -> tuple[FleetRow, Worked]:
    """Her row, and her setup with the battery as it is now."""
    trips, charges = care.trips(conn, number), care.charges(conn, number)
    swaps, began = spares.swaps(conn, number), care.began(conn, number)
    life, capacity = 0.0, 1.0
    if began:
        since = care_page.new_since(began, swaps, hand.fitted.bank.packs)
        h = battery_page.health_of(hand, trips, charges, since, today)[2]
        life, capacity = h.by_cycles + h.by_years, h.capacity
    part = hand.pinned.part("battery")
    price = part.price * part.quantity if part else 0.0
    hours = sum(t.hours for t in trips)
    usual_w = care_page.power_of_day(hand)
    drawn = sum(t.energy_wh if t.energy_wh is not None else usual_w * t.hours for t in trips)
    paid = sum(s.cost for s in swaps)
    efficiency = hand.fitted.bank.chem.charge_efficiency
    found = care_page.due_of(conn, number, hand, shop, today)
    row = FleetRow(
        number,
        title,
        hours,
        sum(d.state == "overdue" for d in found),
        spent(hours, drawn, shop.kwh_price, efficiency, paid, price, life),
        sum(f.state == "open" for f in service_faults.of_enquiry(conn, number)),
        soc=care.charge_now(conn, number),
    )
    ageing = min(max(1 - capacity, 0.0), 0.5)
    return row, hand.aged(ageing)


def _to_charge(
    conn: sqlite3.Connection, booked: Sequence[Booking], hands: dict[int, tuple[str, Worked]]
) -> list[ToCharge]:
    """The boats that are booked, each once with all its hours of the day."""
    out = []
    for number in dict.fromkeys(b.enquiry_id for b in booked):
        title, hand = hands[number]
        mine = [b for b in booked if b.enquiry_id == number]
        hours = sum(b.hours for b in mine)
        bank, day = hand.fitted.bank, hand.fitted.need.day
        holds = bank.energy_wh * (1 - hand.fitted.ageing)
        kept = end_soc(bank.chem, day.reserve)
        needed = care_page.power_of_day(hand) * hours / holds + kept
        soc = care.charge_now(conn, number)
        charger = hand.fitted.charger.spec if hand.fitted.charger else None
        out.append(
            ToCharge(
                title,
                bank,
                charger,
                UNKNOWN_SOC if soc is None else soc,
                min(needed, 50.0),
                min(b.from_h for b in mine),
            )
        )
    return out
