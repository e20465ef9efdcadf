"""Descriptions of archives as text, from what was worked out of them."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, field
from pathlib import Path
from typing import Literal, NamedTuple

from furnel.containers.container import Order
from furnel.schema import quoted

Ending = Literal["zero", "u8", "u16", "u32", ""]
Told = dict[int, tuple[str, int, str]]
"""What stands at some bytes of a start or a footer: its name, its width, what it holds."""
_NOTHING = (
    '{ name = "offset", type = "u32", holds = "offset" }',
    '{ name = "size", type = "u32", holds = "size" }',
)
"""The fields to go on from where nothing is known."""


class Known(NamedTuple):
    """Something in the file whose place is known: where its bytes lie, how many are stored, how many unpacked."""

    offset: int
    stored: int
    size: int
    packing: str = "none"


@dataclass(slots=True)
class Column:
    """A number of the record, by where it lies relative to the offset."""

    at: int
    width: int
    holds: str
    means: str = ""


@dataclass(slots=True)
class Found:
    """An index as it seems to be: where its first record begins, its fields, how many records there may be."""

    order: Order
    start: int
    end: int
    stride: int
    columns: list[Column]
    name: tuple[int, int, Ending] | None  # where it lies relative to the record, its room, how it ends
    counts: list[int] = field(default_factory=list)


def nothing_known(path: Path, view: memoryview) -> str:
    """A description to go on from where nothing is known: a count behind the letters, and where entries lie."""
    at = 4 if _letters(view, 0) else 0
    start = record(view, 0, at + 4, {at: ("count", 4, "entry count")})
    parts = ["", "[start]", *listed(start), "", "[index]", 'names = "numbers"', *listed(_NOTHING)]
    return "\n".join([*top(path, "little"), *parts]) + "\n"


def row_fields(found: Found) -> list[str]:
    """The fields of an index's records."""
    parts: list[tuple[int, int, str]] = []
    for column in found.columns:
        means = f', means = "{column.means}"' if column.means else ""
        kind = f"u{8 * column.width}"
        name = column.holds.replace(" ", "_")
        parts.append(
            (column.at, column.width, f'name = "{name}", type = "{kind}", holds = "{column.holds}"{means}')
        )
    lines = []
    if found.name is not None and found.name[2]:
        lines.append(f'{{ name = "path", type = "text", ends = "{found.name[2]}", holds = "path" }}')
    elif found.name is not None:
        at, room, _ = found.name
        parts.append((at, room, f'name = "path", type = "text", length = {room}, holds = "path"'))
    at, number = 0, 0
    for start, width, text in sorted(parts):
        if start > at:
            number += 1
            lines.append(unknown(number, start - at))
        lines.append(f"{{ {text} }}")
        at = start + width
    if found.stride > at:
        lines.append(unknown(number + 1, found.stride - at))
    return lines


def unknown(number: int, width: int) -> str:
    """A field of so many bytes that nobody knows."""
    kind = f'type = "u{8 * width}"' if width in (1, 2, 4, 8) else f'type = "bytes", length = {width}'
    return f'{{ name = "unknown{number}", {kind} }}'


def layout(
    path: Path, found: Found, rows: Sequence[str], view: memoryview, told: Told, head_end: int,
    tail_start: int, front: bool, packed: str,
) -> str:  # fmt: skip
    """A whole description; `told` is what stands in the start and the footer."""
    lines = top(path, found.order)
    for part, low, high in (("start", 0, head_end), ("footer", tail_start, len(view))):
        inside = {at: one for at, one in told.items() if low <= at < high}
        if part == "start" and head_end and (front or inside):
            lines += [
                "",
                "[start]",
                *listed(record(view, low, head_end if front else max(_end(inside), 4), inside)),
            ]
        elif part == "footer" and inside:
            lines += ["", "[footer]", *listed(record(view, tail_start, len(view), inside))]
    lines += ["", "[index]"]
    lines += [] if front else ['place = "back"']
    lines += ['names = "numbers"'] if found.name is None else []
    lines += listed(rows)
    unit = next(
        (match for column in found.columns if (match := re.match(r"value \* (\d+)", column.means))), None
    )
    told_of_entries = [f'packed = "{packed}"'] if packed != "none" else []
    told_of_entries += [f"align = {unit.group(1)}"] if unit is not None else []
    lines += ["", "[entry]", *told_of_entries] if told_of_entries else []
    return "\n".join(lines) + "\n"


def _end(inside: Told) -> int:
    return max(at + width for at, (_, width, _) in inside.items())


def top(path: Path, order: Order) -> list[str]:
    """What every description begins with."""
    stem = re.sub(r"[^a-z0-9-]+", "-", path.suffix.lstrip(".").lower()).strip("-") or "archive"
    stem = stem if stem[0].isalpha() else f"a{stem}"
    lines = [
        "furnel-layout = 1", f'name = "{stem}"', f"title = {quoted(f'What {path.name} is made of')}",
        f"files = [{quoted(f'*{path.suffix}')}]",
    ]  # fmt: skip
    return [*lines, 'byte-order = "big"'] if order == "big" else lines


def listed(fields: Sequence[str]) -> list[str]:
    """Fields as a list in TOML."""
    return ["fields = [", *(f"  {part}," for part in fields), "]"]


def _letters(view: memoryview, at: int) -> str:
    """The four letters that stand somewhere, or nothing."""
    found = re.match(rb"[A-Za-z0-9_!]{4}", bytes(view[at : at + 4]))
    return found.group().decode() if found else ""


def record(view: memoryview, start: int, end: int, told: Told) -> list[str]:
    """The fields of a start or a footer: its letters, what is known in it, and the rest as it is."""
    lines, at, number = [], start, 0
    magic = _letters(view, start)
    if magic and start + 4 <= min(told, default=end):
        lines.append(f'{{ name = "magic", type = "text", length = 4, is = "{magic}" }}')
        at = start + 4
    for place, (name, width, role) in sorted(told.items()):
        if place > at:
            number += 1
            lines.append(unknown(number, place - at).replace("unknown", "rest"))
        lines.append(f'{{ name = "{name}", type = "u{8 * width}", holds = "{role}" }}')
        at = place + width
    if end > at:
        lines.append(unknown(number + 1, end - at).replace("unknown", "rest"))
    return lines
