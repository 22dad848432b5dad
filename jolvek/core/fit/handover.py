"""The handover of one setup on its boat, step by step: what is done before the owner takes it over,
each with its hazard beside it. Makers' manuals come first.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from jolvek.core.base.messages import msg, msg_all
from jolvek.core.fit import controls
from jolvek.core.fit.checklist import settings
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.handover_owner import aboard, explained, papers
from jolvek.core.fit.handover_step import Step
from jolvek.core.fit.mounting_work import mounted, never_drilled
from jolvek.core.products.boat_model import CHAMBERS
from jolvek.core.rules.signals import DANGER, WARNING

KILL_CORD = msg("Kill cord off and battery unplugged before a hand goes near the propeller.")
HIGH_V = 60.0  # DC, from which a licensed electrician works; the usual limit, from memory
PROPELLER_PARTS = (
    msg("larger washer"),
    msg("drive pin"),
    msg("propeller"),
    msg("smaller washer"),
    msg("self-locking nut"),
    msg("anode"),
)  # from the gearcase outwards, as `picture` "propeller" numbers them


@dataclass(frozen=True)
class Piece:
    """Something with a serial number: what kind of thing, its title, its id in the catalogue."""

    what: str
    title: str
    product_id: str = ""


UNPACK, CHARGE, MOTOR = msg("Unpack"), msg("Charge"), msg("Fit the motor")
CABLES, SETTINGS, WATER = msg("Cables"), msg("Settings"), msg("On the water")


def steps(f: Fitted) -> tuple[Step, ...]:
    """All steps in their order for one setup.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> found = steps(sample_fitted())
    >>> found[0].key, len({s.key for s in found}) == len(found), found[-1].group
    ('unpack', True, 'Aboard')
    """
    return (
        *_unpack(f),
        *_inflate(f),
        *_fit_motor(f),
        *_cables(f),
        *_settings(f),
        *_water(f),
        *explained(f),
        *papers(f),
        *aboard(f),
    )


def _unpack(f: Fitted) -> tuple[Step, ...]:
    first = next((x for x in f.findings if x.rule == "first-charge"), None)
    how = msg("Before the first use.")
    if first is not None:
        how = msg(
            "Before the first use. It arrives about %(share)s %% charged; the first charge takes "
            "%(hours)s h.",
            share=f"{100 * (first.figure or 0.0):.0f}",
            hours=f"{dict(first.values)['hours']:.0f}",
        )
    return (
        Step(key="unpack", group=UNPACK, text=msg("Unpack and compare with the order")),
        Step(
            key="serials",
            group=UNPACK,
            text=msg("Write down the serial numbers"),
            details=msg("Motor, every battery and the charger."),
        ),
        Step(
            key="charge",
            group=CHARGE,
            text=msg("Charge the battery fully"),
            details=how,
            hazard=msg(
                "Charge above freezing, on a surface that does not burn, and stay with it. "
                "Lead-acid batteries also need fresh air."
            ),
            signal=WARNING,
        ),
    )


def _inflate(f: Fitted) -> tuple[Step, ...]:
    if not never_drilled(f) and f.need.hull.family != "rib":
        return ()
    return (
        Step(
            key="inflate",
            group=msg("Inflate"),
            text=msg("Inflate the chambers in turn, before the motor goes on"),
            details=msg(
                "All to half pressure first, then each to full, the keel or floor last: "
                "%(pressure)s.",
                pressure=CHAMBERS[f.need.site.chambers],
            ),
            hazard=msg("Go by the pump’s gauge. Sunshine raises the pressure."),
            picture="chambers",
        ),
    )


def _fit_motor(f: Fitted) -> tuple[Step, ...]:
    clamped = f.mount.spec.kind == "transom_clamp"
    out = [
        Step(
            key="mount",
            group=MOTOR,
            text=msg("Fix the mount to the boat"),
            details=mounted(f),
            picture="clamp" if clamped else "",
        )
    ]
    hung = f.motor.style in ("outboard", "pole")
    out.append(
        Step(
            key="hang",
            group=MOTOR,
            text=msg("Hang the motor") if hung else msg("Fit the motor to its mount"),
            details=msg("Tighten it by hand, then fit the safety line or bolt.")
            if hung
            else msg("Tighten the bolts as the maker’s manual says."),
        )
    )
    return (*out, _propeller()) if hung else tuple(out)


def _propeller() -> Step:
    numbered = (msg_all([str(i), part], " ") for i, part in enumerate(PROPELLER_PARTS, start=1))
    return Step(
        key="propeller",
        group=msg("Propeller"),
        text=msg("Fit the propeller"),
        details=msg(
            "%(order)s. The pin stands out the same left and right. Nip the nut, do not force it.",
            order=msg_all(numbered),
        ),
        hazard=KILL_CORD,
        signal=WARNING,
        picture="propeller",
    )


def _cables(f: Fitted) -> tuple[Step, ...]:
    if f.clips_on:
        how = msg("Align, push, lock.")
        return (Step(key="clip", group=CABLES, text=msg("Clip the battery on"), details=how),)
    done = (
        (
            "packs",
            msg("Stow and strap the batteries as drawn"),
            msg("They must not move."),
            "strap",
        ),
        (
            "plugs",
            msg("Plug in the cables"),
            msg(
                "A plug fits one way only: align the marks, push, lock the collar. Relieve the "
                "strain, and cap what is not used."
            ),
            "plug",
        ),
        ("covers", msg("Cover the terminals"), msg("The main switch stays within reach."), ""),
    )
    stowed, *rest = (
        Step(key=key, group=CABLES, text=text, details=how, picture=picture)
        for key, text, how, picture in done
    )
    hazard, signal = _live(f)
    stowed = replace(stowed, hazard=hazard, signal=signal)
    controlled = enumerate(controls.steps(f), start=1)
    out = (Step(key=f"control-{i}", group=CABLES, text=text) for i, text in controlled)
    return (stowed, _polarity(f), *rest, *out)


def _live(f: Fitted) -> tuple[str, str]:
    """The hazard of work at the battery's terminals, and its signal word."""
    if f.bank.nominal_v > HIGH_V:
        return msg("Above 60 V DC: a licensed marine electrician only."), DANGER
    return (
        msg("No tools across the terminals, no rings on. Fit the fuse at the battery first."),
        WARNING,
    )


