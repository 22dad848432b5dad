"""The bank's wiring as a netlist: packs, links, fuses, switch, motor, charger and 12 V loads, each
cable sized.

The netlist is the one truth from which the diagram and the cable list are drawn, and which tests
walk. Above 60 V DC it is work for a qualified marine electrician. Local codes and makers' manuals
decide.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from jolvek.core.electric.bank import Bank
from jolvek.core.electric.netlist import Netlist, Part, Plan, Wire, pack_id, short_circuit_a
from jolvek.core.electric.serving import outputs_used
from jolvek.core.electric.wire_sizes import FUSE_SHARE, Cable, Fuse, cable, fuse

CONVERTER_EFFICIENCY = 0.9  # common practice, no source
LINK_M = 0.3
THINNEST_MM2 = 1.5  # for its own strength; common practice, no source
TAIL_M = 0.15  # from a pole to its fuse or bar


def install(
    bank: Bank, motor_w: float, plan: Plan | None = None, controller_a: float | None = None
) -> Netlist:
    """The whole netlist of a bank that feeds a motor of an input power in W.

    The steady current is at the bank's nominal voltage, or the controller's limit where that is
    less. One fuse per parallel string at its plus pole; parallel strings share by `plan.take_off`.
    Raises ValueRefused where no cable carries the current.

    >>> from jolvek.core.electric.battery import Battery
    >>> n = install(Bank(Battery("lfp", 25.6, 50), 1, 2), 1200.0)
    >>> [p.kind for p in n.parts].count("fuse"), round(n.motor_a)
    (2, 47)
    """
    plan = plan or Plan()
    amps = min(motor_w / bank.nominal_v, controller_a or np.inf)
    draft = _Draft(bank, plan, float(amps))
    draft.strings()
    draft.main_circuit()
    draft.charging()
    draft.loads()
    return Netlist(bank, plan, float(amps), tuple(draft.parts), tuple(draft.wires), draft.fuses)


class _Draft:
    """Collects parts and wires while the netlist is laid out."""

    def __init__(self, bank: Bank, plan: Plan, amps: float) -> None:
        self.bank, self.plan, self.amps = bank, plan, amps
        self.parts: list[Part] = []
        self.wires: list[Wire] = []
        self.fuses: dict[str, Fuse] = {}
        carries = cable(
            FUSE_SHARE * amps, 0.1, bank.nominal_v, "motor", plan.engine_space
        )  # what its fuse lets through
        self.main = cable(
            amps, 2 * plan.run_m, bank.nominal_v, "motor", plan.engine_space, carries.size_mm2
        )
        if carries.runs > self.main.runs:
            self.main = cable(
                FUSE_SHARE * amps, 2 * plan.run_m, bank.nominal_v, "motor", plan.engine_space
            )

    def wire(
        self,
        a: tuple[str, str],
        b: tuple[str, str],
        length: float,
        role: str,
        amps: float | None = None,
        size: Cable | None = None,
    ) -> None:
        """Add one cable; of the main size where no other is given."""
        self.wires.append(
            Wire(
                f"W{len(self.wires) + 1}",
                a,
                b,
                length,
                self.amps if amps is None else amps,
                role,
                size or self.main,
            )
        )

    def strings(self) -> None:
        """Packs in series, a fuse at each string's plus pole, and the strings joined."""
        bank, p = self.bank, self.bank.parallel
        lead = bool(bank.chem.lithium)
        hazard = (
            "Lithium: only with its own battery management; cover both poles."
            if lead
            else "Lead-acid: gives off hydrogen; ventilate."
        )
        string_a = (
            self.amps if p == 1 else max(self.amps / p, min(self.amps, bank.battery.continuous_a))
        )
        for i in range(1, p + 1):
            for k in range(1, bank.series + 1):
                b = bank.battery
                self.parts.append(
                    Part(
                        pack_id(i, k),
                        "pack",
                        f"{b.nominal_voltage_v:g} V {b.capacity_ah:g} Ah",
                        hazard,
                    )
                )
                if k > 1:
                    self.wire(
                        (pack_id(i, k - 1), "+"), (pack_id(i, k), "-"), LINK_M, "series", string_a
                    )
            f = fuse(string_a, self.main.allowed_a, short_circuit_a(replace(bank, parallel=1)))
            self.fuses[f"fuse-{i}"] = f
            self.parts.append(
                Part(f"fuse-{i}", "fuse", f"{f.rating_a:g} A", "At the pole, before anything else.")
            )
            self.wire((pack_id(i, bank.series), "+"), (f"fuse-{i}", "1"), TAIL_M, "plus", string_a)
        self.join(string_a)

    def join(self, string_a: float) -> None:
        """Strings in parallel: along both rails with the take-off at opposite ends, or with equal
        leads to bars.
        """
        p, how = self.bank.parallel, self.plan.take_off
        first, last = pack_id(1, 1), pack_id(p, 1)
        if p == 1 or how != "bars":
            for i in range(1, p):
                self.wire((f"fuse-{i}", "2"), (f"fuse-{i + 1}", "2"), LINK_M, "plus")
                self.wire((pack_id(i, 1), "-"), (pack_id(i + 1, 1), "-"), LINK_M, "minus")
            self.plus = ("fuse-1", "2")
            self.minus = (first if how == "one end" else last, "-")
            return
        self.parts += [
            Part("bar-plus", "bar", "plus bar", "Cover it: no tool across the bars."),
            Part("bar-minus", "bar", "minus bar"),
        ]
        for i in range(1, p + 1):
            self.wire((f"fuse-{i}", "2"), ("bar-plus", str(i)), 2 * LINK_M, "plus", string_a)
            self.wire((pack_id(i, 1), "-"), ("bar-minus", str(i)), 2 * LINK_M, "minus", string_a)
        self.plus, self.minus = ("bar-plus", "out"), ("bar-minus", "out")

    def main_circuit(self) -> None:
        """Switch in plus, shunt in minus, motor at the end; half of the run before the switch."""
        near = min(0.5, 0.5 * self.plan.run_m)
        rest = self.plan.run_m - near
        self.parts += [
            Part(
                "switch",
                "switch",
                f"{_switch_a(self.amps)} A",
                "Off before any work. Within reach, outside the battery's box.",
            ),
            Part(
                "motor",
                "motor",
                f"{self.amps:.0f} A at most",
                (
                    "Kill cord first; propeller clear of people."
                    if not self.plan.connector_a
                    else (
                        f"Connector for {self.plan.connector_a:.0f} A: align, push, lock; never"
                        " pull under load."
                    )
                ),
            ),
        ]
        self.wire(self.plus, ("switch", "1"), near, "plus")
        self.wire(("switch", "2"), ("motor", "+"), rest, "plus")
        self.low = (
            ("shunt", "L") if self.plan.shunt else self.minus
        )  # so that the monitor counts every ampere
        if self.plan.shunt:
            self.parts.append(Part("shunt", "shunt", "shunt and monitor"))
            self.wire(self.minus, ("shunt", "B"), near, "minus")
            self.wire(("shunt", "L"), ("motor", "-"), rest, "minus")
        else:
            self.wire(self.minus, ("motor", "-"), self.plan.run_m, "minus")

    def charging(self) -> None:
        """Charger leads: to the bank's ends, or one pair per pack for a multi-output charger; shore
        inlet before it.
        """
        plan = self.plan
        if plan.charger_a <= 0 or plan.charger_way not in ("bank", "each"):
            return
        self.parts += [
            Part(
                "charger",
                "charger",
                f"{plan.charger_a:g} A",
                "Out of spray; matched to the battery; never below freezing for lithium.",
            ),
            Part(
                "inlet",
                "inlet",
                "shore inlet",
                "Mains: a qualified electrician, with residual-current protection.",
            ),
        ]
        single = self.charged_packs()
        volts = self.bank.battery.nominal_voltage_v if single else self.bank.nominal_v
        size = self.thin(plan.charger_a, 3.0, volts, "charge")
        lead = (1.5, "charge", plan.charger_a, size)
        if not single:
            self.fused("fuse-charge", ("charger", "+"), self.plus, *lead)
            self.wire(("charger", "-"), self.low, *lead)
        for n, (pid, lifted) in enumerate(single, 1):
            self.fused(f"fuse-charge-{n}", ("charger", f"{n}+"), (pid, "+"), *lead)
            if lifted:  # its minus stands above the bank's, and the packs below can feed it
                self.fused(f"fuse-charge-{n}n", ("charger", f"{n}-"), (pid, "-"), *lead)
            else:
                self.wire(("charger", f"{n}-"), (pid, "-"), *lead)

    def charged_packs(self) -> list[tuple[str, bool]]:
        """The packs with a charge lead of their own, and whether each stands above the lowest of
        its string; empty where the charger serves the bank's ends.
        """
        bank, outputs = self.bank, self.plan.charger_outputs
        ids = [
            (pack_id(i, k), k > 1)
            for i in range(1, bank.parallel + 1)
            for k in range(1, bank.series + 1)
        ]
        if self.plan.charger_way == "each":
            return ids
        used = int(outputs_used(bank.series, bank.parallel, outputs))
        return ids[:used] if used > 1 else []

    def thin(
        self, amps: float, there_and_back_m: float, volts: float, circuit: str = "other"
    ) -> Cable:
        """A charge or load cable that also carries what its fuse lets through."""
        carries = cable(
            FUSE_SHARE * amps, 0.1, volts, circuit, self.plan.engine_space, THINNEST_MM2
        )
        return cable(
            amps, there_and_back_m, volts, circuit, self.plan.engine_space, carries.size_mm2
        )

    def fused(
        self,
        name: str,
        thing: tuple[str, str],
        source: tuple[str, str],
        length: float,
        role: str,
        amps: float,
        size: Cable,
    ) -> None:
        """A plus lead from a thing to what can feed it a short circuit, with its own fuse at that
        end.
        """
        f = fuse(amps, size.allowed_a, short_circuit_a(self.bank))
        self.fuses[name] = f
        self.parts.append(
            Part(
                name,
                "fuse",
                f"{f.rating_a:g} A",
                "Its own: the strings' fuses do not guard so thin a cable.",
            )
        )
        self.wire(thing, (name, "1"), length - TAIL_M, role, amps, size)
        self.wire((name, "2"), source, TAIL_M, role, amps, size)

    def loads(self) -> None:
        """12 V loads by the chosen school; where the bank itself is 12 V they hang behind a
        fuse.
        """
        want, bank = self.plan.loads, self.bank
        if want.current_a <= 0:
            return
        size = self.thin(want.current_a, 4.0, 12.0)
        self.parts.append(Part("load", "load", f"12 V loads, {want.current_a:g} A"))
        plus, minus = self.plus, self.low
        if bank.nominal_v > 16 and want.school == "converter":
            inside = want.current_a * 12 / bank.nominal_v / CONVERTER_EFFICIENCY
            feed = self.thin(inside, 2.0, bank.nominal_v)
            self.parts.append(Part("converter", "converter", f"{bank.nominal_v:.0f} V to 12 V"))
            self.fused("fuse-converter", ("converter", "in+"), self.plus, 1.0, "load", inside, feed)
            self.wire(self.low, ("converter", "in-"), 1.0, "load", inside, feed)
            plus, minus = ("converter", "out+"), ("converter", "out-")
        elif bank.nominal_v > 16 and want.school == "own battery":
            self.parts.append(Part("own", "pack", "12 V"))
            plus, minus = ("own", "+"), ("own", "-")
        elif bank.nominal_v > 16:
            plus = (pack_id(1, 1), "+")
        self.fused("fuse-load", ("load", "+"), plus, 2.0, "load", want.current_a, size)
        self.wire(minus, ("load", "-"), 2.0, "load", want.current_a, size)


def _switch_a(amps: float) -> int:
    return next((a for a in (50, 100, 150, 200, 275, 300, 350, 450, 600) if a >= 1.25 * amps), 600)
