"""Addresses: where a value is in a definition, as people write it: `otter/speed`, `scene[id=quay]/boat[2]`, `tunes[=fog]`."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass

from furnel.errors import FurnelError

WHAT = "Looking up a value"
_STEP = re.compile(r"((?:[^\\/\[\]]|\\.)*)((?:\[(?:[^\\\[\]]|\\.)*\])?)", re.DOTALL)
_PAIR = re.compile(r"((?:[^\\=]|\\.)*)=(.*)", re.DOTALL)
_SPECIAL = re.compile(r"[\\/\[\]=]")


@dataclass(frozen=True, slots=True)
class Step:
    """One step of an address: a `key` (nothing in a list), and which of several: the one whose `field` is `value`, the item
    that is `value` (no field), or the one at `place` (from 0)."""

    key: str = ""
    field: str | None = None
    value: str = ""
    place: int | None = None

    def __str__(self) -> str:
        picked = ""
        if self.place is not None:
            picked = f"[{self.place}]"
        elif self.field is not None:
            picked = f"[{_spelled(self.field)}={_spelled(self.value)}]"
        return _spelled(self.key) + picked

    @property
    def picks(self) -> bool:
        """Whether it says which of several."""
        return self.place is not None or self.field is not None


Address = tuple[Step, ...]


def parse_address(text: str) -> Address:
    """An address from its text. Raises FurnelError with the place that cannot be read."""
    steps: list[Step] = []
    at = 0
    while at < len(text):
        found = _STEP.match(text, at)
        assert found is not None
        key, picked = _plain(found.group(1)), found.group(2)
        at = found.end()
        if at < len(text) and text[at] not in ("/", "[" if picked else "/"):
            raise FurnelError(
                WHAT,
                where=text,
                why=f"there is a stray {text[at]!r} at sign {at + 1}",
                remedy="Write it as in otter/speed or scene[id=quay]/name; \\ goes before / [ ] and \\ in names",
            )
        steps.append(_picked(key, picked[1:-1]) if picked else Step(key))
        at += at < len(text) and text[at] == "/"
    return tuple(steps)


def address_text(steps: Iterable[Step]) -> str:
    """An address as people write it."""
    return "/".join(map(str, steps))


def _picked(key: str, inner: str) -> Step:
    if inner.isdecimal():
        return Step(key, place=int(inner))
    parts = _PAIR.fullmatch(inner)
    if parts is None:
        raise FurnelError(
            WHAT,
            where=f"[{inner}]",
            why="it says neither which number nor which value",
            remedy="Write [2], [id=quay] or [=fog]",
        )
    return Step(key, _plain(parts.group(1)), _plain(parts.group(2)))


def _plain(text: str) -> str:
    return re.sub(r"\\(.)", r"\1", text, flags=re.DOTALL)


def _spelled(text: str) -> str:
    return _SPECIAL.sub(lambda sign: "\\" + sign.group(), text)
