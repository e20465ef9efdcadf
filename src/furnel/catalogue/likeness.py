"""Likeness: assets ranked by how much they look or sound like something."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from furnel.catalogue.marks import CELLS, PATCHES, Floats, Patches, patches_of
from furnel.images.picture import Picture
from furnel.parallel import over_rows

Rows = npt.NDArray[np.int64]

_QUERY_SIZES = tuple(side / 56 for side in (20, 28, 40, 56, 79))
_QUERY_PATCHES = 420
_WORST = 44  # signs of 128 that may differ
_LEAST = 16  # pictures that are worth a core
_USUAL, _FEWEST = 12, 12  # a patch that one in so many pictures has tells nothing
_LOOKED_INTO = 2500
_PIECE = 2048
_HUE_BINS = np.linspace(-1.5, 1.5, 9, dtype=np.float32)


@dataclass(frozen=True, eq=False)
class PictureTable:
    """The marks of many pictures: `rows` of the shelf, wholes (n, 8, 8, 4), `counts` of patches (n, 64, 2) at (n, 64, 3)."""

    rows: Rows
    wholes: npt.NDArray[np.uint8]
    signs: npt.NDArray[np.uint64]
    spots: Floats
    counts: Rows

    def __len__(self) -> int:
        return len(self.rows)

    @cached_property
    def hues(self) -> Floats:
        """(n, 81) rows of length 1: which hues there are."""
        return self._rows(
            lambda wholes: _hues(wholes.reshape(len(wholes), -1, 4).astype(np.float32)), len(_HUE_BINS) ** 2
        )

    @cached_property
    def shapes(self) -> Floats:
        """(n, 192) rows of length 1: brightness by channel and cell, without each channel's mean."""

        def shape(wholes: npt.NDArray[np.uint8]) -> Floats:
            alpha = np.asarray(wholes[..., 3].reshape(len(wholes), -1), np.float32) / np.float32(255)
            colour = np.log(wholes[..., :3].astype(np.float32) / 255 + 0.05).reshape(len(wholes), -1, 3)
            return _normal(colour, alpha)

        return self._rows(shape, CELLS * CELLS * 3)

    def _rows(self, work: Callable[[npt.NDArray[np.uint8]], Floats], width: int) -> Floats:
        """Something of every whole, a few thousand at a time so that memory stays small."""
        out = np.zeros((len(self), width), np.float32)
        for start in range(0, len(self), _PIECE):
            out[start : start + _PIECE] = work(self.wholes[start : start + _PIECE])
        return out


@dataclass(frozen=True, slots=True, eq=False)
class SoundTable:
    """The marks of many sounds: `rows` of the shelf and (n, 29) numbers."""

    rows: Rows
    marks: Floats


@dataclass(frozen=True, slots=True, eq=False)
class Ranking:
    """Rows of the shelf, the most alike first, with scores from 1 (as alike as can be) down."""

    rows: Rows
    scores: Floats


def like_colour(table: PictureTable, colour: tuple[int, int, int]) -> Ranking:
    """Pictures by how much of them is near a colour (sRGB), and how near."""
    wanted = _opponent(np.array(colour, np.float32))
    scores = np.zeros(len(table), np.float32)
    for start in range(0, len(table), _PIECE):
        cells = table.wholes[start : start + _PIECE].reshape(-1, CELLS * CELLS, 4).astype(np.float32)
        apart = ((_opponent(cells[..., :3]) - wanted) ** 2).sum(-1)
        near = np.exp(apart / np.float32(-(26**2))) * cells[..., 3] / 255
        shown = np.maximum(cells[..., 3].sum(-1) / 255, 1)
        scores[start : start + _PIECE] = near.sum(-1) / np.sqrt(shown * CELLS**2)
    return _ranked(table.rows, scores)


def like_picture(table: PictureTable, picture: Picture) -> Ranking:
    """Pictures by likeness to one: the same at another size or tint, one that it shows a part of, or one that is seen in it."""
    if not len(table):
        return Ranking(table.rows, np.zeros(0, np.float32))
    query = patches_of(picture.pixels, _QUERY_SIZES, _QUERY_PATCHES, 5)
    whole = np.maximum(_whole_scores(table, picture), 0)
    scores = whole + 3 * whole**6 + 2 * _hue_scores(table, picture)
    chosen = np.arange(len(table))
    if len(table) > _LOOKED_INTO:
        chosen = np.argsort(-scores, kind="stable")[:_LOOKED_INTO]
    if len(query):
        size = np.sqrt(np.maximum(table.counts[chosen], 6) + 10).astype(np.float32)
        scores[chosen] += 8 * _patch_scores(table, query, chosen) / size
    return _ranked(table.rows, scores / max(float(scores.max()), 1e-6))


def like_sound(table: SoundTable, marks: Floats) -> Ranking:
    """Sounds by likeness of length, of loudness over time and of spectrum."""
    if not len(table.rows):
        return Ranking(table.rows, np.zeros(0, np.float32))
    weights = np.concatenate([[1.0], np.full(16, 0.35), np.full(12, 0.6)]).astype(np.float32)
    theirs, ours = table.marks.copy(), marks.copy()
    for part in (
        slice(1, 17),
        slice(17, 29),
    ):  # loudness and bands by their shape, with the level weighing less
        level, own = theirs[:, part].mean(1, keepdims=True), ours[part].mean()
        theirs[:, part] -= level * 0.7
        ours[part] -= own * 0.7
    apart = np.sqrt((((theirs - ours) * weights) ** 2).sum(1))
    return _ranked(table.rows, np.exp(-apart / 3))


