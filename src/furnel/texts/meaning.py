"""What the values of a definition mean, learned from all their siblings and said by a profile; what does not go with it."""

from __future__ import annotations

import math
import re
from collections import Counter
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from fnmatch import fnmatchcase
from typing import Any, Literal, get_args

from pydantic import Field, model_validator

from furnel.schema import GlobText, Part
from furnel.texts.address import Step, address_text
from furnel.texts.document import Document, Value, scalar_text
from furnel.texts.places import ANY, Place, changed_spots, gather, tables
from furnel.texts.strips import StripRule
from furnel.words import near

Takes = Literal["number", "whole number", "switch", "text", "colour", "asset", "record"]
_COLOUR = re.compile(r"#?(?:[0-9a-fA-F]{6}|[0-9a-fA-F]{8})")
_NUMBER = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")
_FEW, _OFTEN, _MOST_CHOICES = 6, 3, 12
_MOST = 1e300  # beyond it is no number that a game reckons with
_TELLING = 3  # so many numbers tell what is usual


class ValueRule(Part):
    """What the game does with values of one kind of place: of definitions whose inner path matches `file`, at `at`, where `*`
    stands for a record's name and for any item of a list (`*/speed`, `scene/boat/@ref`).

    `takes` is what may stand there; of an asset `of` is a pattern for its path, of a record the definition (and after `#` the
    place in it) whose records it names. `least`, `most`, `above` and `below` bound a number, `choices` a text. What is
    outside breaks, and `why` says what happens then; `strip` says that it is a list of colours, and how it is written.
    `called` and `unit` are for people. A key that a rule speaks of need not stand in any of the game's own records.
    """

    file: GlobText
    at: str = Field(min_length=1)
    called: str = ""
    unit: str = ""
    takes: Takes | None = None
    of: str = ""
    least: float | None = None
    most: float | None = None
    above: float | None = None
    below: float | None = None
    choices: tuple[str, ...] = ()
    strip: StripRule | None = None
    why: str = ""

    @model_validator(mode="after")
    def _belongs_together(self) -> ValueRule:
        if self.takes == "record" and not self.of:
            raise ValueError('a record\'s rule says of which definition, as in of = "rules/boats.toml"')
        return self

    def is_for(self, path: str, place: Place) -> bool:
        """Whether it speaks of a kind of place of a definition."""
        steps = self.at.split("/")
        return (
            fnmatchcase(path, self.file) and len(steps) == len(place) and all(map(fnmatchcase, place, steps))
        )


@dataclass(frozen=True, slots=True)
class Meaning:
    """What is known of a kind of place: the types seen, the lowest and highest number, the texts to choose from, and what its
    texts name (`asset`, `colour`, or a table of records by its name)."""

    types: frozenset[str] = frozenset()
    low: float | None = None
    high: float | None = None
    whole: bool = False
    choices: tuple[str, ...] = ()
    names: str = ""
    count: int = 0
    rule: ValueRule | None = None

    @property
    def usual(self) -> str:
        """The usual range in words, or nothing."""
        if self.low is None or self.high is None:
            return ""
        return f"{_number(self.low)} to {_number(self.high)}"

    @property
    def unit(self) -> str:
        return self.rule.unit if self.rule is not None else ""


@dataclass(frozen=True, slots=True)
class Known:
    """What a game and a mod have: whether a text names an asset, which of them are nearest to one, and the ids of every table
    of records by its name (the definition's path, with `#` and the place for one inside it)."""

    has: Callable[[str], bool] = lambda _: False
    nearest: Callable[[str], str] = lambda _: ""
    tables: Mapping[str, frozenset[str]] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Meanings:
    """What is known of a definition's values: by kind of place, and the keys that tables have there."""

    path: str
    of: dict[Place, Meaning]
    keys: dict[Place, frozenset[str]]
    records: frozenset[Place]


Sort = Literal["keys", "types", "range", "names", "rules", "twins", "strips"]
SORTS: tuple[Sort, ...] = get_args(Sort)


@dataclass(frozen=True, slots=True)
class Fault:
    """A value that does not go with what is known: what is wrong, where, what to do, and why it matters when a profile says."""

    sort: Sort
    address: str
    said: str
    remedy: str = ""
    why: str = ""


def table_name(path: str, place: Place) -> str:
    """What a table of records is called among all: the path of its definition, with the place in it."""
    return f"{path}#{'/'.join(place)}" if place else path


def ids_of(document: Document, path: str) -> dict[str, frozenset[str]]:
    """The ids of every table of records in a definition, by the table's name."""
    return {table_name(path, table.place): frozenset(table.records) for table in tables(document)}


