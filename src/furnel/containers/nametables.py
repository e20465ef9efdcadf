"""Name tables of indexes, written: with what they have besides their entries' names."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from furnel.containers.fields import WIDTHS
from furnel.containers.reading import Index
from furnel.containers.schema import Layout
from furnel.errors import FurnelError

if TYPE_CHECKING:
    from furnel.containers.placing import Item

_WRITING = "Writing an archive"


def name_table(
    items: Sequence[Item], layout: Layout, old: Index | None, placed: bool
) -> tuple[bytes, list[int]]:
    """The name table, and where each name begins in it. What the old one has besides its entries' names stays in it."""
    names, starts = _spelled([item.path for item in items], layout)
    if old is None or not old.names:
        return names, starts
    alone = _spelled(old.paths, layout)[0]
    if old.names.startswith(alone):
        return names + old.names[len(alone) :], starts
    if not placed:
        raise FurnelError(
            _WRITING, where=layout.name, why="its name table would not be the same although nobody changed a name",
            remedy="Say in [names] how names are written: it cannot be written anew without a loss",
        )  # fmt: skip
    found = old.table.meaning("name offset", old.head.scope)
    fresh = [item for item in items if item.old < 0 or old.paths[item.old] != item.path]
    more, places = _spelled([item.path for item in fresh], layout)
    behind = {id(item): len(old.names) + at for item, at in zip(fresh, places, strict=True)}
    return old.names + more, [behind.get(id(item), int(found[item.row])) for item in items]


def _spelled(paths: Sequence[str], layout: Layout) -> tuple[bytes, list[int]]:
    """The name table of some entries, and where each name begins in it."""
    out, places, before = bytearray(), [], b""
    share = WIDTHS[layout.names.shares] if layout.names.shares else 0
    for path in paths:
        places.append(len(out))
        raw = layout.names.raw(layout.leaf(path))
        if share:
            same = min(_shared(before, raw), (1 << 8 * share) - 1)
            before, raw = raw, raw[same:]
            out += same.to_bytes(share, layout.byte_order)
        if layout.names.ends == "zero":
            out += raw + b"\0"
        else:
            width = WIDTHS[layout.names.ends]
            if len(raw) >> 8 * width:
                raise FurnelError(
                    _WRITING, where=path, why=f"names have to be shorter than {1 << 8 * width} bytes"
                )
            out += len(raw).to_bytes(width, layout.byte_order) + raw
    return bytes(out), places


def _shared(before: bytes, name: bytes) -> int:
    """With how many bytes of the one before a name begins."""
    pairs = zip(before, name, strict=False)
    return next((at for at, (one, other) in enumerate(pairs) if one != other), min(len(before), len(name)))
