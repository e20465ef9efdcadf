"""Folders of an index: a table of them beside the entries' records, or a tree in which each is followed by what is in it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from furnel.containers import records
from furnel.containers.fields import held
from furnel.containers.linking import Links, follow_entries, follow_folders, link
from furnel.containers.reader import RecordReader
from furnel.containers.records import Scope, Trace, Values, no_trace
from furnel.containers.schema import Layout
from furnel.containers.tableparts import FoldersPart
from furnel.containers.tables import Table
from furnel.errors import FurnelError

_WHAT, _WRITING = "Reading an archive", "Writing an archive"
_DEEPEST = 64


@dataclass(slots=True)
class Folders:
    """The folders of an index: their records, their paths (empty for the outermost), in which of them each entry is, and in
    which order folders and entries follow each other where they tell the next one."""

    table: Table
    paths: list[str]
    of_rows: list[int] = field(default_factory=list)
    links: Links = field(default_factory=Links)


def read_folders(
    layout: Layout, part: FoldersPart, data: memoryview, at: int, count: int | None, where: str, scope: Scope,
    trace: Trace = no_trace,
) -> tuple[Folders, int]:  # fmt: skip
    """The table of folders at byte `at`, and where it ends."""
    if count is None:
        raise FurnelError(
            _WHAT,
            where=where,
            why="nothing tells how many folders there are",
            remedy="A field holds the folder count",
        )
    table, end = Table.read(part.fields, data, at, count, layout.byte_order, where, scope, trace, "folder")
    names = layout.names.texts(_listed(table.meaning("path", scope)), where)
    parents = table.meaning("parent", scope)
    if part.is_linked:
        told = [_numbers(table, role, scope) for role in ("first folder", "next folder")]
        links = follow_folders(told[0], told[1], part.free, where)
        return Folders(table, _under_parents(names, links.parents, where), links=links), end
    if parents is None:
        paths = [name.strip("/") for name in names]
        if part.path_is == "ending":
            _check_endings(paths, where)
        return Folders(table, paths), end
    return Folders(table, _under_parents(names, [int(one) for one in parents], where)), end


def _under_parents(names: Sequence[str], parents: Sequence[int], where: str) -> list[str]:
    """Full paths of folders that say in which other one they are; one that is in itself, or in none, is outermost."""
    out = []
    for number, name in enumerate(names):
        parts, at, deep = [name], number, 0
        while 0 <= parents[at] < len(names) and parents[at] != at:
            at, deep = parents[at], deep + 1
            if deep > _DEEPEST:
                raise FurnelError(
                    _WHAT, where=where, why=f"its folders are more than {_DEEPEST} deep, or in a circle"
                )
            parts.append(names[at])
        out.append("/".join(part for part in reversed(parts) if part))
    return out


def _check_endings(endings: Sequence[str], where: str) -> None:
    """Refuse groups whose entries would not be found again by the ending of their names."""
    wrong = next((one for one in endings if not one or "." in one or "/" in one), None)
    if wrong is not None or len(set(endings)) != len(endings):
        raise FurnelError(
            _WHAT, where=where, why="its groups have no endings that tell them apart"
            if wrong is None else f"{wrong!r} is the ending of no name",
            remedy='Without path-is = "ending" they are folders',
        )  # fmt: skip


def _numbers(table: Table, role: str, scope: Scope) -> list[int]:
    return [int(one) for one in _listed(table.meaning(role, scope))]


def place_rows(part: FoldersPart, folders: Folders, rows: Table, where: str, scope: Scope) -> None:
    """Find in which folder each entry is: as its record says, or as the folders say which entries are in them."""
    told = rows.meaning("folder", scope)
    if told is not None:
        numbers = np.asarray(told, np.int64)
        wrong = np.flatnonzero((numbers < 0) | (numbers >= len(folders.paths)))
        if len(wrong):
            raise FurnelError(
                _WHAT,
                where=where,
                why=f"entry {wrong[0]} is in folder {numbers[wrong[0]]}, and there are {len(folders.paths)}",
            )
        folders.of_rows = numbers.tolist()
        return
    firsts = _numbers(folders.table, "first entry", scope)
    if rows.holds("next entry"):
        nexts = _numbers(rows, "next entry", scope)
        folders.of_rows = follow_entries(folders.links, firsts, nexts, part.free, where)
        return
    counts = _numbers(folders.table, "entries", scope)
    starts = firsts if folders.table.holds("first entry") else np.cumsum([0, *counts])[:-1].tolist()
    folders.of_rows = [-1] * rows.count
    for number, (first, length) in enumerate(zip(starts, counts, strict=True)):
        if length and not 0 <= first <= first + length <= rows.count:
            raise FurnelError(
                _WHAT, where=where,
                why=f"folder {folders.paths[number]!r} has entries {first} to {first + length - 1}, and there are {rows.count}",
            )  # fmt: skip
        folders.of_rows[first : first + length] = [number] * length
    if -1 in folders.of_rows:
        raise FurnelError(_WHAT, where=where, why=f"entry {folders.of_rows.index(-1)} is in no folder")


def read_tree(
    layout: Layout,
    part: FoldersPart,
    data: memoryview,
    at: int,
    where: str,
    scope: Scope,
    trace: Trace = no_trace,
) -> tuple[Folders, Table, int]:
    """A tree of folders and entries from its outermost folder on: the folders, the entries' records, where it ends."""
    assert layout.index is not None
    order = layout.byte_order
    heads, files = RecordReader(part.fields, order), RecordReader(layout.index.fields, order)
    meanings = records.Meanings(part.fields)
    found: list[Values] = []
    paths: list[str] = []
    rows: list[Values] = []
    of_rows: list[int] = []

    def walk(at: int, above: str, deep: int) -> int:
        values, at = heads.read(data, at, where, scope, trace, f"folder {len(found)}")
        number = len(found)
        name = layout.names.text(meanings.of(values, "path", scope), where) if found else ""
        path = f"{above}/{name}" if above else name
        found.append(values)
        paths.append(path)
        if deep > _DEEPEST:
            raise FurnelError(_WHAT, where=where, why=f"its folders are more than {_DEEPEST} deep")
        counts = {role: int(meanings.of(values, role, scope) or 0) for role in ("entries", "folders")}
        for role in ("folders", "entries") if part.folders_first else ("entries", "folders"):
            for _ in range(counts[role]):
                if role == "folders":
                    at = walk(at, path, deep + 1)
                else:
                    row, at = files.read(data, at, where, scope, trace, f"entry {len(rows)}")
                    rows.append(row)
                    of_rows.append(number)
                if len(found) + len(rows) > records.MOST_RECORDS:
                    raise records.too_many(where)
        return at

    end = walk(at, "", 0)
    return (
        Folders(_table(part.fields, order, found), paths, of_rows),
        _table(layout.index.fields, order, rows),
        end,
    )


