"""`merge.py`: a script beside a packaged mod that merges it with others for people who do not have Furnel."""

from __future__ import annotations

import json
from collections.abc import Mapping
from difflib import SequenceMatcher
from pathlib import Path
from typing import Any

from furnel.containers import Layout, layout_named
from furnel.containers.fields import FieldPart, fixed_width
from furnel.containers.records import constant
from furnel.errors import FurnelError
from furnel.games import Archive, Install, Place
from furnel.games.stack import read_mod
from furnel.mods import mergescript
from furnel.mods.meeting import contents_of, places_of
from furnel.mods.workspace import Workspace
from furnel.texts import document_of, laid_over, taken_apart

MERGE = "merge.py"
_WHAT = "Making the script that merges the mod"
_ROLES = frozenset({"path", "offset", "stored size", "size", "sum", "stored sum", "name hash"})
_HEAD_ROLES = frozenset({"entry count", "index offset"})


def merge_script(space: Workspace, folder: Path) -> str:
    """The script for a build in a folder. Raises FurnelError where a stranger's mod cannot be merged by records and lines."""
    install, rule = space.catalogue.install, space.profile.mods
    if rule.goes == "mirror":
        raise _cannot(space.profile.name, "its mods are copies of whole folders of the game")
    if rule.in_home:
        raise _cannot(space.profile.name, "its mods are in the user's own folder")
    places = places_of(install)
    whole = rule.goes in ("rebuilt", "in-place")
    parts = _archives(install, places, folder) if whole else [_open(install, places, folder)]
    plan = {
        "id": space.project.mod.id, "name": space.project.mod.name, "mods": rule.folder, "in_place": rule.goes == "in-place",
        "parts": [part for part in parts if part["entries"]],
    }  # fmt: skip
    if not plan["parts"]:
        raise _cannot(space.project.mod.name, "it changes nothing that can be shared with another mod")
    source = Path(mergescript.__file__).read_text("utf-8")
    empty = "PLAN: dict[str, Any] = {}\n"
    assert source.count(empty) == 1
    told = json.dumps(plan, indent=1, sort_keys=True)
    assert '"""' not in told  # in JSON they would be \"
    return source.replace(empty, f'PLAN: dict[str, Any] = json.loads(\n    r"""\n{told}\n"""\n)\n')


def _cannot(where: object, why: str) -> FurnelError:
    return FurnelError(
        _WHAT, where=where, why=why, remedy="Package it without: Furnel's bridge merges it all the same"
    )


def _open(install: Install, places: Mapping[str, Place], folder: Path) -> dict[str, Any]:
    """Definitions that lie open in the mod, or in its own archive."""
    rule = install.profile.mods
    in_archive = rule.goes == "archive"
    entries = {
        path: told
        for path, read in contents_of(install, read_mod(folder, install.profile.mods, True), folder)
        if path in places and (told := _told(install, places[path], path, read())) is not None
    }
    kind = kind_of_layout(layout_named(rule.layout), rule.layout) if in_archive else "folder"
    return {
        "file": rule.archive if in_archive else ".",
        "kind": kind,
        "whole": False,
        "entries": entries,
    }


def _archives(install: Install, places: Mapping[str, Place], folder: Path) -> list[dict[str, Any]]:
    """Copies of the game's archives with what is other in them."""
    out: dict[Path, dict[str, Any]] = {}
    for path, read in contents_of(install, read_mod(folder, install.profile.mods, True), folder):
        place = places.get(path)
        archive = place.archive if place is not None else _archive_of(install, path)
        inside = archive.path.relative_to(install.folder)
        if inside not in out:
            out[inside] = {"file": inside.as_posix(), "kind": _kind_of(archive), "whole": True, "entries": {}}
        told = _told(install, place, path, read()) if place is not None else None
        inner = place.inner if place is not None else path.removeprefix(archive.prefix)
        out[inside]["entries"][inner] = told
    return list(out.values())


def _archive_of(install: Install, path: str) -> Archive:
    return max(
        (one for one in install.archives if path.startswith(one.prefix)), key=lambda one: len(one.prefix)
    )


