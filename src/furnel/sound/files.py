"""Sound files through libsndfile: WAV, FLAC, Ogg Vorbis, Ogg Opus, MP3 and AIFF in; all but AIFF out."""

from __future__ import annotations

import io
import re
import struct
import zlib
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field, replace
from functools import lru_cache
from pathlib import Path
from typing import Any

import numpy as np

from furnel.errors import FurnelError, reason
from furnel.sound.clip import Clip, Samples
from furnel.sound.layout import from_ogg, to_ogg
from furnel.sound.memory import reader
from furnel.sound.notes import NO_NOTES, SoundNotes, fact_frames, read_notes, wav_chunks, with_notes

WHAT = "Reading a sound"
_RATES = (1000, 1_000_000)
_SLICE = 1 << 16  # libsndfile can crash on one huge Vorbis write
_LOUDEST = 1000.0  # an amplitude: no recording is louder, only damage
_MOST_SAMPLES = 1 << 30
_SERIAL = 0x4655524E
_CODECS = {
    "PCM_S8": "PCM 8", "PCM_U8": "PCM 8", "PCM_16": "PCM 16", "PCM_24": "PCM 24", "PCM_32": "PCM 32", "FLOAT": "float 32",
    "DOUBLE": "float 64", "VORBIS": "Vorbis", "OPUS": "Opus", "MPEG_LAYER_III": "MP3", "IMA_ADPCM": "IMA ADPCM",
    "MS_ADPCM": "MS ADPCM",
    "ALAW": "A-law", "ULAW": "mu-law",
}  # fmt: skip
_MP3_RATES = (8000, 11025, 12000, 16000, 22050, 24000, 32000, 44100, 48000)
_OPUS_RATES = (8000, 12000, 16000, 24000, 48000)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class SoundFile:
    """A sound file type: from its record reading, writing, carving and docs/files.md derive.

    `signature` is a pattern that its first bytes match, `whole` that of a file from its beginning, where that is narrower.
    `formats` are what libsndfile calls it. `codecs` are those that it is written with, the usual one first: libsndfile's
    subtype and the rates that the codec has (none: any). `length(data)` is how many bytes a file takes that begins here, 0
    when that cannot be told.
    """

    name: str
    suffixes: tuple[str, ...]
    signature: bytes
    formats: tuple[str, ...]
    codecs: dict[str, tuple[str, tuple[int, ...]]] = field(default_factory=dict)
    whole: bytes = b""
    length: Callable[[memoryview], int] | None = None


def riff_length(data: memoryview) -> int:
    """How many bytes a RIFF file (IBM and Microsoft 1991) takes that begins here; 0 when it is cut short."""
    size = 8 + int.from_bytes(data[4:8], "little")
    return size + size % 2 if 12 < size <= len(data) else 0


def _wav_length(data: memoryview) -> int:
    """As long as it says, when it says what its samples are and has some."""
    end = riff_length(data)
    at, told = 12, False
    while end and at + 8 <= end:
        tag, length = bytes(data[at : at + 4]), int.from_bytes(data[at + 4 : at + 8], "little")
        if tag == b"fmt " and length >= 16:
            _, channels, rate, _, align = struct.unpack_from("<HHIIH", data, at + 8)
            told = 1 <= channels <= 64 and 1 <= rate <= 1_000_000 and align > 0
        if tag == b"data":
            return end if told else 0
        at += 8 + length + length % 2
    return 0


def _ogg_length(data: memoryview) -> int:
    """From page to page (RFC 3533, section 6), each with its sum, to the last one of the stream."""
    at = 0
    while at + 27 <= len(data) and bytes(data[at : at + 4]) == b"OggS":
        segments = data[at + 26]
        last = data[at + 5] & 4
        if at and data[at + 5] & 2:  # the next stream begins
            break
        end = at + 27 + segments + sum(data[at + 27 : at + 27 + segments])
        page = bytes(data[at : at + 22]) + bytes(4) + bytes(data[at + 26 : end])
        if end > len(data) or _page_sum(page) != int.from_bytes(data[at + 22 : at + 26], "little"):
            return 0
        at = end
        if last:
            break
    return at if at <= len(data) else 0


