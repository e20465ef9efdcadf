"""Quick looks: what steps give, on small copies of source and original, while they are being changed."""

from __future__ import annotations

from threading import Lock

from PyQt6.QtGui import QImage

from furnel.desktop.imaging import to_image
from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.media import PICTURE, medium_of
from furnel.mods.project import Swap
from furnel.mods.render import Surroundings, apply_steps, read_source, reduced
from furnel.mods.steps import Around
from furnel.mods.workspace import Workspace

_SIDE = 512  # pixels: about what the stage shows


class QuickLook:
    """Keeps the small copies of the swap that is being worked on."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._of: tuple[object, ...] = ()
        self._source: Picture | None = None
        self._original: Picture | None = None
        self._scale = 1.0

    def look(self, space: Workspace, swap: Swap) -> QImage | None:
        """What the swap's steps give, small; None when that cannot be shown."""
        with self._lock:
            try:
                self._open(space, swap)
                if self._source is None:
                    return None
                around = Around(self._original, Surroundings(folder=space.folder).open_file)
                done = apply_steps(self._source, swap.steps, around=around, scale=self._scale)
            except FurnelError:
                return None
            picture = done[-1] if done else self._source
            return to_image(picture) if isinstance(picture, Picture) else None

    def _open(self, space: Workspace, swap: Swap) -> None:
        path = space.source_path(swap)
        stamp = path.stat().st_mtime_ns if path.exists() else 0
        if self._of == (swap.original, path, stamp):
            return
        asset = space.catalogue.get(swap.base)
        whole = PICTURE.opened(space.catalogue.read(asset), swap.original)
        data = read_source(path)
        media = medium_of(data, path).opened(data, path)
        self._scale = min(_SIDE / max(whole.size), 1.0)
        self._original = reduced(whole, self._scale)
        self._source = reduced(media, self._scale) if isinstance(media, Picture) else None
        self._of = (swap.original, path, stamp)
