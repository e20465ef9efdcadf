"""How the game reads its containers: strictly, and with no word more than `Broken` where something is off."""

from __future__ import annotations

import io
import struct
import zipfile
import zlib
from pathlib import Path

import lz4.block
import xxhash


class Broken(Exception):
    """A file that the game refuses."""


def load_container(path: Path) -> dict[str, bytes]:
    """Every entry of a container by its inner path."""
    try:
        if path.suffix == ".tlp":
            return _tlp(path.read_bytes())
        if path.suffix == ".tlc":
            return _tlc(path.read_bytes())
        if path.suffix == ".tls":
            return _tls(path)
        if path.suffix == ".tlh":
            return _tlh(path.read_bytes())
        if path.suffix == ".tlk":
            return _tlk(path.read_bytes())
        if path.suffix == ".tlm":
            return _tlm(path.read_bytes())
        if path.suffix == ".zip":
            with zipfile.ZipFile(path) as archive:
                return {
                    f"{path.stem}/{name}": archive.read(name)
                    for name in archive.namelist()
                    if not name.endswith("/")
                }
    except (
        struct.error,
        zlib.error,
        lz4.block.LZ4BlockError,
        zipfile.BadZipFile,
        UnicodeDecodeError,
        OSError,
        IndexError,
        ValueError,
    ) as error:
        raise Broken(f"{path.name}: {error}") from error
    raise Broken(f"{path.name}: not a container of this game")


def load_song(path: Path) -> dict[str, bytes]:
    """The parts of a crew song: its folder is called like it, and a file beside it has its checksum."""
    if path.parent.name != path.stem:
        raise Broken(f"{path.name}: a song lies in a folder of its own name, not in {path.parent.name}")
    try:
        told = path.with_suffix(".sum").read_text("ascii").strip()
    except (OSError, UnicodeDecodeError) as error:
        raise Broken(f"{path.name}: no checksum beside it") from error
    if told != f"{zlib.crc32(path.read_bytes()):08x}":
        raise Broken(f"{path.name}: checksum")
    return load_container(path)


def _tlp(data: bytes) -> dict[str, bytes]:
    magic, version, _flags, count, at = struct.unpack_from("<4sHHII", data)
    if magic != b"TLP2" or version != 2:
        raise Broken("not a TLP2")
    out = {}
    for number in range(count):
        name, offset, stored, size, tag = struct.unpack_from("<48sIIII", data, at + 64 * number)
        path = name.rstrip(b"\0").decode("ascii")
        if offset % 16:
            raise Broken(f"{path}: not on 16 bytes")
        if tag != zlib.crc32(path.encode()):
            raise Broken(f"{path}: wrong name tag")
        content = zlib.decompress(data[offset : offset + stored])
        if len(content) != size:
            raise Broken(f"{path}: size {len(content)}, index says {size}")
        out[path] = content
    return out


def _tlc(data: bytes) -> dict[str, bytes]:
    at, stored, size, count, magic = struct.unpack_from("<IIII4s", data, len(data) - 20)
    if data[:8] != b"TARNCAST" or magic != b"TLCE":
        raise Broken("not a TLC")
    index = zlib.decompress(data[at : at + stored])
    if len(index) != size:
        raise Broken("index of another size")
    out = {}
    for number in range(count):
        name, offset, length = struct.unpack_from("<III", index, 12 * number)
        start = 12 * count + name
        out[index[start : index.index(b"\0", start)].decode("ascii")] = data[offset : offset + length]
    return out


def _tls(path: Path) -> dict[str, bytes]:
    data, index = path.read_bytes(), path.with_suffix(".tlx").read_bytes()
    sums = path.with_suffix(".sum").read_bytes()
    magic, count = struct.unpack_from(">4sI", index)
    if magic != b"TLSX" or len(sums) != 4 * count:
        raise Broken("index or checksums of another bank")
    offsets = [*struct.unpack_from(f">{count}I", index, 8), len(data)]
    out = {}
    for number, wanted in enumerate(struct.unpack(f">{count}I", sums)):
        part = data[offsets[number] : offsets[number + 1]]
        if zlib.crc32(part) != wanted:
            raise Broken(f"sound {number}: checksum")
        out[f"{path.stem}/{number:03}.wav"] = part
    return out


def _tlm(data: bytes) -> dict[str, bytes]:
    out = {}
    for tag, chunk in _chunks(data):
        if tag == b"TUNE":
            parts = dict(_chunks(chunk))
            name = parts[b"NAME"].decode("ascii")
            out[f"music/{name}.loop"] = parts[b"LOOP"]
            out[f"music/{name}.ogg"] = parts[b"OGGV"]
    return out


def _tlh(data: bytes) -> dict[str, bytes]:
    from tarnlight.content import PAPERS

    magic, version, _season, count = struct.unpack_from("<4sHHI", data)
    if magic != b"TLHX" or version != 1:
        raise Broken("not a TLHX")
    names = {xxhash.xxh64_intdigest(path.lower().encode()): path for path in PAPERS}
    out, last = {}, -1
    for number in range(count):
        code, offset, stored, size = struct.unpack_from("<QIII", data, 12 + 20 * number)
        if code <= last:
            raise Broken("its index is not sorted")
        last = code
        if code in names:
            out[names[code]] = lz4.block.decompress(data[offset : offset + stored], uncompressed_size=size)
    return out


