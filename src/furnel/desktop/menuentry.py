"""Furnel in the desktop's menu, for a user who installed it without the system's packages; taken off without a trace."""

from __future__ import annotations

import contextlib
import os
import shutil
import subprocess
import sys
from importlib import resources
from pathlib import Path

from furnel.atomic import write_bytes, write_text

ICON_SIZES = (16, 24, 32, 48, 64, 128, 256, 512)  # pixels
_WAIT_S = 20.0


def data_home() -> Path:
    """Where a user's desktop looks for menu entries, icons and kinds of files."""
    return Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local" / "share")


def entry_files() -> dict[str, Path]:
    """The files of the entry by what they are; `icon` is the drawing."""
    home = data_home()
    return {
        "entry": home / "applications" / "furnel.desktop",
        "kinds": home / "mime" / "packages" / "furnel.xml",
        "icon": home / "icons" / "hicolor" / "scalable" / "apps" / "furnel.svg",
        **{
            f"icon {side}": home / "icons" / "hicolor" / f"{side}x{side}" / "apps" / "furnel.png"
            for side in ICON_SIZES
        },
    }


def in_menu() -> bool:
    """Whether this user's menu has Furnel by an entry of its own."""
    return entry_files()["entry"].is_file()


def add_to_menu(program: Path | None = None) -> list[Path]:
    """Write the entry, which starts `program` (this installation's own for None); the files. Raises FurnelError."""
    folder, files = resources.files("furnel.desktop") / "menu", entry_files()
    start = program or Path(sys.executable).with_name("furnel")
    text = (folder / "furnel.desktop").read_text("utf-8")
    write_text(files["entry"], text.replace("Exec=furnel ", f"Exec={_quoted(start)} ") + f"TryExec={start}\n")
    write_text(files["kinds"], (folder / "furnel.xml").read_text("utf-8"))
    write_text(files["icon"], (folder / "furnel.svg").read_text("utf-8"))
    for side in ICON_SIZES:
        write_bytes(files[f"icon {side}"], _drawn(side))
    _tell_the_desktop()
    return list(files.values())


def take_off_menu() -> None:
    """Take the entry and what came with it off."""
    for file in entry_files().values():
        with contextlib.suppress(OSError):
            file.unlink(missing_ok=True)
    _tell_the_desktop()


def _quoted(program: Path) -> str:
    """A path as the specification of desktop entries wants it in Exec."""
    text = str(program)
    for sign in '\\"`$':
        text = text.replace(sign, f"\\{sign}")
    return (
        f'"{text}"'.replace("\\", "\\\\").replace("%", "%%") if text != str(program) or " " in text else text
    )


def _drawn(side: int) -> bytes:
    """The icon as PNG."""
    from PyQt6.QtGui import QIcon

    from furnel.desktop.widgets.dropping import encoded_picture

    icon = QIcon(str(resources.files("furnel.desktop") / "menu" / "furnel.svg"))
    return encoded_picture(icon.pixmap(side, side).toImage())()


def _tell_the_desktop() -> None:
    """Let the desktop look again, where it has programs for that."""
    home = data_home()
    for name, folder in (
        ("update-mime-database", home / "mime"),
        ("update-desktop-database", home / "applications"),
    ):
        if folder.is_dir() and (program := shutil.which(name)) is not None:
            with contextlib.suppress(OSError, subprocess.TimeoutExpired):
                subprocess.run([program, str(folder)], capture_output=True, timeout=_WAIT_S, check=False)
