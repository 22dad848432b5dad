"""The answer of matching as plain data: ranked setups, named picks, steps of money, rejected
products.
"""

from __future__ import annotations

import math
from typing import Any

from jolvek.core.job.job_setup import of_fitted
from jolvek.core.match.matching import Match
from jolvek.core.match.picks import Pick, picks
from jolvek.core.match.ranking import pareto, ranked, score, steps
from jolvek.core.match.whole import fitted_of
from jolvek.core.rules.findings import Finding


def _setup(match: Match, i: int, scores: Any) -> dict[str, Any]:
    f, d, s, shelf = match.field, match.drives, match.supplies, match.shelf
    drive, supply = int(f.drive[i]), int(f.supply[i])
    charger = int(s.charger[supply])
    figures = {
        "top_speed_m_s": f.top_speed_m_s[i],
        "power_w": f.power_at_wish_w[i],
        "runtime_s": f.runtime_s[i],
        "range_m": f.range_m[i],
        "price": f.price[i],
        "parts_price": f.parts_price[i],
        "fitted_price": f.fitted_price[i],
        "mass_kg": f.mass_kg[i],
        "lift_kg": f.lift_kg[i],
        "charge_h": f.charge_h[i],
        "displacement_kg": f.displacement_kg[i],
        "score": scores[i],
    }
    shaft = float(d.shaft_m[drive])
    return {
        "motor": shelf.motors[d.motor[drive]].id,
        "shaft_length_m": None if math.isnan(shaft) else shaft,
        "mount": shelf.mounts[d.mount[drive]].id,
        "battery": shelf.batteries[s.battery[supply]].id,
        "series": int(s.series[supply]),
        "parallel": int(s.parallel[supply]),
        "charger": shelf.chargers[charger].id if charger >= 0 else None,
        "does_day": bool(f.does_day[i]),
        **{k: None if math.isnan(v) else float(f"{v:.6g}") for k, v in figures.items()},
    }


def _reason(product: str, finding: Finding) -> dict[str, Any]:
    return {
        "id": product,
        "rule": finding.rule,
        "text": finding.text,
        "cure": finding.cure,
        "source": finding.source,
        "figure": finding.figure,
        "limit": finding.limit,
    }


def _judged(match: Match, i: int, scores: Any) -> dict[str, Any]:
    """A ranked setup with what the rule book says of it; what it does is worked out as that of a
    setup in hand, finer than all candidates are.
    """
    job = of_fitted(fitted_of(match, i))
    at, power = job.wish_or_top, match.field.power_at_wish_w[i]
    exact = {
        "top_speed_m_s": job.performance.top_speed_m_s,
        "power_w": None if math.isnan(power) else at.power_w,
        "runtime_s": at.runtime_s,
        "range_m": at.range_m,
    }
    rows = [
        {"rule": x.rule, "level": x.level, "text": x.text, "cure": x.cure, "source": x.source}
        for x in job.findings
    ]
    figures = {k: None if v is None else float(f"{v:.6g}") for k, v in exact.items()}
    return {**_setup(match, i, scores), **figures, "findings": rows}


def _told(pick: Pick) -> dict[str, Any]:
    misses = [{"what": what, "figure": x, "limit": most} for what, x, most in pick.misses]
    return {"pick": pick.id, "title": pick.title, "misses": misses}


def answer(match: Match, most: int = 12) -> dict[str, Any]:
    """The whole answer; an empty list of setups comes with the reasons against every product."""
    scores = score(match)
    shelf = match.shelf
    if not match.field.price.size:
        says = (
            "Nothing on the shelf fits this boat."
            if shelf.motors and shelf.batteries
            else "The shelf has no motor or no battery."
        )
    elif not match.field.does_day.any():
        says = "No setup does the day; the nearest are listed with what is missing."
    else:
        says = f"{int(match.field.does_day.sum())} of {match.field.price.size} setups do the day."
    return {
        "says": says,
        "against_the_boat": [x.text for x in match.need_findings],
        "candidates": int(match.field.price.size),
        "do_the_day": int(match.field.does_day.sum()),
        "thinned": match.thinned,
        "weights": dict(match.need.weights),
        "setups": [_judged(match, i, scores) for i in ranked(match, most)],
        "picks": [{**_told(p), **_setup(match, p.index, scores)} for p in picks(match)],
        "pareto": [_setup(match, int(i), scores) for i in pareto(match)[:200]],
        "steps": [{"budget": s.budget, **_setup(match, s.index, scores)} for s in steps(match)],
        "rejected": {
            kind: [_reason(getattr(shelf, kind)[i].id, f) for i, f in sorted(reasons.items())]
            for kind, reasons in (
                ("motors", match.motor_reasons),
                ("batteries", match.battery_reasons),
                ("mounts", match.mount_reasons),
                ("chargers", match.charger_reasons),
            )
        },
    }
