"""Running the game as its profile says: playing it, drawing a still, asking what it makes of its assets."""

from __future__ import annotations

import json
import os
import shlex
import subprocess
import sys
import tempfile
import time
from dataclasses import dataclass
from pathlib import Path
from typing import IO

from furnel.errors import Cancelled, FurnelError, reason
from furnel.games.install import Install
from furnel.games.profile import Profile
from furnel.leave import give, given
from furnel.progress import QUIET, Progress

_LONGEST_S = 120
_LAST_WORDS = 4096  # bytes
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
    if profile.comes_with_furnel or all(given(*mark) for _, mark in _commands(profile)):
        return []
    return [words for words, _ in _commands(profile)]


def allow_commands(profile: Profile) -> None:
    """Note that the user saw a profile's commands and allows them."""
    give(mark for _, mark in _commands(profile))


def _commands(profile: Profile) -> list[tuple[str, tuple[str, ...]]]:
    """What a profile runs, as it would be typed, and what tells it from others."""
    start = profile.start
    others = [command for command in (start.still, start.still_without_mods, start.report) if command]
    out = [(shlex.join(command), (_KIND, *command)) for command in others]
    if start.play:
        around = [f"{name}={shlex.quote(value)}" for name, value in start.environment.items()]
        where = [f"cd {shlex.quote(start.folder)};"] if start.folder else []
        words = " ".join([*where, *around, shlex.join(start.play)])
        more = (start.folder, *around) if start.folder or around else ()
        out.insert(0, (words, (_KIND, *start.play, *more)))
    return out


def start_game(
    install: Install, scene: str, told: IO[bytes] | None = None, profile: Profile | None = None
) -> subprocess.Popen[bytes]:
    """Start the game in a scene, as its own or another profile says; it runs by itself. What it says of errors goes into a
    file `told`, if there is one."""
    profile = profile or install.profile
    start = profile.start
    command = _filled(install, start.play, "be started", profile, scene=scene)
    try:
        return subprocess.Popen(
            command, stdin=subprocess.DEVNULL, stderr=told, start_new_session=True,
            cwd=install.folder / start.folder if start.folder else None, env={**os.environ, **start.environment},
        )  # fmt: skip
    except OSError as error:
        raise _failed("Starting the game", command, reason(error)) from error


def try_start(
    install: Install, profile: Profile, wait_s: float = 4.0, progress: Progress = QUIET
) -> subprocess.Popen[bytes]:
    """Start the game and see it run for a while. Raises FurnelError, with its last words, where it ends with an error."""
    with tempfile.TemporaryFile() as told:
        scenes = profile.start.scenes
        process = start_game(install, scenes[0] if scenes else "", told, profile)
        began = time.monotonic()
        while process.poll() is None and (waited := time.monotonic() - began) < wait_s:
            progress.report(waited / wait_s, "Waiting whether the game goes on")
            time.sleep(0.05)
        if process.returncode:
            told.seek(0, os.SEEK_END)
            told.seek(max(told.tell() - _LAST_WORDS, 0))
            words = told.read().decode("utf-8", "replace").strip().splitlines()
            why = words[-1] if words else f"it ended with {process.returncode}"
            raise _failed("Starting the game", list(profile.start.play), why)
    return process


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


def _filled(
    install: Install, command: tuple[str, ...], what: str, profile: Profile | None = None, **values: str
) -> list[str]:
    profile = profile or install.profile
    if not command:
        raise FurnelError(
            "Running the game", where=profile.name, why=f"its profile does not say how it can {what}"
        )
    if wanted := commands_to_allow(profile):
        raise NotAllowed(
            "Running the game", where=profile.name, why=f"its profile wants to run: {'; '.join(wanted)}",
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
