"""What the sound bench shows: both sounds decoded and measured, the source as a whole, the event that plays them."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from furnel import sound
from furnel.errors import FurnelError
from furnel.mods.events import event_of
from furnel.mods.project import Swap
from furnel.mods.shapes import Layer, SourceShape, layers_of, source_shape, used_part
from furnel.mods.soundspec import SoundSpec
from furnel.mods.workspace import Examined, Workspace
from furnel.sound import Clip, Measures, Overview, Rhythm
from furnel.texts import SoundEvent

_MUSIC_S = 8.0
_SHOWN_S = 900.0  # of a longer recording only this much is held
CURVE_S = 0.1


@dataclass(frozen=True, slots=True, eq=False)
class Lane:
    """One side's sound: its shape at every scale, short-term loudness (one value each 100 ms), what is measured of it."""

    clip: Clip
    shape: Overview
    curve: np.ndarray
    moments: np.ndarray
    measures: Measures
    rhythm: Rhythm | None
    key: str
    label: str

    @property
    def loudness(self) -> float:
        """Integrated, in LUFS."""
        return self.measures.loudness


@dataclass(frozen=True, slots=True, eq=False)
class Variation:
    """One sound of an event: both sides' shapes (2, columns), `yours` when it is swapped, `original` when the game has it."""

    path: str
    name: str
    original: np.ndarray | None
    yours: np.ndarray | None
    length_s: float


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
class SoundContent:
    """Both lanes of a sound, its source, its event. `loops` when the game repeats it."""

    original: Lane
    yours: Lane
    loops: bool
    swap: Swap
    source: SourceShape | None = None
    used: tuple[float, float] = (0.0, 0.0)
    event: EventContent | None = None
    layers: tuple[Layer, ...] = ()


def load_sounds(original: bytes, examined: Examined, name: str, space: Workspace | None) -> SoundContent:
    """Decode and measure both sides. Raises FurnelError when one of them is damaged."""
    swap = examined.swap
    loop = examined.original.loop if isinstance(examined.original, SoundSpec) else None
    loops = isinstance(examined.original, SoundSpec) and examined.original.loops
    first, second = _lane(original, swap.base, loop), _lane(examined.data, name)
    source, used, event = None, (0.0, 0.0), None
    layers: tuple[Layer, ...] = ()
    if space is not None:
        try:
            source = source_shape(space.source_path(swap))
            used = used_part(swap.steps, second.clip.rate, source.length_s)
        except FurnelError:
            source = None
        event = _event(space, swap.original)
        layers = layers_of(swap.steps, space.folder)
    return SoundContent(first, second, loops, swap, source, used, event, layers)


def _lane(data: bytes, name: str, loop: tuple[int, int] | None = None) -> Lane:
    with sound.SoundStream(data, name) as stream:
        info, whole_s = stream.info, stream.info.length_s
        measures = sound.measures_of_file(stream)
        clip = (
            stream.part(0, int(_SHOWN_S * info.rate))
            if whole_s > _SHOWN_S
            else sound.read_clip(data, name)[0]
        )
    if loop is not None and clip.loop is None and loop[1] <= clip.frames:
        clip = Clip(clip.samples, clip.rate, loop)
    musical = clip.length_s >= _MUSIC_S
    channels = {1: "mono", 2: "stereo"}.get(info.channels, f"{info.channels} channels")
    label = f"{info.codec}  {info.rate / 1000:g} kHz  {channels}"
    if whole_s > _SHOWN_S:
        label += f"  the beginning of {whole_s / 60:.0f} minutes"
    meter = sound.LoudnessMeter(clip.rate, clip.channels)
    meter.feed(clip.samples)
    return Lane(
        clip, sound.overview_of(clip), sound.short_term_loudness(clip.samples, clip.rate, CURVE_S), meter.momentary(),
        measures, sound.rhythm_of(clip) if musical else None, sound.key_of(clip) if musical else "", label,
    )  # fmt: skip


def _event(space: Workspace, path: str) -> EventContent | None:
    event, rule = event_of(space, path), space.profile.events
    if event is None or rule is None:
        return None
    game = space.demands.events[event.name]
    titles = space.profile.titles
    sounds = []
    for place, one in enumerate(event.sounds):
        swap = space.project.swap_for(one)
        shipped = space.catalogue.has(one)
        original = space.catalogue.read(space.catalogue.get(one)) if shipped else b""
        yours = space.examine(swap).data if swap is not None else b""
        waves = [_small(data, one) for data in (original, yours)]
        length = max((wave[1] for wave in waves if wave is not None), default=0.0)
        name = titles.get(one, f"{event.name} {place + 1}")
        sounds.append(
            Variation(one, name, waves[0][0] if waves[0] else None, waves[1][0] if waves[1] else None, length)
        )
    most = (rule.most or 99) if rule.new_sound else len(game.sounds)
    return EventContent(game, event, tuple(sounds), rule.unit, rule.least, most)


def _small(data: bytes, where: str) -> tuple[np.ndarray, float] | None:
    """A sound's shape for a card, and its length."""
    if not data:
        return None
    try:
        clip, _ = sound.read_clip(data, where)
    except FurnelError:
        return None
    return np.stack(sound.waveform(clip, min(160, clip.frames))), clip.length_s
