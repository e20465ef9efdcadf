"""Loop records: small files beside a tune that tell the game where it jumps back."""

from __future__ import annotations

import struct
from typing import Annotated

from pydantic import field_validator

from furnel.containers import records
from furnel.containers.container import Order
from furnel.containers.fields import FieldPart
from furnel.errors import FurnelError
from furnel.schema import Part, template

WHAT = "Reading a loop record"
_FLOATS = {4: "f", 8: "d"}
_ORDERS = {"little": "<", "big": ">"}


class LoopRecord(Part):
    """Where a tune's loop record lies and what is in it.

    `path` is an inner path in which `{folder}` and `{stem}` stand for the tune's own. Of its `fields`, `start` and `end` (or
    `length`) are frames, `rate` is in Hz, `tempo` in beats a minute (a number, or a float of four or eight `bytes`); all
    others stay as they are.
    """

    path: Annotated[str, template("folder", "stem")]
    byte_order: Order = "little"
    fields: tuple[FieldPart, ...]

    @field_validator("fields")
    @classmethod
    def _enough(cls, fields: tuple[FieldPart, ...]) -> tuple[FieldPart, ...]:
        names = {field.name for field in fields}
        if "start" not in names or not names & {"end", "length"}:
            raise ValueError("it needs fields called start and end, or start and length")
        if any(
            field.name == "tempo" and field.type == "bytes" and field.length not in _FLOATS
            for field in fields
        ):
            raise ValueError("a tempo in bytes is a float of 4 or 8 of them")
        return fields

    def of(self, path: str) -> str:
        """The record's inner path for a tune's."""
        folder, _, name = path.rpartition("/")
        return self.path.format(folder=folder, stem=name.rpartition(".")[0])

    def read(self, data: bytes, where: object) -> tuple[int, int]:
        """First and end frame of the loop. Raises FurnelError for a record that is too short or makes no sense."""
        values = self._values(data, where)
        start = int(values["start"])
        end = int(values["end"]) if "end" in values else start + int(values["length"])
        if not start < end:
            raise FurnelError(WHAT, where=where, why=f"it goes from frame {start} to {end}")
        return start, end

    def write(
        self, data: bytes, start: int, end: int, rate: int, where: object, tempo: float | None = None
    ) -> bytes:
        """The record `data` with another loop, and another tempo where it has one; whatever else is in it stays."""
        values = self._values(data, where)
        told: dict[str, int | bytes] = {"start": start, "end": end, "length": end - start, "rate": rate}
        if tempo is not None and (held := values.get("tempo")) is not None:
            told["tempo"] = round(tempo) if isinstance(held, int) else self._float(tempo, len(held))
        values |= {name: value for name, value in told.items() if name in values}
        fresh = records.write_record(self.fields, values, self.byte_order, {})
        return fresh + data[len(fresh) :]

    def tempo(self, data: bytes, where: object) -> float | None:
        """The tempo that the record tells, in beats a minute."""
        held = self._values(data, where).get("tempo")
        if isinstance(held, bytes) and len(held) in _FLOATS:
            return float(struct.unpack(_ORDERS[self.byte_order] + _FLOATS[len(held)], held)[0])
        return float(held) if isinstance(held, int) else None

    def _float(self, tempo: float, width: int) -> bytes:
        return struct.pack(_ORDERS[self.byte_order] + _FLOATS[width], tempo)

    def _values(self, data: bytes, where: object) -> records.Values:
        return records.read_record(self.fields, memoryview(data), 0, self.byte_order, where, {})[0]
