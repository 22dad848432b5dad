"""A restored shop is the shop that was backed up, row by row and photo by photo; what is damaged is
told in a sentence; nothing is left half done.
"""

import json
import os
import sqlite3
import zipfile
from datetime import datetime, timedelta

import pytest
from click.testing import CliRunner

from jolvek.cli import main
from jolvek.store import backups, db

NOW = datetime(2026, 11, 26, 8, 0)


def rows(path):
    """Every row of every table."""
    c = sqlite3.connect(path)
    names = [r[0] for r in c.execute("SELECT name FROM sqlite_master WHERE type = 'table'")]
    found = {
        n: c.execute(f'SELECT * FROM "{n}" ORDER BY rowid').fetchall()
        for n in names
        if not n.endswith(("_config", "_idx"))
    }
    c.close()
    return found


@pytest.fixture
def data(conn, tmp_path):
    photos = tmp_path / "photos"
    photos.mkdir()
    for i in range(3):
        (photos / f"{i}.jpg").write_bytes(os.urandom(2000))
    conn.execute("UPDATE boat SET photo = '1.jpg' WHERE enquiry_id = 2")
    return tmp_path


def test_a_restored_shop_is_the_shop_that_was_backed_up(data, conn, tmp_path_factory):
    conn.execute("BEGIN IMMEDIATE")  # somebody is at work meanwhile
    path = backups.make(data, NOW)
    conn.execute("ROLLBACK")
    before = rows(data / "jolvek.db")
    conn.execute("DELETE FROM enquiry")
    new = tmp_path_factory.mktemp("new") / "deep" / "shop"
    dry = backups.restore(path, new, dry=True)
    assert dry.problems == () and dry.counts["enquiry"] == 6 and not new.exists()
    assert backups.restore(path, new) == dry
    assert rows(new / "jolvek.db") == before
    assert {p.name: p.read_bytes() for p in (new / "photos").iterdir()} == {
        p.name: p.read_bytes() for p in (data / "photos").iterdir()
    }
    assert oct(new.stat().st_mode)[-3:] == "700"
    db.ready(new / "jolvek.db")
    with pytest.raises(backups.BackupRefused, match="holds a shop already"):
        backups.restore(path, new)


def changed(path, name, text):
    """The backup with one member changed."""
    out = path.with_name("changed.zip")
    with zipfile.ZipFile(path) as old, zipfile.ZipFile(out, "w") as new:
        for item in old.namelist():
            new.writestr(item, text if item == name else old.read(item))
    return out


@pytest.mark.parametrize(
    ("name", "text", "told"),
    [
        ("photos/1.jpg", "x", "photos/1.jpg is not what was backed up"),
        ("jolvek.db", "x", "jolvek.db is not what was backed up"),
        ("manifest.json", "{}", "no backup of a shop"),
        ("manifest.json", '{"format": "jolvek-backup", "version": 2, "files": {}}', "a newer one"),
    ],
)
def test_a_damaged_backup_is_refused_and_nothing_is_left(data, tmp_path_factory, name, text, told):
    bad, folder = changed(backups.make(data, NOW), name, text), tmp_path_factory.mktemp("new")
    with pytest.raises(backups.BackupRefused, match=told):
        backups.restore(bad, folder / "shop")
    assert list(folder.iterdir()) == []


def test_a_backup_that_leads_out_of_the_folder_is_refused(data, tmp_path_factory):
    for name in ("../evil", "photos/../../evil", "/etc/evil", "photos\\..\\evil", "other.db"):
        path = data / "evil.zip"
        with zipfile.ZipFile(path, "w") as z:
            z.writestr(name, "x")
            head = {"format": "jolvek-backup", "version": 1, "files": {name: "0"}}
            z.writestr("manifest.json", json.dumps(head))
        with pytest.raises(backups.BackupRefused, match="is no file of a shop"):
            backups.restore(path, tmp_path_factory.mktemp("new") / "shop")
    path.write_bytes(b"no zip")
    with pytest.raises(backups.BackupRefused, match="cannot read"):
        backups.restore(path, tmp_path_factory.mktemp("new") / "shop")


