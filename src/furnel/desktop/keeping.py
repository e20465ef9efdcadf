"""How a view was left: its widths, its open trays, its zooms and orders, kept as soon as they are changed."""

from __future__ import annotations

import threading

from furnel.remembered import recall, remember

Kept = list[int] | list[str]
_saving = threading.Lock()


def kept_numbers(name: str) -> list[int]:
    """Whole numbers that were kept by a name; none when there are none, or other things."""
    told = _kept(name)
    return told if isinstance(told, list) and all(type(part) is int for part in told) else []


def kept_texts(name: str) -> list[str]:
    """Texts that were kept by a name; none when there are none, or other things."""
    told = _kept(name)
    return told if isinstance(told, list) and all(type(part) is str for part in told) else []


def keep(name: str, what: Kept) -> None:
    """Keep something by a name, without waiting for the disk."""
    threading.Thread(target=_keep, args=(name, what), name="furnel-panes").start()


def _kept(name: str) -> object:
    known = recall("panes")
    return known.get(name) if isinstance(known, dict) else None


def _keep(name: str, what: Kept) -> None:
    with _saving:
        known = recall("panes")
        remember("panes", {**(known if isinstance(known, dict) else {}), name: what})
