"""What the mods of a game's stack want together: asset by asset, in definitions value by value; and all of it as one."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import partial
from pathlib import Path
from typing import Literal

from furnel.containers import Container, layout_named, open_container
from furnel.errors import FurnelError, reason
from furnel.games import Archive, Install, InstalledMod, Place
from furnel.mods.patches import Patch, read_patches
from furnel.progress import QUIET, Progress, steps
from furnel.texts import (
    Change,
    Document,
    Step,
    changed_part,
    difference,
    document_of,
    laid_over,
    merged,
    parse_address,
    taken_apart,
    use_forms,
)
from furnel.texts.address import Address
from furnel.texts.patch import meet, short_value, target_in
from furnel.words import number

Kind = Literal["same", "beside", "different", "older"]
Read = Callable[[], bytes]
Decisions = Mapping[tuple[str, str], str]
"""Which mod is to have its way: by an asset's path and an address in it (empty: the asset as a whole)."""


@dataclass(frozen=True, slots=True)
class Contest:
    """What mods want to be different at one address of a definition, or of an asset as a whole (no address): what the game has,
    what each mod wants, in words, who has its way, and whether somebody said so."""

    path: str
    address: str
    game: str
    wants: tuple[tuple[str, str], ...]
    winner: str
    decided: bool

    @property
    def place(self) -> str:
        """Where it is, as `furnel bridge --take` wants it."""
        return f"{self.path}:{self.address}" if self.address else self.path


@dataclass(frozen=True, slots=True)
class Meeting:
    """An asset that several mods touch, in load order: they make the `same` of it, change what lies `beside` one another in it,
    or want `different` things; of one mod alone it is `older` than the game.

    `data` is what all of them together make of it, None where that is what the last one has;
    `changes` are what each makes of a definition, in words."""

    path: str
    mods: tuple[str, ...]
    kind: Kind
    contests: tuple[Contest, ...] = ()
    data: Read | None = None
    changes: tuple[tuple[str, tuple[str, ...]], ...] = ()


@dataclass(slots=True)
class Stand:
    """Everything that enabled mods touch: what each has for which asset, in load order, and where they meet."""

    install: Install
    mods: list[InstalledMod]
    has: dict[str, dict[str, Read]] = field(default_factory=dict)
    meetings: list[Meeting] = field(default_factory=list)

    @property
    def contests(self) -> list[Contest]:
        return [contest for meeting in self.meetings for contest in meeting.contests]


def stand_of(
    install: Install, mods: Sequence[InstalledMod], prefer: Sequence[str] = (), decisions: Decisions | None = None,
    progress: Progress = QUIET, elsewhere: Mapping[str, Path] | None = None,
) -> Stand:  # fmt: skip
    """Where the enabled ones of some mods, in load order, meet. `prefer` are mods that have their way, the first one most;
    otherwise it is the last in the order, as in the game. `elsewhere` are the folders of mods that are not
    in the game yet. Raises FurnelError for a mod that cannot be read."""
    use_forms(install.profile.notations)
    stand = Stand(install, [mod for mod in mods if mod.on])
    folders = {mod.id: (elsewhere or {}).get(mod.id, install.mods_folder() / mod.id) for mod in stand.mods}
    stand.has = {mod.id: dict(contents_of(install, mod, folders[mod.id])) for mod in stand.mods}
    patches = {mod: read_patches(folder) for mod, folder in folders.items()}
    users: dict[str, list[str]] = {}
    for mod, files in stand.has.items():
        for path in files:
            users.setdefault(path, []).append(mod)
    shared = {path: who for path, who in sorted(users.items()) if len(who) > 1 or path in patches[who[0]]}
    places = places_of(install) if shared else {}
    by_load = [mod.id for mod in reversed(stand.mods)]
    ranked = [*(mod for mod in prefer if mod in by_load), *(mod for mod in by_load if mod not in prefer)]
    said = _Said(ranked, frozenset(prefer), decisions or {})
    for path, who in steps(shared.items(), len(shared), progress, "Looking where mods meet"):
        game = partial(install.read, places[path].archive, places[path].inner) if path in places else None
        role = install.profile.role_of(path)
        if len(who) == 1:
            if game is not None and (
                older := _older(path, who[0], stand.has[who[0]][path], game, patches[who[0]][path])
            ):
                stand.meetings.append(older)
            continue
        stand.meetings.append(
            _meet(
                path,
                {mod: stand.has[mod][path] for mod in who},
                game,
                said,
                role is not None and role.partial,
                {mod: patches[mod][path] for mod in who if path in patches[mod]},
            )
        )
    return stand


