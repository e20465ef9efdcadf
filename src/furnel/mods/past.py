"""What can be taken back and done again: changes in their order, of whatever."""

from __future__ import annotations

from typing import Generic, Protocol, TypeVar

_MOST = 200


class Named(Protocol):
    """A change that can be named."""

    @property
    def text(self) -> str:
        """What was done, in a few words."""


Change = TypeVar("Change", bound=Named)


class Past(Generic[Change]):
    """Changes in their order, and how many of them are in force; the oldest are forgotten."""

    def __init__(self, most: int = _MOST) -> None:
        self.changes: list[Change] = []
        self.place = 0
        self._most = most

    def push(self, change: Change) -> None:
        """Note a new change; what had been taken back cannot be done again then."""
        del self.changes[self.place :]
        self.changes.append(change)
        del self.changes[: -self._most]
        self.place = len(self.changes)

    @property
    def last(self) -> Change | None:
        """What would be taken back."""
        return self.changes[self.place - 1] if self.place else None

    @property
    def next(self) -> Change | None:
        """What would be done again."""
        return self.changes[self.place] if self.place < len(self.changes) else None

    def back(self) -> Change | None:
        """Take the last change back; it, or None when there is none."""
        change = self.last
        self.place -= change is not None
        return change

    def forward(self) -> Change | None:
        """Do again what was taken back; it, or None when there is nothing."""
        change = self.next
        self.place += change is not None
        return change

    def between(self, place: int) -> list[Change]:
        """What lies between now and a place, in the order in which it has to be taken back or done again to get there."""
        if place < self.place:
            return self.changes[place : self.place][::-1]
        return self.changes[self.place : place]

    def clear(self) -> None:
        """Forget everything."""
        self.changes.clear()
        self.place = 0
