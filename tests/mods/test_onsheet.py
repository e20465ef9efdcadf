"""Work by hand on sheets, as steps: colours that change again, all pictures of a character, files as frames."""

from __future__ import annotations

import io
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from PIL import Image

from furnel.errors import FurnelError
from furnel.media import PictureSpec
from furnel.mods.build import build
from furnel.mods.fit import with_encoding
from furnel.mods.onsheet import (
    character,
    in_order,
    mirror_character,
    recolour_character,
    scale_character,
    with_cells,
    with_colours,
    with_each_mirrored,
    with_files,
    with_touches,
)
from furnel.mods.project import StepUse, Swap
from furnel.mods.workspace import Workspace
from furnel.sprites import Placing
from furnel.sprites.touching import Touch

OTTER, SHORE = "cast/otter_walk.png", "cast/ferryman_shore.png"
RED, BLUE, GREEN = (200, 30, 20), (20, 40, 220), (30, 180, 60)


def pixels_of(data: bytes) -> Any:
    return np.array(Image.open(io.BytesIO(data)).convert("RGBA"))


def test_a_colour_that_changes_again_is_one_change() -> None:
    swap = Swap(original=OTTER, source="a.png")
    swap = with_colours(swap, {RED: BLUE})
    swap = with_colours(swap, {BLUE: GREEN, RED: (1, 1, 1)})
    assert [use.do for use in swap.steps] == ["palette"]
    assert swap.steps[0].values["changes"] == "c81e14>1eb43c"
    assert with_colours(swap, {GREEN: RED}).steps == ()  # as it was
    painted = with_touches(swap, [Touch(1, 2, GREEN), Touch(3, 3, None)])
    again = with_colours(painted, {GREEN: BLUE})
    assert [use.do for use in again.steps] == ["palette", "touch-up"]
    assert again.steps[1].values["pixels"] == "1,2=1428dc 3,3=-"
    other = swap.model_copy(update={"steps": (*swap.steps, StepUse(do="mirror-frames"))})
    assert [use.do for use in with_colours(other, {GREEN: BLUE}).steps] == [
        "palette",
        "mirror-frames",
        "palette",
    ]


def test_mirroring_each_twice_is_not_at_all(space: Workspace) -> None:
    spec = space.original_spec(OTTER)
    assert isinstance(spec, PictureSpec)
    swap = Swap(original=OTTER, source="a.png")
    once = with_each_mirrored(swap, spec)
    assert [use.do for use in once.steps] == ["mirror-frames"]
    assert with_each_mirrored(once, spec).steps == ()
    laid = with_cells(swap, spec, [Placing(0)] * 6)
    assert with_each_mirrored(laid, spec).steps[0].values["flip"] is True


def test_all_pictures_of_a_character_change_and_nothing_else(space: Workspace, tmp_path: Path) -> None:
    file = tmp_path / "own.png"
    file.write_bytes(space.catalogue.bytes_of(OTTER))
    space = space.with_project(space.project.with_swap(space.fitted(space.new_swap(OTTER, file))))
    old = (0x8A, 0x5A, 0x34)
    project, done = recolour_character(space, OTTER, {old: GREEN})
    having = [
        path for path in character(space, OTTER)
        if (pixels_of(space.catalogue.bytes_of(path))[..., :3] == old).all(axis=2).any()
    ]  # fmt: skip
    assert done[0] == OTTER and sorted(done) == sorted(having) and "icons/otter.png" in done
    assert all("ferryman" not in path and "otter_grey" not in path for path in done)
    after = space.save(project)
    for path in done:
        swap = project.swap_for(path)
        assert swap is not None
        before, now = pixels_of(space.catalogue.bytes_of(path)), pixels_of(after.examine(swap).data)
        wanted = before.copy()
        wanted[(before[..., :3] == old).all(axis=2), :3] = GREEN
        np.testing.assert_array_equal(
            np.where(now[..., 3:] > 0, now, 0), np.where(wanted[..., 3:] > 0, wanted, 0)
        )
    assert {swap.original for swap in after.project.swaps} >= set(done)
    build(after, anyway=False)
    with pytest.raises(FurnelError, match="none of its pictures"):
        recolour_character(after, OTTER, {(1, 2, 3): RED})
    turned, sheets = mirror_character(after, OTTER)
    assert "icons/otter.png" not in sheets and all(
        any(use.do == "mirror-frames" for use in turned.swap_for(path).steps)
        for path in sheets  # type: ignore[union-attr]
    )


