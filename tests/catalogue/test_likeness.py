"""Finding by look and by ear: crops of the game's own stills, colours, sounds, and kin, against what the game's maker knows."""

from __future__ import annotations

import re
from collections.abc import Iterator
from itertools import combinations
from pathlib import Path

import numpy as np
import numpy.typing as npt
import pytest
from PIL import Image, ImageDraw
from scipy import ndimage
from tests.conftest import shared

from furnel import sound
from furnel.catalogue import Catalogue, Marks, like_colour, like_picture, like_sound, mark_all, preview
from furnel.catalogue.kin import names_differ, size_free
from furnel.catalogue.marks import patches_of, sound_marks
from furnel.errors import Cancelled
from furnel.games import Install, keep_profile, profile_text, survey
from furnel.images.picture import Picture
from furnel.media import Preview
from tarnlight.content import bank
from tarnlight.forge import forge
from tarnlight.scenes import SCENES, Stage
from tarnlight.world import World

Cover = dict[str, npt.NDArray[np.bool_]]


def _learned(folder: Path) -> None:
    """A larger game, with what it is recognised by."""
    forge(folder / "game", scale=6)
    catalogue = Catalogue(Install(folder / "game"), folder / "index.sqlite")
    catalogue.refresh()
    mark_all(catalogue)
    catalogue.close()


@pytest.fixture(scope="module")
def scaled(tmp_path_factory: pytest.TempPathFactory) -> Iterator[tuple[Catalogue, Marks]]:
    folder = shared(tmp_path_factory, "scaled", _learned)
    catalogue = Catalogue(Install(folder / "game"), folder / "index.sqlite")
    catalogue.refresh()
    yield catalogue, mark_all(catalogue)
    catalogue.close()


