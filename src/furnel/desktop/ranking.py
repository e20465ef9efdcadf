"""How well words fit names: what begins so comes first, what only sounds so last, and a slip of the hand is forgiven."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from difflib import SequenceMatcher
from functools import cache
from typing import TypeVar

Thing = TypeVar("Thing")
_WORDS = re.compile(r"[^\W_]+")
_ALIKE = 0.78


@cache
def words_of(text: str) -> tuple[str, ...]:
    """The words of a text, small."""
    return tuple(_WORDS.findall(text.casefold()))


def fit(wanted: str, name: str, more: str = "") -> float:
    """How well what was typed fits a name, or what is said of it besides: 0 (not at all) to 1."""
    typed = words_of(wanted)
    if not typed:
        return 0.5
    named, said = words_of(name), words_of(more)
    scores = [max(_fit_word(word, named), 0.4 * _fit_word(word, said)) for word in typed]
    if not all(scores):
        return 0.0
    begins = " ".join(named).startswith(" ".join(typed))
    return (sum(scores) / len(scores) + begins) / 2


def _fit_word(word: str, names: Iterable[str]) -> float:
    best = 0.0
    for name in names:
        if name.startswith(word):
            best = max(best, 1.0 if name == word else 0.9)
        elif word in name:
            best = max(best, 0.6)
        elif len(word) > 3 and best < 0.5:
            near = SequenceMatcher(None, word, name[: len(word) + 1]).ratio()
            best = max(best, 0.5 * near if near >= _ALIKE else 0.0)
    return best


def ranked(
    wanted: str, things: Iterable[Thing], told: Callable[[Thing], tuple[str, str, float]], most: int
) -> list[Thing]:
    """The things that fit what was typed, the best first.

    Of each `told` gives its name, what is said of it besides, and what its fit is multiplied by.
    """
    found = []
    for place, thing in enumerate(things):
        name, more, weight = told(thing)
        score = fit(wanted, name, more)
        if score:
            found.append((-score * weight, place, thing))
    return [thing for _, _, thing in sorted(found, key=lambda one: one[:2])[:most]]