def _told(install: Install, place: Place, path: str, made: bytes) -> dict[str, Any] | None:
    """What a definition changes, line by line, and where the game's own is when only records of it are in mods."""
    if not taken_apart(path):
        return None
    role = install.profile.role_of(path)
    game = document_of(install.read(place.archive, place.inner), path)
    ours = document_of(made, path)
    partial = role is not None and role.partial
    if partial and not path.endswith((".json", ".toml")):
        raise _cannot(
            path, "mods have only records of it, which are put together by themselves only in TOML and JSON"
        )
    whole = laid_over(game, ours) if partial else ours
    try:
        before, after = (mergescript.lines_of(bytes(one.data), path) for one in (game, whole))
        hunks = hunks_of(before, after)
        found = mergescript.applied(hunks, before, path)
        if partial:
            mergescript.parts_of(before, path)  # which it has to be made of
    except mergescript.CannotMerge as error:
        raise _cannot(path, str(error)) from error
    if found != after:
        raise _cannot(path, "what it changes is not found again by its lines")
    own = place.archive.path.relative_to(install.folder).as_posix()
    return {"hunks": hunks, "game": [own, _kind_of(place.archive), place.inner] if partial else None}


def hunks_of(before: list[str], after: list[str]) -> list[dict[str, Any]]:
    """What lines become other ones: what is cut, what is put there, and what lies around it."""
    out, context = [], mergescript.CONTEXT
    for what, first, last, begin, end in SequenceMatcher(None, before, after, autojunk=False).get_opcodes():
        if what != "equal":
            out.append(
                {
                    "at": first, "cut": before[first:last], "put": after[begin:end],
                    "before": before[max(first - context, 0) : first], "behind": before[last : last + context],
                }
            )  # fmt: skip
    return out


def _kind_of(archive: Archive) -> Any:
    rule = archive.rule
    if rule.carve or rule.inside or rule.raw:
        raise _cannot(archive.name, "what it holds is not read by records and lines alone")
    if rule.layout in ("zip", "folder"):
        return rule.layout
    return kind_of_layout(layout_named(rule.layout), archive.name)


def kind_of_layout(layout: Layout | None, name: str) -> Any:
    """A layout as the script reads it. Raises FurnelError where it is more than one record of fixed length for each entry."""
    if layout is None:
        return "zip"
    index, start, entry = layout.index, layout.start, layout.entry
    plain = (
        index is not None and start is not None and index.names == "fields" and index.packed == "none" and index.in_front
        and not (index.start or index.file or index.empty or index.last)
        and fixed_width(index.fields) is not None and fixed_width(start.fields) is not None
        and layout.whole is None and layout.folders is None and layout.buckets is None and layout.volumes is None
        and layout.sums is None and not (layout.more or layout.masks or layout.raw or layout.inside)
        and not (entry.packings or entry.packing or entry.head or entry.prefix or entry.suffix)
        and not (entry.pad_last or layout.names.drop or layout.names.reversed) and layout.names.slash == "/"
        and layout.names.encoding in ("utf-8", "ascii")
        and entry.packed in mergescript.PACKINGS
    )  # fmt: skip
    if not plain or index is None or start is None:
        raise _cannot(
            name, "the script knows ZIP, folders, and archives with a record of fixed length for each entry"
        )
    fields = (*start.fields, *index.fields)
    roles = {part.holds for part in index.fields if part.holds}
    heads = {part.holds for part in start.fields if part.holds}
    sums = [part.sum for part in fields if part.sum is not None]
    simple = all(
        not (part.bits or part.means or part.stores or part.when or part.ends or part.order)
        for part in fields
    )
    known = all(part.type in (*mergescript.INTEGERS, "text", "bytes") for part in fields)
    if not (
        simple and known and roles <= _ROLES and heads <= _HEAD_ROLES and {"path", "offset", "size"} <= roles
    ) or any(one != "crc32" for one in sums):
        raise _cannot(name, "its records say more than names, places, sizes and CRC-32s")
    if (
        layout.footer is not None
        or "entry count" not in heads
        or (entry.packed != "none" and "stored size" not in roles)
    ):
        raise _cannot(name, "its records do not tell by themselves where its entries are")
    held = {part.holds: part.name for part in start.fields if part.holds}
    return {
        "order": layout.byte_order, "packed": entry.packed, "align": entry.align,
        "start": [_field(part) for part in start.fields], "record": [_field(part) for part in index.fields],
        "constants": {part.name: _constant(part) for part in start.fields if part.value is not None},
        "count": held["entry count"], "index_at": held.get("index offset", ""),
    }  # fmt: skip


def _constant(part: FieldPart) -> int | list[int]:
    held = constant(part, part.width or 0)
    return held if isinstance(held, int) else list(held)


def _field(part: FieldPart) -> list[Any]:
    return [part.name, part.type if part.type in mergescript.INTEGERS else part.width, part.holds or ""]
