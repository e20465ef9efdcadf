"""New things for a game: a record like another's, assets of its own in its places, the texts and lists that it joins."""

from __future__ import annotations

import re
from collections.abc import Container, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from pathlib import Path
from typing import TYPE_CHECKING

from furnel.digests import file_digest
from furnel.errors import FurnelError
from furnel.games.additions import AdditionRule, PlaceRule, filled
from furnel.media import SoundSpec
from furnel.mods import definitions
from furnel.mods.project import Project
from furnel.mods.records import Book, Sheet, like_another, open_book
from furnel.mods.songs import listened, tempo_and_key, together
from furnel.mods.strips import from_picture
from furnel.progress import QUIET, Part, Progress, check
from furnel.texts import Change, address_text, parse_address
from furnel.texts.document import Value
from furnel.texts.places import ABSENT, pick
from furnel.words import count

if TYPE_CHECKING:
    from furnel.mods.workspace import Workspace

WHAT = "Adding something new"
_ID = re.compile(r"[A-Za-z0-9][\w.-]*")


@dataclass(frozen=True, slots=True)
class Addition:
    """A new thing to be made: its kind, its id, its title, what it is like, files by the name of their place, values by their
    address in the record, and the joins that are left out."""

    kind: str
    id: str
    like: str
    title: str = ""
    files: Mapping[str, Sequence[Path]] = field(default_factory=dict)
    values: Mapping[str, Value] = field(default_factory=dict)
    left_out: frozenset[str] = frozenset()

    @property
    def mark(self) -> str:
        """What its parts are marked with in the project."""
        return f"{self.kind} {self.id}"


def rule_of(space: Workspace, kind: str) -> AdditionRule:
    """The rule for a kind. Raises FurnelError that names those there are."""
    rules = space.profile.additions
    found = next((rule for rule in rules if rule.id == kind), None)
    if found is None:
        known = ", ".join(rule.id for rule in rules)
        raise FurnelError(
            WHAT, where=kind, why=f"{space.profile.name} takes no such thing, as far as its profile says",
            remedy=f"There are: {known}" if known else "Say in its profile what it takes, with [[additions]]",
        )  # fmt: skip
    return found


def table_of(space: Workspace, kind: str) -> Sheet:
    """The records that a new thing of a kind stands among. Raises FurnelError when the definition has no table."""
    return _sheet(open_book(space, rule_of(space, kind).record))


def models(sheet: Sheet) -> list[str]:
    """What a new thing can be like: the records of the game and the mod."""
    return [name for name in sheet.names if sheet.state(name) != "gone"]


def fresh_id(sheet: Sheet, kind: str, text: str, taken: Container[str] = ()) -> str:
    """An id for a new thing, made of a name or a file's name, that no record has and that is not `taken`."""
    number, base = 2, re.sub(r"[^a-z0-9]+", "_", text.casefold()).strip("_") or kind
    made = base
    while made in sheet.names or made in taken:
        made, number = f"{base}_{number}", number + 1
    return made


def title_of(name: str) -> str:
    """What people read, made of a file's name or an id."""
    return name.replace("_", " ").strip().capitalize()


def model_assets(sheet: Sheet, place: PlaceRule, like: str) -> list[str]:
    """The names of the assets that files in a place have to be like: what the other record has there, or its neighbours."""
    if place.like:
        return [path.format(like=like) for path in place.like]
    at = parse_address(place.value)
    value = pick(sheet.now.get(like, ABSENT), at)
    if value is ABSENT and place.own:  # like its first neighbour that there is
        around = pick(sheet.now.get(like, ABSENT), at[:-1])
        value = next(iter(around.values()), ABSENT) if isinstance(around, dict) else ABSENT
    found = value if isinstance(value, list) else [] if value is ABSENT else [value]
    return [str(one) for one in found]


