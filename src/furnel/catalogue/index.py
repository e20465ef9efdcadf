"""The catalogue: an index of everything that a game has, kept in SQLite so that a known game opens without reading it.

It is a cache: an archive is scanned again when its path, size or modification time differs, and the file may be deleted.
"""

from __future__ import annotations

import contextlib
import hashlib
import logging
import sqlite3
import threading
from collections.abc import Iterator
from functools import partial
from pathlib import Path

import numpy as np
import numpy.typing as npt

from furnel.catalogue.shelf import COLUMNS, Asset, Rows, Shelf
from furnel.digests import code_mark
from furnel.errors import Cancelled, FurnelError
from furnel.folders import cache_folder
from furnel.games import Archive, Install
from furnel.locks import locked
from furnel.media import HEAD_BYTES, KINDS, Facts, Glances
from furnel.progress import QUIET, Part, Progress, check
from furnel.texts import use_forms

_KNOWN_BY = ("images", "imagefiles", "sound", "sprites", "texts", "containers", "games", "media", "catalogue")
_SCHEMA = """
CREATE TABLE archive (id INTEGER PRIMARY KEY, path TEXT UNIQUE, stamp TEXT, paths BLOB, columns BLOB, formats TEXT, roles TEXT);
CREATE TABLE preview (archive INTEGER, path TEXT, data BLOB, PRIMARY KEY (archive, path)) WITHOUT ROWID;
CREATE TABLE marks (archive INTEGER, piece INTEGER, data BLOB, PRIMARY KEY (archive, piece)) WITHOUT ROWID;
CREATE TABLE kin (seal TEXT, data BLOB);
CREATE TABLE title (digest BLOB PRIMARY KEY, title TEXT) WITHOUT ROWID;
"""
_STORED = COLUMNS[:-1]
_PIECE = 1024
_PATIENCE_S = 600.0  # a first look at a large game takes minutes
log = logging.getLogger(__name__)
_NOTHING: frozenset[str] = frozenset()
Digests = npt.NDArray[np.uint8]
_Row = tuple[str, int, int, str, Facts]


