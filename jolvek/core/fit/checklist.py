"""The rigger's sheet for one setup: settings, tools, parts and spares, order of work, checks.
Makers' manuals come first.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from jolvek.core.base.messages import msg, msg_all, percent
from jolvek.core.electric.netlist import KIND_WORDS, Wire
from jolvek.core.fit import controls
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.leg import Leg
from jolvek.core.fit.materials import wiring_hours
from jolvek.core.fit.mounting_work import checked, drilled, mounted, never_drilled
from jolvek.core.products.boat_model import CHAMBERS
from jolvek.core.rules.findings import Finding

LIVELY_W_PER_KG = 6.0  # above, power is limited at first; common practice, no source
LOW_CHARGE = 0.2


@dataclass(frozen=True)
class Setting:
    """One setting: what, to what, and why."""

    name: str
    value: str
    why: str


@dataclass(frozen=True)
class Sheet:
    """Everything the rigger needs on paper."""

    settings: tuple[Setting, ...]
    tools: tuple[str, ...]
    parts: tuple[tuple[str, str], ...]  # (what, how many or how long)
    spares: tuple[str, ...]
    steps: tuple[str, ...]
    checks: tuple[str, ...]
    cautions: tuple[str, ...]
    stops: tuple[Finding, ...]  # while one stands, the job is not to be begun
    findings: tuple[Finding, ...]  # the others, worst first
    precautions: tuple[Finding, ...]


def work_hours(f: Fitted) -> float:
    """Hours of work to fit a setup: its mount, and its wiring where it is not carried aboard.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> work_hours(sample_fitted())
    0.5
    """
    return f.mount.spec.hours + (0.0 if f.carried else wiring_hours(f.netlist))


def _plate(x: Leg) -> str:
    plate = f"{abs(1000 * x.plate_m):.0f}"
    if x.plate_m >= 0:
        return msg("%(plate)s mm below", plate=plate)
    return msg("%(plate)s mm above", plate=plate)


def _plate_text(x: Leg) -> str:
    plate = f"{abs(1000 * x.plate_m):.0f}"
    if x.plate_m >= 0:
        return msg("%(plate)s mm below the hull bottom", plate=plate)
    return msg("%(plate)s mm above the hull bottom", plate=plate)


def settings(f: Fitted) -> tuple[Setting, ...]:
    """Power limit, throttle response, low-charge protection, trim pin and plate depth for this
    boat.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> [x.name for x in settings(sample_fitted())]
    ['power limit', 'throttle response', 'low-charge protection', 'trim pin', 'plate']
    """
    out = [_power_limit(f), _throttle(f), _protection()]
    if f.leg is not None:
        rake = f.need.site.rake_deg
        out += [
            Setting(
                msg("trim pin"),
                msg("hole %(pin)s from the transom", pin=f.pin),
                msg("thrust level on a rake of %(rake)s°", rake=f"{rake:.0f}"),
            ),
            Setting(
                msg("plate"),
                _plate_text(f.leg),
                msg("about 25 mm is right; if it draws air in turns, 25 mm lower"),
            ),
        ]
    return tuple(out)


def _power_limit(f: Fitted) -> Setting:
    watts = f.motor.spec.input_power_w
    if watts / f.performance.displacement_kg <= LIVELY_W_PER_KG:
        return Setting(msg("power limit"), msg("full power"), msg("the boat carries it"))
    first = msg(
        "%(watts)s of %(watts2)s W at first",
        watts=f"{round(watts * 2 / 3, -2):.0f}",
        watts2=f"{watts:.0f}",
    )
    return Setting(
        msg("power limit"), first, msg("light boat for this power: until the driver knows it")
    )


def _throttle(f: Fitted) -> Setting:
    mass, name = f.performance.displacement_kg, msg("throttle response")
    if mass < 200 and f.need.hull.family.startswith("inflatable"):
        return Setting(name, msg("2 of 9, soft"), msg("very light inflatable"))
    if mass > 1500:
        return Setting(name, msg("9 of 9"), msg("heavy boat"))
    return Setting(name, msg("4 of 9"), msg("as a rule"))


def _protection() -> Setting:
    why = msg("power is cut back there, enough to come home slowly")
    return Setting(msg("low-charge protection"), percent(LOW_CHARGE), why)


def sheet(f: Fitted, findings: Sequence[Finding] | None = None) -> Sheet:
    """The whole sheet, with what is found of the job (else of the fit alone). Torque in words only:
    nip, do not force; the maker's figures rule.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> x = sheet(sample_fitted())
    >>> len(x.steps) > 6, x.parts[0]
    (True, ('M12', '1'))
    """
    found = f.findings if findings is None else findings
    stops = tuple(x for x in found if x.level == "block")
    return Sheet(
        settings(f),
        _tools(f),
        _parts(f),
        _spares(f),
        _steps(f),
        _checks(f),
        cautions=_cautions(f),
        stops=stops,
        findings=tuple(x for x in found if x.level != "block"),
        precautions=tuple(f.precautions),
    )


def _cautions(f: Fitted) -> tuple[str, ...]:
    out = [msg("Kill cord first; motor free to turn, propeller clear of people.")]
    if f.mount.spec.kind in ("pod", "cassette", "stern_plate", "swing_arm"):
        out.append(msg("Cutting the hull weakens it and voids approvals: ask its maker."))
    if never_drilled(f) or f.need.hull.family == "rib":
        pressure = CHAMBERS[f.need.site.chambers]
        out.append(
            msg("Inflatable: %(pressure)s, before the motor's weight goes on.", pressure=pressure)
        )
    return tuple(out)


def _tools(f: Fitted) -> tuple[str, ...]:
    out = [msg("tape measure and spirit level"), msg("socket set and screwdrivers"), "multimeter"]
    if drilled(f):
        out += [msg("drill with depth stop"), msg("sealant gun, masking tape")]
    if not f.clips_on:
        out += [
            msg("cable cutter and crimper for the lugs"),
            msg("heat-shrink and hot-air gun"),
            msg("insulated spanner"),
        ]
    return tuple(out)


def _parts(f: Fitted) -> tuple[tuple[str, str], ...]:
    out = [(f.motor.name, "1"), (f.battery.name, str(f.bank.packs)), (f.mount.name, "1")]
    out += [(f.charger.name, "1")] if f.charger else []
    out += [(part, msg("1 set")) for part in f.mount.spec.parts]
    out += controls.parts(f)
    if not f.clips_on:
        counts: Counter[str] = Counter()
        for part in f.netlist.parts:
            if part.kind in ("fuse", "switch", "bar", "shunt", "panel", "controller"):
                counts[msg_all([KIND_WORDS[part.kind], part.text])] += 1
        out += [(what, str(count)) for what, count in counts.items()]
        sizes: dict[str, float] = {}
        for w in f.netlist.wires:
            key = msg(
                "cable %(size)s mm² (AWG %(awg)s), tinned, 105 °C, %(_is_plus)s",
                size=f"{w.size.size_mm2:g}",
                awg=w.size.awg,
                _is_plus=msg("red") if _is_plus(w) else msg("black"),
            )
            sizes[key] = sizes.get(key, 0.0) + w.length_m * w.size.runs
        metres = {key: msg("%(m)s m", m=f"{length:.1f}") for key, length in sizes.items()}
        out += sorted(metres.items())
        out.append((msg("battery straps or tray"), str(f.bank.packs)))
    return tuple(out)


def _is_plus(w: Wire) -> bool:
    return w.role in ("plus", "series") or "+" in w.a[1] + w.b[1]


def _spares(f: Fitted) -> tuple[str, ...]:
    out = [
        msg("shear or drive pins"),
        msg("spare propeller with washers and self-locking nut"),
        msg("spare kill cord or magnet"),
        msg("keys"),
    ]
    if not f.clips_on:
        out.append(msg("one fuse of each rating"))
    return tuple([*out, msg("anode")] if f.need.water.kind == "salt" else out)


def _steps(f: Fitted) -> tuple[str, ...]:
    charge = (
        msg(" (%(charge)s h from the reserve)", charge=f"{f.charge_h:.0f}") if f.charge_h else ""
    )
    out = [
        msg("Unpack, compare with the parts list, write down serial numbers."),
        msg("Charge fully before the first use%(charge)s.", charge=charge),
        mounted(f),
    ]
    if f.leg is not None:
        out.append(
            msg(
                "Hang the motor; plate %(leg)s the bottom at the transom, shaft upright with the "
                "boat loaded.",
                leg=_plate(f.leg),
            )
        )
    if f.motor.style in ("outboard", "pole"):
        out.append(
            msg(
                "Propeller: larger washer, drive pin centred, propeller, smaller washer, "
                "self-locking"
                " nut nipped, not forced; anode last."
            )
        )
    return (
        *out,
        *controls.steps(f),
        *_wired(f),
        msg("Settings as above."),
        msg("Test forward, neutral, reverse on the water, not in the air for long."),
    )


def _wired(f: Fitted) -> tuple[str, ...]:
    if f.clips_on:
        return (msg("Clip the battery on; it goes one way: align, push, lock."),)
    where = ", ".join(f"{s.packs} in {s.bay.name}" for s in f.stowed[0]) or msg("as drawn")
    return (
        msg("Stow and strap the packs: %(where)s.", where=where),
        msg(
            "Switch off. Lay the cables away from heat and edges, relieve the strain at both ends."
        ),
        msg(
            "Fuse at the battery's pole first, then series links, then the rails; minus last. "
            "Packs in"
            " parallel only at equal voltage."
        ),
        msg("Measure: voltage and polarity at the motor's plug before it is joined."),
    )


def _checks(f: Fitted) -> tuple[str, ...]:
    out = [
        msg("kill cord stops the motor"),
        *checked(f),
        msg("no vibration, no air drawn in full turns"),
        msg("charge shown and read together with the customer"),
        msg("loaded trim looked at from the quay"),
    ]
    if f.yaw is not None:
        out.append(msg("runs straight with the helm's own force"))
    if not f.clips_on:
        out += [
            msg("terminals covered, packs strapped"),
            msg("main switch in reach; its place shown"),
            msg("cables cool to the hand after ten minutes at full power"),
        ]
    return tuple([*out, msg("life jackets and another way to move the boat aboard")])
