"""From a source, through the steps, to the bytes that go into the mod."""

from __future__ import annotations

import hashlib
import json
import mmap
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, partial
from pathlib import Path
from typing import cast

import numpy as np

from furnel import blocks, imagefiles, sound, texts
from furnel.atomic import write_bytes
from furnel.errors import FurnelError, reason
from furnel.images.picture import Picture
from furnel.images.resample import level_chain, resize, volume_chain
from furnel.images.texture import Texture
from furnel.mods.outside import checked
from furnel.mods.project import Encode, StepUse, Swap
from furnel.mods.steps import ALONE, Around, step_type
from furnel.mods.steps.sounds import span_of
from furnel.progress import QUIET, Part, Progress, check
from furnel.sound import Clip

_CACHE_VERSION = 6
_LONG = 1 << 25

Media = Picture | Clip
_LOSSY_QUALITY = {"fast": 0.3, "good": 0.6, "best": 0.9}


@dataclass(frozen=True, slots=True)
class Stage:
    """A source opened: its media when it is a picture or a sound, and its bytes."""

    media: Media | None
    data: bytes


def read_source(path: Path) -> bytes:
    """A source file's bytes; a long recording's are mapped, not read. Raises FurnelError when it is gone."""
    try:
        if path.stat().st_size > _LONG and path.suffix.lower() in sound.SUFFIXES:
            with path.open("rb") as file:
                return cast(bytes, memoryview(mmap.mmap(file.fileno(), 0, access=mmap.ACCESS_READ)))
        return path.read_bytes()
    except OSError as error:
        raise FurnelError(
            "Reading a source",
            where=path,
            why=reason(error),
            remedy="Put the file back, or drop another one on the swap",
        ) from error


def open_source(data: bytes, where: object) -> Stage:
    """A source's media. Raises FurnelError when it is neither picture, sound nor text."""
    if sound.recognises(data):
        return Stage(sound.read_clip(data, where)[0], data)
    if imagefiles.recognises(data) and texts.format_of(str(where)) is None:
        return Stage(imagefiles.decode_level(imagefiles.read_texture(data, where)), data)
    return Stage(None, data)


def apply_steps(
    media: Media,
    steps: Sequence[StepUse],
    progress: Progress = QUIET,
    around: Around = ALONE,
    scale: float = 1.0,
    told: dict[int, str] | None = None,
) -> list[Media]:
    """What every step that is on gives, in order; the last one is the result. Empty when none is on.

    What steps say of their work goes into `told` by their place. `scale` is how large the media (and the original in
    `around`) is beside the real one: settings in pixels follow.
    """
    kind = "picture" if isinstance(media, Picture) else "sound"
    out: list[Media] = []
    for number, use in enumerate(steps):
        check(progress, "Applying steps")
        if not use.on:
            continue
        step = step_type(use.do)
        if step.kind != kind:
            raise FurnelError(
                "Applying steps", where=step.title, why=f"it is for a {step.kind}, and this is a {kind}"
            )
        progress.report(number / len(steps), step.title)
        values = use.checked()
        if told is not None:
            around = replace(around, tell=partial(told.__setitem__, number))
        media = step.apply(media, values if scale == 1.0 else step.scaled(values, scale), around)
        out.append(media)
    return out


def staged(
    source: bytes, where: object, steps: Sequence[StepUse], progress: Progress = QUIET, around: Around = ALONE,
    told: dict[int, str] | None = None,
) -> tuple[Media | None, list[Media]]:  # fmt: skip
    """A source's media (None when it is neither picture nor sound), and what each step that is on gives.

    When the first step takes a part of a sound, only that part is decoded.
    """
    first = next((number for number, use in enumerate(steps) if use.on), None)
    if first is not None and steps[first].do == "part" and sound.recognises(source):
        values = steps[first].checked()
        with sound.SoundStream(source, where) as stream:
            clip = stream.part(*span_of(values, stream.info.rate, stream.info.frames))
        off = steps[first].model_copy(update={"on": False})
        rest = [*steps[:first], off, *steps[first + 1 :]]
        return clip, [clip, *apply_steps(clip, rest, progress, around, told=told)]
    media = open_source(source, where).media
    return media, [] if media is None else apply_steps(media, steps, progress, around, told=told)


def encode_media(media: Media, encode: Encode, progress: Progress = QUIET) -> bytes:
    """The file that `encode` asks for. Raises FurnelError when the media is of another kind."""
    if isinstance(media, Clip):
        quality = _LOSSY_QUALITY[encode.quality]
        return sound.write_clip(
            media, encode.file, encode.format, quality, _sound_notes(encode.notes, media.frames)
        )
    texture = encode_levels(media, encode, progress)
    return imagefiles.write_texture(texture)


def _sound_notes(notes: Mapping[str, str], frames: int) -> sound.SoundNotes:
    """What an encoding says of tags (`tag title`) and marked places (`cue 441`: its name, by the frame)."""
    tags = {key[4:]: value for key, value in notes.items() if key.startswith("tag ")}
    places = {
        int(key[4:]): name for key, name in notes.items() if key.startswith("cue ") and key[4:].isdecimal()
    }
    cues = tuple(sound.Cue(frame, name) for frame, name in sorted(places.items()) if frame <= frames)
    return sound.SoundNotes(None, cues, tags)


