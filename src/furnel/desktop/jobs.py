"""The one job runner: work in threads, results back on the interface thread, the newest request wins."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import dataclass
from typing import Any

from PyQt6.QtCore import QObject, Qt, pyqtSignal

from furnel.errors import Cancelled, FurnelError
from furnel.parallel import cores
from furnel.progress import Progress

log = logging.getLogger(__name__)

Work = Callable[[Progress], Any]


class Job:
    """One piece of work; it is the progress that the work reports to."""

    def __init__(self, runner: JobRunner, number: int, title: str, shown: bool) -> None:
        self._runner, self.number, self.title, self.shown = runner, number, title, shown
        self.fraction, self.text = 0.0, title
        self._cancelled = False
        self._told = 0.0

    def report(self, fraction: float, text: str) -> None:
        self.fraction, self.text = fraction, text
        now = time.monotonic()
        if self.shown and now - self._told > 0.05:
            self._told = now
            self._runner.progressed.emit(self.number)

    def cancelled(self) -> bool:
        return self._cancelled

    def cancel(self) -> None:
        """Ask the work to stop; its result is dropped."""
        self._cancelled = True


@dataclass
class _Entry:
    job: Job
    key: str
    done: Callable[[Any], None]
    failed: Callable[[FurnelError], None] | None
    lane: str


class JobRunner(QObject):
    """Runs work in a pool (`read` lane) or one after the other (`write`, `preview`, and `marks`, which nobody waits for).

    A request with a `key` cancels the one before with the same key, whose result is dropped. Results, errors and progress
    arrive on the thread that this object lives in.
    """

    progressed = pyqtSignal(int)
    started = pyqtSignal(int)
    ended = pyqtSignal(int)
    refused = pyqtSignal(object)
    _arrived = pyqtSignal(int, object, object)

    def __init__(self) -> None:
        super().__init__()
        self._pools = {
            "read": ThreadPoolExecutor(max(cores(), 2), thread_name_prefix="furnel-read"),
            "write": ThreadPoolExecutor(1, thread_name_prefix="furnel-write"),
            "preview": ThreadPoolExecutor(1, thread_name_prefix="furnel-preview"),
            "marks": ThreadPoolExecutor(1, thread_name_prefix="furnel-marks"),
        }
        self._entries: dict[int, _Entry] = {}
        self._newest: dict[str, int] = {}
        self._count = 0
        self._arrived.connect(self._deliver, Qt.ConnectionType.QueuedConnection)

    def start(
        self,
        title: str,
        work: Work,
        done: Callable[[Any], None],
        failed: Callable[[FurnelError], None] | None = None,
        *,
        key: str = "",
        lane: str = "read",
        shown: bool = True,
    ) -> Job:
        """Run `work(progress)`; then `done(result)`, or `failed(error)` (by default `refused` is emitted)."""
        self._count += 1
        job = Job(self, self._count, title, shown)
        if key:
            previous = self._entries.get(self._newest.get(key, 0))
            if previous is not None:
                previous.job.cancel()
            self._newest[key] = job.number
        self._entries[job.number] = _Entry(job, key, done, failed, lane)
        future = self._pools[lane].submit(work, job)
        future.add_done_callback(lambda finished, number=job.number: self._finish(number, finished))
        if shown:
            self.started.emit(job.number)
        return job

    def job(self, number: int) -> Job | None:
        """A job that is still going on."""
        entry = self._entries.get(number)
        return entry.job if entry else None

    def busy(self) -> int:
        """How many jobs are going on that somebody waits for."""
        return sum(entry.lane != "marks" for entry in self._entries.values())

    def stop(self) -> None:
        """Cancel everything and wait for the threads to end."""
        for entry in self._entries.values():
            entry.job.cancel()
        for pool in self._pools.values():
            pool.shutdown(wait=True, cancel_futures=True)
        self._entries.clear()

    def _finish(self, number: int, future: Future[Any]) -> None:
        if future.cancelled():
            return
        error = future.exception()
        try:
            self._arrived.emit(number, None if error else future.result(), error)
        except RuntimeError:  # the window is gone
            log.debug("a result came too late", exc_info=True)

    def _deliver(self, number: int, result: object, error: BaseException | None) -> None:
        entry = self._entries.pop(number, None)
        if entry is None:
            return
        newest = not entry.key or self._newest.get(entry.key) == number
        try:
            if error is None and newest and not entry.job.cancelled():
                entry.done(result)
            elif (
                error is not None
                and newest
                and not entry.job.cancelled()
                and not isinstance(error, Cancelled)
            ):
                self._fail(entry, error)
        finally:
            if entry.job.shown:
                self.ended.emit(number)

    def _fail(self, entry: _Entry, error: BaseException) -> None:
        if not isinstance(error, FurnelError):
            log.error("in the job “%s”", entry.job.title, exc_info=error)
            error = FurnelError(
                entry.job.title, why="something unforeseen went wrong", remedy="The log has the details"
            )
        if entry.failed is not None:
            entry.failed(error)
        else:
            self.refused.emit(error)
