"""Fields of records: what a number or a text in an archive is, how long it is and what it means."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field, model_validator

from furnel.containers.container import Order
from furnel.containers.expressions import expression
from furnel.containers.sums import SUMS
from furnel.errors import FurnelError
from furnel.schema import OneOf, Part

WIDTHS = {"u8": 1, "u16": 2, "u24": 3, "u32": 4, "u64": 8, "i8": 1, "i16": 2, "i32": 4, "i64": 8}
"""The numbers that fields can be, and their bytes."""
FIELDS = (*WIDTHS, "varint", "digits", "text", "bytes", "pad")
SUM_BYTES = {name: kind.width for name, kind in SUMS.items()}

SumKind = Annotated[str, OneOf(SUMS)]
FieldType = Annotated[str, OneOf(FIELDS)]
Ending = Literal["zero", "u8", "u16", "u32"]

HEAD_ROLES = (
    "entry count", "folder count", "index offset", "index size", "index stored size", "index sum", "names offset", "names size",
    "data offset", "data size", "file size", "file sum",
)  # fmt: skip
INDEX_ROLES = frozenset(
    {"entry count", "folder count", "index offset", "index size", "index stored size", "index sum"}
)
ROW_ROLES = (
    "path", "name offset", "name hash", "offset", "size", "stored size", "packing", "sum", "stored sum", "folder",
    "next entry", "volume",
)  # fmt: skip
FOLDER_ROLES = ("path", "parent", "first entry", "entries", "folders", "first folder", "next folder")
RAW_ROLES = (
    "width", "height", "depth", "levels", "pixel format", "rate", "channels", "sample format", "frames",
)  # fmt: skip
Role = Annotated[str, OneOf(dict.fromkeys((*HEAD_ROLES, *ROW_ROLES, *FOLDER_ROLES, *RAW_ROLES, "tag")))]


def _is_expression(text: str) -> str:
    try:
        expression(text)
    except FurnelError as error:
        raise ValueError(f"{error.why}; {error.remedy}") from error
    return text


ExpressionText = Annotated[str, AfterValidator(_is_expression)]
FieldName = Annotated[str, Field(pattern=r"^[a-z][a-z0-9_]*$", max_length=40)]


class BitsPart(Part):
    """A few bits of a number, as a field of their own: `count` bits from bit `first` (0 is the lowest); `means` and `stores` as
    of a field."""

    name: FieldName
    first: int = Field(ge=0, le=63)
    count: int = Field(1, ge=1, le=63)
    holds: Role | None = None
    means: ExpressionText | None = None
    stores: ExpressionText | None = None


class FieldPart(Part):
    """One field of a record.

    A number, also as `digits` (as many as `length` says, in a `base`); `text` (a fixed or worked-out `length` padded with
    zeros, or ending as `ends` says: at a zero byte, or told by a number before it); `bytes` of a length; `pad` up to a multiple
    of `length` from the record's beginning.
    """

    name: FieldName
    type: FieldType
    length: Annotated[int, Field(ge=1, le=65536)] | ExpressionText | None = None
    ends: Ending | None = None
    base: Literal[8, 10, 16] = 10
    order: Order | None = None
    value: str | int | tuple[Annotated[int, Field(ge=0, le=255)], ...] | None = Field(None, alias="is")
    new: int = 0
    holds: Role | None = None
    means: ExpressionText | None = None
    stores: ExpressionText | None = None
    when: ExpressionText | None = None
    bits: tuple[BitsPart, ...] = ()
    sum: SumKind | None = None

    @model_validator(mode="after")
    def _whole(self) -> FieldPart:
        blocks = self.type in ("text", "bytes", "pad")
        if self.type == "text" and (self.length is None) == (self.ends is None):
            raise ValueError('a text field needs a length, or ends = "zero", "u8", "u16" or "u32"')
        if self.type in ("bytes", "pad") and self.length is None:
            raise ValueError(f"a field of type {self.type} needs a length")
        if self.type == "digits" and not isinstance(self.length, int):
            raise ValueError("a field of digits needs a length: how many there are")
        if self.type != "digits" and not blocks and (self.length is not None or self.ends is not None):
            raise ValueError("a number has no length of its own")
        if (self.bits or self.means or self.stores) and (blocks or self.type in ("varint", "digits")):
            raise ValueError("bits, means and stores belong to numbers")
        if (self.holds in ("sum", "stored sum", "index sum", "file sum")) != (self.sum is not None):
            raise ValueError(f"a field that holds a sum says which: sum = one of {', '.join(SUMS)}")
        room = 8 * WIDTHS.get(self.type, 0)
        for bits in self.bits:
            if bits.first + bits.count > room:
                raise ValueError(
                    f"the bits {bits.name} end at bit {bits.first + bits.count}, and a {self.type} has {room}"
                )
        if self.sum is not None and self.sum_width != SUM_BYTES[self.sum]:
            raise ValueError(f"a {self.sum} has {SUM_BYTES[self.sum]} bytes")
        return self

    @property
    def is_number(self) -> bool:
        """Whether it is a number, in whatever form."""
        return self.type in WIDTHS or self.type in ("varint", "digits")

    @property
    def sum_width(self) -> int:
        return self.length if isinstance(self.length, int) else WIDTHS.get(self.type, 0)

    @property
    def width(self) -> int | None:
        """Its bytes in the file, when they are always as many."""
        if self.when or self.type in ("varint", "pad") or self.ends:
            return None
        if self.type in ("text", "bytes", "digits"):
            return self.length if isinstance(self.length, int) else None
        return WIDTHS[self.type]

    @property
    def roles(self) -> frozenset[str]:
        """What it and its bits hold."""
        return frozenset(holds for holds in (self.holds, *(bits.holds for bits in self.bits)) if holds)


Fields = tuple[FieldPart, ...]


def _unique(fields: Fields) -> Fields:
    names = [name for field in fields for name in (field.name, *(bits.name for bits in field.bits))]
    twice = next((name for name in names if names.count(name) > 1), None)
    if twice:
        raise ValueError(f"two fields are called {twice}")
    held = [role for field in fields for role in field.roles]
    twice = next((role for role in held if held.count(role) > 1), None)
    if twice:
        raise ValueError(f"two fields hold the {twice}")
    return fields


CheckedFields = Annotated[Fields, AfterValidator(_unique)]


def held(fields: Fields) -> frozenset[str]:
    """Every role that some fields hold."""
    return frozenset[str]().union(*(field.roles for field in fields))


def tells_here(part: FieldPart | BitsPart) -> bool:
    """Whether what a field or its bits mean depends on where it lies."""
    bits = part.bits if isinstance(part, FieldPart) else ()
    told = [text for one in (part, *bits) for text in (one.means, one.stores) if text is not None]
    return any("here" in expression(text).names for text in told)


def places_in(fields: Fields) -> dict[str, int]:
    """How many bytes there are before each field (and its bits) of a record, up to the first that has no fixed width."""
    out, at = dict[str, int](), 0
    for field in fields:
        out.update(dict.fromkeys((field.name, *(bits.name for bits in field.bits)), at))
        if field.width is None:
            break
        at += field.width
    return out


def fixed_width(fields: Fields) -> int | None:
    """The bytes of a record whose fields are always as wide, otherwise None."""
    widths = [field.width for field in fields]
    return None if None in widths else sum(width for width in widths if width is not None)


def only(found: frozenset[str], allowed: set[str], where: str) -> None:
    """Refuse roles that a record cannot hold. Raises ValueError."""
    wrong = sorted(found - allowed)
    if wrong:
        raise ValueError(f"a field of the {where} cannot hold the {wrong[0]}")
