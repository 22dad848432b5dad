"""Customers as vCard 3.0 (RFC 2426, by vobject) and days on the water as iCalendar (RFC 5545, by
icalendar).
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime

import vobject
from icalendar import Calendar, Event

VCARD, ICALENDAR = "text/vcard", "text/calendar"


@dataclass(frozen=True)
class Customer:
    """How a customer is reached, and for which boat."""

    name: str
    phone: str
    mail: str
    address: str
    boat: str


@dataclass(frozen=True)
class Dated:
    """Something on a day: its number in the shop, the day, what it is, and of what it tells; a day
    with the same number and `of` takes the place of the one before.
    """

    number: int
    day: date
    what: str
    note: str
    of: str = ""


def vcards(customers: Iterable[Customer]) -> str:
    """All customers, one card each.

    >>> text = vcards([Customer("Runa Vik", "555 010", "", "Quay 4", "Kayak")])
    >>> [line for line in text.splitlines() if line.startswith(("FN", "TEL"))]
    ['FN:Runa Vik', 'TEL:555 010']
    """
    return "".join(_card(c) for c in customers)


def _card(c: Customer) -> str:
    card = vobject.vCard()
    card.add("fn").value = c.name
    last, _, first = c.name.rpartition(" ")[::-1]
    card.add("n").value = vobject.vcard.Name(family=last, given=first)
    for key, value in (("tel", c.phone), ("email", c.mail), ("note", c.boat)):
        if value:
            card.add(key).value = value
    if c.address:
        card.add("adr").value = vobject.vcard.Address(street=c.address)
    return str(card.serialize())


def calendar(days: Iterable[Dated], shop: str, made: datetime) -> bytes:
    """The days as whole-day events with ids that stay the same.

    >>> made = datetime(2026, 11, 26, 8)
    >>> text = calendar([Dated(3, date(2026, 7, 3), "Launch", "")], "Shop", made).decode()
    >>> "DTSTART;VALUE=DATE:20260703" in text, "UID:jolvek-3@shop" in text
    (True, True)
    """
    out = Calendar()
    out.add("prodid", "-//Jolvek//Jolvek//EN")
    out.add("version", "2.0")
    place = "".join(c for c in shop.lower() if c.isalnum()) or "shop"
    for x in days:
        event = Event()
        event.add("uid", f"jolvek-{x.of}{x.number}@{place}")
        event.add("dtstamp", made)
        event.add("dtstart", x.day)
        event.add("summary", x.what)
        if x.note:
            event.add("description", x.note)
        out.add_component(event)
    return bytes(out.to_ical())
