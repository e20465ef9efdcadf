"""An archive that nobody described: worked out on the bench by clicks, changed, and read by a reader of its own."""

from __future__ import annotations

import struct
from pathlib import Path

from demo.hands import Hands

NOTES = {
    "log/first_night.txt": b"Fog from ten. The kettle sang.\n",
    "log/fjell.txt": b"Passed the lamp at a quarter to two.\n" * 3,
    "log/otter.txt": b"The otter took a herring and gave no receipt.\n",
}
SAID = (
    ((0, 4), "letters"), ((4, 8), "count"), ((8, 32), "name"), ((32, 36), "offset"), ((36, 40), "size"),
)  # fmt: skip
"""Which bytes are said to be what: the file's beginning, then the first entry's record."""
_ROW = struct.Struct(">24sII")


def write_hold(file: Path, notes: dict[str, bytes]) -> None:
    """The archive, as whoever made the game would have."""
    at, rows, body = 8 + _ROW.size * len(notes), b"", b""
    for name, data in notes.items():
        rows += _ROW.pack(name.encode(), at + len(body), len(data))
        body += data
    file.write_bytes(struct.pack(">4sI", b"HOLD", len(notes)) + rows + body)


def read_hold(file: Path) -> dict[str, bytes]:
    """As that game reads it."""
    data = file.read_bytes()
    magic, count = struct.unpack_from(">4sI", data)
    rows = [_ROW.unpack_from(data, 8 + _ROW.size * row) for row in range(count if magic == b"HOLD" else 0)]
    return {name.rstrip(b"\0").decode(): data[at : at + size] for name, at, size in rows}


def work_it_out(hands: Hands, folder: Path) -> bool:
    """The archive described in five gestures, a note replaced and one added; whether its own reader finds both."""
    file, page = folder / "night.hold", hands.window.pages.archive_page
    write_hold(file, NOTES)
    hands.window.pages.work_out(file)
    hands.until(lambda: page.guesses is not None, "the guesses")
    hands.settle()
    for (start, end), what in SAID:
        page.bytes.go(start)
        for _ in range(end - start - 1):
            hands.key("Shift+Right", page.bytes)
        hands.click(page.saying[what])
    hands.until(lambda: len(page.anatomy.entries) == len(NOTES) and page.save.isEnabled(), "the entries")
    print(f"an archive that nobody described: {len(SAID)} gestures, and its {len(NOTES)} entries are there")
    (folder / "otter.txt").write_bytes(b"The otter paid.\n")
    (folder / "kettle.txt").write_bytes(b"Water on at four.\n")
    page.entries.list.setCurrentRow(2)
    page.entries.add_files([folder / "otter.txt", folder / "kettle.txt"])
    hands.shot(folder / "shots" / "bench.png")
    page.write_copy(folder / "night-changed.hold")
    hands.until(lambda: (folder / "night-changed.hold").is_file(), "the copy")
    hands.settle()
    found = read_hold(folder / "night-changed.hold")
    new = sorted(found.keys() - NOTES.keys())
    good = found["log/otter.txt"] == b"The otter paid.\n" and [found[name] for name in new] == [
        b"Water on at four.\n"
    ]
    kept = all(found[name] == NOTES[name] for name in ("log/first_night.txt", "log/fjell.txt"))
    print(
        f"a reader of its own finds the other note, {', '.join(new)}, and the rest {'as it was' if kept else 'CHANGED'}"
    )
    hands.key("Esc", page.text)
    return good and kept
