"""Random commands, keys, clicks and drops on the window, with a probe for turns that take too long."""

from __future__ import annotations

import ctypes
import gc
import os
import random
import signal
import sys
import threading
import time
import traceback
from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from contextlib import ExitStack, contextmanager, suppress
from dataclasses import dataclass, field
from pathlib import Path
from types import FrameType
from unittest.mock import patch

from PyQt6.QtCore import QCoreApplication, QEvent, QPointF, Qt
from PyQt6.QtGui import QColor
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import (
    QApplication,
    QColorDialog,
    QDialog,
    QMenu,
    QPushButton,
    QWidget,
)

from demo.hands import Hands
from furnel.desktop import shelf as shelf_module
from furnel.desktop import window as window_module
from furnel.desktop.actions import COMMANDS
from furnel.desktop.trying import station as try_module

SLOW_S = 0.2
NAMED_S = 0.05  # from here on a turn's place is noted
# what would wait for a person, leave the window, or start a program
_ASKING = {
    "open-game", "new-game", "archive", "pack", "new-mod", "open-mod", "swap", "take-out", "replace-source", "match", "quit",
    "start-game",
}  # fmt: skip
_KEYS = (
    "Left", "Right", "Up", "Down", "Home", "End", "Return", "Escape", "Del", "Tab", "Space", "Ctrl+Z", "Ctrl+Shift+Z", "Ctrl+K",
    "Ctrl+1", "Ctrl+2", "Ctrl+3", "Ctrl+4", "Ctrl+Return", "PgDown",
)  # fmt: skip


@dataclass
class Found:
    """What the probe saw: how long turns took in seconds, and where the slow ones were."""

    turns: list[float] = field(default_factory=list)
    slow: list[tuple[float, float, str]] = field(
        default_factory=list
    )  # from NAMED_S on: time, of it stolen, and place
    beside: Counter[str] = field(default_factory=Counter)  # what workers were at in those turns
    actions: Counter[str] = field(default_factory=Counter)

    def percentile(self, share: float) -> float:
        ordered = sorted(self.turns)
        return ordered[min(int(len(ordered) * share), len(ordered) - 1)] if ordered else 0.0

    @property
    def over(self) -> int:
        """How many turns were too long, not counting what the machine below this one took of them."""
        return sum(took - stolen > SLOW_S for took, stolen, _ in self.slow)


class _Watch:
    """Notes where the interface thread is when a turn takes long, by an alarm: nothing else may hold a frame that paints."""

    def __init__(self, found: Found) -> None:
        self._found, self._begun, self._place, self._what, self._stolen = found, 0.0, "", "", 0.0
        self._old = signal.signal(signal.SIGALRM, self._late)

    def begin(self, what: str) -> None:
        self._place, self._what, self._stolen = "", what, _stolen()
        self._begun = time.monotonic()
        signal.setitimer(signal.ITIMER_REAL, NAMED_S)

    def end(self) -> None:
        signal.setitimer(signal.ITIMER_REAL, 0)
        took = time.monotonic() - self._begun
        if self._place:
            stolen = min(_stolen() - self._stolen, took)
            self._found.slow.append((took, stolen, f"{self._what}: {self._place}"))
            took -= stolen
        self._found.turns.append(took)

    def stop(self) -> None:
        signal.setitimer(signal.ITIMER_REAL, 0)
        signal.signal(signal.SIGALRM, self._old)

    def _late(self, _: int, frame: FrameType | None) -> None:
        rows = [row for row in traceback.extract_stack(frame) if "furnel" in row.filename]
        self._place = _places(rows[-3:]) or "in Qt"
        frames = sys._current_frames()
        del frames[threading.get_ident()]  # nothing here may hold a frame that paints
        for other in frames.values():
            rows = [row for row in traceback.extract_stack(other) if "furnel" in row.filename]
            if rows and rows[-1].name not in ("over_rows", "each"):
                self._found.beside[_places(rows[-2:])] += 1


