"""How the window answers: a seeded monkey on the demo mod for ten minutes, with the slow turns named by where they were; then
ten minutes in which it changes between two mods and is killed at the end of each."""

from __future__ import annotations

import hashlib
import json
import os
import signal
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from demo.hands import Hands

_PARTS = 5  # after each it is counted what is held
_ROUND_S, _SAVED_S = 60.0, 1.0
_KEPT: list[object] = []


def main(seconds: float = 600.0) -> None:
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from firsthour.make import make_demo

    if len(sys.argv) > 2 and sys.argv[-1].isdecimal():
        seconds = float(sys.argv[-1])
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        os.environ["FURNEL_STATE"] = str(folder / "state")
        make_demo(folder)
        killed(folder, seconds)
        _answers(folder, seconds)


def _answers(folder: Path, seconds: float) -> None:
    from demo.monkey import Found, Monkey, held_now, tell

    hands, files, _ = _at_work(folder)
    rows, found = [held_now()], Found()
    for part in range(_PARTS):
        monkey = Monkey(hands, files, seed=part + 1)
        monkey.found = found
        monkey.play(seconds / _PARTS)
        rows.append(held_now())
    print(tell(found))
    for name in ("mb", "widgets", "threads", "descriptors"):
        print(f"  {name}: " + " → ".join(f"{getattr(row, name):.0f}" for row in rows))
    hands.window.close()


def _at_work(folder: Path) -> tuple[Hands, list[Path], list[Path]]:
    """A window with the demo's mod, what is dropped on it, and the mods there are."""
    from demo.hands import Hands

    from furnel.desktop.ahead import load_ahead
    from furnel.desktop.application import make_application, make_window

    _KEPT.append(make_application())
    window = make_window()
    window.show()
    load_ahead().join()  # as a start does while the wall is looked at
    hands = Hands(window)
    mods = [folder / "northern-lights" / "furnel.toml", folder / "herring-day" / "furnel.toml"]
    hands.open(mods[0])
    sources = sorted((folder / "northern-lights" / "sources").iterdir())
    return hands, [*sources, mods[0].parent, folder / "gone.png"], mods


def killed(folder: Path, seconds: float) -> int:
    """Kill a window at the end of each minute of work on two mods; how many edits were then missing.

    What it accepted longer than a second ago has to be in the mods' files, as another process reads them.
    """
    edits = missing = 0
    longest, rounds = 0.0, max(round(seconds / _ROUND_S), 1)
    mods = [folder / name / "furnel.toml" for name in ("northern-lights", "herring-day")]
    for number in range(rounds):
        accepted = {str(mod): [(0.0, _mark(mod))] for mod in mods}
        words = [sys.executable, "-m", "benchmarks.window", str(folder), f"{number + 1}"]
        with subprocess.Popen(words, stdout=subprocess.PIPE, text=True, start_new_session=True) as child:
            assert child.stdout is not None
            end = None
            for line in child.stdout:
                told = json.loads(line)
                end = end or time.monotonic() + min(_ROUND_S, seconds / rounds)
                if told:
                    accepted.setdefault(told["mod"], []).append((told["at"], told["mark"]))
                if time.monotonic() >= end:
                    break
            os.killpg(child.pid, signal.SIGKILL)  # with a game that it started
            ended = time.monotonic()
        for mod, states in accepted.items():
            edits += len(states) - 1
            there = _mark(Path(mod))
            last = max((place for place, (_, mark) in enumerate(states) if mark == there), default=-1)
            late = ended - states[last + 1][0] if last + 1 < len(states) else 0.0
            longest = max(longest, late)
            missing += sum(ended - at > _SAVED_S for at, _ in states[last + 1 :])
    print(
        f"killed {rounds} times in work on two mods: {edits} states accepted, {missing} missing, "
        f"the oldest that was not on disk {longest:.2f} s old"
    )
    return missing


def _mark(mod: Path) -> str:
    from furnel.mods.project import load_project

    return hashlib.sha256(load_project(mod).model_dump_json().encode()).hexdigest()


def _work(folder: Path, seed: int) -> None:
    """What is killed: says of every state of a mod that the window shows which it is and when."""
    from demo.monkey import Monkey

    hands, files, mods = _at_work(folder)
    session = hands.window.session

    def say() -> None:
        told = {}
        if session.project is not None and session.space is not None:
            mark = hashlib.sha256(session.project.model_dump_json().encode()).hexdigest()
            told = {"mod": str(session.space.file), "mark": mark, "at": time.monotonic()}
        print(json.dumps(told), flush=True)

    session.project_changed.connect(say)
    say()
    while True:
        Monkey(hands, files, seed, mods).play(3 * _ROUND_S)


if __name__ == "__main__":
    _work(Path(sys.argv[1]), int(sys.argv[2]))
