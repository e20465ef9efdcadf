"""What a game demands of an asset: its own bytes and role, and what other files of the game say of it."""

from __future__ import annotations

import contextlib
import hashlib
import math
from collections.abc import Sequence
from dataclasses import replace
from functools import cached_property

from furnel.catalogue import Catalogue
from furnel.catalogue.marks import content_digest
from furnel.digests import code_mark
from furnel.errors import FurnelError
from furnel.games import LoopRecord
from furnel.media import TEXT, SoundSpec, Spec, medium_of, spec_of
from furnel.mods.gametexts import GameTexts
from furnel.mods.project import Swap
from furnel.progress import QUIET, Progress, check
from furnel.texts import SoundEvent, read_events

_MOST_PRINTS = 20_000
_SEEN_BY = ("images", "imagefiles", "sound", "sprites", "texts", "media", "mods")


class GameWide:
    """The specs of a game's assets, each worked out once for the same bytes."""

    def __init__(self, catalogue: Catalogue) -> None:
        self._catalogue = catalogue
        self._specs: dict[tuple[str, bytes], Spec] = {}
        self._loudness: dict[str, float] = {}
        self._prints: dict[str, str] = {}
        self._digests: dict[str, bytes] = {}

    def spec(self, path: str, data: bytes | None = None) -> Spec:
        """What an asset (whose bytes are `data`, when they are at hand) is and demands. Raises FurnelError for damage."""
        spec = self._own(path, data)
        if not isinstance(spec, SoundSpec):
            return spec
        known, loop, tempo = self.loop_record(path), spec.loop, None
        if known is not None:
            record, where = known
            with contextlib.suppress(FurnelError):  # a damaged one tells nothing
                data = self._catalogue.bytes_of(where)
                start, end = record.read(data, where)
                loop, tempo = (start, end) if end <= spec.frames else loop, record.tempo(data, where)
        return replace(spec, loop=loop, record=known is not None, family=self._family(path), told_tempo=tempo)

    def examination_key(self, swap: Swap, shipped: bytes, result: str, name: str, beside: str = "") -> str:
        """A name for what comparing a result (its key) with an asset's bytes gives, which changes with all it depends on.

        `name` is the file name of a result that is its source as it is, `beside` what else of the mod it is compared with.
        """
        role = self._catalogue.install.profile.role_of(swap.original)
        role_of_base = self._catalogue.install.profile.role_of(swap.base)
        parts = (
            code_mark(*_SEEN_BY),
            swap.original,
            swap.base,
            swap.steps,
            name,
            result,
            content_digest(shipped),
            role,
            role_of_base,
            self._beside(swap.base),
            beside,
            (self._paths_mark, self.texts.mark, self._catalogue.install.profile.values)
            if medium_of(shipped, swap.base) is TEXT
            else "",
        )
        return hashlib.sha256(repr(parts).encode()).hexdigest()

    def _beside(self, path: str) -> object:
        """What other files of the game say of a sound."""
        known = self.loop_record(path)
        record = self._digest(known[1]) if known is not None else b""
        event = self._event_of.get(path)
        others = [self._digest(one) for one in event.sounds if self._catalogue.has(one)] if event else []
        return record, event, others

    def _digest(self, path: str) -> bytes:
        if path not in self._digests:
            self._digests[path] = content_digest(self._catalogue.bytes_of(path))
        return self._digests[path]

    @cached_property
    def _paths_mark(self) -> str:
        return hashlib.sha256("\0".join(self._catalogue.assets.paths).encode()).hexdigest()

    @cached_property
    def texts(self) -> GameTexts:
        """All definitions of the game together."""
        return GameTexts(self._catalogue, self.names)

    @cached_property
    def _event_of(self) -> dict[str, SoundEvent]:
        """The (first) event that a sound belongs to."""
        return {path: event for event in reversed(self.events.values()) for path in event.sounds}

    @cached_property
    def events(self) -> dict[str, SoundEvent]:
        """The game's sound events by name; none when its profile knows of none or they cannot be read."""
        rule = self._catalogue.install.profile.events
        if rule is None or not self._catalogue.has(rule.file):
            return {}
        try:
            return read_events(self._catalogue.bytes_of(rule.file), rule.keys, rule.file)
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

    def names(self, text: str) -> bool:
        """Whether a text names an asset: by its inner path, or by its name with or without the ending."""
        return self._catalogue.has(text) or text in self._names

    @cached_property
    def _names(self) -> frozenset[str]:
        found = {path.rpartition("/")[2] for path in self._catalogue.assets.paths}
        return frozenset(found | {name.rpartition(".")[0] for name in found} - {""})

    def found_elsewhere(self, path: str, fingerprint: str, progress: Progress = QUIET) -> str:
        """Another asset that has the content with this fingerprint, or nothing.

        Looked for among those of the same top folder and ending, each read once. Raises Cancelled.
        """
        ending, home = path.rpartition(".")[2], path.partition("/")[0]
        paths = self._catalogue.assets.paths
        for number, other in enumerate(paths):
            if other.partition("/")[0] != home or not other.endswith(f".{ending}"):
                continue
            check(progress, "Looking for moved content")
            if other not in self._prints and len(self._prints) < _MOST_PRINTS:
                progress.report(number / len(paths), f"Looking for what was {path}")
                self._prints[other] = content_digest(self._catalogue.bytes_of(other)).hex()
            if self._prints.get(other) == fingerprint and other != path:
                return other
        return ""

    def _family(self, path: str) -> tuple[float, float] | None:
        """The lowest and highest loudness of the other sounds of a sound's event, in LUFS."""
        event = self._event_of.get(path)
        found = self.loudness([one for one in event.sounds if one != path]) if event is not None else []
        return (found[0], found[-1]) if found else None

    def _own(self, path: str, data: bytes | None = None) -> Spec:
        data = self._catalogue.bytes_of(path) if data is None else data
        key = path, content_digest(data)
        if key not in self._specs:
            self._specs[key] = spec_of(data, path, self._catalogue.install.profile.role_of(path))
        return self._specs[key]
