"""Variations of the game's content, small and many, for tests of size: `forge --scale`.

Copy 2n+1 has what copy 2n has, at half the size (pictures, in the folder `small/`) or half the rate (sounds): a tool that finds
the same thing in several sizes has something to find, and the numbers in the names say what is right.
"""

from __future__ import annotations

import io
from pathlib import Path

import numpy as np
import numpy.typing as npt
from PIL import Image

from tarnlight import content, sounds, writers
from tarnlight.art import sprites
from tarnlight.writers import Pixels

Mask = npt.NDArray[np.bool_]

SIDE = 64
_SOUND_FRAMES = 4800


def write_copies(data: Path, seed: int, scale: int) -> int:
    """Write `scale - 1` copies to archives of their own beside the game's; how many assets they are."""
    if scale < 2:
        return 0
    bases = _bases(seed)
    others, masks = list(bases.values()), _masks(seed)
    voices = [sounds.event_sound(event, number, seed)[:_SOUND_FRAMES] for event, number in content.bank()]
    pictures: dict[str, bytes] = {}
    sheets: dict[str, bytes] = {}
    bank: list[bytes] = []
    for copy in range(scale - 1):
        rng = np.random.default_rng([seed, copy // 2])
        small = copy % 2 == 1
        folder, mark = ("small/" if small else ""), f"_{copy // 2:04}"
        for path, (base, _) in bases.items():
            varied = _varied(rng, base, others, masks)
            if path.endswith(".png"):
                sheets[_copied(path, folder, mark)] = _png(_half(varied) if small else varied)
            else:
                fmt = "DXT5" if varied[..., 3].min() < 255 or small != (len(path) % 2 == 0) else "DXT1"
                pictures[_copied(path, folder, mark)] = writers.dds(
                    _half(varied) if small else varied, fmt, 1
                )
        for voice in voices:
            pitch, gain = rng.uniform(0.6, 1.6), rng.uniform(0.3, 1.0)
            places = np.arange(0, len(voice) - 1, pitch)
            wave = np.interp(places, np.arange(len(voice)), voice) * gain
            wave *= 1 + 0.5 * np.sin(np.arange(len(wave)) * rng.uniform(0.0005, 0.01) + rng.uniform(0, 6))
            bank.append(
                writers.wav(wave[::2] / 2 if small else wave / 2, sounds.RATE // 2 if small else sounds.RATE)
            )
    writers.put(data / "more.tlp", writers.tlp(pictures))
    writers.put(data / "more.tlc", writers.tlc(sheets))
    for suffix, part in zip((".tls", ".tlx", ".sum"), writers.tls(bank), strict=True):
        writers.put(data / f"bank1{suffix}", part)
    return len(pictures) + len(sheets) + len(bank)


def _copied(path: str, folder: str, mark: str) -> str:
    head, _, name = path.rpartition("/")
    stem, _, ending = name.rpartition(".")
    return f"more/{head.replace('art/', '')}/{folder}{stem[:12]}{mark}.{ending}"


def _bases(seed: int) -> dict[str, tuple[Pixels, str]]:
    out = {}
    for group in (content.TEXTURES, content.HUD, content.PAPERS):
        for path, (fmt, draw) in group.items():
            if fmt != "BC5":
                picture = Image.fromarray(draw(np.random.default_rng([seed, *path.encode()])))
                picture.thumbnail((SIDE, SIDE))
                out[path] = np.asarray(picture), fmt
    for path, (_, _, _, columns, frames) in content.SHEETS.items():
        if "_near_" not in path:  # the same again, doubled
            out[path] = sprites.sheet(frames(), columns), "PNG"
    return out


def _varied(
    rng: np.random.Generator, base: Pixels, others: list[tuple[Pixels, str]], masks: list[Mask]
) -> Pixels:
    """Another picture of the same family: mirrored, its colours turned, with pieces of another one laid over."""
    height, width = base.shape[:2]
    picture = base[:, ::-1] if rng.random() < 0.5 else base
    turn = np.abs(rng.dirichlet((0.7, 0.7, 0.7), 3)).astype(np.float32) * np.float32(rng.uniform(0.7, 1.3))
    colour = picture[..., :3].astype(np.float32) @ turn.T
    other = others[int(rng.integers(len(others)))][0]
    piece = other[np.arange(height)[:, None] % other.shape[0], np.arange(width) % other.shape[1], :3]
    mask = masks[int(rng.integers(len(masks)))][:height, :width]
    colour = np.where(
        np.roll(mask, rng.integers(0, 64, 2), (0, 1))[..., None], 0.3 * colour + 0.7 * piece, colour
    )
    return np.dstack([np.clip(colour, 0, 255).astype(np.uint8), picture[..., 3]])


def _masks(seed: int) -> list[Mask]:
    """Blots, as large as the largest picture."""
    rng = np.random.default_rng([seed, 64])
    side = 256
    blots = ((rng.random((14, 14)) * 255).astype(np.uint8) for _ in range(16))
    return [
        np.asarray(Image.fromarray(blot).resize((side, side), Image.Resampling.BICUBIC)) > 128
        for blot in blots
    ]


def _half(pixels: Pixels) -> Pixels:
    image = Image.fromarray(pixels)
    size = max(image.width // 2, 4), max(image.height // 2, 4)
    return np.asarray(image.resize(size, Image.Resampling.BOX))


def _png(pixels: Pixels) -> bytes:
    stream = io.BytesIO()
    Image.fromarray(pixels).save(stream, "PNG", compress_level=1)
    return stream.getvalue()
