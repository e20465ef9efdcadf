"""Block compression beside Pillow's encoder and imagecodecs' decoder."""

from __future__ import annotations

import io

import imagecodecs
import numpy as np
from PIL import Image
from skimage import data

from benchmarks.measure import seconds, table
from furnel import blocks
from furnel.images.picture import Picture
from furnel.images.resample import level_chain

_PILLOW = {"BC1": ("DXT1", 1), "BC3": ("DXT5", 3)}
_PHOTOS = ("astronaut", "coffee", "chelsea", "rocket", "immunohistochemistry", "hubble_deep_field", "retina")


def main() -> None:
    pictures = {name: _four(getattr(data, name)()) for name in _PHOTOS}
    _quality(pictures)
    _finer_formats({name: picture[:256, :256] for name, picture in pictures.items()}, pictures["astronaut"])
    _light(pictures["astronaut"])
    _speed(np.tile(pictures["astronaut"], (4, 4, 1)))


def _quality(photos: dict[str, np.ndarray]) -> None:
    y, x = np.mgrid[0:512, 0:512]
    gradient = np.stack([x / 2, y / 2, np.full_like(x, 128.0), np.full_like(x, 255.0)], -1).astype(np.uint8)
    soft = photos["coffee"].copy()
    soft[..., 3] = (np.sin(np.mgrid[0 : soft.shape[0], 0 : soft.shape[1]][1] / 40) * 127 + 128).astype(
        np.uint8
    )
    rows = []
    for fmt in _PILLOW:
        for quality in blocks.QUALITIES:
            gains = [_psnr_gain(picture, fmt, quality) for picture in photos.values()]
            special = _psnr(gradient, fmt, quality) if fmt == "BC1" else _psnr_gain(soft, fmt, quality)
            name = "gradient, dB" if fmt == "BC1" else "soft alpha, dB over Pillow"
            rows.append(
                (fmt, quality, f"{np.mean(gains):+.2f}", f"{min(gains):+.2f}", f"{name} {special:.2f}")
            )
    head = ("format", "quality", "dB over Pillow", "worst photo", "apart")
    table("PSNR over seven colour photographs, both decoded here", head, rows)


def _finer_formats(photos: dict[str, np.ndarray], whole: np.ndarray) -> None:
    """BC5 beside Pillow's BC5, BC7 beside Pillow's BC1, on quarters of the photographs: BC7 takes its time."""
    image = Image.fromarray(whole)
    peers = {
        "BC5": lambda: image.convert("RGB").save(io.BytesIO(), "DDS", pixel_format="BC5"),
        "BC7": lambda: image.save(io.BytesIO(), "DDS", pixel_format="DXT1"),
    }
    times = {fmt: seconds(work, 3) for fmt, work in peers.items()}
    rows: list[tuple[str, str, str, float]] = []
    for fmt in peers:
        for quality in blocks.QUALITIES:
            gains = [_finer_gain(picture, fmt, quality) for picture in photos.values()]
            ours = seconds(lambda fmt=fmt, quality=quality: blocks.encode(whole, fmt, quality), 1)
            rows.append((fmt, quality, f"{np.mean(gains):+.2f}", times[fmt] / ours))
        size = (512, 512, 2) if fmt == "BC5" else (512, 512, 4)
        raw = blocks.encode(whole, fmt, "fast")
        number = int(fmt[2])
        codecs = seconds(
            lambda raw=raw, size=size, number=number: imagecodecs.bcn_decode(raw, number, shape=size), 9
        )
        ours = seconds(lambda raw=raw, fmt=fmt: blocks.decode(raw, 512, 512, fmt), 9)
        rows.append((fmt, "decode", "", codecs / ours))
    head = ("format", "quality", "dB over the peer", "times as fast as the peer (decode: imagecodecs)")
    table("BC5 beside Pillow's BC5, BC7 beside Pillow's BC1, on 512 × 512", head, rows)


def _light(whole: np.ndarray) -> None:
    """BC6H beside the plainest encoding, every block's two extremes, on a picture of light with a lamp; speed beside DXT1."""
    y, x = np.mgrid[0:512, 0:512]
    lamp = 40 * np.exp(-((x - 170) ** 2 + (y - 250) ** 2) / 6000)
    light = ((whole[..., :3] / 255.0) ** 2.2 * (0.05 + lamp[..., None])).astype(np.float16)
    wanted = _codes(light)
    tiles = wanted.reshape(128, 4, 128, 4, 3).swapaxes(1, 2).reshape(-1, 16, 3)
    rows, order = np.arange(len(tiles)), tiles.sum(2)
    low, high = tiles[rows, order.argmin(1)][:, None], tiles[rows, order.argmax(1)][:, None]
    nearer = np.abs(tiles - low).sum(2) < np.abs(tiles - high).sum(2)
    crude = np.mean((np.where(nearer[..., None], low, high) - tiles) ** 2.0)
    peer = seconds(lambda: Image.fromarray(whole).save(io.BytesIO(), "DDS", pixel_format="DXT1"), 3)
    rows_out: list[tuple[str, str, float]] = []
    for quality in blocks.QUALITIES:
        raw = blocks.encode(light, "BC6H", quality)
        error = np.mean((_codes(blocks.decode(raw, 512, 512, "BC6H")) - wanted) ** 2.0)
        ours = seconds(lambda quality=quality: blocks.encode(light, "BC6H", quality), 1)
        rows_out.append((quality, f"{10 * np.log10(crude / error):+.2f}", peer / ours))
    raw = blocks.encode(light, "BC6H", "fast")
    codecs = seconds(lambda: imagecodecs.bcn_decode(raw, 6, shape=(512, 512, 3)), 9)
    rows_out.append(
        ("decode, beside imagecodecs", "", codecs / seconds(lambda: blocks.decode(raw, 512, 512, "BC6H"), 9))
    )
    head = ("BC6H", "dB over each block's two extremes", "times Pillow's DXT1")
    table("BC6H on 512 × 512 of light up to 40 times white", head, rows_out)


