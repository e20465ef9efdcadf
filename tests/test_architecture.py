"""The rules of the house: layers, Qt behind its border, colours behind their roles, commands in one table."""

from __future__ import annotations

import ast
import re
import subprocess
import sys
import tomllib
from functools import cache
from itertools import pairwise
from pathlib import Path

import pytest

SRC = Path(__file__).parents[1] / "src"
LAYERS = [
    {
        "errors",
        "progress",
        "words",
        "digests",
        "folders",
        "pending",
        "atomic",
        "leave",
        "parallel",
        "kernels",
        "collecting",
    }
    | {"listing", "signatures", "locks", "schema", "tomllines", "states", "remembered", "kept"},
    {"images", "sound"},
    {"blocks"},
    {"imagefiles"},
    {"sprites", "texts", "containers"},
    {"games"},
    {"media"},
    {"catalogue"},
    {"mods"},
    {"cli", "desktop"},
]
RANK = {name: rank for rank, names in enumerate(LAYERS) for name in names}


@cache
def tree(file: Path) -> ast.Module:
    return ast.parse(file.read_text("utf-8"))


@cache
def imports(file: Path) -> list[str]:
    """Every module that a file imports, lazily or not."""
    found = []
    for node in ast.walk(tree(file)):
        if isinstance(node, ast.Import):
            found += [alias.name for alias in node.names]
        elif isinstance(node, ast.ImportFrom) and node.module:
            found.append(node.module)
            found += [f"{node.module}.{alias.name}" for alias in node.names]
    return found


def packages(module: str) -> str:
    parts = module.split(".")
    return parts[1] if len(parts) > 1 and parts[0] == "furnel" else ""


def test_a_package_imports_only_from_the_layers_below_it() -> None:
    wrong = []
    for file in (SRC / "furnel").rglob("*.py"):
        own = file.relative_to(SRC / "furnel").parts[0].removesuffix(".py")
        if own == "__init__":
            continue
        for module in imports(file):
            other = packages(module)
            opens_the_window = own == "cli" and other == "desktop" and file.name == "window.py"
            upward = other in RANK and other != own and RANK[other] >= RANK[own] > 0
            if upward and not opens_the_window:
                wrong.append(f"{file.relative_to(SRC)} imports {module}")
    assert not wrong


def test_only_the_desktop_knows_qt() -> None:
    outside = [file for file in (SRC / "furnel").rglob("*.py") if "desktop" not in file.parts]
    assert not [str(file) for file in outside if any(module.startswith("PyQt6") for module in imports(file))]


@pytest.mark.parametrize("name", sorted(set(RANK) - {"desktop"}))
def test_importing_a_core_package_loads_no_qt_and_no_kernels(name: str) -> None:
    code = f"import sys, furnel.{name}; print([m for m in ('PyQt6', 'numba', 'scipy') if m in sys.modules])"
    ran = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert ran.stdout.strip() == "[]"


def test_the_game_and_the_product_do_not_know_each_other() -> None:
    for package, other in pairwise(("furnel", "tarnlight", "furnel")):
        for file in (SRC / package).rglob("*.py"):
            assert not [module for module in imports(file) if module.split(".")[0] == other], file


def test_colours_are_roles() -> None:
    for file in (SRC / "furnel" / "desktop").rglob("*.py"):
        assert not re.findall(r"[\"']#[0-9a-fA-F]{6}", file.read_text("utf-8")), file


def luminance(code: str) -> float:
    channels = [int(code[place : place + 2], 16) / 255 for place in (1, 3, 5)]
    linear = [value / 12.92 if value <= 0.04045 else ((value + 0.055) / 1.055) ** 2.4 for value in channels]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


@pytest.mark.parametrize("theme", ["dark", "light"])
@pytest.mark.parametrize("ink", ["text", "quiet", "tarn", "ember"])
@pytest.mark.parametrize("ground", ["window", "panel"])
def test_what_has_to_be_read_can_be_read(theme: str, ink: str, ground: str) -> None:
    file = SRC / "furnel" / "desktop" / "themes" / f"{theme}.toml"
    colours = tomllib.loads(file.read_text("utf-8"))["base"]
    light, dark = sorted((luminance(colours[ink]), luminance(colours[ground])), reverse=True)
    assert (light + 0.05) / (dark + 0.05) >= 4.5


def test_both_themes_have_the_same_roles() -> None:
    folder = SRC / "furnel" / "desktop" / "themes"
    roles = [
        set(tomllib.loads((folder / f"{name}.toml").read_text("utf-8"))["base"]) for name in ("dark", "light")
    ]
    assert roles[0] == roles[1]


def test_keys_stand_in_the_table_of_commands_alone() -> None:
    named = re.compile(r"(Ctrl|Shift)[+ ][A-Z0-9]|\(F\d+\)")
    wrong = [
        str(file)
        for file in (SRC / "furnel").rglob("*.py")
        if file.name != "actions.py"
        for node in ast.walk(tree(file))
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and named.search(node.value)
    ]
    assert not wrong


def test_no_class_is_two_classes() -> None:
    """Kernels aside: at most 25 methods each, and constructors that can be seen at once."""
    large = []
    for file in SRC.rglob("*.py"):
        for node in ast.walk(tree(file)):
            if not isinstance(node, ast.ClassDef):
                continue
            methods = [part for part in node.body if isinstance(part, ast.FunctionDef)]
            own = [
                part for part in methods if not part.name.endswith(("Event", "__"))
            ]  # what nobody else calls
            if len(own) > 25:
                large.append(f"{node.name}: {len(own)} methods")
            for part in methods:
                lines = (part.end_lineno or 0) - part.lineno + 1
                if part.name == "__init__" and lines > 60:
                    large.append(f"{node.name}: a constructor of {lines} lines")
    assert not large


def test_no_file_is_two_files() -> None:
    long = [str(file) for file in SRC.rglob("*.py") if len(file.read_text("utf-8").splitlines()) > 600]
    assert not long


def test_a_mod_is_changed_and_written_in_one_place_only() -> None:
    callers: dict[str, set[str]] = {"save_project": set(), "session.push": set()}
    for file in (SRC / "furnel").rglob("*.py"):
        for node in ast.walk(tree(file)):
            if isinstance(node, ast.Call):
                name = ast.unparse(node.func).removeprefix("self._").removeprefix("project.")
                if name in callers:
                    callers[name].add(file.relative_to(SRC / "furnel").as_posix())
    assert callers["save_project"] == {"mods/store.py", "mods/workspace.py"}  # the latter begins a mod
    assert callers["session.push"] == {"desktop/modfile.py"}
