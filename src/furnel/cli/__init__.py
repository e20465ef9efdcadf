"""The command line: every action of the core, each a thin call."""

from __future__ import annotations

import sys

import click

from furnel import __version__
from furnel.errors import FurnelError
from furnel.folders import keep_log
from furnel.kernels import announce
from furnel.pending import finish_interrupted
from furnel.words import plain

# every command: the module that has it, and what is said of it in the list; the module is loaded only when it is used
COMMANDS = {
    "find": ("assets", "List GAME's assets whose path has all words of TEXT."),
    "take": ("assets", "Take ASSETS out of GAME, which may also be a single archive."),
    "show": (
        "defining",
        "Print the values of a DEFINITION of GAME, or those at an ADDRESS such as otter/speed.",
    ),
    "match": (
        "assets",
        "Pair FOLDER's files with the originals that they are for: by note, path, name and likeness.",
    ),
    "spec": ("fitting", "What a file, or an ASSET of a game, is and demands."),
    "fit": ("fitting", "Make SOURCE match an original and write the result."),
    "compare": (
        "fitting",
        "Compare file B with file A, as a replacement with its original; sounds also by alignment, level and spectrum.",
    ),
    "formats": (
        "fitting",
        "What every format would make of PICTURE: size, likeness, the worst block, the time.",
    ),
    "sheet": (
        "sheets",
        "The figures in a picture, in reading order; or, with --cells, how they stand in the cells of a sheet.",
    ),
    "recolour": (
        "sheets",
        "Change exactly these colours in FILES, or in all pictures below folders, each written as the kind of file that it is.",
    ),
    "list": (
        "archives",
        "What is in ARCHIVE: every entry's path, its size and the size in which it is stored.",
    ),
    "change": (
        "archives",
        "Write a changed copy of ARCHIVE: entries replaced, added, removed, renamed; all others to the byte as they were.",
    ),
    "pack": ("archives", "Make an archive of every file in FOLDER."),
    "unpack": ("archives", "Write every entry of ARCHIVE as a file."),
    "guess": (
        "archives",
        "Say what an unknown ARCHIVE looks like, and print a layout to begin its description from.",
    ),
    "carve": (
        "archives",
        "Write every known file (pictures, sounds, ZIPs) that lies inside FILE, whatever that is.",
    ),
    "describe": ("archives", "Look at an unknown GAME's folder and print a profile for it."),
    "level": (
        "hearing",
        "Bring all sounds below FOLDER to one loudness, each written as the kind of file that it is.",
    ),
    "bridge": (
        "meeting",
        "Make a mod of all that GAME's mods change in the same files, so that each of them is seen.",
    ),
    "get": ("meeting", "Put somebody else's mod, a ZIP, 7z, TAR or folder, into a game, or update it there."),
    "mods": (
        "meeting",
        "List GAME's mods in load order, switch them, put one last, take one off, go on from one.",
    ),
    "load-outs": ("meeting", "Named sets of GAME's mods in their order: keep, use, hand on."),
    "mod": ("modding", "Start a mod, add swaps, check, build, install, remove, package."),
    "desktop": ("window", "Open the window, on what is in PATHS or was open last."),
}


class _Commands(click.Group):
    """Commands that are loaded when they are used, so that the list of them is quick."""

    def list_commands(self, ctx: click.Context) -> list[str]:
        return list(COMMANDS)

    def format_commands(self, ctx: click.Context, formatter: click.HelpFormatter) -> None:
        with formatter.section("Commands"):
            formatter.write_dl([(name, words) for name, (_, words) in COMMANDS.items()])

    def get_command(self, ctx: click.Context, cmd_name: str) -> click.Command | None:
        if cmd_name not in COMMANDS:
            return None
        from importlib import import_module

        module = import_module(f"furnel.cli.{COMMANDS[cmd_name][0]}")
        command: click.Command = getattr(
            module, "list_entries" if cmd_name == "list" else cmd_name.replace("-", "_")
        )
        return command


@click.command(cls=_Commands, context_settings={"help_option_names": ["-h", "--help"]})
@click.version_option(__version__, prog_name="furnel")
def furnel() -> None:
    """Find a game's assets, match your replacements to them, build and try override mods."""


def main(arguments: list[str] | None = None) -> int:
    """Run the command line: 0 when it went well, 1 when something breaks, 2 for bad usage or input, 3 for a fault of ours."""
    try:
        finish_interrupted()
        announce[:] = [lambda text: click.echo(f"furnel: {text}", err=True)]
        result = furnel.main(arguments, standalone_mode=False)
        return result if isinstance(result, int) else 0
    except FurnelError as error:
        click.echo(f"furnel: {plain(error.sentence())}", err=True)
        return 2
    except click.ClickException as error:
        error.show()
        return 2
    except (click.Abort, KeyboardInterrupt):
        click.echo("furnel: stopped", err=True)
        return 2
    except click.exceptions.Exit as error:
        return error.exit_code
    except BrokenPipeError:
        sys.stderr.close()
        return 0
    except Exception as error:
        import logging

        file = keep_log()
        logging.getLogger("furnel").exception("unforeseen")
        said = f"something unforeseen went wrong ({type(error).__name__}); the log has the details: {file}"
        click.echo(f"furnel: {said}", err=True)
        return 3
