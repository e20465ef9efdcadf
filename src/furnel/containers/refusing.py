"""What an archive's description would let go wrong: writing is refused before a byte is written."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from furnel.containers.fields import held
from furnel.containers.ordering import check_order, sorted_rows
from furnel.containers.placing import WRITING, Item, Plan, holder
from furnel.containers.reading import Index, to_the_next
from furnel.containers.schema import Layout
from furnel.errors import FurnelError

_LEAST_TOLD = 64  # a smaller number is something else that happens to be the same


def check_old(layout: Layout, index: Index, where: object, names_too: bool, less: bool) -> None:
    """Refuse to change an archive whose numbers could not be stored as they are, whose index is in another order than it should
    be, or (`names_too`, or with `less` entries) whose names have other hashes than the layout's."""
    _check_solvable(layout, index, where)
    rows = index.rows.tolist()
    there = [Item(path, rows[place], place) for place, path in enumerate(index.paths)]
    check_order(layout, index, where, there, names_too or less)
    if names_too:
        _check_hashes(layout, index, where)


def check_placed(plan: Plan) -> None:
    """Refuse what a placed archive would tell wrong."""
    _check_lengths(plan)
    check_numbers(plan)
    _check_unknown_places(plan)
    if plan.between and plan.pad != len(plan.between):
        raise FurnelError(
            WRITING, where=plan.layout.name,
            why=f"{len(plan.between)} bytes lie between its index and its data, and the layout does not say what",
            remedy="The index cannot become longer or shorter then: replace entries, and add or remove none",
        )  # fmt: skip


def _check_lengths(plan: Plan) -> None:
    """Where only the next entry's offset tells where one ends, refuse what could not be told apart when it is read."""
    index = plan.layout.index
    if index is None or index.tells_sizes:
        return
    entries = [item for item in sorted_rows(plan, index)[0] if item is not None]
    told = to_the_next(np.array([item.offset for item in entries], np.int64), plan.data_end)
    for item, length in zip(entries, told.tolist(), strict=True):
        if length != item.length(plan.padded):
            raise FurnelError(
                WRITING, where=item.path, why="this archive tells no sizes, and its index could not tell where this entry ends",
                remedy="Leave out empty entries, or put them where their names come in the index",
            )  # fmt: skip


def check_numbers(plan: Plan) -> None:
    """Refuse to change what a number that nobody described seems to tell: as many as there are entries, as long as the file."""
    layout, old = plan.layout, plan.index
    assert layout.index is not None
    if old is None or plan.source is None:
        return
    rows, before = old.table.count, len(plan.source.view)
    now = {
        "entry count": (rows, rows - len(old.rows) + len(plan.items)), "file size": (before, plan.total),
        "index offset": (old.index_at, plan.index_at), "index stored size": (len(old.raw), len(plan.raw)),
        "data size": (old.data_end - old.data_start, plan.data_end - plan.data_start),
    }  # fmt: skip
    records_there = (
        layout.start.fields if layout.start else (),
        layout.footer.fields if layout.footer else (),
        layout.index.start,
    )
    told = {role for fields in records_there for role in held(fields)}
    told |= {"index stored size"} if "index size" in told else set()
    told |= {"entry count"} if {"index size", "index stored size"} & told else set()
    values = {**old.head.start, **old.head.footer, **old.head.index_start}
    for part in (part for fields in records_there for part in fields):
        number = values.get(part.name)
        if (
            part.name in plan.others
            or part.holds
            or part.bits
            or part.value is not None
            or not isinstance(number, int)
        ):
            continue
        for role, (one, other) in now.items():
            least = 2 if role == "entry count" else _LEAST_TOLD
            if role not in told and number == one != other and one >= least:
                raise FurnelError(
                    WRITING, where=f"{layout.name}, field “{part.name}”",
                    why=f"it is {number}, and so is the {role}, which would be {other} then: it was not to be wrong",
                    remedy=f'Say that it holds the {role} (holds = "{role}"), or that it is always {number} (is = {number})',
                )  # fmt: skip