SOUND_FILES: tuple[SoundFile, ...] = (
    SoundFile(
        name="WAV",
        suffixes=(".wav",),
        signature=b"RIFF....WAVE",
        formats=("WAV", "WAVEX"),
        length=_wav_length,
        codecs={
            "PCM 16": ("PCM_16", ()),
            "PCM 8": ("PCM_U8", ()),
            "PCM 24": ("PCM_24", ()),
            "PCM 32": ("PCM_32", ()),
            "float 32": ("FLOAT", ()),
            "float 64": ("DOUBLE", ()),
            "IMA ADPCM": ("IMA_ADPCM", ()),
            "MS ADPCM": ("MS_ADPCM", ()),
            "A-law": ("ALAW", ()),
            "mu-law": ("ULAW", ()),
        },
    ),
    SoundFile(
        name="FLAC",
        suffixes=(".flac",),
        signature=b"fLaC",
        formats=("FLAC",),
        codecs={"PCM 16": ("PCM_16", ()), "PCM 8": ("PCM_S8", ()), "PCM 24": ("PCM_24", ())},
    ),
    SoundFile(
        name="Ogg",
        suffixes=(".ogg", ".opus"),
        signature=b"OggS",
        whole=rb"OggS\0\x02",
        formats=("OGG",),
        length=_ogg_length,
        codecs={"Vorbis": ("VORBIS", ()), "Opus": ("OPUS", _OPUS_RATES)},
    ),
    SoundFile(
        name="MP3",
        suffixes=(".mp3",),
        signature=rb"ID3|\xff[\xe2\xe3\xea\xeb\xf2\xf3\xfa\xfb]",
        formats=("MP3", "MPEG"),
        codecs={"MP3": ("MPEG_LAYER_III", _MP3_RATES)},
    ),
    SoundFile(name="AIFF", suffixes=(".aiff", ".aif"), signature=b"FORM....AIF", formats=("AIFF",)),
)
_BY_NAME = {one.name: one for one in SOUND_FILES}
_FILE_TYPES = {known: one.name for one in SOUND_FILES for known in one.formats}
_SIGNATURES = re.compile(b"|".join(one.signature for one in SOUND_FILES), re.DOTALL)
SUFFIXES = tuple(suffix for one in SOUND_FILES for suffix in one.suffixes)
LOSSY = ("Vorbis", "Opus", "MP3")
WRITTEN_TYPES = tuple(one.name for one in SOUND_FILES if one.codecs)


def codecs_of(file_type: str) -> tuple[str, ...]:
    """The codecs that can be written into a type of file, the usual one first."""
    known = _BY_NAME.get(file_type)
    return tuple(known.codecs) if known is not None else ()


def usual_codec(file_type: str) -> str:
    """The codec that a type of file is mostly written with."""
    return codecs_of(file_type)[0]


def writable_as(file_type: str, codec: str) -> tuple[str, str]:
    """The type and codec that come nearest among those that can be written: the same, or the type's usual codec, or WAV."""
    file_type = file_type if codecs_of(file_type) else "WAV"
    return file_type, codec if codec in codecs_of(file_type) else usual_codec(file_type)


@dataclass(frozen=True, slots=True)
class SoundInfo:
    """What a sound file's header says."""

    file_type: str
    codec: str
    rate: int
    channels: int
    frames: int
    notes: SoundNotes = NO_NOTES

    @property
    def length_s(self) -> float:
        return self.frames / self.rate


def recognises(data: bytes | memoryview) -> bool:
    """Whether the beginning of `data` looks like a sound file that can be read."""
    return _SIGNATURES.match(data) is not None


