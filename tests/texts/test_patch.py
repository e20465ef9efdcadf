"""Patches: worked out, applied, disputed; in every notation, and against plain data."""

from __future__ import annotations

import copy
import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.errors import FurnelError
from furnel.texts.document import Document
from furnel.texts.documents import document_of
from furnel.texts.patch import Change, applied, difference, disputes, merged

KEYS = st.from_regex(r"[a-z]{1,4}", fullmatch=True)
SCALARS = st.one_of(st.booleans(), st.integers(-999, 999), st.text("ab /[]=\\\n", max_size=5))
ROWS = st.dictionaries(KEYS, st.dictionaries(KEYS, SCALARS, max_size=3), max_size=4).map(
    lambda rows: [
        {"id": name, **{key: value for key, value in row.items() if key != "id"}}
        for name, row in rows.items()
    ]
)
PARTS = st.one_of(SCALARS, ROWS, st.lists(SCALARS, max_size=4), st.dictionaries(KEYS, SCALARS, max_size=3))
TREES = st.dictionaries(KEYS, PARTS, min_size=1, max_size=4)


def doc(tree: Any) -> Document:
    return document_of(json.dumps(tree, indent=2).encode(), "a.json")


@given(TREES, TREES)
def test_a_difference_is_what_turns_one_into_the_other(base: dict[str, Any], theirs: dict[str, Any]) -> None:
    one, other = doc(base), doc(theirs)
    changes = difference(one, other)
    assert applied(one, changes).plain() == theirs
    assert difference(one, one) == () and disputes(one, changes) == []
    assert tuple(Change.model_validate(change.model_dump()) for change in changes) == changes
    assert all(change.said() for change in changes)


@given(TREES, st.data())
def test_a_change_of_one_value_is_one_change_and_leaves_the_rest(
    tree: dict[str, Any], data: st.DataObject
) -> None:
    key = data.draw(st.sampled_from(sorted(tree)))
    theirs = copy.deepcopy(tree)
    theirs[key] = "something else"
    (change,) = difference(doc(tree), doc(theirs))
    assert (change.do, change.address[0].key, change.was) == ("set", key, tree[key])
    assert set(applied(doc(tree), [change]).text.splitlines()) - set(doc(tree).text.splitlines()) != set()


FLEET = """{
  // the fleet
  "boats": [
    {"id": "otter", "speed": 3, "hull": "hull_otter"},
    {"id": "heron", "speed": 4, "hull": "hull_heron"}
  ],
  "tunes": ["fog", "reel"]
}
"""


def fleet(text: str = FLEET) -> Document:
    return document_of(text.encode(), "fleet.json")


def test_an_edited_file_becomes_changes_by_record_and_value() -> None:
    edited = (
        FLEET.replace('"speed": 3', '"speed": 4.5')
        .replace('"fog", ', "")
        .replace('"heron", "speed": 4', '"pike", "speed": 9')
    )
    changes = difference(fleet(), fleet(edited))
    assert [change.said() for change in changes] == [
        "boats[id=otter]/speed: 3 → 4.5", "without boats[id=heron]", "new pike in boats", "without tunes[=fog]",
    ]  # fmt: skip
    made = applied(fleet(), changes)
    assert made.plain() == fleet(edited).plain() and "// the fleet" in made.text


def test_a_new_record_begins_with_all_values_of_another() -> None:
    change = Change(
        do="add", at="boats", like="id=otter", to={"id": "skiff", "speed": 2}, place="after otter"
    )
    made = applied(fleet(), [change])
    assert made.plain()["boats"][1] == {"id": "skiff", "speed": 2, "hull": "hull_otter"}
    for change, wanted in (
        (Change(do="add", at="tunes", to="waltz", place="before reel"), ["fog", "waltz", "reel"]),
        (Change(do="move", at="tunes[=reel]", place="first"), ["reel", "fog"]),
    ):
        assert applied(fleet(), [change]).plain()["tunes"] == wanted
    renamed = applied(fleet(), [Change(do="rename", at="tunes", key="songs")])
    assert renamed.text == FLEET.replace('"tunes"', '"songs"')


