"""Previews as the window draws them: fetched in the background, newest wishes first, a bounded number kept."""

from __future__ import annotations

from collections import OrderedDict
from dataclasses import dataclass

import numpy as np
from PyQt6.QtCore import QObject, QRectF, QSizeF, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QImage, QPainter

from furnel.catalogue import Asset, Catalogue, preview
from furnel.desktop.imaging import paint_checks, to_image
from furnel.desktop.jobs import JobRunner
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.media import Preview, preview_of
from furnel.sound import Samples

_KEPT = 1500
_BATCH = 12
_PAINTED = 32_000_000  # bytes of tiles that are kept as they were painted


@dataclass(frozen=True, slots=True)
class Tile:
    """A preview ready to be painted."""

    image: QImage | None = None
    clear: bool = False
    waveform: Samples | None = None
    text: str = ""
    fault: str = ""


def tile_of(made: Preview) -> Tile:
    """A preview with its picture as Qt's."""
    if made.picture is not None:
        return Tile(image=to_image(made.picture), clear=bool((made.picture.pixels[..., 3] < 250).any()))
    return Tile(waveform=made.waveform, text=made.text, fault=made.fault)


def data_tile(data: bytes, kind: str, path: str) -> Tile:
    """A tile of some bytes, for results."""
    return tile_of(preview_of(data, kind, path))  # type: ignore[arg-type]


class TileStore(QObject):
    """Tiles by inner path. `get` answers at once, with None for what `ready` will tell of later."""

    ready = pyqtSignal()

    def __init__(self, jobs: JobRunner) -> None:
        super().__init__()
        self._jobs = jobs
        self._catalogue: Catalogue | None = None
        self._kept: OrderedDict[str, Tile] = OrderedDict()
        self._wanted: OrderedDict[str, Asset] = OrderedDict()
        self._busy = False
        self._generation = 0

    def open(self, catalogue: Catalogue | None) -> None:
        """Serve another game's tiles."""
        self._catalogue = catalogue
        self._kept.clear()
        self._wanted.clear()
        self._generation += 1
        self._busy = False

    def get(self, asset: Asset) -> Tile | None:
        """The tile, if it is here; otherwise it is fetched, before older wishes."""
        tile = self._kept.get(asset.path)
        if tile is not None:
            self._kept.move_to_end(asset.path)
            return tile
        self._wanted[asset.path] = asset
        self._wanted.move_to_end(asset.path)
        while len(self._wanted) > 400:
            self._wanted.popitem(last=False)
        self._fetch()
        return None

    @property
    def waiting(self) -> int:
        """How many tiles are still to come."""
        return len(self._wanted) + (1 if self._busy else 0)

    def _fetch(self) -> None:
        if self._busy or not self._wanted or self._catalogue is None:
            return
        self._busy = True
        catalogue, generation = self._catalogue, self._generation
        batch = [self._wanted.popitem()[1] for _ in range(min(_BATCH, len(self._wanted)))]

        def work(_: object) -> list[tuple[str, Tile]]:
            return [(asset.path, tile_of(preview(catalogue, asset))) for asset in batch]

        def done(found: list[tuple[str, Tile]]) -> None:
            if generation != self._generation:
                return
            self._kept.update(found)
            while len(self._kept) > _KEPT:
                self._kept.popitem(last=False)
            self._busy = False
            self.ready.emit()
            self._fetch()

        self._jobs.start("Previews", work, done, lambda _: None, lane="preview", shown=False)


def paint_waveform(
    painter: QPainter, rect: QRectF, waveform: Samples, colour: QColor, peak: float = 0.0
) -> None:
    """A waveform's lows and highs as one shape around the middle line; `peak` fills the height (0: its own).

    Every pixel takes as much of the colour as the shape covers of it.
    """
    device = painter.device()
    ratio = device.devicePixelRatioF() if device is not None else 1.0
    wide, high = max(round(rect.width() * ratio), 1), max(round(rect.height() * ratio), 1)
    peak = peak or max(float(np.abs(waveform).max()), 0.05)
    lows, highs = _spread(waveform, wide)
    tops = (high / 2) * (1 - highs / peak) - 0.4 * ratio
    bottoms = (high / 2) * (1 - lows / peak) + 0.4 * ratio
    rows = np.arange(high, dtype=np.float32)[:, None]
    covered = np.clip(np.minimum(bottoms, rows + 1) - np.maximum(tops, rows), 0, 1) * colour.alphaF()
    inks = np.array([colour.blue(), colour.green(), colour.red(), 255], np.float32)
    pixels = np.ascontiguousarray((covered[..., None] * inks + 0.5).astype(np.uint8))
    image = QImage(pixels.data, wide, high, 4 * wide, QImage.Format.Format_ARGB32_Premultiplied)  # type: ignore[call-overload]
    image.setDevicePixelRatio(ratio)
    painter.drawImage(rect.topLeft(), image)


