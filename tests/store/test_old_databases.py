"""Databases that older versions wrote are opened, repaired and read; newer ones are refused."""

import gzip
import hashlib
import subprocess
import sys
from dataclasses import replace
from pathlib import Path

import pytest

from jolvek.store import allowed, db, enquiries, finding, rebuild, setups, shelf
from jolvek.web import create_app
from jolvek.web.settings import Settings
from tests.web.steps import STATIONS

OLD = sorted((Path(__file__).parents[1] / "data" / "old_databases").glob("*.db.gz"))
FROZEN = {  # migrations that have been applied somewhere are never edited
    "001_start.sql": "7c199069cda98cab",
    "002_site_and_limits.sql": "7b1e31e09ef24fee",
    "003_day_shelf_and_work.sql": "27ccba9ac0860516",
    "004_versions.sql": "e9bc7fbb7c09ea4f",
    "005_joining.sql": "5a67cdbc2737b8b9",
    "006_charging.sql": "ba9c542f6f570364",
    "007_inspection.sql": "918db2ada6a8a542",
    "008_sun_idle_keel.sql": "197f8bbdb7871dfe",
    "009_own_gear_fitting_and_more.sql": "e4be10fcdf431349",
    "010_models_jobs_and_controls.sql": "cb78dbdf95853897",
    "011_start_charge.sql": "fe33f33e1db9cb7d",
    "012_people.sql": "a6b52c260a9bcf9d",
    "013_shop.sql": "4032cc2fd2d28731",
    "014_offers.sql": "cc6846abcf8604c1",
    "017_care.sql": "70da846f9745640d",
    "018_aftercare.sql": "e0e8f5b1409716a7",
    "019_language.sql": "ba3c2823b21a5081",
    "020_screens.sql": "de33ff047b74fffa",
    "016_trials.sql": "1b1b91b5ee1bbe15",
    "015_stock.sql": "e42e2f4c7897b8e6",
    "021_saved_once.sql": "6305e2ac9816f0d2",
    "022_one_job.sql": "f2f34856b9921ff2",
    "023_no_word_lists.sql": "0fcc97e459b13549",
    "024_plain_names.sql": "b6dc39775f6da5b4",
    "025_form_of_the_curve.sql": "3882d51cf48df1de",
}


@pytest.fixture(params=OLD, ids=lambda p: p.name)
def old(request, tmp_path):
    (tmp_path / "jolvek.db").write_bytes(gzip.decompress(request.param.read_bytes()))
    return tmp_path


def test_an_old_database_is_copied_migrated_found_in_and_changed(old):
    conn = db.connect(old / "jolvek.db")
    assert db.migrate(conn) == db.migrations()[-1][0]
    assert len(list((old / "backups").glob("version-*.db"))) == 1
    assert [line.id for line in finding.found(conn, "averb")] == [3]
    assert setups.of_enquiry(conn, 2) and shelf.problems(conn) == []
    enquiries.change(conn, 2, lambda e: replace(e, title="after"), "2026")
    assert enquiries.get(conn, 2).title == "after"
    conn.close()


def test_every_page_of_an_old_database_opens(old):
    client = create_app(Settings(old, "secret", demo=True)).test_client()
    for number in (2, 4):
        for station in STATIONS:
            assert client.get(f"/enquiry/{number}/{station}").status_code == 200
    assert client.get("/catalogue/").status_code == client.get("/").status_code == 200


def test_a_newer_database_is_refused_in_one_sentence(tmp_path):
    conn = db.connect(tmp_path / "jolvek.db")
    conn.execute("PRAGMA user_version = 99")
    with pytest.raises(db.DatabaseRefused, match="newer Jolvek"):
        db.migrate(conn)
    conn.close()


def test_migrations_that_were_applied_are_never_edited():
    folder = Path(db.__file__).parent / "migrations"
    now = {p.name: hashlib.sha256(p.read_bytes()).hexdigest()[:16] for p in folder.glob("*.sql")}
    assert now == FROZEN


