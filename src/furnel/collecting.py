"""The collector of cycles made to wait where very many objects are made and none of them is in a cycle."""

from __future__ import annotations

import gc
import threading
from collections.abc import Iterator
from contextlib import contextmanager

_lock = threading.Lock()
_waiting, _was_on = 0, True


@contextmanager
def uncollected() -> Iterator[None]:
    """Objects made in the block are not looked through for cycles until it ends; such blocks may lie in each other."""
    global _waiting, _was_on
    with _lock:
        if not _waiting:
            _was_on = gc.isenabled()
            gc.disable()
        _waiting += 1
    try:
        yield
    finally:
        with _lock:
            _waiting -= 1
            if not _waiting and _was_on:
                gc.enable()