def _spread(waveform: Samples, wide: int) -> Samples:
    """Lows and highs for so many columns: the farthest of those that share one; between two where there are fewer."""
    count = waveform.shape[1]
    if count > wide:
        starts = np.arange(wide) * count // wide
        return np.stack([np.minimum.reduceat(waveform[0], starts), np.maximum.reduceat(waveform[1], starts)])
    places, at = (np.arange(wide) + 0.5) / wide * count - 0.5, np.arange(count)
    return np.stack([np.interp(places, at, side) for side in waveform]).astype(np.float32)


def paint_tile(
    painter: QPainter, look: Look, rect: QRectF, tile: Tile | None, yours: bool = False, crop: bool = False
) -> None:
    """A tile in a box: the picture at its true proportions, the waveform, the first lines, or why there is nothing.

    With `crop` a strip much wider than the box shows its beginning only, so that it can be made out. A tile is painted once
    for a size and a theme, and then only laid down.
    """
    if tile is None:
        painter.fillRect(rect, look.colour("raised"))
        return
    device = painter.device()
    ratio = device.devicePixelRatioF() if device is not None else 1.0
    painter.drawImage(rect.topLeft().toPoint(), _painted.of(look, rect.size(), ratio, tile, yours, crop))


class _Painted:
    """Tiles as they were painted, the latest used ones up to a size."""

    def __init__(self) -> None:
        self._kept: OrderedDict[tuple[object, ...], tuple[Tile, QImage]] = OrderedDict()
        self._bytes = 0

    def of(self, look: Look, size: QSizeF, ratio: float, tile: Tile, yours: bool, crop: bool) -> QImage:
        """The tile at a size on a screen of so many device pixels a pixel."""
        width, height = round(size.width()), round(size.height())
        key = (id(tile), look.theme, width, height, ratio, yours, crop)
        known = self._kept.get(key)
        if known is not None:  # it holds its tile, so that the tile's id is its own
            self._kept.move_to_end(key)
            return known[1]
        image = QImage(round(width * ratio), round(height * ratio), QImage.Format.Format_ARGB32_Premultiplied)
        image.setDevicePixelRatio(ratio)
        image.fill(0)
        painter = QPainter(image)
        _paint(painter, look, QRectF(0, 0, width, height), tile, yours, crop)
        painter.end()
        self._kept[key] = tile, image
        self._bytes += image.sizeInBytes()
        while self._bytes > _PAINTED and len(self._kept) > 1:
            self._bytes -= self._kept.popitem(last=False)[1][1].sizeInBytes()
        return image


_painted = _Painted()


def _paint(painter: QPainter, look: Look, rect: QRectF, tile: Tile, yours: bool, crop: bool) -> None:
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    if tile.fault:
        painter.fillRect(rect, look.colour("raised"))
        painter.setFont(font(10))
        painter.setPen(look.colour("faint"))
        flags = Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap
        painter.drawText(rect.adjusted(4, 4, -4, -4), flags, tr(tile.fault))
    elif tile.image is not None:
        source = QRectF(tile.image.rect())
        if crop and source.width() / source.height() > 2.4 * rect.width() / rect.height():
            source.setWidth(source.height() * rect.width() / rect.height() * 1.4)
        scale = min(rect.width() / source.width(), rect.height() / source.height())
        width, height = source.width() * scale, source.height() * scale
        box = QRectF(rect.center().x() - width / 2, rect.center().y() - height / 2, width, height)
        if tile.clear:
            paint_checks(painter, box, look.colour("stage"), look.colour("stage-dark"), 6)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, scale < 1.5)
        painter.drawImage(box, tile.image, source)
    elif tile.waveform is not None:
        painter.fillRect(rect, look.colour("panel"))
        paint_waveform(
            painter, rect.adjusted(3, 6, -3, -6), tile.waveform, look.colour("ember" if yours else "tarn")
        )
    else:
        painter.fillRect(rect, look.colour("panel"))
        painter.setFont(font(9))
        painter.setPen(look.colour("quiet"))
        painter.setClipRect(rect)
        painter.drawText(
            rect.adjusted(6, 5, -4, -4), Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop, tile.text
        )
    painter.restore()
