"""OpenRaster (https://www.openraster.org, version 0.0.6): layered pictures in a ZIP of PNGs, read and written."""

from __future__ import annotations

import io
import xml.etree.ElementTree as ElementTree
import zipfile
import zlib
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.imagefiles import aswas, pillow
from furnel.imagefiles.filetype import Data, PictureFile
from furnel.images.picture import Picture, check_size
from furnel.images.texture import Texture

_WHAT = "Reading an OpenRaster file"
_KIND = b"image/openraster"
_MOST_ENTRY = 1 << 28
_MOST_LAYERS = 1024
_THUMBNAIL = 256
_BAND = 256  # rows that are composed at once
_DEEPEST, _LONGEST_NAME = 64, 200
_FEWEST, _PIXELS_A_BYTE = 1 << 22, 1100  # of canvas and layers together, for what bytes the file has


@dataclass(frozen=True, slots=True, eq=False)
class Layer:
    """A layer on the whole canvas; one of a group is called `group/name`. `opacity` is 0 to 1."""

    name: str
    picture: Picture
    visible: bool = True
    opacity: float = 1.0


def is_layered(data: Data) -> bool:
    """Whether bytes begin like an OpenRaster file: its first entry says so, stored as it is."""
    head = bytes(data[:54])
    return head.startswith(b"PK\x03\x04") and head[30:] == b"mimetype" + _KIND


def read_layers(data: Data, where: object = "") -> tuple[Layer, ...]:
    """All layers, the lowest first. Raises FurnelError for damage."""
    with _opened(data, where) as archive:
        width, height, root = _stack(archive, where)
        out = list[Layer]()
        for name, element, visible, opacity in _leaves(root, "", True, 1.0):
            if len(out) >= _MOST_LAYERS or (len(out) + 1) * width * height > 1 << 27:
                raise FurnelError(
                    _WHAT, where=where, why="it has far too many layers", remedy="Join some of them"
                )
            if (len(out) + 1) * width * height > max(_FEWEST, len(data) * _PIXELS_A_BYTE):
                raise FurnelError(
                    _WHAT, where=where, why="its few bytes claim far too many pixels",
                    remedy="Use a smaller canvas, or flatten it",
                )  # fmt: skip
            part = _picture(archive, element.get("src", ""), where)
            out.append(Layer(name, _on_canvas(part, element, (width, height)), visible, opacity))
        return tuple(reversed(out))


def composed(layers: Sequence[Layer]) -> Picture:
    """Layers over each other, the first one lowest, whether they are visible or not. Raises FurnelError without any."""
    if not layers:
        raise FurnelError(
            "Laying layers", why="there is none of these", remedy="Name layers that the file has"
        )
    height = layers[0].picture.height
    done = [_composed(layers, top, min(top + _BAND, height)) for top in range(0, height, _BAND)]
    return Picture(np.concatenate(done))


def _composed(layers: Sequence[Layer], top: int, end: int) -> npt.NDArray[np.uint8]:
    """Some rows of layers over each other; all at once would take sixteen times what the picture takes."""
    out = np.zeros((end - top, *layers[0].picture.pixels.shape[1:]), np.float64)
    for layer in layers:
        over = layer.picture.pixels[top:end].astype(np.float64) / 255
        alpha = over[..., 3:] * layer.opacity
        whole = alpha + out[..., 3:] * (1 - alpha)
        colour = (over[..., :3] * alpha + out[..., :3] * out[..., 3:] * (1 - alpha)) / np.maximum(whole, 1e-9)
        out = np.concatenate([np.where(whole > 0, colour, 0), whole], axis=2)
    return np.round(out * 255).astype(np.uint8)


def write_layers(layers: Sequence[Layer]) -> bytes:
    """An OpenRaster file with these layers, the first one lowest; they have one size."""
    width, height = layers[0].picture.size
    root = ElementTree.Element("image", version="0.0.6", w=str(width), h=str(height))
    stack = ElementTree.SubElement(root, "stack")
    merged = composed([layer for layer in layers if layer.visible] or layers[:1])
    small = max(width, height, _THUMBNAIL) / _THUMBNAIL
    rows, columns = (
        np.arange(max(round(side / small), 1)) * side // max(round(side / small), 1)
        for side in (height, width)
    )
    files = {
        "mergedimage.png": merged,
        "Thumbnails/thumbnail.png": Picture(np.ascontiguousarray(merged.pixels[rows][:, columns])),
    }
    for number, layer in enumerate(layers):
        source = f"data/{number:03}.png"
        files[source] = layer.picture
        ElementTree.SubElement(stack, "layer", {
            "name": layer.name, "src": source, "x": "0", "y": "0", "opacity": f"{layer.opacity:g}",
            "visibility": "visible" if layer.visible else "hidden", "composite-op": "svg:src-over",
        })  # fmt: skip
    stack[:] = list(reversed(stack))  # the file has the topmost first
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w", zipfile.ZIP_STORED) as archive:
        archive.writestr(zipfile.ZipInfo("mimetype"), _KIND)
        archive.writestr(
            zipfile.ZipInfo("stack.xml"), ElementTree.tostring(root, "utf-8", xml_declaration=True)
        )
        for name, picture in files.items():
            texture = Texture(
                *picture.size, "RGBA8", (np.ascontiguousarray(picture.pixels).tobytes(),), "PNG"
            )
            archive.writestr(zipfile.ZipInfo(name), aswas.write_png(texture))
    return stream.getvalue()


