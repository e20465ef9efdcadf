"""Bare pixels and samples in archives and loose files, told by fields: read by Pillow and libsndfile, checked by struct."""

from __future__ import annotations

import io
import struct
from pathlib import Path
from random import Random

import numpy as np
import pytest
import soundfile
from hypothesis import assume, given
from hypothesis import strategies as st
from PIL import Image

from furnel.containers import (
    Changes,
    dissect,
    open_container,
    open_inside,
    pack_folder,
    parse_layout,
    write_archive,
)
from furnel.containers.bare import dressed, undressed
from furnel.containers.container import Order
from furnel.containers.folder import Folder
from furnel.containers.layoutfiles import layouts_folder
from furnel.containers.rawparts import SAMPLES, RawPart
from furnel.containers.schema import InsidePart
from furnel.errors import FurnelError
from furnel.imagefiles import encode_texture, write_texture
from furnel.images.picture import Picture

PLATES = """furnel-layout = 1
name = "plates"
title = "Bare pictures, told by the index"
files = ["*.plates"]
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" }, { name = "begin", type = "u32", holds = "offset" },
  { name = "stored", type = "u32", holds = "size" }, { name = "wide", type = "u16", holds = "width" },
  { name = "high", type = "u16", holds = "height" }, { name = "kind", type = "u8", holds = "pixel format" },
  { name = "steps", type = "u8", holds = "levels", means = "value + 1" },
  { name = "bits", type = "u8", holds = "sample format" },
  { name = "ears", type = "u8", holds = "channels" }, { name = "speed", type = "u32", holds = "rate" },
]
[[raw]]
files = "art/*"
pixels = { 4 = "BGRA8", 7 = "BC1" }
[[raw]]
files = "sfx/*"
order = "big"
samples = { 8 = "signed 8", 16 = "signed 16" }
"""
ROW = struct.Struct("<24sIIHHBBBBI")


def plates(rows: list[tuple[bytes, bytes, tuple[int, ...]]]) -> bytes:
    at, head, body = 4 + ROW.size * len(rows), b"", b""
    for name, data, facts in rows:
        head += ROW.pack(name, at + len(body), len(data), *facts)
        body += data
    return struct.pack("<I", len(rows)) + head + body


def rows_in(file: Path) -> dict[bytes, tuple[bytes, tuple[int, ...]]]:
    data = file.read_bytes()
    out = {}
    for number in range(struct.unpack_from("<I", data)[0]):
        name, at, size, *facts = ROW.unpack_from(data, 4 + ROW.size * number)
        out[name.rstrip(b"\0")] = data[at : at + size], tuple(facts)
    return out


def dds(pixels: np.ndarray, fmt: str, levels: int = 1) -> bytes:
    chain = [Picture(np.ascontiguousarray(pixels[:: 1 << step, :: 1 << step])) for step in range(levels)]
    return write_texture(encode_texture(chain, fmt, "DDS"))


@pytest.fixture
def archive(tmp_path: Path) -> Path:
    blue = np.zeros((2, 3, 4), np.uint8)
    blue[..., 0], blue[..., 3], blue[0, 0, 2] = 200, 255, 90  # BGRA: blue all over, some red in the first
    horn = np.array([[100, -100], [7, -7]], ">i2")
    file = tmp_path / "a.plates"
    file.write_bytes(
        plates([
            (b"art/flag", blue.tobytes(), (3, 2, 4, 0, 0, 0, 0)),
            (b"art/deck", bytes(range(8)), (4, 4, 7, 0, 0, 0, 0)),
            (b"sfx/horn", horn.tobytes(), (0, 0, 0, 0, 16, 2, 22050)),
            (b"notes.txt", b"plain", (0, 0, 0, 0, 0, 0, 0)),
        ])
    )  # fmt: skip
    return file


