"""A description made by pointing at bytes: what somebody says of a few of them becomes fields of a layout."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path
from typing import NamedTuple

from furnel.containers.container import Order
from furnel.containers.drafting import listed, top, unknown
from furnel.containers.fields import WIDTHS
from furnel.errors import FurnelError

IS = ("letters", "count", "name", "offset", "size", "stored size", "number")
"""What bytes can be said to be."""
_OF_ENTRIES = ("name", "offset", "size", "stored size")
_KINDS = {width: kind for kind, width in WIDTHS.items() if kind[0] == "u"}
_HOLDS = {
    "count": "entry count", "name": "path", "offset": "offset", "size": "size", "stored size": "stored size",
}  # fmt: skip


class Mark(NamedTuple):
    """What some bytes of a file are: one of `IS`. Those of entries are marked in the first one's record."""

    start: int
    end: int
    what: str


def with_mark(marks: Sequence[Mark], mark: Mark) -> list[Mark]:
    """Marks with one more, which takes the place of what it overlaps, and of the same thing elsewhere. Raises FurnelError for
    bytes that cannot be that."""
    if mark.what not in ("letters", "name") and mark.end - mark.start not in _KINDS:
        raise FurnelError(
            "Describing bytes", where=f"bytes {mark.start} to {mark.end - 1}",
            why=f"{mark.end - mark.start} bytes are no number", remedy="Numbers have 1, 2, 3, 4 or 8 bytes",
        )  # fmt: skip
    alone = mark.what not in ("letters", "number")
    kept = [
        one for one in marks
        if (one.end <= mark.start or one.start >= mark.end) and not (alone and one.what == mark.what)
    ]  # fmt: skip
    return sorted([*kept, mark])


def described(path: Path, view: memoryview, marks: Sequence[Mark]) -> str:
    """The layout that some marks make; what lies between them is carried through as it is."""
    order = _order(view, marks)
    first = min(
        (mark.start for mark in marks if mark.what in _OF_ENTRIES), default=max(mark.end for mark in marks)
    )
    head = [mark for mark in marks if mark.end <= first]
    rows = [
        mark._replace(what="number") if mark.what == "count" else mark
        for mark in marks
        if mark.start >= first
    ]
    lines = top(path, order)
    if first > 0:
        lines += ["", "[start]", *listed(_fields(view, head, 0, first))]
    if not rows:
        return "\n".join([*lines, "", "# Say where the first entry's name, offset and size stand"]) + "\n"
    end = max(mark.end for mark in rows)
    lines += ["", "[index]"]
    if not any(mark.what == "name" for mark in rows):
        lines.append('names = "numbers"')
    return "\n".join([*lines, *listed(_fields(view, rows, first, end))]) + "\n"


def _order(view: memoryview, marks: Sequence[Mark]) -> Order:
    """The order in which the marked numbers are small."""
    votes = 0
    for mark in marks:
        piece = bytes(view[mark.start : mark.end])
        if mark.what not in ("letters", "name") and len(piece) > 1:
            little, big = int.from_bytes(piece, "little"), int.from_bytes(piece, "big")
            votes += (big < little) - (little < big)
    return "big" if votes > 0 else "little"


def _fields(view: memoryview, marks: Sequence[Mark], start: int, end: int) -> list[str]:
    out, at, counts = [], start, {"unknown": 0, "letters": 0, "number": 0}

    def numbered(word: str) -> str:
        counts[word] += 1
        return f"{word}{counts[word]}"

    for mark in [*marks, Mark(end, end, "")]:
        if mark.start > at:
            out.append(unknown(0, mark.start - at).replace("unknown0", numbered("unknown")))
        at, width = mark.end, mark.end - mark.start
        if mark.what == "letters":
            piece = bytes(view[mark.start : mark.end])
            text = piece.decode("latin-1")
            same = f'"{text}"' if text.isascii() and text.isalnum() else str([*piece])
            kind = "text" if same[0] == '"' else "bytes"
            out.append(
                f'{{ name = "{numbered("letters")}", type = "{kind}", length = {width}, is = {same} }}'
            )
        elif mark.what == "name":
            out.append(f'{{ name = "name", type = "text", length = {width}, holds = "path" }}')
        elif mark.what == "number":
            out.append(f'{{ name = "{numbered("number")}", type = "{_KINDS[width]}" }}')
        elif mark.what:
            name, holds = mark.what.replace(" ", "_"), _HOLDS[mark.what]
            out.append(f'{{ name = "{name}", type = "{_KINDS[width]}", holds = "{holds}" }}')
    return out
