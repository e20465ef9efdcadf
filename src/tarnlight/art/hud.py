"""What lies over the scene: the oil gauge, the compass, the mail badges."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import numpy.typing as npt

from tarnlight.art.paint import Floats, grid, mix, noise, ramp, rgb, rgba, shape

Pixels = npt.NDArray[np.uint8]


def _disc(size: int, radius: float, width: float = 0.0) -> Floats:
    """A filled disc, or a ring of a width, in shares of the size."""

    def draw(pen: Any, s: int) -> None:
        middle, reach = size * s / 2, radius * size * s
        box = [middle - reach, middle - reach, middle + reach, middle + reach]
        if width:
            pen.ellipse(box, outline=255, width=int(width * size * s))  # type: ignore[attr-defined]
        else:
            pen.ellipse(box, fill=255)  # type: ignore[attr-defined]

    return shape(size, size, draw)


def _brass(rng: np.random.Generator, size: int) -> Floats:
    x, y = grid(size, size)
    tone = np.clip(0.95 - np.abs(x + y - 0.7) * 0.9 + 0.12 * noise(rng, size, size, 12, 12, 3), 0, 1)
    return ramp(np.asarray(tone, np.float32), "3a2914", "8f6b2d", "f0d58a")


def gauge_base(rng: np.random.Generator, size: int) -> Pixels:
    """A brass ring around dark glass, with marks from empty to full on its left."""
    x, y = grid(size, size)
    ring = np.maximum(_disc(size, 0.48, 0.075), _disc(size, 0.37, 0.015))
    glass = _disc(size, 0.45)
    depth = np.sqrt((x - 0.5) ** 2 + (y - 0.5) ** 2)
    pane = ramp(np.asarray(np.clip(depth * 2.0, 0, 1), np.float32), "24323a", "182229", "0c1215")
    shine = np.clip(1 - np.sqrt((x - 0.36) ** 2 + (y - 0.3) ** 2) / 0.24, 0, 1) ** 2 * 0.35
    pane = mix(pane, rgb("bcd6dc"), shine)

    def marks(pen: Any, s: int) -> None:
        for step in range(7):
            angle = math.pi * (1.22 - step * 0.44 / 6 * 1.0)
            inner, outer = (0.31 if step % 3 == 0 else 0.335) * size * s, 0.365 * size * s
            cos, sin = math.cos(angle), math.sin(angle)
            middle = size * s / 2
            line = [middle + cos * inner, middle - sin * inner, middle + cos * outer, middle - sin * outer]
            pen.line(line, fill=255, width=max(int(size * s * (0.016 if step % 3 == 0 else 0.009)), 1))  # type: ignore[attr-defined]

    pane = mix(pane, rgb("e8d9b0"), shape(size, size, marks))
    return rgba(mix(pane, _brass(rng, size), ring), np.maximum(glass, ring))


def gauge_level(rng: np.random.Generator, size: int) -> Pixels:
    """The oil behind the glass: what the game shows from the bottom up to the fill."""
    x, y = grid(size, size)
    swirl = noise(rng, size, size, 4, 7, 3)
    colour = ramp(
        np.asarray(np.clip(1.1 - y + 0.25 * (swirl - 0.5), 0, 1), np.float32), "7a2d0b", "d9761c", "ffc861"
    )
    bubbles = np.zeros((size, size), np.float32)
    for _ in range(22):
        cx, cy, radius = rng.uniform(0.28, 0.72), rng.uniform(0.3, 0.85), rng.uniform(0.006, 0.02)
        away = np.sqrt((x - cx) ** 2 + (y - cy) ** 2) / radius
        bubbles = np.maximum(bubbles, np.exp(-((away - 0.8) ** 2) * 14))
    colour = mix(colour, rgb("ffe9b8"), np.asarray(bubbles * 0.7, np.float32))
    return rgba(colour, _disc(size, 0.345) * 0.86)


def gauge_glow(size: int) -> Pixels:
    """Warm light over the gauge, added when the lamp burns."""
    x, y = grid(size, size)
    strength = np.clip(1 - np.sqrt((x - 0.5) ** 2 + (y - 0.56) ** 2) / 0.42, 0, 1) ** 1.8
    return rgba(
        mix(np.broadcast_to(rgb("ff9a3c"), (size, size, 3)), rgb("fff0c0"), strength**2), strength * 0.8
    )


def compass(rng: np.random.Generator, size: int) -> Pixels:
    """A rose of eight points in a brass ring."""
    ring = _disc(size, 0.48, 0.07)
    face = ramp(noise(rng, size, size, 6, 6, 3), "c9b88d", "e9dcb8")

    def rose(turned: float, reach: float, half: bool) -> Floats:
        def draw(pen: Any, s: int) -> None:
            middle = size * s / 2
            for quarter in range(4):
                angle = turned + quarter * math.pi / 2
                tip = (
                    middle + math.sin(angle) * reach * size * s,
                    middle - math.cos(angle) * reach * size * s,
                )
                side = angle + (math.pi / 4 if half else -math.pi / 4)
                hip = (middle + math.sin(side) * 0.09 * size * s, middle - math.cos(side) * 0.09 * size * s)
                pen.polygon([(middle, middle), tip, hip], fill=255)  # type: ignore[attr-defined]

        return shape(size, size, draw)

    for turned, reach in ((math.pi / 4, 0.27), (0.0, 0.39)):
        face = mix(face, rgb("21424a"), rose(turned, reach, True))
        face = mix(face, rgb("8c3b2a"), rose(turned, reach, False))
    face = mix(face, _brass(rng, size), np.maximum(ring, _disc(size, 0.035)))
    return rgba(face, np.maximum(_disc(size, 0.45), ring))


def badge(rng: np.random.Generator, size: int, wax: str) -> Pixels:
    """A letter with a seal; its lower right corner stays clear for the number that the game writes there."""

    def paper(pen: Any, s: int) -> None:
        box = [0.06 * size * s, 0.16 * size * s, 0.82 * size * s, 0.74 * size * s]
        pen.rounded_rectangle(box, radius=0.05 * size * s, fill=255)  # type: ignore[attr-defined]

    def flap(pen: Any, s: int) -> None:
        points = [(0.07, 0.18), (0.44, 0.5), (0.81, 0.18)]
        line = [(px * size * s, py * size * s) for px, py in points]
        pen.line(line, fill=255, width=max(int(0.03 * size * s), 1), joint="curve")  # type: ignore[attr-defined]

    def seal(pen: Any, s: int) -> None:
        box = [0.33 * size * s, 0.4 * size * s, 0.55 * size * s, 0.62 * size * s]
        pen.ellipse(box, fill=255)  # type: ignore[attr-defined]

    mask = shape(size, size, paper)
    colour = ramp(noise(rng, size, size, 5, 5, 3), "d8c79a", "f1e6c6")
    colour = mix(colour, rgb("9a8558"), shape(size, size, flap) * mask)
    colour = mix(colour, rgb(wax), shape(size, size, seal))
    corner = np.ones((size, size), np.float32)
    corner[size * 5 // 8 :, size * 5 // 8 :] = 0
    return rgba(colour, mask * corner)
