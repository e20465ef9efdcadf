"""A game's own file of its mods: another order changes nothing but the rows that change, in every form."""

from __future__ import annotations

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.games.modfiles import OrderFile

FILES = {
    "toml": (
        OrderFile(),
        '# mine\nspeed = 3\n\n# first\n[[mod]]\nid = "a"\nnote = "weather"\non = true  # yes\n'
        '\n[[mod]]\nid = "b"\non = false\n\n[video]\nwide = 1\n',
    ),
    "json": (
        OrderFile(form="json", list="load"),
        '{"speed": 3,\n  "load": [\n    {"id": "a", "note": "weather", "on": true},\n'
        '    {"on": false, "id": "b"}\n  ],\n "x": 1e3}\n',
    ),
    "bare": (OrderFile(form="json", list="", on=""), '["a",   "b"]\n'),
    "ini": (
        OrderFile(form="ini", list="Mods"),
        "; my notes\n[Mods]\n; weather\na = 1\nb=0\n\n[Video]\nwide = 1 ; full\n",
    ),
    "xml": (
        OrderFile(form="xml", list="game.mods.mod"),
        '<?xml version="1.0"?>\n<!-- mine -->\n<game>\n <mods>\n  <!-- first -->\n'
        '  <mod note="weather" id="a" on="yes"/>\n  <mod id="b" on="0"/>\n </mods>\n <v wide="1"/>\n</game>\n',
    ),
    "lines": (OrderFile(form="lines"), "# load order, from above to below\n\na\n#b\n"),
}  # fmt: skip


@pytest.mark.parametrize("form", FILES)
@pytest.mark.parametrize("end", ["\n", "\r\n"])
def test_only_the_rows_that_change_are_touched(form: str, end: str) -> None:
    rule, text = FILES[form]
    text = text.replace("\n", end)
    first = rule.read(text)
    assert [mod for mod, _ in first] == ["a", "b"] and rule.write(text, first) == text
    more = rule.write(text, [*first, ("c", True)])
    assert rule.read(more) == [*first, ("c", True)] and rule.write(more, first) == text, (
        "and it goes without a trace"
    )
    assert end == "\n" or "\n" not in more.replace("\r\n", "")
    turned = rule.write(text, first[::-1])
    assert rule.read(turned) == first[::-1] and rule.write(turned, first) == text
    assert sorted(turned) == sorted(text)
    if rule.on:
        off = rule.write(text, [("a", False), ("b", True)])
        assert rule.read(off) == [("a", False), ("b", True)]
        assert off.count("weather") == text.count("weather") and off.count("mine") == text.count("mine")


@given(st.sampled_from(sorted(FILES)), st.integers(0, 1 << 30))
def test_any_order_after_any_other(form: str, seed: int) -> None:
    rule, text = FILES[form]
    draw = random.Random(seed)
    for _ in range(4):
        names = draw.sample("abcdef", draw.randrange(7))
        order = [(name, draw.random() < 0.7 or not rule.on) for name in names]
        text = rule.write(text, order)
        assert rule.read(text) == order
    for kept in ("mine", "wide", "speed"):
        assert (kept in text) == (kept in FILES[form][1])
