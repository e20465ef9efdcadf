"""Workspaces to work in."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import pytest

from furnel.mods.workspace import Workspace

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
