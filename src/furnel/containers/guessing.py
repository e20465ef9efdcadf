"""Guesses to start from: what an unknown archive's bytes look like, and a first description made from them."""

from __future__ import annotations

import re
import struct
import zlib
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

import numpy as np

from furnel.containers.carving import Find, find_files
from furnel.containers.container import Order, Remark
from furnel.containers.drafting import Column, Found, layout, nothing_known, row_fields
from furnel.containers.mapped import MappedFile
from furnel.containers.workingout import known_in, masked_by, work_out
from furnel.progress import QUIET, Progress
from furnel.words import count

_LOOKED_AT, _UNMASKED = 8 << 20, 64 << 20
_NAME = re.compile(rb"[A-Za-z0-9_][\w\-./\\ ]{2,118}[A-Za-z0-9_]")
_PATHLIKE = re.compile(rb"[\w\-]{2}[/\\][\w\-]{2}|[\w\-]{2}\.[A-Za-z][A-Za-z0-9]{1,4}$")
_ROOMS = (256, 128, 120, 112, 100, 96, 80, 64, 60, 56, 52, 48, 40, 32, 28, 24, 20, 16, 12)


@dataclass(frozen=True, slots=True)
class Guesses:
    """All guesses, the files found by their signatures, and a layout's text to start from."""

    guesses: tuple[Remark, ...]
    finds: tuple[Find, ...]
    draft: str


@dataclass(frozen=True, slots=True)
class _Index:
    """Names of fixed room, one record after the other."""

    start: int
    stride: int
    count: int
    room: int
    names: tuple[tuple[int, bytes], ...]


def guess(path: Path, progress: Progress = QUIET) -> Guesses:
    """What a file looks like."""
    source = MappedFile(path)
    try:
        finds = tuple(find_files(source.view, progress))
        head = bytes(source.view[:_LOOKED_AT])
        found = _guess(head, len(source.view), finds, path)
        key = 0 if finds else masked_by(source.view)
        known = known_in(source.view, _under(source.view, key) if key else finds)
        draft, part = work_out(path, source.view, known, found.draft, key, progress)
        told: tuple[Remark, ...] = (
            Remark(f"The guess finds {part:.0%} of the {len(known)} things whose places are known"),
        )
        if key and known:
            told = (Remark(f"Under the mask 0x{key:02x} (exclusive-or) lie {len(known)} known files"), *told)
        return Guesses(found.guesses + told if known and part > 0 else found.guesses, finds, draft)
    finally:
        source.close()


def _under(view: memoryview, key: int) -> list[Find]:
    """The files that are found under a mask of one byte, in as much as is worth unmasking for a guess."""
    return find_files(memoryview((np.frombuffer(view[:_UNMASKED], np.uint8) ^ key).tobytes()))


def _guess(data: bytes, size: int, finds: tuple[Find, ...], path: Path) -> Guesses:
    out: list[Remark] = []
    magic = _magic(data)
    if magic:
        out.append(Remark(f"It begins with “{magic}”: a signature", 0))
    for kind, many in Counter(find.kind for find in finds).most_common():
        first = next(find for find in finds if find.kind == kind)
        out.append(
            Remark(
                f"{many} whole {kind.upper()} {'files' if many > 1 else 'file'} stored as they are",
                first.offset,
            )
        )
    packed = _packed(data)
    for kind, places in packed.items():
        if places:
            out.append(
                Remark(
                    f"{count(len(places), 'place')} where {kind} data unpacks",
                    places[0],
                )
            )
    names = _names(data)
    index = _strided(data, names)
    if index is not None:
        out.append(
            Remark(
                f"{index.count} names of the same room, a record every {index.stride} bytes: an index",
                index.start,
            )
        )
    elif len(names) > 3:
        out.append(
            Remark(
                f"{len(names)} names one after the other: a name table, or names inside records", names[0][0]
            )
        )
    order, columns = (
        _columns(data, size, index, set(packed["zlib"]), {find.offset for find in finds})
        if index
        else ("little", {})
    )
    words = {"offset": "where the data lies", "size": "sizes", "stored size": "stored sizes"}
    for place, role in columns.items():
        assert index is not None
        out.append(
            Remark(f"The number {place} bytes into each record fits {words[role]}", index.start + place)
        )
    counts = (
        _counts(data, index.count if index else len(finds) or len(names), order)
        if index or finds or names
        else []
    )
    for at in counts[:2]:
        out.append(Remark("A number that is the count of entries", at))
    zipped = any(start in packed["zlib"] for start in _starts(data, index, columns, order))
    draft = _draft(path, memoryview(data), index, columns, order, counts, zipped)
    return Guesses(tuple(out), finds, draft)


def _magic(data: bytes) -> str:
    found = re.match(rb"[A-Z][A-Za-z0-9]{2,7}", data)
    return found.group().decode() if found else ""


def _packed(data: bytes) -> dict[str, list[int]]:
    """Where zlib or Zstandard data begins that can be unpacked."""
    zlibs = []
    for match in re.finditer(rb"\x78[\x01\x5e\x9c\xda]", data):
        try:
            if zlib.decompressobj().decompress(data[match.start() : match.start() + 4096], 64):
                zlibs.append(match.start())
        except zlib.error:
            continue
        if len(zlibs) >= 5000:
            break
    return {
        "zlib": zlibs,
        "Zstandard": [match.start() for match in re.finditer(rb"\x28\xb5\x2f\xfd", data)][:5000],
    }


