"""How a layout says what bare pixels and samples are: which entries, in which format, told by which fields."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from furnel.containers.container import Order
from furnel.containers.fields import RAW_ROLES, CheckedFields, held
from furnel.containers.palettes import PalettePart
from furnel.images.formats import FORMATS
from furnel.schema import OneOf, Part

SAMPLES = {
    "unsigned 8": ("u1", 8), "signed 8": ("i1", 8), "signed 16": ("i2", 16), "signed 24": ("i3", 24), "signed 32": ("i4", 32),
    "float 32": ("f4", 32),
}  # fmt: skip
"""How a sample can lie in memory: its NumPy type (24 bits have none) and its bits."""

PixelName = Annotated[str, OneOf(FORMATS)]
NUMBERS = "P8"  # numbers of colours, a byte each
SampleName = Annotated[str, OneOf(SAMPLES)]
Size = Annotated[int, Field(ge=1, le=1 << 16)]
_OF_PIXELS, _OF_SAMPLES = {"width", "height", "depth", "levels", "pixel format"}, {
    "rate", "channels", "sample format", "frames",
}  # fmt: skip


class RawPart(Part):
    """Bare pixels or samples: the entries whose paths match `files`, behind a record of `fields` of their own if they have one.

    `pixels` is their format, or says which number in the field that holds the `pixel format` stands for which; rows may
    come `from-below` or be padded to a multiple of `row-align` bytes, levels come with the `smallest-first`. `samples`
    likewise, by the field that holds the `sample format`. What no field tells is a constant here, or is worked out from how
    many bytes there are.
    """

    files: str = "*"
    fields: CheckedFields = ()
    order: Order | None = None
    pixels: Literal["P8"] | PixelName | dict[int, PixelName] | None = None
    palette: PalettePart | None = None
    width: Size | None = None
    height: Size | None = None
    levels: Annotated[int, Field(ge=1, le=17)] | None = None
    from_below: bool = False
    row_align: int = Field(1, ge=1, le=4096)
    smallest_first: bool = False
    samples: SampleName | dict[int, SampleName] | None = None
    rate: Annotated[int, Field(ge=1, le=768_000)] | None = None
    channels: Annotated[int, Field(ge=1, le=64)] | None = None

    @model_validator(mode="after")
    def _is_one(self) -> RawPart:
        if (self.pixels is None) == (self.samples is None):
            raise ValueError("bare data has either pixels or samples")
        if not (found := held(self.fields)) <= {*RAW_ROLES, "size"}:
            wrong = sorted(found - {*RAW_ROLES, "size"})[0]
            raise ValueError(f"a field of the record before bare data cannot hold the {wrong}")
        if (self.pixels == NUMBERS) != (self.palette is not None):
            raise ValueError("pixels in P8 have a palette, and no others do")
        if self.pixels == NUMBERS:
            return self
        names = self.pixels.values() if isinstance(self.pixels, dict) else [self.pixels]
        packed = [name for name in names if name is not None and FORMATS[name].compressed]
        if packed and (self.from_below or self.row_align > 1):
            raise ValueError(f"{packed[0]} lies in blocks: it has no rows that come from below or are padded")
        return self

    def check_told(self, told: frozenset[str]) -> None:
        """Refuse what nobody tells: `told` are the roles that fields around the data hold. Raises ValueError."""
        told |= held(self.fields)
        if isinstance(self.pixels, dict) and "pixel format" not in told:
            raise ValueError("pixels by number need a field that holds the pixel format")
        if isinstance(self.samples, dict) and "sample format" not in told:
            raise ValueError("samples by number need a field that holds the sample format")
        if self.pixels is not None and self.width is None and "width" not in told:
            raise ValueError("bare pixels need a field that holds the width, or a width that all have")
        if self.samples is not None and self.rate is None and "rate" not in told:
            raise ValueError("bare samples need a field that holds the rate, or a rate that all have")
        wrong = sorted(told & (_OF_SAMPLES if self.pixels is not None else _OF_PIXELS))
        if wrong and wrong[0] in held(self.fields):
            raise ValueError(f"{'pixels' if self.pixels is not None else 'samples'} have no {wrong[0]}")

    @property
    def ending(self) -> str:
        """What is added to the paths of such entries: the ending of the file that they are read and written as."""
        return ".tga" if self.palette is not None else ".dds" if self.pixels is not None else ".wav"
