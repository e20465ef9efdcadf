"""What hangs in the chart room: charts of the tarn's bays, and portraits of those who live round it."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Any

import numpy as np
import numpy.typing as npt

from tarnlight.art.paint import Floats, blurred, grid, mix, noise, ramp, rgb, rgba, shape

Pixels = npt.NDArray[np.uint8]

CHARTS = ("adder bay", "blackwater", "cold sound", "drowned wood", "east narrows", "ferry lane", "gull rock", "heron flats",
          "ice mouth", "jetty reach", "kettle deep", "long strand", "mail route", "north arm", "old harbour", "pike hole",
          "quarry shore", "reed maze", "south arm", "two isles")  # fmt: skip
PEOPLE = ("ada", "bram", "corin", "dagny", "eskil", "fenna", "garth", "hild", "ivor", "jorun", "knut", "lotte", "maren",
          "njal", "odda", "per", "ragna", "sten", "tove", "ulf")  # fmt: skip

_SKINS = ("e8c19a", "c98f66", "8d5a3b", "f0d2b4", "a9744f")
_HAIR = ("3a2a20", "a8672f", "d7b56d", "6f6a64", "1f1c1d", "8b3d24")
_COATS = ("2f5d68", "8c2f2b", "4f7155", "39435c", "7a5a2b", "5a3f73")
_WALLS = ("31505a", "5b4a3a", "3f4f3a", "4a3550", "6a5638")


def chart(rng: np.random.Generator, size: int) -> Pixels:
    """Soundings in steps, a shore line, a dashed lane and a rose, on old paper."""
    paper = ramp(noise(rng, size, size, 4, 4, 5), "c9b283", "e6d6ab", "efe4c4")
    depth = noise(rng, size, size, int(rng.integers(2, 4)), int(rng.integers(2, 4)), 3)
    water = depth < 0.56
    ink = mix(paper, ramp(np.floor(depth * 9) / 5, "5d8a92", "8fb3ac", "c3d2b8"), np.where(water, 0.75, 0.0))
    steps = np.floor(depth * 18)
    line = (
        np.abs(np.diff(steps, axis=0, prepend=steps[:1]))
        + np.abs(np.diff(steps, axis=1, prepend=steps[:, :1]))
    ) > 0
    shore = np.diff(water, axis=0, prepend=water[:1]) | np.diff(water, axis=1, prepend=water[:, :1])
    ink = mix(ink, rgb("6b5a3c"), np.where(line, 0.3, 0.0))
    ink = mix(ink, rgb("3d2d1c"), blurred(shore.astype(np.float32), 0.7) * 1.4)
    points = rng.random((4, 2)) * 0.7 + 0.15

    def lane(pen: Any, s: int) -> None:
        for (x0, y0), (x1, y1) in pairwise(points):
            for part in range(0, 20, 2):
                a, b = part / 20, (part + 1) / 20
                ends = [(x0 + (x1 - x0) * t, y0 + (y1 - y0) * t) for t in (a, b)]
                pen.line(
                    [(x * size * s, y * size * s) for x, y in ends], fill=255, width=int(size * s * 0.011)
                )  # type: ignore[attr-defined]

    cx, cy = rng.random(2) * 0.6 + 0.2

    def rose(pen: Any, s: int) -> None:
        for spoke in range(8):
            angle, reach = spoke * math.pi / 4, 0.1 if spoke % 2 == 0 else 0.055
            tip = ((cx + math.sin(angle) * reach) * size * s, (cy - math.cos(angle) * reach) * size * s)
            for side in (-0.4, 0.4):
                hip = (
                    (cx + math.sin(angle + side) * 0.02) * size * s,
                    (cy - math.cos(angle + side) * 0.02) * size * s,
                )
                pen.polygon([(cx * size * s, cy * size * s), tip, hip], fill=255)  # type: ignore[attr-defined]

    ink = mix(ink, rgb("a33a26"), shape(size, size, lane))
    ink = mix(ink, rgb("2f3f4a"), shape(size, size, rose) * 0.85)
    x, y = grid(size, size)
    edge = np.minimum(np.minimum(x, 1 - x), np.minimum(y, 1 - y))
    ink = mix(ink, rgb("5d4526"), np.clip((0.045 - edge) * 18, 0, 0.75))
    return rgba(mix(ink, rgb("3d2d1c"), np.where(np.abs(edge - 0.06) < 0.004, 0.8, 0.0)))


def portrait(rng: np.random.Generator, size: int) -> Pixels:
    """Head and shoulders before a wall, in a wooden frame."""
    skin, hair, coat, wall = (rgb(str(rng.choice(codes))) for codes in (_SKINS, _HAIR, _COATS, _WALLS))
    x, y = grid(size, size)
    picture = wall * (0.6 + 0.5 * noise(rng, size, size, 3, 3, 5)[..., None]) * (1.15 - 0.5 * x[..., None])
    wide, tall, tilt = rng.uniform(0.14, 0.18), rng.uniform(0.19, 0.24), rng.uniform(-0.03, 0.03)
    hat, beard = rng.random() < 0.45, rng.random() < 0.4
    long = rng.random() < 0.5

    def oval(cx: float, cy: float, rx: float, ry: float) -> Floats:
        reach = ((x - cx) / rx) ** 2 + ((y - cy) / ry) ** 2
        return np.asarray(np.clip((1 - reach) * 14, 0, 1), np.float32)

    light = (1.12 - 0.55 * np.clip(x - 0.35, 0, 1))[..., None]
    picture = mix(picture, coat * light, oval(0.5, 1.08, 0.42, 0.36))
    picture = mix(
        picture, hair * light * 0.8, oval(0.5 + tilt, 0.46, wide * 1.25, tall * (1.7 if long else 1.1))
    )
    picture = mix(picture, skin * light * 0.85, oval(0.5 + tilt / 2, 0.68, wide * 0.45, 0.14))
    picture = mix(picture, skin * light, oval(0.5 + tilt, 0.47, wide, tall))
    fringe = oval(0.5 + tilt, 0.47 - tall * 0.75, wide * 1.02, tall * 0.5)
    picture = mix(picture, hair * light, fringe)
    if beard:
        picture = mix(
            picture, hair * light * 0.9, oval(0.5 + tilt, 0.47 + tall * 0.75, wide * 0.8, tall * 0.5)
        )
    for side in (-1, 1):
        eye = oval(0.5 + tilt + side * wide * 0.42, 0.45, 0.019, 0.012)
        picture = mix(picture, rgb("201a18"), eye)
        brow = oval(0.5 + tilt + side * wide * 0.42, 0.415, 0.04, 0.008)
        picture = mix(picture, hair * 0.7, brow)
    picture = mix(picture, skin * 0.68, oval(0.5 + tilt + 0.008, 0.5, 0.014, 0.04) * 0.7)
    picture = mix(picture, rgb("8b3f38"), oval(0.5 + tilt, 0.47 + tall * 0.52, 0.045, 0.012))
    if hat:
        band = rgb(str(rng.choice(_COATS)))
        picture = mix(picture, band * light, oval(0.5 + tilt, 0.47 - tall * 0.95, wide * 1.15, tall * 0.42))
        picture = mix(
            picture, band * light * 0.7, oval(0.5 + tilt, 0.47 - tall * 0.68, wide * 1.6, tall * 0.14)
        )
    edge = np.minimum(np.minimum(x, 1 - x), np.minimum(y, 1 - y))
    frame = ramp(noise(rng, size, size, 2, 12, 3), "4d2e17", "8f5c30")
    frame = frame * (0.7 + 6 * edge[..., None])
    return rgba(mix(picture, frame, np.clip((0.075 - edge) * 60, 0, 1)))
