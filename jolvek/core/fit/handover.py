"""The handover of one setup on its boat, step by step: what is done before she is given to her
owner, each with the hazard beside it. Makers' manuals come first.
"""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.messages import msg, msg_all, words
from jolvek.core.fit import controls
from jolvek.core.fit.checklist import settings
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.mounting_work import mounted, never_drilled
from jolvek.core.products.boat_model import CHAMBERS

KILL_CORD = msg("Kill cord off and switch off before a hand goes near the propeller.")
HIGH_V = 60.0  # DC, from which a licensed electrician works; the usual limit, from memory


@dataclass(frozen=True)
class Step:
    """One step: its key (the same for every setup), its group, what to do, and its hazard."""

    key: str
    group: str
    text: str
    hazard: str = ""

    def __post_init__(self) -> None:
        words(self, "text", "hazard")


@dataclass(frozen=True)
class Piece:
    """Something with a serial number: what kind of thing, its title, its id on the shelf."""

    what: str
    title: str
    product_id: str = ""


FOR_OWNER = ("Customer", "Aboard")  # groups that the owner reads again


def steps(f: Fitted) -> tuple[Step, ...]:
    """All steps in their order for one setup.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> found = steps(sample_fitted())
    >>> found[0].key, len({s.key for s in found}) == len(found), found[-1].group
    ('unpack', True, 'Aboard')
    """
    return (
        *_before(f),
        *_inflate(f),
        *_hang(f),
        *_cables(f),
        *(
            Step(
                f"set-{x.name.replace(' ', '-')}",
                msg("Settings"),
                msg("%(name)s: %(value)s (%(why)s).", name=x.name, value=x.value, why=x.why),
            )
            for x in settings(f)
        ),
        *_water(f),
        *_customer(f),
        *_papers(f),
        *_aboard(f),
    )


def _before(f: Fitted) -> tuple[Step, ...]:
    first = next((x for x in f.findings if x.rule == "first-charge"), None)
    share, hours = (first.figure or 0.0, dict(first.values)["hours"]) if first else (0.0, 0.0)
    return (
        Step("unpack", msg("Unpack"), msg("Unpack and compare with the order, piece by piece.")),
        Step(
            "serials",
            msg("Unpack"),
            msg("Write down the serial numbers of motor, packs and charger."),
        ),
        Step(
            "charge",
            msg("Charge"),
            msg("Charge fully before the first use.")
            if first is None
            else msg(
                "Charge fully before the first use: packs come about %(share)s %% charged, and the "
                "first charge takes %(hours)s h.",
                share=f"{100 * share:.0f}",
                hours=f"{hours:.1f}",
            ),
            msg(
                "Charge on a surface that does not burn, watched, above freezing; lead-acid "
                "needs air."
            ),
        ),
    )


def _inflate(f: Fitted) -> tuple[Step, ...]:
    if not never_drilled(f) and f.need.hull.family != "rib":
        return ()
    pressure = CHAMBERS[f.need.site.chambers]
    return (
        Step(
            "inflate",
            msg("Inflate"),
            msg(
                "All chambers to half first, then in turn to full, the keel or floor last: "
                "%(pressure)s. Before the motor's weight goes on.",
                pressure=pressure,
            ),
            msg("A hand pump's gauge decides; heat of the sun raises the pressure."),
        ),
    )


def _hang(f: Fitted) -> tuple[Step, ...]:
    out = [Step("mount", msg("Fit the motor"), mounted(f))]
    out.append(
        Step(
            "hang",
            msg("Fit the motor"),
            msg("Hang the motor, clamps by hand, then the safety line or bolt."),
            "",
        ),
    )
    if f.motor.style in ("outboard", "pole"):
        order = msg("larger washer, drive pin centred, propeller, smaller washer, self-locking nut")
        out.append(
            Step(
                "propeller",
                msg("Propeller"),
                msg("Propeller: %(order)s nipped, not forced; anode last.", order=order),
                KILL_CORD,
            )
        )
    return tuple(out)