class Catalogue:
    """The assets of one install. Safe to use from several threads."""

    def __init__(self, install: Install, file: Path | None = None) -> None:
        self.install = install
        use_forms(install.profile.notations)
        self.assets = Shelf([], {name: np.zeros(0, np.int64) for name in COLUMNS}, (), ("",), (), {})
        self.mark = ""
        """Something that is another when anything of the game is, or how it is read."""
        self._lock = threading.Lock()
        self._closed = False
        mark = hashlib.sha256(str(install.folder).encode()).hexdigest()[:16]
        self.file = file or cache_folder() / "catalogues" / f"{mark}.sqlite"
        self._database = _open(self.file)

    def refresh(self, progress: Progress = QUIET) -> None:
        """Scan what is new or changed since the last time, then load the index; a damaged one is made anew.

        Two programs at one index wait for each other.
        """
        with locked(self.file, "Scanning the game", patience_s=_PATIENCE_S):
            try:
                self._refresh(progress)
            except (sqlite3.Error, ValueError, TypeError, LookupError):
                log.warning("the index %s is damaged and made anew", self.file, exc_info=True)
                with self._lock:
                    if self._closed:
                        raise Cancelled("Looking into the catalogue") from None
                    self._database.close()
                    for end in ("", "-wal", "-shm", "-journal"):
                        self.file.with_name(self.file.name + end).unlink(missing_ok=True)
                    self._database = _open(self.file)
                self._refresh(progress)

    def _refresh(self, progress: Progress) -> None:
        archives, rules = self.install.archives, self.install.profile.rules_mark
        with self._base() as database:
            known = dict(database.execute("SELECT path, stamp FROM archive"))
        stamps = hashlib.sha256()
        for place, archive in enumerate(archives):
            check(progress, "Scanning the game")
            stamp = f"{self.install.stamp(archive)} {rules}"
            stamps.update(f"{archive.path}\0{stamp}\0".encode())
            if known.get(str(archive.path), "") != stamp:
                part = Part(progress, place / len(archives), (place + 1) / len(archives))
                self._store(archive, stamp, self._scan(archive, part))
        self.assets, self.mark = self._load(archives), stamps.hexdigest()
        progress.report(1.0, "Catalogue up to date")

    def get(self, path: str) -> Asset:
        """The asset with this inner path; FurnelError when the game has none."""
        row = self.assets.row(path)
        if row < 0:
            near = [known for known in self.assets.paths if known.casefold() == path.casefold()]
            remedy = f"Names are case-sensitive: it is {near[0]}" if near else "Find it with `furnel find`"
            raise FurnelError(
                "Looking up an asset", where=path, why="the game has no such asset", remedy=remedy
            )
        return self.assets[row]

    def has(self, path: str) -> bool:
        return self.assets.row(path) >= 0

    def bytes_of(self, path: str) -> bytes:
        """The bytes of the asset with this inner path; FurnelError when the game has none."""
        return self.read(self.get(path))

    def read(self, asset: Asset) -> bytes:
        """An asset's bytes, as the game ships it."""
        return self.install.read(asset.archive, asset.inner)

    def view(self, asset: Asset) -> bytes | memoryview:
        """The same for looking into, not read where it need not be."""
        return self.install.view(asset.archive, asset.inner)

    def kept_preview(self, asset: Asset) -> bytes | None:
        """A preview stored earlier, or None."""
        with self._base() as database:
            row = database.execute(
                "SELECT data FROM preview JOIN archive ON archive.id = archive WHERE archive.path = ? AND preview.path = ?",
                (str(asset.archive.path), asset.path),
            ).fetchone()
        return row[0] if row else None

    def keep_preview(self, asset: Asset, data: bytes) -> None:
        """Store a preview for the next time."""
        with self._base() as database:
            database.execute(
                "INSERT OR REPLACE INTO preview SELECT id, ?, ? FROM archive WHERE path = ?",
                (asset.path, data, str(asset.archive.path)),
            )

    def kept_marks(self, archive: Archive, piece: int) -> bytes | None:
        """The marks of some of an archive's assets, stored earlier."""
        with self._base() as database:
            row = database.execute(
                "SELECT data FROM marks JOIN archive ON archive.id = archive WHERE archive.path = ? AND piece = ?",
                (str(archive.path), piece),
            ).fetchone()
        return row[0] if row else None

    def keep_marks(self, archive: Archive, piece: int, data: bytes) -> None:
        """Store the marks of some of an archive's assets."""
        with self._base() as database:
            database.execute(
                "INSERT OR REPLACE INTO marks SELECT id, ?, ? FROM archive WHERE path = ?",
                (piece, data, str(archive.path)),
            )

    def kept_kin(self, seal: str) -> bytes | None:
        """The kin found earlier for contents with this seal."""
        with self._base() as database:
            row = database.execute("SELECT data FROM kin WHERE seal = ?", (seal,)).fetchone()
        return row[0] if row else None

    def keep_kin(self, seal: str, data: bytes) -> None:
        """Store the kin of these contents, in the place of others."""
        with self._base() as database:
            database.execute("DELETE FROM kin")
            database.execute("INSERT INTO kin VALUES (?, ?)", (seal, data))

    def carry_titles(self, digests: Digests) -> None:
        """Names follow contents: what was called something before a game update is called that at its new path, too.

        `digests` (assets, 16) uint8 tell the contents, all zero where they are not known.
        """
        shelf = self.assets
        with self._base() as database:
            known: dict[bytes, str] = dict(database.execute("SELECT digest, title FROM title"))
        fresh, carried = [], {}
        for row, digest in enumerate(map(bytes, digests)):
            title = shelf.title(row)
            if digest in known and known[digest] != title:
                carried[shelf.paths[row]] = known[digest]
            elif title and digest not in known and any(digest):
                fresh.append((digest, title))
        if carried:
            shelf.carry(carried)
        with self._base() as database:
            database.executemany("INSERT OR IGNORE INTO title VALUES (?, ?)", fresh)

    @contextlib.contextmanager
    def _base(self) -> Iterator[sqlite3.Connection]:
        """The database for one piece of work. Raises Cancelled once it is closed: nobody waits for the work any more."""
        with self._lock:
            if self._closed:
                raise Cancelled("Looking into the catalogue")
            with self._database as database:
                yield database

    def close(self) -> None:
        """Let go of the index and of the game's files."""
        with self._lock:
            self._closed = True
            self._database.close()
        self.install.close()

    def _scan(self, archive: Archive, progress: Progress) -> list[_Row]:
        facts_of_head, role_of, prefix = Glances().facts, self.install.profile.role_of, archive.prefix
        rows: list[_Row] = []
        count, entries = self.install.glances(archive, HEAD_BYTES)
        for (inner, size, stored), head in entries:
            if len(rows) % _PIECE == 0:
                check(progress, "Scanning the game")
                progress.report(len(rows) / count, f"Scanning {archive.name}")
            path = prefix + inner
            rule = role_of(path)
            role, does = (rule.role, rule.does) if rule is not None else ("", _NOTHING)
            facts = facts_of_head(head, size, path, does, partial(self.install.peek, archive, inner))
            rows.append((path, size, stored, role, facts))
        return rows

    def _store(self, archive: Archive, stamp: str, rows: list[_Row]) -> None:
        rows.sort(key=lambda row: row[0])
        formats: dict[str, int] = {}
        roles: dict[str, int] = {}
        kinds: dict[str, int] = {name: code for code, name in enumerate(KINDS)}
        table = [
            (
                size, stored, kinds[f.kind], formats.setdefault(f.format, len(formats)), f.width, f.height, f.levels,
                f.rate, f.channels, f.frames, roles.setdefault(role, len(roles)),
            )
            for _, size, stored, role, f in rows
        ]  # fmt: skip
        columns = np.ascontiguousarray(np.array(table, np.int64).reshape(len(rows), len(_STORED)).T)
        with self._base() as database:
            old = database.execute("SELECT id FROM archive WHERE path = ?", (str(archive.path),)).fetchone()
            for name in ("preview", "marks") if old else ():
                database.execute(f"DELETE FROM {name} WHERE archive = ?", old)
            database.execute(
                "INSERT OR REPLACE INTO archive VALUES ((SELECT id FROM archive WHERE path = ?), ?, ?, ?, ?, ?, ?)",
                (
                    str(archive.path), str(archive.path), stamp, "\n".join(row[0] for row in rows).encode(),
                    columns.tobytes(), "\n".join(formats), "\n".join(roles),
                ),
            )  # fmt: skip

    def _load(self, archives: tuple[Archive, ...]) -> Shelf:
        paths: list[str] = []
        tables, owners = [np.zeros((len(_STORED), 0), np.int64)], [np.zeros(0, np.int64)]
        formats: dict[str, int] = {}
        roles: dict[str, int] = {"": 0}
        for number, archive in enumerate(archives):
            with self._base() as database:
                row = database.execute(
                    "SELECT paths, columns, formats, roles FROM archive WHERE path = ?", (str(archive.path),)
                ).fetchone()
            own = row[0].decode().split("\n") if row[0] else []
            table = np.frombuffer(row[1], np.int64).reshape(len(_STORED), len(own)).copy()
            for column, names, codes in (("format", row[2], formats), ("role", row[3], roles)):
                fresh = np.array([codes.setdefault(name, len(codes)) for name in names.split("\n")], np.int64)
                place = _STORED.index(column)
                table[place] = fresh[table[place]] if len(own) else table[place]
            paths += own
            tables.append(table)
            owners.append(np.full(len(own), number))
        columns: dict[str, Rows] = dict(zip(_STORED, np.concatenate(tables, axis=1), strict=True))
        columns["archive"] = np.concatenate(owners)
        return Shelf(paths, columns, list(formats), list(roles), archives, dict(self.install.profile.titles))


