"""A field of a description is given another meaning, and everything else in its text stays as it was typed."""

from __future__ import annotations

import tomllib

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.containers import find_layout, known_layouts, layout_text, parse_layout
from furnel.containers.telling import told_fields, with_role
from furnel.errors import FurnelError

TEXT = """# found in an attic
furnel-layout = 1
name = "k"
title = "k"
files = ["*.k"]

[start]
fields = [
  { name = "magic", type = "text", length = 4, is = "KITE" },  # always
  { name = "many", type = "u32", holds = "entry count" },
  { name = "rest", type = "u32" },
]

[index]
fields = [ { name = "path", type = "text", length = 20, holds = "path" },
  { name = "a", type = "u32", holds = "offset" }, { name = "b", type = "u32" } ]
"""


def fields(text: str) -> dict[tuple[str, str], str | None]:
    return {(one.group, one.part.name): one.part.holds for one in told_fields(parse_layout(text, "k"))}


def test_a_meaning_moves_and_nothing_else_does() -> None:
    moved = with_role(TEXT, "entry", "b", "size")
    assert fields(moved) == {**fields(TEXT), ("entry", "b"): "size"}
    assert moved.replace(', holds = "size"}', " }") == TEXT  # comments and spaces, too
    given_up = with_role(with_role(moved, "start", "rest", "entry count"), "start", "magic", "")
    assert fields(given_up)["start", "rest"] == "entry count" and fields(given_up)["start", "many"] is None
    assert "# always" in given_up and "# found in an attic" in given_up


@pytest.mark.parametrize("name", known_layouts())
@given(data=st.data())
def test_any_field_of_what_ships_takes_what_it_may_hold(name: str, data: st.DataObject) -> None:
    text, told = layout_text(name), data.draw(st.sampled_from(told_fields(find_layout(name))))
    role = data.draw(st.sampled_from(["", *told.roles]))
    out = with_role(text, told.group, told.part.name, role)
    before, after = tomllib.loads(text), tomllib.loads(out)

    def bare(part: object) -> object:
        if isinstance(part, dict):
            return {key: bare(value) for key, value in part.items() if key != "holds"}
        return [bare(one) for one in part] if isinstance(part, list) else part

    assert bare(before) == bare(after)
    if role:
        assert f'holds = "{role}"' in out


@pytest.mark.parametrize(("text", "group"), [(TEXT, "footer"), (TEXT + "[", "entry"), ("index = 4", "entry")])
def test_a_field_that_is_not_there_is_refused(text: str, group: str) -> None:
    with pytest.raises(FurnelError, match="no such field"):
        with_role(text, group, "b", "size")
