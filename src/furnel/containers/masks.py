"""Masks over an archive's bytes: a key that repeats or an expression over the position, by exclusive-or or addition."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING, BinaryIO

import numpy as np
import numpy.typing as npt

from furnel.containers.expressions import Number, expression

if TYPE_CHECKING:
    from furnel.containers.schema import MaskPart

_PIECE = 1 << 20
Data = bytes | memoryview
Scope = Mapping[str, Number]


def unmasked(data: Data, masks: Sequence[MaskPart], on: str, scope: Scope) -> Data:
    """The bytes of a part (`whole`, `index`, `names`, `entry`) without its masks, the last one first; the same object without
    any. `scope` are the numbers that masks may depend on."""
    wanted = [mask for mask in masks if mask.on == on]
    for mask in reversed(wanted):
        data = _turned(data, mask, 0, len(data), scope, back=True)
    return data


def masked(data: Data, masks: Sequence[MaskPart], on: str, scope: Scope) -> bytes:
    """The bytes of a part with its masks."""
    for mask in masks:
        if mask.on == on:
            data = _turned(data, mask, 0, len(data), scope, back=False)
    return bytes(data)


def mask_stream(
    stream: BinaryIO, masks: Sequence[MaskPart], on: str, scope: Scope, start: int = 0, back: bool = False
) -> None:
    """Mask what is in a stream, in its place and piece by piece, from a byte on to its end; `back`: take the masks off."""
    end = stream.seek(0, 2)
    for mask in reversed(masks) if back else masks:
        if mask.on != on:
            continue
        for at in range(start, end, _PIECE):
            stream.seek(at)
            piece = stream.read(_PIECE)
            stream.seek(at)
            stream.write(_turned(piece, mask, at - start, end - start, scope, back))
    stream.seek(0, 2)


def _turned(data: Data, mask: MaskPart, at: int, size: int, scope: Scope, back: bool) -> bytes:
    """Bytes that begin at a position of their part of a size, masked or (`back`) without the mask."""
    values = np.frombuffer(data, np.uint8)
    key = _key(mask, at, len(values), size, scope)
    if mask.by == "xor":
        return (values ^ key).tobytes()
    return (values - key if back else values + key).astype(np.uint8).tobytes()


def _key(mask: MaskPart, at: int, count: int, size: int, scope: Scope) -> npt.NDArray[np.uint8]:
    if mask.value is not None:
        positions = np.arange(at, at + count, dtype=np.int64)
        found = expression(mask.value).evaluate({**scope, "position": positions, "size": size})
        return np.broadcast_to(np.asarray(found) & 0xFF, count).astype(np.uint8)
    key = np.frombuffer(bytes.fromhex(mask.key), np.uint8)
    turned = np.roll(key, -(at % len(key)))
    return np.resize(turned, count)
