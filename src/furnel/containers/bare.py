"""Bare pixels and samples as files that everything reads, and back: DDS for pixels, WAV for samples.

What a bare picture or sound is (its size, its format, its rate) is told by fields of the archive around it, by a record before
it, or by the layout itself; see `furnel.containers.rawparts`.
"""

from __future__ import annotations

import struct
from collections.abc import Iterator, Mapping
from typing import NamedTuple

import numpy as np

from furnel.containers import palettes, records
from furnel.containers.container import Order
from furnel.containers.fields import RAW_ROLES, held
from furnel.containers.rawparts import SAMPLES, RawPart
from furnel.containers.records import Trace, Values, no_trace
from furnel.errors import FurnelError
from furnel.imagefiles import decode_level, read_texture, write_texture
from furnel.images.formats import FORMATS, full_levels, level_size
from furnel.images.texture import Shape, Texture

_READING, _WRITING = "Reading bare data", "Writing bare data"
_SIDE = 1 << 16
_WAV = struct.Struct("<4sI4s4sIHHIIHH4sI")
Facts = Mapping[str, int]


class Bare(NamedTuple):
    """Bare data taken apart: the record before it, what it says together with what is told around it, where the data begins
    and ends, and the header that the file it is read as begins with."""

    values: Values
    facts: dict[str, int]
    start: int
    end: int
    header: bytes


def measure(
    rule: RawPart, head: memoryview, size: int, told: Facts, order: Order, where: object, trace: Trace = no_trace
) -> Bare:  # fmt: skip
    """What `size` bytes are that begin with `head` (at least the record before the data). Raises FurnelError."""
    order = rule.order or order
    values, start = records.read_record(
        rule.fields, head, 0, order, where, {"file_size": size}, trace, "record"
    )
    facts = {role: number for role, number in told.items() if role in RAW_ROLES}
    for role in held(rule.fields):
        found = records.meaning(rule.fields, values, role, {"file_size": size})
        if isinstance(found, int):
            facts[role] = found
    room = min(facts.pop("size", size), size - start)
    if rule.palette is not None:
        facts, length, header = _numbers(rule, rule.palette, facts, room, where)
    elif rule.pixels is not None:
        facts, length, header = _pixels(rule, facts, room, where)
    else:
        facts, length, header = _samples(rule, facts, room, where)
    return Bare(values, facts, start, start + length, header)


def whole_size(rule: RawPart, bare: Bare) -> int:
    """How many bytes the file has that bare data is read as."""
    if rule.palette is not None:
        return rule.palette.file_size(bare.facts["width"] * bare.facts["height"])
    if rule.pixels is None:
        length = bare.end - bare.start
        return len(bare.header) + length + length % 2
    return len(bare.header) + sum(_plain_sizes(_format(rule, bare.facts), bare.facts))


def dressed(
    rule: RawPart, data: memoryview, told: Facts, order: Order, where: object, shared: bytes | None = None
) -> bytes:
    """Bare data as a DDS, TGA or WAV file; `told` is what the archive's own fields say of it, `shared` are the bytes of a
    palette that lies elsewhere. Raises FurnelError."""
    bare = measure(rule, data, len(data), told, order, where)
    body = data[bare.start : bare.end]
    if rule.palette is not None:
        return palettes.file_of(rule.palette, *_parts(rule, rule.palette, body, bare.facts, shared, where))
    if rule.pixels is not None:
        return bare.header + b"".join(_plain_levels(rule, body, bare.facts, rule.order or order))
    plain = _turned(body, *SAMPLES[_sample(rule, bare.facts)], rule.order or order)
    return bare.header + plain + bytes(len(plain) % 2)


