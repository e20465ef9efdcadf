"""Working out an index from what is known: files found in an archive lie somewhere, and those numbers stand in its index.

What carving finds, and what unpacks, has known places and sizes. They are looked for in the rest of the file, as they are
or counted in units or from where the data begins; from how far apart they stand the record falls out, from the text beside
them the names. Every description is tried before it is believed.
"""

from __future__ import annotations

import contextlib
import re
import zlib
from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from itertools import pairwise
from pathlib import Path
from typing import Any

import numpy as np
import numpy.typing as npt

from furnel.containers.anatomy import dissect
from furnel.containers.carving import Find
from furnel.containers.container import Order
from furnel.containers.drafting import (
    Column,
    Ending,
    Found,
    Known,
    layout,
    listed,
    record,
    row_fields,
    top,
    unknown,
)
from furnel.containers.layoutfiles import parse_layout
from furnel.containers.packing import PACKINGS
from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress, check

_MOST_KNOWN, _MOST_UNPACKED, _REST, _HEAD = 4000, 64 << 20, 4 << 20, 64
_UNITS = (1, 2048, 512, 16, 4096, 1024, 32, 64, 128, 256, 4, 8)
_TEXT = re.compile(rb"[\w\-./\\ !#$%&'()+,;=@\[\]^`{}~\x80-\xff]{2,250}")
_ORDERS: tuple[Order, ...] = ("little", "big")
Numbers = npt.NDArray[np.int64]


def known_in(view: memoryview, finds: Sequence[Find]) -> list[Known]:
    """What is found by its signature, or unpacks to something, and lies in nothing else that is."""
    if finds:
        return [Known(find.offset, find.size, find.size) for find in finds[:_MOST_KNOWN]]
    out: list[Known] = []
    view, end = view[:_MOST_UNPACKED], 0
    for match in re.finditer(rb"\x78[\x01\x5e\x9c\xda]", view):
        at = match.start()
        if at < end or len(out) >= _MOST_KNOWN:
            continue
        consumed: list[int] = []
        with contextlib.suppress(zlib.error):
            zlib.decompressobj().decompress(view[at : at + 4096], 64)  # noise gives up soon
            size = sum(map(len, PACKINGS["zlib"].pieces(view[at:], consumed)))
            if size > 8:
                end = at + consumed[0]
                out.append(Known(at, consumed[0], size, "zlib"))
    return out


def masked_by(view: memoryview) -> int:
    """The byte that all seems to be masked with by exclusive-or, by how often known beginnings stand under it; else 0."""
    counts = Counter[int]()
    turns = _turns(view[:_REST])  # from byte to byte a mask of one byte cancels out
    for letters in (b"\x89PNG\r\n\x1a\n", b"OggS\0", b"WAVEfmt ", b"DDS \x7c\0\0\0", b"KTX 20"):
        for match in re.finditer(re.escape(_turns(memoryview(letters))), turns):
            counts[view[match.start()] ^ letters[0]] += 1
    counts.pop(0, None)
    return next((key for key, often in counts.most_common(1) if often >= 3), 0)


def _turns(view: memoryview) -> bytes:
    """By what each byte has to be turned over to become the next one."""
    values = np.frombuffer(view, np.uint8)
    return (values[:-1] ^ values[1:]).tobytes()


def work_out(
    path: Path, view: memoryview, known: Sequence[Known], older: str, key: int = 0, progress: Progress = QUIET
) -> tuple[str, float]:
    """The description that explains most, and which part of what is known it finds; the `older` one where none is better. `key`
    is the byte that entries are masked with, or 0."""
    mask = f'\n[[masks]]\non = "entry"\nkey = "{key:02x}"\n' if key else ""
    best, best_score = older + mask, 0.0
    if len(known) < 3:
        return best, best_score
    best_score = _score(path, best, known)
    for draft in _drafts(path, view, known):
        check(progress, "Working out an archive")
        draft += mask
        score = _score(path, draft, known)
        if score > best_score + 1e-9:
            best, best_score = draft, score
        if best_score >= 1:
            break
    return best, best_score


