"""What a trial's figures and the people aboard say of faults: what is seen, the likely causes in
their order, what to check, the cure, and how to tell that it is cured. Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass

from jolvek.core.base.messages import msg, words
from jolvek.core.trial.causes import Explained


@dataclass(frozen=True)
class Cause:
    """One likely cause: what to check, the cure."""

    what: str
    check: str
    cure: str

    def __post_init__(self) -> None:
        words(self, "what", "check", "cure")


@dataclass(frozen=True)
class Fault:
    """One fault: its key, what is seen, causes with the likeliest first, how to tell it is cured.
    `hazard` is told beside it.
    """

    key: str
    seen: str
    causes: tuple[Cause, ...]
    told_by: str
    hazard: str = ""

    def __post_init__(self) -> None:
        words(self, "seen", "told_by", "hazard")


FAULTS: dict[str, Fault] = {
    f.key: f
    for f in (
        Fault(
            "crooked",
            "The boat runs crooked with the helm let go",
            (
                Cause(
                    "the leg is not in line with the tiller",
                    "sight from the bow: tiller amidships, gearcase in line with the keel",
                    "loosen the steering clamp, align, tighten",
                ),
                Cause(
                    "the trim tab stands off",
                    "which way the boat pulls, at two speeds",
                    "turn the tab a little to the side to which the boat pulls",
                ),
                Cause(
                    "the motor hangs off the middle",
                    "distance from the centre line against the drawing",
                    "nearer to the middle, or the motor turned a few degrees outward",
                ),
                Cause(
                    "weight to one side",
                    "look from astern, everybody seated",
                    "stow batteries and gear on the other side",
                ),
            ),
            "the boat holds its course for a hundred metres with two fingers on the tiller",
        ),
        Fault(
            "air",
            "The propeller draws air in turns or waves",
            (
                Cause(
                    "the plate lies too high",
                    "plate against the hull's bottom, boat loaded",
                    "motor 25 mm lower, or a longer shaft",
                ),
                Cause(
                    "rake or trim lifts it",
                    "leg upright with the boat loaded",
                    "one trim hole in, people forward",
                ),
                Cause(
                    "something ahead of it brings air along",
                    "keel, strake, ladder or sensor ahead of the leg",
                    "to the side or lower",
                ),
            ),
            "no howl in a full turn at full power, both ways",
        ),
        Fault(
            "vibrates",
            "It vibrates",
            (
                Cause(
                    "a blade is bent or nicked, or line is round the shaft",
                    "look at and behind the propeller, switched off and the magnet out",
                    "clear it, another propeller",
                ),
                Cause("the propeller sits loose", "pin and nut", "new pin, nut nipped up"),
                Cause("the clamp has slackened", "shake the motor by its head", "tighten, secure"),
            ),
            "smooth from lowest to full power",
            "Switch off, magnet out, before a hand goes near the propeller.",
        ),
        Fault(
            "slow",
            "The boat is slow at all powers",
            (
                Cause(
                    "the bottom is foul or the boat is heavier than stated",
                    "waterline against the drawing; a hand over the bottom",
                    "clean the boat and weigh it again",
                ),
                Cause(
                    "the propeller is damaged or turned round",
                    "blades, the order of its washers",
                    "another propeller; mount it as drawn",
                ),
                Cause(
                    "the gauge shows more power than the motor takes",
                    "current by a clamp meter against the display",
                    "go by the meter",
                ),
                Cause("wind or shallow water", "wind and depth of the runs", "try again"),
            ),
            "a run both ways lies within the offer's band",
        ),
        Fault(
            "slow_high",
            "The boat is slow at high power only",
            (
                Cause(
                    "the propeller is out of pitch, or too long in it",
                    "shaft speed at full power against the maker's",
                    "another pitch, if the maker has one",
                ),
                Cause(
                    "the voltage sags",
                    "volts at the motor's plug at full power",
                    "shorter or thicker cable, joints cleaned, packs charged",
                ),
                Cause(
                    "the boat squats",
                    "trim from the quay at full power",
                    "people and packs forward",
                ),
            ),
            "speed at full power lies within the offer's band",
            "Joints that warm at full current burn: switch off before they are touched.",
        ),
        Fault(
            "power_low",
            "The motor does not take the power it should",
            (
                Cause(
                    "the throttle or power limit is set low",
                    "the settings on the rigger's sheet",
                    "set it again",
                ),
                Cause(
                    "low charge cuts the power back",
                    "charge shown against the protection's",
                    "charge fully, try again",
                ),
                Cause(
                    "cable or joint drops too many volts",
                    "volts at the pack and at the motor, at full power, against the drop worked"
                    " out",
                    "joints cleaned and pressed again, thicker cable",
                ),
                Cause(
                    "it is hot, or the battery limits itself",
                    "messages of motor and battery",
                    "let it cool; the maker",
                ),
            ),
            "full throttle takes the rated power",
            "Above 60 V a licensed electrician measures.",
        ),
        Fault(
            "heels",
            "The boat heels",
            (
                Cause("weight to one side", "people and packs", "stow on the other side"),
                Cause("the motor hangs at the side", "the drawing", "a weight opposite"),
            ),
            "level with people seated as usual",
        ),
        Fault(
            "porpoises",
            "The boat porpoises at speed",
            (
                Cause("the leg is trimmed out", "trim hole", "one hole in"),
                Cause("weight too far aft", "packs and people", "forward"),
            ),
            "steady at full speed on flat water",
        ),
        Fault(
            "bow_up",
            "The bow stands up",
            (
                Cause("too much weight aft", "people, packs", "move them forward"),
                Cause("the leg is trimmed out", "trim hole", "one hole in"),
                Cause(
                    "the boat is at its hump and has not the power to leave it",
                    "the speed against the hump's",
                    "less load, or slower",
                ),
            ),
            "the helm sees ahead over the bow at every speed",
        ),
    )
}
MANY = 2  # points, from which more is said than of one; Jolvek's own
LOW_POWER = 0.85  # of the rated power that full throttle must take; common practice, no source
DROP_MORE, DROP_LEAST_V = 1.5, 0.3  # measured drop over the one worked out; common practice


@dataclass(frozen=True)
class Suspected:
    """A fault with why it is suspected, and the causes that the points tell, where they do."""

    fault: Fault
    why: str
    explained: Explained | None = None


def _by_points(e: Explained | None) -> list[Suspected]:
    """What the likeliest cause shows as."""
    if e is None or not e.wrong or e.points < MANY:
        return []
    first = e.causes[0]
    values = {"word": first.word, "what": first.cause.what, "n": e.points}
    why = msg("%(word)s: %(what)s, from %(n)s points", **values)
    return [Suspected(FAULTS[first.cause.fault], why, e)]


def suspect(
    explained: Explained | None,
    seen: Collection[str] = (),
    most_w: float | None = None,
    rated_w: float | None = None,
    drop_v: float | None = None,
    drop_worked_v: float | None = None,
) -> list[Suspected]:
    """Faults from what explains the points, from what people saw (keys of FAULTS), from what full
    throttle takes, and from the measured drop of the cables against the one worked out.

    >>> [x.fault.key for x in suspect(None, ["vibrates"], 700.0, 1000.0)]
    ['vibrates', 'power_low']
    """
    out = [Suspected(FAULTS[key], msg("seen on the water")) for key in FAULTS if key in seen]
    result = {x.fault.key for x in out}
    out += _by_points(explained)
    if most_w is not None and rated_w and most_w < LOW_POWER * rated_w:
        why = msg(
            "full throttle takes %(most)s of %(rated)s W",
            most=f"{most_w:.0f}",
            rated=f"{rated_w:.0f}",
        )
        out.append(Suspected(FAULTS["power_low"], why))
    elif drop_v is not None and drop_worked_v is not None:
        if drop_v > max(DROP_MORE * drop_worked_v, DROP_LEAST_V):
            why = msg(
                "the cables drop %(drop)s V; %(drop_worked)s V were worked out",
                drop=f"{drop_v:.1f}",
                drop_worked=f"{drop_worked_v:.1f}",
            )
            out.append(Suspected(FAULTS["power_low"], why))
    return [
        x for i, x in enumerate(out) if x.why == "seen on the water" or x.fault.key not in result
    ]
