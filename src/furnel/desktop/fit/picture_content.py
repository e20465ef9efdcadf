"""What the picture bench and the sheet bench show, decoded in a worker."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np
import numpy.typing as npt
from PyQt6.QtGui import QImage

from furnel import imagefiles
from furnel.desktop.fit.bench import Loading
from furnel.desktop.fit.scene import Scene, scene_of
from furnel.desktop.imaging import to_image
from furnel.desktop.look import byte_size
from furnel.images.colour import LUMA, alpha_use
from furnel.images.picture import Picture
from furnel.images.resample import shrunk
from furnel.media import PictureSpec

CHANNELS = ("RGB", "no alpha", "R", "G", "B", "alpha")
SCALES = (1, 4, 16)
_LARGEST = 2048

Counts = npt.NDArray[np.float64]


@dataclass(frozen=True, slots=True, eq=False)
class Side:
    """One side's picture: its levels as pixels and as images by channel, and how often each tone occurs.

    `images` holds what was made so far by level and channel; the bench asks for more. `tones` (4, 256): luma, red, green, blue.
    """

    levels: tuple[Picture, ...]
    pixels: Picture
    clear: bool
    tones: Counts
    images: dict[tuple[int, str], QImage] = field(default_factory=dict)

    @property
    def size(self) -> tuple[int, int]:
        return self.pixels.size

    def image(self, level: int, channel: str) -> QImage:
        """A level's image; while a channel is still being made, the colours."""
        level = min(level, len(self.levels) - 1)
        return self.images.get((level, channel)) or self.images[level, "RGB"]

    def has(self, level: int, channel: str) -> bool:
        return (min(level, len(self.levels) - 1), channel) in self.images


@dataclass(frozen=True, slots=True, eq=False)
class PictureContent:
    """Both sides of a picture; `differences` by how many times they are enlarged; `scene` is the role's own preview."""

    path: str
    original: Side
    yours: Side
    label: str
    cell: tuple[int, int] | None
    frames: int
    yours_frames: int
    file_type: str
    levels: int
    scene: Scene | None
    differences: dict[int, QImage] = field(default_factory=dict)

    @property
    def comparable(self) -> bool:
        """Whether both have the same size, so that they can be compared pixel by pixel."""
        return self.original.size == self.yours.size


def load_pictures(loading: Loading) -> PictureContent:
    """Decode both sides. Raises FurnelError when one is damaged."""
    path = loading.examined.swap.original
    first, second = _side(loading.original, path), _side(loading.yours, loading.name)
    spec, result = loading.examined.original, loading.examined.result
    assert isinstance(spec, PictureSpec)
    label, yours_frames = "", 0
    if isinstance(result, PictureSpec):
        yours_frames = result.frames
        kind = result.format if imagefiles.picture_file(result.file_type).has_levels else result.file_type
        label = f"{kind}, {byte_size(len(loading.yours))}"
    scene = scene_of(path, first.pixels, second.pixels, loading.catalogue, loading.results)
    return PictureContent(
        path, first, second, label, spec.cell, spec.frames, yours_frames, spec.file_type, spec.levels, scene
    )


def channel_images(content: PictureContent, level: int, channel: str) -> None:
    """Make both sides' images of a level and a channel."""
    for side in (content.original, content.yours):
        place = min(level, len(side.levels) - 1)
        if (place, channel) not in side.images:
            side.images[place, channel] = to_image(_channel(side.levels[place], channel))


def difference_image(content: PictureContent, scale: int) -> None:
    """Make the image of the difference, `scale` times enlarged; alpha shows as grey."""
    if not content.comparable or scale in content.differences:
        return
    a, b = content.original.pixels.pixels.astype(np.int16), content.yours.pixels.pixels.astype(np.int16)
    apart = np.clip(np.abs(a - b) * scale, 0, 255).astype(np.uint8)
    apart[..., :3] = np.maximum(apart[..., :3], apart[..., 3:])
    apart[..., 3] = 255
    content.differences[scale] = to_image(Picture(apart))


def _side(data: bytes, name: str) -> Side:
    texture = imagefiles.read_texture(data, name)
    pictures = [imagefiles.decode_level(texture, level) for level in range(len(texture.levels))]
    whole = pictures[0]
    shown = tuple(shrunk(picture, _LARGEST) for picture in pictures)
    images = {(level, "RGB"): to_image(picture) for level, picture in enumerate(shown)}
    return Side(shown, whole, alpha_use(whole.pixels) != "none", _tones(shown[0]), images)


def _channel(picture: Picture, channel: str) -> Picture:
    pixels = picture.pixels
    if channel == "no alpha":
        out = pixels.copy()
    else:
        place = ("R", "G", "B", "alpha").index(channel)
        out = np.repeat(pixels[..., place : place + 1], 4, axis=2)
    out[..., 3] = 255
    return Picture(out)


def _tones(picture: Picture) -> Counts:
    """How often each tone occurs among the pixels that are seen, as shares: luma, red, green, blue."""
    seen = picture.pixels[picture.pixels[..., 3] > 8]
    if not len(seen):
        return np.zeros((4, 256))
    luma = np.round(seen[:, :3] @ LUMA).astype(np.int64)
    rows = [luma, *(seen[:, place].astype(np.int64) for place in range(3))]
    return np.stack([np.bincount(row, minlength=256)[:256] / len(seen) for row in rows])
