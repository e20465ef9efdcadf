"""Definitions of an open mod: what it changes in them, value by value, on top of what the game has."""

from __future__ import annotations

import contextlib
import hashlib
from collections.abc import Sequence
from dataclasses import replace
from fnmatch import fnmatchcase
from pathlib import Path
from typing import TYPE_CHECKING

from furnel.atomic import write_bytes
from furnel.catalogue import Asset, Catalogue
from furnel.errors import FurnelError
from furnel.mods.asmade import as_made
from furnel.mods.fit.elsewhere import DRIFT
from furnel.mods.fit.point import Finding, FitPoint
from furnel.mods.project import Project, Swap
from furnel.mods.render import read_source
from furnel.mods.songs import song_of
from furnel.mods.strips import figures_mark, strip_faults, strips_for, strips_mark
from furnel.texts import (
    Change,
    Document,
    Fault,
    Known,
    Meanings,
    applied,
    difference,
    disputes,
    document_of,
    faults,
    gone,
    ids_of,
    is_shaped,
    read_text,
    settled,
    stored_like,
    taken_apart,
    with_change,
    without_change,
)
from furnel.texts.document import alike

if TYPE_CHECKING:
    from furnel.mods.workspace import Workspace

_LOOKED_AT = 1 << 16
_LAID_OVER = "The game lays a mod's records over its own: what is taken out stays"


def definition(space: Workspace, original: str) -> tuple[Document, Document, tuple[Change, ...]]:
    """A definition as the game has it, as the mod makes it, and the changes between.

    Raises FurnelError for an unknown one, for one that is not taken apart, and for changes that do not apply.
    """
    swap, texts = space.project.swap_for(original), space.demands.texts
    base = swap.base if swap is not None else original
    game = texts.document(base)
    if swap is None:
        return game, game, ()
    now = as_made(space, original)
    return game, now, difference(game, now) if swap.source else swap.changes


def with_changes(space: Workspace, original: str, changes: Sequence[Change]) -> Project:
    """The project with a definition's changes behind those that it has.

    A value that is set again is set once, and what is as in the game is no change.
    Raises FurnelError as `definition` does, and for a change that does not apply.
    """
    game, now, before = definition(space, original)
    kept = tuple(before)
    for change in changes:
        was = now.look(change.address) if change.do in ("set", "drop") else None
        now = applied(now, [change])
        kept = with_change(kept, change.model_copy(update={"was": was}))
    if len(kept) != len(before) + len(changes):
        tidied = applied(game, kept)
        if not alike(tidied.plain(), now.plain()):
            kept = difference(game, now)
            tidied = applied(game, kept)
        now = tidied
    swap = space.project.swap_for(original)
    space.demands.texts.remember(swap.base if swap is not None else original, tuple(kept), now)
    return _with_patch(space, original, kept)


def with_text(space: Workspace, original: str, text: str) -> Project:
    """The project with a definition as it is in a whole text: as changes, or, where it is not taken apart, as a file of the
    mod's own, stored as the game's is. Raises FurnelError for damage, and for what no changes make."""
    swap = space.project.swap_for(original)
    base = swap.base if swap is not None else original
    if not taken_apart(base):
        return _with_file(space, original, base, text)
    try:
        game, now, before = definition(space, original)
        changes = difference(game, replace(game, text=text))
    except FurnelError:
        if not is_shaped(base):
            raise
        return _with_file(space, original, base, text)  # of a guessed form, a text is still one
    if changes == tuple(before) and text != now.text:
        raise FurnelError(
            "Editing a text", where=original,
            why="only comments, spacing or spelling are other than before, and these stay the game's",
            remedy="Change values; or make a file of it, and use that whole as the source of a swap",
        )  # fmt: skip
    return _with_patch(space, original, changes)


def keeps_all(space: Workspace, original: str, text: str) -> bool:
    """Whether a text that was taken is there as it was written, comments and spacing with it."""
    swap = space.project.swap_for(original)
    return (
        not taken_apart(swap.base if swap is not None else original) or as_made(space, original).text == text
    )


def without_changes(space: Workspace, original: str, address: str) -> Project:
    """The project with the game's own at an address of a definition, and in it. Raises FurnelError when others need it."""
    game, _, kept = definition(space, original)
    kept = without_change(kept, address)
    applied(game, kept)
    return _with_patch(space, original, kept)


def opened(space: Workspace, original: str) -> Project:
    """The project with a definition that can be changed on the bench; what it has of it already stays.

    Raises FurnelError for an unknown one and for one that is not taken apart.
    """
    if space.project.swap_for(original):
        return space.project
    try:
        if taken_apart(original):
            definition(space, original)
            return _with_patch(space, original, ())
    except FurnelError:
        if not is_shaped(original):
            raise
    return _with_file(space, original, original, read_text(space.catalogue.bytes_of(original), original))


