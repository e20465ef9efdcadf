"""An index is worked out from what is known to lie in an archive: kinds that nobody described, made by struct alone."""

from __future__ import annotations

import io
import struct
import zlib
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pytest
import soundfile
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from furnel.containers import Changes, dissect, guess, open_container, open_layout, parse_layout
from furnel.errors import FurnelError
from tests.containers.test_proof import Files, ends_write, titled_write

Writer = Callable[[Files], bytes]


def files(number: int = 9) -> Files:
    """Pictures and sounds that carving knows, and a text that it does not."""
    chance, out = np.random.default_rng(8), {}
    for step in range(number):
        made = io.BytesIO()
        if step % 3:
            Image.fromarray(chance.integers(0, 255, (4 + step, 9, 3), np.uint8)).save(made, "PNG")
            out[f"art/hull_{step}.png"] = made.getvalue()
        else:
            soundfile.write(made, chance.random(50 + 7 * step) - 0.5, 8000, format="WAV")
            out[f"sfx/horn_{step}.wav"] = made.getvalue()
        if step == 4:
            out["rules/boats.txt"] = b"otter = 7\n" * 3
    return out


def rows_then_data(
    files: Files, form: str, head: str, unit: int = 1, relative: bool = False, room: int = 32
) -> bytes:
    """Magic, count, then name, offset, size of each; `form` and `head` are how struct writes the numbers."""
    size = struct.calcsize(head) + 4 + len(files) * (room + struct.calcsize(form))
    at = -(-size // unit) * unit
    begin, rows, body = at, b"", b""
    for name, data in files.items():
        place = at + len(body) - (begin if relative else 0)
        rows += name.encode().ljust(room, b"\0") + struct.pack(form, place // unit, len(data))
        body += data + bytes(-len(data) % unit)
    return (b"HOLD" + struct.pack(head, len(files)) + rows).ljust(begin, b"\0") + body


def shortened(files: Files) -> Files:
    return {name[-12:].replace("/", "_"): data for name, data in files.items()}


def any_length(files: Files, prefix: str, zero: bool = False) -> bytes:
    """Names of any length, then offset and size."""

    def rows(begin: int) -> bytes:
        out, at = b"", begin
        for name, data in files.items():
            text = name.encode() + b"\0" if zero else struct.pack(prefix, len(name)) + name.encode()
            out += text + struct.pack("<II", at, len(data))
            at += len(data)
        return out

    begin = 8 + len(rows(0))
    return struct.pack("<4sI", b"ANYL", len(files)) + rows(begin) + b"".join(files.values())


def at_the_back(files: Files) -> bytes:
    body, rows = b"BACKDATA", b""
    for name, data in files.items():
        rows += struct.pack("<IIHH40s", len(data), len(body), 7, 1, name.encode())
        body += data
    return body + rows + struct.pack("<II4s", len(body), len(files), b"KCAB")


def chained(files: Files, form: str, named: bool, align: int) -> bytes:
    out = b"CHAINED!"
    for name, data in files.items():
        head = (
            bytes([len(name)]) + name.encode() if named else name.rpartition("/")[2].encode().ljust(24, b"\0")
        )
        out += head + struct.pack(form, len(data)) + data
        out += bytes(-len(out) % align)
    return out


def zipped(files: Files) -> bytes:
    """Everything packed: nothing can be carved, and what unpacks has known places."""
    packed = {name: zlib.compress(data + b"again and again" * 9) for name, data in files.items()}
    at, rows = 8 + 44 * len(files), b""
    for name, data in packed.items():
        rows += struct.pack("<32sIII", name.encode(), at, len(data), len(files[name]) + 15 * 9)
        at += len(data)
    return struct.pack("<4sI", b"ZIPD", len(files)) + rows + b"".join(packed.values())


def masked(data: bytes, begin: int) -> bytes:
    return data[:begin] + bytes(byte ^ 0xA5 for byte in data[begin:])


KINDS: dict[str, Writer] = {
    "plain": lambda files: rows_then_data(files, "<II", "<I"),
    "big-endian": lambda files: rows_then_data(files, ">II", ">I"),
    "64 bits": lambda files: rows_then_data(files, "<QQ", "<Q"),
    "sectors": lambda files: rows_then_data(files, "<II", "<I", unit=2048),
    "small units": lambda files: rows_then_data(files, ">II", ">H", unit=16),
    "from where the data begins": lambda files: rows_then_data(files, "<II", "<I", relative=True),
    "short names": lambda files: rows_then_data(shortened(files), "<II", "<I", room=12),
    "ends": ends_write,
    "a title before": titled_write,
    "prefixed by a byte": lambda files: any_length(files, "<B"),
    "prefixed by two": lambda files: any_length(files, "<H"),
    "prefixed by four": lambda files: any_length(files, "<I"),
    "zero behind the name": lambda files: any_length(files, "", zero=True),
    "at the back": at_the_back,
    "chain of names": lambda files: chained(files, "<I", True, 1),
    "chain with rooms": lambda files: chained(files, ">I", False, 4),
    "packed": zipped,
    "masked": lambda files: masked(rows_then_data(files, "<II", "<I"), 8 + 40 * len(files)),
}  # fmt: skip


@pytest.mark.parametrize("name", KINDS)
def test_entries_are_read_with_their_names(name: str, tmp_path: Path) -> None:
    wanted = files()
    file = tmp_path / "unknown.hold"
    file.write_bytes(KINDS[name](wanted))
    found = guess(file)
    container = open_container(file, parse_layout(found.draft, "the guess"))
    read = {entry.path: container.read(entry.path) for entry in container.entries()}
    print(found.draft)
    assert sorted(read.values()) == sorted(
        data + b"again and again" * 9 if name == "packed" else data for data in wanted.values()
    )
    assert {path.rpartition("/")[2][-8:] for path in read} == {
        path.rpartition("/")[2][-8:] for path in wanted
    }
    assert any("100%" in one.text for one in found.guesses)


@pytest.mark.parametrize(
    ("name", "form", "begin", "unit"), [("sectors", "<II", 8, 2048), ("small units", ">II", 6, 16)]
)
def test_a_guess_can_be_written_with(name: str, form: str, begin: int, unit: int, tmp_path: Path) -> None:
    wanted = files()
    (tmp_path / "a.hold").write_bytes(KINDS[name](wanted))
    opened = open_container(tmp_path / "a.hold", parse_layout(guess(tmp_path / "a.hold").draft, "the guess"))
    opened.rewrite(
        tmp_path / "b.hold", Changes(add={"new.txt": b"new" * 700}, remove=frozenset({"sfx/horn_0.wav"}))
    )
    data, out = (tmp_path / "b.hold").read_bytes(), {}
    for row in range(len(wanted)):
        at = begin + 40 * row
        place, size = struct.unpack_from(form, data, at + 32)
        out[data[at : at + 32].rstrip(b"\0").decode()] = data[place * unit : place * unit + size]
    assert out == {k: v for k, v in wanted.items() if k != "sfx/horn_0.wav"} | {"new.txt": b"new" * 700}


@pytest.mark.parametrize("name", ['we"ird.hold', "back\\slash.hold", "no ending", "a.h\x7fld", "x.[1]"])
def test_whatever_a_file_is_called_the_guess_is_a_layout(name: str, tmp_path: Path) -> None:
    for data in (KINDS["plain"](files()), b"HOLD" + bytes(99), b""):
        (tmp_path / name).write_bytes(data)
        parse_layout(guess(tmp_path / name).draft, "the guess")


@given(st.binary(max_size=3000), st.integers(0, 400))
def test_any_bytes_give_a_valid_description(
    tmp_path_factory: pytest.TempPathFactory, data: bytes, cut: int
) -> None:
    file = tmp_path_factory.mktemp("g") / "x.hold"
    file.write_bytes(KINDS["plain"](files(4))[:cut] + data)
    parse_layout(guess(file).draft, "the guess")


@pytest.mark.parametrize("name", ["groups by ending", "folders with entries"])
def test_groups_are_read_under_the_names_in_their_records(name: str, tmp_path: Path) -> None:
    from tests.containers.strangers.test_folders import KINDS as GROUPED

    wanted, file = files(), tmp_path / "a.k"
    file.write_bytes(GROUPED[name].write(wanted))
    opened = open_container(file, parse_layout(guess(file).draft, "k"))
    found = {entry.path: opened.read(entry.path) for entry in opened.entries()}
    opened.close()
    assert sorted(found.values()) == sorted(wanted.values())
    assert all(path in (name, name.rpartition(".")[0], name.rpartition("/")[2]) for path, name in zip(
        sorted(found, key=lambda path: found[path]), sorted(wanted, key=lambda path: wanted[path]), strict=True
    ))  # fmt: skip


WIDE = """furnel-layout = 1
name = "k"
title = "k"
files = ["*.k"]
[start]
fields = [{ name = "magic", type = "text", length = 4, is = "HOLD" }, { name = "many", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 32, holds = "path" }, { name = "at", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
]
"""


@pytest.mark.parametrize("room", [16, 24, 31, 33, 48])
def test_a_wrong_room_for_names_is_told_with_the_right_one(room: int, tmp_path: Path) -> None:
    file = tmp_path / "a.k"
    file.write_bytes(rows_then_data(files(), "<II", "<I"))
    text = WIDE.replace("length = 32", f"length = {room}")
    with pytest.raises(FurnelError, match=f"Names of 32 letters would follow .* has {room}"):
        open_container(file, parse_layout(text, "k"))
    assert any("Names of 32 letters" in fault.text for fault in dissect(file, parse_layout(text, "k")).faults)


def test_a_missing_count_is_told_and_a_mark_before_the_text_is_fine(tmp_path: Path) -> None:
    file = tmp_path / "a.k"
    file.write_bytes(rows_then_data(files(), "<II", "<I"))
    with pytest.raises(FurnelError, match="No field holds the entry count"):
        open_container(file, parse_layout(WIDE.replace(', holds = "entry count"', ""), "k"))
    (tmp_path / "k.toml").write_text(WIDE, "utf-8-sig")
    opened = open_container(file, open_layout(tmp_path / "k.toml"))
    assert {entry.path for entry in opened.entries()} == set(files())
    opened.close()
