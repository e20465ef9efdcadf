"""`furnel desktop`."""

from __future__ import annotations

from pathlib import Path

import click

from furnel.errors import FurnelError


@click.command()
@click.argument("project", type=click.Path(path_type=Path), required=False)
def desktop(project: Path | None) -> int:
    """Open the window, on PROJECT when there is one."""
    from importlib.util import find_spec

    if find_spec("PyQt6") is None:
        raise FurnelError(
            "Opening the window",
            why="PyQt6 is not installed",
            remedy="Install it with: pip install 'furnel[desktop]'",
        )
    from furnel.desktop import run

    return run(project)
