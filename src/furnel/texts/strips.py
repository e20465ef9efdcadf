"""Strips: lists of colours in a definition that the game paints a figure with; how they are written, and in which order."""

from __future__ import annotations

import re
from typing import Literal

from pydantic import Field

from furnel.images.colour import LUMA
from furnel.images.picture import Rgb
from furnel.schema import Part
from furnel.texts.document import Value

Written = Literal["hex", "#hex", "bgr hex", "number", "bgr number"]
_HEX = re.compile(r"#?([0-9a-fA-F]{6})")


class StripRule(Part):
    """A list (or table) of colours: how many (`colours`; 0: any number), how each is `written` (hex digits or a number, red or
    blue first), in which `order`, and the `figure` that it is for: the value beside it that names it, or a pattern for paths.

    What the figure `has` is `these` colours, or `greys` that the game looks up in the strip.
    """

    colours: int = Field(0, ge=0, le=4096)
    written: Written = "hex"
    order: Literal["any", "dark first", "light first"] = "any"
    figure: str = ""
    has: Literal["these", "greys"] = "these"

    def read(self, value: Value) -> list[Rgb] | None:
        """The colours that a value stands for, or None when it is no strip."""
        rows = list(value.values()) if isinstance(value, dict) else value
        if not isinstance(rows, list):
            return None
        found = [self._read(one) for one in rows]
        return [one for one in found if one is not None] if None not in found else None

    def _read(self, one: Value) -> Rgb | None:
        if "number" in self.written:
            if isinstance(one, str) and one.isdigit():
                one = int(one)
            if not isinstance(one, int) or isinstance(one, bool) or not 0 <= one <= 0xFFFFFF:
                return None
            parts = one.to_bytes(3, "big")
        else:
            hexed = _HEX.fullmatch(one) if isinstance(one, str) else None
            if hexed is None or one.startswith("#") != (self.written == "#hex"):
                return None
            parts = bytes.fromhex(hexed.group(1))
        red, green, blue = parts[::-1] if self.written.startswith("bgr") else parts
        return red, green, blue

    def write(self, colours: list[Rgb]) -> list[Value]:
        """Colours as the definition has them."""
        parts = [bytes(one[::-1] if self.written.startswith("bgr") else one) for one in colours]
        if "number" in self.written:
            return [int.from_bytes(one, "big") for one in parts]
        return [("#" if self.written == "#hex" else "") + one.hex() for one in parts]

    def arranged(self, colours: list[Rgb]) -> list[Rgb]:
        """Colours in the order that the game reads: turned round when they go the other way."""
        return colours[::-1] if self._goes_wrong(colours) else colours

    def _goes_wrong(self, colours: list[Rgb]) -> bool:
        if self.order == "any" or len(colours) < 2:
            return False
        first, last = _lightness(colours[0]), _lightness(colours[-1])
        return first > last if self.order == "dark first" else first < last

    def against(self, value: Value) -> tuple[str, str] | None:
        """What is wrong with a value, and what to do; None for a strip that the game takes."""
        colours = self.read(value)
        if colours is None:
            return f"is no list of colours, each a {self.written}", "Take it from a picture"
        if self.colours and len(colours) != self.colours:
            return f"has {len(colours)} colours for {self.colours}", "Take it from a picture with as many"
        if self._goes_wrong(colours):
            return f"is not {self.order}", "Turn it round"
        return None


def _lightness(colour: Rgb) -> float:
    """How light a colour is, 0 to 255."""
    return float(colour @ LUMA)
