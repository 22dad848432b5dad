"""A sweep's folder: `sweep.json` says what was asked, one Parquet file a block (by pyarrow, of the
extra `jolvek[sweep]`). A block is written beside and then named, so that it is there whole or not.
"""

from __future__ import annotations

import hashlib
import json
import os
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import Any

from jolvek.core.assort.sweep import titles
from jolvek.core.base.arrays import Array
from jolvek.core.base.errors import JolvekError
from jolvek.core.products.shelf import Shelf

FORMAT, VERSION = "jolvek-sweep", 1
HEAD = "sweep.json"


class SweepRefused(JolvekError):
    """The folder cannot be used for this sweep."""


def asked(enquiries: Sequence[bytes], shelf: bytes, size: int, version: str) -> dict[str, Any]:
    """What a sweep is of: hashes of its files, size of a block, version of Jolvek."""
    return {
        "format": FORMAT,
        "version": VERSION,
        "jolvek": version,
        "enquiries": [hashlib.sha256(x).hexdigest() for x in enquiries],
        "shelf": hashlib.sha256(shelf).hexdigest(),
        "block": size,
    }


def begin(folder: Path, told: Mapping[str, Any], shelf: Shelf) -> None:
    """Begin or take up a sweep; raises SweepRefused where the folder holds another one."""
    head = folder / HEAD
    if head.exists():
        try:
            before = json.loads(head.read_text(encoding="utf-8"))
        except ValueError:
            raise SweepRefused(f"{head}: cannot be read; allowed is a folder of its own") from None
        if {k: before.get(k) for k in told} != dict(told):
            raise SweepRefused(
                f"{folder} holds a sweep of other enquiries, shelf, block or version of Jolvek;"
                " allowed is a folder of its own"
            )
        return
    folder.mkdir(parents=True, exist_ok=True)
    if any(folder.glob("*.parquet")):
        raise SweepRefused(f"{folder} holds Parquet files of something else; allowed is a new one")
    _whole(head, json.dumps({**told, "products": titles(shelf)}, indent=1).encode())


def _whole(path: Path, content: bytes) -> None:
    """Written beside, synced and named: there whole or not at all."""
    part = path.with_suffix(".part")
    with part.open("wb") as stream:
        stream.write(content)
        stream.flush()
        os.fsync(stream.fileno())
    part.replace(path)


def name_of(index: int) -> str:
    """The file of a block.

    >>> name_of(12)
    'block-00012.parquet'
    """
    return f"block-{index:05d}.parquet"


def done(folder: Path) -> set[int]:
    """The blocks that are there."""
    return {int(p.stem.split("-")[1]) for p in folder.glob("block-*.parquet")}


def keep(folder: Path, index: int, columns: Mapping[str, Array]) -> int:
    """Write a block; returns how many setups it holds."""
    import pyarrow
    import pyarrow.parquet

    table = pyarrow.table(dict(columns))
    stream = pyarrow.BufferOutputStream()
    pyarrow.parquet.write_table(table, stream, compression="zstd")
    _whole(folder / name_of(index), stream.getvalue().to_pybytes())
    return int(table.num_rows)
