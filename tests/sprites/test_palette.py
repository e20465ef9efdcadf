"""Colours changed exactly, everywhere at once; ramps, twins and locked colours; single pixels by hand."""

from __future__ import annotations

import colorsys

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from furnel.errors import FurnelError
from furnel.images import Picture
from furnel.images.picture import Rgb
from furnel.sprites import (
    changes_text,
    colours_seen,
    parse_changes,
    ramp_moved,
    ramp_onto,
    ramps,
    recoloured,
    snapped,
    twins,
)
from furnel.sprites.palette import light
from furnel.sprites.touching import Touch, parse_touches, touched, touches_text, without_ground

FEW = st.sampled_from([0, 1, 85, 170, 254, 255])
PIXELS = arrays(np.uint8, st.tuples(st.integers(1, 9), st.integers(1, 9), st.just(4)), elements=FEW)
RGB = st.tuples(FEW, FEW, FEW)
BYTE = st.integers(0, 255)


@given(PIXELS, st.dictionaries(RGB, st.tuples(BYTE, BYTE, BYTE), max_size=6))
def test_exactly_these_colours_change_all_at_once(pixels: np.ndarray, changes: dict[Rgb, Rgb]) -> None:  # type: ignore[type-arg]
    out, done = recoloured(Picture(pixels.copy()), changes)
    wanted, number = pixels.copy(), 0
    for y in range(pixels.shape[0]):
        for x in range(pixels.shape[1]):
            colour = tuple(int(one) for one in pixels[y, x, :3])
            if pixels[y, x, 3] and colour in changes:
                wanted[y, x, :3] = changes[colour]  # type: ignore[index]
                number += 1
    np.testing.assert_array_equal(out.pixels, wanted)
    assert done == number and parse_changes(changes_text(changes)) == changes


@given(PIXELS)
def test_every_colour_is_counted_and_told_where_it_is(pixels: np.ndarray) -> None:  # type: ignore[type-arg]
    found = colours_seen([Picture(pixels), Picture(pixels)])
    assert sum(one.pixels for one in found) == 2 * int((pixels[..., 3] > 0).sum())
    for one in found:
        assert tuple(pixels[one.first[1], one.first[0], :3]) == one.rgb
    again = [rgb for ramp in ramps([one.rgb for one in found]) for rgb in ramp]
    assert sorted(again) == sorted(one.rgb for one in found)


@pytest.mark.parametrize("text", ["c03020", "c03020>20", "c03020>2060c0 c03020>000000", "zz3020>2060c0"])
def test_what_is_no_change_is_refused(text: str) -> None:
    with pytest.raises(FurnelError, match=r"Reading a palette's changes"):
        parse_changes(text)


def made_ramp(hue: float, steps: int) -> list[Rgb]:
    out = []
    for step in range(steps):
        red, green, blue = colorsys.hsv_to_rgb(hue, 0.7, 0.25 + 0.65 * step / (steps - 1))
        out.append((round(red * 255), round(green * 255), round(blue * 255)))
    return out


def test_ramps_are_found_as_they_were_made_and_laid_onto_each_other() -> None:
    red, green, grey = made_ramp(0.99, 4), made_ramp(0.33, 5), [(v, v, v) for v in (20, 120, 240)]
    mixed = [*red, *green, *grey]
    np.random.default_rng(1).shuffle(mixed)
    assert set(ramps([tuple(one) for one in mixed])) == {tuple(red), tuple(green), tuple(grey)}  # type: ignore[misc]
    onto = ramp_onto(red, green)
    assert onto[red[0]] == green[0] and onto[red[-1]] == green[-1]
    lights = [light(onto[colour]) for colour in red]
    assert lights == sorted(lights)
    blue = (30, 60, 200)
    moved = ramp_moved(red, red[-1], blue)
    assert moved[red[-1]] == blue and [light(moved[one]) for one in red] == sorted(
        light(moved[one]) for one in red
    )
    hues = {round(colorsys.rgb_to_hsv(*(part / 255 for part in colour))[0], 1) for colour in moved.values()}
    assert hues == {0.6}


def test_the_rarer_of_two_colours_that_nobody_tells_apart_is_named_first() -> None:
    pixels = np.full((4, 5, 4), (90, 90, 90, 255), np.uint8)
    pixels[0, 0, :3] = (92, 89, 90)
    pixels[1, :3, :3] = (99, 90, 90)
    pairs = twins(colours_seen([Picture(pixels)]))
    assert [(rare.hex, near.hex) for rare, near in pairs] == [("5c595a", "5a5a5a")]


def test_locked_colours_are_brought_back_and_the_key_is_left_alone() -> None:
    pixels = np.array(
        [[(250, 8, 3, 255), (3, 240, 9, 255), (255, 0, 255, 255), (230, 10, 220, 255), (90, 90, 90, 0)]],
        np.uint8,
    )
    out, moved = snapped(Picture(pixels), [(255, 0, 0), (0, 255, 0), (255, 0, 255)], 255, [(255, 0, 255)])
    assert [bytes(one).hex() for one in out.pixels[0, :, :3]] == [
        "ff0000",
        "00ff00",
        "ff00ff",
        "ff0000",
        "5a5a5a",
    ] and moved == 3
    out, moved = snapped(Picture(pixels), [(255, 0, 0)], 10)
    assert moved == 1 and tuple(out.pixels[0, 0, :3]) == (255, 0, 0)


TOUCHES = st.lists(st.builds(
    Touch, st.integers(0, 9), st.integers(0, 9), st.none() | st.tuples(BYTE, BYTE, BYTE), st.booleans()
), max_size=8)  # fmt: skip


@given(PIXELS, TOUCHES)
def test_touches_are_read_as_written_and_fewer_give_the_same(
    pixels: np.ndarray, touches: list[Touch]
) -> None:  # type: ignore[type-arg]
    kept = parse_touches(touches_text(touches))
    np.testing.assert_array_equal(
        touched(Picture(pixels), touches)[0].pixels, touched(Picture(pixels), kept)[0].pixels
    )
    assert parse_touches(" ".join(touch.text() for touch in touches)) == tuple(touches)


def test_a_fill_stays_in_its_area_and_ground_goes_from_the_border() -> None:
    pixels = np.full((7, 9, 4), (10, 200, 90, 255), np.uint8)
    pixels[:, 4] = (1, 1, 1, 255)
    out, _ = touched(Picture(pixels), [Touch(0, 0, (5, 5, 5), fill=True)])
    assert (out.pixels[:, :4, :3] == 5).all() and (out.pixels[:, 5:, :3] == (10, 200, 90)).all()
    ring = np.full((9, 9, 4), (255, 150, 200, 255), np.uint8)
    ring[2:7, 2:7] = (0, 0, 0, 255)
    ring[4, 4] = (255, 150, 200, 255)  # an eye of the ground's colour
    ring[0, 0] = (80, 200, 255, 255)
    cleared, number = without_ground(Picture(ring), [(255, 150, 200), (80, 200, 255)], 0, from_border=True)
    assert number == 56 and cleared.pixels[4, 4, 3] == 255 and not cleared.pixels[0, :, 3].any()
    assert without_ground(Picture(ring), [(255, 150, 200)], 0, from_border=False)[1] == 56
