"""What a customer says of boat and day in their own words, made a need: what was not said is taken
as usual, and told.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from jolvek.core.base import units
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.enquiry.site import Site, default_places
from jolvek.core.enquiry.sizing import typical_hull
from jolvek.core.hydro.families import family
from jolvek.core.hydro.floating import hull_speed_m_s
from jolvek.core.hydro.hull import Load
from jolvek.core.hydro.water import Water

# shares of hull speed; over the top of the water in m/s: Jolvek's own
PACES = {"walk": 0.55, "steady": 0.75, "all": 0.95}
OVER_THE_TOP, OVER_THE_TOP_M_S = "over", 6.5
WATERS = {"lake": "fresh", "river": "fresh", "sea": "salt"}
USUAL_M = 5 * units.NAUTICAL_MILE_M


@dataclass(frozen=True)
class FirstWord:
    """What was said; None and empty for what was not. Metres, seconds, as the rest."""

    family: str
    customer: str
    phone: str = ""
    mail: str = ""
    model: str = ""
    length_m: float | None = None
    people: int | None = None
    distance_m: float | None = None
    water: str = ""
    pace: str = ""
    charge: bool = True
    budget: float | None = None
    note: str = ""


def speed_m_s(family_id: str, length_m: float, pace: str) -> float:
    """The wanted speed (m/s) behind a word, for a boat of that length (m); the steady one for none,
    and no more than hull speed where she does not plane.

    >>> round(speed_m_s("kayak", 3.7, "walk"), 1), speed_m_s("rib", 3.6, "over")
    (1.3, 6.5)
    """
    fam = family(family_id)
    if pace == OVER_THE_TOP and fam.planes:
        return OVER_THE_TOP_M_S
    most = float(hull_speed_m_s(fam.waterline_length_ratio * length_m))
    share = PACES["all"] if pace == OVER_THE_TOP else PACES.get(pace, PACES["steady"])
    return share * most


def enquiry_of(said: FirstWord, day: Day) -> tuple[Enquiry, tuple[str, ...]]:
    """The enquiry, and the names of what was estimated in it. `day` holds what the shop takes as
    usual. Raises ValueRefused.

    >>> e, estimated = enquiry_of(FirstWord("kayak", "A. Tern", length_m=4.0, people=1), Day())
    >>> e.title, e.need.hull.length_m, estimated
    ('Kayak of A. Tern', 4.0, ('beam', 'weight', 'distance', 'speed', 'water'))
    """
    fam = family(said.family)
    length = fam.typical_length_m if said.length_m is None else said.length_m
    hull, _ = typical_hull(said.family, length)
    people = said.people or (1 if fam.thrust_law else 2)
    day = replace(
        day,
        speed_m_s=speed_m_s(said.family, length, said.pace),
        distance_m=said.distance_m or USUAL_M,
        shore_power=said.charge,
        budget=said.budget,
    )
    given = (
        ("length", said.length_m is not None),
        ("beam", False),
        ("weight", False),
        ("people", bool(said.people)),
        ("distance", bool(said.distance_m)),
        ("speed", bool(said.pace)),
        ("water", bool(said.water)),
    )
    need = Need(
        hull,
        Load(people),
        Site(default_places(hull.family)),
        Water(WATERS.get(said.water, "salt")),
        day,
    )
    title = f"{fam.name} of {said.customer}"[:200]
    words = {k: getattr(said, k) for k in ("customer", "phone", "mail", "model", "note")}
    return Enquiry(need, title=title, **words), tuple(name for name, known in given if not known)
