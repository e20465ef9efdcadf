"""Guessing how a game writes its own texts: shapes are tried on some files, and what explains them best is taken."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from furnel.errors import FurnelError
from furnel.texts.described import Form
from furnel.texts.document import Item, Node
from furnel.texts.shaped import ShapedDocument

FILES, _MOST_LETTERS = 12, 300_000
_ENOUGH, _LETTERS, _BETTER = 0.7, 0.6, 0.02
_COMMENTS = ("#", ";", "//", "--", "%")
_HEAD = re.compile(r"^[ \t]*\[[^\]\"'\n]+\][ \t]*\r?$", re.MULTILINE)


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
    seen = _Seen.of(texts)
    if seen is None:
        return
    about: dict[str, object] = {"ending": ending, "files": files, "comments": seen.comments, "escape": "\\"}
    if "*/" in seen.whole and any(line.startswith("/*") for line in seen.lines):
        about["block"] = ("/*", "*/")
    sectioned = _share(bool(_HEAD.search(text)) for text in texts) > 0.6
    for signs in _signs_of(seen, texts, sectioned):
        yield Form.model_validate(about | signs)


@dataclass(frozen=True, slots=True)
class _Seen:
    """Texts together: their `lines`, those that are `sure` to be no comments, the signs of comments and quotes."""

    whole: str
    lines: list[str]
    sure: list[str]
    comments: tuple[str, ...]
    quotes: str

    @classmethod
    def of(cls, texts: Sequence[str]) -> _Seen | None:
        whole = "\n".join(texts)
        lines = [line.strip() for line in whole.splitlines() if line.strip()]
        comments = _comments(lines)
        sure = [line for line in lines if not comments or not line.startswith(comments)]
        quotes = "".join(mark for mark in "\"'`" if _quoting(mark, sure))
        return cls(whole, lines, sure, comments, quotes) if sure else None


def _share(which: Iterable[bool]) -> float:
    """How many of some are true, of all."""
    told = [*which]
    return sum(told) / max(len(told), 1)


def _signs_of(seen: _Seen, texts: Sequence[str], sectioned: bool) -> Iterator[dict[str, object]]:
    """The shapes that come into question, with their signs."""
    yield from _as_lists(seen, texts)
    yield from _as_sections(seen, sectioned)
    nests = 0 < seen.whole.count("{") == seen.whole.count("}")
    if sectioned:
        return
    if _is_program(seen.sure):
        yield {"shape": "assignments", "separator": ",;", "quote": seen.quotes}
    elif nests:
        yield from _as_nested(seen)
    else:
        yield from _as_lines(seen)


def _as_lists(seen: _Seen, texts: Sequence[str]) -> Iterator[dict[str, object]]:
    first = _share(line.startswith("(") for line in seen.sure)
    closed = seen.whole.count("(") == seen.whole.count(")")
    begins = _share(text.lstrip("; \n\r\t").startswith("(") for text in texts)
    if (first > 0.3 and closed) or begins > 0.5:
        yield {"shape": "lists", "comments": ()}
        if any(line.startswith(";") for line in seen.lines):
            yield {"shape": "lists", "comments": (";",)}


def _as_sections(seen: _Seen, sectioned: bool) -> Iterator[dict[str, object]]:
    heads = _share(bool(re.match(r"\[[^\]\"']+\]", line)) for line in seen.sure)
    for assign in ("=", ":"):
        pairs = _share(bool(re.match(rf"[^\s{assign}\[]+[^\n{assign}]*{assign}", line)) for line in seen.sure)
        if sectioned or pairs > 0.75 or (heads and pairs + heads > 0.3):
            yield {"shape": "sections", "assign": assign, "quote": '"' if '"' in seen.quotes else ""}


def _as_nested(seen: _Seen) -> Iterator[dict[str, object]]:
    ends = ";" if re.search(r";\s*$", seen.whole, re.MULTILINE) else ""
    for assign in ("=", ":", "=:", ""):
        if not assign or any(sign in seen.whole for sign in assign):
            yield {"shape": "nested", "assign": assign, "separator": ",", "quote": seen.quotes, "end": ends}


def _as_lines(seen: _Seen) -> Iterator[dict[str, object]]:
    known = Counter(line.split()[0] for line in seen.sure)
    again = sum(number for number in known.values() if number > 1) / len(seen.sure)
    prose = _share(len(line.split()) > 9 and '"' not in line for line in seen.sure)
    if again <= 0.5 or prose >= 0.15:
        return
    deep = _share(line[:1].isspace() for line in seen.whole.splitlines() if line.strip())
    for assign in ("=", ""):
        if assign and not any(assign in line for line in seen.sure):
            continue
        for shape in ("indented", "lines") if deep > 0.1 else ("lines",):
            yield {"shape": shape, "assign": assign, "quote": seen.quotes.replace("'", "")}


def _comments(lines: Sequence[str]) -> tuple[str, ...]:
    """Signs that lines begin with, as comments do; a line of nothing but one sign is a ruler."""

    def is_one(sign: str) -> bool:
        begin = [line for line in lines if line.startswith(sign)]
        return len(begin) < 0.8 * len(lines) and any(not line.startswith(sign * 12) for line in begin)

    return tuple(sign for sign in _COMMENTS if is_one(sign))


def _quoting(mark: str, lines: Sequence[str]) -> bool:
    """Whether a sign stands around texts: in pairs on its line, mostly."""
    some = [line for line in lines if mark in line]
    return bool(some) and sum(line.count(mark) % 2 == 0 for line in some) > 0.9 * len(some)


def _is_program(lines: Sequence[str]) -> bool:
    told = r"(?:function|local function|if|for|while|return|void|else|end|def|class|import|#include|switch|case)\b"
    calls = sum(bool(re.match(r"[\w.:]+ ?\(.*\);?$", line)) for line in lines)
    return sum(bool(re.match(told, line)) for line in lines) > 0.02 * len(lines) or calls > 0.2 * len(lines)
