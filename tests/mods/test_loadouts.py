"""Load-outs: kept, used, handed on; what is missing at a friend's is said."""

from __future__ import annotations

import tomllib
from pathlib import Path

import pytest

from furnel.cli import main
from furnel.errors import FurnelError
from furnel.games import BRIDGE, Install, read_stack
from furnel.mods.bridge import bridge_state, make_bridge
from furnel.mods.loadouts import keep_load_out, load_out_now, load_outs, read_load_out, use_load_out
from tests.mods.test_bridge import BOAT, put

FAST, LONG = {"rules/boats.toml": BOAT % (b"7.4", b"4.5")}, {"rules/boats.toml": BOAT % (b"9.5", b"3.2")}


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))


def standing(install: Install) -> list[tuple[str, bool]]:
    return [(mod.id, mod.on) for mod in read_stack(install)]


def test_sets_are_switched_as_a_whole_and_the_bridge_stays_last(game: Path) -> None:
    install = put(game, fast=FAST, long=LONG, other={"notes.txt": b"x"})
    keep_load_out(install, load_out_now(install, "All of them"))
    assert main(["mods", str(game), "--off", "other", "--last", "fast"]) == 0
    make_bridge(install)
    keep_load_out(install, load_out_now(install, "Races"))
    assert use_load_out(install, load_outs(install)["All of them"]).said == ""
    assert standing(install) == [("fast", True), ("long", True), ("other", True), (BRIDGE, True)]
    assert bridge_state(install)[0] == "stale"
    use_load_out(install, load_outs(install)["Races"])
    assert standing(install) == [("long", True), ("other", False), ("fast", True), (BRIDGE, True)]
    assert bridge_state(install) == ("current", "")


def test_a_friend_is_told_what_is_missing(
    game: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    put(game, fast=FAST, long=LONG)
    file = tmp_path / "races.toml"
    assert main(["load-outs", str(game), "--keep", "Races", "--give", "Races", str(file)]) == 0
    told = tomllib.loads(file.read_text())
    assert [(mod["id"], mod["version"], mod["on"]) for mod in told["mods"]] == [
        ("fast", "1.0", True),
        ("long", "1.0", True),
    ]
    assert main(["load-outs", str(game), "--drop", "Races"]) == 0 and load_outs(Install(game)) == {}
    about = game / "mods/fast/mod.toml"
    about.write_text(about.read_text().replace("1.0", "2.0"))
    (game / "mods/long/mod.toml").unlink()
    capsys.readouterr()
    assert main(["load-outs", str(game), "--take", str(file), "--use", "Races"]) == 0
    said = capsys.readouterr().out
    assert "Long 1.0 is not there" in said and "Fast is 2.0, not 1.0" in said and "Races: Fast, Long" in said
    assert main(["load-outs", str(game), "--use", "Rases"]) == 2


@pytest.mark.parametrize(
    "text",
    [
        "", "nonsense", 'furnel-load-out = 2\nname = "x"\ngame = "tarnlight"\n', 'furnel-load-out = 1\nname = "x"\n',
        'furnel-load-out = 1\nname = "x"\ngame = "tarnlight"\n[[mods]]\nid = "../../evil"\n',
        'furnel-load-out = 1\nname = "x"\ngame = "another"\n', "\xff",
    ],
)  # fmt: skip
def test_what_is_no_load_out_for_this_game_is_refused(text: str, game: Path, tmp_path: Path) -> None:
    file, install = tmp_path / "bad.toml", Install(game)
    file.write_bytes(text.encode("latin-1"))
    with pytest.raises(FurnelError):
        keep_load_out(install, read_load_out(file))
    assert load_outs(install) == {}
