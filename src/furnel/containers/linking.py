"""Folders and entries that tell the next one: which first and next number leads where, and back."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import pairwise

from furnel.errors import FurnelError

_WHAT = "Reading an archive"


@dataclass(slots=True)
class Links:
    """What following the numbers found: each folder's parent (-1: outermost), whether outermost ones are linked, and at which
    place folders and entries came."""

    parents: list[int] = field(default_factory=list)
    outermost: bool = True
    folders: list[int] = field(default_factory=list)
    entries: list[int] = field(default_factory=list)


def follow_folders(firsts: Sequence[int], nexts: Sequence[int], free: int | None, where: str) -> Links:
    """Which folder each one is in. Raises FurnelError where one is in two, in itself, or in none that is there."""
    parents = _owners(firsts, nexts, free, where, "folder")
    ranks = _ranks(firsts, nexts, free)
    heads = [place for place, parent in enumerate(parents) if parent < 0]
    led_to, done = {nexts[place] for place in heads}, len(nexts) - len(heads)
    for place in (head for head in heads if head not in led_to):
        while place != free and 0 <= place < len(nexts) and ranks[place] < 0:
            ranks[place], done = done, done + 1
            place = nexts[place]
    if -1 in ranks:
        raise _circle(where, "folder", ranks.index(-1))
    return Links(parents, any(nexts[place] != free for place in heads), ranks)


def follow_entries(
    links: Links, firsts: Sequence[int], nexts: Sequence[int], free: int | None, where: str
) -> list[int]:
    """Which folder each entry is in; `links` keeps the order. Raises FurnelError where one is in none or in two."""
    owners = _owners(firsts, nexts, free, where, "entry")
    if -1 in owners:
        raise FurnelError(_WHAT, where=where, why=f"entry {owners.index(-1)} is in no folder")
    links.entries = _ranks(firsts, nexts, free)
    return owners


def _owners(
    firsts: Sequence[int], nexts: Sequence[int], free: int | None, where: str, what: str
) -> list[int]:
    """Of each number from which first one it is come to; -1 from none."""
    out = [-1] * len(nexts)
    for owner, number in enumerate(firsts):
        while number != free:
            if not 0 <= number < len(nexts):
                raise FurnelError(
                    _WHAT, where=where, why=f"folder {owner} leads to {what} {number}, and there are {len(nexts)}",
                    remedy="The archive is damaged or described by the wrong layout: free is the number that ends a row",
                )  # fmt: skip
            if out[number] >= 0 or (what == "folder" and number == owner):
                raise _circle(where, what, number)
            out[number] = owner
            number = nexts[number]
    return out


def _ranks(firsts: Sequence[int], nexts: Sequence[int], free: int | None) -> list[int]:
    """At which place each number comes where every row is followed; -1 for those that are not come to."""
    out, done = [-1] * len(nexts), 0
    for number in firsts:
        while number != free:
            out[number], done = done, done + 1
            number = nexts[number]
    return out


def _circle(where: str, what: str, number: int) -> FurnelError:
    return FurnelError(
        _WHAT, where=where, why=f"{what} {number} is led to twice, or in a circle",
        remedy="The archive is damaged or described by the wrong layout",
    )  # fmt: skip


def link(owners: Sequence[int], ranks: Sequence[int], count: int, free: int) -> tuple[list[int], list[int]]:
    """The first number of each of `count` owners and the next of each number, in the order of their `ranks` (-1: new ones,
    which come last); whoever has the owner -1 is led to by nobody."""
    firsts, nexts = [free] * count, [free] * len(owners)
    rows: dict[int, list[int]] = {}
    for number in sorted(range(len(owners)), key=lambda one: (ranks[one] < 0, ranks[one], one)):
        rows.setdefault(owners[number], []).append(number)
    for owner, row in rows.items():
        if owner < 0:
            continue
        if owner < count:
            firsts[owner] = row[0]
        for one, after in pairwise(row):
            nexts[one] = after
    return firsts, nexts