def _check_unknown_places(plan: Plan) -> None:
    """Refuse to move entries whose places stand in bytes that nobody described, too: a second index, a table of the game's."""
    old, source = plan.index, plan.source
    if old is None or source is None:
        return
    rest = [
        plan.lead,
        plan.between,
        plan.tail,
        plan.trail,
        *(bytes(source.view[a:b]) for a, b in plan.gaps.values()),
    ]
    rest = [piece for piece in rest if len(piece) >= 8 and any(piece)]
    here = {
        item.old for item in plan.items
        if item.old >= 0 and item.offset == int(old.offsets[item.old])
        and (item.fresh is None or item.fresh.stored == int(old.stored[item.old]))
    }  # fmt: skip
    stays = len(here) == len(plan.items) == len(old.paths)
    wanted = np.unique(old.offsets[old.offsets >= _LEAST_TOLD])
    if not rest or stays or len(wanted) < 2:
        return
    found = {place for piece in rest for place in _numbers_in(piece, wanted)}
    moved = {int(old.offsets[place]) for place in range(len(old.paths)) if place not in here}
    if plan.still and not found & moved:
        return
    if len(found) >= 2 and len(found) * 2 >= len(wanted):
        raise FurnelError(
            WRITING, where=source.name,
            why=f"the places of {len(found)} entries stand a second time in bytes that the layout does not describe",
            remedy="They would be wrong then. Describe that part of the archive, or put in only what has the same stored size",
        )  # fmt: skip


def _numbers_in(piece: bytes, wanted: npt.NDArray[np.int64]) -> set[int]:
    """Which of some numbers stand in bytes, as 32 or 64 bits, at any place, in either order."""
    out: set[int] = set()
    for start in range(4):
        part = piece[start : start + (len(piece) - start) // 4 * 4]
        for kind in ("<u4", ">u4"):
            out |= set(np.intersect1d(np.frombuffer(part, kind).astype(np.int64), wanted).tolist())
    return out


def _check_solvable(layout: Layout, index: Index, where: object) -> None:
    """Refuse to write an archive in whose index a number means something that would be stored as another number: a flag beside
    it would be lost, or a rounding undone."""
    assert layout.index is not None
    scope = index.head.scope
    for role in ("offset", "size", "stored size", "packing", "name offset"):
        part = holder(layout.index.fields, role)
        if part is None or (part.means is None and part.stores is None) or not len(index.rows):
            continue
        table = index.table.take(index.rows)
        table.numbers, table.at = index.rows, index.table.at
        before = np.array(table.columns[part.name], copy=True)
        try:
            table.mean(role, np.asarray(table.meaning(role, scope)), scope)
            wrong = np.flatnonzero(np.asarray(table.columns[part.name]) != before)
        except FurnelError as error:
            raise _unsolvable(where, part.name, error.why) from error
        if len(wrong):
            first = int(wrong[0])
            told = f"{index.paths[first]} has {int(before[first])}, and {int(table.columns[part.name][first])} would be stored"
            raise _unsolvable(where, part.name, told)


def _check_hashes(layout: Layout, index: Index, where: object) -> None:
    """Refuse to write names into an archive whose own names have other hashes than the layout's."""
    assert layout.index is not None
    if layout.names.hash is None or layout.index.names == "hash" or not len(index.rows):
        return
    told = index.table.meaning("name hash", index.head.scope)
    if told is None:
        return
    names = [layout.entry.name_of(path) for path in index.paths]
    mine = np.asarray(layout.names.hashes(names)).astype(np.uint64)
    wrong = np.flatnonzero(np.asarray(told).astype(np.uint64)[index.rows] != mine)
    if len(wrong):
        first = int(wrong[0])
        raise FurnelError(
            WRITING, where=f"{where}, {index.paths[first]}",
            why=f"its hash is {int(np.asarray(told)[index.rows][first]):#x}, and the hash of its name is "
            f"{int(mine[first]):#x}",
            remedy="Say in [names] hash and letters how its hashes are made: without that nothing can be added or renamed",
        )  # fmt: skip


def _unsolvable(where: object, name: str, why: str) -> FurnelError:
    return FurnelError(
        WRITING, where=f"{where}, field “{name}”", why=f"what it means cannot be turned back into its number: {why}",
        remedy="The archive can be read, not written: describe flags as bits of the field, or as fields of their own",
    )  # fmt: skip
