"""Archives of strangers whose entries lie in folders: tables by number, by first entry, with parents, and trees."""

from __future__ import annotations

import struct
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.containers import Changes, dissect, find_layout, open_container, parse_layout, write_archive
from furnel.errors import FurnelError
from tarnlight import loaders
from tests.containers.test_proof import CHANGES, FILES, HEAD, Files, Kind, through

DEEP = {
    "a/one.txt": b"1",
    "a/b/c/two.txt": b"22",
    "x.txt": b"333",
    "a/b/three.txt": b"4444",
    "z/y/four.txt": b"55555",
}


def text(name: str) -> bytes:
    return bytes([len(name)]) + name.encode()


def homes(files: Files, with_all_above: bool) -> list[str]:
    found: dict[str, None] = {}
    for path in files:
        parts = path.split("/")[:-1]
        for deep in range(0 if with_all_above else len(parts), len(parts) + 1):
            found["/".join(parts[:deep])] = None
    return list(found)


# a table of folders that say in which other one they are; entries tell the number of theirs


def parents_write(files: Files) -> bytes:
    folders = homes(files, True)
    number = {path: place for place, path in enumerate(folders)}
    table = b"".join(
        text(path.rpartition("/")[2]) + struct.pack("<H", number[path.rpartition("/")[0]] if path else 0)
        for path in folders
    )
    rows = b"".join(
        struct.pack("<H20sI", number[path.rpartition("/")[0]], path.rpartition("/")[2].encode(), len(data))
        for path, data in files.items()
    )
    return struct.pack("<HH", len(folders), len(files)) + table + rows + b"".join(files.values())


def parents_read(data: bytes) -> Files:
    folders, count = struct.unpack_from("<HH", data)
    at, names, above = 4, [], []
    for _ in range(folders):
        size = data[at]
        names.append(data[at + 1 : at + 1 + size].decode())
        above.append(struct.unpack_from("<H", data, at + 1 + size)[0])
        at += 3 + size
    body, out = at + 26 * count, {}
    for row in range(count):
        place, name, size = struct.unpack_from("<H20sI", data, at + 26 * row)
        parts = [name.rstrip(b"\0").decode()]
        while True:
            parts.append(names[place])
            if above[place] == place:
                break
            place = above[place]
        out["/".join(part for part in reversed(parts) if part)] = data[body : body + size]
        body += size
    return out


PARENTS = (
    HEAD
    + """
[start]
fields = [{ name = "homes", type = "u16", holds = "folder count" }, { name = "count", type = "u16", holds = "entry count" }]
[folders]
fields = [{ name = "name", type = "text", ends = "u8", holds = "path" }, { name = "above", type = "u16", holds = "parent" }]
[index]
fields = [
  { name = "home", type = "u16", holds = "folder" }, { name = "path", type = "text", length = 20, holds = "path" },
  { name = "size", type = "u32", holds = "size" },
]
"""
)

# folders behind the entries, with whole paths, that say which entries are in them


def firsts_write(files: Files) -> bytes:
    folders = homes(files, False)
    ordered = [path for home in folders for path in files if path.rpartition("/")[0] == home]
    rows = body = table = b""
    at = 8 + 28 * len(files) + sum(5 + len(home) for home in folders)
    for path in ordered:
        rows += struct.pack("<20sII", path.rpartition("/")[2].encode(), at + len(body), len(files[path]))
        body += files[path]
    for home in folders:
        mine = [place for place, path in enumerate(ordered) if path.rpartition("/")[0] == home]
        table += struct.pack("<HH", mine[0], len(mine)) + text(home)
    return struct.pack("<II", len(files), len(folders)) + rows + table + body


def firsts_read(data: bytes) -> Files:
    count, folders = struct.unpack_from("<II", data)
    at, out = 8 + 28 * count, {}
    for _ in range(folders):
        first, number, size = struct.unpack_from("<HHB", data, at)
        home = data[at + 5 : at + 5 + size].decode()
        at += 5 + size
        for row in range(first, first + number):
            name, begin, length = struct.unpack_from("<20sII", data, 8 + 28 * row)
            name = name.rstrip(b"\0").decode()
            out[f"{home}/{name}" if home else name] = data[begin : begin + length]
    return out


FIRSTS = (
    HEAD
    + """
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }, { name = "homes", type = "u32", holds = "folder count" }]
[folders]
place = "behind"
fields = [
  { name = "first", type = "u16", holds = "first entry" }, { name = "number", type = "u16", holds = "entries" },
  { name = "name", type = "text", ends = "u8", holds = "path" },
]
[index]
fields = [
  { name = "path", type = "text", length = 20, holds = "path" }, { name = "begin", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
]
"""
)

