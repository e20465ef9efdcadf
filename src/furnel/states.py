"""How things stand, everywhere alike: three states, how urgent they are, their words and their marks."""

from __future__ import annotations

from typing import Literal

State = Literal["fits", "differs", "breaks"]
STATES: tuple[State, ...] = ("fits", "differs", "breaks")
"""From the best to the worst."""
WAITING = "waiting"
"""What is not looked at yet."""
WORDS = {
    "fits": "fits",
    "differs": "differs: allowed, worth a look",
    "breaks": "breaks in the game",
    WAITING: "being looked at",
}
MARKS = {"fits": "✓", "differs": "▲", "breaks": "✕"}
_URGENT = ("breaks", "differs", WAITING, "fits")


def urgency(state: str) -> int:
    """The place of a state in lists: what has to be looked at first is 0."""
    return _URGENT.index(state)
