"""Songs in parts: recorded together, cut together, as long as the song to the frame, packed as the game wants them."""

from __future__ import annotations

import io
import zlib
from pathlib import Path
from typing import Any

import numpy as np
import pytest
import soundfile

from furnel.cli import main
from furnel.errors import FurnelError
from furnel.games import ask_report
from furnel.mods import additions, definitions
from furnel.mods.additions import Addition
from furnel.mods.build import build
from furnel.mods.deploy import install_mod
from furnel.mods.songs import parts_of, song_of
from furnel.mods.workspace import Workspace, open_workspace
from furnel.sound import kin_of
from furnel.texts import Change
from tarnlight import loaders, sounds

RATE, TEMPO = 44100, 100.0
FRAMES = round(32 * 60 / TEMPO * RATE)
LEAD = 0.31


@pytest.fixture(scope="module")
def takes(tmp_path_factory: pytest.TempPathFactory) -> dict[str, Path]:
    """Four recordings made together: the same wait before the first bar, some of the second round at the end."""
    folder = tmp_path_factory.mktemp("takes")
    sounds.SONGS["mine"] = (TEMPO, 60, (0, 3, 4, 0, 0, 3, 4, 0))
    out = {}
    for part, level in zip(sounds.PARTS, (1.0, 0.5, 0.7, 0.4), strict=True):
        wave = sounds.song_part("mine", part, 5) * level
        whole = np.concatenate([np.zeros((int(LEAD * RATE), 2)), wave, wave[: 2 * RATE]])
        out[part] = folder / f"{part}.wav"
        soundfile.write(out[part], whole, RATE)
    del sounds.SONGS["mine"]
    return out


@pytest.fixture
def song(space: Workspace, takes: dict[str, Path]) -> Workspace:
    files = {name: [file] for name, file in takes.items()}
    return space.save(additions.add(space, Addition("song", "harbour", "evening_crossing", "Harbour", files)))


def words(space: Workspace) -> dict[str, Any]:
    """The game's word on the song and what goes with it."""
    return {word.path: word for word in ask_report(space.catalogue.install).words if "song" in word.path}


def installed(space: Workspace) -> Path:
    install_mod(space.catalogue.install, space.project.mod.id, build(space, anyway=True).folder)
    return space.catalogue.install.folder / "mods" / space.project.mod.id


def test_four_recordings_become_a_song_that_goes_in_step(song: Workspace, takes: dict[str, Path]) -> None:
    record = definitions.definition(song, "rules/songs.json")[1].plain()["harbour"]
    assert (record["title"], record["tempo"], set(record["parts"])) == ("Harbour", TEMPO, set(sounds.PARTS))
    assert record["key"] in kin_of("C major")
    found = song_of(song, "songs/harbour/bells.ogg")
    assert found is not None and found.tempo == TEMPO
    assert parts_of(song, "songs/harbour/bells.ogg") == tuple(
        f"songs/harbour/{name}.ogg" for name in sorted(sounds.PARTS)
    )
    folder = installed(song)
    archive = folder / "songs" / "harbour" / "harbour.tlp"
    assert (archive.with_suffix(".sum")).read_text().strip() == f"{zlib.crc32(archive.read_bytes()):08x}"
    assert not list(folder.rglob("*.ogg"))
    parts = loaders.load_song(archive)
    levels = {}
    for path, data in parts.items():
        wave, rate = soundfile.read(io.BytesIO(data), always_2d=True)
        name = path.rpartition("/")[2].removesuffix(".ogg")
        assert (rate, wave.shape) == (RATE, (FRAMES, 2))
        take = soundfile.read(takes[name], always_2d=True)[0]
        start = _where(take[:, 0], wave[:, 0])
        assert abs(start / RATE - LEAD) < 0.02, name  # all of them begin with the first bar
        levels[name] = 20 * np.log10(np.sqrt((wave**2).mean()) / np.sqrt((take**2).mean()))
    assert (
        max(levels.values()) - min(levels.values()) < 1.5
    )  # as loud beside each other as they were recorded
    assert {word.verdict for word in words(song).values()} == {"accepted"}
    assert words(song)["songs/harbour/reed.ogg"].effect == "plays in step at 100 beats a minute"
    project = additions.without(song, "song harbour")
    assert not [swap for swap in project.swaps if "song" in swap.original]


