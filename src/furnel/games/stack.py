"""The stack: the game plus its mods in load order; the last enabled one wins."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from furnel.atomic import write_bytes
from furnel.errors import FurnelError, reason
from furnel.games.install import Install
from furnel.games.modfiles import OrderFile
from furnel.games.originals import all_placed
from furnel.games.profile import ModRule

WHAT = "Reading the load order"
BRIDGE = "furnel-bridge"
"""The id of the mod that Furnel makes of all others, so that they live together."""
_USUAL = OrderFile()
_FOR_PEOPLE = {"readme", "changes", "changelog", "licence", "license", "credits", "preview"}


@dataclass(frozen=True, slots=True)
class InstalledMod:
    """A mod in the game's mods folder: what it says of itself, whether it is on, and the paths it overrides."""

    id: str
    name: str
    version: str
    on: bool
    paths: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Clash:
    """A path that several enabled mods override, in load order; the last one is seen."""

    path: str
    mods: tuple[str, ...]


def read_stack(install: Install) -> list[InstalledMod]:
    """The installed mods in load order; mods that the order does not know come last, switched off. Without a load order, those
    that Furnel put in the place of the game's files."""
    rule = install.profile.mods
    if not rule.has_order:
        return [
            InstalledMod(one.mod, one.name, one.version, True, tuple(one.files))
            for one in all_placed(install.folder)
        ]
    order = read_order(install.order_file(), rule.order_file)
    folder = install.mods_folder()
    present = (
        {sub.name for sub in folder.iterdir() if sub.name[:1] != "." and (sub / rule.about).is_file()}
        if folder.is_dir()
        else set()
    )
    known = [(mod, on) for mod, on in order if mod in present]
    known += [(mod, False) for mod in sorted(present - {mod for mod, _ in known})]
    return [read_mod(folder / mod, rule, on) for mod, on in known]


def clashes(stack: list[InstalledMod]) -> list[Clash]:
    """Every path that more than one enabled mod overrides."""
    users: dict[str, list[str]] = {}
    for mod in stack:
        for path in mod.paths if mod.on else ():
            users.setdefault(path, []).append(mod.id)
    return [Clash(path, tuple(mods)) for path, mods in sorted(users.items()) if len(mods) > 1]


def read_order(path: Path, rule: OrderFile = _USUAL) -> list[tuple[str, bool]]:
    """Mod ids with their switches, in load order; empty when there is no such file. FurnelError when it cannot be read."""
    return rule.read(_text(path), path)


def write_order(path: Path, order: list[tuple[str, bool]], rule: OrderFile = _USUAL) -> None:
    """Replace the load order, keeping what else stands in the file. Raises FurnelError when that cannot be read."""
    before = _text(path)
    if read_order(path, rule) != order or not path.is_file():
        write_bytes(path, rule.write(before, order, path).encode("utf-8"))


def _text(path: Path) -> str:
    try:
        return path.read_bytes().decode("utf-8") if path.is_file() else ""
    except (OSError, UnicodeDecodeError) as error:
        why = reason(error) if isinstance(error, OSError) else str(error)
        raise FurnelError(WHAT, where=path, why=why, remedy="Correct or delete the file") from error


def about_of(folder: Path, rule: ModRule) -> dict[str, str]:
    """What a mod in a folder says of itself; nothing where that cannot be read."""
    try:
        return rule.about_file.read((folder / rule.about).read_text("utf-8"))
    except (OSError, UnicodeDecodeError):
        return {}


def is_for_people(name: str) -> bool:
    """Whether a file beside the one about a mod is no asset but something to read, to look at or to run."""
    stem = name.partition(".")[0].casefold()
    return stem in _FOR_PEOPLE or stem.startswith("preview-") or name in ("merge.py", "patches.toml")


def read_mod(folder: Path, rule: ModRule, on: bool) -> InstalledMod:
    """A mod from its folder."""
    told = about_of(folder, rule)
    paths = tuple(
        sorted(
            file.relative_to(folder).as_posix()
            for file in folder.rglob("*")
            if file.is_file()
            and file.name != rule.about
            and not file.name.startswith(".")
            and not (file.parent == folder and is_for_people(file.name))
        )
    )
    return InstalledMod(folder.name, told.get("name") or folder.name, told.get("version") or "?", on, paths)
