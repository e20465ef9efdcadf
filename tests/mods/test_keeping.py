"""Nothing that was edited is lost: jobs give changes, Fit all keeps what was made by hand, the history outlives a kill."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
from itertools import pairwise
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.cli import main
from furnel.mods.build import build, examine_all, last_build, stale
from furnel.mods.edit import Edit
from furnel.mods.fit import touched
from furnel.mods.history import history_file, note_edit, note_place, read_history
from furnel.mods.past import Past
from furnel.mods.project import About, EventUse, GameRef, Project, StepUse, Swap, load_project
from furnel.mods.steps import STEP_TYPES
from furnel.mods.workspace import Workspace

HULL, BELL, SLATE = "art/hulls/hull_otter.dds", "bank0/000.wav", "art/rock/slate.dds"

names = st.sampled_from(["a/one.dds", "b/two.wav", "c/three.png"])
steps = st.builds(lambda gain: (StepUse(do="gain", values={"gain": gain}),), st.integers(-3, 3))
swaps = st.builds(
    Swap, original=names, source=st.sampled_from(["x.png", "y.png"]), credit=st.sampled_from(["", "me", "you"]),
    steps=st.one_of(st.just(()), steps), insist=st.sampled_from([(), ("size",)]),
)  # fmt: skip
projects = st.builds(
    lambda some, name, uses: Project(
        mod=About(id="m", name=name), game=GameRef(profile="p", folder="g"),
        swaps=tuple({swap.original: swap for swap in some}.values()),
        events=tuple(use for _, use in sorted({use.name: use for use in uses}.items())),
    ),
    st.lists(swaps, max_size=4), st.sampled_from(["One", "Two"]),
    st.lists(st.builds(EventUse, name=st.sampled_from(["bell", "gull"]), volume=st.sampled_from([0.5, 1.0])), max_size=2),
)  # fmt: skip


@given(projects, projects, projects)
def test_a_job_changes_only_what_it_changed(before: Project, after: Project, now: Project) -> None:
    edit = Edit.between("e", before, after)
    found = edit.apply(now).project
    assert edit.apply(before).project.swap_for("a/one.dds") == after.swap_for("a/one.dds")
    assert Edit.between("e", before, before).apply(now).project == now
    assert edit.onto(before) == after and edit.inverse().onto(after) == before
    for name in ("a/one.dds", "b/two.wav", "c/three.png"):
        old, edited, made = (project.swap_for(name) for project in (before, now, found))
        if edited != old and edited is not None and old is not None:  # edited by hand meanwhile
            assert made is not None
            for field in Swap.model_fields:
                if getattr(edited, field) != getattr(old, field):
                    assert getattr(made, field) == getattr(edited, field)
        if edited is None and old is not None:  # removed by hand meanwhile
            assert made is None


@given(st.lists(projects, min_size=2, max_size=6))
def test_every_edit_is_taken_back_and_done_again(states: list[Project]) -> None:
    edits = [Edit.between("e", one, two) for one, two in pairwise(states)]
    project = states[0]
    for edit, wanted in zip(edits, states[1:], strict=True):
        moved = edit.onto(project)
        assert moved == wanted
        project = moved
    for edit, wanted in zip(reversed(edits), reversed(states[:-1]), strict=True):
        back = edit.onto(project, forward=False)
        assert back == wanted
        project = back


@given(st.lists(projects, min_size=2, max_size=5, unique_by=repr), st.data())
def test_the_history_on_disk_is_found_again_wherever_the_program_died(
    tmp_path_factory: pytest.TempPathFactory, states: list[Project], data: st.DataObject
) -> None:
    file = tmp_path_factory.mktemp("history") / "h.jsonl"
    past: Past[Edit] = Past()
    for number, (one, two) in enumerate(pairwise(states)):
        past.push(Edit.between(f"edit {number}", one, two))
        note_edit(file, past.changes[-1])
    at = data.draw(st.integers(0, len(states) - 1))
    note_place(file, at)
    with file.open("a") as stream:
        stream.write('{"edit": {"text": "cut o')
    lagging = data.draw(
        st.sampled_from([place for place in (at - 1, at, at + 1) if 0 <= place < len(states)])
    )
    found = read_history(file, states[lagging])  # the project's file was written, or not any more
    assert [edit.text for edit in found.changes] == [edit.text for edit in past.changes]
    assert found.last is None or found.last.onto(states[lagging], forward=False) is not None
    assert found.next is None or found.next.onto(states[lagging]) is not None
    stranger = states[0].model_copy(update={"mod": About(id="other", name="Other")})
    changed = [edit for edit in past.changes if edit.mod]
    assert not changed or len(changed) < len(past.changes) or not read_history(file, stranger).changes


def test_a_kill_after_an_edit_leaves_it_and_its_undo(space: Workspace) -> None:
    code = f"""
