"""Where layouts are: in a text, in a file, among those that ship with Furnel, in the user's own folder."""

from __future__ import annotations

import logging
from functools import cache
from importlib import resources
from pathlib import Path

from furnel.containers.schema import Layout
from furnel.errors import FurnelError, reason
from furnel.folders import state_folder
from furnel.schema import parse_toml

WHAT = "Reading a layout"
log = logging.getLogger(__name__)


def parse_layout(text: str, where: object) -> Layout:
    """A layout from its TOML text. Raises FurnelError that names line and key, what was found and what is allowed."""
    return parse_toml(Layout, text, WHAT, where, "docs/layouts.md")


def open_layout(path: Path) -> Layout:
    """The layout in a file."""
    try:
        return parse_layout(path.read_text("utf-8"), path)
    except (OSError, UnicodeDecodeError) as error:
        why = reason(error) if isinstance(error, OSError) else str(error)
        raise FurnelError(WHAT, where=path, why=why) from error


@cache
def shipped_layouts() -> dict[str, Layout]:
    """The layouts that come with Furnel, by name."""
    folder = resources.files("furnel.containers") / "layouts"
    found = [
        parse_layout(file.read_text("utf-8"), file.name)
        for file in sorted(folder.iterdir(), key=lambda file: file.name)
        if file.name.endswith(".toml")
    ]
    return {layout.name: layout for layout in found}


def layouts_folder() -> Path:
    """Where the user's own layouts lie."""
    return state_folder() / "layouts"


def known_layouts() -> dict[str, Layout]:
    """All layouts by name; the user's own ones come first and stand for shipped ones of the same name. One that cannot be read
    is left out, which the log tells."""
    own = []
    for file in sorted(layouts_folder().glob("*.toml")):
        try:
            own.append(open_layout(file))
        except FurnelError as error:
            log.warning("%s It is left out.", error)
    out = {layout.name: layout for layout in own}
    for name, layout in shipped_layouts().items():
        out.setdefault(name, layout)
    return out


def layout_text(name: str) -> str:
    """The TOML of a layout, shipped or the user's own, to begin another one from."""
    own = layouts_folder() / f"{name}.toml"
    if own.is_file():
        return own.read_text("utf-8")
    return (resources.files("furnel.containers") / "layouts" / f"{name}.toml").read_text("utf-8")
