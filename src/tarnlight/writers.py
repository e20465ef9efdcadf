"""How the game's own tools write its files."""

from __future__ import annotations

import io
import struct
import zipfile
import zlib
from pathlib import Path

import lz4.block
import numpy as np
import numpy.typing as npt
import soundfile
import xxhash
from PIL import Image

Pixels = npt.NDArray[np.uint8]


def dds(pixels: Pixels, fmt: str, count: int = 0) -> bytes:
    """A DDS with a chain of `count` levels (0: all), averages of the one above; `fmt` is DXT1, DXT5, BC5, BC7 or BGRA."""
    image = Image.fromarray(pixels)
    width, height = image.size
    count = count or max(width, height).bit_length()
    body = b"".join(_blocks(level, fmt) for level in _levels(image, count))
    linear = width * 4 if fmt == "BGRA" else len(_blocks(image, fmt))
    flags = 0x2100F if fmt == "BGRA" else 0xA1007
    head = struct.pack("<4s7I44x", b"DDS ", 124, flags, height, width, linear, 0, count)
    if fmt == "BGRA":
        head += struct.pack("<8I", 32, 0x41, 0, 32, 0xFF0000, 0xFF00, 0xFF, 0xFF000000)
    else:
        code = {"BC5": b"BC5U", "BC7": b"DX10"}.get(fmt, fmt.encode())
        head += struct.pack("<2I4s5I", 32, 4, code, 0, 0, 0, 0, 0)
    head += struct.pack("<5I", 0x401008, 0, 0, 0, 0)
    return head + (struct.pack("<5I", 99, 3, 0, 1, 0) if fmt == "BC7" else b"") + body


def _levels(image: Image.Image, count: int) -> list[Image.Image]:
    out = [image]
    if count == 1:
        return out
    light = (np.asarray(image, np.float32) / 255) ** np.array([2.2, 2.2, 2.2, 1], np.float32)
    for level in range(1, count):
        size = max(image.width >> level, 1), max(image.height >> level, 1)
        bands = [
            np.asarray(Image.fromarray(light[..., band]).resize(size, Image.Resampling.BOX))
            for band in range(4)
        ]
        light = np.stack(bands, -1)
        out.append(
            Image.fromarray(
                (light ** np.array([1 / 2.2, 1 / 2.2, 1 / 2.2, 1], np.float32) * 255 + 0.5).astype(np.uint8)
            )
        )
    return out


