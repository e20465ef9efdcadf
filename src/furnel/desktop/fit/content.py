"""What a bench shows: decoded in a worker, whole, before the bench sees it."""

from __future__ import annotations

import difflib
from collections.abc import Mapping
from dataclasses import dataclass

from furnel import imagefiles, sound, texts
from furnel.catalogue import Catalogue, media_preview
from furnel.desktop.fit.picture_content import PictureContent, load_pictures
from furnel.desktop.fit.sound_content import SoundContent, load_sounds
from furnel.desktop.tiles import Tile, tile_of
from furnel.errors import FurnelError
from furnel.mods.project import Swap
from furnel.mods.workspace import Examined, Workspace


@dataclass(frozen=True, slots=True)
class TextContent:
    """Both texts, and the spans of lines (first, end) in each that the other does not have."""

    original: str
    yours: str
    original_spans: tuple[tuple[int, int], ...]
    yours_spans: tuple[tuple[int, int], ...]


@dataclass(frozen=True, slots=True)
class NoContent:
    """Why there is nothing to show."""

    why: str


Content = PictureContent | SoundContent | TextContent | NoContent


def load_content(
    catalogue: Catalogue, examined: Examined, results: Mapping[str, bytes], space: Workspace | None = None
) -> Content:
    """Decode an examined swap for its bench; `results` are the other swaps'. Damage becomes `NoContent`."""
    path = examined.swap.base
    if not catalogue.has(path):
        return NoContent(f"The game has no {path}")
    try:
        original = catalogue.bytes_of(path)
        yours = examined.data
        if not yours:
            return NoContent(examined.points[0].why if examined.points else "There is no result yet")
        name = path if examined.swap.encode is not None else examined.swap.source
        if sound.recognises(original):
            return load_sounds(original, examined, name, space, results)
        if texts.format_of(path):
            return _texts(texts.read_text(original, path), texts.read_text(yours, name))
        if imagefiles.recognises(original):
            return load_pictures(original, yours, name, examined, catalogue, results)
    except FurnelError as error:
        return NoContent(error.sentence())
    return NoContent("This kind of file has no bench yet; the build takes it as it is")


def step_tiles(space: Workspace, swap: Swap) -> tuple[tuple[Tile, ...], dict[int, str]]:
    """A tile of what every step gives that is on, in order, and what steps say of their work, by place.

    Empty when the source cannot be read.
    """
    told: dict[int, str] = {}
    try:
        return tuple(tile_of(media_preview(media)) for media in space.stages(swap, told)[1]), told
    except FurnelError:
        return (), {}


def _texts(original: str, yours: str) -> TextContent:
    matcher = difflib.SequenceMatcher(None, original.splitlines(), yours.splitlines(), autojunk=False)
    blocks = [op for op in matcher.get_opcodes() if op[0] != "equal"]
    return TextContent(
        original, yours, tuple((op[1], op[2]) for op in blocks), tuple((op[3], op[4]) for op in blocks)
    )
