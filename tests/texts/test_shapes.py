"""Notations by their shape: made-up texts of known truth, written here, guessed, read, changed to the byte."""

from __future__ import annotations

import random
from collections.abc import Callable
from typing import Any

import pytest

from furnel.errors import FurnelError
from furnel.texts import Form, document_of, guess_form, parse_address, taken_apart, use_forms
from furnel.texts.shaped import ShapedDocument

KINDS, KEYS = ("boat", "quay", "lamp"), ("speed", "oil", "crew", "wind", "depth")
WORDS = ("moss", "kettle", "otter", "fjell", "reed")
Record = tuple[str, str, dict[str, str], list[Any]]


def records(chance: random.Random, deep: int) -> list[Record]:
    out = []
    for number in range(chance.randint(2, 5)):
        values = {
            key: chance.choice((str(chance.randint(-9, 99)), f"{chance.random():.2f}", chance.choice(WORDS)))
            for key in chance.sample(KEYS, chance.randint(2, 4))
        }
        values["title"] = f"The {chance.choice(WORDS)} of {number}"
        inner = records(chance, deep - 1) if deep and chance.random() < 0.5 else []
        out.append((chance.choice(KINDS), chance.choice(WORDS) + str(number), values, inner))
    return out


def quiet(chance: random.Random, sign: str, indent: str) -> str:
    return f"{indent}{sign} {chance.choice(WORDS)}\n" if chance.random() < 0.3 else ""


def spoken(value: str) -> str:
    return f'"{value}"' if " " in value else value


def lists(chance: random.Random, some: list[Record], pad: str = "") -> str:
    return "".join(
        quiet(chance, ";", pad)
        + f'{pad}({kind} "{name}"\n'
        + "".join(f"{pad}  ({key} {spoken(value)})\n" for key, value in values.items())
        + lists(chance, inner, pad + "  ")
        + f"{pad})\n"
        for kind, name, values, inner in some
    )


def nested(chance: random.Random, some: list[Record], pad: str = "") -> str:
    return "".join(
        quiet(chance, "//", pad)
        + f"{pad}{kind} {name} {{\n"
        + "".join(f"{pad}\t{key} = {spoken(value)};\n" for key, value in values.items())
        + nested(chance, inner, pad + "\t")
        + f"{pad}}}\n"
        for kind, name, values, inner in some
    )


def bare(chance: random.Random, some: list[Record], pad: str = "") -> str:
    return nested(chance, some, pad).replace(" = ", " ").replace(";\n", "\n").replace("//", "#")


def indented(chance: random.Random, some: list[Record], pad: str = "") -> str:
    return "".join(
        quiet(chance, "#", pad)
        + f'{pad}{kind} "{name}"\n'
        + "".join(f"{pad}\t{key} {spoken(value)}\n" for key, value in values.items())
        + indented(chance, inner, pad + "\t")
        for kind, name, values, inner in some
    )


def tagged(chance: random.Random, some: list[Record], pad: str = "") -> str:
    return "".join(
        quiet(chance, "#", pad)
        + f"{pad}[{kind}]\n{pad}    id={name}\n"
        + "".join(f"{pad}    {key}={spoken(value)}\n" for key, value in values.items())
        + tagged(chance, inner, pad + "    ")
        + f"{pad}[/{kind}]\n"
        for kind, name, values, inner in some
    )


def plain(some: list[Record], name: str) -> list[tuple[str, Any]]:
    """The truth, as (key, value) pairs; `name` is what the names stand under."""
    return [
        (kind, [(name, called), *values.items(), *plain(inner, name)]) for kind, called, values, inner in some
    ]


def pairs(node: Any) -> Any:
    """What was read, in the same form."""
    return [
        (item.key, item.node.value if item.node.kind == "scalar" else pairs(item.node)) for item in node.items
    ]