def _cables(f: Fitted) -> tuple[Step, ...]:
    hazard = msg("No tools across poles; rings off the fingers; fuse at the battery first.")
    if f.bank.nominal_v > HIGH_V:
        hazard = msg("Above 60 V DC: a licensed marine electrician only.")
    if f.clips_on:
        return (Step("clip", msg("Cables"), msg("Clip the battery on: align, push, lock."), ""),)
    done = (
        ("packs", msg("Stow and strap the packs as drawn; they may not move."), hazard),
        ("polarity", msg("Measure volts and polarity at the motor's plug."), hazard),
        (
            "plugs",
            msg(
                "Plugs go one way: align, push, lock the collar; relieve the strain; caps on what"
                " is not used."
            ),
            "",
        ),
        ("covers", msg("Terminals covered; main switch in reach, its place shown."), ""),
    )
    out = [Step(key, msg("Cables"), text, risk) for key, text, risk in done]
    out += [
        Step(f"control-{i}", msg("Cables"), text)
        for i, text in enumerate(controls.steps(f), start=1)
    ]
    return tuple(out)


def _water(f: Fitted) -> tuple[Step, ...]:
    out = [
        Step(
            "cord",
            msg("On the water"),
            msg("The kill cord stops the motor: tried, not looked at."),
            msg("Nobody in the water, propeller clear of people and lines."),
        ),
        Step(
            "gears",
            msg("On the water"),
            msg("Forward, neutral, reverse on the water, not in the air for long."),
        ),
        Step("trial", msg("On the water"), msg("Sea trial: steps of power both ways.")),
        Step(
            "turns", msg("On the water"), msg("Full turns both ways: no air drawn, no vibration.")
        ),
        Step("trim", msg("On the water"), msg("Loaded trim looked at from the quay.")),
    ]
    if not f.clips_on:
        out.append(
            Step(
                "warm",
                msg("On the water"),
                msg("Cables and joints cool to the hand after ten minutes at full power."),
                msg("Feel with the back of the hand; a hot joint burns."),
            )
        )
    return tuple(out)


def _customer(f: Fitted) -> tuple[Step, ...]:
    shown = [
        ("teach-cord", msg("Kill cord and magnet: worn always, spare where it is.")),
        ("teach-charge", msg("Charge shown, read together; what stays as reserve.")),
        ("teach-charging", msg("Charging shown: plug, time, place, what never to do.")),
        ("teach-care", msg("Rinse, dry, look behind the propeller; laying up.")),
        ("teach-home", msg("Coming home: slow goes far; oars, paddle or spare motor.")),
    ]
    if f.need.hull.fam.planes:
        shown.append(("teach-speed", msg("Full power only seated, cord on, looking out.")))
    return tuple(Step(key, msg("Customer"), text) for key, text in shown)


def _papers(f: Fitted) -> tuple[Step, ...]:
    return (
        Step("manuals", msg("Papers"), msg("Manuals of motor, battery and charger handed over.")),
        Step(
            "warranty",
            msg("Papers"),
            msg("Warranty registered, or the day until which set down."),
        ),
        Step(
            "registration",
            msg("Papers"),
            msg("Reminded: registration, licence, electric-only waters; local rules decide."),
        ),
        Step(
            "insurer",
            msg("Papers"),
            msg("Reminded: the insurer is told of motor and lithium battery."),
        ),
    )


def _aboard(f: Fitted) -> tuple[Step, ...]:
    spares = [
        msg("drive pins"),
        msg("spare propeller with nut"),
        msg("spare cord or magnet"),
        msg("keys"),
    ]
    spares += [] if f.clips_on else [msg("one fuse of each rating")]
    return (
        Step("spares", msg("Aboard"), msg("Aboard: %(spares)s.", spares=msg_all(spares))),
        Step("jackets", msg("Aboard"), msg("Life jackets, and another way to move the boat.")),
    )


def pieces(f: Fitted) -> tuple[Piece, ...]:
    """What has a serial number: motor, every pack, charger; keys and magnets may have.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> [p.what for p in pieces(sample_fitted())][:2]
    ['motor', 'pack 1']
    """
    out = [Piece("motor", f.motor.title, f.motor.id)]
    many = range(1, f.bank.packs + 1)
    out += [Piece(msg("pack %(i)s", i=i), f.battery.title, f.battery.id) for i in many]
    if f.charger:
        out.append(Piece("charger", f.charger.title, f.charger.id))
    return (*out, Piece("key", msg("Key")), Piece("magnet", msg("Kill cord or magnet")))
