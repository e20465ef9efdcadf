"""The stand-in game: the same every time, and as strict and as dumb as it says."""

from __future__ import annotations

import shutil
import struct
from pathlib import Path

import numpy as np
import pytest
from tests.conftest import digest

from tarnlight import loaders, writers
from tarnlight.art import shore
from tarnlight.cli import main
from tarnlight.forge import forge
from tarnlight.scenes import SCENES, still
from tarnlight.world import World, missing

ABOUT = 'id = "m"\nname = "M"\nversion = "1"\ngame-version = "1.2"\n'


def with_mod(game: Path, files: dict[str, bytes], about: str = ABOUT) -> World:
    for path, data in {
        "m/mod.toml": about.encode(),
        "order.toml": b'[[mod]]\nid = "m"\n',
        **{f"m/{p}": d for p, d in files.items()},
    }.items():
        (game / "mods" / path).parent.mkdir(parents=True, exist_ok=True)
        (game / "mods" / path).write_bytes(data)
    return World(game)


def verdict(world: World, path: str) -> tuple[str, str]:
    word = next(word for word in world.verdicts() if word.path == path)
    return word.verdict, word.winner


def test_two_forges_are_the_same_bytes(forged: Path, tmp_path: Path) -> None:
    forge(tmp_path / "again")
    assert digest(tmp_path / "again") == digest(forged)


def test_it_accepts_its_own(forged: Path) -> None:
    assert {word.verdict for word in World(forged).verdicts()} == {"accepted"}


@pytest.mark.parametrize(
    ("path", "make", "expected"),
    [
        ("art/rock/slate.dds", lambda p: writers.dds(p(256, 256), "DXT1"), "accepted"),
        ("art/rock/slate.dds", lambda p: writers.dds(p(128, 256), "DXT1"), "garbled"),
        ("art/rock/slate.dds", lambda p: writers.dds(p(256, 256), "DXT5"), "garbled"),
        ("art/rock/slate.dds", lambda p: writers.dds(p(256, 256), "DXT1")[:5000], "garbled"),
        ("art/rock/slate.dds", lambda p: writers.png(p(256, 256)), "refused"),
        ("ensigns/small/fjell.tga", lambda p: writers.tga(p(48, 32)), "accepted"),
        ("ensigns/small/fjell.tga", lambda p: writers.tga(p(32, 48)), "garbled"),
        ("cast/otter_walk.png", lambda p: writers.png(p(240, 24)), "garbled"),
        ("cast/otter_walk.png", lambda p: writers.png(p(240, 48)), "refused"),
        ("bank0/003.wav", lambda p: writers.wav(np.zeros(999), 48000), "accepted"),
        ("bank0/003.wav", lambda p: writers.wav(np.zeros(999), 44100), "garbled"),
        ("music/fog.ogg", lambda p: writers.ogg(np.zeros((4000, 2)), 44100, 1), "refused"),
        ("rules/palette.json", lambda p: b"{", "refused"),
        ("music/fog.loop", lambda p: struct.pack("<IIIf", 9, 3, 44100, 1), "refused"),
    ],
)  # fmt: skip
def test_its_word(game: Path, path: str, make: object, expected: str) -> None:
    def pixels(width: int, height: int) -> np.ndarray:
        return np.full((height, width, 4), 200, np.uint8) | np.uint8(255) * np.array([0, 0, 0, 1], np.uint8)

    world = with_mod(game, {path: make(pixels)})  # type: ignore[operator]
    assert verdict(world, path) == (expected, "m")
    if path.endswith((".dds", ".tga", ".png")):
        assert world.picture(path).ndim == 3


def test_names_are_case_sensitive(game: Path) -> None:
    world = with_mod(game, {"art/Rock/slate.dds": b"x"})
    assert verdict(world, "art/rock/slate.dds") == ("accepted", "game")
    assert world.strays() == ["m: art/Rock/slate.dds"]
    assert main(["report", str(game)]) == 1


def test_a_container_in_a_mod_counts_like_loose_files(game: Path) -> None:
    data = writers.dds(np.full((256, 256, 4), 90, np.uint8), "DXT1")
    world = with_mod(game, {"own.tlp": writers.tlp({"art/rock/slate.dds": data})})
    assert verdict(world, "art/rock/slate.dds") == ("accepted", "m")


def test_a_mod_for_another_version_is_left_out(game: Path) -> None:
    world = with_mod(game, {"rules/palette.json": b"{}"}, ABOUT.replace("1.2", "0.9"))
    assert verdict(world, "rules/palette.json") == ("accepted", "game")
    assert "version 0.9" in world.notes[0]


@pytest.mark.parametrize("scene", SCENES)
def test_scenes_are_drawn_whatever_the_assets_are(game: Path, scene: str) -> None:
    plain = np.asarray(still(World(game), scene, 90))
    assert plain.shape == (540, 960, 3) and plain.std() > 20
    world = with_mod(
        game,
        {
            "art/hulls/hull_otter.dds": b"not a texture",
            "cast/ferryman_idle.png": b"nor this",
            "cast/gull_fly.png": b"",
        },
    )
    np.testing.assert_array_equal(world.picture("art/hulls/hull_otter.dds"), missing())
    assert not np.array_equal(np.asarray(still(world, scene, 90)), plain)
    np.testing.assert_array_equal(np.asarray(still(World(game, with_mods=False), scene, 90)), plain)


def test_bad_usage(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["report", str(tmp_path)]) == 2
    assert "not a Tarnlight Ferry install" in capsys.readouterr().err