SHAPES: dict[str, tuple[Callable[..., str], str, str]] = {
    "lists": (lists, "lists", "@name"),
    "nested": (nested, "nested", "@name"),
    "bare": (bare, "nested", "@name"),
    "indented": (indented, "indented", "@name"),
    "tagged": (tagged, "sections", "id"),
}


@pytest.mark.parametrize("seed", range(20))
@pytest.mark.parametrize("name", SHAPES)
def test_a_form_is_guessed_read_and_every_value_changed_to_the_byte(name: str, seed: int) -> None:
    write, shape, called = SHAPES[name]
    chance = random.Random(f"{name} {seed}")
    truths = [records(chance, 3) for _ in range(6)]
    texts = [write(chance, truth) for truth in truths]
    if seed % 2:
        texts = [text.replace("\n", "\r\n") for text in texts]
    guess = guess_form(".reed", texts)
    assert guess is not None and guess.form.shape == shape and guess.files == 1 and guess.letters > 0.9
    for truth, text in zip(truths, texts, strict=True):
        document = ShapedDocument(text, form=guess.form)
        assert pairs(document.root) == plain(truth, called)
        leaves = [(node, pick) for node, pick in _leaves(document.root, "")]
        for node, address in chance.sample(leaves, min(len(leaves), 8)):
            wanted = chance.choice(("17", "quay-side", "two words"))
            made = document.set(parse_address(address), wanted)
            before, after = text[: node.start], text[node.end :]
            assert made.text.startswith(before) and made.text.endswith(after)
            assert made.look(parse_address(address)) == wanted and len(_leaves(made.root, "")) == len(leaves)


def _leaves(node: Any, above: str) -> list[tuple[Any, str]]:
    out, seen = [], dict[str, int]()
    for place, item in enumerate(node.items):
        number = seen[item.key] = seen.get(item.key, -1) + 1
        here = f"{above}{item.key}[{number}]" if item.key else f"{above}[{place}]"
        out += [(item.node, here)] if item.node.kind == "scalar" else _leaves(item.node, here + "/")
    return out


@pytest.mark.parametrize("seed", range(8))
@pytest.mark.parametrize("name", SHAPES)
def test_records_are_added_like_others_and_dropped_again(name: str, seed: int) -> None:
    write, shape, called = SHAPES[name]
    chance = random.Random(f"{name} {seed}")
    truth = records(chance, 1)
    text = write(random.Random(0), truth)
    guess = guess_form(".reed", [text, *(write(chance, records(chance, 2)) for _ in range(5))])
    assert guess is not None and guess.form.shape == shape
    document = ShapedDocument(text, form=guess.form)
    kind, _, values, _ = truth[-1]
    fresh = {called: "brandnew", **dict.fromkeys(values, "7"), "title": "Quite another"}
    made = document.add((), kind, fresh)
    assert pairs(made.root) == [*plain(truth, called), (kind, list(fresh.items()))]
    assert made.text.startswith(text.rstrip()) and all(line in made.text for line in text.splitlines())
    many = sum(item.key == kind for item in document.root.items)
    assert pairs(made.drop(parse_address(f"{kind}[{many}]")).root) == plain(truth, called)


SPEC = """; how the harbour is drawn
[boats]
*include "more/reeds.list"
name = _("The \\"quick\\" otter")   ; spoken
help = _("One line,
and another.")
word = _ "spoken"
sizes = 96, 48
tags  = "small", ; first
        "wet"
rows =
    { "kind", "speed", "title"
      ; a comment
      "otter", 5, _("Otter, young")
      "kettle", 2, _("Kettle")
    }
[frame]
at=1,2,3
at=4,5,6
[frame]
at=7,8,9
"""


