"""Files that Furnel does not look into: named for what they are, and taken as they are."""

from __future__ import annotations

import io
from dataclasses import dataclass

import numpy as np

from furnel.games import RoleRule
from furnel.images.picture import Picture
from furnel.media.medium import Data, Facts, Kind, Medium, Preview, Rows, Spec
from furnel.signatures import sort_of, title_of


@dataclass(frozen=True, slots=True)
class RawSpec(Spec):
    """Bytes that Furnel cannot look into."""

    file_type: str
    size: int
    called: str = ""
    title: str = ""

    @property
    def kind(self) -> Kind:
        return "other"


def _ending(path: str) -> str:
    """What stands behind the last dot of a file's name, in capitals; nothing where there is none."""
    name = path.replace("\\", "/").rpartition("/")[2]
    ending = name.rpartition(".")[2] if "." in name else ""
    return ending.upper() if 0 < len(ending) <= 10 else ""


class _Other(Medium):
    name = "other"
    called = "file of another kind"
    kinds = ("other",)
    titles = ("Other",)
    spec_type = RawSpec

    def recognises(self, data: Data, path: str) -> bool:
        return True

    def facts(self, data: Data, size: int, path: str, does: frozenset[str]) -> Facts:
        sort = sort_of(data, path)
        return Facts("other", sort.format if sort is not None else _ending(path) or "?")

    def spec(self, data: Data, path: str, role: RoleRule | None) -> RawSpec:
        sort = sort_of(data, path)
        if sort is None:
            return RawSpec(_ending(path) or "binary", len(data))
        return RawSpec(sort.format, len(data), sort.called, title_of(data, sort))

    def rows(self, facts: Facts, spec: Spec | None) -> Rows:
        rows = [("Format", facts.format)]
        if isinstance(spec, RawSpec) and spec.called:
            rows.insert(0, ("What it is", spec.called))
            rows += [("Title", spec.title)] if spec.title else []
        return rows

    def preview(self, data: Data, where: object) -> Preview:
        sort = sort_of(data, str(where))
        if sort is None:
            return Preview(fault="no preview for this kind")
        if sort.called == "a font" and (drawn := _drawn_with(data)) is not None:
            return Preview(picture=drawn)
        return Preview(text="\n".join(filter(None, (sort.called, title_of(data, sort)))))


def _drawn_with(data: Data) -> Picture | None:
    """Some letters of a font; None when it cannot be drawn with."""
    from PIL import Image, ImageDraw, ImageFont

    image = Image.new("RGBA", (256, 168), (0, 0, 0, 0))
    try:
        for size, top, letters in ((72, 4, "AaGgQq"), (30, 92, "abcdefghijklm"), (30, 126, "0123456789 &?!")):
            face = ImageFont.truetype(io.BytesIO(data), size)
            wide = face.getlength(letters)
            if wide > 240:
                face = ImageFont.truetype(io.BytesIO(data), max(size * 240 / wide, 6))
            ImageDraw.Draw(image).text((8, top), letters, font=face, fill=(236, 232, 222, 255))
    except (OSError, ValueError, OverflowError, MemoryError):
        return None
    return Picture(np.asarray(image).copy())


OTHER = _Other()
