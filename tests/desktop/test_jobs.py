"""The job runner: results, errors, cancel, the newest request."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Iterator

import pytest
from PyQt6.QtWidgets import QApplication

from furnel.desktop.jobs import JobRunner
from furnel.errors import Cancelled, FurnelError


@pytest.fixture
def runner(application: QApplication) -> Iterator[JobRunner]:
    made = JobRunner()
    yield made
    made.stop()


def until(done: Callable[[], object]) -> None:
    end = time.monotonic() + 5
    while not done():
        assert time.monotonic() < end
        QApplication.processEvents()
        time.sleep(0.002)


def test_results_arrive_on_the_interface_thread(runner: JobRunner) -> None:
    got: list[tuple[int, bool]] = []
    me = threading.current_thread()
    runner.start("add", lambda _: 40 + 2, lambda value: got.append((value, threading.current_thread() is me)))
    until(lambda: got)
    assert got == [(42, True)] and runner.busy() == 0


def test_the_newest_request_wins(runner: JobRunner) -> None:
    got: list[int] = []
    gate = threading.Event()
    for number in range(6):
        runner.start("slow", lambda _, n=number: gate.wait(5) and n, got.append, key="same")
    gate.set()
    until(lambda: runner.busy() == 0)
    assert got == [5]


def test_errors_are_told_and_unforeseen_ones_in_plain_words(
    runner: JobRunner, caplog: pytest.LogCaptureFixture
) -> None:
    told: list[FurnelError] = []
    runner.refused.connect(told.append)

    def fail(error: Exception) -> Callable[[object], None]:
        def work(_: object) -> None:
            raise error

        return work

    runner.start("a", fail(FurnelError("Reading", why="no")), lambda _: None)
    runner.start("b", fail(ZeroDivisionError("secret")), lambda _: None)
    runner.start("c", fail(Cancelled("Stopping")), lambda _: None)
    until(lambda: runner.busy() == 0)
    assert sorted(error.why for error in told) == ["no", "something unforeseen went wrong"]
    assert "secret" in caplog.text
    caplog.clear()


def test_cancelled_work_delivers_nothing_and_is_not_busy(runner: JobRunner) -> None:
    got: list[object] = []

    def work(progress: object) -> int:
        while not progress.cancelled():  # type: ignore[attr-defined]
            time.sleep(0.002)
        return 1

    job = runner.start("endless", work, got.append)
    job.cancel()
    until(lambda: runner.busy() == 0)
    assert got == []


def test_writes_come_one_after_the_other(runner: JobRunner) -> None:
    order: list[int] = []
    for number in range(8):
        runner.start(
            "write",
            lambda _, n=number: (time.sleep(0.01 if n % 2 else 0), order.append(n)),
            lambda _: None,
            lane="write",
        )
    until(lambda: runner.busy() == 0)
    assert order == list(range(8))