def sound_info(data: bytes | memoryview, where: object = "") -> SoundInfo:
    """Type, codec, rate, channels and length, from the header alone."""
    with SoundStream(data, where) as stream:
        return stream.info


def peek_info(head: bytes | memoryview, size: int) -> SoundInfo | None:
    """What the first bytes of a PCM WAV of `size` bytes say of it; None when they do not tell (or it is no WAV)."""
    if head[:4] != b"RIFF" or head[8:12] != b"WAVE":
        return None
    if len(head) >= 44 and head[12:20] == b"fmt \x10\0\0\0" and head[36:40] == b"data":  # as nearly all are
        code, channels, rate, _, align, bits, _, length = struct.unpack_from("<HHIIHH4sI", head, 20)
        if code == 1 and channels and rate and align:
            return SoundInfo("WAV", f"PCM {bits}", rate, channels, max(min(length, size - 44), 0) // align)
    at, fmt = 12, b""
    while at + 8 <= len(head):
        tag, length = bytes(head[at : at + 4]), int.from_bytes(head[at + 4 : at + 8], "little")
        if tag == b"fmt ":
            fmt = bytes(head[at + 8 : at + 24])
        elif tag == b"data" and len(fmt) == 16:
            code, channels, rate, _, align, bits = struct.unpack("<HHIIHH", fmt)
            if code != 1 or not channels or not rate or not align:
                return None
            return SoundInfo(
                "WAV", f"PCM {bits}", rate, channels, max(min(length, size - at - 8), 0) // align
            )
        at += 8 + length + length % 2
    return None


def read_clip(data: bytes | memoryview, where: object = "") -> tuple[Clip, SoundInfo]:
    """A sound file's samples and header, with its notes. Raises FurnelError for damage and for what is not a sound."""
    with SoundStream(data, where) as stream:
        if stream.info.frames * stream.info.channels > _MOST_SAMPLES:
            raise FurnelError(
                WHAT, where=where, why=f"{stream.info.length_s / 60:.0f} minutes are longer than Furnel opens at once",
                remedy="Take a part of it: the first step can",
            )  # fmt: skip
        samples = stream.rest()
        if not len(samples):
            raise FurnelError(WHAT, where=where, why="there is no sound in it")
        info = replace(stream.info, frames=len(samples), notes=read_notes(data, len(samples)))
        return Clip(samples, info.rate, info.notes.loop), info


class SoundStream:
    """A sound file that is read piece by piece: a path, or bytes that may lie in a mapped file. Opening it reads its header."""

    def __init__(self, file: Path | bytes | memoryview, where: object = "") -> None:
        self._where = where or (file if isinstance(file, Path) else "")
        try:
            self._stream: Any = file.open("rb") if isinstance(file, Path) else reader(file)
        except OSError as error:
            raise FurnelError(WHAT, where=file, why=reason(error)) from error
        try:
            head = self._stream.read(1 << 16)
            self._stream.seek(0)
            self._file = _open(self._stream, head, self._where)
            info = _info(self._file, self._where)
        except FurnelError:
            self._stream.close()
            raise
        told = fact_frames(head)
        self.info = replace(info, frames=told) if told is not None and told < info.frames else info

    def __enter__(self) -> SoundStream:
        return self

    def __exit__(self, *_: object) -> None:
        self.close()

    def close(self) -> None:
        """Let go of the file."""
        self._file.close()
        self._stream.close()

    def read(self, start: int, frames: int) -> Samples:
        """Frames from `start` on, (frames, channels) float32; fewer at the end."""
        import soundfile

        frames = max(min(frames, self.info.frames - start), 0)
        if not frames:
            return np.zeros((0, self.info.channels), np.float32)
        try:
            if self._file.tell() != start:
                self._file.seek(start)
            samples: Samples = self._file.read(frames, dtype="float32", always_2d=True)
        except (soundfile.LibsndfileError, RuntimeError, ValueError) as error:
            raise _refusal(self._where, error) from error
        if self.info.file_type == "Ogg" and (places := from_ogg(samples.shape[1])) is not None:
            samples = np.ascontiguousarray(samples[:, places])
        if not float(np.abs(samples).max(initial=0.0)) <= _LOUDEST:  # not a number is not below it, either
            samples = np.clip(np.nan_to_num(samples, nan=0.0), -_LOUDEST, _LOUDEST)
        return samples

    def pieces(self, start: int = 0, end: int | None = None, frames: int = _SLICE) -> Iterator[Samples]:
        """The frames from `start` up to `end` in pieces."""
        end = self.info.frames if end is None else min(end, self.info.frames)
        while start < end:
            piece = self.read(start, min(frames, end - start))
            if not len(piece):
                return
            yield piece
            start += len(piece)

    def part(self, start: int, end: int) -> Clip:
        """The frames from `start` up to `end` as a clip. Raises FurnelError when there are none."""
        parts = list(self.pieces(max(start, 0), end))
        if not parts:
            raise FurnelError(
                WHAT, where=self._where, why=f"there is nothing from {start / self.info.rate:.2f} s on",
                remedy=f"It is {self.info.length_s:.2f} s long",
            )  # fmt: skip
        return Clip(np.concatenate(parts), self.info.rate)

    def rest(self) -> Samples:
        """All frames."""
        parts = list(self.pieces())
        return np.concatenate(parts) if parts else np.zeros((0, self.info.channels), np.float32)


def open_clip(path: Path) -> tuple[Clip, SoundInfo]:
    """The sound file at `path`."""
    try:
        return read_clip(path.read_bytes(), path)
    except OSError as error:
        raise FurnelError(WHAT, where=path, why=reason(error)) from error


def write_clip(
    clip: Clip, file_type: str, codec: str, quality: float = 0.6, notes: SoundNotes = NO_NOTES
) -> bytes:
    """The clip as a file: a type and codec of `codecs_of`, lossy ones at `quality` 0 to 1, with the clip's loop and `notes`.

    The same clip gives the same bytes every time. Raises FurnelError for another type or codec, or a rate that it has not.
    """
    import soundfile

    if codec not in codecs_of(file_type):
        raise FurnelError(
            "Writing a sound", why=f"{file_type} with {codec} is not written",
            remedy=f"Use one of {', '.join(WRITTEN_TYPES)}",
        )  # fmt: skip
    kind, (subtype, rates) = _BY_NAME[file_type].formats[0], _BY_NAME[file_type].codecs[codec]
    if rates and clip.rate not in rates:
        raise FurnelError(
            "Writing a sound",
            why=f"{codec} has no {clip.rate} Hz",
            remedy=f"Resample to {min(rates, key=lambda r: (r < clip.rate, abs(r - clip.rate)))} Hz",
        )
    options: dict[str, Any] = {"format": kind, "subtype": subtype}
    if codec in LOSSY:
        options["compression_level"] = 1.0 - min(max(quality, 0.0), 1.0)
    stream, samples = io.BytesIO(), clip.samples
    if file_type == "Ogg" and (places := to_ogg(clip.channels)) is not None:
        samples = samples[:, places]
    try:
        with soundfile.SoundFile(stream, "w", clip.rate, clip.channels, **options) as file:
            for start in range(0, clip.frames, _SLICE):
                file.write(samples[start : start + _SLICE])
    except (soundfile.LibsndfileError, RuntimeError, ValueError) as error:
        raise FurnelError(
            "Writing a sound", why=f"{file_type} with {codec} does not take it ({error})",
            remedy="Use another rate or fewer channels",
        ) from error  # fmt: skip
    data = stream.getvalue()
    told = SoundNotes(clip.loop or notes.loop, notes.cues, notes.tags)
    if file_type == "WAV":
        data = _with_fact(data, clip.frames) if codec in ("IMA ADPCM", "MS ADPCM") else data
    if told != NO_NOTES or codec.startswith("float"):
        data = with_notes(data, told, clip.rate)
    return _with_serial(data) if file_type == "Ogg" else data


def nominal_kilobits(data: bytes | memoryview) -> float:
    """What an Ogg Vorbis file says that a second of it takes, in kbit/s (Vorbis I, 4.2.2); 0 for all else."""
    head = bytes(data[:256])
    at = head.find(b"\x01vorbis")
    if not head.startswith(b"OggS") or at < 0 or len(head) < at + 28:
        return 0.0
    nominal: int = struct.unpack_from("<i", head, at + 20)[0]
    return max(nominal, 0) / 1000


@lru_cache(maxsize=64)
def quality_for(kilobits: int, rate: int, channels: int) -> float:
    """The quality (0 to 1) at which the encoder of Vorbis says this much for a second, or what comes nearest to it."""
    short = Clip(np.zeros((rate // 50, channels), np.float32), rate)
    tried = [
        (step / 10, nominal_kilobits(write_clip(short, "Ogg", "Vorbis", step / 10))) for step in range(11)
    ]
    return min(tried, key=lambda one: (abs(one[1] - kilobits), -one[0]))[0]


def _with_fact(data: bytes, frames: int) -> bytes:
    """A WAV whose last block is filled up, saying how many frames it really has."""
    out = bytearray(data)
    for tag, start, _ in wav_chunks(data):
        if tag == b"fact":
            out[start : start + 4] = frames.to_bytes(4, "little")
    return bytes(out)


def _open(stream: Any, head: bytes, where: object) -> Any:
    import soundfile

    if not recognises(head):
        raise FurnelError(
            WHAT,
            where=where,
            why="it is not a WAV, FLAC, Ogg, MP3 or AIFF file",
            remedy="Save it as WAV in your sound editor",
        )
    try:
        return soundfile.SoundFile(stream)
    except (soundfile.LibsndfileError, RuntimeError, TypeError, ValueError) as error:
        raise _refusal(where, error) from error


def _info(file: Any, where: object) -> SoundInfo:
    if not _RATES[0] <= file.samplerate <= _RATES[1] or file.frames < 0:
        raise FurnelError(
            WHAT,
            where=where,
            why=f"it says {file.frames} frames at {file.samplerate} Hz",
            remedy="It is damaged, or no sound",
        )
    return SoundInfo(
        _FILE_TYPES.get(file.format, file.format),
        _CODECS.get(file.subtype, file.subtype),
        file.samplerate,
        file.channels,
        file.frames,
    )


def _refusal(where: object, error: Exception) -> FurnelError:
    return FurnelError(
        WHAT,
        where=where,
        why=f"it is damaged ({error})",
        remedy="Open it in the program that made it and save it again",
    )


def _with_serial(data: bytes) -> bytes:
    """An Ogg stream with a fixed serial number and its page checksums renewed (RFC 3533, section 6)."""
    out, at = bytearray(data), 0
    while at + 27 <= len(out) and out[at : at + 4] == b"OggS":
        count = out[at + 26]
        size = 27 + count + sum(out[at + 27 : at + 27 + count])
        out[at + 14 : at + 18] = struct.pack("<I", _SERIAL)
        out[at + 22 : at + 26] = bytes(4)
        out[at + 22 : at + 26] = struct.pack("<I", _page_sum(bytes(out[at : at + size])))
        at += size
    return bytes(out)


_MIRRORED = bytes(int(f"{byte:08b}"[::-1], 2) for byte in range(256))


def _page_sum(page: bytes) -> int:
    """Ogg's CRC-32 runs over the bits in the other order than zlib's: mirror the bytes, then the result."""
    crc = zlib.crc32(page.translate(_MIRRORED), 0xFFFFFFFF) ^ 0xFFFFFFFF
    return int(f"{crc:032b}"[::-1], 2)
