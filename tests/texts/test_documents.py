"""Documents give back every byte that they were not asked to change; what they change, others read as it was meant."""

from __future__ import annotations

import configparser
import copy
import csv
import io
import json
import tomllib
from pathlib import Path
from typing import Any
from xml.etree import ElementTree

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from furnel.errors import FurnelError
from furnel.texts.address import Step, address_text, parse_address
from furnel.texts.document import Document
from furnel.texts.documents import NOTATIONS, document_of
from furnel.texts.places import spots as all_spots

OTHERS = sorted((Path(__file__).parent / "others").iterdir())
KEYS = st.from_regex(r"[a-z][a-z_]{0,6}", fullmatch=True)
WORDS = st.text("abÅ \"'\\/<&>[]=,;#:.{}0", max_size=8)
SCALARS = st.one_of(
    st.booleans(), st.integers(-(2**53), 2**53), st.floats(-1e9, 1e9).map(lambda x: round(x, 3)), WORDS
)
TREES = st.recursive(
    SCALARS,
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(KEYS, inner, max_size=3),
    max_leaves=9,
)
TABLES = st.dictionaries(KEYS, TREES, min_size=1, max_size=4)


def doc(text: str, name: str) -> Document:
    return document_of(text.encode("utf-8"), name)


def read(document: Document, name: str) -> Any:
    """By a reader that shares nothing with ours."""
    text = document.data.decode("utf-8")
    if name.endswith(".json"):
        return json.loads(text)
    if name.endswith(".toml"):
        return tomllib.loads(text)
    if name.endswith(".ini"):
        parser = configparser.ConfigParser(interpolation=None, strict=True, default_section="\0")
        parser.optionxform = str  # type: ignore[assignment, method-assign]
        parser.read_string(text)
        return {section: dict(parser[section]) for section in parser.sections()}
    if name.endswith(".csv"):
        return list(csv.DictReader(io.StringIO(text, newline=""), delimiter=";" if ";" in text else ","))
    return ElementTree.fromstring(text)


def spots(tree: Any, before: tuple[Step, ...] = ()) -> list[tuple[tuple[Step, ...], list[Any]]]:
    """Every address in plain data, with the keys that lead there."""
    out: list[tuple[tuple[Step, ...], list[Any]]] = [(before, [])]
    pairs = tree.items() if isinstance(tree, dict) else enumerate(tree) if isinstance(tree, list) else ()
    for key, value in pairs:
        step = Step(key) if isinstance(key, str) else Step(place=key)
        out += [
            ((*before, *more), [key, *keys])
            for more, keys in ((address, keys) for address, keys in spots(value, (step,)))
        ]
    return out


def at(tree: Any, keys: list[Any]) -> Any:
    for key in keys:
        tree = tree[key]
    return tree


@pytest.mark.parametrize("file", OTHERS, ids=lambda file: file.name)
def test_what_others_wrote_comes_back_to_the_byte(file: Path) -> None:
    data = file.read_bytes()
    document = document_of(data, file.name, "cp1252" if "cp1252" in file.name else "")
    assert document.data == data
    plain = document.plain()
    for address, keys in spots(plain):
        if keys and not isinstance(plain, list) and file.suffix != ".xml":
            assert repr(document.look(address)) == repr(at(plain, keys))
            assert parse_address(address_text(address)) == address


@pytest.mark.parametrize("file", OTHERS, ids=lambda file: file.name)
def test_of_what_others_wrote_one_value_is_changed_and_no_other_byte(file: Path) -> None:
    document = document_of(file.read_bytes(), file.name, "cp1252" if "cp1252" in file.name else "")
    plain_json = file.suffix == ".json" and "comments" not in file.name
    tried = refused = 0
    for spot in all_spots(document):
        old = spot.value
        if not isinstance(old, str | int | float) or not spot.address or old != old:
            continue
        new = (not old) if isinstance(old, bool) else f"{old}2" if isinstance(old, str) else old + 1
        tried += 1
        try:
            made = document.set(spot.address, new)
        except FurnelError as error:
            refused += 1
            print(error)
            continue
        assert not made.has(spot.address) or made.look(spot.address) == new, (
            spot.address
        )  # it may be what names its record
        before, after = _between(document.text, made.text)
        assert len(before) <= 6 * len(str(old)) + 8 and len(after) <= 6 * len(str(new)) + 8
        reader = tomllib.loads if file.suffix == ".toml" else json.loads if plain_json else None
        if reader is not None:
            found = reader(made.data.decode(made.encoding.name).removeprefix("\ufeff"))
            assert repr(found) == repr(made.plain())
    assert refused * 2 <= tried


