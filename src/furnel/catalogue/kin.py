"""Kin: assets that are the same picture at other sizes or places, or the same sound at other rates; also told by names."""

from __future__ import annotations

import re
from collections.abc import Callable
from functools import cached_property
from itertools import combinations

import numpy as np
import numpy.typing as npt

from furnel.catalogue.likeness import PictureTable, SoundTable
from furnel.catalogue.marks import CELLS, TIMES
from furnel.catalogue.shelf import Shelf

Rows = npt.NDArray[np.int64]
Floats = npt.NDArray[np.float32]
Cells = Floats | npt.NDArray[np.uint8]

_NEAR, _AXES, _PIECE = 0.026, 12, 8_000  # root mean square difference of coarse cells, of 1
_SIGNS_APART, _REACH, _AGREEING = 30, 0.06, 0.4
_COLOUR_APART, _ALPHA_APART = 11.5, 12.0  # of 255: largest root mean square differences of cells
_COLOUR_APART_IN_STEP, _IN_STEP = 24.0, 0.93  # more for pictures whose cells rise and fall together
# colours, alpha and step of pictures whose names say that they are one at other sizes
_BY_NAME = (50.0, 50.0, 0.7)
_ASPECT, _ASPECT_BY_NAME = 0.04, 0.12
_LENGTH = 0.015  # as a logarithm to 2
_ENVELOPE_APART, _BANDS_APART = 0.11, 0.2  # in bels, over all times and all bands
_FLAT = 3.0  # of 255: a picture with less contrast between its cells is like too many others


class Kin:
    """Which assets belong together. `groups` has a number for every row of the shelf, -1 for those that have no kin."""

    def __init__(self, groups: Rows) -> None:
        self.groups = groups

    def of(self, row: int) -> list[int]:
        """The other rows of an asset's kin."""
        if not 0 <= row < len(self.groups) or self.groups[row] < 0:
            return []
        return [other for other in self._members[int(self.groups[row])] if other != row]

    def codes(self, shelf: Shelf) -> tuple[list[str], Rows]:
        """Families as a grouping of a shelf: each called after its first member, and the family of every asset or -1."""
        families, first = np.unique(self.groups, return_index=True)
        none = int(len(families) > 0 and families[0] < 0)
        names = [shelf.name(int(row)) for row in first[none:]]
        return names, np.searchsorted(families, self.groups) - none

    @cached_property
    def _members(self) -> dict[int, list[int]]:
        rows = np.flatnonzero(self.groups >= 0)
        order = rows[np.argsort(self.groups[rows], kind="stable")]
        starts = np.flatnonzero(np.diff(self.groups[order], prepend=-1))
        return {int(self.groups[part[0]]): part.tolist() for part in np.split(order, starts[1:]) if len(part)}


def find_kin(shelf: Shelf, pictures: PictureTable, sounds: SoundTable, digests: npt.NDArray[np.uint8]) -> Kin:
    """The kin of a shelf's assets. `digests` (assets, 16) tell which have the same bytes; all zero where not known."""
    alike = np.concatenate([_same_pictures(shelf, pictures), _same_sounds(sounds)])
    apart = [names_differ(shelf.paths[first], shelf.paths[second]) for first, second in alike.tolist()]
    pairs = [_same_bytes(digests), alike[~np.array(apart, bool)], _same_names(shelf, pictures)]
    area = shelf.columns["width"] * shelf.columns["height"] + shelf.columns["rate"]
    return Kin(_stars(len(shelf), np.concatenate(pairs), area))


_OPPOSITES = [
    {"plus", "minus"}, {"on", "off"}, {"left", "right"}, {"up", "down"}, {"open", "closed"}, {"open", "shut"}, {"in", "out"},
    {"yes", "no"}, {"top", "bottom"}, {"north", "south"}, {"east", "west"}, {"black", "white"}, {"red", "green"},
    {"red", "blue"}, {"green", "blue"}, {"day", "night"}, {"full", "empty"}, {"begin", "end"}, {"start", "stop"},
    {"next", "prev"}, {"active", "inactive"}, {"enabled", "disabled"}, {"male", "female"}, {"horizontal", "vertical"},
]  # fmt: skip


def names_differ(one: str, other: str) -> bool:
    """Whether two names in one folder tell their files apart: neighbouring numbers (frames of one thing), opposite words."""
    (home, _, first), (there, _, second) = one.rpartition("/"), other.rpartition("/")
    if home != there:
        return False
    a, b = (re.findall(r"\d+|[^\W\d_]+", name.rpartition(".")[0].casefold()) for name in (first, second))
    mine, theirs = [word for word in a if word not in b], [word for word in b if word not in a]
    if not mine and not theirs:
        return a != b  # the same words in another order
    if all(word.isdigit() for word in (*mine, *theirs)):
        if all(word.isdigit() for word in (*a, *b)):
            return False  # a number alone is no name
        return len(mine) + len(theirs) == 1 or [
            abs(int(x) - int(y)) for x, y in zip(mine, theirs, strict=False)
        ] == [1]
    return len(mine) == len(theirs) == 1 and {mine[0], theirs[0]} in _OPPOSITES


