"""Reading fixed records from bytes that may end too soon."""

from __future__ import annotations

import struct
from typing import Any

from furnel.errors import FurnelError


def unpack(
    record: struct.Struct, data: bytes | memoryview, offset: int, what: str, where: object
) -> tuple[Any, ...]:
    """`record` at `offset` of `data`; FurnelError when the data ends before it does."""
    if offset < 0 or offset + record.size > len(data):
        raise FurnelError(
            what,
            where=where,
            why=f"it ends at byte {len(data)}, inside its header",
            remedy="The file is cut short: take a fresh copy of it",
        )
    return record.unpack_from(data, offset)


def check_room(
    data: bytes | memoryview, start: int, length: int, part: str, what: str, where: object
) -> None:
    """Refuse a file that ends before a part of it does."""
    if start < 0 or start + length > len(data):
        raise FurnelError(
            what,
            where=where,
            why=f"{part} should end at byte {start + length} and the file ends at {len(data)}",
            remedy="The file is cut short: take a fresh copy of it",
        )
