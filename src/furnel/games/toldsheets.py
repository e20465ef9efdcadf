"""Sheets that a game's own texts speak of: a record that names a picture and says how large one frame of it is."""

from __future__ import annotations

import posixpath
import re
from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from furnel.texts import Document, Node

_SIZES = (
    "size",
    "frame-size",
    "frame_size",
    "framesize",
    "cell",
    "cell-size",
    "cell_size",
    "tile-size",
    "tile_size",
)
_SIDES = (
    ("frame-width", "frame-height"),
    ("frame_width", "frame_height"),
    ("tile_width", "tile_height"),
    ("tilewidth", "tileheight"),
)
_TELLING = {*_SIZES, *(side for pair in _SIDES for side in pair)}
_LEAST, _MOST = 8, 4096
SPEAKS = re.compile(rf"(?<![\w-])(?:{'|'.join(sorted(_TELLING, key=len, reverse=True))})(?![\w-])")
"""What a text has in it that may tell of a sheet."""


@dataclass(frozen=True, slots=True)
class ToldSheet:
    """A picture (its path) with the size of its cells in pixels, and the text that says so."""

    picture: str
    cell: tuple[int, int]
    text: str


def told_sheets(
    documents: Iterable[tuple[str, Document]],
    pictures: Sequence[str],
    size_of: Callable[[str], tuple[int, int] | None],
) -> list[ToldSheet]:
    """The sheets of a game. Only those of which all texts say the same, whose cells fill the picture, and more than one do."""
    by_name: dict[str, list[str]] = defaultdict(list)
    for path in pictures:
        by_name[path.rpartition("/")[2]].append(path)
        by_name[path.rpartition("/")[2].rpartition(".")[0]].append(path)
    known, said = set(pictures), dict[str, dict[tuple[int, int], str]]()
    for where, document in documents:
        for record in _records(document.root):
            cell = _cell(record)
            if cell is None:
                continue
            for value in record.values():
                if isinstance(value, str) and (picture := _picture(value, where, known, by_name)):
                    said.setdefault(picture, {}).setdefault(cell, where)
    out = []
    for picture, cells in sorted(said.items()):
        (cell, where), *others = cells.items()
        size = size_of(picture) if not others else None
        if size is not None and _fills(cell, size):
            out.append(ToldSheet(picture, cell, where))
    return out


def _records(node: Node) -> Iterator[dict[str, Any]]:
    """The tables that speak of sizes."""
    items = (
        node.items
        if node.kind == "table" or any(item.node.kind != "scalar" for item in node.items[:1])
        else ()
    )
    if any(item.key in _TELLING for item in items):
        yield node.plain()
    for item in items:
        yield from _records(item.node)


def _cell(record: dict[str, Any]) -> tuple[int, int] | None:
    """How large a record says that something is: a pair, or two sides."""
    pairs = [record[key] for key in _SIZES if isinstance(record.get(key), list) and len(record[key]) == 2]
    pairs += [[record[one], record[other]] for one, other in _SIDES if one in record and other in record]
    for wide, high in pairs:
        try:
            cell = int(str(wide)), int(str(high))
        except ValueError:
            continue
        if all(_LEAST <= side <= _MOST for side in cell):
            return cell
    return None


def _picture(value: str, where: str, known: set[str], by_name: dict[str, list[str]]) -> str:
    """The picture that a text names: beside it, from the game's folder, or the only one that is called so."""
    if not 2 < len(value) < 200 or "\n" in value:
        return ""
    beside = posixpath.normpath(posixpath.join(posixpath.dirname(where), value))
    for path in (beside, value.lstrip("./")):
        if path in known:
            return path
    ends = [
        path
        for path in by_name.get(value.rpartition("/")[2], ())
        if path.endswith(value) or f"/{value}." in f"/{path}"
    ]
    return ends[0] if len(ends) == 1 else ""


def _fills(cell: tuple[int, int], size: tuple[int, int]) -> bool:
    across, down = size[0] // cell[0], size[1] // cell[1]
    return across * down > 1 and size[0] % cell[0] == 0 and size[1] % cell[1] == 0
