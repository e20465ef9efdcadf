"""Pixel art: animals and the ferryman, drawn as shapes at eight times the size and set in few colours."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt
from PIL import Image, ImageDraw

Pixels = npt.NDArray[np.uint8]
Points = list[tuple[float, float]]
_SCALE = 8


class Cell:
    """One frame: shapes in pixel units, later painted over earlier, then an outline around all."""

    def __init__(self, width: int, height: int, outline: str) -> None:
        self.width, self.height, self.outline = width, height, outline
        self._layers: list[tuple[npt.NDArray[np.bool_], str]] = []

    def _add(self, colour: str, draw: object) -> None:
        image = Image.new("L", (self.width * _SCALE, self.height * _SCALE))
        draw(ImageDraw.Draw(image))  # type: ignore[operator]
        part = np.asarray(image.resize((self.width, self.height), Image.Resampling.BOX))
        self._layers.append((part > 118, colour))

    def blob(self, colour: str, x: float, y: float, rx: float, ry: float, turn: float = 0.0) -> None:
        """An ellipse around (x, y), turned by degrees."""
        angle = math.radians(turn)
        points = [
            (x + rx * math.cos(t) * math.cos(angle) - ry * math.sin(t) * math.sin(angle),
             y + rx * math.cos(t) * math.sin(angle) + ry * math.sin(t) * math.cos(angle))
            for t in np.linspace(0, 2 * math.pi, 40)
        ]  # fmt: skip
        self.poly(colour, points)

    def poly(self, colour: str, points: Points) -> None:
        """A filled polygon."""
        self._add(
            colour, lambda pen: pen.polygon([(px * _SCALE, py * _SCALE) for px, py in points], fill=255)
        )

    def limb(self, colour: str, points: Points, start: float, end: float) -> None:
        """A bent stroke whose thickness goes from `start` to `end` pixels."""

        def draw(pen: ImageDraw.ImageDraw) -> None:
            spans = len(points) - 1
            for step in range(spans * 12 + 1):
                t = step / (spans * 12) * spans
                i = min(int(t), spans - 1)
                f = t - i
                px = points[i][0] * (1 - f) + points[i + 1][0] * f
                py = points[i][1] * (1 - f) + points[i + 1][1] * f
                r = (start + (end - start) * t / spans) / 2
                pen.ellipse(
                    [(px - r) * _SCALE, (py - r) * _SCALE, (px + r) * _SCALE, (py + r) * _SCALE], fill=255
                )

        self._add(colour, draw)

    def dot(self, colour: str, x: int, y: int) -> None:
        """One pixel."""
        mask = np.zeros((self.height, self.width), np.bool_)
        if 0 <= x < self.width and 0 <= y < self.height:
            mask[y, x] = True
        self._layers.append((mask, colour))

    def pixels(self) -> Pixels:
        """The frame as (height, width, 4)."""
        out = np.zeros((self.height, self.width, 4), np.uint8)
        for mask, colour in self._layers:
            out[mask] = [*bytes.fromhex(colour), 255]
        solid = np.pad(out[..., 3] > 0, 1)
        around = solid[:-2, 1:-1] | solid[2:, 1:-1] | solid[1:-1, :-2] | solid[1:-1, 2:]
        out[around & (out[..., 3] == 0)] = [*bytes.fromhex(self.outline), 255]
        return out


OTTER = {
    "back": "8a5a34",
    "side": "a87245",
    "belly": "e0c08c",
    "dark": "5b371f",
    "nose": "22160f",
    "line": "2b1a10",
}
GREY_OTTER = {
    "back": "5d6b78",
    "side": "7d8d99",
    "belly": "cfd8da",
    "dark": "3b4650",
    "nose": "14181c",
    "line": "1c2329",
}


def otter_walk(coat: dict[str, str], frames: int = 6) -> list[Pixels]:
    """An otter on its way, 40 × 24."""
    out = []
    for frame in range(frames):
        t = frame / frames * 2 * math.pi
        cell = Cell(40, 24, coat["line"])
        bob = 0.7 * math.sin(2 * t)
        arch = 1.3 * math.sin(t)
        sway = 1.4 * math.sin(t + 1.0)
        cell.limb(coat["back"], [(12, 14 + bob), (6.5, 15.5 + sway * 0.5), (1.8, 15 - sway)], 5.5, 1.6)
        for hip, phase, tone in (
            (13.5, math.pi, "dark"),
            (26.5, 0.0, "dark"),
            (15.5, 0.0, "side"),
            (28.0, math.pi, "side"),
        ):
            swing = 2.7 * math.sin(t + phase)
            lift = max(0.0, math.cos(t + phase)) * 1.4
            cell.limb(
                coat[tone],
                [(hip, 15.5 + bob), (hip + swing * 0.6, 18.5), (hip + swing, 21.3 - lift)],
                4.2,
                2.4,
            )
            cell.blob(coat[tone], hip + swing + 0.8, 21.6 - lift, 1.9, 1.0)
        cell.blob(coat["back"], 20.5, 13.0 + bob - arch * 0.4, 10.5, 5.0 + arch * 0.25)
        cell.blob(coat["side"], 20.5, 14.2 + bob, 9.6, 3.7)
        cell.blob(coat["belly"], 22.0, 16.2 + bob, 7.6, 1.7)
        cell.limb(coat["back"], [(27, 12 + bob), (31.5, 9.3 + bob)], 7.5, 6.5)
        cell.limb(coat["belly"], [(29, 14.2 + bob), (33, 11.6 + bob)], 3.4, 3.2)
        cell.blob(coat["back"], 33.0, 8.0 + bob, 4.6, 3.9)
        cell.blob(coat["belly"], 35.4, 9.8 + bob, 2.9, 2.2)
        cell.blob(coat["dark"], 30.4, 5.2 + bob, 1.25, 1.25)
        cell.dot(coat["nose"], 38, round(8.6 + bob))
        cell.dot(coat["nose"], 37, round(8.2 + bob))
        cell.dot(coat["nose"], 34, round(7.0 + bob))
        out.append(cell.pixels())
    return out


def otter_idle(coat: dict[str, str], frames: int = 4) -> list[Pixels]:
    """An otter that sits up and looks about, 40 × 24."""
    out = []
    for frame in range(frames):
        t = frame / frames * 2 * math.pi
        breath = 0.4 * math.sin(t)
        look = 1.2 * math.sin(t)
        cell = Cell(40, 24, coat["line"])
        cell.limb(coat["back"], [(17, 20), (10, 21.5), (4, 19.5 - look)], 5.0, 1.6)
        cell.blob(coat["back"], 19.5, 15.5, 5.4 + breath * 0.5, 6.8)
        cell.blob(coat["belly"], 21.3, 15.2, 3.2, 5.6)
        cell.blob(coat["dark"], 18.0, 21.2, 4.2, 1.7)
        cell.blob(coat["dark"], 23.5, 21.5, 2.6, 1.3)
        cell.limb(coat["side"], [(20, 12.5), (23.5, 15.0 - look * 0.3)], 3.0, 2.2)
        cell.blob(coat["back"], 21.5 + look * 0.5, 6.6 + breath, 4.7, 4.1)
        cell.blob(coat["belly"], 24.0 + look * 0.6, 8.4 + breath, 2.8, 2.2)
        cell.blob(coat["dark"], 18.6 + look * 0.4, 3.7 + breath, 1.25, 1.25)
        cell.dot(coat["nose"], round(26.4 + look * 0.6), round(7.1 + breath))
        cell.dot(coat["nose"], round(22.6 + look * 0.6), round(5.5 + breath))
        out.append(cell.pixels())
    return out


def otter_dive(coat: dict[str, str], frames: int = 6) -> list[Pixels]:
    """An otter that leaves the water and goes under again, 40 × 24."""
    out = []
    for frame in range(frames):
        t = frame / (frames - 1)
        turn = -48 + 100 * t
        cx, cy = 12 + 16 * t, 17 - 11 * math.sin(t * math.pi)
        angle = math.radians(turn)

        def at(
            along: float, aside: float, cx: float = cx, cy: float = cy, angle: float = angle
        ) -> tuple[float, float]:
            return (
                cx + along * math.cos(angle) - aside * math.sin(angle),
                cy + along * math.sin(angle) + aside * math.cos(angle),
            )

        cell = Cell(40, 24, coat["line"])
        cell.limb(coat["back"], [at(-6, 0), at(-11, 1), at(-15, -0.5)], 5.0, 1.4)
        cell.blob(coat["back"], *at(0, 0), 8.2, 3.7, turn)
        cell.blob(coat["belly"], *at(1, 1.8), 6.2, 1.4, turn)
        cell.limb(coat["side"], [at(4, 2.5), at(7, 4.8)], 2.6, 1.8)
        cell.blob(coat["back"], *at(9, -0.6), 4.0, 3.2, turn)
        cell.blob(coat["belly"], *at(11, 0.7), 2.2, 1.6, turn)
        nose = at(13, -0.4)
        cell.dot(coat["nose"], round(nose[0]), round(nose[1]))
        eye = at(10, -1.6)
        cell.dot(coat["nose"], round(eye[0]), round(eye[1]))
        pixels = cell.pixels()
        pixels[21:] = 0
        for x in range(40):
            if math.sin(x * 1.7 + frame) + math.sin(x * 0.6) > 0.4 and abs(x - (10 if t < 0.5 else 30)) < 9:
                pixels[20 + (x + frame) % 2, x] = [190, 224, 226, 255]
        out.append(pixels)
    return out


def gull(frames: int = 6) -> list[Pixels]:
    """A gull on the wing, 32 × 24."""
    out = []
    for frame in range(frames):
        flap = math.sin(frame / frames * 2 * math.pi)
        cell = Cell(32, 24, "2a333b")
        wing_y = 12 - 7.5 * flap
        cell.limb("9fb0bb", [(15, 12), (11, 12 - 4.5 * flap), (6, wing_y)], 3.6, 1.4)
        cell.poly("f4f1e6", [(6, 13), (2.5, 12), (2.5, 15), (8, 14.5)])
        cell.blob("f4f1e6", 14.5, 13.2, 8.0, 2.7, -5)
        cell.blob("f4f1e6", 22.6, 11.4, 3.1, 2.7)
        cell.limb("c4d0d6", [(16, 12.2), (14, 12 - 5.5 * flap), (10, wing_y - 1.5 * flap)], 4.2, 2.0)
        cell.blob("3a444c", 9.5, wing_y - 1.6 * flap, 1.6, 1.1)
        cell.poly("e8a437", [(25.3, 10.6), (29.2, 12.0), (25.3, 12.9)])
        cell.dot("1b1f23", 23, 10)
        out.append(cell.pixels())
    return out


def heron_walk(frames: int = 6) -> list[Pixels]:
    """A heron that wades, 32 × 48."""
    out = []
    for frame in range(frames):
        t = frame / frames * 2 * math.pi
        nod = 1.2 * math.sin(t)
        cell = Cell(32, 48, "1f2b36")
        for phase in (math.pi, 0.0):
            swing, lift = 3.2 * math.sin(t + phase), max(0.0, math.cos(t + phase)) * 3
            cell.limb(
                "d8a94e", [(14, 29), (14 + swing * 0.4 + 1.2, 36 - lift), (14 + swing, 44.5 - lift)], 1.7, 1.4
            )
            cell.limb("d8a94e", [(14 + swing, 45 - lift), (17.5 + swing, 45.2 - lift)], 1.2, 1.1)
        cell.poly("55697c", [(17, 19), (10, 21.5), (2.5, 31), (8, 30.5), (16, 30)])
        cell.blob("6f8699", 13.5, 24.6, 6.6, 4.8, -28)
        cell.blob("8ea3b3", 12.4, 23.6, 4.8, 3.0, -30)
        cell.limb("cbd6da", [(17, 22), (19.5, 16.5), (16.6 + nod * 0.4, 11.5), (19.5 + nod, 7.2)], 4.4, 2.8)
        cell.blob("e4eaea", 20.5 + nod, 6.6, 3.0, 2.3)
        cell.limb("27333e", [(19.5 + nod, 5.3), (13.5 + nod, 5.0)], 1.8, 1.0)
        cell.poly("e2b04a", [(22.8 + nod, 5.5), (30.5 + nod, 7.4), (22.8 + nod, 8.2)])
        cell.dot("161c22", round(21.2 + nod), 6)
        out.append(cell.pixels())
    return out


def ferryman_row(frames: int = 8) -> list[Pixels]:
    """The ferryman at his oars, from the side, 48 × 48."""
    out = []
    for frame in range(frames):
        t = frame / frames * 2 * math.pi
        lean = 3.6 * math.sin(t)
        cell = Cell(48, 48, "171b22")
        grip = (31 + 4.5 * math.sin(t), 27 + 2.2 * math.cos(t))
        cell.limb("33414f", [(19, 39), (28, 37.5), (31, 44)], 7.0, 4.6)
        cell.blob("1f2730", 33, 45, 4.0, 2.0)
        shoulder = (20.5 + lean, 22.0)
        cell.limb("24507a", [(18.5, 39.5), (19.5 + lean * 0.5, 31), (20.5 + lean, 23)], 11.0, 9.5)
        cell.limb("2f6796", [(20.5, 38.0), (21.5 + lean * 0.5, 31), (22 + lean, 24)], 5.0, 4.5)
        cell.limb("c7513a", [(17.5 + lean, 19.5), (24.5 + lean, 19.8)], 3.4, 3.4)
        cell.limb("c7513a", [(17.5 + lean, 20), (14.5 + lean * 0.6, 25 + math.cos(t))], 2.8, 2.0)
        cell.blob("e0ab82", 22.5 + lean, 13.8, 4.8, 5.0)
        cell.blob("ddd8c8", 23.6 + lean, 17.0, 3.6, 2.7)
        cell.limb("1b2733", [(17.5 + lean, 10.5), (27.5 + lean, 10.9)], 2.4, 2.0)
        cell.blob("2a3c4d", 22.0 + lean, 8.6, 4.8, 2.9)
        cell.dot("171b22", round(25 + lean), 13)
        cell.limb(
            "8a5f33",
            [(grip[0] - 1.5, grip[1]), (40, 31.5 - 3.5 * math.cos(t)), (47, 36 - 6 * math.cos(t))],
            2.0,
            2.0,
        )
        cell.limb("2f6796", [shoulder, (26 + lean * 0.7, 27.5), grip], 5.0, 3.6)
        cell.blob("e0ab82", grip[0], grip[1], 2.0, 1.9)
        out.append(cell.pixels())
    return out


def ferryman_idle(frames: int = 4) -> list[Pixels]:
    """The ferryman on the jetty with his lantern, 32 × 48."""
    out = []
    for frame in range(frames):
        t = frame / frames * 2 * math.pi
        breath, swing = 0.5 * math.sin(t), 1.2 * math.sin(t)
        cell = Cell(32, 48, "171b22")
        for foot in (11.5, 17.5):
            cell.limb("33414f", [(14.5, 31), (foot, 44)], 5.6, 4.6)
            cell.blob("1f2730", foot + 1.0, 45.2, 3.2, 1.7)
        cell.limb("24507a", [(14.5, 34), (14.5, 19 + breath)], 11.0, 9.5)
        cell.limb("2f6796", [(16.5, 33), (16.5, 20 + breath)], 4.4, 4.0)
        cell.limb("c7513a", [(11.5, 16.5 + breath), (18.5, 16.8 + breath)], 3.4, 3.4)
        cell.blob("e0ab82", 16.0, 11.0 + breath, 4.7, 4.9)
        cell.blob("ddd8c8", 17.2, 14.0 + breath, 3.6, 2.6)
        cell.limb("1b2733", [(11, 7.7 + breath), (21, 8.1 + breath)], 2.4, 2.0)
        cell.blob("2a3c4d", 15.5, 5.9 + breath, 4.8, 2.9)
        cell.dot("171b22", 18, round(10.4 + breath))
        cell.limb("2f6796", [(14, 20 + breath), (20, 24.5), (25, 23 + breath)], 5.0, 3.6)
        cell.blob("e0ab82", 25.2, 23 + breath, 1.8, 1.8)
        cell.limb("6d5a2b", [(25.5, 24), (26 + swing * 0.4, 27)], 1.0, 1.0)
        cell.poly("c99a3c", [(23.6 + swing, 27), (28.6 + swing, 27), (29.4 + swing, 34), (22.8 + swing, 34)])
        cell.poly(
            "ffe7a0", [(24.6 + swing, 28.2), (27.6 + swing, 28.2), (28.0 + swing, 33), (24.2 + swing, 33)]
        )
        out.append(cell.pixels())
    return out


def passenger_idle(frames: int = 4) -> list[Pixels]:
    """A figure in five greys, which the game multiplies with a passenger's colour."""
    out = []
    for frame in ferryman_idle(frames):
        grey = frame[..., :3] @ np.array([0.3, 0.55, 0.15], np.float32)
        steps = np.array([70, 120, 165, 205, 245], np.float32)
        nearest = steps[np.abs(np.sqrt(grey / 255)[..., None] * 255 - steps).argmin(-1)]
        part = frame.copy()
        part[..., :3] = np.where(frame[..., 3:] > 0, nearest[..., None], 0)
        out.append(part)
    return out


def sheet(frames: list[Pixels], columns: int) -> Pixels:
    """Frames laid out in rows of `columns`; cells left over stay clear."""
    height, width = frames[0].shape[:2]
    rows = -(-len(frames) // columns)
    out = np.zeros((rows * height, columns * width, 4), np.uint8)
    for number, frame in enumerate(frames):
        row, column = divmod(number, columns)
        out[row * height : (row + 1) * height, column * width : (column + 1) * width] = frame
    return out
