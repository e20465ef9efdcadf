"""Previews for the wall: small pictures, waveforms and first lines, made from an asset's bytes."""

from __future__ import annotations

import io
from dataclasses import dataclass

import numpy as np
from PIL import Image

from furnel import imagefiles, sound, texts
from furnel.catalogue.facts import Kind
from furnel.catalogue.index import Catalogue
from furnel.catalogue.shelf import Asset
from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.images.resample import resize
from furnel.sound import Clip, Samples

SIDE = 256
COLUMNS = 160
LINES = 8
_LONG_FRAMES = 1 << 20


@dataclass(frozen=True, slots=True, eq=False)
class Preview:
    """What a tile shows: a picture, or a waveform's (2, columns) low and high, or lines of text, or why there is none."""

    picture: Picture | None = None
    waveform: Samples | None = None
    text: str = ""
    fault: str = ""


def preview_of(data: bytes | memoryview, kind: Kind, where: object = "") -> Preview:
    """A preview of an asset's (or a source's) bytes. Damage is told in `fault`, never raised."""
    try:
        if kind in ("texture", "sheet"):
            return media_preview(imagefiles.read_small(data, SIDE, where))
        if kind in ("sound", "music"):
            return _sound_preview(data, where)
        if kind == "definition":
            head = bytes(data[:4096])
            lines = texts.read_text(
                head.rsplit(b"\n", 1)[0] if len(data) > 4096 else head, where
            ).splitlines()
            return Preview(text="\n".join(line[:60] for line in lines[:LINES]))
    except FurnelError as error:
        return Preview(fault=error.why or error.what)
    return Preview(fault="no preview for this kind")


def _sound_preview(data: bytes | memoryview, where: object) -> Preview:
    """A sound's shape; a long one is read in pieces. Raises FurnelError for a damaged one."""
    with sound.SoundStream(data, where) as stream:
        if stream.info.frames < _LONG_FRAMES:
            return media_preview(sound.read_clip(data, where)[0])
        shape = sound.overview_of_file(stream)
    return Preview(waveform=shape.columns(0, shape.frames, COLUMNS))


def media_preview(media: Picture | Clip) -> Preview:
    """A preview of a picture or a clip in memory."""
    if isinstance(media, Picture):
        return Preview(picture=_shrunk(media))
    return Preview(waveform=np.stack(sound.waveform(media, COLUMNS)))


def preview(catalogue: Catalogue, asset: Asset) -> Preview:
    """An asset's preview, from the catalogue when it was made before."""
    kept = catalogue.kept_preview(asset)
    if kept is not None and (found := _unpack(kept)) is not None:
        return found
    try:
        made = preview_of(catalogue.view(asset), asset.facts.kind, asset.path)
    except FurnelError as error:
        return Preview(fault=error.why or error.what)
    if not made.fault:
        catalogue.keep_preview(asset, _pack(made))
    return made


def _shrunk(picture: Picture) -> Picture:
    longest = max(picture.size)
    if longest <= SIDE:
        return picture
    return resize(
        picture, max(picture.width * SIDE // longest, 1), max(picture.height * SIDE // longest, 1), "area"
    )


def _pack(made: Preview) -> bytes:
    if made.picture is not None:
        stream = io.BytesIO()
        Image.fromarray(made.picture.pixels).save(stream, "PNG", compress_level=1)
        return b"P" + stream.getvalue()
    if made.waveform is not None:
        return b"W" + made.waveform.astype("<f4").tobytes()
    return b"T" + made.text.encode("utf-8")


def _unpack(data: bytes) -> Preview | None:
    try:
        if data[:1] == b"P":
            return Preview(picture=Picture(np.asarray(Image.open(io.BytesIO(data[1:])).convert("RGBA"))))
        if data[:1] == b"W":
            return Preview(waveform=np.frombuffer(data[1:], "<f4").reshape(2, -1).astype(np.float32))
        return Preview(text=data[1:].decode("utf-8"))
    except (OSError, ValueError, UnicodeDecodeError):
        return None
