"""The table of Side by side: its rows in shown units, the best of each, and why each setup."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any

from jolvek.core.base.messages import msg
from jolvek.core.base.units import hours as clock
from jolvek.core.day.summed import DayRun
from jolvek.core.predict.handling import Handling, handling
from jolvek.core.predict.performance import Point
from jolvek.web.kit.display import Units, money
from jolvek.web.kit.figures import fig
from jolvek.web.kit.language import listed, tr
from jolvek.web.kit.worked import Worked

MUCH_DEARER, MUCH_HEAVIER = 1.2, 1.3  # than the least: told as what a setup gives up


TIE = 0.005  # two figures no further apart, of the better one, are as good; prices are told exactly


@dataclass(frozen=True)
class Cell:
    """One figure, whether it is the best of its row, and the live row that the cursor writes."""

    text: str
    best: bool
    live: str = ""


@dataclass(frozen=True)
class TableRow:
    """One row: its name, a cell a setup, its unit; `at_cursor` where the name holds the cursor."""

    name: str
    cells: tuple[Cell, ...]
    unit: str
    at_cursor: bool = False


def best_of(worked: list[Worked], at: dict[str, Point], days: dict[str, DayRun]) -> dict[str, str]:
    """Row of the table → letter of the best setup in it."""
    if len(worked) < 2:
        return {}
    rows: dict[str, dict[str, float | None]] = {
        "power": {k: -p.power_w if p.power_w else None for k, p in at.items()},
        "speed": {k: p.speed_m_s for k, p in at.items()},
        "runtime": {k: p.runtime_s for k, p in at.items()},
        "range": {k: p.range_m for k, p in at.items()},
        "top": {w.letter: w.performance.top_speed_m_s for w in worked},
        "lift": {w.letter: -w.lift_kg for w in worked},
        "mass": {w.letter: -w.parts_kg for w in worked},
        "price": {w.letter: -w.job.ranking_price for w in worked},
        "charge": {w.letter: -w.charge_h if w.charge_h else None for w in worked},
        "thrust": {w.letter: w.performance.static_thrust_n for w in worked},
        "noise": {w.letter: -n if (n := w.fitted.motor.noise_db) else None for w in worked},
        "left": {k: d.left if d.home else None for k, d in days.items()},
    }
    return {row: _best(values, 0.0 if row == "price" else TIE) for row, values in rows.items()}


def _best(values: dict[str, float | None], tie: float) -> str:
    """The letter of the highest; none where another is as good."""
    known = sorted(((v, k) for k, v in values.items() if v is not None), reverse=True)
    if len(known) > 1 and known[0][0] - known[1][0] <= tie * abs(known[0][0]):
        return ""
    return known[0][1] if known else ""


def table(
    worked: list[Worked],
    at: dict[str, Point],
    days: dict[str, DayRun],
    best: dict[str, str],
    mode: str,
    u: Units,
) -> tuple[TableRow, ...]:
    """The rows, first those at the cursor or over the day, then those of the setup itself."""

    def line(
        name: str, key: str, unit: str, text: Callable[[Worked], str], live: str = ""
    ) -> TableRow:
        cells = (
            Cell(text(w), bool(key) and best.get(key) == w.letter, live and f"{live}-{w.letter}")
            for w in worked
        )
        return TableRow(name, tuple(cells), unit, live == "power")

    first = _day_rows(line, u) if mode == "day" else _cursor_rows(line, at, mode, u)
    going = {w.letter: handling(w.performance) for w in worked}
    ranks_fitted = worked[0].job.rates.ranks_fitted
    return (*first, *_setup_rows(line, going, ranks_fitted, u))


Line = Callable[..., TableRow]


def _day_rows(line: Line, u: Units) -> list[TableRow]:
    return [
        line(tr("Energy of the day"), "", "kWh", lambda w: fig(w.job, "day.energy", u, False)),
        line(tr("Time out"), "", "h", lambda w: fig(w.job, "day.hours", u, False)),
        line(tr("Left at home"), "left", "%", lambda w: fig(w.job, "day.left", u, False)),
        line(tr("The day"), "", "", lambda w: fig(w.job, "day.likely", u, False)),
    ]


def _cursor_rows(line: Line, at: dict[str, Point], mode: str, u: Units) -> list[TableRow]:
    def power(w: Worked) -> str:
        return u.number(at[w.letter].power_w, "power")

    def speed(w: Worked) -> str:
        return u.number(at[w.letter].speed_m_s, "speed")

    def far(w: Worked) -> str:
        return u.number(at[w.letter].range_m, "distance")

    def far_band(w: Worked) -> str:
        return _far_band(w, at[w.letter], mode, u)

    first = line(tr("Power at"), "power", u["power"], power, "power")
    if mode == "power":
        first = line(tr("Speed"), "speed", u["speed"], speed, "speed")
    unit = u["speed" if mode == "power" else "power"]
    return [
        first,
        line(tr("may be"), "", unit, lambda w: _first_band(w, at[w.letter], mode, u), "firstBand"),
        line(
            tr("Running time"), "runtime", "h", lambda w: clock(at[w.letter].runtime_s), "runtime"
        ),
        line(tr("Range"), "range", u["distance"], far, "range"),
        line(tr("range may be"), "", u["distance"], far_band, "rangeBand"),
    ]


def _first_band(w: Worked, x: Point, mode: str, u: Units) -> str:
    """What four boats in five lie between: the speed at a power, or the power at a speed."""
    if x.power_w is None or x.speed_m_s is None:
        return "–"
    if mode == "power":
        return _ends(w.fitted.doubt.speed_band_m_s(x.power_w), "speed", u)
    return _ends(w.fitted.doubt.power_band_w(x.speed_m_s), "power", u)


def _far_band(w: Worked, x: Point, mode: str, u: Units) -> str:
    """The same of the range."""
    if x.range_m is None or x.speed_m_s is None or x.power_w is None:
        return "–"
    d = w.fitted.doubt
    by_power = mode == "power"
    ends = d.way_band_m(x.power_w) if by_power else d.range_band_m(x.speed_m_s)
    return _ends(ends, "distance", u)


def _ends(band: Iterable[Any], quantity: str, u: Units) -> str:
    low, high = (u.number(float(x), quantity) for x in band)
    return f"{low}–{high}"


def _setup_rows(
    line: Line, going: dict[str, Handling], ranks_fitted: bool, u: Units
) -> list[TableRow]:
    def of(key: str) -> Callable[[Worked], str]:
        return lambda w: fig(w.job, key, u, False)

    def extras(w: Worked) -> str:
        return fig(w.job, "price.add-ons", u, False) if w.pinned.extras else "–"

    def plane(w: Worked) -> str:
        seconds = going[w.letter].to_plane_s
        return f"{seconds:.0f}" if seconds is not None else "–"

    parts_key, fitted_key = ("", "price") if ranks_fitted else ("price", "")
    return [
        line(tr("Kept at the end"), "", "", lambda w: w.kept_short),
        line(tr("Top speed"), "top", u["speed"], of("top")),
        line(tr("Time to 90 % of top speed"), "", "s", of("handling.to-speed")),
        line(tr("On the plane in"), "", "s", plane),
        line(tr("Coasts for"), "", "m", of("handling.coasts")),
        line(tr("Static thrust"), "thrust", u["thrust"], of("thrust")),
        line(tr("Heaviest lift"), "lift", u["mass"], of("lift")),
        line(tr("Total weight"), "mass", u["mass"], of("mass")),
        line(tr("Charge to full"), "charge", "h", of("charge.time")),
        line(tr("Noise, dB(A)"), "noise", "", of("noise")),
        line(
            tr("Parts only"),
            "" if ranks_fitted else "price",
            "",
            of("price.parts"),
        ),
        line(tr("Fitted"), "price" if ranks_fitted else "", "", of("price.fitted")),
        line(tr("Add-ons"), "", "", extras),
    ]


_FOR = {
    "price": msg("costs least"),
    "lift": msg("is lightest to lift"),
    "range": msg("goes furthest at this speed"),
    "top": msg("is fastest"),
    "charge": msg("charges quickest"),
    "noise": msg("is quietest"),
    "left": msg("comes home with most left"),
}


def why(w: Worked, worked: list[Worked], best: dict[str, str]) -> str:
    """Why this one: what it is best at, and what it gives up for it, in one or two sentences."""
    if w.blocked:
        return tr("Cannot be offered for this boat; shown for comparison.")
    wins = [tr(words) for row, words in _FOR.items() if best.get(row) == w.letter]
    cheapest = min(x.job.ranking_price for x in worked)
    lightest = min(x.lift_kg for x in worked)
    gives = []
    if w.job.ranking_price > MUCH_DEARER * cheapest:
        gives.append(
            tr(
                "costs %(cheapest)s more than the cheapest",
                cheapest=money(w.job.ranking_price - cheapest),
            )
        )
    if w.lift_kg > MUCH_HEAVIER * lightest:
        gives.append(
            tr(
                "is %(lightest)s kg heavier to lift than the lightest",
                lightest=f"{w.lift_kg - lightest:.0f}",
            )
        )
    rows = [tr("It %(does)s.", does=listed(wins)) if wins else tr("A good all-rounder.")]
    rows += [tr("It %(does)s.", does=listed(gives))] if gives else []
    return " ".join(rows)
