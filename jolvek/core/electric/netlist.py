"""What an installation is asked to be, and the netlist of parts and cables it becomes."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.serving import WAYS
from jolvek.core.electric.sun_chain import SunChain
from jolvek.core.electric.wire_sizes import LITHIUM_BREAKS_A, Cable, Fuse

TAKE_OFFS = ("diagonal", "bars", "one end")


CELLS_SHARE = 0.5  # of the resistance in use; common practice, no source
MOST_12V = 15.0  # that 12 V loads are made for; common practice, no source
SCHOOLS_12V = ("converter", "own battery", "end taps")


KIND_WORDS = {
    "pack": msg("pack"),
    "motor": msg("motor"),
    "charger": msg("charger"),
    "plug": msg("plug"),
    "inlet": msg("inlet"),
    "converter": msg("converter"),
    "load": msg("load"),
    "fuse": msg("fuse"),
    "switch": msg("switch"),
    "bar": msg("bar"),
    "shunt": msg("shunt"),
    "panel": msg("panel"),
    "controller": msg("controller"),
}


ROLE_WORDS = {
    "plus": msg("plus"),
    "minus": msg("minus"),
    "series": msg("series"),
    "charge": msg("charge"),
    "sun": msg("sun"),
    "load": msg("load"),
    "mains": msg("mains"),
}


@dataclass(frozen=True)
class Part:
    """One thing on the diagram: `kind` is pack, fuse, bar, switch, shunt, plug, motor, charger,
    inlet, panel, controller, converter, load.
    """

    id: str
    kind: str
    text: str
    caution: str = ""


@dataclass(frozen=True)
class Wire:
    """One cable between two terminals, each (part id, terminal); `role` is plus, minus, series,
    charge, sun or load.
    """

    id: str
    a: tuple[str, str]
    b: tuple[str, str]
    length_m: float
    current_a: float
    role: str
    size: Cable


@dataclass(frozen=True)
class Loads12V:
    """12 V loads: amps while running, hours an outing, and how they are fed."""

    current_a: float = 0.0
    hours: float = 4.0
    school: str = "converter"

    @property
    def charge_ah(self) -> float:
        """Ah an outing."""
        return self.current_a * self.hours


@dataclass(frozen=True)
class Plan:
    """What the installation is to be: one way from bank to motor in m, take-off, engine space,
    loads, charger.
    """

    run_m: float = 2.0
    take_off: str = "diagonal"
    engine_space: bool = False
    loads: Loads12V = Loads12V()
    solar_w: float = 0.0  # rated panels aboard
    sun: SunChain = SunChain()
    charger_a: float = 0.0
    charger_outputs: int = 1
    charger_way: str = "bank"  # of serving.WAYS; packs charged in turn are not wired
    connector_a: float | None = None
    shunt: bool = True  # where a shunt monitor is among the parts
    plugs: tuple[str, ...] = ()  # in the motor's cable, from the battery on

    @property
    def minus_bar(self) -> bool:
        """Whether more than the motor's cable comes home to minus."""
        wired = self.charger_a > 0 and self.charger_way in ("bank", "each")
        return bool(wired or self.solar_w or self.loads.current_a)

    def __post_init__(self) -> None:
        for key, value, known in (
            ("take_off", self.take_off, TAKE_OFFS),
            ("school", self.loads.school, SCHOOLS_12V),
            ("charger_way", self.charger_way, WAYS),
        ):
            if value not in known:
                raise ValueRefused(key, value, msg("one of ") + ", ".join(known))
        if not 0 <= self.solar_w <= 20_000:
            raise ValueRefused("solar_w", self.solar_w, "0 to 20000 W")
        if not 0.2 <= self.run_m <= 30:
            raise ValueRefused("run_m", self.run_m, "0.2 to 30 m")


@dataclass(frozen=True)
class Netlist:
    """Parts and cables of one installation, with the fuses by the string they protect."""

    bank: Bank
    plan: Plan
    motor_a: float
    parts: tuple[Part, ...]
    wires: tuple[Wire, ...]
    fuses: dict[str, Fuse]

    def part(self, part_id: str) -> Part:
        """The part of that id; raises KeyError."""
        return next(p for p in self.parts if p.id == part_id)


def pack_id(string: int, place: int) -> str:
    """Id of a pack: its string and its place from the minus end, both from 1.

    >>> pack_id(1, 2)
    'pack-1-2'
    """
    return f"pack-{string}-{place}"


def short_circuit_a(bank: Bank, strings: int | None = None) -> float:
    """Current in A that a fuse must break: full voltage over the resistance of the cells, half of
    that in use, of so many strings (all of them, if not said); Jolvek's own estimate. At lithium at
    least 10 kA.

    >>> from jolvek.core.electric.battery import Battery
    >>> short_circuit_a(Bank(Battery("lfp", 25.6, 50))), 2000 < short_circuit_a(
    ...     Bank(Battery("agm", 12, 100))
    ... ) < 6000
    (10000.0, True)
    """
    ohm = CELLS_SHARE * bank.chem.resistance_h * bank.nominal_v / bank.battery.capacity_ah
    cells = (bank.parallel if strings is None else strings) * bank.charge_v / ohm
    return max(cells, LITHIUM_BREAKS_A) if bank.chem.lithium else cells


def fed_by(bank: Bank, loads: Loads12V) -> str:
    """How 12 V loads are really fed: `direct` where the bank itself never stands above what they
    are made for, and end taps only where a single pack never does; else by a converter.

    >>> from jolvek.core.electric.battery import Battery
    >>> taps, pack = Loads12V(3.0, 5.0, "end taps"), Battery("lfp", 25.6, 100)
    >>> fed_by(Bank(pack), taps), fed_by(Bank(Battery("lfp", 12.8, 100), 2), taps)
    ('converter', 'end taps')
    """
    if bank.charge_v <= MOST_12V:
        return "direct"
    if loads.school == "end taps" and bank.battery.charge_v > MOST_12V:
        return "converter"
    return loads.school


def tap_imbalance_ah(bank: Bank, loads: Loads12V) -> float:
    """How far in Ah the tapped battery falls behind the rest of its string on one outing; 0 for a
    12 V bank.

    Only the end battery of the string gives the 12 V current, so the whole charge is the imbalance.

    >>> from jolvek.core.electric.battery import Battery
    >>> tap_imbalance_ah(Bank(Battery("agm", 12, 100), 4), Loads12V(3.0, 5.0, "end taps"))
    15.0
    """
    if fed_by(bank, loads) != "end taps":
        return 0.0
    return loads.charge_ah