def _patch_scores(table: PictureTable, query: Patches, chosen: Rows) -> Floats:
    """How many of the query's patches agree on where a picture is in it.

    A patch counts by how much nearer a picture has it than most others have (as in S. McCann, D. Lowe, "Local naive Bayes
    nearest neighbor for image classification", CVPR 2012).
    """
    from furnel.catalogue import votes

    apart = np.full((len(chosen), len(query)), 255, np.uint8)
    which = np.zeros_like(apart)
    scores = np.zeros(len(chosen), np.float32)

    def look(first: int, last: int) -> None:
        votes.nearest(query.signs, table.signs, table.counts, chosen, first, last, apart, which)

    over_rows(look, len(chosen), _LEAST)
    place = min(max(len(chosen) // _USUAL, _FEWEST), len(chosen) - 1)
    usual = np.partition(apart, place, axis=0)[place].astype(np.float32)
    weights = np.maximum(np.minimum(usual, _WORST) - apart, 0).astype(np.float32) / _WORST

    def count(first: int, last: int) -> None:
        votes.vote(weights, which, query.places, table.spots, chosen, first, last, scores)

    over_rows(count, len(chosen), _LEAST)
    return scores


def _whole_scores(table: PictureTable, picture: Picture) -> Floats:
    """Coarse likeness of brightness and colour, of the whole to the whole and to windows of the query: -1 to 1."""
    from PIL import Image

    image = Image.fromarray(picture.pixels)
    width, height = image.size
    windows = []
    for size in (1.0, 0.7, 0.45):
        steps = {1.0: 1, 0.7: 3, 0.45: 4}[size]
        for x in np.linspace(0, width * (1 - size), steps):
            for y in np.linspace(0, height * (1 - size), steps):
                box = (x, y, x + width * size, y + height * size)
                small = image.resize((CELLS, CELLS), Image.Resampling.BOX, box)
                windows.append(np.asarray(small, np.float32)[..., :3])
    views = _normal(np.log(np.stack(windows) / 255 + 0.05).reshape(len(windows), -1, 3), None)
    return np.asarray((table.shapes @ views.T).max(1), np.float32)


def _hue_scores(table: PictureTable, picture: Picture) -> Floats:
    """How much of the same hues there is, softly, so that a tint does not change much: 0 to 1."""
    from PIL import Image

    small = Image.fromarray(picture.pixels).resize((16, 16), Image.Resampling.BOX)
    query = _hues(np.asarray(small, np.float32).reshape(1, -1, 4))
    return np.asarray(table.hues @ query[0], np.float32)


def _hues(cells: Floats) -> Floats:
    """(n, cells, 4) as (n, bins) rows of length 1: soft counts over the logarithms of red to green and blue to green."""
    colour = np.log(cells[..., :3] / 255 + 0.06)
    first, second = colour[..., 0] - colour[..., 1], colour[..., 2] - colour[..., 1]
    reach = 0.35
    across = np.exp(-(((first[..., None] - _HUE_BINS) / reach) ** 2))
    down = np.exp(-(((second[..., None] - _HUE_BINS) / reach) ** 2))
    counts = np.einsum("nca,ncb,nc->nab", across, down, cells[..., 3] / 255, optimize=True).reshape(
        len(cells), -1
    )
    return np.asarray(counts / (np.linalg.norm(counts, axis=1, keepdims=True) + 1e-6), np.float32)


def _normal(cells: Floats, weights: Floats | None) -> Floats:
    """(n, cells, 3) without each channel's mean, as rows of length 1; cells that do not show count as nothing."""
    shown = np.ones(cells.shape[:2], np.float32) if weights is None else np.maximum(weights, 1e-3)
    mean = (cells * shown[..., None]).sum(1, keepdims=True) / shown.sum(1)[:, None, None]
    flat = (cells - mean) * shown[..., None]
    rows = flat.reshape(len(cells), -1)
    return np.asarray(rows / (np.linalg.norm(rows, axis=1, keepdims=True) + 0.3), np.float32)


def _opponent(colour: Floats) -> Floats:
    """Brightness and two colour differences, as the eye weighs them, from sRGB numbers."""
    red, green, blue = colour[..., 0], colour[..., 1], colour[..., 2]
    return np.stack(
        [0.6 * (0.3 * red + 0.59 * green + 0.11 * blue), red - green, 0.7 * (blue - (red + green) / 2)], -1
    )


def _ranked(rows: Rows, scores: Floats) -> Ranking:
    order = np.argsort(-scores, kind="stable")
    return Ranking(rows[order], np.asarray(scores[order], np.float32))


def empty_table(rows: Rows) -> PictureTable:
    """A table for some rows, with nothing in it yet."""
    count = len(rows)
    return PictureTable(
        rows, np.zeros((count, CELLS, CELLS, 4), np.uint8), np.zeros((count, PATCHES, 2), np.uint64),
        np.ones((count, PATCHES, 3), np.float32), np.zeros(count, np.int64),
    )  # fmt: skip


def picture_table(rows: list[int], marks: list[tuple[npt.NDArray[np.uint8], Patches]]) -> PictureTable:
    """A table of wholes and patches, one for each row."""
    table = empty_table(np.array(rows, np.int64))
    for place, (whole, patches) in enumerate(marks):
        table.wholes[place] = whole
        table.signs[place, : len(patches)] = patches.signs
        table.spots[place, : len(patches)] = patches.places
        table.counts[place] = len(patches)
    return table


def fill(table: PictureTable, part: PictureTable) -> None:
    """Put the marks of some pictures into the table of all."""
    places = np.searchsorted(table.rows, part.rows)
    table.wholes[places], table.signs[places] = part.wholes, part.signs
    table.spots[places], table.counts[places] = part.spots, part.counts
