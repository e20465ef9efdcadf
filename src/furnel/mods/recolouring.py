"""Exact colours changed in many files at once, each written as the kind of file that it is."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path

from pydantic import ValidationError

from furnel.atomic import write_bytes
from furnel.errors import FurnelError
from furnel.images.picture import Picture, Rgb
from furnel.media import PICTURE, Encode, PictureSpec
from furnel.mods.render import read_source
from furnel.parallel import each
from furnel.progress import QUIET, Progress
from furnel.sprites import colours_seen, recoloured

_NEAR = 12  # what is as near as this to a colour that was changed was probably forgotten


@dataclass(frozen=True, slots=True)
class Recoloured:
    """A file, how many of its pixels changed, colours that are nearly one of those and stayed, where the result is (None: it
    has none of the colours), or why there is none."""

    file: Path
    pixels: int = 0
    left_over: str = ""
    target: Path | None = None
    refused: str = ""


def recolour_files(
    files: Iterable[Path], target: Path, changes: Mapping[Rgb, Rgb], progress: Progress = QUIET
) -> list[Recoloured]:
    """Recolour files and all pictures below folders into a folder, on all cores; files that have none of the colours are left.

    Raises FurnelError when a result would take its own source's place, or two would be one file.
    """
    found: dict[Path, Path] = {}
    for file in files:
        inner = (
            sorted(one for one in file.rglob("*") if one.suffix.lower() in PICTURE.suffixes)
            if file.is_dir()
            else [file]
        )
        for one in inner:
            place = target / (one.relative_to(file) if file.is_dir() else one.name)
            if place.resolve() == one.resolve() or place in found.values():
                raise FurnelError(
                    "Changing colours", where=place,
                    why="a source is there" if place.resolve() == one.resolve() else "two results would be this file",
                    remedy="Choose another folder for --out, or do them one after the other",
                )  # fmt: skip
            found[one] = place
    return each(
        list(found),
        lambda file, _: _one(file, found[file], changes),
        progress,
        "Changing colours",
        lambda file: file.name,
    )


def _one(file: Path, target: Path, changes: Mapping[Rgb, Rgb]) -> Recoloured:
    try:
        data = read_source(file)
        spec = PICTURE.spec(data, str(file), None)
        picture = PICTURE.opened(data, file)
        assert isinstance(picture, Picture)
        out, done = recoloured(picture, changes)
        if not done:
            return Recoloured(file)
        try:
            encode = _encode(spec, changes)
        except ValidationError:  # pydantic's: this kind of file is read and never written
            return Recoloured(
                file, refused=f"{spec.file_type} is not written: save it as PNG, then change its colours"
            )
        write_bytes(target, PICTURE.written(out, encode))
    except FurnelError as error:
        return Recoloured(file, refused=error.sentence())
    return Recoloured(file, done, _left_over(out, changes), target)


def _encode(spec: PictureSpec, changes: Mapping[Rgb, Rgb]) -> Encode:
    """As the file was; the colours of a palette keep their numbers."""
    encode = PICTURE.encoding_like(spec)
    table = encode.notes.get("table", "")
    if not table:
        return encode
    rows = [bytes.fromhex(table[at : at + 8]) for at in range(0, len(table), 8)]
    new = [bytes(changes.get((row[0], row[1], row[2]), (row[0], row[1], row[2]))) + row[3:] for row in rows]
    return encode.model_copy(update={"notes": {**encode.notes, "table": b"".join(new).hex()}})


def _left_over(picture: Picture, changes: Mapping[Rgb, Rgb]) -> str:
    new = set(changes.values())
    near = [
        colour.hex for colour in colours_seen([picture])
        if colour.rgb not in new and any(_apart(colour.rgb, old) <= _NEAR for old in changes)
    ]  # fmt: skip
    return " ".join(near)


def _apart(one: Sequence[int], other: Sequence[int]) -> int:
    return max(abs(a - b) for a, b in zip(one, other, strict=True))
