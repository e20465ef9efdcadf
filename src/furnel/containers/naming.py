"""How a layout says what entries are called: the spelling of names in the archive, and the hashes of them."""

from __future__ import annotations

import contextlib
from collections.abc import Mapping, Sequence
from functools import cached_property
from typing import Annotated, Any, Literal

import numpy as np
from pydantic import AfterValidator, Field, model_validator

from furnel.containers.expressions import expression
from furnel.containers.fields import Ending, ExpressionText
from furnel.containers.packing import PACKINGS
from furnel.containers.sums import HASHES, Hashes, letter_by_letter
from furnel.errors import FurnelError
from furnel.schema import KnownIn, OneOf, Part

Packing = Annotated[str, KnownIn(PACKINGS, "one of [[packers]]")]
HashKind = Annotated[str, OneOf(HASHES)]


class HashPart(Part):
    """A hash of the game's own: a number that is `begin`, then for each letter what `step` makes of the `hash` so far and the
    `letter` (a byte; `position` counts from 0, `length` is how many there are), at last what `end` makes of it. It keeps its
    lowest `bits`; it is reckoned with 64 bits and without a sign in between.
    """

    step: ExpressionText
    begin: int = Field(0, ge=0, lt=1 << 64)
    end: ExpressionText = "hash"
    bits: Literal[8, 16, 24, 32, 64] = 32

    @model_validator(mode="after")
    def _is_known(self) -> HashPart:
        for text, known in (
            (self.step, ("hash", "letter", "position", "length")),
            (self.end, ("hash", "length")),
        ):
            if wrong := sorted(expression(text).names - {*known}):
                raise ValueError(f"{text!r} knows {', '.join(known)}, and no {wrong[0]}")
        try:
            self.of([b"Ab"])
        except FurnelError as error:
            raise ValueError(f"{error.where}: {error.why}") from error
        return self

    def of(self, names: list[bytes]) -> Hashes:
        """The hash of each name."""
        lengths = np.fromiter(map(len, names), np.uint64, len(names))

        def each(found: Hashes, letters: Hashes, position: int, inside: Any) -> Hashes:
            values = {"hash": found, "letter": letters, "position": position, "length": lengths[inside]}
            return self._kept(self.step, values)

        return self._kept(self.end, {"hash": letter_by_letter(names, self.begin, each), "length": lengths})

    def _kept(self, text: str, values: Mapping[str, Any]) -> Hashes:
        found = np.asarray(expression(text).evaluate(values))
        if found.dtype != np.uint64:
            raise FurnelError(
                "Reckoning a hash", where=text, why="it has to be made of the hash or the letters, with no comparison in it",
                remedy="Write it with + - * << >> & | ^, or as a if b else c",
            )  # fmt: skip
        return found & np.uint64((1 << self.bits) - 1)


def _is_encoding(name: str) -> str:
    """A character encoding in which every text has one spelling, whatever stands before it."""
    try:
        plain = "a/b".encode(name).decode(name) == "a/b"
    except (LookupError, UnicodeError, TypeError) as error:
        raise ValueError(f"{name!r} is no character encoding that Python knows") from error
    if not plain or not all(_is_steady(letter, name) for letter in "aéяあ한中"):
        raise ValueError(
            f"{name!r} depends on what stands before a letter: use utf-8, utf-16-le, shift-jis, cp1252 …"
        )
    return name


def _is_steady(letter: str, encoding: str) -> bool:
    try:
        return (letter * 2).encode(encoding) == letter.encode(encoding) * 2
    except UnicodeError:
        return True  # it does not have that letter


class NamesPart(Part):
    """How names are written, and how their hashes are made when there is only that, or that too. `drop` stands before every
    name in the archive and is no part of its path; its letters may be `reversed`. Where a name of a name table `shares` letters
    with the one before it, a number before each says how many bytes they are."""

    encoding: Annotated[str, AfterValidator(_is_encoding)] = "utf-8"
    slash: Literal["/", "\\"] = "/"
    drop: Annotated[str, Field(max_length=64)] = ""
    reversed: bool = False
    shares: Literal["u8", "u16"] | None = None
    ends: Ending = "zero"
    packed: Packing = "none"
    hash: HashKind | HashPart | None = None
    letters: Literal["as they are", "lower", "upper"] = "as they are"
    list: str = ""
    unknown: str = "unknown/{hash}"

    @property
    def hash_digits(self) -> int:
        """How many hexadecimal digits a hash has."""
        if isinstance(self.hash, HashPart):
            return self.hash.bits // 4
        return 16 if self.hash in ("fnv1a-64", "xxhash64") else 8

    def hashes(self, paths: Sequence[str]) -> Hashes:
        """The hash of each path, spelled as the archive's game does (letters, slash, encoding)."""
        spelled = [self._spelled(path) for path in paths]
        return (
            self.hash.of(spelled)
            if isinstance(self.hash, HashPart)
            else HASHES[self.hash or "crc32"](spelled)
        )

    def _spelled(self, path: str) -> bytes:
        """A path's bytes as they are hashed."""
        text = self.drop + path.replace("/", self.slash)
        if self.letters != "as they are":
            text = text.lower() if self.letters == "lower" else text.upper()
        return text.encode(self.encoding, "replace")

    @cached_property
    def letter_width(self) -> int:
        """A letter's bytes, at least; where there are several, a zero byte ends nothing."""
        return len("a".encode(self.encoding))

    @property
    def is_wide(self) -> bool:
        """Whether a letter has several bytes."""
        return self.letter_width > 1

    def raw(self, name: str) -> bytes:
        """A name (a path without the entries' prefix) as the archive has it. Raises FurnelError where it cannot."""
        try:
            spelled = self.drop + name.replace("/", self.slash)
            return (spelled[::-1] if self.reversed else spelled).encode(self.encoding)
        except UnicodeEncodeError as error:
            raise FurnelError(
                "Writing an archive", where=name, why=f"{name[error.start]!r} cannot be written in {self.encoding.upper()}",
                remedy="Use a name without it",
            ) from error  # fmt: skip

    def texts(self, raws: Sequence[object], where: object) -> Sequence[str]:
        """Many names; as `text` for each of them."""
        if self.letter_width == 1 and not self.drop and not self.reversed:
            with contextlib.suppress(UnicodeDecodeError, AttributeError):  # told properly below
                cut = [raw.split(b"\0", 1)[0] for raw in raws]  # type: ignore[attr-defined]
                found = b"\0".join(cut).decode(self.encoding).replace(self.slash, "/").split("\0")
                if len(found) == len(raws):
                    return found
        return [self.text(raw, where) for raw in raws]

    def text(self, raw: object, where: object) -> str:
        """A name from its bytes, without padding, with `/` between its parts. Raises FurnelError."""
        data = raw if isinstance(raw, bytes) else b""
        width = self.letter_width
        if width == 1:
            end = data.find(b"\0")
        else:
            ends = (
                at for at in range(0, len(data) - width + 1, width) if data[at : at + width] == bytes(width)
            )
            end = next(ends, -1)
        try:
            found = (data if end < 0 else data[:end]).decode(self.encoding)
        except UnicodeDecodeError as error:
            raise FurnelError(
                "Reading an archive", where=where, why=f"a name in its index is not {self.encoding.upper()}"
            ) from error
        found = found[::-1] if self.reversed else found
        if not found.startswith(self.drop):
            raise FurnelError(
                "Reading an archive", where=where, why=f"the name {found!r} does not begin with {self.drop!r}",
                remedy="[names] drop is for what stands before every name",
            )  # fmt: skip
        return found[len(self.drop) :].replace(self.slash, "/")
