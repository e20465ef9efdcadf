"""7z archives, images of discs and single packed files: what others made is read, damage is told."""

from __future__ import annotations

import bz2
import gzip
import io
import lzma
import struct
import zlib
from pathlib import Path
from typing import Any

import py7zr
import pycdlib
import pytest
import zstandard
from hypothesis import given
from hypothesis import strategies as st

from furnel.cli import main
from furnel.containers import Changes, open_container, write_archive
from furnel.errors import FurnelError

FILES = {
    "ART/FLAG.DDS": b"flag" * 900,
    "ART/DEEP/GULL.WAV": bytes(range(256)) * 20,
    "READ.ME": b"hello",
    "NONE": b"",
}


def both(number: int, size: int = 4) -> bytes:
    """A number in both orders (ECMA-119, 7.2.3, 7.3.3)."""
    return number.to_bytes(size, "little") + number.to_bytes(size, "big")


def plain_iso(files: dict[str, bytes]) -> bytes:
    """An image as ECMA-119 says and nothing more, one sector a folder, made with nothing but bytes."""
    folders = sorted(
        {"", *("/".join(path.split("/")[:deep]) for path in files for deep in range(path.count("/") + 1))}
    )
    folders.sort(key=lambda path: (path.count("/") + bool(path), path))
    place = {path: 20 + number for number, path in enumerate(folders)}
    at, begins = 20 + len(folders), {}
    for path, data in files.items():
        begins[path], at = at, at + -(-len(data) // 2048)

    def record(name: bytes, sector: int, size: int, folder: bool) -> bytes:
        body = (
            both(sector)
            + both(size)
            + bytes([126, 11, 26, 12, 0, 0, 0, 2 if folder else 0, 0, 0])
            + both(1, 2)
        )
        body += bytes([len(name)]) + name + bytes(1 - len(name) % 2)
        return bytes([len(body) + 2, 0]) + body

    def table(order: str) -> bytes:
        out = b""
        for path in folders:
            name = path.rpartition("/")[2].encode() or b"\0"
            above = folders.index(path.rpartition("/")[0]) + 1
            out += struct.pack(f"{order}BBIH", len(name), 0, place[path], above) + name + bytes(len(name) % 2)
        return out

    def sector(data: bytes) -> bytes:
        return data + bytes(-len(data) % 2048)

    root = record(b"\0", place[""], 2048, True)
    paths = len(table("<"))
    told = (
        b"\1CD001\1\0" + b" " * 64 + bytes(8) + both(at) + bytes(32) + both(1, 2) + both(1, 2) + both(2048, 2)
    )
    told += both(paths) + struct.pack("<II", 18, 0) + struct.pack(">II", 19, 0) + root + b" " * 623
    told += (b"0" * 16 + b"\0") * 4 + b"\1"
    out = bytes(16 * 2048) + sector(told) + sector(b"\xffCD001\1") + sector(table("<")) + sector(table(">"))
    for folder in folders:
        above = folder.rpartition("/")[0]
        rows = record(b"\0", place[folder], 2048, True) + record(b"\1", place[above], 2048, True)
        inner = [
            (one.rpartition("/")[2].encode(), place[one], 2048, True)
            for one in folders
            if one and one.rpartition("/")[0] == folder
        ]
        inner += [
            (f"{path.rpartition('/')[2]};1".encode(), begins[path], len(data), False)
            for path, data in files.items() if path.rpartition("/")[0] == folder
        ]  # fmt: skip
        out += sector(rows + b"".join(record(*one) for one in sorted(inner)))
    return out + b"".join(sector(data) for data in files.values())


def named_iso(kind: str) -> bytes:
    """An image by a library, with longer names beside the plain ones."""
    image: Any = pycdlib.PyCdlib()
    told: Any = {"Joliet": {"joliet": 3}, "Rock Ridge": {"rock_ridge": "1.09"}, "UDF": {"udf": "2.60"}}
    image.new(**told[kind])
    data, key = b"long names", {"Joliet": "joliet_path", "Rock Ridge": "rr_name", "UDF": "udf_path"}[kind]
    name = "a gull of the sea.wav"
    image.add_fp(
        io.BytesIO(data), len(data), "/GULL.WAV;1", **{key: name if key == "rr_name" else f"/{name}"}
    )
    if kind == "Rock Ridge":
        image.add_symlink("/LINK.;1", "link", rr_path=name)
    out = io.BytesIO()
    image.write_fp(out)
    return out.getvalue()


def sevened(files: dict[str, bytes], plainly: bool = False, password: str | None = None) -> bytes:
    out = io.BytesIO()
    with py7zr.SevenZipFile(out, "w", password=password) as archive:
        archive.set_encoded_header_mode(not plainly)
        for name, data in files.items():
            archive.writestr(data, name)
    return out.getvalue()


def contents(file: Path) -> dict[str, bytes]:
    container = open_container(file)
    try:
        found = {one.path: container.read(one.path) for one in container.entries()}
        assert {one.path: one.size for one in container.entries()} == {
            path: len(data) for path, data in found.items()
        }
        assert all(container.peek(path, 3) == data[:3] for path, data in found.items())
    finally:
        container.close()
    return found


MADE = {"disc.iso": plain_iso(FILES), "pack.7z": sevened(FILES)}


@pytest.mark.parametrize("name", MADE)
def test_what_others_made_is_read_and_nothing_is_written(name: str, tmp_path: Path) -> None:
    file = tmp_path / name
    file.write_bytes(MADE[name])
    assert contents(file) == FILES
    container = open_container(file)
    container.rewrite(tmp_path / "same", Changes())
    assert (tmp_path / "same").read_bytes() == file.read_bytes()
    with pytest.raises(FurnelError, match="is read and not written"):
        container.rewrite(tmp_path / "other", Changes(replace={"READ.ME": b"x"}))
    container.close()
    assert sorted(one.name for one in tmp_path.iterdir()) == sorted([name, "same"])


@pytest.mark.parametrize("kind", ["Joliet", "Rock Ridge", "UDF"])
def test_the_longest_names_are_taken(kind: str, tmp_path: Path) -> None:
    (tmp_path / "disc.iso").write_bytes(named_iso(kind))
    assert contents(tmp_path / "disc.iso") == {"a gull of the sea.wav": b"long names"}


@pytest.mark.parametrize("bad", ["../out.txt", "/etc/out.txt", "a//b"])
def test_paths_that_lead_out_are_refused(bad: str, tmp_path: Path) -> None:
    good = "x" * len(bad)
    raw = sevened({good: b"y"}, plainly=True).replace(good.encode("utf-16-le"), bad.encode("utf-16-le"))
    at, size = struct.unpack_from(
        "<QQ", raw, 12
    )  # 7zFormat.txt: the header's place, length and sum, and a sum of these
    start = struct.pack("<QQI", at, size, zlib.crc32(raw[32 + at : 32 + at + size]))
    (tmp_path / "a.7z").write_bytes(raw[:8] + struct.pack("<I", zlib.crc32(start)) + start + raw[32:])
    with pytest.raises(FurnelError, match="not safe to write|would be written|path"):
        contents(tmp_path / "a.7z")


def test_what_takes_a_password_says_so(tmp_path: Path) -> None:
    (tmp_path / "a.7z").write_bytes(sevened({"a.txt": b"x"}, password="tide"))
    with pytest.raises(FurnelError, match="encrypted"):
        open_container(tmp_path / "a.7z")


@pytest.mark.parametrize("name", MADE)
@given(data=st.data())
def test_damage_is_told_in_a_sentence(
    tmp_path_factory: pytest.TempPathFactory, name: str, data: st.DataObject
) -> None:
    raw = bytearray(MADE[name])
    alive = range(16 * 2048, 25 * 2048) if name == "disc.iso" else range(len(raw))
    for at in data.draw(st.lists(st.sampled_from(alive), min_size=1, max_size=4)):
        raw[at] ^= data.draw(st.integers(1, 255))
    cut = data.draw(st.one_of(st.none(), st.integers(0, len(raw))))
    file = tmp_path_factory.mktemp("f") / name
    file.write_bytes(raw[:cut])
    try:
        contents(file)
    except FurnelError as error:
        assert error.why


PACK: dict[str, Any] = {
    ".gz": gzip.compress,
    ".bz2": bz2.compress,
    ".xz": lzma.compress,
    ".zst": zstandard.ZstdCompressor().compress,
}
UNPACK: dict[str, Any] = {".gz": gzip.decompress, ".bz2": bz2.decompress, ".xz": lzma.decompress}


@pytest.mark.parametrize("ending", PACK)
def test_a_single_packed_file_is_read_and_replaced(ending: str, tmp_path: Path) -> None:
    file, out = tmp_path / f"ropes.toml{ending}", tmp_path / f"new{ending}"
    file.write_bytes(
        PACK[ending](b"length = 4\n" * 20) + PACK[ending](b"length = 4\n" * 30)
    )  # two streams are one file
    assert contents(file) == {"ropes.toml": b"length = 4\n" * 50}
    container = open_container(file)
    container.rewrite(out, Changes(replace={"ropes.toml": b"length = 5\n"}))
    unpack = UNPACK.get(ending, lambda data: zstandard.ZstdDecompressor().decompressobj().decompress(data))
    assert unpack(out.read_bytes()) == b"length = 5\n"
    with pytest.raises(FurnelError, match="not an archive of several"):
        container.rewrite(out, Changes(add={"more": b"x"}))
    container.close()
    file.write_bytes(file.read_bytes()[:-9])
    with pytest.raises(FurnelError):
        contents(file)


def test_the_command_line_lists_takes_and_refuses_to_make_them(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    (tmp_path / "disc.iso").write_bytes(plain_iso(FILES))
    assert main(["list", str(tmp_path / "disc.iso")]) == 0
    assert "ART/FLAG.DDS" in capsys.readouterr().out
    assert main(["unpack", str(tmp_path / "disc.iso"), "--to", str(tmp_path / "out")]) == 0
    assert (tmp_path / "out/ART/DEEP/GULL.WAV").read_bytes() == FILES["ART/DEEP/GULL.WAV"]
    for kind in ("7z", "iso"):
        made = tmp_path / f"new.{kind}"
        assert main(["pack", str(tmp_path / "out"), "--layout", kind, "--out", str(made)]) != 0
        assert "read and not written" in capsys.readouterr().err and not made.exists()
        with pytest.raises(FurnelError, match="read and not written"):
            write_archive(made, FILES, None)
