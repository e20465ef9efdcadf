"""The catalogue: an index of everything that a game has, kept in SQLite so that a known game opens without reading it.

It is a cache: an archive is scanned again when its path, size or modification time differs, and the file may be deleted.
"""

from __future__ import annotations

import hashlib
import sqlite3
import threading
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path

from furnel.catalogue.facts import HEAD_BYTES, Facts, facts_of, needs_whole
from furnel.errors import FurnelError
from furnel.games import Archive, Install
from furnel.kernels import cache_folder
from furnel.progress import QUIET, Part, Progress, check

_VERSION = 1
_SCHEMA = """
CREATE TABLE archive (id INTEGER PRIMARY KEY, path TEXT UNIQUE, stamp TEXT);
CREATE TABLE asset (archive INTEGER, path TEXT, inner TEXT, size INTEGER, stored INTEGER, kind TEXT, format TEXT, width INTEGER,
    height INTEGER, levels INTEGER, rate INTEGER, channels INTEGER, frames INTEGER, PRIMARY KEY (archive, path)) WITHOUT ROWID;
CREATE TABLE preview (archive INTEGER, path TEXT, data BLOB, PRIMARY KEY (archive, path)) WITHOUT ROWID;
"""


@dataclass(frozen=True, slots=True)
class Asset:
    """One thing that the game ships."""

    path: str
    archive: Archive
    inner: str
    size: int
    stored: int
    facts: Facts
    role: str
    title: str

    @property
    def folder(self) -> str:
        return self.path.rpartition("/")[0]

    @property
    def name(self) -> str:
        return self.title or self.path.rpartition("/")[2].rpartition(".")[0]


