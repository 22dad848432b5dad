"""Working out what a shop's customers ask of its shelf, in a thread of the process, with its
progress; what was found stays until the server ends or it is asked anew.
"""

from __future__ import annotations

import logging
import threading
from collections.abc import Iterator
from contextlib import closing
from dataclasses import dataclass, field
from pathlib import Path

from jolvek.core.assort.choose import Chosen, pareto
from jolvek.core.assort.demand import Demand, demand, setups_that_do
from jolvek.core.assort.typical import typical
from jolvek.core.base.errors import JolvekError
from jolvek.core.enquiry.need import Need
from jolvek.core.match.matching import match
from jolvek.core.products.shelf import Shelf
from jolvek.store import db, enquiries, finding
from jolvek.store.enquiries import Stored
from jolvek.web.kit.language import tr

OWN, TYPICAL = "own", "typical"
MOST_OWN, MOST_TYPICAL, STEPS = 1000, 2000, 8
log = logging.getLogger(__name__)


@dataclass
class Work:
    """One working out: of what, how far it is, and what was found."""

    of: str
    count: int
    done: int = 0
    demand: Demand | None = None
    front: list[Chosen] = field(default_factory=list)
    problem: str = ""

    @property
    def ready(self) -> bool:
        """Whether it is over, found or not."""
        return bool(self.demand or self.problem)


class Stocking:
    """The working out of each database, one at a time."""

    def __init__(self) -> None:
        self._works: dict[Path, Work] = {}
        self._lock = threading.Lock()

    def get(self, database: Path) -> Work | None:
        """The last one begun."""
        return self._works.get(database)

    def begin(
        self, database: Path, of: str, count: int, shelf: Shelf, worth: dict[str, float]
    ) -> Work:
        """Begin one; the one that is under way is given back instead."""
        with self._lock:
            found = self._works.get(database)
            if found and not found.ready:
                return found
            work = Work(of, count)
            self._works[database] = work
        thread = threading.Thread(
            target=self._run, args=(work, database, shelf, worth), daemon=True
        )
        thread.start()
        return work

    def _run(self, work: Work, database: Path, shelf: Shelf, worth: dict[str, float]) -> None:
        try:
            asked = list(_own(database)) if work.of == OWN else list(typical(work.count))
            work.count = len(asked)
            if not asked:
                work.problem = tr("There is no enquiry yet: take typical ones.")
                return
            rows = []
            for name, weight, need in asked:
                rows.append((name, weight, need, setups_that_do(match(need, shelf))))
                work.done += 1
            found = demand(rows, shelf, worth)
            work.front = pareto(found, STEPS)
            work.demand = found
        except JolvekError as error:
            work.problem = str(error)
        except Exception:  # a thread has nobody to tell
            log.exception("what to stock")
            work.problem = tr("It could not be worked out; it is logged.")


def _own(database: Path) -> Iterator[tuple[str, float, Need]]:
    """The shop's own enquiries, the latest first."""
    with closing(db.connect(database)) as conn:
        for line in finding.listed(conn, most=MOST_OWN):
            stored: Stored | None = enquiries.get(conn, line.id)
            if stored is not None:
                yield f"{stored.title or stored.customer} ({line.id})", 1.0, stored.need


STOCKING = Stocking()
