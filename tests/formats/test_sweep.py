"""`jolvek sweep`: the same alone and on a cluster, stopped and taken up, refused and told."""

import json
import os
import signal
import subprocess
import sys
import time

import numpy as np
import pyarrow.parquet as parquet
import pytest
from click.testing import CliRunner

from jolvek import demo
from jolvek.cli import main
from jolvek.cli.sweep import made_lines, sweep
from jolvek.core.assort.sweep import FIGURES, PARTS, setups_of
from jolvek.core.base.errors import JolvekError
from jolvek.formats import enquiry_file, shelf_file

COUNT = 6


@pytest.fixture(scope="module")
def files(tmp_path_factory):
    """A file of enquiries, a line each, and one of the shelf."""
    folder = tmp_path_factory.mktemp("swept")
    (folder / "asked.jsonl").write_text("\n".join(made_lines(COUNT)), encoding="utf-8")
    (folder / "shelf.json").write_text(json.dumps(shelf_file.write(demo.shelf())), encoding="utf-8")
    return folder / "asked.jsonl", folder / "shelf.json"


def run(files, out, size=2, scheduler="", say=lambda _: None):
    return sweep([files[0].read_bytes()], files[1].read_bytes(), out, size, scheduler, say)


def whole(folder):
    """All columns over all blocks, in order."""
    tables = [parquet.read_table(p) for p in sorted(folder.glob("*.parquet"))]
    return {k: np.concatenate([t[k].to_numpy() for t in tables]) for k in tables[0].column_names}


def same(a, b):
    return a.keys() == b.keys() and all(np.array_equal(a[k], b[k], equal_nan=_f(a[k])) for k in a)


def _f(column):
    return column.dtype.kind == "f"


@pytest.fixture(scope="module")
def alone(files, tmp_path_factory):
    folder = tmp_path_factory.mktemp("alone")
    rows = []
    count = run(files, folder, say=rows.append)
    return folder, count, rows


def test_every_enquirys_setups_are_those_of_one_by_one(files, alone):
    folder, count, result = alone
    found = whole(folder)
    shelf = shelf_file.read(files[1].read_bytes())
    lines = files[0].read_text(encoding="utf-8").splitlines()
    total = 0
    for i, line in enumerate(lines):
        one = setups_of(i, enquiry_file.read(line).need, shelf)
        mine = {k: v[found["enquiry"] == i] for k, v in found.items()}
        assert same(mine, one)
        total += one["price"].size
    assert total == count == found["price"].size > 1000
    assert set(found) == {"enquiry", *PARTS, "series", "parallel", "shaft_m", *FIGURES, "does_day"}
    head = json.loads((folder / "sweep.json").read_text())
    assert len(head["products"]["motor"]) == len(shelf.motors)
    assert any("peak memory" in x for x in result) and any(f"{count} setups" in x for x in result)


def test_a_local_cluster_gives_the_same_to_the_last_digit(files, alone, tmp_path):
    from distributed import LocalCluster

    options = {"n_workers": 2, "threads_per_worker": 1, "dashboard_address": None}
    with LocalCluster(**options, processes=False) as cluster:
        count = run(files, tmp_path / "out", scheduler=cluster.scheduler_address)
    assert count == alone[1] and same(whole(tmp_path / "out"), whole(alone[0]))


def test_a_killed_sweep_is_taken_up_and_no_block_is_lost_or_doubled(files, alone, tmp_path):
    out = tmp_path / "out"
    command = [sys.executable, "-m", "jolvek", "sweep", str(files[0]), "--shelf", str(files[1])]
    process = subprocess.Popen(
        [*command, "--out", str(out), "--block", "1"], stdout=subprocess.PIPE, text=True
    )
    assert process.stdout is not None
    assert "block 1 of" in process.stdout.readline()
    os.kill(process.pid, signal.SIGKILL)
    process.wait()
    process.stdout.close()
    there = {p.name: p.stat().st_mtime_ns for p in out.glob("*.parquet")}
    assert 1 <= len(there) < COUNT
    (out / "block-00005.part").write_bytes(b"half a block")
    rows = []
    time.sleep(0.02)
    run(files, out, size=1, say=rows.append)
    assert f"{len(there)} of {COUNT} blocks are there" in rows[0]
    for name, at in there.items():
        assert (out / name).stat().st_mtime_ns == at  # not written again
    assert same(whole(out), whole(alone[0]))


def test_what_cannot_be_swept_is_told_in_a_sentence(files, alone, tmp_path):
    with pytest.raises(JolvekError, match="a sweep of other enquiries"):
        run(files, alone[0], size=3)
    with pytest.raises(JolvekError, match="cannot reach"):
        run(files, tmp_path / "a", scheduler="nowhere")
    (tmp_path / "b").mkdir()
    (tmp_path / "b" / "old.parquet").write_bytes(b"x")
    with pytest.raises(JolvekError, match="something else"):
        run(files, tmp_path / "b")
    bad = tmp_path / "bad.json"
    bad.write_text("{}")
    result = CliRunner().invoke(
        main, ["sweep", str(bad), "--shelf", str(files[1]), "--out", str(tmp_path / "c")]
    )
    assert result.exit_code and "format" in result.output and "Traceback" not in result.output


def test_typical_enquiries_are_read_back():
    result = CliRunner().invoke(main, ["typical", "3"])
    assert len([enquiry_file.read(x) for x in result.output.splitlines()]) == 3
