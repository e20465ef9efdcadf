"""What Furnel says, gathered from its source, and the files that say it in other languages.

`python -m demo.languages` brings every language's file up to date: texts that are new come in without a translation, those that
nothing says any more go. The files have the format of Qt Linguist (TS 2.1) and can be edited with it.
"""

from __future__ import annotations

import ast
import re
import sys
import tomllib
from collections.abc import Iterator
from functools import cache
from pathlib import Path
from xml.sax.saxutils import escape

import furnel
from furnel.desktop.language import LANGUAGES, language_file, texts_of

SOURCE = Path(furnel.__file__).parent
WORDS = Path(__file__).with_name("words.txt")
"""What is said and cannot be told from other texts of the source: single words, what is put together, texts of libraries."""
_ELSEWHERE = (
    "cli",
    "blocks/bc6h_tables.py",
    "mods/installer.py",
    "mods/mergescript.py",
    "desktop/language.py",
    "desktop/phrases.py",
)
# SQL, style sheets, signatures of kernels, drafts of layouts, patterns: nobody reads these in the window
_NO_TEXT = re.compile(
    r"\s*(SELECT|INSERT|CREATE|PRAGMA|DELETE |\w+\(\w+\[:|void\(|\{ |\[\[|Q[A-Z]\w+[ :]|\(\?P|\\\\|# |#!|\^)"
    r"|(\w+ = |, means = )[\"{\[]"
    r"|.*(\d+px|: \w+;|%\(|\*\.\w+ |user_version)",
    re.DOTALL,
)
# what is put in under these names is a name or a value of the game's, of a mod or a file: it is no word of ours
_THEIRS = (
    "name",
    "value",
    "short_value",
    "shown",
    "mark",
    "winner",
    "mod_name",
    "game_name",
    "author",
    "record",
    "at",
)
_PLACED = re.compile(r"\{[a-z_]{2,}\}")
_BARE_PLACE = re.compile(r"\{[\dn]=?\}")


@cache
def texts_said() -> dict[str, str]:
    """Every text that may be read in the window, and the module that says it first.

    In a text `{0}` to `{9}` stand for what is put in, `{0=}` for a name or a value, `{n}` for a number.
    """
    found: dict[str, str] = {}
    for path in sorted(SOURCE.rglob("*.py")):
        name = path.relative_to(SOURCE).as_posix()
        if not name.startswith(_ELSEWHERE):
            for text, formed in _texts_in(ast.parse(path.read_text("utf-8"))):
                if is_text(text, formed):
                    found.setdefault(text, name)
    for path in sorted(SOURCE.rglob("*.toml")):
        for text in _said_by(tomllib.loads(path.read_text("utf-8"))):
            found.setdefault(text, path.relative_to(SOURCE).as_posix())
    return found | {text: WORDS.name for text in WORDS.read_text("utf-8").splitlines() if text not in found}


def _texts_in(tree: ast.Module) -> Iterator[tuple[str, bool]]:
    """The texts of a module, and whether something is put into them."""
    passed: set[int] = set()
    for node in ast.walk(tree):
        if id(node) in passed:
            continue
        if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant):
            passed.add(id(node.value))  # a docstring
        elif isinstance(node, ast.Assign) and any(
            isinstance(to, ast.Name) and to.id == "__all__" for to in node.targets
        ):
            passed.update(id(inner) for inner in ast.walk(node))
        elif isinstance(node, ast.JoinedStr):
            passed.update(id(part) for part in node.values)
            passed.update(
                id(part.format_spec) for part in node.values if isinstance(part, ast.FormattedValue)
            )
            yield _with_places(node), True
        elif isinstance(node, ast.Constant) and isinstance(node.value, str):
            numbers = iter(range(10))
            yield (
                _PLACED.sub(lambda _, numbers=numbers: f"{{{next(numbers)}}}", node.value),
                bool(_PLACED.search(node.value)),
            )
        elif isinstance(node, ast.Call) and (
            _called(node) in ("TypeVar", "getLogger", "cast") or _is_log(node)
        ):
            passed.update(id(inner) for inner in ast.walk(node))
        elif isinstance(node, ast.keyword) and node.arg == "key":  # of a job
            passed.update(id(inner) for inner in ast.walk(node.value))
        elif isinstance(node, ast.Call) and _called(node) == "count" and len(node.args) > 1:
            yield from ((f"{{n}} {thing}", True) for thing in _one_and_many(node))


