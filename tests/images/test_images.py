"""Sizes and levels in linear light, weighted by alpha."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.errors import FurnelError
from furnel.images import Picture, full_levels
from furnel.images.colour import alpha_use, brightness, to_linear, to_srgb
from furnel.images.resample import FILTERS, Filter, level_chain, looks_drawn_in_pixels, resize


def flat(colour: tuple[int, int, int, int], width: int = 8, height: int = 8) -> Picture:
    return Picture(np.full((height, width, 4), colour, np.uint8))


def test_srgb_values_survive_linear_light() -> None:
    values = np.arange(256, dtype=np.uint8)
    np.testing.assert_array_equal(to_srgb(to_linear(values)), values)


@given(
    st.integers(1, 40), st.integers(1, 40), st.integers(1, 40), st.integers(1, 40), st.sampled_from(FILTERS),
    st.tuples(*[st.integers(0, 255)] * 3),
)  # fmt: skip
def test_a_flat_picture_keeps_its_colour_at_any_size(
    w: int, h: int, nw: int, nh: int, how: str, colour: tuple[int, ...]
) -> None:
    grown = resize(flat((*colour, 255), w, h), nw, nh, how)  # type: ignore[arg-type]
    assert grown.size == (nw, nh)
    assert np.abs(grown.pixels[..., :3].astype(int) - colour).max() <= 1
    assert (grown.pixels[..., 3] == 255).all()


def test_averages_are_made_of_light_not_of_codes() -> None:
    pixels = np.zeros((2, 2, 4), np.uint8)
    pixels[..., 3] = 255
    pixels[0, :, :3] = 255
    assert resize(Picture(pixels), 1, 1, "area").pixels[0, 0, 0] == 188
    assert level_chain(Picture(pixels))[1].pixels[0, 0, 0] == 188


def test_hidden_colour_does_not_bleed() -> None:
    pixels = np.zeros((4, 4, 4), np.uint8)
    pixels[:, :2] = (200, 100, 50, 255)
    pixels[:, 2:] = (0, 255, 0, 0)
    small = resize(Picture(pixels), 1, 1, "area").pixels[0, 0]
    assert np.abs(small[:3].astype(int) - (200, 100, 50)).max() <= 1
    assert small[3] == 128


def test_nearest_keeps_exact_colours_and_whole_steps() -> None:
    pixels = np.random.default_rng(2).integers(0, 256, (5, 7, 4), np.uint8)
    grown = resize(Picture(pixels), 21, 15, "nearest")
    np.testing.assert_array_equal(grown.pixels, pixels.repeat(3, 0).repeat(3, 1))
    np.testing.assert_array_equal(resize(grown, 7, 5, "nearest").pixels, pixels)


@given(st.integers(1, 70), st.integers(1, 70))
def test_a_full_chain_ends_at_one_pixel(width: int, height: int) -> None:
    chain = level_chain(flat((10, 200, 90, 255), width, height))
    assert len(chain) == full_levels(width, height)
    assert chain[-1].size == (1, 1)
    assert np.abs(chain[-1].pixels[0, 0].astype(int) - (10, 200, 90, 255)).max() <= 1


def test_levels_agree_with_a_plain_average() -> None:
    pixels = np.random.default_rng(3).integers(0, 256, (16, 16, 4), np.uint8)
    pixels[..., 3] = 255
    light = to_linear(pixels[..., :3]).reshape(4, 4, 4, 4, 3).mean(axis=(1, 3))
    got = level_chain(Picture(pixels), 3)[2].pixels[..., :3]
    assert np.abs(got.astype(int) - to_srgb(light.astype(np.float32))).max() <= 1


def test_what_alpha_is_used_for() -> None:
    soft = flat((1, 2, 3, 255)).pixels.copy()
    soft[:, :, 3] = np.linspace(0, 255, 8)
    cut = flat((1, 2, 3, 255)).pixels.copy()
    cut[:4, :, 3] = 0
    assert [alpha_use(p) for p in (flat((1, 2, 3, 255)).pixels, cut, soft)] == ["none", "cut-out", "smooth"]


def test_brightness_counts_only_what_is_seen() -> None:
    assert brightness(flat((255, 255, 255, 255)).pixels) == pytest.approx(1.0)
    assert brightness(flat((255, 255, 255, 0)).pixels) == 0.0


def test_pixel_art_is_recognised() -> None:
    from tarnlight.art.sprites import OTTER, otter_walk, sheet

    assert looks_drawn_in_pixels(Picture(sheet(otter_walk(OTTER), 6)))
    assert not looks_drawn_in_pixels(
        Picture(np.random.default_rng(1).integers(0, 256, (64, 64, 4), np.uint8))
    )


def test_absurd_sizes_are_refused() -> None:
    with pytest.raises(FurnelError, match="pixels"):
        resize(flat((0, 0, 0, 0)), 1 << 20, 1 << 20)
    with pytest.raises(FurnelError, match="not \\(height, width, 4\\)"):
        Picture(np.zeros((3, 3), np.uint8))


def test_a_very_large_picture_is_brought_to_size_as_by_light_itself() -> None:
    """Beside arithmetic in double precision: the mean of the light below each pixel."""
    rng = np.random.default_rng(7)
    coarse = rng.integers(0, 256, (32, 32, 4)).astype(np.uint8)
    coarse[..., 3] = np.where(rng.random((32, 32)) < 0.3, 0, 255)
    pixels = np.kron(coarse, np.ones((64, 64, 1), np.uint8))  # 2048 × 2048, in areas of one colour
    small = resize(Picture(pixels), 128, 128, "area").pixels.astype(int)
    want = np.kron(coarse, np.ones((4, 4, 1), np.uint8)).astype(int)
    shown = want[..., 3] > 0
    assert np.abs(small - want)[shown].max() <= 1 and (small[~shown] == 0).all()
    light = np.where(pixels <= 10, pixels / 3294.6, ((pixels / 255 + 0.055) / 1.055) ** 2.4)
    alpha = pixels[..., 3] / 255
    mean = (light[..., :3] * alpha[..., None]).mean((0, 1)) / alpha.mean()
    tiny = resize(Picture(pixels), 1, 1, "area").pixels[0, 0]
    shade = np.where(mean <= 0.0031308, mean * 12.92, 1.055 * mean ** (1 / 2.4) - 0.055) * 255
    assert np.abs(tiny[:3] - shade).max() <= 2 and abs(tiny[3] - alpha.mean() * 255) <= 1


@pytest.mark.parametrize("how", ["bicubic", "lanczos"])
def test_the_sharper_filters_make_the_same_of_it_at_once_and_by_halves(
    how: Filter, monkeypatch: pytest.MonkeyPatch
) -> None:
    across, down = np.meshgrid(np.arange(2048) / 2048, np.arange(2048) / 2048)
    waves = [128 + 120 * np.sin(2 * np.pi * (a * across + b * down)) for a, b in ((3, 1), (7, -5), (20, 11))]
    picture = Picture(np.dstack([*waves, np.full_like(across, 255)]).astype(np.uint8))
    by_halves = resize(picture, 200, 160, how).pixels.astype(int)
    monkeypatch.setattr("furnel.images.resample._LARGE", 1 << 40)
    assert np.abs(resize(picture, 200, 160, how).pixels - by_halves).max() <= 2
