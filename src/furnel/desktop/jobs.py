"""The one job runner: work in threads, results back on the interface thread, the newest request wins."""

from __future__ import annotations

import contextlib
import itertools
import logging
import os
import threading
import time
from collections import deque
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import dataclass
from functools import partial
from typing import Any

from PyQt6.QtCore import QObject, Qt, pyqtSignal

from furnel.desktop.timing import timer
from furnel.errors import Cancelled, FurnelError
from furnel.parallel import cores, get_ready
from furnel.progress import Progress, check

log = logging.getLogger(__name__)

Work = Callable[[Progress], Any]
_NICE = 5
_RANKS = {"read": 0, "build": 1}  # lanes that work in turns
_LIGHT = ("save", "open")  # lanes whose work uses nothing of what takes long to import
_KEPT = ("save", "edit", "write", "build")  # lanes that go on when something else is opened
_FINISHED = ("save", "edit", "write")  # lanes whose work is done to its end before the window is gone
_WHILE_S = 0.25
_TURN_S = 0.008  # how long results are delivered before the window has its turn


def _step_back() -> None:
    """Let this thread, and those that it starts, give way to the interface thread."""
    with contextlib.suppress(OSError):
        os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), _NICE)


class _Turns:
    """Whose turn it is to work: one at a time, the lowest rank first, each for a while. More would keep the interpreter from
    the interface thread; what is heavy in one job spreads over all cores by itself."""

    def __init__(self) -> None:
        self._changed = threading.Condition()
        self._waiting: list[tuple[int, int]] = []  # rank, and a number that tells who came first
        self._numbers = itertools.count()
        self._taken = False
        self._since = 0.0

    def take(self, rank: int) -> None:
        """Wait until it is the turn of one with this rank."""
        with self._changed:
            own = rank, next(self._numbers)
            self._waiting.append(own)
            self._changed.wait_for(lambda: not self._taken and own == min(self._waiting))
            self._waiting.remove(own)
            self._taken, self._since = True, time.monotonic()

    def give(self) -> None:
        """Let the next one work."""
        with self._changed:
            self._taken = False
            self._changed.notify_all()

    def pass_on(self, rank: int) -> None:
        """Let others work for a while when they come first, or when this one worked long enough."""
        with self._changed:
            first = min(self._waiting)[0] if self._waiting else rank + 1
        if first < rank or (first == rank and time.monotonic() - self._since > _WHILE_S):
            self.give()
            self.take(rank)


class Job:
    """One piece of work; it is the progress that the work reports to."""

    def __init__(self, runner: JobRunner, number: int, title: str, shown: bool, lane: str = "") -> None:
        self._runner, self.number, self.title, self.shown = runner, number, title, shown
        self.fraction, self.text = 0.0, title
        self._cancelled = False
        self._told = 0.0
        self._rank = _RANKS.get(lane)
        self._thread = 0

    def do(self, work: Work) -> Any:
        """Do the work, when it is its turn, once what workers share is imported."""
        get_ready()
        if self._rank is None:
            return work(self)
        self._runner.turns.take(self._rank)
        self._thread = threading.get_ident()
        try:
            check(self, self.title)
            return work(self)
        finally:
            self._runner.turns.give()

    @property
    def stopping(self) -> bool:
        """Whether it was cancelled, and has not come to a safe place yet."""
        return self._cancelled

    def report(self, fraction: float, text: str) -> None:
        if self._cancelled:
            return
        self.fraction, self.text = fraction, text
        now = time.monotonic()
        if self.shown and now - self._told > 0.05:
            self._told = now
            self._runner.progressed.emit(self.number)

    def cancelled(self) -> bool:
        """Whether to stop. Work that asks is at a safe place: here others get their turn before it is answered."""
        if self._rank is not None and self._thread == threading.get_ident():
            self._runner.turns.pass_on(self._rank)
        return self._cancelled

    def cancel(self) -> None:
        """Ask the work to stop; its result is dropped. Work that has not begun never does."""
        self._cancelled = True
        self.text = f"Stopping: {self.title}"
        self._runner.unqueue(self.number)
        if self.shown:
            self._runner.progressed.emit(self.number)


@dataclass
class _Entry:
    job: Job
    key: str
    done: Callable[[Any], None]
    failed: Callable[[FurnelError], None] | None
    lane: str
    kept: bool
    future: Future[Any] | None = None


