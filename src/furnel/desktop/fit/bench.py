"""What a bench is: the middle of the Fit station for a kind of asset. Each has a file and a line in `benches.BENCHES`."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, ClassVar

from PyQt6.QtCore import QPointF, pyqtSignal
from PyQt6.QtGui import QImage
from PyQt6.QtWidgets import QWidget

from furnel.catalogue import Catalogue
from furnel.desktop.fit.steps import StepsPanel
from furnel.desktop.look import Look
from furnel.desktop.playback import Player
from furnel.desktop.session import Session
from furnel.desktop.tiles import TileStore
from furnel.media import Kind
from furnel.mods.fit import with_encoding
from furnel.mods.project import Swap
from furnel.mods.workspace import Examined, Workspace


@dataclass(frozen=True, slots=True)
class Loading:
    """What a bench's content is made from: both sides' bytes, and all around them.

    `name` is what the result's bytes are called; `results` are the other swaps' results by original.
    """

    original: bytes
    yours: bytes
    name: str
    examined: Examined
    catalogue: Catalogue
    results: Mapping[str, bytes]
    space: Workspace | None = None


class Bench(QWidget):
    """A bench. It shows content that was loaded off the interface thread, and never reads or decodes by itself."""

    previews: ClassVar[bool] = False
    """Whether it shows a quick look at steps while they are changed."""

    takes_frames: ClassVar[bool] = False
    """Whether several files dropped on it are frames of one source."""

    looked = pyqtSignal()
    """The modder looks at another part of it, or from nearer."""

    def show_content(self, content: Any, keep_view: bool) -> None:
        """Show what its record's `load` made; with `keep_view` it is another state of what is shown."""
        raise NotImplementedError

    def show_point(self, key: str) -> bool:
        """Light up where a fit point is not met, if that can be shown; whether it can."""
        return False

    def looking(self) -> list[int]:
        """How near and where it is looked at, to be looked at so again; nothing when it is seen whole."""
        return []

    def look_again(self, view: list[int]) -> None:
        """Look at it as it was looked at when `looking` told so."""

    def show_instead(self, image: QImage) -> None:
        """Show a quick look in place of the result, until the next content comes."""


def view_at(zoom: float, shift: QPointF) -> list[int]:
    """A zoom (0: as large as fits) and how far from the middle it was moved, as `looking` tells of them."""
    return [round(zoom * 1000), round(shift.x()), round(shift.y())] if zoom else []


def zoom_at(view: list[int]) -> tuple[float, QPointF]:
    """What `view_at` told; as large as fits for anything else."""
    return (view[0] / 1000, QPointF(view[1], view[2])) if len(view) == 3 and view[0] > 0 else (0.0, QPointF())


@dataclass(frozen=True)
class Hands:
    """What a bench may use: the swap on it, and the ways to change it and to put another one there."""

    look: Look
    session: Session
    player: Player
    steps: StepsPanel
    current: Callable[[], Swap | None]
    pick: Callable[[str], None]
    tiles: TileStore
    show_asset: Callable[[str], None]

    def open_definition(self, path: str) -> None:
        """Put another definition on the bench."""
        self.session.swaps.open_definition(path, self.pick)

    def choose_asset(self, now: str, pattern: str) -> str:
        """Let an asset be chosen on the wall, of those that match a pattern; nothing when it is called off."""
        from furnel.desktop.find.chooser import choose_asset

        return choose_asset(self.steps, self.look, self.session, self.tiles, now, pattern)

    def change(self, swap: Swap, text: str) -> None:
        """Take a changed swap; the first steps bring an encoding like the original's with them."""
        examined = self.session.examined.get(swap.original)
        if examined is not None and examined.original is not None:
            swap = with_encoding(swap, examined.original)
        self.session.swaps.set_swap(swap, text)


def _nothing_beside(space: Workspace, original: str) -> tuple[str, ...]:
    return ()


@dataclass(frozen=True, slots=True)
class BenchType:
    """A bench's record: the kinds of assets that it is for, how it is made, and what loads its content in a worker.

    `load` raises FurnelError for damage. `beside` names the other swaps that it shows together with one.
    """

    kinds: tuple[Kind, ...]
    make: Callable[[Hands], Bench]
    load: Callable[[Loading], object]
    beside: Callable[[Workspace, str], tuple[str, ...]] = _nothing_beside
