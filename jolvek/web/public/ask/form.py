"""What a customer fills in on the shop's public page, in their own words and units."""

from __future__ import annotations

from collections.abc import Mapping

from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.enquiry.first_word import OVER_THE_TOP, PACES, WATERS, FirstWord
from jolvek.core.enquiry.need import Day
from jolvek.core.hydro.families import FAMILIES
from jolvek.core.hydro.hull import Hull, Load
from jolvek.web.kit.display import Units
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.kit.language import tr

PACE_WORDS = {
    "walk": msg("gently, like a walk"),
    "steady": "steadily",
    "all": msg("as fast as the boat goes in the water"),
    OVER_THE_TOP: msg("over the top of the water"),
}
WATER_WORDS = {"lake": "a lake", "river": "a river", "sea": msg("the sea")}
assert set(PACE_WORDS) == {*PACES, OVER_THE_TOP} and set(WATER_WORDS) == set(WATERS)


def read(form: Mapping[str, str], u: Units) -> tuple[FirstWord | None, dict[str, str]]:
    """What was said, in SI; None and the refusals by field where something cannot be read."""
    reader = Reader(form, u)
    words = {k: form.get(k, "").strip() for k in ("customer", "phone", "mail", "model", "note")}
    people = reader.figure("people", "count", *Load.RANGES["people"])
    record = FirstWord(
        form.get("family", ""),
        length_m=reader.figure("length", "length", *Hull.RANGES["length_m"]),
        people=int(people) if people else None,
        distance_m=reader.figure("distance", "distance", 50, Day.RANGES["distance_m"][1]),
        water=reader.one_of("water", ("", *WATERS), ""),
        pace=reader.one_of("pace", ("", *PACE_WORDS), ""),
        charge=form.get("charge") != "no",
        budget=reader.figure("budget", "money", *Day.RANGES["budget"]),
        **words,
    )
    refused = reader.refused
    if record.family not in FAMILIES:
        refused["family"] = tr("choose the boat that is most like yours")
    if not record.customer:
        refused["customer"] = tr("your name, so that we can answer")
    if not record.phone and not record.mail:
        refused["phone"] = tr("a telephone number or a mail address, so that we can answer")
    for key, most in Enquiry.TEXTS.items():
        if len(words.get(key, "")) > most:
            refused[key] = tr("at most %(most)s letters", most=most)
    return (None if refused else record), refused


def refusal(error: ValueRefused) -> dict[str, str]:
    """A refusal of the whole at the field it is nearest to."""
    key = error.key.rsplit(".", 1)[-1]
    field = {"length_m": "length", "people": "people", "distance_m": "distance"}.get(key, "note")
    return {field: tr("allowed is %(allowed)s", allowed=error.allowed)}
