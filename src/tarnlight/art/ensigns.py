"""The ensigns of twelve villages round the tarn."""

from __future__ import annotations

from typing import Any

import numpy as np
import numpy.typing as npt
from PIL import Image

from tarnlight.art.paint import blurred, grid, mix, noise, rgb, rgba, shape
from tarnlight.art.surfaces import fish, heron

SIZES = {"large": (192, 128), "medium": (96, 64), "small": (48, 32)}

# village: field, ink, division, charge
VILLAGES = {
    "aldvik": ("1f4e79", "f1e3bf", "plain", "heron"),
    "brenna": ("8e2f2a", "f1e3bf", "cross", ""),
    "dunmoor": ("2f5d3a", "e6c24a", "pale", "fir"),
    "eskby": ("d9b23c", "2b2a2d", "plain", "fish"),
    "fjell": ("e9e2cf", "9c3030", "chevron", ""),
    "gorsefold": ("5a3f73", "f0d7a0", "quarter", "star"),
    "hollin": ("26333d", "d8dde0", "bend", "star"),
    "inverlow": ("b5592a", "fff0cf", "plain", "lamp"),
    "kettle": ("136a6a", "f3ead2", "waves", ""),
    "morrow": ("f0e6cc", "1f4e79", "waves", "fish"),
    "sundry": ("a6324a", "f6e3b5", "pale", "lamp"),
    "ullmere": ("23395b", "e0b04a", "chevron", "heron"),
}


def ensign(village: str, size: str) -> npt.NDArray[np.uint8]:
    """A village's ensign as (height, width, 4), drawn large and brought to its size."""
    width, height = SIZES["large"]
    field, ink, division, charge = VILLAGES[village]
    scale = 2
    w, h = width * scale, height * scale
    x, y = grid(w, h)
    masks = {
        "plain": np.zeros((h, w)),
        "cross": (np.abs(x - 0.36) < 0.07) | (np.abs(y - 0.5) < 0.105),
        "pale": x < 0.33,
        "chevron": (np.abs(y - 0.5) < 0.5 - x * 1.25)
        | ((np.abs(y - 0.5) < 0.62 - x * 1.25) & (np.abs(y - 0.5) > 0.56 - x * 1.25)),
        "quarter": (x < 0.5) ^ (y < 0.5),
        "bend": np.abs(x - y * 0.9 - 0.06) < 0.13,
        "waves": ((y + 0.03 * np.sin(x * 19)) * 6 % 2 < 1) & (y > 0.48),
    }
    second = masks[division].astype(np.float32)
    colour = mix(np.broadcast_to(rgb(field), (h, w, 3)), rgb(ink), second)
    if charge:
        left = {"pale": 0.36, "chevron": 0.42, "quarter": 0.03, "bend": 0.5}.get(division, 0.2)
        top, span = {"waves": (0.02, 0.42), "quarter": (0.04, 0.44), "bend": (0.06, 0.5)}.get(
            division, (0.08, 0.84)
        )
        mark = _charge(charge, int(h * span), int(h * span))
        shown = np.zeros((h, w), np.float32)
        at_x, at_y = int(w * left), int(h * top)
        part = mark[: h - at_y, : w - at_x]
        shown[at_y : at_y + part.shape[0], at_x : at_x + part.shape[1]] = part
        tint = np.where((second[..., None] > 0.5), rgb(field), rgb(ink)).astype(np.float32)
        colour = mix(colour, tint, shown)
    rng = np.random.default_rng(sum(village.encode()))
    fold = (
        0.88
        + 0.12 * np.sin((x * 2.2 + y * 0.25) * 2 * np.pi + 0.6)
        + 0.05 * (noise(rng, w, h, 8, 8, 4) - 0.5)
    )
    weave = 1 - 0.02 * (np.indices((h, w)).sum(0) // 2 & 1)
    hoist = np.where(x < 0.018, 0.75, 1.0)
    whole = Image.fromarray(rgba(np.asarray(colour * (fold * weave * hoist)[..., None], np.float32)))
    return np.asarray(whole.resize(SIZES[size], Image.Resampling.LANCZOS))


def _charge(name: str, width: int, height: int) -> npt.NDArray[np.float32]:
    if name == "heron":
        return heron(width, height)
    if name == "fish":
        return fish(width, height)

    def draw(pen: Any, s: int) -> None:
        def poly(points: list[tuple[float, float]], fill: int = 255) -> None:
            pen.polygon([(px * width * s, py * height * s) for px, py in points], fill=fill)  # type: ignore[attr-defined]

        if name == "star":
            turns = np.linspace(0, 2 * np.pi, 13)[:-1]
            poly(
                [
                    (
                        0.5 + (0.4 if i % 2 == 0 else 0.17) * np.sin(t),
                        0.5 - (0.4 if i % 2 == 0 else 0.17) * np.cos(t),
                    )
                    for i, t in enumerate(turns)
                ]
            )
        elif name == "fir":
            for top in (0.1, 0.3, 0.5):
                poly([(0.5, top), (0.5 + 0.14 + top * 0.35, top + 0.3), (0.5 - 0.14 - top * 0.35, top + 0.3)])
            poly([(0.46, 0.78), (0.54, 0.78), (0.54, 0.94), (0.46, 0.94)])
        else:
            poly([(0.5, 0.12), (0.72, 0.3), (0.28, 0.3)])
            poly([(0.32, 0.34), (0.68, 0.34), (0.72, 0.78), (0.28, 0.78)])
            poly([(0.5, 0.42), (0.58, 0.6), (0.5, 0.72), (0.42, 0.6)], 0)
            poly([(0.24, 0.8), (0.76, 0.8), (0.76, 0.9), (0.24, 0.9)])

    return blurred(shape(width, height, draw), 0.6)
