"""From an entry's stored bytes to its content: which packing, unpacked, checked. The same for every way of finding entries."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from furnel.containers.fields import Fields
from furnel.containers.naming import Packing
from furnel.containers.packing import unpack, unpack_any, unpack_start
from furnel.containers.schema import Layout
from furnel.containers.sums import sum_bytes, sum_of
from furnel.errors import FurnelError

_WHAT = "Reading an entry"
_MOST_UNTOLD = 1 << 30


def packing_of(layout: Layout, code: int | None, where: object) -> Packing:
    """The packing that a number stands for; without one, the layout's own."""
    if code is None:
        return layout.entry.packed
    if code not in layout.entry.packings:
        raise FurnelError(
            _WHAT, where=where, why=f"its packing is {code}, and the layout does not say what that is",
            remedy="Add it to [entry] packings",
        )  # fmt: skip
    return layout.entry.packings[code]


def content(
    layout: Layout, fields: Fields, values: Mapping[str, Any], raw: memoryview, packing: Packing, size: int, where: object
) -> bytes:  # fmt: skip
    """An entry's content from its stored bytes (`size` unpacked, -1 when nobody tells), checked by the sums in its record."""
    check_sum(layout, fields, values, "stored sum", raw, where)
    raw = without_padding(layout, raw, packing, size)
    data = unpack_any(raw, packing, _MOST_UNTOLD, where) if size < 0 else unpack(raw, packing, size, where)
    check_sum(layout, fields, values, "sum", data, where)
    return data


def without_padding(layout: Layout, raw: memoryview, packing: Packing, size: int) -> memoryview:
    """Stored bytes without what only fills them up to the alignment, where a stored size tells that, too."""
    is_padded = packing == "none" and 0 <= size < len(raw) and len(raw) - size < layout.entry.align
    return raw[:size] if is_padded else raw


def beginning(raw: memoryview, packing: Packing, wanted: int, size: int, where: object) -> bytes:
    """The first `wanted` bytes of a content, with as little work as its packing allows."""
    if packing == "none":
        return bytes(raw[:wanted])
    return unpack_start(raw, packing, wanted, size if size >= 0 else wanted, where)


def check_sum(
    layout: Layout, fields: Fields, values: Mapping[str, Any], role: str, data: bytes | memoryview, where: object
) -> None:  # fmt: skip
    """Refuse data whose sum is not the one in its record."""
    for part in fields:
        if part.holds == role and part.sum is not None and part.name in values:
            order = part.order or layout.byte_order
            if sum_of(part.sum, order, data) != sum_bytes(part, values[part.name], order):
                raise FurnelError(
                    _WHAT, where=where, why=f"its {part.sum} is not the one that the archive says",
                    remedy="The archive is damaged: take a fresh copy of it",
                )  # fmt: skip
