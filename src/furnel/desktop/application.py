"""Setting up Qt, the type, the log, and what happens to errors that nobody expected."""

from __future__ import annotations

import contextlib
import ctypes
import logging
import os
import signal
import socket
import sys
import threading
from collections.abc import Iterator
from importlib import resources
from types import TracebackType
from typing import TYPE_CHECKING

from PyQt6 import sip
from PyQt6.QtCore import QSocketNotifier
from PyQt6.QtGui import QIcon
from PyQt6.QtWidgets import QApplication

from furnel.desktop.language import language_of, speak
from furnel.desktop.look import Look, load_type
from furnel.desktop.report import report_of, show_report
from furnel.folders import keep_log
from furnel.kernels import announce

if TYPE_CHECKING:
    from furnel.desktop.window import Window

log = logging.getLogger(__name__)
# glibc's M_ARENA_MAX, and M_MMAP_THRESHOLD: large arrays go back when they are let go
_MALLOC = {-8: 2, -3: 1 << 20}
_ENDS = signal.SIGTERM, signal.SIGINT, signal.SIGHUP
_SWITCH_S = 0.001  # how long a worker may keep the interpreter from the interface thread


def make_application(size: int = 100, language: str = "en") -> QApplication:
    """The Qt application; there is only ever one. `size` of everything is in per cent, `language` one of LANGUAGES."""
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
    application.setWindowIcon(QIcon(str(resources.files("furnel.desktop") / "menu" / "furnel.svg")))
    load_type()
    speak(language_of(language))
    return application


@contextlib.contextmanager
def ended_by_the_system(application: QApplication) -> Iterator[None]:
    """Let the system end Furnel as a person does, so that its place is kept: at the end of a session, by SIGTERM, by an
    interrupt."""
    if threading.current_thread() is not threading.main_thread():
        yield
        return
    ours, theirs = socket.socketpair()
    ours.setblocking(False)
    theirs.setblocking(False)
    wakeup = signal.set_wakeup_fd(theirs.fileno())
    before = {number: signal.signal(number, lambda *_: None) for number in _ENDS}  # what is below does it
    notifier = QSocketNotifier(sip.voidptr(ours.fileno()), QSocketNotifier.Type.Read, application)
    notifier.activated.connect(lambda *_: application.closeAllWindows())
    try:
        yield
    finally:
        notifier.setEnabled(False)
        notifier.deleteLater()
        for number, handler in before.items():
            signal.signal(number, handler)
        signal.set_wakeup_fd(wakeup)
        ours.close()
        theirs.close()


def make_window(look: Look | None = None) -> Window:
    """The main window with its look; unexpected errors go to the log and are told in plain words."""
    from furnel.desktop.window import Window  # it loads nearly everything there is

    window = Window(look or Look())
    announce.append(lambda text: window.session.tell("calm", text))
    keep_log()

    def hook(kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        log.error("unforeseen", exc_info=(kind, error, trace))
        if not sip.isdeleted(window):
            text = report_of(error.with_traceback(trace))
            window.session.tell(
                "wrong",
                f"Something unforeseen went wrong ({error}). Your mod is saved.",
                ("Look at the report", lambda: show_report(window, text)),
            )

    sys.excepthook = hook
    threading.excepthook = lambda args: log.error(
        "unforeseen, in %s", args.thread and args.thread.name, exc_info=args.exc_value
    )
    return window
