"""Backups of a shop: the database as SQLite copies it, the photos, and a manifest of hashes; read
back into a new folder, and what a data folder holds checked.
"""

from __future__ import annotations

import hashlib
import json
import shutil
import sqlite3
import tempfile
import zipfile
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager, suppress
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path, PurePosixPath
from typing import Any

from jolvek.core.base.errors import JolvekError
from jolvek.store import db, trail

FORMAT, VERSION = "jolvek-backup", 1
KEPT, EVERY = 30, timedelta(days=1)
PHOTOS, DATABASE, MANIFEST = "photos", "jolvek.db", "manifest.json"
MOST_MANIFEST = 50_000_000  # bytes; hashes of some hundred thousand photos
MOST_FILES, MOST_PHOTO = 500_000, 30_000_000
MOST_SHRUNK = 60  # how many bytes a packed byte may become
Says = Callable[[str], None]


class BackupRefused(JolvekError):
    """A backup that cannot be made or read back."""


@dataclass(frozen=True)
class Backup:
    """One backup: its file, when it was made, its size in bytes."""

    path: Path
    made_at: datetime
    size: int


def folder_of(data: Path) -> Path:
    """Where backups stand, unless somebody says otherwise."""
    return data / "backups"


def kept(data: Path) -> list[Backup]:
    """The backups of a shop, the newest first."""
    out = []
    for path in folder_of(data).glob("jolvek-*.zip"):
        with suppress(ValueError, OSError):
            made = datetime.strptime(path.stem[7:22], "%Y%m%d-%H%M%S")
            out.append(Backup(path, made, path.stat().st_size))
    return sorted(out, key=lambda b: b.path.name, reverse=True)


def due(data: Path, now: datetime) -> bool:
    """Whether a day has passed since the last backup; a clock set back makes it due."""
    last = kept(data)
    return not last or not timedelta(0) <= now - last[0].made_at < EVERY


def make(data: Path, now: datetime, into: Path | None = None, told: Says = lambda _: None) -> Path:
    """A backup of a data folder, whole or not at all; 30 stay in the shop's own folder.

    Raises BackupRefused where there is no database or no room.
    """
    source = data / DATABASE
    if not source.is_file():
        raise BackupRefused(f"data: there is no {DATABASE} in {data}")
    target = into or folder_of(data)
    path = target / f"jolvek-{now:%Y%m%d-%H%M%S}.zip"
    try:
        target.mkdir(mode=0o700, parents=True, exist_ok=True)
        with _whole(path) as part, tempfile.TemporaryDirectory(dir=target) as spare:
            told("copying the database")
            copy = Path(spare) / DATABASE
            _copy(source, copy)
            _write(part, copy, sorted((data / PHOTOS).glob("*")), now, told)
    except (OSError, sqlite3.Error) as error:
        raise BackupRefused(f"backup: cannot write {path}: {error}") from None
    if into is None:
        for old in kept(data)[KEPT:]:
            old.path.unlink(missing_ok=True)
    return path


@contextmanager
def _whole(path: Path) -> Iterator[Path]:
    """A file beside its place, put there when it is whole."""
    part = path.with_suffix(".part")
    part.touch(mode=0o600)
    try:
        yield part
        part.replace(path)
    finally:
        part.unlink(missing_ok=True)


def _copy(source: Path, target: Path) -> None:
    with closing(db.connect(source)) as conn, closing(sqlite3.connect(target)) as copy:
        conn.backup(copy)
        copy.execute("PRAGMA journal_mode = DELETE")


def _write(part: Path, copy: Path, photos: list[Path], now: datetime, told: Says) -> None:
    hashes: dict[str, str] = {}
    with zipfile.ZipFile(part, "w", zipfile.ZIP_DEFLATED, compresslevel=3) as z:
        for i, path in enumerate([copy, *photos]):
            name = DATABASE if path == copy else f"{PHOTOS}/{path.name}"
            kind = zipfile.ZIP_DEFLATED if path == copy else zipfile.ZIP_STORED
            with suppress(FileNotFoundError):  # a photo taken away meanwhile
                hashes[name] = _sha256(path)
                z.write(path, name, kind)
            if i and i % 500 == 0:
                told(f"{i} of {len(photos)} photos")
        with closing(sqlite3.connect(copy)) as conn:
            schema = conn.execute("PRAGMA user_version").fetchone()[0]
        head = {"format": FORMAT, "version": VERSION, "made_at": now.isoformat()}
        z.writestr(MANIFEST, json.dumps({**head, "schema": schema, "files": hashes}))


def _sha256(path: Path) -> str:
    with open(path, "rb") as stream:
        return hashlib.file_digest(stream, "sha256").hexdigest()


@dataclass(frozen=True)
class Report:
    """What a backup or a data folder holds, and what is wrong of it; nothing: all is well."""

    counts: dict[str, int]
    problems: tuple[str, ...]


def restore(backup: Path, data: Path, dry: bool = False, told: Says = lambda _: None) -> Report:
    """Read a backup into a new folder, every file against its hash; `dry` only looks.

    Raises BackupRefused for what is no backup or is damaged, and for a folder that holds a
    database; nothing is left of what failed.
    """
    if (data / DATABASE).exists():
        raise BackupRefused(f"data: {data} holds a shop already; name a new folder")
    parent = data.parent if not dry else Path(tempfile.gettempdir())
    try:
        parent.mkdir(parents=True, exist_ok=True)
        with tempfile.TemporaryDirectory(dir=parent, prefix="jolvek-restore-") as spare:
            new = Path(spare) / "data"
            _unpack(backup, new, told)
            report = check(new)
            if not dry and not report.problems:
                data.mkdir(mode=0o700, parents=True, exist_ok=True)
                data.chmod(0o700)
                for name in (PHOTOS, DATABASE):  # the database last: what has one is whole
                    if (new / name).exists():
                        _put(new / name, data / name)
                db.shut_to_others(data)
            return report
    except (OSError, zipfile.BadZipFile, EOFError) as error:
        raise BackupRefused(f"backup: cannot read {backup.name}: {error}") from None


