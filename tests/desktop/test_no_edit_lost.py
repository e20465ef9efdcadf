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
from furnel.desktop.swapping import Swaps
from furnel.errors import FurnelError
from furnel.mods.definitions import with_changes
from furnel.mods.project import Project, StepUse, Swap, load_project
from furnel.mods.workspace import create_project, open_workspace
from furnel.texts import Change

ENSIGN, BELL = "ensigns/small/kettle.tga", "bank0/012.wav"


class HeldJobs(JobRunner):
    """Jobs that end when the test says so, in any order; what must be written is written at once."""

    def __init__(self) -> None:
        super().__init__()
        self.held: list[tuple[Job, Callable[..., Any], Callable[[Any], None]]] = []

    def start(self, title: str, work: Any, done: Any, failed: Any = None, **options: Any) -> Job:
        job = Job(self, 0, title, False)
        if options.get("lane") in ("write", "save", "open"):
            done(work(job))
        elif options.get("kept"):  # it changes the mod
            again = [one for one in self.held if options.get("key") and one[0].title == title]
            self.held = [one for one in self.held if one not in again]
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


# every job that changes a mod, with another mod opened while it works

BOATS, HULL, WALK = "rules/boats.toml", "art/hulls/hull_otter.dds", "cast/otter_walk.png"


def _nothing(*_: object) -> None:
    pass


# what begins each, and a word that its edit is noted under
JOBS: dict[str, Callable[[Swaps, Path], object]] = {
    "swap_with": lambda swaps, sources: swaps.swap_with(ENSIGN, sources / "ensign_large.png"),
    "fill_event": lambda swaps, sources: swaps.fill_event(
        "bell_far", [sources / "church_bell.mp3", sources / "gull_loud.wav"], _nothing
    ),
    "swap_with_frames": lambda swaps, sources: swaps.swap_with_frames(
        WALK, [sources / "ensign_small.png", sources / "ensign_large.png"]
    ),
    "settle": lambda swaps, _: swaps.settle(_boats(swaps)),
    "change_values": lambda swaps, _: swaps.change_values(
        BOATS, [Change(do="set", at="heron/speed", to=3.5)], "heron"
    ),
    "take_games": lambda swaps, _: swaps.take_games(BOATS, "otter/speed"),
    "change_text": lambda swaps, _: swaps.change_text(BOATS, _text(swaps), _nothing),
    "open_definition": lambda swaps, _: swaps.open_definition("rules/playlist.json", _nothing),
    "swap_kin": lambda swaps, _: swaps.swap_kin(ENSIGN, ["ensigns/large/kettle.tga"]),
    "swap_many": lambda swaps, sources: swaps.swap_many([(HULL, sources / "dusk_paint.jpg")]),
    "begin_with_own": lambda swaps, _: swaps.begin_with_own([HULL], _nothing),
    "gather": lambda swaps, _: swaps.gather(),
    "fit_all": lambda swaps, _: swaps.fit_all([ENSIGN]),
}
# those that only begin others, change nothing, or are done at once
OTHERS = {
    "change", "set_swap", "remove_swap", "keep_picture", "copy_steps", "paste_steps", "draw_strip", "swap_with_own",
    "follow", "take_strip",  # the same way as `settle` and `change_values`; they need a game of their own
}  # fmt: skip


def _boats(swaps: Swaps) -> Swap:
    project = swaps._session.project
    assert project is not None
    swap = project.swap_for(BOATS)
    assert swap is not None
    return swap


def _text(swaps: Swaps) -> str:
    space = swaps._session.space
    assert space is not None
    return space.demands.texts.document(BOATS).text.replace("speed = 3.8", "speed = 3.9")


def test_every_job_is_known_here() -> None:
    public = {name for name, part in vars(Swaps).items() if callable(part) and not name.startswith("_")}
    assert public == JOBS.keys() | OTHERS


@pytest.fixture
def two(begun: tuple[Path, list[Path]], game: Path, sources: Path, tmp_path: Path) -> tuple[Path, Path]:
    file = begun[0]
    space = open_workspace(file)
    project = with_changes(space, BOATS, [Change(do="set", at="otter/speed", to=4.5)])
    space.save(project.with_swap(space.new_swap(WALK, sources / "otter_teal.png")))
    space.close()
    return file, create_project(tmp_path / "other", "Morning Post", game)


@pytest.mark.parametrize("name", JOBS)
def test_a_job_ends_in_the_mod_that_it_was_begun_in(
    application: QApplication, two: tuple[Path, Path], sources: Path, name: str
) -> None:
    file, other = two
    jobs = HeldJobs()
    session = Session(jobs)
    told: list[str] = []
    session.told.connect(lambda notice: told.append(notice.text))
    try:
        session.open_mod(file)
        start = load_project(file)
        JOBS[name](session.swaps, sources)
        assert len(jobs.held) == 1, "it is a job that changes the mod"
        swap = session.swap(BELL)
        assert swap is not None
        session.swaps.set_swap(swap.model_copy(update={"credit": "meanwhile"}), "Credit")
        session.open_mod(other)
        untouched = other.read_bytes()
        jobs.end(0)
        assert other.read_bytes() == untouched and session.project == load_project(other)
        after = load_project(file)
        kept = after.swap_for(BELL)
        assert kept is not None and kept.credit == "meanwhile"
        edited = start.with_swap(kept)
        assert after != edited or name in ("settle",), (
            "what the job made is there, though another mod is open"
        )
        assert after == edited or any("Evening Post" in text for text in told)
        session.open_mod(file)
        assert session.project == after
    finally:
        session.close()
        jobs.stop()


def test_a_job_ends_in_its_mod_opened_again(
    application: QApplication, two: tuple[Path, Path], sources: Path
) -> None:
    file, other = two
    jobs = HeldJobs()
    session = Session(jobs)
    try:
        session.open_mod(file)
        session.swaps.change_values(BOATS, [Change(do="set", at="heron/speed", to=3.5)], "one")
        session.swaps.change_values(BOATS, [Change(do="set", at="otter/speed", to=4.9)], "two")
        session.swaps.change_values(BOATS, [Change(do="set", at="otter/speed", to=4.7)], "three")
        session.open_mod(other)
        session.open_mod(file)
        while jobs.held:  # what contradicts is done once more on what is there then
            jobs.end(0)
        swap = session.swap(BOATS)
        assert swap is not None and {one.at: one.to for one in swap.changes} == {
            "heron/speed": 3.5, "otter/speed": 4.7,
        }  # fmt: skip
        assert load_project(file) == session.project
    finally:
        session.close()
        jobs.stop()
