"""Frames of animated pictures, with their times: GIF, APNG and WebP read through Pillow; GIF and APNG written."""

from __future__ import annotations

import io
import struct
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

import numpy as np

from furnel.errors import FurnelError
from furnel.imagefiles.filetype import Data
from furnel.imagefiles.pillow import WHAT, damaged, opened
from furnel.images.picture import Picture

if TYPE_CHECKING:
    from PIL import Image

_MOST_FRAMES = 1024
_MOST_PIXELS = 1 << 26  # of all frames together
_UNTOLD_MS = 100  # what viewers take for a frame that has no time


@dataclass(frozen=True, slots=True, eq=False)
class Frame:
    """A whole frame as it is seen, after what the file says of clearing, and for how long, in milliseconds."""

    picture: Picture
    ms: int


def read_frames(data: Data, where: object = "") -> tuple[Frame, ...]:
    """All frames of a picture file, one for a still one. Raises FurnelError for damage and for far too many of them."""
    from PIL import Image, ImageSequence

    with opened(data, where) as image:
        try:
            number = int(getattr(image, "n_frames", 1))
        except (OSError, ValueError, SyntaxError, IndexError, EOFError, struct.error) as error:
            raise damaged(where, error) from error
        if number > _MOST_FRAMES or number * image.width * image.height > _MOST_PIXELS:
            raise FurnelError(
                WHAT, where=where, why=f"it has {number} frames of {image.width} × {image.height}, which is too much",
                remedy=f"Use at most {_MOST_FRAMES} frames, or smaller ones",
            )  # fmt: skip
        out = []
        try:
            for frame in ImageSequence.Iterator(image):
                picture = Picture(
                    np.array(frame.convert("RGBA"))
                )  # some formats tell the time when they are decoded
                ms = round(float(frame.info.get("duration", 0) or 0)) or _UNTOLD_MS
                out.append(Frame(picture, ms))
        except (
            OSError, ValueError, SyntaxError, MemoryError, IndexError, EOFError, struct.error, Image.DecompressionBombError
        ) as error:  # fmt: skip
            raise damaged(where, error) from error
        return tuple(out)


def is_animated(data: Data) -> bool:
    """Whether a file that begins like a GIF, PNG or WebP can have several frames."""
    head = bytes(data[:256])
    return head.startswith(b"GIF8") or b"acTL" in head or (head[8:12] == b"WEBP" and b"ANIM" in head)


def write_animation(
    pictures: Sequence[Picture], ms: int | Sequence[int], kind: Literal["GIF", "APNG"] = "GIF"
) -> bytes:
    """Pictures of one size as an animation that goes round, all shown for as many milliseconds, or each for its own; GIF has no
    half-clear pixels and 255 colours. Raises FurnelError when there is none."""
    from PIL import Image

    if not pictures:
        raise FurnelError(
            "Writing an animation", why="it has no frames", remedy="Choose cells that are drawn in"
        )
    ms = ms if isinstance(ms, int) else list(ms)
    images = [Image.fromarray(np.ascontiguousarray(picture.pixels)) for picture in pictures]
    stream = io.BytesIO()
    if kind == "APNG":
        images[0].save(
            stream, "PNG", save_all=True, append_images=images[1:], duration=ms, loop=0, disposal=0, blend=0
        )
    else:
        few = [_indexed(image) for image in images]
        few[0].save(
            stream, "GIF", save_all=True, append_images=few[1:], duration=ms, loop=0, disposal=2, transparency=255,
            optimize=False,
        )  # fmt: skip
    return stream.getvalue()


def _indexed(image: Image.Image) -> Image.Image:
    """A frame in at most 255 colours, exactly its own where it has no more, and the last entry for what is clear."""
    from PIL import Image

    clear = np.asarray(image)[..., 3] < 128
    rgb = np.where(clear[..., None], 0, np.asarray(image)[..., :3]).astype(np.uint8)
    colours, index = np.unique(rgb.reshape(-1, 3), axis=0, return_inverse=True)
    if len(colours) <= 255:
        table, places = colours, index.reshape(clear.shape)
    else:
        reduced = Image.fromarray(rgb).quantize(255, Image.Quantize.MEDIANCUT, dither=Image.Dither.NONE)
        table = np.array(reduced.getpalette(), np.uint8).reshape(-1, 3)[:255]
        places = np.asarray(reduced)
    out = Image.fromarray(np.where(clear, 255, places).astype(np.uint8), "P")
    whole = np.zeros((256, 3), np.uint8)
    whole[: len(table)] = table
    out.putpalette(whole.tobytes(), "RGB")
    return out
