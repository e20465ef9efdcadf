"""Specs: what an asset is, read from its bytes and its role. The original's spec is what a replacement has to match."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from furnel import imagefiles, sound, texts
from furnel.errors import FurnelError
from furnel.games import RoleRule
from furnel.images.alpha import Under, under_alpha
from furnel.images.colour import alpha_use, brightness
from furnel.images.detail import seam
from furnel.images.picture import Picture
from furnel.images.texture import Shape, Texture
from furnel.images.tones import colours_of, contrast
from furnel.mods.soundspec import SoundSpec, sound_spec
from furnel.sprites import background, crossings, grid_of

_BINARY = "binary"
Repeats = Literal["no", "across", "down", "both"]
Meaning = Literal["colour", "grey", "normals", "masks"]


@dataclass(frozen=True, slots=True)
class PictureSpec:
    """A texture or sheet. `alpha` is `none`, `cut-out` or `smooth`; `brightness` and `contrast` 0 to 1; `cell` only for sheets.

    `under` is what lies under clear pixels, `seams` how much the edges differ across and down where it `repeats`,
    `colours` the size of a palette (0 for true colour), `brightest` a multiple of white, `ink` the share of the keep-out
    areas that is painted, `crossed` how many borders between cells something is drawn across.
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
    repeats: Repeats = "no"
    seams: tuple[float, float] = (1.0, 1.0)
    colours: int = 0
    brightest: float = 1.0
    ink: float = 0.0
    has_keep_out: bool = False
    crossed: int = 0

    def note(self, key: str) -> str:
        return dict(self.notes).get(key, "")


@dataclass(frozen=True, slots=True)
class TextSpec:
    """A definition; `fault` says why it cannot be read, or nothing."""

    file_type: str
    lines: int
    fault: str = ""


@dataclass(frozen=True, slots=True)
class RawSpec:
    """Bytes that Furnel cannot look into."""

    file_type: str
    size: int


Spec = PictureSpec | SoundSpec | TextSpec | RawSpec


def spec_of(data: bytes, path: str, role: RoleRule | None = None) -> Spec:
    """The spec of an asset's or a source's bytes. Raises FurnelError when a known kind of file is damaged."""
    if sound.recognises(data):
        return sound_spec(data, path, role)
    if (kind := texts.format_of(path)) is not None:
        return _text_spec(data, path, kind)
    if imagefiles.recognises(data):
        texture = imagefiles.read_texture(data, path)
        return picture_spec(texture, imagefiles.decode_level(texture), role)
    return RawSpec(path.rpartition(".")[2].upper() or _BINARY, len(data))


def picture_spec(texture: Texture, picture: Picture, role: RoleRule | None) -> PictureSpec:
    """The spec of a texture whose first level is `picture`."""
    cell = role.cell if role is not None else None
    count = crossed = 0
    if cell is not None:
        try:
            grid = grid_of(picture, cell)
            count, crossed = grid.count, crossings(picture, grid)
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
        imagefiles.brightest(texture), _ink(picture, keep_out), bool(keep_out), crossed,
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
        return "grey" if role is not None and role.role == "tinted" else "colour"
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


def _text_spec(data: bytes, path: str, kind: str) -> TextSpec:
    try:
        texts.check(data, path)
        return TextSpec(kind, data.count(b"\n") + 1)
    except FurnelError as error:
        return TextSpec(kind, data.count(b"\n") + 1, error.why)
