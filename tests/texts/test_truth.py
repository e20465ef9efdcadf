"""Definitions tell the truth: what other readers read is shown, changed, merged or refused, and nothing else is touched."""

from __future__ import annotations

import configparser
import csv
import datetime
import io
import random
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from lxml import etree

from furnel.errors import FurnelError
from furnel.texts import applied, difference, document_of, merged, parse_address
from furnel.texts.document import Document

SCRIPT = """<?xml version="1.0"?>
<s><!-- one -->
  <a id="x" n="5"><![CDATA[throw <rope>]]></a>
  <p>Hello <b>you</b> there</p>
  <d>x<!-- c --></d>
  <e/><f></f>
  <k xml:space="preserve">  two </k>
</s>
"""


def doc(text: str | bytes, name: str = "s.xml") -> Document:
    return document_of(text if isinstance(text, bytes) else text.encode(), name)


def read(document: Document) -> Any:
    return etree.fromstring(document.data)


def setting(document: Document, at: str, value: object) -> Document:
    return document.set(parse_address(at), value)


def test_cdata_mixed_text_and_comments_are_read_and_changed_where_they_stand() -> None:
    there = doc(SCRIPT)
    assert (
        there.look(parse_address("a/text")) == "throw <rope>" and there.look(parse_address("d/text")) == "x"
    )
    made = setting(there, "a/text", "a ]]> lamp")
    assert read(made).find("a").text == "a ]]> lamp" and "<![CDATA[" in made.text
    made = setting(made, "p/text[1]", " here")
    assert etree.tostring(read(made).find("p"), with_tail=False) == b"<p>Hello <b>you</b> here</p>"
    made = setting(made, "d/text", "y & z")
    assert read(made).find("d").text == "y & z" and "<!-- c -->" in made.text
    assert read(setting(made, "k/text", " 3 ")).find("k").text == " 3 "
    for at in ("e", "f"):
        filled = made.add(parse_address(at), "text", "filled")
        assert read(filled).find(at).text == "filled" and len(read(filled).find(at)) == 0
    with pytest.raises(FurnelError):
        made.add(parse_address("p"), "text", "more")
    made = setting(made, "a/@n", "l1\nl2\tx")
    assert read(made).find("a").get("n") == "l1\nl2\tx"


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("throw <rope>", "throw <lamp>"), ("Hello ", "Goodbye "), (" there", " where"), ("x<!--", "y<!--"),
        ("  two ", " two"), ("<e/><f></f>", "<f></f><e/>"), ('"1.0"?>\n', '"1.0"?>\n<?play loud?>\n'),
        ("<e/>", "<e>&lt;b&gt;</e>"),
    ],
)  # fmt: skip
def test_a_whole_edited_file_loses_nothing(old: str, new: str) -> None:
    base, theirs = doc(SCRIPT), doc(SCRIPT.replace(old, new).replace('n="5"', 'n="6"'))
    try:
        made = applied(base, difference(base, theirs))
    except FurnelError:
        return  # then the whole file is the source
    assert etree.tostring(read(made), method="c14n") == etree.tostring(read(theirs), method="c14n")


def test_a_moved_or_copied_record_keeps_all_that_is_in_it() -> None:
    text = '<s><a id="x"><s1><![CDATA[z]]></s1><!-- k --></a><a id="y"/></s>'
    moved = doc(text.replace('<a id="y"/>', "").replace("<s><a", '<s><a id="y"/><a'))
    made = applied(doc(text), difference(doc(text), moved))
    assert "<!-- k -->" in made.text and read(made).findtext("a/s1") == "z"
    rows = '{"id": "a", "v": 1e3}', '{"id": "b"}'
    base, theirs = (doc(f"[{one}, {two}]", "a.json") for one, two in (rows, rows[::-1]))
    assert "1e3" in applied(base, difference(base, theirs)).text


def test_declared_encodings_are_kept() -> None:
    there = doc('<?xml version="1.0" encoding="ISO-8859-1"?>\n<a x="Grün"/>'.encode("latin-1"))
    made = setting(there, "@x", "Größe €")
    assert read(made).get("x") == "Größe €" and made.data.decode("latin-1")
    with pytest.raises(FurnelError, match="no known encoding"):
        doc(b'<?xml version="1.0" encoding="made-up"?><a/>')


@pytest.mark.parametrize(("name", "text"), [("t.toml", "f = [1, 0, 1]\n"), ("t.json", '{"f": [1, 0, 1]}')])
def test_true_is_not_one(name: str, text: str) -> None:
    made = setting(doc(text, name), "f", [True, False, True])
    assert doc(made.data, name).plain()["f"] == [True, False, True] and "true" in made.text
    same = doc(text, name)
    found = merged(same, setting(same, "f", [True, False, True]), setting(same, "f", [1, 0, 2]))
    assert found.disputes, "one side's switch is another's number"


def test_dates_are_dates() -> None:
    there = doc("d = 2026-01-02T03:04:05Z\n", "t.toml")
    made = setting(there, "d", datetime.datetime(2027, 1, 2, 3, 4, 5, tzinfo=datetime.UTC))
    assert isinstance(doc(made.data, "t.toml").plain()["d"], datetime.datetime) and '"' not in made.text


def test_comments_behind_values_of_ini_files_stay() -> None:
    there = doc("; mine\n[boat]\nspeed = 5 ; knots\nfill = #ff0000\n", "a.ini")
    made = setting(there, "boat/speed", 6)
    assert made.text == there.text.replace("= 5", "= 6")
    parser = configparser.ConfigParser(inline_comment_prefixes=(";",))
    parser.read_string(made.text)
    assert dict(parser["boat"]) == made.plain()["boat"] == {"speed": "6", "fill": "#ff0000"}
    with pytest.raises(FurnelError):
        setting(there, "boat/speed", "6 ; or 7")


