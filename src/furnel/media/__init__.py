"""Media and the kinds of assets that are of them: how they are recognised, opened, compared, shown and written.

One more medium is a module here and a line in `MEDIA`, and a bench in `furnel.desktop.fit.benches`.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path
from typing import get_args

from furnel.errors import FurnelError, reason
from furnel.games import RoleRule
from furnel.images.picture import Picture
from furnel.media.encode import Encode
from furnel.media.medium import Data, Facts, Kind, Media, Medium, Preview, Spec
from furnel.media.other import OTHER, RawSpec
from furnel.media.picture import PICTURE, PictureSpec, picture_preview
from furnel.media.sound import SOUND, SoundSpec, sound_spec, waveform_preview
from furnel.media.text import TEXT, TextSpec

__all__ = [
    "HEAD_BYTES", "KINDS", "KIND_TITLES", "MEDIA", "OTHER", "PICTURE", "SOUND", "TEXT", "Encode", "Facts", "Glances",
    "Kind", "Media", "Medium", "PictureSpec", "Preview", "RawSpec", "SoundSpec", "Spec", "TextSpec", "encoding_kept",
    "encoding_like", "facts_of", "media_preview", "medium_by_suffix", "medium_named", "medium_of", "medium_of_kind",
    "medium_of_media", "medium_of_spec", "preview_of", "preview_of_file", "sound_spec", "spec_of",
]  # fmt: skip

MEDIA: tuple[Medium, ...] = (SOUND, TEXT, PICTURE, OTHER)
"""In the order in which they are asked whether they recognise a file; the last one takes everything."""
KINDS: tuple[Kind, ...] = get_args(Kind)
KIND_TITLES: dict[str, str] = {
    kind: title for medium in MEDIA for kind, title in zip(medium.kinds, medium.titles, strict=True)
}
HEAD_BYTES = 256
_LONG_HEAD = 1 << 16
_MOST_KNOWN = 4096
_BY_NAME = {medium.name: medium for medium in MEDIA}
_BY_KIND = {kind: medium for medium in MEDIA for kind in medium.kinds}
_BY_SPEC = {medium.spec_type: medium for medium in MEDIA}
_BY_SUFFIX = {suffix: medium for medium in MEDIA for suffix in medium.suffixes}


def medium_of(data: Data, path: object = "") -> Medium:
    """The medium of some bytes (at least the first 256) of a file of that name."""
    return next(medium for medium in MEDIA if medium.recognises(data, str(path)))


def medium_named(name: str) -> Medium:
    return _BY_NAME[name]


def medium_of_kind(kind: Kind) -> Medium:
    return _BY_KIND[kind]


def medium_of_spec(spec: Spec) -> Medium:
    return _BY_SPEC[type(spec)]


def medium_of_media(media: Media) -> Medium:
    """The medium of what steps work on."""
    return PICTURE if isinstance(media, Picture) else SOUND


def medium_by_suffix(file: Path) -> Medium:
    """What a file is by its ending alone; `other` for endings that nothing has."""
    return _BY_SUFFIX.get(file.suffix.lower(), OTHER)


def spec_of(data: Data, path: str, role: RoleRule | None = None) -> Spec:
    """The spec of an asset's or a source's bytes. Raises FurnelError when a known kind of file is damaged."""
    return medium_of(data, path).spec(data, path, role)


def facts_of(data: Data, size: int, path: str, does: frozenset[str] = frozenset()) -> Facts:
    """Facts from an asset's first (or all its) bytes; `other` for what is not recognised or is damaged."""
    try:
        return medium_of(data, path).facts(data, size, path, does)
    except FurnelError:
        return OTHER.facts(data, size, path, does)


def preview_of(data: Data, kind: Kind, where: object = "") -> Preview:
    """A preview of an asset's (or a source's) bytes. Damage is told in `fault`, never raised."""
    try:
        return medium_of_kind(kind).preview(data, where)
    except FurnelError as error:
        return Preview(fault=error.why or error.what)


def preview_of_file(file: Path) -> Preview:
    """A preview of a file on the disk, taken for what its ending says."""
    try:
        return medium_by_suffix(file).preview(file.read_bytes(), file)
    except OSError as error:
        return Preview(fault=reason(error))
    except FurnelError as error:
        return Preview(fault=error.why or error.what)


def media_preview(media: Media) -> Preview:
    """A preview of a picture or a clip in memory."""
    return picture_preview(media) if isinstance(media, Picture) else waveform_preview(media)


def encoding_like(original: Spec) -> Encode | None:
    """The encoding that gives a file like an original, tags included; None for what is never encoded."""
    return medium_of_spec(original).encoding_like(original)


def encoding_kept(original: Spec, insist: Sequence[str] = (), now: Encode | None = None) -> Encode | None:
    """The same, with what is in `insist` left as it is `now`."""
    encode = encoding_like(original)
    if now is None or encode is None:
        return encode
    return medium_of_spec(original).encoding_kept(encode, now, frozenset(insist))


class Glances:
    """Facts of many assets from their first bytes: those whose headers are the same bytes are looked into once."""

    def __init__(self) -> None:
        self._known: dict[tuple[bytes, frozenset[str], str], Facts] = {}

    def facts(
        self, head: bytes, size: int, path: str, does: frozenset[str], more: Callable[[int], bytes]
    ) -> Facts:
        """The facts of an asset of `size` bytes that begins with `head`; `more` gives so many of its first bytes."""
        key = bytes(PICTURE.header(head)), does, path.rpartition(".")[2]
        if key[0] and (known := self._known.get(key)) is not None:
            return known
        if medium_of(head, path).needs_whole(head):
            head = more(size)
        found = facts_of(head, size, path, does)
        if found.kind == "other" and len(head) == HEAD_BYTES:  # a header that is longer than most
            found = facts_of(more(_LONG_HEAD), size, path, does)
        if key[0] and found.kind != "other" and len(self._known) < _MOST_KNOWN:
            self._known[key] = found
        return found
