"""What a change brought: two setups of a job, before and after, compared by their data."""

from __future__ import annotations

from dataclasses import dataclass
from math import isclose

from jolvek.core.job.figures import FIGURES, Figure, figure
from jolvek.core.job.job_setup import JobSetup
from jolvek.core.rules.findings import Finding

# what is told first; every other figure that moved follows
LEADING = (
    *("day.likely", "day.left", "day.end", "wish.range", "wish.time", "wish.power", "wish.speed"),
    *("top", "price.fitted", "price.parts", "price.add-ons", "cable.run", "cable.size"),
    *("fuse.main", "leg.hub", "trim", "mass", "lift", "loaded", "charge.time"),
)
ORDER = (*LEADING, *(key for key in FIGURES if key not in LEADING))


@dataclass(frozen=True)
class MovedFigure:
    """One figure that is another now."""

    key: str
    before: Figure
    after: Figure


@dataclass(frozen=True)
class Changes:
    """What followed: figures that moved, parts that are others (title before, title after; empty:
    none), findings that are new, and those that are gone.
    """

    figures: tuple[MovedFigure, ...] = ()
    parts: tuple[tuple[str, str], ...] = ()
    new: tuple[Finding, ...] = ()
    gone: tuple[Finding, ...] = ()

    def __bool__(self) -> bool:
        return bool(self.figures or self.parts or self.new or self.gone)


def changes(before: JobSetup, after: JobSetup) -> Changes:
    """Everything that is told of `after` and was not told so of `before`.

    >>> from dataclasses import replace
    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> from jolvek.core.job.job_setup import of_fitted
    >>> one = of_fitted(sample_fitted())
    >>> two = of_fitted(replace(one.fitted, parallel=2))
    >>> found = changes(one, two)
    >>> [x.key for x in found.figures][:3], bool(changes(one, one))
    (['day.left', 'wish.range', 'wish.time'], False)
    """
    if before == after:
        return Changes()
    pairs = ((key, figure(before, key), figure(after, key)) for key in ORDER)
    had, has = ({f.rule: f for f in x.findings} for x in (before, after))
    return Changes(
        tuple(MovedFigure(key, a, b) for key, a, b in pairs if not _same(a.value, b.value)),
        _parts(before, after),
        tuple(f for rule, f in has.items() if rule not in had),
        tuple(f for rule, f in had.items() if rule not in has),
    )


def _same(a: float | str | None, b: float | str | None) -> bool:
    if isinstance(a, str) or isinstance(b, str) or a is None or b is None:
        return a == b
    return isclose(a, b, rel_tol=1e-6, abs_tol=1e-9)


def _parts(before: JobSetup, after: JobSetup) -> tuple[tuple[str, str], ...]:
    def named(job: JobSetup) -> dict[str, str]:
        essential = {x.kind: _text(x.item.title, x.quantity) for x in job.parts}
        return essential | {x.item.id: _text(x.item.title, x.quantity) for x in job.extras}

    was, now = named(before), named(after)
    keys = dict.fromkeys([*was, *now])
    return tuple((was.get(k, ""), now.get(k, "")) for k in keys if was.get(k, "") != now.get(k, ""))


def _text(title: str, quantity: int) -> str:
    return f"{quantity} × {title}" if quantity > 1 else title
