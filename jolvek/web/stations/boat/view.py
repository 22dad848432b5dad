"""What the Boat page shows beside its form: the answer, the drawings, speeds, what is estimated."""

from __future__ import annotations

from dataclasses import dataclass, replace

from markupsafe import Markup

from jolvek.core.base.units import QUANTITIES
from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.schools import Says, power_schools
from jolvek.core.enquiry.sizing import OUT_OF_REACH_W, Sizing, size
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.hanging import BEHIND_M
from jolvek.core.fit.moving import best_move
from jolvek.core.fit.trim import Weight, attitude, crew
from jolvek.core.hydro.drive import REFERENCE
from jolvek.core.hydro.floating import draws_m, hull_speed_m_s
from jolvek.core.hydro.hull import Assumed, estimates
from jolvek.web.kit.display import Units, about, energy
from jolvek.web.kit.doubt_words import helps_most, power_text
from jolvek.web.kit.drawings import pictures
from jolvek.web.kit.language import tr
from jolvek.web.kit.words import plain_name
from jolvek.web.stations.fitting.text import lies

LEANS_FROM_M, AT_THE_SIDE = 1.1, 0.35  # beam where one can; how far off, share of the beam


@dataclass(frozen=True)
class School:
    """One school of power as a row: whether it is preferred, and its words."""

    name: str
    preferred: bool
    power: str
    speed: str
    why: str
    source: str


@dataclass(frozen=True)
class BoatPage:
    """The answer in one sentence, rows of (speed, power, its band, whether it is the wanted speed),
    figures, drawings, what is assumed.
    """

    answer: str
    speeds: tuple[tuple[str, str, str, bool], ...]
    figures: tuple[tuple[str, str], ...]
    drawings: tuple[Markup, ...]
    assumed: tuple[str, ...]
    basis: str
    rests_on: str


def boat_page(need: Need, u: Units) -> BoatPage:
    """What the boat, loaded as typed, takes."""
    sizing = size(need, speeds_m_s(need.day.speed_m_s, u))
    assumed = estimates(need.hull, need.load)
    planing = tr(", planing after Savitsky 1964") if need.hull.fam.planes else ""
    return BoatPage(
        answer(need, sizing, u),
        tuple(
            _row(v, p, sizing, need, u)
            for v, p in zip(sizing.speeds_m_s, sizing.powers_w, strict=True)
        ),
        _figures(need, sizing, u),
        (
            pictures.wide_view(need, sizing),
            *((pictures.plan(need),) if need.site.bays else ()),
        ),
        tuple(_told(a, u) for a in assumed),
        tr(
            "%(assumed)s estimated. %(sizing)s",
            assumed=len(assumed),
            sizing=_doubted(need, sizing, u),
        ),
        rests_on=tr(
            "ITTC 1957 friction, thin-ship waves (Michell 1898)%(planing)s, momentum theory with "
            "the Wageningen B-series, %(reference)s of the rated input. Motor and battery are "
            "counted in as usual for the power.",
            planing=planing,
            reference=f"{REFERENCE:g}",
        ),
    )


def move_text(f: Fitted, letter: str, u: Units) -> str:
    """What the battery of the setup in hand does for her speed from another bay; empty where there
    is no choice of it.
    """
    best = best_move(f)
    if best is None:
        return ""
    if u.number(best.gain_m_s, "speed") == u.number(0.0, "speed"):
        return tr(
            "The battery of %(letter)s makes the boat no faster from another bay.", letter=letter
        )
    place = tr(
        "%(ahead)s ahead of the stern, %(bay)s", ahead=u.full(best.ahead_m, "length"), bay=best.bay
    )
    gain = u.full(best.gain_m_s, "speed")
    return tr(
        "The battery of %(letter)s %(place)s: *%(gain)s more* at full power.",
        letter=letter,
        place=place,
        gain=gain,
    )


def answer(need: Need, sizing: Sizing, u: Units) -> str:
    """The boat in one sentence; `*words*` are the ones to stress."""
    if sizing.no_way:
        return tr("The current is as fast as the wanted speed: no way is made.")
    plane = tr("on the plane ") if sizing.must_plane else ""
    return tr(
        "With a usual motor the boat weighs *%(displacement)s*; *%(speed)s* %(plane)stake about "
        "*%(power)s*, and the day *%(energy)s*.",
        displacement=u.full(sizing.displacement_kg, "mass", 0),
        speed=u.full(need.day.speed_m_s, "speed"),
        plane=plane,
        power=u.full(about(sizing.power_w), "power"),
        energy=energy(sizing.energy_wh),
    )


