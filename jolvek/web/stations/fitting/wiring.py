"""What Fitting's wiring shows: the diagram, every cable and fuse, and what is said of them."""

from __future__ import annotations

from dataclasses import dataclass, replace

from markupsafe import Markup

from jolvek.core.base.messages import msg
from jolvek.core.electric.bank import VOLTS_DANGEROUS
from jolvek.core.electric.netlist import (
    KIND_WORDS,
    ROLE_WORDS,
    Netlist,
    Plan,
    Wire,
    fed_by,
    tap_imbalance_ah,
)
from jolvek.core.electric.network import drop_to_motor_v, resistance_ohm
from jolvek.core.electric.network import string_currents_a as currents_a
from jolvek.core.electric.wire_sizes import DROP, FUSE_SHARE, FUSE_WITHIN_M, OTHER_FUSE_SHARE
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.route import route_m
from jolvek.core.rules.findings import Finding
from jolvek.web.kit.display import Units
from jolvek.web.kit.drawings.wiring_drawing import wiring_diagram
from jolvek.web.kit.figures import marked
from jolvek.web.kit.language import decimal, shown, tr
from jolvek.web.stations.fitting.controls import length_text
from jolvek.web.stations.fitting.form import run_text

TAKE_WORDS = {
    "diagonal": msg("at opposite ends"),
    "bars": msg("by bars, equal leads"),
    "one end": msg("at one end"),
}
LUG_FROM_MM2 = 10.0
EVEN_A = 0.5  # strings closer than this are told in one figure


@dataclass(frozen=True)
class WiringPage:
    """The wiring tab."""

    answer: str
    basis: str
    help_text: str
    diagram: Markup
    precautions: tuple[Finding, ...]
    twelve_volt: str
    clips_on: bool
    cables: tuple[tuple[str, ...], ...]
    fuses: tuple[str, ...]
    cautions: tuple[tuple[str, str], ...]
    refused: dict[str, str]
    plan: Plan
    lead: str  # an extension lead that is the run; empty: the run is typed
    run: str  # as measured
    route: str  # as the places give it
    load: str
    hours_text: str


def wiring_page(f: Fitted, refused: dict[str, str], u: Units, letter: str = "") -> WiringPage:
    """The wiring of the setup in hand as planned."""
    n = f.netlist
    cautions = {p.caution: (KIND_WORDS[p.kind], p.caution) for p in n.parts if p.caution}
    return WiringPage(
        answer(f, n, letter),
        _guarded(f),
        _rests_on(),
        wiring_diagram(n),
        tuple(f.precautions),
        _twelve_volt(f),
        clips_on=f.clips_on,
        cables=tuple(_cable(w) for w in n.wires),
        fuses=tuple(_fuses(n)),
        cautions=tuple(cautions.values()),
        refused=refused,
        plan=f.plan,
        lead=length_text(f.run_m, u) if f.fitting.lead_m is not None else "",
        run=run_text(f, u),
        route=str(u.full(route_m(f.weights), "length")),
        load=f"{f.plan.loads.current_a:g}" if f.plan.loads.current_a else "",
        hours_text=f"{f.plan.loads.hours:g}",
    )


def _guarded(f: Fitted) -> str:
    rows = [
        tr(
            "Fuse each string at its pole, within %(most)s mm. Cover terminals; no tools across"
            " poles.",
            most=f"{1000 * FUSE_WITHIN_M:.0f}",
        )
    ]
    if f.bank.full_v > VOLTS_DANGEROUS:
        volts = f"{VOLTS_DANGEROUS:.0f}"
        rows.append(tr("*Above %(volts)s V DC: a qualified marine electrician only.*", volts=volts))
    return " ".join([*rows, tr("Local codes and makers’ manuals decide.")])


def _rests_on() -> str:
    return tr(
        "Tinned cable, allowed amps for 105 °C insulation; %(drop)s %% drop in motor circuits,"
        " %(other)s %% elsewhere, there and back; fuse at least %(share)s times the current and at"
        " most what the cable carries (33 CFR 183.455 allows %(more)s times that below 50 V);"
        " sharing by Kirchhoff’s laws.",
        drop=f"{100 * DROP['motor']:.0f}",
        other=f"{100 * DROP['other']:.0f}",
        share=f"{FUSE_SHARE:g}",
        more=f"{OTHER_FUSE_SHARE:g}",
    )


def answer(f: Fitted, n: Netlist, letter: str = "") -> str:
    """The main circuit in one sentence; `*words*` are the ones to stress."""
    if f.clips_on:
        return tr("The battery clips on: nothing to wire but the charger’s lead.")
    main = [w for w in n.wires if w.role == "plus"][-1]
    thick = f"{main.size.size_mm2:g} mm²"
    thick = marked(letter, "cable.size", thick) if letter else thick
    size = decimal(f"{_runs(main)}{thick}")
    lost = 100 * drop_to_motor_v(n) / f.bank.nominal_v
    out = tr(
        "The motor draws up to *%(motor)s A*. *%(size)s* (AWG %(awg)s) cable loses %(lost)s %%",
        motor=f"{n.motor_a:.0f}",
        size=size,
        awg=main.size.awg,
        lost=f"{lost:.1f}",
    )
    if f.bank.parallel > 1:
        amps = currents_a(n)
        least = f"{amps.min():.0f} to " if amps.max() - amps.min() >= EVEN_A else ""
        out += tr(
            ", and the strings give %(least)s%(max)s A each", least=least, max=f"{amps.max():.0f}"
        )
    return out + "."


def _runs(w: Wire) -> str:
    return f"{w.size.runs} × " if w.size.runs > 1 else ""


def _twelve_volt(f: Fitted) -> str:
    loads = f.plan.loads
    way = fed_by(f.bank, loads)
    if not loads.current_a or way == "direct":
        return ""
    taps = replace(loads, school="end taps")
    if fed_by(f.bank, taps) != "end taps":
        return tr(
            "A single pack here stands above what 12 V loads are made for: a converter or a battery"
            " of its own feeds them."
        )
    behind = tap_imbalance_ah(f.bank, taps)
    return tr(
        "Both schools: taken from the end battery, it falls %(behind)s Ah behind the others on "
        "each outing; a converter or its own battery leaves the string in balance and is "
        "preferred.",
        behind=f"{behind:.1f}",
    )


def _cable(w: Wire) -> tuple[str, ...]:
    lugs = "M8, M8" if w.size.size_mm2 >= LUG_FROM_MM2 else tr("ring, ferrule")
    return (
        f"{w.id} {shown(ROLE_WORDS[w.role])}",
        " ".join(w.a),
        " ".join(w.b),
        decimal(f"{w.length_m:.2f}"),
        decimal(f"{_runs(w)}{w.size.size_mm2:g}"),
        w.size.awg,
        f"{w.current_a:.0f}",
        f"{1000 * resistance_ohm(w) * w.current_a:.0f}",
        lugs,
    )


def _fuses(n: Netlist) -> list[str]:
    out = []
    kind = tr(", class T or the like") if n.bank.chem.lithium else ""
    for name, fuse in n.fuses.items():
        text = tr(
            "%(name)s: %(rating)s A, within %(within)s mm of the pole",
            name=name,
            rating=f"{fuse.rating_a:g}",
            within=f"{1000 * fuse.within_m:.0f}",
        )
        must = tr(
            ", for %(volts)s V DC, must break %(must_break)s kA%(kind)s",
            volts=f"{fuse.volts_v:g}",
            must_break=f"{fuse.must_break_a / 1000:.1f}",
            kind=kind,
        )
        out.append(text + must)
    return out
