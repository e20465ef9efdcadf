"""Every command of the window as data; menus, the strip, the quick command and the shortcut sheet come from this table."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Command:
    """What a command is called, its key, and what it does in a sentence; `needs` says when it can be used."""

    id: str
    group: str
    text: str
    key: str
    tip: str
    needs: str = ""


COMMANDS: tuple[Command, ...] = (
    Command("open-game", "Game", "Open a game…", "Ctrl+Shift+O", "Point at a game's folder"),
    Command("new-game", "Game", "New game…", "Ctrl+Shift+N", "Describe a game that Furnel does not know yet"),
    Command(
        "archive",
        "Game",
        "Work out an archive…",
        "Ctrl+Shift+A",
        "Look at an archive's bytes and describe them",
    ),
    Command("pack", "Game", "Pack a folder…", "", "Make an archive of a folder's files"),
    Command("new-mod", "Mod", "New mod…", "Ctrl+N", "Start a mod for this game", "game"),
    Command("open-mod", "Mod", "Open a mod…", "Ctrl+O", "Open a mod that you began"),
    Command("go-find", "Go", "Find", "Ctrl+1", "Find an asset on the wall"),
    Command("go-fit", "Go", "Fit", "Ctrl+2", "Make your swaps match their originals"),
    Command("go-build", "Go", "Build", "Ctrl+3", "Build, package and install the mod"),
    Command("go-try", "Go", "Try", "Ctrl+4", "See it in the game"),
    Command("undo", "Edit", "Undo", "Ctrl+Z", "Take the last change back"),
    Command("redo", "Edit", "Redo", "Ctrl+Shift+Z", "Make the change again"),
    Command("search", "Find", "Search the wall", "Ctrl+F", "Type a part of a name, path or number"),
    Command("clear-sieve", "Find", "Clear the sieve", "Ctrl+Shift+F", "Show everything again"),
    Command(
        "swap", "Find", "Swap with a file…", "Ctrl+E", "Choose a file to put in this asset's place", "asset"
    ),
    Command("take-out", "Find", "Take out…", "Ctrl+T", "Save this asset as a file", "asset"),
    Command(
        "copy-path", "Find", "Copy inner path", "Ctrl+Shift+C", "Copy the asset's path in the game", "asset"
    ),
    Command(
        "show-kin",
        "Find",
        "Show its kin",
        "Ctrl+J",
        "The same picture or sound at other sizes, places or rates",
        "asset",
    ),
    Command(
        "find-alike",
        "Find",
        "Find what is like it",
        "Ctrl+Shift+J",
        "Rank the wall by likeness to it",
        "asset",
    ),
    Command(
        "paste-like",
        "Find",
        "Look for the crop in the clipboard",
        "Ctrl+Shift+V",
        "Rank the wall by likeness to it",
        "game",
    ),
    Command(
        "match",
        "Find",
        "Match a folder…",
        "Ctrl+M",
        "Pair a folder's files with the originals that they are for",
        "mod",
    ),
    Command("tunes", "Find", "List the tunes", "Ctrl+U", "The game's music, and an album for it", "mod"),
    Command("hear", "Find", "Play or stop", "Space", "Hear the selected sound", "sound"),
    Command(
        "fit-all",
        "Fit",
        "Fit all points",
        "Ctrl+Return",
        "Choose steps and encoding so that the swap fits",
        "swap",
    ),
    Command(
        "fit-everything",
        "Fit",
        "Fit every swap",
        "Ctrl+Shift+Return",
        "Fit all swaps that do not fit yet",
        "mod",
    ),
    Command(
        "replace-source",
        "Fit",
        "Choose another source…",
        "",
        "Put another file in the source's place",
        "swap",
    ),
    Command("remove-swap", "Fit", "Remove the swap", "Del", "The game's own asset is used again", "swap"),
    Command("build", "Build", "Build", "Ctrl+B", "Write the mod and read it back", "mod"),
    Command("package", "Build", "Package", "", "Make one ZIP to share, of the mod as it is now", "mod"),
    Command(
        "gather", "Build", "Gather sources", "", "Copy sources from elsewhere into the mod's folder", "mod"
    ),
    Command("install", "Build", "Install", "Ctrl+I", "Put the build in the game's mods folder", "built"),
    Command(
        "remove", "Build", "Remove from the game", "", "Bring the mods folder back as it was", "installed"
    ),
    Command("start-game", "Try", "Start the game", "F5", "Start the game with your mods", "start"),
    Command(
        "renew-stills", "Try", "Draw the stills anew", "Ctrl+R", "The same scene, before and after", "game"
    ),
    Command("quick", "Window", "Do anything…", "Ctrl+K", "Find any command by its name"),
    Command("theme", "Window", "Light or dark", "Ctrl+Shift+L", "Change the theme"),
    Command("keys", "Window", "Keys", "F1", "Every key at a glance"),
    Command("log", "Window", "Show the log", "Ctrl+L", "What happened so far"),
    Command("quit", "Window", "Quit", "Ctrl+Q", "Close Furnel"),
)


def command(name: str) -> Command:
    """The command with this id."""
    return next(entry for entry in COMMANDS if entry.id == name)