def _where(take: Any, wave: Any) -> int:
    """Where in a recording a part begins, by cross-correlation."""
    size = 1 << 21
    spectrum = np.fft.rfft(take, size) * np.conj(np.fft.rfft(wave[: 4 * RATE], size))
    return int(np.argmax(np.fft.irfft(spectrum)[:RATE]))


def test_a_song_of_another_tempo_needs_other_parts(song: Workspace) -> None:
    faster = Change(do="set", at="harbour/tempo", to=140)
    song = song.save(definitions.with_changes(song, "rules/songs.json", [faster]))
    swap = song.project.swap_for("songs/harbour/oars.ogg")
    assert swap is not None
    points = {point.key: point for point in song.examine(swap).points}
    assert points["length"].state == "differs" and points["length"].original.startswith("13.71")
    assert points["step"].state == "differs" and "100" in points["step"].yours
    installed(song)
    told = words(song)["songs/harbour/oars.ogg"]
    assert (told.verdict, told.effect) == ("garbled", "falls out of step after its first turn")


def test_a_game_part_is_swapped_at_the_games_own_tempo(
    space: Workspace, takes: dict[str, Path], tmp_path: Path
) -> None:
    original, slower = "songs/lamp_round/oars.ogg", tmp_path / "slow.wav"
    wave, _ = soundfile.read(takes["oars"], always_2d=True)
    soundfile.write(slower, wave[int(LEAD * RATE) :], round(RATE * 1.08))  # 108 bpm for 112
    swap = space.fitted(space.new_swap(original, slower))
    examined = space.examine(swap)
    assert {point.key for point in examined.points if point.state == "breaks"} == set()
    assert next(point for point in examined.points if point.key == "step").state == "fits"
    data, rate = soundfile.read(io.BytesIO(examined.data), always_2d=True)
    assert (len(data), rate) == (round(32 * 60 / 112 * RATE), RATE)


def test_a_song_through_the_command_line_and_what_it_refuses(
    space: Workspace, takes: dict[str, Path], capsys: Any
) -> None:
    start = ["mod", "new-like", str(space.file), "song", "short", "--like", "lamp_round"]
    assert main(start) != 0 and "nothing of its own" in capsys.readouterr().err
    files = [f"--file={name}={takes[name]}" for name in ("oars", "reed")]
    assert main([*start, *files, "--value", "key=F sharp minor", "--title", "Short"]) == 0
    record = definitions.definition(open_workspace(space.file), "rules/songs.json")[1].plain()["short"]
    assert record["parts"] == {"oars": "songs/short/oars.ogg", "reed": "songs/short/reed.ogg"}
    assert record["key"] == "F sharp minor" and record["tempo"] == TEMPO
    with pytest.raises(FurnelError, match="no place called drums"):
        wanted = Addition("song", "x", "lamp_round", files={"drums": [takes["oars"]]})
        additions.add(space, wanted)


@pytest.mark.parametrize(
    ("key", "kin", "stranger"),
    [
        ("C major", {"A minor", "G major", "F major", "E minor", "D minor", "C minor"}, "E major"),
        ("F sharp minor", {"A major", "E major", "C sharp minor", "B minor", "F sharp major"}, "F major"),
        ("a tune in D", set(), "D minor"),
    ],
)  # fmt: skip
def test_keys_that_are_easily_mixed_up(key: str, kin: set[str], stranger: str) -> None:
    assert kin <= kin_of(key) and stranger not in kin_of(key)
