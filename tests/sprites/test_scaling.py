"""Pixel art keeps its colours and its squares; kept edges are those of the published rule."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra import numpy as arrays
from PIL import Image

from furnel.errors import FurnelError
from furnel.images import Picture
from furnel.sprites import Grid
from furnel.sprites.scaling import KINDS, Kind, enlarged, mirrored_each

PICTURES = arrays.arrays(
    np.uint8, st.tuples(st.integers(1, 7), st.integers(1, 7)), elements=st.integers(0, 2)
).map(lambda codes: Picture(np.array([(9, 8, 7, 255), (0, 0, 0, 0), (250, 20, 30, 255)], np.uint8)[codes]))


def by_the_rule(pixels: np.ndarray) -> np.ndarray:
    """Pixel by pixel, as it was published."""
    high, wide = pixels.shape[:2]

    def at(y: int, x: int) -> tuple[int, ...]:
        return tuple(pixels[min(max(y, 0), high - 1), min(max(x, 0), wide - 1)])

    out = np.zeros((high * 2, wide * 2, 4), np.uint8)
    for y in range(high):
        for x in range(wide):
            p, a, b, c, d = at(y, x), at(y - 1, x), at(y, x + 1), at(y, x - 1), at(y + 1, x)
            out[2 * y, 2 * x] = a if c == a and c != d and a != b else p
            out[2 * y, 2 * x + 1] = b if a == b and a != c and b != d else p
            out[2 * y + 1, 2 * x] = c if d == c and d != b and c != a else p
            out[2 * y + 1, 2 * x + 1] = d if b == d and b != a and d != c else p
    return out


@given(PICTURES)
def test_kept_edges_are_those_of_the_rule(picture: Picture) -> None:
    np.testing.assert_array_equal(enlarged(picture, 2, "kept edges").pixels, by_the_rule(picture.pixels))
    np.testing.assert_array_equal(
        enlarged(picture, 4, "kept edges").pixels, by_the_rule(by_the_rule(picture.pixels))
    )


@given(PICTURES, st.integers(1, 6), st.sampled_from(KINDS))
def test_no_colour_comes_in_and_squares_are_squares(picture: Picture, times: int, kind: Kind) -> None:
    large = enlarged(picture, times, kind)
    assert large.size == (picture.width * times, picture.height * times)
    assert {*map(bytes, large.pixels.reshape(-1, 4))} <= {*map(bytes, picture.pixels.reshape(-1, 4))}
    if kind == "squares":
        image = Image.fromarray(picture.pixels).resize(large.size, Image.Resampling.NEAREST)
        np.testing.assert_array_equal(large.pixels, np.asarray(image))


@given(PICTURES, st.integers(1, 3), st.integers(1, 3), st.booleans())
def test_each_cell_is_mirrored_where_it_is(cell: Picture, across: int, along: int, down: bool) -> None:
    sheet = Picture(np.tile(cell.pixels, (along, across, 1)))
    sheet.pixels[0, 0] = (1, 2, 3, 255)
    grid = Grid(cell.width, cell.height, across, across * along)
    turned = mirrored_each(sheet, grid, down)
    image = Image.fromarray(sheet.pixels)
    way = Image.Transpose.FLIP_TOP_BOTTOM if down else Image.Transpose.FLIP_LEFT_RIGHT
    wanted = Image.new("RGBA", image.size)
    for row in range(along):
        for column in range(across):
            left, top = column * cell.width, row * cell.height
            box = (left, top, left + cell.width, top + cell.height)
            wanted.paste(image.crop(box).transpose(way), box[:2])
    np.testing.assert_array_equal(turned.pixels, np.asarray(wanted))
    np.testing.assert_array_equal(mirrored_each(turned, grid, down).pixels, sheet.pixels)


def test_what_cannot_be_is_refused() -> None:
    with pytest.raises(FurnelError, match="too many pixels"):
        enlarged(Picture(np.zeros((1, 20000, 4), np.uint8)), 16000)
