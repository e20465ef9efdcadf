"""The pictures in docs/screenshots, taken from the real window on the demo."""

from __future__ import annotations

import os
import shutil
import sys
import tempfile
from pathlib import Path

from demo.hands import Hands
from demo.moving import write_moving
from firsthour.make import make_demo


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
        window.pages.open(window.pages.shelf_page, "find")
        hands.settle()
        hands.shot(out / "welcome.png")
        hands.open(project)
        window.session.learned.learn()
        hands.until(lambda: window.session.learned.marks is not None, "the game to be learned")
        window.find_station.wall.select("art/hulls/hull_otter.dds")
        hands.shot(out / "find.png")
        for name, original in (
            ("fit-picture", "art/hulls/hull_otter.dds"), ("fit-sound", "bank0/003.wav"),
        ):  # fmt: skip
            hands.station(2)
            window.fit_station.pick(original)
            hands.shot(out / f"{name}.png")
        window.fit_station.pick("music/reel_night.ogg")
        hands.settle()
        hands.click(window.fit_station.benches.of("sound")._figures)
        hands.shot(out / "fit-music.png")
        window.session.swaps.fit_all(["art/hulls/hull_otter.dds", "bank0/012.wav"])
        hands.settle()
        window.fit_station.pick("art/hulls/hull_otter.dds")
        hands.shot(folder / "fitted.png")
        hands.station(3)
        hands.key("Ctrl+B", window)
        hands.until(lambda: not window.session.builds.stale, "the build")
        window.run_command("install")
        hands.until(lambda: window.session.game.installed, "the install")
        hands.shot(out / "build.png")
        hands.station(4)
        hands.until(lambda: window.try_station.report is not None, "the report")
        hands.shot(out / "try.png")
        round_trip = [
            out / "find.png",
            out / "fit-picture.png",
            folder / "fitted.png",
            out / "build.png",
            out / "try.png",
        ]
        write_moving(round_trip, out.parent / "pictures" / "round.webp")
        _together(hands, out)
        _finding(hands, out, folder)
        _defining(hands, out, folder)
        _sheets(hands, out, folder)
        window.look.use("light")
        hands.station(1)
        hands.shot(out / "find-light.png")
        window.close()
    application.processEvents()


def _together(hands: Hands, out: Path) -> None:
    """Where the mod meets another one, and what strangers get to know of it."""
    from furnel.mods.sharing import telling

    window = hands.window
    session = window.session
    window.run_command("meetings")
    page = window.pages.meeting_page
    hands.until(lambda: page.stand is not None, "the mods to be looked at")
    hands.shot(out / "meetings.png")
    assert session.project is not None
    told = {
        "licence": "CC-BY-4.0", "tags": ["night", "boats"], "languages": ["en"],
        "description": "Green light stands over the tarn from ten until the last ferry.\n\n"
        "- a hull and a sail for the *Otter*\n- a bell with five voices\n- a tune for the crossing",
    }  # fmt: skip
    session.edit(telling(session.project, told), "Say more of it")
    window.run_command("share")
    hands.settle()
    hands.click(window.pages.share_page.use_still)
    hands.click(window.pages.share_page.package)
    hands.until(lambda: window.pages.share_page.tried, "the package to be tried")
    hands.shot(out / "share.png")


