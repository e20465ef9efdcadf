"""The story: assets found, swapped, fitted, built, installed and tried through the real window, with nobody watching."""

from __future__ import annotations

import hashlib
import json
import os
import shutil
import subprocess
import sys
from pathlib import Path

from demo.hands import Hands
from demo.hold import work_it_out
from firsthour.make import make_game, make_sources

SWAPS = (
    (
        "hull_otter",
        "art/hulls/hull_otter.dds",
        "dusk_paint.jpg",
        "a 900 × 700 JPEG for a 512 × 512 BC3 hull with levels",
    ),
    (
        "otter_walk",
        "cast/otter_walk.png",
        "otter_teal.png",
        "a sheet on green, twice the size, for the otter",
    ),
    ("bell_near", "bank0/000.wav", "church_bell.mp3", "a 44.1 kHz stereo MP3 for a 48 kHz mono WAV bell"),
    ("slow_water", "music/slow_water.ogg", "night_song.wav", "a 13 s WAV tune for a 20 s Ogg loop"),
)


def tell(folder: Path, with_sounds: bool = True) -> int:
    """Play the story below `folder`, with or without the chapter on sounds; 0 when the game accepted everything,
    and the reader of an archive that was worked out on the bench what was put into that."""
    from furnel.desktop.application import make_application, make_window

    game, mod = folder / "game", folder / "story"
    make_game(game)
    shutil.rmtree(mod, ignore_errors=True)
    make_sources(mod / "sources")
    before = digest(game)
    application = make_application()
    window = make_window()
    window.show()
    sys.excepthook = sys.__excepthook__  # nobody looks at the window: what goes wrong is printed
    hands = Hands(window)
    session = window.session
    session.open_game(game)
    hands.until(lambda: session.catalogue is not None, "the game to open")
    hands.settle()
    print(f"opened {game.name}: {window.strip.state('find').line}")
    session.new_mod(mod, "Evening Post")
    hands.until(lambda: session.project is not None, "the mod to start")
    hands.settle()
    print("started the mod Evening Post")
    for words, original, source, what in SWAPS:
        hands.find(words, original)
        hands.drop_on_tile(mod / "sources" / source, original)
        hands.until(lambda original=original: original in session.examined, f"{original} to be looked at")
        hands.settle()
        faults = [
            f"{p.label.lower()} {p.yours} for {p.original}"
            for p in session.examined[original].points
            if p.state == "breaks"
        ]
        print(f"dropped {what}: Furnel says it breaks in {', '.join(faults)}")
        hands.click(window.fit_station.table._fit)
        hands.until(
            lambda original=original: session.examined[original].state != "breaks", f"{original} to fit"
        )
        hands.shot(folder / "shots" / f"fit-{words}.png")
        print(f"  fitted: {window.strip.state('fit').line}")
    if with_sounds:
        _sounds(hands, mod / "sources")
    hands.key("Ctrl+Z", window)
    hands.settle()
    print(f"undo: {window.strip.state('fit').line}")
    hands.key("Ctrl+Shift+Z", window)
    hands.settle()
    print(f"redo: {window.strip.state('fit').line}")
    hands.station(3)
    hands.key("Ctrl+B", window)
    hands.until(lambda: session.builds.last is not None and not session.builds.stale, "the build")
    hands.settle()
    print(f"built: {window.line.message}")
    hands.key("Ctrl+I", window)
    hands.until(lambda: session.game.installed, "the install")
    hands.shot(folder / "shots" / "build.png")
    print(f"installed: {window.line.message}")
    hands.station(4)
    hands.until(lambda: window.try_station.report is not None, "the game's report")
    hands.shot(folder / "shots" / "try.png")
    (folder / "stills").mkdir(exist_ok=True)
    for name, image in window.try_station.stills.images.items():
        image.save(str(folder / "stills" / f"{name}.png"))
    good = report(game, "evening-post", len(SWAPS) + 1 + 9 * with_sounds)
    good = good and (not with_sounds or _played(game))
    hands.station(3)
    window.run_command("remove")
    hands.until(lambda: not session.game.installed, "the mod to come off")
    hands.settle()
    same = digest(game) == before
    print(
        f"removed: {window.line.message}; the game's folder is {'the same to the byte' if same else 'NOT the same'}"
    )
    worked_out = work_it_out(hands, folder)
    window.close()
    application.processEvents()
    wrong = [notice.text for notice in window.messages if notice.tone == "wrong"]
    for text in wrong:
        print(f"the window refused: {text}")
    print(f"stills and screenshots are in {folder}")
    return 0 if good and same and worked_out and not wrong else 1


def _sounds(hands: Hands, sources: Path) -> None:
    """A gull too loud for its family, a song of 3:17 for a tune of 1:04, five takes of a bell for an event of three."""
    window = hands.window
    session, bench = window.session, window.fit_station.benches.of("sound")
    for words, original, source in (
        ("gull 1", "bank0/012.wav", "gull_loud.wav"),
        ("reel_night", "music/reel_night.ogg", "evening_song.flac"),
        ("bell_far 1", "bank0/003.wav", "bell_take_1.wav"),
    ):
        hands.find(words, original)
        hands.drop_on_tile(sources / source, original)
        hands.until(lambda original=original: original in session.examined, f"{original} to be looked at")
        hands.settle()
        said = [
            f"{p.label.lower()} {p.yours} for {p.original}"
            for p in session.examined[original].points
            if p.state != "fits"
        ]
        print(f"dropped {source} on {words}: {', '.join(said)}")
        hands.click(window.fit_station.table._fit)
        hands.until(
            lambda original=original: session.examined[original].state == "fits", f"{original} to fit"
        )
    hands.settle()
    hands.drop([sources / f"bell_take_{number}.wav" for number in range(1, 6)], bench.panel.sounds)
    hands.until(lambda: len(bench.panel.paths) == 5, "the event to be filled")
    hands.settle()
    states = {session.examined[path].state for path in bench.panel.paths}
    print(
        f"dropped five takes on bell_far: it plays {len(bench.panel.paths)} sounds, which are {', '.join(states)}"
    )


def _played(game: Path) -> bool:
    """Ring the far bell in the game's window until every take was heard; whether all were the mod's."""
    from tarnlight.play import Game

    window = Game(game)
    window.show()
    heard = []
    for _ in range(5):
        window.sound("bell_far")
        heard.append(window.says)
    window.close()
    print(f"the game's window rings {'; '.join(heard)}")
    return len(set(heard)) == 5 and all("evening-post" in line for line in heard)


def report(game: Path, mod: str, count: int) -> bool:
    """Print the game's word on what a mod provides; whether it accepts everything, so many files."""
    ran = subprocess.run(
        [sys.executable, "-m", "tarnlight", "report", str(game), "--json"],
        capture_output=True,
        text=True,
        check=False,
    )
    words = [entry for entry in json.loads(ran.stdout)["assets"] if entry["winner"] == mod]
    for entry in words:
        print(
            f"the game: {entry['path']} from {entry['winner']}: {entry['verdict']}, {entry['reason'] or entry['effect']}"
        )
    return len(words) == count and all(entry["verdict"] == "accepted" for entry in words)


def digest(folder: Path) -> str:
    """One hash of everything in a folder."""
    whole = hashlib.sha256()
    for file in sorted(folder.rglob("*")):
        whole.update(str(file.relative_to(folder)).encode())
        if file.is_file():
            whole.update(file.read_bytes())
    return whole.hexdigest()


if __name__ == "__main__":
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    sys.exit(tell(Path(sys.argv[1])))
