"""Any description that the language allows: what is put in comes out, changes are what was asked for, nothing else moves."""

from __future__ import annotations

import hashlib
import struct
from pathlib import Path

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from furnel.containers import (
    Changes,
    InsidePart,
    Layout,
    open_container,
    open_inside,
    parse_layout,
    write_archive,
)
from furnel.errors import FurnelError
from tarnlight import writers
from tests.containers import makers

NAMES = ("a", "b/c.txt", "deep/er/d.bin", "Capital.TGA", "e f.wav", "g-1.dds", "h_2.png")
Contents = dict[str, bytes]

contents = st.dictionaries(
    st.sampled_from(NAMES), st.binary(max_size=300).map(lambda b: b * 3), min_size=1, max_size=6
)


@st.composite
def layouts(draw: st.DrawFn) -> Layout:
    """A layout put together from the language's parts."""
    pick = draw
    names = pick(st.sampled_from(["fixed", "zero", "u8", "u16", "table", "table of its own", "hash"]))
    place = pick(st.sampled_from(["front", "back", "beside"]))
    packed = pick(st.sampled_from(["none", "zlib", "deflate", "lz4", "zstd", "own"]))
    index_packed = pick(st.sampled_from(["none", "zlib", "zstd"]))
    order = pick(st.sampled_from(["little", "big"]))
    told = packed != "none" or pick(st.booleans())
    align = pick(st.sampled_from([1, 4, 16, 64]))
    assume(told or names != "hash")  # such an index is not in the order of the data
    assume(told or align == 1)  # padding would count as part of what is stored
    wide = pick(st.sampled_from(["u32", "u64"]))
    whole = pick(st.sampled_from(["", "zlib", "zstd"])) if place != "beside" else ""
    by_flag = told and pick(st.booleans())
    unit = pick(st.sampled_from(["", "value * 4", "value + data_start", "value ^ 0x5a"]))
    assume(unit != "value * 4" or align % 4 == 0)
    own = names == "table of its own" and place != "beside"
    head = [
        '{ name = "magic", type = "text", length = 3, is = "ANY" }',
        '{ name = "n", type = "u16", holds = "entry count" }',
    ]
    inline = names.startswith("table") and not own
    folders = (
        pick(st.sampled_from(["", "parents", "tree"])) if names in ("fixed", "zero", "u8", "u16") else ""
    )
    named = names in ("fixed", "zero", "u8", "u16") and not folders
    buckets = pick(st.sampled_from(["", "first and number", "first", "next"])) if named else ""
    assume(told or not (folders or buckets))  # nor are these, and empty entries could not be told apart
    if folders == "parents":
        head.append('{ name = "homes", type = "u16", holds = "folder count" }')
    if place == "front" and (index_packed != "none" or inline or pick(st.booleans())):
        head.append('{ name = "kept", type = "u32", holds = "index stored size" }')
        head.append('{ name = "plain", type = "u32", holds = "index size" }')
    if pick(st.booleans()):
        head.append('{ name = "total", type = "u64", holds = "file size" }')
    foot = []
    if place == "back":
        foot += [
            '{ name = "at", type = "u64", holds = "index offset" }',
            '{ name = "plain2", type = "u32", holds = "index size" }',
        ]
        foot.append('{ name = "kept2", type = "u32", holds = "index stored size" }')
    if own:
        where = foot if foot else head
        where += [
            '{ name = "names", type = "u64", holds = "names offset" }',
            '{ name = "names_size", type = "u32", holds = "names size" }',
        ]
    if pick(st.booleans()):
        kind, size = pick(
            st.sampled_from([("crc32", 'type = "u32"'), ("sha256", 'type = "bytes", length = 32')])
        )
        (foot or head).append(f'{{ name = "check", {size}, holds = "file sum", sum = "{kind}" }}')
    if pick(st.booleans()):
        (foot or head).append('{ name = "check2", type = "u32", holds = "index sum", sum = "adler32" }')
    rows = {
        "fixed": ['{ name = "path", type = "text", length = 20, holds = "path" }'],
        "zero": ['{ name = "path", type = "text", ends = "zero", holds = "path" }'],
        "u8": ['{ name = "path", type = "text", ends = "u8", holds = "path" }'],
        "u16": [
            '{ name = "l", type = "u16" }',
            '{ name = "path", type = "text", length = "l", holds = "path" }',
        ],
        "hash": ['{ name = "code", type = "u64", holds = "name hash" }'],
    }.get(names, ['{ name = "name", type = "u32", holds = "name offset" }'])
    means = f', means = "{unit}"' if unit else ""
    if folders == "parents":
        rows.insert(0, '{ name = "home", type = "u16", holds = "folder" }')
    if buckets == "next":
        rows.append('{ name = "after", type = "i16", holds = "next entry" }')
    rows.append(f'{{ name = "offset", type = "{wide}", holds = "offset"{means} }}')
    if told:
        rows += [
            f'{{ name = "size", type = "{wide}", holds = "size" }}',
            '{ name = "stored", type = "u32", holds = "stored size" }',
        ]
    if by_flag:
        rows.append(
            '{ name = "flags", type = "u8", bits = [{ name = "how", first = 3, count = 2, holds = "packing" }] }'
        )
    if pick(st.booleans()):
        rows.append('{ name = "crc", type = "u32", holds = "sum", sum = "crc32" }')
    kind = {"fixed": "fields", "zero": "fields", "u8": "fields", "u16": "fields", "hash": "hash"}.get(
        names, "table"
    )
    text = ['furnel-layout = 1\nname = "any"\ntitle = "any"\nfiles = ["*.any"]', f'byte-order = "{order}"']
    if whole:
        text.append(
            f'[whole]\npacked = "{whole}"\nfields = [{{ name = "plain0", type = "u32", holds = "data size" }}]'
        )
    text.append(f"[start]\nfields = [{', '.join(head)}]")
    if foot:
        text.append(f"[footer]\nfields = [{', '.join(foot)}]")
    text.append(f'[index]\nnames = "{kind}"\npacked = "{index_packed}"\nfields = [{", ".join(rows)}]')
    text.append('file = ".idx"' if place == "beside" else f'place = "{place}"')
    if kind == "hash" and pick(st.booleans()):
        text.append('sorted-by = "name hash"')
    text.append(
        '[names]\nhash = "fnv1a-64"'
        if kind == "hash"
        else '[names]\nends = "u8"'
        if kind == "table"
        else "[names]"
    )
    if kind == "fields" and pick(st.booleans()):
        text.append("reversed = true")
    if buckets:
        text.append(f'hash = {{ step = "hash * {pick(st.sampled_from([31, 65599]))} + letter", bits = 32 }}')
    if pick(st.booleans()):
        text.append("slash = '\\'")
    packing = (
        f'packings = {{ 0 = "none", 2 = "{packed}" }}'
        if by_flag and packed != "none"
        else f'packed = "{packed}"'
    )
    if by_flag and packed == "none":
        packing = 'packings = { 1 = "none" }'
    text.append(f"[entry]\n{packing}\nalign = {align}\nfill = {pick(st.sampled_from([0, 0xEE]))}")
    if pick(st.booleans()):
        text.append("moves = false")
    text += _folders(folders)
    if buckets:
        number = ', { name = "many", type = "u16", holds = "entries" }' if "number" in buckets else ""
        text.append('[buckets]\ncount = "3"\n' + pick(st.sampled_from(["", 'place = "behind"\n'])))
        text[-1] += "free = -1\n" if buckets == "next" or pick(st.booleans()) else ""
        text[-1] += f'fields = [{{ name = "first", type = "i16", holds = "first entry" }}{number}]'
    for on in ("entry", "index"):
        if pick(st.booleans()):
            sized = on == "entry" or place != "front" or any("kept" in part for part in head)
            told_by = pick(
                st.sampled_from(['key = "5a01ff"', f'value = "position * 3 + {"size" if sized else 7}"'])
            )
            text.append(f'[[masks]]\non = "{on}"\nby = "{pick(st.sampled_from(["xor", "add"]))}"\n{told_by}')
    if packed == "own":
        own_kind = pick(
            st.sampled_from(
                ['"window"', '"window"\nplace-is = "back"\nplace-add = 1', '"runs"', '"blocks"\nblock = 64']
            )
        )
        text.append(f'[[packers]]\nname = "own"\nkind = {own_kind}')
    return parse_layout("\n".join(text), "any")


