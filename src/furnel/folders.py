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


HOMES = ("~/", "$XDG_DATA_HOME/", "$XDG_CONFIG_HOME/")
"""How a place in the user's own folders begins, where many games look before their own."""
_NEVER = {
    ".ssh",
    ".gnupg",
    ".local/bin",
    ".config/autostart",
    ".config/systemd",
    ".config/environment.d",
    "bin",
    ".mozilla",
    ".config/plasma-workspace",
    ".local/share/applications",
    ".local/share/systemd",
    ".local/share/dbus-1",
    ".local/share/keyrings",
}


def own_place(text: str) -> Path | None:
    """A place in the user's own folders, from how it is said in a profile; None for what does not begin like one.

    Raises ValueError for a place that is no game's: where programs and keys are.
    """
    begins = next((one for one in HOMES if text.startswith(one)), None)
    if begins is None:
        return None
    home = Path.home()
    roots = {
        "~/": home,
        "$XDG_DATA_HOME/": Path(os.environ.get("XDG_DATA_HOME") or home / ".local/share"),
        "$XDG_CONFIG_HOME/": Path(os.environ.get("XDG_CONFIG_HOME") or home / ".config"),
    }
    rest = text.removeprefix(begins)
    place = roots[begins] / rest
    usual = {"~/": "", "$XDG_DATA_HOME/": ".local/share/", "$XDG_CONFIG_HOME/": ".config/"}
    inside = usual[begins] + rest  # wherever the variable leads
    if any(f"{inside}/".startswith(f"{one}/") for one in _NEVER) or inside in (
        ".local",
        ".local/share",
        ".config",
        ".cache",
    ):
        raise ValueError("mods never go there: name the game's own folder")
    return place


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
