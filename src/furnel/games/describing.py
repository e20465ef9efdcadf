"""Describing a game that nobody knows yet: what is in its folder, and a profile made from that."""

from __future__ import annotations

import fnmatch
import glob
import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import islice
from pathlib import Path
from typing import Literal

from furnel import imagefiles, sound
from furnel.atomic import write_text
from furnel.containers import find_files, known_layouts, layout_files, open_container
from furnel.containers.container import check_path
from furnel.containers.lone import is_lone
from furnel.containers.mapped import MappedFile
from furnel.errors import FurnelError, reason
from furnel.games.forms import GuessedForm, form_lines, guess_forms, read_with
from furnel.games.profile import Profile, known_profiles, parse_profile, profiles_folder
from furnel.games.toldsheets import SPEAKS, ToldSheet, told_sheets
from furnel.listing import list_folder
from furnel.progress import QUIET, Part, Progress, steps
from furnel.schema import quoted
from furnel.signatures import is_text, sort_of
from furnel.words import count

Standing = Literal["archive", "loose", "carved", "unknown", "side", "none"]
_PROGRAMS = {".exe", ".dll", ".so", ".bin", ".x86_64", ".sh", ".py", ".pyc", ".log", ".sav", ".lock"}
_ENDINGS = {*imagefiles.SUFFIXES, *sound.SUFFIXES}
_OTHER = "other file"
_SMALLEST = 1024
_HEAD = 1088
_MOST_PACKED, _LARGEST_PACKED = 64, 32 << 20
_TOLD = 1500  # texts that are looked into for sheets
_COMMON = re.compile(
    r"\d+|readme|licen[cs]e|copying|authors?|credits|changelog|news|install|todo|makefile|index|config|settings|default|"
    r"data|images?|pictures?|graphics|gfx|sounds?|music|sfx|audio|fonts?|textures?|sprites?|maps?|levels?|scripts?|"
    r"main|menu|title|logo|icon|background|bg|cursor|player|test|base|common|ui|hud|tiles?|en|de|fr|es|it|ru|"
    r"[a-z]",
    re.IGNORECASE,
)


