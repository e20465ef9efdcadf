"""Telling files and folders apart by what is in them."""

from __future__ import annotations

import hashlib
from pathlib import Path


def file_digest(file: Path) -> str:
    """The SHA-256 of a file's bytes, in hexadecimal."""
    with file.open("rb") as stream:
        return hashlib.file_digest(stream, "sha256").hexdigest()


def tree_digest(folder: Path) -> str:
    """One SHA-256 over every path and every byte below a folder; empty when there is no such folder."""
    if not folder.is_dir():
        return ""
    whole = hashlib.sha256()
    for file in sorted(folder.rglob("*")):
        if file.is_file():
            whole.update(f"{file.relative_to(folder).as_posix()}\0{file_digest(file)}\n".encode())
    return whole.hexdigest()
