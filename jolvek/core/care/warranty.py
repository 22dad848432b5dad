"""Whether a part that is replaced is under warranty, and until when the new one is."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from jolvek.core.base.messages import msg
from jolvek.core.care.due import add_months

HEED = "Local law on faulty goods goes further than a maker’s warranty in many places."


@dataclass(frozen=True)
class Verdict:
    """The part's standing on the day (warranty, paid, not known), told in a sentence, and the day
    until which the new one is covered (None: not known).
    """

    standing: str
    text: str
    new_to: date | None


def verdict(on: date, warranty_to: date | None, damage: bool, new_months: int) -> Verdict:
    """A part that fails on a day. `damage`: it was broken from without, which no warranty covers.
    A part replaced under warranty keeps the first one's days, a paid one has its own; common
    practice, no source.

    >>> verdict(date(2026, 8, 1), date(2027, 5, 1), False, 24).text
    'Under warranty to 2027-05-01: claim it from the supplier.'
    >>> verdict(date(2026, 8, 1), date(2026, 5, 1), False, 24).new_to
    datetime.date(2028, 8, 1)
    """
    own = add_months(on, new_months) if new_months else None
    if damage:
        return Verdict("paid", msg("Damage from without: no warranty covers it."), own)
    if warranty_to is None:
        return Verdict(
            msg("not known"), msg("No warranty is noted of the old part: ask the supplier."), own
        )
    if on <= warranty_to:
        text = msg(
            "Under warranty to %(isoformat)s: claim it from the supplier.",
            isoformat=warranty_to,
        )
        return Verdict("warranty", text, warranty_to)
    return Verdict("paid", msg("Its warranty ended on %(isoformat)s.", isoformat=warranty_to), own)
