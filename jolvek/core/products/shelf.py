"""The shelf: products with maker, price and data, as the matching engine and the files see it."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, fields, replace
from typing import Any, ClassVar, Generic, TypeVar

import numpy as np

from jolvek.core.base import checked
from jolvek.core.base.arrays import Mask
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.electric.sun_chain import SunController
from jolvek.core.products.accessories import Accessory, Panel, Propeller
from jolvek.core.products.boat_model import BoatModel
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount

ID = re.compile(r"[\w.+ -]+")  # no slash: it stands in addresses
DISPLAYS = ("none", "charge", "time left", "distance left")
OWN_ID = "own-gear-"  # leads the id of what the customer has already
Spec = TypeVar(
    "Spec", Motor, Battery, Mount, Charger, Panel, SunController, Propeller, Accessory, BoatModel
)


@dataclass(frozen=True)
class Item(Generic[Spec]):
    """One product: its data, price in the shop's currency, and what it goes with.

    Motors: `style` (outboard, pole, fin, pod), `shafts_m` on offer (empty: adjustable), `pack_ids`
    of the batteries that clip on (then no other fits). Batteries: `clip_on` where one serves only
    the motor that names it. `noise_db` where the maker states it.
    `valid_to` is the last day of the price (ISO), `stock` one of shelf, order, none; `discontinued`
    products stay in old setups only. Claims are what the catalogue says, for the claims check
    alone.
    """

    RANGES: ClassVar[checked.Ranges] = {
        "price": (0, 1e07),
        "shafts_m": (0.1, 2),
        "noise_db": (10, 140),
        "claimed_hp": (0.05, 200),
        "claimed_speed_m_s": (0.2, 30),
        "claimed_runtime_s": (60, 1e06),
        "claimed_energy_wh": (1, 1e06),
        "claimed_half_runtime_s": (60, 1e06),
        "warranty_years": (0, 30),
        "ip_water": (0, 9),
    }
    CHOICES: ClassVar[checked.Choices] = {
        "style": ("", "outboard", "pole", "fin", "pod"),
        "stock": ("", "shelf", "order", "none"),
        "display": ("", *DISPLAYS),
    }
    TEXTS: ClassVar[checked.Counts] = {
        "id": 60,
        "maker": 200,
        "name": 200,
        "pack_ids": 60,
        "in_box": 80,
    }

    id: str
    maker: str
    name: str
    price: float
    spec: Spec
    style: str = ""
    shafts_m: tuple[float, ...] = ()
    pack_ids: tuple[str, ...] = ()
    noise_db: float | None = None
    valid_to: str = ""
    stock: str = ""
    discontinued: bool = False
    clip_on: bool = False
    claimed_hp: float | None = None
    claimed_speed_m_s: float | None = None
    claimed_runtime_s: float | None = None
    claimed_energy_wh: float | None = None
    claimed_half_runtime_s: float | None = None  # at half of full power
    warranty_years: float | None = None
    ip_water: int | None = None  # second figure of its IP code, IEC 60529
    display: str = ""  # what its own display tells
    in_box: tuple[str, ...] = ()

    def __post_init__(self) -> None:
        checked.check(self, "product")
        if not ID.fullmatch(self.id):
            raise ValueRefused(
                "product.id", self.id, msg("letters, figures, dots, dashes, no slash")
            )
        if isinstance(self.spec, Motor) and self.spec.style != self.style:
            hung: Motor = replace(self.spec, style=self.style)  # type: ignore[call-arg]
            object.__setattr__(self, "spec", hung)
        if self.valid_to:
            checked.date("product.valid_to", self.valid_to)

    @property
    def title(self) -> str:
        """Maker and name."""
        return f"{self.maker} {self.name}"

    @property
    def own(self) -> bool:
        """Whether it is the customer's already."""
        return self.id.startswith(OWN_ID)


@dataclass(frozen=True)
class Shelf:
    """All products of a shop."""

    motors: tuple[Item[Motor], ...] = ()
    batteries: tuple[Item[Battery], ...] = ()
    mounts: tuple[Item[Mount], ...] = ()
    chargers: tuple[Item[Charger], ...] = ()
    panels: tuple[Item[Panel], ...] = ()
    controllers: tuple[Item[SunController], ...] = ()
    propellers: tuple[Item[Propeller], ...] = ()
    accessories: tuple[Item[Accessory], ...] = ()
    boats: tuple[Item[BoatModel], ...] = ()

    def __post_init__(self) -> None:
        named = {pack for motor in self.motors for pack in motor.pack_ids}
        marked = tuple(
            replace(b, clip_on=True) if b.id in named and not b.clip_on else b
            for b in self.batteries
        )
        object.__setattr__(self, "batteries", marked)

    @property
    def on_offer(self) -> Shelf:
        """The shelf without what is discontinued or not to be had."""

        def offered(x: Item[Any]) -> bool:
            return not x.discontinued and x.stock != "none"

        return Shelf(*(tuple(filter(offered, getattr(self, f.name))) for f in fields(self)))

    def with_own(self, own: Mapping[str, tuple[Item[Any], ...]]) -> Shelf:
        """The shelf with a customer's own gear first, by kind."""
        both = {kind: (*items, *getattr(self, kind)) for kind, items in own.items()}
        return replace(self, **both)


def owns(motor: Item[Motor], battery: Item[Battery]) -> bool:
    """Whether a motor may be joined to a battery as far as clip-on batteries go.

    >>> owns(sample().motors[0], sample().batteries[0])
    True
    """
    return battery.id in motor.pack_ids if motor.pack_ids else not battery.clip_on


def joins(motor: Item[Motor], battery: Item[Battery], packs: int) -> bool:
    """The same for so many packs: of a clip-on battery, one.

    >>> joins(sample().motors[0], sample().batteries[0], 2)
    True
    """
    return owns(motor, battery) and (not motor.pack_ids or packs == 1)


def compatible_with_own_gear(
    motors: Sequence[Item[Motor]], batteries: Sequence[Item[Battery]]
) -> Mask:
    """The same of all motors with all batteries (M, B).

    >>> compatible_with_own_gear(sample().motors, sample().batteries).tolist()
    [[True]]
    """
    pairs = [[owns(m, b) for b in batteries] for m in motors]
    return np.array(pairs, dtype=bool).reshape(len(motors), len(batteries))


def sample() -> Shelf:
    """One motor, battery, mount and charger that go together, for examples.

    >>> sample().motors[0].title
    'Sample M12'
    """
    motor = Motor(1200, voltage_v=24, mass_kg=14, name="M12")
    battery = Battery(
        "lfp", 25.6, 50, 11.6, 60, length_m=0.33, width_m=0.17, height_m=0.22, name="B50"
    )
    return Shelf(
        (Item("m12", msg("Sample"), "M12", 1100.0, motor, "outboard", shafts_m=(0.381, 0.508)),),
        (Item("b50", msg("Sample"), "B50", 700.0, battery),),
        (Item("clamp", msg("Sample"), "clamp", 0.0, Mount("transom_clamp", 60, 2000)),),
        (
            Item(
                "c20",
                msg("Sample"),
                "C20",
                200.0,
                Charger(24, 20, ("lfp",), charge_voltage_v=29.2),
            ),
        ),
    )
