"""The layout language: a TOML description of one family of archive, checked when it is read. See docs/layouts.md."""

from __future__ import annotations

from functools import cache
from importlib import resources
from pathlib import Path
from typing import Literal

from pydantic import Field, model_validator

from furnel.errors import FurnelError, reason
from furnel.schema import Part, parse_toml

WHAT = "Reading a layout"

Packing = Literal["none", "zlib", "lz4"]
WIDTHS = {"u8": 1, "u16": 2, "u32": 4, "u64": 8}


class FieldPart(Part):
    """One field of a record: an integer, or text of fixed length padded with zeros."""

    name: str
    type: Literal["u8", "u16", "u32", "u64", "text"]
    length: int | None = Field(None, ge=1, le=1024)
    value: str | int | None = Field(None, alias="is")
    holds: (
        Literal[
            "path",
            "name offset",
            "offset",
            "size",
            "stored size",
            "tag",
            "entry count",
            "index offset",
            "index size",
            "index stored size",
            "names offset",
        ]
        | None
    ) = None

    @model_validator(mode="after")
    def _whole(self) -> FieldPart:
        if (self.type == "text") != (self.length is not None):
            raise ValueError("a text field needs a length, a number has none")
        return self

    @property
    def width(self) -> int:
        return self.length or WIDTHS[self.type]


class RecordPart(Part):
    """A record of fields one after the other."""

    fields: tuple[FieldPart, ...] = Field(min_length=1)

    @property
    def width(self) -> int:
        return sum(field.width for field in self.fields)


class IndexPart(RecordPart):
    """The table of entries: in the archive or a side file, behind the data or before it, packed as a whole or not."""

    file: str = ""
    place: Literal["front", "back"] = "front"
    packed: Packing = "none"
    start: tuple[FieldPart, ...] = ()
    names: Literal["fields", "table", "numbers"] = "fields"
    number: str = "{number:04}"


class EntryPart(Part):
    """How the entries' bytes are stored."""

    packed: Packing = "none"
    align: int = Field(1, ge=1, le=65536)
    prefix: str = ""


class SumsPart(Part):
    """A side file with one CRC-32 of each entry's stored bytes."""

    file: str
    type: Literal["u32"] = "u32"


class NestPart(Part):
    """A tagged chunk that is itself a chain: which chunk inside names it, and which ones are entries."""

    tag: str
    named_by: str
    parts: dict[str, str]


class ChainPart(RecordPart):
    """Chunks one after the other up to the end of the file: tag, size, data. Chunks not named here are kept as they are."""

    align: int = Field(1, ge=1, le=65536)
    nests: tuple[NestPart, ...] = Field(min_length=1)


class Layout(Part):
    """One family of archive: `index` or `chain` says where its entries are."""

    furnel_layout: Literal[1]
    name: str = Field(pattern=r"^[a-z][a-z0-9-]*$")
    title: str
    files: tuple[str, ...] = Field(min_length=1)
    byte_order: Literal["little", "big"] = "little"
    start: RecordPart | None = None
    footer: RecordPart | None = None
    index: IndexPart | None = None
    entry: EntryPart = EntryPart(align=1)
    sums: SumsPart | None = None
    chain: ChainPart | None = None

    @model_validator(mode="after")
    def _whole(self) -> Layout:
        if (self.index is None) == (self.chain is None):
            raise ValueError("a layout has either an [index] or a [chain]")
        if self.index is not None:
            held = {field.holds for field in self.index.fields}
            wanted = {"fields": "path", "table": "name offset", "numbers": None}[self.index.names]
            if "offset" not in held or (wanted and wanted not in held):
                raise ValueError(
                    f"the index has no field that holds the {'offset' if 'offset' not in held else wanted}"
                )
        elif self.chain is not None and {"tag", "size"} - {field.holds for field in self.chain.fields}:
            raise ValueError("a chain's fields hold the tag and the size")
        return self


def parse_layout(text: str, where: object) -> Layout:
    """A layout from its TOML text. Raises FurnelError that names the key, what was found and what is allowed."""
    return parse_toml(Layout, text, WHAT, where, "docs/layouts.md")


def open_layout(path: Path) -> Layout:
    """The layout in a file."""
    try:
        return parse_layout(path.read_text("utf-8"), path)
    except (OSError, UnicodeDecodeError) as error:
        why = reason(error) if isinstance(error, OSError) else str(error)
        raise FurnelError(WHAT, where=path, why=why) from error


@cache
def shipped_layouts() -> dict[str, Layout]:
    """The layouts that come with Furnel, by name."""
    folder = resources.files("furnel.containers") / "layouts"
    found = [
        parse_layout(file.read_text("utf-8"), file.name)
        for file in sorted(folder.iterdir(), key=lambda file: file.name)
        if file.name.endswith(".toml")
    ]
    return {layout.name: layout for layout in found}
