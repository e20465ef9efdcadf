"""Textures and sheets: what their pixels and their file say, and how they are written like their original."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from furnel import imagefiles
from furnel.errors import FurnelError
from furnel.games import RoleRule
from furnel.images.alpha import Under, under_alpha
from furnel.images.colour import alpha_use, brightness
from furnel.images.detail import Tiles, seam
from furnel.images.formats import FORMATS
from furnel.images.picture import Picture
from furnel.images.resample import LevelsAs, level_chain, shrunk, volume_chain
from furnel.images.texture import Shape, Texture
from furnel.images.tones import colours_of, contrast
from furnel.media.encode import Encode
from furnel.media.medium import Data, Facts, Kind, Media, Medium, Preview, Rows, Spec
from furnel.progress import QUIET, Progress
from furnel.sprites import SheetLook, Standing, background, crossings, looked_at, standings
from furnel.words import number

SIDE = 256
Meaning = Literal["colour", "grey", "normals", "masks"]


@dataclass(frozen=True, slots=True)
class PictureSpec(Spec):
    """A texture or sheet. `alpha` is `none`, `cut-out` or `smooth`; `brightness` and `contrast` 0 to 1; `cell` only for sheets.

    `under` is what lies under clear pixels, `seams` how much the edges differ across and down where it `repeats`,
    `colours` the size of a palette (0 for true colour), `brightest` a multiple of white, `ink` the share of the keep-out
    areas that is painted, `crossed` how many borders between cells something is drawn across, `standing` how the figures
    stand in these, `sheet` what else is seen of a sheet of whole cells; `meets` at which sides each of its tiles goes on.
    """

    file_type: str
    width: int
    height: int
    format: str
    levels: int
    alpha: str
    brightness: float
    srgb: bool | None = None
    notes: tuple[tuple[str, str], ...] = ()
    cell: tuple[int, int] | None = None
    frames: int = 0
    background: tuple[int, int, int] | None = None
    shape: Shape = "flat"
    pictures: int = 1
    meaning: Meaning = "colour"
    contrast: float = 0.0
    under: Under = "none"
    repeats: Tiles = "no"
    seams: tuple[float, float] = (1.0, 1.0)
    colours: int = 0
    brightest: float = 1.0
    ink: float = 0.0
    has_keep_out: bool = False
    crossed: int = 0
    standing: tuple[Standing, ...] = ()
    sheet: SheetLook | None = None
    meets: tuple[str, ...] = ()

    @property
    def kind(self) -> Kind:
        return "sheet" if self.cell is not None else "texture"

    def note(self, key: str) -> str:
        return dict(self.notes).get(key, "")


def picture_spec(texture: Texture, picture: Picture, role: RoleRule | None) -> PictureSpec:
    """The spec of a texture whose first level is `picture`."""
    cell = role.cell if role is not None else None
    layout = role.layout if role is not None else None
    count = crossed = 0
    standing: tuple[Standing, ...] = ()
    look: SheetLook | None = None
    if layout is not None:
        try:
            grid, ink = layout.grid(picture), layout.ink(picture)
            crossed, standing = crossings(ink, grid), standings(picture, grid, grid.count, ink)
            look = looked_at(picture, layout, grid, ink, role.meets if role is not None else ())
            count = (
                sum(place < grid.columns * grid.rows(picture.height) for place in layout.used) or grid.count
            )
        except FurnelError:
            count = 0
    part = _window(picture)
    repeats = role.tiles if role is not None else "no"
    keep_out = role.keep_out if role is not None else ()
    return PictureSpec(
        texture.file_type, texture.width, texture.height, texture.format, len(texture.levels), alpha_use(picture.pixels),
        brightness(picture.pixels), texture.srgb, texture.notes, cell, count, background(picture), texture.shape,
        texture.pictures, channel_meaning(texture, part, role), contrast(part), under_alpha(part.pixels), repeats,
        (seam(picture.pixels, 1), seam(picture.pixels, 0)) if repeats != "no" else (1.0, 1.0), _palette_of(texture, picture),
        imagefiles.brightest(texture), _ink(picture, keep_out), bool(keep_out), crossed, standing, look,
        role.meets if role is not None else (),
    )  # fmt: skip


def channel_meaning(texture: Texture, picture: Picture, role: RoleRule | None) -> Meaning:
    """What the channels are: as the role says, as the format suggests, or as the pixels look."""
    if role is not None and role.channels is not None:
        return role.channels
    channels = texture.pixel_format.channels
    if channels == "RG":
        return "normals"
    if channels in ("R", "A"):
        return "masks"
    seen = picture.pixels[picture.pixels[..., 3] > 0][:, :3].astype(np.float32)
    if not len(seen):
        return "colour"
    if float(np.mean(seen.max(axis=1) - seen.min(axis=1) <= 4)) > 0.995:
        return "grey" if role is not None and "tint" in role.does else "colour"
    directions = seen / 127.5 - 1
    length = np.sqrt((directions**2).sum(axis=1))
    facing = float(np.mean((np.abs(length - 1) < 0.08) & (directions[:, 2] > 0.3)))
    return "normals" if facing > 0.95 and float(seen[:, 2].mean()) > 180 else "colour"


def _window(picture: Picture) -> Picture:
    """The picture, or the middle of a large one: enough for what is told of its colours."""
    if picture.width * picture.height <= 1 << 21:
        return picture
    left, top = max((picture.width - 1448) // 2, 0), max((picture.height - 1448) // 2, 0)
    return Picture(np.ascontiguousarray(picture.pixels[top : top + 1448, left : left + 1448]))


def _palette_of(texture: Texture, picture: Picture) -> int:
    """How many colours the file's palette has in use; 0 for true colour."""
    if texture.note("mode") != "palette" and not texture.note("palette"):
        return 0
    colours = colours_of(picture)
    return len(colours) if colours is not None else 0


