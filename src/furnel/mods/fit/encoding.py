"""The encoding that gives a file like the original."""

from __future__ import annotations

from collections.abc import Sequence

from furnel import sound
from furnel.images.formats import FORMATS
from furnel.mods.project import Encode, LevelsAs
from furnel.mods.soundspec import SoundSpec
from furnel.mods.spec import PictureSpec, Spec

_KEPT_NOTES = (
    "header", "rows", "run-length", "mode", "alpha", "row alignment", "supercompression", "palette", "alpha bit", "footer",
)  # fmt: skip
# tags that say what a recording is and whose: they are not another recording's
DESCRIBING = frozenset({
    "title", "artist", "album", "albumartist", "tracknumber", "discnumber", "date", "year", "genre", "comment", "description",
    "copyright", "license", "composer", "performer", "lyricist", "conductor", "arranger", "organization", "publisher",
    "contact", "isrc", "website", "location", "version",
})  # fmt: skip


def encoding_like(original: Spec) -> Encode | None:
    """The encoding like an original's, tags included; None for what is never encoded."""
    if isinstance(original, PictureSpec):
        return _like_picture(original)
    return _like_sound(original) if isinstance(original, SoundSpec) else None


def encoding_kept(original: Spec, insist: Sequence[str] = (), now: Encode | None = None) -> Encode | None:
    """The same, with what is in `insist` left as it is `now`."""
    encode = encoding_like(original)
    if now is None or encode is None:
        return encode
    if isinstance(original, SoundSpec):
        return now if {"file", "codec"} & set(insist) else encode
    if {"format", "file"} & set(insist):
        encode = encode.model_copy(update={"file": now.file, "format": now.format, "notes": now.notes})
    if "levels" in insist:
        encode = encode.model_copy(update={"levels": now.levels})
    encode = encode.model_copy(update={"quality": now.quality})
    if (weighting := now.notes.get("weighting")) is not None:
        encode = encode.model_copy(update={"notes": {**encode.notes, "weighting": weighting}})
    return encode


def _like_picture(original: PictureSpec) -> Encode:
    notes = {key: value for key, value in original.notes if key in _KEPT_NOTES}
    if original.srgb is not None and original.file_type in ("DDS", "KTX2"):
        notes["srgb"] = "on" if original.srgb else "off"
    if original.file_type == "PNG":
        notes = {"mode": "palette", "table": original.note("table")} if original.colours else {}
    if original.brightest > 1:
        notes["white"] = f"{original.brightest:.3g}"
    if original.format == "BC1" and original.alpha == "none":
        notes["cut-out"] = "off"
    levels_as: LevelsAs = "colour"
    if original.levels > 1:
        if original.meaning == "normals":
            levels_as = "normals"
        elif original.meaning == "masks" or FORMATS[original.format].channels in ("R", "RG", "A"):
            levels_as = "values"
        elif original.alpha == "cut-out":
            levels_as = "cut-out"
    return Encode(
        file=original.file_type, format=original.format, levels=original.levels, levels_as=levels_as,
        repeats=original.repeats, shape=original.shape, pictures=original.pictures, notes=notes,
    )  # fmt: skip


def _like_sound(original: SoundSpec) -> Encode:
    file_type, codec = sound.writable_as(original.file_type, original.codec)
    if codec != original.codec:
        return Encode(file=file_type, format=codec, levels=1)
    notes = {f"tag {name}": value for name, value in original.tags if name not in DESCRIBING}
    notes |= {f"cue {cue.frame}": cue.name for cue in original.cues}
    return Encode(file=file_type, format=codec, levels=1, notes=notes)
