"""The bank's wiring as a netlist: packs, links, fuses, switch, motor, charger and 12 V loads, each
cable sized.

The netlist is the one truth from which the diagram and the cable list are drawn, and which tests
walk. Above 60 V DC it is work for a qualified marine electrician. Local codes and makers' manuals
decide.
"""

from __future__ import annotations

import numpy as np

from jolvek.core.base.messages import msg
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.draft import TAIL_M, Draft
from jolvek.core.electric.netlist import Netlist, Part, Plan, fed_by, pack_id, short_circuit_a
from jolvek.core.electric.serving import outputs_used
from jolvek.core.electric.sun_chain import LOW_SHARE, PANEL_V
from jolvek.core.electric.wire_sizes import Cable, fuse

CONVERTER_EFFICIENCY = 0.9  # common practice, no source
SUN_RUN_M = 3.0  # from panel to controller; common practice
THINNEST_MM2 = 1.5  # for its own strength; common practice, no source


def install(
    bank: Bank,
    motor_w: float,
    plan: Plan | None = None,
    controller_a: float | None = None,
    steady_a: float | None = None,
) -> Netlist:
    """The whole netlist of a bank that feeds a motor of an input power in W.

    The steady current is the one given (as `pair_facts` has it), or at the bank's nominal voltage,
    or the controller's limit where that is less. One fuse per parallel string at its plus pole, one
    more where they are joined; they share by `plan.take_off`. Raises ValueRefused where no cable
    carries the current.

    >>> from jolvek.core.electric.battery import Battery
    >>> n = install(Bank(Battery("lfp", 25.6, 50), 1, 2), 1200.0)
    >>> [p.kind for p in n.parts].count("fuse"), round(n.motor_a)
    (3, 47)
    """
    plan = plan or Plan()
    amps = steady_a or min(motor_w / bank.nominal_v, controller_a or np.inf)
    draft = _Served(bank, plan, float(amps))
    draft.strings()
    draft.main_circuit()
    draft.charging()
    draft.sun()
    draft.loads()
    return Netlist(bank, plan, float(amps), tuple(draft.parts), tuple(draft.wires), draft.fuses)


class _Served(Draft):
    """What else hangs on the bank: its charger, panels and 12 V loads."""

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
                msg("Out of spray; matched to the battery; never below freezing for lithium."),
            ),
            Part(
                "inlet",
                "inlet",
                msg("shore inlet"),
                msg("Mains: a qualified electrician, with residual-current protection."),
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
        return self.carrying(amps, there_and_back_m, volts, circuit, THINNEST_MM2)

    def fused(
        self,
        name: str,
        thing: tuple[str, str],
        source: tuple[str, str],
        length: float,
        role: str,
        amps: float,
        size: Cable,
        stands_v: float = 0.0,
    ) -> None:
        """A plus lead from a thing to what can feed it a short circuit, with its own fuse at that
        end, which stands the bank's volts, or `stands_v` where that is more.
        """
        full = max(self.bank.charge_v, stands_v)
        f = fuse(amps, size.allowed_a, short_circuit_a(self.bank), full)
        self.fuses[name] = f
        self.parts.append(
            Part(
                name,
                "fuse",
                f"{f.rating_a:g} A",
                msg("Its own: the strings' fuses do not guard so thin a cable."),
            )
        )
        self.wire(thing, (name, "1"), length - TAIL_M, role, amps, size)
        self.wire((name, "2"), source, TAIL_M, role, amps, size)

    def sun(self) -> None:
        """Panels by a chain of their own: fuse, tracking controller, fuse at the bank."""
        watts, bank = self.plan.solar_w, self.bank
        if watts <= 0:
            return
        sun, chosen = self.plan.sun, self.plan.sun.controller
        panel_v = sun.in_row(bank) * (sun.working_v or PANEL_V)
        panel_a, bank_a = watts / panel_v, watts / (bank.nominal_v * LOW_SHARE)
        bank_a = min(bank_a, chosen.output_a) if chosen else bank_a
        caution = msg(
            "Tracking controller for at least %(bank)s A at %(nominal)s V, with a programme for "
            "%(name)s that ends at %(charge)s V; its window above the panels' open volts on a "
            "cold morning.",
            bank=f"{bank_a:.0f}",
            nominal=f"{bank.nominal_v:.0f}",
            name=bank.chem.name,
            charge=f"{bank.charge_v:.1f}",
        )
        named = f"{chosen.name}, " if chosen else msg("sun controller ")
        row = msg(", %(bank)s in a row", bank=sun.in_row(bank)) if sun.in_row(bank) > 1 else ""
        self.parts += [
            Part(
                "panel",
                "panel",
                msg("panels of %(watts)s W%(row)s", watts=f"{watts:.0f}", row=row),
                msg("Live whenever light falls on them: cover."),
            ),
            Part("sun", "controller", f"{named}{bank_a:.0f} A", caution),
        ]
        feed = self.thin(panel_a, 2 * SUN_RUN_M, panel_v)
        lead = self.thin(bank_a, 3.0, bank.nominal_v, "charge")
        row_lead = (SUN_RUN_M, "sun", panel_a, feed)
        self.fused("fuse-panel", ("sun", "in+"), ("panel", "+"), *row_lead, sun.row_v(bank))
        self.wire(("panel", "-"), ("sun", "in-"), *row_lead)
        self.fused("fuse-sun", ("sun", "out+"), self.plus, 1.5, "sun", bank_a, lead)
        self.wire(("sun", "out-"), self.low, 1.5, "sun", bank_a, lead)

    def loads(self) -> None:
        """12 V loads by the chosen school; where the bank itself is 12 V they hang behind a
        fuse.
        """
        want, bank = self.plan.loads, self.bank
        if want.current_a <= 0:
            return
        size = self.thin(want.current_a, 4.0, 12.0)
        self.parts.append(
            Part("load", "load", msg("12 V loads, %(current)s A", current=f"{want.current_a:g}"))
        )
        plus, minus, way = self.plus, self.low, fed_by(bank, want)
        if way == "converter":
            inside = want.current_a * 12 / bank.nominal_v / CONVERTER_EFFICIENCY
            feed = self.thin(inside, 2.0, bank.nominal_v)
            self.parts.append(Part("converter", "converter", f"{bank.nominal_v:.0f} V to 12 V"))
            self.fused("fuse-converter", ("converter", "in+"), self.plus, 1.0, "load", inside, feed)
            self.wire(self.low, ("converter", "in-"), 1.0, "load", inside, feed)
            plus, minus = ("converter", "out+"), ("converter", "out-")
        elif way == "own battery":
            self.parts.append(Part("own", "pack", "12 V"))
            plus, minus = ("own", "+"), ("own", "-")
        elif way == "end taps":
            plus = (pack_id(1, 1), "+")
        self.fused("fuse-load", ("load", "+"), plus, 2.0, "load", want.current_a, size)
        self.wire(minus, ("load", "-"), 2.0, "load", want.current_a, size)