def _tlk(data: bytes) -> dict[str, bytes]:
    magic, folders, count, length = struct.unpack_from("<4sIII", data)
    if magic != b"TLK1":
        raise Broken("not a TLK1")
    index = bytes(byte ^ (29 * place + 113 & 0xFF) for place, byte in enumerate(data[16 : 16 + length]))
    at = 0
    homes: list[str] = []
    for number in range(folders):
        name = index[at + 1 : at + 1 + index[at]].decode("ascii")
        above = struct.unpack_from("<H", index, at + 1 + len(name))[0]
        at += 3 + len(name)
        if number and above >= number:
            raise Broken(f"the folder {name} comes before the one that it is in")
        homes.append(f"{homes[above]}{name}/" if number else "")
    out = {}
    for _ in range(count):
        home, size = struct.unpack_from("<HB", index, at)
        path = homes[home] + index[at + 3 : at + 3 + size].decode("ascii")
        begin, stored, whole, told = struct.unpack_from("<IIII", index, at + 3 + size)
        at += 19 + size
        if begin % 16:
            raise Broken(f"{path}: not on 16 bytes")
        out[path] = _blocks(data[begin : begin + stored], whole)
        if zlib.crc32(out[path]) != told:
            raise Broken(f"{path}: checksum")
    if at != length:
        raise Broken("its index is longer than what is in it")
    return out


def _blocks(data: bytes, size: int) -> bytes:
    number = -(-size // 8192)
    sizes = struct.unpack_from(f"<{number}H", data)
    at, out = 2 * number, []
    for place, stored in enumerate(sizes):
        plain = min(8192, size - 8192 * place)
        block = data[at : at + stored]
        at += stored
        out.append(block if stored == plain else zlib.decompress(block))
        if len(out[-1]) != plain:
            raise Broken(f"block {place}: size {len(out[-1])}")
    return b"".join(out)


def _chunks(data: bytes) -> list[tuple[bytes, bytes]]:
    out, at = [], 0
    while at < len(data):
        tag, size = struct.unpack_from("<4sI", data, at)
        if at + 8 + size > len(data):
            raise Broken("a chunk past the end")
        out.append((tag, data[at + 8 : at + 8 + size]))
        at += 8 + size + -size % 4
    return out


def dds_header(data: bytes) -> tuple[int, int, str, int]:
    """Width, height, block format and levels of a DDS."""
    if data[:4] != b"DDS " or len(data) < 128:
        raise Broken("not a DDS")
    height, width = struct.unpack_from("<II", data, 12)
    levels = struct.unpack_from("<I", data, 28)[0]
    code = data[84:88]
    levels = max(levels, 1)
    if code == b"DX10":
        if len(data) < 148 or struct.unpack_from("<I", data, 128)[0] not in (98, 99):
            raise Broken("a DX10 header with something else than BC7, which this game does not know")
        return width, height, "BC7", levels
    if code.strip(b"\0"):
        name = code.decode("ascii", "replace")
        return width, height, {"ATI2": "BC5", "BC5U": "BC5"}.get(name, name), levels
    masks = struct.unpack_from("<5I", data, 88)
    return (
        width,
        height,
        "BGRA" if masks == (32, 0xFF0000, 0xFF00, 0xFF, 0xFF000000) else "uncompressed",
        levels,
    )


def dds_level_size(fmt: str, width: int, height: int) -> int:
    """How many bytes a level has."""
    if fmt not in ("DXT1", "DXT5", "BC5", "BC7"):
        return max(width, 1) * max(height, 1) * 4
    blocks = ((max(width, 1) + 3) // 4) * ((max(height, 1) + 3) // 4)
    return blocks * (8 if fmt == "DXT1" else 16)


def wav_format(data: bytes) -> tuple[int, int, int, int]:
    """Rate, channels, bits and frames of a PCM WAV."""
    if data[:4] != b"RIFF" or data[8:12] != b"WAVE":
        raise Broken("not a WAV")
    at, rate, channels, bits = 12, 0, 0, 0
    while at + 8 <= len(data):
        tag, size = struct.unpack_from("<4sI", data, at)
        if tag == b"fmt ":
            code, channels, rate, _, _, bits = struct.unpack_from("<HHIIHH", data, at + 8)
            if code != 1:
                raise Broken("a WAV that is not PCM")
        elif tag == b"data" and rate:
            return rate, channels, bits, size // max(channels * bits // 8, 1)
        at += 8 + size + size % 2
    raise Broken("a WAV without data")


def ogg_format(data: bytes) -> tuple[int, int, int]:
    """Rate, channels and frames of an Ogg Vorbis stream."""
    import soundfile

    try:
        with soundfile.SoundFile(io.BytesIO(data)) as stream:
            if stream.format != "OGG" or stream.subtype != "VORBIS":
                raise Broken(f"{stream.format} {stream.subtype}, not Ogg Vorbis")
            return stream.samplerate, stream.channels, stream.frames
    except soundfile.LibsndfileError as error:
        raise Broken(f"not a sound: {error}") from error