def test_an_update_of_the_game_is_merged_and_only_what_both_changed_is_disputed() -> None:
    mine = difference(
        fleet(), fleet(FLEET.replace('"speed": 3', '"speed": 4.5').replace('"reel"', '"reel", "waltz"'))
    )
    update = FLEET.replace('"hull_heron"', '"hull_blue"').replace('"fog"', '"mist", "fog"')
    both = applied(fleet(update), mine).plain()
    assert disputes(fleet(update), mine) == []
    assert both["boats"][0]["speed"] == 4.5 and both["boats"][1]["hull"] == "hull_blue"
    assert both["tunes"] == ["mist", "fog", "reel", "waltz"]
    (dispute,) = disputes(fleet(FLEET.replace('"speed": 3', '"speed": 2')), mine)
    assert dispute.now == 2 and dispute.said() == "boats[id=otter]/speed was 3 and is 2 in the game now"
    assert disputes(fleet(FLEET.replace('"speed": 3', '"speed": 4.5')), mine) == []  # the game took it over


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (Change(do="set", at="boats[id=oter]/speed", to=1), "otter"),
        (Change(do="drop", at="tunes[=fogg]"), "fog"),
        (Change(do="add", at="", key="tunes", to=[]), "already"),
        (Change(do="add", at="tunes", to="x", place="after nothing"), "no nothing"),
        (Change(do="add", at="boats[id=otter]/speed", key="x", to=1), "single value"),
        (Change(do="rename", at="boats", key="tunes"), "already"),
        (Change(do="move", at="", place="first"), "no place of its own"),
    ],
)
def test_a_change_that_does_not_apply_says_why_and_what_is_near(change: Change, says: str) -> None:
    with pytest.raises(FurnelError) as refusal:
        applied(fleet(), [change])
    assert says in f"{refusal.value.why} {refusal.value.remedy}" and refusal.value.where
    with pytest.raises(ValueError, match="stray"):
        Change(do="set", at="a]b")


@pytest.mark.parametrize(
    ("name", "text", "change", "wanted"),
    [
        ("a.toml", '# mine\n[otter]\nspeed = 3 # knots\n', Change(do="set", at="otter/speed", to=4.5),
         '# mine\n[otter]\nspeed = 4.5 # knots\n'),
        ("a.ini", "[otter]\nspeed = 3\n", Change(do="add", at="otter", key="oars", to=2), "[otter]\nspeed = 3\noars = 2\n"),
        ("a.csv", "id,speed\notter,3\n", Change(do="add", at="", to={"id": "pike"}, like="id=otter"),
         "id,speed\notter,3\npike,3\n"),
        ("a.xml", "<f>\n  <b id='o'/>\n</f>", Change(do="set", at="b[@id=o]/@id", to="p"), "<f>\n  <b id='p'/>\n</f>"),
    ],
)  # fmt: skip
def test_changes_are_the_same_in_every_notation(name: str, text: str, change: Change, wanted: str) -> None:
    assert applied(document_of(text.encode(), name), [change]).text == wanted


NAMES = st.lists(KEYS, unique=True, max_size=6)


@given(NAMES, NAMES, st.booleans())
def test_a_list_in_another_order_is_moved_not_made_anew(
    base: list[str], theirs: list[str], rows: bool
) -> None:
    def made(names: list[str]) -> Document:
        return doc({"a": [{"id": name, "x": 1} for name in names] if rows else names})

    changes = difference(made(base), made(theirs))
    assert applied(made(base), changes).plain() == made(theirs).plain()
    again = difference(made(theirs), made(theirs[::-1]))
    assert {change.do for change in again} <= {"move"} and len(again) < max(len(theirs), 1)


@given(TREES, TREES)
def test_merging_keeps_its_laws(base: dict[str, Any], theirs: dict[str, Any]) -> None:
    one, other = doc(base), doc(theirs)
    assert merged(one, other, one).document.plain() == theirs
    assert merged(one, one, other).document.plain() == theirs
    same = merged(one, other, other)
    assert same.document.plain() == theirs and not same.disputes


