"""Records of a layout: fields to values and back, one record at a time or a whole table at once."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import Any

import numpy as np
import numpy.typing as npt

from furnel.containers.expressions import Number, expression
from furnel.containers.schema import WIDTHS, BitsPart, FieldPart, Fields, Order, fixed_width
from furnel.errors import FurnelError

Values = dict[str, int | bytes]
Scope = Mapping[str, Number]
Trace = Callable[[str, FieldPart, int, int, "int | bytes"], None]
"""Told of every field that is read: group, field, first byte, byte after the last, value."""

MOST_RECORDS = 1 << 24
_WHAT, _WRITING = "Reading an archive", "Writing an archive"
_CUT = "The archive is cut short or described by the wrong layout"
_ENDING = {"u8": 1, "u16": 2, "u32": 4}


def no_trace(group: str, field: FieldPart, start: int, end: int, value: int | bytes) -> None:
    """Nobody wants to know."""


def read_record(
    fields: Fields, data: memoryview, at: int, order: Order, where: object, scope: Scope, trace: Trace = no_trace,
    group: str = "",
) -> tuple[Values, int]:  # fmt: skip
    """The values at byte `at`, and where the record ends. A constant that does not match is refused."""
    values: Values = {}
    begin = at
    for field in fields:
        known = {**scope, **_numbers(values)} if field.when or isinstance(field.length, str) else scope
        if field.when and not expression(field.when).evaluate(known):
            continue
        start = at
        value, at = _read_field(field, data, at, field.order or order, where, known, begin)
        trace(group, field, start, at, value)
        if field.value is not None and value != _constant(
            field, len(value) if isinstance(value, bytes) else 0
        ):
            raise FurnelError(
                _WHAT,
                where=where,
                why=f"the field “{field.name}” at byte {start} is {_shown(value)}, not {field.value!r}",
                remedy="It is another kind of archive, or damaged",
            )
        values[field.name] = value
        _split(field, value, values)
    return values, at


def write_record(fields: Fields, values: Values, order: Order, scope: Scope) -> bytes:
    """The record's bytes; constants fill what `values` does not say, other fields have their `new` number."""
    out = bytearray()
    known: dict[str, Number] = dict(scope)
    for field in fields:
        if field.when and not expression(field.when).evaluate(known):
            continue
        value = values.get(field.name)
        if value is None:
            value = _constant(field, _room(field, known))
        if isinstance(value, int):
            for bits in field.bits:
                part = values.get(bits.name)
                if isinstance(part, int):
                    value = put_bits(value, bits, part)
            known[field.name] = value
        out += _field_bytes(field, value, field.order or order, known, len(out))
    return bytes(out)


def defaults(fields: Fields) -> Values:
    """The values of a record that nobody wrote yet: constants, and the `new` numbers of the others."""
    values: Values = {}
    for field in fields:
        value = _constant(field, field.width or 0)
        values[field.name] = value
        _split(field, value, values)
    return values


def meaning(fields: Fields, values: Mapping[str, Any], role: str, scope: Scope) -> Any:
    """What the field that holds `role` means (a number, or bytes for text), or None when no field does."""
    for field in fields:
        for part in _with_bits(field):
            if part.holds == role and part.name in values:
                value = values[part.name]
                if part is field and field.means is not None:
                    return expression(field.means).evaluate({**scope, **_numbers(values), "value": value})
                return value
    return None


def mean(fields: Fields, values: dict[str, Any], role: str, number: Any, scope: Scope) -> None:
    """Store what means `number` (or bytes) in the field that holds `role`, if there is one."""
    for field in fields:
        for part in _with_bits(field):
            if part.holds == role:
                if part is field and field.means is not None:
                    number = expression(field.means).solve(number, {**scope, **_numbers(values)})
                values[part.name] = number
                if isinstance(field.length, str) and part is field:
                    _mean_length(field, number, values, scope)


def _with_bits(field: FieldPart) -> tuple[FieldPart | BitsPart, ...]:
    return (field, *field.bits)


def _mean_length(field: FieldPart, text: Any, values: dict[str, Any], scope: Scope) -> None:
    """Store the length of a text in the field that its length is worked out from."""
    length = expression(str(field.length))
    unknown = next((name for name in sorted(length.names) if name in values or name not in scope), None)
    if unknown is not None:
        wanted = len(text) if isinstance(text, bytes) else np.array([len(one) for one in text], np.int64)
        values[unknown] = length.solve(wanted, {**scope, **_numbers(values)}, unknown)


