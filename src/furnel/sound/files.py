"""Sound files through libsndfile: WAV, FLAC, Ogg Vorbis, MP3 and AIFF in; WAV and Ogg Vorbis out."""

from __future__ import annotations

import io
import struct
import zlib
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from furnel.errors import FurnelError, reason
from furnel.sound.clip import Clip

WHAT = "Reading a sound"
SUFFIXES = (".wav", ".flac", ".ogg", ".opus", ".mp3", ".aiff", ".aif")

_SLICE = 1 << 16  # libsndfile can crash on one huge Vorbis write
_MOST_SAMPLES = 1 << 30
_SERIAL = 0x4655524E
_FILE_TYPES = {
    "WAV": "WAV",
    "WAVEX": "WAV",
    "FLAC": "FLAC",
    "OGG": "Ogg",
    "MP3": "MP3",
    "MPEG": "MP3",
    "AIFF": "AIFF",
}
_CODECS = {
    "PCM_S8": "PCM 8", "PCM_U8": "PCM 8", "PCM_16": "PCM 16", "PCM_24": "PCM 24", "PCM_32": "PCM 32", "FLOAT": "float 32",
    "DOUBLE": "float 64", "VORBIS": "Vorbis", "OPUS": "Opus", "MPEG_LAYER_III": "MP3", "IMA_ADPCM": "IMA ADPCM",
    "ALAW": "A-law", "ULAW": "mu-law",
}  # fmt: skip
_WAV_SUBTYPES = {
    "PCM 8": "PCM_U8",
    "PCM 16": "PCM_16",
    "PCM 24": "PCM_24",
    "PCM 32": "PCM_32",
    "float 32": "FLOAT",
}


@dataclass(frozen=True, slots=True)
class SoundInfo:
    """What a sound file's header says."""

    file_type: str
    codec: str
    rate: int
    channels: int
    frames: int

    @property
    def length_s(self) -> float:
        return self.frames / self.rate


def recognises(data: bytes | memoryview) -> bool:
    """Whether the beginning of `data` looks like a sound file that can be read."""
    head = bytes(data[:12])
    return (
        (head[:4] == b"RIFF" and head[8:] == b"WAVE")
        or (head[:4] == b"FORM" and head[8:11] == b"AIF")
        or head.startswith((b"OggS", b"fLaC", b"ID3"))
        or (len(head) > 2 and head[0] == 0xFF and head[1] & 0xE6 == 0xE2)
    )


def sound_info(data: bytes, where: object = "") -> SoundInfo:
    """Type, codec, rate, channels and length, from the header alone."""
    with _open(data, where) as file:
        return _info(file)


def peek_info(head: bytes, size: int) -> SoundInfo | None:
    """What the first bytes of a PCM WAV of `size` bytes say of it; None when they do not tell (or it is no WAV)."""
    if head[:4] != b"RIFF" or head[8:12] != b"WAVE":
        return None
    if head[12:20] == b"fmt \x10\0\0\0" and head[36:40] == b"data":  # as nearly all are
        code, channels, rate, _, align, bits, _, length = struct.unpack_from("<HHIIHH4sI", head, 20)
        if code == 1 and channels and rate and align:
            return SoundInfo("WAV", f"PCM {bits}", rate, channels, min(length, size - 44) // align)
    at, fmt = 12, b""
    while at + 8 <= len(head):
        tag, length = head[at : at + 4], int.from_bytes(head[at + 4 : at + 8], "little")
        if tag == b"fmt ":
            fmt = head[at + 8 : at + 24]
        elif tag == b"data" and len(fmt) == 16:
            code, channels, rate, _, align, bits = struct.unpack("<HHIIHH", fmt)
            if code != 1 or not channels or not rate or not align:
                return None
            return SoundInfo("WAV", f"PCM {bits}", rate, channels, min(length, size - at - 8) // align)
        at += 8 + length + length % 2
    return None


def read_clip(data: bytes, where: object = "") -> tuple[Clip, SoundInfo]:
    """A sound file's samples and header. Raises FurnelError for damage and for what is not a sound."""
    import soundfile

    with _open(data, where) as file:
        info = _info(file)
        parts, count = [], 0
        try:
            while len(part := file.read(_SLICE, dtype="float32", always_2d=True)):
                parts.append(part)
                count += part.size
                if count > _MOST_SAMPLES:
                    raise FurnelError(WHAT, where=where, why="it is longer than Furnel opens at once")
        except (soundfile.LibsndfileError, RuntimeError) as error:
            raise _refusal(where, error) from error
        samples = np.concatenate(parts) if parts else np.zeros((0, info.channels), np.float32)
        if not len(samples):
            raise FurnelError(WHAT, where=where, why="there is no sound in it")
        if not np.isfinite(samples).all():
            samples = np.nan_to_num(samples, nan=0.0, posinf=1.0, neginf=-1.0)
        return Clip(samples, info.rate), SoundInfo(
            info.file_type, info.codec, info.rate, info.channels, len(samples)
        )


def open_clip(path: Path) -> tuple[Clip, SoundInfo]:
    """The sound file at `path`."""
    try:
        return read_clip(path.read_bytes(), path)
    except OSError as error:
        raise FurnelError(WHAT, where=path, why=reason(error)) from error


def write_clip(clip: Clip, file_type: str, codec: str, quality: float = 0.6) -> bytes:
    """The clip as a file: WAV with PCM 8/16/24/32 or float 32, or Ogg with Vorbis at `quality` 0 to 1.

    The same clip gives the same bytes every time. Raises FurnelError for another type or codec.
    """
    import soundfile

    stream = io.BytesIO()
    if file_type == "WAV" and codec in _WAV_SUBTYPES:
        options: dict[str, Any] = {"format": "WAV", "subtype": _WAV_SUBTYPES[codec]}
    elif file_type == "Ogg" and codec == "Vorbis":
        options = {
            "format": "OGG",
            "subtype": "VORBIS",
            "compression_level": 1.0 - min(max(quality, 0.0), 1.0),
        }
    else:
        raise FurnelError(
            "Writing a sound", why=f"{file_type} with {codec} is not written", remedy="Use WAV or Ogg Vorbis"
        )
    with soundfile.SoundFile(stream, "w", clip.rate, clip.channels, **options) as file:
        for start in range(0, clip.frames, _SLICE):
            file.write(clip.samples[start : start + _SLICE])
    return _with_serial(stream.getvalue()) if file_type == "Ogg" else stream.getvalue()


def _open(data: bytes, where: object) -> Any:
    import soundfile

    if not recognises(data):
        raise FurnelError(
            WHAT,
            where=where,
            why="it is not a WAV, FLAC, Ogg, MP3 or AIFF file",
            remedy="Save it as WAV in your sound editor",
        )
    try:
        return soundfile.SoundFile(io.BytesIO(data))
    except (soundfile.LibsndfileError, RuntimeError, TypeError, ValueError) as error:
        raise _refusal(where, error) from error


def _info(file: Any) -> SoundInfo:
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
