"""What a modder found elsewhere: a walker on a pink ground with writing beside it, ground tiles of 16 pixels."""

from __future__ import annotations

import math
from pathlib import Path

import numpy as np
from PIL import Image, ImageDraw

from tarnlight.art.sprites import Cell, Pixels

PINK = (255, 150, 200)
_HIGH = 23


def make_strangers(folder: Path) -> None:
    """The files."""
    folder.mkdir(parents=True, exist_ok=True)
    stranger_sheet().save(folder / "stranger_walker.png")
    Image.fromarray(stranger_tiles()).save(folder / "stranger_tiles.png")


def stranger_sheet() -> Image.Image:
    """Three steps, a jump and a rest, a row each, facing left, none like the other in size."""
    image = Image.new("RGB", (132, 104), PINK)
    draw = ImageDraw.Draw(image)
    for row, (word, figures) in enumerate(
        (("walk", [_walker(turn) for turn in (0.3, 2.1, 4.3)]), ("jump", [_walker(1.6, 2), _walker(1.2, 5)]),
         ("rest", [_walker(0.0)]))
    ):  # fmt: skip
        draw.text((3, 8 + row * 33), word, (120, 60, 90), font_size=9)
        for place, figure in enumerate(figures):
            picture = Image.fromarray(figure)
            box = picture.getbbox()
            assert box is not None
            part = picture.crop(box)
            image.paste(part, (34 + place * 31 + row, 31 + row * 33 - part.height), part)
    return image


def _walker(turn: float, up: int = 0) -> Pixels:
    """A woman in a green coat with a basket, 22 × 24."""
    cell = Cell(22, 24, "20301c")
    for side, tone in ((math.pi, "4a3422"), (0.0, "6a4a30")):
        swing, lift = 3.0 * math.sin(turn + side), max(0.0, math.cos(turn + side)) * 1.2 + (1.5 if up else 0)
        cell.limb(tone, [(11, 15), (11 + swing * 0.5, 18 - lift * 0.5), (11 + swing, 21 - lift)], 2.8, 2.2)
    cell.limb("2f7a46", [(11, 16.5), (11, 9.5)], 6.2, 5.0)
    cell.limb("49a062", [(9.6, 15), (9.8, 10)], 2.2, 2.0)
    cell.blob("e8b890", 10.4, 5.4, 2.7, 2.8)
    cell.limb("b0342c", [(8.4, 3.6), (13.2, 4.2), (13.6, 7.4)], 2.6, 1.8)
    cell.dot("20301c", 8, 5)
    arm, low = 1.6 * math.sin(turn), 14 - up * 0.6
    cell.limb("49a062", [(11, 10), (9.6 + arm, 12.6), (7.6 + arm, low - 0.4)], 2.2, 1.8)
    cell.poly(
        "c99a3c",
        [
            (5 + arm, 14 - up * 0.6),
            (8.6 + arm, 14 - up * 0.6),
            (8 + arm, 17 - up * 0.6),
            (5.6 + arm, 17 - up * 0.6),
        ],
    )
    return cell.pixels()


def stranger_tiles() -> Pixels:
    """Grass in three by three tiles of 16 pixels: corners, edges and a middle."""
    rng = np.random.default_rng(5)
    side = 48
    out = np.zeros((side, side, 4), np.uint8)
    blades = rng.integers(0, 3, (16, 16))
    tones = np.array([(74, 124, 60), (92, 146, 70), (60, 104, 52)], np.uint8)
    out[..., :3], out[..., 3] = np.tile(tones[blades], (3, 3, 1)), 255
    rim, earth = (150, 190, 90), (96, 70, 46)
    out[:3, :, :3] = rim
    out[-5:, :, :3] = earth
    out[:, :2, :3], out[:, -2:, :3] = rim, (70, 52, 36)
    for y in (0, side - 1):
        for x in (0, side - 1):
            out[y, x] = 0
    return out
