"""What values mean is learned from their siblings, and what does not go with it is told by where it stands."""

from __future__ import annotations

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.texts import Known, Meanings, ValueRule, document_of, faults, ids_of, meanings

BOATS = (
    b'[otter]\nname = "O"\nhull = "a/otter.dds"\nspeed = 3.2\n[heron]\nname = "H"\nhull = "a/heron.dds"\nspeed = 4\n'
    b'[gull]\nname = "G"\nhull = "a/gull.dds"\nspeed = 2.5\n'
)
ASSETS = ("a/otter.dds", "a/heron.dds", "a/gull.dds", "fog", "reel")
KNOWN = Known(
    lambda name: name in ASSETS, lambda name: "The nearest: a/otter.dds" if "ot" in name else "",
    {"boats.toml": frozenset({"otter", "heron", "gull"})},
)  # fmt: skip


def told(path: str, own: bytes, yours: bytes, *rules: ValueRule) -> list[tuple[str, str]]:
    game = document_of(own, path)
    found = faults(meanings([game], path, KNOWN, rules), game, document_of(yours, path), KNOWN)
    return [(fault.sort, fault.address) for fault in found]


@pytest.mark.parametrize(
    ("old", "new", "wrong"),
    [
        (b"speed = 3.2", b'speed = "fast"', [("types", "otter/speed")]),
        (b"speed = 3.2", b"speed = [3.2]", [("types", "otter/speed")]),
        (b"speed = 3.2", b"speed = 3.9", []),
        (b"speed = 3.2", b"speed = 9", [("range", "otter/speed")]),
        (b"speed = 3.2", b"sped = 3.2", [("keys", "otter/sped")]),
        (b'"a/otter.dds"', b'"a/otta.dds"', [("names", "otter/hull")]),
        (b'"O"', b'"anything at all"', []),
        (b"[heron]", b"[tern]", []),
    ],
)  # fmt: skip
def test_a_value_is_compared_with_its_siblings(old: bytes, new: bytes, wrong: list[tuple[str, str]]) -> None:
    assert told("boats.toml", BOATS, BOATS.replace(old, new)) == wrong


SCENES = b'<s><a id="1" b="otter" m="fog"/><a id="2" b="heron" m="reel"/><a id="3" b="otter" m="fog"/></s>'


@pytest.mark.parametrize(
    ("path", "own", "yours", "wrong"),
    [
        ("p.json", b'{"quay": ["fog", "reel"], "lamp": ["fog"]}', b'{"quay": ["fig"], "lamp": []}', [("names", "quay[=fig]")]),
        ("s.xml", SCENES, SCENES.replace(b'id="1" b="otter"', b'id="1" b="ottor"'), [("names", "a[@id=1]/@b")]),
        ("s.xml", SCENES, SCENES.replace(b'm="reel"', b'mood="reel"'), [("keys", "a[@id=2]/@mood")]),
        ("t.csv", b"key,size\na,1\nb,2\n", b"key,size\na,big\nb,2\n", [("types", "[key=a]/size")]),
        ("t.csv", b"key,size\na,1\nb,2\n", b"key,size\na,1\na,2\n", [("twins", "the whole")]),
        ("c.ini", b"[a]\nx=1\n[b]\nx=2\n", b"[a]\ny=1\n[b]\nx=2\n", [("keys", "a/y")]),
        ("c.json", b'{"a": "8a5a34", "b": "ffb45a"}', b'{"a": "8a5a3", "b": "ffb45a"}', [("types", "a")]),
        ("l.json", b'[["8a5a34", "ffb45a"]]', b'[["8a5a34", "teal"]]', [("types", "[0]/[=teal]")]),
    ],
)  # fmt: skip
def test_every_notation_is_looked_into(
    path: str, own: bytes, yours: bytes, wrong: list[tuple[str, str]]
) -> None:
    assert told(path, own, yours) == wrong
    assert told(path, own, own) == []


