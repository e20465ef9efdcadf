"""What files are that Furnel does not take apart, by their first bytes or, where these say nothing, by their ending."""

from __future__ import annotations

import re
from typing import NamedTuple

_NO_TEXT = re.compile(rb"[\x00-\x06\x0e-\x1a\x1c-\x1f]")  # escape aside, which terminals know
_MOST_STRANGE = 0.3


class Sort(NamedTuple):
    """A sort of file: what its format is called, and what a person calls such a thing."""

    format: str
    called: str


_BY_BYTES: tuple[tuple[bytes, str, str], ...] = (
    (rb"\x00\x01\x00\x00\x00.[\x00-\xff]{6}(?:[A-Z]|OS/2)", "TrueType", "a font"),
    (rb"true|ttcf", "TrueType", "a font"),
    (rb"OTTO", "OpenType", "a font"),
    (rb"wOF[F2]", "WOFF", "a font"),
    (rb"IMPM", "IT", "tracker music"),
    (rb"Extended Module: ", "XM", "tracker music"),
    (rb".{44}SCRM", "S3M", "tracker music"),
    (rb"MThd", "MIDI", "MIDI music"),
    (rb"RIFF....RMID", "MIDI", "MIDI music"),
    (rb"RIFF....AVI ", "AVI", "a video"),
    (rb"\x1aE\xdf\xa3", "Matroska", "a video"),
    (rb"....ftyp", "MP4", "a video"),
    (rb"OggS.{24,44}\x80theora", "Theora", "a video"),
    (rb"\x00\x00\x01[\xb3\xba]", "MPEG", "a video"),
    (rb"glTF", "glTF", "a shape"),
    (rb"Kaydara FBX Binary", "FBX", "a shape"),
    (rb"ply\r?\n", "PLY", "a shape"),
    (rb"SQLite format 3\x00", "SQLite", "a database"),
    (rb"\x03.{2}[\x01-\x1f].{28}[A-Z][A-Z0-9_]*\x00", "dBASE", "a table of a database"),
    (rb"\xde\x12\x04\x95|\x95\x04\x12\xde", "MO", "a translation, compiled"),
    (rb"\x1f\x8b", "gzip", "a packed file"),
    (rb"BZh[1-9]1AY", "bzip2", "a packed file"),
    (rb"\xfd7zXZ\x00", "xz", "a packed file"),
    (rb"\x28\xb5\x2f\xfd", "Zstandard", "a packed file"),
    (rb"PK\x03\x04|PK\x05\x06", "ZIP", "an archive"),
    (rb"7z\xbc\xaf\x27\x1c", "7z", "an archive"),
    (rb"\x7fELF", "ELF", "a program"),
    (rb"MZ", "EXE", "a program"),
    (rb"\xca\xfe\xba\xbe", "class", "a program"),
    (rb"\x1bLua", "Lua", "a script, compiled"),
    (rb"%PDF-", "PDF", "a document"),
)
_BY_ENDING = {
    "mod": ("MOD", "tracker music"), "obj": ("OBJ", "a shape"), "stl": ("STL", "a shape"), "bin": ("BIN", "bare data"),
    "pyc": ("PYC", "a program"), "gmo": ("MO", "a translation, compiled"), "ico": ("ICO", "an icon"),
}  # fmt: skip
_SCRIPTS = ("lua", "c", "h", "py", "js", "scm", "nut", "gd", "sh", "as")
_TEXTS = dict.fromkeys(_SCRIPTS, "a script") | {
    "po": "a translation", "pot": "a translation to be made", "glsl": "a shader", "frag": "a shader", "vert": "a shader",
    "html": "a page", "md": "a page", "svg": "a drawing",
}  # fmt: skip
_FOR_PEOPLE = re.compile(
    r"(?:readme|licen[cs]e|copying|authors|changelog|changes|news|todo|install)\b", re.IGNORECASE
)
_KNOWN = [(re.compile(pattern, re.DOTALL), Sort(name, called)) for pattern, name, called in _BY_BYTES]
_PROTRACKER = {b"M.K.", b"M!K!", b"FLT4", b"FLT8", b"4CHN", b"6CHN", b"8CHN", b"OCTA", b"CD81"}


def title_of(head: bytes | memoryview, sort: Sort) -> str:
    """The title that tracker music has in its first bytes."""
    place = {"IT": (4, 30), "XM": (17, 37), "S3M": (0, 28), "MOD": (0, 20)}.get(sort.format)
    told = bytes(head[slice(*place)]).split(b"\0")[0].decode("cp437").strip() if place else ""
    return told if told.isprintable() else ""


def sort_of(head: bytes | memoryview, path: str = "") -> Sort | None:
    """What a file is that begins so (256 bytes are enough for most, 1,084 for all) and is called so; None where unknown."""
    if bytes(head[1080:1084]) in _PROTRACKER:
        return Sort("MOD", "tracker music")
    for pattern, sort in _KNOWN:
        if pattern.match(head):
            return sort
    found = _BY_ENDING.get(path.rpartition("/")[2].rpartition(".")[2].lower())
    return Sort(*found) if found is not None else None


def text_sort(path: str) -> Sort:
    """What a text is by what it is called."""
    name = path.rpartition("/")[2]
    stem, _, ending = name.rpartition(".")
    if not re.fullmatch(r"[A-Za-z][A-Za-z0-9]{0,9}", ending) or not stem or _FOR_PEOPLE.match(name):
        return Sort("text", "text")
    return Sort(ending.upper(), _TEXTS.get(ending.lower(), "text"))


def is_text(head: bytes | memoryview) -> bool:
    """Whether a file that begins so is text: UTF-8, UTF-16 with its mark, or one of the encodings with a byte a letter."""
    head = bytes(head)
    if head.startswith((b"\xff\xfe", b"\xfe\xff")):
        return len(head) % 2 == 0 and _is_wide(head)
    if not head or _NO_TEXT.search(head):
        return False
    try:
        head.decode("utf-8")
        return True
    except UnicodeDecodeError as error:
        if error.start >= len(head) - 3 and error.reason == "unexpected end of data":
            return True  # cut in the middle of a letter
    strange = sum(byte >= 0x80 for byte in head)
    return strange <= len(head) * _MOST_STRANGE and not any(0x7F <= byte < 0x82 for byte in head)


def _is_wide(head: bytes) -> bool:
    try:
        text = head.decode("utf-16")
    except UnicodeDecodeError as error:
        if error.start < len(head) - 2:
            return False
        text = head[: error.start].decode("utf-16")
    return all(sign.isprintable() or sign in "\r\n\t\f" for sign in text)
