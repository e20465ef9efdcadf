"""A description made by pointing at bytes."""

from __future__ import annotations

from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.containers import open_container, parse_layout
from furnel.containers.marking import IS, Mark, described, with_mark
from furnel.errors import FurnelError
from tests.containers.test_guessing import rows_then_data

TEXTS = {f"rules/{name}.txt": name.encode() * 20 for name in ("otter", "kettle", "fjell")}


@pytest.mark.parametrize(
    ("form", "head", "order"), [("<II", "<I", "little"), (">IQ", ">H", "big"), ("<QQ", "<Q", "little")]
)
def test_five_things_said_make_a_layout(form: str, head: str, order: str, tmp_path: Path) -> None:
    import struct

    file = tmp_path / "a.hold"
    file.write_bytes(rows_then_data(TEXTS, form, head))
    count = struct.calcsize(head)
    name = 4 + count
    offset = name + 32
    size = offset + struct.calcsize(form[:2])
    end = name + 32 + struct.calcsize(form)
    marks: list[Mark] = []
    for start, stop, what in (
        (size, end, "size"), (0, 4, "letters"), (4, 4 + count, "count"), (name, name + 9, "name"), (offset, size, "offset"),
        (name, offset, "name"),
    ):  # fmt: skip
        marks = with_mark(marks, Mark(start, stop, what))
    layout = parse_layout(described(file, memoryview(file.read_bytes()), marks), "x")
    assert layout.byte_order == order
    opened = open_container(file, layout)
    assert {one.path: opened.read(one.path) for one in opened.entries()} == TEXTS


def test_what_is_no_number_is_refused_and_a_mark_takes_the_place_of_others() -> None:
    with pytest.raises(FurnelError, match="5 bytes are no number"):
        with_mark([], Mark(0, 5, "count"))
    marks = with_mark(with_mark([], Mark(0, 4, "count")), Mark(8, 12, "count"))
    assert marks == [Mark(8, 12, "count")]
    assert with_mark(marks, Mark(10, 14, "number")) == [Mark(10, 14, "number")]


@given(
    st.binary(min_size=80, max_size=80),
    st.lists(st.tuples(st.integers(0, 70), st.sampled_from([1, 2, 3, 4, 8]), st.sampled_from(IS))),
)
def test_whatever_is_said_the_text_is_toml_that_names_its_fault(
    data: bytes, said: list[tuple[int, int, str]]
) -> None:
    marks: list[Mark] = [Mark(0, 1, "number")]
    for start, width, what in said:
        marks = with_mark(marks, Mark(start, start + width, what))
    text = described(Path("a.hold"), memoryview(data), marks)
    try:
        parse_layout(text, "x")
    except FurnelError as error:
        wanted = ("index has no field", "has no field that holds", "either an [index] or")
        assert any(words in error.why for words in wanted), error.sentence()
