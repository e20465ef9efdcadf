"""`merge.py` in a package: run by a bare python3, it makes of two mods what Furnel's own bridge makes, and goes back."""

from __future__ import annotations

import json
import subprocess
import sys
import tomllib
import zipfile
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.cli import main
from furnel.containers import find_layout, open_container, parse_layout, write_archive
from furnel.errors import FurnelError
from furnel.games import BRIDGE, write_order
from furnel.mods import mergescript
from furnel.mods.bridge import make_bridge
from furnel.mods.build import build
from furnel.mods.definitions import with_changes
from furnel.mods.installer import hunks_of, kind_of_layout, merge_script
from furnel.mods.workspace import Workspace
from furnel.texts import Change
from tarnlight import loaders
from tarnlight.world import World
from tests.conftest import digest
from tests.mods.conftest import Opener
from tests.mods.test_bridge import BOAT, edited, put, report
from tests.mods.test_goes import put_in


def unpacked(space: Workspace, game: Path, *words: str) -> Path:
    """The mod's package, made by the command line, in the game's mods folder: by `unzip` alone."""
    made = space.folder / "made.zip"
    assert main(["mod", "share", str(space.folder), "--with-installer", "--out", str(made), *words]) == 0
    with zipfile.ZipFile(made) as packed:
        packed.extractall(game / "mods")
    return game / "mods" / space.project.mod.id


def run(home: Path, *words: str) -> tuple[int, str]:
    ran = subprocess.run(
        [sys.executable, "-I", "-S", str(home / "merge.py"), *words], capture_output=True, text=True, check=False, cwd="/"
    )  # fmt: skip
    return ran.returncode, ran.stdout + ran.stderr


def changed(space: Workspace, path: str, *changes: Change) -> Workspace:
    return space.save(with_changes(space, path, list(changes)))


def test_what_the_bridge_makes_of_two_mods_a_bare_python_makes_too(space: Workspace, game: Path) -> None:
    def sing(told: Any) -> None:
        told[list(told)[-1]]["title"] = "Theirs"

    tune = json.loads(edited(game, "tunes.json", lambda told: None))
    first = next(iter(tune))
    theirs = {
        "rules/boats.toml": BOAT % (b"9.5", b"3.2"),
        "rules/tunes.json": edited(game, "tunes.json", sing),
    }
    install = put(game, theirs=theirs)
    space = changed(space, "rules/boats.toml", Change(do="set", at="otter/speed", to=4.5))
    space = changed(space, "rules/tunes.json", Change(do="set", at=f"{first}/title", to="Mine"))
    home = unpacked(space, game)
    write_order(game / "mods" / "order.toml", [("theirs", True), ("evening-post", True)])
    assert World(game).book("rules/boats.toml")["otter"]["length_m"] != 9.5  # theirs is hidden
    before = digest(game)
    assert run(home)[1].splitlines()[0] == "theirs changes, too: rules/boats.toml, rules/tunes.json"
    assert digest(game) == before
    code, said = run(home, "--over", "theirs")
    assert code == 0 and "merged: mods/evening-post/rules/boats.toml" in said
    by_hand = {path: World(game).book(path) for path in theirs}
    assert by_hand["rules/boats.toml"]["otter"]["speed"] == 4.5
    assert set(tomllib.loads((home / "rules/boats.toml").read_text())) == {"otter"}
    told = report(game)
    assert {path: told[path]["reason"] for path in theirs} == dict.fromkeys(theirs, "")
    assert {told[path]["verdict"] for path in theirs} == {"accepted"}
    assert not World(game).strays()
    assert run(home, "--over", "theirs")[0] == 0  # again: nothing is another
    assert {path: World(game).book(path) for path in theirs} == by_hand
    code, said = run(home, "--back")
    assert code == 0 and "as before: mods/evening-post/rules/boats.toml" in said
    assert digest(game) == before and run(home, "--back") == (0, "nothing was merged\n")
    assert make_bridge(install).paths and {path: World(game).book(path) for path in theirs} == by_hand
    assert World(game).winner("rules/boats.toml")[0] == BRIDGE


def test_where_both_want_something_else_nothing_is_written(space: Workspace, game: Path) -> None:
    put(game, theirs={"rules/boats.toml": BOAT % (b"7.4", b"1.1")})
    home = unpacked(changed(space, "rules/boats.toml", Change(do="set", at="otter/speed", to=4.5)), game)
    before = digest(game)
    code, said = run(home, "--over", "theirs")
    assert code == 1 and "both change rules/boats.toml at “speed" in said and digest(game) == before
    assert run(home, "--over", "nobody")[0] == 1 and digest(game) == before


