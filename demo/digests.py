"""The digests of the demo game and of the demo mod's build: what a change that adds nothing leaves as it is, on one machine.

`./run python -m demo.digests before.txt` writes them; after the change, to another file, and `diff` shows what moved.
"""

from __future__ import annotations

import hashlib
import sys
import tempfile
from pathlib import Path

from firsthour.make import make_demo


def digests(folder: Path) -> list[str]:
    """A line for every file of the game and of the built mods, with what comparing them gave."""
    file = make_demo(folder)
    places = [folder / "game", file.parent / "build"]
    files = sorted(one for place in places for one in place.rglob("*") if one.is_file())
    return [
        f"{hashlib.sha256(one.read_bytes()).hexdigest()}  {one.relative_to(folder).as_posix()}"
        for one in files
    ]


if __name__ == "__main__":
    with tempfile.TemporaryDirectory() as place:
        Path(sys.argv[1]).write_text("\n".join(digests(Path(place))) + "\n", "utf-8")
