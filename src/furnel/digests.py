"""Telling files and folders apart by what is in them."""

from __future__ import annotations

import hashlib
from functools import cache
from pathlib import Path


def file_digest(file: Path) -> str:
    """The SHA-256 of a file's bytes, in hexadecimal."""
    with file.open("rb") as stream:
        return hashlib.file_digest(stream, "sha256").hexdigest()


@cache
def code_mark(*parts: str) -> str:
    """A mark of some of Furnel's own modules and packages (`"mods/fit"`), another one when anything in their sources is.

    What is kept on disk is kept under the mark of the code that worked it out: what older code made is never believed.
    """
    home, whole = Path(__file__).parent, hashlib.sha256()
    for part in parts:
        place = home / part
        files = sorted(place.rglob("*.py")) if place.is_dir() else [place.with_suffix(".py")]
        for file in files:
            whole.update(file.read_bytes())
    return whole.hexdigest()[:16]


def file_digests(folder: Path) -> dict[str, str]:
    """The SHA-256 of every file below a folder, by its path there."""
    files = (file for file in sorted(folder.rglob("*")) if file.is_file())
    return {file.relative_to(folder).as_posix(): file_digest(file) for file in files}


def tree_digest(folder: Path) -> str:
    """One SHA-256 over every path and every byte below a folder; empty when there is no such folder."""
    if not folder.is_dir():
        return ""
    whole = hashlib.sha256()
    for path, digest in file_digests(folder).items():
        whole.update(f"{path}\0{digest}\n".encode())
    return whole.hexdigest()
