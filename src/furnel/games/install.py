"""A game's folder, opened: every asset in all its archives, by inner path."""

from __future__ import annotations

import hashlib
import threading
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path

from furnel.containers import (
    Carved,
    Changes,
    Container,
    Content,
    Entry,
    InsidePart,
    Undressing,
    dress,
    layout_files,
    layout_named,
    open_container,
    open_inside,
)
from furnel.containers.folder import Folder
from furnel.errors import FurnelError
from furnel.folders import own_place
from furnel.games.originals import own_file, placed_files
from furnel.games.profile import ArchiveRule, Profile, recognise
from furnel.listing import list_folder
from furnel.progress import QUIET, Progress


@dataclass(frozen=True, slots=True)
class Archive:
    """One archive of an install: its file (or folder), the rule that describes it and its paths' prefix."""

    path: Path
    rule: ArchiveRule
    prefix: str

    @property
    def name(self) -> str:
        return self.path.name

    @property
    def beside(self) -> list[Path]:
        """The files that belong to it: its index, its checksums, its names, its volumes."""
        if self.rule.carve or self.rule.layout == "folder":
            return []
        return layout_files(self.path, layout_named(self.rule.layout))


@dataclass(frozen=True, slots=True)
class Place:
    """Where an asset is: its `path` in the game, the archive and its path inside that."""

    path: str
    archive: Archive
    inner: str
    size: int
    stored: int


