"""How the window answers: a seeded monkey on the demo mod for ten minutes, with the slow turns named by where they were; then
ten minutes in which it changes between two mods and is killed at the end of each."""

from __future__ import annotations

import hashlib
import json
import os
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from demo.hands import Hands

    from furnel.mods.edit import Applied, Edit
    from furnel.mods.project import Project

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
    edits = missing = unknown = 0
    longest, rounds = 0.0, max(round(seconds / _ROUND_S), 1)
    mods = [folder / name / "furnel.toml" for name in ("northern-lights", "herring-day")]
    for number in range(rounds):
        accepted, owed = {str(mod): [(0.0, _mark(mod))] for mod in mods}, dict[str, str]()
        said = folder / f"said{number}.jsonl"
        words = [sys.executable, "-m", "benchmarks.window", str(folder), f"{number + 1}", str(said)]
        with subprocess.Popen(words) as child:
            while not said.is_file() and child.poll() is None:
                time.sleep(0.05)
            time.sleep(min(_ROUND_S, seconds / rounds))
            child.kill()
            ended = time.monotonic()
        subprocess.run(["pkill", "-KILL", "-f", str(folder)], check=False)  # a game that it started
        for line in said.read_text("ascii").splitlines():
            told = json.loads(line)
            states = accepted.setdefault(told["mod"], [])
            if told["opened"] and states and told["mark"] != states[-1][1]:
                owed[told["mod"]] = states[-1][1]  # to be seen again as soon as the file was looked at
            elif owed.get(told["mod"]) == told["mark"]:
                del owed[told["mod"]]
            states.append((told["at"], told["mark"]))
        missing += len(owed)
        for mod, states in accepted.items():
            edits += len(states) - 1
            there = _mark(Path(mod))
            last = max((place for place, (_, mark) in enumerate(states) if mark == there), default=None)
            if last is None:
                unknown += 1
                continue
            late = [ended - at for at, _ in states[last + 1 :]]
            longest = max(longest, *late, 0.0)
            missing += sum(one > _SAVED_S for one in late)
    print(
        f"killed {rounds} times in work on two mods: {edits} states accepted, {missing} missing, "
        f"{unknown} that nobody accepted, the oldest that was not on disk {longest:.2f} s old"
    )
    return missing + unknown


def _mark(mod: Path) -> str:
    from furnel.mods.project import load_project

    return _mark_of(load_project(mod))


def _mark_of(project: Project) -> str:
    return hashlib.sha256(project.model_dump_json().encode()).hexdigest()


def _work(folder: Path, seed: int, said: Path) -> None:
    """What is killed: says of every state of a mod that the window shows which it is and when."""
    from demo.monkey import Monkey

    from furnel.mods import store

    hands, files, mods = _at_work(folder)
    session = hands.window.session

    def tell(file: Path, project: Project, opened: bool = False) -> None:
        told = {"mod": str(file), "mark": _mark_of(project), "at": time.monotonic(), "opened": opened}
        with said.open("a") as stream:
            print(json.dumps(told), file=stream)

    def say() -> None:
        if session.project is not None and session.space is not None:
            tell(session.space.file, session.project)

    commit = store.commit

    def telling(file: Path, edit: Edit, worked_out: bool = True) -> Applied:
        """A job's edit of a mod that is open no longer."""
        found = commit(file, edit, worked_out)
        tell(file, found.project)
        return found

    store.commit = telling

    def say_opened() -> None:
        if session.project is not None and session.space is not None:
            tell(session.space.file, session.project, opened=True)

    session.opened.connect(say_opened)
    session.project_changed.connect(say)
    say()
    while True:
        Monkey(hands, files, seed, mods).play(3 * _ROUND_S)


if __name__ == "__main__":
    _work(Path(sys.argv[1]), int(sys.argv[2]), Path(sys.argv[3]))
