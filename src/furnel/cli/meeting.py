"""`furnel bridge`, `furnel get`, `furnel mods`: where a game's mods meet, what lets them live together, mods of others."""

from __future__ import annotations

from pathlib import Path

import click

from furnel.atomic import write_text
from furnel.cli.modding import OVER
from furnel.cli.output import Bar, echo, say_json
from furnel.errors import FurnelError
from furnel.games import Install, read_stack
from furnel.mods import loadouts
from furnel.mods.bridge import Bridge, bridge_state, look_at_mods, make_bridge, members_of, remove_bridge
from furnel.mods.deploy import foreign_folder, remove_mod, reorder
from furnel.mods.getting import Stranger, get_mod, looked_into
from furnel.mods.meeting import Contest, Stand
from furnel.mods.mine import make_mine
from furnel.words import count

_KINDS = {
    "same": "the same in",
    "beside": "changed in different places by",
    "different": "different in",
    "older": "older than the game in",
}


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
            if not bridge_state(install)[0]:
                echo("There is no bridge in this game")
                return 0
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
            lost = len(stand.contests)
            seen = (
                f"{names} are all seen"
                if not lost
                else f"{names}; of {count(lost, 'contradiction')} one side is seen"
            )
            alone = (
                "No bridge is needed"
                if not lost
                else f"A bridge has nothing to add; of {count(lost, 'contradiction')} one side is seen"
            )
            echo(
                f"The bridge has {count(len(made.paths), 'file')} and comes last: {seen}"
                if made.paths
                else alone
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
    if not stand.meetings:
        echo("No two mods that are on touch the same file")
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
    if not contest.winner:
        return f"{contest.address}: {contest.wants[0][0]} wants {contest.wants[0][1]}, and it is not seen"
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


@click.command()
@click.argument("source", type=click.Path(path_type=Path))
@click.option("--game", type=click.Path(path_type=Path), required=True, help="The game's folder.")
@click.option("--look", is_flag=True, help="Only say what is in it and what it would do.")
@click.option("--mod", default="", metavar="NAME", help="Which one, where several mods are in it.")
@OVER
def get(source: Path, game: Path, look: bool, mod: str, over: bool) -> int:
    """Put somebody else's mod, a ZIP, 7z, TAR or folder, into a game, or update it there."""
    install = Install(game)
    try:
        with looked_into(install, source, mod, Bar()) as stranger:
            _say_stranger(stranger)
            if not look:
                home = get_mod(install, stranger, Bar(), over)
                echo(f"{'Updated' if stranger.there else 'Installed'} {stranger.said} in {home}")
        return 0
    finally:
        install.close()


def _say_stranger(stranger: Stranger) -> None:
    how = "" if stranger.told == "about" else "; nothing says what it is: it was told by its paths"
    echo(f"{stranger.said} ({stranger.id}){how}")
    for path in stranger.replaces:
        echo(f"  {path}")
    for path in stranger.more:
        echo(f"  {path}  is not the game's")
    if stranger.there:
        echo(
            f"It is there already; {count(len(stranger.changed), 'file')} would be others: {', '.join(stranger.changed[:8])}"
        )
    for meeting in stranger.meetings:
        others = ", ".join(one for one in meeting.mods if one != stranger.id or meeting.kind == "older")
        echo(f"  {meeting.path}  {_KINDS[meeting.kind]} {others}")
        for contest in meeting.contests:
            echo(f"    {_said(contest)}")


@click.command()
@click.argument("game", type=click.Path(path_type=Path))
@click.option("--on", "on", multiple=True, metavar="MOD", help="Switch a mod on.")
@click.option("--off", "off", multiple=True, metavar="MOD", help="Switch a mod off.")
@click.option("--last", default="", metavar="MOD", help="Put a mod last, where it wins.")
@click.option("--remove", default="", metavar="MOD", help="Take a mod off.")
@click.option(
    "--mine",
    nargs=2,
    default=None,
    metavar="MOD DIR",
    help="Start a mod of your own in DIR from one of them.",
)
@OVER
def mods(
    game: Path,
    on: tuple[str, ...],
    off: tuple[str, ...],
    last: str,
    remove: str,
    mine: tuple[str, str] | None,
    over: bool,
) -> int:
    """List GAME's mods in load order, switch them, put one last, take one off, go on from one."""
    install = Install(game)
    try:
        if mine is not None:
            made = make_mine(install, mine[0], Path(mine[1]), progress=Bar())
            echo(made.file)
            if made.left:
                echo(f"Left out, because nothing of the game is like it: {', '.join(made.left)}")
            return 0
        if remove:
            echo(remove_mod(install, remove, over))
        stack = read_stack(install)
        if lost := [
            mod for mod in (*on, *off, *([last] if last else [])) if mod not in {one.id for one in stack}
        ]:
            raise FurnelError(
                "Switching mods",
                where=lost[0],
                why="no such mod is there",
                remedy="furnel mods GAME lists them",
            )
        if on or off or last:
            order = [(one.id, (one.on or one.id in on) and one.id not in off) for one in stack]
            order.sort(key=lambda one: one[0] == last)
            reorder(install, order)
            stack = read_stack(install)
        for one in stack:
            foreign = foreign_folder(install, one.id) if install.profile.mods.has_order else ""
            whose = f"  {foreign}" if foreign else ""
            echo(
                f"{'on ' if one.on else 'off'}  {one.id}  {one.name} {one.version}  {count(len(one.paths), 'file')}{whose}"
            )
        state, why = bridge_state(install)
        if state == "stale":
            echo(f"The bridge is stale: {why}. furnel bridge {game} makes it anew")
        return 0
    finally:
        install.close()


@click.command(name="load-outs")
@click.argument("game", type=click.Path(path_type=Path))
@click.option("--keep", default="", metavar="NAME", help="Keep the mods as they stand now under a name.")
@click.option("--use", default="", metavar="NAME", help="Switch and order the mods as a load-out says.")
@click.option("--drop", default="", metavar="NAME", help="Forget a load-out; the mods stay as they are.")
@click.option(
    "--give", nargs=2, default=None, metavar="NAME FILE", help="Write a load-out to a file for somebody else."
)
@click.option(
    "--take", type=click.Path(path_type=Path), default=None, metavar="FILE", help="Keep somebody's load-out."
)
def load_outs(
    game: Path, keep: str, use: str, drop: str, give: tuple[str, str] | None, take: Path | None
) -> int:
    """Named sets of GAME's mods in their order: keep, use, hand on."""
    install = Install(game)
    try:
        if take is not None:
            loadouts.keep_load_out(install, loadouts.read_load_out(take))
        if keep:
            loadouts.keep_load_out(install, loadouts.load_out_now(install, keep))
        if drop:
            loadouts.forget_load_out(install, drop)
        known = loadouts.load_outs(install)
        for name in (use, give[0] if give else ""):
            if name and name not in known:
                raise FurnelError(
                    "Looking for a load-out",
                    where=name,
                    why="there is none of that name",
                    remedy=f"There are: {', '.join(known) or 'none'}",
                )
        if give is not None:
            write_text(Path(give[1]), known[give[0]].text())
        if use:
            said = loadouts.use_load_out(install, known[use]).said
            echo(f"The mods are as in {use}" + (f", but {said}" if said else ""))
        for name, found in known.items():
            echo(f"{name}: {', '.join(mod.name or mod.id for mod in found.mods if mod.on) or 'no mod'}")
        return 0
    finally:
        install.close()