def _with_file(space: Workspace, original: str, base: str, text: str) -> Project:
    """A text of the game as a file of the mod's, in the encoding and with the line ends of the game's own."""
    game = space.catalogue.bytes_of(base)
    plain = text.replace("\r\n", "\n").replace("\n", "\r\n") if b"\r\n" in game[:_LOOKED_AT] else text
    data = game if plain == read_text(game, base) else stored_like(plain, game, base)
    name = Path(original)
    mark = hashlib.sha256(data).hexdigest()[:8]  # what is undone finds its own file again
    file = space.folder / "sources" / f"{name.stem}-{mark}{name.suffix}"
    write_bytes(file, data)
    return space.swapped(original, file, instead=True)


def _with_patch(space: Workspace, original: str, changes: Sequence[Change]) -> Project:
    swap = space.project.swap_for(original)
    asset = space.catalogue.get(swap.base if swap is not None else original)
    fresh = Swap(original=original, made_for=space.fingerprint(asset), changes=tuple(changes))
    if swap is not None:
        fresh = fresh.model_copy(
            update={name: getattr(swap, name) for name in ("like", "credit", "insist", "part_of")}
        )
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


def known_to(space: Workspace) -> Known:
    """What the game and the mod have together: assets, and the records of all definitions."""
    own = {swap.original for swap in space.project.swaps if swap.like}
    names = own | {path.rpartition("/")[2].rpartition(".")[0] for path in own}
    tables = dict(space.demands.texts.tables)
    for swap in space.project.swaps:
        if swap.changes and not swap.like:
            with contextlib.suppress(FurnelError):  # what is wrong with it is said where it is examined
                tables |= ids_of(definition(space, swap.original)[1], swap.original)
    return Known(lambda name: space.demands.names(name) or name in names, space.demands.texts.nearest, tables)


def meanings_of(space: Workspace, path: str) -> Meanings:
    """What is known of the values of a definition of the game. Raises FurnelError for damage."""
    return space.demands.texts.meanings(path, space.profile.values)


def faults_of(space: Workspace, swap: Swap, yours: Document) -> list[Fault]:
    """What in a definition of the mod does not go with what is known of the game's own. FurnelError for damage."""
    return faults_between(space, swap.base, space.demands.texts.document(swap.base), yours, known_to(space))


def faults_between(space: Workspace, base: str, game: Document, yours: Document, known: Known) -> list[Fault]:
    """What in a changed definition does not go with what is known, or does nothing in the game."""
    found = [*faults(meanings_of(space, base), game, yours, known), *strip_faults(space, base, game, yours)]
    role = space.profile.role_of(base)
    if role is not None and role.partial:
        for name in gone(game, yours):
            found.append(
                Fault("rules", name, f"{name} stays in the game", "Take it back, or change it", _LAID_OVER)
            )
    return found


def bound(space: Workspace, before: Project) -> set[str]:
    """The swaps that have to be looked at again because others are not what they were: definitions, figures, parts of songs."""
    now = space.project
    if now.swaps == before.swaps:
        return set()
    strips = [rule.file for rule in space.profile.values if rule.strip is not None]
    texts = [swap for swap in now.made if taken_apart(swap.base)]
    out = {swap.original for swap in texts if any(fnmatchcase(swap.base, file) for file in strips)}
    if _own(now) != _own(before):
        out |= {swap.original for swap in texts}
    if _changes(now) != _changes(before):
        out |= {swap.original for swap in texts}
        others = (swap.original for swap in now.made if swap.source)
        out |= {name for name in others if song_of(space, name) or strips_for(space, name)}
    return out


def _own(project: Project) -> set[str]:
    """The assets that a mod brings and the game does not have."""
    return {swap.original for swap in project.swaps if swap.like}


def _changes(project: Project) -> dict[str, tuple[Change, ...]]:
    return {swap.original: swap.changes for swap in project.swaps if swap.changes}


def own_mark(space: Workspace, swap: Swap) -> str:
    """What of the rest of the mod a swap is compared with: a definition with assets of its own, changes of other definitions,
    and figures; a figure with its strips."""
    if not taken_apart(swap.base):
        song = song_of(space, swap.original)
        return strips_mark(space, swap) + (repr((song.tempo, song.key)) if song is not None else "")
    own = sorted(one.original for one in space.project.swaps if one.like)
    others = [one.changes for one in space.project.swaps if one.changes and one is not swap]
    return repr((own, others, figures_mark(space, swap)))
