"""A seeded monkey on the window: nothing unforeseen, nothing left over, nothing lost, no turn that freezes it."""

from __future__ import annotations

import gc
import threading
from pathlib import Path

import pytest
from demo.hands import Hands
from demo.monkey import Monkey, memory_mb, tell
from PyQt6.QtCore import QCoreApplication, QEvent
from PyQt6.QtWidgets import QApplication, QFileDialog

from furnel.mods.project import load_project


@pytest.mark.parametrize("seed", [1, 2])
def test_a_monkey_finds_nothing(
    hands: Hands, mod: Path, sources: Path, seed: int, monkeypatch: pytest.MonkeyPatch
) -> None:
    one, many = ("", ""), ([], "")
    answers = {"getOpenFileName": one, "getOpenFileNames": many, "getExistingDirectory": "", "getSaveFileName": one}
    for name, answer in answers.items():
        monkeypatch.setattr(QFileDialog, name, lambda *_, answer=answer, **__: answer)
    hands.open(mod)
    files = [*sorted(sources.iterdir()), sources, sources / "gone.png", mod]
    before = len(QApplication.allWidgets()), memory_mb()
    found = Monkey(hands, files, seed).play(25)
    session = hands.window.session
    hands.settle()
    assert load_project(mod) == session.project  # the fixture looks for errors in the log and for threads
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    gc.collect()
    assert len(QApplication.allWidgets()) < before[0] + 600
    assert memory_mb() < before[1] + 900
    assert threading.active_count() < 30
    assert found.percentile(0.5) < 0.02, tell(found)
    assert len(found.turns) > 300
