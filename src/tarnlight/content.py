"""What the game consists of: its textures, sheets and texts by inner path."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, NamedTuple

import numpy as np
import numpy.typing as npt

from tarnlight import sounds
from tarnlight.art import ensigns, hud, paper, shore, sprites, surfaces
from tarnlight.art.ensigns import VILLAGES

Pixels = npt.NDArray[np.uint8]
Draw = Callable[[np.random.Generator], Pixels]

_OAK = ("4d2e17", "8f5c30", "c48a50")
_DARK = ("33211a", "5e4030", "8d6a52")
_GREY = ("5b5145", "8c8171", "b5a991")
_PALE = ("6d5637", "a98a5c", "d8bd8c")

# path: (block format, how to draw it)
TEXTURES: dict[str, tuple[str, Draw]] = {
    "art/hulls/hull_otter.dds": ("DXT5", lambda rng: surfaces.planks(rng, 512, 512, 8, _OAK)),
    "art/hulls/hull_heron.dds": (
        "DXT1",
        lambda rng: surfaces.planks(rng, 512, 512, 6, _OAK, paint="2f5d68", wear=0.35),
    ),
    "art/hulls/hull_mail.dds": (
        "DXT1",
        lambda rng: surfaces.planks(rng, 512, 512, 7, _DARK, paint="8c2f2b", wear=0.25),
    ),
    "art/hulls/hull_skiff.dds": (
        "DXT1",
        lambda rng: surfaces.planks(rng, 256, 256, 5, _PALE, paint="4f7155", wear=0.4),
    ),
    "art/hulls/hull_wreck.dds": (
        "DXT1",
        lambda rng: surfaces.planks(rng, 512, 256, 5, _GREY, paint="55606a", wear=0.7),
    ),
    "art/sails/sail_heron.dds": (
        "DXT5",
        lambda rng: surfaces.cloth(rng, 512, 512, "d9cba6", surfaces.heron(512, 512), "2d3e4c"),
    ),
    "art/sails/sail_rust.dds": ("DXT1", lambda rng: surfaces.cloth(rng, 512, 512, "a8482f", None, "000000")),
    "art/sails/sail_night.dds": (
        "DXT5",
        lambda rng: surfaces.cloth(rng, 512, 512, "2d4257", surfaces.heron(512, 512), "d9cba6"),
    ),
    "art/sails/sail_herring.dds": (
        "DXT1",
        lambda rng: surfaces.cloth(rng, 512, 512, "a4392c", surfaces.fish(512, 512), "e8d9b0"),
    ),
    "art/sails/jib_plain.dds": ("DXT1", lambda rng: surfaces.cloth(rng, 256, 512, "cfc6b2", None, "000000")),
    "art/planks/jetty.dds": ("DXT1", lambda rng: surfaces.planks(rng, 512, 512, 9, _GREY)),
    "art/planks/deck.dds": ("DXT1", lambda rng: surfaces.planks(rng, 256, 256, 6, _PALE)),
    "art/planks/thwart.dds": ("DXT1", lambda rng: surfaces.planks(rng, 256, 64, 2, _PALE)),
    "art/planks/boathouse.dds": (
        "DXT1",
        lambda rng: surfaces.planks(rng, 512, 512, 12, _DARK, paint="7a3b2c", wear=0.3),
    ),
    "art/planks/crate_heron.dds": ("DXT1", lambda rng: surfaces.crate(rng, 256, surfaces.heron(256, 256))),
    "art/planks/crate_fish.dds": ("DXT1", lambda rng: surfaces.crate(rng, 256, surfaces.fish(256, 256))),
    "art/planks/crate_plain.dds": ("DXT1", lambda rng: surfaces.crate(rng, 128, None)),
    "art/rock/granite.dds": ("DXT1", lambda rng: surfaces.rock(rng, 256, ("2e3336", "5d666a", "98a1a1"))),
    "art/rock/granite_moss.dds": (
        "DXT1",
        lambda rng: surfaces.rock(rng, 256, ("2e3336", "5d666a", "98a1a1"), 0.5),
    ),
    "art/rock/slate.dds": ("DXT1", lambda rng: surfaces.rock(rng, 256, ("1f262e", "3d4955", "6d7b88"))),
    "art/rock/sandstone.dds": (
        "DXT1",
        lambda rng: surfaces.rock(rng, 256, ("5b3f2b", "9a7450", "cdaa7c"), 0.15),
    ),
    "art/water/tarn_deep.dds": (
        "DXT1",
        lambda rng: surfaces.water(rng, 512, ("0b1d2b", "123a4f", "2b6a7c", "7fb2b0"), "ffd9a0"),
    ),
    "art/water/tarn_shallow.dds": (
        "DXT1",
        lambda rng: surfaces.water(rng, 256, ("163a3d", "2a6560", "5ba08c", "a9d1b8"), "ffe9c0"),
    ),
    "art/water/ripple.dds": ("DXT5", lambda rng: surfaces.ripples(rng, 256, "bfe0e0")),
    "art/lamps/lantern.dds": ("DXT5", lambda rng: surfaces.lantern(rng, 128, 256)),
    "art/lamps/glow_warm.dds": ("DXT5", lambda rng: surfaces.glow(256, "ffb45a")),
    "art/lamps/glow_cold.dds": ("DXT5", lambda rng: surfaces.glow(128, "8fc4ff")),
    "art/water/tarn_normals.dds": ("BC5", lambda rng: surfaces.wave_normals(rng, 256)),
    "art/sky/dusk.dds": ("BC7", lambda rng: surfaces.sky(rng, 1024, 512)),
    "art/sky/moon.dds": ("BGRA", lambda rng: surfaces.moon(256)),
    "art/sky/hills.dds": ("DXT5", lambda rng: surfaces.hills(rng, 1024, 256, "14232a", "35505c")),
    "art/shore/pine.dds": ("DXT5", lambda rng: surfaces.pine(rng, 256, 512)),
    "art/shore/pine_young.dds": ("DXT5", lambda rng: surfaces.pine(rng, 128, 256)),
}

# the same for what lies over the scene
HUD: dict[str, tuple[str, Draw]] = {
    "hud/oil.dds": ("DXT5", lambda rng: hud.gauge_base(rng, 256)),
    "hud/oil_level.dds": ("DXT5", lambda rng: hud.gauge_level(rng, 256)),
    "hud/oil_glow.dds": ("DXT5", lambda rng: hud.gauge_glow(256)),
    "hud/compass.dds": ("DXT5", lambda rng: hud.compass(rng, 256)),
    "hud/badge_mail.dds": ("DXT5", lambda rng: hud.badge(rng, 128, "a8322a")),
    "hud/badge_parcel.dds": ("DXT5", lambda rng: hud.badge(rng, 128, "2f6b57")),
    "hud/badge_urgent.dds": ("DXT5", lambda rng: hud.badge(rng, 128, "d08a1e")),
}

# charts and portraits; the game finds them by the hash of these paths
PAPERS: dict[str, tuple[str, Draw]] = {
    **{
        f"charts/{name.replace(' ', '_')}.dds": ("DXT1", lambda rng: paper.chart(rng, 256))
        for name in paper.CHARTS
    },
    **{f"portraits/{name}.dds": ("DXT1", lambda rng: paper.portrait(rng, 128)) for name in paper.PEOPLE},
}

# path: (cell width, cell height, frames, columns, how to draw them)
SHEETS: dict[str, tuple[int, int, int, int, Callable[[], list[Pixels]]]] = {
    "cast/otter_walk.png": (40, 24, 6, 6, lambda: sprites.otter_walk(sprites.OTTER)),
    "cast/otter_idle.png": (40, 24, 4, 4, lambda: sprites.otter_idle(sprites.OTTER)),
    "cast/otter_near_walk.png": (
        80,
        48,
        6,
        6,
        lambda: [frame.repeat(2, 0).repeat(2, 1) for frame in sprites.otter_walk(sprites.OTTER)],
    ),
    "cast/otter_dive.png": (40, 24, 6, 6, lambda: sprites.otter_dive(sprites.OTTER)),
    "cast/otter_grey_walk.png": (40, 24, 6, 6, lambda: sprites.otter_walk(sprites.GREY_OTTER)),
    "cast/gull_fly.png": (32, 24, 6, 3, sprites.gull),
    "cast/heron_walk.png": (32, 48, 6, 6, sprites.heron_walk),
    "cast/ferryman_row.png": (48, 48, 8, 4, sprites.ferryman_row),
    "cast/ferryman_idle.png": (32, 48, 4, 4, sprites.ferryman_idle),
    "cast/passenger_idle.png": (32, 48, 4, 4, sprites.passenger_idle),
}


class Moves(NamedTuple):
    """A sheet of several animations: its cells (width, height, columns, pixels between and around them), the cells of each
    animation, what fills the cells of none, which colour is clear, and how it is drawn."""

    width: int
    height: int
    columns: int
    gutter: int
    runs: dict[str, tuple[int, ...]]
    unused: tuple[int, int, int] | None
    key: tuple[int, int, int] | None
    draw: Callable[[], Pixels]

    def cell(self, sheet: npt.NDArray[Any], place: int) -> npt.NDArray[Any]:
        """One cell's pixels."""
        row, column = divmod(place, self.columns)
        top, left = (
            self.gutter + at * (side + self.gutter) for at, side in ((row, self.height), (column, self.width))
        )
        return sheet[top : top + self.height, left : left + self.width]


MOVES: dict[str, Moves] = {
    "cast/ferryman_shore.png": Moves(
        32, 48, 5, 0, {"walk": (0, 1, 2, 3, 4), "jump": (5, 6), "idle": (10, 11, 12)}, shore.UNUSED, None,
        shore.ferryman_shore,
    ),
    "cast/sailor_mask.png": Moves(
        32, 48, 4, shore.GUTTER, {"walk": (0, 1, 2, 3)}, None, shore.KEY, shore.sailor_mask
    ),
}  # fmt: skip

DOCK = "tiles/dock.png"


def bank() -> list[tuple[str, int]]:
    """Event and variation of every numbered sound."""
    return [(event, variation) for event, count in sounds.EVENTS.items() for variation in range(count)]


def ensign_paths() -> dict[str, tuple[str, str]]:
    """Path below `ensigns/`: size and village."""
    return {f"{size}/{village}.tga": (size, village) for size in ensigns.SIZES for village in VILLAGES}