def test_several_files_are_the_frames_of_a_sheet(space: Workspace, tmp_path: Path) -> None:
    for number, tone in ((11, 250), (2, 90), (1, 20)):
        pixels = np.zeros((30, 20, 4), np.uint8)
        pixels[4:30, 5:14] = (tone, 40, 40, 255)
        Image.fromarray(pixels[:, : 20 - number % 3]).save(tmp_path / f"w{number}.png")
    (tmp_path / "notes.txt").write_text("no picture")
    names = [file.name for file in in_order([tmp_path])]
    assert names == ["w1.png", "w2.png", "w11.png"]
    swap = with_files(space, space.new_swap(SHORE, tmp_path / "w2.png"), [tmp_path])
    examined = space.examine(with_encoding(swap, space.original_spec(SHORE)))
    cells = pixels_of(examined.data)
    tones = [int(cells[left // 160 * 48 + 47, left % 160 + 16, 0]) for left in (0, 32, 64, 96, 128)]
    assert tones == sorted(tones) and {tones[0], tones[-1]} == {20, 250}
    (tmp_path / "w2.png").unlink()
    with pytest.raises(FurnelError, match=r"w2\.png"):
        space.stages(swap)
    with pytest.raises(FurnelError, match="no sheet"):
        with_files(space, space.new_swap("art/rock/slate.dds", tmp_path / "w1.png"), [tmp_path / "w1.png"])


def test_layers_are_chosen_by_name_and_kept_in_the_project(space: Workspace, tmp_path: Path) -> None:
    from furnel.imagefiles import Layer, write_layers
    from furnel.images import Picture

    base = pixels_of(space.catalogue.bytes_of(OTTER))
    hat = np.zeros_like(base)
    hat[1:3, 10:14] = (*RED, 255)
    file = tmp_path / "otter.ora"
    file.write_bytes(write_layers([Layer("otter", Picture(base)), Layer("hat", Picture(hat), visible=False)]))
    swap = space.fitted(space.new_swap(OTTER, file))
    spec = space.original_spec(OTTER)
    assert (pixels_of(space.examine(with_encoding(swap, spec)).data)[1:3, 10:14, :3] != RED).any()
    wanted = swap.model_copy(
        update={"steps": (StepUse(do="layers", values={"names": "otter | hat"}), *swap.steps)}
    )
    again = space.save(space.project.with_swap(with_encoding(wanted, spec)))
    kept = again.project.swap_for(OTTER)
    assert kept is not None and (pixels_of(again.examine(kept).data)[1:3, 10:14, :3] == RED).all()
    unknown = wanted.model_copy(update={"steps": (StepUse(do="layers", values={"names": "tail"}),)})
    with pytest.raises(FurnelError, match="It has otter, hat"):
        space.stages(unknown)


def test_a_whole_character_is_made_larger_where_figures_are_laid_out(
    space: Workspace, tmp_path: Path
) -> None:
    figure = np.zeros((13, 11, 4), np.uint8)
    figure[2:11, 2:9] = (200, 60, 50, 255)
    Image.fromarray(figure).save(tmp_path / "a.png")
    for path in (OTTER, "cast/otter_idle.png"):
        spec = space.original_spec(path)
        assert isinstance(spec, PictureSpec)
        swap = with_cells(space.new_swap(path, tmp_path / "a.png"), spec, [Placing(0)] * spec.frames)
        space = space.save(space.project.with_swap(swap))
    project, done = scale_character(space, OTTER, 1)
    assert sorted(done) == ["cast/otter_idle.png", OTTER]
    after = space.save(project)
    for path in done:
        kept = project.swap_for(path)
        assert kept is not None
        cells = pixels_of(after.examine(kept).data)
        assert cells[:24, :40, 3].any(axis=1).sum() == 9
    assert scale_character(after, OTTER, 1)[1] == []


def test_a_frame_that_a_file_shows_longer_is_held(space: Workspace, tmp_path: Path) -> None:
    images = []
    for tone in (40, 120, 220):
        image = Image.new("RGBA", (20, 20))
        image.paste((tone, 60, 60, 255), (6, 4, 14, 20))
        images.append(image)
    images[0].save(
        tmp_path / "a.png",
        save_all=True,
        append_images=images[1:],
        duration=[100, 400, 100],
        disposal=0,
        blend=0,
    )
    swap = space.fitted(space.new_swap(OTTER, tmp_path / "a.png"))
    assert swap.steps[0].do == "frames"
    cells = pixels_of(space.examine(swap).data)
    tones = [int(cells[23, 40 * cell + 20, 0]) for cell in range(6)]
    assert tones == [40, 120, 120, 120, 120, 220]
