"""What is said in another language: whole texts, and texts with places for what is put into them."""

from __future__ import annotations

import re
from collections import Counter, defaultdict
from collections.abc import Iterable, Iterator, Mapping
from functools import cache, lru_cache
from itertools import chain
from typing import NamedTuple

_PLACE = re.compile(r"\{([\dn])=?\}")
_WORD = re.compile(r"[^\W\d_]+(?:[’'][^\W\d_]+)*")
_TAG = re.compile(r"(<[^>]*>|&nbsp;)")
_MARK = re.compile(r"[▸▾✕✓▲●✎+−×]\s+")
_ENDS = (".", "…", ":", "!", "?", ",", ")")
_BETWEEN = ("\n\n", "\n", ". ", " · ", "   ", "  (", "; ", " — ", ": ", ", ", " (", "  ")
_APART = ("\n", ". ", "; ", " · ", "   ", "  (")  # hardly ever stands inside a place
_CROSSING = (*_APART, ", and ", ": ")
# what stands between these can be somebody's sentence
_CLAUSES = ("\n\n", "\n", ". ", "; ", ": ", " · ", "   ", "  (")
_ONCE = (": ", ", ")  # taken apart at the first one
_JOINS = " ,;·\n"
_QUOTES = ("“", "‘", "'", '"', "`")
# what is left of a sentence that is not known; names of things have none of these
_ENGLISH = frozenset(
    re.findall(
        r"\w+",
        "an and are as at be but by for has have in is it its no not of on or that the their this to was with",
    )
)
_CROSSED = 5  # pieces that it counts as when a place has something of _APART in it
_LONG = 120  # letters from which on a text is taken apart first
_LONGEST = 4000  # letters that a text of ours may have: what has more is somebody's


class _Said(NamedTuple):
    """A text in the language: whether English is left in it (1: in a clause of its own, 2: amidst), how many words were left as
    they are, of how many pieces it is."""

    broken: int
    left: int
    pieces: int
    text: str


