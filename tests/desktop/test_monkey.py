"""A seeded monkey on the window: nothing unforeseen, nothing left over, nothing lost, no turn that freezes it."""

from __future__ import annotations

from pathlib import Path

import pytest
from demo.hands import Hands
from demo.monkey import Monkey, held_now, tell

from furnel.mods.project import load_project


@pytest.mark.parametrize("seed", [1])
def test_a_monkey_finds_nothing(hands: Hands, mod: Path, sources: Path, seed: int) -> None:
    hands.open(mod)
    files = [*sorted(sources.iterdir()), sources, sources / "gone.png", mod]
    monkey = Monkey(hands, files, seed)
    monkey.play(10)  # by then every page was made
    before = held_now()
    found = monkey.play(25)
    after = held_now()
    assert (
        load_project(mod) == hands.window.session.project
    )  # the fixture looks for errors in the log and for threads
    assert after.widgets < before.widgets + 300
    assert after.threads <= before.threads + 6
    assert after.descriptors < before.descriptors + 20
    assert after.mb < before.mb + 250
    assert found.percentile(0.5) < 0.02 and found.percentile(0.95) < 0.2, tell(found)
    assert len(found.turns) > 160