@pytest.mark.parametrize(
    ("rule", "value", "says"),
    [
        ({"takes": "number", "below": 6}, b"6", "is not below 6"),
        ({"takes": "number", "below": 6}, b"3.9", ""),
        ({"takes": "whole number"}, b"3.5", "is no whole number"),
        ({"least": 3}, b"2.6", "is less than 3"),
        ({"most": 3}, b"3.1", "is more than 3"),
        ({"above": 0}, b"0", "is not above 0"),
        ({"takes": "switch"}, b"1", "is no switch"),
        ({"takes": "record", "of": "boats.toml"}, b'"tern"', "is not in boats.toml"),
        ({"takes": "record", "of": "boats.toml"}, b'"gull"', ""),
        ({"takes": "asset", "of": "b/*"}, b'"a/otter.dds"', "is not of b/*"),
        ({"takes": "asset", "of": "a/*"}, b'"a/otto.dds"', "is no asset"),
        ({"takes": "colour"}, b'"teal"', "is no colour"),
        ({"choices": ["reel", "fog"]}, b'"fig"', "is none of reel, fog"),
    ],
)  # fmt: skip
def test_a_profile_forbids_with_its_reason(rule: dict[str, object], value: bytes, says: str) -> None:
    said = ValueRule.model_validate({"file": "*.toml", "at": "*/speed", "why": "The hull planes", **rule})
    game = document_of(BOATS, "boats.toml")
    yours = document_of(BOATS.replace(b"speed = 3.2", b"speed = " + value), "boats.toml")
    found = [
        one
        for one in faults(meanings([game], "boats.toml", KNOWN, [said]), game, yours, KNOWN)
        if one.sort == "rules"
    ]
    assert [(one.address, one.why) for one in found] == ([("otter/speed", "The hull planes")] if says else [])
    assert not says or says in found[0].said


def of(path: str, own: bytes) -> Meanings:
    return meanings([document_of(own, path)], path, KNOWN)


def test_what_siblings_show() -> None:
    found = of("boats.toml", BOATS).of
    assert (found["*", "speed"].low, found["*", "speed"].high, found["*", "speed"].usual) == (
        2.5,
        4,
        "2.5 to 4",
    )
    assert found["*", "hull"].names == "asset" and found["*", "name"].names == ""
    assert of("s.xml", SCENES).of["a", "@b"].names == "boats.toml"
    moods = [{"id": n, "mood": "calm" if n % 2 else "wild"} for n in range(8)]
    assert of("m.json", json.dumps(moods).encode()).of["*", "mood"].choices == ("calm", "wild")
    assert ids_of(document_of(SCENES, "s.xml"), "s.xml") == {"s.xml#a": frozenset("123")}


@given(st.lists(st.floats(-1e6, 1e6), min_size=3, max_size=9, unique=True), st.floats(-2e6, 2e6))
def test_a_number_is_usual_when_it_lies_among_its_siblings(own: list[float], new: float) -> None:
    rows = {f"r{n}": {"x": value, "y": 1} for n, value in enumerate(own)}
    yours = rows | {"new": {"x": new, "y": 1}}
    found = told("a.json", json.dumps(rows).encode(), json.dumps(yours).encode())
    assert found == ([] if min(own) <= new <= max(own) else [("range", "new/x")])


def test_numbers_beyond_all_use_are_judged_and_break_nothing() -> None:
    own = b'[{"id": "a", "x": 1}, {"id": "b", "x": 2}, {"id": "c", "x": 3}]'
    huge = own.replace(b'"x": 2', b'"x": ' + b"9" * 400)
    rule = ValueRule(file="t.json", at="*/x", takes="whole number", most=9)
    assert told("t.json", own, huge) == [("range", "[id=b]/x")]
    assert told("t.json", own, huge, rule) == [("rules", "[id=b]/x")]
    assert told("t.json", huge, huge.replace(b'"x": 1', b'"x": 7')) == []
