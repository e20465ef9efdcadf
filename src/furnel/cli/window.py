"""`furnel desktop`."""

from __future__ import annotations

from pathlib import Path

import click

from furnel.errors import FurnelError


@click.command()
@click.argument("paths", type=click.Path(path_type=Path), nargs=-1)
@click.option("--apart", is_flag=True, help="A window of its own, although one is open.")
def desktop(paths: tuple[Path, ...], apart: bool) -> int:
    """Open the window, on what is in PATHS or was open last.

    PATHS are a mod, a game's folder, somebody's mod, an archive, or sources for the mod that is open. A window that is open
    already comes to the front and takes them.
    """
    from importlib.util import find_spec

    if find_spec("PyQt6") is None:
        raise FurnelError(
            "Opening the window",
            why="PyQt6 is not installed",
            remedy="Install it with: pip install 'furnel[desktop]'",
        )
    from furnel.desktop import run

    return run(paths, apart)
