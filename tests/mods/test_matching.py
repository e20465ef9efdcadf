"""Files find their originals: by note, path, name and likeness; swaps follow contents; builds go as the profile says."""

from __future__ import annotations

import io
import shutil
import struct
import zlib
from pathlib import Path

import numpy as np
import pytest
import soundfile
from PIL import Image

from furnel.catalogue import NOTE, Catalogue, Marks, mark_all, preview, read_notes, take_out
from furnel.games import Install
from furnel.mods.build import build
from furnel.mods.deploy import install_mod
from furnel.mods.matching import match_folder
from furnel.mods.workspace import Workspace, create_project, open_workspace
from tarnlight import loaders
from tarnlight.world import World


@pytest.fixture
def known(space: Workspace) -> tuple[Catalogue, Marks]:
    return space.catalogue, mark_all(space.catalogue)


def painted(
    catalogue: Catalogue, path: str, file: Path, gains: tuple[float, float, float] = (1, 1, 1)
) -> None:
    shown = preview(catalogue, catalogue.get(path)).picture
    assert shown is not None
    pixels = np.clip(shown.pixels[..., :3] * np.array(gains), 0, 255).astype(np.uint8)
    file.parent.mkdir(parents=True, exist_ok=True)
    Image.fromarray(pixels).resize((300, 300)).save(file)


def test_a_folder_finds_its_originals_in_every_way(known: tuple[Catalogue, Marks], tmp_path: Path) -> None:
    catalogue, marks = known
    folder = tmp_path / "mine"
    painted(catalogue, "art/rock/slate.dds", folder / "art/rock/slate.png")
    painted(catalogue, "ensigns/large/fjell.tga", folder / "deeper/ensigns/small/fjell.png")
    painted(catalogue, "hud/compass.dds", folder / "COMPASS.png")
    painted(catalogue, "charts/adder_bay.dds", folder / "IMG_2041.png", (1.2, 0.85, 0.8))
    (folder / "bell_near 2.wav").write_bytes(catalogue.read(catalogue.get("bank0/001.wav")))
    (folder / "boats.toml").write_text("x = 1")
    (folder / "readme.md").write_text("not for the game")
    found = {match.file.name: match for match in match_folder(folder, catalogue.assets, marks)}
    assert {name: (match.original, match.how, match.on) for name, match in found.items()} == {
        "slate.png": ("art/rock/slate.dds", "path", True),
        "fjell.png": ("ensigns/small/fjell.tga", "path", True),
        "COMPASS.png": ("hud/compass.dds", "name", True),
        "IMG_2041.png": ("charts/adder_bay.dds", "likeness", True),
        "bell_near 2.wav": ("bank0/001.wav", "name", True),
        "boats.toml": ("rules/boats.toml", "name", True),
    }
    chosen = found["slate.png"].to("art/rock/granite.dds")
    assert (chosen.how, chosen.sure, chosen.on) == ("by hand", 1.0, True)


def test_the_same_pixels_or_samples_are_told_from_what_looks_alike(
    known: tuple[Catalogue, Marks], tmp_path: Path
) -> None:
    catalogue, marks = known
    read = lambda path: catalogue.read(catalogue.get(path))  # noqa: E731
    shown = preview(catalogue, catalogue.get("charts/adder_bay.dds")).picture
    assert shown is not None
    Image.fromarray(shown.pixels).save(tmp_path / "one.png")
    other = shown.pixels.copy()
    other[7, 9, 0] ^= 8
    Image.fromarray(other).save(tmp_path / "two.png")
    samples, rate = soundfile.read(io.BytesIO(read("bank0/003.wav")), dtype="float32")
    soundfile.write(tmp_path / "one.flac", samples, rate, "PCM_16")
    found = {match.file.name: match for match in match_folder(tmp_path, catalogue.assets, marks, read=read)}
    assert (found["one.png"].original, found["one.png"].how) == ("charts/adder_bay.dds", "content") and found[
        "one.png"
    ].on
    assert (found["two.png"].original, found["two.png"].how) == ("charts/adder_bay.dds", "likeness")
    assert (found["one.flac"].original, found["one.flac"].how) == ("bank0/003.wav", "content")


def test_two_files_for_one_original_are_left_to_be_decided(
    known: tuple[Catalogue, Marks], tmp_path: Path
) -> None:
    catalogue, marks = known
    painted(catalogue, "art/rock/slate.dds", tmp_path / "in/art/rock/slate.png")
    painted(catalogue, "art/rock/slate.dds", tmp_path / "in/other/slate.png")
    found = {
        match.file.parent.name: match for match in match_folder(tmp_path / "in", catalogue.assets, marks)
    }
    assert found["rock"].on and not found["other"].on
    assert found["other"].original == "art/rock/slate.dds"