def _open(file: Path) -> sqlite3.Connection:
    file.parent.mkdir(parents=True, exist_ok=True)
    for attempt in range(2):
        try:
            database = sqlite3.connect(file, check_same_thread=False)
            database.execute("PRAGMA journal_mode = WAL")
            if database.execute("PRAGMA user_version").fetchone()[0] == _version():
                return database
            database.close()
            raise sqlite3.DatabaseError("another version")
        except sqlite3.DatabaseError as error:
            busy = "locked" in str(error)  # by another process: that is no reason to begin anew
            if busy or (attempt and "another version" not in str(error)):
                raise FurnelError(
                    "Opening the catalogue", where=file, why=str(error),
                    remedy="Try again in a moment" if busy else "Delete the file",
                ) from error  # fmt: skip
            for suffix in ("", "-wal", "-shm"):
                file.with_name(file.name + suffix).unlink(missing_ok=True)
            with sqlite3.connect(file) as fresh:
                fresh.executescript(f"{_SCHEMA} PRAGMA user_version = {_version()};")
            fresh.close()
    return sqlite3.connect(file, check_same_thread=False)


def _version() -> int:
    """A number for SQLite's own place for it: what another version of Furnel knew is worked out anew."""
    return int(code_mark(*_KNOWN_BY)[:7], 16)
