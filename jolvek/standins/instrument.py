"""A boat's instrument as a simulated stand-in: NMEA 0183 over TCP of a boat with hidden true
parameters, in a current, with noise, gusts and, where asked, faults. It runs up and down the steps
of a trial by itself.
"""

from __future__ import annotations

import socket
import threading
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Protocol

import numpy as np

from jolvek.core.base.units import KNOT_M_S
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.formats.nmea import sentence

FAULTS = ("", "slow", "power_low", "crooked")


class Instrument(Protocol):
    """Sends bytes of NMEA 0183 until it is closed; raises OSError where it cannot be reached."""

    def chunks(self) -> Iterator[bytes]:
        """Bytes as they come."""


@dataclass(frozen=True)
class TcpInstrument:
    """An instrument, or a gateway, on the boat's network."""

    host: str
    port: int
    patience_s: float = 5.0

    def chunks(self) -> Iterator[bytes]:
        """Bytes as they come; a silence of `patience_s` is OSError."""
        with socket.create_connection((self.host, self.port), self.patience_s) as link:
            while data := link.recv(4096):
                yield data


@dataclass(frozen=True)
class FileInstrument:
    """A log that was kept, read at once."""

    data: bytes

    def chunks(self) -> Iterator[bytes]:
        """The file in pieces."""
        for i in range(0, len(self.data), 4096):
            yield self.data[i : i + 4096]


@dataclass(frozen=True)
class Hidden:
    """What is true of the simulated boat, against what is believed."""

    friction: float = 1.15
    waves: float = 1.1
    efficiency: float = 0.95
    current_m_s: float = 0.25
    noise: float = 0.008  # 1σ of a reading of speed, as a share
    gust: float = 0.01
    fault: str = ""


def simulate(
    setup: Setup, hidden: Hidden, steps_w: tuple[float, ...], seed: int = 1, run_s: int = 45
) -> Iterator[tuple[float, float, float, float]]:
    """Each second: s, m/s over ground, course in degrees, W. Each step is run out and back with a
    turn between; the boat gathers way as a boat does.
    """
    hull = replace(
        setup.hull,
        friction_factor=hidden.friction * (1.3 if hidden.fault == "slow" else 1.0),
        wave_factor=hidden.waves,
        efficiency_factor=hidden.efficiency,
    )
    true = evaluate(replace(setup, hull=hull))
    chance, t, speed, slow_gust = np.random.default_rng(seed), 0.0, 0.0, 0.0
    for power in steps_w:
        taken = min(power, 0.7 * max(steps_w)) if hidden.fault == "power_low" else power
        wanted = float(true.speed_at_w(taken))
        for course, along in ((40.0, 1.0), (220.0, -1.0)):
            for second in range(run_s + 20):
                turning = second < 8
                aim = wanted * (0.7 if turning else 1.0)
                speed += (aim - speed) / 4.0
                slow_gust += (hidden.gust * chance.standard_normal() - slow_gust) / 10
                ground = speed * (1 + slow_gust) + along * hidden.current_m_s
                shown = ground * (1 + hidden.noise * chance.standard_normal())
                off = 40.0 * (8 - second) / 8 if turning else 2.0 * chance.standard_normal()
                drift = second * 0.4 if hidden.fault == "crooked" else 0.0
                way = (course + off + drift) % 360
                watts = taken * (1 + 0.01 * chance.standard_normal())
                yield t, max(float(shown), 0.0), way, float(watts)
                t += 1.0


def sentences(t: float, speed_m_s: float, course_deg: float, power_w: float) -> bytes:
    """One second of the instrument as sentences."""
    hours, minutes, seconds = int(t // 3600), int(t // 60) % 60, t % 60
    clock = f"{hours:02d}{minutes:02d}{seconds:05.2f}"
    knots = speed_m_s / KNOT_M_S
    rmc = f"IIRMC,{clock},A,5301.2,N,00501.4,E,{knots:.3f},{course_deg:.1f},261126,,,A"
    charge = max(100.0 - t / 60, 5.0)
    volts = 25.6
    bank = f"PJLVB,{volts:.2f},{power_w / volts:.2f},{power_w:.1f},{charge:.0f}"
    return (sentence(rmc) + sentence(bank)).encode()


class Server:
    """Serves the simulated boat over TCP to whoever joins, `faster` times as fast as the clock."""

    def __init__(
        self,
        setup: Setup,
        hidden: Hidden,
        steps_w: tuple[float, ...],
        port: int = 0,
        faster: float = 1.0,
    ) -> None:
        self._what = (setup, hidden, steps_w)
        self._wait = 1.0 / faster
        self._over = threading.Event()
        self._listener = socket.create_server(("127.0.0.1", port))
        self.port = int(self._listener.getsockname()[1])
        self._thread = threading.Thread(target=self._serve, daemon=True)
        self._thread.start()

    def _serve(self) -> None:
        while not self._over.is_set():
            try:
                link, _ = self._listener.accept()
            except OSError:
                return
            threading.Thread(target=self._send, args=(link,), daemon=True).start()

    def _send(self, link: socket.socket) -> None:
        with link:
            try:
                for row in simulate(*self._what):
                    link.sendall(sentences(*row))
                    if self._over.wait(self._wait):
                        return
            except OSError:
                return

    def close(self) -> None:
        """Stop serving."""
        self._over.set()
        self._listener.close()
