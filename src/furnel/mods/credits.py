"""Whose sources are, remembered by what is in the files: a picture that was credited once is credited wherever it is used."""

from __future__ import annotations

from collections.abc import Iterable
from pathlib import Path

from furnel.digests import file_digest
from furnel.remembered import recall, remember

_MOST = 20_000


def known_credit(source: Path) -> str:
    """Whose a file is, as it was said of the same bytes before; empty when nobody did."""
    told = _read()
    try:
        return told.get(file_digest(source), "") if told else ""
    except OSError:
        return ""


def remember_credits(sources: Iterable[tuple[Path, str]]) -> None:
    """Keep whose some files are; a file without credit is forgotten."""
    told = _read()
    for source, credit in sources:
        try:
            digest = file_digest(source)
        except OSError:
            continue
        told.pop(digest, None)
        if credit:
            told[digest] = credit
    remember("credits", dict(list(told.items())[-_MOST:]))


def _read() -> dict[str, str]:
    told = recall("credits")
    return {str(digest): str(credit) for digest, credit in told.items()} if isinstance(told, dict) else {}
