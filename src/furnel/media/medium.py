"""A medium: what files of one sort hold. Everything that Furnel does with an asset asks its medium, and nothing else."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, ClassVar, Literal

from furnel.errors import FurnelError
from furnel.games import RoleRule
from furnel.images.picture import Picture
from furnel.media.encode import Encode
from furnel.progress import QUIET, Progress
from furnel.sound import Clip, Samples

Kind = Literal["texture", "sheet", "sound", "music", "definition", "other"]
Media = Picture | Clip
Data = bytes | memoryview
Rows = list[tuple[str, str]]


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


@dataclass(frozen=True, slots=True, eq=False)
class Preview:
    """What a tile shows: a picture, or a waveform's (2, columns) low and high, or lines of text, or why there is none."""

    picture: Picture | None = None
    waveform: Samples | None = None
    text: str = ""
    fault: str = ""


class Spec:
    """What an asset is, read from its bytes and its role: what a replacement has to match. Each medium has its own."""

    __slots__ = ()
    file_type: str

    @property
    def kind(self) -> Kind:
        """Which kind of asset this is the spec of."""
        raise NotImplementedError


class Medium:
    """One medium. A new one is a module with a subclass of this and a line in `furnel.media.MEDIA`.

    What is left as it is here means: such files are taken as they are, with nothing to see, to open or to encode.
    `name` is what steps call their domain, `kinds` the kinds of assets that are of it (and `titles` what
    a list calls these), `suffixes` the file endings in small
    letters, `spec_type` the class of its specs, `called` what a person calls one.
    """

    name: ClassVar[str]
    called: ClassVar[str]
    kinds: ClassVar[tuple[Kind, ...]]
    titles: ClassVar[tuple[str, ...]]
    spec_type: ClassVar[type[Spec]]
    suffixes: ClassVar[tuple[str, ...]] = ()
    plain: ClassVar[str] = ""
    """The form that every editor opens, as take-out calls it."""
    is_heard: ClassVar[bool] = False
    """Whether it is played rather than looked at."""
    steps_in_order: ClassVar[bool] = False
    """Whether steps build on each other, so that one that is put in again comes last, not where it was."""
    has_likeness: ClassVar[bool] = False
    """Whether others that look or sound like it can be found."""

    def recognises(self, data: Data, path: str) -> bool:
        """Whether bytes (at least the first 256) of a file of that name hold it. Asked in the order of `MEDIA`."""
        raise NotImplementedError

    def needs_whole(self, head: Data) -> bool:
        """Whether the facts of a file that begins like this stand at its end."""
        return False

    def header(self, head: Data) -> Data:
        """The first bytes that all facts stand in, when there is such a part; facts of the same header are the same."""
        return b""

    def facts(self, data: Data, size: int, path: str, does: frozenset[str]) -> Facts:
        """The facts of a file of `size` bytes that begins with `data`; `does` is what the game is known to do with it.

        Raises FurnelError for damage.
        """
        raise NotImplementedError

    def spec(self, data: Data, path: str, role: RoleRule | None) -> Spec:
        """The spec of an asset's or a source's bytes. Raises FurnelError for damage."""
        raise NotImplementedError

    def rows(self, facts: Facts, spec: Spec | None) -> Rows:
        """What the card says of an asset, label and value; more when its spec is known."""
        return [("Format", facts.format)]

    def preview(self, data: Data, where: object) -> Preview:
        """What a tile shows. Raises FurnelError for damage."""
        return Preview(fault="no preview for this kind")

    def opened(self, data: Data, where: object) -> Media | None:
        """What steps work on; None for what has none. Raises FurnelError for damage."""
        return None

    def glanced(self, data: Data, where: object, side: int) -> Media:
        """The same for looking for others like it: a picture of at least `side` pixels, cheaper than whole.

        Raises FurnelError when nothing can be looked for by it.
        """
        raise FurnelError(
            "Looking for what is alike",
            where=where,
            why="it is neither a picture nor a sound",
            remedy="Choose a picture or a sound",
        )

    def same_content(self, one: bytes, other: bytes, facts: Facts, where: object) -> bool:
        """Whether a file holds the very content of an asset with these facts, in whatever form. FurnelError for damage."""
        return one == other

    def written(self, media: Media, encode: Encode, progress: Progress = QUIET) -> bytes:
        """The file that `encode` asks for. Raises FurnelError when it cannot be made."""
        raise NotImplementedError

    def as_plain(self, data: bytes, where: object) -> tuple[bytes, str]:
        """The content as a file that every editor opens, and that file's ending."""
        raise NotImplementedError

    def encoding_like(self, original: Any) -> Encode | None:
        """The encoding that gives a file like the one with this spec; None for what is never encoded."""
        return None

    def encoding_kept(self, encode: Encode, now: Encode, insist: frozenset[str]) -> Encode:
        """An encoding like the original's with what is insisted on as it is `now`."""
        return encode
