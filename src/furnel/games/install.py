"""A game's folder, opened: every asset in all its archives, by inner path."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from furnel.containers import Container, find_layout, open_container
from furnel.containers.folder import Folder
from furnel.errors import FurnelError
from furnel.games.profile import ArchiveRule, Profile, recognise


@dataclass(frozen=True, slots=True)
class Archive:
    """One archive of an install: its file (or folder), the rule that describes it and its paths' prefix."""

    path: Path
    rule: ArchiveRule
    prefix: str

    @property
    def name(self) -> str:
        return self.path.name


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

    def mods_folder(self) -> Path:
        """The only folder of the install that mods go to."""
        return self.folder / self.profile.mods.folder

    def close(self) -> None:
        """Let go of every archive."""
        with self._lock:
            for container in self._opened.values():
                container.close()
            self._opened.clear()

    def _container(self, archive: Archive) -> Container:
        with self._lock:
            if archive.path not in self._opened:
                rule = archive.rule.layout
                layout = None if rule in ("zip", "folder") else find_layout(rule)
                self._opened[archive.path] = (
                    Folder(archive.path) if rule == "folder" else open_container(archive.path, layout)
                )
            return self._opened[archive.path]

    def _find_archives(self) -> Iterator[Archive]:
        for rule in self.profile.archives:
            found = sorted(self.folder.glob(rule.files))
            if not found:
                raise FurnelError(
                    "Opening a game",
                    where=self.folder,
                    why=f"there is no {rule.files}",
                    remedy="The install is incomplete: let the game repair it",
                )
            for path in found:
                yield Archive(path, rule, rule.prefix.replace("{stem}", path.stem))