def meanings(
    documents: Sequence[Document], path: str, known: Known, rules: Iterable[ValueRule] = ()
) -> Meanings:
    """What a game's definition shows of its values, together with others of its kind (its siblings) and a profile's rules."""
    records: set[Place] = set()
    keys: dict[Place, set[str]] = {}
    values: dict[Place, list[Value]] = {}
    for document in documents:
        fresh: dict[Place, list[Value]] = {}
        gather(document, fresh, keys, records)
        for place, some in fresh.items():
            values.setdefault(place, []).extend(some if document.is_typed else map(_typed, some))
    said = [rule for rule in rules if fnmatchcase(path, rule.file)]
    found = {place: _learned(path, place, some, known) for place, some in values.items()}
    for place, meaning in found.items():
        rule = next((rule for rule in said if rule.is_for(path, place)), None)
        if rule is not None:
            object.__setattr__(meaning, "rule", rule)
    for rule in said:
        place = tuple(rule.at.split("/"))
        around = place[:-1]
        if (
            place not in found
            and around in keys
            and around not in records
            and not set("*?[") & set(place[-1])
        ):
            found[place] = Meaning(rule=rule)
            keys[around].add(place[-1])
    return Meanings(path, found, {place: frozenset(some) for place, some in keys.items()}, frozenset(records))


def _learned(path: str, place: Place, values: list[Value], known: Known) -> Meaning:
    kinds = set(map(type, values))
    types = frozenset(_TYPES.get(kind, "text") for kind in kinds)
    numbers = values if types == {"number"} else [value for value in values if _type(value) == "number"]
    numbers = [number for number in numbers if abs(number) < _MOST]
    low = high = None
    if len(numbers) >= _TELLING and min(numbers) != max(numbers):
        low, high = float(min(numbers)), float(max(numbers))
    whole = bool(numbers) and all(float(number).is_integer() for number in numbers)
    texts = [value for value in values if isinstance(value, str)] if str in kinds else []
    names, choices = "", tuple[str, ...]()
    if texts and len(texts) == len(values):
        names = _named(path, place, texts, known)
        some = Counter(texts)
        if (
            not names
            and len(texts) >= _FEW
            and len(some) * _OFTEN <= len(texts)
            and len(some) <= _MOST_CHOICES
        ):
            choices = tuple(sorted(some))
    return Meaning(types, low, high, whole, choices, names, len(values))


def _named(path: str, place: Place, texts: list[str], known: Known) -> str:
    some = set(texts)
    if all(map(_COLOUR.fullmatch, some)):
        return "colour"
    if all(text and known.has(text) for text in some):
        return "asset"
    if len(some) < 2:
        return ""
    own = {table_name(path, place[:cut]) for cut in range(len(place))}
    tables = [name for name, ids in known.tables.items() if name not in own and some <= ids]
    return min(tables, key=lambda name: len(known.tables[name]), default="")


def faults(of: Meanings, game: Document, yours: Document, known: Known) -> list[Fault]:
    """What in a definition does not go with what is known of the game's; what is as in the game is never wrong."""
    out: list[Fault] = []
    for spot in changed_spots(yours, game, set(of.records)):
        text = address_text(spot.address) or "the whole"
        meaning, around = of.of.get(spot.place), of.of.get(spot.place[:-1])
        if around is not None and around.rule is not None and around.rule.strip is not None:
            continue  # a colour, judged with its strip
        if isinstance(spot.value, dict):
            out += _of_table(of, spot.place, text, spot.value)
        elif isinstance(spot.value, list) and spot.value and naming_twice(spot.value):
            out.append(
                Fault("twins", text, f"two are called {naming_twice(spot.value)}", "Give one another name")
            )
        if meaning is None:
            continue
        value = (
            spot.value
            if yours.is_typed or isinstance(spot.value, list | dict)
            else _typed(spot.value, meaning.types)
        )
        out += of_value(meaning, value, text, known)
    return out


def _of_table(of: Meanings, place: Place, text: str, table: dict[str, Any]) -> list[Fault]:
    known = of.keys.get(place)
    if known is None or place in of.records:
        return []
    where = "" if text == "the whole" else f"{text}/"
    return [
        Fault("keys", f"{where}{Step(str(key))}", "no other has this key", near(str(key), sorted(known)))
        for key in table
        if str(key) not in known
    ]


def naming_twice(rows: list[Any]) -> str:
    """A name that two items of a list of records have, or nothing."""
    if not all(isinstance(row, dict) for row in rows):
        return ""
    for name in NAMED_BY:
        some = Counter(scalar_text(row[name]) for row in rows if isinstance(row.get(name), str | int))
        if some.total() == len(rows):
            twice, times = some.most_common(1)[0]
            return twice if times > 1 else ""
    return ""


NAMED_BY = ("id", "key", "@id")
"""Fields that no two records of a list may share."""


