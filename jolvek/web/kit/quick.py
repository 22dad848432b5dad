"""What the Counter shows: the quick start's answer, and enquiries by what they wait for."""

from __future__ import annotations

import math
import sqlite3
from dataclasses import dataclass

from jolvek.core.enquiry.need import Day, Need
from jolvek.core.enquiry.site import Site, default_places
from jolvek.core.enquiry.sizing import Sizing, size, typical_hull
from jolvek.core.hydro.hull import ADULT_KG, Load
from jolvek.core.match.picks import picks
from jolvek.core.products.shelf import Shelf
from jolvek.store import finding, service_faults
from jolvek.web.kit.display import Units, about, energy, long_hours, money
from jolvek.web.kit.doubt_words import power_text
from jolvek.web.kit.language import counted_text, tr
from jolvek.web.kit.matches import matched, row
from jolvek.web.kit.rates import price_name

MOTOR_STEP_W = 50  # what motors to look for are rounded up to


KINDS_NAMED = 3  # setups of unlike motors that the answer names


@dataclass(frozen=True)
class QuickAnswer:
    """The quick start's answer: a sentence, figures, and what it rests on."""

    answer: str
    figures: tuple[tuple[str, str], ...]
    basis: str


def quick_need(family: str, length_m: float, people: int, day: Day) -> Need:
    """The need that the quick start's entries make, usual sizes taken for the rest."""
    hull, _ = typical_hull(family, length_m)
    return Need(hull, Load(people), Site(default_places(hull.family)), day=day)


def quick_answer(need: Need, u: Units) -> QuickAnswer:
    """What the boat and day take."""
    sizing = size(need)
    doubted = "" if sizing.no_way else power_text(need, sizing, u)
    basis = tr(
        "A fifth of the charge kept, calm salt water. %(doubted)s Taken as usual: beam %(beam)s, "
        "light mass %(mass)s, %(adult)s a person.",
        doubted=doubted,
        beam=u.full(need.hull.beam_m, "length"),
        mass=u.full(need.hull.mass_kg, "mass"),
        adult=u.full(ADULT_KG, "mass"),
    )
    return QuickAnswer(answer(need, sizing, u), _figures(sizing, u), basis)


def answer(need: Need, sizing: Sizing, u: Units) -> str:
    """The answer in one sentence; `*words*` are the ones to stress."""
    if sizing.no_way:
        return tr("The current is as fast as the boat: no way is made.")
    speed, power = u.full(need.day.speed_m_s, "speed"), u.full(about(sizing.power_w), "power")
    first = tr("*%(speed)s* takes about *%(power)s*", speed=speed, power=power)
    if sizing.must_plane:
        first = tr(
            "To plane at *%(speed)s* the boat needs about *%(power)s*", speed=speed, power=power
        )
    runs = need.day.runs_a_charge
    for_all = tr(" for %(runs)s runs on one charge", runs=runs) if runs > 1 else ""
    return tr(
        "%(first)s; *%(distance)s* take *%(hours)s* and a battery of about "
        "*%(energy)s*%(for_all)s.",
        first=first,
        distance=u.full(need.day.distance_m, "distance"),
        hours=long_hours(sizing.hours * 3600),
        energy=energy(sizing.energy_wh),
        for_all=for_all,
    )


def _figures(sizing: Sizing, u: Units) -> tuple[tuple[str, str], ...]:
    motor = math.ceil(sizing.motor_w / MOTOR_STEP_W) * MOTOR_STEP_W
    out = [
        (tr("Motor to look for"), u.full(motor, "power")),
        (tr("Lithium"), energy(sizing.energy_wh)),
        (tr("or lead-acid"), energy(sizing.lead_wh)),
        (tr("Loaded"), u.full(sizing.displacement_kg, "mass", 0)),
    ]
    if sizing.planing_power_w:
        out.append((tr("To plane"), u.full(round(sizing.planing_power_w, -2), "power")))
    return tuple(out)


def from_catalogue(need: Need, shelf: Shelf, u: Units) -> str:
    """What the catalogue has for it: the picks of up to three unlike motors, and how many setups
    do it.
    """
    match = matched(need, shelf)
    doing = int(match.field.does_day.sum())
    if not doing:
        return tr("Nothing in the catalogue does this: ask for less speed or less distance.")
    result, named = [], dict[int, str]()
    for pick in picks(match):
        motor = int(match.drives.motor[match.field.drive[pick.index]])
        if motor not in named and len(named) < KINDS_NAMED:
            named[motor] = pick.title
            best = row(match, pick.index)
            result.append(
                tr(
                    "%(title)s: *%(title2)s* with %(bank_text)s, %(runtime)s and %(range)s at "
                    "that speed, %(price)s %(which)s",
                    title=pick.title,
                    title2=best.motor.title,
                    bank_text=best.bank_text,
                    runtime=long_hours(best.runtime_s),
                    range=u.full(best.range_m, "distance"),
                    price=money(best.price),
                    which=price_name(short=True),
                )
            )
    doing_it = counted_text("%(n)s setup does it", "%(n)s setups do it", doing)
    return tr(
        "From the catalogue, with mount and charger: %(text)s. %(doing_it)s.",
        text="; ".join(result),
        doing_it=doing_it,
    )


@dataclass(frozen=True)
class OpenEnquiries:
    """Enquiries under what they wait for, and those put away."""

    groups: tuple[tuple[str, tuple[finding.Line, ...]], ...]
    archived: tuple[finding.Line, ...]
    newer: int | None  # how many to skip for the page before, and for the one after
    older: int | None
    reported: tuple[service_faults.Reported, ...] = ()  # faults that owners told of


def open_enquiries(conn: sqlite3.Connection, skip: int = 0) -> OpenEnquiries:
    """A page of the enquiries as the counter lists them."""
    a_page = finding.A_PAGE
    lines = finding.listed(conn, most=a_page + 1, skip=skip)
    older, lines = skip + a_page if len(lines) > a_page else None, lines[:a_page]
    groups = (
        (tr(title), tuple(line for line in lines if line.waits == key))
        for key, title in finding.WAITS.items()
    )
    archived = tuple(finding.listed(conn, archived=True))
    newer = max(skip - a_page, 0) if skip else None
    found = tuple(service_faults.reported(conn, service_faults.OWNER))
    return OpenEnquiries(tuple(g for g in groups if g[1]), archived, newer, older, found)
