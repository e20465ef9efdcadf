"""What is done to pictures: cutting, placing, colours, alpha, patterns, level filters, and putting together."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.errors import FurnelError
from furnel.images import Picture, alpha, compose, detail, geometry, tones
from furnel.images.colour import brightness
from furnel.images.resample import LEVELS_AS, level_chain


def noise(width: int = 32, height: int = 24, seed: int = 1, opaque: bool = True) -> Picture:
    pixels = np.random.default_rng(seed).integers(0, 256, (height, width, 4), np.uint8)
    if opaque:
        pixels[..., 3] = 255
    return Picture(pixels)


def flat(colour: tuple[int, ...], width: int = 16, height: int = 12) -> Picture:
    return Picture(np.full((height, width, 4), (*colour, 255)[:4], np.uint8))


def smooth(width: int = 64, height: int = 64) -> Picture:
    y, x = np.mgrid[0:height, 0:width]
    parts = [
        40 + x * 150 / width,
        60 + y * 120 / height,
        90 + (x + y) * 60 / (width + height),
        np.full_like(x, 255),
    ]
    return Picture(np.stack(parts, -1).astype(np.uint8))


def near(first: np.ndarray, second: object, most: int) -> bool:
    return bool(np.abs(first.astype(int) - np.asarray(second)).max() <= most)


def test_cropping_takes_what_is_inside_and_refuses_what_is_not() -> None:
    picture = noise()
    np.testing.assert_array_equal(geometry.cropped(picture, (3, 4, 5, 6)).pixels, picture.pixels[4:10, 3:8])
    assert geometry.cropped(picture, (30, 20, 50, 50)).size == (2, 4)
    with pytest.raises(FurnelError, match="outside"):
        geometry.cropped(picture, (40, 0, 5, 5))


@given(st.integers(0, 3), st.sampled_from(["no", "across", "down"]))
def test_turning_and_turning_back_changes_nothing(quarters: int, mirror: str) -> None:
    picture = noise()
    there = geometry.turned(picture, quarters, mirror)  # type: ignore[arg-type]
    back = geometry.turned(geometry.turned(there, 0, mirror), -quarters, "no")  # type: ignore[arg-type]
    np.testing.assert_array_equal(back.pixels, picture.pixels)
    assert there.size == (picture.size if quarters % 2 == 0 else picture.size[::-1])


def test_a_placed_picture_stays_in_its_area_and_the_originals_alpha_stays() -> None:
    base = noise(40, 40, opaque=False)
    out = geometry.placed(base, flat((200, 30, 60)), (10, 8, 16, 12))
    np.testing.assert_array_equal(out.pixels[..., 3], base.pixels[..., 3])
    assert near(out.pixels[8:20, 10:26, :3], (200, 30, 60), 1)
    outside = np.ones((40, 40), bool)
    outside[8:20, 10:26] = False
    np.testing.assert_array_equal(out.pixels[outside], base.pixels[outside])
    soft = geometry.placed(flat((0, 0, 0), 40, 40), flat((200, 200, 200)), (10, 8, 16, 12), feather=4)
    assert soft.pixels[8, 10, 0] < 40 and soft.pixels[14, 18, 0] == 200
    with pytest.raises(FurnelError, match="outside"):
        geometry.placed(base, base, (50, 50, 4, 4))


def test_an_area_that_the_game_widens_gets_a_picture_squeezed_as_much() -> None:
    """A disc placed where the game shows everything twice as wide must be half as wide as tall."""
    y, x = np.mgrid[0:80, 0:80]
    disc = Picture(
        np.where(((x - 40) ** 2 + (y - 40) ** 2 < 900)[..., None], 255, 0).repeat(4, 2).astype(np.uint8)
    )
    disc.pixels[..., 3] = 255
    out = geometry.placed(flat((0, 0, 0), 100, 100), disc, (10, 10, 40, 80), stretch=2.0).pixels[..., 0] > 128
    wide, high = np.ptp(np.flatnonzero(out.any(0))), np.ptp(np.flatnonzero(out.any(1)))
    assert wide * 2 == pytest.approx(high, abs=3)


def test_a_turned_hue_keeps_the_lightness_and_comes_back() -> None:
    picture = smooth()
    turned = tones.hue_turned(picture, 120, 0, 0)
    assert not near(turned.pixels, picture.pixels, 20)
    light, after = tones.to_oklab(picture.pixels)[..., 0], tones.to_oklab(turned.pixels)[..., 0]
    assert np.abs(light - after).max() < 0.02
    muted = tones.hue_turned(picture, 0, -60, 0)  # so that no hue leaves what sRGB has
    back = tones.hue_turned(tones.hue_turned(muted, 120, 0, 0), -120, 0, 0)
    assert near(back.pixels, muted.pixels, 3)
    grey = flat((90, 90, 90))
    assert near(tones.hue_turned(grey, 77, 50, 0).pixels, grey.pixels, 1)


def test_only_hues_within_reach_are_turned() -> None:
    both = Picture(np.concatenate([flat((200, 40, 30)).pixels, flat((40, 60, 200)).pixels]))
    out = tones.hue_turned(both, 90, 0, 0, around=29, reach=40).pixels
    assert not near(out[:12], both.pixels[:12], 30) and near(out[12:], both.pixels[12:], 1)


@pytest.mark.parametrize("how", ["mean and spread", "whole distribution"])
def test_matched_tones_are_the_originals(how: str) -> None:
    bright, dark = smooth(), Picture((smooth().pixels * [0.4, 0.5, 0.6, 1]).astype(np.uint8))
    out = tones.matched(bright, dark, how, 100)  # type: ignore[arg-type]
    assert brightness(out.pixels) == pytest.approx(brightness(dark.pixels), abs=0.02)
    assert tones.contrast(out) == pytest.approx(tones.contrast(dark), abs=0.02)
    np.testing.assert_array_equal(tones.matched(bright, dark, how, 0).pixels, bright.pixels)  # type: ignore[arg-type]


def test_a_curve_goes_through_its_points_and_leaves_the_other_channels() -> None:
    ramp = Picture(np.repeat(np.arange(256, dtype=np.uint8)[None, :, None], 4, 2))
    out = tones.through_curve(ramp, (20, 90, 150, 200, 230), "red").pixels[0]
    assert [int(out[tone, 0]) for tone in (0, 255)] == [20, 230] and abs(int(out[128, 0]) - 150) <= 1
    assert (np.diff(out[:, 0].astype(int)) >= 0).all()
    np.testing.assert_array_equal(out[:, 1:], ramp.pixels[0, :, 1:])
    straight = tones.through_curve(ramp, (0, 63.75, 127.5, 191.25, 255), "colours")
    np.testing.assert_array_equal(straight.pixels, ramp.pixels)
    np.testing.assert_array_equal(tones.with_contrast(ramp, 0, 1).pixels, ramp.pixels)


def test_a_replaced_colour_keeps_its_light_and_dark() -> None:
    shades = Picture(np.concatenate([flat((108, 18, 18), 4, 4).pixels, flat((180, 30, 30), 4, 4).pixels]))
    out = tones.replaced(shades, (180, 30, 30), (20, 60, 200), 60, 1, True).pixels
    assert near(out[4:, :, :3], (20, 60, 200), 14) and out[0, 0, 2] < out[7, 0, 2] - 40
    other = flat((10, 200, 10))
    np.testing.assert_array_equal(
        tones.replaced(other, (180, 30, 30), (0, 0, 255), 20, 0, False).pixels, other.pixels
    )


def test_channels_are_mixed_packed_and_turned_over() -> None:
    picture, other = noise(seed=1, opaque=False), noise(seed=2, opaque=False)
    out = tones.mixed(picture, ("alpha", "green turned over", "other's red", "full"), other).pixels
    np.testing.assert_array_equal(out[..., 0], picture.pixels[..., 3])
    np.testing.assert_array_equal(out[..., 1], 255 - picture.pixels[..., 1])
    np.testing.assert_array_equal(out[..., 2], other.pixels[..., 0])
    assert (out[..., 3] == 255).all()
    with pytest.raises(FurnelError, match="another size"):
        tones.mixed(picture, ("other's red", "0", "0", "0"), noise(5, 5))


def test_few_colours_are_the_originals_and_clear_stays_clear() -> None:
    table = np.array([[10, 20, 30, 255], [200, 180, 160, 255], [0, 0, 0, 0]], np.uint8)
    picture = noise(opaque=False)
    out = tones.few_colours(picture, 16, table, False).pixels
    assert {tuple(colour) for colour in out.reshape(-1, 4)} <= {
        (10, 20, 30, 255),
        (200, 180, 160, 255),
        (0, 0, 0, 0),
    }
    np.testing.assert_array_equal(out[..., 3] == 0, picture.pixels[..., 3] < 128)
    best = tones.colours_of(tones.few_colours(noise(), 8, None, True))
    assert best is not None and len(best) <= 8


def test_a_colour_taken_out_of_the_blend_gives_the_picture_back_over_it() -> None:
    picture, colour = noise(), (30, 90, 200)
    out = alpha.unblended(picture, colour)
    share = out.pixels[..., 3:] / 255
    over = out.pixels[..., :3] * share + np.array(colour) * (1 - share)
    assert near(over, picture.pixels[..., :3], 2)
    assert out.pixels[..., 3].min() < 255


def test_colour_spreads_under_clear_pixels_and_is_told() -> None:
    picture = noise(20, 20)
    picture.pixels[5:15, 5:15] = 0
    assert alpha.under_alpha(picture.pixels) == "black"
    out = alpha.spread_under(picture)
    assert (out.pixels[8, 5, :3] == picture.pixels[8, 4, :3]).all() and out.pixels[8, 5, 3] == 0
    assert alpha.under_alpha(out.pixels) in ("spread", "mixed")
    assert alpha.under_alpha(alpha.filled_under(picture, (255, 255, 255)).pixels) == "white"
    assert alpha.under_alpha(noise().pixels) == "none"


def test_a_pattern_keeps_folds_and_alpha_and_follows_its_own_colour() -> None:
    y, x = np.mgrid[0:96, 0:96]
    folds = 110 + 70 * np.sin(x / 8)
    base = Picture(np.stack([folds, folds, folds, np.where(x + y > 30, 255, 0)], -1).astype(np.uint8))
    out = detail.patterned(base, flat((180, 40, 40)), scale=100, degrees=20, folds=100, detail=100, colour=0)
    seen = base.pixels[..., 3] > 0
    np.testing.assert_array_equal(out.pixels[..., 3], base.pixels[..., 3])
    assert np.corrcoef(out.pixels[..., 0][seen], folds[seen])[0, 1] > 0.97
    assert (out.pixels[..., 0][seen] > out.pixels[..., 1][seen]).all()
    plain = detail.patterned(base, flat((180, 40, 40)), scale=100, degrees=0, folds=0, detail=0, colour=0)
    assert near(plain.pixels[seen][:, :3], (180, 40, 40), 1)


@pytest.mark.parametrize("tiles", ["across", "down", "both"])
def test_a_blended_seam_is_gone_and_the_middle_stays(tiles: str) -> None:
    picture = smooth()
    assert detail.seam(picture.pixels, 1) > 10
    out = detail.seamless(picture, tiles, 20)  # type: ignore[arg-type]
    for axis, wanted in ((1, ("across", "both")), (0, ("down", "both"))):
        assert (detail.seam(out.pixels, axis) < 3) == (tiles in wanted)
    assert near(out.pixels[20:44, 20:44], picture.pixels[20:44, 20:44], 1)


def test_sharper_is_sharper_and_softer_is_softer() -> None:
    edge = Picture(np.concatenate([flat((60, 60, 60)).pixels, flat((180, 180, 180)).pixels]))
    step = np.ptp(detail.sharpened(edge, 100, 1.0).pixels[..., 0].astype(int))
    assert step > 125 > np.ptp(np.diff(detail.softened(edge, 2.0).pixels[:, 0, 0].astype(int)))


@pytest.mark.parametrize("levels_as", LEVELS_AS)
@pytest.mark.parametrize("size", [(32, 16), (37, 22), (1, 9)])
def test_every_kind_of_level_keeps_a_flat_picture(levels_as: str, size: tuple[int, int]) -> None:
    picture = flat((128, 128, 255), *size)
    for level, smaller in enumerate(level_chain(picture, None, levels_as, "both")):  # type: ignore[arg-type]
        assert smaller.size == (max(size[0] >> level, 1), max(size[1] >> level, 1))
        assert near(smaller.pixels, picture.pixels[0, 0], 1)


def test_smaller_normals_are_one_long() -> None:
    rng = np.random.default_rng(4)
    v = rng.normal((0, 0, 1.2), 0.5, (64, 64, 3))
    v /= np.linalg.norm(v, axis=2, keepdims=True)
    pixels = np.dstack([np.round((v + 1) * 127.5), np.full((64, 64), 255)]).astype(np.uint8)
    for level in level_chain(Picture(pixels), 5, "normals")[1:]:
        length = np.linalg.norm(level.pixels[..., :3] / 127.5 - 1, axis=2)
        assert np.abs(length - 1).max() < 0.02
    two = pixels.copy()
    two[..., 2] = 0
    assert all(level.pixels[..., 2].max() == 0 for level in level_chain(Picture(two), 5, "normals"))


def test_a_cut_out_stays_as_dense_from_afar() -> None:
    rng = np.random.default_rng(5)
    pixels = np.full((128, 128, 4), 200, np.uint8)
    pixels[..., 3] = np.where(rng.random((128, 128)) < 0.3, 255, 0)
    plain, kept = (level_chain(Picture(pixels), 5, kind) for kind in ("colour", "cut-out"))
    assert (plain[2].pixels[..., 3] >= 128).mean() < 0.15
    for level in kept[1:]:
        assert (level.pixels[..., 3] >= 128).mean() == pytest.approx(0.3, abs=0.08)


def test_crisp_levels_look_over_the_edge_of_what_repeats() -> None:
    picture = noise(64, 64)
    rolled = Picture(np.roll(picture.pixels, (16, 32), (0, 1)))
    one = level_chain(picture, 2, "crisp", "both")[1].pixels
    other = level_chain(rolled, 2, "crisp", "both")[1].pixels
    assert near(np.roll(one, (8, 16), (0, 1)), other, 1)


def test_a_gauge_fills_from_below_and_a_tint_multiplies() -> None:
    base, level = flat((10, 20, 30), 20, 20), flat((250, 120, 0), 20, 20)
    half = compose.gauge(base, level, None, 0.5).pixels
    assert near(half[:10, :, :3], (10, 20, 30), 0) and near(half[10:, :, :3], (250, 120, 0), 0)
    assert near(compose.tinted(flat((255, 128, 0)), (100, 100, 100)).pixels[..., :3], (100, 50, 0), 0)
    glow = Picture(np.full((20, 20, 4), (255, 255, 255, 128), np.uint8))
    assert compose.added(base, glow).pixels[0, 0, 0] == pytest.approx(10 + 128, abs=2)


def test_a_lamp_lights_the_side_that_faces_it() -> None:
    tilted = np.full((40, 40, 4), (128, 128, 255, 255), np.uint8)
    tilted[:, :20, :2] = (210, 128)  # faces right
    out = compose.lit(Picture(tilted), (1.0, 0.5, 0.3)).pixels[..., 0].astype(int)
    other = compose.lit(Picture(tilted), (0.0, 0.5, 0.3)).pixels[..., 0].astype(int)
    assert out[20, 15] > other[20, 15]
