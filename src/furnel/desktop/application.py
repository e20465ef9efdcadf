"""Setting up Qt, the type, the log, and what happens to errors that nobody expected."""

from __future__ import annotations

import contextlib
import ctypes
import logging
import os
import sys
import threading
from types import TracebackType
from typing import TYPE_CHECKING

from PyQt6 import sip
from PyQt6.QtWidgets import QApplication

from furnel.desktop.look import THEMES, Look, load_type
from furnel.folders import keep_log

if TYPE_CHECKING:
    from furnel.desktop.window import Window

log = logging.getLogger(__name__)
# glibc's M_ARENA_MAX, and M_MMAP_THRESHOLD: large arrays go back when they are let go
_MALLOC = {-8: 2, -3: 1 << 20}
_SWITCH_S = 0.001  # how long a worker may keep the interpreter from the interface thread


def make_application(size: int = 100) -> QApplication:
    """The Qt application; there is only ever one. `size` of everything is in per cent."""
    present = QApplication.instance()
    if isinstance(present, QApplication):
        return present
    sys.setswitchinterval(_SWITCH_S)
    with contextlib.suppress(OSError, AttributeError):
        for setting, value in _MALLOC.items():
            ctypes.CDLL("libc.so.6").mallopt(setting, value)
    if size != 100:
        os.environ.setdefault("QT_SCALE_FACTOR", f"{size / 100:g}")
    os.environ.setdefault("QT_LOGGING_RULES", "qt.multimedia.*=false;qt.qpa.*=false")
    application = QApplication(sys.argv[:1])
    application.setApplicationName("Furnel")
    application.setDesktopFileName("furnel")
    application.setStyle("Fusion")
    load_type()
    return application


def make_window(theme: str = "dark", look: Look | None = None) -> Window:
    """The main window with its look; unexpected errors go to the log and are told in plain words."""
    from furnel.desktop.window import Window  # it loads nearly everything there is

    window = Window(look or Look(theme if theme in THEMES else "dark"))
    keep_log()

    def hook(kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        log.error("unforeseen", exc_info=(kind, error, trace))
        if not sip.isdeleted(window):
            window.session.tell(
                "wrong",
                f"Something unforeseen went wrong ({error}). The log has the details; your mod is saved.",
            )

    sys.excepthook = hook
    threading.excepthook = lambda args: log.error(
        "unforeseen, in %s", args.thread and args.thread.name, exc_info=args.exc_value
    )
    return window