def _folders(shape: str) -> list[str]:
    name = '{ name = "name", type = "text", ends = "u8", holds = "path" }'
    if shape == "parents":
        return [f'[folders]\nfields = [{name}, {{ name = "above", type = "u16", holds = "parent" }}]']
    counts = '{ name = "files", type = "u8", holds = "entries" }, { name = "homes", type = "u8", holds = "folders" }'
    return [f'[folders]\nshape = "tree"\nfields = [{name}, {counts}]'] if shape else []


def everything(file: Path, layout: Layout) -> Contents:
    container = open_container(file, layout, NAMES)
    found = {entry.path: container.read(entry.path) for entry in container.entries()}
    assert {entry.path: entry.size for entry in container.entries()} == {p: len(d) for p, d in found.items()}
    container.close()
    return found


@settings(max_examples=80)
@given(layout=layouts(), before=contents, data=st.data())
def test_what_is_put_in_comes_out_and_changes_are_what_was_asked_for(
    tmp_path_factory: pytest.TempPathFactory, layout: Layout, before: Contents, data: st.DataObject
) -> None:
    folder = tmp_path_factory.mktemp("any")
    file = folder / "x.any"
    write_archive(file, before, layout)
    assert everything(file, layout) == before
    container = open_container(file, layout, NAMES)
    container.rewrite(folder / "same.any", Changes())
    assert (folder / "same.any").read_bytes() == file.read_bytes()
    path = data.draw(st.sampled_from(sorted(before)))
    container.rewrite(folder / "again.any", Changes({path: before[path]}))
    assert (folder / "again.any").read_bytes() == file.read_bytes()
    fresh = [name for name in NAMES if name not in before]
    gone = frozenset(data.draw(st.sets(st.sampled_from(sorted(before)), max_size=2)))
    kept = sorted(set(before) - gone)
    replaced = {name: data.draw(st.binary(max_size=90)) for name in kept[:1]}
    renamed = {kept[-1]: fresh.pop()} if len(kept) > 1 and fresh else {}
    added = {fresh[0]: b"added " * 30} if fresh else {}
    container.rewrite(folder / "new.any", Changes(replaced, added, gone, renamed))
    container.close()
    wanted = {name: content for name, content in {**before, **replaced, **added}.items() if name not in gone}
    wanted.update({new: wanted.pop(old) for old, new in renamed.items()})
    assert everything(folder / "new.any", layout) == wanted


