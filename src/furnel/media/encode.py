"""How a result is written: what a project says of it, for every medium that is encoded."""

from __future__ import annotations

from pydantic import Field, model_validator

from furnel import imagefiles, sound
from furnel.blocks import Quality
from furnel.images.detail import Tiles
from furnel.images.formats import FORMATS
from furnel.images.resample import LevelsAs
from furnel.images.texture import Shape
from furnel.schema import Part


class Encode(Part):
    """How a result is written. `levels_as` says how smaller levels are made, `repeats` in which directions the picture does.

    Of an array, a cube or a volume the result has all `pictures`, one below the other. `notes` carries header style, row
    order, run-length flag and the like.
    """

    file: str
    format: str = ""
    levels: int = Field(default=1, ge=1, le=16)
    levels_as: LevelsAs = "colour"
    repeats: Tiles = "no"
    quality: Quality = "good"
    shape: Shape = "flat"
    pictures: int = Field(default=1, ge=1, le=12288)
    notes: dict[str, str] = {}

    @model_validator(mode="after")
    def _can_be_written(self) -> Encode:
        if codecs := sound.codecs_of(self.file):
            if self.format not in codecs:
                raise ValueError(
                    f"{self.file} is written with {', '.join(codecs)}, not {self.format or 'nothing'!r}"
                )
        elif self.file not in imagefiles.WRITTEN:
            known = (*imagefiles.WRITTEN, *sound.WRITTEN_TYPES)
            raise ValueError(f"{self.file!r} is not written: use one of {', '.join(known)}")
        elif self.format and self.format not in FORMATS:
            raise ValueError(f"there is no format {self.format!r}: use one of {', '.join(FORMATS)}")
        return self
