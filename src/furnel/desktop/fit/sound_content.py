"""What the sound bench shows: both sounds decoded and measured, the source as a whole, the event that plays them."""

from __future__ import annotations

import contextlib
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from furnel import sound
from furnel.desktop.fit.bench import Loading
from furnel.errors import FurnelError
from furnel.media import SoundSpec, Spec, sound_spec
from furnel.mods.events import event_of
from furnel.mods.project import Swap
from furnel.mods.shapes import Layer, SourceShape, layers_of, source_shape, trimmed_ends, used_part
from furnel.mods.songs import parts_of, song_of
from furnel.mods.workspace import Workspace
from furnel.sound import Clip, Measures, Overview, Rhythm
from furnel.sound.words import channels_text
from furnel.texts import SoundEvent

_MUSIC_S = 8.0
_SHOWN_S = 900.0  # of a longer recording only this much is held
CURVE_S = 0.1
_PART_COLUMNS = 640


@dataclass(frozen=True, slots=True, eq=False)
class Lane:
    """One side's sound: its shape at every scale, short-term loudness (one value each 100 ms), what is measured of it.

    `seam` is how hard its loop jumps back, None without one.
    """

    clip: Clip
    shape: Overview
    curve: np.ndarray
    moments: np.ndarray
    measures: Measures
    rhythm: Rhythm | None
    key: str
    label: str
    seam: float | None = None

    @property
    def loudness(self) -> float:
        """Integrated, in LUFS."""
        return self.measures.loudness


@dataclass(frozen=True, slots=True, eq=False)
class Variation:
    """One sound of an event: both sides' shapes, `yours` when it is swapped, `original` when the game has it."""

    path: str
    original: SourceShape | None
    yours: SourceShape | None

    @property
    def length_s(self) -> float:
        """The longer side's length in seconds."""
        return max(
            (shape.length_s for shape in (self.original, self.yours) if shape is not None), default=0.0
        )


@dataclass(frozen=True, slots=True, eq=False)
class EventContent:
    """The event that plays a sound: as the game ships it, as the mod makes it, its sounds, how many it may have."""

    game: SoundEvent
    event: SoundEvent
    sounds: tuple[Variation, ...]
    unit: str
    least: int
    most: int


@dataclass(frozen=True, slots=True, eq=False)
class SongPart:
    """A part of a song: decoded, its shape; `mine` when the mod brings it."""

    path: str
    name: str
    clip: Clip
    wave: np.ndarray
    mine: bool


@dataclass(frozen=True, slots=True, eq=False)
class SongContent:
    """A song with its parts: how many beats it has, their tempo, its key, what parts cannot be read."""

    name: str
    title: str
    beats: int
    tempo: float
    key: str
    parts: tuple[SongPart, ...]
    wrong: tuple[str, ...] = ()

    @property
    def length_s(self) -> float:
        """How long its beats last, in seconds."""
        return self.beats * 60 / self.tempo


@dataclass(frozen=True, slots=True, eq=False)
class SoundContent:
    """Both lanes of a sound, its source, its event, its song. `loops` when the game repeats it.

    Of the source the part from second to second in `used` is taken; `trimmed` seconds of silence before and behind are cut.
    """

    original: Lane
    yours: Lane
    loops: bool
    swap: Swap
    source: SourceShape | None = None
    used: tuple[float, float] = (0.0, 0.0)
    event: EventContent | None = None
    layers: tuple[Layer, ...] = ()
    song: SongContent | None = None
    trimmed: tuple[float, float] = (0.0, 0.0)


