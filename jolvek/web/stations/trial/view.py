"""The sea trial: its plan, its runs beside the promise, what they say of the boat, and the verdict
in plain words.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from markupsafe import Markup

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.base.units import to_unit
from jolvek.core.electric.network import drop_to_motor_v
from jolvek.core.hydro.hull import Load
from jolvek.core.predict.doubt import Doubt, doubt
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.trial.causes import explain
from jolvek.core.trial.diagnosis import Suspected, suspect
from jolvek.core.trial.fitting import Fit, fit, shortfalls, speed_at, untried
from jolvek.core.trial.in_calm import calm_points
from jolvek.core.trial.plan import Step, plan
from jolvek.core.trial.runs import Run, sort
from jolvek.store import trials
from jolvek.store.enquiries import Stored
from jolvek.store.trials import RunKept, Trial
from jolvek.web.kit.display import Units, band, counted
from jolvek.web.kit.drawings.trial_chart import Curves, trial_chart
from jolvek.web.kit.language import tr
from jolvek.web.kit.worked import Worked

FACTOR_WORDS = {
    "friction_factor": msg("Friction"),
    "wave_factor": msg("Waves"),
    "planing_factor": msg("Planing drag"),
    "efficiency_factor": msg("Propeller behind the hull"),
}


@dataclass(frozen=True)
class Beside:
    """One run beside the promise, as text."""

    id: int
    cells: tuple[str, ...]
    why: str
    source: str
    also: str = ""  # shaft speed and volts


@dataclass(frozen=True)
class TrialPage:
    """All that the page shows of a trial."""

    plan: tuple[tuple[str, ...], ...]
    rows: tuple[Beside, ...]
    verdict: str
    found: tuple[tuple[str, str], ...]
    band_text: str
    current_text: str
    charge_text: str
    chart: Markup
    suspected: tuple[Suspected, ...]
    problem: str
    fit: Fit | None


def setup_of(hand: Worked, data: Mapping[str, Any]) -> Setup:
    """What was tried: the setup in hand in calm water, the boat untried, the load as it was."""
    s = hand.fitted.setup
    load = s.load
    if data.get("people"):
        load = Load(int(data["people"]), data.get("people_kg"), data.get("gear_kg") or 0.0)
    calm: dict[str, Any] = {"wind_m_s": 0.0, "current_m_s": 0.0, "wave_height_m": 0.0}
    return replace(s, hull=untried(s.hull), load=load, drag_factor=1.0, depth_m=None, **calm)


def page(
    trial: Trial | None,
    kept: list[RunKept],
    hand: Worked,
    u: Units,
    live_wh: float | None = None,
) -> TrialPage:
    """The page of the last trial; `live_wh` is what an instrument counted."""
    data = trial.data if trial else {}
    setup = setup_of(hand, data)
    promised = doubt(evaluate(setup))
    runs = [k.run for k in kept]
    found: Fit | None = None
    problem = ""
    if runs:
        try:
            found = fit(setup, runs)
        except JolvekError:
            problem = tr("No run belongs yet: run the same power back.")
    left_out = {i: t.why for i, t in enumerate(found.run_fits)} if found else sort(runs).left_out
    rows = tuple(_beside(i, k, promised, left_out, u) for i, k in enumerate(kept))
    return TrialPage(
        tuple(_planned(s, u) for s in plan(promised.performance)),
        rows,
        verdict(found, promised) if found else "",
        _found(found) if found else (),
        _band_text(found) if found else "",
        _current(found, u) if found else "",
        charge_text=charge_text(data, hand, live_wh),
        chart=_chart(promised, found, setup, runs, u),
        suspected=tuple(diagnosis(found, promised, hand, data)),
        problem=problem,
        fit=found,
    )


def _planned(s: Step, u: Units) -> tuple[str, ...]:
    low, high = (u.number(x, "speed") for x in (s.low_m_s, s.high_m_s))
    return (
        str(u.full(s.power_w, "power")),
        str(u.full(s.speed_m_s, "speed")),
        f"{low} – {high}",
        f"{s.seconds:.0f} s",
        f"{s.metres:.0f} m",
        str(u.full(s.depth_m, "length")),
    )


def _beside(i: int, k: RunKept, d: Doubt, why: Mapping[int, str], u: Units) -> Beside:
    low, high = (float(x) for x in d.speed_band_m_s(k.run.power_w))
    cells = (
        str(u.full(k.run.power_w, "power")),
        k.run.heading or tr("still water"),
        u.number(k.run.speed_m_s, "speed"),
        u.number(speed_at(d, k.run.power_w), "speed"),
        f"{u.number(low, 'speed')} – {u.number(high, 'speed')}",
    )
    return Beside(k.id, cells, why.get(i, ""), k.source, _also(k.run, u))


def _also(run: Run, u: Units) -> str:
    """What was read beside speed and power."""
    rpm = tr("%(rpm)s rev/min", rpm=f"{run.rpm:.0f}") if run.rpm else ""
    volts = str(u.full(run.volts_v, "voltage")) if run.volts_v else ""
    return ", ".join(x for x in (rpm, volts) if x)


def verdict(f: Fit, promised: Doubt) -> str:
    """How the points lie against the promise, in a sentence."""
    within = 0
    for p in f.paired:
        low, high = (float(x) for x in promised.speed_band_m_s(p.power_w))
        within += low <= p.speed_m_s <= high
    mean = -float(np.mean([short for _, short in shortfalls(f.paired, promised)]))
    percent = f"{100 * abs(mean):.0f}"
    if abs(mean) < 0.02:
        how = tr("The boat is *as fast as promised*")
    elif mean > 0:
        how = tr("The boat is *%(percent)s %% faster than promised*", percent=percent)
    else:
        how = tr("The boat is *%(percent)s %% slower than promised*", percent=percent)
    points = counted(len(f.paired), "point")
    kept = tr("%(within)s of %(points)s within the promise’s band", within=within, points=points)
    return f"{how}; {kept}."


def _found(f: Fit) -> tuple[tuple[str, str], ...]:
    out = []
    for key, name in FACTOR_WORDS.items():
        value = f.factors[key]
        if abs(value - 1) >= 0.005:
            out.append((name, f"{100 * (value - 1):+.0f} %"))
    return tuple(out)


def _band_text(f: Fit) -> str:
    return tr(
        "The doubt was %(before)s of speed; %(after)s is left.",
        before=band(f.before),
        after=band(f.after),
    )


def _current(f: Fit, u: Units) -> str:
    streams = [abs(p.current_m_s) for p in f.points if len(p.runs) == 2]
    if not streams:
        return ""
    return tr(
        "A current of %(streams)s was taken out.", streams=u.full(float(np.mean(streams)), "speed")
    )


def charge_text(data: Mapping[str, Any], hand: Worked, live_wh: float | None = None) -> str:
    """The charge used on the trial against what the display counted; empty where not told."""
    start, end, shown = (data.get(k) for k in ("start_charge", "end_charge", "used_wh"))
    shown, by = (shown, tr("the display")) if shown else (live_wh, tr("the instrument"))
    if start is None or end is None or not shown or start <= end:
        return ""
    rated = (start - end) * hand.fitted.bank.energy_wh
    share = rated / shown
    text = tr(
        "The charge fell by %(end)s %%, %(rated)s Wh of the bank as rated;",
        end=f"{100 * (start - end):.0f}",
        rated=f"{rated:.0f}",
    )
    text = tr("%(text)s %(by)s counted %(shown)s Wh.", text=text, by=by, shown=f"{shown:.0f}")
    if share > 1.15:
        return tr(
            "%(text)s *The bank gives less than rated, or %(by)s counts too little.*",
            text=text,
            by=by,
        )
    return (
        text
        if share > 0.85
        else tr("%(text)s *The gauge of charge shows more than there is.*", text=text)
    )


def promise_kept(conn: sqlite3.Connection, trial: Trial, hand: Worked) -> list[float]:
    """Measured speed over the promise, less one, at each point of a trial; none without points."""
    setup = setup_of(hand, trial.data)
    runs = [k.run for k in trials.runs(conn, trial.id)]
    points = calm_points(setup, runs).points if runs else ()
    return [-short for _, short in shortfalls(points, doubt(evaluate(setup)))]


def diagnosis(
    f: Fit | None, promised: Doubt, hand: Worked, data: Mapping[str, Any]
) -> list[Suspected]:
    """What may be wrong, from the points, from what was seen, and from the cables."""
    points = f.points if f else ()
    rated = hand.performance.power_limit_w
    explained = explain(f.paired, promised, rated) if f else None
    most = max((p.power_w for p in points), default=None) if data.get("full") else None
    worked = None
    if not hand.fitted.clips_on:
        worked = drop_to_motor_v(hand.fitted.netlist)
    return suspect(explained, data.get("seen", ()), most, rated, data.get("drop_v"), worked)


def _chart(d: Doubt, f: Fit | None, setup: Setup, runs: list[Run], u: Units) -> Markup:
    most = max([d.performance.power_limit_w, *(r.power_w for r in runs)])
    powers = np.linspace(0.05, 1.0, 24) * most
    factor = to_unit(1.0, "speed", u["speed"])
    low, high = d.speed_band_m_s(powers)
    curve = [speed_at(d, float(w)) for w in powers]
    tried: list[float] = []
    if f:
        after = doubt(evaluate(replace(setup, hull=f.hull)))
        tried = [speed_at(after, float(w)) * factor for w in powers]
    points = [(p.power_w, p.speed_m_s * factor, True) for p in f.points] if f else []
    used = {i for p in f.points for i in p.runs} if f else set()
    points += [
        (r.power_w, r.speed_m_s * factor, False) for i, r in enumerate(runs) if i not in used
    ]
    return trial_chart(
        Curves(
            powers.tolist(),
            [v * factor for v in curve],
            (low * factor).tolist(),
            (high * factor).tolist(),
            tried,
            points,
        ),
        u["speed"],
    )


def on_paper(
    conn: sqlite3.Connection, stored: Stored, hand: Worked, u: Units
) -> dict[str, Any] | None:
    """The trial as it stands on a handover's record; None without one."""
    trial = trials.latest(conn, stored.id)
    kept = trials.runs(conn, trial.id) if trial else []
    if trial is None or not kept:
        return None
    shown = page(trial, kept, hand, u, trials.energy_wh(conn, trial.id))
    return {
        "began_at": trial.began_at,
        "unit": u["speed"],
        "verdict": shown.verdict.replace("*", ""),
        "found": [list(x) for x in shown.found],
        "band": shown.band_text,
        "current": shown.current_text,
        "charge": shown.charge_text.replace("*", ""),
        "rows": [[*x.cells, x.why] for x in shown.rows],
        "drawing": str(shown.chart),
    }
