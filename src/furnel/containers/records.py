"""Records of a layout: fields to values and back."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

from furnel.containers.schema import FieldPart
from furnel.errors import FurnelError

Values = dict[str, int | bytes]
Order = Literal["little", "big"]


def read_record(
    fields: Sequence[FieldPart], data: memoryview, offset: int, order: Order, where: object
) -> tuple[Values, int]:
    """The values at `offset`, and where the record ends. A constant that does not match is refused."""
    values: Values = {}
    for field in fields:
        end = offset + field.width
        if offset < 0 or end > len(data):
            raise FurnelError(
                "Reading an archive",
                where=where,
                why=f"the field “{field.name}” lies at byte {offset} and the file ends at {len(data)}",
                remedy="The archive is cut short or described by the wrong layout",
            )
        raw = bytes(data[offset:end])
        value = raw if field.type == "text" else int.from_bytes(raw, order)
        if field.value is not None and raw != _write(field, _constant(field), order):
            raise FurnelError(
                "Reading an archive",
                where=where,
                why=f"the field “{field.name}” at byte {offset} is {_shown(value)}, not {field.value!r}",
                remedy="It is another kind of archive, or damaged",
            )
        values[field.name] = value
        offset = end
    return values, offset


def write_record(fields: Sequence[FieldPart], values: Values, order: Order) -> bytes:
    """The record's bytes; constants fill what `values` does not say, other fields are 0."""
    return b"".join(_write(field, values.get(field.name, _constant(field)), order) for field in fields)


def held(fields: Sequence[FieldPart], values: Values, role: str) -> int | None:
    """The number in the field that holds `role`, or None when no field does."""
    for field in fields:
        if field.holds == role:
            value = values[field.name]
            return value if isinstance(value, int) else None
    return None


def set_held(fields: Sequence[FieldPart], values: Values, role: str, value: int | bytes) -> None:
    """Put `value` in the field that holds `role`, if there is one."""
    for field in fields:
        if field.holds == role:
            values[field.name] = value


def text_of(raw: int | bytes, where: object) -> str:
    """A text field without its padding."""
    data = raw if isinstance(raw, bytes) else b""
    try:
        return data.split(b"\0", 1)[0].decode("utf-8")
    except UnicodeDecodeError as error:
        raise FurnelError(
            "Reading an archive", where=where, why="a name in its index is not UTF-8"
        ) from error


def _constant(field: FieldPart) -> int | bytes:
    if isinstance(field.value, str):
        return field.value.encode("utf-8")
    return field.value if field.value is not None else (b"" if field.type == "text" else 0)


def _write(field: FieldPart, value: int | bytes, order: Order) -> bytes:
    try:
        if isinstance(value, int):
            return value.to_bytes(field.width, order)
    except OverflowError as error:
        raise FurnelError(
            "Writing an archive", where=field.name, why=f"{value!r} does not fit into {field.width} bytes"
        ) from error
    if len(value) > field.width:
        raise FurnelError(
            "Writing an archive",
            where=value.decode("utf-8", "replace"),
            why=f"the field “{field.name}” has room for {field.width} bytes",
            remedy="Use a shorter name",
        )
    return value.ljust(field.width, b"\0")


def _shown(value: int | bytes) -> str:
    return str(value) if isinstance(value, int) else repr(value)
