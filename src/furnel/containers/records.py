"""Records of a layout: fields to values and back, one record at a time or a whole table at once."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

import numpy as np

from furnel.containers.container import Order
from furnel.containers.expressions import Number, expression
from furnel.containers.fields import WIDTHS, BitsPart, FieldPart, Fields, places_in, tells_here
from furnel.errors import FurnelError

Values = dict[str, int | bytes]
Scope = Mapping[str, Number]
Trace = Callable[[str, FieldPart, int, int, "int | bytes"], None]
"""Told of every field that is read: group, field, first byte, byte after the last, value."""

AT = "@at"
"""What a scope calls the place where a record begins; no expression can."""
MOST_RECORDS = 1 << 20
"""Of one archive: more cost minutes and gigabytes, and no game is known to have them."""
_WHAT, _WRITING = "Reading an archive", "Writing an archive"
_CUT = "The archive is cut short or described by the wrong layout"


def too_many(where: object, told: int | None = None) -> FurnelError:
    """What is said of an archive with more records than are read; `told` is how many it says it has."""
    more = f"it has more than {MOST_RECORDS} records"
    return FurnelError(
        _WHAT,
        where=where,
        why=more if told is None else f"it has {told} records, and no more are read than {MOST_RECORDS}",
        remedy="The archive is damaged or described by the wrong layout",
    )


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
        known = {**scope, **numbers_in(values)} if field.when or isinstance(field.length, str) else scope
        if field.when and not expression(field.when).evaluate(known):
            continue
        start = at
        value, at = read_field(field, data, at, field.order or order, where, known, begin)
        trace(group, field, start, at, value)
        if field.value is not None and value != constant(
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
            value = constant(field, room_for(field, known))
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
        value = constant(field, field.width or 0)
        values[field.name] = value
        _split(field, value, values)
    return values


class Meanings:
    """What records with the same fields mean by their roles, looked up once."""

    def __init__(self, fields: Fields) -> None:
        self._parts: dict[str, list[FieldPart | BitsPart]] = {}
        for field in fields:
            for part in _with_bits(field):
                if part.holds is not None:
                    self._parts.setdefault(part.holds, []).append(part)
        self._fields = fields

    def __contains__(self, role: str) -> bool:
        return role in self._parts

    def of(self, values: Mapping[str, Any], role: str, scope: Scope) -> Any:
        """What the field that holds `role` means (a number, or bytes for text), or None when no field does."""
        for part in self._parts.get(role, ()):
            if part.name in values:
                value = values[part.name]
                if part.means is None:
                    return value
                known = {**scope, **_here(scope, self._fields, part), **numbers_in(values), "value": value}
                return expression(part.means).evaluate(known)
        return None


def _here(scope: Scope, fields: Fields, part: FieldPart | BitsPart) -> dict[str, Number]:
    """Where a field lies, when that is known and what it means depends on it."""
    if AT not in scope or not tells_here(part):
        return {}
    places = places_in(fields)
    return {"here": scope[AT] + places[part.name]} if part.name in places else {}


def meaning(fields: Fields, values: Mapping[str, Any], role: str, scope: Scope) -> Any:
    """What the field that holds `role` means, once; see `Meanings.of`."""
    return Meanings(fields).of(values, role, scope)


def mean(fields: Fields, values: dict[str, Any], role: str, number: Any, scope: Scope) -> None:
    """Store what means `number` (or bytes) in the field that holds `role`, if there is one."""
    for field in fields:
        for part in _with_bits(field):
            if part.holds == role:
                known = {**scope, **_here(scope, fields, part), **numbers_in(values)}
                if part.stores is not None:
                    number = expression(part.stores).evaluate({**known, "value": number})
                elif part.means is not None:
                    number = expression(part.means).solve(number, known)
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
        values[unknown] = length.solve(wanted, {**scope, **numbers_in(values)}, unknown)


def text_of(raw: object, encoding: str, where: object) -> str:
    """A text field without its padding."""
    data = raw if isinstance(raw, bytes) else b""
    try:
        return data.split(b"\0", 1)[0].decode(encoding)
    except UnicodeDecodeError as error:
        raise FurnelError(_WHAT, where=where, why=f"a name in its index is not {encoding.upper()}") from error


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


def read_field(
    field: FieldPart, data: memoryview, at: int, order: Order, where: object, scope: Scope, begin: int
) -> tuple[int | bytes, int]:
    """The value of a field at byte `at` in a record that begins at `begin`, and where the field ends."""
    if field.type == "varint":
        return _read_varint(field, data, at, where)
    if field.type == "digits":
        end = _end(field, at, field.width or 0, data, where)
        return digits_in(bytes(data[at:end]), field, where), end
    if field.type in WIDTHS:
        end = _end(field, at, WIDTHS[field.type], data, where)
        return int.from_bytes(data[at:end], order, signed=field.type[0] == "i"), end
    if field.ends == "zero":
        found = bytes(data[at : at + 4096]).find(b"\0")
        if found < 0:
            raise _past(field, at, len(data), where)
        return bytes(data[at : at + found]), at + found + 1
    if field.ends is not None:
        start = _end(field, at, WIDTHS[field.ends], data, where)
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
        if field.type == "digits":
            return digits_of(value, field)
        try:
            return value.to_bytes(WIDTHS[field.type], order, signed=field.type[0] == "i")
        except OverflowError as error:
            raise too_large(field, value) from error
    if field.ends == "zero":
        return value + b"\0"
    if field.ends is not None:
        try:
            return len(value).to_bytes(WIDTHS[field.ends], order) + value
        except OverflowError as error:
            raise no_room(field, value, (1 << 8 * WIDTHS[field.ends]) - 1) from error
    if field.type == "pad":
        room = -done % _length(field, scope)
        return value if len(value) == room else bytes(room)
    room = room_for(field, scope)
    if len(value) > room:
        raise no_room(field, value, room)
    return value.ljust(room, b"\0")


_DIGITS = {8: "o", 10: "d", 16: "x"}


def digits_in(raw: bytes, field: FieldPart, where: object) -> int:
    """The number that some digits say, with spaces or zero bytes around them; none at all are 0."""
    text = raw.strip(b"\0 ").decode("latin-1")
    try:
        if not text.isalnum() and text:
            raise ValueError
        return int(text or "0", field.base)
    except ValueError as error:
        raise FurnelError(
            _WHAT, where=where, why=f"the field “{field.name}” has {text[:20]!r}, which is no number in base {field.base}",
            remedy=_CUT,
        ) from error  # fmt: skip


def digits_of(value: int, field: FieldPart) -> bytes:
    """A number as digits, with zeros before it."""
    text = f"{value:0{field.width}{_DIGITS[field.base]}}"
    if value < 0 or len(text) > (field.width or 0):
        raise too_large(field, value)
    return text.encode()


def _varint(field: FieldPart, value: int) -> bytes:
    if value < 0 or value >> 63:
        raise too_large(field, value)
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


def room_for(field: FieldPart, scope: Scope) -> int:
    """How many bytes a text has room for; 0 where that is not known yet."""
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


def too_large(field: FieldPart, value: int) -> FurnelError:
    """The refusal for a number that its field cannot hold."""
    return FurnelError(
        _WRITING, where=field.name, why=f"{value} does not fit into a {field.type}",
        remedy="The archive's kind cannot hold that much: leave something out, or split it",
    )  # fmt: skip


def no_room(field: FieldPart, value: bytes, room: int) -> FurnelError:
    """The refusal for a text that its field cannot hold."""
    return FurnelError(
        _WRITING,
        where=value.decode("utf-8", "replace"),
        why=f"the field “{field.name}” has room for {room} bytes",
        remedy="Use a shorter name",
    )


def constant(field: FieldPart, room: int) -> int | bytes:
    """What stands in a field that nobody filled: its constant, its `new` number, or zeros."""
    if field.is_number:
        return field.value if isinstance(field.value, int) else field.new
    if isinstance(field.value, str):
        return field.value.encode("utf-8").ljust(room, b"\0")
    return bytes(field.value).ljust(room, b"\0") if isinstance(field.value, tuple) else bytes(room)


def _split(field: FieldPart, value: int | bytes, values: Values) -> None:
    if isinstance(value, int):
        for bits in field.bits:
            values[bits.name] = take_bits(value, bits)


def numbers_in(values: Mapping[str, Any]) -> dict[str, Any]:
    """The values that expressions can use."""
    return {
        name: value
        for name, value in values.items()
        if isinstance(value, int | np.integer) or (isinstance(value, np.ndarray) and value.dtype.kind in "iu")
    }


def _shown(value: int | bytes) -> str:
    return str(value) if isinstance(value, int) else repr(value)
