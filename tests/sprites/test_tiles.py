"""Tiles made from a block of nine are closed where they go on, and have their edges where they do not."""

from __future__ import annotations

from itertools import product

import numpy as np
import pytest

from furnel.errors import FurnelError
from furnel.images import Picture
from furnel.sprites import Grid
from furnel.sprites.tiles import FILLS, Fill, built, made_tiles, meets_text, parse_meets, seams_of
from tarnlight.art import shore

MEETS = tuple("".join(side for bit, side in enumerate("nesw") if number & 1 << bit) for number in range(16))
RIMS = {"n": (250, 0, 0), "e": (0, 250, 0), "s": (0, 0, 250), "w": (250, 250, 0)}
GRID = Grid(32, 32, 4, 16)
BED = Picture(np.zeros((128, 128, 4), np.uint8))


def block(side: int = 16) -> Picture:
    """Nine tiles: grey, with a rim of an own colour at each side of the whole."""
    pixels = np.full((3 * side, 3 * side, 4), (120, 120, 120, 255), np.uint8)
    pixels[:, 0, :3], pixels[:, -1, :3] = RIMS["w"], RIMS["e"]
    pixels[0, :, :3], pixels[-1, :, :3] = RIMS["n"], RIMS["s"]
    return Picture(pixels)


def edges(tile: np.ndarray) -> dict[str, np.ndarray]:  # type: ignore[type-arg]
    return {"n": tile[0], "e": tile[:, -1], "s": tile[-1], "w": tile[:, 0]}


@pytest.mark.parametrize(("side", "fill"), [*product((8, 16, 32), FILLS)])
def test_each_of_sixteen_cells_has_its_rims_and_no_others(side: int, fill: Fill) -> None:
    out = made_tiles(block(side), side, BED, GRID, MEETS, "a block of 3 × 3", fill, (0, 0))
    for place, sides in enumerate(MEETS):
        for name, edge in edges(out.pixels[GRID.part(place)]).items():
            middle = edge[8:24, :3]
            assert (middle == (RIMS[name] if name not in sides else (120, 120, 120))).all()
    worst, _, gaps = seams_of(out, GRID, MEETS)
    assert worst < 0.5 and gaps == ()


def test_a_tile_a_cell_and_one_tile_are_taken_as_they_are() -> None:
    rng = np.random.default_rng(2)
    small = Picture(rng.integers(0, 256, (64, 64, 4), np.uint8))
    out = made_tiles(small, 16, BED, GRID, MEETS, "a tile a cell", "larger pixels", (0, 0))
    np.testing.assert_array_equal(out.pixels, small.pixels.repeat(2, 0).repeat(2, 1))
    out = made_tiles(small, 16, BED, GRID, MEETS, "one tile", "repeat", (16, 32))
    np.testing.assert_array_equal(out.pixels, np.tile(small.pixels[32:48, 16:32], (8, 8, 1)))


def test_the_games_own_tiles_go_with_each_other_and_a_wrong_one_is_named() -> None:
    tiles = Picture(shore.dock_tiles())
    worst, _, gaps = seams_of(tiles, GRID, MEETS)
    assert gaps == ()
    bad = Picture(tiles.pixels.copy())
    bad.pixels[GRID.part(15)][:, -1, :3] = (255, 255, 255)
    found, pair, _ = seams_of(bad, GRID, MEETS)
    assert found > worst * 2 and pair.startswith("tile 16 e")
    bad.pixels[GRID.part(1)][0, 8:24] = 0
    assert "tile 2 n" in seams_of(bad, GRID, MEETS)[2]


def test_ground_is_built_of_the_tiles_that_its_places_ask_for() -> None:
    marks = np.zeros((128, 128, 4), np.uint8)
    for place in range(16):
        marks[GRID.part(place)] = (place, 0, 0, 255)
    plan = ("##.", ".##", "..#")
    ground = built(Picture(marks), GRID, MEETS, plan).pixels[16::32, 16::32, 0]
    wanted = [["e", "sw", None], [None, "ne", "sw"], [None, None, "n"]]
    assert [[MEETS[place] if place else None for place in row] for row in ground.tolist()] == wanted


def test_what_cannot_be_made_is_refused() -> None:
    with pytest.raises(FurnelError, match="no whole number of tiles of 12"):
        made_tiles(block(), 12, BED, GRID, MEETS, "one tile", "repeat", (0, 0))
    with pytest.raises(FurnelError, match="the source ends before"):
        made_tiles(block(8), 16, BED, GRID, MEETS, "a block of 3 × 3", "repeat", (0, 0))
    assert parse_meets(meets_text(MEETS)) == MEETS
    with pytest.raises(FurnelError, match="no sides"):
        parse_meets("n x")