_SIZE = re.compile(
    r"\d+(?:x\d*)?|x\d+|tiny|mini|small|medium|normal|big|large|huge|low|lo|high|hi|hires|lores|sd|hd|uhd|half|full|thumbs?"
)
_WORDS = re.compile(r"\d+(?:x\d*)?|x\d+|[^\W\d_]+")
_MOST_SIZES = 12


def size_free(path: str) -> str:
    """A path without the words that tell sizes of one picture: in its folders (`gfx32`, `small`), and behind its name
    (`crate-large`, `crate@2x`), where numbers alone are no sizes."""
    home, _, name = path.casefold().rpartition("/")
    stem, dot, ending = name.rpartition(".")
    words = _WORDS.findall(stem if dot else ending)
    while len(words) > 1 and _SIZE.fullmatch(words[-1]) and not words[-1].isdigit():
        words.pop()
    folders = [
        " ".join(word for word in _WORDS.findall(part) if not _SIZE.fullmatch(word))
        for part in home.split("/")
    ]
    return "/".join([*folders, " ".join(words) + dot + (ending if dot else "")])


def _same_names(shelf: Shelf, table: PictureTable) -> Rows:
    """Pairs of pictures whose paths say that they are one at two sizes, and that are not of quite another look."""
    if len(table) < 2:
        return np.zeros((0, 2), np.int64)
    named: dict[str, list[int]] = {}
    for place, row in enumerate(table.rows.tolist()):
        named.setdefault(size_free(shelf.paths[row]), []).append(place)
    found = [
        pair for group in named.values() if 1 < len(group) <= _MOST_SIZES for pair in combinations(group, 2)
    ]
    pairs = np.array(found, np.int64).reshape(-1, 2)
    width, height = _sides(shelf, table)
    aspect = np.log(width / height)
    sizes_differ = width[pairs[:, 0]] != width[pairs[:, 1]]
    near = sizes_differ & (np.abs(aspect[pairs[:, 0]] - aspect[pairs[:, 1]]) < _ASPECT_BY_NAME)
    pairs = np.ascontiguousarray(pairs[near])
    cells = table.wholes.reshape(len(table), -1, 4)
    alike = _in_pieces(_alike_by_name, cells, pairs)
    return np.asarray(table.rows[pairs[alike]].reshape(-1, 2), np.int64)


def _alike_by_name(cells: Cells, pairs: Rows) -> npt.NDArray[np.bool_]:
    """Which pairs are not of quite another look."""
    colour, alpha, step = _apart(cells, pairs)
    most, clear, least = _BY_NAME
    return np.asarray(((colour < most / 2) | ((colour < most) & (step > least))) & (alpha < clear))


def _stars(count: int, pairs: Rows, size: Rows) -> Rows:
    """Groups around the largest of each: what is alike only by way of others does not belong together."""
    groups = np.full(count, -1, np.int64)
    both = np.concatenate([pairs, pairs[:, ::-1]])
    both = both[np.argsort(both[:, 0], kind="stable")]
    starts = np.searchsorted(both[:, 0], np.arange(count + 1))
    others, number = both[:, 1], 0
    for row in np.lexsort((np.arange(count), -size)).tolist():
        if groups[row] >= 0 or starts[row] == starts[row + 1]:
            continue
        near = others[starts[row] : starts[row + 1]]
        near = near[groups[near] < 0]
        if len(near):
            groups[row] = groups[near] = number
            number += 1
    return groups


def _same_bytes(digests: npt.NDArray[np.uint8]) -> Rows:
    """Pairs of neighbours among assets whose bytes are the same."""
    keys = np.ascontiguousarray(digests).view(np.uint64).reshape(-1, 2)
    known = np.flatnonzero(keys.any(1))
    order = known[np.lexsort((keys[known, 1], keys[known, 0]))]
    same = (keys[order[1:]] == keys[order[:-1]]).all(1)
    return np.column_stack([order[:-1][same], order[1:][same]])