@pytest.mark.parametrize(
    ("name", "text"),
    [
        ("a.csv", '"key";"v, w"\na;"1, 2"\n'), ("a.tsv", "key, note\tv\na, b\t1\n"), ("a.csv", "# mine\nkey,v\na,1\n"),
        ("a.csv", "sep=;\nkey;v\na;1\n"), ("a.csv", 'key,v\na,5" wide\n'), ("a.csv", "key,v,w\na,1\nb,2,3\n"),
    ],
)  # fmt: skip
def test_tables_are_read_as_others_read_them(name: str, text: str) -> None:
    there = doc(text, name)
    body = "".join(line for line in text.splitlines(True) if not line.startswith(("#", "sep=")))
    sign = "\t" if name.endswith("tsv") else ";" if ";" in body else ","
    head, *rows = csv.reader(io.StringIO(body), delimiter=sign)
    assert there.plain() == [dict(zip(head, row, strict=False)) for row in rows]
    made = setting(there, f"[0]/{head[1]}", "new")
    assert made.plain()[0][head[1]] == "new" and made.text.count("\n") == text.count("\n")


def test_lists_of_lists_are_addressed_as_they_are_shown() -> None:
    there = doc('{"grid": [[1, 2], [3, 4]]}', "a.json")
    assert there.look(parse_address("grid[1][0]")) == 3 == there.look(parse_address("grid[1]/[0]"))
    assert setting(there, "grid[1][0]", 9).plain() == {"grid": [[1, 2], [9, 4]]}


# merging, judged by records and values


def _scene(rows: dict[str, dict[str, str]], names: bool) -> str:
    lines = (
        "  <boat " + " ".join(f'{key}="{value}"' for key, value in ({"ref": name} | row if names else row).items()) + "/>\n"
        for name, row in rows.items()
    )  # fmt: skip
    return f'<scenes>\n<scene id="open water">\n{"".join(lines)}</scene>\n</scenes>\n'


@given(st.integers(0, 1 << 30))
def test_two_that_move_and_add_boats_are_both_seen(seed: int) -> None:
    draw = random.Random(seed)
    base = {name: {"x": str(draw.randrange(99)), "y": "1"} for name in ("otter", "heron", "skiff")}
    sides: list[dict[str, dict[str, str]]] = []
    for fresh in ("raft", "punt"):
        mine = {name: dict(row) for name, row in base.items()}
        for name in draw.sample(sorted(mine), draw.randrange(3)):
            mine[name]["x"] = f"{fresh}{draw.randrange(9)}"
        if draw.random() < 0.5:
            mine[fresh] = {"x": "0", "y": "2"}
        sides.append(mine)
    found = merged(*(doc(_scene(rows, True)) for rows in (base, *sides)))
    contradicted = {
        n for n in base if all(side[n] != base[n] for side in sides) and sides[0][n] != sides[1][n]
    }
    assert {
        dispute.change.at.partition("ref=")[2].partition("]")[0] for dispute in found.disputes
    } == contradicted
    wanted = {**base, **{n: r for s in sides[::-1] for n, r in s.items() if base.get(n) != r}}
    rows = {
        boat.get("ref"): {k: boat.get(k) for k in ("x", "y")} for boat in read(found.document).iter("boat")
    }
    assert rows == wanted


def test_records_without_any_name_meet_by_their_place() -> None:
    base = {str(number): {"x": str(number), "y": "0"} for number in range(3)}
    one, two, less = ({k: dict(v) for k, v in base.items()} for _ in range(3))
    one["0"]["x"], two["2"]["x"] = "7", "8"
    found = merged(*(doc(_scene(rows, False)) for rows in (base, one, two)))
    assert not found.disputes and [boat.get("x") for boat in read(found.document).iter("boat")] == [
        "7",
        "1",
        "8",
    ]
    del less["0"]
    both = merged(*(doc(_scene(rows, False)) for rows in (base, less, two)))
    xs = [boat.get("x") for boat in read(both.document).iter("boat")]
    assert xs == ["1", "8"] or both.disputes, "never the wrong one in silence"


def test_a_moved_record_that_the_other_changed_is_both() -> None:
    rows = '[{"id": "a", "v": 1}, {"id": "b", "v": 2}, {"id": "c", "v": 3}]'
    moved = '[{"id": "c", "v": 3}, {"id": "a", "v": 1}, {"id": "b", "v": 2}]'
    for one, two in ((moved, rows.replace("3", "9")), (rows.replace("3", "9"), moved)):
        found = merged(doc(rows, "a.json"), doc(one, "a.json"), doc(two, "a.json"))
        assert not found.disputes
        assert [(row["id"], row["v"]) for row in found.document.plain()] == [("c", 9), ("a", 1), ("b", 2)]


def test_what_both_dropped_or_added_is_no_fault_and_a_second_of_a_name_is_one() -> None:
    base, less = (doc(text, "a.json") for text in ('[{"id": "a"}, {"id": "b"}]', '[{"id": "b"}]'))
    drop = difference(base, less)
    assert applied(less, drop).plain() == less.plain()
    there = doc('<s><r id="n1"/></s>')
    more = difference(there, doc('<s><r id="n1"/><r id="n2" v="1"/></s>'))
    updated = doc('<s><r id="n1"/><r id="n2" v="7"/></s>')
    with pytest.raises(FurnelError, match="already"):
        applied(updated, more)
    assert applied(doc('<s><r id="n1"/><r id="n2" v="1"/></s>'), more).text.count("n2") == 1
