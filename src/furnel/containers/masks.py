"""Masks over an archive's bytes: a key that repeats or an expression over the position, by exclusive-or or addition."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, BinaryIO

import numpy as np
import numpy.typing as npt

from furnel.containers.expressions import expression

if TYPE_CHECKING:
    from furnel.containers.schema import MaskPart

_PIECE = 1 << 20
Data = bytes | memoryview


def unmasked(data: Data, masks: Sequence[MaskPart], on: str) -> Data:
    """The bytes of a part (`index`, `names`, `entry`) without its masks, the last one first; the same object without any."""
    wanted = [mask for mask in masks if mask.on == on]
    for mask in reversed(wanted):
        data = _turned(data, mask, 0, back=True)
    return data


def masked(data: Data, masks: Sequence[MaskPart], on: str) -> bytes:
    """The bytes of a part with its masks."""
    for mask in masks:
        if mask.on == on:
            data = _turned(data, mask, 0, back=False)
    return bytes(data)


def mask_stream(stream: BinaryIO, masks: Sequence[MaskPart], on: str) -> None:
    """Mask what is in a stream, in its place."""
    for mask in masks:
        if mask.on != on:
            continue
        at = 0
        while True:
            stream.seek(at)
            piece = stream.read(_PIECE)
            if not piece:
                break
            stream.seek(at)
            stream.write(_turned(piece, mask, at, back=False))
            at += len(piece)


def _turned(data: Data, mask: MaskPart, at: int, back: bool) -> bytes:
    """Bytes that begin at a position of their part, masked or (`back`) without the mask."""
    values = np.frombuffer(data, np.uint8)
    key = _key(mask, at, len(values))
    if mask.by == "xor":
        return (values ^ key).tobytes()
    return (values - key if back else values + key).astype(np.uint8).tobytes()


def _key(mask: MaskPart, at: int, count: int) -> npt.NDArray[np.uint8]:
    if mask.value is not None:
        found = expression(mask.value).evaluate({"position": np.arange(at, at + count, dtype=np.int64)})
        return np.broadcast_to(np.asarray(found) & 0xFF, count).astype(np.uint8)
    key = np.frombuffer(bytes.fromhex(mask.key), np.uint8)
    turned = np.roll(key, -(at % len(key)))
    return np.resize(turned, count)
