"""Definitions: reading and changing large ones, beside Python's own readers, which keep nothing of how a text is written."""

from __future__ import annotations

import configparser
import csv
import io
import json
import os
import random
import tempfile
import time
import tomllib
import zipfile
from collections.abc import Callable
from pathlib import Path

import lxml.etree

from furnel.mods import definitions, records
from furnel.mods.workspace import create_project, open_workspace
from furnel.texts import Change, document_of


def main() -> None:
    numbers = random.Random(1)
    units = {
        f"unit_{place}": {
            "name": f"Unit {place}", "speed": numbers.random() * 9, "hull": "art/hulls/hull_otter.dds", "armour": place % 99,
            "tags": ["a", "b"], "pos": {"x": 1.5, "y": 2},
        }
        for place in range(30_000)
    }  # fmt: skip
    some = list(units.items())[:2000]
    texts = {
        "rows.csv": "key,a,b,c,d\n"
        + "".join(f"row{n},{n},{n * 2},text {n},{n % 7}\n" for n in range(20_000)),
        "units.json": json.dumps(units, indent=1),
        "units.toml": "".join(
            f'[{name}]\nname = "{row["name"]}"\nspeed = {row["speed"]}\n\n' for name, row in some
        ),
        "units.ini": "".join(
            f"[{name}]\nname = {row['name']}\nspeed = {row['speed']}\n\n" for name, row in some
        ),
        "units.xml": "<all>"
        + "".join(f'<unit id="{name}" speed="{row["speed"]}"/>\n' for name, row in some)
        + "</all>",
    }
    print("Reading as a document that gives back every byte, beside Python's own reader")
    for name, text in texts.items():
        own = _seconds(lambda name=name, text=text: document_of(text.encode(), name).plain())
        peer = _seconds(lambda name=name, text=text: _peer(name, text))
        print(f"  {name:<11} {len(text) / 1e6:5.2f} MB  {own:6.3f} s  {own / peer:5.1f} ×")
    with tempfile.TemporaryDirectory() as scratch:
        _on_the_bench(Path(scratch), texts)


def _on_the_bench(folder: Path, texts: dict[str, str]) -> None:
    from tarnlight.forge import forge

    os.environ["FURNEL_STATE"], os.environ["FURNEL_CACHE"] = str(folder / "state"), str(folder / "cache")
    forge(folder / "game")
    with zipfile.ZipFile(folder / "game" / "data" / "rules.zip", "a") as rules:
        for name in ("rows.csv", "units.json"):
            rules.writestr(name, texts[name])
    (folder / "mod").mkdir()
    space = open_workspace(create_project(folder / "mod", "Large", folder / "game"))
    print("On the bench: the first time, again, a value changed, what is said of it")
    for path in ("rules/rows.csv", "rules/units.json"):
        times = [_seconds(lambda path=path: records.open_book(space, path)) for _ in range(2)]
        book = records.open_book(space, path)
        name = book.sheets[0].names[100]
        line = next(one for one in book.lines(book.sheets[0], name) if one.meaning.types == {"number"})
        change = Change(do="set", at=line.address, to=5 if book.now.is_typed else "5")
        begin = time.perf_counter()
        changed = space.with_project(definitions.with_changes(space, path, [change]))
        times.append(time.perf_counter() - begin)
        swap = changed.project.swap_for(path)
        assert swap is not None
        times.append(_seconds(lambda changed=changed, swap=swap: changed.examine(swap)))
        print(f"  {path:<17} " + "  ".join(f"{seconds:6.3f} s" for seconds in times))
    space.close()


def _seconds(work: Callable[[], object]) -> float:
    begin = time.perf_counter()
    work()
    return time.perf_counter() - begin


def _peer(name: str, text: str) -> object:
    ending = name.rpartition(".")[2]
    if ending == "csv":
        return list(csv.DictReader(io.StringIO(text)))
    if ending == "json":
        return json.loads(text)
    if ending == "toml":
        return tomllib.loads(text)
    if ending == "xml":
        return lxml.etree.fromstring(text)
    parser = configparser.ConfigParser()
    parser.read_string(text)
    return parser
