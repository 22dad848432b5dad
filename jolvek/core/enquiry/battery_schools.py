"""Lead or lithium, on the motor or apart, one size up or just enough: the schools side by side."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.messages import msg
from jolvek.core.electric.chemistry import chemistry
from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.sizing import Sizing, size

LEAD_SHARE = 0.08  # of boat and load: more lead than that is too much


MUCH_LEAD_WH = 3000.0  # of lithium: the same in lead is hard to place


CLIP_ON_WH, CLIP_ON_W = 1600.0, 1200.0  # what one clip-on pack and its motor give


WINDY_M_S, STREAM_M_S, HEAVY_KG = 6.0, 0.7, 800.0  # from here on power in hand is asked for


@dataclass(frozen=True)
class Choice:
    """One of two or three ways to do a thing, with what speaks for it; one is preferred and says
    why.
    """

    question: str
    name: str
    figure: str
    speaks_for: str
    preferred: bool
    why: str = ""


def battery_schools(need: Need) -> list[Choice]:
    """Lead or lithium, on the motor or apart, one size up or just enough: for this day, none
    hidden.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> rows = battery_schools(Need(Hull("kayak", 3.7, .78, 34), Load(1)))
    >>> [r.name for r in rows if r.preferred]
    ['lithium', 'integrated', 'just enough']
    """
    s = size(need)
    return [*_lead_or_lithium(need, s), *_on_or_apart(s), *_how_large(need, s)]


def _choice(question: str, name: str, figure: str, speaks_for: str, why: str) -> Choice:
    """A way to do a thing; it is preferred where there is a reason for it."""
    return Choice(question, name, figure, speaks_for, bool(why), why)


def _lead_or_lithium(need: Need, s: Sizing) -> list[Choice]:
    lithium, lead = s.energy_wh / _wh_per_kg("lfp"), s.lead_wh / _wh_per_kg("agm")
    why = ""
    if lead > LEAD_SHARE * (need.hull.mass_kg + need.load.total_kg):
        why = msg("The lead for this day would weigh too much for the boat.")
    elif s.energy_wh > MUCH_LEAD_WH:
        why = msg("So much lead would be hard to place and to lift.")
    cheap = msg("The day is short and the boat carries the weight: the cheaper one does.")
    return [
        _choice(
            "chemistry",
            "lithium",
            msg(
                "%(energy)s kWh, about %(lithium)s kg",
                energy=f"{s.energy_wh / 1000:.1f}",
                lithium=f"{lithium:.0f}",
            ),
            msg("Most of the charge usable, a third of the weight, thousands of cycles; dear."),
            why,
        ),
        _choice(
            "chemistry",
            "lead-acid, AGM",
            msg(
                "%(lead)s kWh, about %(lead2)s kg",
                lead=f"{s.lead_wh / 1000:.1f}",
                lead2=f"{lead:.0f}",
            ),
            msg("Cheap and forgiving to charge; half the charge usable, heavy, fewer cycles."),
            "" if why else cheap,
        ),
    ]


def _wh_per_kg(chem_id: str) -> float:
    return sum(chemistry(chem_id).wh_per_kg) / 2


def _on_or_apart(s: Sizing) -> list[Choice]:
    small = s.energy_wh < CLIP_ON_WH and s.power_w < CLIP_ON_W
    return [
        _choice(
            "place",
            "integrated",
            msg("one clip-on pack"),
            msg("Nothing to wire, charge shown, lifts off in two parts; one voltage, one maker."),
            msg("The day fits into one clip-on pack.") if small else "",
        ),
        _choice(
            "place",
            "separate",
            msg("bank in a bay"),
            msg(
                "Any size, weight where the boat wants it, cheaper per kWh; cable, fuse and "
                "monitor to"
                " fit."
            ),
            "" if small else msg("More energy or power than clip-on packs give."),
        ),
    ]


def _how_large(need: Need, s: Sizing) -> list[Choice]:
    open_water = need.day.wind_m_s > WINDY_M_S or need.day.current_m_s > STREAM_M_S
    heavy = need.site.max_load_kg is not None and need.hull.mass_kg > HEAVY_KG
    sheltered = msg("Sheltered water and little current: more power would only be carried about.")
    wanted = msg("Wind, current or windage ask for power in hand.") if open_water or heavy else ""
    return [
        _choice(
            "size",
            msg("just enough"),
            f"{s.motor_w:.0f} W",
            msg("Least weight and money; a quarter of the power in hand."),
            "" if wanted else sheltered,
        ),
        _choice(
            "size",
            msg("one size up"),
            f"{s.motor_w * 1.5:.0f} W",
            msg(
                "Push against wind and tide, and a longer life at low load; more than the hull "
                "can use"
                " is wasted."
            ),
            wanted,
        ),
    ]
