"""What a picture file type is: one record, from which reading, fitting, carving, the encoding card and docs/files.md derive."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from furnel.errors import FurnelError
from furnel.images.texture import Texture

Data = bytes | memoryview


@dataclass(frozen=True, slots=True, kw_only=True)
class Note:
    """Something that a file says of how it was written, beside its pixels.

    `choices` are what can be asked for, the default first; they are on the encoding card when it is `offered`. `why` is for
    the fit point that compares it, which only notes with a reason have. A note that is `kept` is asked for again when a file
    is written like the original. What a format needs of one that is told `by_format` goes before that.
    """

    key: str
    label: str
    choices: tuple[str, ...] = ()
    why: str = ""
    offered: bool = False
    kept: bool = True
    by_format: bool = False


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class PictureFile:
    """A picture file type.

    - `signature` is a pattern that its first bytes match; `recognises` is asked where that is not enough.
    - `read(data, where)` gives a Texture; it raises FurnelError for damage and for kinds that are not read, never anything
      else, and allocates nothing by a number that the file's length does not bear out.
    - `read_header` gives the same with levels that hold no data, from the first bytes alone. It may leave out notes that
      stand behind the pixels (TGA's footer), and tells no damage of the pixels.
    - `write(texture)` gives bytes that `read` takes, or is None where none are written. FurnelError where it cannot.
    - `read_level(data, where, level)` unpacks that level alone, where a level costs something to unpack.
    - `length(data)` is how many bytes a file takes that begins here, 0 when that cannot be told; carving asks it.
    - `header(data)` are the first bytes that `read_header` depends on, where all such files have that part.
    - `formats` are those that are worth trying; `has_levels` and `has_colour_space` what else it stores.
    - `needs(fmt)` gives the notes without which a format cannot be written.
    - `known_by_format`: people call such a file by its pixel format.
    """

    name: str
    suffixes: tuple[str, ...]
    signature: bytes
    read: Callable[[Data, object], Texture]
    read_header: Callable[[Data, object], Texture]
    recognises_more: Callable[[Data], bool] | None = None
    write: Callable[[Texture], bytes] | None = None
    read_level: Callable[[Data, object, int], Texture] | None = None
    length: Callable[[memoryview], int] | None = None
    header: Callable[[Data], Data] | None = None
    formats: tuple[str, ...] = ()
    has_levels: bool = False
    has_colour_space: bool = False
    known_by_format: bool = False
    notes: tuple[Note, ...] = ()
    needs: Callable[[str], dict[str, str]] = lambda fmt: {}

    def recognises(self, data: Data) -> bool:
        """Whether bytes (at least the first 32) look like such a file."""
        if self.recognises_more is not None:
            return self.recognises_more(data)
        return re.match(self.signature, data, re.DOTALL) is not None

    def kept(self, notes: Mapping[str, str]) -> dict[str, str]:
        """Those of a file's notes that another one, written like it, is to have."""
        keys = {note.key for note in self.notes if note.kept}
        return {key: value for key, value in notes.items() if key in keys}


def header_length(read_header: Callable[[Data, object], tuple[Texture, int]], data: memoryview) -> int:
    """The length of a file whose levels follow its header one after the other; 0 when its header cannot be read."""
    try:
        texture, start = read_header(data, "")
    except FurnelError:
        return 0
    levels = sum(
        texture.pixel_format.level_bytes(*texture.level_size(level)) * texture.level_depth(level)
        for level in range(len(texture.levels))
    )
    return start + levels * (1 + len(texture.others))
