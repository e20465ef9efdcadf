"""The command line: every action of the core, each a thin call."""

from __future__ import annotations

import logging
import sys

import click

from furnel import __version__
from furnel.errors import FurnelError
from furnel.folders import keep_log
from furnel.pending import finish_interrupted
from furnel.words import plain


class _Commands(click.Group):
    """Loads a command's module only when the command is used, so that `furnel --help` is quick."""

    _MODULES = {
        "find": "assets", "take": "assets", "match": "assets", "spec": "fitting", "fit": "fitting", "compare": "fitting",
        "formats": "fitting", "pack": "archives", "unpack": "archives", "guess": "archives", "carve": "archives",
        "describe": "archives", "level": "hearing", "mod": "modding", "desktop": "window",
    }  # fmt: skip

    def list_commands(self, ctx: click.Context) -> list[str]:
        return list(self._MODULES)

    def get_command(self, ctx: click.Context, cmd_name: str) -> click.Command | None:
        if cmd_name not in self._MODULES:
            return None
        from importlib import import_module

        module = import_module(f"furnel.cli.{self._MODULES[cmd_name]}")
        command: click.Command = getattr(module, cmd_name)
        return command


@click.command(cls=_Commands, context_settings={"help_option_names": ["-h", "--help"]})
@click.version_option(__version__, prog_name="furnel")
def furnel() -> None:
    """Find a game's assets, match your replacements to them, build and try override mods."""


def main(arguments: list[str] | None = None) -> int:
    """Run the command line: 0 when it went well, 1 when something breaks, 2 for bad usage or input, 3 for a fault of ours."""
    try:
        finish_interrupted()
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
        file = keep_log()
        logging.getLogger("furnel").exception("unforeseen")
        said = f"something unforeseen went wrong ({type(error).__name__}); the log has the details: {file}"
        click.echo(f"furnel: {said}", err=True)
        return 3
