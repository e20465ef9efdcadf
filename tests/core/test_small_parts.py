"""The parts that everything stands on: writing whole or not at all, what people write, marks of code, numbers in words."""

from __future__ import annotations

import os
import stat
import unicodedata
from pathlib import Path
from typing import Annotated

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import Field

from furnel import states, words
from furnel.atomic import replacing, replacing_together, settle_folder, swap_folder, write_bytes, write_text
from furnel.digests import code_mark, file_digest, tree_digest
from furnel.errors import FurnelError
from furnel.schema import GlobText, IdText, InnerPath, OneOf, Part, PlainText, parse_toml, template


def names(folder: Path) -> list[str]:
    return sorted(path.name for path in folder.iterdir())


class Interrupted(Exception):
    """Not an error of ours."""


def test_a_file_is_the_old_one_or_the_new_one(tmp_path: Path) -> None:
    file = tmp_path / "deep" / "a.bin"
    write_bytes(file, b"old")
    file.chmod(0o640)
    with pytest.raises(Interrupted), replacing(file) as stream:
        stream.write(b"half")
        raise Interrupted
    assert file.read_bytes() == b"old" and names(file.parent) == ["a.bin"]
    write_text(file, "new")
    assert file.read_text() == "new" and stat.S_IMODE(file.stat().st_mode) == 0o640
    assert names(file.parent) == ["a.bin"]


@pytest.mark.parametrize("mask", [0o022, 0o077, 0o002])
def test_a_new_file_is_as_open_as_others_that_are_made_here(tmp_path: Path, mask: int) -> None:
    before = os.umask(mask)
    try:
        (tmp_path / "plain").touch()
        write_text(tmp_path / "ours", "new")
    finally:
        os.umask(before)
    assert (tmp_path / "ours").stat().st_mode == (tmp_path / "plain").stat().st_mode


def test_several_files_change_together_or_not_at_all(tmp_path: Path) -> None:
    one, two = tmp_path / "one", tmp_path / "two"
    one.write_bytes(b"1")
    with pytest.raises(Interrupted), replacing_together([one, two]) as (a, b):
        a.write(b"x")
        b.write(b"y")
        raise Interrupted
    assert one.read_bytes() == b"1" and not two.exists() and names(tmp_path) == ["one"]
    with replacing_together([one, two]) as (a, b):
        a.write(b"x")
        b.write(b"y")
    assert (one.read_bytes(), two.read_bytes()) == (b"x", b"y")
    with pytest.raises(FurnelError, match="one name"), replacing_together([one, tmp_path / "." / "one"]):
        pass


def test_a_place_that_cannot_be_written_is_told_and_nothing_is_lost(tmp_path: Path) -> None:
    (tmp_path / "file").write_bytes(b"in the way")
    with pytest.raises(FurnelError) as refusal:
        write_bytes(tmp_path / "file" / "below", b"x")
    assert refusal.value.why and (tmp_path / "file").read_bytes() == b"in the way"


def test_folders_change_places(tmp_path: Path) -> None:
    fresh, target = tmp_path / "fresh", tmp_path / "target"
    for folder, text in ((fresh, "new"), (target, "old")):
        folder.mkdir()
        (folder / "f").write_text(text)
    swap_folder(fresh, target)
    assert (target / "f").read_text() == "new" and not fresh.exists()
    settle_folder(target)
    assert names(tmp_path) == ["target"]


def test_digests_tell_names_and_bytes_apart(tmp_path: Path) -> None:
    assert tree_digest(tmp_path / "none") == ""
    (tmp_path / "a").mkdir()
    (tmp_path / "a" / "x").write_bytes(b"1")
    first = tree_digest(tmp_path)
    (tmp_path / "a" / "x").rename(tmp_path / "a" / "y")
    second = tree_digest(tmp_path)
    (tmp_path / "a" / "y").write_bytes(b"2")
    assert len({first, second, tree_digest(tmp_path)}) == 3
    assert (
        file_digest(tmp_path / "a" / "y")
        == "d4735e3a265e16eee03f59718b9b5d03019c07d8b6c51f90da3a666eec13ab35"
    )


def test_the_mark_of_code_is_that_of_what_was_asked_for() -> None:
    assert code_mark("words") == code_mark("words") != code_mark("errors")
    assert code_mark("mods/steps") not in (code_mark("mods"), code_mark("mods/fit"))
    with pytest.raises(OSError):
        code_mark("nothing-like-it")


class Boat(Part):
    """A made-up file."""

    id: IdText
    hull: InnerPath
    files: GlobText = "*.dds"
    sail: Annotated[str, OneOf(("none", "square"))] = "none"
    name_of_crew: PlainText = ""
    say: Annotated[str, template("stem", needs="stem")] = "{stem}"
    oars: int = Field(2, ge=0, le=8)


GOOD = 'id = "otter"\nhull = "art/hull.dds"\n'


@pytest.mark.parametrize(
    ("text", "says", "line"),
    [
        ("id = \n", "Invalid value", 1),
        (GOOD + 'hul = "x"', "hul: there is no such key.*nearest: hull", 3),
        (GOOD + "oars = 9", "oars.*8.*found 9", 3),
        (GOOD + 'sail = "round"', "sail.*'none' or 'square'.*round", 3),
        (GOOD + 'sail = "squar"', "nearest: square", 3),
        (GOOD + 'say = "{path}"', "say.*{stem}", 3),
        (GOOD + 'say = "nothing"', "needs {stem}", 3),
        (GOOD + 'files = "a/**"', "ends with the name", 3),
        (GOOD + 'name-of-crew = "a\\u0007b"', "control", 3),
        ('id = "../x"\nhull = "a"', "id", 1),
        ('id = "x"\nhull = "/etc/passwd"', "inner path", 2),
        ('id = "x"\nhull = "a/../../b"', "inner path", 2),
    ],
)
def test_what_people_write_is_refused_with_line_key_and_what_is_allowed(
    text: str, says: str, line: int
) -> None:
    with pytest.raises(FurnelError, match=says) as refusal:
        parse_toml(Boat, text, "Reading a boat", "boat.toml", "docs/boats.md")
    assert (
        refusal.value.line == line
        and refusal.value.where == f"boat.toml, line {line}"
        and refusal.value.remedy
    )


def test_keys_have_hyphens_and_what_is_left_out_is_usual() -> None:
    boat = parse_toml(Boat, GOOD + 'name-of-crew = "Åse"', "Reading a boat", "boat.toml", "docs/boats.md")
    assert (boat.name_of_crew, boat.oars, boat.sail) == ("Åse", 2, "none")
    with pytest.raises(ValueError):
        boat.oars = 3


@given(st.integers(-(10**12), 10**12))
def test_numbers_are_read_back(value: int) -> None:
    assert int(words.number(value).replace("\u2009", "")) == value
    assert words.count(value, "swap").endswith("swap" if value == 1 else "swaps")
    assert words.count(value, "kin", "kin").endswith("kin")


@given(st.text())
def test_plain_text_cannot_command_a_terminal(text: str) -> None:
    said = words.plain(text)
    assert all(sign.isprintable() or sign in "\n\t" or unicodedata.category(sign) == "Zs" for sign in said)
    assert words.plain(said) == said


def test_what_breaks_comes_first_and_every_state_has_its_words() -> None:
    ranked = sorted((*states.STATES, states.WAITING), key=states.urgency)
    assert ranked == ["breaks", "differs", "waiting", "fits"]
    assert set(states.WORDS) == set(ranked) and set(states.MARKS) == set(states.STATES)
