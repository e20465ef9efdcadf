"""Taking assets out of a game: as they are, or as files that every editor opens."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Literal

from furnel import imagefiles, sound
from furnel.atomic import write_bytes
from furnel.containers import check_path
from furnel.errors import FurnelError
from furnel.images.texture import Texture
from furnel.progress import QUIET, Progress, steps

Form = Literal["raw", "png", "wav"]
FORMS: tuple[Form, ...] = ("raw", "png", "wav")


def take_out(
    paths: Sequence[str],
    read: Callable[[str], bytes],
    folder: Path,
    form: Form = "raw",
    progress: Progress = QUIET,
) -> list[Path]:
    """Write assets below `folder` under their inner paths; the files written.

    With `png` or `wav` only pictures or sounds are converted, the rest stays as it is. Raises FurnelError for damage.
    """
    out = []
    for path in steps(paths, len(paths), progress, "Taking out"):
        data, suffix = converted(read(check_path(path, folder)), path, form)
        target = folder / path
        target = target.with_suffix(suffix) if suffix else target
        write_bytes(target, data)
        out.append(target)
    return out


def converted(data: bytes, path: str, form: Form) -> tuple[bytes, str]:
    """An asset's bytes in another form, with the file ending that goes with it (empty: its own)."""
    if form == "png" and imagefiles.recognises(data) and not sound.recognises(data):
        texture = imagefiles.read_texture(data, path)
        picture = imagefiles.decode_level(texture)
        plain = Texture(picture.width, picture.height, "RGBA8", (picture.pixels.tobytes(),), "PNG")
        return imagefiles.write_texture(plain), ".png"
    if form == "wav" and sound.recognises(data):
        clip, info = sound.read_clip(data, path)
        codec = info.codec if info.codec in ("PCM 16", "PCM 24", "PCM 32", "float 32") else "PCM 16"
        return sound.write_clip(clip, "WAV", codec), ".wav"
    if form not in FORMS:
        raise FurnelError("Taking out", why=f"there is no form {form!r}", remedy="Use raw, png or wav")
    return data, ""
