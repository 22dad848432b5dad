"""Figures as a file or a person writes them: which sign is the decimal one, and what stands round a
sum of money.
"""

from __future__ import annotations

import re
from collections.abc import Iterable

_CURRENCY = r"(?:€|\$|£|¥|chf|eur|usd|gbp|sek|nok|dkk|pln|czk|kr\.?|fr\.)"
_AROUND = re.compile(rf"(?i)^\s*{_CURRENCY}?\s*(.*?)\s*{_CURRENCY}?\s*$")
_WHOLE = re.compile(r"[.,](?:[-–—]{1,2})$")  # 799,- and 799.–
_SPACES = str.maketrans("", "", " \u00a0\u202f\u2009'’")
_BY_COMMA = re.compile(r"[-+]?\d+(?:\.\d{3})*,(?:\d{1,2}|\d{4,})|[-+]?\d{1,3}(?:\.\d{3})+,\d+")
_BY_POINT = re.compile(r"[-+]?\d+(?:,\d{3})*\.(?:\d{1,2}|\d{4,})|[-+]?\d{1,3}(?:,\d{3})+\.\d+")


def bare(text: str) -> str:
    """A figure without spaces, currency and the dash that stands for no cents.

    >>> bare("1.899,00 €"), bare("CHF 1'899.–"), bare("799,-"), bare("24 V")
    ('1.899,00', '1899', '799', '24V')
    """
    found = _AROUND.match(text)
    plain = (found[1] if found else text).translate(_SPACES)
    return _WHOLE.sub("", plain)


def is_comma(cells: Iterable[str], otherwise: bool) -> bool:
    """Whether the comma is the decimal sign, by the cells that leave no doubt ("12,5" is one,
    "1.949" is none); `otherwise` where all do, or they disagree.

    >>> is_comma(["1.949", "12,5"], False), is_comma(["1.949", "12.5"], True)
    (True, False)
    >>> is_comma(["1.949", "2.899"], True)
    True
    """
    comma = point = 0
    for cell in cells:
        plain = bare(cell)
        comma += _BY_COMMA.fullmatch(plain) is not None
        point += _BY_POINT.fullmatch(plain) is not None
    if bool(comma) == bool(point):
        return otherwise
    return comma > 0


def sure(figure: str) -> str:
    """A figure with a decimal point that nobody takes for thousands.

    >>> sure("1.949"), sure("12.5")
    ('1.9490', '12.5')
    """
    return f"{figure}0" if re.fullmatch(r"[-+]?\d{1,3}\.\d{3}", figure) else figure


def plain(text: str, comma: bool) -> str:
    """A figure as Python reads it, where the comma is the decimal sign or the point is.

    >>> plain("1.949", True), plain("1.949", False), plain("2,5", False), plain("1,949.00", False)
    ('1949', '1.949', '2.5', '1949.00')
    >>> plain("1.899,00 €", False), plain("1,949", False), plain("12.5", True)
    ('1899.00', '1949', '12.5')
    """
    figure = bare(text)
    if re.fullmatch(r"[-+]?\d{1,3}(\.\d{3})+,\d+", figure):
        comma = True  # it says so itself
    elif re.fullmatch(r"[-+]?\d{1,3}(,\d{3})+\.\d+", figure):
        comma = False
    thousands, decimal = (".", ",") if comma else (",", ".")
    if re.fullmatch(rf"[-+]?\d{{1,3}}(\{thousands}\d{{3}})+(\{decimal}\d*)?", figure):
        figure = figure.replace(thousands, "")
    return figure.replace(",", ".") if figure.count(",") == 1 else figure


def parts_of(text: str) -> list[str]:
    """The parts of a list in a cell. Lengths beside each other, as 381/508 mm, are two of the unit
    behind the last; 1/2 stays a fraction.

    >>> parts_of("381/508 mm"), parts_of("0.381|0.508"), parts_of("20 1/2 in")
    (['381 mm', '508 mm'], ['0.381', '0.508'], ['20 1/2 in'])
    """
    parts = re.split(r"[|;]|(?<=\d\d)\s*/\s*(?=\d\d)", text)
    unit = re.search(r"[a-z\"″]+$", parts[-1].strip()) if "/" in text else None
    bare = (p.strip() for p in parts if p.strip())
    return [f"{p} {unit[0]}" if unit and re.fullmatch(r"[\d.,]+", p) else p for p in bare]
