"""The two files that a game keeps of its mods: the one about a mod, and the load order; in the forms that games have."""

from __future__ import annotations

import io
import json
from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING, Annotated, Any, ClassVar

from pydantic import Field, model_validator

from furnel.errors import FurnelError
from furnel.games.loadorder import in_ini, in_json, in_lines, in_toml, in_xml
from furnel.schema import OneOf, Part, read_toml
from furnel.words import one_line

if TYPE_CHECKING:
    from configparser import ConfigParser

Order = Sequence[tuple[str, bool]]
Entries = list[tuple[str, bool]]
Tree = dict[str, Any]
FACTS = ("id", "name", "version", "author", "summary", "category", "game-version", "credits")
"""What Furnel can say of a mod; `credits` are several lines, the others one."""


class AboutFile(Part):
    """The file about a mod: its `form`, and under which `keys` of it (with dots where they lie deeper) what stands.

    `fixed` are keys that the game wants to be there whatever the mod is.
    """

    form: Annotated[str, OneOf(("toml", "json", "ini", "xml", "lines"))] = "toml"
    keys: dict[str, str] = Field(default={fact: fact for fact in FACTS}, min_length=1)
    fixed: dict[str, str | int | bool] = {}

    @model_validator(mode="after")
    def _known(self) -> AboutFile:
        for fact in self.keys:
            if fact not in FACTS:
                raise ValueError(f"Furnel says nothing called {fact!r} of a mod: it says {', '.join(FACTS)}")
        if self.form in ("ini", "xml"):
            for key in (*self.keys.values(), *self.fixed):
                if "." not in key:
                    raise ValueError(
                        f"in {self.form} {key!r} needs what it lies in before it, as in 'mod.name'"
                    )
        return self

    def write(self, facts: Mapping[str, str | Sequence[str]]) -> str:
        """The file's text for what is known of a mod, by the names in `FACTS`."""
        tree: Tree = {}
        for key, value in self.fixed.items():
            _put(tree, key, value)
        for fact, key in self.keys.items():
            told = facts.get(fact, () if fact == "credits" else "")
            _put(tree, key, told if isinstance(told, str) else [*told])
        return FORMS[self.form].dump(tree)

    def read(self, text: str) -> dict[str, str]:
        """What the text says of a mod, as far as it can be read; `credits` aside."""
        try:
            tree = FORMS[self.form].load(text)
        except _damage():
            return {}
        found = {fact: _get(tree, key) for fact, key in self.keys.items()}
        return {
            fact: one_line(str(value))
            for fact, value in found.items()
            if isinstance(value, str | int | float)
        }


class OrderFile(Part):
    """The load order: its `form`, under which `list` it stands, and what an entry calls a mod's `id` and that it is `on`.

    Without `on` only mods that are on are listed. In plain `lines` each is an id, and `off` goes before one that is not on.
    """

    form: Annotated[str, OneOf(("toml", "json", "ini", "xml", "lines"))] = "toml"
    list: str = "mod"
    id: str = "id"
    on: str = "on"
    off: str = "#"

    def read(self, text: str, where: object = "") -> Entries:
        """Mod ids with their switches, in load order. Raises FurnelError when that cannot be told."""
        try:
            return FORMS[self.form].entries(text, self)
        except _damage() as error:
            why = str(error) or "it is not built as the profile says"
            raise FurnelError(
                "Reading the load order", where=where, why=why, remedy="Correct or delete the file"
            ) from error

    def write(self, text: str, order: Order, where: object = "") -> str:
        """The text with another load order; every other byte stays.

        Raises FurnelError when the old text cannot be read.
        """
        try:
            return FORMS[self.form].with_entries(
                text, self, [(mod, on) for mod, on in order if on or self.on]
            )
        except _damage() as error:
            raise FurnelError("Writing the load order", where=where, why=str(error)) from error


