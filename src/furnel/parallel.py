"""Spreading work over the machine's cores: items of a list, rows of a kernel."""

from __future__ import annotations

import os
import threading
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor, as_completed
from functools import lru_cache
from importlib import import_module
from typing import TypeVar

from furnel.progress import QUIET, Progress, check

Item = TypeVar("Item")
Made = TypeVar("Made")


@lru_cache(maxsize=1)
def cores() -> int:
    """How many cores this process may use."""
    return len(os.sched_getaffinity(0))


_importing = threading.Lock()


@lru_cache(maxsize=1)
def _imported() -> None:
    for name in ("scipy.ndimage", "scipy.signal", "scipy.interpolate", "scipy.spatial", "scipy.fft"):
        import_module(name)


def get_ready() -> None:
    """Import what workers need, once, before several of them do it at the same time: SciPy cannot be imported so."""
    with _importing:
        _imported()


def each(
    items: Sequence[Item],
    work: Callable[[Item, Progress], Made],
    progress: Progress = QUIET,
    what: str = "Working",
    name: Callable[[Item], str] | None = None,
) -> list[Made]:
    """What `work(item, progress)` gives for every item, in their order, worked out on all cores.

    `name` tells what is said of an item in the progress. The first error is raised here, at once: what has not begun never
    does then, and what runs sees its progress cancelled. Raises Cancelled when the caller asked to stop.
    """
    check(progress, what)
    if not items:
        return []
    get_ready()
    stop = _Stop(progress)
    out: dict[int, Made] = {}

    def one(item: Item) -> Made:
        check(stop, what)
        try:
            return work(item, stop)
        except BaseException as error:
            stop.because(error)
            raise

    with ThreadPoolExecutor(max_workers=min(cores(), len(items)), thread_name_prefix="furnel-each") as pool:
        futures = {pool.submit(one, item): number for number, item in enumerate(items)}
        try:
            for future in as_completed(futures):
                number = futures[future]
                out[number] = future.result()
                text = f"{what} {name(items[number])}" if name is not None else what
                progress.report(len(out) / len(items), text)
                check(progress, what)
        except BaseException as error:
            first = stop.because(error)
            pool.shutdown(wait=True, cancel_futures=True)
            raise first from None
    return [out[number] for number in range(len(items))]


class _Stop:
    """Passes on that the whole was cancelled, or that another item failed, to items that report to nobody."""

    def __init__(self, whole: Progress) -> None:
        self._whole = whole
        self._first: list[BaseException] = []

    def because(self, error: BaseException) -> BaseException:
        """Stop for this error, or for the one that came before it; returns which."""
        self._first.append(error)
        return self._first[0]

    def report(self, fraction: float, text: str) -> None:
        pass

    def cancelled(self) -> bool:
        return bool(self._first) or self._whole.cancelled()


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
