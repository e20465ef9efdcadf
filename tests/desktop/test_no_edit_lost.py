"""Any sequence of edits and jobs, jobs ending at any time: what a person edited last is what the mod has."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import (
    RuleBasedStateMachine,
    invariant,
    precondition,
    rule,
    run_state_machine_as_test,
)
from PyQt6.QtWidgets import QApplication

from furnel.desktop.jobs import Job, JobRunner
from furnel.desktop.session import Session
from furnel.errors import FurnelError
from furnel.mods.project import Project, StepUse, load_project
from furnel.mods.workspace import create_project, open_workspace

ENSIGN, BELL = "ensigns/small/kettle.tga", "bank0/012.wav"


class HeldJobs(JobRunner):
    """Jobs that end when the test says so, in any order; what must be written is written at once."""

    def __init__(self) -> None:
        super().__init__()
        self.held: list[tuple[Job, Callable[..., Any], Callable[[Any], None]]] = []

    def start(self, title: str, work: Any, done: Any, failed: Any = None, **options: Any) -> Job:
        job = Job(self, 0, title, False)
        if options.get("lane") == "write":
            done(work(job))
        elif title.startswith(("Fitting", "Swapping", "Following")) or title == "go":
            self.held = [one for one in self.held if not options.get("key") or one[0].title != title]
            self.held.append((job, work, done))
        return job

    def end(self, place: int) -> None:
        job, work, done = self.held.pop(place % len(self.held))
        try:
            found = work(job)
        except FurnelError:
            return
        done(found)


@pytest.fixture
def begun(game: Path, sources: Path, tmp_path: Path) -> Iterator[tuple[Path, list[Path]]]:
    space = open_workspace(create_project(tmp_path / "mod", "Evening Post", game))
    project = space.project
    for original, source in ((ENSIGN, "ensign_small.png"), (BELL, "gull_loud.wav")):
        project = project.with_swap(space.new_swap(original, sources / source))
    space.save(project)
    space.close()
    yield tmp_path / "mod" / "furnel.toml", [sources / "ensign_small.png", sources / "ensign_large.png"]


def test_no_edit_is_lost(application: QApplication, begun: tuple[Path, list[Path]]) -> None:
    file, pictures = begun
    start = load_project(file)

    class Story(RuleBasedStateMachine):
        def __init__(self) -> None:
            super().__init__()
            start_text = file.read_text() if load_project(file) == start else None
            if start_text is None:
                from furnel.mods.project import save_project

                save_project(file, start)
            self.jobs = HeldJobs()
            self.session = Session(self.jobs)
            space = open_workspace(file)
            from furnel.desktop.session import _Opened
            from furnel.mods.past import Past

            self.session._take(space.catalogue, _Opened(space, None, Past(), []))
            self.jobs.held.clear()
            self.credits: dict[
                int, str
            ] = {}  # what a swap's credit was when another source was asked for, by the job
            self.wanted: list[dict[str, Any]] = [{}]  # what a person edited, by place in the history

        @property
        def project(self) -> Project:
            project = self.session.project
            assert project is not None
            return project

        def noted(self, **edited: Any) -> None:
            past = self.session.past
            del self.wanted[past.place :]
            last = self.wanted[-1]
            self.wanted += [last] * (past.place - len(self.wanted)) + [{**last, **edited}]

        @rule(original=st.sampled_from([ENSIGN, BELL]), words=st.text("abc", min_size=1, max_size=3))
        def credit(self, original: str, words: str) -> None:
            swap = self.session.swap(original)
            if swap is not None and swap.credit != words:
                self.session.swaps.set_swap(swap.model_copy(update={"credit": words}), "Credit")
                self.noted(**{f"credit {original}": words})

        @rule(turn=st.integers(1, 90))
        def step(self, turn: int) -> None:
            swap = self.session.swap(ENSIGN)
            if swap is not None:
                use = StepUse(do="hue", values={"turn": float(turn)})
                others = tuple(one for one in swap.steps if one.do != "hue")
                if use not in swap.steps:
                    self.session.swaps.set_swap(
                        swap.model_copy(update={"steps": (*others, use)}), "Turn the hue"
                    )
                    self.noted(hue=use)

        @rule(name=st.sampled_from(["One", "Two", "Three"]))
        def rename(self, name: str) -> None:
            if self.project.mod.name != name:
                mod = self.project.mod.model_copy(update={"name": name})
                self.session.edit(self.project.model_copy(update={"mod": mod}), "Rename")
                self.noted(name=name)

        @rule(names=st.lists(st.sampled_from([ENSIGN, BELL]), min_size=1, max_size=2, unique=True))
        def fit(self, names: list[str]) -> None:
            self.session.swaps.fit_all(names)

        @rule(picture=st.sampled_from(pictures))
        def swap_with(self, picture: Path) -> None:
            swap = self.session.swap(ENSIGN)
            self.session.swaps.swap_with(ENSIGN, picture)
            self.credits[id(self.jobs.held[-1][0])] = swap.credit if swap is not None else ""

        @precondition(lambda self: self.jobs.held)
        @rule(place=st.integers(0, 9))
        def a_job_ends(self, place: int) -> None:
            before, swap = self.session.past.last, self.session.swap(ENSIGN)
            credited = self.credits.get(id(self.jobs.held[place % len(self.jobs.held)][0]))
            self.jobs.end(place)
            if self.session.past.last is before:
                return
            now = self.session.swap(ENSIGN)
            if swap is not None and now is not None and now.source != swap.source and credited == swap.credit:
                self.noted(
                    **{f"credit {ENSIGN}": ""}
                )  # it was the other file's, and nobody said more meanwhile
            else:
                self.noted()

        @rule()
        def undo(self) -> None:
            self.session.undo()

        @rule()
        def redo(self) -> None:
            self.session.redo()

        @invariant()
        def what_was_edited_is_there(self) -> None:
            wanted = self.wanted[min(self.session.past.place, len(self.wanted) - 1)]
            for key, value in wanted.items():
                if key == "name":
                    assert self.project.mod.name == value
                elif key == "hue":
                    swap = self.session.swap(ENSIGN)
                    assert swap is not None and value in swap.steps
                else:
                    swap = self.session.swap(key.partition(" ")[2])
                    assert swap is not None and swap.credit == value
            assert load_project(file) == self.project

        def teardown(self) -> None:
            self.session.close()
            self.jobs.stop()

    run_state_machine_as_test(
        Story, settings=settings(max_examples=12, stateful_step_count=25, deadline=None)
    )
