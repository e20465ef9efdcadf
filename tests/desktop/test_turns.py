"""Whose turn it is: one heavy job works at a time, what the eye waits for never waits, what was cancelled never begins."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Iterator

import pytest
from PyQt6.QtWidgets import QApplication

from furnel.desktop.jobs import JobRunner
from furnel.progress import Progress


@pytest.fixture
def jobs(application: QApplication) -> Iterator[JobRunner]:
    runner = JobRunner()
    yield runner
    runner.stop()


def until(done: Callable[[], object]) -> None:
    end = time.monotonic() + 20
    while not done():
        assert time.monotonic() < end, "it never came"
        QApplication.processEvents()
        time.sleep(0.002)


def test_one_works_at_a_time_and_the_eye_does_not_wait(jobs: JobRunner) -> None:
    working, most = [0], [0]
    seen: list[object] = []
    lock, hold = threading.Lock(), threading.Event()

    def heavy(_: Progress) -> None:
        with lock:
            working[0] += 1
            most[0] = max(most[0], working[0])
        hold.wait(10)
        with lock:
            working[0] -= 1

    done: list[object] = []
    for number in range(3):
        jobs.start(f"heavy {number}", heavy, done.append)
    jobs.start("to look at", lambda _: "picture", seen.append, lane="eye")
    until(lambda: seen)
    assert not done, "the heavy ones are held"
    hold.set()
    until(lambda: len(done) == 3)
    assert most[0] == 1


def test_what_comes_first_gets_its_turn_in_the_middle_of_a_build(jobs: JobRunner) -> None:
    order: list[str] = []
    begun, go_on = threading.Event(), threading.Event()

    def build(progress: Progress) -> None:
        begun.set()
        go_on.wait(10)
        while "examined" not in order:  # a build of many files looks at its progress after each
            assert not progress.cancelled()
            time.sleep(0.001)
        order.append("built")

    jobs.start("building", build, lambda _: None, lane="build")
    until(begun.is_set)
    jobs.start("examining", lambda _: order.append("examined"), lambda _: None)
    go_on.set()
    until(lambda: len(order) == 2)
    assert order == ["examined", "built"]


def test_jobs_of_one_rank_take_turns(jobs: JobRunner) -> None:
    left = {"a": True, "b": True}

    def work(own: str, other: str) -> Callable[[Progress], None]:
        def run(progress: Progress) -> None:
            left[own] = False
            while left[other]:  # ends only when the other one had a turn, too
                assert not progress.cancelled()
                time.sleep(0.005)

        return run

    done: list[object] = []
    jobs.start("a", work("a", "b"), done.append)
    jobs.start("b", work("b", "a"), done.append)
    until(lambda: len(done) == 2)


def test_what_was_cancelled_while_it_waited_never_begins(jobs: JobRunner) -> None:
    hold, begun = threading.Event(), []
    jobs.start("first", lambda _: hold.wait(10), lambda _: None)
    waiting = [jobs.start(f"{n}", lambda _, n=n: begun.append(n), lambda _: None) for n in range(5)]
    time.sleep(0.05)
    for job in waiting[:4]:
        job.cancel()
    hold.set()
    until(lambda: jobs.busy() == 0)
    assert begun == [4]


def test_an_error_gives_the_turn_on(jobs: JobRunner) -> None:
    refused: list[object] = []

    def fails(_: Progress) -> None:
        raise ValueError("not foreseen")

    done: list[object] = []
    jobs.start("bad", fails, done.append, refused.append)
    jobs.start("good", lambda _: 1, done.append)
    until(lambda: done)
    assert done == [1] and len(refused) == 1
