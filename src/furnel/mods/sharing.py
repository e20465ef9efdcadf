"""What a mod needs to be handed to strangers: a readme in plain words, what changed, credits, licence, a picture; and a look at
the package as a stranger would: in a copy of the game with no other mod, judged by the game, taken off again."""

from __future__ import annotations

import json
import textwrap
import zipfile
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fnmatch import fnmatchcase
from pathlib import Path
from typing import Any, Literal

import numpy as np

from furnel.atomic import scratch_in, write_bytes, write_text
from furnel.digests import file_digests, tree_digest
from furnel.errors import FurnelError, reason
from furnel.folders import state_folder
from furnel.games import Install, ask_report, commands_to_allow, is_for_people, read_stack, write_order
from furnel.imagefiles import (
    decode_level,
    is_animated,
    read_frames,
    read_texture,
    recognises,
    write_animation,
    write_texture,
)
from furnel.images.geometry import brought_to
from furnel.images.texture import Texture
from furnel.mods.credits import remember_credits
from furnel.mods.project import About, Project, Swap
from furnel.mods.render import read_source
from furnel.mods.unpacking import unpack_mod
from furnel.mods.workspace import Workspace
from furnel.progress import QUIET, Part, Progress
from furnel.schema import validated
from furnel.words import count

README, CHANGES, PREVIEW = "README.txt", "CHANGES.txt", "preview.png"
LICENCES = (
    "CC0-1.0", "CC-BY-4.0", "CC-BY-SA-4.0", "CC-BY-NC-4.0", "CC-BY-NC-SA-4.0", "CC-BY-ND-4.0", "CC-BY-NC-ND-4.0", "MIT",
    "Apache-2.0", "BSD-3-Clause", "Zlib", "ISC", "Unlicense", "0BSD", "GPL-2.0-or-later", "GPL-3.0-or-later",
    "LGPL-3.0-or-later", "AGPL-3.0-or-later", "MPL-2.0", "OFL-1.1", "Artistic-2.0", "FSFAP", "WTFPL",
)  # fmt: skip
"""Licences by their SPDX identifiers (https://spdx.org/licenses) that mods are often under."""
_WIDE = 78


@dataclass(frozen=True, slots=True)
class SharePoint:
    """One thing that a shared mod should have: what it is, how it stands, and what to do."""

    key: str
    state: Literal["fits", "differs", "breaks", "waiting"]
    said: str


def with_facts(
    space: Workspace,
    facts: Mapping[str, object],
    preview: Path | None = None,
    credits: Mapping[str, str] | None = None,
) -> Workspace:
    """The mod with more that it says of itself, saved. A `preview` picture is copied into the project; `credits` are by
    patterns of originals' paths. Raises FurnelError for what it cannot say."""
    if preview is not None:
        facts = {**facts, "preview": taken_preview(space, preview)}
    project = telling(space.project, facts)
    for pattern, credit in (credits or {}).items():
        project = credited(project, pattern, credit)
    remember(space, project)
    return space.save(project, "Say more of the mod")


def remember(space: Workspace, project: Project) -> None:
    """Keep whose the sources of a project are, where that is other than before, for the next mod that uses them."""
    before = {swap.original: (swap.source, swap.credit) for swap in space.project.made}
    fresh = [
        (space.source_path(swap), swap.credit)
        for swap in project.made
        if swap.source and swap.credit and before.get(swap.original) != (swap.source, swap.credit)
    ]
    if fresh:
        remember_credits(fresh)


def telling(project: Project, facts: Mapping[str, object]) -> Project:
    """A project whose mod says other things of itself. Raises FurnelError for what it cannot say."""
    raw = {**project.mod.model_dump(), **facts}
    about = validated(About, raw, "Sharing the mod", project.mod.name, "docs/projects.md")
    return project.model_copy(update={"mod": about})


def credited(project: Project, pattern: str, credit: str) -> Project:
    """A project in which the sources of some swaps, by a pattern of their originals' paths, are somebody's."""
    return credited_one_by_one(
        project, {swap.original: credit for swap in project.swaps if fnmatchcase(swap.original, pattern)}
    )


def credited_one_by_one(project: Project, credits: Mapping[str, str]) -> Project:
    """A project in which the sources of some swaps, by their originals' paths, are somebody's."""
    for swap in project.swaps:
        if (credit := credits.get(swap.original, swap.credit)) != swap.credit:
            project = project.with_swap(swap.model_copy(update={"credit": credit}))
    return project


def taken_preview(space: Workspace, picture: Path) -> str:
    """A picture copied into the project as the mod's picture of itself; its name there."""
    inside = f"{PREVIEW.partition('.')[0]}{picture.suffix.lower()}"
    data = read_source(picture)
    if not recognises(data):
        raise FurnelError(
            "Sharing the mod", where=picture, why="it is no picture", remedy="Choose a PNG or a JPEG"
        )
    write_bytes(space.folder / inside, data)
    return inside


