"""Block compression, against imagecodecs and Pillow."""

from __future__ import annotations

import io
from fractions import Fraction

import imagecodecs
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from furnel import blocks
from furnel.errors import Cancelled, FurnelError
from furnel.images.formats import FORMATS

CODES = {"BC1": 1, "BC2": 2, "BC3": 3, "BC4": 4, "BC5": 5, "BC7": 7}
CHANNELS = {"BC4": 1, "BC5": 2}  # the rest have four
PILLOW = {"BC1": "DXT1", "BC2": "DXT3", "BC3": "DXT5", "BC5": "BC5"}


def picture(width: int, height: int, alpha: str = "opaque") -> np.ndarray:
    """A smooth picture with an edge in it."""
    y, x = np.mgrid[0:height, 0:width].astype(float)
    red = 128 + 100 * np.sin(x / 9) * np.cos(y / 7)
    green = 255 * x / max(width - 1, 1)
    blue = np.where(x + y > (width + height) / 2, 200.0, 40.0)
    out = np.stack([red, green, blue, np.full_like(x, 255)], -1)
    if alpha == "soft":
        out[..., 3] = 255 * y / max(height - 1, 1)
    if alpha == "cut":
        out[..., 3] = np.where((x // 5 + y // 5) % 2, 255, 0)
    return np.clip(out, 0, 255).astype(np.uint8)


def psnr(first: np.ndarray, second: np.ndarray) -> float:
    return float(
        10 * np.log10(255**2 / max(np.mean((first.astype(float) - second.astype(float)) ** 2), 1e-9))
    )


def theirs(data: bytes, width: int, height: int, fmt: str) -> np.ndarray:
    """imagecodecs' decoding, with the channels that the format has."""
    channels = CHANNELS.get(fmt, 4)
    shape = (height, width) if channels == 1 else (height, width, channels)
    return np.asarray(imagecodecs.bcn_decode(data, CODES[fmt], shape=shape)).reshape(height, width, channels)


@pytest.mark.parametrize("fmt", CODES)
def test_decoding_random_blocks_is_bit_exact(fmt: str, rng: np.random.Generator) -> None:
    data = rng.integers(0, 256, FORMATS[fmt].level_bytes(256, 256), np.uint8).tobytes()
    ours = blocks.decode(data, 256, 256, fmt)
    channels = CHANNELS.get(fmt, 4)
    np.testing.assert_array_equal(ours[..., :channels], theirs(data, 256, 256, fmt))
    if channels < 4:
        assert (ours[..., channels:3] == 0).all() and (ours[..., 3] == 255).all()


def test_every_mode_of_bc7_and_the_reserved_one_is_bit_exact(rng: np.random.Generator) -> None:
    raw = rng.integers(0, 256, (9 * 256, 16), np.uint8)
    for mode in range(8):
        raw[mode::9, 0] = raw[mode::9, 0] & (~((2 << mode) - 1) & 255) | 1 << mode
    raw[8::9, 0] = 0
    width = 4 * len(raw)
    np.testing.assert_array_equal(
        blocks.decode(raw.tobytes(), width, 4, "BC7"), theirs(raw.tobytes(), width, 4, "BC7")
    )


@pytest.mark.parametrize("fmt", ["BC1", "BC2", "BC3"])
def test_decoding_equal_end_points_and_every_order_is_bit_exact(fmt: str) -> None:
    ends = [0, 1, 0x1F, 0x20, 0x7FF, 0x800, 0xF800, 0xFFFF]
    rows = [bytes([a & 255, a >> 8, b & 255, b >> 8, 0xE4, 0x1B, 0xFF, 0x00]) for a in ends for b in ends]
    if fmt != "BC1":
        rows = [
            bytes([n * 4 % 256, 255 - n * 3 % 256, 0x88, 0xC6, 0xFA, 1, 2, 3]) + row
            for n, row in enumerate(rows)
        ]
    data, width = b"".join(rows), 4 * len(rows)
    np.testing.assert_array_equal(blocks.decode(data, width, 4, fmt), theirs(data, width, 4, fmt))


def half_floats(width: int, height: int, signed: bool) -> np.ndarray:
    """A picture of light with a lamp in it, 40 times as bright as white."""
    y, x = np.mgrid[0:height, 0:width]
    lamp = 40 * np.exp(-((x - width / 3) ** 2 + (y - height / 2) ** 2) / (width * 2))
    base = picture(width, height)[..., :3].astype(float) / 255
    return (base**2.2 * (0.05 + lamp[..., None]) - (0.3 if signed else 0)).astype(np.float16)


def codes(halves: np.ndarray) -> np.ndarray:
    """The half-floats' bits as numbers that grow with them."""
    bits = np.ascontiguousarray(halves).view(np.uint16).astype(int)
    return np.where(bits & 0x8000, -(bits & 0x7FFF), bits)


@pytest.mark.parametrize("fmt", ["BC6H", "BC6HS"])
def test_decoding_random_light_is_bit_exact(fmt: str, rng: np.random.Generator) -> None:
    data = rng.integers(0, 256, FORMATS[fmt].level_bytes(256, 256), np.uint8).tobytes()
    ours = blocks.decode(data, 256, 256, fmt)
    peer = imagecodecs.bcn_decode(data, -6 if fmt == "BC6HS" else 6, shape=(256, 256, 3))
    assert ours.dtype == np.float16
    np.testing.assert_array_equal(ours.view(np.uint16), np.asarray(peer).view(np.uint16))


@pytest.mark.parametrize("fmt", ["BC6H", "BC6HS"])
def test_light_is_far_closer_than_the_two_extremes_of_each_block(fmt: str) -> None:
    light = half_floats(64, 48, fmt == "BC6HS")
    wanted = codes(light)
    tiles = wanted.reshape(12, 4, 16, 4, 3).swapaxes(1, 2).reshape(-1, 16, 3)
    order = tiles.sum(2)
    rows = np.arange(len(tiles))
    low, high = tiles[rows, order.argmin(1)][:, None], tiles[rows, order.argmax(1)][:, None]
    nearer = np.abs(tiles - low).sum(2) < np.abs(tiles - high).sum(2)
    crude = np.mean((np.where(nearer[..., None], low, high) - tiles) ** 2)
    errors = []
    for quality in blocks.QUALITIES:
        encoded = blocks.encode(light, fmt, quality)
        decoded = blocks.decode(encoded, 64, 48, fmt)
        peer = imagecodecs.bcn_decode(encoded, -6 if fmt == "BC6HS" else 6, shape=(48, 64, 3))
        np.testing.assert_array_equal(codes(decoded), codes(np.asarray(peer)))
        errors.append(np.mean((codes(decoded) - wanted) ** 2))
    assert errors[0] >= errors[1] >= errors[2] and 10 * np.log10(crude / errors[1]) > 10


def test_light_that_no_half_float_holds_becomes_the_nearest() -> None:
    light = (
        np.array([np.inf, -np.inf, np.nan, 65504, -1, 0], np.float16).repeat(3).reshape(1, 6, 3).repeat(4, 0)
    )
    plain = blocks.decode(blocks.encode(light, "BC6H", "best"), 6, 4, "BC6H")
    assert np.isfinite(plain).all() and plain.min() >= 0 and plain[0, 0, 0] > 60000


def test_signed_blocks_are_what_the_specification_says(rng: np.random.Generator) -> None:
    """The plain statement of a signed block, in exact fractions."""
    raw = rng.integers(0, 256, (200, 8), np.uint8)
    raw[:4, 0] = 128  # -128 stands for -127
    ours = blocks.decode(raw.tobytes(), 800, 4, "BC4S")
    for block, data in enumerate(raw):
        a, b = (max(int(np.int8(end)), -127) for end in data[:2])
        if a > b:
            values = [Fraction(a), Fraction(b)] + [Fraction((7 - k) * a + k * b, 7) for k in range(1, 7)]
        else:
            values = (
                [Fraction(a), Fraction(b)]
                + [Fraction((5 - k) * a + k * b, 5) for k in range(1, 5)]
                + [Fraction(-127), Fraction(127)]
            )
        bits = int.from_bytes(data[2:].tobytes(), "little")
        for pixel in range(16):
            value = values[bits >> 3 * pixel & 7]
            wanted = int((value + 127) * 255 / 254 + Fraction(1, 2))
            assert ours[pixel // 4, block * 4 + pixel % 4, 0] == wanted


@pytest.mark.parametrize("fmt", ["BC4S", "BC5S"])
def test_a_signed_normal_map_is_as_close_as_an_unsigned_one(fmt: str) -> None:
    pixels = picture(64, 48)
    decoded = blocks.decode(blocks.encode(pixels, fmt, "good"), 64, 48, fmt)
    parts = slice(0, 1 if fmt == "BC4S" else 2)
    unsigned = blocks.decode(blocks.encode(pixels, fmt[:3], "good"), 64, 48, fmt[:3])
    assert psnr(pixels[..., parts], decoded[..., parts]) > psnr(pixels[..., parts], unsigned[..., parts]) - 2


@pytest.mark.parametrize("fmt", ["BC1", "BC3"])
def test_weighed_as_seen_green_comes_closer_and_blue_pays(fmt: str) -> None:
    pixels = np.random.default_rng(8).integers(0, 256, (64, 64, 4), np.uint8).repeat(2, 0).repeat(2, 1)
    pixels[..., 3] = 255
    even, seen = (
        blocks.decode(blocks.encode(pixels, fmt, as_seen=on), 128, 128, fmt) for on in (False, True)
    )
    assert psnr(pixels[..., 1], seen[..., 1]) > psnr(pixels[..., 1], even[..., 1]) + 0.5
    assert psnr(pixels[..., 2], seen[..., 2]) < psnr(pixels[..., 2], even[..., 2])
    luma = np.array([0.2126, 0.7152, 0.0722])
    assert psnr(pixels[..., :3] @ luma, seen[..., :3] @ luma) > psnr(
        pixels[..., :3] @ luma, even[..., :3] @ luma
    )


def test_bc1_without_clear_pixels_when_asked() -> None:
    pixels = picture(32, 32, "cut")
    assert (blocks.decode(blocks.encode(pixels, "BC1", cut_out=False), 32, 32, "BC1")[..., 3] == 255).all()


@given(
    width=st.integers(1, 23), height=st.integers(1, 23), fmt=st.sampled_from(sorted(CODES)), data=st.data()
)
def test_any_size_goes_there_and_back(width: int, height: int, fmt: str, data: st.DataObject) -> None:
    colour = data.draw(st.tuples(*[st.integers(0, 255)] * 3))
    pixels = np.full((height, width, 4), (*colour, 255), np.uint8)
    encoded = blocks.encode(pixels, fmt, data.draw(st.sampled_from(blocks.QUALITIES)))
    assert len(encoded) == FORMATS[fmt].level_bytes(width, height)
    decoded = blocks.decode(encoded, width, height, fmt)
    assert decoded.shape == pixels.shape
    channels = CHANNELS.get(fmt, 4)
    assert np.abs(decoded[..., :channels].astype(int) - pixels[..., :channels]).max() <= (
        4 if fmt == "BC2" else 3
    )


@pytest.mark.parametrize("fmt", PILLOW)
@pytest.mark.parametrize("alpha", ["opaque", "soft"])
def test_better_quality_is_never_worse_and_beats_pillow(fmt: str, alpha: str) -> None:
    if fmt == "BC1" and alpha == "soft":
        alpha = "opaque"
    pixels = picture(128, 96, alpha)
    stream = io.BytesIO()
    Image.fromarray(pixels).convert("RGB" if fmt == "BC5" else "RGBA").save(
        stream, "DDS", pixel_format=PILLOW[fmt]
    )
    parts = slice(0, 2) if fmt == "BC5" else slice(0, 3) if fmt == "BC2" else slice(0, 4)
    start = len(stream.getvalue()) - FORMATS[fmt].level_bytes(128, 96)

    def likeness(data: bytes) -> float:
        return psnr(pixels[..., parts], blocks.decode(data, 128, 96, fmt)[..., parts])

    peer = likeness(stream.getvalue()[start:])
    ours = [likeness(blocks.encode(pixels, fmt, quality)) for quality in blocks.QUALITIES]
    assert peer < ours[0] <= ours[1] + 0.01 <= ours[2] + 0.02


@pytest.mark.parametrize("alpha", ["opaque", "soft", "cut"])
def test_bc7_is_far_closer_than_bc3_and_better_with_more_effort(alpha: str) -> None:
    pixels = picture(64, 48, alpha)
    seen = pixels[..., 3] > 0
    bc3 = psnr(pixels[seen], blocks.decode(blocks.encode(pixels, "BC3", "best"), 64, 48, "BC3")[seen])
    ours = [
        psnr(pixels[seen], blocks.decode(blocks.encode(pixels, "BC7", q), 64, 48, "BC7")[seen])
        for q in blocks.QUALITIES
    ]
    gain = {"opaque": 4.0, "soft": 2.5, "cut": 1.0}[alpha]
    assert bc3 + gain < ours[0] <= ours[1] + 0.01 <= ours[2] + 0.02
    best = blocks.encode(pixels, "BC7", "best")
    np.testing.assert_array_equal(theirs(best, 64, 48, "BC7"), blocks.decode(best, 64, 48, "BC7"))


def test_best_is_nearly_the_optimum_of_a_full_search() -> None:
    """The plain statement: every pair of end points on the line between two colours, for a two-colour block."""
    pixels = np.zeros((4, 4, 4), np.uint8)
    pixels[..., 3] = 255
    pixels[:2, :, :3] = (200, 40, 90)
    pixels[2:, :, :3] = (30, 160, 220)
    decoded = blocks.decode(blocks.encode(pixels, "BC1", "best"), 4, 4, "BC1").astype(int)
    assert np.abs(decoded - pixels).max() <= 4


def test_smooth_gradients_stay_smooth() -> None:
    y, x = np.mgrid[0:256, 0:256]
    pixels = np.stack([x, y, np.full_like(x, 128), np.full_like(x, 255)], -1).astype(np.uint8)
    assert psnr(pixels, blocks.decode(blocks.encode(pixels, "BC1", "good"), 256, 256, "BC1")) > 46


def test_clear_pixels_stay_clear_and_cost_nothing() -> None:
    pixels = picture(32, 32, "cut")
    cut = blocks.decode(blocks.encode(pixels, "BC1"), 32, 32, "BC1")
    np.testing.assert_array_equal(cut[..., 3], pixels[..., 3])
    noisy = pixels.copy()
    noisy[pixels[..., 3] == 0, :3] = np.random.default_rng(1).integers(
        0, 256, (np.count_nonzero(pixels[..., 3] == 0), 3)
    )
    seen = pixels[..., 3] > 0
    for fmt in ("BC1", "BC2", "BC3", "BC7"):
        calm_error = psnr(pixels[seen], blocks.decode(blocks.encode(pixels, fmt), 32, 32, fmt)[seen])
        noisy_error = psnr(noisy[seen], blocks.decode(blocks.encode(noisy, fmt), 32, 32, fmt)[seen])
        assert noisy_error == pytest.approx(calm_error, abs=0.01)


def test_alpha_of_only_clear_and_opaque_is_exact() -> None:
    pixels = picture(32, 32, "cut")
    np.testing.assert_array_equal(
        blocks.decode(blocks.encode(pixels, "BC3"), 32, 32, "BC3")[..., 3], pixels[..., 3]
    )


def test_the_same_pixels_give_the_same_bytes_on_any_thread() -> None:
    pixels = picture(300, 200, "soft")
    assert blocks.encode(pixels, "BC3") == blocks.encode(np.asfortranarray(pixels), "BC3")


@pytest.mark.parametrize(
    ("call", "says"),
    [
        (lambda: blocks.decode(b"", 4, 4, "BC1"), "needs 8 bytes"),
        (lambda: blocks.decode(bytes(8), 0, 4, "BC1"), "at least one pixel"),
        (lambda: blocks.decode(bytes(8), 4, 4, "BC9"), "no block format"),
        (lambda: blocks.encode(np.zeros((4, 4, 3), np.uint8), "BC1"), "pixels are"),
        (lambda: blocks.encode(np.zeros((4, 4, 4), np.uint8), "BC1", "super"), "no quality"),  # type: ignore[arg-type]
    ],
)
def test_nonsense_is_refused(call: object, says: str) -> None:
    with pytest.raises(FurnelError, match=says):
        call()  # type: ignore[operator]


def test_a_long_encoding_says_where_it_is_and_stops_when_asked() -> None:
    class Watched:
        def __init__(self, patience: int) -> None:
            self.said: list[float] = []
            self.patience = patience

        def report(self, fraction: float, text: str) -> None:
            assert "BC7 good" in text
            self.said.append(fraction)

        def cancelled(self) -> bool:
            return len(self.said) >= self.patience

    pixels, calm, hasty = picture(128, 256), Watched(1 << 30), Watched(3)
    assert blocks.encode(pixels, "BC7", "good", calm) == blocks.encode(pixels, "BC7", "good")
    assert calm.said == sorted(calm.said) and calm.said[-1] == 1.0 and len(calm.said) > 20
    with pytest.raises(Cancelled):
        blocks.encode(pixels, "BC7", "good", hasty)
    assert len(hasty.said) < len(calm.said) + 1