def _names(data: bytes) -> list[tuple[int, bytes]]:
    """Printable runs that look like names of files."""
    return [
        (match.start(), match.group())
        for match in _NAME.finditer(data[: 4 << 20])
        if _PATHLIKE.search(match.group()) and len(match.group()) >= 4
    ][:100_000]


def _strided(data: bytes, names: Sequence[tuple[int, bytes]]) -> _Index | None:
    """The longest run of names that are equally far apart, with a zero behind each."""
    at_place = {at: name for at, name in names if data[at + len(name) : at + len(name) + 1] == b"\0"}
    places = sorted(at_place)
    strides = Counter(
        second - first for ahead in (1, 2, 3) for first, second in zip(places, places[ahead:], strict=False)
    )
    best: tuple[int, int, int] = (0, 0, 0)
    for stride, _ in strides.most_common(12):
        if not 8 < stride <= 1024:
            continue
        for first in places:
            if first - stride in at_place:
                continue
            run, known = 1, 1
            while (at := first + run * stride) < len(data) - stride and _NAME.match(data, at):
                known += at in at_place
                run += 1
            if known * 3 >= run * 2 or run < 4:
                best = max(best, (run, -first, stride))
    count, first, stride = best[0], -best[1], best[2]
    if count < 3:
        return None
    chosen = [(at, _name_at(data, at)) for at in range(first, first + count * stride, stride)]
    room = stride
    for at, name in chosen:  # zeros behind every name say how much room there is
        end = at + len(name)
        zeros = len(data[end : at + stride]) - len(data[end : at + stride].lstrip(b"\0"))
        room = min(room, len(name) + zeros)
    room = max(room, max(len(name) for _, name in chosen))
    longest = max(len(name) for _, name in chosen)
    room = next((width for width in _ROOMS if longest <= width <= room), room)
    return _Index(chosen[0][0], stride, count, room, tuple(chosen))


def _name_at(data: bytes, at: int) -> bytes:
    found = _NAME.match(data, at)
    return found.group() if found else b""


def _columns(
    data: bytes, size: int, index: _Index, zlibs: set[int], found: set[int]
) -> tuple[Order, dict[int, str]]:
    """Which numbers behind the names are offsets and sizes, by their place in the record."""
    best: tuple[int, Order, dict[int, str]] = (0, "little", {})
    orders: tuple[Order, ...] = ("little", "big")
    for order in orders:
        kind = "<u4" if order == "little" else ">u4"
        columns = {}
        for place in range(index.room, index.stride - 3, 4):
            rows = [data[at + place : at + place + 4] for at, _ in index.names]
            if all(len(row) == 4 for row in rows):
                columns[place] = np.frombuffer(b"".join(rows), kind).astype(np.int64)
        roles: dict[int, str] = {}
        for place, values in columns.items():
            starts = sum(int(value) in zlibs or int(value) in found for value in values.tolist())
            rising = bool((np.diff(values) > 0).all()) and values[0] > 0 and int(values.max()) < size
            if starts >= 0.8 * len(values) or (rising and "offset" not in roles.values()):
                roles = {place: "offset"}
                gaps = np.diff(values)
                for other, sizes in columns.items():
                    if other == place or not (sizes >= 0).all():
                        continue
                    fits = bool((sizes[:-1] <= gaps).all()) and bool((gaps - sizes[:-1] < 4096).mean() > 0.7)
                    if fits and "stored size" not in roles.values():
                        roles[other] = "stored size"
                    elif (
                        not fits
                        and "size" not in roles.values()
                        and int(sizes.max()) < 1 << 30
                        and int(sizes.min()) > 0
                    ):
                        roles[other] = "size"
                if starts >= 0.8 * len(values):
                    break
        if len(roles) > best[0]:
            best = len(roles), order, roles
    _, order, roles = best
    if "size" not in roles.values():
        roles = {place: "size" if role == "stored size" else role for place, role in roles.items()}
    return order, roles


def _starts(data: bytes, index: _Index | None, columns: dict[int, str], order: Order) -> list[int]:
    place = next((place for place, role in columns.items() if role == "offset"), None)
    if index is None or place is None:
        return []
    return [int.from_bytes(data[at + place : at + place + 4], order) for at, _ in index.names]


def _counts(data: bytes, count: int, order: Order) -> list[int]:
    if count < 2:
        return []
    wanted = struct.pack("<I" if order == "little" else ">I", count)
    return [at for at in range(0, min(60, len(data) - 3), 2) if data[at : at + 4] == wanted]


def _draft(
    path: Path, view: memoryview, index: _Index | None, columns: dict[int, str], order: Order, counts: list[int], zipped: bool
) -> str:  # fmt: skip
    """A description to go on from; with what is not known left out."""
    if index is None or "offset" not in columns.values():
        return nothing_known(path, view)
    fields = [Column(place, 4, role) for place, role in columns.items()]
    end = index.start + index.count * index.stride
    found = Found(order, index.start, end, index.stride, fields, (0, index.room, ""))
    told = {place: ("count", 4, "entry count") for place in counts[:1] if place + 4 <= index.start}
    packed = "zlib" if zipped else "none"
    return layout(path, found, row_fields(found), view, told, index.start, len(view), True, packed)