def test_in_the_place_of_the_games_own_archives_it_goes_beside_what_is_there(
    opened: Opener, game: Path, sources: Path, tmp_path: Path
) -> None:
    """Entries of a ZIP and of an archive with records, read by the game's own loaders."""
    hulls = ["art/hulls/hull_otter.dds", "art/hulls/hull_heron.dds"]
    theirs = opened("Second Post", goes="in-place", swaps={hulls[1]: "dusk_paint.jpg"})
    theirs = changed(theirs, "rules/boats.toml", Change(do="set", at="otter/length_m", to=9.5))
    mine = opened(goes="in-place", swaps={hulls[0]: "dusk_paint.jpg"})
    mine = changed(mine, "rules/boats.toml", Change(do="set", at="otter/speed", to=4.5))
    before = {name: loaders.load_container(game / "data" / name) for name in ("art.tlp", "rules.zip")}
    made = tmp_path / "made.zip"
    assert main(["mod", "share", str(mine.folder), "--with-installer", "--out", str(made)]) == 0
    with zipfile.ZipFile(made) as packed:
        packed.extractall(tmp_path / "unpacked")
    home = tmp_path / "unpacked" / "evening-post"
    before_raw = (game / "data/rules.zip").read_bytes()
    put_in(theirs)
    with_theirs = digest(game)
    assert run(home, str(game))[0] == 0 and digest(game) != with_theirs
    art, rules = (loaders.load_container(game / "data" / name) for name in ("art.tlp", "rules.zip"))
    assert {path for path in art if art[path] != before["art.tlp"][path]} == set(hulls)
    otter = tomllib.loads(rules["rules/boats.toml"].decode())["otter"]
    assert (otter["length_m"], otter["speed"]) == (9.5, 4.5)
    assert {path for path in rules if rules[path] != before["rules.zip"][path]} == {"rules/boats.toml"}
    opened_again = open_container(game / "data/art.tlp", find_layout("tlp"))
    assert {entry.path for entry in opened_again.entries()} == set(art)
    by_merge = (game / "data/rules.zip").read_bytes()
    (game / "data/rules.zip").write_bytes(before_raw)  # an update of the game, say
    code, said = run(home, str(game), "--back")
    assert code == 1 and "rules.zip was changed since" in said
    (game / "data/rules.zip").write_bytes(by_merge)
    assert run(home, str(game), "--back")[0] == 0 and digest(game) == with_theirs
    assert run(home)[0] == 2  # it has to be told where the game is


def test_what_it_cannot_read_is_refused_when_it_is_made(opened: Opener, space: Workspace) -> None:
    with pytest.raises(FurnelError, match="nothing that can be shared"):
        merge_script(space, build(space).folder)
    bank = opened("Third Post", goes="in-place", swaps={"bank0/000.wav": "church_bell.mp3"})
    with pytest.raises(FurnelError, match="bank0.tls.*record of fixed length|records do not tell|say more"):
        merge_script(bank, build(bank).folder)


def test_a_zip_keeps_what_nobody_changed_and_empty_is_a_content(tmp_path: Path) -> None:
    with zipfile.ZipFile(tmp_path / "a.zip", "w") as made:
        for name in ("a", "b"):
            made.writestr(name, name * 9)
    (tmp_path / "b.zip").write_bytes(mergescript.Zip(tmp_path / "a.zip").changed({"a": b"", "c": b"new"}))
    with zipfile.ZipFile(tmp_path / "b.zip") as found:
        assert [found.read(name) for name in ("a", "b", "c")] == [b"", b"b" * 9, b"new"]