def _same_pictures(shelf: Shelf, table: PictureTable) -> Rows:
    from scipy.spatial import cKDTree

    if len(table) < 2:
        return np.zeros((0, 2), np.int64)
    wholes = table.wholes.astype(np.float32)
    straight = wholes.copy()
    straight[..., :3] *= wholes[..., 3:] / 255  # what is clear has no colour
    half = CELLS // 2
    coarse = straight.reshape(-1, half, 2, half, 2, 4).mean((2, 4)).reshape(len(table), -1) / 255
    width, height = _sides(shelf, table)
    aspect = np.log(width / height)
    rich = straight.reshape(len(table), -1, 4).std(1).max(1) > _FLAT if len(table) else np.zeros(0, bool)
    points = np.column_stack([coarse / 8, aspect * 0.5])[rich]
    chosen = np.flatnonzero(rich)
    if len(chosen) < 2:
        return np.zeros((0, 2), np.int64)
    flat = points - points.mean(0)
    axes = np.linalg.svd(flat[:: max(len(flat) // 4000, 1)], full_matrices=False)[2][:_AXES]
    near = cKDTree(flat @ axes.T).query_pairs(_NEAR, output_type="ndarray")
    near = near[((flat[near[:, 0]] - flat[near[:, 1]]) ** 2).sum(1) < _NEAR**2]
    pairs = np.ascontiguousarray(chosen[near])
    alike = _in_pieces(_alike, wholes.reshape(len(table), -1, 4), pairs)
    alike &= np.abs(aspect[pairs[:, 0]] - aspect[pairs[:, 1]]) < _ASPECT + 1 / np.minimum.reduce(
        [width[pairs[:, 0]], width[pairs[:, 1]], height[pairs[:, 0]], height[pairs[:, 1]]]
    )
    pairs = np.ascontiguousarray(pairs[alike])
    return np.asarray(table.rows[pairs[_agreeing(table, pairs)]].reshape(-1, 2), np.int64)


def _agreeing(table: PictureTable, pairs: Rows) -> npt.NDArray[np.bool_]:
    """Which pairs have the same patches at the same places; those without patches are believed."""
    from furnel.catalogue.votes import agree

    shares = np.zeros((2, len(pairs)), np.float32)
    for side, order in enumerate((pairs, np.ascontiguousarray(pairs[:, ::-1]))):
        agree(order, table.signs, table.spots, table.counts, _SIGNS_APART, np.float32(_REACH), shares[side])
    return np.asarray((shares.min(0) > _AGREEING) | (shares.min(0) < 0))


def _sides(shelf: Shelf, table: PictureTable) -> tuple[npt.NDArray[np.float64], npt.NDArray[np.float64]]:
    """Widths and heights of the pictures, at least 1."""
    wide, high = (np.maximum(shelf.columns[name][table.rows], 1) for name in ("width", "height"))
    return wide.astype(np.float64), high.astype(np.float64)


def _in_pieces(
    test: Callable[[Cells, Rows], npt.NDArray[np.bool_]], cells: Cells, pairs: Rows
) -> npt.NDArray[np.bool_]:
    """A test of pairs, with little memory at a time."""
    pieces = [test(cells, pairs[at : at + _PIECE]) for at in range(0, len(pairs), _PIECE)]
    return np.concatenate([*pieces, np.zeros(0, bool)])


def _alike(cells: Cells, pairs: Rows) -> npt.NDArray[np.bool_]:
    """Which pairs have the same colours where both show something, and the same alpha."""
    colour, alpha, step = _apart(cells, pairs)
    near = (colour < _COLOUR_APART) | ((colour < _COLOUR_APART_IN_STEP) & (step > _IN_STEP))
    return np.asarray(near & (alpha < _ALPHA_APART))


def _apart(cells: Cells, pairs: Rows) -> tuple[Floats, Floats, Floats]:
    """How far colours are apart where both pictures show something, how far alpha is (of 255), and how far they rise and fall
    together (1: quite)."""
    first, second = (cells[pairs[:, side]].astype(np.float32, copy=False) for side in (0, 1))
    shown = (first[..., 3] + second[..., 3]) / 510
    total = np.maximum(shown.sum(1), 1e-3)
    colour = np.sqrt((((first - second)[..., :3] ** 2).mean(2) * shown).sum(1) / total)
    alpha = np.sqrt(((first - second)[..., 3] ** 2).mean(1))
    flat = [
        (part[..., :3] - ((part[..., :3] * shown[..., None]).sum(1) / total[:, None])[:, None])
        * np.sqrt(shown)[..., None]
        for part in (first, second)
    ]
    norms = [np.sqrt((part**2).sum((1, 2))) for part in flat]
    step = (flat[0] * flat[1]).sum((1, 2)) / np.maximum(norms[0] * norms[1], 1e-6)
    return colour, alpha, step


def _same_sounds(table: SoundTable) -> Rows:
    from scipy.spatial import cKDTree

    if len(table.rows) < 2:
        return np.zeros((0, 2), np.int64)
    marks = table.marks
    envelope = marks[:, 1 : 1 + TIMES]
    shape = envelope - envelope.max(1, keepdims=True)
    bands = marks[:, 1 + TIMES :]
    shape, bands = np.maximum(shape, -4), np.maximum(bands, -4)
    points = np.column_stack(
        [marks[:, :1] * (_ENVELOPE_APART / _LENGTH), shape, bands * (_ENVELOPE_APART / _BANDS_APART)]
    )
    pairs = cKDTree(points).query_pairs(_ENVELOPE_APART * 1.5, output_type="ndarray")
    first, second = pairs[:, 0], pairs[:, 1]
    alike = np.abs(marks[first, 0] - marks[second, 0]) < _LENGTH
    alike &= np.linalg.norm(shape[first] - shape[second], axis=1) < _ENVELOPE_APART
    alike &= np.linalg.norm(bands[first] - bands[second], axis=1) < _BANDS_APART
    return np.asarray(table.rows[pairs[alike]].reshape(-1, 2), np.int64)