def encode_levels(picture: Picture, encode: Encode, progress: Progress = QUIET) -> Texture:
    """A picture encoded with its levels, not yet a file. For several pictures it holds them one below the other."""
    notes = dict(encode.notes)
    srgb = {"on": True, "off": False}.get(notes.pop("srgb", ""))
    if encode.levels_as in ("normals", "values"):
        notes.pop("weighting", None)  # what no eye sees as colours
    parts = _parts(picture, encode.pictures)
    deepest = max(*parts[0].size, len(parts) if encode.shape == "volume" else 1)
    count = min(encode.levels, deepest.bit_length())  # of a wrong size there may be fewer
    if encode.shape == "volume":
        levels = volume_chain(parts, count)
    else:
        chains = [level_chain(part, count, encode.levels_as, encode.repeats) for part in parts]
        levels = [list(level) for level in zip(*chains, strict=True)]
    return imagefiles.encode_pictures(
        levels,
        encode.format or "RGBA8",
        encode.file,
        shape=encode.shape,
        quality=encode.quality,
        srgb=srgb,
        notes=tuple(notes.items()),
        progress=progress,
    )


def _parts(picture: Picture, count: int) -> list[Picture]:
    """The pictures that lie one below the other in one."""
    if count == 1:
        return [picture]
    if picture.height % count:
        raise FurnelError(
            "Encoding",
            why=f"{picture.height} rows are not {count} pictures one below the other",
            remedy="Bring it to the original's size",
        )
    high = picture.height // count
    return [
        Picture(np.ascontiguousarray(picture.pixels[place * high : (place + 1) * high]))
        for place in range(count)
    ]


class Surroundings:
    """What the steps of a swap look at beside its source: the original's bytes (when a step needs it) and the files that
    steps name, relative to `folder`. `digest` tells them apart for the result's key; they are decoded when they are used.
    """

    def __init__(
        self, steps: Sequence[StepUse] = (), original: bytes = b"", where: object = "", folder: Path = Path(),
        project: Path | None = None,
    ) -> None:  # fmt: skip
        self._where, self._folder, self._project = where, folder, project
        uses = [use for use in steps if use.on]
        self._original = original if looks_at_original(uses) else b""
        digest = hashlib.sha256(self._original)
        named = [str(use.values.get(name, "")) for use in uses for name in step_type(use.do).file_settings]
        for name in filter(None, named):
            if self._file(name).is_file():
                digest.update(read_source(self._file(name)))
        self.digest = digest.hexdigest() if self._original or any(named) else ""

    @cached_property
    def around(self) -> Around:
        """The same for the steps. Raises FurnelError when the original is damaged."""
        picture = None
        if imagefiles.recognises(self._original):
            picture = imagefiles.decode_level(imagefiles.read_texture(self._original, self._where))
        return Around(picture, self.open_file, self.open_sound)

    def _file(self, name: str) -> Path:
        """A file that a step names; a project reads none outside its folder that nobody chose."""
        path = self._folder / name
        return checked(self._project, path) if self._project is not None else path

    def open_sound(self, name: str) -> Clip:
        """The sound in a file that a step names."""
        path = self._file(name)
        return sound.read_clip(read_source(path), path)[0]

    def open_file(self, name: str) -> Picture:
        """The picture in a file that a step names."""
        path = self._file(name)
        return imagefiles.decode_level(imagefiles.read_texture(read_source(path), path))


def looks_at_original(steps: Sequence[StepUse]) -> bool:
    """Whether any of the steps that are on looks at the original."""
    return any(step_type(use.do).uses_original for use in steps if use.on)


def reduced(media: Picture, scale: float) -> Picture:
    """A picture at a part of its size, for a quick look."""
    if scale >= 1:
        return media
    width, height = max(round(media.width * scale), 1), max(round(media.height * scale), 1)
    return resize(media, width, height, "area")


def render(
    swap: Swap,
    source: bytes,
    where: object,
    cache: Path | None = None,
    progress: Progress = QUIET,
    beside: Surroundings | None = None,
) -> bytes:
    """The swap's result. With no steps and no encoding it is the source as it is. Results are kept in `cache`."""
    active = [use for use in swap.steps if use.on]
    if not active and swap.encode is None:
        return source
    beside = beside or Surroundings()
    kept = cache / result_key(swap, source, beside) if cache is not None else None
    if kept is not None and kept.is_file():
        return kept.read_bytes()
    opened, done = staged(source, where, active, progress, beside.around)
    if opened is None:
        raise FurnelError(
            "Fitting", where=where, why="it is neither a picture nor a sound", remedy="Remove its steps"
        )
    media = done[-1] if done else opened
    check(progress, "Encoding")
    if swap.encode is None:
        raise FurnelError(
            "Fitting",
            where=where,
            why="it has steps and no encoding",
            remedy="Use Fit all, which chooses one",
        )
    progress.report(0.6, f"Encoding {Path(str(where)).name}")
    data = encode_media(media, swap.encode, progress if progress is QUIET else Part(progress, 0.6, 1.0))
    if kept is not None:
        write_bytes(kept, data)
    return data


def result_key(swap: Swap, source: bytes, beside: Surroundings | None = None) -> str:
    """A name for the swap's result that changes with anything it is made from."""
    recipe = {
        "versions": [_CACHE_VERSION, blocks.ENCODER_VERSION],
        "steps": [[use.do, use.checked()] for use in swap.steps if use.on],
        "encode": swap.encode.model_dump() if swap.encode else None,
        "beside": beside.digest if beside else "",
    }
    digest = hashlib.sha256(source)
    digest.update(json.dumps(recipe, sort_keys=True).encode())
    return digest.hexdigest()
