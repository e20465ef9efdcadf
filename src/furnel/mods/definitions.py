"""Definitions of an open mod: what it changes in them, value by value, on top of what the game has."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING

from furnel.catalogue import Asset, Catalogue
from furnel.errors import FurnelError
from furnel.mods.fit.elsewhere import DRIFT
from furnel.mods.fit.point import Finding, FitPoint
from furnel.mods.outside import checked
from furnel.mods.project import Project, Swap
from furnel.mods.render import read_source
from furnel.texts import (
    Change,
    Document,
    applied,
    difference,
    disputes,
    document_of,
    settled,
    taken_apart,
    with_change,
    without_change,
)

if TYPE_CHECKING:
    from furnel.mods.workspace import Workspace


def definition(space: Workspace, original: str) -> tuple[Document, Document, tuple[Change, ...]]:
    """A definition as the game has it, as the mod makes it, and the changes between.

    Raises FurnelError for an unknown one, for one that is not taken apart, and for changes that do not apply.
    """
    swap = space.project.swap_for(original)
    base = swap.base if swap is not None else original
    game = document_of(space.catalogue.bytes_of(base), base)
    if swap is None:
        return game, game, ()
    if swap.source:
        now = document_of(read_source(checked(space.file, space.source_path(swap))), base)
        return game, now, difference(game, now)
    return game, applied(game, swap.changes), swap.changes


def with_changes(space: Workspace, original: str, changes: Sequence[Change]) -> Project:
    """The project with a definition's changes behind those that it has.

    A value that is set again is set once; what is as in the game is no change, and with none left there is no swap.
    Raises FurnelError as `definition` does, and for a change that does not apply.
    """
    game, now, kept = definition(space, original)
    for change in changes:
        was = now.look(change.address) if change.do in ("set", "drop") else None
        now = applied(now, [change])
        kept = with_change(kept, change.model_copy(update={"was": was}))
    if applied(game, kept).plain() != now.plain():
        kept = difference(game, now)
    return _with_patch(space, original, kept)


def with_text(space: Workspace, original: str, text: bytes) -> Project:
    """The project with a definition as it is in a whole text. Raises FurnelError for damage, and for what no changes make."""
    game = definition(space, original)[0]
    return _with_patch(space, original, difference(game, document_of(text, original)))


def without_changes(space: Workspace, original: str, address: str) -> Project:
    """The project with the game's own at an address of a definition, and in it. Raises FurnelError when others need it."""
    game, _, kept = definition(space, original)
    kept = without_change(kept, address)
    applied(game, kept)
    return _with_patch(space, original, kept)


def _with_patch(space: Workspace, original: str, changes: Sequence[Change]) -> Project:
    swap = space.project.swap_for(original)
    if not changes:
        return space.project.without_swap(original)
    asset = space.catalogue.get(swap.base if swap is not None else original)
    fresh = Swap(original=original, made_for=space.fingerprint(asset), changes=tuple(changes))
    if swap is not None:
        fresh = fresh.model_copy(update={name: getattr(swap, name) for name in ("like", "credit", "insist")})
    return space.project.with_swap(fresh)


def changes_in(catalogue: Catalogue, asset: Asset, source: Path) -> tuple[Change, ...]:
    """What an edited definition changes of the game's own; nothing when that cannot be told value by value."""
    if not taken_apart(asset.path) or source.suffix.lower() != Path(asset.path).suffix.lower():
        return ()
    try:
        base = document_of(catalogue.read(asset), asset.path)
        return difference(base, document_of(read_source(source), source.name))
    except FurnelError:
        return ()


def kept_over_update(space: Workspace, swap: Swap) -> Swap:
    """Changes as made for what the game has now: yours stay where both changed the same. FurnelError when one finds nothing."""
    shipped = space.catalogue.get(swap.base)
    changes = settled(document_of(space.catalogue.read(shipped), swap.base), swap.changes)
    return swap.model_copy(update={"changes": changes, "made_for": space.fingerprint(shipped)})


def updated_under(swap: Swap, shipped: bytes) -> list[FitPoint]:
    """What is to be said of changes whose definition an update of the game changed, too: only what both changed."""
    found = disputes(document_of(shipped, swap.base), swap.changes)
    if not found:
        return []
    told, remedy = "; ".join(one.said() for one in found), "Match it keeps yours; or take the game's value"
    return [DRIFT.point(Finding("changed by an update", told, "differs", remedy))]