class Form:
    """A form of text, as a tree of texts, numbers, switches and lists, and as a list of mods."""

    name: ClassVar[str]

    def load(self, text: str) -> Tree:
        """The whole text as a tree."""
        raise NotImplementedError

    def dump(self, tree: Tree, old: str = "") -> str:
        """A tree as text."""
        raise NotImplementedError

    def entries(self, text: str, rule: OrderFile) -> Entries:
        """The load order in a text."""
        return _entries_in(self.load(text) if text.strip() else {}, rule)

    def with_entries(self, text: str, rule: OrderFile, order: Order) -> str:
        """The text with another load order, and nothing else changed."""
        raise NotImplementedError


class _Toml(Form):
    name = "toml"

    def load(self, text: str) -> Tree:
        return read_toml(text)

    def dump(self, tree: Tree, old: str = "") -> str:
        import tomlkit

        return tomlkit.dumps(tree)

    def with_entries(self, text: str, rule: OrderFile, order: Order) -> str:
        return in_toml(text, rule.list.split("."), rule.id, rule.on, order)


class _Json(Form):
    name = "json"

    def load(self, text: str) -> Tree:
        found = json.loads(text)
        return found if isinstance(found, dict) else {"": found}

    def dump(self, tree: Tree, old: str = "") -> str:
        whole = tree[""] if set(tree) == {""} else tree
        return json.dumps(whole, indent=2, ensure_ascii=False) + "\n"

    def with_entries(self, text: str, rule: OrderFile, order: Order) -> str:
        if not text.strip():
            tree: Tree = {}
            _put(tree, rule.list, _rows(rule, order))
            return self.dump(tree)
        return in_json(text, rule.list.split(".") if rule.list else [], rule.id, rule.on, order)


class _Ini(Form):
    name = "ini"

    def load(self, text: str) -> Tree:
        parser = self._parser()
        parser.read_string(text)
        return {section: dict(parser[section]) for section in parser.sections()}

    def dump(self, tree: Tree, old: str = "") -> str:
        parser = self._parser()
        for section, values in tree.items():
            parser[section] = {key: _line(value) for key, value in values.items()}
        out = io.StringIO()
        parser.write(out, space_around_delimiters=("=" in old and " = " in old) or not old)
        return out.getvalue()

    def entries(self, text: str, rule: OrderFile) -> Entries:
        """The section's keys are the ids, their values 1 or 0."""
        section = self.load(text).get(rule.list, {}) if text.strip() else {}
        return [(mod, value.strip().lower() in ("1", "true", "yes", "on")) for mod, value in section.items()]

    def with_entries(self, text: str, rule: OrderFile, order: Order) -> str:
        return in_ini(text, rule.list, order)

    @staticmethod
    def _parser() -> ConfigParser:
        from configparser import ConfigParser

        parser = ConfigParser(interpolation=None, comment_prefixes=("#", ";"), strict=True)
        parser.optionxform = str  # type: ignore[assignment, method-assign]
        return parser


class _Xml(Form):
    name = "xml"

    def load(self, text: str) -> Tree:
        root = _xml(text)
        return {root.tag: _element(root)}

    def dump(self, tree: Tree, old: str = "") -> str:
        from lxml import etree

        if len(tree) != 1:
            raise ValueError("XML has one outermost element: let all keys begin with the same name")
        name, value = next(iter(tree.items()))
        root = etree.Element(name)
        _fill(root, value)
        etree.indent(root)
        whole: bytes = etree.tostring(root, xml_declaration=True, encoding="utf-8")
        return whole.decode("utf-8") + "\n"

    def entries(self, text: str, rule: OrderFile) -> Entries:
        """Elements called `list` (with dots: inside others) that have the id, and the switch, as attributes."""
        if not text.strip():
            return []
        found = _xml(text).findall("/".join([".", *self._names(rule)[1:]]))
        return [
            (str(part.attrib[rule.id]), _is_on(part.attrib.get(rule.on, "true")) if rule.on else True)
            for part in found
        ]

    def with_entries(self, text: str, rule: OrderFile, order: Order) -> str:
        names = self._names(rule)
        return in_xml(
            text if text.strip() else f"<{names[0]}>\n</{names[0]}>\n", names, rule.id, rule.on, order
        )

    @staticmethod
    def _names(rule: OrderFile) -> list[str]:
        """The outermost element, those on the way, and the mod's own."""
        return rule.list.split(".") if "." in rule.list else ["mods", rule.list]


