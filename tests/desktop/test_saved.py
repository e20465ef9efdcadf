"""What is typed goes to the mod that it was typed in, what others write is seen, and saving waits for nothing."""

from __future__ import annotations

import threading
from pathlib import Path

import pytest
from demo.hands import Hands
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLineEdit, QWidget

from furnel.mods.project import load_project
from furnel.mods.workspace import create_project

BELL = "bank0/000.wav"


def _named(within: QWidget, name: str) -> QLineEdit:
    return next(one for one in within.findChildren(QLineEdit) if one.accessibleName() == name)


def test_a_field_that_was_not_left_belongs_to_the_mod_that_was_open(
    hands: Hands, mod: Path, game: Path, tmp_path: Path
) -> None:
    other = create_project(tmp_path / "second", "Moss Pictures", game)
    hands.open(mod)
    hands.station(3)
    line = _named(hands.window.build_station, "Summary")
    line.setFocus()
    QTest.keyClicks(line, "Typed, not left")  # type: ignore[arg-type]
    before = other.read_bytes()
    hands.open(other)  # as a double-click in a file manager does
    assert hands.window.session.project == load_project(other) and line.text() == ""
    line.editingFinished.emit()
    hands.settle()
    assert other.read_bytes() == before and load_project(mod).mod.summary == "Typed, not left"


def test_what_another_program_writes_is_seen_and_merged(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    session = hands.window.session
    mod.write_text(mod.read_text().replace('version = "0.1"', 'version = "2.0"  # by hand'))
    hands.until(lambda: session.project and session.project.mod.version == "2.0", "the other version")
    swap = session.swap(BELL)
    assert swap is not None
    session.swaps.set_swap(swap.model_copy(update={"credit": "Mira"}), "Credit")
    hands.settle()
    found = load_project(mod)
    assert found == session.project and found.mod.version == "2.0" and "# by hand" in mod.read_text()
    session.undo(), session.undo()
    hands.settle()
    assert load_project(mod).mod.version == "0.1"


def test_a_file_that_is_half_edited_is_never_written_over(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    session, whole = hands.window.session, mod.read_text()
    mod.write_text(whole + "[half")
    hands.until(lambda: "cannot be read" in "".join(n.text for n in hands.window.messages), "the word")
    swap = session.swap(BELL)
    assert swap is not None
    session.swaps.set_swap(swap.model_copy(update={"credit": "Mira"}), "Credit")
    hands.settle()
    aside = mod.with_name("furnel.mine.toml")
    assert mod.read_text().endswith("[half") and load_project(aside) == session.project
    mod.write_text(whole.replace('author = ""', 'author = "Ole"'))
    hands.until(lambda: session.project and session.project.mod.author == "Ole", "the whole file")
    hands.settle()
    assert load_project(mod) == session.project and not aside.exists()
    bell = load_project(mod).swap_for(BELL)
    assert bell is not None and bell.credit == "Mira"


def test_an_edit_is_saved_while_something_long_is_written(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    session, gate = hands.window.session, threading.Event()
    hands.window.jobs.start("Packing", lambda _: gate.wait(60), lambda _: None, lane="write")
    swap = session.swap(BELL)
    assert swap is not None
    session.swaps.set_swap(swap.model_copy(update={"credit": "Mira"}), "Credit")
    hands.until(lambda: load_project(mod) == session.project, "the edit on the disk", 5)
    gate.set()
    hands.settle()


@pytest.mark.parametrize("times", [3])
def test_an_edit_examines_only_what_it_touches(hands: Hands, mod: Path, times: int) -> None:
    hands.open(mod)
    session = hands.window.session
    for path in ("rules/boats.toml", "rules/villages.ini"):
        session.swaps.open_definition(path, lambda _: None)
        hands.settle()
    begun: list[str] = []
    hands.window.jobs.started.connect(
        lambda number: begun.append(job.title if (job := hands.window.jobs.job(number)) else "")
    )
    for number in range(times):
        swap = session.swap(BELL)
        assert swap is not None
        session.swaps.set_swap(swap.model_copy(update={"credit": f"Mira {number}"}), "Credit")
        hands.settle()
        QTest.qWait(250)  # type: ignore[arg-type]  # longer than the watcher pauses
    assert not [title for title in begun if title.startswith("Fitting") and "000.wav" not in title]
    assert QApplication.instance() is not None