class Probe:
    """Times turns that somebody else takes, and notes where the long ones were."""

    def __init__(self) -> None:
        self.found = Found()
        self._watch = _Watch(self.found)

    @property
    def turns(self) -> list[float]:
        """How long the turns took so far, in seconds."""
        return self.found.turns

    def turn(self, what: str, act: Callable[[], object]) -> None:
        """Time one turn."""
        self._watch.begin(what)
        act()
        self._watch.end()

    def tell(self) -> str:
        """The longest turns as lines."""
        self._watch.stop()
        return tell(self.found)


class Monkey:
    """Works a window at random for some seconds. Files that it drops are given, some of them wrong, and mods that it opens."""

    def __init__(self, hands: Hands, files: list[Path], seed: int = 1, mods: Sequence[Path] = ()) -> None:
        self.hands, self.files, self.chance, self.mods = hands, files, random.Random(seed), mods
        self.found = Found()

    def play(self, seconds: float) -> Found:
        """Do random things, each as one turn, with the events that it causes as others."""
        acts: list[tuple[str, Callable[[], object]]] = [
            ("command", self._command), ("command", self._command), ("key", self._key), ("key", self._key),
            ("click", self._click), ("drop", self._drop), ("pick", self._pick), ("type", self._type), ("edit", self._edit),
        ]  # fmt: skip
        if self.mods:
            acts.append(("mod", lambda: self.hands.window.session.open_mod(self.chance.choice(self.mods))))
        with _nobody_answers():
            return self._play(acts, seconds)

    def _play(self, acts: list[tuple[str, Callable[[], object]]], seconds: float) -> Found:
        self._watch = _Watch(self.found)
        end = time.monotonic() + seconds
        while time.monotonic() < end:
            name, act = self.chance.choice(acts)
            self.found.actions[name] += 1
            self._turn(act, name)
            for _ in range(self.chance.choice((2, 4, 30))):
                self._turn(_events, "events")
                time.sleep(0.002)
            for dialog in QApplication.topLevelWidgets():
                if isinstance(dialog, QDialog) and dialog.isVisible():
                    dialog.close()
        self._watch.stop()
        self.hands.settle()
        return self.found

    def _turn(self, act: Callable[[], object], what: str) -> None:
        self._watch.begin(what)
        act()
        self._watch.end()

    def _command(self) -> None:
        names = [entry.id for entry in COMMANDS if entry.id not in _ASKING]
        self.hands.window.run_command(self.chance.choice(names))

    def _key(self) -> None:
        from PyQt6.QtGui import QKeySequence

        keys = QKeySequence(self.chance.choice(_KEYS))[0]
        target = QApplication.focusWidget() or self.hands.window
        QTest.keyClick(target, keys.key(), keys.keyboardModifiers())

    def _click(self) -> None:
        shown = [
            part for part in self.hands.window.findChildren(QWidget)
            if part.isVisible() and part.isEnabled() and part.width() > 3 and not _asks(part)
        ]  # fmt: skip
        part = self.chance.choice(shown)
        place = QPointF(self.chance.uniform(1, part.width() - 1), self.chance.uniform(1, part.height() - 1))
        QTest.mouseClick(part, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, place.toPoint())

    def _drop(self) -> None:
        window = self.hands.window
        targets = [
            window.find_station.wall.viewport(), window.find_station.sieve.like.well, window.fit_station.benches,
            window.fit_station.queue,
        ]  # fmt: skip
        count = self.chance.choice((1, 1, 1, 3))
        files = [self.chance.choice(self.files) for _ in range(count)]
        shown = [part for part in targets if part is not None and part.isVisible()]
        if shown:
            self.hands.drop(files if count > 1 else files[0], self.chance.choice(shown))

    def _pick(self) -> None:
        project = self.hands.window.session.project
        if project is not None and project.swaps:
            self.hands.window.fit_station.pick(self.chance.choice(project.swaps).original)

    def _type(self) -> None:
        field = self.hands.window.find_station.sieve.text
        if field.isVisible():
            field.setText(self.chance.choice(("", "otter", "art", "zzz", "wav", "hull")))

    def _edit(self) -> None:
        session = self.hands.window.session
        if session.project is not None and session.project.swaps:
            swap = self.chance.choice(session.project.swaps)
            words = f"note {self.chance.randrange(1000)}"
            session.swaps.set_swap(swap.model_copy(update={"credit": words}), "Change the credit")