def share_points(space: Workspace) -> list[SharePoint]:
    """What is missing before a mod is handed to strangers: gaps differ, they do not break."""
    about = space.project.mod
    gaps = credit_gaps(space)
    told = (
        ("author", about.author, "nobody is named as its author"),
        ("summary", about.summary, "no sentence says what it does"),
        ("licence", about.licence, "nothing says what others may do with it"),
        ("preview", preview_of(space) is not None, "it has no picture of itself"),
    )
    out = [
        SharePoint(key, "fits" if there else "differs", "" if there else said) for key, there, said in told
    ]
    said = (
        f"{count(len(gaps), 'source')} without credit: {', '.join(swap.made_from for swap in gaps[:3])}"
        if gaps
        else ""
    )
    return [*out, SharePoint("credits", "differs" if gaps else "fits", said)]


def credit_gaps(space: Workspace) -> list[Swap]:
    """The swaps whose source is somebody's, and nothing says whose."""
    return [swap for swap in space.project.made if swap.source and not swap.credit]


def preview_of(space: Workspace) -> Path | None:
    """The mod's picture of itself, where it has one."""
    return picture_in(space.folder, space.project.mod.preview)


def preview_files(space: Workspace) -> dict[str, bytes]:
    """The pictures of a package by their names: the mod's own, brought to the sizes that the profile's `[share]` wants. Raises
    FurnelError for a picture that cannot be read."""
    picture, sizes = preview_of(space), space.profile.share.previews
    if picture is None:
        return {}
    data = picture.read_bytes()
    if not sizes:
        return {f"preview{picture.suffix.lower()}": data}
    if is_animated(data):
        frames = read_frames(data, picture)
        whole, times = [frame.picture for frame in frames], [frame.ms for frame in frames]
    else:
        whole, times = [decode_level(read_texture(data, picture))], [0]
    out = {}
    for place, size in enumerate(sizes):
        width, height = map(int, size.split("x"))
        made = [brought_to(one, width, height, "fill") for one in whole]
        pixels = np.asarray(made[0].pixels, np.uint8)
        out[PREVIEW if place == 0 else f"preview-{size}.png"] = (
            write_animation(made, times, "APNG")
            if len(made) > 1
            else write_texture(Texture(width, height, "RGBA8", (pixels.tobytes(),), "PNG", True))
        )
    return out


def picture_in(folder: Path, told: str = "") -> Path | None:
    """The picture that a mod's folder has of it, by the name that was `told` or the usual one."""
    file = folder / (told or PREVIEW)
    return file if file.is_file() and file.resolve().is_relative_to(folder.resolve()) else None


def readme_text(space: Workspace, files: Sequence[str]) -> str:
    """A readme for people without Furnel: what the mod is, how it comes into the game and out again, what it touches, whose it
    is. `files` are those of the build."""
    about, rule = space.project.mod, space.profile.mods
    game = space.profile.name + (f" {rule.game_version}" if rule.game_version else "")
    title = f"{about.name} {about.version}" + (f" by {about.author}" if about.author else "")
    parts = [f"{title}\n{'=' * len(title)}", f"A mod for {game}."]
    parts += [_wrapped(text) for text in (about.summary, about.description) if text]
    parts += [
        _headed("How to install it", _installing(space, files)),
        _headed("How to remove it", _removing(space, files)),
    ]
    if about.with_installer:
        parts.append(_headed("With other mods", _merging(space)))
    own = [file for file in files if file != rule.about and not is_for_people(file)]
    touched = "\n".join(f"  {file}" for file in own)
    parts.append(_headed("What it touches", f"{count(len(own), 'file')}, and nothing else:\n{touched}"))
    credits = _credits(space)
    if credits:
        parts.append(_headed("Credits", "\n".join(f"  {line}" for line in credits)))
    if about.licence:
        parts.append(_headed("Licence", f"{about.licence} (https://spdx.org/licenses/{about.licence}.html)"))
    return "\n\n".join(parts) + "\n"


def _headed(title: str, text: str) -> str:
    return f"{title}\n{'-' * len(title)}\n{text}"


def _wrapped(text: str) -> str:
    return "\n".join(textwrap.fill(line, _WIDE) if line.strip() else "" for line in text.splitlines())


