"""What the shore is made of: the ferryman on foot, the sailor's mask, dock tiles, icons."""

from __future__ import annotations

import math

import numpy as np

from tarnlight.art.sprites import Cell, Pixels, ferryman_idle, heron_walk, otter_idle, sheet

Rgb = tuple[int, int, int]
UNUSED: Rgb = (0x4A, 0x3F, 0x55)  # what the parts of a sheet are filled with that the game never shows
KEY: Rgb = (0xFF, 0x00, 0xFF)
GUTTER = 2
SIDES = "nesw"
TILE = 32
_SHADES = (85, 170, 255)


def ferryman_walk(frames: int = 5) -> list[Pixels]:
    """The ferryman on foot, facing right, 32 × 48."""
    return [
        _walker(_stride(frame / frames * 2 * math.pi), 0.7 * abs(math.sin(frame / frames * 2 * math.pi)))
        for frame in range(frames)
    ]


def ferryman_jump() -> list[Pixels]:
    """He crouches, and is in the air."""
    return [_walker(((-3.0, 0.0), (3.0, 0.0)), 3.0), _walker(((-4.0, 4.0), (3.5, 5.0)), -1.5)]


def _stride(turn: float) -> tuple[tuple[float, float], tuple[float, float]]:
    """How far to the right and up each foot is at a part of the step."""
    return tuple(  # type: ignore[return-value]
        (5.0 * math.sin(turn + side), max(0.0, math.cos(turn + side)) * 2.5) for side in (math.pi, 0.0)
    )


def _walker(feet: tuple[tuple[float, float], tuple[float, float]], low: float) -> Pixels:
    cell = Cell(32, 48, "171b22")
    for (right, up), tone in zip(feet, ("26313c", "33414f"), strict=True):
        cell.limb(
            tone,
            [(15, 30 + low), (15 + right * 0.5, 37 + low / 2 - up * 0.5), (15 + right, 43.5 - up)],
            5.4,
            4.4,
        )
        cell.blob("1f2730", 16.4 + right, 45.2 - up, 3.2, 1.7)
    swing = feet[0][0] * 0.7
    cell.limb("24507a", [(15, 33 + low), (15, 19 + low)], 10.5, 9.0)
    cell.limb("2f6796", [(17, 32 + low), (17, 20 + low)], 4.2, 3.8)
    cell.limb("c7513a", [(12, 16.5 + low), (18.5, 16.8 + low)], 3.4, 3.4)
    cell.blob("e0ab82", 16.5, 11.0 + low, 4.7, 4.9)
    cell.blob("ddd8c8", 17.8, 14.0 + low, 3.6, 2.6)
    cell.limb("1b2733", [(11.5, 7.7 + low), (21.5, 8.1 + low)], 2.4, 2.0)
    cell.blob("2a3c4d", 16.0, 5.9 + low, 4.8, 2.9)
    cell.dot("171b22", 19, round(10.4 + low))
    cell.limb("2f6796", [(15, 20 + low), (16 + swing * 0.6, 25 + low), (17.5 + swing, 28.5 + low)], 4.6, 3.4)
    cell.blob("e0ab82", 17.8 + swing, 29.5 + low, 1.8, 1.8)
    return cell.pixels()


def with_unused(frames: list[Pixels | None], columns: int) -> Pixels:
    """Frames in rows; where there is none its cell is filled with the tone of what is never shown."""
    first = next(frame for frame in frames if frame is not None)
    tone = np.broadcast_to(np.array([*UNUSED, 255], np.uint8), first.shape)
    return sheet([tone if frame is None else frame for frame in frames], columns)


def ferryman_shore() -> Pixels:
    """His walk, his jump and his rest, a row each."""
    return with_unused(
        [*ferryman_walk(), *ferryman_jump(), None, None, None, *ferryman_idle(3), None, None], 5
    )


