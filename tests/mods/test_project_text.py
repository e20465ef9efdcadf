"""The project's text: what did not change is not written anew, whatever a person made of it."""

from __future__ import annotations

import tomllib
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.media import Encode
from furnel.mods.project import (
    About,
    EventUse,
    GameRef,
    Project,
    StepUse,
    Swap,
    load_project,
    save_project,
)

TEXT = '''# a mod of mine
furnel = 1

[mod] # what it is
id = "evening-post"
name = 'Evening Post'
version = "0.3"

[game]
profile = "tarnlight"
folder = "../game"


# the hull that everybody sees
[[swap]]
original = "art/hulls/hull_otter.dds"   # the first one
source = "sources/dusk.png"
credit = """Mira, \\
[[swap]] and others"""
steps = [ {do = "size", width = 512, height = 512} ]

[[swap]]
source = 'bell.wav'
original = "bank0/000.wav"
[swap.encode]
file = "WAV"
format = "PCM 16"

# softer at night
[[event]]
name = "bell"
volume = 0.50
'''


@pytest.fixture
def file(tmp_path: Path) -> Path:
    path = tmp_path / "furnel.toml"
    path.write_text(TEXT, "utf-8")
    return path


def test_saving_what_was_loaded_changes_no_byte_but_blank_lines(file: Path) -> None:
    project = load_project(file)
    assert project.swaps[0].credit == "Mira, [[swap]] and others"
    save_project(file, project)
    after = file.read_text("utf-8")
    assert [line for line in after.splitlines() if line] == [line for line in TEXT.splitlines() if line]
    save_project(file, project)
    assert file.read_text("utf-8") == after


def test_a_change_rewrites_one_table_and_keeps_what_stands_above_it(file: Path) -> None:
    project = load_project(file)
    first = project.swaps[0].model_copy(update={"credit": "nobody"})
    save_project(file, project.with_swap(first))
    text = file.read_text("utf-8")
    assert load_project(file).swaps == (first, project.swaps[1])
    assert "# the hull that everybody sees\n[[swap]]" in text and "source = 'bell.wav'" in text
    assert "volume = 0.50" in text and "[mod] # what it is" in text
    save_project(file, load_project(file).without_swap("bank0/000.wav"))
    assert "bell.wav" not in file.read_text("utf-8") and "# softer at night\n[[event]]" in file.read_text(
        "utf-8"
    )


def test_a_file_that_was_broken_meanwhile_is_written_whole(file: Path) -> None:
    project = load_project(file)
    file.write_text(TEXT.replace("[game]", "[game"), "utf-8")
    save_project(file, project)
    assert load_project(file) == project


names = st.text(st.characters(codec="utf-8", exclude_categories=["Cc", "Cs"]), min_size=1, max_size=12)
swaps = st.builds(
    Swap,
    original=st.integers(0, 5).map(lambda number: f"art/{number}.dds"),
    source=names.map(lambda name: f"sources/{name}"),
    credit=names | st.just(""),
    steps=st.lists(
        st.sampled_from(
            [StepUse(do="opaque"), StepUse(do="grey", on=False), StepUse(do="spread", auto=True)]
        ),
        max_size=3,
    ).map(tuple),
    encode=st.none() | st.just(Encode(file="DDS", format="BC1", levels=3, notes={"header": "legacy"})),
    insist=st.sampled_from([(), ("size",), ("format", "levels")]),
)


@given(
    st.lists(st.lists(swaps, max_size=5, unique_by=lambda swap: swap.original), min_size=1, max_size=4), names
)
def test_any_project_comes_back_and_only_what_differs_is_new(
    tmp_path_factory: pytest.TempPathFactory, states: list[list[Swap]], name: str
) -> None:
    file = tmp_path_factory.mktemp("any") / "furnel.toml"
    event = EventUse(name="bell", sounds=("bank0/000.wav",), volume=0.25)
    before: dict[str, tuple[Swap, str]] = {}
    for state in states:
        project = Project(
            mod=About(id="a", name=name),
            game=GameRef(profile="tarnlight", folder="g"),
            swaps=tuple(state),
            events=(event,),
        )
        save_project(file, project)
        assert load_project(file) == project
        texts = [
            "[[swap]]" + part
            for part in file.read_text("utf-8").partition("[[event]]")[0].split("[[swap]]")[1:]
        ]
        now = {tomllib.loads(text)["swap"][0]["original"]: text.strip() for text in texts}
        for swap in state:
            if swap.original in before and before[swap.original][0] == swap:
                assert now[swap.original] == before[swap.original][1]
        before = {swap.original: (swap, now[swap.original]) for swap in state}