def test_thirty_stay_and_a_day_must_pass_whatever_the_clock_does(data):
    assert backups.due(data, NOW)
    for i in range(33):
        backups.make(data, NOW + timedelta(hours=i))
    kept = backups.kept(data)
    assert len(kept) == backups.KEPT and kept[0].made_at == NOW + timedelta(hours=32)
    assert not backups.due(data, NOW + timedelta(hours=50))
    assert backups.due(data, NOW + timedelta(hours=56))
    assert backups.due(data, NOW - timedelta(days=400))  # the clock was set back


def test_a_backup_that_cannot_be_written_leaves_nothing(data, monkeypatch):
    def full(*_args):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(backups, "_copy", full)
    with pytest.raises(backups.BackupRefused, match="No space left"):
        backups.make(data, NOW)
    assert list(backups.folder_of(data).iterdir()) == []
    with pytest.raises(backups.BackupRefused, match="there is no jolvek.db"):
        backups.make(data / "nowhere", NOW)


def test_check_tells_what_is_wrong(data, conn):
    assert backups.check(data).problems == ()
    (data / "photos" / "1.jpg").unlink()
    conn.execute("PRAGMA foreign_keys = OFF")
    conn.execute("UPDATE setup SET enquiry_id = 999 WHERE id = (SELECT min(id) FROM setup)")
    conn.execute("INSERT INTO intake (enquiry_id, at, estimated) VALUES (998, 'x', '[]')")
    result = " ".join(backups.check(data).problems)
    assert "The photo 1.jpg is missing." in result and "intake, row" in result
    conn.execute("PRAGMA user_version = 99")
    assert "a newer Jolvek" in " ".join(backups.check(data).problems)


def test_a_database_that_cannot_be_used_is_told_in_one_sentence(tmp_path, filled):
    bad = tmp_path / "bad.db"
    whole = filled.read_bytes()
    bad.write_bytes(whole[:4096] + b"\xff" * 20_000 + whole[24_096:])
    with pytest.raises(db.DatabaseRefused, match="damaged.*jolvek restore"):
        db.ready(bad)
    bad.write_bytes(b"no database at all, but long enough to be looked at" * 40)
    with pytest.raises(db.DatabaseRefused, match="damaged"):
        db.ready(bad)
    with pytest.raises(db.DatabaseRefused, match="may not be written"):
        db.ready(tmp_path / "missing" / "jolvek.db")


def run(*args, **more):
    return CliRunner().invoke(main, [str(a) for a in args], **more)


def test_the_commands_back_up_check_and_restore(data, tmp_path_factory):
    made = run("backup", "--data", data, "--into", data / "share")
    path = made.output.strip().split(", ")[0].splitlines()[-1]
    assert made.exit_code == 0 and path.endswith(".zip")
    assert "All is well." in run("check", "--data", data).output
    new = tmp_path_factory.mktemp("new") / "shop"
    assert "Nothing was written." in run("restore", path, "--data", new, "--dry-run").output
    assert f"Restored to {new}" in run("restore", path, "--data", new).output
    again = run("restore", path, "--data", new)
    assert again.exit_code == 2 and "holds a shop already" in again.output
    (data / "photos" / "1.jpg").unlink()
    assert run("check", "--data", data).exit_code == 2
    assert run("backup", "--data", data / "none").exit_code == 2


def test_an_owner_is_made_on_the_command_line(tmp_path):
    word = "mussel lantern gravel forty"
    done = run("owner", "marit", "--data", tmp_path / "new", input=f"{word}\n{word}\n")
    assert "may sign in as owner" in done.output
    weak = run("owner", "nils", "--data", tmp_path / "new", input="short\nshort\n")
    assert weak.exit_code == 2 and "12 to 128" in weak.output
    again = run("owner", "MARIT", "--data", tmp_path / "new", input=f"{word}s\n{word}s\n")
    assert again.exit_code == 0


def test_an_open_shop_without_an_owner_is_not_served(tmp_path, monkeypatch):
    monkeypatch.setenv("JOLVEK_SECRET_KEY", "x" * 40)
    result = run("serve", "--data", tmp_path, "--host", "0.0.0.0", "--port", "18799")
    assert result.exit_code == 2 and "make an owner first" in result.output
    result = run("serve", "--data", tmp_path, "--host", "nowhere.invalid")
    assert result.exit_code == 2 and "address of this machine" in result.output
