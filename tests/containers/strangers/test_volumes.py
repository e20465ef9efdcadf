"""Archives of strangers whose data lies in numbered files beside an index; made and read by struct alone."""

from __future__ import annotations

import struct
from pathlib import Path

import pytest

from furnel.containers import Changes, dissect, layouts_folder, open_container, parse_layout, write_archive
from furnel.errors import FurnelError
from furnel.games.describing import survey
from tests.containers.test_proof import CHANGES, FILES, HEAD, Files

BY_NUMBER = (
    HEAD
    + """
[start]
fields = [{ name = "magic", type = "text", length = 4, is = "VOLS" }, { name = "count", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" }, { name = "at", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" }, { name = "home", type = "u16", holds = "volume" },
]
[entry]
align = 4
[volumes]
files = "{stem}_{number:02}.vol"
drop = "_dir"
first = 1
"""
)
STREAM = BY_NUMBER.replace(', { name = "home", type = "u16", holds = "volume" }', "").replace(
    "first = 1", "size = 100\nfirst = 1"
)


def by_number_write(files: Files, folder: Path) -> None:
    """Every second entry lies in the second volume."""
    volumes, rows = [b"", b""], b""
    for number, (name, data) in enumerate(files.items()):
        home = number % 2
        volumes[home] += bytes(-len(volumes[home]) % 4)
        rows += struct.pack("<24sIIH", name.encode(), len(volumes[home]), len(data), home + 1)
        volumes[home] += data
    (folder / "a_dir.k").write_bytes(b"VOLS" + struct.pack("<I", len(files)) + rows + b"SIGNED")
    for number, data in enumerate(volumes, 1):
        (folder / f"a_{number:02}.vol").write_bytes(data)


def by_number_read(folder: Path) -> Files:
    data, out = (folder / "a_dir.k").read_bytes(), {}
    for row in range(struct.unpack_from("<I", data, 4)[0]):
        name, at, size, home = struct.unpack_from("<24sIIH", data, 8 + 34 * row)
        volume = (folder / f"a_{home:02}.vol").read_bytes()
        assert at % 4 == 0
        out[name.rstrip(b"\0").decode()] = volume[at : at + size]
    assert data.endswith(b"SIGNED")
    return out