def _ink(picture: Picture, keep_out: tuple[tuple[int, int, int, int], ...]) -> float:
    """The share of the keep-out areas' pixels that are not clear."""
    total = painted = 0
    for left, top, width, height in keep_out:
        part = picture.pixels[top : top + height, left : left + width, 3]
        total += part.size
        painted += int(np.count_nonzero(part > 8))
    return painted / total if total else 0.0


def picture_preview(picture: Picture) -> Preview:
    """A small picture of one in memory."""
    return Preview(picture=shrunk(picture, SIDE))


class _Picture(Medium):
    name = "picture"
    called = "picture"
    kinds = ("texture", "sheet")
    titles = ("Textures", "Sheets")
    spec_type = PictureSpec
    suffixes = imagefiles.SUFFIXES
    plain = "png"
    has_likeness = True

    def recognises(self, data: Data, path: str) -> bool:
        return imagefiles.recognises(data)

    def header(self, head: Data) -> Data:
        return imagefiles.header_bytes(head)

    def facts(self, data: Data, size: int, path: str, does: frozenset[str]) -> Facts:
        texture = imagefiles.read_header(data, path)
        by_format = imagefiles.picture_file(texture.file_type).known_by_format
        label = texture.format if by_format else texture.file_type
        kind: Kind = "sheet" if "sheet" in does else "texture"
        return Facts(kind, label, texture.width, texture.height, len(texture.levels))

    def spec(self, data: Data, path: str, role: RoleRule | None) -> PictureSpec:
        texture = imagefiles.read_texture(data, path)
        return picture_spec(texture, imagefiles.decode_level(texture), role)

    def rows(self, facts: Facts, spec: Spec | None) -> Rows:
        whole = facts.levels == max(facts.width, facts.height).bit_length()
        chain = f"{facts.levels}, full chain" if whole else str(facts.levels)
        rows = [
            ("Size", f"{number(facts.width)} × {number(facts.height)}"),
            ("Format", facts.format),
            ("Levels", chain if facts.levels > 1 else "1"),
        ]
        if isinstance(spec, PictureSpec):
            alpha = "none used" if spec.alpha == "none" else spec.alpha
            rows += [("Alpha", alpha), ("Brightness", f"{spec.brightness:.0%}")]
            if spec.cell is not None and spec.frames:
                rows.insert(1, ("Frames", f"{spec.frames} of {spec.cell[0]} × {spec.cell[1]}"))
            if spec.note("rows"):
                rows.insert(3, ("Rows", f"{spec.note('rows')}, run-length {spec.note('run-length')}"))
        return rows

    def preview(self, data: Data, where: object) -> Preview:
        return picture_preview(imagefiles.read_small(data, SIDE, where))

    def opened(self, data: Data, where: object) -> Picture:
        return imagefiles.decode_level(imagefiles.read_texture(data, where))

    def glanced(self, data: Data, where: object, side: int) -> Picture:
        return imagefiles.read_small(data, side, where)

    def same_content(self, one: bytes, other: bytes, facts: Facts, where: object) -> bool:
        head = imagefiles.read_header(one, where)
        if (head.width, head.height) != (facts.width, facts.height):
            return False
        a, b = (self.opened(data, where).pixels for data in (one, other))
        return bool(np.array_equal(np.where(a[..., 3:] > 0, a, 0), np.where(b[..., 3:] > 0, b, 0)))

    def written(self, media: Media, encode: Encode, progress: Progress = QUIET) -> bytes:
        assert isinstance(media, Picture)
        return imagefiles.write_texture(encode_levels(media, encode, progress))

    def as_plain(self, data: bytes, where: object) -> tuple[bytes, str]:
        picture = self.opened(data, where)
        plain = Texture(picture.width, picture.height, "RGBA8", (picture.pixels.tobytes(),), "PNG")
        return imagefiles.write_texture(plain), ".png"

    def encoding_like(self, original: PictureSpec) -> Encode:
        return Encode(
            file=original.file_type, format=original.format, levels=original.levels, levels_as=_levels_as(original),
            repeats=original.repeats, shape=original.shape, pictures=original.pictures, notes=_notes_like(original),
        )  # fmt: skip

    def encoding_kept(self, encode: Encode, now: Encode, insist: frozenset[str]) -> Encode:
        if {"format", "file"} & insist:
            encode = encode.model_copy(update={"file": now.file, "format": now.format, "notes": now.notes})
        if "levels" in insist:
            encode = encode.model_copy(update={"levels": now.levels})
        encode = encode.model_copy(update={"quality": now.quality})
        if (weighting := now.notes.get("weighting")) is not None:
            encode = encode.model_copy(update={"notes": {**encode.notes, "weighting": weighting}})
        return encode


def _levels_as(original: PictureSpec) -> LevelsAs:
    if original.levels == 1:
        return "colour"
    if original.meaning == "normals":
        return "normals"
    if original.meaning == "masks" or FORMATS[original.format].channels in ("R", "RG", "A"):
        return "values"
    return "cut-out" if original.alpha == "cut-out" else "colour"


def _notes_like(original: PictureSpec) -> dict[str, str]:
    file = imagefiles.picture_file(original.file_type)
    notes = file.kept(dict(original.notes))
    if original.srgb is not None and file.has_colour_space:
        notes["srgb"] = "on" if original.srgb else "off"
    if original.brightest > 1:
        notes["white"] = f"{original.brightest:.3g}"
    if original.format == "BC1" and original.alpha == "none":
        notes["cut-out"] = "off"
    return notes


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


PICTURE = _Picture()
