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