def _finding(hands: Hands, out: Path, folder: Path) -> None:
    """What is found without a name, and what is not known yet."""
    from PIL import Image

    from furnel.catalogue import preview
    from tarnlight.scenes import still
    from tarnlight.world import World

    window = hands.window
    session, station, game = window.session, window.find_station, folder / "game"
    hands.station(1)
    crop = folder / "crop.png"
    still(World(game, with_mods=False), "chart room", 90).crop((385, 40, 550, 206)).save(crop)
    station._read_likeness(crop)
    hands.until(lambda: station._ranking is not None, "the ranking")
    station.wall.select("charts/cold_sound.dds")
    hands.shot(out / "find-like.png")
    station.sieve.clear()
    mine = folder / "winter paint"
    (mine / "ensigns" / "small").mkdir(parents=True)
    for path, name, gains in (
        ("charts/adder_bay.dds", "IMG_2041.png", (1.2, 0.85, 0.75)), ("portraits/tove.dds", "aunt.png", (1.1, 1.0, 0.8)),
        ("art/rock/slate.dds", "slate.png", (1.0, 1.0, 1.0)), ("art/sails/sail_rust.dds", "my sail.png", (1.2, 0.7, 0.6)),
        ("ensigns/large/fjell.tga", "ensigns/small/fjell.png", (0.8, 1.0, 1.2)),
    ):  # fmt: skip
        asset = session.asset(path)
        assert session.catalogue is not None and asset is not None
        shown = preview(session.catalogue, asset).picture
        pixels = (shown.pixels[..., :3] * gains).clip(0, 255).astype("uint8")
        Image.fromarray(pixels).resize((300, 300)).save(mine / name)
    Image.open(folder / "crop.png").crop((0, 0, 60, 30)).save(mine / "stripe.png")
    window.pages.match_files([mine])
    hands.until(lambda: window.pages.match_sheet.rows.matches, "the pairs")
    hands.shot(out / "match.png")
    unknown = folder / "moss harbour"
    shutil.copytree(game, unknown, ignore=shutil.ignore_patterns("mods"))
    (unknown / "tarnlight.toml").unlink()
    (unknown / "data" / "art.tlp").rename(unknown / "data" / "pictures.pak")
    (unknown / "data" / "cast.tlc").rename(unknown / "data" / "figures.dat")
    window.pages.work_out(unknown / "data" / "pictures.pak")
    hands.until(lambda: window.pages.archive_page.anatomy.entries, "the entries")
    window.pages.archive_page.bytes.go(0x44)
    hands.shot(out / "archive.png")
    window.pages.describe_game(unknown)
    hands.until(lambda: window.pages.new_game_page.start.isEnabled(), "the survey")
    hands.shot(out / "new-game.png")


def _defining(hands: Hands, out: Path, folder: Path) -> None:
    """Values changed, a boat and a song that the game did not have."""
    import soundfile

    from furnel.mods.additions import Addition, add
    from furnel.texts import Change
    from tarnlight import sounds

    window, sources = hands.window, folder / "northern-lights" / "sources"
    session, station = window.session, window.fit_station
    faster = [
        Change(do="set", at="otter/speed", to=3.84),
        Change(do="set", at="skiff/sail", to="art/sails/sail_night.dds"),
    ]
    session.swaps.change_values("rules/boats.toml", faster, "Faster boats")
    hands.settle()
    hands.station(2)
    station.pick("rules/boats.toml")
    hands.shot(out / "fit-text.png")
    window.run_command("new-thing")
    page = window.pages.new_thing_page
    hands.settle()
    hands.type("Raft", page.name)
    page.places[0].take([sources / "dusk_paint.jpg"])
    hands.shot(out / "fit-addition.png")
    parts = {}
    for name in sounds.PARTS:
        parts[name] = [folder / f"{name}.wav"]
        soundfile.write(parts[name][0], sounds.song_part("evening_crossing", name, 7), sounds.MUSIC_RATE)
    assert session.space is not None
    wanted = Addition("song", "harbour_lights", "evening_crossing", "Harbour lights", parts)
    session.edit(add(session.space, wanted), "New song")
    hands.settle()
    hands.station(2)
    station.pick("songs/harbour_lights/reed.ogg")
    hands.settle()
    hands.shot(out / "fit-song.png")


def _sheets(hands: Hands, out: Path, folder: Path) -> None:
    """A stranger's walker in the game's cells, a character in other colours, a stranger's tiles."""
    window, sources = hands.window, folder / "northern-lights" / "sources"
    session, station = window.session, window.fit_station
    for original, name in (
        ("cast/ferryman_shore.png", "stranger_walker.png"),
        ("tiles/dock.png", "stranger_tiles.png"),
    ):
        session.swaps.swap_with(original, sources / name)
        hands.settle()
        session.swaps.fit_all([original])
        hands.settle()
    hands.station(2)
    bench = station.benches.of("sheet")
    station.pick("cast/ferryman_shore.png")
    hands.settle()
    hands.click(bench.mirror)
    hands.settle()
    bench.cells.choose([5])
    bench.playing.show_cell(5)
    hands.shot(out / "fit-sheet.png")
    station.pick("cast/otter_walk.png")
    hands.settle()
    bench.show_tray("Colours")
    bench.playing.go(2)
    bench.colours.choose(bench.content.colours[1][0].rgb)
    hands.click(bench.character)
    hands.shot(out / "fit-palette.png")


if __name__ == "__main__":
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    with tempfile.TemporaryDirectory(prefix="furnel-state-") as state:
        os.environ["FURNEL_STATE"] = state
        take(Path(sys.argv[1]))