class JobRunner(QObject):
    """Runs work in lanes: `read` for what spreads over the cores by itself, `eye` for what the eye waits for, `wait` for what
    waits for another program, `open` for opening a game or a mod, and one after the other `save` for mods and their histories,
    which nothing long may keep waiting, `edit` for changes of values, `write` for what else must be written, `build` for long
    writing that can be cancelled, `preview`, and `marks`, which nobody waits for.

    A request with a `key` cancels the one before with the same key: when that has not begun it leaves the queue, and its
    result is dropped. Results, errors and progress arrive on the thread that this object lives in, a few in a turn.
    """

    progressed = pyqtSignal(int)
    started = pyqtSignal(int)
    ended = pyqtSignal(int)
    refused = pyqtSignal(object)
    _arrived = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        widths = {
            "read": max(cores(), 2),
            "eye": 2,
            "open": 1,
            "wait": 2,
            "save": 1,
            "edit": 1,
            "write": 1,
            "build": 1,
            "preview": 1,
            "marks": 1,
        }
        self._pools = {
            lane: ThreadPoolExecutor(
                width,
                thread_name_prefix=f"furnel-{lane}",
                initializer=None if lane in ("eye", "open", "save", "edit") else _step_back,
            )
            for lane, width in widths.items()
        }
        self.turns = _Turns()
        self._entries: dict[int, _Entry] = {}
        self._newest: dict[str, int] = {}
        self._count, self._stopped = 0, False
        self._came: deque[tuple[int, Any, BaseException | None]] = deque()
        self._telling, self._told = threading.Lock(), False
        self._again = timer(self, self._deliver)
        self._arrived.connect(self._deliver, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]

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
        kept: bool = False,
        ended: Callable[[], None] | None = None,
    ) -> Job:
        """Run `work(progress)`; then `done(result)`, or `failed(error)` (by default `refused` is emitted). What is `kept`
        goes on when something else is opened; `ended` is called, in any thread, when the work is over or will never begin."""
        self._count += 1
        job = Job(self, self._count, title, shown, lane)
        if self._stopped:  # nobody is there any more to wait for it
            job.cancel()
            return job
        if key:
            previous = self._entries.get(self._newest.get(key, 0))
            self._newest[key] = job.number
            if previous is not None:
                previous.job.cancel()
        entry = self._entries[job.number] = _Entry(job, key, done, failed, lane, kept or lane in _KEPT)
        pool = self._pools[lane]
        entry.future = pool.submit(work, job) if lane in _LIGHT else pool.submit(job.do, work)
        entry.future.add_done_callback(partial(self._finish, job.number))
        if ended is not None:
            entry.future.add_done_callback(lambda _: ended())
        if shown:
            self.started.emit(job.number)
        return job

    def job(self, number: int) -> Job | None:
        """A job that is still going on."""
        entry = self._entries.get(number)
        return entry.job if entry else None

    def runs(self, key: str) -> bool:
        """Whether something with this key is under way."""
        return key in self._newest

    def busy(self) -> int:
        """How many jobs are going on that somebody waits for."""
        return sum(entry.lane != "marks" for entry in self._entries.values())

    def unqueue(self, number: int) -> None:
        """Forget a job that has not begun; one that runs goes on until it looks whether it was cancelled."""
        entry = self._entries.get(number)
        if entry is not None and entry.future is not None and entry.future.cancel():
            self._forget(number)

    def cancel_reading(self) -> None:
        """Cancel everything that is going on or waits, except what is being written and what changes a mod."""
        for entry in list(self._entries.values()):
            if not entry.kept:
                entry.job.cancel()

    def stop(self, patience_s: float = 60.0) -> bool:
        """Bring every edit and everything that is to be written to its end, cancel the rest, and wait for its threads for a
        while; whether all have ended. What is in the middle of a long computation by then is left to its fate."""
        for entry in list(self._entries.values()):
            if entry.lane not in _FINISHED:
                entry.job.cancel()
        while any(entry.lane in _FINISHED for entry in self._entries.values()):
            self._deliver()  # an edit that comes now is still made, and saved
            time.sleep(0.002)
        self._stopped = True
        for pool in self._pools.values():
            pool.shutdown(wait=False, cancel_futures=True)
        end = time.monotonic() + patience_s
        for thread in [one for pool in self._pools.values() for one in pool._threads]:
            thread.join(max(end - time.monotonic(), 0))
        self._entries.clear()
        self._came.clear()
        self.blockSignals(True)  # what is still on its way has nobody to go to
        return not any(one.is_alive() for pool in self._pools.values() for one in pool._threads)

    def _finish(self, number: int, future: Future[Any]) -> None:
        if future.cancelled():
            return
        error = future.exception()
        self._came.append((number, None if error else future.result(), error))
        with self._telling:
            told, self._told = self._told, True
        if told:  # the interface thread knows already that something came
            return
        try:
            self._arrived.emit()
        except RuntimeError:  # the window is gone
            log.debug("a result came too late", exc_info=True)

    def _deliver(self) -> None:
        end = time.monotonic() + _TURN_S
        with self._telling:
            self._told = False
        while self._came:
            try:
                self._hand_over(*self._came.popleft())
            except Exception:  # what one result causes must not keep the others back
                log.exception("in what a result causes")
            if self._came and time.monotonic() > end:
                with self._telling:
                    self._told = True
                self._again.start()
                return

    def _hand_over(self, number: int, result: object, error: BaseException | None) -> None:
        entry = self._entries.get(number)
        if entry is None:
            return
        newest = not entry.key or self._newest.get(entry.key) == number
        wanted = newest and not entry.job.cancelled()
        self._forget(number, tell=False)
        try:
            if wanted and error is None:
                entry.done(result)
            elif wanted and error is not None and not isinstance(error, Cancelled):
                self._fail(entry, error)
        finally:
            if entry.job.shown:
                self.ended.emit(number)

    def _forget(self, number: int, tell: bool = True) -> None:
        entry = self._entries.pop(number)
        if entry.key and self._newest.get(entry.key) == number:
            del self._newest[entry.key]
        if tell and entry.job.shown:
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