def _score(path: Path, draft: str, known: Sequence[Known]) -> float:
    """Which part of what is known a description finds, at its place and in its size; less for what does not add up."""
    try:
        seen = dissect(path, parse_layout(draft, "the guess"))
    except FurnelError:
        return -1.0
    spans = {(span.start, span.end - span.start) for span in seen.spans if span.kind == "data"}
    right = sum((one.offset, one.stored) in spans for one in known) / len(known)
    return right - 0.25 * bool(seen.faults) if seen.entries else -0.5


def _drafts(path: Path, view: memoryview, known: Sequence[Known]) -> Iterator[str]:
    for found in _indexes(view, known):
        yield from _described(path, view, found, known)
    yield from _chains(path, view, known)


# Where the numbers stand


def _rest(view: memoryview, known: Sequence[Known]) -> list[tuple[int, bytes]]:
    """The parts of a file that are nothing known: the first of them, and the last."""
    out, at = [], 0
    for one in [*sorted(known), Known(len(view), 0, 0)]:
        if one.offset - at >= 4:
            out.append((at, bytes(view[at : min(one.offset, at + _REST)])))
        at = max(at, one.offset + one.stored)
    return out if len(out) < 64 else [*out[:32], *out[-32:]]


def _indexes(view: memoryview, known: Sequence[Known]) -> Iterator[Found]:
    offsets = np.array(sorted(one.offset for one in known), np.int64)
    first = int(offsets[0])
    rest = _rest(view, known)
    for width in (4, 8):
        for order in _ORDERS:
            for unit in _UNITS:
                if unit > 1 and (offsets % unit).any():
                    continue
                for base in (0, first) if unit == 1 else (0,):
                    for start, piece in rest:
                        places = _places(start, piece, width, order, (offsets - base) // unit)
                        if len(places) >= max(3, len(known) // 2):
                            yield from _fixed(view, known, places, width, order, unit, base)
                            yield from _free(view, known, places, width, order, unit, base)


def _places(start: int, piece: bytes, width: int, order: Order, wanted: Numbers) -> Numbers:
    """Where one of some numbers stands."""
    kind = f"{'<' if order == 'little' else '>'}u{width}"
    out = []
    for shift in range(width):
        count = (len(piece) - shift) // width
        if count > 0:
            numbers = np.frombuffer(piece, kind, count, shift).astype(np.int64)
            out.append(start + shift + width * np.flatnonzero(np.isin(numbers, wanted) & (numbers > 0)))
    return np.sort(np.concatenate(out)) if out else np.zeros(0, np.int64)


def _number(view: memoryview, at: int, width: int, order: Order) -> int:
    return int.from_bytes(view[at : at + width], order) if 0 <= at <= len(view) - width else -1


def _runs(places: Numbers, least: int) -> Iterator[tuple[int, int, int]]:
    """First place, stride and number of places that are equally far apart."""
    strides = Counter(
        (places[ahead:] - places[:-ahead]).tolist()[k]
        for ahead in (1, 2, 3)
        for k in range(len(places) - ahead)
    )
    for stride, _ in strides.most_common(4):
        if not 4 <= stride <= 1024:
            continue
        rests = Counter((places % stride).tolist())
        rest, count = rests.most_common(1)[0]
        if count >= least:
            mine = places[places % stride == rest]
            yield int(mine[0]), stride, count


def _fixed(
    view: memoryview, known: Sequence[Known], places: Numbers, width: int, order: Order, unit: int, base: int
) -> Iterator[Found]:
    """Records of one length."""
    by_offset = {one.offset: one for one in known}
    for first, stride, count in _runs(places, max(3, len(known) // 2)):
        last = int(places[places % stride == first % stride][-1])
        rows = list(range(first, last + 1, stride))
        if count * 3 < len(rows):
            continue
        mine = [
            (at, by_offset[value]) for at in rows
            if (value := _number(view, at, width, order) * unit + base) in by_offset
        ]  # fmt: skip
        columns = _columns(view, mine, -stride + 1, stride, width, order, unit, base)
        name = _name_of(view, rows, stride, columns)
        starts = [column.at for column in columns] + ([name[0]] if name else [])
        start = min(starts)
        ends = [column.at + column.width for column in columns] + ([name[0] + 1] if name else [])
        if max(ends) - start > stride:
            inside = [at for at in starts if max(ends) - at <= stride]
            start = min(inside, default=0)
            columns = [column for column in columns if start <= column.at <= start + stride - column.width]
            name = name if name and start <= name[0] < start + stride else None
        if name is not None:
            after = min([c.at for c in columns if c.at > name[0]], default=start + stride)
            name = name[0], min(name[1], after - name[0]), ""
        begin, end = first + start, last + start + stride
        # rows of what is not known lie before and behind
        while begin - stride >= 0 and _is_row(
            view, begin - stride - start, width, order, unit, base, name, start
        ):
            begin -= stride
        while _is_row(view, end - start, width, order, unit, base, name, start):
            end += stride
        for column in columns:
            column.at -= start
        shown = (name[0] - start, name[1], name[2]) if name else None
        rows_now = (end - begin) // stride
        counts = [rows_now, *(n for n in range(len(mine), rows_now) if rows_now - n < 40)]
        yield Found(order, begin, end, stride, columns, shown, counts)


def _is_row(
    view: memoryview, at: int, width: int, order: Order, unit: int, base: int, name: Any, start: int
) -> bool:
    value = _number(view, at, width, order)
    if value < 0 or not 0 < value * unit + base <= len(view):
        return False
    text = bytes(view[at + name[0] : at + name[0] + name[1]]).split(b"\0")[0] if name else b""
    return name is None or bool(_TEXT.fullmatch(text))


def _columns(
    view: memoryview, mine: Sequence[tuple[int, Known]], low: int, high: int, width: int, order: Order, unit: int, base: int
) -> list[Column]:  # fmt: skip
    """The offset and what else of the known stands as far from it in nearly every record: sizes, ends."""
    told = f"value * {unit}" if unit > 1 else "value"
    told = f"{told} + {base}" if base else told if unit > 1 else ""
    out = [Column(0, width, "offset", told)]
    packed = any(one.packing != "none" for _, one in mine)
    size = "stored size" if packed else "size"
    wanted: list[tuple[str, str, Callable[[Known], int]]] = [(size, "", lambda one: one.stored)]
    if packed:
        wanted.append(("size", "", lambda one: one.size))
    wanted.append((size, "value - offset", lambda one: one.offset + one.stored))
    if unit > 1:
        wanted.append(("stored size", f"value * {unit}", lambda one: -(-one.stored // unit) * unit))
    mine = _some(mine)
    have: set[str] = set()
    for role, means, take in wanted:
        if role in have:
            continue
        for wide in (4, 8, 2, 3):
            for at in [step for near in range(1, high) for step in (near, -near) if low <= step < high]:
                if any(at < other.at + other.width and other.at < at + wide for other in out):
                    continue
                scale = unit if means.startswith("value *") else 1
                right = sum(
                    _number(view, place + at, wide, order) * scale == take(one) for place, one in mine
                )
                if right >= max(3, 0.8 * len(mine)):
                    out.append(Column(at, wide, role, means))
                    have.add(role)
                    break
            if role in have:
                break
    return out


def _name_of(
    view: memoryview, rows: Sequence[int], stride: int, columns: Sequence[Column]
) -> tuple[int, int, Ending] | None:
    """Where the names lie, relative to the offset, in records of one length."""
    starts: Counter[int] = Counter()
    taken = {at % stride for column in columns for at in range(column.at, column.at + column.width)}
    for row in rows[:200]:
        low = max(row - stride + 1, 0)
        window = bytearray(view[low : row + stride])
        for at in range(len(window)):
            if (low + at - row) % stride in taken:  # letters of a number are no text
                window[at] = 0
        before = (
            match
            for match in _TEXT.finditer(window)
            if bytes(window[match.start() - 1 : match.start()]) in (b"\0", b"")
        )
        starts.update({(low + match.start() - row) % stride for match in before})
    for place, count in starts.most_common(1):
        if count >= 0.7 * min(len(rows), 200):
            first, last = bytes(view[rows[0] + place - stride :][:2]), bytes(view[rows[-1] + place :][:2])
            at = place if _TEXT.match(last) and not _TEXT.match(first) else place - stride
            room = next((c.at - at for c in sorted(columns, key=lambda c: c.at) if c.at > at), stride)
            return at, room, ""
    return None


def _free(
    view: memoryview, known: Sequence[Known], places: Numbers, width: int, order: Order, unit: int, base: int
) -> Iterator[Found]:
    """Records with names of any length before the numbers."""
    by_offset = {one.offset: one for one in known}
    mine = [(int(at), by_offset[_number(view, int(at), width, order) * unit + base]) for at in places]
    tried = _some(mine)
    endings: tuple[Ending, ...] = ("u8", "u16", "u32", "zero")
    for ends in endings:
        gaps = Counter(
            gap for at, _ in tried for gap in range(33) if _text_before(view, at - gap, ends, order) >= 0
        )
        for gap, count in gaps.most_common(3):
            if count < max(3, 0.8 * len(tried)):
                break
            begins = [(_text_before(view, at - gap, ends, order), at) for at, _ in mine]
            heads = sorted(pair for pair in begins if pair[0] >= 0)
            tails = Counter(after[0] - at for (_, at), after in pairwise(heads))
            tail, often = tails.most_common(1)[0]
            if not width <= tail <= 64 or often < 0.6 * len(tails):
                continue
            columns = _columns(view, mine, -gap, tail, width, order, unit, base)
            for column in columns:
                column.at += gap
            counts = list(range(len(mine), len(mine) + 40))
            yield Found(order, heads[0][0], heads[-1][1] + tail, gap + tail, columns, (-1, 0, ends), counts)


def _some(many: Sequence[tuple[int, Known]]) -> Sequence[tuple[int, Known]]:
    """Enough of many to judge by."""
    return many[:: max(len(many) // 100, 1)]


def _text_before(view: memoryview, end: int, ends: Ending, order: Order) -> int:
    """Where a text that ends at a byte begins, its length before it included; -1 where none does."""
    if ends == "zero":
        if end < 2 or view[end - 1] != 0:
            return -1
        piece = bytes(view[max(end - 250, 0) : end - 1])
        text = re.search(rb"[\w\-./\\ ]{2,}\Z", piece)
        return end - 1 - len(text.group()) if text else -1
    width = int(ends[1:]) // 8
    for length in range(1, min(250, end - width)):
        start = end - length
        if not 32 <= view[start] < 256 or view[start] == 127:
            return -1
        if _number(view, start - width, width, order) == length:
            return start - width
    return -1


# Descriptions


def _described(path: Path, view: memoryview, found: Found, known: Sequence[Known]) -> Iterator[str]:
    """Layouts for an index: one for every place at which its count may stand."""
    front = found.start <= min(one.offset for one in known)
    head_end = found.start if front else min(min(one.offset for one in known), _HEAD)
    tail_start = len(view) if front else found.end
    plain, packed = row_fields(found), known[0].packing
    for count in found.counts:
        end = found.start + count * found.stride  # where the data begins, too, it seems
        rows = [row.replace(f"value + {end}", "value + data_start") for row in plain] if front else plain
        for place, width in _where(view, count, head_end, tail_start, found.order):
            told = {place: ("count", width, "entry count")}
            if not front:
                at = next(iter(_where(view, found.start, head_end, tail_start, found.order, (8, 4))), None)
                if at is None:
                    continue
                told[at[0]] = ("index_at", at[1], "index offset")
            yield layout(path, found, rows, view, told, head_end, tail_start, front, packed)
        if found.name is None or found.name[2] == "":
            size = count * found.stride
            for place, width in _where(view, size, head_end, tail_start, found.order):
                told = {place: ("index_size", width, "index size")}
                if front:
                    yield layout(path, found, rows, view, told, head_end, tail_start, front, packed)


def _where(
    view: memoryview,
    number: int,
    head_end: int,
    tail_start: int,
    order: Order,
    widths: Sequence[int] = (4, 8, 2),
) -> Iterator[tuple[int, int]]:
    """Where a number stands in the file's first bytes, or its last ones."""
    for width in widths:
        spans = (
            range(min(head_end, 256) - width + 1),
            range(max(tail_start, len(view) - 64), len(view) - width + 1),
        )
        for span in spans:
            for at in span:
                if _number(view, at, width, order) == number:
                    yield at, width


# Chains


def _chains(path: Path, view: memoryview, known: Sequence[Known]) -> Iterator[str]:
    """Records right before the data: each tells the size of what follows it."""
    ordered = sorted(known)
    for order in _ORDERS:
        for width in (4, 8, 2):
            for back in range(width, 65):
                right = sum(_number(view, one.offset - back, width, order) == one.stored for one in ordered)
                if right >= max(3, 0.8 * len(ordered)):
                    yield from _chain(path, view, ordered, back, width, order)


def _chain(
    path: Path, view: memoryview, ordered: Sequence[Known], back: int, width: int, order: Order
) -> Iterator[str]:
    pairs = list(pairwise(ordered))
    behind = f'{{ name = "size", type = "u{8 * width}", holds = "size" }}'
    after = [unknown(9, back - width)] if back > width else []
    for align in (1, 4, 2, 8, 16, 2048):
        gaps = Counter(
            later.offset - (-(-(one.offset + one.stored) // align) * align) for one, later in pairs
        )
        gap, often = gaps.most_common(1)[0]
        if back <= gap <= 320 and often >= 0.8 * len(pairs):
            for named in _chain_names(view, ordered, gap, back, order):
                yield _chain_text(path, view, [*named, behind, *after], ordered[0].offset - gap, align, order)
        for ends in ("u8", "u16", "u32", "zero"):
            starts = [_text_before(view, one.offset - back, ends, order) for one in ordered]  # type: ignore[arg-type]
            if min(starts) >= 0:
                name = f'{{ name = "path", type = "text", ends = "{ends}", holds = "path" }}'
                yield _chain_text(path, view, [name, behind, *after], starts[0], align, order)


def _chain_names(
    view: memoryview, ordered: Sequence[Known], gap: int, back: int, order: Order
) -> Iterator[list[str]]:
    """What stands in a record of one length before the size: a name, a tag, or something that nobody knows."""
    before = gap - back
    heads = [bytes(view[one.offset - gap : one.offset - back]) for one in ordered]
    if before >= 8 and all(_TEXT.match(head) for head in heads):
        longest = max(len(head.split(b"\0")[0]) for head in heads)
        if longest <= before:
            yield [f'{{ name = "path", type = "text", length = {before}, holds = "path" }}']
    if before == 4 and all(re.fullmatch(rb"[\w ]{4}", head) for head in heads):
        yield ['{ name = "tag", type = "text", length = 4, holds = "tag" }']
    yield [unknown(1, before)] if before else []


def _chain_text(
    path: Path, view: memoryview, fields: Sequence[str], begin: int, align: int, order: Order
) -> str:
    lines = top(path, order)
    if begin > 0:
        lines += ["", "[start]", *listed(record(view, 0, begin, {}))]
    lines += ["", "[chain]", *([f"align = {align}"] if align > 1 else []), *listed(fields)]
    return "\n".join(lines) + "\n"
