"""Sizes and lengths as they are typed and told: `300`, `12 kB`, `1.5 MB`, `250 ms`, `0.5 s`, `1:30`."""

from __future__ import annotations

import re
from typing import Literal

from furnel.desktop.look import byte_size
from furnel.words import number

Unit = Literal["px", "B", "ms"]
_TYPED = re.compile(r"(?:(\d+):)?(\d+(?:[.,]\d+)?|[.,]\d+)\s*([a-z]*)")
_UNITS: dict[Unit, dict[str, float]] = {
    "px": {"": 1, "px": 1, "k": 1024},
    "B": {
        "": 1, "b": 1, "kb": 1e3, "k": 1e3, "mb": 1e6, "m": 1e6, "gb": 1e9, "g": 1e9,
        "kib": 1 << 10, "mib": 1 << 20, "gib": 1 << 30,
    },
    "ms": {"": 1000, "s": 1000, "ms": 1, "min": 60_000, "m": 60_000},
}  # fmt: skip
HINTS: dict[Unit, str] = {"px": "such as 256", "B": "such as 12 kB", "ms": "such as 0.5 s or 1:30"}
_MOST = 1 << 62


def read_amount(text: str, unit: Unit) -> int | None:
    """What was typed, in pixels, bytes or milliseconds (a number alone is in seconds there); None when it is no such thing."""
    small = re.sub(r"[\s\u2009']", "", text.casefold())
    found = _TYPED.fullmatch(small)
    if found is None or (found[1] and (unit != "ms" or found[3])):
        return None
    factor = _UNITS[unit].get(found[3])
    if factor is None:
        return None
    value = float(found[2].replace(",", ".")) * factor + int(found[1] or 0) * 60_000
    return round(value) if value <= _MOST else None


def told_amount(value: int, unit: Unit) -> str:
    """An amount in a few letters."""
    if unit == "px":
        return number(value)
    if unit == "B":
        return byte_size(value)
    return f"{value / 1000:.2g} s" if value < 10_000 else f"{value / 1000:.0f} s"
