"""A definition as an open mod makes it."""

from __future__ import annotations

from typing import TYPE_CHECKING

from furnel.mods.outside import checked
from furnel.mods.render import read_source
from furnel.texts import Document, document_of

if TYPE_CHECKING:
    from furnel.mods.workspace import Workspace


def as_made(space: Workspace, path: str) -> Document:
    """A definition with what the mod changes in it. Raises FurnelError for damage and for changes that do not apply."""
    swap = space.project.swap_for(path)
    if swap is None:
        return space.demands.texts.document(path)
    if swap.source:
        return document_of(read_source(checked(space.file, space.source_path(swap))), swap.base)
    return space.demands.texts.changed(swap.base, swap.changes)