def _put(source: Path, target: Path) -> None:
    """Move a file or folder into its place; photos of a restore that was cut off go first."""
    if target.is_dir():
        shutil.rmtree(target)
    source.rename(target)


def _unpack(backup: Path, new: Path, told: Says) -> None:
    with zipfile.ZipFile(backup) as z:
        manifest = _manifest(z)
        _refuse_bombs(z, new)
        for i, (name, digest) in enumerate(manifest["files"].items()):
            if not _named(name):
                raise BackupRefused(f"backup: {name!r} is no file of a shop")
            path = new / name
            path.parent.mkdir(parents=True, exist_ok=True)
            with z.open(name) as source, open(path, "wb") as target:
                shutil.copyfileobj(source, target)
            if _sha256(path) != digest:
                raise BackupRefused(f"backup: {name} is not what was backed up")
            if i and i % 500 == 0:
                told(f"{i} of {len(manifest['files'])} files")


def _refuse_bombs(z: zipfile.ZipFile, new: Path) -> None:
    """Look at counts and sizes before anything is unpacked; raises BackupRefused."""
    entries = z.infolist()
    if len(entries) > MOST_FILES:
        raise BackupRefused(f"backup: {len(entries)} files, allowed are {MOST_FILES}")
    for x in entries:
        most = MOST_SHRUNK * x.compress_size + 1_000_000
        if x.file_size > most:
            raise BackupRefused(
                f"backup: {x.filename} unpacks {x.compress_size} bytes to {x.file_size}; allowed"
                f" are {most}: no shop's data shrink so much"
            )
        if x.filename != DATABASE and x.filename != MANIFEST and x.file_size > MOST_PHOTO:
            raise BackupRefused(
                f"backup: {x.filename} has {x.file_size} bytes, allowed are {MOST_PHOTO}"
            )
    size, place = sum(x.file_size for x in entries), new.parent
    while not place.exists():
        place = place.parent
    free = shutil.disk_usage(place).free
    if size > 0.9 * free:
        raise BackupRefused(f"backup: it needs {size} bytes, {free} are free in {place}")


def _manifest(z: zipfile.ZipFile) -> dict[str, Any]:
    try:
        if z.getinfo(MANIFEST).file_size > MOST_MANIFEST:
            raise BackupRefused("backup: its manifest is too large")
        data: dict[str, Any] = json.loads(z.read(MANIFEST))
        known = data["format"] == FORMAT and data["version"] == VERSION
        if not known or set(data["files"]) != set(z.namelist()) - {MANIFEST}:
            raise ValueError
        return data
    except (KeyError, TypeError, ValueError, AttributeError):
        raise BackupRefused("backup: this is no backup of a shop, or a newer one") from None


def _named(name: str) -> bool:
    """Whether a name in a backup is the database's or a photo's, and leads nowhere else."""
    parts = PurePosixPath(name).parts
    photo = len(parts) == 2 and parts[0] == PHOTOS and parts[1] not in ("..", ".")
    return name == DATABASE or (photo and "\\" not in name and ":" not in name)


def check(data: Path) -> Report:
    """Look at a data folder: the file, its references, photos, versions, and the trail's chain."""
    path = data / DATABASE
    if not path.is_file():
        raise BackupRefused(f"data: there is no {DATABASE} in {data}")
    try:
        with closing(sqlite3.connect(f"file:{path.resolve().as_posix()}?mode=ro", uri=True)) as c:
            c.row_factory = sqlite3.Row
            return Report(_counts(c), tuple(_problems(c, data)))
    except sqlite3.DatabaseError as error:
        return Report({}, (f"The database cannot be read: {error}.",))


def _counts(c: sqlite3.Connection) -> dict[str, int]:
    names = [
        row["name"]
        for row in c.execute(
            "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'"
            " AND name NOT LIKE 'found%' ORDER BY name"
        )
    ]
    return {name: c.execute(f'SELECT count(*) FROM "{name}"').fetchone()[0] for name in names}


def _problems(c: sqlite3.Connection, data: Path) -> Iterator[str]:
    for row in c.execute("PRAGMA integrity_check(20)"):
        if row[0] != "ok":
            yield f"The file is damaged: {row[0]}."
    for row in c.execute("PRAGMA foreign_key_check"):
        yield f"{row[0]}, row {row[1]}: what it belongs to in {row[2]} is gone."
    version, newest = c.execute("PRAGMA user_version").fetchone()[0], db.migrations()[-1][0]
    if version > newest:
        yield f"Written by a newer Jolvek: its version is {version}, this one knows {newest}."
    if version < newest:
        return  # an older one is brought up to date when it is opened
    photos = {r["photo"] for r in c.execute("SELECT photo FROM boat WHERE photo <> ''")}
    there = {p.name for p in (data / PHOTOS).glob("*")}
    for name in sorted(photos - there):
        yield f"The photo {name} is missing."
    broken = trail.broken_at(c)
    if broken:
        yield f"The trail was changed from outside at step {broken}."
