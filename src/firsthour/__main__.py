"""`python -m firsthour FOLDER`: make the demo there, and say where its mod's project is."""

import sys
from pathlib import Path

from firsthour.make import make_demo


def main(words: list[str]) -> int:
    """Make the demo in a folder; what is being done is said line by line, the project's path last."""
    if len(words) != 1:
        print("Usage: python -m firsthour FOLDER", file=sys.stderr)
        return 2
    print(make_demo(Path(words[0]), lambda said: print(said, flush=True)), flush=True)
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