def contents_of(
    install: Install, mod: InstalledMod, folder: Path | None = None
) -> Iterator[tuple[str, Read]]:
    """What a mod has (in a `folder` of its own, or that in the game): the paths of assets, and how to read each."""
    rule, folder = install.profile.mods, folder or install.mods_folder() / mod.id
    if rule.goes == "loose":
        for path in mod.paths:
            yield path, partial(_read, folder / path)
    elif rule.goes == "archive":
        name = rule.archive.replace("{id}", mod.id)
        for path in mod.paths:
            if path != name:
                yield path, partial(_read, folder / path)
                continue
            container = open_container(folder / name, layout_named(rule.layout))
            for entry in container.entries():
                yield entry.path, partial(container.read, entry.path)
    else:
        for archive in install.archives:
            copy = folder / archive.path.relative_to(install.folder)
            if copy.exists():
                yield from _changed_in(install, archive, install.open_copy(archive, copy))


def _read(file: Path) -> bytes:
    try:
        return file.read_bytes()
    except OSError as error:
        raise FurnelError(
            "Reading a mod", where=file, why=reason(error), remedy="Install it again"
        ) from error


def _changed_in(install: Install, archive: Archive, copy: Container) -> Iterator[tuple[str, Read]]:
    """What a rebuilt copy of an archive has otherwise than the game's."""
    own = {place.inner: place for place in install.places(archive)}
    for entry in copy.entries():
        read: Read = partial(copy.read, entry.path)
        there = own.get(entry.path)
        if there is None or there.size != entry.size or install.read(archive, entry.path) != read():
            yield archive.prefix + entry.path, read


def places_of(install: Install) -> dict[str, Place]:
    """The game's own assets by the paths that mods have for them."""
    out: dict[str, Place] = {}
    for archive in install.archives:
        for place in install.places(archive):
            loose = archive.rule.apart and install.profile.mods.goes in ("loose", "archive")
            out[place.inner if loose else place.path] = place
    return out


@dataclass(frozen=True, slots=True)
class _Said:
    """Who has its way: mods from the first to the last, those that were preferred, and single decisions."""

    ranked: list[str]
    preferred: frozenset[str]
    decisions: Decisions

    def order(self, mods: Sequence[str]) -> list[str]:
        return sorted(mods, key=self.ranked.index)

    def is_decided(self, path: str, address: str, mods: Sequence[str]) -> bool:
        return self.decisions.get((path, address)) in mods or any(mod in self.preferred for mod in mods)


def _meet(
    path: str,
    has: dict[str, Read],
    game: Read | None,
    said: _Said,
    is_partial: bool,
    patches: Mapping[str, Patch],
) -> Meeting:
    mods = tuple(has)
    data = {mod: read() for mod, read in has.items()}
    if len(set(data.values())) == 1 and not (is_partial and game is not None):
        return Meeting(path, mods, "same")
    if game is not None and taken_apart(path):
        try:
            return _meet_values(path, data, document_of(game(), path), said, is_partial, patches)
        except FurnelError:
            pass  # one of them is not told value by value: it is taken as a whole
    if len(set(data.values())) == 1:
        return Meeting(path, mods, "same")
    winner = said.decisions.get((path, ""), said.order(mods)[0])
    winner = winner if winner in has else said.order(mods)[0]
    wants = tuple((mod, f"{number(len(data[mod]))} bytes") for mod in mods)
    contest = Contest(
        path, "", "" if game is None else "the game's", wants, winner, said.is_decided(path, "", mods)
    )
    return Meeting(path, mods, "different", (contest,), None if winner == mods[-1] else has[winner])


def _older(path: str, mod: str, ready: Read, game: Read, patch: Patch) -> Meeting | None:
    """A definition that a mod has as it was before an update of the game: the game's own as it is now, with what the mod says
    that it changes. None where that is what the mod has."""
    try:
        data = ready()
        base, theirs = document_of(game(), path), document_of(data, path)
        now = patch.on(data, base)
    except FurnelError:
        return None
    if now is None or repr(now.plain()) == repr(theirs.plain()):
        return None
    changes = (mod, tuple(one.said() for one in patch.changes))
    return Meeting(path, (mod,), "older", (), partial(bytes, now.data), (changes,))


