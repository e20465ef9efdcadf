"""Block compression: 4×4 pixels in 8 or 16 bytes, as graphics hardware reads it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.images.formats import FORMATS, PixelFormat
from furnel.parallel import over_rows
from furnel.progress import QUIET, Part, Progress

Quality = Literal["fast", "good", "best"]
Pixels = npt.NDArray[np.uint8]
Halves = npt.NDArray[np.float16]

QUALITIES: tuple[Quality, ...] = ("fast", "good", "best")

# least-squares rounds, sweeps over the neighbours, and the squared error of a block that is worth a sweep
_COLOUR_EFFORT = {"fast": (2, 1, 1000), "good": (3, 2, 0), "best": (4, 12, 0)}
# partitions fitted, rounds, sweeps; below best only for blocks with alpha
_BC7_EFFORT = {"fast": (1, 1, 0), "good": (2, 2, 0), "best": (16, 3, 1)}
_REACH = {"fast": 0, "good": 4, "best": 14}
_BC6H_EFFORT = {"fast": (0, 1, 0), "good": (1, 1, 0), "best": (16, 3, 8)}  # partitions, modes of each, sweeps


def decode(data: bytes | memoryview, width: int, height: int, fmt: str) -> Pixels | Halves:
    """Decode one level: `data` in `fmt` to (height, width, 4) uint8, or for BC6H to (height, width, 3) float16.

    BC4 gives red, BC5 red and green, the rest 0 and alpha 255; with a sign (BC4S, BC5S) -1..1 becomes 0..255. Sizes
    need not be multiples of 4. Raises FurnelError for an unknown format or too little data.
    """
    pixel_format = _block_format(fmt)
    if width < 1 or height < 1:
        raise FurnelError(
            "Decoding a texture level", where=f"{width}×{height}", why="a level has at least one pixel"
        )
    needed = pixel_format.level_bytes(width, height)
    if len(data) < needed:
        raise FurnelError(
            "Decoding a texture level",
            where=f"{width}×{height} {fmt}",
            why=f"it needs {needed} bytes and there are {len(data)}",
            remedy="The file is cut short: take a fresh copy of it",
        )
    words = np.require(np.frombuffer(data, "<u4", needed // 4), requirements=["C", "W", "A"])
    return _CODECS[fmt].decode(words.reshape(-1, pixel_format.size_bytes // 4), height, width)


def encode(
    pixels: Pixels | Halves,
    fmt: str,
    quality: Quality = "good",
    progress: Progress = QUIET,
    *,
    cut_out: bool = True,
    as_seen: bool = False,
) -> bytes:
    """Encode `pixels` (height, width, 4) uint8 straight alpha, for BC6H (height, width, 3) float16, as one level of `fmt`.

    Any size: blocks over the edge repeat the last row and column. Colour under zero alpha is ignored. BC1 makes pixels
    below half alpha clear, unless `cut_out` is off. With `as_seen` BC1, BC2 and BC3 weigh red, green and blue as the
    eye does. Raises FurnelError for an unknown format or quality, or another shape of array, Cancelled when asked to
    stop.
    """
    pixel_format = _block_format(fmt)
    if quality not in QUALITIES:
        raise FurnelError(
            "Encoding a texture level",
            why=f"there is no quality {quality!r}",
            remedy="Use fast, good or best",
        )
    wanted, kind = (3, np.float16) if pixel_format.sample == "float" else (4, np.uint8)
    if pixels.ndim != 3 or pixels.shape[2] != wanted or pixels.dtype != kind or 0 in pixels.shape:
        raise FurnelError(
            "Encoding a texture level",
            why=f"pixels are {pixels.dtype} {pixels.shape}",
            remedy=f"Give (height, width, {wanted}) {kind.__name__}",
        )
    pixels = np.require(pixels, requirements=["C", "W"])
    if fmt == "BC1" and not cut_out:
        pixels = pixels.copy()
        pixels[..., 3] = 255
    height, width = pixels.shape[:2]
    words = np.empty((-(-height // 4) * -(-width // 4), pixel_format.size_bytes // 4), np.uint32)
    _CODECS[fmt].encode(_Job(pixels, words, fmt, quality, progress, as_seen))
    return words.tobytes()


def warm() -> None:
    """Compile and cache every kernel."""
    from furnel.blocks import bc1, bc4, bc6h_encode, bc7, bc7_wide  # noqa: F401


Rows = Callable[[int, int], object]
Words = npt.NDArray[np.uint32]


@dataclass(frozen=True, slots=True)
class _Job:
    """A level to encode: its pixels, the words that it becomes, and how."""

    pixels: npt.NDArray[Any]
    words: Words
    fmt: str
    quality: Quality
    progress: Progress
    as_seen: bool

    def spread(self, work: Rows, start: float = 0.0, end: float = 1.0, least: int = 8) -> None:
        """Do rows of blocks on all cores, as the part of the whole from `start` to `end`."""
        rows = -(-self.pixels.shape[0] // 4)
        whole = self.progress is QUIET or (start, end) == (0.0, 1.0)
        part = self.progress if whole else Part(self.progress, start, end)
        over_rows(work, rows, least, part, f"Encoding {self.fmt} {self.quality}")


@dataclass(frozen=True, slots=True)
class _Codec:
    """A block format: `encode` fills a job's words, `decode(words, height, width)` gives pixels."""

    encode: Callable[[_Job], None]
    decode: Callable[[Words, int, int], Pixels | Halves]