def _between(old: str, new: str) -> tuple[str, str]:
    """What differs of two texts, without their common beginning and end."""
    start = next(
        (n for n, (a, b) in enumerate(zip(old, new, strict=False)) if a != b), min(len(old), len(new))
    )
    old, new = old[start:], new[start:]
    end = next(
        (n for n, (a, b) in enumerate(zip(old[::-1], new[::-1], strict=False)) if a != b),
        min(len(old), len(new)),
    )
    return old[: len(old) - end], new[: len(new) - end]


def test_there_are_enough_of_them() -> None:
    kinds = {"toml": 6, "json": 6, "xml": 6, "csv": 6, "ini": 6}
    alike = {"tsv": "csv", "cfg": "ini", "properties": "ini"}
    endings = [alike.get(file.suffix[1:], file.suffix[1:]) for file in OTHERS]
    assert {kind: min(endings.count(kind), most) for kind, most in kinds.items()} == kinds


@given(st.dictionaries(st.text(min_size=1, max_size=6), st.text(max_size=8), max_size=5))
def test_properties_of_any_text_are_read_as_they_were_meant(table: dict[str, str]) -> None:
    for encoding in ("utf-8", "latin-1"):
        document = document_of(b"", "a.properties", encoding)
        for key, value in table.items():
            try:
                document = document.add((), key, value)
            except FurnelError:
                assert any("\ud800" <= sign <= "\udfff" for sign in key + value)
                return
        assert document_of(document.data, "a.properties", encoding).plain() == table


@given(
    st.lists(
        st.builds(Step, st.text(max_size=5), st.none() | st.text(max_size=4), st.text(max_size=4)), max_size=4
    )
)
def test_an_address_is_read_as_it_is_written(steps: list[Step]) -> None:
    wanted = tuple(step if step.field is not None else Step(step.key) for step in steps)
    assume(all(step.key or step.field is not None for step in wanted))
    assert parse_address(address_text(wanted)) == wanted


def written(tree: Any, name: str) -> str:
    if name.endswith(".json"):
        return json.dumps(tree, indent=3, ensure_ascii=False)
    import tomlkit

    return tomlkit.dumps(tree)


@pytest.mark.parametrize("name", ["a.json", "a.toml"])
@given(st.data())
def test_an_edit_is_what_it_says_and_nothing_else(name: str, data: st.DataObject) -> None:
    tree = data.draw(TABLES)
    try:
        document = doc(written(tree, name), name)
    except Exception:
        assume(False)
    assume(document.plain() == tree and read(document, name) == tree)
    address, keys = data.draw(st.sampled_from([spot for spot in spots(tree) if spot[1]]))
    wanted = copy.deepcopy(tree)
    kind = data.draw(st.sampled_from(["set", "drop", "add"]))
    value = data.draw(SCALARS if kind == "set" else TREES)
    try:
        if kind == "set":
            changed = document.set(address, value)
            at(wanted, keys[:-1])[keys[-1]] = value
        elif kind == "drop":
            changed = document.drop(address)
            del at(wanted, keys[:-1])[keys[-1]]
        else:
            place = at(wanted, keys)
            assume(isinstance(place, dict | list))
            if isinstance(place, dict):
                key = data.draw(KEYS.filter(lambda key: key not in place))
                changed = document.add(address, key, value)
                place[key] = value
            else:
                number = data.draw(st.integers(0, len(place)))
                changed = document.add(address, "", value, number)
                place.insert(number, value)
    except FurnelError:
        assert name.endswith(".toml")  # what cannot be kept there is refused, never written wrongly
        return
    assert read(changed, name) == wanted == changed.plain()
    if kind == "set" and name.endswith(".json"):
        node = document.find(address).node
        assert changed.text.startswith(document.text[: node.start]) and changed.text.endswith(
            document.text[node.end :]
        )


@given(TABLES, st.data())
def test_comments_of_people_stay(tree: dict[str, Any], data: st.DataObject) -> None:
    document = doc(json.dumps(tree, indent=1).replace("{", "{ // here\n", 1)[:-1] + "/* there */ }", "a.json")
    assert document.plain() == tree
    address, _ = data.draw(st.sampled_from([spot for spot in spots(tree) if len(spot[1]) == 1]))
    changed = document.set(address, 7)
    assert "// here" in changed.text and "/* there */" in changed.text and changed.look(address) == 7


TEXTS = (
    st.text("abÅ \"'\\/<&>[]=,;.{}0", min_size=1, max_size=8)
    .map(str.strip)
    .filter(lambda s: s and s[0] not in "#;[" and " ;" not in s)
)
SECTIONS = st.dictionaries(KEYS, st.dictionaries(KEYS, TEXTS, min_size=1, max_size=4), min_size=1, max_size=3)


