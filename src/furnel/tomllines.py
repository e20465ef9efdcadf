"""Where a key stands in a TOML text: the libraries that read TOML do not tell."""

from __future__ import annotations

import re
from collections.abc import Sequence

Key = tuple[str | int, ...]

_BARE = re.compile(r"[A-Za-z0-9_-]+")
_STRINGS = ('"""', "'''", '"', "'")


def line_of(text: str, key: Sequence[str | int]) -> int:
    """The line (from 1) of a key such as `("index", "fields", 2, "type")`, or of the nearest thing around it; 0 for none."""
    places = key_lines(text)
    wanted = tuple(key)
    while wanted:
        if wanted in places:
            return places[wanted]
        wanted = wanted[:-1]
    return 0


def key_lines(text: str) -> dict[Key, int]:
    """The line of every key, table and array element of a well-formed text."""
    return _Lines(text).places


class _Lines:
    def __init__(self, text: str) -> None:
        self._text, self._at, self._line = text, 0, 1
        self.places: dict[Key, int] = {}
        self._counts: dict[Key, int] = {}
        table: Key = ()
        while self._skip(newlines=True):
            if self._text[self._at] == "[":
                table = self._header()
            else:
                self._pair(table)

    def _skip(self, newlines: bool) -> bool:
        """Pass blanks and comments; False at the end."""
        while self._at < len(self._text):
            letter = self._text[self._at]
            if letter == "#":
                stop = self._text.find("\n", self._at)
                self._at = stop if stop >= 0 else len(self._text)
            elif letter == "\n" and newlines:
                self._line += 1
                self._at += 1
            elif letter in " \t\r" or (letter == "\n" and newlines):
                self._at += 1
            else:
                return letter != "\n"
        return False

    def _header(self) -> Key:
        many = self._text.startswith("[[", self._at)
        self._at += 2 if many else 1
        key = self._resolved(self._key())
        if many:
            self._counts[key] = self._counts.get(key, -1) + 1
            self.places.setdefault(key, self._line)
            key = (*key, self._counts[key])
        self.places[key] = self._line
        self._at += 2 if many else 1
        return key

    def _resolved(self, key: Key) -> Key:
        """A header's key with the number of the last element of each array of tables in it."""
        out: Key = ()
        for place, part in enumerate(key):
            out = (*out, part)
            if place < len(key) - 1 and out in self._counts:
                out = (*out, self._counts[out])
        return out

    def _key(self) -> Key:
        parts: list[str | int] = []
        while True:
            self._skip(newlines=False)
            if self._at < len(self._text) and self._text[self._at] in "\"'":
                parts.append(self._string())
            elif (found := _BARE.match(self._text, self._at)) is not None:
                parts.append(found.group())
                self._at = found.end()
            else:
                self._at += 1
                return tuple(parts)
            self._skip(newlines=False)
            if self._at >= len(self._text) or self._text[self._at] != ".":
                return tuple(parts)
            self._at += 1

    def _pair(self, table: Key) -> None:
        line = self._line
        key = (*table, *self._key())
        self.places[key] = line
        self._skip(newlines=False)
        self._at += 1  # the equals sign
        self._value(key)

    def _value(self, key: Key) -> None:
        self._skip(newlines=True)
        if self._at >= len(self._text):
            return
        letter = self._text[self._at]
        if letter in "[{":
            self._at += 1
            closing, number = ("]" if letter == "[" else "}"), 0
            while self._skip(newlines=True) and self._text[self._at] != closing:
                if self._text[self._at] == ",":
                    self._at += 1
                elif letter == "[":
                    self.places[(*key, number)] = self._line
                    self._value((*key, number))
                    number += 1
                else:
                    self._pair(key)
            self._at += 1
        elif letter in "\"'":
            self._string()
        else:
            while self._at < len(self._text) and self._text[self._at] not in ",]}\n#":
                self._at += 1

    def _string(self) -> str:
        mark = next(mark for mark in _STRINGS if self._text.startswith(mark, self._at))
        start = self._at = self._at + len(mark)
        while self._at < len(self._text) and not self._text.startswith(mark, self._at):
            self._at += 2 if mark[0] == '"' and self._text[self._at] == "\\" else 1
        found = self._text[start : self._at]
        self._line += found.count("\n")
        self._at += len(mark)
        return found
