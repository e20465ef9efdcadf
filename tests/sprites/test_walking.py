"""What hangs together is found as another library finds it."""

from __future__ import annotations

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra import numpy as arrays
from scipy.ndimage import find_objects, label, sum_labels

from furnel.sprites.walking import ink_of, parts_of

INKS = arrays.arrays(np.uint8, st.tuples(st.integers(1, 14), st.integers(1, 14)), elements=st.integers(0, 1))


@given(INKS)
def test_parts_are_those_of_another_library(ink: np.ndarray) -> None:
    marks, number = label(ink, structure=np.ones((3, 3), int))
    amounts = sum_labels(ink, marks, np.arange(1, number + 1)) if number else []
    wanted = {
        (columns.start, rows.start, columns.stop - columns.start, rows.stop - rows.start, int(amount))
        for (rows, columns), amount in zip(find_objects(marks), amounts, strict=True)
    }
    found = [tuple(map(int, row)) for row in parts_of(ink)]
    assert set(found) == wanted and len(found) == number


@given(
    arrays.arrays(np.uint8, (6, 7, 4)), st.lists(st.tuples(*[st.integers(0, 255)] * 3), max_size=3), st.integers(0, 255),
    st.integers(0, 255),
)  # fmt: skip
def test_ink_is_what_is_seen_and_far_from_every_ground(
    pixels: np.ndarray, grounds: list[tuple[int, int, int]], tolerance: int, least: int
) -> None:
    wanted = pixels[..., 3] >= least
    for ground in grounds:
        wanted &= np.abs(pixels[..., :3].astype(int) - ground).max(axis=2) > tolerance
    np.testing.assert_array_equal(ink_of(pixels, grounds, tolerance, least), wanted)
