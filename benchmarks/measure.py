"""Timing and tables."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable, Sequence


def seconds(work: Callable[[], object], runs: int = 5) -> float:
    """The median of several runs, after one that does not count."""
    work()
    times = []
    for _ in range(runs):
        started = time.perf_counter()
        work()
        times.append(time.perf_counter() - started)
    return statistics.median(times)


def table(title: str, head: Sequence[str], rows: Sequence[Sequence[object]]) -> None:
    """Print rows under a title."""
    texts = [
        list(map(str, head)),
        *([cell if isinstance(cell, str) else f"{cell:.3g}" for cell in row] for row in rows),
    ]
    widths = [max(len(row[column]) for row in texts) for column in range(len(head))]
    print(f"\n{title}")
    for row in texts:
        print("  " + "  ".join(cell.ljust(width) for cell, width in zip(row, widths, strict=True)).rstrip())