def of_value(meaning: Meaning, value: Value, text: str, known: Known) -> list[Fault]:
    """What is wrong with a value at a place with a meaning."""
    rule, kind = meaning.rule, _type(value)
    shown = (
        f"{value!r:.60}"
        if isinstance(value, str)
        else scalar_text(value)
        if not isinstance(value, dict | list)
        else kind
    )
    if rule is not None and (wrong := _against(rule, value, known)):
        return [Fault("rules", text, f"{shown} {wrong[0]}", wrong[1], rule.why)]
    if meaning.types and kind not in meaning.types:
        return [
            Fault("types", text, f"{shown} is no {_listed(meaning.types)}", "Write what its siblings have")
        ]
    if rule is not None and rule.takes in ("asset", "record", "colour"):
        return []
    low, high = meaning.low, meaning.high
    if kind == "number" and low is not None and high is not None and not low <= value <= high:
        return [Fault("range", text, f"{shown} is outside of {meaning.usual}", "Try it in the game")]
    if kind == "text" and meaning.names == "asset" and not known.has(value):
        return [Fault("names", text, f"{shown} is no asset", known.nearest(value))]
    if kind == "text" and meaning.names == "colour" and not _COLOUR.fullmatch(value):
        return [Fault("types", text, f"{shown} is no colour", "Write it as 8a5a34")]
    if kind == "text" and meaning.names in known.tables and value not in known.tables[meaning.names]:
        ids = known.tables[meaning.names]
        return [Fault("names", text, f"{shown} is not in {meaning.names}", near(value, sorted(ids)))]
    if kind == "text" and meaning.choices and value not in meaning.choices:
        return [
            Fault(
                "range",
                text,
                f"{shown} is none of {', '.join(meaning.choices)}",
                near(value, meaning.choices),
            )
        ]
    return []


def _against(rule: ValueRule, value: Value, known: Known) -> tuple[str, str] | None:
    """What a rule has against a value, and what to do."""
    if rule.strip is not None:
        return rule.strip.against(value)
    kind = _type(value)
    wanted = {"number": "number", "whole number": "number", "switch": "switch"}.get(rule.takes or "", "text")
    if rule.takes is not None and kind != wanted:
        return f"is no {rule.takes}", f"Write a {rule.takes}"
    if kind == "number":
        number = float(value) if abs(value) < _MOST else math.copysign(math.inf, value)
        if rule.takes == "whole number" and not number.is_integer():
            return "is no whole number", "Write a whole number"
        for wrong, word in (
            (rule.least is not None and number < rule.least, f"is less than {_number(rule.least)}"),
            (rule.most is not None and number > rule.most, f"is more than {_number(rule.most)}"),
            (rule.above is not None and number <= rule.above, f"is not above {_number(rule.above)}"),
            (rule.below is not None and number >= rule.below, f"is not below {_number(rule.below)}"),
        ):
            if wrong:
                return word, "Write another number"
    elif kind == "text":
        if rule.choices and value not in rule.choices:
            return f"is none of {', '.join(rule.choices)}", near(value, rule.choices) or "Choose one of these"
        if rule.takes == "colour" and not _COLOUR.fullmatch(value):
            return "is no colour", "Write it as 8a5a34"
        if rule.takes == "asset" and not known.has(value):
            return "is no asset", known.nearest(value) or "Correct the name, or add the asset"
        if rule.takes == "asset" and rule.of and "/" in value and not fnmatchcase(value, rule.of):
            return f"is not of {rule.of}", "Choose one of these"
        if rule.takes == "record" and value not in known.tables.get(rule.of, frozenset()):
            return f"is not in {rule.of}", near(value, sorted(known.tables.get(rule.of, ())))
    return None


_TYPES = {bool: "switch", int: "number", float: "number", dict: "table", list: "list", type(None): "nothing"}


def _type(value: Value) -> str:
    return _TYPES.get(type(value), "text")


def _typed(value: Value, wanted: frozenset[str] | None = None) -> Value:
    """What a text of a notation without types says; as text where its siblings are texts."""
    if not isinstance(value, str) or (wanted is not None and not wanted & {"number", "switch"}):
        return value
    if value in ("true", "false") and (wanted is None or "switch" in wanted):
        return value == "true"
    return float(value) if _NUMBER.fullmatch(value) and (wanted is None or "number" in wanted) else value


def _number(value: float | None) -> str:
    return f"{value:g}" if value is not None else ""


def _listed(types: frozenset[str]) -> str:
    return " or ".join(sorted(types))


__all__ = [
    "ANY", "SORTS", "Fault", "Known", "Meaning", "Meanings", "ValueRule", "faults", "ids_of", "meanings", "of_value",
    "table_name",
]  # fmt: skip