import os, signal
from pathlib import Path
from furnel.mods.edit import Edit
from furnel.mods.history import history_file, note_edit
from furnel.mods.project import load_project, save_project
file = Path({str(space.file)!r})
project = load_project(file)
named = project.model_copy(update={{"mod": project.mod.model_copy(update={{"name": "Later Post"}})}})
note_edit(history_file(file), Edit.between("Change the name", project, named))
save_project(file, named)
os.kill(os.getpid(), signal.SIGKILL)
"""
    assert (
        subprocess.run([sys.executable, "-c", code], env=os.environ, check=False).returncode
        == -signal.SIGKILL
    )
    project = load_project(space.file)
    assert project.mod.name == "Later Post"
    last = read_history(history_file(space.file), project).last
    assert last is not None and last.text == "Change the name"
    assert last.onto(project, forward=False) == space.project


# Fit all and what was made by hand


def test_fit_all_changes_nothing_where_all_fits(space: Workspace, sources: Path) -> None:
    placed = StepUse(do="place", values={"left": 150, "top": 90, "width": 200, "height": 150})
    swap = space.fitted(space.new_swap("art/hulls/hull_heron.dds", sources / "phone_photo.jpg"))
    swap = swap.model_copy(update={"steps": (placed,)})
    assert space.examine(swap).state == "fits"
    found = space.refitted(swap)
    assert found.swap == swap and not found.changed and found.kept == 1
    for original, source in (
        (BELL, "church_bell.mp3"),
        (HULL, "dusk_paint.jpg"),
        ("cast/otter_walk.png", "otter_teal.png"),
    ):
        fitted = space.fitted(space.new_swap(original, sources / source))
        assert space.fitted(fitted) == fitted


def test_fit_all_adds_behind_what_was_made_by_hand_and_says_so(space: Workspace, sources: Path) -> None:
    hand = (StepUse(do="brightness", values={"stops": 0.4}), StepUse(do="hue", values={"turn": 20.0}))
    swap = space.new_swap(HULL, sources / "dusk_paint.jpg").model_copy(update={"steps": hand})
    found = space.refitted(swap)
    assert found.swap.steps[:2] == hand and found.kept == 2 and found.added == len(found.swap.steps) - 2
    assert found.sentence().startswith("kept 2, added ")
    assert space.examine(found.swap).state != "breaks"
    again = space.refitted(found.swap)
    assert again.swap == found.swap


def test_fit_all_adjusts_a_size_that_is_wrong_and_keeps_how(space: Workspace, sources: Path) -> None:
    inside = StepUse(do="size", values={"width": 100, "height": 60, "how": "inside"})
    swap = space.new_swap(HULL, sources / "dusk_paint.jpg").model_copy(update={"steps": (inside,)})
    found = space.refitted(swap)
    size = found.swap.steps[0]
    assert (size.values["width"], size.values["how"], found.adjusted) == (512, "inside", 1)


def test_a_step_given_on_the_command_line_is_not_overruled(
    space: Workspace, sources: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    space.close()
    tune = "music/slow_water.ogg"
    step = "bars:tempo=96,first=0.5,meter=4,bars=8"
    main(["mod", "add", str(space.folder), tune, str(sources / "night_song.wav"), "--step", step])
    capsys.readouterr()
    swap = load_project(space.file).swap_for(tune)
    assert swap is not None
    assert swap.steps[0].do == "bars" and swap.steps[0].values["bars"] == 8 and not swap.steps[0].auto
    assert [use.do for use in swap.steps].count("bars") == 1


def test_what_a_person_changes_is_the_persons(space: Workspace, sources: Path) -> None:
    swap = space.fitted(space.new_swap(HULL, sources / "dusk_paint.jpg"))
    assert all(use.auto for use in swap.steps)
    first = swap.steps[0]
    changed = first.model_copy(update={"values": {**first.values, "how": "inside"}})
    kept = touched(swap.model_copy(update={"steps": (changed, *swap.steps[1:])}), swap)
    assert [use.auto for use in kept.steps] == [False, *(True for _ in swap.steps[1:])]
    assert space.fitted(kept).steps[0].values["how"] == "inside"
    assert touched(swap, swap) == swap
    saved = space.save(space.project.with_swap(kept))
    assert load_project(saved.file) == saved.project
    assert not {"do", "on", "auto"} & {part.name for step in STEP_TYPES.values() for part in step.parameters}


# what a build captured


def test_a_build_is_judged_by_what_it_captured(fitted: Workspace) -> None:
    captured = fitted
    about = fitted.project.mod.model_copy(update={"name": "Morning Post"})
    renamed = fitted.save(fitted.project.model_copy(update={"mod": about}))  # while the build is under way
    built = build(captured)
    assert 'name = "Evening Post"' in (built.folder / "mod.toml").read_text()
    assert stale(renamed, built, examine_all(renamed)) == ["mod.toml"]
    other = renamed.with_project(
        renamed.project.model_copy(update={"mod": about.model_copy(update={"id": "morning"})})
    )
    assert "mod.toml" in stale(other, built, examine_all(other))


def test_a_build_that_was_changed_by_another_hand_is_no_build(fitted: Workspace) -> None:
    build(fitted)
    assert last_build(fitted) is not None
    (fitted.build_folder / "bank0/000.wav").write_bytes(b"RIFF")
    assert last_build(fitted) is None
    assert build(fitted).folder == fitted.build_folder and last_build(fitted) is not None
    (fitted.build_folder / "note.txt").write_text("mine")
    assert last_build(fitted) is None


def test_a_second_build_makes_only_what_changed(fitted: Workspace, monkeypatch: pytest.MonkeyPatch) -> None:
    import furnel.mods.build as module
    from furnel.atomic import write_bytes as real
    from furnel.media import spec_of

    build(fitted)
    written: list[str] = []
    monkeypatch.setattr(
        module, "write_bytes", lambda path, data: (written.append(path.name), real(path, data))
    )
    decoded: list[str] = []
    monkeypatch.setattr(
        module, "spec_of", lambda data, path, role: (decoded.append(path), spec_of(data, path, role))[1]
    )
    swap = fitted.project.swap_for(BELL)
    assert swap is not None
    louder = (*swap.steps, StepUse(do="gain", values={"gain": -1.0}))
    fitted = fitted.save(fitted.project.with_swap(swap.model_copy(update={"steps": louder})))
    build(fitted, anyway=True)
    assert written == ["000.wav"] and decoded == [BELL]
    assert last_build(fitted) is not None
