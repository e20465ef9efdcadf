"""Spreading a kernel over the machine's cores by rows of work."""

from __future__ import annotations

import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from functools import lru_cache


@lru_cache(maxsize=1)
def cores() -> int:
    """How many cores this process may use."""
    return len(os.sched_getaffinity(0))


@lru_cache(maxsize=1)
def _pool() -> ThreadPoolExecutor:
    return ThreadPoolExecutor(max_workers=cores(), thread_name_prefix="furnel-rows")


def over_rows(work: Callable[[int, int], object], rows: int, least: int = 8) -> None:
    """Call `work(first, end)` for spans that cover `range(rows)`, on all cores when there is enough of it.

    `work` must release the interpreter lock (a Numba kernel with `nogil`); an error in a span is raised here.
    """
    spans = min(cores() * 4, rows // max(least, 1))
    if spans <= 1 or cores() == 1:
        work(0, rows)
        return
    bounds = [rows * index // spans for index in range(spans + 1)]
    futures = [_pool().submit(work, bounds[index], bounds[index + 1]) for index in range(spans)]
    for future in futures:
        future.result()
