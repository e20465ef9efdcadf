"""Opening an archive as a layout says: with an index, as a chain, packed as a whole, with archives inside."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from furnel.containers import chained, indexed
from furnel.containers.container import Container
from furnel.containers.dressed import Dressed, Rule, Single
from furnel.containers.layoutfiles import known_layouts, open_layout
from furnel.containers.lone import Lone
from furnel.containers.mapped import HeldBytes, MappedFile, Source
from furnel.containers.nested import Nested
from furnel.containers.rawparts import RawPart
from furnel.containers.readonly import Iso, ReadOnly, SevenZip
from furnel.containers.schema import InsidePart, Layout
from furnel.containers.several import Several
from furnel.containers.tarred import Tar
from furnel.containers.whole import Whole
from furnel.containers.zipped import Zip
from furnel.errors import FurnelError


def find_layout(name: str) -> Layout:
    """A shipped or own layout by name, or the layout in a file of that path."""
    layouts = known_layouts()
    if name in layouts:
        return layouts[name]
    if name.endswith(".toml"):
        return open_layout(Path(name))
    known = ", ".join([*LIBRARY_KINDS, *READ_ONLY_KINDS, *layouts])
    raise FurnelError(
        "Choosing a layout",
        where=name,
        why="there is no such layout",
        remedy=f"Use {known}, or a layout's .toml file",
    )


LIBRARY_KINDS = ("zip", "tar")
"""Kinds of archives that need no layout."""
READ_ONLY_KINDS = ("7z", "iso")
"""Kinds that need none and are never written."""
PACKED = "packed"
"""What is one packed file, and not an archive of several, is called."""


def layout_named(name: str) -> Layout | None:
    """The layout of that name; None for kinds that need none. Raises FurnelError."""
    return None if name in (*LIBRARY_KINDS, *READ_ONLY_KINDS, PACKED) else find_layout(name)


def layout_to_write(name: str) -> Layout | None:
    """As `layout_named`, for a new archive. Raises FurnelError for what is only read, too."""
    check_writable(name)
    return layout_named(name)


def check_writable(name: str) -> None:
    """Refuse kinds of archives that are never written."""
    if name in (*READ_ONLY_KINDS, PACKED):
        raise FurnelError(
            "Choosing a layout",
            where=name,
            why="it is one packed file" if name == PACKED else "such archives are read and not written",
            remedy="Use zip or tar",
        )


def open_with(
    path: Path, layout: Layout, known: Sequence[str] = (), source: Source | None = None
) -> Container:
    """An archive of a kind that is known; `source` stands for its file when it lies in another archive."""
    if layout.whole is not None:
        inner = layout.model_copy(update={"whole": None, "inside": ()})
        opened: Container = Whole(
            path, layout, lambda name, plain: open_with(name, inner, known, plain), source
        )
    elif layout.single is not None:
        held = source or MappedFile(path)
        opened = Single(path, held.view)
    elif layout.more:
        opened = Several(path, layout, known, source)
    elif layout.index is not None:
        opened = indexed.Indexed(path, layout, known, source)
    else:
        opened = chained.Chained(path, layout, known, source)
    if (rules := raw_rules(layout)) and layout.whole is None:
        opened = Dressed(opened, rules, layout.told_roles)
    return open_inside(opened, layout.inside, known)


def dress(container: Container, rules: Sequence[RawPart]) -> Container:
    """A container whose entries that are bare data, by `rules`, are files that everything reads."""
    return Dressed(container, [(rule, rule.order or "little") for rule in rules]) if rules else container


def raw_rules(layout: Layout, files: str = "") -> list[Rule]:
    """How a layout says what bare data is; of a `[single]` one for entries that match `files`."""
    order = layout.byte_order
    if layout.single is not None:
        return [(layout.single.model_copy(update={"files": files or "*"}), order)]
    return [(part, order) for part in layout.raw]


def open_inside(container: Container, rules: Sequence[InsidePart], known: Sequence[str] = ()) -> Container:
    """A container whose entries that are archives themselves (by `rules`) are opened too."""

    def open_inner(path: Path, name: str, source: HeldBytes) -> Container:
        kinds: dict[str, type[Zip | Tar | ReadOnly | Lone]] = {
            "zip": Zip,
            "tar": Tar,
            "7z": SevenZip,
            "iso": Iso,
            PACKED: Lone,
        }
        if name in kinds:
            return kinds[name](path, source)
        return open_with(path, find_layout(name), known, source)

    named = [(rule, layout_named(rule.layout)) for rule in rules]
    singles = [
        one for rule, layout in named if layout is not None and layout.single is not None
        for one in raw_rules(layout, rule.files)
    ]  # fmt: skip
    nested = [rule for rule, layout in named if layout is None or layout.single is None]
    if singles:
        container = Dressed(container, singles)
    return Nested(container, nested, open_inner) if nested else container
