"""Whatever takes longer can be stopped: work that goes on for a while asks again and again whether it should."""

from __future__ import annotations

import threading
import time
from pathlib import Path

import numpy as np
import pytest
import soundfile
from demo.hands import Hands
from PIL import Image

from furnel.desktop.jobs import Job

HULL, BELL = "art/hulls/hull_otter.dds", "bank0/000.wav"
LONG_S = 2.0  # of a thread's own work, without a look at whether it should stop
PACE_S = 0.15  # what `pace` takes on the machine that this was measured on


def pace() -> float:
    """How much slower than that this machine is now, never less than 1: others may work on it, too."""
    began = time.thread_time()
    sum(number * number for number in range(2_000_000))
    return max((time.thread_time() - began) / PACE_S, 1.0)


@pytest.fixture
def unasked(monkeypatch: pytest.MonkeyPatch) -> dict[str, float]:
    """The longest that each job worked without asking, by its title."""
    longest: dict[str, float] = {}
    do, asked = Job.do, Job.cancelled
    since = threading.local()

    def look(job: Job) -> None:
        now = time.thread_time()
        if getattr(since, "job", None) is job:
            longest[job.title] = max(longest.get(job.title, 0.0), now - since.at)
        since.job, since.at = job, now

    def watched(job: Job, work: object) -> object:
        look(job)
        try:
            return do(job, work)  # type: ignore[arg-type]
        finally:
            look(job)
            since.job = None

    def looked(job: Job) -> bool:
        look(job)
        return asked(job)

    monkeypatch.setattr(Job, "do", watched)
    monkeypatch.setattr(Job, "cancelled", looked)
    return longest


def test_no_job_works_for_long_without_asking(
    hands: Hands, mod: Path, tmp_path: Path, unasked: dict[str, float]
) -> None:
    slow, rng = pace(), np.random.default_rng(4)
    noise = np.kron(rng.integers(0, 255, (256, 256, 4), np.uint8), np.ones((8, 8, 1), np.uint8))
    Image.fromarray(noise).save(tmp_path / "large.png", compress_level=1)
    at = np.arange(44100 * 12) / 44100
    tune = 0.4 * np.sin(2 * np.pi * 220 * at) * np.exp(-3 * (at * 2 % 1))
    soundfile.write(tmp_path / "long.wav", tune, 44100)
    hands.open(mod)
    session, fit = hands.window.session, hands.window.fit_station
    hands.station(2)
    for original, source in ((HULL, "large.png"), (BELL, "long.wav")):
        session.swaps.swap_with(original, tmp_path / source)
        hands.settle()
        fit.pick(original)
        session.swaps.fit_all([original])
        hands.settle()
    pictures = [asset.path for asset in session.catalogue.assets if asset.facts.kind == "texture"][:6]
    session.swaps.begin_with_own(pictures, lambda _: None)
    hands.settle()
    session.builds.start(True)
    hands.settle()
    session.builds.package()
    hands.settle()
    assert {"Building", "Packaging", "Beginning with the game's own"} <= set(unasked)
    most = LONG_S * max(slow, pace())
    assert not {title: gap for title, gap in unasked.items() if gap > most}


def test_what_is_stopped_says_so_until_it_has(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    jobs, line = hands.window.jobs, hands.window.line
    go_on, stopped = threading.Event(), list[object]()
    job = jobs.start("Counting the waves", lambda _: go_on.wait(10), stopped.append)
    hands.until(lambda: line.shown_text == "Counting the waves", "it is told")
    job.cancel()
    hands.until(lambda: line.shown_text == "Stopping: Counting the waves", "it is told that it stops")
    job.report(0.5, "Counting on")
    assert job.text == "Stopping: Counting the waves"
    go_on.set()
    hands.until(lambda: "waves" not in line.shown_text, "it has stopped")
    assert not stopped