def _meet_values(
    path: str,
    data: dict[str, bytes],
    base: Document,
    said: _Said,
    is_partial: bool,
    patches: Mapping[str, Patch],
) -> Meeting:
    """A definition: what mods change at different addresses is done, what they want at the same one is told."""
    ready = {mod: document_of(one, path) for mod, one in data.items()}
    if is_partial:
        docs = {mod: laid_over(base, doc) for mod, doc in ready.items()}
    else:  # what the game has updated since is no wish of a mod that says what it changes
        patched = {mod: patch.on(data[mod], base) for mod, patch in patches.items()}
        docs = {mod: patched.get(mod) or doc for mod, doc in ready.items()}
    changes = {mod: difference(base, doc) for mod, doc in docs.items()}
    first, *rest = said.order(list(docs))
    result = docs[first]
    disputed: dict[str, None] = {}
    for mod in rest:
        together = merged(base, result, docs[mod])
        result = together.document
        disputed.update(dict.fromkeys(target_in(base, dispute.change) for dispute in together.disputes))
    targets = {mod: [(target_in(base, one), one) for one in mine] for mod, mine in changes.items()}
    contests: dict[str, Contest] = {}
    for disputed_at in disputed:
        wants = _wants(targets, disputed_at)
        address = min((at for mine in wants.values() for at, _ in mine), key=len)
        wants = _wants(targets, address)
        ranked = said.order(list(wants))
        chosen = said.decisions.get((path, address), "")
        if chosen in wants and chosen != ranked[0]:
            result = _as_in(result, docs[chosen], parse_address(address))
        winner = chosen if chosen in wants else ranked[0]
        told = tuple((mod, "; ".join(_want(one) for _, one in mine)) for mod, mine in wants.items())
        at = parse_address(address)
        contests[address] = Contest(
            path, address, short_value(base.look(at)) if base.has(at) else "", told, winner,
            said.is_decided(path, address, list(wants)),
        )  # fmt: skip
    for mod, place, change in _unseen(base, result, targets, contests):
        there = result.look(change.address) if result.has(change.address) else None
        contests[place] = Contest(
            path, place, short_value(base.look(change.address)) if base.has(change.address) else "",
            ((mod, _want(change)), ("", short_value(there))), "", False,
        )  # fmt: skip
    effect = _in_the_game(base, data, path) if is_partial else ready[list(ready)[-1]]
    kind: Kind = (
        "different"
        if contests
        else "same"
        if len({repr(doc.plain()) for doc in docs.values()}) == 1
        else "beside"
    )
    said_of = tuple((mod, tuple(one.said() for one in mine)) for mod, mine in changes.items())
    made = None
    if repr(result.plain()) != repr(effect.plain()) or not result.same_besides(effect):
        part = changed_part(base, result) if is_partial else None
        made = partial(bytes, (part or result).data)
    return Meeting(path, tuple(docs), kind, tuple(contests.values()), made, said_of)


def _in_the_game(base: Document, data: Mapping[str, bytes], path: str) -> Document:
    """What the game makes of records that several mods lay over its own."""
    for one in data.values():
        base = laid_over(base, document_of(one, path))
    return base


def _wants(
    targets: Mapping[str, Sequence[tuple[str, Change]]], address: str
) -> dict[str, list[tuple[str, Change]]]:
    """What each mod changes at an address, in it, or around it, with the addresses of that."""
    out = {mod: [(at, one) for at, one in mine if meet(at, address)] for mod, mine in targets.items()}
    return {mod: mine for mod, mine in out.items() if mine}


def _unseen(
    base: Document,
    result: Document,
    targets: Mapping[str, Sequence[tuple[str, Change]]],
    contests: Mapping[str, Contest],
) -> Iterator[tuple[str, str, Change]]:
    """Changes of mods that are not to be found in what was made of all, though nobody contradicts them: this proves that there
    are none, by what the game would read."""
    done = {(one.do, one.at, one.key, repr(one.to)) for one in difference(base, result)}
    for mod, mine in targets.items():
        for at, change in mine:
            if (change.do, change.at, change.key, repr(change.to)) in done:
                continue
            if any(meet(at, other) for other in contests) or _is_so(base, result, change):
                continue
            yield mod, at, change


def _is_so(base: Document, result: Document, change: Change) -> bool:
    """Whether a change is in force, whatever is told of it."""
    at = change.address
    if change.do == "set":
        return result.has(at) and repr(result.look(at)) == repr(change.to)
    if change.do == "drop":
        return not result.has(at) or repr(result.look(at)) != repr(change.was)
    if change.do == "add":
        table = result.look(at) if result.has(at) else None
        inside = table.get(change.key) if isinstance(table, dict) else table
        rows = inside if isinstance(inside, list) else [inside]
        return inside == change.to or any(_holds(row, change.to) for row in rows)
    return True  # another place or name: what is in it is told by itself


def _holds(row: object, wanted: object) -> bool:
    """Whether a record has all that was wanted of one that came in, or what others made of it since."""
    if isinstance(row, dict) and isinstance(wanted, dict):
        return wanted.keys() <= row.keys()
    return row == wanted


def _as_in(result: Document, other: Document, at: Address) -> Document:
    """A definition with what another one has at an address, or without anything there."""
    if not other.has(at):
        return result.drop(at) if result.has(at) else result
    if result.has(at):
        return result.set(at, other.look(at))
    within = at[:-1] if at[-1].field is None or not at[-1].key else (*at[:-1], Step(at[-1].key))
    return result.add(within, at[-1].key if at[-1].field is None else "", other.look(at))


def _want(change: Change) -> str:
    if change.do == "set":
        return short_value(change.to)
    return "without it" if change.do == "drop" else change.said()
