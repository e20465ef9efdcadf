"""What sound files say beside their samples: loops, marked places, tags.

WAV: the `smpl`, `cue `, `LIST adtl` and `LIST INFO` chunks (Multimedia Programming Interface and Data Specifications 1.0;
its 1994 revision for `smpl`). Ogg and FLAC: Vorbis comments, with a loop as LOOPSTART and LOOPLENGTH in frames. MP3: ID3.
"""

from __future__ import annotations

import io
import struct
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field

from furnel.sound.memory import reader

_INFO = {
    b"INAM": "title", b"IART": "artist", b"IPRD": "album", b"ICRD": "date", b"IGNR": "genre", b"ICMT": "comment",
    b"ICOP": "copyright", b"ISFT": "software", b"ITRK": "tracknumber",
}  # fmt: skip
_INFO_TAGS = {name: tag for tag, name in _INFO.items()}
_WRITER_TAGS = ("encoder", "encodersettings")
_LOOP_TAGS = ("loopstart", "looplength", "loopend")
_MOST_TEXT, _MOST_CUES = 1 << 16, 4096


@dataclass(frozen=True, slots=True)
class Cue:
    """A marked place: the frame, and what it is called."""

    frame: int
    name: str = ""


@dataclass(frozen=True, slots=True)
class SoundNotes:
    """A `loop` (first frame, end frame), marked places, and tags by their lower-case names."""

    loop: tuple[int, int] | None = None
    cues: tuple[Cue, ...] = ()
    tags: Mapping[str, str] = field(default_factory=dict)


NO_NOTES = SoundNotes()


def read_notes(data: bytes | memoryview, frames: int) -> SoundNotes:
    """The notes of a sound file with so many frames. What makes no sense is left out, never an error."""
    if bytes(data[:4]) == b"RIFF":
        notes = _wav_notes(data)
    else:
        notes = _tag_notes(data)
    loop = notes.loop
    if loop is not None and not 0 <= loop[0] < loop[1] <= frames:
        loop = None
    cues = tuple(cue for cue in notes.cues if 0 <= cue.frame <= frames)
    return SoundNotes(loop, cues, notes.tags)


def with_notes(data: bytes, notes: SoundNotes, rate: int) -> bytes:
    """A freshly written sound file with `notes` in it, in the way of its type, and no others."""
    if data[:4] == b"RIFF":
        return _wav_with_notes(data, notes, rate)
    return _with_tags(data, notes)


def wav_chunks(data: bytes | memoryview) -> Iterator[tuple[bytes, int, int]]:
    """Tag, first and end byte of every chunk of a WAV's content; a chunk cut short ends where the file does."""
    at, size = 12, len(data)
    while at + 8 <= size:
        length = int.from_bytes(data[at + 4 : at + 8], "little")
        yield bytes(data[at : at + 4]), at + 8, min(at + 8 + length, size)
        at += 8 + length + length % 2


def fact_frames(data: bytes | memoryview) -> int | None:
    """How many frames a compressed WAV's `fact` chunk says that it has, or None."""
    if bytes(data[:4]) != b"RIFF":
        return None
    for tag, start, end in wav_chunks(data):
        if tag == b"fact" and end - start >= 4:
            return int.from_bytes(data[start : start + 4], "little")
        if tag == b"data":
            break
    return None