def test_records_that_are_no_entries_stay_where_they_are(tmp_path: Path) -> None:
    layout = parse_layout(
        """
furnel-layout = 1
name = "rack"
title = "empty places in the index"
files = ["*.rack"]
[start]
fields = [{ name = "places", type = "u32", holds = "entry count" }]
[index]
empty = "size == 0"
fields = [
  { name = "path", type = "text", length = 8, holds = "path" },
  { name = "at", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
]
""",
        "rack",
    )
    rows = [(b"one", 52, 3), (b"????", 0, 0), (b"two", 55, 4)]
    index = b"".join(struct.pack("<8sII", *row) for row in rows)
    (tmp_path / "x.rack").write_bytes(struct.pack("<I", 3) + index + b"111" + b"2222")
    container = open_container(tmp_path / "x.rack", layout)
    assert [entry.path for entry in container.entries()] == ["one", "two"]
    container.rewrite(tmp_path / "y.rack", Changes({"one": b"a longer one"}))
    data = (tmp_path / "y.rack").read_bytes()
    assert data[4 + 16 : 4 + 32] == index[16:32]
    after = open_container(tmp_path / "y.rack", layout)
    assert (after.read("one"), after.read("two")) == (b"a longer one", b"2222")


def test_a_side_file_of_digests_is_kept_up(tmp_path: Path) -> None:
    layout = parse_layout(
        """
furnel-layout = 1
name = "seal"
title = "digests beside it"
files = ["*.seal"]
[start]
fields = [{ name = "n", type = "u16", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", ends = "u8", holds = "path" },
  { name = "at", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
]
[sums]
file = ".digests"
sum = "sha256"
""",
        "seal",
    )
    write_archive(tmp_path / "x.seal", {"a": b"one", "b": b"two"}, layout)
    assert (tmp_path / "x.digests").read_bytes() == b"".join(
        hashlib.sha256(c).digest() for c in (b"one", b"two")
    )
    open_container(tmp_path / "x.seal", layout).rewrite(tmp_path / "y.seal", Changes({"b": b"three"}))
    assert (tmp_path / "y.digests").read_bytes()[32:] == hashlib.sha256(b"three").digest()
    (tmp_path / "y.digests").write_bytes(bytes(64))
    with pytest.raises(FurnelError, match="checksums"):
        open_container(tmp_path / "y.seal", layout).read("a")


def test_an_archive_with_files_beside_it_is_opened_inside_another_one(tmp_path: Path) -> None:
    sounds = [b"RIFF" * 9, b"WAVE" * 31]
    body, index, sums = writers.tls(sounds)
    outer = {"bank.tls": body, "bank.tlx": index, "bank.sum": sums, "note.txt": b"n"}
    (tmp_path / "x.satchel").write_bytes(makers.satchel(outer))
    rules = [InsidePart(files="*.tls", layout="tls")]
    container = open_inside(open_container(tmp_path / "x.satchel"), rules)
    assert [container.read(f"bank.tls/{n:03}.wav") for n in range(2)] == sounds
    container.rewrite(tmp_path / "y.satchel", Changes({"bank.tls/001.wav": b"DATA" * 50}))
    after = open_inside(open_container(tmp_path / "y.satchel"), rules)
    assert after.read("bank.tls/001.wav") == b"DATA" * 50 and after.read("bank.tls/000.wav") == sounds[0]