def add(space: Workspace, wanted: Addition, progress: Progress = QUIET) -> Project:
    """The project with a new thing in it, its files fitted to what they have to be like.

    Raises FurnelError for an unknown kind, model or place, an id that is taken or no id, a needed place without a file, a value
    that the record does not have, and a file that cannot be used; nothing is changed then.
    """
    rule = rule_of(space, wanted.kind)
    book = open_book(space, rule.record)
    sheet = _sheet(book)
    _checked(rule, wanted, sheet)
    title = wanted.title or title_of(wanted.id)
    names = {"id": wanted.id, "title": title, "like": wanted.like}
    values: dict[str, Value] = {key: filled(text, **names) for key, text in rule.values.items()}
    files = [file for some in wanted.files.values() for file in some]
    heard = listened(files, progress) if rule.heard else {}
    values |= _heard(rule, heard)
    values |= wanted.values
    given: list[tuple[str, Path, str]] = []
    for place in (place for place in rule.places if not place.strip):
        written: list[str] = []
        for file in wanted.files.get(place.name, ()):
            paths = _paths(space, place, wanted.id, {path for path, _, _ in given})
            likes = _likes(space, place, sheet, wanted.like, len(written))
            given += [(path, file, like) for path, like in zip(paths, likes, strict=True)]
            written.append(place.writes.format(id=wanted.id, path=paths[0]))
        if written and place.value:
            values[place.value] = written if place.many else written[0]
    record = _record(rule, book, sheet, wanted, values)
    space = _with(space, rule.record, record, wanted.mark)
    for place in (place for place in rule.places if place.strip):
        for file in wanted.files.get(place.name, ()):
            at = f"{record[0].target}/{place.value}"
            space = _with(space, rule.record, from_picture(space, rule.record, at, file), wanted.mark)
    for number, (path, file, like) in enumerate(given):
        check(progress, WHAT)
        part = Part(progress, number / len(given), (number + 1) / len(given))
        part.report(0, f"Fitting {file.name}")
        swap = space.fitted(space.new_swap(path, file, like, whole=True), part)
        swap = swap.model_copy(update={"part_of": wanted.mark})
        space = space.with_project(space.project.with_swap(swap))
    made = [swap for swap in space.project.swaps if swap.part_of == wanted.mark and swap.source]
    for swap in together(space, made, heard):
        space = space.with_project(space.project.with_swap(swap))
    for join in rule.joins:
        if join.called in wanted.left_out:
            continue
        to = filled(join.to, **names)
        change = Change(do="add", at=join.at, key=join.key.format(**names), to=to)
        space = _with(space, join.file, [change], wanted.mark)
    return space.project


def _record(
    rule: AdditionRule, book: Book, sheet: Sheet, wanted: Addition, values: Mapping[str, Value]
) -> list[Change]:
    """The changes that make the record: like the other one, with its own values, without the places that stay empty."""
    record = like_another(book, sheet, wanted.id, wanted.like)
    own, changes, known = record.target, [record], sheet.now[wanted.like]
    places = {place.value for place in rule.places if place.value}
    for key, value in values.items():
        there = pick(known, parse_address(key))
        if there is ABSENT and key not in places and parse_address(key)[0].key not in places:
            raise FurnelError(
                WHAT, where=f"{wanted.like}, {key}", why="what it is like has no such value",
                remedy=f"There are {', '.join(map(str, known))}",
            )  # fmt: skip
        changes.append(_setting(own, key, _typed(value, there), there is ABSENT))
    for place in rule.places:
        if place.own and place.value not in values and pick(known, parse_address(place.value)) is not ABSENT:
            changes.append(Change(do="drop", at=f"{own}/{place.value}"))
    return changes


def _heard(rule: AdditionRule, heard: Mapping[Path, SoundSpec]) -> dict[str, Value]:
    """What is heard in the recordings, as the values that a rule wants of it; nothing for what is not heard."""
    tempo, key = tempo_and_key(heard.values())
    whole = int(tempo) if tempo.is_integer() else tempo
    found = {name: whole if what == "tempo" else key for name, what in rule.heard.items()}
    return {name: value for name, value in found.items() if value}


