"""Spreading a kernel over the machine's cores by rows of work."""

from __future__ import annotations

import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from functools import lru_cache

from furnel.progress import QUIET, Progress, check


@lru_cache(maxsize=1)
def cores() -> int:
    """How many cores this process may use."""
    return len(os.sched_getaffinity(0))


@lru_cache(maxsize=1)
def _pool() -> ThreadPoolExecutor:
    return ThreadPoolExecutor(max_workers=cores(), thread_name_prefix="furnel-rows")


def over_rows(
    work: Callable[[int, int], object],
    rows: int,
    least: int = 8,
    progress: Progress = QUIET,
    what: str = "Working",
) -> None:
    """Call `work(first, end)` for spans that cover `range(rows)`, on all cores when there is enough of it.

    `work` must release the interpreter lock (a Numba kernel with `nogil`); an error in a span is raised here. A
    `progress` that is watched gets finer spans; when it is cancelled no further span begins and `Cancelled` is raised.
    """
    spans = min(cores() * 4 if progress is QUIET else 64, rows // max(least, 1))
    if spans <= 1:
        check(progress, what)
        work(0, rows)
        return
    bounds = [rows * index // spans for index in range(spans + 1)]

    def span(index: int) -> None:
        if not progress.cancelled():
            work(bounds[index], bounds[index + 1])

    for done, future in enumerate([_pool().submit(span, index) for index in range(spans)]):
        future.result()
        if progress is not QUIET:
            progress.report((done + 1) / spans, what)
    check(progress, what)
