"""What is typed goes to the mod that it was typed in, what others write is seen, and saving waits for nothing."""

from __future__ import annotations

import re
import threading
import time
from collections.abc import Callable
from pathlib import Path

import pytest
from demo.hands import Hands
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QWheelEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QDialog, QLineEdit, QPushButton, QVBoxLayout, QWidget

from furnel import mods
from furnel.desktop.widgets.basics import answers
from furnel.desktop.widgets.colours import ColourChooser
from furnel.desktop.widgets.sheets import ask
from furnel.desktop.widgets.steady import Choice, Number, Slider, Whole
from furnel.mods.build import Build
from furnel.mods.edit import Edit
from furnel.mods.project import StepUse, load_project
from furnel.mods.workspace import Workspace, create_project
from furnel.texts import Change

BELL, HULL = "bank0/000.wav", "art/hulls/hull_otter.dds"


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


def test_a_field_that_was_not_left_is_in_the_mod_when_it_is_opened_again(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.station(3)
    line = _named(hands.window.build_station, "Summary")
    line.setFocus()
    line.clear()
    QTest.keyClicks(line, "Typed, not left")  # type: ignore[arg-type]
    before = hands.window.session.space
    hands.window.session.open_mod(mod)
    hands.until(lambda: hands.window.session.space is not before, "the mod to open again")
    hands.settle()
    assert hands.window.session.project is not None
    assert hands.window.session.project.mod.summary == load_project(mod).mod.summary == "Typed, not left"


@pytest.mark.parametrize("reopened", [True, False])
def test_what_is_edited_while_a_mod_is_being_opened_is_in_it(
    hands: Hands, mod: Path, game: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, reopened: bool
) -> None:
    session, other = hands.window.session, create_project(tmp_path / "second", "Moss Pictures", game)
    hands.open(other)
    left = session.space
    if not reopened:
        hands.open(mod)
    read, edited, real = threading.Event(), threading.Event(), mods.build.last_build

    def waiting(space: Workspace) -> Build | None:
        read.set()
        assert edited.wait(30)
        return real(space)

    monkeypatch.setattr(mods.build, "last_build", waiting)
    session.open_mod(other)
    hands.until(read.is_set, "the file to be read")
    assert left is not None
    more = left.project.model_copy(
        update={"mod": left.project.mod.model_copy(update={"summary": "Meanwhile"})}
    )
    session.apply(Edit.between("Say more", left.project, more), left)
    hands.until(lambda: load_project(other).mod.summary == "Meanwhile", "the file to be written")
    before = session.space
    edited.set()
    hands.until(lambda: session.space is not before and session.project is not None, "the mod to open")
    hands.settle()
    assert session.project is not None and session.project == load_project(other) == more
    assert not any("Another program" in notice.text for notice in hands.window.messages)
    session.undo()
    hands.settle()
    assert load_project(other).mod.summary == ""


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


# leaving, and fields that are not meant


def test_the_window_is_gone_at_once_and_takes_the_last_edit_with_it(
    hands: Hands, mod: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("furnel.desktop.window._PATIENCE_S", 0.5)
    hands.open(mod)
    window, gate, at_work = hands.window, threading.Event(), threading.Event()
    window.jobs.start("A format is tried", lambda _: (at_work.set(), gate.wait(60)), lambda _: None)
    hands.until(at_work.is_set, "the job")
    session = window.session
    session.swaps.change_values("rules/boats.toml", [Change(do="set", at="heron/speed", to=3.5)], "Set it")
    began = time.monotonic()
    window.close()
    gone = time.monotonic() - began
    gate.set()
    for thread in threading.enumerate():
        if thread.name.startswith("furnel-") and not thread.name.startswith("furnel-rows"):
            thread.join(30)
    swap = load_project(mod).swap_for("rules/boats.toml")
    assert swap is not None and swap.changes[0].to == 3.5, "an edit that was on its way is made and saved"
    assert gone < 30 and not window.ended, "and what computes is not waited for"


@pytest.mark.parametrize("make", [Whole, Number, Choice, Slider])
def test_the_wheel_changes_no_field_without_focus(
    application: QApplication, make: Callable[[], QWidget]
) -> None:
    around = QWidget()
    column = QVBoxLayout(around)
    part, other = make(), QLineEdit()
    column.addWidget(part), column.addWidget(other)
    if isinstance(part, Choice):
        part.addItems(["one", "two", "three"])
        part.setCurrentIndex(1)
    else:
        part.setValue(7)  # type: ignore[attr-defined]
    around.show()
    around.activateWindow()

    def turned() -> bool:
        before = part.currentIndex() if isinstance(part, Choice) else part.value()  # type: ignore[attr-defined]
        at, down = QPointF(4, 4), QPoint(0, -120)
        wheel = QWheelEvent(
            at, part.mapToGlobal(at), down, down, Qt.MouseButton.NoButton, Qt.KeyboardModifier.NoModifier,
            Qt.ScrollPhase.NoScrollPhase, False,
        )  # fmt: skip
        QApplication.sendEvent(part, wheel)
        return before != (part.currentIndex() if isinstance(part, Choice) else part.value())  # type: ignore[attr-defined]

    other.setFocus()
    assert not turned() and not part.hasFocus()
    part.setFocus()
    QApplication.processEvents()
    assert turned() is part.hasFocus()
    around.deleteLater()


def test_no_other_field_takes_the_wheel() -> None:
    import furnel.desktop

    wrong = [
        file.name
        for file in Path(furnel.desktop.__file__).parent.rglob("*.py")
        if re.search(r"\bQ(Spin|DoubleSpin|Combo)Box\(\)|\bQSlider\(", file.read_text("utf-8"))
    ]
    assert not wrong, "use those of widgets/steady.py"


def test_return_presses_the_button_that_goes_on_and_leave_is_never_given_by_it(
    application: QApplication, monkeypatch: pytest.MonkeyPatch
) -> None:
    said: list[bool] = []

    def press(dialog: QDialog) -> int:
        dialog.show()
        QTest.keyClick(dialog, Qt.Key.Key_Return)  # type: ignore[arg-type]
        return dialog.result()

    monkeypatch.setattr(QDialog, "exec", press)
    said.append(ask(QWidget(), "What it wants to run", "rm", "Allow these"))
    dialog = QDialog()
    leave, go = QPushButton("Leave it"), QPushButton("Change them")
    QVBoxLayout(dialog).addLayout(answers(dialog, leave, go))
    said.append(bool(press(dialog)))
    assert said == [False, True]


def test_a_colour_that_was_asked_for_goes_to_its_own_step_or_nowhere(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.window.open_bench(HULL)
    hands.settle()
    session, swap = hands.window.session, hands.window.session.swap(HULL)
    assert swap is not None
    steps = (StepUse(do="clear-colour", values={"colour": "00ff00"}), StepUse(do="hard-alpha"))
    session.swaps.set_swap(swap.model_copy(update={"steps": steps}), "Two steps")
    hands.settle()
    pane = hands.window.fit_station.steps
    pane._unfold(0)
    swatch = next(
        one for one in pane.findChildren(QPushButton) if "00ff00" in one.text() or one.accessibleName() == "Colour"
    )  # fmt: skip
    swatch.click()
    chooser = next(one for one in QApplication.topLevelWidgets() if isinstance(one, ColourChooser))
    assert chooser.isModal()
    now = session.swap(HULL)
    assert now is not None
    session.swaps.set_swap(now.model_copy(update={"steps": steps[::-1]}), "The other way round")
    hands.settle()
    chooser.choose((10, 20, 30))
    chooser.accept()
    hands.settle()
    done = session.swap(HULL)
    assert done is not None and [use.do for use in done.steps] == ["hard-alpha", "clear-colour"]
    assert done.steps[1].values["colour"] == "0a141e"