def _installing(space: Workspace, files: Sequence[str]) -> str:
    about, rule = space.project.mod, space.profile.mods
    if not rule.has_order:
        where = "the game's folder" if rule.goes == "in-place" else f"{rule.folder} in the game's folder"
        steps = [f"Copy the files of the folder {about.id} into {where}."]
        if rule.goes == "in-place":
            steps.insert(
                0, "Keep copies of the game's own files of the same names: this mod stands in their place."
            )
    else:
        entry = rule.order_file.write("", [(about.id, True)], rule.order).strip()
        steps = [
            f"Unpack this ZIP into {rule.folder} in the game's folder, so that {rule.folder}/{about.id}/{rule.about} is there.",
            f"Put it last in {rule.order}:\n\n{textwrap.indent(entry, '       ')}\n",
        ]
    return "\n".join(textwrap.indent(f"{number}. {step}", "  ") for number, step in enumerate(steps, 1))


def _removing(space: Workspace, files: Sequence[str]) -> str:
    about, rule = space.project.mod, space.profile.mods
    if rule.has_order:
        return f"  Delete {rule.folder}/{about.id} and its entry in {rule.order}. The game's own files were never changed."
    if rule.goes == "in-place":
        return "  Put your copies of the game's own files back."
    return f"  Delete the mod's files in {rule.folder}. The game's own files were never changed."


def _merging(space: Workspace) -> str:
    """How somebody without Furnel merges the mod with others."""
    in_place = space.profile.mods.goes == "in-place"
    steps = (
        ["python3 merge.py GAME        puts the mod into the game's files as they are now"]
        if in_place
        else [
            "python3 merge.py             says which files other mods change, too",
            "python3 merge.py --over MOD  puts what this mod changes into what MOD has of them",
        ]
    )
    steps.append(
        f"python3 merge.py {'GAME ' if in_place else ''}--back{'' if in_place else '     '}  brings back what was there before"
    )
    where = (
        "its folder"
        if in_place
        else f"{space.profile.mods.folder}/{space.project.mod.id}, when it is in the game"
    )
    return (
        f"merge.py merges it with mods that change the same files. It needs Python 3.10 and is run in\n{where}:\n\n"
        + textwrap.indent("\n".join(steps), "  ")
    )


def _credits(space: Workspace) -> list[str]:
    by_credit: dict[str, list[str]] = {}
    for swap in space.project.made:
        if swap.credit:
            by_credit.setdefault(swap.credit, []).append(swap.original)
    return [
        f"{credit}: {', '.join(used[:4])}"
        + (f" and {count(len(used) - 4, 'other')}" if len(used) > 4 else "")
        for credit, used in sorted(by_credit.items())
    ]


# what changed since the last package


def changes_since(space: Workspace, folder: Path) -> list[str]:
    """What a build has otherwise than the last package, in lines; all that it has where it is the first one."""
    before = _packaged(space)
    files = _digests(folder, space.profile.mods.about)
    values = _values(space)
    if not before:
        return ["The first version."]
    old_files, old_values = before.get("files", {}), before.get("values", {})
    out = []
    for path in sorted({*files, *old_files}):
        if files.get(path) == old_files.get(path):
            continue
        if path in values and path in old_values:
            out += [f"{path}: {line}" for line in values[path] if line not in old_values[path]]
            out += [f"{path}: no more {line}" for line in old_values[path] if line not in values[path]]
        else:
            out.append(
                f"{'New' if path not in old_files else 'Gone' if path not in files else 'Changed'}: {path}"
            )
    return out


def changes_text(space: Workspace, folder: Path) -> str:
    """The text of what changed, version by version: as it was edited in the project, with the current version's on top."""
    kept = _kept_changes(space)
    head = f"{space.project.mod.version}"
    lines = changes_since(space, folder)
    if kept.splitlines()[:1] == [head]:
        section, gap, rest = kept.partition("\n\n")
        told = section.splitlines()
        more = (
            [f"- {line}" for line in lines if f"- {line}" not in told] if last_version(space) == head else []
        )
        return "\n".join([*told, *more]) + (gap + rest if gap else "\n")
    fresh = f"{head}\n" + "".join(f"- {line}\n" for line in lines or ["Nothing is another."])
    return f"{fresh}\n{kept}" if kept else fresh


def note_package(space: Workspace, folder: Path, changes: str) -> None:
    """Remember what was packaged, for what changes next; and the changes' text in the project, where it can be edited."""
    told = {
        "version": space.project.mod.version,
        "files": _digests(folder, space.profile.mods.about),
        "values": _values(space),
    }
    write_text(space.folder / CHANGES, changes)
    write_text(space.folder / "packaged.json", json.dumps(told, indent=1, sort_keys=True))


def kept_changes(space: Workspace, folder: Path | None = None) -> str:
    """What is said of the changes as of now: with a build's in front where there is one, otherwise as it was edited last."""
    return changes_text(space, folder) if folder is not None else _kept_changes(space)


def keep_changes(space: Workspace, text: str) -> None:
    """Keep what somebody wrote of the changes, for this package and the next ones."""
    write_text(space.folder / CHANGES, text if text.endswith("\n") or not text else f"{text}\n")