@pytest.mark.parametrize(
    ("path", "old", "new", "expected", "why"),
    [
        ("rules/boats.toml", "speed = 3.2", "speed = 3.8", "accepted", ""),
        ("rules/boats.toml", "speed = 3.2", "speed = 6.0", "garbled", "planes at 6"),
        ("rules/boats.toml", "speed = 3.2", 'speed = "fast"', "refused", "'fast' for speed"),
        ("rules/boats.toml", "speed = 3.2", "sped = 3.2", "refused", "no speed"),
        ("rules/boats.toml", "speed = 3.2", "speed = 3.2\nflag = 1", "garbled", "flag, which the game does not know"),
        ("rules/boats.toml", "hull_skiff", "hull_skif", "refused", "nowhere"),
        ("rules/boats.toml", "[skiff]", "[otter]", "refused", "not readable"),
        ("rules/scene.xml", 'ref="heron"', 'ref="hern"', "refused", "the boat hern"),
        ("rules/scene.xml", 'x="0.783"', 'x="1.783"', "garbled", "out of sight"),
        ("rules/scene.xml", 'id="lamp store"', 'id="quay"', "refused", "two scenes"),
        ("rules/playlist.json", '"fog"', '"fig"', "refused", "fig, which is nowhere"),
        ("rules/tunes.json", '"on": true', '"on": "yes"', "refused", "'yes' for on"),
        ("rules/wares.json", '"price": 12', '"price": -2', "refused", "less than nothing"),
        ("rules/villages.ini", "ensign = kettle", "ensign = ketle", "refused", "nowhere"),
        ("rules/passengers.json", '"clerk"', '"nurse"', "garbled", "two passengers"),
        ("rules/berths.yard", "depth_m = 1.6", "depth_m = 0.6", "garbled", "too shallow"),
        ("rules/berths.yard", "boat = 'skiff'", "boat = 'skif'", "refused", "skif lies at south"),
        ("rules/strings.csv", "mail,Night mail", "quay,Night mail", "garbled", "quay stands there twice"),
    ],
)  # fmt: skip
def test_its_word_on_values(game: Path, path: str, old: str, new: str, expected: str, why: str) -> None:
    text = World(game).originals[path].decode()
    assert old in text
    world = with_mod(game, {path: text.replace(old, new, 1).encode()})
    found = next(word for word in world.verdicts() if word.path == path)
    assert (found.verdict, found.winner) == (expected, "m") and why in found.reason
    for scene in SCENES:  # what it refuses it leaves as it is, and goes on
        assert np.asarray(still(world, scene, 3)).shape == (540, 960, 3)


def test_a_song_lies_in_a_folder_of_its_name_with_its_checksum(forged: Path, tmp_path: Path) -> None:
    own = forged / "data" / "songs" / "lamp_round"
    for folder, edit, says in (
        ("lamp_round", None, ""), ("lamp round", None, "in a folder of its own name"), ("lamp_round", "sum", "checksum"),
        ("lamp_round", "gone", "no checksum beside it"),
    ):  # fmt: skip
        place = tmp_path / str(edit) / folder
        shutil.copytree(own, place, dirs_exist_ok=True)
        if edit == "sum":
            (place / "lamp_round.sum").write_text("00000000")
        elif edit == "gone":
            (place / "lamp_round.sum").unlink()
        if says:
            with pytest.raises(loaders.Broken, match=says):
                loaders.load_song(place / "lamp_round.tlp")
        else:
            assert len(loaders.load_song(place / "lamp_round.tlp")) == 2


def shore_sheet(spoil: str = "") -> bytes:
    pixels = shore.ferryman_shore()
    if spoil == "empty":
        pixels[:48, 96:128] = 0
    elif spoil == "unused":
        pixels[60, 80] = (1, 2, 3, 255)
    return writers.png(pixels)


def mask_sheet(spoil: str = "") -> bytes:
    pixels = shore.sailor_mask()
    if spoil == "between":
        pixels[20, 35] = (255, 0, 0, 255)
    elif spoil == "mixed":
        pixels[20, 15] = (200, 100, 0, 255)
    return writers.png(pixels, palette=True)


def tiles(spoil: str = "") -> bytes:
    pixels = shore.dock_tiles()
    if spoil:
        pixels[100:124, 127] = 0
    return writers.png(pixels)


@pytest.mark.parametrize(
    ("path", "data", "said"),
    [
        ("cast/ferryman_shore.png", shore_sheet(), ""),
        ("cast/ferryman_shore.png", shore_sheet("empty"), "frame 4 of walk is empty"),
        ("cast/ferryman_shore.png", shore_sheet("unused"), "drawn in an unused part: cell 8"),
        ("cast/sailor_mask.png", mask_sheet(), ""),
        ("cast/sailor_mask.png", mask_sheet("between"), "ink outside the cells"),
        ("cast/sailor_mask.png", mask_sheet("mixed"), "1 pixels that are no pure red, green or blue"),
        ("tiles/dock.png", tiles(), ""),
        ("tiles/dock.png", tiles("gap"), "tile 16 has a gap at its side e"),
    ],
)
def test_what_it_says_of_sheets_of_several_animations_masks_and_tiles(
    game: Path, path: str, data: bytes, said: str
) -> None:
    world = with_mod(game, {path: data})
    word = next(word for word in world.verdicts() if word.path == path)
    assert (word.verdict, word.reason) == ("garbled" if said else "accepted", said)
    before, after = (
        np.asarray(still(one, "shore", 12 if "ferryman" in path else 40))
        for one in (World(game, with_mods=False), world)
    )
    assert (before != after).any() == (
        said not in ("", "drawn in an unused part: cell 8", "ink outside the cells")
    )
