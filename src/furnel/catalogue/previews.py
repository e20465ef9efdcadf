"""Previews for the wall: small pictures, waveforms and first lines, made from an asset's bytes."""

from __future__ import annotations

import io

import numpy as np

from furnel.catalogue.index import Catalogue
from furnel.catalogue.shelf import Asset
from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.media import Preview, preview_of


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


def _pack(made: Preview) -> bytes:
    from PIL import Image

    if made.picture is not None:
        stream = io.BytesIO()
        Image.fromarray(made.picture.pixels).save(stream, "PNG", compress_level=1)
        return b"P" + stream.getvalue()
    if made.waveform is not None:
        return b"W" + made.waveform.astype("<f4").tobytes()
    return b"T" + made.text.encode("utf-8")


def _unpack(data: bytes) -> Preview | None:
    from PIL import Image

    try:
        if data[:1] == b"P":
            return Preview(picture=Picture(np.asarray(Image.open(io.BytesIO(data[1:])).convert("RGBA"))))
        if data[:1] == b"W":
            return Preview(waveform=np.frombuffer(data[1:], "<f4").reshape(2, -1).astype(np.float32))
        return Preview(text=data[1:].decode("utf-8"))
    except (OSError, ValueError, UnicodeDecodeError):
        return None
