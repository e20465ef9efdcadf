"""Pixels of the formats that are not block compressed, from bytes and back."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from furnel.images.colour import LUMA
from furnel.images.formats import FORMATS

Pixels = npt.NDArray[np.uint8]
Light = npt.NDArray[np.float32]

_ORDERS = {
    "RGBA8": (0, 1, 2, 3), "RGBX8": (0, 1, 2), "RGB8": (0, 1, 2), "BGRA8": (2, 1, 0, 3), "BGRX8": (2, 1, 0), "BGR8": (2, 1, 0),
    "R8": (0,), "RG8": (0, 1), "A8": (3,),
}  # fmt: skip
_BITS = {  # width and place of red, green, blue and alpha in a 16-bit word
    "RGB565": ((5, 11), (6, 5), (5, 0)),
    "RGBA5551": ((5, 10), (5, 5), (5, 0), (1, 15)),
    "RGBA4444": ((4, 8), (4, 4), (4, 0), (4, 12)),
}


def unpack(data: bytes | memoryview, width: int, height: int, fmt: str) -> Pixels:
    """A level of whole numbers as (height, width, 4) uint8; channels that are not stored are 0, alpha 255."""
    raw = np.frombuffer(data, np.uint8, width * height * FORMATS[fmt].size_bytes).reshape(height, width, -1)
    if fmt == "RGBA8":
        return raw
    out = np.zeros((height, width, 4), np.uint8)
    out[..., 3] = 255
    if fmt in _ORDERS:
        for place, channel in enumerate(_ORDERS[fmt]):
            out[..., channel] = raw[..., place]
    elif fmt in _BITS:
        words = raw.view("<u2")[..., 0].astype(np.uint32)
        for channel, (bits, place) in enumerate(_BITS[fmt]):
            top = (1 << bits) - 1
            out[..., channel] = (((words >> place) & top) * 255 + top // 2) // top
    elif fmt in ("L8", "LA8"):
        out[..., :3] = raw[..., :1]
        if fmt == "LA8":
            out[..., 3] = raw[..., 1]
    else:  # RGBA16
        out[:] = (raw.view("<u2").astype(np.uint32) * 255 + 32767) // 65535
    return out


def pack(pixels: Pixels, fmt: str) -> bytes:
    """The inverse of `unpack`, rounding to the nearest value that the format has."""
    if fmt == "RGBA8":
        return pixels.tobytes()
    size = FORMATS[fmt].size_bytes
    if fmt in _ORDERS:
        raw = np.full((*pixels.shape[:2], size), 255, np.uint8)
        for place, channel in enumerate(_ORDERS[fmt]):
            raw[..., place] = pixels[..., channel]
        return raw.tobytes()
    if fmt in _BITS:
        words = np.zeros(pixels.shape[:2], np.uint32)
        for channel, (bits, place) in enumerate(_BITS[fmt]):
            top = (1 << bits) - 1
            words |= ((pixels[..., channel].astype(np.uint32) * top + 127) // 255) << place
        return words.astype("<u2").tobytes()
    if fmt in ("L8", "LA8"):
        grey = np.round(pixels[..., :3] @ LUMA).astype(np.uint8)
        return (grey if fmt == "L8" else np.stack([grey, pixels[..., 3]], -1)).tobytes()
    return (pixels.astype(np.uint32) * 257).astype("<u2").tobytes()  # RGBA16


def unpack_light(data: bytes | memoryview, width: int, height: int, fmt: str) -> Light:
    """A level of floats as (height, width, 4) float32 linear light; channels that are not stored are 0, alpha 1."""
    channels = FORMATS[fmt].channels
    kind = "<f2" if FORMATS[fmt].size_bytes // len(channels) == 2 else "<f4"
    raw = np.frombuffer(data, kind, width * height * len(channels)).reshape(height, width, len(channels))
    out = np.zeros((height, width, 4), np.float32)
    out[..., 3] = 1.0
    out[..., : len(channels)] = raw
    return out


def pack_light(light: Light, fmt: str) -> bytes:
    """The inverse of `unpack_light`; what a half-float cannot hold becomes the largest that it can."""
    channels = FORMATS[fmt].channels
    part = light[..., : len(channels)]
    if FORMATS[fmt].size_bytes // len(channels) == 2:
        return np.clip(part, -65504.0, 65504.0).astype("<f2").tobytes()
    return part.astype("<f4").tobytes()
