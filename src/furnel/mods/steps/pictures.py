"""Steps for pictures."""

from __future__ import annotations

import numpy as np

from furnel.images.colour import from_premultiplied_light, premultiplied_light
from furnel.images.picture import Picture
from furnel.images.resample import FILTERS, Filter, looks_drawn_in_pixels, resize
from furnel.mods.steps.step import Parameter, StepType, Values


def _size(picture: Picture, values: Values) -> Picture:
    width, height = int(values["width"]), int(values["height"])
    how: Filter = "nearest" if looks_drawn_in_pixels(picture) else "lanczos"
    if values["filter"] != "by content":
        how = str(values["filter"])  # type: ignore[assignment]
    if values["how"] == "stretch":
        return resize(picture, width, height, how)
    scales = (width / picture.width, height / picture.height)
    if values["how"] == "fill":
        scale = max(scales)
        wide, high = min(round(width / scale), picture.width), min(round(height / scale), picture.height)
        left, top = (picture.width - wide) // 2, (picture.height - high) // 2
        return resize(
            Picture(np.ascontiguousarray(picture.pixels[top : top + high, left : left + wide])),
            width,
            height,
            how,
        )
    scale = min(scales)
    wide, high = max(round(picture.width * scale), 1), max(round(picture.height * scale), 1)
    canvas = np.zeros((height, width, 4), np.uint8)
    left, top = (width - wide) // 2, (height - high) // 2
    canvas[top : top + high, left : left + wide] = resize(picture, wide, high, how).pixels[
        : height - top, : width - left
    ]
    return Picture(canvas)


SIZE = StepType(
    "size",
    "Bring to size",
    "picture",
    (
        Parameter("width", "Width", "whole", 512, 1, 16384, "px"),
        Parameter("height", "Height", "whole", 512, 1, 16384, "px"),
        Parameter("how", "How", "choice", "fill", choices=("fill", "inside", "stretch")),
        Parameter("filter", "Filter", "choice", "by content", choices=("by content", *FILTERS)),
    ),
    _size,
    lambda values: (
        f"{values['width']} × {values['height']}, {'whole picture inside' if values['how'] == 'inside' else values['how']}"
    ),
)


def _clear_colour(picture: Picture, values: Values) -> Picture:
    target = np.frombuffer(bytes.fromhex(str(values["colour"])), np.uint8).astype(np.int32)
    distance = np.abs(picture.pixels[..., :3].astype(np.int32) - target).max(axis=2)
    tolerance, soft = float(values["tolerance"]), max(float(values["softness"]), 1e-6)
    keep = np.clip((distance - tolerance) / soft, 0.0, 1.0)
    out = picture.pixels.copy()
    out[..., 3] = np.round(out[..., 3] * keep)
    out[out[..., 3] == 0] = 0
    return Picture(out)


CLEAR_COLOUR = StepType(
    "clear-colour",
    "Clear a colour",
    "picture",
    (
        Parameter("colour", "Colour", "colour", "00ff00"),
        Parameter("tolerance", "Tolerance", "whole", 12, 0, 255),
        Parameter("softness", "Soft edge", "whole", 0, 0, 255),
    ),
    _clear_colour,
    lambda values: f"#{values['colour']} becomes clear, ±{values['tolerance']}",
)


def _brightness(picture: Picture, values: Values) -> Picture:
    light = premultiplied_light(picture.pixels)
    light[..., :3] *= np.float32(2.0 ** float(values["stops"]))
    return Picture(from_premultiplied_light(np.minimum(light, 1.0)))


BRIGHTNESS = StepType(
    "brightness",
    "Brighter or darker",
    "picture",
    (Parameter("stops", "Exposure", "number", 0.0, -4.0, 4.0, "stops"),),
    _brightness,
    lambda values: (
        f"{'brighter' if float(values['stops']) > 0 else 'darker'} by {abs(float(values['stops'])):.1f} stops"
    ),
)


def _opaque(picture: Picture, values: Values) -> Picture:
    out = picture.pixels.copy()
    out[..., 3] = 255
    return Picture(out)


OPAQUE = StepType("opaque", "Drop the alpha", "picture", (), _opaque, lambda values: "every pixel opaque")


def _hard_alpha(picture: Picture, values: Values) -> Picture:
    out = picture.pixels.copy()
    out[..., 3] = np.where(out[..., 3] >= int(values["threshold"]), 255, 0)
    return Picture(out)


HARD_ALPHA = StepType(
    "hard-alpha",
    "Clear or opaque",
    "picture",
    (Parameter("threshold", "Opaque from", "whole", 128, 1, 255),),
    _hard_alpha,
    lambda values: f"opaque from alpha {values['threshold']}",
)

STEPS = (SIZE, CLEAR_COLOUR, BRIGHTNESS, OPAQUE, HARD_ALPHA)
