"""Games that jobs still read from, though another one is open by now: closed when the last of them ends."""

from __future__ import annotations

import threading
from collections.abc import Callable
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from furnel.catalogue import Catalogue


class Held:
    """The catalogues that are in use, and those that are open no more."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._used: list[Catalogue] = []
        self._left: list[Catalogue] = []

    def hold(self, catalogue: Catalogue) -> Callable[[], None]:
        """Keep a game's files open for a job; what lets go of them."""
        with self._lock:
            self._used.append(catalogue)

        def let_go() -> None:
            with self._lock:
                self._used.remove(catalogue)
            self._close()

        return let_go

    def leave(self, catalogue: Catalogue) -> None:
        """Close a game's files, now or when no job reads from them any more."""
        with self._lock:
            self._left.append(catalogue)
        self._close()

    def _close(self) -> None:
        with self._lock:
            ended = [one for one in self._left if one not in self._used]
            self._left = [one for one in self._left if one in self._used]
        for one in ended:
            one.close()
