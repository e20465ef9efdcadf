"""Spec, steps and fit: what the game demands, what a source lacks, what makes it match."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from furnel import imagefiles
from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.media import PictureSpec, SoundSpec, TextSpec, spec_of
from furnel.mods.fit import FitPoint, compare
from furnel.mods.project import StepUse, Swap
from furnel.mods.render import apply_steps, render, result_key
from furnel.mods.single import fit_file
from furnel.mods.steps import STEP_TYPES, Around, Value, step_type
from furnel.mods.workspace import Workspace
from furnel.sound import Clip, integrated_loudness, read_clip

from .conftest import FOUR


def broken(points: tuple[FitPoint, ...]) -> set[str]:
    return {point.key for point in points if point.state == "breaks"}


def test_the_spec_reads_what_the_game_demands(space: Workspace) -> None:
    hull = space.original_spec("art/hulls/hull_otter.dds")
    assert isinstance(hull, PictureSpec)
    assert (hull.file_type, hull.width, hull.format, hull.levels) == (
        "DDS",
        512,
        "BC3",
        10,
    )
    ensign = space.original_spec("ensigns/small/fjell.tga")
    assert isinstance(ensign, PictureSpec)
    assert (ensign.note("rows"), ensign.note("run-length"), ensign.format) == ("bottom first", "off", "BGRA8")
    otter = space.original_spec("cast/otter_walk.png")
    assert isinstance(otter, PictureSpec)
    assert (otter.cell, otter.frames, otter.alpha) == ((40, 24), 6, "cut-out")
    bell = space.original_spec("bank0/000.wav")
    assert isinstance(bell, SoundSpec)
    assert (bell.codec, bell.rate, bell.channels, bell.loops) == ("PCM 16", 48000, 1, False)
    tune = space.original_spec("music/slow_water.ogg")
    assert isinstance(tune, SoundSpec) and tune.loops
    assert isinstance(space.original_spec("rules/boats.toml"), TextSpec)


@pytest.mark.parametrize(
    ("original", "faults"),
    [
        ("art/hulls/hull_otter.dds", {"file", "size", "format", "levels", "header"}),
        ("cast/otter_walk.png", {"size", "alpha", "mode"}),
        ("bank0/000.wav", {"file", "codec", "rate", "channels"}),
        ("music/slow_water.ogg", {"file", "codec", "length"}),
    ],
)
def test_each_source_breaks_where_it_should_and_fits_after_fit_all(
    space: Workspace, sources: Path, original: str, faults: set[str]
) -> None:
    swap = space.new_swap(original, sources / FOUR[original])
    assert broken(space.examine(swap).points) == faults
    fitted = space.fitted(swap)
    examined = space.examine(fitted)
    assert examined.state == "fits", examined.points
    assert all(point.why for point in space.examine(swap).points if point.state == "breaks")
    assert all(point.remedy for point in space.examine(swap).points if point.state == "breaks")


def test_an_ensign_is_fitted_to_rows_and_run_length(space: Workspace, sources: Path) -> None:
    examined = space.examine(
        space.fitted(space.new_swap("ensigns/large/aldvik.tga", sources / "ensign_large.png"))
    )
    assert not broken(examined.points)
    assert isinstance(examined.result, PictureSpec)
    assert (examined.result.note("rows"), examined.result.format) == ("bottom first", "BGRA8")


@pytest.mark.parametrize(
    ("what", "key"),
    [
        ({"encode": {"format": "BC1"}}, "format"),
        ({"encode": {"levels": 1}}, "levels"),
        ({"steps": ()}, "size"),
        ({"encode": {"notes": {"header": "DX10"}}}, "header"),
    ],
)
def test_faults_left_in_are_said_before(
    fitted: Workspace, changed: Callable[..., Workspace], what: dict[str, object], key: str
) -> None:
    fitted = changed(fitted, "art/hulls/hull_otter.dds", **what)
    swap = fitted.project.swap_for("art/hulls/hull_otter.dds")
    assert swap is not None
    assert key in broken(fitted.examine(swap).points)


def test_a_wrong_case_and_a_missing_source_break_kindly(space: Workspace, sources: Path) -> None:
    wrong = Swap(original="Art/hulls/hull_otter.dds", source=str(sources / "dusk_paint.jpg"))
    point = space.examine(wrong).points[0]
    assert (point.key, point.state) == ("name", "breaks")
    assert "art/hulls/hull_otter.dds" in point.remedy
    gone = Swap(original="art/hulls/hull_otter.dds", source="nowhere.png")
    assert space.examine(gone).points[0].key == "source"
    with pytest.raises(FurnelError, match="case-sensitive"):
        space.new_swap("art/hulls/Hull_otter.dds", sources / "dusk_paint.jpg")
    with pytest.raises(FurnelError, match="no such file"):
        space.new_swap("art/hulls/hull_otter.dds", sources / "nowhere.png")


def test_a_sound_for_a_picture_is_refused(space: Workspace, sources: Path) -> None:
    swap = space.new_swap("art/hulls/hull_otter.dds", sources / "church_bell.mp3")
    assert broken(space.examine(swap).points) == {"kind"}
    with pytest.raises(FurnelError, match="a picture and the source a sound"):
        space.fitted(swap)


def test_drift_is_noticed(space: Workspace, sources: Path) -> None:
    swap = space.fitted(space.new_swap("art/rock/slate.dds", sources / "moss_bright.png"))
    examined = space.examine(swap.model_copy(update={"made_for": "0" * 32}))
    assert [point.key for point in examined.points if point.state == "differs"][-1] == "drift"


def test_the_fitted_bell_has_the_originals_loudness_and_does_not_clip(fitted: Workspace) -> None:
    swap = fitted.project.swap_for("bank0/000.wav")
    assert swap is not None
    clip, info = read_clip(fitted.examine(swap).data)
    original = fitted.original_spec("bank0/000.wav")
    assert isinstance(original, SoundSpec)
    assert (info.rate, info.channels, info.codec) == (48000, 1, "PCM 16")
    assert integrated_loudness(clip.samples, clip.rate) == pytest.approx(original.loudness, abs=0.5)
    assert clip.peak < 0.98


def test_the_fitted_tune_is_as_long_as_its_loop_to_the_frame(fitted: Workspace) -> None:
    swap = fitted.project.swap_for("music/slow_water.ogg")
    assert swap is not None
    original = fitted.original_spec("music/slow_water.ogg")
    assert isinstance(original, SoundSpec)
    assert read_clip(fitted.examine(swap).data)[0].frames == original.frames


def test_a_sheet_on_green_keeps_its_pixels_and_loses_the_green(fitted: Workspace) -> None:
    swap = fitted.project.swap_for("cast/otter_walk.png")
    assert swap is not None
    pixels = imagefiles.decode_level(imagefiles.read_texture(fitted.examine(swap).data)).pixels
    from tarnlight.art import sprites

    coat = {**sprites.OTTER, "back": "26707f", "side": "3a98a2", "dark": "174651"}
    np.testing.assert_array_equal(pixels, sprites.sheet(sprites.otter_walk(coat), 6))


def test_sources_are_never_written(fitted: Workspace, sources: Path) -> None:
    before = {file: file.read_bytes() for file in sources.iterdir()}
    for swap in fitted.project.swaps:
        fitted.examine(swap)
    assert before == {file: file.read_bytes() for file in sources.iterdir()}


def test_results_are_cached_by_everything_they_are_made_from(
    fitted: Workspace, sources: Path, tmp_path: Path
) -> None:
    swap = fitted.project.swap_for("art/hulls/hull_otter.dds")
    assert swap is not None and swap.encode is not None
    source = (sources / "dusk_paint.jpg").read_bytes()
    first = render(swap, source, "x.jpg", tmp_path / "results")
    assert (tmp_path / "results" / result_key(swap, source)).read_bytes() == first
    (tmp_path / "results" / result_key(swap, source)).write_bytes(b"from the cache")
    assert render(swap, source, "x.jpg", tmp_path / "results") == b"from the cache"
    other = swap.model_copy(update={"encode": swap.encode.model_copy(update={"quality": "best"})})
    off = swap.model_copy(update={"steps": tuple(use.model_copy(update={"on": False}) for use in swap.steps)})
    assert (
        len(
            {
                result_key(swap, source),
                result_key(other, source),
                result_key(off, source),
                result_key(swap, b""),
            }
        )
        == 4
    )


@pytest.mark.parametrize("name", sorted(STEP_TYPES))
def test_every_step_runs_with_its_defaults_and_says_what_it_does(name: str) -> None:
    step = step_type(name)
    drawn = np.full((20, 30, 4), 90, np.uint8)
    drawn[4:16, 9:20] = 160
    media: Picture | Clip = Picture(drawn)
    if step.domain == "sound":
        media = Clip(np.sin(np.arange(66150, dtype=np.float32) / 9)[:, None] * np.float32(0.4), 22050)
    original = Picture(np.full((24, 36, 4), (200, 40, 90, 128), np.uint8))
    around = Around(original, lambda _: original, lambda _: Clip(np.full((999, 2), 0.1, np.float32), 8000))
    named: dict[str, Value] = dict.fromkeys(step.file_settings, "beside")
    result = apply_steps(media, [StepUse(do=name, values=named)], around=around)[-1]
    assert type(result) is type(media)
    if step.uses_original:
        with pytest.raises(FurnelError, match="no original"):
            apply_steps(media, [StepUse(do=name)])
    assert step.summary(step.complete({}))
    for parameter in step.parameters:
        with pytest.raises(FurnelError, match=parameter.name):
            step.complete({parameter.name: [] if parameter.type != "whole" else parameter.high + 1})  # type: ignore[dict-item]


def test_steps_apply_in_order_and_can_be_switched_off() -> None:
    picture = Picture(np.full((20, 30, 4), (0, 200, 80, 255), np.uint8))
    clear = StepUse(do="clear-colour", values={"colour": "00c850"})
    size = StepUse(do="size", values={"width": 6, "height": 6, "how": "inside"})
    both = apply_steps(picture, [size, clear])
    assert [part.size for part in both if isinstance(part, Picture)] == [(6, 6), (6, 6)]
    assert isinstance(both[-1], Picture) and both[-1].pixels.max() == 0
    assert not apply_steps(picture, [clear.model_copy(update={"on": False})])
    with pytest.raises(FurnelError, match="is for a sound"):
        apply_steps(picture, [StepUse(do="rate")])
    with pytest.raises(FurnelError, match="no such step"):
        apply_steps(picture, [StepUse(do="sparkle")])


@pytest.mark.parametrize(("how", "corner"), [("fill", 255), ("inside", 0), ("stretch", 255)])
def test_ways_into_a_size(how: str, corner: int) -> None:
    pixels = np.full((10, 40, 4), 255, np.uint8)
    out = apply_steps(Picture(pixels), [StepUse(do="size", values={"width": 20, "height": 20, "how": how})])[
        -1
    ]
    assert isinstance(out, Picture)
    assert out.size == (20, 20)
    assert out.pixels[0, 0, 3] == corner
    assert out.pixels[10, 10, 3] == 255


def test_one_file_fitted_to_another_without_a_project(forged: Path, sources: Path, tmp_path: Path) -> None:
    original = (forged / "data" / "ensigns" / "small" / "kettle.tga").read_bytes()
    data, points = fit_file(sources / "ensign_large.png", original, "kettle.tga")
    assert not broken(tuple(points))
    assert len(data) == len(original)
    assert Image.open(__import__("io").BytesIO(data)).size == (48, 32)


def test_texts_are_compared_by_form(space: Workspace, tmp_path: Path) -> None:
    good, bad = spec_of(b'{"a": 1}', "x.json"), spec_of(b'{"a": }', "x.json")
    assert [point.state for point in compare(good, bad)] == ["fits", "breaks"]
    assert "line 1" in compare(good, bad)[1].yours
    assert spec_of(b"<a><b></a>", "x.xml") != spec_of(b"<a><b/></a>", "x.xml")
    bomb = b'<!DOCTYPE a [<!ENTITY b "bbbb"><!ENTITY c "&b;&b;">]><a>&c;</a>'
    assert isinstance(spec_of(bomb, "x.xml"), TextSpec)