def last_version(space: Workspace) -> str:
    """The version of the last package; empty when there was none."""
    return str(_packaged(space).get("version", ""))


def _kept_changes(space: Workspace) -> str:
    try:
        return (space.folder / CHANGES).read_text("utf-8")
    except (OSError, UnicodeDecodeError):
        return ""


def _packaged(space: Workspace) -> dict[str, Any]:
    try:
        found = json.loads((space.folder / "packaged.json").read_text("utf-8"))
        return found if isinstance(found, dict) and isinstance(found.get("files"), dict) else {}
    except (OSError, ValueError):
        return {}


def _digests(folder: Path, about: str) -> dict[str, str]:
    return {path: digest for path, digest in file_digests(folder).items() if path != about}


def _values(space: Workspace) -> dict[str, list[str]]:
    return {
        swap.original: [change.said() for change in swap.changes]
        for swap in space.project.made
        if swap.changes
    }


# as a stranger sees it


def check_package(space: Workspace, package: Path, progress: Progress = QUIET) -> list[SharePoint]:
    """Try a package in a copy of the game that has no other mod: unpacked by nothing of ours, switched on, judged by the game
    (where it can be asked), taken off again. Raises FurnelError where the copy cannot be made."""
    install, about = space.catalogue.install, space.project.mod
    rule = space.profile.mods
    if rule.in_home:
        return [SharePoint("tried", "waiting", "mods of this game lie in your own folder: try it on Try")]
    if not rule.has_order:
        return [
            SharePoint("tried", "waiting", "mods of this game stand in the place of its files: try it on Try")
        ]
    with scratch_in(state_folder() / "tried") as scratch:
        copy = _linked_copy(install, scratch / "game")
        mods = copy / rule.folder
        empty = tree_digest(mods)
        try:
            with zipfile.ZipFile(package) as packed:
                unpack_mod(
                    package, scratch / "seen", Part(progress, 0, 0.3)
                )  # as strictly as everybody else's
                packed.extractall(mods)
        except (OSError, zipfile.BadZipFile) as error:
            raise FurnelError(
                "Trying a package", where=package, why=str(error), remedy="Package it again"
            ) from error
        write_order(copy / rule.order, [(about.id, True)], rule.order_file)
        strange = Install(copy, install.profile)
        try:
            out = _seen(strange, about.id, about.version, Part(progress, 0.3, 1))
        finally:
            strange.close()
        for file in sorted((mods / about.id).rglob("*"), reverse=True):
            file.unlink() if file.is_file() else file.rmdir()
        (mods / about.id).rmdir()
        (copy / rule.order).unlink()
        clean = tree_digest(mods) == empty
        left = (
            "taking its folder away leaves nothing"
            if clean
            else "files stay behind when its folder is taken away"
        )
        return [*out, SharePoint("removed", "fits" if clean else "breaks", left)]


def _seen(strange: Install, mod: str, version: str, progress: Progress) -> list[SharePoint]:
    stack = read_stack(strange)
    there = [one for one in stack if one.id == mod and one.on]
    known = there and there[0].version == version
    out = [
        SharePoint(
            "unpacked",
            "fits" if known else "breaks",
            f"found as {mod} {version}" if known else "it is not found as a mod",
        )
    ]
    if not strange.profile.start.report or commands_to_allow(strange.profile):
        return [
            *out,
            SharePoint(
                "judged",
                "waiting",
                "the game was not asked: its profile has no command for that that is allowed",
            ),
        ]
    report = ask_report(strange, progress)
    mine = [word for word in report.words if word.winner == mod]
    wrong = [word for word in mine if word.verdict != "accepted"]
    if wrong:
        return [
            *out,
            SharePoint("judged", "breaks", f"{wrong[0].path} is {wrong[0].verdict}: {wrong[0].reason}"),
        ]
    return [
        *out,
        SharePoint(
            "judged", "fits" if mine else "breaks", f"the game accepts {count(len(mine), 'asset')} of it"
        ),
    ]


def _linked_copy(install: Install, copy: Path) -> Path:
    """A copy of a game by links, with a mods folder of its own that is empty: nothing in it leads to the game's own one."""
    rule = install.profile.mods
    own = {install.mods_folder().resolve(), install.order_file().resolve()}
    above = {parent for place in own for parent in place.parents}

    def link(source: Path, target: Path) -> None:
        target.mkdir()
        for entry in sorted(source.iterdir()):
            if entry.resolve() in own:
                continue
            if entry.is_dir() and entry.resolve() in above:
                link(entry, target / entry.name)
            else:
                (target / entry.name).symlink_to(entry.resolve())

    try:
        link(install.folder, copy)
        (copy / rule.folder).mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise FurnelError(
            "Trying a package", where=copy, why=reason(error), remedy="Check the free space"
        ) from error
    return copy
