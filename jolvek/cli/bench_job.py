"""How long a whole job takes to be worked out: printed, never judged."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from jolvek import demo
from jolvek.core.enquiry.need import Need
from jolvek.core.job.figures import FIGURES, figure
from jolvek.core.job.job_setup import of_fitted, on_another_day
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import ranked
from jolvek.core.match.whole import fitted_of


def one_job(say: Callable[[str], None], best: Callable[[Callable[[], object]], float]) -> None:
    """All figures, findings and bills of a job's three setups: of a new boat, and after a change of
    its day.
    """
    need = demo.enquiries()[1].need
    found = match(need, demo.shelf())
    three = [of_fitted(fitted_of(found, i)) for i in ranked(found, 3, 1)]
    sizes = iter(range(1, 1000))

    def whole(other: Need) -> None:
        for setup in three:
            job = on_another_day(setup, other)
            _ = [figure(job, key) for key in FIGURES], job.findings, job.bill

    def cold() -> None:
        longer = replace(need.hull, length_m=need.hull.length_m + 0.001 * next(sizes))
        whole(replace(need, hull=longer))

    def after() -> None:
        farther = replace(need.day, distance_m=need.day.distance_m + 10.0 * next(sizes))
        whole(replace(need, day=farther))

    say("One job of three setups, all figures, findings and bills (wanted 150 and 60 ms)")
    say(f"  of a new boat                 {1e3 * best(cold):8.1f} ms")
    say(f"  after a change of its day     {1e3 * best(after):8.1f} ms")
