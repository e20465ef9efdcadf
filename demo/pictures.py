"""The pictures in docs/pictures: what formats do to the game's own art, side by side."""

from __future__ import annotations

import sys
import tempfile
from pathlib import Path

import numpy as np
from PIL import Image, ImageDraw, ImageFont

from firsthour.make import make_game
from firsthour.strangers import make_strangers
from furnel import imagefiles
from furnel.images import Picture, compose
from furnel.images.resample import Filter, level_chain, resize
from furnel.media import PictureSpec
from furnel.mods.build import build
from furnel.mods.deploy import install_mod
from furnel.mods.onsheet import with_each_mirrored
from furnel.mods.workspace import create_project, open_workspace
from tarnlight.art import paint, surfaces
from tarnlight.content import TEXTURES
from tarnlight.scenes import Stage
from tarnlight.world import World

_FONT = Path(__file__).parents[1] / "src" / "furnel" / "desktop" / "fonts"
_GROUND, _INK, _QUIET = (43, 47, 49), (223, 227, 226), (160, 168, 169)
_CELL, _GAP, _HEAD = 224, 14, 46


def make(folder: Path) -> None:
    """Every picture as a PNG in `folder`."""
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(prefix="furnel-pictures-") as scratch:
        (folder / "shore.png").write_bytes(shore_moving(Path(scratch)))
    rng = np.random.default_rng(3)
    sail = Picture(TEXTURES["art/sails/sail_heron.dds"][1](rng))
    pair = _crop(sail, (330, 44, 56, 56))
    _row(folder / "formats-colour.png", [("as drawn", "32 bits a pixel", pair)] + [
        (fmt, f"{bits} bits a pixel", _crop(_as(sail, fmt), (330, 44, 56, 56)))
        for fmt, bits in (("RGB565", 16), ("BC1", 4), ("BC7", 8))
    ])  # fmt: skip
    glow = Picture(surfaces.glow(96, "ffb45a"))
    night = Picture(np.full((96, 96, 4), (26, 42, 58, 255), np.uint8))
    _row(folder / "formats-alpha.png", [
        (fmt, said, compose.over(night, _as(glow, fmt)))
        for fmt, said in (
            ("BC1", "clear or opaque"), ("BC2", "16 steps of alpha"), ("BC3", "smooth"), ("BC7", "smooth, cleaner"),
        )
    ])  # fmt: skip
    relief = paint.noise(rng, 128, 128, 5, 5, 2) * 160
    lamp = (0.3, 0.25, 0.35)
    normals = _normals(relief)
    _row(folder / "formats-normals.png", [
        (fmt, said, compose.lit(_as(normals, fmt), lamp))
        for fmt, said in (("RGBA8", "as drawn"), ("BC1", "4 bits: blocks"), ("BC7", "8 bits"), ("BC5", "8 bits, two"))
    ])  # fmt: skip
    net = _net(128)
    plain, kept = level_chain(net, 4), level_chain(net, 4, "cut-out")
    sky = Picture(np.full((32, 32, 4), (70, 92, 108, 255), np.uint8))
    cells = [
        (name, said, _grown(compose.over(resize(sky, *chain[2].size, "nearest"), _hard(chain[2]))))
        for name, said, chain in (("colour", "gone from afar", plain), ("cut-out", "as dense as near", kept))
    ]  # fmt: skip
    _row(
        folder / "levels-cut-out.png",
        [("near", "level 0", compose.over(resize(sky, *net.size, "nearest"), net)), *cells],
    )
    garbage = imagefiles.encode_texture([sail], "BC1", "DDS")
    wrong = Picture(_misread(garbage.levels[0]))
    small = Picture(sail.pixels[::2, ::2])
    lost = np.full((256, 256, 4), (24, 20, 26, 255), np.uint8)
    stripes = (np.add(*np.mgrid[0:256, 0:256]) // 24) % 2 == 0
    lost[stripes] = (226, 60, 140, 255)
    _row(folder / "gone-wrong.png", [
        ("as it should be", "BC3 where BC3 is read", small), ("wrong format", "BC1 read as BC3", wrong),
        ("wrong size", "480 × 512 read as 512", Picture(_skewed(sail.pixels))),
        ("levels missing", "seen from afar", Picture(lost)),
    ])  # fmt: skip


def _net(side: int) -> Picture:
    """A fishing net: thin cords, clear between them."""
    y, x = np.mgrid[0:side, 0:side]
    cord = ((x + y) % 16 < 2) | ((x - y) % 16 < 2)
    out = np.zeros((side, side, 4), np.uint8)
    out[..., :3] = (214, 196, 150)
    out[..., 3] = np.where(cord, 255, 0)
    return Picture(out)


def _as(picture: Picture, fmt: str) -> Picture:
    return imagefiles.decode_level(imagefiles.encode_texture([picture], fmt, "DDS", quality="good"))


def _crop(picture: Picture, box: tuple[int, int, int, int]) -> Picture:
    left, top, width, height = box
    return Picture(np.ascontiguousarray(picture.pixels[top : top + height, left : left + width]))


def _hard(picture: Picture) -> Picture:
    out = picture.pixels.copy()
    out[..., 3] = np.where(out[..., 3] >= 128, 255, 0)
    return Picture(out)


def _grown(picture: Picture) -> Picture:
    return Picture(picture.pixels.repeat(8, 0).repeat(8, 1))


def _normals(height: np.ndarray) -> Picture:
    dx = (np.roll(height, -1, 1) - np.roll(height, 1, 1)) / 36
    dy = (np.roll(height, -1, 0) - np.roll(height, 1, 0)) / 36
    v = np.stack([-dx, -dy, np.ones_like(dx)], -1)
    v /= np.linalg.norm(v, axis=2, keepdims=True)
    return Picture(np.dstack([np.round((v + 1) * 127.5), np.full(height.shape, 255)]).astype(np.uint8))


def _misread(data: bytes | memoryview) -> np.ndarray:
    """BC1's blocks taken for BC3's: half as many, the rest missing."""
    from furnel import blocks

    return np.asarray(blocks.decode(bytes(data), 512, 256, "BC3"))[::1, ::2]


def _skewed(pixels: np.ndarray) -> np.ndarray:
    """A picture of 480 columns read as if it had 512."""
    narrow = np.ascontiguousarray(pixels[:, :480]).reshape(-1, 4)
    return np.ascontiguousarray(np.resize(narrow, (512 * 512, 4)).reshape(512, 512, 4)[::2, ::2])


def shore_moving(scratch: Path) -> bytes:
    """The game's shore with a stranger's walker and tiles in it, moving, as an APNG."""
    make_game(scratch / "game")
    make_strangers(scratch)
    space = open_workspace(create_project(scratch / "mod", "Walker", scratch / "game"))
    for original, name in (
        ("cast/ferryman_shore.png", "stranger_walker.png"),
        ("tiles/dock.png", "stranger_tiles.png"),
    ):
        swap = space.fitted(space.new_swap(original, scratch / name))
        spec = space.original_spec(original)
        assert isinstance(spec, PictureSpec)
        swap = with_each_mirrored(swap, spec) if "ferryman" in original else swap
        space = space.save(space.project.with_swap(swap))
    build(space)
    install_mod(space.catalogue.install, space.project.mod.id, space.build_folder)
    space.close()
    stage = Stage(World(scratch / "game"), "shore")
    frames = []
    for tick in range(0, 60, 5):
        part = stage.frame(tick)[236:406, 120:440]
        few = (
            Image.fromarray(part)
            .quantize(48, Image.Quantize.MEDIANCUT, dither=Image.Dither.NONE)
            .convert("RGBA")
        )
        frames.append(Picture(np.asarray(few)))
    return imagefiles.write_animation(frames, 166, "APNG")


def _row(file: Path, cells: list[tuple[str, str, Picture]]) -> None:
    """Pictures side by side with a name and a remark each, as large as whole steps allow."""
    width = _GAP + len(cells) * (_CELL + _GAP)
    image = Image.new("RGB", (width, _HEAD + _CELL + _GAP), _GROUND)
    pen = ImageDraw.Draw(image)
    fonts = [
        ImageFont.truetype(str(next(_FONT.glob(f"*{cut}*.otf"))), size)
        for cut, size in (("SemiBold", 15), ("Regular", 12))
    ]
    for place, (name, said, picture) in enumerate(cells):
        left = _GAP + place * (_CELL + _GAP)
        pen.text((left, 7), name, _INK, fonts[0])
        pen.text((left, 27), said, _QUIET, fonts[1])
        wide = max(picture.size)
        how: Filter = "nearest" if wide < _CELL else "area"
        size = (max(round(picture.width * _CELL / wide), 1), max(round(picture.height * _CELL / wide), 1))
        shown = resize(picture, *size, how)
        image.paste(
            Image.fromarray(shown.pixels).convert("RGB"),
            (left + (_CELL - size[0]) // 2, _HEAD + (_CELL - size[1]) // 2),
        )
    image.save(file, optimize=True)


if __name__ == "__main__":
    make(Path(sys.argv[1]))
