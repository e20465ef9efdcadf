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


def keep_log() -> Path:
    """Write Furnel's log into a file from now on; that file."""
    import logging.handlers

    file = cache_folder() / "furnel.log"
    root = logging.getLogger("furnel")
    if not root.handlers:
        file.parent.mkdir(parents=True, exist_ok=True)
        handler = logging.handlers.RotatingFileHandler(
            file, maxBytes=1 << 20, backupCount=2, encoding="utf-8"
        )
        handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(name)s %(message)s"))
        root.addHandler(handler)
        root.setLevel(logging.INFO)
    return file