def undressed(
    rule: RawPart, file: bytes, before: memoryview | None, told: Facts, order: Order, where: object,
    shared: bytes | None = None,
) -> tuple[bytes, dict[str, int]]:  # fmt: skip
    """A DDS, TGA or WAV file as bare data, and what the archive's fields have to say of it.

    `before` are the bytes that it replaces (or those of one that it is like): what their record says otherwise stays, and what
    lies behind their data; `told` is what the archive's fields say so far. Raises FurnelError for a file that such bare data
    cannot be, or that would be read back as another one.
    """
    order = rule.order or order
    if rule.palette is not None:
        facts, body = _bare_numbers(rule, rule.palette, file, before, order, told, where, shared)
    elif rule.pixels is not None:
        facts, body = _bare_pixels(rule, file, order, told, where)
    else:
        facts, body = _bare_samples(rule, file, order, told, where)
    values, rest = records.defaults(rule.fields), b""
    if before is not None:
        old = measure(rule, before, len(before), told, order, where)
        values, rest = dict(old.values), bytes(before[old.end :])
    scope = {"file_size": 0}
    for role, number in {**facts, "size": len(body)}.items():
        records.mean(rule.fields, values, role, number, scope)
    made = records.write_record(rule.fields, values, order, scope) + body + rest
    outside = {role: facts[role] for role in told if role in facts}
    again = dressed(rule, memoryview(made), {**told, **outside}, order, where, shared)
    if _content(again, where) != _content(file, where):
        raise FurnelError(
            _WRITING, where=where, why="this archive could not tell what it is: it would be read as something else",
            remedy="Give it the size, the format and the rate of the one that it replaces",
        )  # fmt: skip
    return made, outside


def _content(file: bytes, where: object) -> object:
    """What a file holds, however its header is written."""
    if file[:4] != b"DDS " and file[:4] != b"RIFF":
        return _seen(file, where)
    if file[:4] == b"DDS ":
        texture = read_texture(file, where)
        return texture.width, texture.height, texture.depth, texture.format, [*map(bytes, texture.levels)]
    return _wav_parts(file, where)


def _seen(file: bytes, where: object) -> object:
    """The pixels of a picture; what is clear has no colour."""
    pixels = np.asarray(decode_level(read_texture(file, where)).pixels)
    return pixels.shape, np.where(pixels[..., 3:] == 0, 0, pixels).tobytes()


def _told(facts: Facts, rule_says: int | None, role: str, where: object, most: int) -> int:
    """A number that a field tells, or that is the same for all."""
    number = facts.get(role, rule_says)
    if number is None or not 0 < number <= most:
        raise _otherwise(where, f"its {role} is {number}")
    return number


def _otherwise(where: object, why: str) -> FurnelError:
    remedy = "The layout describes something else there, or the archive is damaged"
    return FurnelError(_READING, where=where, why=why, remedy=remedy)


# Pixels


def _format(rule: RawPart, facts: Facts, where: object = "") -> str:
    if isinstance(rule.pixels, str):
        return rule.pixels
    assert rule.pixels is not None
    number = facts.get("pixel format", -1)
    if number not in rule.pixels:
        raise _unknown(where, "pixel format", number, "pixels")
    return rule.pixels[number]


def _pixels(rule: RawPart, facts: dict[str, int], room: int, where: object) -> tuple[dict[str, int], int, bytes]:  # fmt: skip
    """All facts of a picture in `room` bytes, its length, the header of the file that it is read as."""
    fmt = _format(rule, facts, where)
    kind = FORMATS[fmt]
    width = _told(facts, rule.width, "width", where, _SIDE)
    depth = max(facts.get("depth", 1), 1)
    if rule.height is None and "height" not in facts:
        row = _row(rule, width, fmt)
        height = room // row * kind.block
    else:
        height = _told(facts, rule.height, "height", where, _SIDE)
    facts = {**facts, "width": width, "height": height, "depth": depth}
    most = full_levels(width, height, depth) if 0 < height <= _SIDE else 0
    sizes = _stored_sizes(rule, fmt, {**facts, "levels": most})
    levels = facts.get("levels", rule.levels)
    if levels is None:  # as many as there are bytes for, to the last one
        levels = next((count for count in range(most, 1, -1) if sum(sizes[:count]) == room), 1)
    length = sum(sizes[: max(levels, 1)])
    if not 0 < levels <= most or length > room:
        told = f"{width} × {height} pixels in {fmt} with {levels} levels are {length} bytes"
        raise _otherwise(where, f"{told}, and there are {room}")
    facts["levels"] = levels
    shape: Shape = "volume" if depth > 1 else "flat"
    empty = Texture(width, height, fmt, (b"",) * levels, "DDS", shape=shape, depth=depth)
    return facts, length, write_texture(empty)


