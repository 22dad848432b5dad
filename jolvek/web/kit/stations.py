"""The stations of an enquiry of a job: each station's module adds itself here."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from jolvek.core.enquiry.need import Need
from jolvek.store.setups import Pinned
from jolvek.web.kit.worked import Worked


@dataclass(frozen=True)
class Standing:
    """How far an enquiry has come: what a station says of itself rests on this."""

    need: Need
    pinned: list[Pinned]
    in_hand: Worked | None

    @property
    def level(self) -> str:
        """Worst finding of the setup in hand; fine where there is none."""
        return self.in_hand.level if self.in_hand else "fine"

    @property
    def chosen(self) -> bool:
        """Whether a setup is chosen."""
        return any(p.chosen for p in self.pinned)


State = Callable[[Standing], tuple[str, str]]  # (done | empty | look | blocked, in words)


@dataclass(frozen=True)
class Station:
    """One station: its number, blueprint, name, and how it stands."""

    number: int
    blueprint: str
    name: str
    state: State


@dataclass(frozen=True)
class Tick:
    """One station of a job: endpoint of its page and its state."""

    number: int
    endpoint: str
    name: str
    state: str
    says: str


_STATIONS: dict[int, Station] = {}


def add(number: int, blueprint: str, name: str, state: State) -> Station:
    """Put a station of a job."""
    station = Station(number, blueprint, name, state)
    _STATIONS[number] = station
    return station


def blueprints() -> set[str]:
    """The blueprints of all stations."""
    return {s.blueprint for s in _STATIONS.values()}


def ticks(standing: Standing) -> tuple[Tick, ...]:
    """All stations in order, each with what it still lacks."""
    return tuple(
        Tick(s.number, s.blueprint, s.name, *s.state(standing))
        for _, s in sorted(_STATIONS.items())
    )
