"""The job line at the bottom: what is being done, how far it is, cancel, and the last message."""

from __future__ import annotations

import time

from PyQt6.QtCore import QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QHBoxLayout, QSizePolicy, QWidget

from furnel.desktop.jobs import Job, JobRunner
from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.session import Notice
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import StateMark, button, label, tip
from furnel.desktop.widgets.menus import menu_under
from furnel.words import count

_READING_S, _LETTERS_A_SECOND = 4.0, 25.0


class _Bar(QWidget):
    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look, self.fraction = look, 0.0
        self.setFixedSize(160, 4)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._look.colour("hairline"))
        painter.fillRect(
            QRectF(0, 0, self.width() * min(self.fraction, 1.0), self.height()), self._look.colour("bar")
        )


class JobLine(QWidget):
    """The line; `list_wanted` when it is clicked. Jobs that end within a fifth of a second are not shown."""

    list_wanted = pyqtSignal()

    def __init__(self, look: Look, jobs: JobRunner) -> None:
        super().__init__()
        self.setObjectName("jobline")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedHeight(24)
        self._jobs, self._running = jobs, dict[int, float]()
        self._mark, self._text, self._bar = StateMark(look, "fits", 8), label(), _Bar(look)
        self._text.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self._cancel = button("cancel", "Stop this job; nothing is left half-done", "plain")
        self._cancel.setFixedHeight(20)
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 0, 12, 0)
        row.setSpacing(8)
        for part in (self._mark, self._text, self._bar, self._cancel):
            row.addWidget(part, 1 if part is self._text else 0)
        self._cancel.clicked.connect(self._stop)
        self._wait = timer(self, self._show, 100, repeats=True)
        jobs.started.connect(self._begin)
        jobs.ended.connect(self._end)
        jobs.progressed.connect(self._progressed)
        self._notice = Notice("calm", "")
        self._later: Notice | None = None
        self._read_by = 0.0
        self._relay = timer(self, self._relieve)
        self._show()

    def tell(self, notice: Notice) -> None:
        """Show a message until the next one; a refusal stays until there was time to read it, whatever else is calm."""
        now = time.monotonic()
        if notice.tone != "wrong" and self._notice.tone == "wrong" and now < self._read_by:
            self._later = notice
            self._relay.start(int((self._read_by - now) * 1000) + 1)
            return
        self._later = None
        self._notice = notice
        self._read_by = (
            now + max(_READING_S, len(notice.text) / _LETTERS_A_SECOND) if notice.tone == "wrong" else 0.0
        )
        self._show()

    def _relieve(self) -> None:
        if self._later is not None:
            self._read_by = 0.0
            self.tell(self._later)

    @property
    def message(self) -> str:
        return self._notice.text

    @property
    def shown_text(self) -> str:
        """What stands in the line now: the job that is being done, or the last message."""
        return self._text.text()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.list_wanted.emit()

    def _progressed(self, _: int) -> None:
        self._show()

    def _begin(self, number: int) -> None:
        self._running[number] = time.monotonic()
        self._wait.start()

    def _end(self, number: int) -> None:
        self._running.pop(number, None)
        if not self._running:
            self._wait.stop()
        self._show()

    def _slow(self) -> list[Job]:
        now = time.monotonic()
        jobs = (self._jobs.job(number) for number, since in self._running.items() if now - since > 0.2)
        return [job for job in jobs if job is not None]

    def _show(self) -> None:
        slow = self._slow()
        job = slow[0] if slow else None
        for part in (self._bar, self._cancel):
            part.setVisible(any(not one.stopping for one in slow))
        reading = time.monotonic() < self._read_by
        self._mark.setVisible((job is None or reading) and bool(self._notice.text))
        if job is not None and time.monotonic() >= self._read_by:
            more = f", and {count(len(slow) - 1, 'other job')}" if len(slow) > 1 else ""
            self._text.setText(tr(job.text + more))
            self._cancel.setText(tr("cancel" if len(slow) == 1 else "cancel…"))
            self._bar.fraction = job.fraction
            self._bar.update()
        else:
            self._mark.show_state("breaks" if self._notice.tone == "wrong" else "fits")
            self._text.setText(tr(self._notice.text))
            tip(self._text, self._notice.text)

    def _stop(self) -> None:
        slow = [job for job in self._slow() if not job.stopping]
        if len(slow) == 1:
            slow[0].cancel()
        elif slow:
            menu_under(self._cancel, [(tr(job.title), job) for job in slow], lambda job: job.cancel())
