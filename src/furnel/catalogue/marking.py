"""Marking: working out the marks of everything that a game has, in the background, and keeping them with the catalogue."""

from __future__ import annotations

import hashlib
import io
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from furnel import imagefiles, sound
from furnel.catalogue.index import Catalogue
from furnel.catalogue.kin import Kin, find_kin
from furnel.catalogue.likeness import PictureTable, SoundTable, empty_table, fill, picture_table
from furnel.catalogue.marks import (
    BANDS,
    TIMES,
    Floats,
    PictureMarks,
    content_digest,
    picture_marks,
    sound_marks,
)
from furnel.catalogue.shelf import Asset, Shelf
from furnel.digests import code_mark
from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.parallel import each
from furnel.progress import QUIET, Part, Progress, check

WHAT = "Learning what everything looks and sounds like"
SIDE = 128
_PIECE = 512
_SOUND_NUMBERS = 1 + TIMES + BANDS


@dataclass(frozen=True, slots=True, eq=False)
class Marks:
    """Everything by which a shelf's assets are recognised."""

    shelf: Shelf
    pictures: PictureTable
    sounds: SoundTable
    digests: npt.NDArray[np.uint8]
    kin: Kin


@dataclass(frozen=True, slots=True, eq=False)
class _One:
    digest: bytes
    picture: PictureMarks | None = None
    sound: Floats | None = None


def is_marked(catalogue: Catalogue) -> bool:
    """Whether everything that the game is recognised by is kept."""
    shelf = catalogue.assets
    pieces = (
        (archive, piece)
        for number, archive in enumerate(shelf.archives)
        for piece in range(-(-int((shelf.columns["archive"] == number).sum()) // _PIECE))
    )
    return all(catalogue.kept_marks(*piece) is not None for piece in pieces)


def mark_all(catalogue: Catalogue, progress: Progress = QUIET) -> Marks:
    """The marks of the whole game; what is kept from the last time is not worked out again. Can be cancelled and resumed."""
    shelf = catalogue.assets
    pictures = empty_table(np.flatnonzero(shelf.columns["width"] > 0))
    sounds = [SoundTable(np.zeros(0, np.int64), np.zeros((0, _SOUND_NUMBERS), np.float32))]
    digests = np.zeros((len(shelf), 16), np.uint8)
    for number, archive in enumerate(shelf.archives):
        rows = np.flatnonzero(shelf.columns["archive"] == number)
        for piece, start in enumerate(range(0, len(rows), _PIECE)):
            check(progress, WHAT)
            some = rows[start : start + _PIECE]
            share = Part(progress, some[0] / len(shelf), (some[-1] + 1) / len(shelf))
            share.report(0, WHAT)
            kept = catalogue.kept_marks(archive, piece)
            part = _unpack(kept, some) if kept is not None else None
            if part is None:
                part = _marked(catalogue, [shelf[row] for row in some.tolist()], some, share)
                kept = _pack(part, some)
                catalogue.keep_marks(archive, piece, kept)
                part = (
                    _unpack(kept, some) or part
                )  # what is kept is a little coarser: a query ranks alike ever after
            fill(pictures, part[0])
            sounds.append(part[1])
            digests[some] = part[2]
    heard = SoundTable(
        np.concatenate([part.rows for part in sounds]), np.concatenate([part.marks for part in sounds])
    )
    catalogue.carry_titles(digests)
    seal = hashlib.sha256(code_mark("catalogue").encode() + digests.tobytes()).hexdigest()
    groups = catalogue.kept_kin(seal)
    if groups is not None and len(groups) == 8 * len(shelf):
        return Marks(shelf, pictures, heard, digests, Kin(np.frombuffer(groups, np.int64)))
    kin = find_kin(shelf, pictures, heard, digests)
    catalogue.keep_kin(seal, kin.groups.tobytes())
    return Marks(shelf, pictures, heard, digests, kin)


_Part = tuple[PictureTable, SoundTable, npt.NDArray[np.uint8]]


def _marked(
    catalogue: Catalogue, assets: list[Asset], rows: npt.NDArray[np.int64], progress: Progress
) -> _Part:
    found = each(assets, lambda asset, _: _mark(catalogue, asset), progress, WHAT)
    seen = [
        (row, one.picture) for row, one in zip(rows.tolist(), found, strict=True) if one.picture is not None
    ]
    heard = [(row, one.sound) for row, one in zip(rows.tolist(), found, strict=True) if one.sound is not None]
    table = picture_table([row for row, _ in seen], [(marks.whole, marks.patches) for _, marks in seen])
    numbers = np.stack([marks for _, marks in heard]) if heard else np.zeros((0, _SOUND_NUMBERS), np.float32)
    digests = np.frombuffer(b"".join(one.digest for one in found), np.uint8).reshape(-1, 16)
    return table, SoundTable(np.array([row for row, _ in heard], np.int64), numbers), digests


def _mark(catalogue: Catalogue, asset: Asset) -> _One:
    """One asset's marks; damage leaves it without."""
    try:
        data = catalogue.view(asset)
    except FurnelError:
        return _One(bytes(16))
    digest = content_digest(data)
    try:
        if asset.facts.width:
            picture = imagefiles.read_small(data, SIDE, asset.path)
            return _One(digest, picture_marks(picture, _first_frame(catalogue, asset, picture)))
        if asset.facts.rate:
            return _One(digest, sound=sound_marks(sound.read_clip(bytes(data), asset.path)[0]))
    except FurnelError:
        pass
    return _One(digest)


def _first_frame(catalogue: Catalogue, asset: Asset, picture: Picture) -> Picture | None:
    """The first cell of a sheet, at the size that the picture was read in."""
    rule = catalogue.install.profile.role_of(asset.path)
    if rule is None or rule.cell is None:
        return None
    scale = picture.width / asset.facts.width
    width, height = max(round(rule.cell[0] * scale), 1), max(round(rule.cell[1] * scale), 1)
    return Picture(np.ascontiguousarray(picture.pixels[:height, :width]))


def _pack(part: _Part, rows: npt.NDArray[np.int64]) -> bytes:
    """Marks as bytes; rows are counted from the first of the piece, since other archives may come and go."""
    pictures, sounds, digests = part
    stream = io.BytesIO()
    np.savez(
        stream, pictures=pictures.rows - rows[0], wholes=pictures.wholes, signs=pictures.signs,
        spots=pictures.spots.astype(np.float16), counts=pictures.counts, heard=sounds.rows - rows[0], sounds=sounds.marks,
        digests=digests,
    )  # fmt: skip
    return stream.getvalue()


def _unpack(data: bytes, rows: npt.NDArray[np.int64]) -> _Part | None:
    try:
        with np.load(io.BytesIO(data), allow_pickle=False) as kept:
            table = PictureTable(
                kept["pictures"] + rows[0],
                kept["wholes"],
                kept["signs"],
                kept["spots"].astype(np.float32),
                kept["counts"],
            )
            digests = kept["digests"]
            if len(digests) != len(rows):
                return None
            return table, SoundTable(kept["heard"] + rows[0], kept["sounds"]), digests
    except (OSError, ValueError, KeyError):
        return None
