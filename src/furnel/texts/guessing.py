"""Guessing how a game writes its own texts: shapes are tried on some files, and what explains them best is taken."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from furnel.errors import FurnelError
from furnel.texts.described import Form
from furnel.texts.document import Item, Node
from furnel.texts.shaped import ShapedDocument

FILES, _MOST_LETTERS = 12, 300_000
_ENOUGH, _LETTERS, _BETTER = 0.7, 0.6, 0.02
_COMMENTS = ("#", ";", "//", "--", "%")


@dataclass(frozen=True, slots=True)
class Guess:
    """A form, and what it explains of the files that it was tried on: the share of those that it reads, and of the letters of
    these that are in keys and values; `fault` is what the first other one says, with the line."""

    form: Form
    files: float
    letters: float
    fault: str = ""

    @property
    def good(self) -> bool:
        """Whether it is worth being kept."""
        if self.form.shape == "assignments":  # the rest of a program stays text
            return self.files >= 0.5 and self.letters >= 0.25
        return self.files >= _ENOUGH and self.letters >= _LETTERS


def guess_form(ending: str, texts: Sequence[str], files: str = "") -> Guess | None:
    """How texts of one ending are written; None where no shape explains most of them."""
    some = spread(texts)
    best: Guess | None = None
    for form in _candidates(ending, files, some):
        found = weighed(form, some)
        if found.good and (best is None or _score(found) > _score(best) + _BETTER):
            best = found
    return best


def spread(texts: Sequence[str]) -> list[str]:
    """Some of the texts, of all lengths but the longest."""
    known = sorted((text for text in texts if text.strip()), key=len)
    known = [text for text in known if len(text) <= _MOST_LETTERS] or known[:1]
    return known[:: -(-len(known) // FILES)] if known else []


def guesses(ending: str, texts: Sequence[str], files: str = "") -> list[Guess]:
    """Every shape that was tried, the best first."""
    return sorted(
        (weighed(form, texts) for form in _candidates(ending, files, texts)), key=_score, reverse=True
    )


def weighed(form: Form, texts: Sequence[str]) -> Guess:
    """What a form explains of texts."""
    read, letters, whole, fault = 0, 0, 0, ""
    for text in texts:
        try:
            document = ShapedDocument(text, "", form=form)
        except FurnelError as error:
            fault = fault or str(error)
            continue
        mine, all_ = _explained(document)
        if not mine and all_:
            fault = fault or "nothing in it is of this shape"
            continue
        read += 1
        letters += mine
        whole += all_
    return Guess(form, read / max(len(texts), 1), letters / max(whole, 1), fault)


def _score(guess: Guess) -> float:
    return guess.files * guess.letters


def _explained(document: ShapedDocument) -> tuple[int, int]:
    """How many letters are in keys and values, and how many there are outside of comments and blanks."""
    every = sum(
        _letters(token.text)
        for token in document.tokens
        if token.sort not in ("open", "close", "sign", "line")
    )
    mine = sum(_leaves(document, document.root))
    return min(mine, every), every


def _letters(text: str) -> int:
    return len("".join(text.split()))


def _leaves(document: ShapedDocument, node: Node) -> Iterator[int]:
    """The letters of keys and of what they stand for; what has no key in a table explains nothing."""
    if node.kind != "table":
        yield _letters(document.text[node.start : node.end])
        return
    for item in node.items:
        if item.key == "@name" or item.key[1:].isdecimal():
            yield _letters(document.text[item.start : item.end])
        elif item.key_start >= 0 and _is_keyed(document, item):
            closes = document.form.shape == "sections" and item.node.kind == "table" and "[/" in document.text
            yield (item.key_end - item.key_start) * (1 + closes) + 5 * closes
            yield from _leaves(document, item.node)


def _is_keyed(document: ShapedDocument, item: Item) -> bool:
    """Whether a sign tells the key from its value, where the shape has one."""
    form = document.form
    if form.shape != "nested" or not form.assign:
        return True
    between = document.text[item.key_end : max(item.node.start, item.key_end) + 1]
    return (
        any(sign in between for sign in form.assign + "{[(") or "{" in document.text[item.key_end : item.end]
    )


def _candidates(ending: str, files: str, texts: Sequence[str]) -> Iterator[Form]:
    """Shapes that texts look like at all, with the signs that they have; comments may also be what stands in texts."""
    for form in _looked_like(ending, files, texts):
        yield form
        if len(form.comments) > 1:
            yield from (form.model_copy(update={"comments": (sign,)}) for sign in form.comments)


def _looked_like(ending: str, files: str, texts: Sequence[str]) -> Iterator[Form]:
    whole = "\n".join(texts)
    lines = [line.strip() for line in whole.splitlines() if line.strip()]
    if not lines:
        return
    signs = Counter(whole)
    comments = _comments(lines)
    about: dict[str, object] = {"ending": ending, "files": files, "comments": comments, "escape": "\\"}
    if "*/" in whole and any(line.startswith("/*") for line in lines):
        about["block"] = ("/*", "*/")
    sure = [line for line in lines if not line.startswith(comments)] if comments else lines
    if not sure:
        return
    first = sum(line.startswith("(") for line in sure) / len(sure)
    if (first > 0.3 and signs["("] == signs[")"]) or sum(
        text.lstrip("; \n\r\t").startswith("(") for text in texts
    ) > len(texts) / 2:
        yield Form.model_validate(about | {"shape": "lists", "comments": ()})
        if any(line.startswith(";") for line in lines):
            yield Form.model_validate(about | {"shape": "lists", "comments": (";",)})
    quotes = [mark for mark in "\"'`" if _quoting(mark, sure)]
    heads = sum(bool(re.match(r"\[[^\]\"']+\]", line)) for line in sure)
    sectioned = sum(bool(re.search(r"^[ \t]*\[[^\]\"'\n]+\][ \t]*\r?$", text, re.M)) for text in texts) / len(
        texts
    )
    for assign in ("=", ":"):
        pairs = sum(bool(re.match(rf"[^\s{assign}\[]+[^\n{assign}]*{assign}", line)) for line in sure)
        if (heads and pairs + heads > 0.3 * len(sure)) or pairs > 0.75 * len(sure) or sectioned > 0.6:
            yield Form.model_validate(
                about | {"shape": "sections", "assign": assign, "quote": '"' if '"' in quotes else ""}
            )
    if sectioned > 0.6:
        return
    nests = signs["{"] and signs["{"] == signs["}"]
    program = _is_program(sure)
    if nests and not program:
        for assign in ("=", ":", "=:", ""):
            if not assign or any(sign in whole for sign in assign):
                nested = {"shape": "nested", "assign": assign, "separator": ",", "quote": "".join(quotes)}
                ends = ";" if re.search(r";\s*$", whole, re.M) else ""
                yield Form.model_validate(about | nested | {"end": ends})
    if program:
        yield Form.model_validate(
            about | {"shape": "assignments", "separator": ",;", "quote": "".join(quotes)}
        )
        return
    steps = [len(line) - len(line.lstrip()) for line in whole.splitlines() if line.strip()]
    deep = sum(one > 0 for one in steps) / len(steps)
    known = Counter(line.split()[0] for line in sure)
    again = sum(number for number in known.values() if number > 1) / len(sure)
    prose = sum(len(line.split()) > 9 and '"' not in line for line in sure) / len(sure)
    if again > 0.5 and prose < 0.15 and not nests:
        quote = "".join(mark for mark in quotes if mark != "'")
        for assign in ("=", ""):
            if assign and not any(assign in line for line in sure):
                continue
            if deep > 0.1:
                yield Form.model_validate(about | {"shape": "indented", "assign": assign, "quote": quote})
            yield Form.model_validate(about | {"shape": "lines", "assign": assign, "quote": quote})


def _comments(lines: Sequence[str]) -> tuple[str, ...]:
    """Signs that lines begin with, as comments do."""
    return tuple(sign for sign in _COMMENTS if any(line.startswith(sign) and not line.startswith(sign * 12) for line in lines)
                 and sum(line.startswith(sign) for line in lines) < 0.8 * len(lines))  # fmt: skip


def _quoting(mark: str, lines: Sequence[str]) -> bool:
    """Whether a sign stands around texts: in pairs on its line, mostly."""
    some = [line for line in lines if mark in line]
    return bool(some) and sum(line.count(mark) % 2 == 0 for line in some) > 0.9 * len(some)


def _is_program(lines: Sequence[str]) -> bool:
    told = r"(?:function|local function|if|for|while|return|void|else|end|def|class|import|#include|switch|case)\b"
    calls = sum(bool(re.match(r"[\w.:]+ ?\(.*\);?$", line)) for line in lines)
    return sum(bool(re.match(told, line)) for line in lines) > 0.02 * len(lines) or calls > 0.2 * len(lines)
