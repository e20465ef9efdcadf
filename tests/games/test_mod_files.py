"""The file about a mod and the load order, in every form, read back by readers of others."""

from __future__ import annotations

import configparser
import json
import tomllib
from xml.etree import ElementTree

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.errors import FurnelError
from furnel.games.modfiles import FORMS, AboutFile, OrderFile

FACTS = {
    "id": "moss",
    "name": "Moss & Lichen",
    "version": "1.2",
    "author": "Åse Tveit",
    "credits": ["A, own work", "B"],
}
IDS = st.from_regex(r"[a-z][a-z0-9-]{0,12}", fullmatch=True)
ORDERS = st.lists(st.tuples(IDS, st.booleans()), unique_by=lambda row: row[0], max_size=6)
RULES = [
    OrderFile(),
    OrderFile(list="game.mods"),
    OrderFile(form="json", list="load", id="mod", on="active"),
    OrderFile(form="json", list="load.order", on=""),
    OrderFile(form="json", list="", on=""),
    OrderFile(form="ini", list="Mods"),
    OrderFile(form="xml", list="mods.mod"),
    OrderFile(form="xml", list="settings.mods.mod", on="enabled"),
    OrderFile(form="lines"),
    OrderFile(form="lines", on=""),
]  # fmt: skip


@given(st.sampled_from(RULES), ORDERS, ORDERS)
def test_an_order_is_read_as_it_was_written(
    rule: OrderFile, first: list[tuple[str, bool]], second: list[tuple[str, bool]]
) -> None:
    text = rule.write(rule.write("", first), second)
    assert rule.read(text) == (second if rule.on else [row for row in second if row[1]])


def test_what_else_stands_in_the_file_stays() -> None:
    order = [("b", True), ("a", False)]
    toml = OrderFile().write('# mine\nspeed = 3\n\n[[mod]]\nid = "a"\non = true\n', order)
    assert toml.startswith("# mine\nspeed = 3") and tomllib.loads(toml)["mod"][0] == {"id": "b", "on": True}
    told = json.loads(OrderFile(form="json").write('{"speed": 3, "mod": []}', order))
    assert told == {"speed": 3, "mod": [{"id": "b", "on": True}, {"id": "a", "on": False}]}
    ini = configparser.ConfigParser()
    ini.read_string(OrderFile(form="ini", list="Mods").write("[Video]\nwide = 1\n[Mods]\na = 1\n", order))
    assert dict(ini["Mods"]) == {"b": "1", "a": "0"} and ini["Video"]["wide"] == "1"
    xml = OrderFile(form="xml", list="game.mod").write("<game><sound on='1'/><mod id='a'/></game>", order)
    root = ElementTree.fromstring(xml)
    assert [(part.tag, part.get("id")) for part in root] == [("sound", None), ("mod", "b"), ("mod", "a")]
    lines = OrderFile(form="lines").write("# load order, from above to below\n#a\nb\n", order)
    assert lines.splitlines() == ["# load order, from above to below", "b", "#a"]


@pytest.mark.parametrize("form", sorted(FORMS))
@pytest.mark.parametrize("text", ["[[[", "{", "<a", "= =\n[", '{"mod": 3}', 'mod = "x"', "\0"])
def test_damage_is_an_error_or_an_order_and_nothing_else(form: str, text: str) -> None:
    rule = OrderFile(form=form)
    try:
        assert all(isinstance(mod, str) and isinstance(on, bool) for mod, on in rule.read(text, "order.txt"))
    except FurnelError as error:
        assert error.where == "order.txt" and error.remedy
    assert AboutFile(form=form, keys={"name": "mod.name"}).read(text) == {} or form == "lines"


def test_a_file_about_a_mod_has_the_games_own_keys() -> None:
    keys = {"id": "mod.slug", "name": "mod.title", "version": "mod.release", "credits": "mod.thanks"}
    fixed: dict[str, str | int | bool] = {"mod.api": 4, "mod.beta": False}
    made = {form: AboutFile(form=form, keys=keys, fixed=fixed).write(FACTS) for form in FORMS}
    wanted = {
        "api": 4,
        "beta": False,
        "slug": "moss",
        "title": "Moss & Lichen",
        "release": "1.2",
        "thanks": FACTS["credits"],
    }
    assert tomllib.loads(made["toml"])["mod"] == json.loads(made["json"])["mod"] == wanted
    ini = configparser.ConfigParser()
    ini.read_string(made["ini"])
    assert (
        ini["mod"]["title"] == "Moss & Lichen" and ini["mod"]["api"] == "4" and ini["mod"]["beta"] == "false"
    )
    root = ElementTree.fromstring(made["xml"])
    assert root.tag == "mod" and root.findtext("title") == "Moss & Lichen"
    assert [part.text for part in root.findall("thanks")] == FACTS["credits"]
    assert "mod.title=Moss & Lichen\n" in made["lines"]
    for form, text in made.items():
        told = AboutFile(form=form, keys=keys).read(text)
        assert (told["id"], told["name"], told["version"]) == ("moss", "Moss & Lichen", "1.2"), form


def test_what_nobody_knows_of_a_mod_is_refused_with_what_is_known() -> None:
    with pytest.raises(ValueError, match=r"'colour'.*credits"):
        AboutFile(keys={"colour": "colour"})
    with pytest.raises(ValueError, match="before it"):
        AboutFile(form="ini", keys={"name": "name"})
