"""How the window answers: a seeded monkey on the demo mod for ten minutes, with the slow turns named by where they were."""

from __future__ import annotations

import os
import sys
import tempfile
from pathlib import Path

_PARTS = 5  # after each it is counted what is held


def main(seconds: float = 600.0) -> None:
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from demo.hands import Hands
    from demo.monkey import Found, Monkey, held_now, tell

    from firsthour.make import make_demo
    from furnel.desktop.ahead import load_ahead
    from furnel.desktop.application import make_application, make_window

    if len(sys.argv) > 2 and sys.argv[-1].isdecimal():
        seconds = float(sys.argv[-1])
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        os.environ["FURNEL_STATE"] = str(folder / "state")
        make_demo(folder)
        application = make_application()
        window = make_window()
        window.show()
        load_ahead().join()  # as a start does while the wall is looked at
        hands = Hands(window)
        hands.open(folder / "northern-lights" / "furnel.toml")
        sources = sorted((folder / "northern-lights" / "sources").iterdir())
        files = [*sources, folder / "northern-lights", folder / "gone.png"]
        rows = [held_now()]
        found = Found()
        for part in range(_PARTS):
            monkey = Monkey(hands, files, seed=part + 1)
            monkey.found = found
            monkey.play(seconds / _PARTS)
            rows.append(held_now())
        print(tell(found))
        for name in ("mb", "widgets", "threads", "descriptors"):
            print(f"  {name}: " + " → ".join(f"{getattr(row, name):.0f}" for row in rows))
        window.close()
        application.processEvents()