def _colours(height: int, width: int, work: Callable[[Words], Rows]) -> Pixels:
    """Pixels (height, width, 4), four channels at a time."""
    out = np.empty((height, width), np.uint32)
    over_rows(work(out), -(-height // 4))
    return out.view(np.uint8).reshape(height, width, 4)


def _doubles(words: Words) -> npt.NDArray[np.uint64]:
    return np.require(words.view(np.uint64), requirements=["C", "W", "A"])


def _decode_bc1(words: Words, height: int, width: int) -> Pixels:
    from furnel.blocks import bc1

    return _colours(height, width, lambda out: lambda first, end: bc1.decode_rows(words, out, first, end))


def _encode_bc1(job: _Job) -> None:
    from furnel.blocks import bc1

    effort = _COLOUR_EFFORT[job.quality]
    job.spread(
        lambda first, end: bc1.encode_rows(job.pixels, job.words, first, end, 0, *effort, False, job.as_seen)
    )


def _decode_bc3(words: Words, height: int, width: int) -> Pixels:
    from furnel.blocks import bc1

    return _colours(height, width, lambda out: lambda first, end: bc1.decode_bc3_rows(words, out, first, end))


def _encode_behind(job: _Job) -> None:
    """The colours of BC2 and BC3, behind their alpha."""
    from furnel.blocks import bc1

    effort = _COLOUR_EFFORT[job.quality]
    job.spread(
        lambda first, end: bc1.encode_rows(job.pixels, job.words, first, end, 2, *effort, True, job.as_seen),
        0.0,
        0.9,
    )


def _encode_bc3(job: _Job) -> None:
    from furnel.blocks import bc4

    _encode_behind(job)
    reach = _REACH[job.quality]
    job.spread(
        lambda first, end: bc4.encode_rows(job.pixels, job.words, first, end, 0, 3, reach, False), 0.9, 1.0
    )


def _decode_bc2(words: Words, height: int, width: int) -> Pixels:
    from furnel.blocks import bc2

    pixels = _decode_bc3(words, height, width)
    pixels[..., 3] = bc2.unpack_alpha(words, width, height)
    return pixels


def _encode_bc2(job: _Job) -> None:
    from furnel.blocks import bc2

    _encode_behind(job)
    bc2.pack_alpha(job.pixels[..., 3], job.words)


def _channels(count: int, signed: bool) -> _Codec:
    """BC4 and BC5: one or two channels, each by itself."""

    def decode(words: Words, height: int, width: int) -> Pixels:
        from furnel.blocks import bc4

        return _colours(
            height, width, lambda out: lambda first, end: bc4.decode_rows(words, out, first, end, signed)
        )

    def encode(job: _Job) -> None:
        from furnel.blocks import bc4

        def rows(channel: int) -> Rows:
            reach = _REACH[job.quality]
            return lambda first, end: bc4.encode_rows(
                job.pixels, job.words, first, end, 2 * channel, channel, reach, signed
            )

        for channel in range(count):
            job.spread(rows(channel), channel / count, (channel + 1) / count)

    return _Codec(encode, decode)


def _light(signed: bool) -> _Codec:
    """BC6H: half floats."""

    def decode(words: Words, height: int, width: int) -> Halves:
        from furnel.blocks import bc6h

        halves, doubles = np.empty((height, width, 3), np.uint16), _doubles(words)
        over_rows(lambda first, end: bc6h.decode_rows(doubles, halves, first, end, signed), -(-height // 4))
        return halves.view(np.float16)

    def encode(job: _Job) -> None:
        from furnel.blocks import bc6h_encode

        halves, doubles = job.pixels.view(np.uint16), job.words.view(np.uint64)
        effort = _BC6H_EFFORT[job.quality]
        job.spread(
            lambda first, end: bc6h_encode.encode_rows(halves, doubles, first, end, signed, *effort), least=1
        )

    return _Codec(encode, decode)


def _decode_bc7(words: Words, height: int, width: int) -> Pixels:
    from furnel.blocks import bc7

    doubles = _doubles(words)
    return _colours(height, width, lambda out: lambda first, end: bc7.decode_rows(doubles, out, first, end))


def _encode_bc7(job: _Job) -> None:
    from furnel.blocks import bc7_encode, bc7_wide

    pixels, words, effort = job.pixels, job.words, _BC7_EFFORT[job.quality]

    def thorough(with_alpha_only: bool) -> Rows:
        return lambda first, end: bc7_encode.encode_rows(pixels, words, first, end, *effort, with_alpha_only)

    if job.quality == "best":
        job.spread(thorough(False), least=1)
        return
    clear, refine = bool((pixels[..., 3] < 255).any()), job.quality == "good"
    job.spread(
        lambda first, end: bc7_wide.encode_rows(pixels, words, first, end, refine),
        0.0,
        0.5 if clear else 1.0,
        1,
    )
    if clear:
        job.spread(thorough(True), 0.5, 1.0, 1)


_CODECS = {
    "BC1": _Codec(_encode_bc1, _decode_bc1),
    "BC2": _Codec(_encode_bc2, _decode_bc2),
    "BC3": _Codec(_encode_bc3, _decode_bc3),
    "BC4": _channels(1, False),
    "BC4S": _channels(1, True),
    "BC5": _channels(2, False),
    "BC5S": _channels(2, True),
    "BC6H": _light(False),
    "BC6HS": _light(True),
    "BC7": _Codec(_encode_bc7, _decode_bc7),
}


def _block_format(fmt: str) -> PixelFormat:
    if fmt not in _CODECS:
        raise FurnelError(
            "Block compression",
            why=f"there is no block format {fmt!r}",
            remedy=f"Known ones: {', '.join(_CODECS)}",
        )
    return FORMATS[fmt]
