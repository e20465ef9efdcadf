"""Songs in parts: what a part's song says of it, which parts belong together, what tempo and key recordings have."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from pathlib import Path
from typing import TYPE_CHECKING, Any

from furnel.errors import FurnelError
from furnel.media import SoundSpec, Spec, sound_spec
from furnel.mods.asmade import as_made
from furnel.mods.project import Swap
from furnel.mods.render import read_source
from furnel.progress import QUIET, Progress, check
from furnel.sound import Rhythm
from furnel.texts import Document, Step, address_text, parse_address

if TYPE_CHECKING:
    from furnel.mods.workspace import Workspace

_LOW, _HIGH = 70.0, 180.0
_NEAR_WHOLE = 0.003
_SAME_LENGTH_S = 0.02


@dataclass(frozen=True, slots=True)
class Song:
    """What a song's record says; a tempo of 0 when it says none."""

    name: str
    title: str
    beats: int
    tempo: float
    key: str


def song_of(space: Workspace, path: str) -> Song | None:
    """The song that an asset is a part of, as the mod makes it; None for what is no part."""
    role = space.profile.role_of(path)
    if role is None or role.beats is None:
        return None
    rule, name = role.beats, path.split("/")[-2] if "/" in path else ""
    try:
        record = as_made(space, rule.file)
    except FurnelError:  # its own swap says what is wrong with it
        return Song(name, name, rule.count, 0.0, "")
    tempo, key, title = (_said(record, where, name) for where in (rule.tempo, rule.key, rule.title))
    number = float(tempo) if isinstance(tempo, int | float) and not isinstance(tempo, bool) else 0.0
    words = (key if isinstance(key, str) else "", title if isinstance(title, str) else name)
    return Song(name, words[1], rule.count, number if number > 0 else 0.0, words[0])


def parts_of(space: Workspace, path: str) -> tuple[str, ...]:
    """The inner paths of all parts of an asset's song, the game's and the mod's; none for what is no part of one."""
    role, folder = space.profile.role_of(path), path.rpartition("/")[0]
    if role is None or role.beats is None:
        return ()
    own = [swap.original for swap in space.project.swaps if swap.like]
    beside = {one for one in [*space.catalogue.assets.paths, *own] if one.rpartition("/")[0] == folder}
    roles = ((one, space.profile.role_of(one)) for one in sorted(beside))
    return tuple(one for one, other in roles if other is not None and other.beats == role.beats)


def _said(document: Document, where: str, name: str) -> object:
    """What a definition has at an address with a song's name in it; nothing when it has none."""
    at = parse_address(where.format(name=address_text((Step(name),))))
    return document.look(at) if where and document.has(at) else None


def as_part(space: Workspace, path: str, spec: Spec) -> Spec:
    """What an asset has to be, when it is a part of a song: as long as the song, in its tempo and key."""
    song = song_of(space, path) if isinstance(spec, SoundSpec) else None
    if song is None or not song.tempo or not isinstance(spec, SoundSpec):
        return spec
    frames = round(song.beats * 60 / song.tempo * spec.rate)
    grid = song.beats, song.tempo
    return replace(
        spec, frames=frames, loop=None, exact=True, loops=True, rhythm=None, grid=grid, told_key=song.key
    )


def together(space: Workspace, swaps: Sequence[Swap], heard: Mapping[Path, SoundSpec]) -> list[Swap]:
    """Parts of a song, those that were recorded together cut at the same place and as loud beside each other as they were.

    They were when their sources, whose specs are in `heard` by resolved path, are equally long; where the steadiest of them
    begins a bar all are cut. That counts as made by hand, so that no later fit tears them apart.
    """
    takes = {swap.original: heard.get(space.source_path(swap)) for swap in swaps}
    specs = {path: spec for path, spec in takes.items() if spec is not None}
    cut = [swap for swap in swaps if swap.original in specs and any(use.do == "bars" for use in swap.steps)]
    lengths = [specs[swap.original].length_s for swap in cut]
    if len(cut) < 2 or max(lengths) - min(lengths) > _SAME_LENGTH_S:
        return list(swaps)
    steadiest = max(cut, key=lambda swap: _steadiness(specs[swap.original].rhythm))
    lead = next(use for use in steadiest.steps if use.do == "bars").values
    targets = [float(use.values["target"]) for swap in cut for use in swap.steps if use.do == "loudness"]
    own = [specs[swap.original].loudness for swap in cut if math.isfinite(specs[swap.original].loudness)]
    louder = _together(targets) - _together(own)
    return [
        _cut_like(swap, lead, specs[swap.original].loudness + louder) if swap in cut else swap
        for swap in swaps
    ]


def _together(levels: Sequence[float]) -> float:
    """How loud some sounds are that nothing else connects, in LUFS."""
    return 10 * math.log10(sum(10 ** (level / 10) for level in levels) or 1.0)


def _steadiness(rhythm: Rhythm | None) -> float:
    return rhythm.steady if rhythm is not None else 0.0


def _cut_like(swap: Swap, lead: dict[str, Any], loudness: float) -> Swap:
    """A part cut as another is, and brought to a loudness in LUFS."""
    fresh: dict[str, dict[str, Any]] = {"bars": lead}
    if math.isfinite(loudness):
        fresh["loudness"] = {"target": round(loudness, 1)}
    steps = [
        use.model_copy(update={"values": {**use.values, **fresh[use.do]}, "auto": False})
        if use.do in fresh
        else use
        for use in swap.steps
    ]
    return swap.model_copy(update={"steps": tuple(steps)})


def listened(files: Sequence[Path], progress: Progress = QUIET) -> dict[Path, SoundSpec]:
    """The specs of some recordings, with rhythm and key, by their resolved paths; each is read once."""
    out = {}
    for file in dict.fromkeys(file.resolve() for file in files):
        check(progress, "Listening")
        progress.report(0, f"Listening to {file.name}")
        out[file] = sound_spec(read_source(file), str(file), None, with_rhythm=True)
    return out


def tempo_and_key(heard: Iterable[SoundSpec]) -> tuple[float, str]:
    """The tempo (beats a minute) of the steadiest of some recordings, 0 when none has a beat, and the key that most have."""
    specs = list(heard)
    rhythms = [spec.beats for spec in specs if spec.beats is not None]
    keys = Counter(spec.pitch for spec in specs if spec.pitch)
    tempo = max(rhythms, key=_steadiness).tempo if rhythms else 0.0
    while tempo and tempo < _LOW:
        tempo *= 2
    while tempo > _HIGH:
        tempo /= 2
    whole = float(round(tempo))
    near = whole if tempo and abs(tempo / whole - 1) <= _NEAR_WHOLE else round(tempo, 1)
    return near, keys.most_common(1)[0][0] if keys else ""