# a tree: each folder's record, then what is in it


def tree_write(files: Files, folders_first: bool = False) -> bytes:
    nested: dict[str, Any] = {}
    for path, data in files.items():
        *above, name = path.split("/")
        place = nested
        for part in above:
            place = place.setdefault(part, {})
        place[name] = data

    def sized(tree: dict[str, Any]) -> int:
        return sum(3 + len(k) + (sized(v) if isinstance(v, dict) else 6) for k, v in tree.items())

    body = b""
    start = 8 + 3 + sized(nested)

    def walk(name: str, tree: dict[str, Any]) -> bytes:
        nonlocal body
        inner = {k: v for k, v in tree.items() if isinstance(v, dict)}
        own = {k: v for k, v in tree.items() if not isinstance(v, dict)}
        head, rows = text(name) + bytes([len(own), len(inner)]), b""
        below = b""
        for kind in ("folders", "files") if folders_first else ("files", "folders"):
            if kind == "files":
                for k, v in own.items():
                    rows += text(k) + struct.pack("<II", start + len(body), len(v))
                    body += v
            else:
                below = b"".join(walk(k, v) for k, v in inner.items())
        return head + (below + rows if folders_first else rows + below)

    index = walk("", nested)
    assert len(index) == start - 8
    return struct.pack("<4sI", b"TREE", start) + index + body


def tree_read(data: bytes, folders_first: bool = False) -> Files:
    out: Files = {}

    def name_at(at: int) -> tuple[str, int]:
        return data[at + 1 : at + 1 + data[at]].decode(), at + 1 + data[at]

    def walk(at: int, above: str, deep: int) -> int:
        name, at = name_at(at)
        path = f"{above}{name}/" if deep else ""
        files, folders = data[at], data[at + 1]
        at += 2
        for kind in ("folders", "files") if folders_first else ("files", "folders"):
            for _ in range(folders if kind == "folders" else files):
                if kind == "folders":
                    at = walk(at, path, deep + 1)
                else:
                    name, at = name_at(at)
                    begin, size = struct.unpack_from("<II", data, at)
                    out[path + name] = data[begin : begin + size]
                    at += 8
        return at

    assert walk(8, "", 0) == struct.unpack_from("<I", data, 4)[0]
    return out


TREE = (
    HEAD
    + """
[start]
fields = [{ name = "magic", type = "text", length = 4, is = "TREE" }, { name = "data", type = "u32", holds = "data offset" }]
[folders]
shape = "tree"
fields = [
  { name = "name", type = "text", ends = "u8", holds = "path" }, { name = "files", type = "u8", holds = "entries" },
  { name = "homes", type = "u8", holds = "folders" },
]
[index]
fields = [
  { name = "path", type = "text", ends = "u8", holds = "path" }, { name = "begin", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
]
"""
)
# folders that tell the first one in them and the next one beside them; entries tell the next one of their folder

NONE = 0xFFFF


def linked_write(files: Files) -> bytes:
    folders, names = homes(files, True), list(files)

    def chain(members: list[int], nexts: dict[int, int]) -> int:
        nexts.update(zip(members, [*members[1:], NONE], strict=False))
        return members[0] if members else NONE

    table, rows = [], b""
    beside: dict[int, int] = {0: NONE}
    after: dict[int, int] = {}
    for home in folders:
        below = [n for n, one in enumerate(folders) if one and one.rpartition("/")[0] == home]
        mine = [n for n, one in enumerate(names) if one.rpartition("/")[0] == home]
        table.append((home.rpartition("/")[2], chain(below[::-1], beside), chain(mine[::-1], after)))
    for number, name in enumerate(names):
        rows += struct.pack("<20sHI", name.rpartition("/")[2].encode(), after[number], len(files[name]))
    packed = b"".join(
        struct.pack("<12sHHH", name.encode(), first, beside[n], entry) for n, (name, first, entry) in enumerate(table)
    )  # fmt: skip
    return struct.pack("<HH", len(folders), len(files)) + packed + rows + b"".join(files.values())


