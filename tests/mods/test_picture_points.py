"""Every point of a picture's fit: seen when it is so, put right by its remedy, and kept when the modder insists."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from furnel import imagefiles
from furnel.games.profile import RoleRule
from furnel.images import Picture
from furnel.images.resample import level_chain
from furnel.media import Encode, PictureSpec, spec_of
from furnel.mods.fit import compare, fit_all, insisting, mended, worst
from furnel.mods.outside import choose_all
from furnel.mods.project import StepUse, Swap, load_project, save_project
from furnel.mods.render import encode_media
from furnel.mods.workspace import Workspace


def scene(width: int = 64, height: int = 64, alpha: int = 255) -> Picture:
    y, x = np.mgrid[0:height, 0:width]
    parts = [
        80 + 60 * np.sin(x * 2 * np.pi / width),
        120 + 50 * np.cos(y * 2 * np.pi / height),
        np.full_like(x, 70.0),
    ]
    return Picture(np.stack([*parts, np.full_like(x, float(alpha))], -1).astype(np.uint8))


def spec(
    picture: Picture, fmt: str = "BC3", file: str = "DDS", role: RoleRule | None = None, **options: object
) -> PictureSpec:
    levels = level_chain(picture) if file in ("DDS", "KTX2") else [picture]
    texture = imagefiles.encode_texture(levels, fmt, file, **options)  # type: ignore[arg-type]
    found = spec_of(imagefiles.write_texture(texture), f"x.{file.lower()}", role)
    assert isinstance(found, PictureSpec)
    return found


def states(original: PictureSpec, yours: PictureSpec) -> dict[str, str]:
    return {point.key: point.state for point in compare(original, yours) if point.state != "fits"}


def role(**fields: object) -> RoleRule:
    return RoleRule(path="*", role="surface", **fields)  # type: ignore[arg-type]


def ramp() -> Picture:
    """Dark on the left and bright on the right: it does not repeat."""
    tones = np.linspace(20, 230, 64).astype(np.uint8)
    return Picture(
        np.ascontiguousarray(
            np.broadcast_to(tones[None, :, None], (64, 64, 4)) | np.array([0, 0, 0, 255], np.uint8)
        )
    )


SEAM = ramp()
BASE = scene()


@pytest.mark.parametrize(
    ("original", "yours", "wanted"),
    [
        (spec(BASE), spec(BASE, "BC7"), {"format": "breaks", "header": "breaks"}),
        (spec(BASE), spec(scene(60, 60)), {"size": "breaks", "power of two": "differs", "levels": "breaks"}),
        (spec(BASE), spec(scene(66, 64)), {"size": "breaks", "power of two": "differs", "multiple of four": "differs"}),
        (spec(BASE, "BC7", srgb=True), spec(BASE, "BC7", srgb=False), {"colour space": "breaks"}),
        (
            spec(BASE, "RGBA8", "KTX2", notes=(("supercompression", "Zstandard"),)), spec(BASE, "RGBA8", "KTX2"),
            {"supercompression": "breaks"},
        ),
        (spec(BASE, "BC3", notes=(("alpha", "premultiplied"),)), spec(BASE), {"premultiplied": "breaks"}),
        (
            spec(BASE, role=role(tiles="across")), spec(SEAM, role=role(tiles="across")),
            {"tiling": "differs", "contrast": "differs"},
        ),
        (spec(BASE, "RGBA16F", notes=(("white", "9"),)), spec(BASE, "RGBA16F"), {"range": "differs"}),
        (spec(scene(alpha=90)), spec(BASE), {"alpha": "differs"}),
        (spec(BASE, "BGRA8", "TGA"), spec(BASE, "BGRA8", "TGA", notes=(("run-length", "on"),)), {"run-length": "breaks"}),
    ],
)  # fmt: skip
def test_what_is_not_the_same_is_told(
    original: PictureSpec, yours: PictureSpec, wanted: dict[str, str]
) -> None:
    found = states(original, yours)
    assert wanted.items() <= found.items(), found
    for point in compare(original, yours):
        assert point.why or point.state == "fits"
        assert point.remedy or point.state == "fits"


def test_grey_normals_and_palettes_mean_something() -> None:
    grey = Picture(np.repeat(scene().pixels[..., :1], 4, 2) | np.array([0, 0, 0, 255], np.uint8))
    tinted = spec(grey, role=role(channels="grey"))
    assert states(tinted, spec(BASE, role=None)) == {"channels": "differs"} | states(spec(grey), spec(BASE))
    y, x = np.mgrid[0:64, 0:64] / 10
    v = np.stack([0.4 * np.sin(x), 0.4 * np.cos(y), np.ones_like(x)], -1)
    v /= np.linalg.norm(v, axis=2, keepdims=True)
    normals = Picture(np.dstack([np.round((v + 1) * 127.5), np.full((64, 64), 255)]).astype(np.uint8))
    assert spec(normals).meaning == "normals" == spec(normals, "BC5").meaning
    assert states(spec(normals), spec(BASE))["channels"] == "differs"
    few = Picture(BASE.pixels // 64 * 64 | np.array([0, 0, 0, 255], np.uint8))
    palette = spec(few, "RGBA8", "PNG", notes=(("mode", "palette"),))
    assert palette.colours > 2 and states(palette, spec(BASE, "RGBA8", "PNG"))["palette"] == "breaks"


def test_a_rim_that_would_bleed_is_told() -> None:
    spread, black = scene(), scene()
    spread.pixels[:, 32:, 3] = 0
    black.pixels[:, 32:] = 0
    assert states(spec(spread, "RGBA8"), spec(black, "RGBA8"))["under alpha"] == "differs"


def test_keep_out_areas_are_told_when_painted() -> None:
    clear = scene()
    clear.pixels[40:, 40:] = 0
    rule = role(keep_out=[[40, 40, 24, 24]])
    assert states(spec(clear, role=rule), spec(BASE, role=rule))["keep-out"] == "differs"
    assert "keep-out" not in states(spec(clear, role=rule), spec(clear, role=rule))


def test_cubes_and_volumes_are_matched_picture_by_picture() -> None:
    faces = [[scene(16, 16)] * 6]
    cube = imagefiles.encode_pictures(faces, "BC1", "DDS", shape="cube")
    original = spec_of(imagefiles.write_texture(cube), "sky.dds")
    source = scene(100, 700)
    assert isinstance(original, PictureSpec) and original.pictures == 6
    strip = spec(source, "RGBA8", "PNG")
    steps, encode = fit_all(original, strip)
    assert [use.values["height"] for use in steps if use.do == "size"] == [96] and encode is not None
    result = encode_media(scene(16, 96), encode)
    again = spec_of(result, "sky.dds")
    assert isinstance(again, PictureSpec) and (again.shape, again.pictures, again.format) == (
        "cube",
        6,
        "BC1",
    )
    slices = [[scene(8, 8)] * 4, [scene(4, 4)] * 2]
    volume = spec_of(
        imagefiles.write_texture(imagefiles.encode_pictures(slices, "RGBA8", "DDS", shape="volume")),
        "fog.dds",
    )
    made = spec_of(encode_media(scene(8, 32), fit_all(volume, strip)[1] or Encode(file="DDS")), "fog.dds")
    assert isinstance(made, PictureSpec) and worst(compare(volume, made)) != "breaks"


@pytest.mark.parametrize(
    ("original", "key", "step"),
    [
        (spec(scene(32, 32)), "size", "size"), (spec(scene(alpha=90)), "alpha", "keep-alpha"),
        (spec(Picture(BASE.pixels // 3 | np.array([0, 0, 0, 255], np.uint8))), "brightness", "brightness"),
        (spec(BASE, role=role(tiles="both")), "tiling", "seamless"),
        (spec(BASE), "format", None), (spec(BASE), "levels", None),
    ],
)  # fmt: skip
def test_a_point_is_mended_by_one_step_or_setting(original: PictureSpec, key: str, step: str | None) -> None:
    result = spec(SEAM, "BC1", role=role(tiles="both"))
    better = mended(Swap(original="x.dds", source="x.png"), key, original, result)
    assert better is not None
    assert [use.do for use in better.steps] == ([step] if step else [])
    assert (better.encode is not None) == (step is None)
    assert mended(Swap(original="x.dds", source="x.png"), "keep-out", original, result) is None


def test_what_is_insisted_on_stays_and_no_longer_stops_the_build(space: Workspace, sources: Path) -> None:
    original = "art/rock/slate.dds"
    swap = space.fitted(space.new_swap(original, sources / "moss_bright.png"))
    assert swap.encode is not None
    own = swap.model_copy(update={"encode": swap.encode.model_copy(update={"format": "BC3", "levels": 3})})
    assert space.examine(own).state == "breaks"
    kept = own.model_copy(update={"insist": ("format", "levels")})
    found = space.examine(kept)
    assert found.state == "differs" and sum(point.insisted for point in found.points) == 2
    again = space.fitted(kept)
    assert again.encode is not None and (again.encode.format, again.encode.levels) == ("BC3", 3)
    space = space.save(space.project.with_swap(kept))
    assert load_project(space.file).swap_for(original) == kept
    save_project(space.file, space.project)
    assert all(not point.insisted for point in insisting(found.points, ()) if point.key not in kept.insist)


def test_a_stretched_picture_is_told_and_a_filled_one_is_not(space: Workspace, tmp_path: Path) -> None:
    Image.fromarray(scene(200, 80).pixels).save(tmp_path / "wide.png")
    swap = space.new_swap("art/rock/slate.dds", tmp_path / "wide.png")
    stretched = StepUse(do="size", values={"width": 256, "height": 256, "how": "stretch"})
    encode = space.fitted(swap).encode
    found = {
        point.key: point
        for point in space.examine(swap.model_copy(update={"steps": (stretched,), "encode": encode})).points
    }
    assert found["aspect"].state == "differs" and "2.50" in found["aspect"].yours
    assert "aspect" not in {point.key for point in space.examine(space.fitted(swap)).points}


def test_a_step_that_looks_at_another_file_or_the_original_renews_the_result(
    space: Workspace, sources: Path, tmp_path: Path
) -> None:
    mask = tmp_path / "mask.png"
    Image.fromarray(scene(64, 64).pixels).save(mask)
    use = StepUse(do="mix", values={"red": "other's green", "file": str(mask)})
    swap = space.fitted(space.new_swap("art/rock/slate.dds", sources / "moss_bright.png"))
    swap = swap.model_copy(update={"steps": (*swap.steps, use)})
    choose_all(space.file, swap)
    first = space.examine(swap)
    assert first.state != "breaks" and space.examine(swap).key == first.key
    Image.fromarray(255 - scene(64, 64).pixels[..., :3]).save(mask)
    second = space.examine(swap)
    assert second.key != first.key and second.data != first.data
    mask.unlink()
    gone = space.examine(swap)
    assert gone.state == "breaks" and "mask.png" in gone.points[0].why


def test_the_spec_of_what_furnel_writes_is_the_one_asked_for(space: Workspace, sources: Path) -> None:
    """A normal map, an uncompressed and a BC7 original are matched to the byte layout."""
    for original in (
        "art/water/tarn_normals.dds",
        "art/sky/moon.dds",
        "art/sky/dusk.dds",
        "cast/passenger_idle.png",
    ):
        wanted = space.original_spec(original)
        found = space.examine(space.fitted(space.new_swap(original, sources / "moss_bright.png")))
        assert isinstance(wanted, PictureSpec) and isinstance(found.result, PictureSpec)
        assert (found.result.format, found.result.levels) == (wanted.format, wanted.levels)
        assert all(found.result.note(key) == wanted.note(key) for key in ("header", "mode"))
        assert not [
            point
            for point in found.points
            if (point.state == "breaks" and point.key not in ("alpha", "frames", "size"))
            or (point.key == "size" and point.state == "breaks" and not original.startswith("cast/"))
        ]