def _wav_notes(data: bytes | memoryview) -> SoundNotes:
    loop: tuple[int, int] | None = None
    places: dict[int, int] = {}
    names: dict[int, str] = {}
    tags: dict[str, str] = {}
    for tag, start, end in wav_chunks(data):
        if tag == b"data":
            continue
        part = bytes(data[start : min(end, start + _MOST_TEXT)])
        if tag == b"smpl" and loop is None and len(part) >= 60 and int.from_bytes(part[28:32], "little"):
            first, last = struct.unpack_from("<II", part, 44)
            loop = (first, last + 1)  # the chunk names the last frame that is played
        elif tag == b"cue ":
            count = min(int.from_bytes(part[:4], "little"), (len(part) - 4) // 24, _MOST_CUES)
            for place in range(max(count, 0)):
                number = int.from_bytes(part[4 + 24 * place : 8 + 24 * place], "little")
                places[number] = int.from_bytes(part[24 + 24 * place : 28 + 24 * place], "little")
        elif tag == b"LIST":
            _read_list(part, names, tags)
    cues = sorted(
        (Cue(frame, names.get(number, "")) for number, frame in places.items()), key=lambda cue: cue.frame
    )
    return SoundNotes(loop, tuple(cues), tags)


def _read_list(part: bytes, names: dict[int, str], tags: dict[str, str]) -> None:
    at = 4
    while at + 8 <= len(part):
        tag, length = part[at : at + 4], int.from_bytes(part[at + 4 : at + 8], "little")
        content = part[at + 8 : at + 8 + length]
        if part[:4] == b"adtl" and tag == b"labl" and len(content) > 4:
            names[int.from_bytes(content[:4], "little")] = _text(content[4:])
        elif part[:4] == b"INFO" and tag in _INFO:
            tags[_INFO[tag]] = _text(content)
        at += 8 + length + length % 2


def _text(raw: bytes) -> str:
    raw = raw.split(b"\0", 1)[0]
    try:
        return raw.decode("utf-8")
    except UnicodeDecodeError:
        return raw.decode("latin-1")


def _chunk(tag: bytes, content: bytes) -> bytes:
    return tag + struct.pack("<I", len(content)) + content + b"\0" * (len(content) % 2)


def _wav_with_notes(data: bytes, notes: SoundNotes, rate: int) -> bytes:
    kept = [
        _chunk(tag, data[first:end])
        for tag, first, end in wav_chunks(data)
        if tag in (b"fmt ", b"fact", b"data")
    ]
    if notes.loop is not None:
        first, end = notes.loop
        head = struct.pack("<9I", 0, 0, round(1e9 / rate), 60, 0, 0, 0, 1, 0)
        kept.append(_chunk(b"smpl", head + struct.pack("<6I", 0, 0, first, end - 1, 0, 0)))
    if notes.cues:
        rows = [
            struct.pack("<II4sIII", n, 0, b"data", 0, 0, cue.frame) for n, cue in enumerate(notes.cues, 1)
        ]
        kept.append(_chunk(b"cue ", struct.pack("<I", len(rows)) + b"".join(rows)))
        named = [
            _chunk(b"labl", struct.pack("<I", n) + cue.name.encode() + b"\0")
            for n, cue in enumerate(notes.cues, 1)
            if cue.name
        ]
        if named:
            kept.append(_chunk(b"LIST", b"adtl" + b"".join(named)))
    told = [
        _chunk(_INFO_TAGS[n], v.encode() + b"\0") for n, v in sorted(notes.tags.items()) if n in _INFO_TAGS
    ]
    if told:
        kept.append(_chunk(b"LIST", b"INFO" + b"".join(told)))
    body = b"WAVE" + b"".join(kept)
    return b"RIFF" + struct.pack("<I", len(body)) + body


def _tag_notes(data: bytes | memoryview) -> SoundNotes:
    import mutagen

    try:
        file = mutagen.File(reader(data), easy=True)
        raw = dict(file.tags.items()) if file is not None and file.tags is not None else {}
    except Exception:  # mutagen lets errors of every kind through for damaged files
        return NO_NOTES
    tags = {
        str(name).lower(): str(values[0])
        for name, values in raw.items()
        if values and isinstance(values, list)
    }
    numbers = {name: int(tags[name]) for name in _LOOP_TAGS if tags.get(name, "").isdecimal()}
    loop = None
    if "loopstart" in numbers:
        first = numbers["loopstart"]
        end = first + numbers["looplength"] if "looplength" in numbers else numbers.get("loopend")
        loop = (first, end) if end is not None else None
    return SoundNotes(loop, (), {n: v for n, v in tags.items() if n not in (*_LOOP_TAGS, *_WRITER_TAGS)})


def _with_tags(data: bytes, notes: SoundNotes) -> bytes:
    import mutagen

    stream = io.BytesIO(data)
    file = mutagen.File(stream, easy=True)
    if file is None:
        return data
    if file.tags is None:
        file.add_tags()
    file.tags.clear()
    for name, value in sorted(notes.tags.items()):
        try:
            file.tags[name] = [value]
        except (KeyError, ValueError):  # ID3 has no place for it
            continue
    if notes.loop is not None and data[:3] != b"ID3" and data[:1] != b"\xff":
        file.tags["loopstart"] = [str(notes.loop[0])]
        file.tags["looplength"] = [str(notes.loop[1] - notes.loop[0])]
    stream.seek(0)
    file.save(stream, **({"padding": lambda _: 0} if data[:4] in (b"OggS", b"fLaC") else {}))
    return stream.getvalue()