def test_what_was_taken_out_finds_its_way_back(known: tuple[Catalogue, Marks], tmp_path: Path) -> None:
    catalogue, marks = known
    paths = ["art/rock/slate.dds", "bank0/003.wav", "portraits/ada.dds", "portraits/per.dds"]
    folder = tmp_path / "out"
    take_out(paths, lambda path: catalogue.read(catalogue.get(path)), folder, "png")
    (folder / "new").mkdir()
    (folder / "portraits/ada.png").rename(folder / "new" / "somebody.png")  # renamed and moved, unchanged
    shutil.move(folder / "portraits/per.png", folder / "per.png")  # moved, then changed
    Image.new("RGB", (128, 128), (9, 90, 9)).save(folder / "per.png")
    Image.new("RGB", (256, 256), (90, 9, 9)).save(folder / "art/rock/slate.png")  # changed where it was
    assert read_notes(folder) == {
        "art/rock/slate.png": "art/rock/slate.dds",
        "bank0/003.wav": "bank0/003.wav",
        "new/somebody.png": "portraits/ada.dds",
        "per.png": "portraits/per.dds",
    }
    found = {match.file.name: match for match in match_folder(folder, catalogue.assets, marks)}
    assert all(match.how == "note" and match.on for match in found.values())
    assert (
        found["somebody.png"].original == "portraits/ada.dds"
        and found["per.png"].original == "portraits/per.dds"
    )
    (folder / NOTE).write_text("{broken")
    assert read_notes(folder) == {}


def renumber(game: Path) -> None:
    """A game update: the bank's sounds in another order, one of them gone, its index and sums made anew."""
    bank = game / "data" / "bank0.tls"
    sounds = list(loaders.load_container(bank).values())
    fresh = [*sounds[5:], *sounds[1:5]]
    offsets, body = [], b""
    for sound in fresh:
        body += bytes(-len(body) % 4)
        offsets.append(len(body))
        body += sound
    ends = [*offsets[1:], len(body)]
    bank.write_bytes(body)
    bank.with_suffix(".tlx").write_bytes(struct.pack(f">4sI{len(fresh)}I", b"TLSX", len(fresh), *offsets))
    sums = [struct.pack(">I", zlib.crc32(body[a:b])) for a, b in zip(offsets, ends, strict=True)]
    bank.with_suffix(".sum").write_bytes(b"".join(sums))


def test_a_game_update_that_renumbers_is_followed(game: Path, sources: Path, tmp_path: Path) -> None:
    space = open_workspace(create_project(tmp_path / "mod", "Evening Post", game))
    mark_all(space.catalogue)
    for path in ("bank0/002.wav", "bank0/000.wav"):
        space = space.save(
            space.project.with_swap(space.fitted(space.new_swap(path, sources / "church_bell.mp3")))
        )
    project = space.file
    space.close()
    renumber(game)
    after = open_workspace(project)
    count = len(after.catalogue.assets)
    moved = f"bank0/{42:03}.wav"
    swap, gone = after.project.swap_for("bank0/002.wav"), after.project.swap_for("bank0/000.wav")
    assert swap is not None and gone is not None
    point = next(point for point in after.examine(swap).points if point.key == "drift")
    assert point.state == "breaks" and moved in point.remedy
    followed = after.followed(swap)
    assert followed is not None and followed.original == moved
    assert not [point for point in after.examine(followed).points if point.key == "drift"]
    assert after.followed(gone) is None
    assert next(point for point in after.examine(gone).points if point.key == "drift").state == "differs"
    mark_all(after.catalogue)
    assert after.catalogue.get(moved).title == "bell_near 3"  # its name went with it
    assert count == len(after.catalogue.assets)
    after.close()


@pytest.mark.parametrize("goes", ["archive", "rebuilt"])
def test_a_build_goes_as_the_profile_says(fitted: Workspace, goes: str) -> None:
    rule = fitted.profile.mods.model_copy(update={"goes": goes, "archive": "{id}.zip"})
    profile = fitted.profile.model_copy(update={"mods": rule})
    fitted.catalogue.install.profile = profile
    done = build(fitted)
    names = {file.relative_to(done.folder).as_posix() for file in done.folder.rglob("*") if file.is_file()}
    if goes == "archive":
        assert names == {"evening-post.zip", "mod.toml"}
        return
    assert names == {
        "data/art.tlp", "data/cast.tlc", "data/bank0.tls", "data/bank0.tlx", "data/bank0.sum", "data/music.tlm", "mod.toml",
    }  # fmt: skip
    game = fitted.catalogue.install.folder
    changed = loaders.load_container(done.folder / "data" / "art.tlp")
    theirs = loaders.load_container(game / "data" / "art.tlp")
    assert {path for path in theirs if changed[path] != theirs[path]} == {"art/hulls/hull_otter.dds"}
    install_mod(fitted.catalogue.install, "evening-post", done.folder)
    world = World(game)
    mine = [one for one in world.verdicts() if one.winner == "evening-post"]
    assert {one.verdict for one in mine} == {"accepted"}
    assert "art/hulls/hull_otter.dds" in {one.path for one in mine}


def test_install_opens_what_it_rebuilt_but_never_writes_over_the_game(fitted: Workspace) -> None:
    from furnel.containers import Changes
    from furnel.errors import FurnelError

    install: Install = fitted.catalogue.install
    archive = install.archives[0]
    with pytest.raises(FurnelError, match="the game's own file"):
        install.rewrite(archive, archive.path, Changes())