@given(TREES, TREES, TREES)
def test_what_only_one_side_touched_comes_through(
    base: dict[str, Any], theirs: dict[str, Any], mine: dict[str, Any]
) -> None:
    found = merged(doc(base), doc(theirs), doc(mine))
    plain, disputed = (
        found.document.plain(),
        {dispute.change.address[0].key for dispute in found.disputes if dispute.change.at},
    )
    for key in {*base, *theirs, *mine}:
        sides = [tree.get(key, None) if key in tree else "(none)" for tree in (base, theirs, mine)]
        here = plain.get(key, None) if key in plain else "(none)"
        if repr(sides[0]) == repr(sides[2]):
            assert repr(here) == repr(sides[1])
        elif repr(sides[0]) == repr(sides[1]) and key not in disputed:
            assert repr(here) == repr(sides[2])


def test_what_both_changed_is_told_and_what_both_added_is_there() -> None:
    theirs = fleet(FLEET.replace('"speed": 3', '"speed": 4.5').replace('"fog"', '"mist", "fog"'))
    mine = fleet(
        FLEET.replace('"speed": 3', '"speed": 5')
        .replace('"reel"', '"reel", "waltz"')
        .replace('"hull_heron"', '"h"')
    )
    found = merged(fleet(), theirs, mine)
    assert [dispute.change.at for dispute in found.disputes] == ["boats[id=otter]/speed"]
    assert found.disputes[0].now == 4.5
    plain = found.document.plain()
    assert plain["tunes"] == ["mist", "fog", "reel", "waltz"] and plain["boats"][1]["hull"] == "h"
    assert "// the fleet" in found.document.text


XML = """<scenes>
  <!-- at dusk -->
  <scene id="quay" music="fog"><boat ref="a" x="1"/></scene>
  <scene id="lamp"/>
</scenes>
"""


@pytest.mark.parametrize(
    ("old", "new", "said"),
    [
        ("</scenes>", '  <scene id="pier" music="reel"/>\n</scenes>', ["new scene pier"]),
        ('  <scene id="lamp"/>\n', "", ["without scene[@id=lamp]"]),
        ('<boat ref="a" x="1"/>', '<boat ref="a" x="2"/>', ["scene[@id=quay]/boat/@x: 1 → 2"]),
        ('<boat ref="a" x="1"/>', '<boat ref="a" x="1"/><boat ref="b" x="3"/>', None),
        ('<boat ref="a" x="1"/>', "<lamp/><lamp/>", None),
    ],
)  # fmt: skip
def test_elements_come_and_go(old: str, new: str, said: list[str] | None) -> None:
    base, theirs = (document_of(text.encode(), "s.xml") for text in (XML, XML.replace(old, new)))
    changes = difference(base, theirs)
    made = applied(base, changes)
    assert made.plain() == theirs.plain() and "<!-- at dusk -->" in made.text
    assert said is None or [change.said() for change in changes] == said
    assert merged(base, theirs, theirs).document.plain() == theirs.plain()


def test_what_is_no_number_is_no_change() -> None:
    base, mine = (document_of(f"[a]\nx = nan\ny = {value}\n".encode(), "a.toml") for value in (1, 2))
    changes = difference(base, mine)
    assert [change.said() for change in changes] == ["a/y: 1 → 2"] and applied(
        base, changes
    ).text == mine.text


@pytest.mark.parametrize("name", ["", "two\nlines", " ", "after b", "first"])
@pytest.mark.parametrize("rows", [False, True])
def test_whatever_an_item_is_called_others_come_behind_it(name: str, rows: bool) -> None:
    """An empty text, one of several lines, and what reads like a place itself."""

    def made(*names: str) -> Document:
        return doc({"a": [{"id": one, "x": 1} for one in names] if rows else list(names)})

    orders: tuple[list[str], ...] = (
        [name, "b"],
        [name, "c", "b"],
        ["b", name, "c"],
        ["c", name],
        ["c", "b", name],
        [],
    )
    for base in orders:
        for theirs in orders:
            changes = difference(made(*base), made(*theirs))
            assert applied(made(*base), changes).plain() == made(*theirs).plain(), (base, theirs)
    both = merged(made("b"), made(name, "b"), made("b", "c"))
    assert both.document.plain() == made(name, "b", "c").plain() and not both.disputes