class Install:
    """A game's folder. Nothing in it is ever written through this class."""

    def __init__(self, folder: Path, profile: Profile | None = None) -> None:
        self.folder = folder.resolve()
        self.profile = profile or recognise(self.folder)
        self._opened: dict[Path, Container] = {}
        self._lock = threading.Lock()
        self.version = self.profile.version_of(self.folder)
        self._names: list[str] | None = None
        self.archives = tuple(self._find_archives())

    def places(self, archive: Archive) -> list[Place]:
        """Every asset of one archive."""
        container = self._container(archive)
        return [
            Place(archive.prefix + entry.path, archive, entry.path, entry.size, entry.stored)
            for entry in container.entries()
        ]

    def read(self, archive: Archive, inner: str) -> bytes:
        """An asset's bytes."""
        return self._container(archive).read(inner)

    def view(self, archive: Archive, inner: str) -> bytes | memoryview:
        """An asset's bytes for looking into, not read where they need not be."""
        return self._container(archive).view(inner)

    def peek(self, archive: Archive, inner: str, size: int) -> bytes:
        """The first bytes of an asset."""
        return self._container(archive).peek(inner, size)

    def glances(self, archive: Archive, size: int) -> tuple[int, Iterator[tuple[Entry, bytes]]]:
        """How many entries an archive has, and each of them with its first bytes; nothing of what is damaged."""
        container = self._container(archive)
        entries, peek = container.entries(), container.peek

        def look() -> Iterator[tuple[Entry, bytes]]:
            for entry in entries:
                try:
                    yield entry, peek(entry.path, size)
                except FurnelError:
                    yield entry, b""

        return len(entries), look()

    def rewrite(self, archive: Archive, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        """A changed copy of an archive, side files too, at `target`, which is not in the game's own place."""
        if target.resolve() == archive.path.resolve():
            raise FurnelError("Rebuilding an archive", where=target, why="it is the game's own file")
        self._container(archive).rewrite(target, changes, progress)

    def bare(self, archive: Archive, inner: str, content: Content) -> tuple[str, bytes] | None:
        """The path (in the game) and the bytes that the game itself has for an asset with this content, where it is bare data
        that Furnel shows as a file; otherwise None. Raises FurnelError where a file cannot tell all of it."""
        container = self._container(archive)
        found = container.bare(inner, content) if isinstance(container, Undressing) else None
        return (archive.prefix + found[0], found[1]) if found is not None else None

    def open_copy(self, archive: Archive, path: Path) -> Container:
        """Open a copy of one of the game's archives like the archive itself."""
        return self._open(archive, path)

    @property
    def mark(self) -> str:
        """What this install is called in Furnel's own folders: another one for every folder."""
        return hashlib.sha256(str(self.folder).encode()).hexdigest()[:16]

    def mods_folder(self) -> Path:
        """The only folder that mods go to: of the install, or of the user's. Raises FurnelError when it leads elsewhere."""
        return self._own(self.profile.mods.folder)

    def order_file(self) -> Path:
        """The file with the load order. Raises FurnelError when it leads out of the game's folder."""
        return self._own(self.profile.mods.order)

    def mods_root(self) -> Path:
        """The folder below which a mod's files go by themselves, where mods have no folders of their own."""
        return self.folder if self.profile.mods.goes == "in-place" else self.mods_folder()

    def own(self, file: Path) -> Path | None:
        """The game's own file for one in its folder: itself, the one kept while a mod stands there, or None if it has none."""
        return own_file(self.folder, file)

    def below(self, file: Path) -> str:
        """What a file that a mod puts somewhere is called: its path below the game's folder, or all of it elsewhere."""
        return (file.relative_to(self.folder) if file.is_relative_to(self.folder) else file).as_posix()

    def _own(self, inside: str) -> Path:
        if (place := own_place(inside)) is not None:
            return place
        path = self.folder / inside
        if not path.resolve().is_relative_to(self.folder) or path.resolve() == self.folder:
            raise FurnelError(
                "Looking for the mods folder", where=path, why="it leads out of the game's folder",
                remedy="Correct the profile, or take the link away: Furnel writes nowhere else",
            )  # fmt: skip
        return path

    def close(self) -> None:
        """Let go of every archive."""
        with self._lock:
            for container in self._opened.values():
                container.close()
            self._opened.clear()

    def _container(self, archive: Archive) -> Container:
        with self._lock:
            if archive.path not in self._opened:
                self._opened[archive.path] = self._open(archive, self.own(archive.path) or archive.path)
            return self._opened[archive.path]

    def _open(self, archive: Archive, path: Path) -> Container:
        rule = archive.rule
        if rule.carve:
            return Carved(path)
        if rule.layout == "folder":
            opened: Container = Folder(path, self.own, self._elsewhere(archive), outside=True)
        else:
            if self._names is None:
                self._names = self.profile.known_names(self.version)
            known = [
                name.removeprefix(archive.prefix) for name in self._names if name.startswith(archive.prefix)
            ]
            layout = layout_named(rule.layout)
            opened = open_container(path, layout, known)
        opened = dress(opened, rule.raw)
        inside = [InsidePart(files=files, layout=layout) for files, layout in rule.inside.items()]
        return open_inside(opened, inside)

    def stamp(self, archive: Archive) -> str:
        """Something that is another when an archive was changed: from sizes and times, of a folder those of all its files. What
        mods put in the place of the game's own changes nothing."""
        file = self.own(archive.path) or archive.path
        if not file.is_dir():
            state = file.stat()
            return f"{state.st_size}:{state.st_mtime_ns}"
        digest, put = hashlib.sha256(), placed_files(self.folder)
        for inner, size, time in list_folder(archive.path, self._elsewhere(archive)).files:
            there = archive.path / inner
            if there in put:
                own = self.own(there)
                if own is None:
                    continue
                state = own.stat()
                size, time = state.st_size, state.st_mtime_ns
            digest.update(f"{inner}:{size}:{time}\n".encode())
        return digest.hexdigest()

    def _elsewhere(self, archive: Archive) -> Callable[[str], bool]:
        """Whether a path below a folder is that of another archive, or of mods."""
        others = {one.path for one in self.archives if one is not archive}
        others |= {beside for one in self.archives if one is not archive for beside in one.beside}
        mods = self.profile.mods
        if mods.goes != "in-place":
            others |= {own_place(mods.folder) or self.folder / mods.folder}
        if mods.has_order:
            others |= {own_place(mods.order) or self.folder / mods.order}
        inner = {
            other.relative_to(archive.path).as_posix()
            for other in others
            if other.is_relative_to(archive.path)
        }
        return inner.__contains__

    def _find_archives(self) -> Iterator[Archive]:
        known: dict[Path, ArchiveRule] = {}
        for rule in self.profile.archives:
            found = [self.folder] if rule.files == "." else sorted(self.folder.glob(rule.files))
            if not found:
                raise FurnelError(
                    "Opening a game",
                    where=self.folder,
                    why=f"there is no {rule.files}",
                    remedy="The install is incomplete: let the game repair it",
                )
            for path in found:
                if path.is_file() and self.own(path) is None:  # a mod's own
                    continue
                if known.setdefault(path, rule) is not rule:
                    raise FurnelError(
                        "Opening a game", where=path,
                        why=f"two rules of its profile name it: {known[path].files} and {rule.files}",
                        remedy="Let each file be an archive by one rule of [[archives]]",
                    )  # fmt: skip
                yield Archive(path, rule, rule.prefix.replace("{stem}", path.stem))
