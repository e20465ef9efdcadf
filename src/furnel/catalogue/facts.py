"""What can be told of an asset from its first bytes and its role."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from furnel import imagefiles, sound, texts
from furnel.errors import FurnelError
from furnel.games import RoleRule

Kind = Literal["texture", "sheet", "sound", "music", "definition", "other"]
KINDS: tuple[Kind, ...] = ("texture", "sheet", "sound", "music", "definition", "other")
HEAD_BYTES = 512


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

    def row(self) -> tuple[str | int, ...]:
        """The fields in their order, for the index."""
        return (
            self.kind,
            self.format,
            self.width,
            self.height,
            self.levels,
            self.rate,
            self.channels,
            self.frames,
        )

    @property
    def length_s(self) -> float:
        return self.frames / self.rate if self.rate else 0.0


def needs_whole(head: bytes) -> bool:
    """Whether the facts of a file that begins like this stand at its end."""
    return sound.recognises(head) and head[:4] != b"RIFF"


def facts_of(data: bytes, size: int, path: str, role: RoleRule | None) -> Facts:
    """Facts from an asset's first (or all its) bytes; `other` for what is not recognised or is damaged."""
    try:
        if sound.recognises(data):
            info = sound.peek_info(data, size) or sound.sound_info(data, path)
            label = "WAV" if info.file_type == "WAV" else info.codec
            kind: Kind = "music" if (role and role.role == "loop") or info.length_s > 10 else "sound"
            return Facts(kind, label, rate=info.rate, channels=info.channels, frames=info.frames)
        if (kind_of_text := texts.format_of(path)) is not None:
            return Facts("definition", kind_of_text)
        if imagefiles.recognises(data):
            texture = imagefiles.read_header(data, path)
            label = texture.format if texture.file_type == "DDS" else texture.file_type
            kind = "sheet" if role and role.role == "sheet" else "texture"
            return Facts(kind, label, texture.width, texture.height, len(texture.levels))
    except FurnelError:
        pass
    return Facts("other", path.rpartition(".")[2].upper() if "." in path else "?")
