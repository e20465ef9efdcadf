"""What many tests need: an install of the stand-in game, folders for cache and state, files of the wrong kind."""

from __future__ import annotations

import hashlib
import os
import shutil
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import numpy as np
import pytest
from hypothesis import HealthCheck, settings

from furnel.folders import cache_folder
from furnel.mods.workspace import Workspace, create_project, open_workspace
from tarnlight.forge import forge

_ALLOWED = [HealthCheck.function_scoped_fixture, HealthCheck.too_slow]
settings.register_profile(
    "furnel", deadline=None, max_examples=25, derandomize=True, suppress_health_check=_ALLOWED
)
# other examples at every run, and more of them: ./run test -m hypothesis --hypothesis-profile=searching
settings.register_profile("searching", deadline=None, max_examples=300, suppress_health_check=_ALLOWED)
settings.load_profile("furnel")


@pytest.fixture(scope="session", autouse=True)
def _own_folders(tmp_path_factory: pytest.TempPathFactory) -> Iterator[None]:
    """Cache and state of their own, so that no test sees the user's."""
    patch = pytest.MonkeyPatch()
    patch.setenv("LC_ALL", "C.UTF-8")  # what is said is asked for in English
    patch.setenv("NUMBA_CACHE_DIR", os.environ.get("NUMBA_CACHE_DIR") or str(cache_folder() / "kernels"))
    patch.setenv("FURNEL_CACHE", str(tmp_path_factory.mktemp("cache")))
    patch.setenv("FURNEL_STATE", str(tmp_path_factory.mktemp("state")))
    patch.setenv("XDG_DATA_HOME", str(tmp_path_factory.mktemp("data")))
    yield
    patch.undo()


@pytest.fixture(scope="session")
def forged(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """An install that nobody may change."""
    return shared(tmp_path_factory, "forged", forge)


@pytest.fixture
def game(forged: Path, tmp_path: Path) -> Path:
    """An install of the test's own."""
    folder = tmp_path / "game"
    shutil.copytree(forged, folder)
    return folder


@pytest.fixture(scope="session")
def sources(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A modder's files: every one of them wrong for the game in some way."""
    from firsthour.make import make_sources

    return shared(tmp_path_factory, "sources", make_sources)


def shared(factory: pytest.TempPathFactory, name: str, make: Callable[[Path], object]) -> Path:
    """A folder that one of the processes makes and all use."""
    root = factory.getbasetemp()
    if "PYTEST_XDIST_WORKER" in os.environ:
        root = root.parent
    folder, done = root / name, root / f"{name}.done"
    try:
        (root / f"{name}.begun").mkdir()
    except FileExistsError:
        for _ in range(3000):
            if done.exists():
                return folder
            time.sleep(0.1)
        raise TimeoutError(f"another process never finished {folder}") from None
    make(folder)
    done.touch()
    return folder


@pytest.fixture
def space(game: Path, tmp_path: Path) -> Iterator[Workspace]:
    """A new mod beside a game of its own."""
    opened = open_workspace(create_project(tmp_path / "mod", "Evening Post", game))
    yield opened
    opened.close()


@pytest.fixture
def fitted_ensign(space: Workspace, sources: Path) -> Workspace:
    """The mod with one small picture, fitted."""
    swap = space.fitted(space.new_swap("ensigns/small/kettle.tga", sources / "ensign_small.png"))
    return space.save(space.project.with_swap(swap))


@pytest.fixture
def rng() -> np.random.Generator:
    return np.random.default_rng(4)


def digest(folder: Path) -> str:
    """One hash of every path and byte below a folder."""
    whole = hashlib.sha256()
    for file in sorted(folder.rglob("*")):
        whole.update(f"{file.relative_to(folder)}\n".encode())
        if file.is_file():
            whole.update(file.read_bytes())
    return whole.hexdigest()