def _opened(data: Data, where: object) -> zipfile.ZipFile:
    try:
        return zipfile.ZipFile(io.BytesIO(data))
    except (zipfile.BadZipFile, ValueError, OSError, EOFError, NotImplementedError) as error:
        raise _damaged(where, error) from error


def _entry(archive: zipfile.ZipFile, name: str, where: object) -> bytes:
    try:
        info = archive.getinfo(name)
        if info.file_size > _MOST_ENTRY or (
            info.file_size > 1 << 20 and info.file_size > 1032 * info.compress_size
        ):
            raise FurnelError(_WHAT, where=where, why=f"{name} claims to be far too large")
        with archive.open(info) as entry:
            return entry.read(info.file_size + 1)
    except (
        KeyError, zipfile.BadZipFile, zlib.error, OSError, EOFError, ValueError, NotImplementedError, RuntimeError
    ) as error:  # fmt: skip
        raise _damaged(where, f"{name}: {error}") from error


def _stack(archive: zipfile.ZipFile, where: object) -> tuple[int, int, ElementTree.Element]:
    """The canvas's size and the outermost stack."""
    text = _entry(archive, "stack.xml", where)
    if b"<!DOCTYPE" in text or b"<!ENTITY" in text:
        raise _damaged(where, "its stack.xml declares things of its own")
    try:
        root = ElementTree.fromstring(text)
        width, height = int(root.attrib["w"]), int(root.attrib["h"])
        stack = root.find("stack")
    except (ElementTree.ParseError, KeyError, ValueError) as error:
        raise _damaged(where, f"stack.xml: {error}") from error
    if stack is None:
        raise _damaged(where, "stack.xml has no stack")
    check_size(width, height, _WHAT, where)
    return width, height, stack


def _leaves(
    stack: ElementTree.Element, group: str, visible: bool, opacity: float, deep: int = 0
) -> Iterator[tuple[str, ElementTree.Element, bool, float]]:
    """Each layer, the topmost first: its name, its element, and what its groups make of it."""
    for number, element in enumerate(stack, start=1):
        name = (group + (element.get("name") or f"layer {number}"))[-_LONGEST_NAME:]
        shown = visible and element.get("visibility", "visible") == "visible"
        try:
            strength = opacity * min(max(float(element.get("opacity", "1")), 0.0), 1.0)
        except ValueError:
            strength = opacity
        if element.tag == "stack":
            if deep >= _DEEPEST:
                raise FurnelError(
                    _WHAT, where=group[:80], why=f"its groups are nested more than {_DEEPEST} deep"
                )
            yield from _leaves(element, f"{name}/", shown, strength, deep + 1)
        elif element.tag == "layer":
            yield name, element, shown, strength


def _picture(archive: zipfile.ZipFile, name: str, where: object) -> Picture:
    texture = pillow.read(_entry(archive, name, where), f"{where}, {name}")
    return Picture(np.frombuffer(texture.levels[0], np.uint8).reshape(texture.height, texture.width, 4))


def _on_canvas(part: Picture, element: ElementTree.Element, size: tuple[int, int]) -> Picture:
    try:
        left, top = int(element.get("x", "0")), int(element.get("y", "0"))
    except ValueError:
        left = top = 0
    out = np.zeros((size[1], size[0], 4), np.uint8)
    x0, y0 = max(left, 0), max(top, 0)
    x1, y1 = min(left + part.width, size[0]), min(top + part.height, size[1])
    if x0 < x1 and y0 < y1:
        out[y0:y1, x0:x1] = part.pixels[y0 - top : y1 - top, x0 - left : x1 - left]
    return Picture(out)


def _read(data: Data, where: object) -> Texture:
    """As it is seen: its merged picture, or its visible layers where it has none."""
    with _opened(data, where) as archive:
        if "mergedimage.png" in archive.namelist():
            picture = _picture(archive, "mergedimage.png", where)
        else:
            picture = composed([layer for layer in read_layers(data, where) if layer.visible])
    pixels = np.ascontiguousarray(picture.pixels).tobytes()
    return Texture(*picture.size, "RGBA8", (pixels,), "OpenRaster", True)


def _read_header(data: Data, where: object) -> Texture:
    with _opened(data, where) as archive:
        width, height, _ = _stack(archive, where)
    return Texture(width, height, "RGBA8", (b"",), "OpenRaster", True)


def _damaged(where: object, error: object) -> FurnelError:
    return FurnelError(
        _WHAT,
        where=where,
        why=f"it is damaged ({error})",
        remedy="Open it in the program that made it and save it again",
    )


ORA = PictureFile(
    name="OpenRaster",
    suffixes=(".ora",),
    signature=rb"PK\x03\x04",
    recognises_more=is_layered,
    read=_read,
    read_header=_read_header,
)
