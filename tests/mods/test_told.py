"""An edit in words: nothing that it changed goes unsaid, and going back and forth in a history ends where it should."""

from __future__ import annotations

from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.mods.edit import Edit
from furnel.mods.past import Past
from furnel.mods.project import About, EventUse, GameRef, Project, StepUse, Swap
from furnel.mods.told import told
from furnel.texts import Change

HULL, BOATS = "art/hull.dds", "rules/boats.toml"
START = Project(
    mod=About(id="m", name="M"),
    game=GameRef(profile="tarnlight", folder="../game"),
    swaps=(Swap(original=HULL, source="a.png"),),
)


def _with(**what: object) -> Project:
    return START.with_swap(START.swaps[0].model_copy(update=what))


@pytest.mark.parametrize(
    ("after", "lines"),
    [
        (_with(source="folder/b.png"), [(HULL, "source: a.png → folder/b.png")]),
        (_with(steps=(StepUse(do="size"),)), [(HULL, "steps: none → Bring to size")]),
        (_with(credit="Tove"), [(HULL, "credit: “” → “Tove”")]),
        (_with(insist=("size",)), [(HULL, "kept as it is: size")]),
        (START.without_swap(HULL), [(HULL, "no longer swapped")]),
        (START.with_swap(Swap(original="b.png", source="c.png")), [("b.png", "swapped for c.png")]),
        (
            START.with_swap(Swap(original=BOATS, changes=(Change(do="set", at="otter/speed", to=3.5),))),
            [(BOATS, "otter/speed: 3.5")],
        ),
        (START.model_copy(update={"mod": About(id="m", name="N")}), [("", "name: “M” → “N”")]),
        (
            START.model_copy(update={"game": GameRef(profile="tarnlight", folder="/g")}),
            [("", "the game: ../game → /g")],
        ),
        (START.model_copy(update={"events": (EventUse(name="bell"),)}), [("", "event bell: other settings")]),
    ],
)
def test_every_kind_of_change_is_said(after: Project, lines: list[tuple[str, str]]) -> None:
    assert told(Edit.between("x", START, after)) == lines


def test_values_that_are_the_games_again_are_said() -> None:
    many = tuple(Change(do="set", at=f"otter/v{n}", to=n) for n in range(30))
    before = START.with_swap(Swap(original=BOATS, changes=many))
    after = START.with_swap(Swap(original=BOATS, changes=many[:1]))
    lines = [line for _, line in told(Edit.between("x", before, after))]
    assert lines[0] == "otter/v1: the game's own again" and lines[-1] == "and 17 more values"


@given(st.lists(st.sampled_from("abcd"), min_size=1, max_size=9), st.lists(st.integers(0, 9), max_size=6))
def test_any_place_of_a_history_is_reached_from_any_other(names: list[str], visits: list[int]) -> None:
    past: Past[Edit] = Past()
    states = [START]
    for number, name in enumerate(names):
        after = states[-1].with_swap(Swap(original=f"art/{name}.dds", source=f"{number}.png"))
        past.push(Edit.between(name, states[-1], after))
        states.append(after)
        assert told(past.changes[-1])
    now = states[-1]
    for place in (min(visit, len(names)) for visit in visits):
        for change in past.between(place):
            moved = change.onto(now, place > past.place)
            assert moved is not None
            now = moved
        past.place = place
        assert now == states[place]
        assert Path(now.swaps[0].source).suffix == ".png"
