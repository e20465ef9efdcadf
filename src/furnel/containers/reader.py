"""Reading many records with the same fields one after the other: what is the same for all is worked out once."""

from __future__ import annotations

import struct
from collections.abc import Sequence

from furnel.containers.container import Order
from furnel.containers.fields import FieldPart, Fields
from furnel.containers.records import (
    MOST_RECORDS,
    Scope,
    Trace,
    Values,
    constant,
    no_trace,
    read_field,
    read_record,
    take_bits,
)
from furnel.errors import FurnelError

_CODES = {
    "u8": "B", "u16": "H", "u32": "I", "u64": "Q", "i8": "b", "i16": "h", "i32": "i", "i64": "q",
}  # fmt: skip


Row = list[int | bytes]


class RecordReader:
    """Reads as `read_record` does, and leaves to it what depends on other fields, what is traced, and what is refused.

    `names` are the fields'; `is_flat` says that their values are all that there is in a record.
    """

    def __init__(self, fields: Fields, order: Order) -> None:
        self._fields, self._order = fields, order
        self.names = [part.name for part in fields]
        self._bits = [(part.name, part.bits) for part in fields if part.bits]
        self._constants = [
            (place, constant(part, part.width or 0))
            for place, part in enumerate(fields)
            if part.value is not None
        ]
        tied = any(part.when or isinstance(part.length, str) or part.type == "pad" for part in fields)
        self._steps = [] if tied else _steps(fields, order)
        plain = [(run.unpack_from, run.size, told) for run, told, part in self._steps if part is None]
        self._plain = plain if len(plain) == len(self._steps) else []
        self.is_flat = bool(self._steps) and not self._bits

    def read(
        self, data: memoryview, at: int, where: object, scope: Scope, trace: Trace = no_trace, group: str = ""
    ) -> tuple[Values, int]:
        """The values at byte `at`, and where the record ends."""
        if trace is no_trace and (found := self.row(data, at)) is not None:
            row, end = found
            values: Values = dict(zip(self.names, row, strict=True))
            for name, bits in self._bits:
                for part in bits:
                    values[part.name] = take_bits(values[name], part)
            return values, end
        return read_record(self._fields, data, at, self._order, where, scope, trace, group)

    def columns(
        self, data: memoryview, at: int, count: int | None
    ) -> tuple[dict[str, Sequence[int | bytes]], int] | None:
        """The fields of `count` records (or as many as there are bytes for) as columns, and where they end; None where they
        have to be read one by one, be it only to say what is wrong with them."""
        if self._plain:
            return self._plain_columns(data, at, count)
        rows: list[Row] = []
        while len(rows) < count if count is not None else at < len(data):
            found = self.row(data, at)
            if found is None:
                return None
            row, at = found
            rows.append(row)
        columns = zip(*rows, strict=True) if rows else [()] * len(self.names)
        return dict(zip(self.names, columns, strict=True)), at

    def _plain_columns(
        self, data: memoryview, at: int, count: int | None
    ) -> tuple[dict[str, Sequence[int | bytes]], int] | None:
        """As `columns`, of numbers and texts only, with nothing asked for each of very many that is the same for all."""
        rows: list[Row] = []
        most, size, add = MOST_RECORDS if count is None else count, len(data), rows.append
        try:
            while len(rows) < most and (count is not None or at < size):
                row: Row = []
                for take, width, told in self._plain:
                    row += take(data, at)
                    at += width
                    if told:
                        end = at + row.pop()  # type: ignore[operator]
                        row.append(data[at:end].tobytes())
                        at = end
                add(row)
        except struct.error:
            return None
        if at > size or len(rows) == MOST_RECORDS:  # a text over the end was cut
            return None
        columns = list(zip(*rows, strict=True)) if rows else [()] * len(self.names)
        if any(value != wanted for place, wanted in self._constants for value in columns[place]):
            return None
        return dict(zip(self.names, columns, strict=True)), at

    def row(self, data: memoryview, at: int) -> tuple[Row, int] | None:
        """The values in the fields' order and where the record ends; None where `read_record` is to look."""
        if at < 0 or not self._steps:
            return None
        row: Row = []
        begin = at
        if self._plain:
            try:
                for take, width, told in self._plain:
                    row += take(data, at)
                    at += width
                    if told:
                        end = at + row.pop()  # type: ignore[operator]
                        row.append(data[at:end].tobytes())
                        at = end
            except struct.error:
                return None
            return (row, at) if at <= len(data) and self._is_right(row) else None
        try:
            for run, told, part in self._steps:
                row += run.unpack_from(data, at)
                at += run.size
                if told:
                    end = at + row.pop()  # type: ignore[operator]
                    if end > len(data):
                        return None
                    row.append(bytes(data[at:end]))
                    at = end
                elif part is not None:
                    value, at = read_field(part, data, at, part.order or self._order, "", {}, begin)
                    row.append(value)
        except (struct.error, FurnelError):
            return None
        return (row, at) if self._is_right(row) else None

    def _is_right(self, row: Row) -> bool:
        """Whether what has to be there is there."""
        return not self._constants or all(row[place] == wanted for place, wanted in self._constants)


def _steps(fields: Fields, order: Order) -> list[tuple[struct.Struct, bool, FieldPart | None]]:
    """What to read at once: fields of steady width, then a text whose length the last of them tells, or another field."""
    steps: list[tuple[struct.Struct, bool, FieldPart | None]] = []
    run, sign = "", ""

    def close(told: bool = False, part: FieldPart | None = None) -> None:
        nonlocal run, sign
        if run or part is not None:
            steps.append((struct.Struct(sign + run), told, part))
        run, sign = "", ""

    for part in fields:
        told = part.type == "text" and part.ends in _CODES
        code = _CODES[part.ends or ""] if told else _code(part)
        wanted = "<" if (part.order or order) == "little" else ">"
        if run and wanted != sign:
            close()
        if not code:
            close(part=part)
            continue
        run, sign = run + code, wanted
        if told:
            close(told=True)
    close()
    return steps


def _code(part: FieldPart) -> str:
    """How `struct` calls a field that always has the same bytes; empty for others."""
    if part.type in _CODES:
        return _CODES[part.type]
    if part.type in ("text", "bytes") and part.ends is None and isinstance(part.length, int):
        return f"{part.length}s"
    return ""
