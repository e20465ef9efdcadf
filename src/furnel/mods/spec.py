"""Specs: what an asset is, read from its bytes and its role. The original's spec is what a replacement has to match."""

from __future__ import annotations

from dataclasses import dataclass

from furnel import imagefiles, sound, texts
from furnel.errors import FurnelError
from furnel.games import RoleRule
from furnel.images.colour import alpha_use, brightness
from furnel.images.picture import Picture
from furnel.images.texture import Texture
from furnel.sound import Clip, SoundInfo, integrated_loudness
from furnel.sprites import background, grid_of

_BINARY = "binary"


@dataclass(frozen=True, slots=True)
class PictureSpec:
    """A texture or sheet. `alpha` is `none`, `cut-out` or `smooth`; `brightness` 0 to 1; `cell` only for sheets."""

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

    def note(self, key: str) -> str:
        return dict(self.notes).get(key, "")


@dataclass(frozen=True, slots=True)
class SoundSpec:
    """A sound or tune; `loudness` in LUFS, `peak` the largest sample; `loops` when its length has to be exact."""

    file_type: str
    codec: str
    rate: int
    channels: int
    frames: int
    loudness: float
    peak: float
    loops: bool = False

    @property
    def length_s(self) -> float:
        return self.frames / self.rate


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
        clip, info = sound.read_clip(data, path)
        return sound_spec(clip, info, role)
    if (kind := texts.format_of(path)) is not None:
        return _text_spec(data, path, kind)
    if imagefiles.recognises(data):
        texture = imagefiles.read_texture(data, path)
        return picture_spec(texture, imagefiles.decode_level(texture), role)
    return RawSpec(path.rpartition(".")[2].upper() or _BINARY, len(data))


def picture_spec(texture: Texture, picture: Picture, role: RoleRule | None) -> PictureSpec:
    """The spec of a texture whose first level is `picture`."""
    cell = role.cell if role is not None else None
    count = 0
    if cell is not None:
        try:
            count = grid_of(picture, cell).count
        except FurnelError:
            count = 0
    return PictureSpec(
        texture.file_type, texture.width, texture.height, texture.format, len(texture.levels), alpha_use(picture.pixels),
        brightness(picture.pixels), texture.srgb, texture.notes, cell, count, background(picture),
    )  # fmt: skip


def sound_spec(clip: Clip, info: SoundInfo, role: RoleRule | None) -> SoundSpec:
    """The spec of a clip that came from a file with this header."""
    loops = role is not None and role.role == "loop"
    loudness = integrated_loudness(clip.samples, clip.rate)
    return SoundSpec(
        info.file_type, info.codec, info.rate, info.channels, clip.frames, loudness, clip.peak, loops
    )


def _text_spec(data: bytes, path: str, kind: str) -> TextSpec:
    try:
        texts.check(data, path)
        return TextSpec(kind, data.count(b"\n") + 1)
    except FurnelError as error:
        return TextSpec(kind, data.count(b"\n") + 1, error.why)
