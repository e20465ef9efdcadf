"""How numbers and counted things are written, everywhere alike."""

from __future__ import annotations

from collections.abc import Sequence
from difflib import get_close_matches


def number(value: int) -> str:
    """A whole number with thin spaces between thousands."""
    return f"{value:,}".replace(",", "\u2009")


def count(value: int, one: str, many: str = "") -> str:
    """A number of things: `1 swap`, `12 swaps`; `many` where the plural is not the singular with an s."""
    return f"{number(value)} {one if value == 1 else many or one + 's'}"


_BLANKS = "\n\t\u2009\u00a0\u202f\u3000"  # line ends, tabs, and blanks of other widths


def plain(text: str) -> str:
    """A text without control characters (line ends and tabs aside): what a terminal or a log would take for commands."""
    return "".join(sign if sign.isprintable() or sign in _BLANKS else f"\\x{ord(sign):02x}" for sign in text)


def one_line(text: str, most: int = 120) -> str:
    """What a stranger wrote as one line without signs that nobody sees or that turn the text around."""
    kept = "".join(sign for sign in " ".join(text.split()) if sign.isprintable())
    return kept if len(kept) <= most else f"{kept[: most - 1]}…"


def ended(text: str) -> str:
    """A text as a sentence: with a full stop, unless it ends with something of the kind."""
    return text if not text or text.endswith((".", "!", "?", "…", ":")) else f"{text}."


def near(wanted: str, known: Sequence[str]) -> str:
    """The names that come nearest, as the end of a sentence; nothing when none is like it."""
    found = get_close_matches(wanted, list(dict.fromkeys(known)), 3, 0.5)
    return f"The nearest: {', '.join(found)}" if found else ""
