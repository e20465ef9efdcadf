"""What a game demands of an asset: its own bytes and role, and what other files of the game say of it."""

from __future__ import annotations

import contextlib
import math
from collections.abc import Sequence
from dataclasses import replace
from functools import cached_property

from furnel.catalogue import Catalogue
from furnel.catalogue.marks import content_digest
from furnel.errors import FurnelError
from furnel.games import LoopRecord
from furnel.mods.soundspec import SoundSpec
from furnel.mods.spec import Spec, spec_of
from furnel.texts import SoundEvent, read_events


class GameWide:
    """The specs of a game's assets, each worked out once for the same bytes."""

    def __init__(self, catalogue: Catalogue) -> None:
        self._catalogue = catalogue
        self._specs: dict[tuple[str, bytes], Spec] = {}
        self._loudness: dict[str, float] = {}

    def spec(self, path: str, data: bytes | None = None) -> Spec:
        """What an asset (whose bytes are `data`, when they are at hand) is and demands. Raises FurnelError for damage."""
        spec = self._own(path, data)
        if not isinstance(spec, SoundSpec):
            return spec
        known, loop = self.loop_record(path), spec.loop
        if known is not None:
            record, where = known
            with contextlib.suppress(FurnelError):  # a damaged one tells nothing
                start, end = record.read(self._read(where), where)
                loop = (start, end) if end <= spec.frames else loop
        return replace(spec, loop=loop, record=known is not None, family=self._family(path))

    @cached_property
    def events(self) -> dict[str, SoundEvent]:
        """The game's sound events by name; none when its profile knows of none or they cannot be read."""
        rule = self._catalogue.install.profile.events
        if rule is None or not self._catalogue.has(rule.file):
            return {}
        try:
            return read_events(self._read(rule.file), rule.keys, rule.file)
        except FurnelError:
            return {}

    def loop_record(self, path: str) -> tuple[LoopRecord, str] | None:
        """A tune's loop record and its inner path, when the game has one."""
        role = self._catalogue.install.profile.role_of(path)
        if role is None or role.loop_record is None:
            return None
        where = role.loop_record.of(path)
        return (role.loop_record, where) if self._catalogue.has(where) else None

    def loudness(self, paths: Sequence[str]) -> list[float]:
        """The loudness in LUFS of those of some sounds that the game has and that are not silent, the softest first."""
        for path in paths:
            if path not in self._loudness and self._catalogue.has(path):
                spec = self._own(path)
                self._loudness[path] = spec.loudness if isinstance(spec, SoundSpec) else -math.inf
        return sorted(value for path in paths if math.isfinite(value := self._loudness.get(path, -math.inf)))

    def _family(self, path: str) -> tuple[float, float] | None:
        """The lowest and highest loudness of the other sounds of a sound's event, in LUFS."""
        event = next((event for event in self.events.values() if path in event.sounds), None)
        found = self.loudness([one for one in event.sounds if one != path]) if event is not None else []
        return (found[0], found[-1]) if found else None

    def _own(self, path: str, data: bytes | None = None) -> Spec:
        data = self._read(path) if data is None else data
        key = path, content_digest(data)
        if key not in self._specs:
            self._specs[key] = spec_of(data, path, self._catalogue.install.profile.role_of(path))
        return self._specs[key]

    def _read(self, path: str) -> bytes:
        return self._catalogue.read(self._catalogue.get(path))
