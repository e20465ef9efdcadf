"""Figures are found in any picture as their maker drew them, and stand in every cell as the original's do."""

from __future__ import annotations

import json
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image, ImageDraw

from furnel.cli import main
from furnel.errors import FurnelError
from furnel.images import Picture
from furnel.sprites import (
    Bed,
    Placing,
    Spot,
    anchors_of,
    filled,
    grid_of,
    laid_out,
    map_text,
    parse_map,
    poses_of,
    scale_for,
    spread,
    spread_by_time,
)

COAT, SKIN, BOOT = (200, 60, 50), (240, 200, 160), (60, 40, 30)
Box = tuple[int, int, int, int]


def walker(image: Image.Image, left: int, floor: int, stride: int, by: int = 1) -> Box:
    """A small figure that stands on a floor, its legs apart by a stride; its box. A hat floats a pixel over its head."""
    draw = ImageDraw.Draw(image)

    def bar(x: int, y: int, wide: int, high: int, colour: Any) -> None:
        at = left + x * by, floor - (20 - y) * by
        draw.rectangle((*at, at[0] + wide * by - 1, at[1] + high * by - 1), fill=colour)

    bar(3, 0, 6, 1, BOOT)  # the hat, which hangs on nothing
    bar(4, 2, 4, 4, SKIN)
    bar(3, 6, 6, 8, COAT)
    bar(6 - stride, 14, 2, 6, BOOT)
    bar(6 + stride - 2, 14, 2, 6, BOOT)
    first = min(3, 6 - stride)
    last = max(9, 6 + stride)
    return left + first * by, floor - 20 * by, (last - first) * by, 20 * by


def plain(ground: Any) -> tuple[Image.Image, list[Box]]:
    image = Image.new("RGBA" if len(ground) == 4 else "RGB", (120, 70), ground)
    return image, [walker(image, left, floor, 1 + place) for place, (left, floor) in enumerate(
        ((4, 30), (30, 29), (60, 31), (8, 65), (44, 65))
    )]  # fmt: skip


def boxed() -> tuple[Image.Image, list[Box]]:
    """Two ground colours: boxes of one on the other."""
    image = Image.new("RGB", (150, 44), (255, 0, 255))
    boxes = []
    for place in range(4):
        ImageDraw.Draw(image).rectangle((4 + place * 36, 4, 35 + place * 36, 39), fill=(0, 128, 128))
        boxes.append(walker(image, 10 + place * 36, 38, 1 + place % 3))
    return image, boxes


def labelled() -> tuple[Image.Image, list[Box]]:
    """Writing over the row, a signature in the corner, a stray pixel."""
    image = Image.new("RGB", (160, 60), (90, 160, 90))
    ImageDraw.Draw(image).text((3, 2), "walk", fill=(0, 0, 0), font_size=10)
    ImageDraw.Draw(image).text((120, 48), "by me", fill=(30, 30, 30), font_size=9)
    image.putpixel((100, 20), (255, 255, 255))
    return image, [walker(image, 6 + place * 30, 44, 2) for place in range(4)]


def noisy() -> tuple[Image.Image, list[Box]]:
    """A ground that a lossy file made uneven."""
    image, boxes = plain((120, 130, 210))
    pixels = np.asarray(image).astype(int)
    ground = (pixels == (120, 130, 210)).all(axis=2)
    pixels[ground] += np.random.default_rng(1).integers(-3, 4, (int(ground.sum()), 3))
    return Image.fromarray(pixels.astype(np.uint8)), boxes


def doubled() -> tuple[Image.Image, list[Box]]:
    image = Image.new("RGB", (200, 50), (10, 20, 60))
    return image, [walker(image, 8 + place * 44, 46, 2, 2) for place in range(4)]


def soft() -> tuple[Image.Image, list[Box]]:
    """Edges that are half clear, as programs leave them that smooth."""
    image = Image.new("RGBA", (150, 40))
    boxes = [walker(image, 8 + place * 34, 34, 2) for place in range(4)]
    pixels = np.asarray(image).copy()
    ink = pixels[..., 3] > 0
    around = np.zeros_like(ink)
    around[1:] |= ink[:-1]
    around[:-1] |= ink[1:]
    around[:, 1:] |= ink[:, :-1]
    around[:, :-1] |= ink[:, 1:]
    pixels[around & ~ink] = (*COAT, 90)
    return Image.fromarray(pixels), [(x - 1, y - 1, wide + 2, high + 2) for x, y, wide, high in boxes]


