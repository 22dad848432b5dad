"""The forms by which the customer's own gear is typed."""

from __future__ import annotations

from collections.abc import Mapping

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.electric.chemistry import CHEMISTRIES
from jolvek.core.products.motor import Motor
from jolvek.core.products.own import MAKER, OwnGear
from jolvek.core.products.shelf import Item
from jolvek.web.kit.fields.fields import allowed
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.kit.language import tr

# kind → (key of the record, field, label, quantity, needed)
FIELDS: Mapping[str, tuple[tuple[str, str, str, str, bool], ...]] = {
    "motors": (
        ("input_power_w", "power", msg("Input power"), "power", True),
        ("voltage_v", "volts", msg("Volts"), "number", True),
        ("mass_kg", "mass", msg("Weighs"), "mass", False),
        ("shaft_length_m", "shaft", msg("Shaft"), "length", False),
        ("static_thrust_n", "thrust", msg("Static thrust claimed"), "thrust", False),
    ),
    "batteries": (
        ("nominal_voltage_v", "volts", msg("Volts"), "number", True),
        ("capacity_ah", "ah", msg("Ah when new"), "number", True),
        ("mass_kg", "mass", msg("Weighs"), "mass", False),
        ("max_continuous_a", "amps", msg("Gives at most, A"), "number", False),
        ("length_m", "length", msg("Length"), "length", False),
        ("width_m", "width", msg("Width"), "length", False),
        ("height_m", "height", msg("Height"), "length", False),
    ),
    "chargers": (
        ("voltage_v", "volts", msg("For a bank of, V"), "number", True),
        ("current_a", "amps", msg("Charges with, A"), "number", True),
    ),
}
SPECS = {"motors": Motor, "batteries": Battery, "chargers": Charger}
STYLES = ("outboard", "pole")


def own_from(kind: str, read: Reader) -> OwnGear | None:
    """The gear in a form; None where something of it is refused, which is then told by field."""
    spec_type, figures = SPECS[kind], {}
    for key, name, label, quantity, needed in FIELDS[kind]:
        figures[key] = read.figure(name, quantity, *allowed(spec_type, key))
        if needed and figures[key] is None and name not in read.refused:
            read.refused[name] = tr("%(label)s: needed", label=label)
    since = read.figure("since", "count", *OwnGear.RANGES["since_year"])
    count = read.figure("count", "count", *OwnGear.RANGES["count"])
    health = read.figure("health", "share", *OwnGear.RANGES["health"])
    chemistry = read.one_of("chemistry", tuple(CHEMISTRIES), "lfp")
    style = read.one_of("style", STYLES, "outboard")
    if read.refused:
        return None
    name = read.args.get("name", "").strip()[:80] or {"motors": "motor"}.get(kind, kind[:-1])
    try:
        item = _item(
            kind, name, {k: v for k, v in figures.items() if v is not None}, chemistry, style
        )
        return OwnGear(
            kind,
            item,
            None if since is None else int(since),
            1.0 if health is None else health,
            1 if count is None else int(count),
        )
    except JolvekError as error:
        read.refused["name"] = str(error)
        return None


def _item(
    kind: str, name: str, figures: dict[str, float], chemistry: str, style: str
) -> Item[Motor] | Item[Battery] | Item[Charger]:
    if kind == "motors":
        shaft = figures.pop("shaft_length_m", None)
        motor = Motor(**figures, name=name)  # type: ignore[arg-type]
        shafts = () if shaft is None or style == "pole" else (shaft,)
        return Item("own", MAKER, name, 0.0, motor, style, shafts_m=shafts)
    if kind == "batteries":
        battery = Battery(chemistry, **figures, name=name)  # type: ignore[arg-type]
        return Item("own", MAKER, name, 0.0, battery)
    made = Charger(figures["voltage_v"], figures["current_a"], (chemistry,), name=name)
    return Item("own", MAKER, name, 0.0, made)
