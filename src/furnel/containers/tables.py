"""Many records with the same fields, as columns: a hundred thousand entries are read and written in one go."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Any

import numpy as np
import numpy.typing as npt

from furnel.containers.container import Order
from furnel.containers.fields import WIDTHS, FieldPart, Fields, fixed_width
from furnel.containers.reader import RecordReader
from furnel.containers.records import (
    AT,
    MOST_RECORDS,
    Scope,
    Trace,
    Values,
    constant,
    digits_in,
    digits_of,
    mean,
    meaning,
    no_room,
    no_trace,
    put_bits,
    read_record,
    room_for,
    take_bits,
    too_large,
    too_many,
    write_record,
)
from furnel.errors import FurnelError

_WHAT = "Reading an archive"


class Table:
    """Many records with the same fields: columns by field name, as numbers (int64, or uint64 where they need it) or bytes.

    `numbers` are the records' numbers; the first one begins at byte `at`, when that is known.
    """

    def __init__(self, fields: Fields, order: Order, columns: dict[str, Any], count: int) -> None:
        self.fields, self.order, self.count = fields, order, count
        self.columns = columns
        self.numbers: npt.NDArray[np.int64] = np.arange(count)
        self.at: int | None = None

    @classmethod
    def empty(cls, fields: Fields, order: Order, count: int, scope: Scope) -> Table:
        """Records that have constants and `new` numbers only."""
        columns: dict[str, Any] = {}
        for field in fields:
            value = constant(field, room_for(field, scope))
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
        number = left // width if count is None and width else count or 0
        if number > MOST_RECORDS:
            raise too_many(where, count)
        if count is not None and (count < 0 or count * (width or 1) > left):
            room = left // width if width else left
            raise FurnelError(
                _WHAT,
                where=where,
                why=f"its index says {count} entries and has room for {room}",
                remedy="The archive is damaged or described by the wrong layout",
            )
        if width is None or trace is not no_trace:
            read, end = cls._read_slowly(fields, data, at, count, order, where, scope, trace, group)
            read.at = at
            return read, end
        kinds = _record_type(fields, order)
        rows = np.frombuffer(data, kinds, number, at) if number else np.zeros(0, kinds)
        columns: dict[str, Any] = {}
        for field in fields:
            column = rows[field.name]
            if field.type == "u24":
                column = _from_three(column, field.order or order)
            if field.type == "digits":
                told = [digits_in(raw, field, where) for raw in column.tolist()]
                column = np.array(told, np.int64)
            if field.value is not None:
                _check_constants(field, column, at, width, where)
            if column.dtype.kind == "V":
                columns[field.name] = column
            else:
                columns[field.name] = _whole_numbers(field, column, where)
                for bits in field.bits:
                    columns[bits.name] = take_bits(columns[field.name], bits)
        read = cls(fields, order, columns, number)
        read.at = at
        return read, at + number * width

    @classmethod
    def _read_slowly(
        cls, fields: Fields, data: memoryview, at: int, count: int | None, order: Order, where: object, scope: Scope,
        trace: Trace, group: str,
    ) -> tuple[Table, int]:  # fmt: skip
        if trace is no_trace and (found := RecordReader(fields, order).columns(data, at, count)) is not None:
            columns, end = found
            return cls.of_columns(fields, order, columns), end
        rows: list[Values] = []
        while len(rows) < count if count is not None else at < len(data):
            begin = at
            values, at = read_record(fields, data, at, order, where, scope, trace, f"{group} {len(rows)}")
            if at == begin:
                raise FurnelError(_WHAT, where=where, why="its records have no bytes at all")
            rows.append(values)
            if len(rows) > MOST_RECORDS:
                raise too_many(where)
        left_out = {part.name: 0 if part.is_number else b"" for part in fields}
        every = {name: [row.get(name, empty) for row in rows] for name, empty in left_out.items()}
        return cls.of_columns(fields, order, every), at

    @classmethod
    def of_columns(cls, fields: Fields, order: Order, every: Mapping[str, Sequence[int | bytes]]) -> Table:
        """A table of fields that were read one by one."""
        columns: dict[str, Any] = {}
        for field in fields:
            number, found = field.is_number, every[field.name]
            far = number and max(found, default=0) >> 63 > 0  # type: ignore[operator,type-var]
            if far and (field.roles or field.bits or field.means) and _number_type(field) is not np.uint64:
                raise too_far(field, _WHAT)
            columns[field.name] = (
                np.array(found, np.uint64 if far else _number_type(field)) if number else list(found)
            )
            for bits in field.bits:
                columns[bits.name] = take_bits(columns[field.name], bits).astype(np.int64)
        return cls(fields, order, columns, len(every[fields[0].name]) if fields else 0)

    def meaning(self, role: str, scope: Scope) -> Any:
        """The column of what the field with `role` means, or None."""
        return meaning(self.fields, self.columns, role, self._known(scope))

    def mean(self, role: str, column: Any, scope: Scope) -> None:
        """Store a column of meanings."""
        mean(self.fields, self.columns, role, column, self._known(scope))

    def _known(self, scope: Scope) -> Scope:
        """What expressions over whole columns know."""
        width = fixed_width(self.fields)
        begins = {AT: self.at + self.numbers * width} if self.at is not None and width is not None else {}
        return {"number": self.numbers, **scope, **begins}

    def holds(self, role: str) -> bool:
        return any(role in field.roles for field in self.fields)

    def take(self, rows: npt.NDArray[np.int64]) -> Table:
        """Some of the records, in another order; -1 stands for a new one."""
        fresh = Table.empty(self.fields, self.order, 1, {})
        columns: dict[str, Any] = {}
        for name, column in self.columns.items():
            if isinstance(column, np.ndarray) and column.dtype.kind != "V":
                with_new = np.append(column, np.asarray(fresh.columns[name]).astype(column.dtype))
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
                rows[field.name] = _blocks(field, column)
                continue
            if field.type == "digits":
                column = [digits_of(value, field) for value in column.tolist()]
                rows[field.name] = np.array(column, f"V{field.width}")
                continue
            for bits in field.bits:
                column = put_bits(column, bits, self.columns[bits.name])
            _check_range(field, column)
            rows[field.name] = _to_three(column, field.order or self.order) if field.type == "u24" else column
        return rows.tobytes()

    def pieces(self, scope: Scope) -> list[bytes]:
        """The bytes of each record."""
        return [write_record(self.fields, row, self.order, scope) for row in self._rows()]

    def row(self, place: int) -> Values:
        """One record's values, as plain numbers and bytes."""
        return {
            name: column[place].item() if isinstance(column, np.ndarray) else column[place]
            for name, column in self.columns.items()
        }

    def _rows(self) -> Iterable[Values]:
        columns = {
            name: column.tolist() if isinstance(column, np.ndarray) else column
            for name, column in self.columns.items()
        }
        for place in range(self.count):
            yield {name: column[place] for name, column in columns.items()}


