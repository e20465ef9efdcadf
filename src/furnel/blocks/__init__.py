"""Block compression: 4×4 pixels in 8 or 16 bytes, as graphics hardware reads it."""

from __future__ import annotations

from collections.abc import Callable
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
ENCODER_VERSION = 4  # part of the key of cached results: raise it whenever the encoder's bytes change

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
    return _decode(words.reshape(-1, pixel_format.size_bytes // 4), width, height, fmt)


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
    _encode(pixels, words, fmt, quality, progress, as_seen)
    return words.tobytes()


def warm() -> None:
    """Compile and cache every kernel."""
    from furnel.blocks import bc1, bc4, bc6h_encode, bc7, bc7_wide  # noqa: F401


def _decode(words: npt.NDArray[np.uint32], width: int, height: int, fmt: str) -> Pixels | Halves:
    from furnel.blocks import bc1, bc2, bc4

    rows = -(-height // 4)
    if fmt in ("BC6H", "BC6HS"):
        from furnel.blocks import bc6h

        halves = np.empty((height, width, 3), np.uint16)
        doubles = np.require(words.view(np.uint64), requirements=["C", "W", "A"])
        over_rows(lambda first, end: bc6h.decode_rows(doubles, halves, first, end, fmt == "BC6HS"), rows)
        return halves.view(np.float16)
    out = np.empty((height, width), np.uint32)
    if fmt in ("BC4", "BC4S", "BC5", "BC5S"):
        over_rows(lambda first, end: bc4.decode_rows(words, out, first, end, fmt.endswith("S")), rows)
    elif fmt == "BC1":
        over_rows(lambda first, end: bc1.decode_rows(words, out, first, end), rows)
    elif fmt == "BC7":
        from furnel.blocks import bc7

        doubles = np.require(words.view(np.uint64), requirements=["C", "W", "A"])
        over_rows(lambda first, end: bc7.decode_rows(doubles, out, first, end), rows)
    else:
        over_rows(lambda first, end: bc1.decode_bc3_rows(words, out, first, end), rows)
    pixels = out.view(np.uint8).reshape(height, width, 4)
    if fmt == "BC2":
        pixels[..., 3] = bc2.unpack_alpha(words, width, height)
    return pixels


def _encode(
    pixels: npt.NDArray[Any],
    words: npt.NDArray[np.uint32],
    fmt: str,
    quality: Quality,
    progress: Progress,
    as_seen: bool,
) -> None:
    from furnel.blocks import bc1, bc2, bc4

    rows = -(-pixels.shape[0] // 4)
    colour, reach = _COLOUR_EFFORT[quality], _REACH[quality]

    def spread(work: Callable[[int, int], object], part: Progress, least: int = 8) -> None:
        over_rows(work, rows, least, part, f"Encoding {fmt} {quality}")

    if fmt == "BC7":
        from furnel.blocks import bc7_encode, bc7_wide

        def thorough(effort: tuple[int, int, int], with_alpha_only: bool) -> Callable[[int, int], object]:
            return lambda first, end: bc7_encode.encode_rows(
                pixels, words, first, end, *effort, with_alpha_only
            )

        if quality == "best":
            spread(thorough(_BC7_EFFORT[quality], False), progress, 1)
        else:
            clear, refine = bool((pixels[..., 3] < 255).any()), quality == "good"
            share = _part(progress, 0.0, 0.5) if clear else progress
            spread(lambda first, end: bc7_wide.encode_rows(pixels, words, first, end, refine), share, 1)
            if clear:
                spread(thorough(_BC7_EFFORT[quality], True), _part(progress, 0.5, 1.0), 1)
    elif fmt in ("BC6H", "BC6HS"):
        from furnel.blocks import bc6h_encode

        halves, doubles, light_effort = pixels.view(np.uint16), words.view(np.uint64), _BC6H_EFFORT[quality]
        signed = fmt == "BC6HS"
        spread(
            lambda first, end: bc6h_encode.encode_rows(halves, doubles, first, end, signed, *light_effort),
            progress,
            1,
        )
    elif fmt == "BC1":
        spread(
            lambda first, end: bc1.encode_rows(pixels, words, first, end, 0, *colour, False, as_seen),
            progress,
        )
    elif fmt in ("BC4", "BC4S", "BC5", "BC5S"):
        signed, channels = fmt.endswith("S"), 1 if fmt[2] == "4" else 2

        def channel_rows(channel: int) -> Callable[[int, int], object]:
            return lambda first, end: bc4.encode_rows(
                pixels, words, first, end, 2 * channel, channel, reach, signed
            )

        for channel in range(channels):
            spread(channel_rows(channel), _part(progress, channel / channels, (channel + 1) / channels))
    else:
        colours, alphas = _part(progress, 0.0, 0.9), _part(progress, 0.9, 1.0)
        spread(
            lambda first, end: bc1.encode_rows(pixels, words, first, end, 2, *colour, True, as_seen), colours
        )
        if fmt == "BC2":
            bc2.pack_alpha(pixels[..., 3], words)
        else:
            spread(lambda first, end: bc4.encode_rows(pixels, words, first, end, 0, 3, reach, False), alphas)


def _part(progress: Progress, start: float, end: float) -> Progress:
    return progress if progress is QUIET else Part(progress, start, end)


def _block_format(fmt: str) -> PixelFormat:
    found = FORMATS.get(fmt)
    if found is None or not found.compressed:
        known = ", ".join(name for name, entry in FORMATS.items() if entry.compressed)
        raise FurnelError(
            "Block compression", why=f"there is no block format {fmt!r}", remedy=f"Known ones: {known}"
        )
    return found
