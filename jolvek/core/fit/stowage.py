"""Where the packs of a bank go: bays, lids, allowed mass."""

from __future__ import annotations

from collections.abc import Sequence

from jolvek.core.base.messages import msg
from jolvek.core.electric.battery import Battery
from jolvek.core.enquiry.site import Bay
from jolvek.core.fit.fit import Fit, Stowed
from jolvek.core.fit.trim import Weight, best_stowed_m
from jolvek.core.hydro.floating import level_m
from jolvek.core.hydro.hull import Hull
from jolvek.core.rules.findings import Finding, find


def packs_in_bay(
    bay: Bay, length_m: float, width_m: float, height_m: float, upright: bool = True
) -> int:
    """How many equal packs go into a bay, all turned the same way; lead stands `upright`.

    >>> packs_in_bay(Bay("locker", 0.7, 0.4, 0.3), 0.33, 0.17, 0.22)
    4
    """
    size = (length_m, width_m, height_m)
    turns = (
        [(0, 1, 2), (1, 0, 2)]
        if upright
        else [(a, b, 3 - a - b) for a in range(3) for b in range(3) if a != b]
    )
    counts = [
        int(bay.length_m / size[a] + 1e-9)
        * int(bay.width_m / size[b] + 1e-9)
        * int(bay.height_m / size[c] + 1e-9)
        for a, b, c in turns
    ]
    return max(counts)


def stow(bays: Sequence[Bay], battery: Battery, packs: int) -> tuple[list[Stowed], Finding | None]:
    """Where the packs go: all in one bay if any holds them, else spread over several; or the
    finding that they do not.

    Sizes in three dimensions, all packs of a bay turned the same way (lead-acid stands upright),
    each through the lid, the bay's allowed mass kept. Packs of unknown
    size fit by size everywhere, their mass still counts.

    >>> bay = Bay("locker", 0.7, 0.4, 0.3, 25.0)
    >>> battery = Battery("lfp", 12.8, 100, 11.4, length_m=0.33, width_m=0.17, height_m=0.22)
    >>> stow([bay], battery, 2)[0][0].packs, stow([bay], battery, 3)[1].rule
    (2, 'bay-mass')
    """
    sizes = (battery.length_m or 0.0, battery.width_m or 0.0, battery.height_m or 0.0)
    if not bays:
        return [], None
    room = [packs if 0.0 in sizes else _room(bay, battery) for bay in bays]
    held = [
        min(n, int(bay.max_kg / battery.weight_kg + 1e-9)) if bay.max_kg is not None else n
        for n, bay in zip(room, bays, strict=True)
    ]
    for bay, n in zip(bays, held, strict=True):
        if n >= packs:
            return [Stowed(bay, packs)], None
    if sum(held) >= packs:
        left, out = packs, []
        for n, bay in sorted(zip(held, bays, strict=True), key=lambda row: -row[0]):
            out.append(Stowed(bay, min(n, left)))
            left -= out[-1].packs
        return [s for s in out if s.packs], None
    best = max(range(len(bays)), key=lambda i: room[i])
    names = bays[best].name if len(bays) == 1 else msg("the bays")
    if sum(room) >= packs:
        kilos = sum(bay.max_kg for bay in bays if bay.max_kg is not None)
        return [], find("bay-mass", packs * battery.weight_kg, kilos, bay=names)
    lid = bays[best]
    if room[best] == 0 and packs_in_bay(lid, *sizes, not battery.chem.lithium):
        opens = min(lid.lid_length_m or 9, lid.lid_width_m or 9)
        return [], find("bay-lid", 1000 * sorted(sizes)[1], 1000 * opens, bay=lid.name)
    return [], find("bay-size", sum(room), packs, packs=packs, bay=names)


CLIPPED_ABOVE_M = 0.1  # a clip-on pack's middle over the transom


def bank_weights(
    hull: Hull, battery: Battery, packs: int, stowed: Sequence[Stowed]
) -> list[Weight]:
    """The packs as weights where they are stowed, a third ahead of the stern where nobody said.

    >>> from jolvek.core.hydro.hull import Hull
    >>> bank_weights(Hull("kayak", 4.0, 0.8, 30), Battery("lfp", 12.8, 50, 6.0), 2, [])[0].mass_kg
    12.0
    """
    kilos, somewhere = battery.weight_kg, 0.3 * hull.length_m
    if not stowed:
        return [Weight(msg("battery"), packs * kilos, somewhere, 0.0, 0.15)]
    many = len(stowed) > 1
    return [
        Weight(
            msg("battery %(i)s", i=i) if many else msg("battery"),
            s.packs * kilos,
            somewhere if s.bay.ahead_m is None else s.bay.ahead_m,
            s.bay.off_m,
            s.bay.above_m + 0.1,
        )
        for i, s in enumerate(stowed, 1)
    ]


def bays_for(f: Fit) -> Sequence[Bay]:
    """The bays that a setup's bank may go into: the one that was chosen, or all.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> bays_for(sample_fitted())
    ()
    """
    chosen = [b for b in f.need.site.bays if b.name == f.fitting.bay]
    return chosen or f.need.site.bays


def holding(f: Fit) -> list[Bay]:
    """The bays of known place that hold a setup's whole bank by themselves.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> holding(sample_fitted())
    []
    """
    placed = [b for b in f.need.site.bays if b.ahead_m is not None]
    return [b for b in placed if not f.clips_on and stow([b], f.battery.spec, f.bank.packs)[0]]


def best_place(f: Fit) -> tuple[float, str] | None:
    """Where the bank trims her most level, m ahead of the stern, and in which bay; None where it
    rides on the motor, or fits no bay whole.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> 1.0 < best_place(sample_fitted())[0] < 2.8
    True
    """
    bays, whole = holding(f), any(w.name == "battery" for w in f.weights)
    if f.clips_on or not whole or (f.need.site.bays and not bays):
        return None
    hull = f.need.hull
    own = Weight("hull", hull.mass_kg, level_m(hull) - f.fitting.hull_aft_m)
    return best_stowed_m(hull, [*f.weights, own], "battery", bays)


def _room(bay: Bay, battery: Battery) -> int:
    """How many packs the bay takes by size, 0 where none passes its lid."""
    sizes = (battery.length_m or 0.0, battery.width_m or 0.0, battery.height_m or 0.0)
    lid = sorted((bay.lid_length_m or bay.length_m, bay.lid_width_m or bay.width_m))
    if sorted(sizes)[0] > lid[0] or sorted(sizes)[1] > lid[1]:
        return 0
    return packs_in_bay(bay, *sizes, upright=not battery.chem.lithium)