@given(SECTIONS, st.data())
def test_ini_files_are_changed_line_by_line(tree: dict[str, dict[str, str]], data: st.DataObject) -> None:
    text = "; mine\n" + "".join(
        f"[{name}]\n" + "".join(f"{key} = {value}\n" for key, value in part.items()) + "\n"
        for name, part in tree.items()
    )
    document = doc(text, "a.ini")
    assert document.plain() == tree == read(document, "a.ini")
    section = data.draw(st.sampled_from(sorted(tree)))
    key = data.draw(st.sampled_from(sorted(tree[section])))
    fresh, word = data.draw(KEYS.filter(lambda k: k not in tree[section])), data.draw(TEXTS)
    changed = document.set((Step(section), Step(key)), word).add((Step(section),), fresh, "new one")
    wanted = {**tree, section: {**tree[section], key: word, fresh: "new one"}}
    assert changed.plain() == wanted == read(changed, "a.ini") and changed.text.startswith("; mine\n")
    assert (
        changed.drop((Step(section), Step(fresh))).set((Step(section), Step(key)), tree[section][key]).text
        == text
    )
    other = changed.add((), "added_one", {"x": "1"})
    assert (
        read(other, "a.ini")["added_one"] == {"x": "1"} and other.drop((Step("added_one"),)).plain() == wanted
    )
    assert (
        read(changed.rename((Step(section), Step(fresh)), "renamed_1"), "a.ini")[section]["renamed_1"]
        == "new one"
    )


ROWS = st.lists(st.tuples(st.text("aÅ,;\"' \n", max_size=6), st.text("b1.", max_size=4)), max_size=5)


@given(ROWS, st.sampled_from([",", ";"]), st.sampled_from(["\n", "\r\n"]), st.data())
def test_tables_are_changed_cell_by_cell(
    rows: list[tuple[str, str]], separator: str, end: str, data: st.DataObject
) -> None:
    out = io.StringIO(newline="")
    writer = csv.writer(out, delimiter=separator, lineterminator=end)
    writer.writerow(["id", "name", "speed"])
    writer.writerows([(str(number), *row) for number, row in enumerate(rows)])
    document = doc(out.getvalue(), "a.csv")

    def told(changed: Document) -> list[list[str]]:
        return list(csv.reader(io.StringIO(changed.text, newline=""), delimiter=separator))[1:]

    assert told(document) == [list(row.values()) for row in document.plain()]
    longer = document.add((), "", {"id": "x", "speed": "4,5;6"})
    assert told(longer) == [*told(document), ["x", "", "4,5;6"]]
    assert longer.drop(parse_address("[id=x]")).plain() == document.plain()
    if rows:
        number = data.draw(st.integers(0, len(rows) - 1))
        word = data.draw(st.text('a,;"\n', max_size=5))
        changed = document.set(parse_address(f"[id={number}]/name"), word)
        wanted = told(document)
        wanted[number][1] = word
        assert told(changed) == wanted and changed.text.count("\r\n") >= (len(rows) if end == "\r\n" else 0)
        first = document.add((), "", {"id": "y"}, 0)
        assert told(first)[0][0] == "y" and told(first)[1:] == told(document)


XML = """<?xml version="1.0"?>
<!-- the quay -->
<scene id='quay' light="0.5">
    <boat id="otter" speed="3"/>   <!-- ours -->
    <boat id="heron" speed="4">
        <title>The Heron &amp; crew</title>
    </boat>
    <empty></empty>
</scene>
"""


def test_elements_are_changed_part_by_part() -> None:
    document = doc(XML, "a.xml")
    assert document.look(parse_address("boat[@id=heron]/title/text")) == "The Heron & crew"
    assert (
        document.look(parse_address("boat[0]/@speed")) == "3"
        and document.look(parse_address("@light")) == "0.5"
    )
    changed = document.set(parse_address("boat[@id=otter]/@speed"), 'quick "as" <light>')
    assert ElementTree.fromstring(changed.text).find("boat").get("speed") == 'quick "as" <light>'
    assert changed.text.replace("quick &quot;as&quot; &lt;light&gt;", "3") == XML
    more = document.add(
        (),
        "boat",
        {"@id": "skiff", "title": {"text": "A & B"}, "oar": [{"@side": "left"}, {"@side": "right"}]},
        4,
    )
    root = ElementTree.fromstring(more.text)
    assert [boat.get("id") for boat in root.findall("boat")] == ["otter", "heron", "skiff"]
    assert root.findtext("boat[3]/title") == "A & B" and len(root.findall("boat[3]/oar")) == 2
    assert more.drop(parse_address("boat[@id=skiff]")).text == XML
    inside = document.add(parse_address("empty"), "flag", {"@red": "1"}).add(
        parse_address("boat[0]"), "@oars", "2"
    )
    root = ElementTree.fromstring(inside.text)
    assert root.find("empty/flag").get("red") == "1" and root.find("boat").get("oars") == "2"
    assert "<!-- ours -->" in inside.text