def stream_write(files: Files, folder: Path) -> None:
    """One stream, cut every 100 bytes, also within entries."""
    rows = stream = b""
    for name, data in files.items():
        stream += bytes(-len(stream) % 4)
        rows += struct.pack("<24sII", name.encode(), len(stream), len(data))
        stream += data
    (folder / "a_dir.k").write_bytes(b"VOLS" + struct.pack("<I", len(files)) + rows)
    for number in range(-(-len(stream) // 100)):
        (folder / f"a_{number + 1:02}.vol").write_bytes(stream[100 * number : 100 * number + 100])


def stream_read(folder: Path) -> Files:
    volumes = [file.read_bytes() for file in sorted(folder.glob("a_*.vol"))]
    assert all(len(volume) == 100 for volume in volumes[:-1]) and 0 < len(volumes[-1]) <= 100
    data, stream, out = (folder / "a_dir.k").read_bytes(), b"".join(volumes), {}
    for row in range(struct.unpack_from("<I", data, 4)[0]):
        name, at, size = struct.unpack_from("<24sII", data, 8 + 32 * row)
        out[name.rstrip(b"\0").decode()] = stream[at : at + size]
    return out


KINDS = {
    "by number": (BY_NUMBER, by_number_write, by_number_read),
    "one stream": (STREAM, stream_write, stream_read),
}


@pytest.fixture
def homes(tmp_path: Path) -> tuple[Path, Path]:
    for name in ("old", "new"):
        (tmp_path / name).mkdir()
    return tmp_path / "old", tmp_path / "new"


@pytest.mark.parametrize("change", CHANGES)
@pytest.mark.parametrize("name", KINDS)
def test_a_reader_of_its_own_finds_what_was_asked_for(
    name: str, change: str, homes: tuple[Path, Path]
) -> None:
    layout, write, read = KINDS[name]
    old, new = homes
    write(FILES, old)
    before = {file.name: file.read_bytes() for file in old.iterdir()}
    container = open_container(old / "a_dir.k", parse_layout(layout, "k"))
    assert {entry.path: container.read(entry.path) for entry in container.entries()} == FILES
    assert container.peek("d/four.txt", 9) == b"fourfourf"
    container.rewrite(new / "a_dir.k", CHANGES[change][0])
    assert read(new) == CHANGES[change][1](dict(FILES))
    container.rewrite(old / "a_dir.k", CHANGES[change][0])  # in its own place, too
    assert {file.name: file.read_bytes() for file in old.iterdir()} == {
        file.name: file.read_bytes() for file in new.iterdir()
    }
    assert before.keys() <= {file.name for file in new.iterdir()}


@pytest.mark.parametrize("name", KINDS)
def test_an_unchanged_copy_is_the_same_and_a_new_archive_is_read(name: str, homes: tuple[Path, Path]) -> None:
    layout, write, _ = KINDS[name]
    old, new = homes
    write(FILES, old)
    open_container(old / "a_dir.k", parse_layout(layout, "k")).rewrite(new / "a_dir.k", Changes())
    assert {file.name: file.read_bytes() for file in old.iterdir()} == {
        file.name: file.read_bytes() for file in new.iterdir()
    }
    made = new / "made"
    made.mkdir()
    write_archive(made / "a_dir.k", FILES, parse_layout(layout, "k"))
    again = open_container(made / "a_dir.k", parse_layout(layout, "k"))
    assert {entry.path: again.read(entry.path) for entry in again.entries()} == FILES


def test_the_bench_and_a_new_game_know_which_files_belong_together(
    homes: tuple[Path, Path], monkeypatch: pytest.MonkeyPatch
) -> None:
    old, new = homes
    monkeypatch.setenv("FURNEL_STATE", str(new))
    by_number_write(FILES, old)
    layouts_folder().mkdir(parents=True)
    (layouts_folder() / "k.toml").write_text(BY_NUMBER)
    seen = dissect(old / "a_dir.k", parse_layout(BY_NUMBER, "k"))
    assert seen.faults == () and [entry.path for entry in seen.entries] == [*FILES]
    found = {one.path: (one.standing, one.note) for one in survey(old).sightings}
    assert found["a_dir.k"][0] == "archive"
    assert found["a_01.vol"] == found["a_02.vol"] == ("side", "belongs to a_dir.k")


def test_what_is_missing_or_in_the_way_is_said(homes: tuple[Path, Path]) -> None:
    old, new = homes
    by_number_write(FILES, old)
    layout = parse_layout(BY_NUMBER, "k")
    container = open_container(old / "a_dir.k", layout)
    (new / "a_03.vol").write_bytes(b"another archive's")
    with pytest.raises(FurnelError, match="one more volume"):
        container.rewrite(new / "a_dir.k", CHANGES["more"][0])
    assert (new / "a_03.vol").read_bytes() == b"another archive's" and not (new / "a_dir.k").exists()
    container.close()
    (old / "a_02.vol").unlink()
    with pytest.raises(FurnelError, match="volume 2, and there are 1"):
        open_container(old / "a_dir.k", layout)
    (old / "a_01.vol").unlink()
    with pytest.raises(FurnelError, match="no a_01.vol beside it"):
        open_container(old / "a_dir.k", layout)


@pytest.mark.parametrize(
    ("old", "new", "why"),
    [
        ("{stem}_{number:02}.vol", "{stem}.vol", "{number}"),
        ("{stem}_{number:02}.vol", "../{number}", "pattern"),
        ("first = 1", "first = 1\nsize = 9", "either entries tell their volume"),
        ("[volumes]", "[lost]", "lost"),
        ('holds = "offset"', 'holds = "offset", means = "value + data_start"', "data_start"),
    ],
)
def test_volumes_that_cannot_be_are_refused(old: str, new: str, why: str) -> None:
    with pytest.raises(FurnelError) as refusal:
        parse_layout(BY_NUMBER.replace(old, new), "k")
    assert why in refusal.value.sentence()