def few(count: int) -> tuple[Image.Image, list[Box]]:
    image = Image.new("RGB", (30 * count, 40), (70, 160, 220))
    return image, [walker(image, 8 + place * 30, 34 - place % 2, 1 + place % 3) for place in range(count)]


def back() -> tuple[Image.Image, list[Box]]:
    """Each with a nose on its left."""
    image, boxes = few(4)
    for left, top, _, _ in boxes:
        ImageDraw.Draw(image).rectangle((left, top + 3, left + 2, top + 4), fill=SKIN)
    return image, boxes


def twice() -> tuple[Image.Image, list[Box]]:
    """Doubled, and doubled again."""
    image = Image.new("RGB", (400, 100), (10, 20, 60))
    return image, [walker(image, 16 + place * 88, 92, 2, 4) for place in range(4)]


SOURCES: dict[str, Callable[[], tuple[Image.Image, list[Box]]]] = {
    "clear": lambda: plain((0, 0, 0, 0)), "pink": lambda: plain((255, 0, 255)), "black": lambda: plain((0, 0, 0)),
    "two grounds": boxed, "writing": labelled, "uneven": noisy, "doubled": doubled,
    "doubled twice": twice, "half-clear edges": soft, "too few": lambda: few(3), "too many": lambda: few(9),
    "facing left": back,
}  # fmt: skip


def picture(image: Image.Image) -> Picture:
    return Picture(np.ascontiguousarray(np.asarray(image.convert("RGBA"))))


@pytest.mark.parametrize("name", SOURCES)
def test_the_figures_are_found_as_they_were_drawn(name: str) -> None:
    image, boxes = SOURCES[name]()
    found = poses_of(picture(image), 6)
    assert [pose.box for pose in found.poses] == boxes
    soft_edge = name == "half-clear edges"
    assert all(
        pose.foot_y == top + high - soft_edge
        for pose, (_, top, _, high) in zip(found.poses, boxes, strict=True)
    )


def test_plain_blocks_are_figures_not_ground() -> None:
    image = Image.new("RGB", (60, 20), (255, 0, 255))
    for place in range(3):
        ImageDraw.Draw(image).rectangle((4 + place * 20, 4, 13 + place * 20, 15), fill=COAT)
    assert [pose.box for pose in poses_of(picture(image)).poses] == [
        (4 + at * 20, 4, 10, 12) for at in range(3)
    ]


def test_a_picture_of_nothing_is_refused() -> None:
    with pytest.raises(FurnelError, match="nothing but ground"):
        poses_of(Picture(np.full((9, 9, 4), 255, np.uint8)))