START = "import sys; from jolvek.store import db; db.migrate(db.connect(sys.argv[1]))"


def test_four_processes_start_at_once_and_one_migrates(tmp_path):
    command = [sys.executable, "-c", START, str(tmp_path / "new.db")]
    running = [subprocess.Popen(command) for _ in range(4)]
    assert [process.wait(120) for process in running] == [0] * 4


def test_a_commit_that_fails_is_rolled_back_and_its_error_raised(conn):
    before = conn.execute("SELECT count(*) FROM bay").fetchone()[0]
    conn.execute("PRAGMA defer_foreign_keys = ON")
    with pytest.raises(Exception, match="FOREIGN KEY"), db.transaction(conn):
        conn.execute("PRAGMA defer_foreign_keys = ON")
        conn.execute(
            "INSERT INTO bay (enquiry_id, place, name, length_m, width_m, height_m)"
            " VALUES (999, 1, 'x', 1, 1, 1)"
        )
    assert not conn.in_transaction
    assert conn.execute("SELECT count(*) FROM bay").fetchone()[0] == before


def rows_of_all(conn):
    return {t: conn.execute(f'SELECT * FROM "{t}"').fetchall() for t in rebuild.tables(conn)}


@pytest.fixture
def bare(working, tmp_path):
    """The demo at work, with foreign keys off as in a migration."""
    conn = db.connect(tmp_path / "jolvek.db")
    working.backup(conn)
    conn.execute("PRAGMA foreign_keys = OFF")
    yield conn
    conn.close()


def test_every_table_can_be_rebuilt_and_no_row_of_any_table_is_another(bare):
    before = [[tuple(r) for r in rows] for rows in rows_of_all(bare).values()]
    assert sum(map(len, before)) > 400
    with db.transaction(bare):
        allowed.take_off(bare)
        for table in rebuild.tables(bare):
            rebuild.rebuild(bare, table, rebuild.sql_of(bare, table))
        allowed.put(bare)
    assert [[tuple(r) for r in rows] for rows in rows_of_all(bare).values()] == before
    assert bare.execute("PRAGMA foreign_key_check").fetchall() == []
    indexes = "SELECT count(*) FROM sqlite_master WHERE type IN ('index', 'trigger')"
    assert bare.execute(indexes).fetchone()[0] > 20


def test_a_table_is_never_rebuilt_while_its_rows_would_take_others_along(conn):
    with pytest.raises(RuntimeError, match="foreign keys are on"):
        rebuild.rebuild(conn, "enquiry", rebuild.sql_of(conn, "enquiry"))


def test_no_table_has_a_list_of_allowed_words(conn):
    for table in rebuild.tables(conn):
        sql = rebuild.sql_of(conn, table)
        assert rebuild.without_word_lists(sql) == sql, table


@pytest.mark.parametrize(
    ("sql", "told"),
    [
        ("DELETE FROM setup WHERE id = (SELECT min(id) FROM setup);", "setup"),
        ("DELETE FROM enquiry WHERE id = 2;", "refers to rows that are gone"),
    ],
)
def test_a_migration_that_loses_rows_changes_nothing(pinned, tmp_path, monkeypatch, sql, told):
    conn = db.connect(tmp_path / "jolvek.db")
    pinned.backup(conn)
    steps = db.migrations()
    monkeypatch.setattr(db, "migrations", lambda: [*steps, (steps[-1][0] + 1, sql)])
    before = {t: len(rows) for t, rows in rows_of_all(conn).items()}
    with pytest.raises(db.DatabaseRefused, match=told):
        db.migrate(conn)
    assert {t: len(rows) for t, rows in rows_of_all(conn).items()} == before
    assert conn.execute("PRAGMA foreign_keys").fetchone()[0] == 1
    assert conn.execute("PRAGMA user_version").fetchone()[0] == steps[-1][0]
    conn.close()
