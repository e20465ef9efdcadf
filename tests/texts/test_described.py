"""Notations that a profile describes: kept to the byte, changed in one place, told by line when damaged."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.errors import FurnelError
from furnel.texts import Change, Form, applied, difference, document_of, parse_address, taken_apart, use_forms
from furnel.texts.described import DescribedDocument

YARD = Form(ending=".yard", comment="--", end=";", list_open="(", list_close=")", quote="'")
LINES = Form(ending=".lst", open="<", close=">", assign=":", comment="#", quote='"', escape="\\")
BERTHS = """-- where the boats lie
berth north {
    boat = 'otter';   -- the ferry
    lamps = (warm, cold);
}
berth 'long pier' { boat = 'skiff'; lamps = (); };
depth=2.5;
"""
# by other hands: odd, but legal
ODD = {
    "a": "x=1;y='a b';",
    "b": "\n\n--only this\n",
    "c": "one{two{three{k=v;}}}",
    "d": "berth\tn\r\n{\r\n  k = a b  c ; -- words\r\n}\r\n",
    "e": "k=();l=( a,b ,c );m=('x, y', z);",
    "f": "'odd key'=1;berth '' { }",
    "g": "a { } ; b { k = 'it is -- no comment'; }",
}


@pytest.fixture(autouse=True)
def _forms() -> Iterator[None]:
    use_forms([YARD, LINES])
    yield
    use_forms([])


def doc(text: str, form: Form = YARD) -> DescribedDocument:
    return DescribedDocument(text, f"a{form.ending}", form=form)


@pytest.mark.parametrize("text", [BERTHS, *ODD.values()], ids=["berths", *ODD])
def test_every_byte_comes_back_and_a_change_changes_its_value_alone(text: str) -> None:
    document = document_of(text.encode(), "a.yard")
    assert document.data == text.encode()
    for item in document.root.items:
        if item.node.kind == "scalar":
            other = document.set(parse_address(item.key), "new one")
            assert other.look(parse_address(item.key)) == "new one"
            cut = item.node.start, len(text) - item.node.end
            assert other.text[: cut[0]] == text[: cut[0]] and other.text.endswith(text[len(text) - cut[1] :])


def test_records_are_picked_by_their_names() -> None:
    document = doc(BERTHS)
    assert document.plain() == {
        "berth": [
            {"@name": "north", "boat": "otter", "lamps": ["warm", "cold"]},
            {"@name": "long pier", "boat": "skiff", "lamps": []},
        ],
        "depth": "2.5",
    }
    made = applied(document, [
        Change(do="set", at="berth[@name=north]/boat", to="heron"),
        Change(do="add", at="berth[@name=long pier]/lamps", to="warm"),
        Change(do="add", at="", key="berth", to={"@name": "east"}, like="@name=north", place="after north"),
        Change(do="drop", at="berth[@name=north]/lamps[=cold]"),
    ])  # fmt: skip
    assert (
        made.text
        == """-- where the boats lie
