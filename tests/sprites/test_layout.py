"""Sheets as games read them: animations, gutters, key colours, unused cells; what is wrong in them is seen where it is."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.errors import FurnelError
from furnel.images import Picture
from furnel.sprites import (
    Animation,
    Grid,
    SheetLayout,
    cells_of,
    cells_text,
    faces_back,
    looked_at,
    parse_cells,
    parse_runs,
    runs_text,
    standings,
)

INK, KEY, TONE = (200, 60, 50, 255), (255, 0, 255, 255), (40, 44, 52, 255)


def sheet(margin: int, gutter: int, ground: tuple[int, int, int, int] = (0, 0, 0, 0)) -> Picture:
    """Two rows of three cells, 10 × 12, a figure in each that stands on row 11 and leans to the left."""
    wide, high = 2 * margin + 3 * 10 + 2 * gutter, 2 * margin + 2 * 12 + gutter
    pixels = np.zeros((high, wide, 4), np.uint8)
    pixels[:] = ground
    for row in range(2):
        for column in range(3):
            top, left = margin + row * (12 + gutter), margin + column * (10 + gutter)
            pixels[top + 3 : top + 11, left + 4 : left + 7] = INK
            pixels[top + 3 : top + 5, left + 2 : left + 4] = INK
    return Picture(pixels)


@given(st.lists(st.integers(0, 99), min_size=1, max_size=12))
def test_cells_and_animations_are_read_as_they_are_written(cells: list[int]) -> None:
    assert list(parse_cells(cells_text(cells))) == cells
    runs = [Animation("1", tuple(cells)), Animation("2", (3, 2, 3), anchor="centre")]
    assert [(run.cells, run.anchor) for run in parse_runs(runs_text(runs))] == [
        (run.cells, run.anchor) for run in runs
    ]


@pytest.mark.parametrize("text", ["0", "a", "1-", "5000", "1 -2", "3-c"])
def test_what_is_no_cell_is_refused(text: str) -> None:
    with pytest.raises(FurnelError, match="no number of a cell"):
        parse_runs(text)


@pytest.mark.parametrize(("margin", "gutter"), [(0, 0), (3, 0), (0, 2), (2, 5)])
@pytest.mark.parametrize("ground", [(0, 0, 0, 0), KEY])
def test_every_cell_is_found_whatever_lies_between(
    margin: int, gutter: int, ground: tuple[int, int, int, int]
) -> None:
    picture = sheet(margin, gutter, ground)
    layout = SheetLayout((10, 12), margin, gutter, key=KEY[:3])
    grid, ink = layout.grid(picture), layout.ink(picture)
    assert (grid.columns, grid.count) == (3, 6)
    assert {(one.top, one.floor, one.middle) for one in standings(picture, grid, 6, ink)} == {(3, 11, 5.5)}
    look = looked_at(picture, layout, grid, ink)
    assert (look.outside, look.drawn, look.half_clear, look.twins) == (0, (), 0, ())
    if gutter:
        picture.pixels[5, margin + 10] = INK
        assert looked_at(picture, layout, grid, layout.ink(picture)).outside == 1
    with pytest.raises(FurnelError, match="whole number"):
        SheetLayout((9, 12), margin, gutter).grid(picture)


def test_cells_that_no_animation_has_are_left_alone_and_looked_at() -> None:
    picture = sheet(0, 0)
    for left in (10, 20):
        picture.pixels[12:, left : left + 10] = TONE
    layout = SheetLayout(
        (10, 12), animations=(Animation("walk", (0, 1, 2)), Animation("jump", (3,))), unused=TONE[:3]
    )
    grid = layout.grid(picture)
    assert layout.used == (0, 1, 2, 3) and layout.names(6)[2:4] == ("walk 3", "jump 1")
    assert [one.height > 0 for one in standings(picture, grid, 6, layout.ink(picture))] == [True] * 4 + [
        False
    ] * 2
    assert looked_at(picture, layout, grid, layout.ink(picture)).drawn == ()
    picture.pixels[15, 13] = INK
    assert looked_at(picture, layout, grid, layout.ink(picture)).drawn == (4,)


def test_half_clear_pixels_and_twins_are_told_with_their_places() -> None:
    picture = sheet(0, 0)
    picture.pixels[4, 5, 3] = 130
    picture.pixels[20, 15, :3] = (201, 61, 49)
    layout = SheetLayout((10, 12))
    look = looked_at(picture, layout, layout.grid(picture), layout.ink(picture))
    assert (look.half_clear, look.half_clear_at) == (1, ((5, 4),))
    assert look.twins == (("c93d31", "c83c32", (15, 20)),)


def test_figures_that_look_the_other_way_are_told_and_others_are_not() -> None:
    layout = SheetLayout((10, 12))
    own, turned, tall = sheet(0, 0), sheet(0, 0), sheet(0, 0)
    turned.pixels[:] = turned.pixels.reshape(24, 3, 10, 4)[:, :, ::-1].reshape(24, 30, 4)
    tall.pixels[..., :] = 0
    tall.pixels[2:11, 4:6] = INK
    looks = [looked_at(one, layout, layout.grid(one), layout.ink(one)).outline for one in (own, turned, tall)]
    assert faces_back(looks[0], looks[0]) is False
    assert faces_back(looks[0], looks[1]) is True and faces_back(looks[1], looks[0]) is True
    assert faces_back(looks[2], looks[0]) is None  # the original looks nowhere


@pytest.mark.parametrize("widths", [(9, 9, 9), (5, 12, 8, 20)])
def test_cells_between_lines_are_found_unequal_ones_too(widths: tuple[int, ...]) -> None:
    line = (90, 90, 200, 255)
    pixels = np.zeros((2 * 11 + 3, sum(widths) + len(widths) + 1, 4), np.uint8)
    pixels[:] = line
    boxes = []
    for top in (1, 13):
        left = 1
        for wide in widths:
            pixels[top : top + 11, left : left + wide] = (250, 250, 250, 255)
            pixels[top + 3 : top + 9, left + 1 : left + wide - 1] = INK
            boxes.append((left, top, wide, 11))
            left += wide + 1
    assert list(cells_of(Picture(pixels))) == boxes


def test_cells_without_lines_are_found_by_their_gaps() -> None:
    assert list(cells_of(sheet(0, 0))) == [
        (column * 10, row * 12, 10, 12) for row in range(2) for column in range(3)
    ]


@pytest.mark.parametrize(("margin", "gutter"), [(0, 0), (3, 0), (0, 2), (5, 4)])
def test_a_cell_is_found_by_each_of_its_pixels_and_by_no_other(margin: int, gutter: int) -> None:
    grid = Grid(5, 7, 4, 12, margin, gutter)
    there: dict[tuple[int, int], int] = {}
    for cell in range(10):
        left, top, wide, high = grid.box(cell)
        there |= {(x, y): cell for x in range(left, left + wide) for y in range(top, top + high)}
    assert all(grid.at(x, y, 10) == there.get((x, y), -1) for x in range(-3, 60) for y in range(-3, 60))