def linked_read(data: bytes) -> Files:
    folders, count = struct.unpack_from("<HH", data)
    out, at = {}, 4 + 18 * folders + 26 * count
    rows = [struct.unpack_from("<20sHI", data, 4 + 18 * folders + 26 * n) for n in range(count)]
    begins = [at + sum(row[2] for row in rows[:n]) for n in range(count)]

    def walk(number: int, above: str) -> None:
        while number != NONE:
            name, first, beside, entry = struct.unpack_from("<12sHHH", data, 4 + 18 * number)
            path = above + name.rstrip(b"\0").decode() + "/" if number else ""
            while entry != NONE:
                leaf, after, size = rows[entry]
                out[path + leaf.rstrip(b"\0").decode()] = data[begins[entry] : begins[entry] + size]
                entry = after
            walk(first, path)
            number = beside

    walk(0, "")
    return out


LINKED = (
    HEAD
    + """
[start]
fields = [{ name = "homes", type = "u16", holds = "folder count" }, { name = "count", type = "u16", holds = "entry count" }]
[folders]
free = 0xFFFF
fields = [
  { name = "name", type = "text", length = 12, holds = "path" }, { name = "first", type = "u16", holds = "first folder" },
  { name = "beside", type = "u16", holds = "next folder" }, { name = "entry", type = "u16", holds = "first entry" },
]
[index]
fields = [
  { name = "path", type = "text", length = 20, holds = "path" }, { name = "after", type = "u16", holds = "next entry" },
  { name = "size", type = "u32", holds = "size" },
]
"""
)

# groups of entries by the tag that is their ending


def tagged_write(files: Files) -> bytes:
    tags = list(dict.fromkeys(path.rpartition(".")[2] for path in files))
    ordered = [path for tag in tags for path in files if path.endswith(f".{tag}")]
    heads = rows = body = b""
    at = 4 + 6 * len(tags) + 30 * len(files)
    for tag in tags:
        heads += struct.pack(">4sH", tag.encode(), sum(path.endswith(f".{tag}") for path in files))
    for path in ordered:
        rows += struct.pack(">22sII", path.rpartition(".")[0].encode(), at + len(body), len(files[path]))
        body += files[path]
    return struct.pack(">HH", len(tags), len(files)) + heads + rows + body


def tagged_read(data: bytes) -> Files:
    tags, count = struct.unpack_from(">HH", data)
    row, out = 4 + 6 * tags, {}
    for place in range(tags):
        tag, number = struct.unpack_from(">4sH", data, 4 + 6 * place)
        for _ in range(number):
            name, begin, size = struct.unpack_from(">22sII", data, row)
            path = name.rstrip(b"\0").decode() + "." + tag.rstrip(b"\0").decode()
            out[path], row = data[begin : begin + size], row + 30
    assert row == 4 + 6 * tags + 30 * count
    return out


TAGGED = (
    HEAD.replace("furnel-layout = 1", 'furnel-layout = 1\nbyte-order = "big"')
    + """
[start]
fields = [{ name = "tags", type = "u16", holds = "folder count" }, { name = "count", type = "u16", holds = "entry count" }]
[folders]
path-is = "ending"
fields = [{ name = "tag", type = "text", length = 4, holds = "path" }, { name = "number", type = "u16", holds = "entries" }]
[index]
fields = [
  { name = "path", type = "text", length = 22, holds = "path" }, { name = "begin", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
]
"""
)
KINDS = {
    "linked folders": Kind(LINKED, linked_write, linked_read),
    "groups by ending": Kind(TAGGED, tagged_write, tagged_read),
    "folders with parents": Kind(PARENTS, parents_write, parents_read),
    "folders with entries": Kind(FIRSTS, firsts_write, firsts_read),
    "a tree": Kind(TREE, tree_write, tree_read),
    "a tree, folders first": Kind(
        TREE.replace('shape = "tree"', 'shape = "tree"\nfolders-first = true'),
        lambda files: tree_write(files, True), lambda data: tree_read(data, True),
    ),
}  # fmt: skip


@pytest.mark.parametrize("change", CHANGES)
@pytest.mark.parametrize("name", KINDS)
def test_a_reader_of_its_own_finds_what_was_asked_for(name: str, change: str, tmp_path: Path) -> None:
    through(KINDS[name], change, tmp_path)


@pytest.mark.parametrize("files", [FILES, DEEP, {"x.txt": b"alone"}])
@pytest.mark.parametrize("name", KINDS)
def test_new_archives_are_what_their_own_reader_expects(name: str, files: Files, tmp_path: Path) -> None:
    write_archive(tmp_path / "n.k", files, parse_layout(KINDS[name].layout, "k"))
    assert KINDS[name].read((tmp_path / "n.k").read_bytes()) == files
    looked = dissect(tmp_path / "n.k", parse_layout(KINDS[name].layout, "k"))
    assert not looked.faults and {entry.path for entry in looked.entries} == set(files)


