"""Steps that cut, turn and place pictures."""

from __future__ import annotations

from typing import Any, cast

from furnel.images.geometry import HOWS, Box, How, brought_to, cropped, placed, turned
from furnel.images.picture import Picture
from furnel.images.resample import FILTERS, Filter
from furnel.mods.steps.step import Around, Parameter, StepType, Values

_GROUP = "Size and place"


def area_of(values: Values) -> Box:
    """The area that a step's settings name."""
    return int(values["left"]), int(values["top"]), int(values["width"]), int(values["height"])


def size_of(values: Values) -> tuple[int, int]:
    """The size in pixels that a step's settings name."""
    return int(values["width"]), int(values["height"])


def area_parameters(width: int, height: int) -> tuple[Parameter, ...]:
    """The four settings of an area, with the size it has at first."""
    return (
        Parameter("left", "Left", "whole", 0, 0, 16384, "px"),
        Parameter("top", "Top", "whole", 0, 0, 16384, "px"),
        Parameter("width", "Width", "whole", width, 1, 16384, "px"),
        Parameter("height", "Height", "whole", height, 1, 16384, "px"),
    )


def area_text(values: Values) -> str:
    """An area in short."""
    return f"{values['width']} × {values['height']} at {values['left']}, {values['top']}"


def _size(picture: Picture, values: Values, around: Around) -> Picture:
    kernel = None if values["filter"] == "by content" else cast(Filter, values["filter"])
    if said := _lost(picture, *size_of(values), str(values["how"])):
        around.tell(said)
    return brought_to(picture, int(values["width"]), int(values["height"]), cast(How, values["how"]), kernel)


def _lost(picture: Picture, width: int, height: int, how: str) -> str:
    """What of a picture is cut off or what stays empty beside it where the proportions are others, in a few words."""
    across, down = width / picture.width, height / picture.height
    part = 1 - min(across, down) / max(across, down)
    if how == "stretch" or part < 0.005:
        return ""
    at_the_sides = (across < down) == (how == "fill")
    where = "left and right" if at_the_sides else "above and below"
    return f"cuts {part:.0%} off, {where}" if how == "fill" else f"{part:.0%} of it stays clear, {where}"


_HOW_TEXTS = {"fill": "filled", "inside": "whole picture inside", "stretch": "stretched"}

SIZE = StepType(
    "size", "Bring to size", "picture",
    (
        Parameter("width", "Width", "whole", 512, 1, 16384, "px"),
        Parameter("height", "Height", "whole", 512, 1, 16384, "px"),
        Parameter("how", "How", "choice", "fill", choices=HOWS),
        Parameter("filter", "Filter", "choice", "by content", choices=("by content", *FILTERS)),
    ),
    _size,
    lambda values: f"{values['width']} × {values['height']}, {_HOW_TEXTS[str(values['how'])]}",
    _GROUP, result_size=size_of, distorts=lambda values: values["how"] == "stretch",
)  # fmt: skip

CROP = StepType(
    "crop", "Crop", "picture", area_parameters(256, 256),
    lambda picture, values, _: cropped(picture, area_of(values)),
    area_text, _GROUP, result_size=size_of, crops=True,
)  # fmt: skip


def _place(picture: Picture, values: Values, around: Around) -> Picture:
    return placed(
        around.needed_original("Placing on the original"), picture, area_of(values),
        how=cast(How, values["how"]), stretch=float(values["stretch"]), feather=float(values["feather"]),
        keep_alpha=bool(values["keep-alpha"]),
    )  # fmt: skip


PLACE = StepType(
    "place", "Place on the original", "picture",
    (
        *area_parameters(128, 128),
        Parameter("how", "How", "choice", "fill", choices=HOWS),
        Parameter("stretch", "Game widens it", "number", 1.0, 0.1, 10.0, "×"),
        Parameter("feather", "Soft edge", "number", 0.0, 0.0, 256.0, "px"),
        Parameter("keep-alpha", "Keep the original's alpha", "switch", True),
    ),
    _place, area_text, _GROUP, uses_original=True,
)  # fmt: skip


def _turns(values: Values) -> tuple[bool, bool, bool]:
    half, mirror = values["turn"] == "half way", values["mirror"]
    on_its_side = values["turn"] in ("to the right", "to the left")
    return half ^ (mirror == "across"), half ^ (mirror == "down"), on_its_side


_TURNS = ("not", "to the right", "half way", "to the left")

TURN = StepType(
    "turn", "Turn or mirror", "picture",
    (
        Parameter("turn", "Turn", "choice", "not", choices=_TURNS),
        Parameter("mirror", "Mirror", "choice", "no", choices=("no", "across", "down")),
    ),
    lambda picture, values, _: turned(picture, _TURNS.index(str(values["turn"])), cast(Any, values["mirror"])),
    lambda values: ", ".join(
        ([f"turned {values['turn']}"] if values["turn"] != "not" else [])
        + ([f"mirrored {values['mirror']}"] if values["mirror"] != "no" else [])
    ) or "as it is",
    _GROUP, turns=_turns,
)  # fmt: skip

STEPS = (SIZE, CROP, PLACE, TURN)
