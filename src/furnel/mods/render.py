"""From a source, through the steps, to the bytes that go into the mod."""

from __future__ import annotations

import hashlib
import json
import mmap
import stat
from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import cached_property, partial
from pathlib import Path
from typing import cast

from furnel import imagefiles
from furnel.atomic import write_bytes
from furnel.digests import code_mark
from furnel.errors import FurnelError, reason
from furnel.images.picture import Picture
from furnel.images.resample import resize
from furnel.media import PICTURE, SOUND, Encode, Media, medium_by_suffix, medium_of, medium_of_media
from furnel.mods.outside import checked
from furnel.mods.project import StepUse, Swap
from furnel.mods.steps import ALONE, Around, step_type
from furnel.progress import QUIET, Part, Progress, check
from furnel.sound import Clip, SoundStream
from furnel.texts import applied, document_of

_MADE_BY = (
    "blocks",
    "images",
    "imagefiles",
    "sprites",
    "sound",
    "texts",
    "media",
    "mods/steps",
    "mods/render",
)
_LONG = 1 << 25


_MOST_SOURCE = 4 << 30


def read_source(path: Path) -> bytes:
    """A source file's bytes; a long recording's are mapped, not read. Raises FurnelError when it is gone."""
    try:
        state = path.stat()
        if not stat.S_ISREG(state.st_mode) or (
            state.st_size > _MOST_SOURCE and medium_by_suffix(path) is not SOUND
        ):
            much = f"{state.st_size >> 30} GB are more than a source has"
            raise FurnelError(
                "Reading a source", where=path, why=much if stat.S_ISREG(state.st_mode) else "it is no file",
                remedy="Drop another file on the swap",
            )  # fmt: skip
        if state.st_size > _LONG and medium_by_suffix(path) is SOUND:
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
    domain = medium_of_media(media).name
    out: list[Media] = []
    for number, use in enumerate(steps):
        check(progress, "Applying steps")
        if not use.on:
            continue
        step = step_type(use.do)
        if step.domain != domain:
            raise FurnelError(
                "Applying steps", where=step.title, why=f"it is for a {step.domain}, and this is a {domain}"
            )
        progress.report(number / len(steps), step.title)
        values = use.checked()
        if told is not None:
            around = replace(around, tell=partial(told.__setitem__, number))
        media = step.apply(media, values if scale == 1.0 else step.scaled(values, scale), around)
        around = replace(around, frames=None, layers=None)
        out.append(media)
    return out


def staged(
    source: bytes, where: object, steps: Sequence[StepUse], progress: Progress = QUIET, around: Around = ALONE,
    told: dict[int, str] | None = None,
) -> tuple[Media | None, list[Media]]:  # fmt: skip
    """A source's media (None when it is neither picture nor sound), and what each step that is on gives.

    When the first step needs only a part of a sound, only that part is decoded.
    """
    first = next((number for number, use in enumerate(steps) if use.on), None)
    medium = medium_of(source, where)
    span = step_type(steps[first].do).span if first is not None else None
    if first is not None and span is not None and medium is SOUND:
        values = steps[first].checked()
        with SoundStream(source, where) as stream:
            clip = stream.part(*span(values, stream.info.rate, stream.info.frames))
        off = steps[first].model_copy(update={"on": False})
        rest = [*steps[:first], off, *steps[first + 1 :]]
        return clip, [clip, *apply_steps(clip, rest, progress, around, told=told)]
    media = medium.opened(source, where)
    if medium is PICTURE:
        around = with_several(around, source, where)
    return media, [] if media is None else apply_steps(media, steps, progress, around, told=told)


def with_several(around: Around, source: bytes, where: object) -> Around:
    """What a source's first step may look at, with what it has beside its first picture: frames, layers."""
    if imagefiles.is_layered(source):
        return replace(around, layers=lambda: imagefiles.read_layers(source, where))
    if imagefiles.is_animated(source):
        return replace(around, frames=lambda: imagefiles.read_frames(source, where))
    return around


def encode_media(media: Media, encode: Encode, progress: Progress = QUIET) -> bytes:
    """The file that `encode` asks for. Raises FurnelError when the media is of another kind."""
    return medium_of_media(media).written(media, encode, progress)


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
        named = [name for use in uses for name in step_type(use.do).files_in(use.values)]
        for name in named:
            if self._file(name).is_file():
                digest.update(read_source(self._file(name)))
        self.digest = digest.hexdigest() if self._original or named else ""

    @cached_property
    def around(self) -> Around:
        """The same for the steps. Raises FurnelError when the original is damaged."""
        original = medium_of(self._original, self._where).opened(self._original, self._where)
        return replace(self.files, original=original if isinstance(original, Picture) else None)

    @property
    def files(self) -> Around:
        """The files alone, without the original."""
        return Around(None, self.open_file, self.open_sound)

    def _file(self, name: str) -> Path:
        """A file that a step names; a project reads none outside its folder that nobody chose."""
        path = self._folder / name
        return checked(self._project, path) if self._project is not None else path

    def open_sound(self, name: str) -> Clip:
        """The sound in a file that a step names."""
        path = self._file(name)
        return SOUND.opened(read_source(path), path)

    def open_file(self, name: str) -> Picture:
        """The picture in a file that a step names."""
        path = self._file(name)
        return PICTURE.opened(read_source(path), path)


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
    changed: Callable[[], bytes] | None = None,
) -> bytes:
    """The swap's result. With no steps and no encoding it is the source as it is. Results are kept in `cache`.

    `changed` gives a definition with the swap's changes, where that is at hand.
    """
    active = [use for use in swap.steps if use.on]
    if not active and not swap.keeps_name:
        return source
    beside = beside or Surroundings()
    kept = cache / result_key(swap, source, beside) if cache is not None else None
    if kept is not None and kept.is_file():
        return kept.read_bytes()
    if not swap.source:
        data = (
            changed() if changed is not None else applied(document_of(source, swap.base), swap.changes).data
        )
        if kept is not None:
            write_bytes(kept, data)
        return data
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
        "code": code_mark(*_MADE_BY),
        "steps": [[use.do, use.checked()] for use in swap.steps if use.on],
        "encode": swap.encode.model_dump() if swap.encode else None,
        "beside": beside.digest if beside else "",
        "changes": [change.model_dump(mode="json") for change in swap.changes],
    }
    digest = hashlib.sha256(source)
    digest.update(json.dumps(recipe, sort_keys=True).encode())
    return digest.hexdigest()