def _number_type(field: FieldPart) -> type[np.signedinteger[Any]] | type[np.unsignedinteger[Any]]:
    return np.uint64 if field.type == "u64" and "name hash" in field.roles else np.int64


def _whole_numbers(field: FieldPart, column: Any, where: object) -> Any:
    """A column as numbers to reckon with. Those of 2^63 and more stay as they are where nothing is worked out from them.

    Raises FurnelError where something is.
    """
    wanted = _number_type(field)
    if field.type != "u64" or wanted is np.uint64 or not len(column) or int(column.max()) < 1 << 63:
        return column.astype(wanted)
    if field.roles or field.bits or field.means:
        raise too_far(field, where)
    return column.astype(np.uint64)


def too_far(field: FieldPart, where: object) -> FurnelError:
    """The refusal for a number that no offset and no size can be."""
    return FurnelError(
        _WHAT, where=f"{where}, field “{field.name}”", why="it holds a number of 2^63 or more",
        remedy="It is another kind of archive, or damaged",
    )  # fmt: skip


def _record_type(fields: Fields, order: Order) -> np.dtype[np.void]:
    kinds = []
    for field in fields:
        if field.type == "u24":
            kinds.append((field.name, "V3"))
            continue
        sign = "<" if (field.order or order) == "little" else ">"
        kind = f"{sign}{field.type[0]}{WIDTHS[field.type]}" if field.type in WIDTHS else f"V{field.width}"
        kinds.append((field.name, kind))
    return np.dtype(kinds)


def _from_three(column: Any, order: Order) -> npt.NDArray[np.int64]:
    """Numbers of three bytes."""
    parts = np.frombuffer(column.tobytes(), np.uint8).reshape(-1, 3).astype(np.int64)
    low, high = (0, 2) if order == "little" else (2, 0)
    found: npt.NDArray[np.int64] = parts[:, low] | parts[:, 1] << 8 | parts[:, high] << 16
    return found


def _to_three(column: Any, order: Order) -> Any:
    numbers = np.asarray(column, np.int64)
    parts = np.stack([numbers & 0xFF, numbers >> 8 & 0xFF, numbers >> 16 & 0xFF], axis=1).astype(np.uint8)
    return np.frombuffer((parts if order == "little" else parts[:, ::-1]).tobytes(), "V3")


def _check_constants(field: FieldPart, column: Any, at: int, width: int, where: object) -> None:
    if column.dtype.kind == "V":
        wanted = np.void(constant(field, field.width or 0))
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
    for extreme in (int(column.min()), int(column.max())):
        if not low <= extreme <= high:
            raise too_large(field, extreme)


def _blocks(field: FieldPart, column: Any) -> Any:
    if isinstance(column, np.ndarray):
        return column
    room = field.width or 0
    for value in column:
        if len(value) > room:
            raise no_room(field, value, room)
    return np.frombuffer(b"".join(value.ljust(room, b"\0") for value in column), f"V{room}")
