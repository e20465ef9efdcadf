"""How long work tells its caller where it stands, and learns that it should stop."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import Protocol, TypeVar

from furnel.errors import Cancelled

Item = TypeVar("Item")


class Progress(Protocol):
    """What long work reports to: a bar in a terminal, the job line of the window, or nobody."""

    def report(self, fraction: float, text: str) -> None:
        """Say that `fraction` (0 to 1) is done, and what is being done now."""

    def cancelled(self) -> bool:
        """Whether the work should stop at its next safe point."""


class Quiet:
    """A progress that nobody watches and nobody cancels."""

    def report(self, fraction: float, text: str) -> None:
        pass

    def cancelled(self) -> bool:
        return False


class Part:
    """The share of a larger job's progress between two fractions."""

    def __init__(self, whole: Progress, start: float, end: float) -> None:
        self._whole, self._start, self._end = whole, start, end

    def report(self, fraction: float, text: str) -> None:
        self._whole.report(self._start + (self._end - self._start) * fraction, text)

    def cancelled(self) -> bool:
        return self._whole.cancelled()


QUIET: Progress = Quiet()


def check(progress: Progress, what: str) -> None:
    """Raise `Cancelled` when the caller asked to stop."""
    if progress.cancelled():
        raise Cancelled(what)


def steps(items: Iterable[Item], count: int, progress: Progress, what: str) -> Iterator[Item]:
    """Yield `items`, reporting after each and stopping with `Cancelled` when asked to."""
    for done, item in enumerate(items):
        check(progress, what)
        progress.report(done / max(count, 1), what)
        yield item
    progress.report(1.0, what)
