"""A window on two screens of different scale, in a process of its own: what it finds there, as JSON."""

from __future__ import annotations

import json
import os
import sys
from pathlib import Path


def main(project: Path, folder: Path) -> None:
    screens = [
        {"name": name, "x": x, "y": 0, "width": 2560, "height": 1440, "logicalDpi": 96, "logicalBaseDpi": 96, "dpr": 1}
        for name, x in (("left", 0), ("right", 2560))
    ]  # fmt: skip
    (folder / "screens.json").write_text(json.dumps({"screens": screens}), "utf-8")
    os.environ["QT_QPA_PLATFORM"] = f"offscreen:configfile={folder / 'screens.json'}"
    os.environ["QT_SCREEN_SCALE_FACTORS"] = "left=1;right=1.5"
    from demo.hands import Hands

    from furnel.desktop.application import make_application, make_window

    from .fitting_in import cut_off

    application = make_application()
    window = make_window()
    window.resize(1280, 800)
    window.show()
    hands = Hands(window)
    hands.open(project)
    said: list[dict[str, object]] = []
    for name, x in (("left", 40), ("right", 2700), ("left", 40)):
        window.move(x, 30)
        application.processEvents()
        for station in ("find", "fit"):
            window.go(station)
            hands.settle()
            picture = window.grab()
            place = f"{name} {station} {len(said)}.png"
            picture.save(str(folder / place))
            said.append(
                {
                    "screen": window.screen().name(),
                    "size": [window.width(), window.height()],
                    "pixels": picture.width(),
                    "picture": place,
                    "cut": cut_off(window),
                }  # type: ignore[union-attr]
            )
    window.close()
    print(json.dumps(said))


if __name__ == "__main__":
    main(Path(sys.argv[1]), Path(sys.argv[2]))