@dataclass(frozen=True, slots=True)
class Sighting:
    """A file of the game's folder (or all loose files of it): what it is, as what it opens, how many assets it has.

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
    """Everything that is in a folder; `loose` are the paths of files that are in no archive, `forms` how texts are written,
    `sheets` the pictures whose cells these tell, `packed` the loose files that are each packed as a whole."""

    folder: Path
    sightings: tuple[Sighting, ...]
    loose: tuple[str, ...] = ()
    forms: tuple[GuessedForm, ...] = ()
    sheets: tuple[ToldSheet, ...] = ()
    packed: tuple[Sighting, ...] = ()

    def of(self, standing: Standing) -> tuple[Sighting, ...]:
        return tuple(found for found in self.sightings if found.standing == standing)


def survey(folder: Path, progress: Progress = QUIET) -> Survey:
    """Look at every file of a folder. Raises FurnelError when there is no such folder."""
    if not folder.is_dir():
        raise FurnelError(
            "Describing a game", where=folder, why="there is no such folder", remedy="Check the path"
        )
    listing = list_folder(folder)
    files = [folder / one.path for one in listing.files]
    sides = _side_files(files)
    out = [Sighting(path, "none", note=why) for path, why in listing.left_out]
    kinds: Counter[str] = Counter()
    loose: list[str] = []
    texts: list[str] = []
    pictures: list[str] = []
    packed: list[Sighting] = []
    looking = Part(progress, 0, 0.8)
    for (inner, size, _), file in steps(
        zip(listing.files, files, strict=True), len(files), looking, "Looking at the game's files"
    ):
        if file in sides:
            out.append(Sighting(inner, "side", size=size, note=f"belongs to {sides[file].name}"))
            continue
        try:
            check_path(inner, folder)
            seen, lone = _archive(file, inner, size), is_lone(file)
            kind = "" if seen is not None else _kind_of(file)
            if not kind and seen is None:
                seen = _look_into(file, inner, size)
            elif kind in ("picture", "sound") and file.suffix.lower() not in _ENDINGS and size >= _SMALLEST:
                look = _look_into(file, inner, size)
                seen, kind = (look, "") if look.standing == "unknown" else (None, kind)
        except (OSError, FurnelError) as error:
            why = error.why if isinstance(error, FurnelError) else reason(error)
            out.append(Sighting(inner, "none", size=size, note=why))
            continue
        if seen is None or seen.standing == "unknown":
            kinds[kind or _OTHER] += 1
            loose.append(inner)
            if lone:
                packed.append(Sighting(inner, "loose", "packed", size=size))
            if kind in ("text", "picture"):
                (texts if kind == "text" else pictures).append(inner)
        if seen is not None and (seen.standing != "unknown" or size >= _SMALLEST):
            out.append(seen)
    forms = guess_forms(folder, texts, Part(progress, 0.8, 0.9))
    speaking = steps(texts, len(texts), Part(progress, 0.9, 1), "Looking for sheets that texts tell of")
    read = islice(read_with(folder, speaking, forms, SPEAKS), _TOLD)
    sheets = told_sheets(read, pictures, lambda path: _size_of(folder / path))
    if set(kinds) - {_OTHER} or any(one.standing in ("archive", "carved") for one in out):
        told = ", ".join(count(number, kind) for kind, number in kinds.most_common())
        if sheets:
            told += f"; {count(len(sheets), 'sheet')} told by texts"
        if forms:
            told += f"; read as records: {', '.join(form.words for form in forms)}"
        whole = sum(one.size for one in listing.files) - sum(one.size for one in out)
        out.append(Sighting(".", "loose", "folder", len(loose), whole, told))
    order = ("archive", "loose", "carved", "unknown", "side", "none")
    found = sorted(out, key=lambda found: (order.index(found.standing), found.path))
    return Survey(folder, tuple(found), tuple(loose), forms, tuple(sheets), tuple(packed))


def _kind_of(file: Path) -> str:
    """What a file is by its content, where that is told at once and it is no archive."""
    with file.open("rb") as stream:
        head = stream.read(_HEAD)
    if imagefiles.recognises(head) and not head.startswith(b"PK"):
        return "picture"
    if head.startswith(b"PK") and file.suffix.lower() in imagefiles.SUFFIXES:
        return "picture"
    if sound.recognises(head):
        return "sound"
    if (sort := sort_of(head, file.name)) is not None and sort.called not in (
        "an archive",
        "bare data",
        "a program",
    ):
        return _OTHER
    return "text" if is_text(head) else "" if head else _OTHER


def _size_of(file: Path) -> tuple[int, int] | None:
    """A picture's width and height; None for one that is damaged."""
    try:
        header = imagefiles.read_header(file.read_bytes(), file.name)
    except (OSError, FurnelError):
        return None
    return header.width, header.height


def _side_files(files: list[Path]) -> dict[Path, Path]:
    """Index and checksum files and volumes, by the archive that they lie beside."""
    out: dict[Path, Path] = {}
    there = set(files)
    for layout in known_layouts().values():
        patterns = [re.compile(fnmatch.translate(pattern)) for pattern in layout.files]
        for file in files:
            if any(pattern.match(file.name) for pattern in patterns):
                out.update({beside: file for beside in layout_files(file, layout) if beside in there})
    return out


def _archive(file: Path, inner: str, size: int) -> Sighting | None:
    """An archive that opens; None for everything else."""
    try:
        container = open_container(file)
    except FurnelError:
        return None
    try:
        if container.kind == "packed" or (
            container.kind == "zip" and file.suffix.lower() in imagefiles.SUFFIXES
        ):
            return None  # one file, and it stays so
        return Sighting(inner, "archive", container.kind, len(container.entries()), size)
    except FurnelError:
        return None
    finally:
        container.close()


