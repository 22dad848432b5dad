"""NMEA 0183 sentences of a trial: RMC and VTG for speed and course over ground, XDR for volts and
amps, and PJLVB, our own, for the bank.

`$PJLVB,<V>,<A>,<W>,<charge %>*hh`: volts at the bank, amps and watts drawn, charge shown; empty
fields are not known. Bad sentences are counted and left away: instruments send half ones.
Source: published sentence formats, NMEA 0183; from memory.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.units import KNOT_M_S

MOST_BYTES = 4096  # without a line's end, after which what came is thrown away
LONGEST = 120  # a sentence has at most 82; some instruments send more


class BadSentence(JolvekError):
    """A sentence that cannot be read."""


@dataclass(frozen=True)
class Reading:
    """What one sentence says; None is not said."""

    speed_m_s: float | None = None
    course_deg: float | None = None
    power_w: float | None = None
    voltage_v: float | None = None
    current_a: float | None = None
    charge: float | None = None
    time_s: float | None = None  # of the day, UTC


def checksum(body: str) -> str:
    """Two hex digits: all bytes between $ and * combined by exclusive or.

    >>> checksum("GPGLL,5300.97914,N,00259.98174,E,125926,A")
    '28'
    """
    value = 0
    for byte in body.encode("ascii", "replace"):
        value ^= byte
    return f"{value:02X}"


def sentence(body: str) -> str:
    """A whole sentence of a body.

    >>> sentence("PJLVB,25.6,31.2,799,87")
    '$PJLVB,25.6,31.2,799,87*7B\\r\\n'
    """
    return f"${body}*{checksum(body)}\r\n"


def parse(line: str) -> Reading | None:
    """What a sentence says; None for one that tells nothing of a trial. Raises BadSentence.

    >>> r = parse(sentence("GPRMC,120000,A,5300,N,00259,E,5.0,90.0,261126,,"))
    >>> round(r.speed_m_s, 2), r.course_deg, r.time_s
    (2.57, 90.0, 43200.0)
    """
    text = line.strip()
    if len(text) > LONGEST or text[:1] not in ("$", "!") or "*" not in text:
        raise BadSentence(f"read {text[:30]!r}, allowed is $…*hh")
    body, _, result = text[1:].partition("*")
    if result[:2].upper() != checksum(body) or len(result) != 2:
        raise BadSentence(f"read {text[:30]!r}: its checksum is not {checksum(body)}")
    name, *parts = body.split(",")
    try:
        if name == "PJLVB":
            return _bank(parts)
        read = {"RMC": _rmc, "VTG": _vtg, "XDR": _xdr}.get(name[2:])
        return read(parts) if read else None
    except (ValueError, IndexError):
        raise BadSentence(f"read {text[:30]!r}: its figures cannot be read") from None


def _number(text: str) -> float | None:
    value = float(text) if text else None
    if value is not None and not -1e6 < value < 1e6:
        raise ValueError(text)
    return value


def _rmc(p: list[str]) -> Reading | None:
    if p[1] != "A":
        return None  # a fix that is void
    time = p[0]
    seconds = int(time[:2]) * 3600 + int(time[2:4]) * 60 + float(time[4:]) if time else None
    speed = _number(p[6])
    if seconds is not None and not 0 <= seconds < 86_401:
        raise ValueError(time)
    metres = None if speed is None else speed * KNOT_M_S
    return Reading(speed_m_s=metres, course_deg=_number(p[7]), time_s=seconds)


def _vtg(p: list[str]) -> Reading | None:
    if len(p) > 8 and p[8] == "N":
        return None
    speed = _number(p[4])
    metres = None if speed is None else speed * KNOT_M_S
    return Reading(speed_m_s=metres, course_deg=_number(p[0]))


def _xdr(p: list[str]) -> Reading | None:
    found: dict[str, float | None] = {}
    for i in range(0, len(p) - 3, 4):
        kind, value, unit = p[i], _number(p[i + 1]), p[i + 2]
        if (kind, unit) in (("U", "V"), ("I", "A")):
            found[kind] = value
    volts, amps = found.get("U"), found.get("I")
    if volts is None and amps is None:
        return None
    watts = volts * amps if volts is not None and amps is not None else None
    return Reading(power_w=watts, voltage_v=volts, current_a=amps)


def _bank(p: list[str]) -> Reading:
    volts, amps, watts, charge = (_number(x) for x in p[:4])
    if watts is None and volts is not None and amps is not None:
        watts = volts * amps
    share = None if charge is None else charge / 100
    return Reading(power_w=watts, voltage_v=volts, current_a=amps, charge=share)


@dataclass
class Stream:
    """Bytes as they come, cut into sentences; `bad` counts those left away."""

    bad: int = 0
    _rest: bytes = field(default=b"", repr=False)

    def feed(self, data: bytes) -> list[Reading]:
        """What the whole sentences in it say.

        >>> s, text = Stream(), sentence("GPVTG,90.0,T,,M,5.0,N,9.3,K,A").encode()
        >>> len(s.feed(text[:10])), len(s.feed(text[10:])), s.bad
        (0, 1, 0)
        """
        self._rest += data
        *lines, self._rest = self._rest.split(b"\n")
        if len(self._rest) > MOST_BYTES:
            self._rest, self.bad = b"", self.bad + 1
        out = []
        for line in lines:
            text = line.decode("ascii", "replace").strip()
            if not text:
                continue
            try:
                found = parse(text)
            except BadSentence:
                self.bad += 1
                continue
            if found is not None:
                out.append(found)
        return out