paths = st.lists(st.sampled_from(["a", "b", "c"]), max_size=3).map(lambda parts: "/".join([*parts, "f.x"]))


@pytest.mark.parametrize("name", KINDS)
@given(
    st.dictionaries(paths, st.binary(max_size=9), min_size=1),
    st.dictionaries(paths, st.binary(max_size=9)),
    st.data(),
)
def test_any_folders_come_and_go(
    tmp_path_factory: pytest.TempPathFactory, name: str, before: Files, more: Files, data: Any
) -> None:
    folder, kind = tmp_path_factory.mktemp("k"), KINDS[name]
    add = {f"{path}2": content for path, content in more.items()}
    remove = frozenset(data.draw(st.sets(st.sampled_from(sorted(before)))))
    rename = {path: f"{path}3" for path in sorted(set(before) - remove)[:1]}
    (folder / "a.k").write_bytes(kind.write(before))
    opened = open_container(folder / "a.k", parse_layout(kind.layout, "k"))
    opened.rewrite(folder / "b.k", Changes(add=add, remove=remove, rename=rename))
    left = {rename.get(path, path): content for path, content in before.items() if path not in remove}
    assert kind.read((folder / "b.k").read_bytes()) == left | add
    opened.close()


def test_the_chart_rooms_locker_is_changed_as_its_own_loader_wants_it(forged: Path, tmp_path: Path) -> None:
    theirs = loaders.load_container(forged / "data/charts.tlk")
    opened = open_container(forged / "data/charts.tlk")
    assert {one.path: opened.read(one.path) for one in opened.entries()} == theirs
    first, second, *_ = theirs
    changes = Changes({first: b"x" * 20000}, {"charts/old/deep/one.dds": b"new" * 5000}, frozenset({second}))
    opened.rewrite(tmp_path / "charts.tlk", changes)
    mine = loaders.load_container(tmp_path / "charts.tlk")
    left = {path: data for path, data in theirs.items() if path != second}
    assert mine == left | {first: b"x" * 20000, "charts/old/deep/one.dds": b"new" * 5000}
    write_archive(tmp_path / "new.tlk", theirs, find_layout("tlk"))
    assert loaders.load_container(tmp_path / "new.tlk") == theirs


@pytest.mark.parametrize(
    ("layout", "data", "why"),
    [
        (PARENTS, struct.pack("<HH", 2, 0) + b"\1a\1\0\1b\0\0", "in a circle"),
        (PARENTS, struct.pack("<HH", 1, 1) + b"\0\0\0" + struct.pack("<H20sI", 5, b"x", 0), "in folder 5"),
        (
            FIRSTS,
            struct.pack("<II", 1, 1) + bytes(28) + struct.pack("<HH", 0, 3) + b"\1a",
            "has entries 0 to 2",
        ),
        (TREE, struct.pack("<4sI", b"TREE", 0) + b"\1a\0\1" * 90, "deep"),
        (FIRSTS.replace('holds = "folder count"', "new = 1"), firsts_write(FILES), "how many folders"),
        (LINKED, struct.pack("<HH12sHHH", 1, 0, b"a", 0, NONE, NONE), "in a circle"),
        (
            LINKED,
            struct.pack("<HH12sHHH12sHHH", 2, 0, b"a", NONE, 1, NONE, b"b", NONE, 0, NONE),
            "in a circle",
        ),
        (LINKED, struct.pack("<HH12sHHH", 1, 0, b"a", 7, NONE, NONE), "folder 7, and there are 1"),
        (
            LINKED,
            struct.pack("<HH12sHHH20sHI", 1, 1, b"a", NONE, NONE, NONE, b"x", NONE, 0),
            "entry 0 is in no folder",
        ),
        (
            LINKED,
            struct.pack("<HH12sHHH20sHI", 1, 1, b"a", NONE, NONE, 0, b"x", 0, 0),
            "entry 0 is led to twice",
        ),
        (TAGGED, tagged_write({"x.txt": b"1"}).replace(b"txt\0", b"a.b\0"), "is the ending of no name"),
    ],
)
def test_folders_that_cannot_be_are_refused(layout: str, data: bytes, why: str, tmp_path: Path) -> None:
    (tmp_path / "a.k").write_bytes(data)
    with pytest.raises(FurnelError, match=why):
        open_container(tmp_path / "a.k", parse_layout(layout, "k"))