def _look_into(file: Path, inner: str, size: int) -> Sighting:
    """What is in a file of which nothing is known."""
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
    note = "part of the program, it seems" if program else "nothing in it is known"
    return Sighting(inner, "unknown", size=size, note=note)


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
    lines.append(f"files = [{', '.join(quoted(glob.escape(mark)) for mark in _marks(found))}]")
    stems = Counter(Path(one.path).stem for one in wanted)
    taken = {
        path.split("/")[0] for path in found.loose if "/" in path
    }  # no archive's paths begin like a folder's
    for group in _groups(wanted, found):
        one = group[0]
        lone = len(group) == 1
        pattern = glob.escape(one.path) if lone else _pattern(one.path)
        lines += ["", "[[archives]]", f"files = {quoted(pattern)}"]
        lines.append(f'layout = "{"folder" if one.standing == "carved" else one.layout}"')
        if one.standing == "carved":
            lines.append("carve = true")
        if one.standing == "loose":
            lines += _inside(found.packed)
            continue
        stem = Path(one.path).stem
        if lone:
            free = stems[stem] == 1 and stem not in taken
            lines.append(f"prefix = {quoted(f'{stem if free else one.path}/')}")
        else:
            lines.append('prefix = "{stem}/"')
        lines.append("apart = true")
    lines += ["", "[mods]", f"goes = {quoted(goes)}"]
    if goes != "in-place":
        lines.append(f"folder = {quoted(mods)}")
    if goes == "loose":
        lines += ['about = "mod.toml"', f"order = {quoted(f'{mods}/order.toml')}"]
    lines.append(f"game-version = {quoted(version)}")
    for form in found.forms:
        lines += form_lines(form.form)
    for sheet in found.sheets:
        path, why = quoted(glob.escape(sheet.picture)), quoted(f"{sheet.text} says so")
        lines += [
            "",
            "[[roles]]",
            f"path = {path}",
            'role = "sheet"',
            f"cell = {list(sheet.cell)}",
            f"why = {why}",
        ]
    return "\n".join(lines) + "\n"


def _inside(packed: Sequence[Sighting]) -> list[str]:
    """How files that are packed as a whole are said to be what is in them. Many or large ones stay as they are, as each is
    unpacked when its folder is opened."""
    sizes: dict[str, list[int]] = {}
    for one in packed:
        sizes.setdefault(Path(one.path).suffix, []).append(one.size)
    few = sorted(
        ending for ending, some in sizes.items() if len(some) <= _MOST_PACKED and sum(some) <= _LARGEST_PACKED
    )
    told = [f'{quoted(f"*{ending}")} = "packed"' for ending in few]
    return [f"inside = {{ {', '.join(told)} }}"] if told else []


def _pattern(path: str) -> str:
    home, _, name = path.rpartition("/")
    return f"{glob.escape(home)}/*{Path(name).suffix}" if home else f"*{Path(name).suffix}"


def _groups(wanted: list[Sighting], found: Survey) -> list[list[Sighting]]:
    """Archives that one rule can name: all files of one ending in one folder, with names of their own."""
    stems = Counter(Path(one.path).stem for one in wanted)
    taken = {path.split("/")[0] for path in found.loose if "/" in path}
    every = Counter(_pattern(path) for path in (*found.loose, *(one.path for one in found.sightings)))
    by_rule: dict[tuple[str, str, str], list[Sighting]] = {}
    for one in wanted:
        stem = Path(one.path).stem
        free = (
            one.standing == "archive"
            and "." in one.path.rpartition("/")[2]
            and stems[stem] == 1
            and stem not in taken
        )
        rule = (_pattern(one.path), one.standing, one.layout) if free else (one.path, "", "")
        by_rule.setdefault(rule, []).append(one)
    out: list[list[Sighting]] = []
    for (pattern, standing, _), group in by_rule.items():
        if standing and len(group) > 1 and len(group) == every[pattern]:
            out.append(group)
        else:
            out += [[one] for one in group]
    return out


def _marks(found: Survey) -> list[str]:
    """Up to three files that this game has and others hardly have: of names that are no everyday words, high up."""
    archives = [one.path for one in found.of("archive")]
    paths = [*archives, *found.loose]

    def rank(path: str) -> tuple[int, int, int, str]:
        name = path.rpartition("/")[2]
        stem = name.partition(".")[0]
        own = sum(
            len(word)
            for word in re.findall(r"[^\W\d_]+", stem)
            if not _COMMON.fullmatch(word) and len(word) > 2
        )
        return -min(own, 10), path.count("/"), path not in archives, path

    ranked = sorted(paths, key=rank)
    out: list[str] = []
    for path in ranked:  # of different folders, so that one that is reordered leaves the others
        if path.rpartition("/")[0] not in {one.rpartition("/")[0] for one in out}:
            out.append(path)
        if len(out) == 3:
            break
    return out + [path for path in ranked if path not in out][: 3 - len(out)]


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
