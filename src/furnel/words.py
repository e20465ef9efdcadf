"""How numbers are written, everywhere alike."""

from __future__ import annotations


def number(value: int) -> str:
    """A whole number with thin spaces between thousands."""
    return f"{value:,}".replace(",", "\u2009")