def _checked(rule: AdditionRule, wanted: Addition, sheet: Sheet) -> None:
    """Raise FurnelError for what cannot be."""
    known = models(sheet)
    places = [place.name for place in rule.places]
    why, remedy = "", ""
    if not _ID.fullmatch(wanted.id):
        why, remedy = (
            "an id has letters, digits and _",
            f"Try {re.sub('[^A-Za-z0-9]+', '_', wanted.id).strip('_') or rule.id}",
        )
    elif wanted.id in sheet.names:
        why, remedy = f"there is a {wanted.id} already", "Give it another id"
    elif wanted.like not in known:
        why, remedy = f"there is no {wanted.like} that it could be like", f"There are {', '.join(known[:12])}"
    elif unknown := [name for name in wanted.files if name not in places]:
        why, remedy = f"it has no place called {unknown[0]}", f"Its places: {', '.join(places) or 'none'}"
    elif (own := [place.name for place in rule.places if place.own]) and not set(own) & set(wanted.files):
        why, remedy = "it has nothing of its own", f"Give a file for {' or '.join(own)}"
    elif empty := [place.name for place in rule.needed if not wanted.files.get(place.name)]:
        why, remedy = f"its {empty[0]} is missing", f"Give a file for {', '.join(empty)}"
    else:
        for place in rule.places:
            if not place.many and len(wanted.files.get(place.name, ())) > 1:
                why, remedy = f"its {place.name} takes one file", "Give one"
        joins = {join.called for join in rule.joins if join.optional}
        for name in wanted.left_out - joins:
            why, remedy = (
                f"there is no {name} that could be left out",
                f"There are: {', '.join(joins) or 'none'}",
            )
    if why:
        raise FurnelError(WHAT, where=wanted.mark, why=why, remedy=remedy)


def _sheet(book: Book) -> Sheet:
    if not book.sheets or not book.sheets[0].columns:
        raise FurnelError(
            WHAT, where=book.path, why="it has no table of records", remedy="Correct the game's profile"
        )
    return book.sheets[0]


def _setting(own: str, key: str, value: Value, new: bool) -> Change:
    address = f"{own}/{key}"
    if not new:
        return Change(do="set", at=address, to=value)
    *within, last = parse_address(address)
    return Change(do="add", at=address_text(within), key=last.key, to=value)


def _typed(value: Value, there: Value) -> Value:
    """A value as text given for a number or a switch, of the type that stands there."""
    if isinstance(value, str) and isinstance(there, bool):
        return value.casefold() in ("true", "yes", "on", "1")
    if isinstance(value, str) and isinstance(there, int | float):
        try:
            number = float(value)
        except ValueError:
            return value
        return int(number) if isinstance(there, int) and number.is_integer() else number
    return value


def _with(space: Workspace, path: str, changes: Iterable[Change], mark: str) -> Workspace:
    marked = [change.model_copy(update={"part_of": mark}) for change in changes]
    return space.with_project(definitions.with_changes(space, path, marked))


def _paths(space: Workspace, place: PlaceRule, own: str, given: set[str]) -> list[str]:
    """Where a place's file goes: inner paths that neither the game nor the mod has, nor another place was given."""
    taken = given | {swap.original for swap in space.project.swaps}
    number = 0
    while True:
        paths = [path.format(id=own, number=number) for path in place.path]
        clash = next((path for path in paths if path in taken or space.catalogue.has(path)), "")
        if not clash:
            return paths
        number += 1
        if not any("{number" in path for path in place.path):
            raise FurnelError(
                WHAT, where=clash, why="there is such an asset already", remedy="Give it another id"
            )


def _likes(space: Workspace, place: PlaceRule, sheet: Sheet, like: str, number: int) -> list[str]:
    """What a place's file number so and so (from 0) has to be like: an asset for each of its paths."""
    found = model_assets(sheet, place, like) or [""]
    if not place.like:
        found = [found[number % len(found)]]
    own = {swap.original: swap.base for swap in space.project.swaps}
    found = [own.get(path, path) for path in found]
    lost = next((path for path in found if not space.catalogue.has(path)), "")
    if lost:
        raise FurnelError(
            WHAT,
            where=lost,
            why=f"{like} has no such asset that the {place.name} could be like",
            remedy="Choose another",
        )
    return found


def additions(project: Project) -> list[str]:
    """The marks of a mod's additions, in their order."""
    marks = [swap.part_of for swap in project.swaps] + [
        change.part_of for swap in project.swaps for change in swap.changes
    ]
    return list(dict.fromkeys(filter(None, marks)))


