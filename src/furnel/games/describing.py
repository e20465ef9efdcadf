"""Describing a game that nobody knows yet: what is in its folder, and a profile made from that."""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import dataclass
from pathlib import Path
from typing import Literal

from furnel import imagefiles, sound, texts
from furnel.atomic import write_text
from furnel.containers import find_files, known_layouts, layout_files, open_container
from furnel.containers.mapped import MappedFile
from furnel.errors import FurnelError
from furnel.games.profile import Profile, known_profiles, parse_profile, profiles_folder
from furnel.progress import QUIET, Progress, steps
from furnel.schema import quoted

Standing = Literal["archive", "loose", "carved", "unknown", "side"]
_LOOSE = {*imagefiles.SUFFIXES, *sound.SUFFIXES, *texts.FORMATS}
_PROGRAMS = {".exe", ".dll", ".so", ".bin", ".x86_64", ".sh", ".py", ".pyc", ".log", ".sav", ".lock"}
_MOST_FILES = 50_000
_SMALLEST = 1024


@dataclass(frozen=True, slots=True)
class Sighting:
    """A file of the game's folder (or a folder of loose files): what it is, as what it opens, how many assets it has.

    `path` is below the game's folder; `layout` a layout's name, `zip` or `folder`.
    """

    path: str
    standing: Standing
    layout: str = ""
    assets: int = 0
    size: int = 0
    note: str = ""


@dataclass(frozen=True, slots=True)
class Survey:
    """Everything that is in a folder."""

    folder: Path
    sightings: tuple[Sighting, ...]

    def of(self, standing: Standing) -> tuple[Sighting, ...]:
        return tuple(found for found in self.sightings if found.standing == standing)


def survey(folder: Path, progress: Progress = QUIET) -> Survey:
    """Look at every file of a folder. Raises FurnelError when there is no such folder."""
    if not folder.is_dir():
        raise FurnelError(
            "Describing a game", where=folder, why="there is no such folder", remedy="Check the path"
        )
    files = sorted(path for path in folder.rglob("*") if path.is_file() and not path.is_symlink())[
        :_MOST_FILES
    ]
    sides = _side_files(files)
    out: list[Sighting] = []
    loose: Counter[str] = Counter()
    sizes: Counter[str] = Counter()
    for file in steps(files, len(files), progress, "Looking at the game's files"):
        inner = file.relative_to(folder).as_posix()
        size = file.stat().st_size
        if file in sides:
            out.append(Sighting(inner, "side", size=size, note=f"belongs to {sides[file].name}"))
        elif file.suffix.lower() in _LOOSE:
            home = inner.split("/")
            loose["/".join(home[: min(len(home) - 1, 2)])] += 1
            sizes["/".join(home[: min(len(home) - 1, 2)])] += size
        else:
            out.append(_look_at(file, inner, size))
    out += [
        Sighting(home or ".", "loose", "folder", count, sizes[home])
        for home, count in sorted(loose.items())
        if home
    ]
    if loose[""]:
        out.append(
            Sighting(".", "unknown", size=sizes[""], note=f"{loose['']} loose files beside the game itself")
        )
    order = ("archive", "loose", "carved", "unknown", "side")
    return Survey(folder, tuple(sorted(out, key=lambda found: (order.index(found.standing), found.path))))


def _side_files(files: list[Path]) -> dict[Path, Path]:
    """Index and checksum files and volumes, by the archive that they lie beside."""
    out: dict[Path, Path] = {}
    there = set(files)
    for layout in known_layouts().values():
        for file in files:
            if any(file.match(pattern) for pattern in layout.files):
                out.update({beside: file for beside in layout_files(file, layout) if beside in there})
    return out


def _look_at(file: Path, inner: str, size: int) -> Sighting:
    try:
        container = open_container(file)
        try:
            return Sighting(inner, "archive", container.kind, len(container.entries()), size)
        finally:
            container.close()
    except FurnelError as error:
        reason = error.why
    if size < _SMALLEST:
        return Sighting(inner, "unknown", size=size, note="too small to hold much")
    source = MappedFile(file)
    try:
        broken: Counter[str] = Counter()
        found = Counter(find.kind for find in find_files(source.view, broken=broken))
    finally:
        source.close()
    if found:
        kinds = ", ".join(f"{count} {kind.upper()}" for kind, count in found.most_common())
        return Sighting(inner, "carved", "carved", found.total(), size, f"{kinds} inside")
    if broken:
        kinds = ", ".join(f"{count} {kind.upper()}" for kind, count in broken.most_common())
        note = f"begins like {kinds} and does not hold together: packed or masked?"
        return Sighting(inner, "unknown", size=size, note=note)
    program = file.suffix.lower() in _PROGRAMS
    return Sighting(inner, "unknown", size=size, note="part of the program, it seems" if program else reason)


def profile_text(
    found: Survey,
    name: str,
    mods: str = "mods",
    version: str = "1.0",
    leave_out: frozenset[str] = frozenset(),
    goes: str = "in-place",
) -> str:
    """A profile's TOML for a surveyed game; `leave_out` are sightings (by path) that are not wanted, `goes` says how mods reach
    the game: `in-place`, as a `mirror` of its paths in the folder `mods`, or as `loose` files in a folder of their own
    there."""
    wanted = [
        one
        for one in found.sightings
        if one.standing in ("archive", "loose", "carved") and one.path not in leave_out
    ]
    if not wanted:
        raise FurnelError(
            "Describing a game", where=found.folder, why="there is nothing in it that Furnel can open",
            remedy="Work out one of its archives first, then look again",
        )  # fmt: skip
    lines = ["furnel-profile = 1", f'id = "{_identity(name)}"', f"name = {quoted(name)}", "", "[recognise]"]
    marks = [one.path for one in wanted][:3]
    lines.append(f"files = [{', '.join(quoted(mark) for mark in marks)}]")
    stems = Counter(Path(one.path).stem for one in wanted)
    for one in wanted:
        lines += ["", "[[archives]]", f"files = {quoted(one.path)}"]
        lines.append(f'layout = "{"folder" if one.standing == "carved" else one.layout}"')
        stem = Path(one.path).stem if stems[Path(one.path).stem] == 1 else one.path.replace("/", ".")
        if one.standing == "carved":
            lines.append("carve = true")
        if one.standing == "loose":
            lines.append(f"prefix = {quoted(f'{one.path}/')}")
        else:
            lines += [f"prefix = {quoted(f'{stem}/')}", "apart = true"]
    lines += ["", "[mods]", f"goes = {quoted(goes)}"]
    if goes != "in-place":
        lines.append(f"folder = {quoted(mods)}")
    if goes == "loose":
        lines += ['about = "mod.toml"', f"order = {quoted(f'{mods}/order.toml')}"]
    lines.append(f"game-version = {quoted(version)}")
    return "\n".join(lines) + "\n"


def keep_profile(text: str) -> Profile:
    """Put a profile with the user's own. Raises FurnelError for one that is wrong or whose id is taken."""
    profile = parse_profile(text, "the new profile")
    target = profiles_folder() / f"{profile.id}.toml"
    if profile.id in known_profiles():
        raise FurnelError(
            "Keeping a profile", where=profile.id, why="there is a game of that name already",
            remedy="Give it another name, or edit the one in your profiles folder",
        )  # fmt: skip
    write_text(target, text)
    return profile


def _identity(name: str) -> str:
    plain = re.sub(r"[^a-z0-9]+", "-", name.casefold()).strip("-") or "game"
    return plain if plain[0].isalpha() else f"game-{plain}"
