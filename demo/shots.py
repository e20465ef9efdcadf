"""The pictures in docs/screenshots, taken from the real window on the demo."""

from __future__ import annotations

import os
import shutil
import sys
import tempfile
from pathlib import Path

from demo.hands import Hands
from demo.make import make_demo


def take(out: Path, game: Path | None = None) -> None:
    """Every main view as a PNG in `out`."""
    from furnel.desktop.application import make_application, make_window

    with tempfile.TemporaryDirectory(prefix="furnel-shots-") as scratch:
        folder = Path(scratch)
        if game is not None and game.is_dir():
            shutil.copytree(
                game,
                folder / "game",
                ignore=lambda _, names: [name for name in names if name == "order.toml"],
            )
        project = make_demo(folder)
        application = make_application()
        window = make_window()
        window.show()
        hands = Hands(window)
        hands.open(project)
        window.find_station.wall.select("art/hulls/hull_otter.dds")
        hands.shot(out / "find.png")
        for name, original in (
            ("fit-picture", "art/hulls/hull_otter.dds"), ("fit-sheet", "cast/otter_walk.png"),
            ("fit-sound", "bank0/000.wav"), ("fit-music", "music/slow_water.ogg"), ("fit-text", "rules/playlist.json"),
        ):  # fmt: skip
            hands.station(2)
            window.fit_station.pick(original)
            hands.shot(out / f"{name}.png")
        window.session.fit_all(["art/hulls/hull_otter.dds", "bank0/012.wav"])
        hands.settle()
        window.fit_station.pick("art/hulls/hull_otter.dds")
        hands.shot(out / "fit-fitted.png")
        bench = window.fit_station.benches.picture
        window.fit_station.pick("art/hulls/hull_heron.dds")
        hands.settle()
        window.fit_station.steps._unfold(0)
        hands.shot(out / "fit-place.png")
        hands.click(bench.modes.buttons()[1])
        for name, original, tray in (
            ("fit-gauge", "hud/oil_level.dds", "In the game"), ("fit-formats", "art/sails/sail_night.dds", "Formats"),
        ):  # fmt: skip
            window.fit_station.pick(original)
            hands.settle()
            bench.show_tray(tray)
            hands.shot(out / f"{name}.png")
        hands.station(3)
        hands.key("Ctrl+B", window)
        hands.until(lambda: not window.session.stale, "the build")
        window.run_command("install")
        hands.until(lambda: window.session.installed, "the install")
        hands.shot(out / "build.png")
        hands.station(4)
        hands.until(lambda: window.try_station.report is not None, "the report")
        hands.shot(out / "try.png")
        window.look.use("light")
        hands.station(1)
        hands.shot(out / "find-light.png")
        window.close()
    application.processEvents()


if __name__ == "__main__":
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    with tempfile.TemporaryDirectory(prefix="furnel-state-") as state:
        os.environ["FURNEL_STATE"] = state
        take(Path(sys.argv[1]))
