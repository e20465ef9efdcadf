"""Opening an archive as a layout says: with an index, as a chain, packed as a whole, with archives inside."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from furnel.containers import chained, indexed
from furnel.containers.container import Container
from furnel.containers.mapped import HeldBytes, Source
from furnel.containers.nested import Nested
from furnel.containers.schema import InsidePart, Layout, known_layouts, open_layout
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
    known = ", ".join([*LIBRARY_KINDS, *layouts])
    raise FurnelError(
        "Choosing a layout",
        where=name,
        why="there is no such layout",
        remedy=f"Use {known}, or a layout's .toml file",
    )


LIBRARY_KINDS = ("zip", "tar")
"""Kinds of archives that need no layout."""


def layout_named(name: str) -> Layout | None:
    """The layout of that name; None for kinds that need none. Raises FurnelError."""
    return None if name in LIBRARY_KINDS else find_layout(name)


def open_with(
    path: Path, layout: Layout, known: Sequence[str] = (), source: Source | None = None
) -> Container:
    """An archive of a kind that is known; `source` stands for its file when it lies in another archive."""
    if layout.whole is not None:
        inner = layout.model_copy(update={"whole": None, "inside": ()})
        opened: Container = Whole(
            path, layout, lambda name, plain: open_with(name, inner, known, plain), source
        )
    elif layout.index is not None:
        opened = indexed.Indexed(path, layout, known, source)
    else:
        opened = chained.Chained(path, layout, known, source)
    return open_inside(opened, layout.inside, known)


def open_inside(container: Container, rules: Sequence[InsidePart], known: Sequence[str] = ()) -> Container:
    """A container whose entries that are archives themselves (by `rules`) are opened too."""

    def open_inner(path: Path, name: str, source: HeldBytes) -> Container:
        if name in LIBRARY_KINDS:
            return Zip(path, source) if name == "zip" else Tar(path, source)
        return open_with(path, find_layout(name), known, source)

    return Nested(container, rules, open_inner) if rules else container