def _row(rule: RawPart, width: int, fmt: str) -> int:
    """The bytes of a row of pixels, or of blocks."""
    row = FORMATS[fmt].level_bytes(width, 1)
    return row + -row % rule.row_align


def _slices(facts: Facts) -> Iterator[tuple[int, int, int]]:
    """Width, height and depth of each level."""
    for level in range(facts["levels"]):
        yield *level_size(facts["width"], facts["height"], level), max(facts["depth"] >> level, 1)


def _stored_sizes(rule: RawPart, fmt: str, facts: Facts) -> list[int]:
    block = FORMATS[fmt].block
    return [_row(rule, wide, fmt) * -(-high // block) * deep for wide, high, deep in _slices(facts)]


def _plain_sizes(fmt: str, facts: Facts) -> list[int]:
    return [FORMATS[fmt].level_bytes(wide, high) * deep for wide, high, deep in _slices(facts)]


def _plain_levels(rule: RawPart, body: memoryview, facts: Facts, order: Order) -> Iterator[bytes]:
    """The levels as a DDS file has them: the largest first, rows from above without padding."""
    fmt = _format(rule, facts)
    sizes = _stored_sizes(rule, fmt, facts)
    starts = np.cumsum([0, *reversed(sizes)]) if rule.smallest_first else np.cumsum([0, *sizes])
    for level, (wide, high, deep) in enumerate(_slices(facts)):
        at = int(starts[len(sizes) - 1 - level if rule.smallest_first else level])
        data = body[at : at + sizes[level]]
        if not FORMATS[fmt].compressed:
            row, used = _row(rule, wide, fmt), FORMATS[fmt].level_bytes(wide, 1)
            rows = np.frombuffer(data, np.uint8).reshape(deep, high, row)[..., :used]
            data = memoryview(_swapped((rows[:, ::-1] if rule.from_below else rows).tobytes(), fmt, order))
        yield bytes(data)


def _bare_pixels(
    rule: RawPart, file: bytes, order: Order, told: Facts, where: object
) -> tuple[dict[str, int], bytes]:
    texture = read_texture(file, where)
    numbers = rule.pixels if isinstance(rule.pixels, dict) else {0: rule.pixels}
    code = _code(numbers, {texture.format}, told.get("pixel format"))
    if code is None or texture.file_type != "DDS" or texture.shape not in ("flat", "volume"):
        allowed = ", ".join(sorted({str(name) for name in numbers.values()}))
        shape = "" if texture.shape in ("flat", "volume") else f", {texture.shape}"
        raise FurnelError(
            _WRITING, where=where, why=f"it is {texture.format} in {texture.file_type}{shape}; such pictures are {allowed}",
            remedy="Fit it: the result is a DDS file in the original's format",
        )  # fmt: skip
    facts = {
        "width": texture.width, "height": texture.height, "depth": texture.depth, "levels": len(texture.levels),
        "pixel format": code,
    }  # fmt: skip
    fmt, parts = texture.format, []
    for data, (wide, high, deep) in zip(texture.levels, _slices(facts), strict=True):
        if not FORMATS[fmt].compressed:
            used = FORMATS[fmt].level_bytes(wide, 1)
            rows = np.frombuffer(_swapped(bytes(data), fmt, order), np.uint8).reshape(deep, high, used)
            rows = np.pad(rows, ((0, 0), (0, 0), (0, _row(rule, wide, fmt) - used)))
            data = (rows[:, ::-1] if rule.from_below else rows).tobytes()
        parts.append(bytes(data))
    return facts, b"".join(reversed(parts) if rule.smallest_first else parts)


def _swapped(data: bytes, fmt: str, order: Order) -> bytes:
    """Pixels of words (16 bits for all channels, or 16 and more for each) in the other byte order where they are big-endian."""
    kind = FORMATS[fmt]
    words = fmt in ("RGB565", "RGBA5551", "RGBA4444")
    wide = kind.size_bytes if words else kind.size_bytes // len(kind.channels)
    if order == "little" or wide < 2:
        return data
    return np.frombuffer(data, f"<u{wide}").byteswap().tobytes()


def _unknown(where: object, role: str, number: int, key: str) -> FurnelError:
    return FurnelError(
        _READING, where=where, why=f"its {role} is {number}, and the layout does not say what that is",
        remedy=f"Add it to [[raw]] {key}",
    )  # fmt: skip


def _code(numbers: Mapping[int, object], names: set[str], before: int | None) -> int | None:
    """The number that stands for one of some formats: the one that was there before if it does."""
    fitting = [number for number, name in numbers.items() if name in names]
    return before if before in fitting else next(iter(fitting), None)


# Numbers of colours


def _numbers(
    rule: RawPart, palette: palettes.PalettePart, facts: dict[str, int], room: int, where: object
) -> tuple[dict[str, int], int, bytes]:
    """All facts of a picture with a palette in `room` bytes, its length with the palette in it, its header."""
    width = _told(facts, rule.width, "width", where, _SIDE)
    row = width + -width % rule.row_align
    if rule.height is None and "height" not in facts:
        height = min((room - palette.within) // row, _SIDE)
    else:
        height = _told(facts, rule.height, "height", where, _SIDE)
    length = row * height + palette.within
    if height < 1 or length > room:
        raise _otherwise(
            where, f"{width} × {height} pixels and their palette are {length} bytes, and there are {room}"
        )
    return {**facts, "width": width, "height": height}, length, palettes.header(palette, width, height)


def _parts(
    rule: RawPart,
    palette: palettes.PalettePart,
    body: memoryview,
    facts: Facts,
    shared: bytes | None,
    where: object,
) -> tuple[palettes.Colours, palettes.Colours]:
    """The palette and the numbers (height, width, rows from above) of a picture's bytes."""
    row = facts["width"] + -facts["width"] % rule.row_align
    at = palette.within if palette.place == "before" else 0
    rows = np.frombuffer(body, np.uint8, row * facts["height"], at).reshape(-1, row)[:, : facts["width"]]
    own = body[: palette.within] if palette.place == "before" else body[len(body) - palette.within :]
    colours = palettes.colours_in(palette, own if shared is None else shared, where)
    if rows.size and int(rows.max()) >= palette.colours:
        raise _otherwise(where, f"it has colour {rows.max()}, and its palette {palette.colours}")
    return colours, rows[::-1] if rule.from_below else rows


def _bare_numbers(
    rule: RawPart, palette: palettes.PalettePart, file: bytes, before: memoryview | None, order: Order, told: Facts,
    where: object, shared: bytes | None,
) -> tuple[dict[str, int], bytes]:  # fmt: skip
    colours = None if shared is None else palettes.colours_in(palette, shared, where)
    if before is not None and shared is None:
        old = measure(rule, before, len(before), told, order, where)
        colours, _ = _parts(rule, palette, before[old.start : old.end], old.facts, shared, where)
    rows, colours = palettes.numbers_of(palette, file, colours, where)
    height, width = rows.shape
    body = np.pad(rows[::-1] if rule.from_below else rows, ((0, 0), (0, -width % rule.row_align))).tobytes()
    own = palettes.palette_bytes(palette, colours) if palette.within else b""
    return {"width": width, "height": height}, own + body if palette.place == "before" else body + own


# Samples


def _sample(rule: RawPart, facts: Facts, where: object = "") -> str:
    if isinstance(rule.samples, str):
        return rule.samples
    assert rule.samples is not None
    number = facts.get("sample format", -1)
    if number not in rule.samples:
        raise _unknown(where, "sample format", number, "samples")
    return rule.samples[number]


def _samples(rule: RawPart, facts: dict[str, int], room: int, where: object) -> tuple[dict[str, int], int, bytes]:  # fmt: skip
    """All facts of a sound in `room` bytes, its length, the header of the file that it is read as."""
    kind, bits = SAMPLES[_sample(rule, facts, where)]
    rate = _told(facts, rule.rate, "rate", where, 768_000)
    channels = _told(facts, rule.channels or 1, "channels", where, 64)
    block = channels * bits // 8
    frames = facts.get("frames", room // block)
    if not 0 <= frames * block <= room:
        raise _otherwise(where, f"{frames} frames are {frames * block} bytes, and there are {room}")
    length = frames * block
    header = _WAV.pack(
        b"RIFF", 36 + length + length % 2, b"WAVE", b"fmt ", 16, 3 if kind[0] == "f" else 1, channels, rate, rate * block,
        block, bits, b"data", length,
    )  # fmt: skip
    return {**facts, "rate": rate, "channels": channels, "frames": frames}, length, header


def _turned(data: memoryview | bytes, kind: str, bits: int, order: Order) -> bytes:
    """Samples as WAV has them (little-endian, 8 bits without a sign), or from that back: it is its own reverse."""
    if kind == "i1":
        return (np.frombuffer(data, np.uint8) ^ 0x80).tobytes()
    if order == "little" or bits == 8:
        return bytes(data)
    return np.frombuffer(data, np.uint8).reshape(-1, bits // 8)[:, ::-1].tobytes()


def _wav_parts(file: bytes, where: object) -> tuple[bool, int, int, int, bytes]:
    """Whether a WAV file's samples are floats, their bits, channels and rate, and the samples; after Microsoft's "Multimedia
    Programming Interface and Data Specifications 1.0" and the extensible format of "Multiple Channel Audio Data"."""
    at, shape, data = 12, b"", None
    while file[:4] == b"RIFF" and at + 8 <= len(file) and data is None:
        size = int.from_bytes(file[at + 4 : at + 8], "little")
        if file[at : at + 4] == b"fmt ":
            shape = file[at + 8 : at + 8 + size]
        if file[at : at + 4] == b"data":
            data = file[at + 8 : at + 8 + size]
        at += 8 + size + size % 2
    if data is None or len(shape) < 16:
        raise FurnelError(
            _WRITING, where=where, why="it is no WAV file", remedy="Fit it: the result is a WAV file"
        )
    tag, channels, rate, _, _, bits = struct.unpack_from("<HHIIHH", shape)
    tag = int.from_bytes(shape[24:26], "little") if tag == 0xFFFE else tag
    return tag == 3, bits if tag in (1, 3) else 0, channels, rate, data


def _bare_samples(
    rule: RawPart, file: bytes, order: Order, told: Facts, where: object
) -> tuple[dict[str, int], bytes]:
    floats, bits, channels, rate, data = _wav_parts(file, where)
    names = {name for name, (kind, wide) in SAMPLES.items() if wide == bits and (kind[0] == "f") == floats}
    numbers = rule.samples if isinstance(rule.samples, dict) else {0: rule.samples}
    code = _code(numbers, names, told.get("sample format"))
    if code is None:
        allowed = ", ".join(sorted({str(name) for name in numbers.values()}))
        raise FurnelError(
            _WRITING, where=where,
            why=f"its samples have {bits} bits{' as floats' if floats else ''}; such sounds are {allowed}",
            remedy="Fit it: the result has the original's format",
        )  # fmt: skip
    block = channels * bits // 8
    facts = {"rate": rate, "channels": channels, "frames": len(data) // block, "sample format": code}
    return facts, _turned(data[: len(data) // block * block], *SAMPLES[str(numbers[code])], order)
