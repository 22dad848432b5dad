"""From panel to bank: the controller between them, how many panels stand in a row, and whether its
window, volts and amps suit both ends.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.electric.bank import VOLTS_DANGEROUS, Bank
from jolvek.core.electric.chemistry import CHEMISTRIES
from jolvek.core.electric.wire_sizes import FUSE_VOLTS
from jolvek.core.rules.findings import Finding, find

COLD = 1.12  # open volts at −15 °C over those at 25 °C, 0.3 % a degree; common practice, no source
LOW_SHARE = 0.9  # of the nominal volts, as the sun charges a low bank; common practice
OPEN_SHARE = 1.25  # open volts over those at work, where they are not stated; common practice
PANEL_V = 18.0  # a panel of 36 cells at work, where nothing is stated; common practice


@dataclass(frozen=True)
class SunController:
    """One tracking controller: A into the bank, the most V its panels may reach, the banks' nominal
    V it serves, how far above the bank's volts the panels must stand, its programmes, kg.
    """

    RANGES: ClassVar[checked.Ranges] = {
        "output_a": (1, 500),
        "input_max_v": (10, 1000),
        "bank_min_v": (3, 400),
        "bank_max_v": (3, 400),
        "starts_over_v": (0, 50),
        "mass_kg": (0, 100),
    }
    CHOICES: ClassVar[checked.Choices] = {"chemistries": tuple(CHEMISTRIES)}

    output_a: float
    input_max_v: float
    bank_min_v: float
    bank_max_v: float
    chemistries: tuple[str, ...]
    starts_over_v: float = 5.0
    mass_kg: float = 1.0
    name: str = ""

    def __post_init__(self) -> None:
        checked.check(self, msg("sun controller"))
        if self.bank_min_v > self.bank_max_v:
            text = f"at least bank_min_v, {self.bank_min_v:g}"
            raise ValueRefused("sun controller.bank_max_v", self.bank_max_v, text)


@dataclass(frozen=True)
class SunChain:
    """What is chosen: panels of one kind, V of each open and at work (None: not stated), and the
    controller (None: not chosen).
    """

    panels: int = 0
    open_v: float | None = None
    working_v: float | None = None
    controller: SunController | None = None
    rated_w: float = 0.0  # all panels, whatever the controller passes

    def counted_w(self, nominal_v: float) -> float:
        """Rated W that count at a bank's nominal volts: no more than the controller passes.

        >>> SunChain(rated_w=400.0, controller=SunController(10, 100, 12, 48, ())).counted_w(25.6)
        256.0
        """
        most = self.controller.output_a * nominal_v if self.controller else self.rated_w
        return min(self.rated_w, most)

    def in_row(self, bank: Bank) -> int:
        """Panels in series: the fewest that lift the volts at work over the full bank's, and that
        leave equal rows.

        >>> from jolvek.core.electric.battery import Battery
        >>> c = SunController(20, 100, 12, 48, ("lfp",))
        >>> SunChain(4, 22.5, 18.6, c).in_row(Bank(Battery("lfp", 25.6, 100)))
        2
        """
        if not self.panels or not self.working_v or self.controller is None:
            return 1
        wanted = bank.charge_v + self.controller.starts_over_v
        rows = [k for k in range(1, self.panels + 1) if self.panels % k == 0]
        return next((k for k in rows if k * self.working_v >= wanted), rows[-1])

    def row_v(self, bank: Bank) -> float:
        """V of a row that nothing draws from on a cold morning: what its leads and fuse must stand.

        >>> from jolvek.core.electric.battery import Battery
        >>> c = SunController(20, 150, 12, 48, ("lfp",))
        >>> SunChain(4, 22.5, 18.6, c).row_v(Bank(Battery("lfp", 51.2, 50)))
        100.8
        """
        one = self.open_v or OPEN_SHARE * (self.working_v or PANEL_V)
        return round(COLD * self.in_row(bank) * one, 3)


def findings(chain: SunChain, bank: Bank, watts: float) -> list[Finding]:
    """What is wrong between panels of `watts` together, controller and bank; none without panels.

    >>> from jolvek.core.electric.battery import Battery
    >>> bank, c = Bank(Battery("lfp", 51.2, 50)), SunController(20, 60, 12, 48, ("lfp",))
    >>> [x.rule for x in findings(SunChain(4, 22.5, 18.6, c), bank, 800.0)]
    ['sun-volts-dangerous', 'sun-window']
    """
    c = chain.controller
    if watts <= 0:
        return []
    if c is None:
        return [find("sun-controller-none", watts, amps=watts / (LOW_SHARE * bank.nominal_v))]
    return [*_bank_end(c, bank, watts), *_panel_end(chain, c, bank)]


def _bank_end(c: SunController, bank: Bank, watts: float) -> list[Finding]:
    chem, amps, out = bank.chem, watts / (LOW_SHARE * bank.nominal_v), []
    least, most = c.bank_min_v * LOW_SHARE, c.bank_max_v * 1.1  # a 48 V bank is named 51.2 too
    if not least <= bank.nominal_v <= most:
        of = {"least": c.bank_min_v, "most": c.bank_max_v}
        out.append(find("sun-bank", bank.nominal_v, c.bank_max_v, **of))
    if bank.battery.chemistry not in c.chemistries:
        out.append(find("sun-chemistry", chem=chem.name, full=bank.charge_v))
    if amps > c.output_a:
        out.append(find("sun-amps", amps, c.output_a, watts=watts))
    return out


def _panel_end(chain: SunChain, c: SunController, bank: Bank) -> list[Finding]:
    row, stands = chain.in_row(bank), chain.row_v(bank)
    out = []
    if stands > VOLTS_DANGEROUS:
        takes = next((v for v in FUSE_VOLTS if v >= stands), FUSE_VOLTS[-1])
        out.append(find("sun-volts-dangerous", stands, VOLTS_DANGEROUS, row=row, takes=takes))
    if chain.open_v is None or chain.working_v is None:
        return [*out, find("sun-volts-unknown", c.input_max_v, c.input_max_v / COLD)]
    wanted = bank.charge_v + c.starts_over_v
    if stands > c.input_max_v:
        out.append(find("sun-window", stands, c.input_max_v, row=row))
    if row * chain.working_v < wanted:
        longer = ceil(wanted / chain.working_v)  # panels in a row that would do
        cured = longer / row * stands <= c.input_max_v
        out.append(find("sun-low", row * chain.working_v, wanted, row=row, cured=cured))
    return out