def _table(fields: Any, order: Any, rows: list[Values]) -> Table:
    return Table.of_columns(fields, order, {part.name: [row[part.name] for row in rows] for part in fields})


@dataclass(slots=True)
class Arrangement:
    """How folders are to be written: their paths in order, the place of each in the old table (-1: new), and the numbers of the
    entries in the order of their records with the folder of each."""

    paths: list[str]
    old: list[int]
    order: list[int]
    of_rows: list[int]


def arrange(layout: Layout, part: FoldersPart, paths: Sequence[str], old: Folders | None) -> Arrangement:
    """The folders of entries with some `paths` (without the entries' prefix): old ones keep their order, those that become
    empty go, new ones come behind."""
    homes = [part.home(path) for path in paths]
    needed = dict.fromkeys(homes)
    before = old.paths if old is not None else []
    if part.in_parts:
        outermost = 0 if old is None or "" in before else 1  # whether what is in no folder has a record, too
        homes_now, needed = list(needed), {}
        for home in homes_now:  # outer ones come first
            parts = home.split("/") if home else []
            needed.update(dict.fromkeys("/".join(parts[:deep]) for deep in range(outermost, len(parts) + 1)))
    filled = {before[number] for number in old.of_rows} if old is not None else set()
    above = {"/".join(path.split("/")[:deep]) for path in filled for deep in range(len(path.split("/")))}
    always = [
        path
        for path in before
        if path in needed or path not in filled | above or (part.in_parts and not path)
    ]  # empty ones that were there stay, and so does the outermost
    known = {path: place for place, path in enumerate(before)}
    listed = list(dict.fromkeys([*always, *needed]))
    if part.shape == "tree":
        listed = list(_walked(listed))
    number = {path: place for place, path in enumerate(listed)}
    order = list(range(len(paths)))
    if not {"folder", "next entry"} & held(layout.index.fields if layout.index else ()):
        order = _in_folders(homes, listed, part)
    return Arrangement(
        listed, [known.get(path, -1) for path in listed], order, [number[homes[row]] for row in order]
    )


def _children(paths: Sequence[str]) -> dict[str, list[int]]:
    """Which folders, by their places, are in each."""
    out: dict[str, list[int]] = {}
    for place, path in enumerate(paths):
        if path:
            out.setdefault(path.rpartition("/")[0], []).append(place)
    return out


def _walked(paths: Sequence[str]) -> Iterator[str]:
    """Folders in the order of their records in a tree, from the outermost one on."""
    inside = _children(paths)

    def walk(path: str) -> Iterator[str]:
        yield path
        for child in inside.get(path, ()):
            yield from walk(paths[child])

    return walk("")


