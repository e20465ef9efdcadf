"""What can be told of an asset from its first bytes and its role."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from furnel import imagefiles, sound, texts
from furnel.errors import FurnelError

Kind = Literal["texture", "sheet", "sound", "music", "definition", "other"]
KINDS: tuple[Kind, ...] = ("texture", "sheet", "sound", "music", "definition", "other")
HEAD_BYTES = 256
_MOST_KNOWN = 4096
_LONG_S = 10.0


@dataclass(frozen=True, slots=True)
class Facts:
    """An asset at a glance; sizes in pixels and frames are 0 where they mean nothing."""

    kind: Kind
    format: str
    width: int = 0
    height: int = 0
    levels: int = 0
    rate: int = 0
    channels: int = 0
    frames: int = 0

    @property
    def length_s(self) -> float:
        return self.frames / self.rate if self.rate else 0.0


def needs_whole(head: bytes) -> bool:
    """Whether the facts of a file that begins like this stand at its end."""
    return head[:4] != b"RIFF" and sound.recognises(head)


def facts_of(data: bytes, size: int, path: str, role: str) -> Facts:
    """Facts from an asset's first (or all its) bytes; `other` for what is not recognised or is damaged."""
    try:
        if sound.recognises(data):
            info = sound.peek_info(data, size) or sound.sound_info(data, path)
            label = "WAV" if info.file_type == "WAV" else info.codec
            kind: Kind = "music" if role == "loop" or info.length_s > _LONG_S else "sound"
            return Facts(kind, label, rate=info.rate, channels=info.channels, frames=info.frames)
        if (kind_of_text := texts.format_of(path)) is not None:
            return Facts("definition", kind_of_text)
        if imagefiles.recognises(data):
            texture = imagefiles.read_header(data, path)
            label = texture.format if texture.file_type == "DDS" else texture.file_type
            kind = "sheet" if role == "sheet" else "texture"
            return Facts(kind, label, texture.width, texture.height, len(texture.levels))
    except FurnelError:
        pass
    return Facts("other", path.rpartition(".")[2].upper() if "." in path else "?")


class Glances:
    """`facts_of` for many assets: pictures whose headers are the same bytes are looked into once."""

    def __init__(self) -> None:
        self._known: dict[tuple[bytes, str], Facts] = {}

    def facts(self, head: bytes, size: int, path: str, role: str) -> Facts:
        """The facts of an asset that begins with `head`."""
        mark = head[:4]
        if mark == b"DDS ":
            key = head[: 148 if head[84:88] == b"DX10" else 128], role
        elif mark == b"\x89PNG":
            key = head[:33], role
        else:
            return facts_of(head, size, path, role)
        found = self._known.get(key)
        if found is None:
            found = facts_of(head, size, path, role)
            if found.kind != "other" and len(self._known) < _MOST_KNOWN:
                self._known[key] = found
        return found