class Catalogue:
    """The assets of one install. Safe to use from several threads."""

    def __init__(self, install: Install, file: Path | None = None) -> None:
        self.install = install
        self.assets: tuple[Asset, ...] = ()
        self._by_path: dict[str, Asset] = {}
        self._lock = threading.Lock()
        mark = hashlib.sha256(str(install.folder).encode()).hexdigest()[:16]
        self._database = _open(file or cache_folder() / "catalogues" / f"{mark}.sqlite")

    def refresh(self, progress: Progress = QUIET) -> None:
        """Scan what is new or changed since the last time, then load the index."""
        archives = self.install.archives
        with self._lock:
            known = {
                path: (number, stamp)
                for number, path, stamp in self._database.execute("SELECT * FROM archive")
            }
        for place, archive in enumerate(archives):
            check(progress, "Scanning the game")
            stamp = _stamp(archive.path)
            if known.get(str(archive.path), (0, ""))[1] != stamp:
                part = Part(progress, place / len(archives), (place + 1) / len(archives))
                self._store(archive, stamp, list(self._scan(archive, part)))
        self.assets = tuple(self._load(archives))
        self._by_path = {asset.path: asset for asset in self.assets}
        progress.report(1.0, "Catalogue up to date")

    def get(self, path: str) -> Asset:
        """The asset with this inner path; FurnelError when the game has none."""
        if path not in self._by_path:
            near = [known for known in self._by_path if known.casefold() == path.casefold()]
            remedy = f"Names are case-sensitive: it is {near[0]}" if near else "Find it with `furnel find`"
            raise FurnelError(
                "Looking up an asset", where=path, why="the game has no such asset", remedy=remedy
            )
        return self._by_path[path]

    def has(self, path: str) -> bool:
        return path in self._by_path

    def read(self, asset: Asset) -> bytes:
        """An asset's bytes, as the game ships it."""
        return self.install.read(asset.archive, asset.inner)

    def view(self, asset: Asset) -> bytes | memoryview:
        """The same for looking into, not read where it need not be."""
        return self.install.view(asset.archive, asset.inner)

    def kept_preview(self, asset: Asset) -> bytes | None:
        """A preview stored earlier, or None."""
        with self._lock:
            row = self._database.execute(
                "SELECT data FROM preview JOIN archive ON archive.id = archive WHERE archive.path = ? AND preview.path = ?",
                (str(asset.archive.path), asset.path),
            ).fetchone()
        return row[0] if row else None

    def keep_preview(self, asset: Asset, data: bytes) -> None:
        """Store a preview for the next time."""
        with self._lock, self._database:
            self._database.execute(
                "INSERT OR REPLACE INTO preview SELECT id, ?, ? FROM archive WHERE path = ?",
                (asset.path, data, str(asset.archive.path)),
            )

    def close(self) -> None:
        """Let go of the index and of the game's files."""
        with self._lock:
            self._database.close()
        self.install.close()

    def _scan(self, archive: Archive, progress: Progress) -> Iterable[tuple[object, ...]]:
        places = self.install.places(archive)
        for number, place in enumerate(places):
            check(progress, "Scanning the game")
            if number % 64 == 0:
                progress.report(number / len(places), f"Scanning {archive.name}")
            role = self.install.profile.role_of(place.path)
            head = self.install.peek(archive, place.inner, HEAD_BYTES)
            if needs_whole(head):
                head = self.install.read(archive, place.inner)
            facts = facts_of(head, place.size, place.path, role)
            yield (place.path, place.inner, place.size, place.stored, *facts.row())

    def _store(self, archive: Archive, stamp: str, rows: list[tuple[object, ...]]) -> None:
        with self._lock, self._database as database:
            old = database.execute("SELECT id FROM archive WHERE path = ?", (str(archive.path),)).fetchone()
            for table in ("asset", "preview") if old else ():
                database.execute(f"DELETE FROM {table} WHERE archive = ?", old)
            database.execute(
                "INSERT INTO archive (path, stamp) VALUES (?, ?) ON CONFLICT (path) DO UPDATE SET stamp = excluded.stamp",
                (str(archive.path), stamp),
            )
            number = database.execute(
                "SELECT id FROM archive WHERE path = ?", (str(archive.path),)
            ).fetchone()[0]
            marks = ",".join("?" * 13)
            database.executemany(
                f"INSERT OR REPLACE INTO asset VALUES ({marks})", [(number, *row) for row in rows]
            )

    def _load(self, archives: Iterable[Archive]) -> Iterable[Asset]:
        profile = self.install.profile
        for archive in archives:
            with self._lock:
                rows = self._database.execute(
                    "SELECT asset.* FROM asset JOIN archive ON archive.id = archive WHERE archive.path = ? ORDER BY asset.path",
                    (str(archive.path),),
                ).fetchall()
            for _, path, inner, size, stored, *facts in rows:
                role = profile.role_of(path)
                title = profile.titles.get(path, "")
                yield Asset(
                    path, archive, inner, size, stored, Facts(*facts), role.role if role else "", title
                )


def _open(file: Path) -> sqlite3.Connection:
    file.parent.mkdir(parents=True, exist_ok=True)
    for attempt in range(2):
        try:
            database = sqlite3.connect(file, check_same_thread=False)
            database.execute("PRAGMA journal_mode = WAL")
            if database.execute("PRAGMA user_version").fetchone()[0] == _VERSION:
                return database
            database.close()
            raise sqlite3.DatabaseError("another version")
        except sqlite3.DatabaseError as error:
            if attempt and "another version" not in str(error):
                raise FurnelError(
                    "Opening the catalogue", where=file, why=str(error), remedy="Delete the file"
                ) from error
            for suffix in ("", "-wal", "-shm"):
                file.with_name(file.name + suffix).unlink(missing_ok=True)
            with sqlite3.connect(file) as fresh:
                fresh.executescript(f"{_SCHEMA} PRAGMA user_version = {_VERSION};")
            fresh.close()
    return sqlite3.connect(file, check_same_thread=False)


def _stamp(path: Path) -> str:
    """Size and modification time of an archive; of a folder, of everything in it."""
    if not path.is_dir():
        state = path.stat()
        return f"{state.st_size}:{state.st_mtime_ns}"
    digest = hashlib.sha256()
    for file in sorted(path.rglob("*")):
        state = file.stat()
        digest.update(f"{file.relative_to(path)}:{state.st_size}:{state.st_mtime_ns}\n".encode())
    return digest.hexdigest()
