"""`furnel bridge`: where a game's mods meet, and the mod that lets them live together."""

from __future__ import annotations

from pathlib import Path

import click

from furnel.cli.output import Bar, echo, say_json
from furnel.games import Install
from furnel.mods.bridge import Bridge, bridge_state, look_at_mods, make_bridge, members_of, remove_bridge
from furnel.mods.meeting import Contest, Stand
from furnel.words import count

_KINDS = {"same": "the same in", "beside": "changed in different places by", "different": "different in"}


@click.command()
@click.argument("game", type=click.Path(path_type=Path))
@click.option("--look", is_flag=True, help="Only say where mods meet.")
@click.option(
    "--prefer", multiple=True, metavar="MOD", help="A mod that has its way where others want something else."
)
@click.option(
    "--take",
    multiple=True,
    metavar="PATH[:ADDRESS]=MOD",
    help="Who has its way in one place; it is remembered.",
)
@click.option("--remove", is_flag=True, help="Take the bridge off.")
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def bridge(
    game: Path, look: bool, prefer: tuple[str, ...], take: tuple[str, ...], remove: bool, as_json: bool
) -> int:
    """Make a mod of all that GAME's mods change in the same files, so that each of them is seen."""
    install = Install(game)
    try:
        if remove:
            echo(remove_bridge(install))
            return 0
        decisions = dict(map(_decision, take))
        made: Bridge | None = None
        if look:
            stand = look_at_mods(install, prefer or None, decisions, Bar())
        else:
            made = make_bridge(install, prefer or None, decisions, Bar())
            stand = made.stand
        if as_json:
            say_json(_told(install, stand, made))
            return 0
        _say(stand)
        if made is not None:
            names = ", ".join(mod.name for mod in members_of(install))
            echo(
                f"The bridge has {count(len(made.paths), 'file')} and comes last: {names} are all seen"
                if made.paths
                else "No bridge is needed"
            )
        return 0
    finally:
        install.close()


def _decision(text: str) -> tuple[tuple[str, str], str]:
    place, _, mod = text.rpartition("=")
    path, _, address = place.partition(":")
    if not path or not mod:
        raise click.UsageError(f"--take {text}: write it as rules/boats.toml:otter/speed=evening-post")
    return (path, address), mod


def _say(stand: Stand) -> None:
    for meeting in stand.meetings:
        echo(f"{meeting.path}  {_KINDS[meeting.kind]} {', '.join(meeting.mods)}")
        for contest in meeting.contests:
            echo(f"  {_said(contest)}")
    left = [contest for contest in stand.contests if not contest.decided]
    if left:
        echo(f"{count(len(left), 'contradiction')}: --take {left[0].place}={left[0].wants[0][0]} decides one")


def _said(contest: Contest) -> str:
    wants = ", ".join(f"{mod} wants {want}" for mod, want in contest.wants)
    game = f"the game has {contest.game}, " if contest.game else ""
    how = "was chosen" if contest.decided else "comes last"
    return f"{contest.address or 'the whole'}: {game}{wants}; {contest.winner} {how}"


def _told(install: Install, stand: Stand, made: Bridge | None) -> object:
    state, why = bridge_state(install)
    return {
        "state": state,
        "why": why,
        "files": list(made.paths) if made is not None else [],
        "meetings": [
            {
                "path": meeting.path, "mods": list(meeting.mods), "kind": meeting.kind,
                "contests": [
                    {
                        "address": contest.address, "game": contest.game, "wants": dict(contest.wants),
                        "winner": contest.winner, "decided": contest.decided,
                    }
                    for contest in meeting.contests
                ],
            }
            for meeting in stand.meetings
        ],
    }  # fmt: skip
