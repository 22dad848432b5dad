"""How each kind of mount is put on a boat, and what is looked at before she goes."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.messages import msg
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fit import Fit
from jolvek.core.products.mounting import Mount


@dataclass(frozen=True)
class Work:
    """One kind of mount: how it goes on, how without holes where those are not allowed (empty: it
    makes none), and what is checked.
    """

    step: str
    without_holes: str
    checks: tuple[str, ...]


_DRILLED = msg("dry fit, mark, drill, seal every hole; nip bolts, do not force")
_GLUED = msg(
    "glue or strap on patches made for it, cured as their maker says; never drill tubes or floor"
)
_TILTS = msg("tilts and locks at every stop; nothing in its sweep")
WORK: dict[str, Work] = {
    "transom_clamp": Work(
        msg(
            "Set the clamp on the middle of the transom, square; screws tight by hand, then lock or"
            " lanyard."
        ),
        "",
        (_TILTS, msg("clamp screws tight again after the first ten minutes under power")),
    ),
    "quick_release": Work(
        msg("Bolt the bracket's plate through the transom: %(_drilled)s.", _drilled=_DRILLED),
        msg("Bracket's plate on the transom board: %(_glued)s.", _glued=_GLUED),
        (msg("bracket locks with a click and lets go by its lever"), _TILTS),
    ),
    "rowlock_pin": Work(
        msg("Put the pin into the rowlock, its collar down to the gunwale; lanyard to the boat."),
        "",
        (msg("turns freely, lifts out, and its lanyard holds it"),),
    ),
    "side_bar": Work(
        msg("Bar square across the rails, clamps tight by hand; lanyard to the boat."),
        "",
        (msg("swings up and stays up"), msg("bar does not creep along the rails at full power")),
    ),
    "stern_plate": Work(
        msg(
            "Fit the stern plate: %(_drilled)s. Lead the steering lines to the pedals, slack "
            "taken out.",
            _drilled=_DRILLED,
        ),
        msg(
            "Stern plate: %(_glued)s. Lead the steering lines to the pedals, slack taken out.",
            _glued=_GLUED,
        ),
        (
            msg("pedals steer from stop to stop"),
            msg("swings up and down by its line from the seat"),
        ),
    ),
    "fin_box": Work(
        msg(
            "Push the adapter into the fin box up to its stop and lock it; lead along the deck,"
            " clear of feet."
        ),
        "",
        (
            msg("adapter locked in the fin box"),
            msg("fin clear of the ground as the boat is launched"),
        ),
    ),
    "pod": Work(
        msg(
            "Ashore: shape the wedge to the hull, then the through-hull: %(_drilled)s.",
            _drilled=_DRILLED,
        ),
        "",
        (
            msg("no water at the through-hull after an hour afloat"),
            msg("rudder free to both stops"),
        ),
    ),
    "cassette": Work(
        msg(
            "Ashore: build the trunk to the cassette's drawing, then seal it: %(_drilled)s.",
            _drilled=_DRILLED,
        ),
        "",
        (
            msg("no water in the trunk's seam after an hour afloat"),
            msg("lifts up and drops down at rest"),
        ),
    ),
    "swing_arm": Work(
        msg(
            "Bolt the arm through the stern deck with a backing plate: %(_drilled)s.",
            _drilled=_DRILLED,
        ),
        "",
        (
            msg("swings up and locks; comes down by itself"),
            msg("arm does not twist at full power"),
        ),
    ),
    "offset_bracket": Work(
        msg(
            "Bolt the bracket through the transom beside the rudder: %(_drilled)s. Lock the "
            "motor straight.",
            _drilled=_DRILLED,
        ),
        msg("Bracket beside the rudder: %(_glued)s. Lock the motor straight.", _glued=_GLUED),
        (
            msg("rudder from stop to stop, blade up and down, clear of the motor, up and down"),
            _TILTS,
        ),
    ),
    "well": Work(
        msg("Set the plate into the well and lock it; nothing left loose in the well."),
        "",
        (msg("lifts out and drops in without jamming"), msg("well drains")),
    ),
}


def drilled(f: Fit) -> bool:
    """Whether the boat gets holes for this mount; an inflatable never does.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> drilled(sample_fitted())
    False
    """
    return drills(f.mount.spec, f.need)


def drills(mount: Mount, need: Need) -> bool:
    """Whether a boat gets holes for a mount.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> drills(Mount("pod", 60, 2000), sample_fitted().need)
    True
    """
    return _DRILLED in WORK[mount.kind].step and not holds_air(need)


def mounted(f: Fit) -> str:
    """How the mount goes on this boat.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> mounted(sample_fitted())[:29]
    'Set the clamp on the middle o'
    """
    work = WORK[f.mount.spec.kind]
    return work.without_holes if work.without_holes and never_drilled(f) else work.step


def checked(f: Fit) -> tuple[str, ...]:
    """What is looked at of the mount before she goes.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> checked(sample_fitted())[0]
    'tilts and locks at every stop; nothing in its sweep'
    """
    return WORK[f.mount.spec.kind].checks


def never_drilled(f: Fit) -> bool:
    """Whether the boat holds air that a hole would let out.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> never_drilled(sample_fitted())
    False
    """
    return holds_air(f.need)


def holds_air(need: Need) -> bool:
    """Whether a boat is an inflatable.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> holds_air(sample_fitted().need)
    False
    """
    return need.hull.fam.inflated or need.site.construction == "inflatable"
