"""One way for every edit: addressed, merged with what others wrote meanwhile, never over them."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.cli import main
from furnel.errors import FurnelError
from furnel.locks import locked
from furnel.mods.edit import Edit
from furnel.mods.history import history_file, read_history
from furnel.mods.project import About, GameRef, Project, Swap, load_project
from furnel.mods.store import Store, commit
from furnel.mods.workspace import Workspace, open_workspace
from furnel.texts import Change

BOATS, BELL = "rules/boats.toml", "bank0/000.wav"
CELLS = [f"{boat}/{key}" for boat in ("otter", "heron") for key in ("speed", "depth", "bags")]


def changing(*changes: Change) -> Project:
    swap = Swap(original=BOATS, changes=changes)
    return Project(mod=About(id="m", name="M"), game=GameRef(profile="p", folder="g"), swaps=(swap,))


def setting(at: str, to: int) -> Change:
    return Change(do="set", at=at, to=to)


@given(st.lists(st.sampled_from(CELLS), min_size=2, max_size=4, unique=True), st.integers(1, 3))
def test_cells_typed_one_after_the_other_are_all_kept(cells: list[str], shared: int) -> None:
    start = changing(setting("seagull/speed", 1))
    now = start
    for number, cell in enumerate(cells):  # each job saw the mod as it was at the beginning
        edit = Edit.between("e", start, changing(*start.swaps[0].changes, setting(cell, number + shared)))
        found = edit.apply(now)
        assert not found.conflicts
        now = found.project
    said = {change.at: change.to for change in now.swaps[0].changes}
    assert said == {"seagull/speed": 1} | {cell: number + shared for number, cell in enumerate(cells)}


def test_changes_in_each_other_contradict_and_the_first_stays() -> None:
    start, cell, other = changing(), setting("otter/speed", 4), Change(do="rename", at="otter", key="mink")
    for first, second in ((cell, other), (other, cell), (cell, setting("otter/speed", 5))):
        now = Edit.between("e", start, changing(first)).apply(start).project
        found = Edit.between("e", start, changing(second)).apply(now)
        assert found.conflicts == (BOATS,) and found.project == now
    assert Edit.between("e", changing(cell), changing()).apply(
        changing(cell, setting("heron/bags", 2))
    ).project == changing(setting("heron/bags", 2))


def renamed(project: Project, **about: str) -> Project:
    return project.model_copy(update={"mod": project.mod.model_copy(update=about)})


def test_what_others_wrote_meanwhile_is_merged(fitted: Workspace) -> None:
    by_hand = fitted.file.read_text().replace('version = "0.1"', 'version = "2.0"  # mine')
    fitted.file.write_text(by_hand)
    swap = fitted.project.swap_for(BELL)
    assert swap is not None
    other = open_workspace(fitted.file)  # a second window
    other.save(other.project.with_swap(swap.model_copy(update={"credit": "Mira"})), "Credit")
    other.close()
    saved = fitted.save(renamed(fitted.project, author="Ole"), "Author")
    found = load_project(fitted.file)
    assert (found.mod.version, found.mod.author) == ("2.0", "Ole") and found == saved.project
    bell = found.swap_for(BELL)
    assert bell is not None and bell.credit == "Mira" and "# mine" in fitted.file.read_text()
    past = read_history(history_file(fitted.file), found)
    assert past.last is not None and past.last.onto(found, forward=False) is not None


def test_a_contradiction_is_told_and_nothing_is_written_over_a_half_edited_file(fitted: Workspace) -> None:
    fitted.file.write_text(fitted.file.read_text().replace('author = ""', 'author = "Theirs"'))
    saved = fitted.store.save(renamed(fitted.project, author="Ours"))
    assert saved.conflicts == ("author",) and load_project(fitted.file).mod.author == "Ours"
    assert saved.others is not None and saved.others.over(saved.project).mod.author == "Theirs"
    half = fitted.file.read_bytes()[:-40] + b'x = "'
    fitted.file.write_bytes(half)
    with pytest.raises(FurnelError, match=r"furnel\.mine\.toml"):
        fitted.store.save(renamed(saved.project, author="Later"))
    assert fitted.file.read_bytes() == half
    assert load_project(fitted.file.with_name("furnel.mine.toml")).mod.author == "Later"
    with pytest.raises(FurnelError):
        fitted.store.look()
    kept = fitted.store.put_over(renamed(saved.project, author="Later"))
    assert kept.read_bytes() == half and load_project(fitted.file).mod.author == "Later"
    assert not fitted.file.with_name("furnel.mine.toml").exists()


def test_an_edit_for_a_mod_that_is_closed_goes_into_its_file(fitted: Workspace) -> None:
    edit = Edit.between("Change the author", fitted.project, renamed(fitted.project, author="Mira"))
    fitted.save(renamed(fitted.project, summary="By hand"))
    assert not commit(fitted.file, edit).conflicts
    found = load_project(fitted.file)
    assert (found.mod.author, found.mod.summary) == ("Mira", "By hand")
    past = read_history(history_file(fitted.file), found)
    assert past.last is not None and past.last.text == "Change the author"


def test_the_store_sees_what_changed_once(fitted: Workspace) -> None:
    store, project = Store.opened(fitted.file)
    assert store.look() is None
    fitted.save(renamed(fitted.project, author="Mira"))
    seen = store.look()
    assert seen is not None and seen.onto(project) == load_project(fitted.file) and store.look() is None
    store.wish(renamed(project, author="A")), store.wish(renamed(load_project(fitted.file), author="B"))
    assert store.save_wished() is not None and store.save_wished() is None
    assert load_project(fitted.file).mod.author == "B"


def test_events_of_older_histories_are_read(fitted: Workspace, tmp_path: Path) -> None:
    file = tmp_path / "old.jsonl"
    row = {"edit": {"text": "Old", "events": [[], [{"name": "bell_far", "volume": 0.5}]]}}
    file.write_text(json.dumps(row) + "\n")
    with_event = fitted.project.model_copy(update={"events": ()})
    found = read_history(file, Edit("x").apply(with_event).project)
    assert found.next is not None and found.next.events[0][0] == "bell_far"


def _elsewhere(path: Path, then: str) -> int:
    code = f"""
import os
from pathlib import Path
from furnel.errors import FurnelError
from furnel.locks import locked
try:
    with locked(Path({str(path)!r}), "Trying", patience_s=0.1):
        {then}
except FurnelError as error:
    os._exit(7 if "another Furnel" in error.why else 1)
"""
    return subprocess.run([sys.executable, "-c", code], env=os.environ, check=False).returncode


def test_a_lock_is_freed_by_a_kill_and_refused_in_words(tmp_path: Path) -> None:
    assert _elsewhere(tmp_path, "os.kill(os.getpid(), 9)") == -9
    with locked(tmp_path, "What"), locked(tmp_path, "What"):
        assert _elsewhere(tmp_path, "pass") == 7
    assert _elsewhere(tmp_path, "pass") == 0


def test_the_command_line_adds_to_what_a_window_has_open(fitted: Workspace, sources: Path) -> None:
    window = fitted
    assert main(["mod", "set", str(fitted.file), BOATS, "otter/speed", "4.5"]) == 0
    window = window.save(renamed(window.project, author="Mira"))
    found = load_project(fitted.file)
    boats = found.swap_for(BOATS)
    assert boats is not None and found.mod.author == "Mira" and boats.changes[0].to == 4.5
