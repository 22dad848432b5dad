"""What a rule is, what its predicate finds, and the sources that several rules share."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any

import numpy as np

COMMON = "common practice, no source"
OWN = "Jolvek's own model"
MAKER = "maker's data"
SLACK = 1 + 1e-9  # a figure at its limit is within it


@dataclass(frozen=True)
class Verdict:
    """What a predicate found, in arrays that broadcast: where the rule holds, the figure, the
    limit, and what else its sentence names.
    """

    ok: Any
    figure: Any = None
    limit: Any = None
    values: Mapping[str, Any] = field(default_factory=dict)


@dataclass(frozen=True)
class Rule:
    """One rule: `sentence` and `cure` are templates filled with the boat's figures; SI inside.

    A cure that this boat or bank does not bear (`cured` among the values is false) gives way to
    `otherwise`. A hard rule has a `scope` (need, drive, pair or setup) and a predicate `holds` over
    the facts of that scope, for one setup as for all candidates.
    """

    id: str
    level: str
    topic: str
    sentence: str
    cure: str
    source: str
    school: str = "all"
    scope: str = ""
    holds: Callable[[Any], Verdict] | None = None
    otherwise: str = ""


def at_most(figure: Any, limit: Any, **values: Any) -> Verdict:
    """The figure may not exceed the limit; a limit that is not known is infinite.

    >>> at_most(np.array([1.0, 3.0]), 2.0).ok.tolist()
    [True, False]
    """
    return Verdict(np.asarray(figure) <= np.asarray(limit) * SLACK, figure, limit, values)


def at_least(figure: Any, limit: Any, **values: Any) -> Verdict:
    """The figure may not fall short of the limit.

    >>> bool(at_least(2.0, 2.0).ok)
    True
    """
    return Verdict(np.asarray(figure) * SLACK >= np.asarray(limit), figure, limit, values)