def _in_folders(homes: Sequence[str], listed: Sequence[str], part: FoldersPart) -> list[int]:
    """The numbers of entries, folder by folder."""
    by_home: dict[str, list[int]] = {}
    for place, home in enumerate(homes):
        by_home.setdefault(home, []).append(place)
    if part.shape == "table" or not part.folders_first:
        return [place for path in listed for place in by_home.get(path, ())]
    inside = _children(listed)

    def walk(path: str) -> Iterator[int]:
        for child in inside.get(path, ()):
            yield from walk(listed[child])
        yield from by_home.get(path, ())

    return list(walk(""))


def write_folders(
    layout: Layout, part: FoldersPart, made: Arrangement, old: Folders | None, scope: Scope, rows: Sequence[int] | None = None
) -> tuple[Table, list[int]]:  # fmt: skip
    """The records of folders, with what is told in them; where entries tell the next one (`rows` are the records that they were
    then, -1: new), what each tells."""
    number = len(made.paths)
    if old is not None:
        table = old.table.take(np.array(made.old, np.int64))
    else:
        table = Table.empty(part.fields, layout.byte_order, number, scope)
    places = {path: place for place, path in enumerate(made.paths)}
    counts = (
        np.bincount(np.array(made.of_rows, np.int64), minlength=number) if number else np.zeros(0, np.int64)
    )
    parents = [
        places.get(path.rpartition("/")[0], place) if path else place for place, path in enumerate(made.paths)
    ]
    children = np.zeros(number, np.int64)
    for place, parent in enumerate(parents):
        children[parent] += parent != place
    for place, path in enumerate(made.paths):
        if made.old[place] < 0:
            name = path.rpartition("/")[2] if part.in_parts else path
            _put(table, place, "path", layout.names.raw(name), scope)
    links, nexts = old.links if old is not None else Links(), list[int]()
    told: dict[str, Any] = {
        "entries": counts,
        "folders": children,
        "first entry": np.cumsum([0, *counts.tolist()])[:-1],
    }
    if part.free is not None:
        told["first entry"] = np.where(counts > 0, told["first entry"], part.free)
        if rows is not None:
            ranks = [links.entries[row] if row >= 0 else -1 for row in rows]
            told["first entry"], nexts = link(made.of_rows, ranks, number, part.free)
        if part.is_linked:
            ranks = [links.folders[place] if place >= 0 else -1 for place in made.old]
            above = number if links.outermost else -1  # nobody leads to outermost ones but the one before
            owners = [above if parent == place else parent for place, parent in enumerate(parents)]
            told["first folder"], told["next folder"] = link(owners, ranks, number, part.free)
    for role, column in told.items():
        if role in held(part.fields):
            table.mean(role, np.asarray(column, np.int64), scope)
    if "parent" in held(part.fields):
        outer = _outer_parent(old, scope)
        for place, parent in enumerate(parents):  # the numbers of old ones may be others now
            if parent != place or made.old[place] < 0:
                _put(table, place, "parent", parent if parent != place or outer is None else outer, scope)
    return table, nexts


def _outer_parent(old: Folders | None, scope: Scope) -> int | None:
    """What folders that are in none say of their parent, where that is not their own number."""
    told = [int(one) for one in old.table.meaning("parent", scope)] if old is not None else []
    return next(
        (parent for place, parent in enumerate(told) if parent != place and not 0 <= parent < len(told)), None
    )


def _put(table: Table, place: int, role: str, meaning: Any, scope: Scope) -> None:
    values = table.row(place)
    records.mean(table.fields, values, role, meaning, scope)
    for name, value in values.items():
        column = table.columns[name]
        if isinstance(column, np.ndarray) and column.dtype.kind == "V":
            column = table.columns[name] = column.tolist()
        column[place] = value


def tree_bytes(part: FoldersPart, made: Arrangement, folders: Table, rows: Table, scope: Scope) -> bytes:
    """A tree's records in their order."""
    heads, files = folders.pieces(scope), rows.pieces(scope)
    in_folder: dict[int, list[bytes]] = {}
    for piece, number in zip(files, made.of_rows, strict=True):
        in_folder.setdefault(number, []).append(piece)
    inside = _children(made.paths)

    def walk(place: int) -> Iterator[bytes]:
        yield heads[place]
        below = [piece for child in inside.get(made.paths[place], ()) for piece in walk(child)]
        own = in_folder.get(place, [])
        yield from [*below, *own] if part.folders_first else [*own, *below]

    return b"".join(walk(0)) if made.paths else b""


def _listed(column: Any) -> list[Any]:
    return column.tolist() if isinstance(column, np.ndarray) else list(column if column is not None else [])
