"""Archives that nobody described: guesses, anatomy, carving."""

from __future__ import annotations

import io
import struct
from collections import Counter
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from furnel.containers import (
    Carved,
    Changes,
    dissect,
    find_files,
    find_layout,
    guess,
    open_container,
    parse_layout,
    unpack_to,
)
from furnel.errors import FurnelError
from tarnlight import loaders


def test_a_guess_is_a_description_that_reads_the_whole_archive(forged: Path, tmp_path: Path) -> None:
    file = tmp_path / "pictures.pak"  # no ending tells what it is
    file.write_bytes((forged / "data" / "art.tlp").read_bytes())
    found = guess(file)
    words = " ".join(one.text for one in found.guesses)
    assert "TLP2" in words and "every 64 bytes" in words and "zlib" in words and "count of entries" in words
    layout = parse_layout(found.draft, "the guess")
    theirs = loaders.load_container(forged / "data" / "art.tlp")
    container = open_container(file, layout)
    assert {entry.path: container.read(entry.path) for entry in container.entries()} == theirs
    anatomy = dissect(file, layout)
    assert not anatomy.faults and anatomy.explained > 0.99
    assert len(anatomy.entries) == len(theirs)


def test_an_anatomy_names_every_field_where_it_lies(forged: Path) -> None:
    file = forged / "data" / "art.tlp"
    data = file.read_bytes()
    spans = dissect(file, find_layout("tlp")).spans
    named = {(span.group, span.name): span for span in spans if span.kind == "field"}
    count = named["start", "count"]
    assert (count.start, count.end) == (8, 12) and count.shown == str(struct.unpack_from("<I", data, 8)[0])
    third = named["entry 2", "offset"]
    assert (
        third.start == 16 + 2 * 64 + 48 and int(third.shown) == struct.unpack_from("<I", data, third.start)[0]
    )
    assert any(span.kind == "data" and span.start == int(third.shown) for span in spans)
    for name in ("tlc", "tlm", "tlh", "tls"):
        other = next((forged / "data").glob(f"*.{name}"))
        assert not dissect(other, find_layout(name)).faults


@pytest.mark.parametrize(
    ("old", "new", "says"),
    [
        ('holds = "offset"', 'holds = "offset", means = "value + 3"', "damaged|outside"),
        ('packed = "zlib"', 'packed = "zstd"', "zstd data is damaged"),
        ("length = 48", "length = 44", "UTF-8|safe|outside|lie"),
        ('is = "TLP2"', 'is = "TLP9"', "is b'TLP2', not 'TLP9'"),
    ],
)
def test_what_does_not_add_up_is_told_and_nothing_is_raised(
    forged: Path, old: str, new: str, says: str
) -> None:
    import re

    text = (Path(__file__).parents[2] / "src/furnel/containers/layouts/tlp.toml").read_text()
    assert old in text
    anatomy = dissect(forged / "data" / "art.tlp", parse_layout(text.replace(old, new), "x"))
    assert anatomy.faults and re.search(says, " ".join(fault.text for fault in anatomy.faults))


def test_known_files_are_carved_whole_and_replaced_in_place(forged: Path, tmp_path: Path) -> None:
    theirs = loaders.load_container(forged / "data" / "cast.tlc")
    wav = loaders.load_container(forged / "data" / "bank0.tls")["bank0/004.wav"]
    dds = loaders.load_container(forged / "data" / "hud.tlp")["hud/oil.dds"]
    ogg = loaders.load_container(forged / "data" / "music.tlm")["music/fog.ogg"]
    zipped = (forged / "data" / "rules.zip").read_bytes()
    parts = [*theirs.values(), wav, dds, ogg, zipped]
    blob = b"".join(b"\x01junk" * n + part for n, part in enumerate(parts)) + b"the end"
    file = tmp_path / "blob.dat"
    file.write_bytes(blob)
    carved = Carved(file)
    found = [carved.read(entry.path) for entry in carved.entries()]
    assert found == parts
    assert [entry.path.rpartition(".")[2] for entry in carved.entries()][-4:] == ["wav", "dds", "ogg", "zip"]
    first = carved.entries()[0].path
    carved.rewrite(tmp_path / "new.dat", Changes({first: b"\x89PNG small"}))
    changed = (tmp_path / "new.dat").read_bytes()
    assert (
        len(changed) == len(blob)
        and changed[:10] == b"\x89PNG small"
        and changed[len(parts[0]) :] == blob[len(parts[0]) :]
    )
    with pytest.raises(FurnelError, match="room for"):
        carved.rewrite(tmp_path / "no.dat", Changes({first: bytes(len(parts[0]) + 1)}))
    with pytest.raises(FurnelError, match="nobody knows"):
        carved.rewrite(tmp_path / "no.dat", Changes(remove=frozenset([first])))
    assert unpack_to(carved, tmp_path / "out") == len(parts)


