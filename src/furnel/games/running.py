"""Running the game as its profile says: playing it, drawing a still, asking what it makes of its assets."""

from __future__ import annotations

import json
import shlex
import subprocess
import sys
import time
from dataclasses import dataclass
from pathlib import Path

from furnel.errors import Cancelled, FurnelError
from furnel.games.install import Install
from furnel.games.profile import Profile
from furnel.leave import give, given
from furnel.progress import QUIET, Progress

_LONGEST_S = 120
_KIND = "command of a profile"


@dataclass(frozen=True, slots=True)
class GameWord:
    """What the game says of one asset: whose file it uses, and whether it takes it."""

    path: str
    winner: str
    verdict: str
    reason: str
    effect: str


@dataclass(frozen=True, slots=True)
class Report:
    """The game's report: its word on every asset, and files that it knows no asset for."""

    words: tuple[GameWord, ...]
    strays: tuple[str, ...]
    notes: tuple[str, ...]


class NotAllowed(FurnelError):
    """A command of a profile that did not come with Furnel, and that nobody has allowed yet."""


def commands_to_allow(profile: Profile) -> list[str]:
    """The commands that a profile from somewhere else wants to run and that nobody has allowed yet, as they would be typed."""
    start = profile.start
    lines = [
        command for command in (start.play, start.still, start.still_without_mods, start.report) if command
    ]
    if profile.comes_with_furnel or all(given(_KIND, *command) for command in lines):
        return []
    return [shlex.join(command) for command in lines]


def allow_commands(profile: Profile) -> None:
    """Note that the user saw a profile's commands and allows them."""
    start = profile.start
    give((_KIND, *command) for command in (start.play, start.still, start.still_without_mods, start.report))


def start_game(install: Install, scene: str) -> subprocess.Popen[bytes]:
    """Start the game in a scene; it runs by itself."""
    command = _filled(install, install.profile.start.play, "be started", scene=scene)
    try:
        return subprocess.Popen(command, stdin=subprocess.DEVNULL, start_new_session=True)
    except OSError as error:
        raise _failed("Starting the game", command, str(error)) from error


def draw_still(
    install: Install,
    scene: str,
    out: Path,
    with_mods: bool = True,
    tick: int = 90,
    progress: Progress = QUIET,
) -> Path:
    """A still of a scene, drawn by the game itself, with or without mods."""
    start = install.profile.start
    command = _filled(
        install,
        start.still if with_mods else start.still_without_mods,
        "draw a still",
        scene=scene,
        tick=str(tick),
        out=str(out),
    )
    _run("Drawing a still", command, progress)
    if not out.is_file():
        raise _failed("Drawing a still", command, "it wrote no picture")
    return out


def ask_report(install: Install, progress: Progress = QUIET) -> Report:
    """The game's own word on every asset."""
    command = _filled(install, install.profile.start.report, "give a report")
    text = _run("Asking the game", command, progress, allowed=(0, 1))
    try:
        raw = json.loads(text)
        words = tuple(GameWord(**entry) for entry in raw["assets"])
        return Report(words, tuple(raw["strays"]), tuple(raw["notes"]))
    except (ValueError, TypeError, KeyError) as error:
        raise _failed("Asking the game", command, f"its report makes no sense ({error})") from error


def _filled(install: Install, command: tuple[str, ...], what: str, **values: str) -> list[str]:
    if not command:
        raise FurnelError(
            "Running the game", where=install.profile.name, why=f"its profile does not say how it can {what}"
        )
    if wanted := commands_to_allow(install.profile):
        raise NotAllowed(
            "Running the game", where=install.profile.name, why=f"its profile wants to run: {'; '.join(wanted)}",
            remedy="The profile did not come with Furnel: allow its commands on Try when you know what they do",
        )  # fmt: skip
    known = {"game": str(install.folder), **values}
    parts = []
    for part in command:
        for name, value in known.items():
            part = part.replace(f"{{{name}}}", value)
        parts.append(part)
    # -P: nothing that lies in the folder that Furnel was started in is run
    return [*([sys.executable, "-P"] if parts[0] == "python" else parts[:1]), *parts[1:]]


def _run(what: str, command: list[str], progress: Progress, allowed: tuple[int, ...] = (0,)) -> str:
    try:
        process = subprocess.Popen(
            command, stdin=subprocess.DEVNULL, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True
        )
    except OSError as error:
        raise _failed(what, command, str(error)) from error
    started = time.monotonic()
    while True:
        try:
            out, err = process.communicate(timeout=0.1)
            break
        except subprocess.TimeoutExpired:
            waited = time.monotonic() - started
            progress.report(min(waited / 3, 0.95), what)
            if progress.cancelled() or waited > _LONGEST_S:
                process.kill()
                process.communicate()
                if progress.cancelled():
                    raise Cancelled(what) from None
                raise _failed(what, command, f"it did not answer within {_LONGEST_S} s") from None
    if process.returncode not in allowed:
        raise _failed(
            what,
            command,
            err.strip().splitlines()[-1] if err.strip() else f"it ended with {process.returncode}",
        )
    return out


def _failed(what: str, command: list[str], why: str) -> FurnelError:
    return FurnelError(
        what, where=command[0], why=why, remedy="Check the game, or the commands in its profile"
    )
