"""The tables of picture and sound files in docs/files.md, made from their records."""

from __future__ import annotations

import sys
from pathlib import Path

from furnel.imagefiles import PICTURE_FILES, Note
from furnel.sound import SOUND_FILES

_HEAD = """# Picture and sound files

What Furnel reads and writes. Made from the files' records: `./run python -m demo.files docs/files.md`.
A file is known by its first bytes, whatever it is called. *Kept* is what a replacement is given like its original; what the
encoding card offers stands in parentheses, the usual one first. *Found inside* says whether such a file can be found in a file
of an unknown kind. Which format to choose: [formats.md](formats.md).
"""


def tables() -> str:
    """All records, as two tables."""
    parts = [
        _HEAD,
        "\n## Pictures\n\n| file | endings | written as | kept | found inside |\n|---|---|---|---|---|\n",
    ]
    for one in PICTURE_FILES:
        formats = ", ".join(one.formats) or ("true colour, palette or grey" if one.write else "—")
        kept = [_kept(note) for note in one.notes if note.label]
        parts.append(_row(one.name, one.suffixes, formats, "; ".join(kept) or "—", one.length is not None))
    parts.append("\n## Sounds\n\n| file | endings | written as | found inside |\n|---|---|---|---|\n")
    for sound in SOUND_FILES:
        codecs = ", ".join(sound.codecs) or "—"
        parts.append(_row(sound.name, sound.suffixes, codecs, None, sound.length is not None))
    return "".join(parts)


def _kept(note: Note) -> str:
    return f"{note.label.lower()} ({', '.join(note.choices)})" if note.offered else note.label.lower()


def _row(name: str, suffixes: tuple[str, ...], formats: str, kept: str | None, found: bool) -> str:
    cells = [name, " ".join(f"`{suffix}`" for suffix in suffixes), formats]
    cells += [kept] if kept is not None else []
    return f"| {' | '.join(cells)} | {'yes' if found else 'no'} |\n"


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(tables(), "utf-8")