@given(st.data())
def test_damaged_and_made_up_bytes_carve_to_whole_files_or_to_nothing(data: st.DataObject) -> None:
    heads = [
        b"\x89PNG\r\n\x1a\n",
        b"RIFF",
        b"OggS\0\2",
        b"DDS \x7c\0\0\0",
        b"\xabKTX 20\xbb\r\n\x1a\n",
        b"PK\3\4",
        b"PK\5\6",
    ]
    blob = b"".join(
        data.draw(st.lists(st.one_of(st.sampled_from(heads), st.binary(max_size=90)), max_size=12))
    )
    end = 0
    for find in find_files(memoryview(blob)):
        assert end <= find.offset and find.size > 0 and find.offset + find.size <= len(blob)
        end = find.offset + find.size


@given(st.binary(max_size=3000))
def test_guesses_of_anything(tmp_path_factory: pytest.TempPathFactory, data: bytes) -> None:
    file = tmp_path_factory.mktemp("any") / "x.dat"
    file.write_bytes(data)
    layout = parse_layout(guess(file).draft, "draft")
    dissect(file, layout)


def test_what_begins_like_a_file_and_does_not_hold_together_is_no_find(forged: Path) -> None:
    sheet = loaders.load_container(forged / "data" / "cast.tlc")["cast/otter_walk.png"]
    tune = next(
        data
        for path, data in loaders.load_container(forged / "data" / "music.tlm").items()
        if path.endswith(".ogg")
    )
    bell = loaders.load_container(forged / "data" / "bank0.tls")["bank0/000.wav"]
    whole = b"noise" * 99 + sheet + bytes(40) + tune + bytes(9) + bell
    assert [find.kind for find in find_files(memoryview(whole))] == ["png", "ogg", "wav"]
    for data, at in ((sheet, 60), (tune, len(tune) // 2), (bell, 22)):
        spoilt = bytearray(data)
        spoilt[at] ^= 0x80
        if data is bell:
            spoilt[22:24] = bytes(2)  # no channels
        broken: Counter[str] = Counter()
        assert (
            find_files(memoryview(b"noise" * 99 + bytes(spoilt)), broken=broken) == [] and broken.total() >= 1
        )


@pytest.mark.parametrize("around", [b"\x00", b"RI", b"RIFF", b"PK\x03\x04OggS\x89PNG"])
def test_files_in_much_else_are_found_where_they_lie(around: bytes) -> None:
    """What lies around begins like a signature at every place, so that many more places are looked at than are one."""
    chance, image = np.random.default_rng(3), io.BytesIO()
    Image.fromarray(chance.integers(0, 255, (5, 7, 3), np.uint8)).save(image, "PNG")
    size = 33 << 20  # more than is looked at in one go
    data = bytearray((around * (2 << 20))[: 2 << 20]) + bytes(size - (2 << 20))
    apart = range(4 << 20, 31 << 20, 1_300_001)
    places = [0, 999, *apart, (32 << 20) - 3, size - len(image.getvalue())]
    data = bytearray((around * (2 << 20))[: 2 << 20]) + bytes(size - (2 << 20))
    places = sorted(
        {
            0,
            999,
            *chance.integers(4 << 20, size - 500, 20).tolist(),
            (32 << 20) - 3,
            size - len(image.getvalue()),
        }
    )
    for at in places:
        data[at : at + len(image.getvalue())] = image.getvalue()
    assert [find.offset for find in find_files(memoryview(data))] == places