@given(st.text("ab<>&\"' Å", max_size=10))
def test_any_text_goes_into_an_element_and_out(text: str) -> None:
    changed = doc(XML, "a.xml").set(parse_address("@light"), text)
    assert changed.look(parse_address("@light")) == text
    assert ElementTree.fromstring(changed.text).get("light") == text


@pytest.mark.parametrize(
    ("name", "text", "line", "says"),
    [
        ("a.json", '{"a": 1,\n "a": 2}', 2, "twice"), ("a.json", '{"a": 1\n "b": 2}', 2, "comma"),
        ("a.json", "[1, 2", 1, "too soon"), ("a.json", '{"a": "x\ny"}', 1, "never closed"), ("a.json", "[01]", 1, "missing"),
        ("a.json", "[" * 500 + "]" * 500, 1, "nested"), ("a.json", "{} x", 1, "behind the end"),
        ("a.toml", "a = 1\nb = \n", 2, "Invalid value"), ("a.toml", "a = 1\na = 2\n", 2, "overwrite"),
        ("a.ini", "[a]\nx = 1\nx = 2\n", 3, "twice"), ("a.ini", "[a]\nnonsense\n", 2, "neither"),
        ("a.ini", "[a]\n[a]\n", 2, "twice"),
        ("a.csv", "id,id\n1,2\n", 1, "two columns"), ("a.csv", "id,x\n1,2,3\n", 2, "3 values"),
        ("a.xml", "<a>\n<b></a>", 2, "mismatch"), ("a.xml", "<a" + ">" + "<b>" * 300 + "</b>" * 300 + "</a>", 0, ""),
        ("a.xml", '<!DOCTYPE a [<!ENTITY x "' + "y" * 99 + '">]>\n<a>&x;</a>', 0, ""),
    ],
)  # fmt: skip
def test_damage_is_told_by_line_and_reason(name: str, text: str, line: int, says: str) -> None:
    try:
        document = doc(text, name)
    except FurnelError as error:
        assert says in error.why and (error.line == line or not line) and error.remedy
    else:
        assert not says and "y" * 99 not in str(document.plain())  # an entity is never expanded


@given(st.binary(max_size=120), st.sampled_from(sorted(NOTATIONS)))
def test_any_bytes_are_a_document_or_an_error_of_ours(data: bytes, suffix: str) -> None:
    try:
        document = document_of(data, f"a{suffix}")
    except FurnelError as error:
        assert error.why
        return
    assert document.data == data
    document.plain()


def test_what_is_nowhere_is_said_with_what_is_near() -> None:
    document = doc('{"otter": {"speed": 3}, "heron": {"speed": 4}, "tunes": ["fog", "reel"]}', "boats.json")
    for text, near in (("oter/speed", "otter"), ("otter/sped", "speed"), ("tunes[=fogg]", "fog")):
        with pytest.raises(FurnelError, match=near) as refusal:
            document.look(parse_address(text))
        assert text in refusal.value.where
    assert (
        document.look(parse_address("tunes[=reel]")) == "reel"
        and document.look(parse_address("tunes[0]")) == "fog"
    )
    assert not document.has(parse_address("otter/speed/more"))
    for wrong in ("a[", "a]b", "a[x]"):
        with pytest.raises(FurnelError):
            parse_address(wrong)


@pytest.mark.parametrize("how", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
def test_a_text_keeps_its_encoding_and_its_line_ends(how: str) -> None:
    data = '{\r\n  "name": "Åse",\r\n  "speed": 3\r\n}\r\n'.encode(how)
    document = document_of(data, "a.json", "cp1252" if how == "cp1252" else "")
    changed = document.set(parse_address("name"), "Øyvind").add((), "oars", 2)
    assert document.data == data
    assert changed.data.decode(how) == '{\r\n  "name": "Øyvind",\r\n  "speed": 3,\r\n  "oars": 2\r\n}\r\n'
    with pytest.raises(FurnelError, match="UTF-8"):
        document_of("Å".encode("cp1252"), "a.json")
