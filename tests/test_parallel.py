"""Work on all cores: in order, stopped at the first error or when asked to, and safe in a cold process."""

from __future__ import annotations

import subprocess
import sys
import threading
import time

import pytest

from furnel.errors import Cancelled, FurnelError
from furnel.parallel import cores, each
from furnel.progress import Progress


class Asked:
    """A progress that is cancelled after some reports."""

    def __init__(self, after: int = 1 << 30) -> None:
        self.told: list[str] = []
        self.after = after

    def report(self, fraction: float, text: str) -> None:
        assert 0 <= fraction <= 1
        self.told.append(text)

    def cancelled(self) -> bool:
        return len(self.told) >= self.after


def test_results_come_in_the_order_of_the_items() -> None:
    asked = Asked()

    def slow(number: int, _: Progress) -> int:
        time.sleep((number % 3) * 0.002)
        return number * number

    assert each(range(20), slow, asked, "Squaring", str) == [number * number for number in range(20)]
    assert len(asked.told) == 20 and all(text.startswith("Squaring ") for text in asked.told)
    assert each([], slow) == []


@pytest.mark.parametrize("run", range(20))
def test_the_first_error_stops_the_rest(run: int) -> None:
    begun: list[int] = []

    def fails(number: int, progress: Progress) -> None:
        begun.append(number)
        if number == 0:
            raise FurnelError("Working", why="no")
        while not progress.cancelled():
            pass
        raise Cancelled("Working")

    with pytest.raises(FurnelError, match="no"):
        each(range(500), fails)
    assert len(begun) <= cores()


def test_cancelling_begins_nothing_more() -> None:
    begun: list[int] = []
    with pytest.raises(Cancelled):
        each(range(500), lambda number, _: begun.append(number) or time.sleep(0.002), Asked(3))
    assert len(begun) < 60
    assert not [thread for thread in threading.enumerate() if thread.name.startswith("furnel-each")]


@pytest.mark.parametrize("run", range(8))
def test_a_cold_process_imports_what_its_workers_need_once(run: int) -> None:
    code = """
import numpy as np
from furnel.images.picture import Picture
from furnel.images import alpha, tones, detail
from furnel.parallel import cores, each
from furnel.sound import Clip, filtered, with_gain
from furnel.sound.beats import rhythm_of
clip = Clip(np.random.default_rng(1).standard_normal((9000, 1)).astype(np.float32), 48000)
works = [lambda: filtered(clip, "lowpass", 900.0, 24), lambda: with_gain(clip, 3.0, -1.0), lambda: rhythm_of(clip)] * 3
print(len(each(works, lambda work, _: bool(work()) or True)))
"""
    ran = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=False)
    assert ran.stdout.strip() == "9", ran.stderr[-800:]
