"""From a source, through the steps, to the bytes that go into the mod."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from furnel import blocks, imagefiles, sound, texts
from furnel.atomic import write_bytes
from furnel.errors import FurnelError, reason
from furnel.images.picture import Picture
from furnel.images.resample import level_chain
from furnel.images.texture import Texture
from furnel.mods.project import Encode, StepUse, Swap
from furnel.mods.steps import step_type
from furnel.progress import QUIET, Part, Progress, check
from furnel.sound import Clip

_CACHE_VERSION = 1

Media = Picture | Clip


@dataclass(frozen=True, slots=True)
class Stage:
    """A source opened: its media when it is a picture or a sound, and its bytes."""

    media: Media | None
    data: bytes


def read_source(path: Path) -> bytes:
    """A source file's bytes. Raises FurnelError when it is gone."""
    try:
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


def apply_steps(media: Media, steps: Sequence[StepUse], progress: Progress = QUIET) -> list[Media]:
    """What every step that is on gives, in order; the last one is the result. Empty when none is on."""
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
        media = step.apply(media, use.checked())
        out.append(media)
    return out


def encode_media(media: Media, encode: Encode, progress: Progress = QUIET) -> bytes:
    """The file that `encode` asks for. Raises FurnelError when the media is of another kind."""
    if isinstance(media, Clip):
        return sound.write_clip(media, encode.file, encode.format)
    texture = encode_levels(media, encode, progress)
    return imagefiles.write_texture(texture)


def encode_levels(picture: Picture, encode: Encode, progress: Progress = QUIET) -> Texture:
    """A picture encoded with its levels, not yet a file."""
    levels = level_chain(picture, encode.levels)
    notes = dict(encode.notes)
    srgb = {"on": True, "off": False}.get(notes.pop("srgb", ""))
    return imagefiles.encode_texture(
        levels,
        encode.format or "RGBA8",
        encode.file,
        quality=encode.quality,
        srgb=srgb,
        notes=tuple(notes.items()),
        progress=progress,
    )


def render(
    swap: Swap, source: bytes, where: object, cache: Path | None = None, progress: Progress = QUIET
) -> bytes:
    """The swap's result. With no steps and no encoding it is the source as it is. Results are kept in `cache`."""
    active = [use for use in swap.steps if use.on]
    if not active and swap.encode is None:
        return source
    kept = cache / result_key(swap, source) if cache is not None else None
    if kept is not None and kept.is_file():
        return kept.read_bytes()
    stage = open_source(source, where)
    if stage.media is None:
        raise FurnelError(
            "Fitting", where=where, why="it is neither a picture nor a sound", remedy="Remove its steps"
        )
    done = apply_steps(stage.media, active, progress)
    media = done[-1] if done else stage.media
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


def result_key(swap: Swap, source: bytes) -> str:
    """A name for the swap's result that changes with anything it is made from."""
    recipe = {
        "versions": [_CACHE_VERSION, blocks.ENCODER_VERSION],
        "steps": [use.model_dump() for use in swap.steps if use.on],
        "encode": swap.encode.model_dump() if swap.encode else None,
    }
    digest = hashlib.sha256(source)
    digest.update(json.dumps(recipe, sort_keys=True).encode())
    return digest.hexdigest()