class Phrases:
    """A language's texts by what they are in English.

    A key may have places, `{0}` to `{9}` in the order in which they come, `{0=}` where a name or a value of somebody's stands,
    `{n}` for a number; its text has the same ones in any order, without the sign. A text that is put together from several is
    read in the way that leaves the fewest words as they are: as a whole, by its shape, or in parts (what stands between tags,
    lines, sentences, clauses). What stands in a place is looked for in the same way, unless it is somebody's, as what is quoted
    is. What is not known stays as it is: a clause of its own amid others (a message of a library), or the whole text when it
    would come out half in English.
    """

    def __init__(self, texts: Mapping[str, str]) -> None:
        self._texts = {**_bare(texts), **texts}
        shapes = {key: _words_apart(key) for key in self._texts if _PLACE.search(key)}
        often = Counter(word for words in shapes.values() for word in set(words))
        self._shapes: dict[str, list[str]] = defaultdict(list)
        for key, words in shapes.items():
            if words:
                self._shapes[min(words, key=lambda word: (often[word], -len(word)))].append(key)
        self._read = lru_cache(16384)(self._ways)
        self.of = lru_cache(8192)(self._of)

    def _of(self, text: str) -> str | None:
        """A text in the language; None where it has none."""
        if len(text) > _LONGEST:
            return None
        parts = _TAG.split(text)
        if len(parts) > 1:
            return "".join(part if place % 2 else self.of(part) or part for place, part in enumerate(parts))
        bare = text.strip()
        if not _WORD.search(bare):
            return None
        found = self._read(bare)
        if found.broken > 1 or found.text == bare:
            return None
        return text[: text.index(bare[0])] + found.text + text[len(text.rstrip()) :]

    def _ways(self, text: str) -> _Said:
        """The best way to read a text."""
        if (mark := _MARK.match(text)) is not None and mark.end() < len(text):
            inner = self._read(text[mark.end() :])
            return inner._replace(text=mark[0] + inner.text)
        if (whole := self._whole(text)) is not None:
            return _Said(0, 0, 1, whole)
        english = any(word.strip(".,:;()!?…").lower() in _ENGLISH for word in text.split())
        best = raw = _Said(2 * english, _words_in(text), 1, text)
        if not raw.left:
            return raw
        if len(text) > _LONG:
            for said in self._in_parts(text, _APART):
                if not said.broken and not said.left:
                    return said
        for said in chain(self._shaped(text), self._in_parts(text, _BETWEEN)):
            best = min(best, said, key=lambda one: one[:3])
            if not best.broken and not best.left and best.pieces < _CROSSED:
                break
        return raw if best.broken > 1 else best

    def _whole(self, text: str) -> str | None:
        if (said := self._cased(text)) is not None:
            return said
        for sign in _ENDS:
            if text.endswith(sign) and (said := self._cased(text[: -len(sign)])) is not None:
                return said + sign
        for sign in (".", "…", ":"):
            if (said := self._cased(text + sign)) is not None:
                return said.removesuffix(sign)
        return None

    def _cased(self, text: str) -> str | None:
        """A text that is known as it is, or with another first letter."""
        if text in self._texts:
            return self._texts[text]
        said = self._texts.get(text[:1].swapcase() + text[1:])
        if said is None or _PLACE.search(said):
            return None
        return said[:1].upper() + said[1:] if text[:1].isupper() else said

    def _shaped(self, text: str) -> Iterator[_Said]:
        """By every shape that fits; those with words in front first, then those with more of their own."""
        keys = {key for word in set(_WORD.findall(text)) for key in self._shapes.get(word, ())}
        for key in sorted(keys, key=lambda key: (key[0] == "{", -len(key), key)):
            for bare in (text, text.rstrip(".…)")):
                if (found := _shape(key).fullmatch(bare)) is not None:
                    yield self._filled(key, found.groups(), text[len(bare) :])
                    break

    def _filled(self, key: str, values: Iterable[str], end: str) -> _Said:
        """A key's text with what stands in its places."""
        told, names = [], [found[1] for found in _PLACE.finditer(key)]
        for name, value in zip(names, values, strict=True):
            before, _, after = key.partition(f"{{{name}")
            bare = value.strip()
            if not bare or after.startswith("=") or before.endswith(_QUOTES):
                told.append(_Said(0, _words_in(value), 0, value))
                continue
            inner = self._read(bare)
            crossed = _CROSSED * any(sign in bare for sign in _CROSSING)
            apart = inner.broken > 1 and before.endswith((": ", "("))
            told.append(
                _Said(
                    1 if apart else inner.broken,
                    inner.left,
                    inner.pieces + crossed,
                    value.replace(bare, inner.text, 1),
                )
            )
        text = _PLACE.sub(lambda place: told[names.index(place[1])].text, self._texts[key]) + end
        return _together(told, text)

    def _in_parts(self, text: str, signs: Iterable[str]) -> Iterator[_Said]:
        for sign in signs:
            if sign not in text:
                continue
            parts = text.split(sign, 1 if sign in _ONCE else -1)
            told = [self._read(part.strip()) if part.strip() else _Said(0, 0, 0, "") for part in parts]
            said = sign.join(
                part.replace(part.strip(), one.text, 1) for part, one in zip(parts, told, strict=True)
            )
            if sign in _CLAUSES and said != text:
                told = [one._replace(broken=min(one.broken, 1)) for one in told]
            yield _together(told, said)


def _words_in(text: str) -> int:
    return sum(any(len(found) > 1 for found in _WORD.findall(word)) for word in text.split())


def _together(told: list[_Said], text: str) -> _Said:
    return _Said(
        max((one.broken for one in told), default=0),
        sum(one.left for one in told),
        1 + sum(one.pieces for one in told),
        text,
    )


def _bare(texts: Mapping[str, str]) -> dict[str, str]:
    """Texts that are put behind or before others, without what joins them."""
    pairs = (
        (key.strip(_JOINS), said.strip(_JOINS)) for key, said in texts.items() if key.strip(_JOINS) != key
    )
    return {key: said for key, said in pairs if _WORD.search(key)}


def places(text: str) -> list[str]:
    """The places of a text, sorted: a translation has the same ones."""
    return sorted(set(_PLACE.findall(text)))


def _words_apart(key: str) -> list[str]:
    """The words of a key that touch none of its places."""
    found = _WORD.finditer(key)
    return [
        word[0]
        for word in found
        if key[word.start() - 1 : word.start()] != "}" and key[word.end() : word.end() + 1] != "{"
    ]


@cache
def _shape(key: str) -> re.Pattern[str]:
    parts = _PLACE.split(key)
    said = "".join(
        re.escape(part) if place % 2 == 0 else r"([\d\u2009.,]+)" if part == "n" else "(.*?)"
        for place, part in enumerate(parts)
    )
    return re.compile(said, re.DOTALL)
