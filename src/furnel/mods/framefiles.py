"""Frames of a sheet as files for other programs: an animation, layers, a picture each."""

from __future__ import annotations

import re
from collections.abc import Sequence
from pathlib import Path

import numpy as np

from furnel.atomic import write_bytes
from furnel.imagefiles import Layer, write_animation, write_layers, write_texture
from furnel.images.picture import Picture
from furnel.images.texture import Texture
from furnel.sprites import Grid

Named = Sequence[tuple[str, Picture]]


def frames_in(
    picture: Picture, grid: Grid, names: Sequence[str], cells: Sequence[int]
) -> list[tuple[str, Picture]]:
    """Some cells of a sheet by their names."""
    return [(names[cell], Picture(np.ascontiguousarray(picture.pixels[grid.part(cell)]))) for cell in cells]


def write_as_animation(frames: Named, speed: float, file: Path) -> None:
    """Write an animation: a GIF where the file is called so, an APNG otherwise; `speed` in frames a second."""
    kind = "GIF" if file.suffix.lower() == ".gif" else "APNG"
    write_bytes(file, write_animation([frame for _, frame in frames], round(1000 / speed), kind))  # type: ignore[arg-type]


def write_as_layers(frames: Named, file: Path) -> None:
    """Write an OpenRaster file with a layer a frame, of which the first is seen."""
    write_bytes(
        file, write_layers([Layer(name, frame, place == 0) for place, (name, frame) in enumerate(frames)])
    )


def write_as_files(frames: Named, folder: Path, stem: str = "") -> list[Path]:
    """Write a PNG a frame, `stem_01.png` and so on, or called like the frames; which files these are."""
    out = []
    for place, (name, frame) in enumerate(frames, start=1):
        own, _, number = name.rpartition(" ")
        called = f"{stem}_{place:02}" if stem else f"{re.sub(r'[^A-Za-z0-9_-]+', '_', own)}_{int(number):02}"
        out.append(folder / f"{called}.png")
        texture = Texture(*frame.size, "RGBA8", (frame.pixels.tobytes(),), "PNG")
        write_bytes(out[-1], write_texture(texture))
    return out
