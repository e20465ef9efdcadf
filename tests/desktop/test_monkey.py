"""A seeded monkey on the window: nothing unforeseen, nothing left over, nothing lost, no turn that freezes it."""

from __future__ import annotations

from pathlib import Path

import pytest
from demo.hands import Hands
from demo.monkey import Monkey, held_now, tell

from furnel.mods.project import load_project

_MOST_MB = 200


@pytest.fixture(autouse=True)
def own_state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """A shelf on which nothing else lies: what the monkey finds there, it opens and installs."""
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))


@pytest.mark.parametrize("seed", [1])
def test_a_monkey_finds_nothing(hands: Hands, mod: Path, sources: Path, seed: int) -> None:
    hands.open(mod)
    files = [*sorted(sources.iterdir()), sources, sources / "gone.png", mod]
    session = hands.window.session
    last = [session.project]  # it may close the mod by opening the game alone
    session.project_changed.connect(lambda: last.append(session.project or last[-1]))
    monkey = Monkey(hands, files, seed)
    for page in (
        "settings",
        "past",
        "share",
        "new-thing",
        "tunes",
        "meetings",
        "shelf",
        "go-fit",
        "go-build",
        "go-try",
    ):
        hands.window.run_command(page)  # each is made when it is first shown
        hands.settle()
    monkey.play(4)
    before = held_now()
    found = monkey.play(9)
    after = held_now()
    if after.mb >= before.mb + _MOST_MB:  # what is loaded once, as kernels are, is no leak: that goes on
        before = after
        monkey.play(10)
        after = held_now()
    assert load_project(mod) == last[-1]  # the fixture looks for errors in the log and for threads
    assert after.widgets < before.widgets + 300
    assert after.threads <= before.threads + 6
    assert after.descriptors < before.descriptors + 20
    assert after.mb < before.mb + _MOST_MB
    assert found.percentile(0.5) < 0.02 and found.percentile(0.95) < 0.2, tell(found)
    assert len(found.turns) > 60