def without(space: Workspace, mark: str) -> Project:
    """The project without an addition: its assets, its record with all that was changed in it, and what it had joined.

    Raises FurnelError when there is none.
    """
    project = space.project
    if mark not in additions(project):
        known = ", ".join(additions(project))
        raise FurnelError(
            "Removing an addition",
            where=mark,
            why="the mod has none",
            remedy=f"It has {known}" if known else "",
        )
    for swap in project.swaps:
        if swap.part_of == mark:
            project = project.without_swap(swap.original)
        elif any(change.part_of == mark for change in swap.changes):
            gone = [change.target for change in swap.changes if change.part_of == mark]
            here = space.with_project(project)
            for target in gone:
                project = definitions.without_changes(here, swap.original, target)
                here = space.with_project(project)
            left = project.swap_for(swap.original)
            if left is not None and left.is_untouched:
                project = project.without_swap(swap.original)
    return project


# folders


@dataclass(frozen=True, slots=True)
class Planned:
    """What a folder's files would become, and files that are the same as another's."""

    additions: tuple[Addition, ...]
    twins: tuple[tuple[Path, Path], ...]

    def sentence(self) -> str:
        """The plan in a sentence."""
        said = count(len(self.additions), "new thing")
        return (
            f"{said}; {count(len(self.twins), 'file')} left out that another is the same as"
            if self.twins
            else said
        )


def plan(space: Workspace, kind: str, folder: Path, like: str) -> Planned:
    """A new thing for every sub-folder of a folder, or for every file in it, called like these.

    In a sub-folder a file goes to the place whose name is in its own, all to a place that takes many; what lies deeper is left
    alone. They are `like` one that there is (nothing: the first). Raises FurnelError for
    a folder that is empty or cannot be read.
    """
    rule, sheet = rule_of(space, kind), table_of(space, kind)
    like = like or next(iter(models(sheet)), "")
    seen: dict[str, Path] = {}
    twins: list[tuple[Path, Path]] = []
    out: list[Addition] = []
    try:
        for entry in sorted(path for path in folder.iterdir() if not path.name.startswith(".")):
            files = [entry] if entry.is_file() else sorted(file for file in entry.iterdir() if file.is_file())
            first = {file: seen.setdefault(file_digest(file), file) for file in files}
            twins += [(file, other) for file, other in first.items() if other != file]
            if kept := [file for file, other in first.items() if other == file]:
                name = entry.name if entry.is_dir() else entry.stem
                fresh = fresh_id(sheet, kind, name, {one.id for one in out})
                out.append(Addition(kind, fresh, like, title_of(name), _sorted_into(rule, kept)))
    except OSError as error:
        raise FurnelError(WHAT, where=folder, why=str(error), remedy="Choose another folder") from error
    if not out:
        raise FurnelError(
            WHAT, where=folder, why="there is no file in it that is new", remedy="Choose another folder"
        )
    return Planned(tuple(out), tuple(twins))


def _sorted_into(rule: AdditionRule, files: Sequence[Path]) -> dict[str, list[Path]]:
    """Files in the places that they are for, as far as their names say; the first that is free otherwise."""
    out: dict[str, list[Path]] = {}
    rest = []
    for file in files:
        named = next((place for place in rule.places if place.name.casefold() in file.stem.casefold()), None)
        if named is not None and (named.many or named.name not in out):
            out.setdefault(named.name, []).append(file)
        else:
            rest.append(file)
    for file in rest:
        free = next((place for place in rule.places if place.many or place.name not in out), None)
        if free is None:
            raise FurnelError(
                WHAT,
                where=file,
                why="there is no place left for it",
                remedy=f"It has {len(rule.places)} places",
            )
        out.setdefault(free.name, []).append(file)
    return out


def add_all(space: Workspace, wanted: Sequence[Addition], progress: Progress = QUIET) -> Project:
    """Several new things; none when one of them cannot be. Raises FurnelError as `add` does."""
    for number, one in enumerate(wanted):
        part = Part(progress, number / len(wanted), (number + 1) / len(wanted))
        part.report(0, f"Adding {one.id}")
        space = space.with_project(add(space, one, part))
    return space.project
