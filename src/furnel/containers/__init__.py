"""Archives: folders, ZIPs and whatever a layout describes, through one protocol."""

from __future__ import annotations

import fnmatch
from collections.abc import Iterable, Mapping, Sequence
from pathlib import Path

from furnel.atomic import scratch_in, write_text
from furnel.containers import chained, indexed, several
from furnel.containers.anatomy import Anatomy, Span, dissect
from furnel.containers.carving import Carved, Find, find_files
from furnel.containers.container import Changes, Container, Content, Entry, Remark, Undressing, check_path
from furnel.containers.dressed import Single, bare_contents
from furnel.containers.folder import Folder
from furnel.containers.guessing import Guesses, guess
from furnel.containers.layoutfiles import (
    known_layouts,
    layout_text,
    layouts_folder,
    open_layout,
    parse_layout,
    shipped_layouts,
)
from furnel.containers.lone import Lone, is_lone
from furnel.containers.opening import (
    LIBRARY_KINDS,
    check_writable,
    dress,
    find_layout,
    layout_named,
    layout_to_write,
    open_inside,
    open_with,
    raw_rules,
)
from furnel.containers.rawparts import RawPart
from furnel.containers.readonly import read_only_kind
from furnel.containers.schema import InsidePart, Layout
from furnel.containers.sums import listed_names
from furnel.containers.tarred import Tar, is_tar, packing_named, write_tar
from furnel.containers.whole import write_whole
from furnel.containers.zipped import Zip, write_zip
from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress

__all__ = [
    "LIBRARY_KINDS",
    "Anatomy",
    "Carved",
    "Changes",
    "Container",
    "Content",
    "Entry",
    "Find",
    "Guesses",
    "InsidePart",
    "Layout",
    "RawPart",
    "Remark",
    "Span",
    "Undressing",
    "check_path",
    "dissect",
    "dress",
    "find_files",
    "find_layout",
    "guess",
    "known_layouts",
    "layout_files",
    "layout_named",
    "layout_text",
    "layout_to_write",
    "layouts_folder",
    "open_container",
    "open_inside",
    "open_layout",
    "pack_folder",
    "parse_layout",
    "shipped_layouts",
    "unpack_to",
    "write_archive",
    "write_changed",
    "write_zip",
]


def open_container(path: Path, layout: Layout | None = None, known: Sequence[str] = ()) -> Container:
    """The archive or folder at `path`; without a layout, the one that recognises it.

    `known` are inner paths for archives that only have their hashes. Raises FurnelError when nothing recognises it, with
    every candidate's reason.
    """
    if path.is_dir():
        return Folder(path)
    if layout is not None:
        return open_with(path, layout, known)
    if not path.is_file():
        raise FurnelError(
            "Opening an archive", where=path, why="there is no such file", remedy="Check the path"
        )
    with path.open("rb") as stream:
        if stream.read(4) in (b"PK\3\4", b"PK\5\6"):
            return Zip(path)
    if is_tar(path):
        return Tar(path)
    if (kind := read_only_kind(path)) is not None:
        return kind(path)
    refusals = []
    for candidate in known_layouts().values():
        if any(fnmatch.fnmatch(path.name, pattern) for pattern in candidate.files):
            try:
                return open_with(path, candidate, known)
            except FurnelError as error:
                refusals.append(f"{candidate.name}: {error.why} ({error.where})")
    if is_lone(path):
        return Lone(path)
    raise FurnelError(
        "Opening an archive",
        where=path,
        why="; ".join(refusals) or "it is no ZIP, TAR, 7z or ISO image, and of no known layout",
        remedy="Say which layout it has, or describe it with one (docs/layouts.md)",
    )


