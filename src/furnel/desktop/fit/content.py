"""What a bench shows: decoded in a worker, whole, before the bench sees it."""

from __future__ import annotations

import difflib
from dataclasses import dataclass

import numpy as np
from PyQt6.QtGui import QImage

from furnel import imagefiles, sound, texts
from furnel.catalogue import Catalogue, media_preview
from furnel.desktop.imaging import to_image
from furnel.desktop.look import byte_size
from furnel.desktop.tiles import Tile, tile_of
from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.images.resample import resize
from furnel.mods.project import Swap
from furnel.mods.render import apply_steps, open_source, read_source
from furnel.mods.spec import PictureSpec, SoundSpec
from furnel.mods.workspace import Examined, Workspace
from furnel.sound import Clip, Samples, integrated_loudness, short_term_loudness, waveform

CHANNELS = ("RGB", "no alpha", "alpha")
WAVE_COLUMNS = 900


@dataclass(frozen=True, slots=True, eq=False)
class Side:
    """One side's picture: every level's image by channel view, and the whole level's pixels for the read-out."""

    levels: tuple[dict[str, QImage], ...]
    pixels: Picture
    clear: bool

    @property
    def size(self) -> tuple[int, int]:
        return self.pixels.size


@dataclass(frozen=True, slots=True, eq=False)
class PictureContent:
    """Both sides of a picture; `difference` four times enlarged."""

    original: Side
    yours: Side
    difference: QImage | None
    label: str
    cell: tuple[int, int] | None
    frames: int
    yours_frames: int


@dataclass(frozen=True, slots=True, eq=False)
class Lane:
    """One side's sound, with what its lane draws."""

    clip: Clip
    wave: Samples
    curve: Samples
    loudness: float
    label: str


@dataclass(frozen=True, slots=True, eq=False)
class SoundContent:
    """Both lanes of a sound."""

    original: Lane
    yours: Lane
    loops: bool


@dataclass(frozen=True, slots=True)
class TextContent:
    """Both texts, and the spans of lines (first, end) in each that the other does not have."""

    original: str
    yours: str
    original_spans: tuple[tuple[int, int], ...]
    yours_spans: tuple[tuple[int, int], ...]


@dataclass(frozen=True, slots=True)
class NoContent:
    """Why there is nothing to show."""

    why: str


Content = PictureContent | SoundContent | TextContent | NoContent


def load_content(catalogue: Catalogue, examined: Examined) -> Content:
    """Decode an examined swap for its bench. Damage becomes `NoContent`."""
    path = examined.swap.original
    if not catalogue.has(path):
        return NoContent(f"The game has no {path}")
    try:
        original = catalogue.read(catalogue.get(path))
        yours = examined.data
        if not yours:
            return NoContent(examined.points[0].why if examined.points else "There is no result yet")
        name = path if examined.swap.encode is not None else examined.swap.source
        if sound.recognises(original):
            return SoundContent(
                _lane(original, path),
                _lane(yours, name),
                isinstance(examined.original, SoundSpec) and examined.original.loops,
            )
        if texts.format_of(path):
            return _texts(texts.read_text(original, path), texts.read_text(yours, name))
        if imagefiles.recognises(original):
            return _pictures(original, yours, path, name, examined)
    except FurnelError as error:
        return NoContent(error.sentence())
    return NoContent("This kind of file has no bench yet; the build takes it as it is")


def step_tiles(space: Workspace, swap: Swap) -> tuple[Tile, ...]:
    """A tile of what every step gives that is on, in order; empty when the source cannot be read."""
    path = space.source_path(swap)
    try:
        stage = open_source(read_source(path), path)
        return (
            tuple(tile_of(media_preview(media)) for media in apply_steps(stage.media, swap.steps))
            if stage.media
            else ()
        )
    except FurnelError:
        return ()


def _texts(original: str, yours: str) -> TextContent:
    matcher = difflib.SequenceMatcher(None, original.splitlines(), yours.splitlines(), autojunk=False)
    blocks = [op for op in matcher.get_opcodes() if op[0] != "equal"]
    return TextContent(
        original, yours, tuple((op[1], op[2]) for op in blocks), tuple((op[3], op[4]) for op in blocks)
    )


def _pictures(original: bytes, yours: bytes, path: str, name: str, examined: Examined) -> PictureContent:
    first, second = _side(original, path), _side(yours, name)
    cell = examined.original.cell if isinstance(examined.original, PictureSpec) else None
    difference = None
    label = ""
    if first.size == second.size:
        a, b = first.pixels.pixels.astype(np.int16), second.pixels.pixels.astype(np.int16)
        apart = np.clip(np.abs(a - b) * 4, 0, 255).astype(np.uint8)
        apart[..., :3] = np.maximum(apart[..., :3], apart[..., 3:])
        apart[..., 3] = 255
        difference = to_image(Picture(apart))
    spec = examined.result
    frames = examined.original.frames if isinstance(examined.original, PictureSpec) else 0
    yours_frames = 0
    if isinstance(spec, PictureSpec):
        yours_frames = spec.frames
        label = f"{spec.format if spec.file_type == 'DDS' else spec.file_type}, {byte_size(len(yours))}"
    return PictureContent(first, second, difference, label, cell, frames, yours_frames)


def _side(data: bytes, name: str) -> Side:
    texture = imagefiles.read_texture(data, name)
    pictures = [imagefiles.decode_level(texture, level) for level in range(len(texture.levels))]
    whole = pictures[0]
    shown = pictures if max(whole.size) <= 2048 else [_bounded(picture) for picture in pictures]
    clear = bool((whole.pixels[..., 3] < 250).any())
    return Side(tuple(_channel_images(picture, clear) for picture in shown), whole, clear)


def _bounded(picture: Picture) -> Picture:
    longest = max(picture.size)
    if longest <= 2048:
        return picture
    return resize(
        picture, max(picture.width * 2048 // longest, 1), max(picture.height * 2048 // longest, 1), "area"
    )


def _channel_images(picture: Picture, clear: bool) -> dict[str, QImage]:
    rgb = to_image(picture)
    if not clear:
        white = Picture(np.full_like(picture.pixels, 255))
        return {"RGB": rgb, "no alpha": rgb, "alpha": to_image(white)}
    opaque = picture.pixels.copy()
    opaque[..., 3] = 255
    grey = np.repeat(picture.pixels[..., 3:], 4, axis=2)
    grey[..., 3] = 255
    return {"RGB": rgb, "no alpha": to_image(Picture(opaque)), "alpha": to_image(Picture(grey))}


def _lane(data: bytes, name: str) -> Lane:
    clip, info = sound.read_clip(data, name)
    columns = min(WAVE_COLUMNS, clip.frames)
    loudness = integrated_loudness(clip.samples, clip.rate)
    channels = {1: "mono", 2: "stereo"}.get(info.channels, f"{info.channels} channels")
    label = f"{info.codec}  {info.rate / 1000:g} kHz  {channels}"
    curve = short_term_loudness(clip.samples, clip.rate, max(clip.length_s / 300, 0.02)).astype(np.float32)
    return Lane(clip, np.stack(waveform(clip, columns)), curve, loudness, label)
