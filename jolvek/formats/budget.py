"""What reading one file may cost: files that somebody made to be dear end with one sentence."""

from __future__ import annotations

import time

from jolvek.core.base.errors import JolvekError

MOST_CPU_S = 1.8


class TooDear(JolvekError):
    """A file takes more than may be spent on it."""


class Budget:
    """Rows and processor seconds of one file. `rows` counts everything that is read, empty too."""

    def __init__(self, most_rows: int, most_cpu_s: float = MOST_CPU_S) -> None:
        self.rows, self._most = 0, most_rows
        self._most_cpu_s, self._began = most_cpu_s, time.thread_time()

    def spend(self) -> None:
        """One more row; raises TooDear at either limit."""
        self.rows += 1
        if self.rows > self._most:
            raise TooDear(
                f"more than {self._most} rows were read, empty ones too; allowed are {self._most}:"
                " delete the empty ones, or split the file"
            )
        if self.rows % 100 == 0:
            self.check()

    def check(self) -> None:
        """Raise TooDear once the processor seconds are spent."""
        if time.thread_time() - self._began > self._most_cpu_s:
            raise TooDear(
                f"reading stopped after {self.rows} rows and {self._most_cpu_s:g} s of the"
                " processor's time; allowed is no more: split the file"
            )
