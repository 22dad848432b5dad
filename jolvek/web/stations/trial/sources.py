"""What a trial's runs are read from: logs, tracks, and instruments of one's own network."""

from __future__ import annotations

import ipaddress
import socket
from collections.abc import Mapping

from jolvek.core.base import typed_figures
from jolvek.core.base.errors import JolvekError
from jolvek.formats import log_file
from jolvek.web.kit import display
from jolvek.web.kit.language import tr


def samples(content: bytes, gpx: bool, form: Mapping[str, str]) -> log_file.Samples:
    if gpx:
        return log_file.track(content)
    if content.lstrip()[:1] in (b"$", b"!"):
        return log_file.Samples(log_file.sentences(content))
    chosen = {k: form.get(f"column_{k}", "").strip() for k in log_file.GUESSES}
    return log_file.samples(content, chosen, form.get("unit", "kn"))


def powers_of(text: str) -> list[float]:
    """Powers typed with semicolons between them, W."""
    unit = display.current()["power"]
    words = [w for part in text.split(";") if (w := part.strip())]
    return [typed_figures.parse(w, "power", unit) for w in words]


def own_net(host: str, port: str, machine: bool = False) -> str:
    """The address to join, which is the one that was looked at; raises where it is none, or lies
    outside this network, or on this machine (unless `machine`).
    """
    allowed = tr("allowed is host:port on this network, as 192.168.4.1:10110")
    if not port.isdecimal() or not 1 <= int(port) <= 65_535 or not host:
        raise JolvekError(
            tr("read “%(host)s:%(port)s”; %(allowed)s", host=host, port=port, allowed=allowed)
        )
    try:
        found = {x[4][0] for x in socket.getaddrinfo(host, int(port), proto=socket.IPPROTO_TCP)}
    except OSError:
        raise JolvekError(
            tr("read “%(host)s”, which is not known here; %(allowed)s", host=host, allowed=allowed)
        ) from None
    if not all(_is_near(str(x).split("%")[0], machine) for x in found):
        raise JolvekError(tr("read “%(host)s”; %(allowed)s", host=host, allowed=allowed))
    return str(min(found, key=str))


def _is_near(text: str, machine: bool) -> bool:
    """Whether an address is one of a boat's or a house's own network."""
    at = ipaddress.ip_address(text)
    at = getattr(at, "ipv4_mapped", None) or at
    if at.is_loopback:
        return machine
    strange = at.is_link_local or at.is_multicast or at.is_unspecified or at.is_reserved
    return at.is_private and not strange
