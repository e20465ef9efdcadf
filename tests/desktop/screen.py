"""A real screen: an X server of its own, a window manager, the window in a process of its own, and a person's hands on it.

Run as a program it is the window: it opens the mod that it is given and answers `look` with what is to be seen, as JSON.
"""

from __future__ import annotations

import json
import os
import shutil
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

TOOLS = ("Xvfb", "openbox", "xdotool")
HERE = Path(__file__)


def missing() -> list[str]:
    """The programs that a real screen needs and that are not here."""
    return [tool for tool in TOOLS if shutil.which(tool) is None]


@contextmanager
def screen(width: int = 1280, height: int = 800) -> Iterator[dict[str, str]]:
    """An X server with a window manager; the environment for programs on it."""
    read, write = os.pipe()
    server = subprocess.Popen(
        ["Xvfb", "-displayfd", str(write), "-screen", "0", f"{width}x{height}x24", "-nolisten", "tcp"],
        pass_fds=[write], stderr=subprocess.DEVNULL,
    )  # fmt: skip
    os.close(write)
    with os.fdopen(read) as told:
        number = told.readline().strip()
    environment = {**os.environ, "DISPLAY": f":{number}", "QT_QPA_PLATFORM": "xcb", "QT_XCB_NO_XI2": "1"}
    manager = subprocess.Popen(
        ["openbox"], env=environment, stderr=subprocess.DEVNULL, stdout=subprocess.DEVNULL
    )
    try:
        yield environment
    finally:
        for process in (manager, server):
            process.terminate()
            process.wait()


class Person:
    """Somebody before the screen: real keys and a real pointer, and eyes for what the window shows."""

    def __init__(self, environment: dict[str, str], *opened: Path) -> None:
        self._environment = environment
        self._window = subprocess.Popen(
            [sys.executable, str(HERE), *map(str, opened)], env=environment, text=True,
            stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL,
        )  # fmt: skip

    def look(self) -> dict[str, Any]:
        """What is to be seen."""
        assert self._window.stdin is not None and self._window.stdout is not None
        self._window.stdin.write("look\n")
        self._window.stdin.flush()
        seen: dict[str, Any] = json.loads(self._window.stdout.readline())
        return seen

    def until(
        self, done: Callable[[dict[str, Any]], object], what: str, seconds: float = 40.0
    ) -> dict[str, Any]:
        """Look until something is so; what is seen then."""
        end = time.monotonic() + seconds
        while not done(seen := self.look()):
            if time.monotonic() > end:
                raise TimeoutError(f"waited for {what}; there is {seen}")
            time.sleep(0.05)
        return seen

    def hand(self, *words: object) -> None:
        """Do something with keyboard or mouse."""
        subprocess.run(["xdotool", *map(str, words)], env=self._environment, check=True, timeout=20)

    def press(self, place: tuple[int, int]) -> None:
        """Click at a place on the screen."""
        self.hand("mousemove", *place, "click", 1)

    def drag(self, file: Path, onto: tuple[int, int]) -> None:
        """Drag a file out of another program's window and drop it."""
        with subprocess.Popen(
            [sys.executable, str(HERE), "--source", str(file)],
            env=self._environment,
            stdout=subprocess.PIPE,
            text=True,
        ) as other:
            assert other.stdout is not None
            x, y = map(int, other.stdout.readline().split())
            self.hand("mousemove", x, y, "mousedown", 1)
            for part in range(1, 9):
                self.hand(
                    "mousemove", x + (onto[0] - x) * part // 8, y + (onto[1] - y) * part // 8, "sleep", 0.06
                )
            self.hand("sleep", 0.3, "mouseup", 1)
            other.wait(timeout=20)

    def leave(self) -> int:
        """Close the window as the window manager's button does; the exit code."""
        self.hand("search", "--name", "Furnel", "windowclose") if self._window.poll() is None else None
        assert self._window.stdin is not None
        self._window.stdin.close()
        return self._window.wait(timeout=30)


def _be_the_window(opened: list[Path]) -> int:
    from PyQt6.QtCore import QPoint, QSocketNotifier
    from PyQt6.QtWidgets import QApplication, QDialog, QMenu, QWidget

    from furnel.desktop.application import make_application, make_window
    from furnel.desktop.look import Look
    from furnel.desktop.opening import Opening
    from furnel.desktop.recent import Recent
    from furnel.desktop.window import Window

    application = make_application()
    made: list[Window] = []

    def make() -> Window:
        made.append(make_window())
        for path in opened:
            made[0].session.open_mod(path)
        return made[0]

    top = Opening(Look(), Recent(), make)
    top.show()

    def place(part: QWidget | None, x: float = 0.5, y: float = 0.5) -> tuple[int, int]:
        assert part is not None
        at = part.mapToGlobal(QPoint(int(part.width() * x), int(part.height() * y)))
        return at.x(), at.y()

    def look() -> dict[str, Any]:
        if not made:
            return {"active": False, "swaps": {}, "busy": 1}
        window = made[0]
        focus, project = QApplication.focusWidget(), window.session.project
        frame, keys = top.frameGeometry(), QApplication.activeWindow()
        shown = [part for part in QApplication.topLevelWidgets() if part.isVisible()]
        return {
            "active": window.isActiveWindow(),
            "keys": keys.windowTitle() if keys is not None else "",
            "focus": focus.accessibleName() if focus is not None else "",
            "frame": [frame.x(), frame.y(), frame.right(), frame.bottom()],
            "station": window.stations.currentIndex(),
            "busy": window.jobs.busy() + window.tiles.waiting,
            "game": window.session.catalogue is not None,
            "swaps": {swap.original: swap.source for swap in project.swaps} if project else {},
            "menus": sum(isinstance(part, QMenu) for part in shown),
            "dialogs": [part.windowTitle() for part in shown if isinstance(part, QDialog)],
            "theme": window.look.theme,
            "said": [notice.text for notice in window.messages[-2:]],
            "selected": asset.path if (asset := window.find_station.wall.current()) is not None else "",
            "wall": place(window.find_station.wall.viewport(), 0.12, 0.16),
            "mod": place(window.findChild(QWidget, "mod")),
            "bench": place(window.fit_station.benches),
            "beside": place(window, 0.3, 0.95),
        }

    def answer() -> None:
        if sys.stdin.readline():
            print(json.dumps(look()), flush=True)
        else:
            top.close()

    asked = QSocketNotifier(0, QSocketNotifier.Type.Read)
    asked.activated.connect(answer)
    return int(application.exec())


def _be_the_source(file: Path) -> int:
    from PyQt6.QtCore import QMimeData, QTimer, QUrl
    from PyQt6.QtGui import QDrag, QMouseEvent
    from PyQt6.QtWidgets import QApplication, QWidget

    class Source(QWidget):
        def mousePressEvent(self, event: QMouseEvent | None) -> None:
            drag, data = QDrag(self), QMimeData()
            data.setUrls([QUrl.fromLocalFile(str(file))])
            drag.setMimeData(data)
            drag.exec()
            QTimer.singleShot(300, QApplication.quit)

    application = QApplication(sys.argv[:1])
    source = Source()
    source.setGeometry(1130, 640, 110, 90)
    source.show()

    def tell() -> None:
        middle = source.mapToGlobal(source.rect().center())
        print(middle.x(), middle.y(), flush=True)

    QTimer.singleShot(700, tell)
    return application.exec()


if __name__ == "__main__":
    if sys.argv[1:2] == ["--source"]:
        sys.exit(_be_the_source(Path(sys.argv[2])))
    sys.exit(_be_the_window([Path(word) for word in sys.argv[1:]]))
