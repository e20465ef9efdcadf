"""The game's command line."""

from __future__ import annotations

import argparse
import json
import sys
from dataclasses import asdict
from pathlib import Path

SCENES = ("quay", "open water", "lamp store", "chart room", "shore")


def main(arguments: list[str] | None = None) -> int:
    """Run one command; 0 when it went well, 1 when an asset is not accepted, 2 for bad usage or a broken install."""
    options = _parser().parse_args(arguments)
    from tarnlight.loaders import Broken

    try:
        return int(options.run(options))
    except (Broken, OSError) as error:
        print(f"tarnlight: {error}", file=sys.stderr)
        return 2


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="tarnlight", description="Tarnlight Ferry, the night-mail ferry over a mountain tarn"
    )
    commands = parser.add_subparsers(required=True)
    forge = commands.add_parser("forge", help="make an install")
    forge.add_argument("folder", type=Path)
    forge.add_argument("--seed", type=int, default=1)
    forge.add_argument("--scale", type=int, default=1, help="repeat the content with variations")
    forge.set_defaults(run=_forge)
    play = commands.add_parser("play", help="open the game's window")
    play.add_argument("folder", type=Path)
    play.add_argument("--scene", choices=SCENES, default="quay")
    play.set_defaults(run=_play)
    shot = commands.add_parser("shot", help="draw one still")
    shot.add_argument("folder", type=Path)
    shot.add_argument("--scene", choices=SCENES, default="quay")
    shot.add_argument("--tick", type=int, default=90)
    shot.add_argument("--out", type=Path, required=True)
    shot.add_argument("--no-mods", action="store_true")
    shot.set_defaults(run=_shot)
    report = commands.add_parser("report", help="say what the game makes of every asset")
    report.add_argument("folder", type=Path)
    report.add_argument("--json", action="store_true")
    report.set_defaults(run=_report)
    return parser


def _forge(options: argparse.Namespace) -> int:
    from tarnlight.forge import forge

    print(f"{forge(options.folder, options.seed, options.scale)} assets in {options.folder}")
    return 0


def _play(options: argparse.Namespace) -> int:
    from tarnlight.play import play

    return play(options.folder, options.scene)


def _shot(options: argparse.Namespace) -> int:
    from tarnlight.scenes import still
    from tarnlight.world import World

    picture = still(World(options.folder, not options.no_mods), options.scene, options.tick)
    options.out.parent.mkdir(parents=True, exist_ok=True)
    picture.save(options.out)
    return 0


def _report(options: argparse.Namespace) -> int:
    from tarnlight.world import World

    world = World(options.folder)
    verdicts = world.verdicts()
    if options.json:
        lines = {"assets": [asdict(v) for v in verdicts], "strays": world.strays(), "notes": world.notes}
        print(json.dumps(lines, indent=1))
    else:
        for verdict in verdicts:
            if verdict.winner != "game" or verdict.verdict != "accepted":
                print(
                    f"{verdict.verdict:9} {verdict.path}  from {verdict.winner}  {verdict.reason or verdict.effect}"
                )
        for stray in [*world.strays(), *world.notes]:
            print(f"unknown   {stray}")
    return (
        0 if all(v.verdict == "accepted" for v in verdicts) and not world.strays() and not world.notes else 1
    )
