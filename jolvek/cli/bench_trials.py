"""What trials do for the prediction of boats whose own figures are hidden."""

from __future__ import annotations

from collections.abc import Callable

from jolvek.core.trial.other_physics import tried_otherwise
from jolvek.core.trial.study import study

HIDDEN_BOATS = 200


def trials(say: Callable[[str], None]) -> None:
    """Print it for boats drawn from our own model and for boats of other physics."""
    wanted = "bands of 80 % hold 75 to 85 %, median off by 3 % after one and 2 % after three"
    say(f"Trials of {HIDDEN_BOATS} hidden boats (takes a while; wanted of other physics: {wanted})")
    rows = [("our own", r) for r in study(HIDDEN_BOATS)]
    for physics, r in [*rows, *(("other", r) for r in tried_otherwise(HIDDEN_BOATS))]:
        say(
            f"  {physics} physics, {r.points} points both ways: speed off by"
            f" {100 * r.median:.1f} % (median), 9 in 10 within {100 * r.most:.1f} %; bands of 80 %"
            f" hold {100 * r.covered:.0f} %; worse than untried {100 * r.worse:.0f} %, by more"
            f" than 1 % {100 * r.clearly_worse:.0f} %"
        )
