"""The game's scenes, composed from whatever its assets look like now."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import numpy as np
import numpy.typing as npt
from PIL import Image, ImageDraw

from tarnlight import content
from tarnlight.dock import dock, moving
from tarnlight.rules import PLANES
from tarnlight.world import World

Pixels = npt.NDArray[np.uint8]
Floats = npt.NDArray[np.floating[Any]]

WIDTH, HEIGHT = 960, 540
HORIZON = 236
SCENES = ("quay", "open water", "lamp store", "chart room", "shore")
TICKS_PER_SECOND = 30


class Stage:
    """Draws one scene of a world at any tick; what does not move is drawn once."""

    def __init__(self, world: World, scene: str) -> None:
        self.world, self.scene = world, scene
        self._in_step: dict[str, bool] = {}
        self._kept: dict[str, Floats] = {}
        self._backdrop = self._paint_backdrop()
        y = np.arange(HEIGHT - HORIZON, dtype=np.float32)[:, None] + 2.0
        x = np.arange(WIDTH, dtype=np.float32)[None, :] - WIDTH / 2
        depth = 300.0 / y
        self._water_u = x * depth
        self._water_v = depth * 480.0 + np.zeros_like(x)
        self._levels = np.clip(np.log2(np.maximum(depth[:, 0], 1)) + 0.5, 0, 6).astype(int)
        self._near = np.clip(y / (HEIGHT - HORIZON), 0, 1)

    def frame(self, tick: int) -> Pixels:
        """The scene at a tick as (540, 960, 3)."""
        canvas = self._backdrop.copy()
        if self.scene == "lamp store":
            self._lamp_store(canvas, tick)
        elif self.scene == "chart room":
            self._chart_room(canvas, tick)
        else:
            self._paint_water(canvas, tick)
            if self.scene == "quay":
                self._quay(canvas, tick)
            elif self.scene == "shore":
                self._on_shore(canvas, tick)
            else:
                self._open_water(canvas, tick)
        self._hud(canvas, tick)
        return np.asarray(np.clip(canvas, 0, 1) * 255 + 0.5, np.uint8)

    def _sized(self, path: str, width: int, height: int) -> Floats:
        """An asset's picture at a size, kept for the next frame."""
        return self._keep(
            f"{path} {width} {height}", lambda: _resized(self.world.picture(path), width, height)
        )

    def _keep(self, name: str, make: Callable[[], Floats]) -> Floats:
        if name not in self._kept:
            self._kept[name] = make()
        return self._kept[name]

    def _paint_backdrop(self) -> Floats:
        canvas = np.zeros((HEIGHT, WIDTH, 3), np.float32)
        sky = self._sized("art/sky/dusk.dds", WIDTH, HORIZON + 8)
        canvas[: HORIZON + 8] = sky[..., :3]
        _lay(canvas, self._sized("art/sky/moon.dds", 150, 150), 690, 0, add=False)
        hills = self._sized("art/sky/hills.dds", WIDTH, 150)
        _lay(canvas, hills, 0, HORIZON - 144)
        return canvas

    def _paint_water(self, canvas: Floats, tick: int) -> None:
        sway = np.sin(self._water_v * 0.02 + tick * 0.05) * 5
        path = "art/water/tarn_deep.dds"
        colour = np.empty((HEIGHT - HORIZON, WIDTH, 3), np.float32)
        for level in np.unique(self._levels):
            rows = self._levels == level
            tile = self.world.picture(path, int(level)).astype(np.float32)[..., :3] / 255
            scale = tile.shape[0] / 512
            u = ((self._water_u[rows] * 0.9 + sway[rows]) * scale).astype(np.int32) % tile.shape[1]
            v = ((self._water_v[rows] + tick * 0.9) * scale).astype(np.int32) % tile.shape[0]
            colour[rows] = tile[v, u]
        mirror = canvas[HORIZON - 1 :: -1][: HEIGHT - HORIZON]
        mirror = np.pad(mirror, ((0, HEIGHT - HORIZON - len(mirror)), (0, 0), (0, 0)), mode="edge")
        fresnel = (0.62 - 0.5 * self._near)[..., None]
        canvas[HORIZON:] = colour * (1 - fresnel) * 0.92 + mirror * fresnel
        ripple = self.world.picture("art/water/ripple.dds").astype(np.float32) / 255
        u = (self._water_u * 0.6 - tick * 0.5).astype(np.int32) % ripple.shape[1]
        v = (self._water_v * 0.7 + tick * 1.6).astype(np.int32) % ripple.shape[0]
        over = ripple[v, u]
        normals = self.world.picture("art/water/tarn_normals.dds").astype(np.float32)[..., :2] / 127.5 - 1
        u = (self._water_u * 0.5 + tick * 0.4).astype(np.int32) % normals.shape[1]
        v = (self._water_v * 0.6 + tick * 1.1).astype(np.int32) % normals.shape[0]
        faces = normals[v, u]
        glint = np.clip(faces[..., 0] * 0.5 - faces[..., 1] * 0.9, 0, 1) ** 2 * self._near
        canvas[HORIZON:] += glint[..., None] * np.array([0.55, 0.42, 0.25], np.float32)
        u = (self._water_u * 0.6 - tick * 0.5).astype(np.int32) % ripple.shape[1]
        v = (self._water_v * 0.7 + tick * 1.6).astype(np.int32) % ripple.shape[0]
        strength = over[..., 3:] * 0.30 * self._near[..., None] ** 2
        canvas[HORIZON:] = canvas[HORIZON:] * (1 - strength) + over[..., :3] * strength

    def _quay(self, canvas: Floats, tick: int) -> None:
        self._shore(canvas)
        self._boats(canvas, tick)
        self._jetty(canvas, tick)
        self._sprite(canvas, "cast/ferryman_idle.png", tick // 8, 250, 316, 3)
        waiting = [row for row in self.world.book("rules/passengers.json") if row.get("waits_at") == "quay"]
        for place, row in enumerate([*waiting[:2], *waiting[3:5]]):  # the piper, who is the third, comes late
            self._sprite(canvas, row["sheet"], tick // 9 + place, 356 + place * 50, 316, 3, row["strip"])
        self._sprite(canvas, "cast/otter_walk.png", tick // 4, 300 + (tick * 2) % 130, 404, 3)
        self._sprite(canvas, "cast/heron_walk.png", tick // 9, 880, 312, 2)
        self._gulls(canvas, tick)
        _lay(canvas, self._sized("art/lamps/lantern.dds", 40, 80), 186, 238)
        self._glow(canvas, 206, 284, 250, tick)

    def _open_water(self, canvas: Floats, tick: int) -> None:
        self._boats(canvas, tick)
        self._song(canvas, tick)
        self._sprite(canvas, "cast/otter_dive.png", (tick // 5) % 6, 640 + (tick // 30 * 37) % 120, 448, 3)
        self._gulls(canvas, tick)

    def _on_shore(self, canvas: Floats, tick: int) -> None:
        """A dock built from tiles, people on foot on it, an otter close by, and who is here as icons."""
        self._boats(canvas, tick)
        _lay(canvas, self._keep("dock", lambda: dock(self.world)), 96, 328)
        turn = tick % 300
        run, where = (
            ("walk", 150 + turn * 2) if turn < 150 else ("jump", 450) if turn < 180 else ("idle", 450)
        )
        _lay(canvas, moving(self.world, "cast/ferryman_shore.png", run, tick // 4), where, 270)
        _lay(canvas, moving(self.world, "cast/sailor_mask.png", "walk", tick // 5), 260 + tick % 220, 238)
        self._sprite(canvas, "cast/otter_near_walk.png", tick // 4, 660 + (tick * 2) % 120, 300, 1)
        self._gulls(canvas, tick)
        for place, name in enumerate(("ferryman", "otter", "heron")):
            icon = self.world.picture(f"icons/{name}.png")[:24, :24]
            _lay(canvas, icon.repeat(2, 0).repeat(2, 1).astype(np.float32) / 255, 20 + place * 56, 16)

    def _song(self, canvas: Floats, tick: int) -> None:
        """What the crew sings: its title, and a light for each part that goes with the beat; those out of step are dim."""
        song = self.world.song_of(self.scene)
        if song is None:
            return
        board = Image.new("L", (360, 40))
        draw = ImageDraw.Draw(board)
        draw.text((0, 0), f"{song['title']}, {song['artist']}", 235, font_size=15)
        beat = tick / TICKS_PER_SECOND * song["tempo"] / 60 % 1
        for place, (part, path) in enumerate(song["parts"].items()):
            if path not in self._in_step:
                self._in_step[path] = self.world.verdict(path) == "accepted"
            lit = 235 if self._in_step[path] else 70
            draw.ellipse((place * 66, 27, place * 66 + 8, 35), round(lit * (1 - 0.5 * beat)))
            draw.text((place * 66 + 13, 22), part, lit, font_size=13)
        shade = np.asarray(board, np.float32)[..., None] / 255
        at = canvas[HEIGHT - 54 : HEIGHT - 14, 440:800]
        canvas[HEIGHT - 54 : HEIGHT - 14, 440:800] = at * (1 - shade) + shade * np.array(
            [0.95, 0.85, 0.6], np.float32
        )

    def _boats(self, canvas: Floats, tick: int) -> None:
        """The scene's boats, the far ones first; the faster a boat the more it bobs, and one that is too fast flies."""
        boats = self.world.book("rules/boats.toml")
        shown = self.world.book("rules/scene.xml").get(self.scene, {}).get("boats", [])
        at_quay = self.scene == "quay"
        for place, one in enumerate(sorted(shown, key=lambda one: one.get("lane") != "far")):
            boat = boats.get(one.get("ref"))
            if boat is None:
                continue
            far, crew = one.get("lane") == "far", not at_quay and one.get("ref") == "otter"
            pace = boat["speed"] / (3.9 if far else 3.2)
            bob = (
                (2 * math.sin(tick * 0.05 * pace + 2))
                if far
                else (3 if at_quay else 4) * math.sin(tick * 0.06 * pace)
            )
            line = (308 if far else 398 if at_quay else 412 + 20 * max(place - 1, 0)) + round(bob)
            line -= 40 if boat["speed"] >= PLANES else 0
            scale = 0.5 if far else 1.0 if at_quay else 1.15
            where = round(float(one["x"]) * WIDTH)
            self._boat(canvas, where, line, boat["hull"], boat["sail"], scale, tick, not far, crew)

    def _lamp_store(self, canvas: Floats, tick: int) -> None:
        """Shelves of lanterns in the dark, crates below, an otter that should not be here."""
        self._wall(canvas, "art/planks/boathouse.dds", 300)
        self._floor(canvas, "art/planks/deck.dds")
        for shelf, y in enumerate((196, 348)):
            canvas[y : y + 10, 90:870] = np.array([0.23, 0.15, 0.09], np.float32)
            for place in range(6):
                x = 120 + place * 128 + 40 * shelf
                _lay(canvas, self._sized("art/lamps/lantern.dds", 52, 104), x, y - 104)
        for place, name in enumerate(("crate_heron", "crate_fish", "crate_plain")):
            _lay(canvas, self._sized(f"art/planks/{name}.dds", 104, 104), 150 + place * 118, 388)
        self._sprite(canvas, "cast/otter_grey_walk.png", tick // 4, 540 + (tick * 2) % 160, 424, 3)
        self._sprite(canvas, "cast/ferryman_idle.png", tick // 8, 740, 352, 3)
        canvas *= np.array([0.55, 0.5, 0.52], np.float32)
        for place in (1, 4):
            self._glow(canvas, 146 + place * 128, 150, 260, tick + place * 7)
        self._glow(canvas, 570, 302, 230, tick)

    def _chart_room(self, canvas: Floats, tick: int) -> None:
        """Charts and portraits on the wall, the ferryman at the table."""
        self._wall(canvas, "art/planks/boathouse.dds", 260)
        self._floor(canvas, "art/planks/jetty.dds")
        charts = sorted(path for path in self.world.originals if path.startswith("charts/"))
        people = sorted(path for path in self.world.originals if path.startswith("portraits/"))
        wares = [ware["picture"] for ware in self.world.book("rules/wares.json").values()]
        for place in range(4):
            _lay(
                canvas,
                self._sized(charts[(place + tick // 600) % len(charts)], 150, 150),
                60 + place * 164,
                50,
            )
        for place, path in enumerate(
            [*wares[-3:], *(people[(place * 3) % len(people)] for place in range(3, 6))]
        ):
            _lay(canvas, self._sized(path, 74, 74), 64 + place * 108, 228)
        _lay(canvas, self._sized("ensigns/large/aldvik.tga", 168, 112), 744, 74)
        _lay(canvas, self._sized("hud/compass.dds", 110, 110), 774, 214)
        self._sprite(canvas, "cast/ferryman_idle.png", tick // 8, 560, 330, 3)
        canvas[420:432, 180:800] = np.array([0.34, 0.22, 0.13], np.float32)
        canvas[432:540, 200:214] = canvas[432:540, 766:780] = np.array([0.22, 0.14, 0.08], np.float32)
        _lay(canvas, self._sized(charts[-1], 150, 64), 320, 368)
        _lay(canvas, self._sized("art/lamps/lantern.dds", 40, 80), 700, 340)
        canvas *= np.array([0.86, 0.8, 0.74], np.float32)
        self._glow(canvas, 720, 386, 330, tick)

    def _wall(self, canvas: Floats, path: str, side: int) -> None:
        tile = self._sized(path, side, side)[..., :3]
        rows, columns = np.arange(HEIGHT)[:, None] % side, np.arange(WIDTH) % side
        canvas[:] = tile[rows, columns] * np.float32(0.8)

    def _floor(self, canvas: Floats, path: str) -> None:
        top = HEIGHT - 80
        tile = self._sized(path, 160, 160)[..., :3]
        canvas[top:] = (
            tile[np.arange(80)[:, None], np.arange(WIDTH) % 160] * np.linspace(0.45, 0.8, 80)[:, None, None]
        )

    def _hud(self, canvas: Floats, tick: int) -> None:
        """The oil gauge, filled from below and lit, the compass, and the mail on board."""
        fill = 0.62 + 0.1 * math.sin(tick * 0.01)
        _lay(canvas, self._sized("hud/oil.dds", 92, 92), 16, HEIGHT - 108)
        level = self._sized("hud/oil_level.dds", 92, 92).copy()
        level[: int(92 * (0.845 - 0.69 * fill))] = 0
        _lay(canvas, level, 16, HEIGHT - 108)
        light = self._sized("hud/oil_glow.dds", 92, 92) * np.array(
            [1, 1, 1, 0.5 + 0.1 * math.sin(tick * 0.3)], np.float32
        )
        _lay(canvas, light, 16, HEIGHT - 108, add=True)
        _lay(canvas, self._sized("hud/compass.dds", 76, 76), WIDTH - 92, HEIGHT - 92)
        for place, name in enumerate(("mail", "parcel", "urgent")):
            _lay(canvas, self._sized(f"hud/badge_{name}.dds", 40, 40), 120 + place * 46, HEIGHT - 56)
            for dot in range(place + 2):
                canvas[HEIGHT - 28 : HEIGHT - 24, 150 + place * 46 + dot * 6 : 154 + place * 46 + dot * 6] = (
                    0.9
                )

    def _shore(self, canvas: Floats) -> None:
        for at, scale in ((-40, 1.0), (70, 0.8), (10, 0.62), (150, 0.55)):
            tree = self._sized("art/shore/pine.dds", int(130 * scale), int(290 * scale))
            _lay(canvas, tree, at, HORIZON + 34 - int(290 * scale))
        _lay(canvas, self._keep("shore", self._paint_shore), 0, HORIZON - 40)

    def _paint_shore(self) -> Floats:
        rock = self.world.picture("art/rock/granite_moss.dds").astype(np.float32)[..., :3] / 255
        x = np.arange(WIDTH)
        left = HORIZON + 18 + np.maximum(0, (x - 60)) * 0.3 + 7 * np.sin(x * 0.05) + 5 * np.sin(x * 0.013)
        right = HORIZON + 150 - np.maximum(0, x - 800) * 0.2 + 5 * np.sin(x * 0.07)
        y = np.arange(HORIZON - 40, HEIGHT)[:, None]
        near = (y > left - 30) & (y < left + 62 - 0.28 * x)
        far = (x > 800) & (y > right - 6 + (WIDTH - x) * 0.35) & (y < right + 70)
        tile = rock[y % rock.shape[0], x[None] % rock.shape[1]]
        depth = np.clip((y - HORIZON) / 200, 0.35, 0.9)[..., None]
        return np.concatenate([tile * (depth * 0.85), (near | far)[..., None]], -1).astype(np.float32)

    def _paint_deck(self) -> Floats:
        wood = self.world.picture("art/planks/jetty.dds").astype(np.float32)[..., :3] / 255
        tall, end = 70, 560
        y, x = np.arange(tall, dtype=np.float32)[:, None], np.arange(end, dtype=np.float32)[None, :]
        depth = y / tall
        u, v = (x - 200) * (1.3 - 0.5 * depth) + 900, depth**0.8 * 250 + 0 * x
        deck = wood[
            (u * wood.shape[0] / 512).astype(int) % wood.shape[0],
            (v * wood.shape[1] / 512).astype(int) % wood.shape[1],
        ]
        layer = np.ones((136, end, 4), np.float32)
        layer[:tall, :, :3] = deck * (0.62 + 0.35 * depth)[..., None]
        layer[:tall, :, 3] = x < end - 46 + depth * 46
        layer[tall : tall + 12, :, :3] = (
            deck[-1:] * np.linspace(0.5, 0.3, 12, dtype=np.float32)[:, None, None]
        )
        layer[tall + 12 :, :, 3] = 0
        shade = np.clip(1 - np.abs(np.linspace(-1, 1, 22, dtype=np.float32)), 0.15, 1)[None, :, None]
        for post in (40, 190, 340, 500):
            part = wood[np.arange(90)[:, None] % wood.shape[0], np.arange(22) % wood.shape[1]]
            layer[46:, post : post + 22, :3] = part * shade * 0.75
            layer[46:, post : post + 22, 3] = 1
        return layer

    def _jetty(self, canvas: Floats, tick: int) -> None:
        _lay(canvas, self._keep("deck", self._paint_deck), 0, 404)
        _lay(canvas, self._sized("art/planks/crate_heron.dds", 84, 84), 36, 344)
        _lay(canvas, self._sized("art/planks/crate_fish.dds", 70, 70), 112, 360)
        pole = 196
        canvas[262:420, pole : pole + 6] = np.array([0.23, 0.16, 0.10], np.float32)
        mast = 470
        canvas[150:420, mast : mast + 6] = np.array([0.28, 0.20, 0.13], np.float32)
        villages = self.world.book("rules/villages.ini")
        for place, flag in enumerate(
            self.world.book("rules/scene.xml").get("quay", {}).get("ensigns", [])[-2:]
        ):
            path = f"ensigns/large/{villages.get(flag['village'], {}).get('ensign', 'aldvik')}.tga"
            self._ensign(canvas, path, mast + 6, 154 + place * 96, 132, 88, tick)

    def _ensign(
        self, canvas: Floats, path: str, left: int, top: int, width: int, height: int, tick: int
    ) -> None:
        flag = self._sized(path, width, height)
        x = np.arange(width)
        lift = (np.sin(x * 0.06 - tick * 0.16) * x / width * 9).astype(int)
        light = 1 + 0.16 * np.cos(x * 0.06 - tick * 0.16) * x / width
        waved = np.zeros((height + 20, width, 4), np.float32)
        rows = np.arange(height)[:, None] + 10 + lift[None]
        waved[rows, x[None]] = (
            flag * np.stack([light, light, light, np.ones(width)], -1).astype(np.float32)[None]
        )
        _lay(canvas, waved, left, top - 10)

    def _boat(
        self,
        canvas: Floats,
        cx: int,
        waterline: int,
        hull: str,
        sail: str,
        scale: float,
        tick: int,
        lamp: bool,
        crew: bool = False,
    ) -> None:
        length, depth = int(330 * scale), int(74 * scale)
        if not -length < cx < WIDTH + length // 2:
            return
        x = np.linspace(-1, 1, length, dtype=np.float32)
        sheer = depth * (0.42 * x**2 + 0.10 * x)
        keel = depth * (1 - 0.55 * np.abs(x) ** 3.5)
        y = np.arange(-depth, depth * 2, dtype=np.float32)[:, None]
        v = (y + sheer[None]) / (keel + sheer)[None]
        fade = (
            np.clip(np.minimum(v, 1 - v) * depth * 0.9, 0, 1)
            * np.clip((1 - np.abs(x)) * length * 0.2, 0, 1)[None]
        )
        wood = self.world.picture(hull, 0 if scale > 0.7 else 1)
        picked = wood[
            np.clip(v * wood.shape[0] * 0.72, 0, wood.shape[0] - 1).astype(int),
            (np.arange(length) * wood.shape[1] // int(220 * max(scale, 0.3)))[None] % wood.shape[1],
        ]
        colour = (
            picked[..., :3].astype(np.float32)
            / 255
            * (1.02 - 0.62 * np.clip(v, 0, 1) ** 1.5 - 0.18 * np.abs(x)[None])[..., None]
        )
        rail = ((v > 0) & (v < 0.09))[..., None]
        colour = np.where(rail, np.array([0.44, 0.31, 0.19], np.float32), colour)
        part = np.concatenate([colour, fade[..., None]], -1)
        self._sail(canvas, sail, cx, waterline - int(34 * scale), scale, tick)
        if crew:
            self._sprite(canvas, "cast/ferryman_row.png", tick // 5, cx - 150, waterline - 164, 3)
        _lay(canvas, np.asarray(part, np.float32), cx - length // 2, waterline - depth - int(30 * scale))
        top, left = waterline + int(26 * scale), cx - length // 2
        rows = min(int(34 * scale), HEIGHT - top)
        band = canvas[top : top + rows, max(left, 0) : left + length]
        dark = (
            np.linspace(0.55, 0.0, rows, dtype=np.float32)[:, None]
            * np.clip(1.15 - x**2, 0, 1)[None, -band.shape[1] :]
        )
        canvas[top : top + rows, max(left, 0) : left + length] = band * (1 - dark[..., None])
        if lamp:
            side = int(26 * scale)
            _lay(
                canvas,
                self._sized("art/lamps/lantern.dds", side, side * 2),
                cx + int(112 * scale),
                waterline - int(112 * scale),
            )
            self._glow(
                canvas, cx + int(125 * scale), waterline - int(84 * scale), int(190 * scale), tick + 11
            )

    def _sail(self, canvas: Floats, path: str, cx: int, foot: int, scale: float, tick: int) -> None:
        width, height = int(190 * scale), int(230 * scale)
        top = foot - height
        mast = cx - int(40 * scale)
        lo, hi = max(top - int(22 * scale), 0), foot
        canvas[lo:hi, mast - 3 : mast + 3] = np.array([0.26, 0.18, 0.11], np.float32)
        cloth = self.world.picture(path, 0 if scale > 0.7 else 1)
        y = (np.arange(height, dtype=np.float32)[:, None] + 0.5) / height
        x = (np.arange(width, dtype=np.float32)[None] + 0.5) / width
        wide = 0.52 + 0.46 * y + 0.03 * np.sin(y * 3 + tick * 0.05)
        u = x / wide
        lift = y + 0.10 * u * (1 - y)
        inside = (u <= 1) & (lift - 0.10 * u * 0.4 >= 0.02 * u)
        row = np.clip((y - 0.05 * np.sin(u * np.pi)) * 0.96 + 0.02, 0, 0.999)
        picked = cloth[
            (row * cloth.shape[0]).astype(int), np.clip(u * cloth.shape[1], 0, cloth.shape[1] - 1).astype(int)
        ]
        light = 0.62 + 0.4 * np.sin(np.clip(u, 0, 1) * np.pi * 0.8 + 0.4)
        part = np.concatenate(
            [
                picked[..., :3].astype(np.float32) / 255 * light[..., None],
                (inside * picked[..., 3] / 255)[..., None],
            ],
            -1,
        )
        _lay(canvas, np.asarray(part, np.float32), mast + 3, top)

    def _sprite(
        self,
        canvas: Floats,
        path: str,
        frame: int,
        left: int,
        top: int,
        zoom: int,
        strip: list[int] | None = None,
    ) -> None:
        width, height, count, columns, _ = content.SHEETS.get(path, content.SHEETS["cast/passenger_idle.png"])
        sheet = self.world.picture(path)
        row, column = divmod(frame % count, columns)
        cell = sheet[row * height : (row + 1) * height, column * width : (column + 1) * width]
        if cell.shape[:2] != (height, width):
            cell = _stretched(sheet[:64, :64], width, height)
        grown = cell.repeat(zoom, 0).repeat(zoom, 1).astype(np.float32) / 255
        if strip is not None:  # greys are looked up in the strip's colours, from dark to light
            steps = np.array([list(one.to_bytes(3, "big")) for one in strip], np.float32) / 255
            for channel in range(3):
                grown[..., channel] = np.interp(
                    grown[..., channel], np.linspace(0, 1, len(strip)), steps[:, channel]
                )
        _lay(canvas, grown, left, top)

    def _gulls(self, canvas: Floats, tick: int) -> None:
        for number, (height, speed) in enumerate(((74, 2.1), (112, 1.6), (54, 2.6))):
            at = int((tick * speed + number * 330) % (WIDTH + 80)) - 60
            self._sprite(
                canvas,
                "cast/gull_fly.png",
                tick // 4 + number * 2,
                at,
                height + round(9 * math.sin(tick * 0.05 + number)),
                2,
            )

    def _glow(self, canvas: Floats, cx: int, cy: int, size: int, tick: int) -> None:
        flicker = 0.8 + 0.07 * math.sin(tick * 0.31) + 0.05 * math.sin(tick * 0.83)
        light = self._sized("art/lamps/glow_warm.dds", size, size)
        _lay(
            canvas, light * np.array([1, 1, 1, flicker], np.float32), cx - size // 2, cy - size // 2, add=True
        )


def still(world: World, scene: str, tick: int) -> Image.Image:
    """One frame as a picture."""
    return Image.fromarray(Stage(world, scene).frame(tick))


def _resized(pixels: Pixels, width: int, height: int) -> Floats:
    return (
        np.asarray(Image.fromarray(pixels).resize((width, height), Image.Resampling.BILINEAR), np.float32)
        / 255
    )


def _stretched(pixels: Pixels, width: int, height: int) -> Pixels:
    return np.asarray(Image.fromarray(pixels).resize((width, height), Image.Resampling.NEAREST))


def _lay(canvas: Floats, part: Floats, left: int, top: int, add: bool = False) -> None:
    x0, y0 = max(left, 0), max(top, 0)
    x1, y1 = min(left + part.shape[1], WIDTH), min(top + part.shape[0], HEIGHT)
    if x0 >= x1 or y0 >= y1:
        return
    piece = part[y0 - top : y1 - top, x0 - left : x1 - left]
    alpha = piece[..., 3:]
    under = canvas[y0:y1, x0:x1]
    canvas[y0:y1, x0:x1] = (
        under + piece[..., :3] * alpha if add else under * (1 - alpha) + piece[..., :3] * alpha
    )
