"""The motor's circuit laid out: strings with their fuses, how they are joined, main fuse, switch
and shunt; each cable sized for the fuse before it.
"""

from __future__ import annotations

from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.electric.bank import Bank, rating
from jolvek.core.electric.netlist import Part, Plan, Wire, pack_id, short_circuit_a
from jolvek.core.electric.wire_sizes import Cable, Fuse, cable, fuse, fuse_rating_a, heaviest

LINK_M = 0.3
TAIL_M = 0.15  # from a pole to its fuse or bar

LITHIUM = msg("Lithium: only with its own battery management; cover both poles.")
LEAD = msg("Lead-acid: gives off hydrogen; ventilate.")
AT_POLE = msg("At the pole, before anything else.")


class Draft:
    """Parts and wires of the motor's circuit while the netlist is laid out."""

    def __init__(self, bank: Bank, plan: Plan, amps: float) -> None:
        self.bank, self.plan, self.amps = bank, plan, amps
        self.parts: list[Part] = []
        self.wires: list[Wire] = []
        self.fuses: dict[str, Fuse] = {}
        self.main = self.carrying(amps, 2 * plan.run_m, bank.nominal_v, "motor")

    def carrying(
        self, amps: float, there_and_back_m: float, volts: float, circuit: str, least: float = 0.75
    ) -> Cable:
        """A cable for a steady current that also carries the rating of the fuse before it."""
        rated = fuse_rating_a(amps)
        carries = self.cable(rated, 0.1, volts, circuit, least)
        found = self.cable(amps, there_and_back_m, volts, circuit, carries.size_mm2)
        if carries.runs > found.runs:
            found = self.cable(rated, there_and_back_m, volts, circuit, least)
        return found

    def cable(
        self, amps: float, there_and_back_m: float, volts: float, circuit: str, least: float
    ) -> Cable:
        """The smallest that does, or the heaviest where none does, with what is wrong told."""
        space = self.plan.engine_space
        try:
            return cable(amps, there_and_back_m, volts, circuit, space, least)
        except ValueRefused:
            return heaviest(amps, there_and_back_m, volts, space)

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
                size=size or self.main,
            )
        )

    def strings(self) -> None:
        """Packs in series, a fuse at each string's plus pole, and the strings joined."""
        bank, p, hazard = self.bank, self.bank.parallel, LITHIUM if self.bank.chem.lithium else LEAD
        string_a = (
            self.amps if p == 1 else max(self.amps / p, min(self.amps, bank.battery.continuous_a))
        )
        # a short in a string is fed by all the others through its fuse
        others = short_circuit_a(bank, max(p - 1, 1))
        for i in range(1, p + 1):
            for k in range(1, bank.series + 1):
                b = bank.battery
                words = rating(b.nominal_voltage_v, b.capacity_ah)
                self.parts.append(Part(pack_id(i, k), "pack", words, hazard))
                if k > 1:
                    self.wire(
                        (pack_id(i, k - 1), "+"), (pack_id(i, k), "-"), LINK_M, "series", string_a
                    )
            f = fuse(string_a, self.main.allowed_a, others, bank.charge_v)
            self.fuses[f"fuse-{i}"] = f
            self.parts.append(Part(f"fuse-{i}", "fuse", f"{f.rating_a:g} A", AT_POLE))
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
                link = self.fed_by(max(i, p - i) * self.fuses["fuse-1"].rating_a)
                self.wire((f"fuse-{i}", "2"), (f"fuse-{i + 1}", "2"), LINK_M, "plus", size=link)
                minus = (pack_id(i, 1), "-"), (pack_id(i + 1, 1), "-")
                self.wire(*minus, LINK_M, "minus", size=link)
            self.plus = ("fuse-1", "2")
            self.minus = (first if how == "one end" else last, "-")
            return
        self.parts += [
            Part("bar-plus", "bar", msg("plus bar"), msg("Cover it: no tool across the bars.")),
            Part("bar-minus", "bar", msg("minus bar")),
        ]
        link = self.fed_by((p - 1) * self.fuses["fuse-1"].rating_a)
        for i in range(1, p + 1):
            to_bar = (2 * LINK_M, "plus", string_a, link)
            self.wire((f"fuse-{i}", "2"), ("bar-plus", str(i)), *to_bar)
            from_bar = (2 * LINK_M, "minus", string_a, link)
            self.wire((pack_id(i, 1), "-"), ("bar-minus", str(i)), *from_bar)
        self.plus, self.minus = ("bar-plus", "out"), ("bar-minus", "out")

    def fed_by(self, fuses_a: float) -> Cable:
        """The main cable, or a thicker one where fuses in parallel feed more than it carries."""
        if fuses_a <= self.main.allowed_a:
            return self.main
        volts = self.bank.nominal_v
        return self.cable(fuses_a, 2 * LINK_M, volts, "motor", self.main.size_mm2)

    def main_fuse(self) -> None:
        """Behind joined strings one fuse for the main cable, which their fuses together do not
        guard.
        """
        if self.bank.parallel == 1:
            return
        sc = short_circuit_a(self.bank)
        f = fuse(self.amps, self.main.allowed_a, sc, self.bank.charge_v)
        self.fuses["fuse-main"] = f
        caution = msg("Where the strings are joined: theirs together do not guard the main cable.")
        self.parts.append(Part("fuse-main", "fuse", f"{f.rating_a:g} A", caution))
        self.wire(self.plus, ("fuse-main", "1"), TAIL_M, "plus")
        self.main_plus = ("fuse-main", "2")

    def main_circuit(self) -> None:
        """Switch in plus, shunt in minus, motor at the end; half of the run before the switch."""
        self.main_plus = self.plus
        self.main_fuse()
        near = min(0.5, 0.5 * self.plan.run_m)
        rest = self.plan.run_m - near
        plug = self.plan.connector_a
        hint = msg("Kill cord first; propeller clear of people.")
        if plug:
            hint = msg(
                "Connector for %(plug)s A: align, push, lock; never pull under load.",
                plug=f"{plug:.0f}",
            )
        self.parts += [
            Part(
                "switch",
                "switch",
                f"{_switch_a(self.amps)} A",
                msg("Off before any work. Within reach, outside the battery's box."),
            ),
            Part(
                "motor",
                "motor",
                msg("%(amps)s A at most", amps=f"{self.amps:.0f}"),
                hint,
            ),
            *(self.plug(k, name) for k, name in enumerate(self.plan.plugs, 1)),
        ]
        self.wire(self.main_plus, ("switch", "1"), near, "plus")
        self.wire(("switch", "2"), ("motor", "+"), rest, "plus")
        self.minus_home(near, rest)

    def plug(self, k: int, name: str) -> Part:
        """One plug that both cores of the motor's cable pass."""
        worst = msg(
            "Plugs for %(amps)s A; never joined or parted under load.", amps=f"{self.amps:.0f}"
        )
        return Part(f"plug-{k}", "plug", name, worst)

    def minus_home(self, near: float, rest: float) -> None:
        """Home from the motor: by the shunt, by a bar where more comes home, or straight."""
        if self.plan.shunt:  # so that the monitor counts every ampere
            self.parts.append(Part("shunt", "shunt", msg("shunt and monitor")))
        elif self.plan.minus_bar:
            self.parts.append(Part("minus-bar", "bar", msg("minus bar"), msg("Cover it.")))
        else:
            self.low = self.minus
            self.wire(self.minus, ("motor", "-"), self.plan.run_m, "minus")
            return
        gather = self.parts[-1].id
        self.low = (gather, "L")
        self.wire(self.minus, (gather, "B"), near, "minus")
        self.wire((gather, "L"), ("motor", "-"), rest, "minus")


def _switch_a(amps: float) -> int:
    return next((a for a in (50, 100, 150, 200, 275, 300, 350, 450, 600) if a >= 1.25 * amps), 600)