def _stolen() -> float:
    """Seconds that this machine wanted to run and was not let, as a guest of another one; of the core that lost most."""
    rows = [
        line.split() for line in Path("/proc/stat").read_text("ascii").splitlines() if line.startswith("cpu")
    ]
    return max((int(row[8]) for row in rows[1:]), default=0) / os.sysconf("SC_CLK_TCK")


@contextmanager
def _nobody_answers() -> Iterator[None]:
    """Let everything that waits for a person be called off at once."""
    with ExitStack() as stack:
        for owner, name, answer in (
            (QColorDialog, "getColor", QColor()),
            (QDialog, "exec", 0),
            (QMenu, "exec", None),
            (shelf_module, "made_demo", Path()),
            (window_module, "ask", False),
            (try_module, "ask", False),
        ):
            stack.enter_context(patch.object(owner, name, lambda *_, answer=answer, **__: answer))
        yield


def _places(rows: list[traceback.FrameSummary]) -> str:
    """Where something is, the innermost first."""
    return " < ".join(f"{Path(row.filename).name}:{row.lineno} {row.name}" for row in reversed(rows))


def _events() -> None:
    """One pass of the event loop; widgets that were given up go, as they do when it runs by itself."""
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    QApplication.processEvents()


def _asks(part: QWidget) -> bool:
    """Whether a click there waits for a person."""
    if not isinstance(part, QPushButton):
        return False
    text = part.text()
    return (
        "…" in text
        or text.startswith(("#", "Start"))
        or part.menu() is not None
        or part.objectName() in ("game", "mod")
    )


@dataclass(frozen=True)
class Held:
    """What the process holds: memory in MB, widgets, threads, file descriptors."""

    mb: float
    widgets: int
    threads: int
    descriptors: int


def held_now() -> Held:
    """What the process holds now, when all that was given up is gone: also what the allocator keeps for each thread.

    Mapped files are not counted: their pages are the system's, which takes them back when it likes.
    """
    _events()
    gc.collect()
    with suppress(OSError, AttributeError):  # another C library than glibc
        ctypes.CDLL("libc.so.6").malloc_trim(0)
    status = Path("/proc/self/status").read_text("ascii")
    memory = int(status.split("RssAnon:")[1].split()[0]) * 1024 / 1e6
    descriptors = len(list(Path("/proc/self/fd").iterdir()))
    return Held(memory, len(QApplication.allWidgets()), threading.active_count(), descriptors)


def tell(found: Found) -> str:
    """The probe's findings as lines."""
    lines = [
        f"{len(found.turns)} turns, p50 {found.percentile(0.5) * 1000:.1f} ms, p99 {found.percentile(0.99) * 1000:.0f} ms, "
        f"longest {max(found.turns, default=0) * 1000:.0f} ms, {found.over} over {SLOW_S * 1000:.0f} ms; "
        f"another guest of the machine took {sum(stolen for _, stolen, _ in found.slow):.1f} s more of them"
    ]
    for took, stolen, place in sorted(found.slow, key=lambda row: row[1] - row[0])[:25]:
        lines.append(f"  {(took - stolen) * 1000:.0f} ms (+ {stolen * 1000:.0f}) {place}")
    lines += [f"  beside {count} × {place}" for place, count in found.beside.most_common(15)]
    return "\n".join(lines)