class _Lines(Form):
    """`key=value` a line for what is told of a mod; an id a line for the load order."""

    name = "lines"

    def load(self, text: str) -> Tree:
        pairs = (line.partition("=") for line in text.splitlines() if "=" in line and line[:1] != "#")
        tree: Tree = {}
        for key, _, value in pairs:
            _put(tree, key.strip(), value.strip())
        return tree

    def dump(self, tree: Tree, old: str = "") -> str:
        return "".join(f"{key}={_line(value)}\n" for key, value in _flat(tree))

    def entries(self, text: str, rule: OrderFile) -> Entries:
        out = []
        for line in filter(None, (line.strip() for line in text.splitlines())):
            is_off = bool(rule.off) and line.startswith(rule.off)
            mod = line.removeprefix(rule.off).strip() if is_off else line
            if mod and (not is_off or " " not in mod):  # a sentence behind the mark is a comment
                out.append((mod, not is_off))
        return out

    def with_entries(self, text: str, rule: OrderFile, order: Order) -> str:
        return in_lines(text, rule.off, order)


FORMS: dict[str, Form] = {form.name: form for form in (_Toml(), _Json(), _Ini(), _Xml(), _Lines())}


def _damage() -> tuple[type[Exception], ...]:
    """What the libraries raise for a text that they cannot read."""
    from configparser import Error

    from tomlkit.exceptions import TOMLKitError

    return ValueError, KeyError, TypeError, AttributeError, RecursionError, Error, TOMLKitError, FurnelError


def _entries_in(tree: Tree, rule: OrderFile) -> Entries:
    rows = _get(tree, rule.list) if rule.list else tree.get("", [])
    if rows is None:
        return []
    if not isinstance(rows, list):
        raise TypeError(f"{rule.list} is no list")
    out = []
    for row in rows:
        mod = row if isinstance(row, str) else row[rule.id]
        if not isinstance(mod, str):
            raise TypeError(f"an entry of {rule.list} has no text as its {rule.id}")
        out.append((mod, True if isinstance(row, str) or not rule.on else bool(row.get(rule.on, True))))
    return out


def _rows(rule: OrderFile, order: Order) -> list[Any]:
    return [{rule.id: mod, rule.on: on} if rule.on else mod for mod, on in order]


def _put(tree: Tree, key: str, value: object) -> None:
    *above, last = key.split(".")
    for part in above:
        tree = tree.setdefault(part, {})
    tree[last] = value


def _get(tree: Any, key: str) -> Any:
    for part in key.split("."):
        if not isinstance(tree, dict) or part not in tree:
            return None
        tree = tree[part]
    return tree


def _flat(tree: Tree, before: str = "") -> list[tuple[str, object]]:
    out: list[tuple[str, object]] = []
    for key, value in tree.items():
        out += _flat(value, f"{before}{key}.") if isinstance(value, dict) else [(before + key, value)]
    return out


def _line(value: object) -> str:
    """A value on one line."""
    if isinstance(value, list):
        return ", ".join(map(str, value))
    return str(value).lower() if isinstance(value, bool) else " ".join(str(value).split())


def _is_on(text: str) -> bool:
    return text.strip().lower() not in ("0", "false", "no", "off")


def _xml(text: str) -> Any:
    from lxml import etree

    parser = etree.XMLParser(resolve_entities=False, no_network=True, load_dtd=False, huge_tree=False)
    try:
        return etree.fromstring(text.encode("utf-8"), parser)
    except etree.XMLSyntaxError as error:
        raise ValueError(str(error)) from error


def _element(element: Any) -> Any:
    inner = {child.tag: _element(child) for child in element if isinstance(child.tag, str)}
    return inner or (element.text or "").strip()


def _fill(element: Any, value: Any) -> None:
    from lxml import etree

    if not isinstance(value, dict):
        element.text = _line(value)
        return
    for key, part in value.items():
        for one in part if isinstance(part, list) else [part]:
            _fill(etree.SubElement(element, key), one)