def text_of(raw: object, encoding: str, where: object) -> str:
    """A text field without its padding."""
    data = raw if isinstance(raw, bytes) else b""
    try:
        return data.split(b"\0", 1)[0].decode(encoding)
    except UnicodeDecodeError as error:
        raise FurnelError(_WHAT, where=where, why=f"a name in its index is not {encoding.upper()}") from error


class Table:
    """Many records with the same fields: columns by field name, as numbers (int64, or uint64 where they need it) or bytes."""

    def __init__(self, fields: Fields, order: Order, columns: dict[str, Any], count: int) -> None:
        self.fields, self.order, self.count = fields, order, count
        self.columns = columns

    @classmethod
    def empty(cls, fields: Fields, order: Order, count: int, scope: Scope) -> Table:
        """Records that have constants and `new` numbers only."""
        columns: dict[str, Any] = {}
        for field in fields:
            value = _constant(field, _room(field, scope))
            columns[field.name] = (
                np.full(count, value, _number_type(field)) if isinstance(value, int) else [value] * count
            )
            for bits in field.bits:
                columns[bits.name] = np.zeros(count, np.int64)
        return cls(fields, order, columns, count)

    @classmethod
    def read(
        cls, fields: Fields, data: memoryview, at: int, count: int | None, order: Order, where: object, scope: Scope,
        trace: Trace = no_trace, group: str = "entry",
    ) -> tuple[Table, int]:  # fmt: skip
        """`count` records (or as many as there is room for) from byte `at`, and where they end."""
        width = fixed_width(fields)
        left = max(len(data) - at, 0)
        if count is not None and (count < 0 or count > MOST_RECORDS or count * (width or 1) > left):
            room = left // width if width else left
            raise FurnelError(
                _WHAT,
                where=where,
                why=f"its index says {count} entries and has room for {room}",
                remedy="The archive is damaged or described by the wrong layout",
            )
        if width is None or trace is not no_trace:
            return cls._read_slowly(fields, data, at, count, order, where, scope, trace, group)
        number = left // width if count is None else count
        kinds = _record_type(fields, order)
        rows = np.frombuffer(data, kinds, number, at) if number else np.zeros(0, kinds)
        columns: dict[str, Any] = {}
        for field in fields:
            column = rows[field.name]
            if field.value is not None:
                _check_constants(field, column, at, width, where)
            if column.dtype.kind == "V":
                columns[field.name] = column
            else:
                columns[field.name] = column.astype(_number_type(field))
                for bits in field.bits:
                    columns[bits.name] = take_bits(columns[field.name], bits)
        return cls(fields, order, columns, number), at + number * width

    @classmethod
    def _read_slowly(
        cls, fields: Fields, data: memoryview, at: int, count: int | None, order: Order, where: object, scope: Scope,
        trace: Trace, group: str,
    ) -> tuple[Table, int]:  # fmt: skip
        rows: list[Values] = []
        while len(rows) < count if count is not None else at < len(data):
            begin = at
            values, at = read_record(fields, data, at, order, where, scope, trace, f"{group} {len(rows)}")
            if at == begin:
                raise FurnelError(_WHAT, where=where, why="its records have no bytes at all")
            rows.append(values)
        return cls.of_rows(fields, order, rows), at

    @classmethod
    def of_rows(cls, fields: Fields, order: Order, rows: Sequence[Values]) -> Table:
        """A table of records that were read one by one; fields left out by their `when` are 0 or empty."""
        columns: dict[str, Any] = {}
        for field in fields:
            number = field.type in WIDTHS or field.type == "varint"
            found = [row.get(field.name, 0 if number else b"") for row in rows]
            columns[field.name] = np.array(found, _number_type(field)) if number else found
            for bits in field.bits:
                columns[bits.name] = np.array([row.get(bits.name, 0) for row in rows], np.int64)
        return cls(fields, order, columns, len(rows))

    def meaning(self, role: str, scope: Scope) -> Any:
        """The column of what the field with `role` means, or None."""
        return meaning(self.fields, self.columns, role, scope)

    def mean(self, role: str, column: Any, scope: Scope) -> None:
        """Store a column of meanings."""
        mean(self.fields, self.columns, role, column, scope)

    def holds(self, role: str) -> bool:
        return any(role in field.roles for field in self.fields)

    def take(self, rows: npt.NDArray[np.int64]) -> Table:
        """Some of the records, in another order; -1 stands for a new one."""
        fresh = Table.empty(self.fields, self.order, 1, {})
        columns: dict[str, Any] = {}
        for name, column in self.columns.items():
            if isinstance(column, np.ndarray) and column.dtype.kind != "V":
                with_new = np.append(column, fresh.columns[name]).astype(column.dtype)
                columns[name] = with_new[np.where(rows >= 0, rows, len(column))]
            else:
                held = column.tolist() if isinstance(column, np.ndarray) else column
                columns[name] = [held[row] if row >= 0 else fresh.columns[name][0] for row in rows.tolist()]
        return Table(self.fields, self.order, columns, len(rows))

    def write(self, scope: Scope) -> bytes:
        """The records' bytes."""
        width = fixed_width(self.fields)
        if width is None or not self.count:
            return b"".join(write_record(self.fields, row, self.order, scope) for row in self._rows())
        rows = np.zeros(self.count, _record_type(self.fields, self.order))
        for field in self.fields:
            column = self.columns[field.name]
            if field.type in ("text", "bytes"):
                rows[field.name] = _blocks(field, column, width)
                continue
            for bits in field.bits:
                column = put_bits(column, bits, self.columns[bits.name])
            _check_range(field, column)
            rows[field.name] = column
        return rows.tobytes()

    def _rows(self) -> Iterable[Values]:
        columns = {
            name: column.tolist() if isinstance(column, np.ndarray) else column
            for name, column in self.columns.items()
        }
        for place in range(self.count):
            yield {name: column[place] for name, column in columns.items()}


