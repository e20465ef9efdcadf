"""Every command of the window as a record; menus, the strip, the quick command and the sheet of keys come from this table."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cache
from typing import TYPE_CHECKING

from furnel.desktop import doing

if TYPE_CHECKING:
    from furnel.desktop.window import Window


@dataclass(frozen=True, slots=True)
class Need:
    """When a command can be used, and the words for when it cannot."""

    words: str
    met: Callable[[Window], bool]


def _hearable(window: Window) -> bool:
    from furnel.media import medium_of_kind

    asset = window.asset_in_sight()
    return asset is not None and medium_of_kind(asset.facts.kind).is_heard


def _changeable(window: Window) -> bool:
    from furnel.texts import taken_apart

    asset = window.asset_in_sight()
    return window.session.project is not None and asset is not None and taken_apart(asset.path)


def _definition_bench(window: Window) -> object:
    return doing.definition_bench(window)


ALWAYS = Need("", lambda window: True)
GAME = Need("open a game first", lambda window: window.session.catalogue is not None)
ORDERED = Need(
    "open a game first that has a load order",
    lambda window: window.session.catalogue is not None and window.session.game.has_order,
)
START = Need(
    "open a game first whose profile says how it is started", lambda window: window.session.game.can_start
)
MOD = Need("start or open a mod first", lambda window: window.session.project is not None)
ASSET = Need("select something on the wall first", lambda window: window.asset_in_sight() is not None)
DEFINITION = Need("open a mod and select a definition first", _changeable)
TEXT = Need("select a text first", lambda window: bool(doing.text_at_hand(window)))
ON_BENCH = Need("put a definition on the bench first", lambda window: _definition_bench(window) is not None)
NEW = Need(
    "open a mod of a game whose profile says what new things it takes",
    lambda window: window.session.space is not None and bool(window.session.space.profile.additions),
)
SOUND = Need("select a sound first", _hearable)
SWAP = Need(
    "select something that is swapped on the wall or in the build, or put a swap on the bench first",
    lambda window: bool(window.swap_at_hand()),
)
SOURCE = Need(
    "select a swap first that has a file for its source",
    lambda window: doing.source_at_hand(window) is not None,
)
STEPS = Need(
    "copy the steps of a swap first, then select another one",
    lambda window: bool(window.swap_at_hand()) and bool(window.session.swaps.copied),
)
DEMO = Need(
    "open the mod for Tarnlight Ferry first: Try it, on Games and mods",
    doing.demo_is_open,
)
PANES = Need("there are no side panes here", lambda window: bool(doing.panes_here(window)))
BUILT = Need("build the mod first", lambda window: window.session.builds.last is not None)
INSTALLED = Need("the mod is not in the game", lambda window: window.session.game.installed)


@dataclass(frozen=True, slots=True)
class Command:
    """What a command is called, its key, what it does in a sentence, what it needs, and what it runs."""

    id: str
    group: str
    text: str
    key: str
    tip: str
    run: Callable[[Window], object]
    need: Need = ALWAYS


COMMANDS: tuple[Command, ...] = (
    Command(
        "shelf", "Game", "Games and mods", "Ctrl+0", "What was opened here, how each mod is in its game, where to begin",
        lambda window: window.pages.open(window.pages.shelf_page, "find"),
    ),
    Command("open-game", "Game", "Open a game…", "Ctrl+Shift+O", "Point at a game's folder", doing.open_game),
    Command(
        "new-game", "Game", "New game…", "Ctrl+Shift+N", "Describe a game that Furnel does not know yet",
        doing.new_game,
    ),
    Command(
        "this-game", "Game", "This game…", "", "What it is called, how mods reach it, how it is started",
        lambda window: window.pages.open(window.pages.game_page), GAME,
    ),
    Command(
        "archive", "Game", "Work out an archive…", "Ctrl+Shift+A", "Look at an archive's bytes and describe them",
        doing.ask_for_archive,
    ),
    Command("pack", "Game", "Pack a folder…", "", "Make an archive of a folder's files", doing.pack),
    Command("new-mod", "Mod", "New mod…", "Ctrl+N", "Start a mod for this game", doing.new_mod, GAME),
    Command("open-mod", "Mod", "Open a mod…", "Ctrl+O", "Open a mod that you began", doing.open_mod),
    Command("go-find", "Go", "Find", "Ctrl+1", "Find an asset on the wall", lambda window: window.go("find")),
    Command("go-fit", "Go", "Fit", "Ctrl+2", "Make your swaps match their originals", doing.go_fit),
    Command("go-build", "Go", "Build", "Ctrl+3", "Build, package and install the mod", lambda window: window.go("build")),
    Command("go-try", "Go", "Try", "Ctrl+4", "See it in the game", lambda window: window.go("try")),
    Command("undo", "Edit", "Undo", "Ctrl+Z", "Take the last change back", lambda window: window.undoing.step(False)),
    Command("redo", "Edit", "Redo", "Ctrl+Shift+Z", "Make the change again", lambda window: window.undoing.step(True)),
    Command(
        "past", "Edit", "What was changed", "Ctrl+H", "Every change of the mod; go back to any of them",
        lambda window: window.pages.open(window.pages.past_page), MOD,
    ),
    Command("search", "Find", "Search the wall", "Ctrl+F", "Type a part of a name, path or number", doing.search),
    Command(
        "clear-sieve", "Find", "Clear the sieve", "Ctrl+Shift+F", "Show everything again",
        lambda window: window.find_station.sieve.clear(),
    ),
    Command("swap", "Find", "Swap with a file…", "Ctrl+E", "Choose a file to put in this asset's place", doing.swap, ASSET),
    Command(
        "paste-source", "Find", "Swap with what was copied", "Ctrl+V", "The picture or the file in the clipboard",
        doing.paste_source, MOD,
    ),
    Command(
        "begin-own", "Find", "Begin with the game's own", "Ctrl+Shift+E", "Its own picture or sound as the source, to change",
        doing.begin_own, ASSET,
    ),
    Command(
        "values", "Find", "Change its values", "Ctrl+D", "Open this definition's records and values on the bench",
        doing.change_values, DEFINITION,
    ),
    Command(
        "reading", "Find", "How is it read?…", "", "How texts of this kind are read, and what each way explains",
        doing.show_reading, TEXT,
    ),
    Command("take-out", "Find", "Take out…", "Ctrl+T", "Save this asset as a file", doing.take_out, ASSET),
    Command(
        "copy-path", "Find", "Copy inner path", "Ctrl+Shift+C", "Copy the asset's path in the game", doing.copy_path, ASSET
    ),
    Command(
        "show-kin", "Find", "Show its kin", "Ctrl+J", "The same picture or sound at other sizes, places or rates",
        lambda window: window.find_station.show_kin(), ASSET,
    ),
    Command(
        "find-alike", "Find", "Find what is like it", "Ctrl+Shift+J", "Rank the wall by likeness to it",
        lambda window: window.find_station.find_alike(), ASSET,
    ),
    Command(
        "paste-like", "Find", "Look for the crop in the clipboard", "Ctrl+Shift+V", "Rank the wall by likeness to it",
        doing.paste_like, GAME,
    ),
    Command(
        "match", "Find", "Match a folder…", "Ctrl+M", "Pair a folder's files with the originals that they are for",
        doing.match, MOD,
    ),
    Command(
        "new-thing", "Find", "New thing…", "Ctrl+Shift+D", "Add a boat, a tune … that the game does not have",
        lambda window: window.pages.open(window.pages.new_thing_page, "find"), NEW,
    ),
    Command(
        "tunes", "Find", "List the tunes", "Ctrl+U", "The game's music, and an album for it",
        lambda window: window.pages.open(window.pages.tunes_page, "find"), MOD,
    ),
    Command(
        "hear", "Find", "Play or stop", "Space", "Hear the selected sound",
        lambda window: window.find_station.hear(), SOUND,
    ),
    Command(
        "fit-all", "Fit", "Fit all points", "Ctrl+Return", "Choose steps and encoding so that the swap fits",
        lambda window: window.session.swaps.fit_all(doing.swaps_at_hand(window)), SWAP,
    ),
    Command(
        "fit-everything", "Fit", "Fit every swap", "Ctrl+Shift+Return", "Fit all swaps that do not fit yet",
        doing.fit_everything, MOD,
    ),
    Command(
        "to-bench", "Fit", "Put it on the bench", "", "The swap in sight, with its points and steps",
        lambda window: window.open_bench(window.swap_at_hand()), SWAP,
    ),
    Command("text", "Fit", "Records or text", "Ctrl+Shift+T", "Turn the definition bench over", doing.turn_text, ON_BENCH),
    Command(
        "replace-source", "Fit", "Choose another source…", "", "Put another file in the source's place",
        doing.replace_source, SWAP,
    ),
    Command(
        "copy-steps", "Fit", "Copy its steps", "", "To use the same steps in another swap",
        lambda window: window.session.swaps.copy_steps(window.swap_at_hand()), SWAP,
    ),
    Command(
        "paste-steps", "Fit", "Use the copied steps", "", "Put the steps that were copied in the place of these",
        lambda window: window.session.swaps.paste_steps(doing.swaps_at_hand(window)), STEPS,
    ),
    Command(
        "open-source", "Fit", "Open its source", "", "In the program that such files are opened with",
        doing.open_source, SOURCE,
    ),
    Command(
        "show-source", "Fit", "Show its source in the folder", "", "In the system's file manager",
        doing.show_source, SOURCE,
    ),
    Command(
        "show-original", "Fit", "Show the original on the wall", "", "Where it lies in the game",
        doing.show_original, SWAP,
    ),
    Command("remove-swap", "Fit", "Remove the swap", "Del", "The game's own asset is used again", doing.remove_swap, SWAP),
    Command(
        "build", "Build", "Build", "Ctrl+B", "Write the mod and read it back",
        lambda window: window.session.builds.start(window.build_station.anyway.isChecked()), MOD,
    ),
    Command(
        "package", "Build", "Package", "", "Make one ZIP to share, of the mod as it is now",
        lambda window: window.session.builds.package(), MOD,
    ),
    Command(
        "share", "Build", "Share…", "Ctrl+Shift+S", "What strangers get to know of it, and the package, tried as they would",
        lambda window: window.pages.share(), MOD,
    ),
    Command(
        "gather", "Build", "Gather sources", "", "Copy sources from elsewhere into the mod's folder",
        lambda window: window.session.swaps.gather(), MOD,
    ),
    Command("install", "Build", "Install", "Ctrl+I", "Put the build in the game's mods folder", doing.install, BUILT),
    Command(
        "remove", "Build", "Remove from the game", "", "Bring the game back as it was", doing.remove, INSTALLED
    ),
    Command(
        "start-game", "Try", "Start the game", "F5", "Start the game with your mods",
        lambda window: window.try_station.start(), START,
    ),
    Command(
        "renew-stills", "Try", "Draw the stills anew", "Ctrl+R", "The same scene, before and after",
        lambda window: window.try_station.renew(), GAME,
    ),
    Command(
        "meetings", "Try", "Where mods meet", "Ctrl+Shift+B", "What several mods change, who has its way, and the bridge",
        lambda window: window.pages.open(window.pages.meeting_page, "try"), ORDERED,
    ),
    Command(
        "get-mod", "Try", "Get a mod…", "Ctrl+G", "Look into somebody else's mod and put it into the game",
        lambda window: window.pages.get_mod(), GAME,
    ),
    Command("quick", "Window", "Do anything…", "Ctrl+K", "Find any command by its name", doing.quick),
    Command(
        "fold-panes", "Window", "Fold the side panes away", "F8", "More room for the middle; once more brings them back",
        doing.fold_panes, PANES,
    ),
    Command(
        "settings", "Window", "Settings", "Ctrl+Shift+G", "Theme, size, sound, programs, keys, what is kept on this machine",
        doing.show_settings,
    ),
    Command("theme", "Window", "Light or dark", "Ctrl+Shift+L", "Change the theme", doing.other_theme),
    Command(
        "show-around", "Window", "Show me around", "", "Seven things to do on the demo's mod, from the wall to the game",
        doing.show_around, DEMO,
    ),
    Command("keys", "Window", "Keys", "F1", "Every key at a glance", doing.show_keys),
    Command(
        "said", "Window", "What was said", "Ctrl+L", "All notices, and what can be done about them",
        lambda window: window.pages.open(window.pages.said_page),
    ),
    Command("quit", "Window", "Quit", "Ctrl+Q", "Close Furnel", doing.leave),
)  # fmt: skip


ON_TILE = (
    "swap", "paste-source", "begin-own", "values", "fit-all", "-", "take-out", "copy-path", "-", "show-kin", "find-alike", "-",
    "copy-steps", "paste-steps", "open-source", "show-source", "remove-swap",
)  # fmt: skip
"""The commands of a tile's menu."""
ON_SWAP = (
    "fit-all", "replace-source", "paste-source", "-", "copy-steps", "paste-steps", "-", "open-source", "show-source",
    "show-original", "-", "remove-swap",
)  # fmt: skip
"""The commands of a swap's menu."""
ON_ROW = (
    "to-bench",
    "show-original",
    "-",
    "replace-source",
    "open-source",
    "show-source",
    "-",
    "remove-swap",
)
"""The commands of a build's row."""


@cache
def command(name: str) -> Command:
    """The command with this id."""
    return next(entry for entry in COMMANDS if entry.id == name)


_own_keys: dict[str, str] = {}


def use_keys(own: Mapping[str, str]) -> None:
    """Give some commands other keys than those that they came with."""
    _own_keys.clear()
    _own_keys.update(own)


def shortcut_of(name: str) -> str:
    """A command's key as Qt writes it: the one that it was given, or came with."""
    return _own_keys.get(name, command(name).key)


def key_of(name: str) -> str:
    """A command's key as people read it."""
    return shortcut_of(name).replace("Return", "Enter")


def with_key(text: str, name: str) -> str:
    """A tooltip for something that a command does, with that command's key."""
    return f"{text}  ({key_of(name)})"
