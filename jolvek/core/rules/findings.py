"""Findings: what a rule of the rule book says of one setup, with the boat's figures filled in."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from jolvek.core.base.units import QUANTITIES, show
from jolvek.core.rules.examples import EXAMPLES
from jolvek.core.rules.rulebook import RULES
from jolvek.core.rules.signals import signal_of

LEVELS = ("block", "caution", "note")


@dataclass(frozen=True)
class Finding:
    """What a rule says of one setup: the boat's figure, the limit, a sentence, a cure and the
    source.
    """

    rule: str
    level: str
    text: str
    cure: str
    source: str
    figure: float | None = None
    limit: float | None = None
    values: tuple[tuple[str, object], ...] = ()

    @property
    def signal(self) -> str:
        """What its hazard can do: danger, warning, caution, note; stop where it only blocks."""
        return signal_of(self.rule, self.level)


SI = {"power": "W", "speed": "m/s", "mass": "kg", "thrust": "N", "distance": "m"}


class _Figure(float):
    """A float that formats itself as a quantity in chosen units: f"{x:speed}". Beside a limit that
    would read the same it shows more decimals.
    """

    units: Mapping[str, str] = SI
    point: str = "."
    beside: float | None = None

    def __format__(self, spec: str) -> str:
        shown = self._shown(self, spec, 0)
        for more in (1, 2):
            if self.beside is None or self._shown(self.beside, spec, more - 1) != shown:
                break
            shown = self._shown(self, spec, more)
        return shown

    def _shown(self, value: float, spec: str, more: int) -> str:
        if spec not in QUANTITIES:
            finer = re.sub(r"(?<=\.)\d(?=[f%])", lambda digits: str(int(digits[0]) + more), spec)
            shown = format(float(value), finer).replace(".", self.point)
            return f"{shown[:-1]}\u00a0%" if spec.endswith("%") else shown
        unit = self.units.get(spec, SI.get(spec, ""))
        small = 1 if spec == "mass" and abs(value) < 20 else 0 if unit == "m" else None
        if more:
            small = more + (QUANTITIES[spec].shown.get(unit, 1) if small is None else small)
        return f"{show(float(value), spec, unit, small).replace('.', self.point)}\u00a0{unit}"


def find(
    rule_id: str, figure: float | None = None, limit: float | None = None, **values: object
) -> Finding:
    """The finding of a rule with the boat's figures filled in, in SI.

    >>> find("voltage-high", 96.0, 60.0).level
    'block'
    """
    rule = RULES[rule_id]
    bare = Finding(
        rule.id,
        rule.level,
        "",
        "",
        rule.source,
        figure,
        limit=limit,
        values=tuple({"figure": figure, "limit": limit, **values}.items()),
    )
    return say(bare, SI)


def example(rule_id: str) -> Finding:
    """The worked example of a rule, in SI.

    >>> example("plate-people").text
    '2 people aboard; the plate allows 1.'
    """
    values = dict(EXAMPLES[rule_id])
    figure, limit = values.pop("figure", None), values.pop("limit", None)
    return find(rule_id, figure, limit, **values)  # type: ignore[arg-type]


def say(
    finding: Finding,
    units: Mapping[str, str],
    speak: Callable[[Any], str] = str,
    point: str = ".",
) -> Finding:
    """The same finding with its sentences in the units given per quantity; `speak` gives each
    template, and each text among its values, in another language, whose decimal sign is `point`.

    >>> say(find("plate-power", 3000.0, 2200.0), {"power": "kW"}).text
    "The motor's 3.00\\xa0kW exceed the 2.20\\xa0kW of the boat's plate."
    """
    rule = RULES[finding.rule]
    chosen = type("_Chosen", (_Figure,), {"units": units, "point": point})
    values = dict(finding.values)
    named: dict[str, Any] = {
        key: chosen(value) if isinstance(value, int | float) else speak(value)
        for key, value in values.items()
    }
    figure, limit = values.get("figure"), values.get("limit")
    if isinstance(figure, int | float) and isinstance(limit, int | float) and figure != limit:
        named["figure"].beside, named["limit"].beside = limit, figure
    borne = values.get("cured", True)
    cures = rule.cure if borne or not rule.otherwise else rule.otherwise
    text, cure = (speak(x).format(**named) for x in (rule.sentence, cures))
    return replace(finding, text=text, cure=cure)


def uncured(finding: Finding) -> Finding:
    """The same finding, in SI, with the cure that is left where its first does not pass the rule
    book.

    >>> uncured(example("voltage-low")).cure
    'Choose a motor for this voltage, or a battery within its voltage range.'
    """
    values = tuple({**dict(finding.values), "cured": False}.items())
    return say(replace(finding, values=values), SI)


def worst(findings: list[Finding] | tuple[Finding, ...]) -> str:
    """The worst level among findings: block, caution, note, or fine.

    >>> worst([]), worst([find("life-jacket"), find("no-battery")])
    ('fine', 'note')
    """
    found = {f.level for f in findings}
    return next((level for level in LEVELS if level in found), "fine")


def ordered(findings: list[Finding]) -> list[Finding]:
    """Findings with the worst first, otherwise as found.

    >>> [f.level for f in ordered([find("life-jacket"), find("voltage-high", 96.0, 60.0)])]
    ['block', 'note']
    """
    return sorted(findings, key=lambda f: LEVELS.index(f.level))