def _polarity(f: Fitted) -> Step:
    hazard, signal = _live(f)
    return Step(
        key="polarity",
        group=CABLES,
        text=msg("Measure volts and polarity at the motor’s plug"),
        hazard=hazard,
        signal=signal,
    )


def _settings(f: Fitted) -> tuple[Step, ...]:
    return tuple(
        Step(
            key=f"set-{x.name.replace(' ', '-')}",
            group=SETTINGS,
            text=msg_all([x.name, x.value], ": "),
            details=x.why,
        )
        for x in settings(f)
    )


def _water(f: Fitted) -> tuple[Step, ...]:
    out = [
        (
            "cord",
            msg("Test the kill cord"),
            msg("Pull it: the motor must stop."),
            msg("Nobody in the water, and the propeller clear of people and lines."),
        ),
        (
            "gears",
            msg("Try forward, neutral and reverse"),
            msg("On the water; in the air only for a moment."),
            "",
        ),
        ("trial", msg("Run the sea trial"), msg("At several powers, each there and back."), ""),
        (
            "turns",
            msg("Turn hard to both sides"),
            msg("The propeller draws no air and nothing vibrates."),
            "",
        ),
        ("trim", msg("Check the trim with everyone aboard"), msg("Look from the quay."), ""),
    ]
    if not f.clips_on:
        out.append(
            (
                "warm",
                msg("Feel the cables after ten minutes at full power"),
                msg("Cables and joints stay cool."),
                msg("Use the back of the hand: a hot joint burns."),
            )
        )
    return tuple(
        Step(key=key, group=WATER, text=text, details=how, hazard=hazard, signal=WARNING)
        for key, text, how, hazard in out
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


NAMES = {
    "motor": msg("Motor"),
    "charger": msg("Charger"),
    "key": msg("Key"),
    "magnet": msg("Kill cord or magnet"),
}


def piece_name(what: str) -> str:
    """What a piece is called on screen and paper, by the kind it is stored under.

    >>> piece_name("pack 2"), piece_name("magnet"), piece_name("winch")
    ('Battery 2', 'Kill cord or magnet', 'winch')
    """
    kind, _, number = str(what).partition(" ")
    if kind == "pack" and number.isdigit():
        return msg("Battery %(number)s", number=number)
    return NAMES.get(kind, what)
