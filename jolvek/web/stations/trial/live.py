"""A live trial: an instrument is read in a thread, its samples are kept, and a stretch
that is steady becomes a run. What is shown as kept stands in the database.
"""

from __future__ import annotations

import logging
import secrets
import sqlite3
import threading
import time
from collections.abc import Callable
from contextlib import closing
from dataclasses import dataclass, field
from pathlib import Path

from jolvek import shop
from jolvek.core.base.messages import msg
from jolvek.core.trial.runs import Run
from jolvek.core.trial.segments import STEADY_S, Sample, apart_deg, steady
from jolvek.formats.nmea import Reading, Stream
from jolvek.standins.instrument import Instrument
from jolvek.store import db

log = logging.getLogger("jolvek")
MOST_WINDOW = 2000  # samples looked at, and kept back, at most
KEEP_EVERY_S = 5.0  # of the instrument's time
AGAIN_S = 3.0
LIKE = 0.08  # in power: a run that has been taken


@dataclass
class Live:
    """One live trial: its last sample, how long it is steady, what was taken, and what is wrong."""

    trial_id: int
    name: str
    last: Sample | None = None
    steady_s: float = 0.0
    taken: list[Run] = field(default_factory=list)
    bad: int = 0
    problem: str = ""
    over: threading.Event = field(default_factory=threading.Event)
    ahead_deg: float | None = None
    charge: float | None = None
    session: str = field(default_factory=lambda: secrets.token_hex(6))
    _window: list[Sample] = field(default_factory=list)
    _unkept: list[Sample] = field(default_factory=list)
    _power: float | None = None
    _day: float | None = None
    _day_s: float = 0.0

    def read(self, reading: Reading, clock: Callable[[], float]) -> Run | None:
        """One reading; the run that it completes, to be kept, or None."""
        self._power = reading.power_w if reading.power_w is not None else self._power
        self.charge = reading.charge if reading.charge is not None else self.charge
        if reading.speed_m_s is None:
            return None
        t = self._time(reading.time_s, clock)
        sample = Sample(t, reading.speed_m_s, reading.course_deg, self._power)
        self.last = sample
        self._window = [s for s in self._window if s.t_s > t - STEADY_S - 2.0] + [sample]
        self._window = self._window[-MOST_WINDOW:]  # a clock that stands still ages nothing
        self._unkept = [*self._unkept, sample][-MOST_WINDOW:]
        found = steady(self._window)
        if found is None or found.power_w is None or found.power_w < 1:
            self.steady_s = 0.0
            return None
        self.steady_s = found.to_s - found.from_s
        run = self._run(found.speed_m_s, found.power_w, found.course_deg, found.gained_m_s)
        self._window = []
        return None if self._known(run) else run

    def _time(self, day_s: float | None, clock: Callable[[], float]) -> float:
        """Seconds that only grow: by the instrument's clock over midnight, else by ours."""
        if day_s is None:
            return self._day_s + clock()
        if self._day is not None and day_s < self._day - 1.0:
            self._day_s += 86_400.0
        self._day = day_s
        return self._day_s + day_s

    def _run(self, speed: float, power: float, course: float | None, gained: float) -> Run:
        if course is None:
            return Run(power, speed, gained_m_s=gained)
        if self.ahead_deg is None:
            self.ahead_deg = course
        heading = "out" if apart_deg(course, self.ahead_deg) < 90 else "back"
        return Run(power, speed, heading, gained_m_s=gained)

    def _known(self, run: Run) -> bool:
        return any(
            x.heading == run.heading and abs(x.power_w / run.power_w - 1) < LIKE for x in self.taken
        )

    @property
    def wanted(self) -> str:
        """What to run next: the way back, or another power."""
        for x in self.taken:
            other = "back" if x.heading == "out" else "out"
            if x.heading and not any(
                y.heading == other and abs(y.power_w / x.power_w - 1) < LIKE for y in self.taken
            ):
                return other
        return ""


class Lives:
    """The live trials of this process, by trial."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._by_trial: dict[int, Live] = {}

    def get(self, trial_id: int) -> Live | None:
        """The one of a trial."""
        with self._lock:
            return self._by_trial.get(trial_id)

    def start(
        self,
        trial_id: int,
        instrument: Instrument,
        name: str,
        database: Path,
        known: list[Run],
        after_s: float = 0.0,
    ) -> Live:
        """Read an instrument for a trial, in time after what was kept; stops the one before."""
        self.stop(trial_id)
        live = Live(trial_id, name, taken=list(known), _day_s=after_s)
        with self._lock:
            self._by_trial[trial_id] = live
        args = (live, instrument, database)
        threading.Thread(target=_listen, args=args, name="live", daemon=True).start()
        return live

    def stop(self, trial_id: int) -> None:
        """Stop reading."""
        with self._lock:
            live = self._by_trial.pop(trial_id, None)
        if live:
            live.over.set()


def _listen(live: Live, instrument: Instrument, database: Path) -> None:
    began = time.monotonic()
    while not live.over.is_set():
        stream = Stream()
        try:
            with closing(db.connect(database)) as conn:
                _read_all(live, instrument, stream, conn, began)
            live.problem = msg("The instrument has ended.")
        except (OSError, sqlite3.Error) as error:
            log.info("%s: %s", live.name, error)
            live.problem = msg("%(name)s does not answer.", name=live.name)
        if live.over.wait(AGAIN_S):
            return


def _read_all(
    live: Live, instrument: Instrument, stream: Stream, conn: sqlite3.Connection, began: float
) -> None:
    for chunk in instrument.chunks():
        if live.over.is_set():
            return
        live.problem = ""
        for reading in stream.feed(chunk):
            run = live.read(reading, lambda: time.monotonic() - began)
            if run is not None:
                keep(live, run, conn)
        live.bad = stream.bad
        unkept = live._unkept
        if unkept and unkept[-1].t_s - unkept[0].t_s >= KEEP_EVERY_S:
            shop.trials.add_runs(conn, live.trial_id, (), "live", samples=unkept)
            live._unkept = []


def keep(live: Live, run: Run, conn: sqlite3.Connection) -> None:
    """Keep a run that was taken, with the samples before it."""
    at = live.last.t_s if live.last else 0.0
    op = f"live-{live.session}-{at:.1f}"
    shop.trials.add_runs(conn, live.trial_id, (run,), "live", op, live._unkept)
    live._unkept = []
    live.taken.append(run)  # told only now that it stands in the database


LIVES = Lives()