def test_bare_pictures_and_sounds_are_files_that_others_read(archive: Path) -> None:
    container = open_container(archive, parse_layout(PLATES, "p"))
    sizes = {entry.path: entry.size for entry in container.entries()}
    assert list(sizes) == ["art/flag.dds", "art/deck.dds", "sfx/horn.wav", "notes.txt"]
    assert all(len(container.read(path)) == size for path, size in sizes.items())
    assert all(container.read(path)[:64] == container.peek(path, 64) for path in sizes)
    shown = np.asarray(Image.open(io.BytesIO(container.read("art/flag.dds"))).convert("RGBA"))
    assert shown.shape == (2, 3, 4) and shown[0, 0].tolist() == [90, 0, 200, 255] and shown[1, 2, 2] == 200
    assert Image.open(io.BytesIO(container.read("art/deck.dds"))).size == (4, 4)
    heard, rate = soundfile.read(io.BytesIO(container.read("sfx/horn.wav")), dtype="int16")
    assert rate == 22050 and heard.tolist() == [[100, -100], [7, -7]]
    with pytest.raises(FurnelError, match="no entry"):
        container.read("art/flag")


def test_a_replacement_of_another_size_and_format_is_told_in_the_index(archive: Path, tmp_path: Path) -> None:
    container = open_container(archive, parse_layout(PLATES, "p"))
    grown = np.full((8, 4, 4), 255, np.uint8)
    sound = io.BytesIO()
    soundfile.write(sound, np.array([0, 32767, -32768], np.int16), 8000, "PCM_U8", format="WAV")
    target = tmp_path / "b.plates"
    container.rewrite(
        target,
        Changes(
            replace={"art/flag.dds": dds(grown, "BC1", 3), "sfx/horn.wav": sound.getvalue()},
            add={"art/new.dds": dds(grown[:2, :1], "BGRA8"), "more.txt": b"more"},
            remove=frozenset({"notes.txt"}), rename={"art/deck.dds": "art/hold.dds"},
        ),
    )  # fmt: skip
    found = rows_in(target)
    assert set(found) == {b"art/flag", b"art/hold", b"art/new", b"sfx/horn", b"more.txt"}
    data, facts = found[b"art/flag"]
    assert facts[:4] == (4, 8, 7, 2) and len(data) == 16 + 8 + 8
    assert found[b"art/new"] == (b"\xff" * 8, (1, 2, 4, 0, 0, 0, 0))
    assert found[b"sfx/horn"][1][4:] == (8, 1, 8000)
    assert np.frombuffer(found[b"sfx/horn"][0], np.int8).tolist() == [0, 127, -128]
    assert found[b"art/hold"] == (bytes(range(8)), (4, 4, 7, 0, 0, 0, 0))


@pytest.mark.parametrize(
    ("changes", "why"),
    [
        (Changes(replace={"art/flag.dds": dds(np.zeros((4, 4, 4), np.uint8), "BC3")}), "BC1, BGRA8"),
        (Changes(replace={"art/flag.dds": b"GIF89a"}), "damaged"),
        (Changes(replace={"sfx/horn.wav": b"RIFF"}), "no WAV"),
        (Changes(add={"art/bare": b"1234"}), "bare data"),
        (Changes(rename={"art/flag.dds": "art/flag"}), "bare data"),
    ],
)
def test_what_the_archive_cannot_say_is_refused(
    archive: Path, changes: Changes, why: str, tmp_path: Path
) -> None:
    container = open_container(archive, parse_layout(PLATES, "p"))
    with pytest.raises(FurnelError, match=why):
        container.rewrite(tmp_path / "b.plates", changes)
    assert not (tmp_path / "b.plates").exists()


def test_damage_is_told_when_the_entry_is_read_not_before(archive: Path) -> None:
    data = bytearray(archive.read_bytes())
    data[4 + 24 + 8] = 200  # the flag's width
    archive.write_bytes(data)
    container = open_container(archive, parse_layout(PLATES, "p"))
    assert container.entries()[0].path == "art/flag.dds"
    with pytest.raises(FurnelError, match="200 × 2 pixels in BGRA8"):
        container.read("art/flag.dds")


SKIN = """furnel-layout = 1
name = "skin"
title = "A picture behind twelve bytes"
files = ["*.skin"]
[single]
fields = [
  { name = "magic", type = "text", length = 4, is = "SKIN" }, { name = "mood", type = "u16" },
  { name = "wide", type = "u16", holds = "width" }, { name = "high", type = "u16", holds = "height" },
  { name = "spare", type = "u16", new = 5 },
]
pixels = "RGB565"
order = "big"
from-below = true
row-align = 4
levels = 1
"""


