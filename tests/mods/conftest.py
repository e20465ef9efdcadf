"""Workspaces to work in."""

from __future__ import annotations

from collections.abc import Callable
from importlib import resources
from pathlib import Path
from typing import Any

import pytest
import tomlkit

from furnel.games import profiles_folder
from furnel.mods.workspace import Workspace, create_project, open_workspace

FOUR = {
    "art/hulls/hull_otter.dds": "dusk_paint.jpg",
    "cast/otter_walk.png": "otter_teal.png",
    "bank0/000.wav": "church_bell.mp3",
    "music/slow_water.ogg": "night_song.wav",
}


@pytest.fixture
def fitted(space: Workspace, sources: Path) -> Workspace:
    """The mod with one asset of every kind, fitted."""
    for original, source in FOUR.items():
        space = space.save(space.project.with_swap(space.fitted(space.new_swap(original, sources / source))))
    return space


@pytest.fixture
def changed() -> Callable[..., Workspace]:
    """Change a swap's encoding or steps; the mod as it is then."""

    def change(space: Workspace, original: str, **what: object) -> Workspace:
        swap = space.project.swap_for(original)
        assert swap is not None and swap.encode is not None
        parts = {"encode": swap.encode.model_copy(update=what.pop("encode", {})), **what}  # type: ignore[arg-type]
        return space.save(space.project.with_swap(swap.model_copy(update=parts)))

    return change


Opener = Callable[..., Workspace]


@pytest.fixture
def opened(game: Path, sources: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Opener:
    """A mod with an asset of every kind for the stand-in game, whose mods go another way."""
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))

    def open_with(name: str = "Evening Post", swaps: dict[str, str] = FOUR, **mods: Any) -> Workspace:
        profile = resources.files("furnel.games") / "profiles"
        told: Any = tomlkit.parse((profile / "tarnlight.toml").read_text("utf-8"))
        told["mods"] = mods
        profiles_folder().mkdir(parents=True, exist_ok=True)
        (profiles_folder() / "tarnlight.toml").write_text(tomlkit.dumps(told), "utf-8")
        for file in profile.iterdir():
            if file.name.endswith(".names"):
                (profiles_folder() / file.name).write_text(file.read_text("utf-8"), "utf-8")
        space = open_workspace(create_project(tmp_path / name, name, game))
        for original, source in swaps.items():
            space = space.save(
                space.project.with_swap(space.fitted(space.new_swap(original, sources / source)))
            )
        return space

    return open_with