def _blocks(image: Image.Image, fmt: str) -> bytes:
    pixels = np.asarray(image)
    grown = np.pad(pixels, ((0, -pixels.shape[0] % 4), (0, -pixels.shape[1] % 4), (0, 0)), mode="edge")
    if fmt == "BGRA":
        return pixels[..., (2, 1, 0, 3)].tobytes()
    if fmt == "BC7":
        return _bc7(grown)
    stream = io.BytesIO()
    whole = Image.fromarray(grown)
    (whole.convert("RGB") if fmt == "BC5" else whole).save(stream, "DDS", pixel_format=fmt)
    return stream.getvalue()[-(grown.shape[0] // 4) * (grown.shape[1] // 4) * (8 if fmt == "DXT1" else 16) :]


def _bc7(grown: Pixels) -> bytes:
    """BC7 blocks of mode 6 alone: two end points of eight bits and sixteen steps between them."""
    rows, across = grown.shape[0] // 4, grown.shape[1] // 4
    px = grown.reshape(rows, 4, across, 4, 4).swapaxes(1, 2).reshape(-1, 16, 4).astype(np.float64)
    middle = px.mean(1, keepdims=True)
    axis = (px - middle)[np.arange(len(px)), np.abs(px - middle).sum(2).argmax(1)] + 1e-6
    axis /= np.linalg.norm(axis, axis=1, keepdims=True)
    place = ((px - middle) * axis[:, None]).sum(2)
    ends = [np.clip(middle[:, 0] + axis * place.min(1)[:, None], 0, 255)]
    ends.append(np.clip(middle[:, 0] + axis * place.max(1)[:, None], 0, 255))
    low, high = ((end.round().astype(np.int64) | 1) for end in ends)  # both p-bits are set
    span = (high - low).astype(np.float64)
    share = ((px - low[:, None]) * span[:, None]).sum(2) / np.maximum((span**2).sum(1), 1)[:, None]
    index = np.clip(np.round(share * 15), 0, 15).astype(np.int64)
    flip = index[:, 0] > 7
    low[flip], high[flip] = high[flip], low[flip]
    index[flip] = 15 - index[flip]
    out = []
    for first, second, steps in zip(low.tolist(), high.tolist(), index.tolist(), strict=True):
        bits, at = 1 << 6, 7
        for a, b in zip(first, second, strict=True):
            bits |= (a >> 1) << at | (b >> 1) << (at + 7)
            at += 14
        bits |= 3 << at
        at += 2
        for number, step in enumerate(steps):
            bits |= step << at
            at += 4 if number else 3
        out.append(bits.to_bytes(16, "little"))
    return b"".join(out)


def tga(pixels: Pixels) -> bytes:
    """32 bits, uncompressed, bottom row first."""
    height, width = pixels.shape[:2]
    head = struct.pack("<BBBHHBHHHHBB", 0, 0, 2, 0, 0, 0, 0, 0, width, height, 32, 8)
    return head + pixels[::-1, :, (2, 1, 0, 3)].tobytes()


def png(pixels: Pixels, palette: bool = False) -> bytes:
    """A PNG; with `palette` of as many colours as the picture has, clear ones first."""
    stream = io.BytesIO()
    if not palette:
        Image.fromarray(pixels).save(stream, "PNG")
        return stream.getvalue()
    colours, index = np.unique(pixels.reshape(-1, 4), axis=0, return_inverse=True)
    image = Image.fromarray(index.reshape(pixels.shape[:2]).astype(np.uint8), "P")
    image.putpalette(colours[:, :3].tobytes(), "RGB")
    if colours[:, 3].min() < 255:
        image.info["transparency"] = colours[:, 3].tobytes()
    image.save(stream, "PNG")
    return stream.getvalue()


def wav(wave: npt.NDArray[np.float64], rate: int) -> bytes:
    """PCM 16, mono."""
    frames = (np.clip(wave, -1, 1) * 32767).astype("<i2").tobytes()
    fmt = struct.pack("<HHIIHH", 1, 1, rate, rate * 2, 2, 16)
    return (
        b"RIFF"
        + struct.pack("<I", 36 + len(frames))
        + b"WAVEfmt "
        + struct.pack("<I", 16)
        + fmt
        + b"data"
        + struct.pack("<I", len(frames))
        + frames
    )


def ogg(wave: npt.NDArray[np.float64], rate: int, serial: int) -> bytes:
    """Ogg Vorbis with a fixed stream number, so that every forge gives the same bytes."""
    stream = io.BytesIO()
    with soundfile.SoundFile(stream, "w", rate, wave.shape[1], format="OGG", subtype="VORBIS") as file:
        for at in range(0, len(wave), 65536):
            file.write(wave[at : at + 65536].astype(np.float32))
    data = bytearray(stream.getvalue())
    at = 0
    while at < len(data):
        segments = data[at + 26]
        size = 27 + segments + sum(data[at + 27 : at + 27 + segments])
        data[at + 14 : at + 18] = struct.pack("<I", serial)
        data[at + 22 : at + 26] = bytes(4)
        data[at + 22 : at + 26] = struct.pack("<I", _ogg_crc(bytes(data[at : at + size])))
        at += size
    return bytes(data)


_CRC = [0] * 256
for _byte in range(256):
    _value = _byte << 24
    for _ in range(8):
        _value = (_value << 1) ^ (0x04C11DB7 if _value & 0x80000000 else 0)
    _CRC[_byte] = _value & 0xFFFFFFFF


def _ogg_crc(page: bytes) -> int:
    crc = 0
    for byte in page:
        crc = ((crc << 8) & 0xFFFFFFFF) ^ _CRC[(crc >> 24) ^ byte]
    return crc


def tlp(entries: dict[str, bytes]) -> bytes:
    """Index in front; every entry zlib, on 16 bytes."""
    index, body = bytearray(), bytearray()
    start = 16 + 64 * len(entries)
    for path, data in entries.items():
        body += bytes(-(start + len(body)) % 16)
        packed = zlib.compress(data, 9)
        index += struct.pack(
            "<48sIIII", path.encode(), start + len(body), len(packed), len(data), zlib.crc32(path.encode())
        )
        body += packed
    return struct.pack("<4sHHII", b"TLP2", 2, 0x11, len(entries), 16) + index + body


def tlc(entries: dict[str, bytes]) -> bytes:
    """Entries stored; the deflated index with its name table behind them, found through the footer."""
    body, rows, names = bytearray(b"TARNCAST"), bytearray(), bytearray()
    for path, data in entries.items():
        rows += struct.pack("<III", len(names), len(body), len(data))
        names += path.encode() + b"\0"
        body += data
    packed = zlib.compress(rows + names, 9)
    footer = struct.pack("<IIII4s", len(body), len(packed), len(rows + names), len(entries), b"TLCE")
    return bytes(body + packed + footer)


def tls(sounds: list[bytes]) -> tuple[bytes, bytes, bytes]:
    """The bank, its index and its checksums; big-endian, numbered."""
    offsets, body = [], bytearray()
    for sound in sounds:
        body += bytes(-len(body) % 4)
        offsets.append(len(body))
        body += sound
    body += bytes(-len(body) % 4)
    ends = [*offsets[1:], len(body)]
    sums = b"".join(struct.pack(">I", zlib.crc32(body[a:b])) for a, b in zip(offsets, ends, strict=True))
    return bytes(body), struct.pack(f">4sI{len(sounds)}I", b"TLSX", len(sounds), *offsets), sums


def tlm(tunes: dict[str, tuple[bytes, bytes]]) -> bytes:
    """A chain of tagged chunks: a head, then every tune with its name, loop record and stream."""

    def chunk(tag: bytes, data: bytes) -> bytes:
        return tag + struct.pack("<I", len(data)) + data + bytes(-len(data) % 4)

    out = chunk(b"HEAD", struct.pack("<HH", 1, len(tunes)))
    for name, (loop, stream) in tunes.items():
        out += chunk(b"TUNE", chunk(b"NAME", name.encode()) + chunk(b"LOOP", loop) + chunk(b"OGGV", stream))
    return out


def tlh(entries: dict[str, bytes]) -> bytes:
    """Entries by the hash of their names, in its order; each LZ4, on 8 bytes."""
    codes = sorted((xxhash.xxh64_intdigest(path.lower().encode()), path) for path in entries)
    rows, body = b"", b""
    start = 12 + 20 * len(codes)
    for code, path in codes:
        body += bytes(-(start + len(body)) % 8)
        packed = lz4.block.compress(entries[path], mode="high_compression", store_size=False)
        rows += struct.pack("<QIII", code, start + len(body), len(packed), len(entries[path]))
        body += packed
    return b"TLHX" + struct.pack("<HHI", 1, 4, len(codes)) + rows + body


def tlk(entries: dict[str, bytes]) -> bytes:
    """The chart room's locker: folders and entries in an index under a mask; each entry in blocks of 8 KiB, on 16 bytes."""
    folders = [""]
    for path in entries:
        parts = path.split("/")[:-1]
        for deep in range(1, len(parts) + 1):
            if (home := "/".join(parts[:deep])) not in folders:
                folders.append(home)
    index = b""
    for home in folders:
        above, _, last = home.rpartition("/")
        index += struct.pack("<B", len(last)) + last.encode() + struct.pack("<H", folders.index(above))
    start = 16 + len(index) + sum(19 + len(path.rpartition("/")[2]) for path in entries)
    body = b""
    for path, content in entries.items():
        body += bytes(-(start + len(body)) % 16)
        home, _, name = path.rpartition("/")
        plain = [content[at : at + 8192] for at in range(0, len(content), 8192)]
        blocks = [min(zlib.compress(block, 9), block, key=len) for block in plain]
        packed = b"".join(struct.pack("<H", len(block)) for block in blocks) + b"".join(blocks)
        index += struct.pack("<HB", folders.index(home), len(name)) + name.encode()
        index += struct.pack("<IIII", start + len(body), len(packed), len(content), zlib.crc32(content))
        body += packed
    hidden = bytes(byte ^ (29 * place + 113 & 0xFF) for place, byte in enumerate(index))
    return struct.pack("<4sIII", b"TLK1", len(folders), len(entries), len(index)) + hidden + body


def zipped(entries: dict[str, bytes]) -> bytes:
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w", zipfile.ZIP_DEFLATED) as archive:
        for path, data in sorted(entries.items()):
            archive.writestr(zipfile.ZipInfo(path, (2024, 11, 3, 18, 30, 0)), data, zipfile.ZIP_DEFLATED)
    return stream.getvalue()


def put(path: Path, data: bytes) -> None:
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_bytes(data)