def skin(mood: int, rows: list[list[int]], spare: int, behind: bytes = b"") -> bytes:
    wide = len(rows[0])
    body = b"".join(struct.pack(f">{wide}H", *row).ljust(-(-wide * 2 // 4) * 4, b"\0") for row in rows[::-1])
    return b"SKIN" + struct.pack(">HHHH", mood, wide, len(rows), spare) + body + behind


def test_a_loose_file_behind_a_header_is_a_picture_and_keeps_what_nobody_understands(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    layouts_folder().mkdir(parents=True)
    (layouts_folder() / "skin.toml").write_text(
        SKIN.replace("files =", 'byte-order = "big"\nfiles ='), "utf-8"
    )
    game = tmp_path / "game"
    game.mkdir()
    (game / "crew.skin").write_bytes(skin(77, [[0xF800, 0x07E0, 0x001F], [0, 0, 0xFFFF]], 9, b"tail"))
    container = open_inside(Folder(game), [InsidePart(files="*.skin", layout="skin")])
    shown = np.asarray(Image.open(io.BytesIO(container.read("crew.skin.dds"))).convert("RGB"))
    assert shown[0, :, 0].tolist() == [255, 0, 0] and shown[1, 2].tolist() == [255, 255, 255]
    fresh = np.zeros((1, 2, 4), np.uint8)
    fresh[..., 0], fresh[..., 3] = 255, 255
    container.rewrite(tmp_path / "out", Changes(replace={"crew.skin.dds": dds(fresh, "RGB565")}))
    assert (tmp_path / "out/crew.skin").read_bytes() == skin(77, [[0xF800, 0xF800]], 9, b"tail")
    (tmp_path / "one").mkdir()
    (tmp_path / "one/x.dds").write_bytes(dds(fresh, "RGB565"))
    layout = parse_layout(SKIN.replace("files =", 'byte-order = "big"\nfiles ='), "s")
    pack_folder(tmp_path / "one", layout, tmp_path / "x.skin")
    assert (tmp_path / "x.skin").read_bytes() == skin(0, [[0xF800, 0xF800]], 5)
    opened = open_container(tmp_path / "x.skin")
    assert [entry.path for entry in opened.entries()] == ["x.skin.dds"]
    looked = dissect(tmp_path / "x.skin", layout)
    assert [(span.name, span.shown) for span in looked.spans if span.kind == "field"][2:4] == [
        ("wide", "2"),
        ("high", "1"),
    ]
    assert looked.explained == 1 and not looked.faults


def test_a_new_archive_of_bare_pictures_is_told_all_about_them(tmp_path: Path) -> None:
    picture = dds(np.full((4, 8, 4), 9, np.uint8), "BGRA8", 2)
    write_archive(tmp_path / "n.plates", {"art/a.dds": picture}, parse_layout(PLATES, "p"))
    data, facts = rows_in(tmp_path / "n.plates")[b"art/a"]
    assert facts[:4] == (8, 4, 4, 1) and len(data) == (32 + 8) * 4


@given(
    st.sampled_from(["BGRA8", "RGB565", "L8", "RGB8", "BC1", "BC7", "RGBA16F"]), st.integers(1, 9), st.integers(1, 9),
    st.integers(1, 3), st.booleans(), st.booleans(), st.sampled_from([1, 4, 16]),
    st.sampled_from(["little", "big"]), st.randoms(),
)  # fmt: skip
def test_bare_pixels_come_back_to_the_byte(
    fmt: str,
    wide: int,
    high: int,
    levels: int,
    below: bool,
    reverse: bool,
    align: int,
    order: Order,
    chance: Random,
) -> None:
    from furnel.images.formats import FORMATS, full_levels

    block = FORMATS[fmt].block
    levels = min(levels, full_levels(wide, high))
    below, align = (False, 1) if block > 1 else (below, align)
    rule = RawPart.model_validate({
        "pixels": fmt, "from-below": below, "row-align": align, "smallest-first": reverse, "levels": levels,
        "fields": [{"name": "w", "type": "u16", "holds": "width"}, {"name": "h", "type": "u16", "holds": "height"}],
    })  # fmt: skip
    body = b""
    for level in range(levels)[::-1] if reverse else range(levels):
        w, h = max(wide >> level, 1), max(high >> level, 1)
        used = FORMATS[fmt].level_bytes(w, 1)
        row = bytes(chance.randrange(256) for _ in range(used)).ljust(-(-used // align) * align, b"\0")
        body += row * -(-h // block)
    bare = wide.to_bytes(2, order) + high.to_bytes(2, order) + body
    file = dressed(rule, memoryview(bare), {}, order, "x")
    again, facts = undressed(rule, file, memoryview(bare), {}, order, "x")
    assert again == bare and facts == {}


@given(
    st.sampled_from(sorted(SAMPLES)),
    st.integers(1, 3),
    st.integers(0, 20),
    st.sampled_from(["little", "big"]),
    st.randoms(),
)
def test_bare_samples_come_back_to_the_byte(
    kind: str, channels: int, frames: int, order: Order, chance: Random
) -> None:
    rule = RawPart.model_validate({"samples": kind, "rate": 8000, "channels": channels})
    bare = chance.randbytes(frames * channels * SAMPLES[kind][1] // 8)
    assume(not bare.startswith(b"wvpk"))  # libsndfile takes that for a packing, whatever the header says
    file = dressed(rule, memoryview(bare), {}, order, "x")
    info = soundfile.info(io.BytesIO(file))
    assert (info.frames, info.channels, info.samplerate) == (frames, channels, 8000)
    assert undressed(rule, file, memoryview(bare), {}, order, "x")[0] == bare
    faster = rule.model_copy(update={"rate": 9000})
    other = dressed(faster, memoryview(bare), {}, order, "x")
    with pytest.raises(FurnelError, match="could not tell"):
        undressed(rule, other, memoryview(bare), {}, order, "x")


# pixels that are numbers of colours

SAIL = """furnel-layout = 1
name = "sail"
title = "Pictures with palettes"
files = ["*.sail"]
[chain]
fields = [
  { name = "path", type = "text", length = 12, holds = "path" }, { name = "size", type = "u32", holds = "size" },
  { name = "wide", type = "u16", holds = "width" }, { name = "high", type = "u16", holds = "height" },
]
[[raw]]
files = "art/*"
pixels = "P8"
from-below = true
row-align = 4
palette = { colours = 4, format = "BGR8", place = "behind", clear = 3 }
[[raw]]
files = "ui/*"
pixels = "P8"
palette = { colours = 4, format = "RGB8", bits = 6, entry = "all.pal" }
"""
FOUR = [(10, 20, 30), (250, 0, 0), (0, 251, 1), (99, 99, 99)]


def sail(rows: list[list[int]], colours: list[tuple[int, int, int]]) -> bytes:
    body = b"".join(bytes(row).ljust(4, b"\0") for row in reversed(rows))
    return body + b"".join(bytes(reversed(colour)) for colour in colours)


def sailing(folder: Path) -> Path:
    shared = bytes(
        channel >> 2 for colour in [(0, 0, 0), (252 | 3, 0, 0), (0, 130, 0), (8, 8, 8)] for channel in colour
    )
    body = b""
    for name, data, size in [
        (b"art/flag", sail([[0, 1, 3], [2, 2, 1]], FOUR), (3, 2)), (b"ui/knob", bytes([0, 1, 2, 1]), (2, 2)),
        (b"all.pal", shared, (0, 0)),
    ]:  # fmt: skip
        body += struct.pack("<12sIHH", name, len(data), *size) + data
    (folder / "a.sail").write_bytes(body)
    return folder / "a.sail"


def tga(pixels: np.ndarray) -> bytes:
    out = io.BytesIO()
    Image.fromarray(pixels.astype(np.uint8)).save(out, "TGA")
    return out.getvalue()


def seen(data: bytes) -> np.ndarray:
    return np.asarray(Image.open(io.BytesIO(data)).convert("RGBA"))


def flag_in(file: Path) -> tuple[list[list[int]], list[tuple[int, ...]]]:
    """Numbers and colours of the first picture, as a game reads them."""
    data = file.read_bytes()
    _, size, wide, high = struct.unpack_from("<12sIHH", data)
    body, row = data[20 : 20 + size], wide + -wide % 4
    rows = [list(body[row * at : row * at + wide]) for at in reversed(range(high))]
    return rows, [tuple(reversed(body[row * high + 3 * place :][:3])) for place in range(4)]


def test_numbers_of_colours_are_pictures_that_others_read(tmp_path: Path) -> None:
    container = open_container(sailing(tmp_path), parse_layout(SAIL, "s"))
    sizes = {entry.path: entry.size for entry in container.entries()}
    assert list(sizes) == ["art/flag.tga", "ui/knob.tga", "all.pal"]
    assert all(len(container.read(path)) == size for path, size in sizes.items())
    flag = seen(container.read("art/flag.tga"))
    assert flag[..., :3].tolist() == [
        [[*FOUR[0]], [*FOUR[1]], [*FOUR[3]]],
        [[*FOUR[2]], [*FOUR[2]], [*FOUR[1]]],
    ]
    assert flag[..., 3].tolist() == [[255, 255, 0], [255, 255, 255]]
    assert seen(container.read("ui/knob.tga"))[..., :3].tolist() == [
        [[0, 0, 0], [255, 0, 0]],
        [[0, 130, 0], [255, 0, 0]],
    ]


def test_colours_keep_their_numbers_and_new_ones_take_those_that_are_free(tmp_path: Path) -> None:
    container = open_container(sailing(tmp_path), parse_layout(SAIL, "s"))
    turned = seen(container.read("art/flag.tga"))[::-1]
    container.rewrite(tmp_path / "b.sail", Changes({"art/flag.tga": tga(turned)}))
    assert flag_in(tmp_path / "b.sail") == ([[2, 2, 1], [0, 1, 3]], FOUR)
    wider = np.full((1, 5, 4), [1, 2, 3, 255])
    wider[0, 4], wider[0, 0] = [250, 0, 0, 255], [77, 77, 77, 0]
    container.rewrite(tmp_path / "c.sail", Changes({"art/flag.tga": tga(wider)}))
    rows, colours = flag_in(tmp_path / "c.sail")
    assert rows == [[3, 0, 0, 0, 1]] and colours == [(1, 2, 3), *FOUR[1:]]
    again = open_container(tmp_path / "c.sail", parse_layout(SAIL, "s"))
    assert again.read("ui/knob.tga") == container.read("ui/knob.tga")


@pytest.mark.parametrize(
    ("path", "pixels", "why"),
    [
        ("art/flag.tga", np.arange(60).reshape(5, 4, 3), "20 colours, and its palette holds 4"),
        ("ui/knob.tga", np.full((2, 2, 3), 9), "not in all.pal"),
        ("ui/knob.tga", np.full((2, 2, 4), 8), "transparent"),
    ],
)
def test_colours_that_a_palette_cannot_have_are_refused(
    path: str, pixels: np.ndarray, why: str, tmp_path: Path
) -> None:
    container = open_container(sailing(tmp_path), parse_layout(SAIL, "s"))
    with pytest.raises(FurnelError, match=why):
        container.rewrite(tmp_path / "b.sail", Changes({path: tga(pixels)}))
    assert not (tmp_path / "b.sail").exists()


@given(st.data())
def test_pictures_with_palettes_come_back_to_the_byte(data: st.DataObject) -> None:
    place, form = (
        data.draw(st.sampled_from(["before", "behind"])),
        data.draw(st.sampled_from(["RGB8", "BGRA8", "RGBA8"])),
    )
    clear, bits = data.draw(st.sampled_from([None, 0, 2])), data.draw(st.sampled_from([6, 8]))
    told = {"colours": 5, "format": form, "place": place, "clear": clear, "bits": bits}
    rule = RawPart.model_validate(
        {"pixels": "P8", "width": 3, "palette": told, "from_below": data.draw(st.booleans())}
    )
    colours = np.frombuffer(data.draw(st.binary(min_size=20, max_size=20)), np.uint8).reshape(5, 4)[
        :, : len(form) - 1
    ]
    colours = np.asarray(colours & (56 if bits == 6 else 248) | np.arange(5)[:, None], np.uint8)
    rows = bytes(data.draw(st.lists(st.integers(0, 4), min_size=6, max_size=6)))
    bare = colours.tobytes() + rows if place == "before" else rows + colours.tobytes()
    file = dressed(rule, memoryview(bare), {}, "little", "x")
    made, told_outside = undressed(rule, file, memoryview(bare), {}, "little", "x")
    assert dressed(rule, memoryview(made), {}, "little", "x") == file and told_outside == {}
