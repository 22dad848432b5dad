"""The one judge: hard rules asked of facts, for one setup as for all candidates of a match."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

import numpy as np

from jolvek.core.base.arrays import Index, Mask
from jolvek.core.rules.findings import LEVELS, Finding, find
from jolvek.core.rules.rule import Verdict
from jolvek.core.rules.rulebook import RULES

Verdicts = Mapping[str, Verdict]
_ASKED: dict[tuple[str, str], list[tuple[str, Callable[[Any], Verdict]]]] = {}
for _rule in RULES.values():
    if _rule.holds is not None:
        _ASKED.setdefault((_rule.scope, _rule.level), []).append((_rule.id, _rule.holds))


def judge(scope: str, facts: Any, level: str = "block") -> dict[str, Verdict]:
    """Rule id → what its predicate finds, for every rule of a scope and level, in the book's order.

    >>> from jolvek.core.rules.facts import NeedFacts
    >>> crowd = NeedFacts(6, 4, float("nan"), 0, 9999)
    >>> [rule for rule, held in judge("need", crowd).items() if not held.ok]
    ['plate-people']
    """
    return {rule: holds(facts) for rule, holds in _ASKED.get((scope, level), ())}


def allowed(verdicts: Verdicts, shape: tuple[int, ...]) -> Mask:
    """Where every rule holds.

    >>> allowed({"a": Verdict(np.array([True, False])), "b": Verdict(True)}, (2,)).tolist()
    [True, False]
    """
    out = np.ones(shape, dtype=bool)
    for held in verdicts.values():
        out &= np.broadcast_to(held.ok, shape)
    return out


def finding_of(rule: str, held: Verdict, where: tuple[int, ...], shape: tuple[int, ...]) -> Finding:
    """What a rule says of the candidate at an index of the shape.

    >>> verdict = Verdict(False, np.array([900.0, 800.0]), 750.0)
    >>> finding_of("plate-power", verdict, (1,), (2,)).figure
    800.0
    """

    def at(value: Any) -> Any:
        if value is None or isinstance(value, str):
            return value
        found = np.broadcast_to(np.asarray(value), shape)[where]
        return found if isinstance(found, str) else float(found)

    words = {key: at(value) for key, value in held.values.items()}
    return find(rule, at(held.figure), at(held.limit), **words)


def of_rows(held: Verdict, rows: Index, shape: tuple[int, ...]) -> Verdict:
    """What a rule finds of some rows of a shape.

    >>> of_rows(Verdict(np.array([[True], [False]])), np.array([1]), (2, 3)).ok
    array([[False]])
    """

    def part(value: Any) -> Any:
        if value is None or isinstance(value, str):
            return value
        array = np.asarray(value)
        whole = array.ndim == len(shape) and array.shape[0] == shape[0]
        return array[rows] if whole else array

    values = {key: part(value) for key, value in held.values.items()}
    return Verdict(part(held.ok), part(held.figure), part(held.limit), values)


def nearest(held: Verdict, among: Mask) -> tuple[int, ...]:
    """The index among candidates that all break a rule of the one that comes nearest to its limit.

    >>> verdict = Verdict(np.array([False, False]), np.array([9.0, 7.0]), 5.0)
    >>> nearest(verdict, np.array([True, True]))
    (1,)
    """
    shape = among.shape
    if held.figure is None or held.limit is None:
        gap = np.zeros(shape)
    else:
        figure = np.asarray(held.figure, dtype=float)
        gap = np.broadcast_to(np.abs(figure - np.asarray(held.limit, dtype=float)), shape)
    gap = np.where(among & ~np.isnan(gap), gap, np.inf)
    flat = int(np.argmin(gap)) if np.isfinite(gap).any() else int(np.argmax(among))
    return tuple(int(i) for i in np.unravel_index(flat, shape))


def findings(scope: str, facts: Any) -> list[Finding]:
    """What the rules of a scope say against a single setup, of every level; empty where all hold.

    >>> from jolvek.core.rules.facts import SetupFacts
    >>> deep = SetupFacts(np.array(900.0), np.array(600.0), 800.0, np.inf)
    >>> [f.rule for f in findings("setup", deep)]
    ['awash']
    """
    out = []
    for level in LEVELS:
        for rule, held in judge(scope, facts, level).items():
            shape = np.shape(held.ok)
            if not np.all(held.ok):
                out.append(finding_of(rule, held, (0,) * len(shape), shape))
    return out