@pytest.fixture(scope="module")
def plain(forged: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[tuple[Catalogue, Marks]]:
    catalogue = Catalogue(Install(forged), tmp_path_factory.mktemp("plain") / "index.sqlite")
    catalogue.refresh()
    yield catalogue, mark_all(catalogue)
    catalogue.close()


def covers(folder: Path, scene: str) -> tuple[npt.NDArray[np.uint8], Cover]:
    """A still, and for each asset in it the pixels that change when its colours are turned over."""
    world = World(folder)
    still = Stage(world, scene).frame(90)
    drawn = dict(world._cache)
    found: Cover = {}
    for key, pixels in drawn.items():
        path = key.rsplit("#", 1)[0]
        if "normals" in path:
            continue
        world._cache = {**drawn, key: np.dstack([255 - pixels[..., :3], pixels[..., 3]])}
        seen = np.abs(Stage(world, scene).frame(90).astype(int) - still).sum(-1) > 24
        if seen.sum() > 300:
            found[path] = found.get(path, False) | seen
    return still, found


def crop(
    rng: np.random.Generator, stills: dict[str, tuple[npt.NDArray[np.uint8], Cover]]
) -> tuple[set[str], Picture]:
    """A piece of a still around something in it, tinted and scaled; and every asset that covers a quarter of it."""
    while True:
        still, cover = stills[list(stills)[rng.integers(len(stills))]]
        path = list(cover)[rng.integers(len(cover))]
        parts, _ = ndimage.label(ndimage.binary_dilation(cover[path], iterations=2))
        spans = [
            span for n, span in enumerate(ndimage.find_objects(parts), 1) if (parts[span] == n).sum() > 250
        ]
        if not spans:
            continue
        ends = []
        for side, most in zip(spans[rng.integers(len(spans))], still.shape, strict=False):
            start, stop = side.start, side.stop
            if stop - start > 280:
                start = int(rng.integers(start, stop - 279))
                stop = start + 280
            before, after = rng.uniform(-0.15, 0.2, 2) * (stop - start)
            ends.append(slice(max(int(start - before), 0), min(int(stop + after), most)))
        box = tuple(ends)
        right = {name for name, mask in cover.items() if mask[box].mean() > 0.25}
        if path not in right or min(still[box].shape[:2]) < 24:
            continue
        tinted = np.clip(still[box] * rng.uniform(0.75, 1.25, 3), 0, 255).astype(np.uint8)
        image = Image.fromarray(tinted)
        scale = rng.uniform(0.6, 1.7)
        size = max(int(image.width * scale), 16), max(int(image.height * scale), 16)
        return right, Picture(np.asarray(image.resize(size, Image.Resampling.BICUBIC).convert("RGBA")))


def test_of_a_hundred_crops_of_stills_eighty_find_their_asset(
    forged: Path, plain: tuple[Catalogue, Marks]
) -> None:
    catalogue, marks = plain
    stills = {scene: covers(forged, scene) for scene in SCENES[::2]}
    rng = np.random.default_rng(20)
    hits = 0
    for _ in range(100):
        right, picture = crop(rng, stills)
        first: list[str] = []
        kin: set[int] = set()
        for row in like_picture(
            marks.pictures, picture
        ).rows.tolist():  # kin count once, as the window shows them
            if row not in kin:
                first.append(catalogue.assets.paths[row])
                kin.update(marks.kin.of(row))
            if len(first) == 5:
                break
        family = {
            catalogue.assets.paths[other]
            for path in right
            for other in marks.kin.of(catalogue.assets.row(path))
        }
        hits += bool((right | family) & set(first))
    assert hits >= 80


def twin_of(path: str) -> object:
    """What an asset is a copy of, by the names that the maker of the copies gave."""
    if copied := re.fullmatch(r"more/(.*?)/(?:small/)?([^/]*)", path):
        return copied.groups()
    if heard := re.fullmatch(r"bank1/(\d+)\.wav", path):
        return divmod(int(heard[1]), len(bank()))[1], int(heard[1]) // (2 * len(bank()))
    if flag := re.fullmatch(r"ensigns/\w+/(\w+)\.tga", path):
        return flag[1]
    return path.replace("otter_near_walk", "otter_walk")  # the same, doubled


def test_kin_are_found_and_nothing_else(scaled: tuple[Catalogue, Marks]) -> None:
    catalogue, marks = scaled
    paths = catalogue.assets.paths
    families: dict[object, list[int]] = {}
    for row, path in enumerate(paths):
        families.setdefault(twin_of(path), []).append(row)
    truth = {pair for family in families.values() for pair in combinations(family, 2)}
    found = {tuple(sorted((row, other))) for row in range(len(paths)) for other in marks.kin.of(row)}
    assert len(truth & found) / len(truth) >= 0.95
    assert len(truth & found) / len(found) >= 0.98
    small = catalogue.assets.row("ensigns/small/fjell.tga")
    assert {paths[row] for row in marks.kin.of(small)} == {
        "ensigns/medium/fjell.tga",
        "ensigns/large/fjell.tga",
    }


def test_marks_are_kept_and_the_same_the_next_time(
    scaled: tuple[Catalogue, Marks], monkeypatch: pytest.MonkeyPatch
) -> None:
    catalogue, marks = scaled
    monkeypatch.setattr(Install, "view", lambda *_: pytest.fail("an asset was read again"))
    again = mark_all(catalogue)
    np.testing.assert_array_equal(again.pictures.signs, marks.pictures.signs)
    np.testing.assert_array_equal(again.digests, marks.digests)
    np.testing.assert_array_equal(again.kin.groups, marks.kin.groups)


def test_marking_stops_when_asked_and_goes_on_where_it_was(forged: Path, tmp_path: Path) -> None:
    class Stop:
        done = 0.0

        def report(self, fraction: float, text: str) -> None:
            self.done = fraction

        def cancelled(self) -> bool:
            return self.done > 0.6

    catalogue = Catalogue(Install(forged), tmp_path / "index.sqlite")
    catalogue.refresh()
    with pytest.raises(Cancelled):
        mark_all(catalogue, Stop())
    kept = sum(catalogue.kept_marks(archive, 0) is not None for archive in catalogue.install.archives)
    assert 0 < kept < len(catalogue.install.archives)
    assert len(mark_all(catalogue).digests) == len(catalogue.assets)


@pytest.mark.parametrize(
    ("colour", "words"),
    [
        ((168, 72, 47), "sail_rust"),
        ((30, 60, 66), "tarn_deep|hull|dusk|tarn_shallow|slate|moss"),
        ((136, 42, 38), "hull_mail|brenna|wax"),
    ],
)
def test_like_a_colour(plain: tuple[Catalogue, Marks], colour: tuple[int, int, int], words: str) -> None:
    catalogue, marks = plain
    ranking = like_colour(marks.pictures, colour)
    first = [catalogue.assets.paths[row] for row in ranking.rows[:8]]
    assert any(re.search(words, path) for path in first), first
    assert (np.diff(ranking.scores) <= 0).all()
    for row in ranking.rows[:5].tolist():
        shown: Preview = preview(catalogue, catalogue.assets[row])
        assert shown.picture is not None
        pixels = shown.picture.pixels[shown.picture.pixels[..., 3] > 128][:, :3].astype(int)
        assert (np.abs(pixels - colour).max(1) < 70).mean() > 0.2


def test_like_a_picture_at_another_size_and_tint(plain: tuple[Catalogue, Marks]) -> None:
    catalogue, marks = plain
    for path in (
        "charts/adder_bay.dds",
        "portraits/tove.dds",
        "art/sails/sail_heron.dds",
        "art/planks/jetty.dds",
    ):
        shown = preview(catalogue, catalogue.get(path)).picture
        assert shown is not None
        tinted = np.clip(shown.pixels * np.array([1.2, 0.8, 0.9, 1]), 0, 255).astype(np.uint8)
        small = Image.fromarray(tinted).resize((90, 90))
        ranking = like_picture(marks.pictures, Picture(np.asarray(small)))
        assert path in [catalogue.assets.paths[row] for row in ranking.rows[:3]] and ranking.scores[
            0
        ] == pytest.approx(1)


def test_like_a_sound_whatever_its_loudness_and_rate(plain: tuple[Catalogue, Marks]) -> None:
    catalogue, marks = plain
    for path in ("bank0/003.wav", "bank0/013.wav", "bank0/021.wav"):
        clip, _ = sound.read_clip(catalogue.read(catalogue.get(path)))
        quiet = sound.Clip((sound.resampled(clip, 32000).samples * 0.4).astype(np.float32), 32000)
        ranking = like_sound(marks.sounds, sound_marks(quiet))
        assert path in [catalogue.assets.paths[row] for row in ranking.rows[:3]]


def test_pictures_without_anything_in_them_are_no_trouble() -> None:
    for size in ((1, 1), (3, 700), (40, 40)):
        flat = np.full((*size, 4), 80, np.uint8)
        assert len(patches_of(flat, (1.0, 0.5), 64)) == 0
        clear = np.zeros((*size, 4), np.uint8)
        assert len(patches_of(clear, (1.0,), 64)) == 0
    assert sound_marks(sound.Clip(np.zeros((1, 2), np.float32), 44100)).shape == (29,)


@pytest.mark.parametrize(
    ("one", "other", "differ"),
    [
        ("gfx/charge_plus.png", "gfx/charge_minus.png", True), ("gfx/spin-06.png", "gfx/spin-07.png", True),
        ("gfx/lamp.png", "gfx/lamp2.png", True), ("gfx16/lamp.png", "gfx32/lamp.png", False),
        ("gfx/lamp.png", "gfx/lamp-large.png", False), ("gfx/door_left.png", "gfx/door_right.png", True),
        ("a/walk_1.png", "b/walk_2.png", False),
    ],
)  # fmt: skip
def test_names_tell_frames_and_opposites_apart(one: str, other: str, differ: bool) -> None:
    assert names_differ(one, other) is differ is names_differ(other, one)


@pytest.mark.parametrize(
    ("one", "other", "same"),
    [
        ("art/gfx16/crate.png", "art/gfx64/crate.png", True),
        ("art/small/crate.png", "art/large/crate.png", True),
        ("flags/fjell.png", "flags/fjell-large.png", True),
        ("icons/oar@2x.png", "icons/oar.png", True),
        ("art/gfx16/crate.png", "art/gfx64/crates.png", False),
        ("walk/otter_06.png", "walk/otter_07.png", False),
        ("art/boats/crate.png", "art/shore/crate.png", False),
        ("large.png", "small.png", False),
    ],
)
def test_paths_tell_sizes_of_one_picture(one: str, other: str, same: bool) -> None:
    assert (size_free(one) == size_free(other)) is same


def test_pictures_that_were_drawn_anew_at_each_size_are_kin_by_their_names(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    rng, game = np.random.default_rng(5), tmp_path / "Moss"
    for size in (16, 64):
        folder = game / f"icons{size}"
        folder.mkdir(parents=True)
        for name in ("crate", "lamp", "rope", "sack"):
            icon = Image.new(
                "RGBA",
                (size, size),
                (250, 230, 90, 255) if name == "lamp" and size > 16 else (40, 50, 70, 255),
            )
            draw, unit = ImageDraw.Draw(icon), size / 16
            if name == "crate":  # at 16 pixels with a thicker cross, and no shade
                draw.rectangle((3 * unit, 3 * unit, 13 * unit, 13 * unit), (170, 110, 50, 255))
                draw.line(
                    (3 * unit, 3 * unit, 13 * unit, 13 * unit), (250, 220, 160, 255), 3 if size == 16 else 4
                )
            elif name != "lamp":
                for x, y, w in rng.uniform(2, 11, (5, 3)).tolist():
                    draw.ellipse(
                        (x * unit, y * unit, (x + w / 3) * unit, (y + w / 3) * unit),
                        (200, int(20 * w), 90, 255),
                    )
            icon.save(folder / f"{name}.png")
    keep_profile(profile_text(survey(game), "Moss", "mods", goes="in-place"))
    catalogue = Catalogue(Install(game), tmp_path / "index.sqlite")
    catalogue.refresh()
    marks, paths = mark_all(catalogue), catalogue.assets.paths
    found = {paths[row]: [paths[other] for other in marks.kin.of(row)] for row in range(len(paths))}
    catalogue.close()
    assert found["icons16/crate.png"] == ["icons64/crate.png"] and found["icons64/crate.png"] == [
        "icons16/crate.png"
    ]
    assert found["icons16/lamp.png"] == []
