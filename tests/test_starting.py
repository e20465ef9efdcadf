"""What is loaded before anything can be seen: as little as there can be."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

import click
import pytest

import furnel
from furnel.cli import COMMANDS
from furnel.cli import furnel as group

HEAVY = ("numpy", "pydantic", "PIL", "scipy", "numba", "furnel.mods", "furnel.catalogue")


def loaded(code: str) -> set[str]:
    ran = subprocess.run(
        [sys.executable, "-c", f"import sys\n{code}\nprint(*sys.modules)"],
        capture_output=True,
        text=True,
        check=True,
    )
    return set(ran.stdout.split())


@pytest.mark.parametrize(
    "code",
    [
        "from furnel.cli import main\nmain(['--help'])",
        "import furnel.desktop.opening, furnel.desktop.application, furnel.desktop.recent",
    ],
    ids=["the list of commands", "the first paint"],
)
def test_nothing_heavy_is_loaded_before_something_is_seen(code: str) -> None:
    assert not loaded(code) & set(HEAVY)


def test_the_wall_waits_for_no_bench_and_no_mod() -> None:
    found = loaded("import furnel.desktop.window")
    late = (
        "furnel.mods.",
        "furnel.desktop.fit",
        "furnel.desktop.build",
        "furnel.desktop.trying",
        "scipy",
        "numba",
    )
    wrong = {
        name
        for name in found
        if name.startswith(late) and name not in ("furnel.mods.past", "furnel.desktop.builds")
    }
    assert not wrong


def test_opening_a_game_waits_for_nothing_that_it_does_not_need(game: Path, tmp_path: Path) -> None:
    code = f"""
from pathlib import Path
from furnel.mods.build import last_build
from furnel.mods.workspace import create_project, open_workspace
space = open_workspace(create_project(Path({str(tmp_path / "mod")!r}), "Evening Post", Path({str(game)!r})))
space.catalogue.assets.prepare()
last_build(space)
"""
    assert not loaded(code) & {"scipy", "numba"}


def test_the_list_says_what_the_commands_say_of_themselves() -> None:
    context = click.Context(group)
    for name, (_, words) in COMMANDS.items():
        command = group.get_command(context, name)
        assert command is not None and command.get_short_help_str(300) == words, name


def test_there_is_one_version() -> None:
    root = Path(__file__).parents[1]
    top = next(
        line for line in (root / "CHANGELOG.md").read_text("utf-8").splitlines() if line.startswith("## ")
    )
    assert top.split()[1].strip(",") == furnel.__version__
    ran = subprocess.run(
        [sys.executable, "-m", "furnel.cli", "--version"], capture_output=True, text=True, check=True
    )
    assert furnel.__version__ in ran.stdout


def test_without_qt_the_command_line_works_and_says_what_the_window_needs() -> None:
    code = "import sys, importlib.util as util\nreal = util.find_spec\n"
    code += "util.find_spec = lambda name, *rest: None if name == 'PyQt6' else real(name, *rest)\n"
    code += "from furnel.cli import main\nsys.exit(main(['desktop']))"
    ran = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=False)
    assert ran.returncode == 2 and "furnel[desktop]" in ran.stderr


def test_what_is_loaded_ahead_is_every_part_of_the_window() -> None:
    found = loaded("from furnel.desktop.ahead import load_ahead\nload_ahead().join()")
    folder = Path(furnel.__file__).parent / "desktop"
    parts = {
        ".".join(("furnel", "desktop", *file.relative_to(folder).with_suffix("").parts)).removesuffix(
            ".__init__"
        )
        for file in folder.rglob("*.py")
    }
    assert not parts - found
