"""How the window answers: a seeded monkey on the demo mod for ten minutes, with the slow turns named by where they were."""

from __future__ import annotations

import os
import sys
import tempfile
import threading
from pathlib import Path


def main(seconds: float = 600.0) -> None:
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from demo.hands import Hands
    from demo.make import make_demo
    from demo.monkey import Monkey, memory_mb, tell
    from PyQt6.QtWidgets import QApplication, QFileDialog

    from furnel.desktop.application import make_application, make_window

    if len(sys.argv) > 2 and sys.argv[-1].isdecimal():
        seconds = float(sys.argv[-1])
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        os.environ["FURNEL_STATE"] = str(folder / "state")
        make_demo(folder)
        application = make_application()
        QFileDialog.getOpenFileName = lambda *_, **__: ("", "")  # type: ignore[method-assign,assignment]
        QFileDialog.getOpenFileNames = lambda *_, **__: ([], "")  # type: ignore[method-assign,assignment]
        QFileDialog.getExistingDirectory = lambda *_, **__: ""  # type: ignore[method-assign,assignment]
        QFileDialog.getSaveFileName = lambda *_, **__: ("", "")  # type: ignore[method-assign,assignment]
        window = make_window()
        window.show()
        hands = Hands(window)
        hands.open(folder / "northern-lights" / "furnel.toml")
        sources = sorted((folder / "northern-lights" / "sources").iterdir())
        files = [*sources, folder / "northern-lights", folder / "gone.png"]
        before = memory_mb(), len(application.allWidgets()), threading.active_count(), _descriptors()
        found = Monkey(hands, files).play(seconds)
        after = memory_mb(), len(application.allWidgets()), threading.active_count(), _descriptors()
        print(tell(found))
        for what, was, now in zip(("MB", "widgets", "threads", "descriptors"), before, after, strict=True):
            print(f"  {what}: {was:.0f} → {now:.0f}")
        window.close()
        QApplication.processEvents()


def _descriptors() -> int:
    return len(list(Path("/proc/self/fd").iterdir()))