def test_sections_have_marked_texts_lists_over_lines_tables_and_keys_again_and_again() -> None:
    form = Form(ending=".spec", shape="sections", comments=(";",), escape="\\")
    document = ShapedDocument(SPEC, form=form)
    boats = document.look(parse_address("boats"))
    assert boats == {
        "@line": '*include "more/reeds.list"',
        "name": 'The "quick" otter',
        "help": "One line,\nand another.",
        "word": "spoken",
        "sizes": ["96", "48"],
        "tags": ["small", "wet"],
        "rows": [
            {"kind": "otter", "speed": "5", "title": "Otter, young"},
            {"kind": "kettle", "speed": "2", "title": "Kettle"},
        ],
    }
    assert document.look(parse_address("frame[1]/at")) == ["7", "8", "9"]
    changed = document.set(parse_address("boats/rows[kind=kettle]/title"), 'A "new" one')
    assert changed.text == SPEC.replace('_("Kettle")', '_("A \\"new\\" one")')
    assert document.set(parse_address("frame[0]/at[1]/[2]"), "x").text == SPEC.replace("4,5,6", "4,5,x")
    added = document.add(parse_address("boats/rows"), "", {"kind": "reed", "speed": "1", "title": "Reed"})
    assert '"kettle", 2, _("Kettle")\n      "reed", 1, _("Reed")' in added.text


PROGRAM = """-- what a boat is
local speed = 5.5
local function row(boat)
  if boat.oars == 2 then speed = speed * 2 end
end
boats = {
  otter = { oars = 2, title = "Otter", ["long name"] = 'The Otter' },
  crews = { 3, 4, 5 }, -- by size
}
row(boats.otter)
"""


def test_of_a_program_only_what_stands_alone_is_a_record() -> None:
    form = Form(
        ending=".lua", shape="assignments", comments=("--",), separator=",;", quote="\"'", escape="\\"
    )
    document = ShapedDocument(PROGRAM, form=form)
    assert document.plain() == {
        "speed": "5.5",
        "boats": {
            "otter": {"oars": "2", "title": "Otter", "long name": "The Otter"},
            "crews": ["3", "4", "5"],
        },
    }
    assert document.set(parse_address("boats/otter/long name"), "It's").text == PROGRAM.replace(
        "The Otter", "It\\'s"
    )
    added = document.add(parse_address("boats/crews"), "", "6")
    assert "{ 3, 4, 5, 6 }, -- by size" in added.text


@pytest.mark.parametrize(
    ("form", "text", "why"),
    [
        ({"shape": "lists"}, "(boat (speed 5)", "never closed"),
        ({"shape": "lists"}, "(boat) speed", "outside of all brackets"),
        ({"shape": "nested"}, "boat { speed = 5 ]", "stands here"),
        ({"shape": "sections"}, "[boat]\n[oar]\n[/boat]", "closes nothing"),
        ({"shape": "sections"}, 'a = "never', "never closed"),
    ],
)
def test_what_does_not_fit_is_said_with_its_line(form: dict[str, Any], text: str, why: str) -> None:
    with pytest.raises(FurnelError, match=rf"line \d.*{why}"):
        ShapedDocument(text, "harbour.reed", form=Form(ending=".reed", **form))


def test_prose_is_no_form() -> None:
    prose = "The otter rows home. It is late, and nobody at the quay has seen the lamp go out.\n" * 30
    assert guess_form(".txt", [prose, prose.replace("otter", "kettle")]) is None


def test_a_form_for_some_paths_stands_before_that_of_the_ending() -> None:
    try:
        use_forms(
            [
                Form(ending=".txt", shape="lines"),
                Form(ending="", files="rules/*", shape="lists", encoding="latin-1"),
            ]
        )
        assert document_of(b"(boat (speed 5))", "rules/otter.txt").plain() == {"boat": {"speed": "5"}}
        assert (
            document_of("(boat (n \xe9))".encode("latin-1"), "rules/none").look(parse_address("boat/n"))
            == "\xe9"
        )
        assert document_of(b"boat 5", "otter.txt").plain() == {"boat": "5"}
        assert not taken_apart("otter") and taken_apart("rules/otter")
    finally:
        use_forms([])