def write_archive(
    target: Path, contents: Mapping[str, Content], layout: Layout | None, progress: Progress = QUIET
) -> None:
    """A new archive of `contents` by inner path; without a layout a ZIP, or a TAR where it is called like one."""
    facts: Mapping[str, Mapping[str, int]] = {}
    if layout is not None and layout.whole is None and (rules := raw_rules(layout)):
        contents, facts = bare_contents(contents, rules, layout.told_roles)
    if layout is None and packing_named(target) is not None:
        write_tar(target, contents, progress)
    elif layout is None:
        check_writable(target.suffix.lower().removeprefix("."))
        write_zip(target, contents.items())
    elif layout.whole is not None:
        with scratch_in(target.parent) as scratch:
            plain = scratch / target.name
            write_archive(plain, contents, layout.model_copy(update={"whole": None}), progress)
            write_whole(target, layout, plain, {})
    elif layout.more:
        several.create(target, layout, Changes(add=contents, facts=facts), progress)
    elif layout.index is not None:
        indexed.create(target, layout, Changes(add=contents, facts=facts), progress)
    elif layout.chain is not None:
        chained.create(target, layout, Changes(add=contents, facts=facts), progress)
    else:
        Single(target, memoryview(b"")).rewrite(target, _only_one(target, contents), progress)


def _only_one(target: Path, contents: Mapping[str, Content]) -> Changes:
    if len(contents) != 1:
        raise FurnelError(
            "Making a file", where=target, why=f"it is one picture or sound, and there are {len(contents)} files",
            remedy="Put one file into the folder",
        )  # fmt: skip
    return Changes(replace={target.name: next(iter(contents.values()))})


def layout_files(archive: Path, layout: Layout | None) -> list[Path]:
    """The files beside an archive that its layout tells of, as far as they are there."""
    if layout is None:
        return []
    endings = [
        layout.index.file if layout.index else "",
        layout.sums.file if layout.sums else "",
        layout.names.list,
    ]
    found = [file for ending in endings if ending and (file := archive.with_suffix(ending)).is_file()]
    number = 0
    while (
        layout.volumes
        and (file := archive.with_name(layout.volumes.file_name(archive.name, number))).is_file()
    ):
        found.append(file)
        number += 1
    return found


def write_changed(
    archive: Path, layout: Layout | None, target: Path, changes: Changes, progress: Progress = QUIET
) -> int:
    """A changed copy of an archive, with the list of names beside it where there can be one; the number of its entries."""
    container = open_container(archive, layout)
    try:
        container.rewrite(target, changes, progress)
        there = {entry.path for entry in container.entries()} - changes.remove - changes.rename.keys()
    finally:
        container.close()
    paths = there | {*changes.add, *changes.rename.values()}
    _keep_names(target, layout or known_layouts().get(container.kind), paths)
    return len(paths)


def _keep_names(target: Path, layout: Layout | None, paths: Iterable[str]) -> None:
    """Put the paths in an archive that has only their hashes into the list beside it, which a game does not read.

    What the list says already stays.
    """
    if layout is None or not layout.names.list:
        return
    file = target.with_suffix(layout.names.list)
    said = file.read_text("utf-8", "replace") if file.is_file() else ""
    unknown = layout.entry.path_of(layout.names.unknown.partition("{")[0])
    fresh = sorted({path for path in paths if not path.startswith(unknown)} - {*listed_names(said)})
    if fresh:
        write_text(file, "\n".join([*said.splitlines(), *fresh, ""]))


def pack_folder(folder: Path, layout: Layout | None, target: Path, progress: Progress = QUIET) -> int:
    """An archive of every file in `folder`; the number of its entries."""
    if not folder.is_dir():
        raise FurnelError("Packing a folder", where=folder, why="there is no such folder")
    contents = Folder(folder).files()
    write_archive(target, contents, layout, progress)
    _keep_names(target, layout, contents)
    return len(contents)


def unpack_to(container: Container, folder: Path, progress: Progress = QUIET) -> int:
    """Every entry as a file below `folder`, nothing else touched; the number of files.

    Refuses paths that differ only in letter case, which one folder of some file systems cannot hold.
    """
    from furnel.atomic import write_bytes
    from furnel.progress import steps

    entries = container.entries()
    seen: dict[str, str] = {}
    for entry in entries:
        twin = seen.setdefault(entry.path.casefold(), entry.path)
        if twin != entry.path:
            raise FurnelError(
                "Unpacking an archive",
                where=container.path,
                why=f"{twin} and {entry.path} differ only in letter case",
            )
    for entry in steps(entries, len(entries), progress, f"Unpacking {container.path.name}"):
        write_bytes(folder / entry.path, container.read(entry.path))
    return len(entries)
