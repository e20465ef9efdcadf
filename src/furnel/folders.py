"""Furnel's own folders: what can be made again, and what must not be lost."""

from __future__ import annotations

import os
from pathlib import Path


def cache_folder() -> Path:
    """For everything that can be made again: kernels, catalogues, thumbnails."""
    import platformdirs

    return Path(os.environ.get("FURNEL_CACHE") or platformdirs.user_cache_dir("furnel"))


def state_folder() -> Path:
    """For what belongs to the user: journals of installs, own profiles and layouts, what was open last."""
    import platformdirs

    return Path(os.environ.get("FURNEL_STATE") or platformdirs.user_state_dir("furnel"))