def _said_by(told: object) -> Iterator[str]:
    """What a layout or a profile that comes with Furnel says to people."""
    if isinstance(told, dict):
        for key, value in told.items():
            if key in ("title", "why", "called") and isinstance(value, str) and is_text(value):
                yield value
            yield from _said_by(value)
    elif isinstance(told, list):
        for value in told:
            yield from _said_by(value)


def _with_places(node: ast.JoinedStr) -> str:
    out, place = "", 0
    for part in node.values:
        if isinstance(part, ast.Constant):
            out += str(part.value)
        elif isinstance(part, ast.FormattedValue):
            out += f"{{{place}{'=' if _called(part.value) in _THEIRS else ''}}}"
            place += 1
    return out


def _called(node: ast.expr) -> str:
    """What an expression is called: the name of a variable, an attribute or a function."""
    if isinstance(node, ast.Call):
        return _called(node.func)
    return node.attr if isinstance(node, ast.Attribute) else node.id if isinstance(node, ast.Name) else ""


def _is_log(node: ast.Call) -> bool:
    return (
        isinstance(node.func, ast.Attribute)
        and isinstance(node.func.value, ast.Name)
        and node.func.value.id == "log"
    )


def _one_and_many(node: ast.Call) -> list[str]:
    """What `count` says of one thing and of several, where both stand there."""
    told = [
        arg.value for arg in node.args[1:3] if isinstance(arg, ast.Constant) and isinstance(arg.value, str)
    ]
    return [told[0], *(told[1:] or [f"{told[0]}s"])] if told else []


def is_text(text: str, formed: bool = False) -> bool:
    """Whether a text of the source is one that people read: words beside each other, or one word with a capital."""
    bare = _BARE_PLACE.sub("\1", text)
    if _NO_TEXT.match(text) or not re.search(r"[A-Za-z]{2}", bare):
        return False
    if formed:
        return bool(re.search(r"(?:^|[\s(“,])[A-Za-z’']{2,}(?:[\s).,:;?!…”]|$)", bare)) and " " in bare
    return bool(re.search(r"[A-Za-z]\S*\s+\S*[A-Za-z]", bare) or re.fullmatch(r"[A-Z][a-z’]+[….?!:]?", bare))


def write_language(language: str, texts: dict[str, str]) -> int:
    """Write a language's file with all texts that are said; how many of them have no translation."""
    rows, open_ones = [], 0
    for text in texts_said():
        said = texts.get(text, "")
        open_ones += not said
        told = (
            f"<translation>{escape(said)}</translation>"
            if said
            else '<translation type="unfinished"></translation>'
        )
        rows.append(f"<message><source>{escape(text)}</source>\n{told}</message>\n")
    head = '<?xml version="1.0" encoding="utf-8"?>\n<!DOCTYPE TS>\n'
    head += f'<TS version="2.1" language="{language}" sourcelanguage="en">\n'
    Path(str(language_file(language))).write_text(
        f"{head}<context><name>Furnel</name>\n{''.join(rows)}</context>\n</TS>\n", "utf-8"
    )
    texts_of.cache_clear()
    return open_ones


def main() -> int:
    """Bring every language up to date."""
    left = 0
    for language in LANGUAGES:
        if language not in ("system", "en"):
            missing = write_language(language, texts_of(language))
            print(f"{language}: {len(texts_said())} texts, {missing} without a translation")
            left += missing
    return int(left > 0)


if __name__ == "__main__":
    sys.exit(main())
