"""Signal words: what a finding's hazard can do, apart from whether it keeps a setup from being
offered.
"""

from __future__ import annotations

DANGER, WARNING, CAUTION, NOTE, STOP = "danger", "warning", "caution", "note", "stop"
RANKS = (DANGER, WARNING, CAUTION, NOTE, STOP)  # what can hurt most comes first
SIGNAL_WORDS = {
    DANGER: "Danger",  # can kill or sink
    WARNING: "Warning",  # can hurt or strand
    CAUTION: "Caution",  # can damage
    NOTE: "Note",
    STOP: "Stop",  # cannot be offered, and nobody is harmed
}
_OF = {
    DANGER: """voltage-dangerous sun-volts-dangerous petrol-aboard lead-ventilation
        bay-ventilation fuse-volts fuse-most
        charge-watched shore-side plate-power plate-load plate-people approval-power awash
        low-freeboard heel-beyond trim-beyond wind-limit waves-limit connector-limit
        current-continuous""",
    WARNING: """high-current gauge-lithium gauge-missing bms-cuts-off wet-touch main-fuse restraint
        cable-run runs-a-charge day-ends-early below-reserve approval-year approval-thrust
        motor-mass formula-power weak-in-wind current-beats-boat life-jacket rudder-only
        mount-motor-mass mount-thrust rudder-strikes tiller-reach rudder-unknown side-mount-yaw
        side-mount-heel one-at-the-side formula-load formula-people trim-angle lift-mass bay-mass
        charge-freezing lithium-charging string-current not-full-by-morning no-shore charges-a-day
        drift shallow shaft-shallow plate-above voltage-drop packs-alike bank-cold""",
    CAUTION: """voltage-high charger-voltage charger-chemistry sun-bank sun-chemistry sun-window
        current-peak bms-limit salt-anode polarity transom-estimated shaft-unknown
        weight-unknown""",
    NOTE: """thrust-claim thrust-impossible throttle-cable hands-free propeller-lugs tilt-short""",
}
OF_RULE = {rule: word for word, rules in _OF.items() for rule in rules.split()}
OF_LEVEL = {"block": STOP, "caution": CAUTION, "note": NOTE, "fine": NOTE}


def signal_of(rule: str, level: str) -> str:
    """The signal of a rule's finding; where no hazard is named, that of its level.

    >>> signal_of("plate-power", "block"), signal_of("too-slow", "block")
    ('danger', 'stop')
    """
    return OF_RULE.get(rule, OF_LEVEL[level])