def _doubted(need: Need, sizing: Sizing, u: Units) -> str:
    if sizing.no_way:
        return ""
    helps = helps_most(sizing.doubt, sizing.power_w, need.day.speed_m_s, u)
    return f"{power_text(need, sizing, u)} {helps}"


def speeds_m_s(wished_m_s: float, u: Units) -> tuple[float, ...]:
    """The wished speed among four round ones about it, so that a planing boat is not judged at a
    walk.
    """
    factor = QUANTITIES["speed"].typed[u["speed"]]
    usual: tuple[float, ...] = (4, 6, 8, 10, 12) if u["speed"] == "km/h" else (2, 3, 4, 5, 6)
    wished = wished_m_s / factor
    if wished > usual[-1]:
        usual = tuple(round(wished * share) for share in (0.25, 0.5, 0.75, 1, 1.25))
    nearest = min(usual, key=lambda v: abs(v - wished))
    return tuple(wished_m_s if v == nearest else v * factor for v in usual)


def _row(
    speed_m_s: float, power_w: float, sizing: Sizing, need: Need, u: Units
) -> tuple[str, str, str, bool]:
    """A speed, its power, what it may be, and whether it is the wanted one."""
    wanted = speed_m_s == need.day.speed_m_s
    speed, spread = u.number(speed_m_s, "speed", 1 if wanted else 0), sizing.spread_at(speed_m_s)
    if power_w > OUT_OF_REACH_W or sizing.no_way:
        return speed, _power(power_w, u), "", wanted
    ends = (u.number(about(x), "power") for x in (power_w / spread, power_w * spread))
    return speed, _power(power_w, u), "–".join(ends), wanted


def _power(power_w: float, u: Units) -> str:
    return tr("out of reach") if power_w > OUT_OF_REACH_W else u.number(about(power_w), "power")


def _figures(need: Need, sizing: Sizing, u: Units) -> tuple[tuple[str, str], ...]:
    floats = pictures.floating(need, sizing.displacement_kg)
    draught = float(draws_m(need.hull, floats))
    out: list[tuple[str, str]] = [
        (tr("Draught"), u.full(draught, "length")),
        (tr("Hull speed"), u.full(float(hull_speed_m_s(need.hull.waterline_m)), "speed")),
    ]
    if sizing.planing_power_w:
        power = u.full(round(sizing.planing_power_w, -2), "power")
        out.append((tr("Planes from about"), power))
    if need.load.people and not sizing.no_way:
        share = f"{100 * sizing.one_more_share(need):.0f}"
        out.append((tr("One more aboard"), f"+\u00a0{share}\u00a0%"))
    return (*out, *_lying(need, sizing))


def _lying(need: Need, sizing: Sizing) -> list[tuple[str, str]]:
    """How the boat lies with its people and a usual motor, and leans when one moves to the side."""
    if not need.load.people:
        return []
    hull, aboard = need.hull, crew(need.hull, need.load)
    motor = Weight("motor", sizing.setup.motor.weight_kg, -BEHIND_M, 0.0, hull.transom_m)
    lying = attitude(hull, [*aboard, motor], need.water)
    out = [(tr("Trim with everyone seated"), lies(lying))]
    if hull.beam_m >= LEANS_FROM_M:
        moved = replace(aboard[0], off_m=AT_THE_SIDE * hull.beam_m)
        heel = attitude(hull, [moved, *aboard[1:], motor], need.water).heel_deg
        out.append((tr("Leans, one at the side"), f"{heel:.0f}°"))
    return out


def _told(a: Assumed, u: Units) -> str:
    name, value = tr(plain_name(a.name)), _value(a, u)
    return tr("%(name)s: %(value)s, %(why)s", name=name, value=value, why=a.why)


def _value(a: Assumed, u: Units) -> str:
    if isinstance(a.value, str):
        return a.value
    quantity = {"m": "length", "kg": "mass"}.get(a.name.rsplit("_", 1)[-1])
    return str(u.full(a.value, quantity)) if quantity else f"{a.value:g}"


def schools(need: Need, u: Units) -> tuple[School, ...]:
    """What the methods say that apply to this boat."""
    return tuple(_school(s, u) for s in power_schools(need) if s.applies)


def _school(s: Says, u: Units) -> School:
    power = u.number(about(s.power_w), "power") if s.power_w else ""
    thrust = str(u.full(s.thrust_n, "thrust")) if s.thrust_n else ""
    speed = u.number(s.speed_m_s, "speed") if s.speed_m_s else ""
    return School(s.name, s.preferred, power or thrust, speed, s.why, s.source)