def take_bits(number: Any, bits: BitsPart) -> Any:
    """The bits of a number, or of a column of them."""
    return (number >> bits.first) & ((1 << bits.count) - 1)


def put_bits(number: Any, bits: BitsPart, part: Any) -> Any:
    """A number (or a column) with some bits replaced."""
    most = (1 << bits.count) - 1
    if np.any(np.greater(part, most)):
        raise FurnelError(
            _WRITING, where=bits.name, why=f"{int(np.max(part))} does not fit into its {bits.count} bits"
        )
    return (number & ~(most << bits.first)) | (part << bits.first)


def _read_field(
    field: FieldPart, data: memoryview, at: int, order: Order, where: object, scope: Scope, begin: int
) -> tuple[int | bytes, int]:
    if field.type == "varint":
        return _read_varint(field, data, at, where)
    if field.type in WIDTHS:
        end = _end(field, at, WIDTHS[field.type], data, where)
        return int.from_bytes(data[at:end], order, signed=field.type[0] == "i"), end
    if field.ends == "zero":
        found = bytes(data[at : at + 4096]).find(b"\0")
        if found < 0:
            raise _past(field, at, len(data), where)
        return bytes(data[at : at + found]), at + found + 1
    if field.ends is not None:
        start = _end(field, at, _ENDING[field.ends], data, where)
        end = _end(field, start, int.from_bytes(data[at:start], order), data, where)
        return bytes(data[start:end]), end
    length = _length(field, scope)
    if field.type == "pad":
        length = -(at - begin) % length
    end = _end(field, at, length, data, where)
    return bytes(data[at:end]), end


def _read_varint(field: FieldPart, data: memoryview, at: int, where: object) -> tuple[int, int]:
    """Seven bits a byte, the lowest first, the top bit says that more follow (LEB128, DWARF 5, section 7.6)."""
    number = 0
    for place in range(9):
        end = _end(field, at + place, 1, data, where)
        number |= (data[at + place] & 0x7F) << (7 * place)
        if not data[at + place] & 0x80:
            return number, end
    raise FurnelError(_WHAT, where=where, why=f"the field “{field.name}” at byte {at} is longer than 63 bits")


def _field_bytes(field: FieldPart, value: int | bytes, order: Order, scope: Scope, done: int) -> bytes:
    if isinstance(value, int):
        if field.type == "varint":
            return _varint(field, value)
        try:
            return value.to_bytes(WIDTHS[field.type], order, signed=field.type[0] == "i")
        except OverflowError as error:
            raise _too_large(field, value) from error
    if field.ends == "zero":
        return value + b"\0"
    if field.ends is not None:
        try:
            return len(value).to_bytes(_ENDING[field.ends], order) + value
        except OverflowError as error:
            raise _no_room(field, value, (1 << 8 * _ENDING[field.ends]) - 1) from error
    if field.type == "pad":
        room = -done % _length(field, scope)
        return value if len(value) == room else bytes(room)
    room = _room(field, scope)
    if len(value) > room:
        raise _no_room(field, value, room)
    return value.ljust(room, b"\0")


def _varint(field: FieldPart, value: int) -> bytes:
    if value < 0 or value >> 63:
        raise _too_large(field, value)
    out = bytearray()
    while value >> 7:
        out.append(value & 0x7F | 0x80)
        value >>= 7
    return bytes([*out, value])