def sailor_mask() -> Pixels:
    """A sailor in pure colours on the key colour, with gutters between the cells: the game paints each from a palette."""
    frames = []
    for frame in ferryman_walk(4):
        out = frame.copy()
        colours = frame[..., :3].astype(int)
        light = colours.max(axis=2)
        shade = np.select([light < 60, light < 110], [_SHADES[0], _SHADES[1]], _SHADES[2])
        place = np.where(colours[..., 2] > colours[..., 0] + 20, 2, np.where(light > 190, 1, 0))
        out[..., :3] = 0
        for channel in range(3):
            out[..., channel][place == channel] = shade[place == channel]
        out[frame[..., 3] == 0] = [*KEY, 255]
        frames.append(out)
    height, width = frames[0].shape[:2]
    whole = np.empty((height + 2 * GUTTER, (width + GUTTER) * len(frames) + GUTTER, 4), np.uint8)
    whole[:] = [*KEY, 255]
    for place_x, frame in enumerate(frames):
        left = GUTTER + place_x * (width + GUTTER)
        whole[GUTTER : GUTTER + height, left : left + width] = frame
    return whole


def painted(mask: Pixels, colours: dict[str, str]) -> Pixels:
    """A mask as it is seen: red, green and blue in their colours, the key colour clear."""
    parts = mask[..., :3].astype(np.float32) / 255
    out = np.zeros(mask.shape, np.uint8)
    for channel, name in enumerate(("red", "green", "blue")):
        tone = np.frombuffer(bytes.fromhex(colours[name]), np.uint8)
        out[..., :3] += (parts[..., channel, None] * tone).astype(np.uint8)
    out[..., 3] = np.where((mask[..., :3] == KEY).all(axis=2), 0, mask[..., 3])
    return out


def sides_of(number: int) -> str:
    """The sides at which a dock tile goes on: tile 0 stands alone, tile 15 lies in the middle."""
    return "".join(side for bit, side in enumerate(SIDES) if number & 1 << bit)


def dock_tiles() -> Pixels:
    """16 tiles of a dock in four rows, one for each set of neighbours."""
    return sheet([dock_tile(sides_of(number)) for number in range(16)], 4)


def dock_tile(sides: str, planks: tuple[str, str, str] = ("6b4a2c", "8a6238", "a67a48")) -> Pixels:
    """Planks that go on at some sides, and end in a rim at the others."""
    dark, middle, light = (np.frombuffer(bytes.fromhex(colour), np.uint8) for colour in planks)
    out = np.zeros((TILE, TILE, 4), np.uint8)
    out[..., :3], out[..., 3] = middle, 255
    out[7::8, :, :3] = dark
    out[0::8, :, :3] = light
    for row, x in enumerate((5, 21, 13, 29)):
        out[row * 8 + 1 : row * 8 + 7, x, :3] = dark
    rims = {"n": np.s_[:4, :], "s": np.s_[-6:, :], "w": np.s_[:, :4], "e": np.s_[:, -4:]}
    tones = {"n": "c9a26a", "s": "3c2818", "w": "b08a56", "e": "54391f"}
    for side, part in rims.items():
        if side not in sides:
            out[(*part, slice(0, 3))] = np.frombuffer(bytes.fromhex(tones[side]), np.uint8)
    for vertical, y in (("n", 0), ("s", TILE - 2)):
        for across, x in (("w", 0), ("e", TILE - 2)):
            if vertical not in sides and across not in sides:
                out[y : y + 2, x : x + 2] = 0
    return out


def icons() -> dict[str, Pixels]:
    """A small picture of each character's head."""
    heads = {
        "ferryman": ferryman_idle()[0][2:26, 3:27],
        "otter": otter_idle(_COAT)[0][:24, 8:32],
        "heron": heron_walk()[0][:24, 8:32],
    }
    return {f"icons/{name}.png": np.ascontiguousarray(pixels) for name, pixels in heads.items()}


_COAT = {
    "back": "8a5a34",
    "side": "a87245",
    "belly": "e0c08c",
    "dark": "5b371f",
    "nose": "22160f",
    "line": "2b1a10",
}
