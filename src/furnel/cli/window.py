"""`furnel desktop`."""

from __future__ import annotations

from pathlib import Path

import click


@click.command()
@click.argument("project", type=click.Path(path_type=Path), required=False)
def desktop(project: Path | None) -> int:
    """Open the window, on PROJECT when there is one."""
    from furnel.desktop import run

    return run(project)
