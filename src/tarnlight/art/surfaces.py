"""Textures: wood, rock, water, cloth, sky, lamps."""

from __future__ import annotations

from typing import Any

import numpy as np
import numpy.typing as npt

from tarnlight.art.paint import Floats, blurred, emboss, grid, mix, noise, ramp, rgb, rgba, shape, stretch

Pixels = npt.NDArray[np.uint8]


def planks(
    rng: np.random.Generator, width: int, height: int, rows: int, colours: tuple[str, str, str],
    *, paint: str = "", wear: float = 0.3, nails: bool = True,
) -> Pixels:  # fmt: skip
    """Boards laid lengthwise, with grain, seams, nails and (worn) paint; repeats left to right."""
    _x, _y = grid(width, height)
    colour = np.zeros((height, width, 3), np.float32)
    tall = height // rows
    for row in range(rows):
        top, end = row * tall, height if row == rows - 1 else (row + 1) * tall
        high = end - top
        bend = noise(rng, width, high, 3, 1, 3)
        fine = noise(rng, width, high, 4, max(high // 3, 1), 3)
        rings = (
            np.sin((np.arange(high)[:, None] / high * 5 + bend * 3.2 + rng.random()) * 2 * np.pi) * 0.5 + 0.5
        )
        for _ in range(int(rng.integers(1, 3))):
            cx, cy = rng.integers(0, width), high * rng.uniform(0.3, 0.7)
            dx = (np.arange(width)[None, :] - cx + width // 2) % width - width // 2
            distance = np.sqrt((dx / 2.2) ** 2 + (np.arange(high)[:, None] - cy) ** 2)
            knot = np.exp(-((distance / (high * 0.28)) ** 2))
            rings = rings * (1 - knot) + knot * (np.sin(distance * 1.3) * 0.5 + 0.5) * 0.4
        tone = np.clip(0.25 + 0.42 * rings + 0.45 * (fine - 0.5) + rng.uniform(-0.14, 0.14), 0, 1)
        board = ramp(np.asarray(tone, np.float32), *colours)
        if paint:
            coat = mix(np.broadcast_to(rgb(paint), board.shape).astype(np.float32), board, 0.22)
            coat *= (0.82 + 0.3 * fine + rng.uniform(-0.05, 0.05))[..., None]
            chips = stretch(noise(rng, width, high, 9, 2, 5), 1 - wear * 0.75, 14)
            board = mix(coat, board, chips)
        edge = np.minimum(np.arange(high), np.arange(high)[::-1])[:, None]
        board = board * (0.62 + 0.38 * np.clip(edge / (high * 0.14), 0, 1))[..., None]
        board[: max(1, high // 26)] *= 1.25
        board[-max(2, high // 14) :] *= 0.28
        colour[top:end] = board
        joint = int(rng.integers(0, width))
        for offset in range(max(2, width // 200)):
            colour[top:end, (joint + offset) % width] *= 0.35
        if nails:
            for at in (joint - width // 40, joint + width // 40, (joint + width // 2) % width):
                _nail(colour, at % width, top + high // 2, max(2.0, high / 13))
    return rgba(colour * (0.93 + 0.14 * noise(rng, width, height, 3, 2, 2))[..., None])


def _nail(colour: Floats, cx: int, cy: int, radius: float) -> None:
    height, width = colour.shape[:2]
    reach = int(radius * 2.5) + 1
    for dy in range(-reach, reach + 1):
        for dx in range(-reach, reach + 1):
            distance = (dx * dx + dy * dy) ** 0.5
            pixel = colour[(cy + dy) % height, (cx + dx) % width]
            if distance <= radius:
                light = 0.5 - (dx + dy) / (4 * radius)
                pixel[:] = rgb("2a2623") * (0.6 + 0.9 * light)
            elif distance <= radius * 2.2:
                pixel *= 0.75 + 0.25 * (distance - radius) / (radius * 1.2)


def rock(rng: np.random.Generator, size: int, colours: tuple[str, ...], moss: float = 0.0) -> Pixels:
    """Granite with cracks, and moss in its hollows; repeats both ways."""
    lumps = noise(rng, size, size, 4, 4, 6)
    cracks = 1 - stretch(np.abs(noise(rng, size, size, 3, 3, 5) - 0.5), 0.035, 22)
    speck = noise(rng, size, size, size // 4, size // 4, 2)
    colour = ramp(np.clip(lumps * 0.75 + speck * 0.3 - 0.05, 0, 1), *colours)
    colour += emboss(lumps, 2.6)[..., None]
    colour *= (1 - 0.55 * cracks)[..., None]
    if moss:
        green = ramp(noise(rng, size, size, 16, 16, 4), "2c3d20", "557034", "87a04a")
        colour = mix(colour, green, stretch(noise(rng, size, size, 4, 4, 5), 1 - moss, 9))
    return rgba(colour)


def water(rng: np.random.Generator, size: int, colours: tuple[str, ...], glint: str) -> Pixels:
    """Waves seen from above, with glints along their crests; repeats both ways."""
    x, y = grid(size, size)
    bend = noise(rng, size, size, 3, 3, 3)
    waves = np.zeros((size, size), np.float32)
    for count, amount, weight in ((5, 1.5, 0.5), (9, 1.1, 0.3), (17, 0.8, 0.2)):
        phase = (
            y * count
            + (bend - 0.5) * amount * 2
            + np.sin((x * (count // 4 + 1) + rng.random()) * 2 * np.pi) * 0.22
        )
        waves += weight * (1 - np.abs(np.sin(phase * np.pi)))
    waves = np.asarray(waves, np.float32) ** 1.25
    colour = ramp(np.clip(waves * 1.25, 0, 1), *colours)
    sparkle = stretch(waves, 0.72, 9) * stretch(noise(rng, size, size, 9, 14, 3), 0.62, 8)
    return rgba(mix(colour, np.broadcast_to(rgb(glint), colour.shape), sparkle * 0.8))


def wave_normals(rng: np.random.Generator, size: int) -> Pixels:
    """Which way small waves face: x in red and y in green, repeating; blue is left out."""
    height = noise(rng, size, size, 5, 9, 5)
    dx = np.roll(height, -1, 1) - np.roll(height, 1, 1)
    dy = np.roll(height, -1, 0) - np.roll(height, 1, 0)
    x, y, z = -dx * 9, -dy * 9, np.ones_like(dx)
    length = np.sqrt(x * x + y * y + z * z)
    directions = np.stack([x / length, y / length, np.full_like(x, -1)], -1)
    return rgba(np.asarray(directions * 0.5 + 0.5, np.float32))


def ripples(rng: np.random.Generator, size: int, tint: str) -> Pixels:
    """Thin crests with soft alpha, to be laid over water; repeats both ways."""
    picture = water(rng, size, ("000000", "808080", "ffffff"), "ffffff").astype(np.float32) / 255
    alpha = stretch(picture[..., 0], 0.7, 3.2) * 0.7
    return rgba(np.broadcast_to(rgb(tint), (size, size, 3)).astype(np.float32), alpha)


def cloth(
    rng: np.random.Generator, width: int, height: int, base: str, emblem: Floats | None, ink: str
) -> Pixels:
    """A sail: weave, seams between its panels, folds that fall from its corners, and an emblem."""
    x, y = grid(width, height)
    folds = noise(rng, width, height, 5, 1, 3)
    hang = 0.5 + 0.5 * np.sin((x * 3.1 + folds * 0.9 - y * 0.35) * 2 * np.pi)
    weave = ((np.indices((height, width)).sum(0) & 1) * 0.035).astype(np.float32)
    colour = np.broadcast_to(rgb(base), (height, width, 3)).astype(np.float32)
    if emblem is not None:
        colour = mix(colour, np.broadcast_to(rgb(ink), colour.shape), emblem * 0.92)
    light = 0.70 + 0.3 * hang + 0.16 * (noise(rng, width, height, 3, 3, 5) - 0.5) - weave
    seams = np.abs(((x * 4 + 0.03 * np.sin(y * 6)) % 1) - 0.5) > 0.488
    stains = stretch(noise(rng, width, height, 4, 4, 5), 0.78, 4) * (0.25 + 0.5 * y)
    colour = colour * (light * (1 - 0.25 * seams))[..., None]
    colour = mix(colour, np.broadcast_to(rgb("6b5b45"), colour.shape), stains * 0.32)
    hem = np.minimum(np.minimum(x, 1 - x) * width, np.minimum(y, 1 - y) * height)
    return rgba(colour * np.where(hem < 6, 0.72, 1.0)[..., None])


def heron(width: int, height: int) -> Floats:
    """The heron emblem as a mask."""

    def draw(pen: Any, s: int) -> None:
        def at(*points: tuple[float, float]) -> list[tuple[float, float]]:
            return [(px * width * s, py * height * s) for px, py in points]

        fill = {"fill": 255}
        pen.polygon(
            at(
                (0.30, 0.62),
                (0.40, 0.47),
                (0.54, 0.38),
                (0.60, 0.28),
                (0.57, 0.20),
                (0.62, 0.145),
                (0.69, 0.14),
                (0.73, 0.165),
                (0.92, 0.20),
                (0.73, 0.215),
                (0.67, 0.24),
                (0.69, 0.32),
                (0.66, 0.44),
                (0.60, 0.54),
                (0.50, 0.60),
                (0.40, 0.62),
            ),
            **fill,
        )  # type: ignore[attr-defined]
        pen.polygon(at((0.62, 0.15), (0.50, 0.10), (0.44, 0.115), (0.58, 0.19)), **fill)  # type: ignore[attr-defined]
        pen.polygon(at((0.36, 0.56), (0.16, 0.72), (0.24, 0.70), (0.22, 0.75), (0.44, 0.61)), **fill)  # type: ignore[attr-defined]
        for left in (0.47, 0.53):
            pen.polygon(
                at(
                    (left, 0.58),
                    (left + 0.02, 0.58),
                    (left + 0.015, 0.74),
                    (left + 0.03, 0.90),
                    (left + 0.005, 0.90),
                    (left - 0.005, 0.74),
                ),
                **fill,
            )  # type: ignore[attr-defined]
            pen.polygon(
                at((left, 0.885), (left + 0.085, 0.915), (left + 0.08, 0.925), (left - 0.02, 0.915)), **fill
            )  # type: ignore[attr-defined]

    return stretch(blurred(shape(width, height, draw), width / 70), 0.45, 7)


def fish(width: int, height: int) -> Floats:
    """The herring emblem as a mask: three fish, one above the other."""

    def draw(pen: Any, s: int) -> None:
        for middle, flip in ((0.3, 1), (0.52, -1), (0.74, 1)):

            def at(px: float, py: float, flip: int = flip, middle: float = middle) -> tuple[float, float]:
                return ((0.5 + flip * (px - 0.5)) * width * s, (middle + py) * height * s)

            body = [at(0.2 + 0.5 * t, 0.075 * np.sin(t * np.pi) ** 0.8) for t in np.linspace(0, 1, 24)]
            body += [at(0.2 + 0.5 * t, -0.075 * np.sin(t * np.pi) ** 0.8) for t in np.linspace(1, 0, 24)]
            pen.polygon(body, fill=255)  # type: ignore[attr-defined]
            pen.polygon([at(0.67, 0), at(0.82, -0.08), at(0.77, 0), at(0.82, 0.08)], fill=255)  # type: ignore[attr-defined]
            eye = at(0.28, -0.012)
            pen.ellipse([eye[0] - 2 * s, eye[1] - 2 * s, eye[0] + 2 * s, eye[1] + 2 * s], fill=0)  # type: ignore[attr-defined]

    return shape(width, height, draw)


def sky(rng: np.random.Generator, width: int, height: int) -> Pixels:
    """Dusk over the mountains, with first stars and a haze of cloud; repeats left to right."""
    _x, y = grid(width, height)
    colour = ramp(y**1.25, "0d1a2b", "17304a", "2f5068", "7f7f86", "d79a6a")
    clouds = stretch(noise(rng, width, height, 3, 6, 6), 0.58, 2.4) * np.clip(y * 1.8, 0, 1)
    colour = mix(colour, ramp(y, "22384f", "5b6c7e", "f0b482"), clouds * 0.65)
    stars = (rng.random((height, width)) > 0.9993) * (1 - y) ** 2 * rng.random((height, width))
    glow = blurred(np.asarray(stars, np.float32), 0.7) * 3 + stars
    return rgba(colour + np.asarray(glow, np.float32)[..., None] * rgb("dfe9ff"))


def hills(rng: np.random.Generator, width: int, height: int, near: str, far: str) -> Pixels:
    """Two ridges with firs along the nearer, alpha above; repeats left to right."""
    _x, y = grid(width, height)
    line = noise(rng, width, 32, 4, 1, 5)[16] * 0.62
    back = noise(rng, width, 32, 3, 1, 5)[7] * 0.55
    firs = np.zeros(width, np.float32)
    for at in rng.integers(0, width, width // 7):
        tall = rng.uniform(0.03, 0.10)
        for offset in range(-5, 6):
            firs[(at + offset) % width] = max(firs[(at + offset) % width], tall * (1 - abs(offset) / 5.5))
    ridge = 1 - (0.12 + line * 0.55) - firs
    rear = 1 - (0.34 + back)
    soft = 1.2 / height
    front = np.clip((y - ridge[None]) / soft, 0, 1)
    behind = np.clip((y - rear[None]) / soft, 0, 1)
    rocky = noise(rng, width, height, 16, 6, 4)
    face = mix(
        np.broadcast_to(rgb(far), (height, width, 3)), rgb("9fb0b6"), stretch(rocky, 0.7, 5) * (1 - y) * 0.6
    )
    mist = np.clip((y - 0.55) * 1.6, 0, 0.7)
    colour = mix(face * (0.8 + 0.35 * rocky)[..., None], rgb("6f8088"), mist)
    colour = mix(colour, rgb(near) * (0.75 + 0.4 * rocky)[..., None], front)
    return rgba(colour, np.maximum(front, behind))


def lantern(rng: np.random.Generator, width: int, height: int) -> Pixels:
    """A ship's lantern of brass and glass, lit, with alpha around it."""
    x, y = grid(width, height)

    def box(left: float, top: float, right: float, bottom: float) -> Floats:
        return shape(width, height, lambda pen, s: pen.rounded_rectangle(
            [left * width * s, top * height * s, right * width * s, bottom * height * s], radius=4 * s, fill=255))  # fmt: skip

    def poly(*points: tuple[float, float]) -> Floats:
        return shape(
            width,
            height,
            lambda pen, s: pen.polygon([(px * width * s, py * height * s) for px, py in points], fill=255),
        )

    ring = shape(width, height, lambda pen, s: pen.ellipse(
        [0.38 * width * s, 0.02 * height * s, 0.62 * width * s, 0.16 * height * s], outline=255, width=5 * s))  # fmt: skip
    roof = np.maximum(poly((0.5, 0.13), (0.84, 0.32), (0.16, 0.32)), box(0.36, 0.12, 0.64, 0.2))
    base = np.maximum(box(0.18, 0.80, 0.82, 0.88), box(0.12, 0.87, 0.88, 0.95))
    glass = box(0.24, 0.32, 0.76, 0.81)
    bars = np.maximum.reduce(
        [box(0.22, 0.32, 0.27, 0.81), box(0.48, 0.32, 0.52, 0.81), box(0.73, 0.32, 0.78, 0.81)]
    )
    flame = np.exp(-(((x - 0.5) / 0.13) ** 2 + ((y - 0.62) / 0.14) ** 2))
    metal = np.maximum.reduce([ring, roof, base, bars])
    brass = ramp(
        np.clip(1.1 - np.abs(x - 0.38) * 2.4 + 0.1 * noise(rng, width, height, 6, 12, 3), 0, 1),
        "3a2a14",
        "8d6a2c",
        "e6c877",
    )
    light = mix(np.broadcast_to(rgb("e58a2e"), (height, width, 3)), rgb("fff3c4"), np.clip(flame * 1.5, 0, 1))
    colour = mix(light, brass, metal)
    return rgba(colour, np.maximum(glass * 0.88, metal))


def glow(size: int, tint: str) -> Pixels:
    """Round light with a soft edge, added over what it falls on."""
    x, y = grid(size, size)
    distance = np.sqrt((x - 0.5) ** 2 + (y - 0.5) ** 2) * 2
    strength = np.clip(1 - distance, 0, 1) ** 2.2
    return rgba(mix(np.broadcast_to(rgb(tint), (size, size, 3)), rgb("fff6d8"), strength**2), strength)


def pine(rng: np.random.Generator, width: int, height: int) -> Pixels:
    """A fir by night: layered boughs, cut-out alpha."""
    x, y = grid(width, height)
    mask = np.zeros((height, width), np.float32)
    light = np.zeros((height, width), np.float32)
    for layer in range(11):
        top, reach = 0.02 + layer * 0.078, 0.08 + layer * 0.036
        ragged = noise(rng, width, 16, 24, 1, 3)[8] * 0.05
        inside = (
            (y > top)
            & (y < top + 0.16 - ragged[None])
            & (np.abs(x - 0.5) < reach * np.clip((y - top) / 0.13, 0, 1))
        )
        mask = np.maximum(mask, inside)
        light = np.where(inside, np.clip((y - top) / 0.16, 0, 1) * 0.6 + 0.4 * (x < 0.5), light)
    trunk = (np.abs(x - 0.5) < 0.03) & (y > 0.86)
    needles = noise(rng, width, height, 32, 48, 3)
    colour = ramp(np.asarray(light * 0.6 + needles * 0.45, np.float32), "0f1f1c", "1d3a30", "3f6149")
    colour = mix(colour, rgb("33251a"), np.asarray(trunk & (mask == 0), np.float32))
    return rgba(colour, np.asarray(((mask > 0) & (needles > 0.16)) | trunk, np.float32))


def moon(size: int) -> Pixels:
    """The moon, nearly full, with its halo."""
    x, y = grid(size, size)
    distance = np.sqrt((x - 0.5) ** 2 + (y - 0.5) ** 2) * 2
    disc = np.clip((0.42 - distance) * size / 3, 0, 1)
    seas = noise(np.random.default_rng(9), size, size, 3, 3, 4)
    face = mix(np.broadcast_to(rgb("f4efdc"), (size, size, 3)), rgb("bdb8a4"), stretch(seas, 0.6, 4) * 0.8)
    halo = np.clip(1 - distance, 0, 1) ** 2.5 * 0.55
    return rgba(mix(np.broadcast_to(rgb("cfd8e6"), (size, size, 3)), face, disc), np.maximum(disc, halo))


def crate(rng: np.random.Generator, size: int, stamp: Floats | None) -> Pixels:
    """A mail crate's side: boards, a frame, a stamp."""
    boards = planks(rng, size, size, 5, ("4a3018", "8a6234", "c09a5c")).astype(np.float32)[..., :3] / 255
    frame = (
        planks(rng, size, size, 8, ("3b2713", "6d4a26", "a07a45"), nails=False).astype(np.float32)[..., :3]
        / 255
    )
    x, y = grid(size, size)
    inset = np.minimum(np.minimum(x, 1 - x), np.minimum(y, 1 - y))
    edge = inset < 0.11
    colour = np.where(
        edge[..., None],
        np.where((np.minimum(x, 1 - x) < 0.11)[..., None], frame.transpose(1, 0, 2), frame),
        boards,
    )
    colour = colour * np.where((inset > 0.105) & (inset < 0.14), 0.55, 1.0)[..., None]
    if stamp is not None:
        colour = mix(
            np.asarray(colour, np.float32), rgb("1c1712"), stamp * 0.75 * noise(rng, size, size, 20, 20, 3)
        )
    for cx, cy in ((0.055, 0.055), (0.945, 0.055), (0.055, 0.945), (0.945, 0.945)):
        _nail(np.asarray(colour), int(cx * size), int(cy * size), size / 50)
    return rgba(np.asarray(colour, np.float32))