@pytest.mark.parametrize("name", SOURCES)
@pytest.mark.parametrize("flip", [False, True])
def test_laid_out_they_stand_where_the_originals_stand(name: str, flip: bool) -> None:
    sheet = Image.new("RGBA", (48 * 6, 64))
    floors = [60, 59, 61, 60, 58, 60]
    for place, floor in enumerate(floors):
        walker(sheet, 48 * place + 18, floor, 2, 1)
    original = picture(sheet)
    grid = grid_of(original, (48, 64))
    found = poses_of(picture(SOURCES[name]()[0]), 6)
    scale = scale_for(found.poses, grid, anchors_of(original, grid))
    cells = [cell.mirrored() if flip else cell for cell in filled(found.poses, 6)]
    bed = Bed(original, grid, anchors_of(original, grid))
    drawn, cut = laid_out(picture(SOURCES[name]()[0]), found, cells, bed, scale)
    assert cut == 0 and drawn.size == original.size
    anchors = anchors_of(drawn, grid)
    for place in range(6):
        ink = drawn.pixels[:64, 48 * place : 48 * place + 48, 3] > 0
        feet = np.flatnonzero(ink[floors[place] - 1])
        assert abs((feet[0] + feet[-1] + 1) / 2 - 24) <= 1 * max(scale, 1)
        assert anchors[place].y == floors[place]
        rows = np.flatnonzero(ink.any(axis=1))
        rows = np.flatnonzero((drawn.pixels[:64, 48 * place : 48 * place + 48, 3] > 127).any(axis=1))
        high = {"doubled": 40, "doubled twice": 80, "half-clear edges": 20}.get(name, 20)
        assert rows[-1] - rows[0] + 1 == (high * scale if scale > 0 else high // -scale)


@given(st.integers(1, 12), st.integers(1, 16))
def test_poses_are_spread_evenly_and_keep_first_and_last(poses: int, cells: int) -> None:
    got = spread(range(poses), cells)
    assert len(got) == cells and got == sorted(got) and got[0] == 0
    if cells > 1:
        assert got[-1] == poses - 1
    counts = [got.count(place) for place in range(poses)]
    assert cells < poses or min(counts) >= 1
    if poses == cells:
        assert got == list(range(poses))


PLACINGS = st.builds(
    Placing,
    st.none() | st.integers(0, 98),
    st.booleans(),
    st.integers(-99, 99),
    st.integers(-99, 99),
    st.integers(0, 16),
    st.just(False),
)


@given(st.lists(PLACINGS, max_size=9))
def test_a_frame_map_is_read_as_it_is_written(cells: list[Placing]) -> None:
    wanted = [cell if cell.pose is not None else Placing(None, keep=cell.flip) for cell in cells]
    assert list(parse_map(map_text(wanted))) == wanted


@pytest.mark.parametrize("text", ["x", "0", "1ff", "1+2", "--", "1 2,3", "9999", "3x0", "3x17", "=2"])
def test_what_is_no_frame_map_is_refused(text: str) -> None:
    with pytest.raises(FurnelError, match="no cell of a frame map"):
        parse_map(text)


def test_made_smaller_a_line_of_a_pixel_stays_where_most_of_it_is() -> None:
    image = Image.new("RGBA", (128, 128))
    ImageDraw.Draw(image).rectangle((20, 20, 99, 99), fill=COAT)
    ImageDraw.Draw(image).rectangle((40, 20, 41, 99), fill=SKIN)
    source, sheet = picture(image), picture(Image.new("RGBA", (40, 40), (1, 1, 1, 255)))
    found, grid = poses_of(source), grid_of(sheet, (40, 40))
    assert scale_for(found.poses, grid, [Spot(20, 40)]) == -2
    drawn, cut = laid_out(source, found, [Placing(0)], Bed(sheet, grid, [Spot(20, 40)]), -2)
    assert cut == 0 and {tuple(colour[:3]) for colour in drawn.pixels.reshape(-1, 4) if colour[3]} == {
        COAT,
        SKIN,
    }
    assert (drawn.pixels[..., 3] > 0).sum() == 1600 and (drawn.pixels[:, 10, :3] == SKIN).all()


def test_the_command_says_what_it_finds(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    image, boxes = boxed()
    image.save(tmp_path / "boxed.png")
    assert main(["sheet", str(tmp_path / "boxed.png"), "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert [(row["left"], row["top"], row["width"], row["height"]) for row in told] == boxes
    assert main(["sheet", str(tmp_path / "boxed.png")]) == 0
    assert capsys.readouterr().out.startswith("4 figures on ff00ff, 008080\n")
    sheet = Image.new("RGBA", (64, 24))
    walker(sheet, 8, 22, 2)
    walker(sheet, 40, 24, 2)
    sheet.putpixel((60, 2), COAT)
    sheet.save(tmp_path / "sheet.png")
    assert main(["sheet", str(tmp_path / "sheet.png"), "--cells", "32x24", "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert [(row["floor"], row["odd pixels"]) for row in told] == [(22, ""), (24, "28,2")]
    for wrong in ("32", "0x9", "7x7"):
        assert main(["sheet", str(tmp_path / "sheet.png"), "--cells", wrong]) == 2


@given(st.lists(st.integers(20, 900), min_size=1, max_size=9), st.integers(1, 24))
def test_frames_that_are_shown_longer_get_more_cells(times: list[int], cells: int) -> None:
    found = spread_by_time(times, cells)
    assert len(found) == cells and found == sorted(found)
    for pose, ms in enumerate(times):
        assert abs(found.count(pose) - cells * ms / sum(times)) <= 1