berth north {
    boat = 'heron';   -- the ferry
    lamps = (warm);
}
berth east {
    boat = 'heron';
    lamps = (warm, cold);
}
berth 'long pier' { boat = 'skiff'; lamps = (warm); };
depth=2.5;
"""
    )
    assert (
        doc(BERTHS)
        .drop(parse_address("berth[@name=north]"))
        .text.startswith("-- where the boats lie\nberth 'long pier'")
    )


def test_another_form_with_lines_for_ends() -> None:
    document = doc('boat <\n  name : "The \\"otter\\"" # wide\n  speed : 3\n>\n', LINES)
    assert document.plain() == {"boat": {"name": 'The "otter"', "speed": "3"}}
    assert (
        document.set(parse_address("boat/name"), 'a "b" \\ c').look(parse_address("boat/name"))
        == 'a "b" \\ c'
    )
    assert document.set(parse_address("boat/speed"), "4").text.endswith("  speed : 4\n>\n")


WORDS = st.text("abz_09 ", min_size=1, max_size=5).map(str.strip).filter(bool)
NAMES = st.from_regex(r"[a-z]{1,4}", fullmatch=True)
RECORDS = st.dictionaries(NAMES, st.one_of(WORDS, st.lists(WORDS, max_size=3)), max_size=3)


@given(st.dictionaries(NAMES, RECORDS, max_size=4), st.dictionaries(NAMES, RECORDS, max_size=4))
def test_what_is_written_is_read_as_it_was_meant(base: dict[str, Any], theirs: dict[str, Any]) -> None:
    def made(tree: dict[str, Any]) -> DescribedDocument:
        document: Any = doc("")
        for name, row in tree.items():
            document = document.add((), "unit", {"@name": name, **row})
        return document  # type: ignore[no-any-return]

    one, other = made(base), made(theirs)
    rows = other.plain().get("unit", [])
    assert {row["@name"]: row for row in (rows if isinstance(rows, list) else [rows])} == {
        name: {"@name": name, **row} for name, row in theirs.items()
    }
    if base and theirs:
        assert applied(one, difference(one, other)).plain() == other.plain()


@pytest.mark.parametrize(
    ("text", "line", "says"),
    [
        ("a = 1", 1, "; is missing"), ("a = ;", 1, "a value is missing"), ("x\ny = 1;", 2, "missing behind"),
        ("b {\n k = 1;\n", 3, "ends before }"), ("}", 1, "nothing is open"), ("\nk = (a;", 2, ") is missing"),
        ("k = 'open", 1, "never closed"), ("{ }", 1, "a name is missing"), ("a b c { }", 1, "missing behind"),
        ("a{" * 300, 1, "nested more than"),
    ],
)  # fmt: skip
def test_damage_is_told_by_line(text: str, line: int, says: str) -> None:
    with pytest.raises(FurnelError) as caught:
        document_of(text.encode(), "a.yard")
    assert says in caught.value.why and caught.value.line == line


@given(st.text("ab {}=;(),'-\n\\", max_size=40))
def test_any_text_is_a_definition_or_an_error_of_ours(text: str) -> None:
    try:
        document = doc(text)
    except FurnelError as error:
        assert error.line
        return
    assert document.text == text and document.plain() is not None


def test_what_cannot_be_written_is_refused() -> None:
    for value in ("it's", "two\nlines"):
        with pytest.raises(FurnelError, match="cannot be written"):
            doc(BERTHS).set(parse_address("depth"), value)
    with pytest.raises(FurnelError, match="keeps its name"):
        doc(BERTHS).drop(parse_address("berth[@name=north]/@name"))


@pytest.mark.parametrize(
    ("what", "why"),
    [
        ({"open": "", "ending": ".x"}, "cannot be empty"), ({"open": "=", "ending": ".x"}, "are the same"),
        ({"list_open": "(", "ending": ".x"}, "needs list-open, list-close"), ({"ending": "x"}, "pattern"),
        ({"encoding": "klingon-8", "ending": ".x"}, "no such encoding"),
    ],
)  # fmt: skip
def test_a_form_that_tells_nothing_apart_is_refused(what: dict[str, str], why: str) -> None:
    with pytest.raises(ValueError, match=why):
        Form.model_validate(what)


def test_a_known_notation_in_the_games_own_encoding() -> None:
    use_forms([Form(ending=".conf", written_as="INI", encoding="cp1252")])
    data = "[träd]\nhöjd = 3\n".encode("cp1252")
    document = document_of(data, "rules/tree.conf")
    assert document.data == data and taken_apart("x.conf") and not taken_apart("x.yard")
    changed = document.set(parse_address("träd/höjd"), "4 é").data
    assert changed == "[träd]\nhöjd = 4 é\n".encode("cp1252")
    with pytest.raises(FurnelError):
        document.set(parse_address("träd/höjd"), "☃").data  # noqa: B018 - it has to be stored
