"""A mod of five hundred swaps in the window: how long turns take while it is opened, looked at, scrolled and typed on."""

from __future__ import annotations

import os
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

SWAPS = 500


def main() -> None:
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from demo.hands import Hands
    from demo.monkey import Probe, held_now
    from PyQt6.QtWidgets import QScrollBar

    from furnel.desktop.application import make_application, make_window

    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        os.environ["FURNEL_STATE"], os.environ["FURNEL_CACHE"] = str(folder / "state"), str(folder / "cache")
        project = _forged(folder)
        application = make_application()
        window = make_window()
        window.show()
        hands, session = Hands(window), window.session
        probe = Probe()

        def phase(what: str, act: Callable[[int], object], until: Callable[[], object]) -> None:
            probe.turns.clear()
            number = 0
            end = time.monotonic() + 180
            while not until() and time.monotonic() < end:
                probe.turn(what, lambda number=number: act(number))
                probe.turn(what, application.processEvents)
                time.sleep(0.001)
                number += 1
            turns = sorted(probe.turns)
            p95 = turns[int(len(turns) * 0.95)] * 1000
            print(f"{what}: {len(turns)} turns, p95 {p95:.1f} ms, longest {turns[-1] * 1000:.0f} ms")

        def times(count: int) -> Callable[[], bool]:
            left = iter(range(count))
            return lambda: next(left, None) is None

        session.open_mod(project)
        phase("opening", lambda _: None, lambda: session.project is not None)
        window.go("fit")
        phase("examining", lambda _: None, lambda: len(session.examined) == SWAPS and not window.jobs.busy())
        bar = window.fit_station.queue.findChild(QScrollBar)
        phase("scrolling the queue", lambda n: bar.setValue(n * 60 % max(bar.maximum(), 1)), times(300))
        window.go("build")
        phase("the build page", lambda n: window.build_station.update(), times(100))
        window.go("find")
        words = "ensign copper hull"
        phase("typing", lambda n: window.find_station.sieve.text.setText(words[: n % len(words)]), times(120))
        credit = session.project.swaps[7]
        phase(
            "editing",
            lambda n: session.swaps.set_swap(credit.model_copy(update={"credit": f"no {n}"}), "Credit"),
            times(60),
        )
        hands.settle()
        print(probe.tell())
        print(f"{held_now().mb:.0f} MB held")
        window.close()


def _forged(folder: Path) -> Path:
    """A game with room for so many, and a mod that swaps them."""
    import numpy as np
    from PIL import Image

    from furnel.mods.workspace import create_project, open_workspace
    from tarnlight.forge import forge

    forge(folder / "game", 1, 8)
    space = open_workspace(create_project(folder / "mod", "Many Flags", folder / "game"))
    sources = []
    for number in range(5):
        file = folder / "mod" / f"flag{number}.png"
        pixels = np.random.default_rng(number).integers(0, 255, (48, 64, 4), np.uint8)
        Image.fromarray(pixels).save(file)
        sources.append(file)
    project, paths = (
        space.project,
        [p for p in space.catalogue.assets.paths if p.endswith((".tga", ".dds", ".png"))],
    )
    from furnel.mods.project import Swap

    for number, path in enumerate(paths[:SWAPS]):
        project = project.model_copy(
            update={"swaps": (*project.swaps, Swap(original=path, source=sources[number % 5].name))}
        )
    file = space.save(project).file
    space.close()
    print(f"{len(project.swaps)} swaps")
    return file
