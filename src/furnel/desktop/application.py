"""Setting up Qt, the type, the log, and what happens to errors that nobody expected."""

from __future__ import annotations

import logging
import logging.handlers
import os
import sys
from types import TracebackType

from PyQt6 import sip
from PyQt6.QtWidgets import QApplication

from furnel.desktop.look import THEMES, Look, load_type
from furnel.desktop.window import Window
from furnel.folders import cache_folder

log = logging.getLogger(__name__)


def make_application() -> QApplication:
    """The Qt application; there is only ever one."""
    present = QApplication.instance()
    if isinstance(present, QApplication):
        return present
    os.environ.setdefault("QT_LOGGING_RULES", "qt.multimedia.*=false;qt.qpa.*=false")
    application = QApplication(sys.argv[:1])
    application.setApplicationName("Furnel")
    application.setDesktopFileName("furnel")
    application.setStyle("Fusion")
    load_type()
    return application


def make_window(theme: str = "dark") -> Window:
    """The main window with its look; unexpected errors go to the log and are told in plain words."""
    look = Look(theme if theme in THEMES else "dark")
    look.apply()
    window = Window(look)
    _keep_log()

    def hook(kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        log.error("unforeseen", exc_info=(kind, error, trace))
        if not sip.isdeleted(window):
            window.session.tell(
                "wrong",
                f"Something unforeseen went wrong ({error}). The log has the details; your mod is saved.",
            )

    sys.excepthook = hook
    return window


def _keep_log() -> None:
    root = logging.getLogger("furnel")
    if root.handlers:
        return
    folder = cache_folder()
    folder.mkdir(parents=True, exist_ok=True)
    handler = logging.handlers.RotatingFileHandler(
        folder / "furnel.log", maxBytes=1 << 20, backupCount=2, encoding="utf-8"
    )
    handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(name)s %(message)s"))
    root.addHandler(handler)
    root.setLevel(logging.INFO)