def _length(field: FieldPart, scope: Scope) -> int:
    if isinstance(field.length, str):
        found = expression(field.length).evaluate(scope)
        return int(found) if not isinstance(found, np.ndarray) else 0
    return field.length or 0


def _room(field: FieldPart, scope: Scope) -> int:
    if field.type not in ("text", "bytes") or field.ends:
        return 0
    return _length(field, scope) if isinstance(field.length, int) or _known(field.length, scope) else 0


def _known(text: str | None, scope: Scope) -> bool:
    return text is not None and expression(text).names <= set(scope)


def _end(field: FieldPart, at: int, width: int, data: memoryview, where: object) -> int:
    if at < 0 or width < 0 or at + width > len(data):
        raise _past(field, at, len(data), where)
    return at + width


def _past(field: FieldPart, at: int, size: int, where: object) -> FurnelError:
    return FurnelError(
        _WHAT,
        where=where,
        why=f"the field “{field.name}” lies at byte {at} and the file ends at {size}",
        remedy=_CUT,
    )


def _too_large(field: FieldPart, value: int) -> FurnelError:
    return FurnelError(
        _WRITING, where=field.name, why=f"{value} does not fit into a {field.type}",
        remedy="The archive's kind cannot hold that much: leave something out, or split it",
    )  # fmt: skip


def _no_room(field: FieldPart, value: bytes, room: int) -> FurnelError:
    return FurnelError(
        _WRITING,
        where=value.decode("utf-8", "replace"),
        why=f"the field “{field.name}” has room for {room} bytes",
        remedy="Use a shorter name",
    )


def _constant(field: FieldPart, room: int) -> int | bytes:
    if field.type in WIDTHS or field.type == "varint":
        return field.value if isinstance(field.value, int) else field.new
    if isinstance(field.value, str):
        return field.value.encode("utf-8").ljust(room, b"\0")
    return bytes(field.value).ljust(room, b"\0") if isinstance(field.value, tuple) else bytes(room)


def _split(field: FieldPart, value: int | bytes, values: Values) -> None:
    if isinstance(value, int):
        for bits in field.bits:
            values[bits.name] = take_bits(value, bits)


def _numbers(values: Mapping[str, Any]) -> dict[str, Any]:
    return {
        name: value
        for name, value in values.items()
        if isinstance(value, int | np.integer) or (isinstance(value, np.ndarray) and value.dtype.kind in "iu")
    }


def _number_type(field: FieldPart) -> type[np.signedinteger[Any]] | type[np.unsignedinteger[Any]]:
    return np.uint64 if field.type == "u64" and "name hash" in field.roles else np.int64


def _record_type(fields: Fields, order: Order) -> np.dtype[np.void]:
    kinds = []
    for field in fields:
        sign = "<" if (field.order or order) == "little" else ">"
        kind = f"{sign}{field.type[0]}{WIDTHS[field.type]}" if field.type in WIDTHS else f"V{field.width}"
        kinds.append((field.name, kind))
    return np.dtype(kinds)


def _check_constants(field: FieldPart, column: Any, at: int, width: int, where: object) -> None:
    if column.dtype.kind == "V":
        wanted = np.void(_constant(field, field.width or 0))
        wrong = np.flatnonzero(column != wanted)
    else:
        wrong = np.flatnonzero(column != field.value)
    if len(wrong):
        raise FurnelError(
            _WHAT,
            where=where,
            why=f"the field “{field.name}” of entry {wrong[0]} is not {field.value!r}",
            remedy="It is another kind of archive, or damaged",
        )


def _check_range(field: FieldPart, column: Any) -> None:
    bits = 8 * WIDTHS[field.type]
    low, high = (-(1 << (bits - 1)), (1 << (bits - 1)) - 1) if field.type[0] == "i" else (0, (1 << bits) - 1)
    if bits == 64:
        low, high = (low if column.dtype.kind == "i" and field.type[0] == "i" else 0), high
    for extreme in (int(column.min()), int(column.max())):
        if not low <= extreme <= high:
            raise _too_large(field, extreme)


def _blocks(field: FieldPart, column: Any, width: int) -> Any:
    if isinstance(column, np.ndarray):
        return column
    room = field.width or 0
    for value in column:
        if len(value) > room:
            raise _no_room(field, value, room)
    return np.frombuffer(b"".join(value.ljust(room, b"\0") for value in column), f"V{room}")


def _shown(value: int | bytes) -> str:
    return str(value) if isinstance(value, int) else repr(value)