def _codes(light: np.ndarray) -> np.ndarray:
    """Half-floats' bits, which grow with the light."""
    return np.ascontiguousarray(light).view(np.uint16).astype(np.int64)


def _finer_gain(picture: np.ndarray, fmt: str, quality: blocks.Quality) -> float:
    height, width = picture.shape[:2]
    stream = io.BytesIO()
    peer, code, mode = ("BC5", "BC5", "RGB") if fmt == "BC5" else ("BC1", "DXT1", "RGBA")
    Image.fromarray(picture).convert(mode).save(stream, "DDS", pixel_format=code)
    raw = stream.getvalue()[-(height // 4) * (width // 4) * (16 if fmt == "BC5" else 8) :]
    parts = slice(0, 2) if fmt == "BC5" else slice(0, 4)
    ours = blocks.decode(blocks.encode(picture, fmt, quality), width, height, fmt)
    theirs = blocks.decode(raw, width, height, peer)
    return _error(picture[..., parts], ours[..., parts]) - _error(picture[..., parts], theirs[..., parts])


def _speed(big: np.ndarray) -> None:
    image = Image.fromarray(big)
    height, width = big.shape[:2]
    rows = []
    for fmt, (code, number) in _PILLOW.items():
        peer = seconds(lambda code=code: image.save(io.BytesIO(), "DDS", pixel_format=code), 3)
        for quality in blocks.QUALITIES:
            ours = seconds(
                lambda fmt=fmt, quality=quality: blocks.encode(big, fmt, quality),
                1 if quality == "best" else 3,
            )
            rows.append((f"{fmt} encode {quality}", f"Pillow {code}, one core", peer / ours))
        stream = io.BytesIO()
        image.save(stream, "DDS", pixel_format=code)
        raw = stream.getvalue()
        ours = seconds(lambda raw=raw, fmt=fmt: blocks.decode(raw[128:], width, height, fmt))
        pillow = seconds(lambda raw=raw: Image.open(io.BytesIO(raw)).load())
        codecs = seconds(
            lambda raw=raw, number=number: imagecodecs.bcn_decode(raw[128:], number, shape=(height, width, 4))
        )
        rows.append((f"{fmt} decode", "Pillow", pillow / ours))
        rows.append((f"{fmt} decode", "imagecodecs", codecs / ours))
    picture = Picture(big)
    ours = seconds(lambda: level_chain(picture), 3)
    peer = seconds(lambda: [image.reduce(1 << level) for level in range(1, 12)], 3)
    rows.append(("level chain", "Pillow reduce, not linear", peer / ours))
    table(f"Speed on {width} × {height}: times as fast as the peer", ("what", "peer", "times"), rows)


def _four(pixels: np.ndarray) -> np.ndarray:
    pixels = pixels if pixels.ndim == 3 else np.repeat(pixels[..., None], 3, axis=2)
    height, width = (min(side // 4 * 4, 512) for side in pixels.shape[:2])
    part = pixels[:height, :width, :3]
    return np.ascontiguousarray(np.dstack([part, np.full(part.shape[:2], 255, np.uint8)]))


def _error(first: np.ndarray, second: np.ndarray) -> float:
    return float(
        10 * np.log10(255.0**2 / max(np.mean((first.astype(float) - second.astype(float)) ** 2), 1e-9))
    )


def _psnr(picture: np.ndarray, fmt: str, quality: blocks.Quality) -> float:
    height, width = picture.shape[:2]
    return _compared(picture, blocks.encode(picture, fmt, quality), fmt, width, height)


def _psnr_gain(picture: np.ndarray, fmt: str, quality: blocks.Quality) -> float:
    height, width = picture.shape[:2]
    stream = io.BytesIO()
    Image.fromarray(picture).save(stream, "DDS", pixel_format=_PILLOW[fmt][0])
    theirs = _compared(picture, stream.getvalue()[128:], fmt, width, height)
    return _psnr(picture, fmt, quality) - theirs


def _compared(picture: np.ndarray, encoded: bytes, fmt: str, width: int, height: int) -> float:
    channels = slice(0, 3) if fmt == "BC1" else slice(0, 4)
    return _error(picture[..., channels], blocks.decode(encoded, width, height, fmt)[..., channels])
