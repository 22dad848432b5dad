"""`jolvek sweep`: every setup of many enquiries on a shelf, on this machine or a Dask cluster."""

from __future__ import annotations

import json
import resource
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

from jolvek import __version__
from jolvek.core.assort.sweep import block, blocks
from jolvek.core.base.arrays import Array
from jolvek.core.base.errors import JolvekError
from jolvek.core.enquiry.need import Need
from jolvek.core.products.shelf import Shelf
from jolvek.formats import enquiry_file, shelf_file, sweep_file

AHEAD = 2  # blocks a worker has waiting, so that memory stays bounded
Task = tuple[int, list[tuple[int, Need]]]
Say = Callable[[str], None]


def needs_of(content: bytes) -> list[Need]:
    """The needs of a file: one enquiry, or lines of one each (JSON Lines)."""
    try:
        return [enquiry_file.read(content).need]
    except JolvekError:
        lines = [x for x in content.splitlines() if x.strip()]
        if len(lines) < 2 or not all(x.lstrip().startswith(b"{") for x in lines):
            raise
        return [enquiry_file.read(x).need for x in lines]


def sweep(
    files: list[bytes], shelf_content: bytes, folder: Path, size: int, scheduler: str, say: Say
) -> int:
    """Work out what is not there yet; returns how many setups are new. Raises JolvekError."""
    shelf = shelf_file.read(shelf_content).on_offer
    needs = [need for content in files for need in needs_of(content)]
    if not needs:
        raise JolvekError("enquiries: read none; allowed is one and more")
    sweep_file.begin(folder, sweep_file.asked(files, shelf_content, size, __version__), shelf)
    there = sweep_file.done(folder)
    numbered = list(enumerate(needs))
    all_blocks = blocks(len(needs), size)
    tasks = [(i, numbered[a:b]) for i, (a, b) in enumerate(all_blocks) if i not in there]
    if there:
        say(f"{len(there)} of {len(all_blocks)} blocks are there; {len(tasks)} are left")
    began, setups = time.perf_counter(), 0
    results = _on_cluster(tasks, shelf, scheduler) if scheduler else _here(tasks, shelf)
    for n, (index, columns) in enumerate(results, start=1):
        setups += sweep_file.keep(folder, index, columns)
        took = time.perf_counter() - began
        say(f"block {n} of {len(tasks)}: {setups} setups in {took:.1f} s")
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    say(f"{setups} setups of {len(needs)} enquiries; peak memory of this process {peak:.0f} MB")
    return setups


def _here(tasks: list[Task], shelf: Shelf) -> Iterator[tuple[int, dict[str, Array]]]:
    for index, asked in tasks:
        yield index, block(asked, shelf)


def _on_cluster(
    tasks: list[Task], shelf: Shelf, scheduler: str
) -> Iterator[tuple[int, dict[str, Array]]]:
    """The blocks as a cluster's workers bring them, never more under way than they have places."""
    try:
        import distributed
    except ImportError:
        raise JolvekError("scheduler: needs distributed: pip install 'jolvek[sweep]'") from None
    try:
        untyped: Any = distributed
        client = untyped.Client(scheduler, timeout=20)
    except (OSError, ValueError) as error:
        text = f"scheduler: cannot reach {scheduler}: {error}"
        raise JolvekError(f"{text}; allowed is an address as tcp://host:8786") from None
    with client:
        places = max(sum(client.nthreads().values()), 1) * AHEAD
        sent: Any = client.scatter(shelf, broadcast=True)
        left = iter(tasks)
        numbers: dict[str, int] = {}

        def next_one() -> Any:
            task = next(left, None)
            if task is None:
                return None
            future = client.submit(block, task[1], sent, pure=False)
            numbers[future.key] = task[0]
            return future

        under_way = untyped.as_completed(
            [f for _ in range(places) if (f := next_one()) is not None]
        )
        for future in under_way:
            yield numbers.pop(future.key), future.result()
            if (more := next_one()) is not None:
                under_way.add(more)


def made_lines(count: int) -> Iterator[str]:
    """Typical enquiries, a line of JSON each."""
    from jolvek.core.assort.typical import typical
    from jolvek.core.enquiry.enquiry import Enquiry

    for name, _, need in typical(count):
        yield json.dumps(enquiry_file.write(Enquiry(need, title=name)), ensure_ascii=False)