def load_sounds(loading: Loading) -> SoundContent:
    """Decode both sides, which were measured when they were examined. Raises FurnelError when one is damaged or no sound."""
    examined, space, data = loading.examined, loading.space, loading.yours
    swap = examined.swap
    first = _lane(loading.original, swap.base, _spec(examined.original, loading.original, swap.base))
    second = _lane(data, loading.name, _spec(examined.result, data, loading.name))
    source, used, event = None, (0.0, 0.0), None
    trimmed = (0.0, 0.0)
    layers: tuple[Layer, ...] = ()
    song = None
    if space is not None:
        with contextlib.suppress(FurnelError):  # a source that is gone is told by the fit
            source = source_shape(space.source_path(swap))
            used = used_part(swap.steps, second.clip.rate, source.length_s, source.silence_s)
            trimmed = trimmed_ends(swap.steps, source.length_s, source.silence_s)
        event = _event(space, swap.original, data, loading.results)
        layers = layers_of(swap.steps, space.folder)
        song = _song(space, swap.original, data, loading.results)
    loops = isinstance(examined.original, SoundSpec) and examined.original.loops
    return SoundContent(first, second, loops, swap, source, used, event, layers, song, trimmed)


def _spec(known: Spec | None, data: bytes, name: str) -> SoundSpec:
    return known if isinstance(known, SoundSpec) else sound_spec(data, name, None)


def _lane(data: bytes, name: str, spec: SoundSpec) -> Lane:
    if spec.length_s > _SHOWN_S:
        with sound.SoundStream(data, name) as stream:
            clip = stream.part(0, int(_SHOWN_S * spec.rate))
    else:
        clip = sound.read_clip(data, name)[0]
    if spec.loop is not None and clip.loop is None and spec.loop[1] <= clip.frames:
        clip = Clip(clip.samples, clip.rate, spec.loop)
    musical = clip.length_s >= _MUSIC_S
    label = f"{spec.codec}  {spec.rate / 1000:g} kHz  {channels_text(spec.channels)}"
    if spec.length_s > _SHOWN_S:
        label += f"  the beginning of {spec.length_s / 60:.0f} minutes"
    meter = sound.LoudnessMeter(clip.rate, clip.channels)
    meter.feed(clip.samples)
    return Lane(
        clip, sound.overview_of(clip), meter.short_term(from_start=True), meter.momentary(), spec.measures,
        (spec.rhythm or sound.rhythm_of(clip)) if musical else None, sound.key_of(clip) if musical else "", label,
        sound.seam_click(clip, *clip.loop) if clip.loop else None,
    )  # fmt: skip


def _event(space: Workspace, path: str, data: bytes, results: Mapping[str, bytes]) -> EventContent | None:
    event, rule = event_of(space, path), space.profile.events
    if event is None or rule is None:
        return None
    game = space.demands.events[event.name]
    sounds = []
    for one in event.sounds:
        shipped = space.catalogue.bytes_of(one) if space.catalogue.has(one) else b""
        yours = data if one == path else results.get(one, b"")
        sounds.append(Variation(one, _small(shipped, one), _small(yours, one)))
    most = (rule.most or 99) if rule.new_sound else len(game.sounds)
    return EventContent(game, event, tuple(sounds), rule.unit, rule.least, most)


def _song(space: Workspace, path: str, data: bytes, results: Mapping[str, bytes]) -> SongContent | None:
    song = song_of(space, path)
    if song is None or not song.tempo:
        return None
    parts, wrong = [], []
    for one in parts_of(space, path):
        mine = space.project.swap_for(one) is not None
        name = one.rpartition("/")[2].rpartition(".")[0]
        try:
            yours = data if one == path else results.get(one, b"")
            clip = sound.read_clip(yours or space.catalogue.bytes_of(one), one)[0]
        except FurnelError:
            wrong.append(f"{name} cannot be read")
            continue
        parts.append(
            SongPart(one, name, clip, np.stack(sound.waveform(clip, min(_PART_COLUMNS, clip.frames))), mine)
        )
    return SongContent(song.name, song.title, song.beats, song.tempo, song.key, tuple(parts), tuple(wrong))


def _small(data: bytes, where: str) -> SourceShape | None:
    """A sound's shape for a card, and its length; None when there is none."""
    if not data:
        return None
    try:
        clip, _ = sound.read_clip(data, where)
    except FurnelError:
        return None
    return SourceShape(np.stack(sound.waveform(clip, min(160, clip.frames))), clip.length_s)
