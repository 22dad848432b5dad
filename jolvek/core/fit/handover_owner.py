"""The last part of a handover: what the owner learns, gets and finds aboard."""

from __future__ import annotations

from jolvek.core.base.messages import msg, msg_all
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.handover_step import Step

OWNER, ABOARD = msg("Explain to the owner"), msg("Aboard")
FOR_OWNER = (OWNER, ABOARD)  # groups that the owner reads again


def explained(f: Fitted) -> tuple[Step, ...]:
    """What the owner is shown, to be read again later.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> explained(sample_fitted())[0].key
    'teach-cord'
    """
    shown = [
        ("teach-cord", msg("Always wear the kill cord"), msg("Know where the spare is kept.")),
        ("teach-charge", msg("Read the charge, and know what stays in reserve"), ""),
        (
            "teach-charging",
            msg("Charge as the charger’s manual says"),
            msg("With its own plug, watched, above freezing, and never under a cover."),
        ),
        (
            "teach-care",
            msg("Rinse and dry after each trip, and look behind the propeller"),
            msg("Before winter, lay up as the manual says."),
        ),
        (
            "teach-home",
            msg("Come home slowly when the charge runs low: slow goes far"),
            msg("Oars, a paddle or a second motor are aboard."),
        ),
    ]
    if f.need.hull.fam.planes:
        how = msg("Kill cord on, and looking ahead.")
        shown.append(("teach-speed", msg("Full power only when everyone is seated"), how))
    return tuple(Step(key=key, group=OWNER, text=text, details=how) for key, text, how in shown)


def papers(f: Fitted) -> tuple[Step, ...]:
    """What is handed over on paper, and what the owner has to report to others.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> papers(sample_fitted())[0].key
    'manuals'
    """
    lithium = f.battery.spec.chem.lithium
    done = (
        ("manuals", msg("Hand over the manuals"), msg("Of motor, battery and charger.")),
        (
            "warranty",
            msg("Register the warranty"),
            msg("Or agree by which day the owner registers it."),
        ),
        (
            "registration",
            msg("Speak about registration and licence"),
            msg("Also about waters for electric motors only. Local rules decide."),
        ),
        (
            "insurer",
            msg("Remind the owner to tell the insurer"),
            msg("About the motor and the lithium battery.") if lithium else msg("About the motor."),
        ),
    )
    return tuple(
        Step(key=key, group=msg("Papers"), text=text, details=how) for key, text, how in done
    )


def aboard(f: Fitted) -> tuple[Step, ...]:
    """What is aboard when the boat goes.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> [step.key for step in aboard(sample_fitted())]
    ['spares', 'jackets']
    """
    spares = [
        msg("drive pins"),
        msg("spare propeller with nut"),
        msg("spare cord or magnet"),
        msg("keys"),
    ]
    spares += [] if f.clips_on else [msg("one fuse of each rating")]
    return (
        Step(
            key="spares",
            group=ABOARD,
            text=msg("Spares are aboard"),
            details=msg_all(spares),
        ),
        Step(
            key="jackets",
            group=ABOARD,
            text=msg("Life jackets are aboard"),
            details=msg("And another way to move the boat."),
        ),
    )