def test_a_full_disk_leaves_everything_as_it_was(
    space: Workspace, game: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    put(game, theirs={"rules/boats.toml": BOAT % (b"9.5", b"3.2")})
    home = unpacked(changed(space, "rules/boats.toml", Change(do="set", at="otter/speed", to=4.5)), game)
    told: dict[str, Any] = {"__name__": "merge", "__file__": str(home / "merge.py")}
    exec((home / "merge.py").read_text(), told)
    before, write = digest(home), Path.write_bytes

    def full(file: Path, data: bytes) -> int:
        if file.name.endswith(".part"):
            write(file, data[:3])
            raise OSError(28, "No space left on device")
        return write(file, data)

    monkeypatch.setattr(Path, "write_bytes", full)
    assert told["main"](["--over", "theirs"]) == 1 and digest(home) == before
    monkeypatch.setattr(Path, "write_bytes", write)
    assert told["main"](["--over", "theirs"]) == 0 and digest(home) != before
    assert told["main"](["--back"]) == 0 and digest(home) == before


LINES = [f"line {number}" for number in range(40)]


@given(st.sets(st.integers(1, 38), max_size=6), st.sets(st.integers(1, 38), max_size=6), st.data())
def test_lines_that_lie_apart_are_merged_and_the_same_change_is_made_once(
    mine: set[int], theirs: set[int], data: st.DataObject
) -> None:
    def edit(own: set[int], word: str) -> list[str]:
        return [f"{word} {line}" if number in own else line for number, line in enumerate(LINES)]

    both = edit(mine & theirs, "same")
    ours = [f"mine {line}" if number in mine - theirs else both[number] for number, line in enumerate(LINES)]
    other = [
        f"theirs {line}" if number in theirs - mine else both[number] for number, line in enumerate(LINES)
    ]
    together = [
        f"mine {line}" if number in mine - theirs else other[number] for number, line in enumerate(LINES)
    ]
    try:
        found = mergescript.applied(hunks_of(LINES, ours), other, "a.txt")
    except mergescript.CannotMerge:
        assert any(abs(one - two) <= 1 for one in mine for two in theirs)  # neighbours are one change
    else:
        assert found == together


def test_a_json_text_with_any_signs_in_it_is_the_same() -> None:
    told = {"a": "one\u2028two\x85three\x0b", "b": ["x, ", "\u2029"]}
    lines = mergescript.lines_of(json.dumps(told, ensure_ascii=False).encode(), "a.json")
    assert json.loads(mergescript.text_of(lines, "a.json")) == told


@given(st.text(st.sampled_from("ab \r\n\x0b\x0c\x85\u2028\ufeff")))
def test_lines_of_a_text_are_the_same_bytes_again(text: str) -> None:
    assert mergescript.text_of(mergescript.lines_of(text.encode(), "a.toml"), "a.toml") == text.encode()


def test_records_are_whole_tables_and_what_has_several_of_a_name_is_refused() -> None:
    base = b"# boats\n[otter]\nspeed = 1\n\n[otter.sail]\nwide = 2\n\n[heron]\nspeed = 3\n"
    lines = mergescript.lines_of(base, "a.toml")
    over = mergescript.lines_of(b"[otter]\nspeed = 9\n", "a.toml")
    told = tomllib.loads(mergescript.text_of(mergescript.laid_over(lines, over, "a.toml"), "a.toml").decode())
    assert told == {"otter": {"speed": 9}, "heron": {"speed": 3}}  # as the game lays a record over its own
    several = mergescript.lines_of(b"[[boat]]\nid = 1\n\n[[boat]]\nid = 2\n", "a.toml")
    with pytest.raises(mergescript.CannotMerge, match="several"):
        mergescript.parts_of(several, "a.toml")
    with pytest.raises(mergescript.CannotMerge, match="before its first record"):
        mergescript.parts_of(mergescript.lines_of(b"version = 2\n[otter]\n", "a.toml"), "a.toml")


def test_a_constant_can_be_bytes(tmp_path: Path) -> None:
    layout = parse_layout(
        """furnel-layout = 1
name = "keg"
title = "Kegs"
files = ["*.keg"]
[start]
fields = [ { name = "magic", type = "bytes", length = 3, is = [200, 0, 7] },
  { name = "tag", type = "text", length = 6, is = "KEG" },
  { name = "count", type = "u16", holds = "entry count" } ]
[index]
fields = [ { name = "path", type = "text", length = 8, holds = "path" }, { name = "at", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" } ]
""",
        "keg",
    )
    write_archive(tmp_path / "a.keg", {"a": b"one", "b": b"two"}, layout)
    records = mergescript.Records(tmp_path / "a.keg", json.loads(json.dumps(kind_of_layout(layout, "a.keg"))))
    (tmp_path / "b.keg").write_bytes(records.changed({"a": b"another"}))
    found = open_container(tmp_path / "b.keg", layout)
    assert (found.read("a"), found.read("b")) == (b"another", b"two")


@pytest.mark.parametrize(
    "told",
    [{}, {"a": 1}, {"a": [], "b": {"c": "x,", "d": ["[", "{,"]}}, {"a": [1, 2, {"b": None}], "ü": "é"}],
)
def test_json_line_by_line_is_the_same_json(told: Any) -> None:
    lines = mergescript.lines_of(json.dumps(told).encode(), "a.json")
    assert json.loads(mergescript.text_of(lines, "a.json")) == told
    parts = mergescript.parts_of(lines, "a.json")
    assert json.loads(mergescript.text_of(mergescript.joined(parts, "a.json"), "a.json")) == told
