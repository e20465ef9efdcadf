"""The games and mods that were opened on this machine, and how each mod is in its game, as that game's own folder says."""

from __future__ import annotations

import contextlib
import time
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import asdict, dataclass, replace
from pathlib import Path
from typing import Literal

from furnel.atomic import write_bytes
from furnel.errors import FurnelError
from furnel.folders import state_folder
from furnel.games import BRIDGE, Install, read_stack
from furnel.media import PICTURE, medium_by_suffix
from furnel.mods.build import build_in
from furnel.mods.deploy import presence
from furnel.mods.project import Project, load_project
from furnel.mods.sharing import picture_in
from furnel.progress import QUIET, Progress, steps
from furnel.remembered import recall, remember

Tone = Literal["fits", "differs", "breaks", "waiting"]
_MOST = 60
_WORDS: dict[str, tuple[Tone, str]] = {
    "built": ("fits", "in the game as it was built last"),
    "other": ("differs", "an older build is in the game"),
    "off": ("waiting", "in the game, switched off"),
    "foreign": ("differs", "something else has its place in the game"),
    "": ("waiting", "built, not in the game"),
}
_UNBUILT: dict[str, tuple[Tone, str]] = {
    "other": ("differs", "in the game; its build here is gone"),
    "": ("waiting", "not built yet"),
}
_ON: dict[bool, tuple[Tone, str]] = {True: ("fits", ""), False: ("waiting", ", switched off")}


@dataclass(frozen=True, slots=True)
class Kept:
    """What was opened: a mod's project (empty: the game alone) and its game's folder, how they are called, when (seconds)."""

    project: str
    game: str
    name: str
    game_name: str
    opened: float


@dataclass(frozen=True, slots=True)
class OnShelf:
    """A mod (or a game alone) as it is now. `state` and `said` tell how it is in the game, `picture` shows it; a mod that is in
    the game and of which no project is known has no `project`."""

    name: str
    version: str
    game: Path
    game_name: str
    project: Path | None
    picture: Path | None
    state: Tone
    said: str
    opened: float
    is_game: bool = False


def read_shelf() -> list[Kept]:
    """What was opened, the last first; nothing when that cannot be read."""
    told = recall("shelf")
    try:
        kept = [Kept(*map(str, row[:4]), opened=float(row[4])) for row in told or ()]  # type: ignore[misc,arg-type]
    except (ValueError, TypeError, IndexError, KeyError):
        return []
    return sorted(kept, key=lambda one: -one.opened)


def note_opened(project: Path | None, game: Path, name: str, game_name: str) -> None:
    """Remember that a mod, or a game alone, was opened just now."""
    fresh = Kept(str(project.resolve()) if project else "", str(game.resolve()), name, game_name, time.time())
    _write([fresh, *(one for one in read_shelf() if _mark(one) != _mark(fresh))])


def forget(project: Path | None, game: Path) -> None:
    """Take something off the shelf; its files stay."""
    gone = (str(project) if project else "", "" if project else str(game))
    _write([one for one in read_shelf() if _mark(one) != gone])


def look_at_shelf(progress: Progress = QUIET) -> list[OnShelf]:
    """How everything that was opened stands now, game by game, the last opened first; of each game also the mods in it that are
    somebody else's. What is not there any more is said to be."""
    kept = read_shelf()
    games = list(dict.fromkeys(one.game for one in kept))
    out: list[OnShelf] = []
    for game in steps(games, len(games), progress, "Looking at games and mods"):
        out += _of_game(Path(game), [one for one in kept if one.game == game])
    return out


def _of_game(game: Path, kept: Sequence[Kept]) -> Iterator[OnShelf]:
    name, opened = kept[0].game_name, kept[0].opened
    heading = OnShelf(name, "", game, name, None, None, "fits", str(game), opened, True)
    projects = [(one, _project(one)) for one in kept if one.project]
    try:
        install = Install(game)
    except FurnelError as error:
        yield replace(heading, state="breaks", said=f"{game}: {error.why or error}")
        for one, project in projects:
            yield _mod(one, project, None)
        return
    try:
        picture, profile = _game_picture(install), install.profile
        shown = picture if picture.is_file() else None
        yield replace(heading, name=profile.name, version=profile.version_of(game), picture=shown)
        for one, project in projects:
            yield _mod(one, project, install)
        own = {project.mod.id for _, project in projects if project is not None} | {BRIDGE}
        for mod in read_stack(install):
            if mod.id not in own:
                home, words = install.mods_folder() / mod.id, "somebody else's, in the game"
                shown = picture_in(home) or _made_picture(home, mod.paths)
                state, said = _ON[mod.on]
                yield OnShelf(mod.name, mod.version, game, name, None, shown, state, words + said, 0)
    except FurnelError as error:
        yield replace(heading, state="breaks", said=f"{game}: {error.why or error}")
    finally:
        install.close()


def _project(one: Kept) -> Project | None:
    try:
        return load_project(Path(one.project))
    except FurnelError:
        return None


def _mod(one: Kept, project: Project | None, install: Install | None) -> OnShelf:
    file = Path(one.project)
    told = OnShelf(one.name, "", Path(one.game), one.game_name, file, None, "breaks", "", one.opened)
    if project is None:
        gone = "its project cannot be read" if file.exists() else "its project is not there any more"
        return replace(told, said=gone)
    about, folder = project.mod, file.parent
    told = replace(told, name=about.name, version=about.version, picture=picture_in(folder, about.preview))
    if install is None:
        return replace(told, said="its game is not there any more")
    built = build_in(folder, about.id)
    if told.picture is None and built is not None:
        told = replace(told, picture=_made_picture(built.folder, [file.path for file in built.files]))
    there = presence(install, about.id, built.folder if built else None)[0]
    state, said = _WORDS[there] if built is not None else _UNBUILT.get(there, _WORDS[there])
    return replace(told, state=state, said=said)


def keep_picture(install: Install, still: Path) -> None:
    """Keep a still that a game drew of itself as its picture."""
    with contextlib.suppress(OSError, FurnelError):  # it is only for the eye
        write_bytes(_game_picture(install), still.read_bytes())


def _game_picture(install: Install) -> Path:
    return state_folder() / "pictures" / f"{install.mark}.png"


def _made_picture(folder: Path, files: Iterable[str]) -> Path | None:
    """The largest picture of some files below a folder."""
    pictures = [
        folder / file
        for file in files
        if medium_by_suffix(Path(file)) is PICTURE and (folder / file).is_file()
    ]
    return max(pictures, key=lambda file: file.stat().st_size, default=None)


def _mark(one: Kept) -> tuple[str, str]:
    return one.project, "" if one.project else one.game


def _write(kept: Sequence[Kept]) -> None:
    remember("shelf", [list(asdict(one).values()) for one in kept[:_MOST]])
