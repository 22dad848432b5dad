"""Everything of the setups beside each other: at full, half, lowest and wanted, and what they are
made of; for the page and for files.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from jolvek.core.base.messages import msg
from jolvek.core.electric.bank import rating
from jolvek.core.fit.hung_leg import hung_leg
from jolvek.core.fit.leg import largest_tilt_deg
from jolvek.web.kit.display import Units, counted, money
from jolvek.web.kit.figures import fig
from jolvek.web.kit.language import figure, shown, tr
from jolvek.web.kit.worked import Worked

Row = tuple[str, str, tuple[str, ...]]  # name, unit, a cell a setup
Read = Callable[[Worked], str]
SETTINGS = (
    msg("At full power"),
    msg("At half power"),
    msg("At the lowest step"),
    msg("At the wanted speed"),
)
WAYS = ("full", "half", "lowest", "wish")  # their figures' keys
GAUGES = {"": "", "monitor": msg("monitor"), "voltage": msg("voltage")}
DISPLAYS = {
    "": "",
    "none": msg("nothing"),
    "charge": msg("charge"),
    "time left": msg("time left"),
    "distance left": msg("distance left"),
}


@dataclass(frozen=True)
class FullTable:
    """The letters of the setups, and their rows by group."""

    letters: tuple[str, ...]
    groups: tuple[tuple[str, tuple[Row, ...]], ...]

    @property
    def plain(self) -> list[list[str]]:
        """The table as rows of text, its head first, for CSV and spreadsheets."""
        head = ["", "unit", *self.letters]
        rows = [
            [f"{group}: {name}", unit, *cells]
            for group, lines in self.groups
            for name, unit, cells in lines
        ]
        return [head, *rows]


def full_table(worked: list[Worked], u: Units) -> FullTable:
    """All setups at four settings, and what they are; times and speeds in shown units."""
    groups = [(name, _setting(worked, i, u)) for i, name in enumerate(SETTINGS)]
    for name, lines in (
        (tr("Motor"), _motor(u)),
        (tr("Battery"), _battery(u)),
        (tr("Price"), _price(u)),
    ):
        rows = (
            (row, unit, tuple(figure(result(w)) or "–" for w in worked))
            for row, unit, result in lines
        )
        groups.append((name, tuple(rows)))
    return FullTable(tuple(w.letter for w in worked), tuple(groups))


def _setting(worked: list[Worked], which: int, u: Units) -> tuple[Row, ...]:
    """Power, speed, time, range and amps of one setting; the last: wanted speed or top."""
    name = WAYS[which]

    def row(title: str, unit: str, what: str) -> Row:
        return title, unit, tuple(fig(w.job, f"{name}.{what}", u, False) for w in worked)

    return (
        row(tr("power"), u["power"], "power"),
        row(tr("speed"), u["speed"], "speed"),
        row(tr("running time"), "h", "time"),
        row(tr("range"), u["distance"], "range"),
        row(tr("current"), "A", "amps"),
    )


def _motor(u: Units) -> tuple[tuple[str, str, Read], ...]:
    def kilos(kg: float) -> str:
        return u.number(kg, "mass", 1)

    return (
        (tr("is"), "", lambda w: w.fitted.motor.title),
        (tr("input"), u["power"], lambda w: u.number(w.fitted.motor.spec.input_power_w, "power")),
        (tr("claimed"), "hp", lambda w: _figure(w.fitted.motor.claimed_hp)),
        (tr("at the shaft"), "hp", _shaft_hp),
        (tr("motor weighs"), u["mass"], lambda w: kilos(w.fitted.motor.spec.weight_kg)),
        (tr("mount weighs"), u["mass"], lambda w: kilos(w.fitted.mount.spec.mass_kg)),
        (tr("shafts"), "mm", _shafts),
        (tr("tilts to"), "°", _tilt),
        (tr("charge is shown by"), "", lambda w: shown(GAUGES[w.fitted.gauge])),
        (tr("noise"), "dB(A)", lambda w: _figure(w.fitted.motor.noise_db)),
        (tr("its display tells"), "", lambda w: shown(DISPLAYS[w.fitted.motor.display])),
        (tr("water protection (IP)"), "", lambda w: _whole(w.fitted.motor.ip_water)),
        (tr("warranty"), tr("years"), lambda w: _figure(w.fitted.motor.warranty_years)),
        (tr("in the box"), "", lambda w: ", ".join(w.fitted.motor.in_box)),
    )


def _figure(value: float | None) -> str:
    return f"{value:g}" if value else ""


def _whole(value: int | None) -> str:
    return "" if value is None else str(value)


def _shaft_hp(w: Worked) -> str:
    return f"{w.fitted.motor.spec.shaft_hp:.1f}"


def _shafts(w: Worked) -> str:
    result = ", ".join(f"{1000 * x:.0f}" for x in w.fitted.motor.shafts_m)
    how = tr("fixed") if w.fitted.mount.spec.fixed else tr("set by hand")
    return result or f"{1000 * hung_leg(w.fitted)[1]:.0f}, {how}"


def _tilt(w: Worked) -> str:
    if hung_leg(w.fitted)[0].up_m is None:
        return tr("fixed")
    return f"{largest_tilt_deg(w.fitted.need.site.room_ahead_m):.0f}"


def _battery(u: Units) -> tuple[tuple[str, str, Read], ...]:
    def kilos(kg: float) -> str:
        return u.number(kg, "mass", 1)

    return (
        (tr("is"), "", lambda w: w.fitted.battery.title),
        (tr("bank"), "", _bank),
        (tr("holds"), "Wh", lambda w: fig(w.job, "bank.energy", u, False)),
        (tr("one pack weighs"), u["mass"], lambda w: kilos(w.fitted.battery.spec.weight_kg)),
        (tr("bank weighs"), u["mass"], lambda w: kilos(w.fitted.bank.mass_kg)),
        (tr("a kWh costs"), "", _per_kwh),
        (tr("warranty"), tr("years"), lambda w: _figure(w.fitted.battery.warranty_years)),
        (tr("water protection (IP)"), "", lambda w: _whole(w.fitted.battery.ip_water)),
    )


def _bank(w: Worked) -> str:
    bank = w.fitted.bank
    return f"{shown(rating(bank.nominal_v, bank.capacity_ah))}, {counted(bank.packs, 'pack')}"


def _per_kwh(w: Worked) -> str:
    bank = w.fitted.bank
    if w.fitted.battery.own:
        return "–"
    return money(round(1000 * bank.packs * w.fitted.battery.price / bank.energy_wh))


def _price(u: Units) -> tuple[tuple[str, str, Read], ...]:
    return (
        (tr("parts only"), "", lambda w: fig(w.job, "price.parts", u)),
        (tr("fitted"), "", lambda w: fig(w.job, "price.fitted", u)),
        (tr("add-ons"), "", lambda w: fig(w.job, "price.add-ons", u)),
    )
