"""Packers that a layout describes by their parameters: sliding windows with flag bits, and run-lengths."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable
from typing import Annotated, Any, Literal

import numpy as np
import numpy.typing as npt
from pydantic import Field, model_validator

from furnel.containers.container import Order
from furnel.containers.fields import WIDTHS
from furnel.containers.packing import PACKINGS, Data, PackingType, Zstd
from furnel.errors import FurnelError
from furnel.schema import OneOf, Part

Byte = Annotated[int, Field(ge=0, le=255)]
Bits = tuple[Annotated[int, Field(ge=0, le=31)], Annotated[int, Field(ge=1, le=24)]]


class PackerPart(Part):
    """A packing of the game's own, which the rest of the layout uses by its `name`.

    Of the `kind` `window` (after Storer and Szymanski, 1982): flag bits, eight to a byte from the low or the high one
    (`flags`), say of each step whether it is a byte (`literal`) or a pair of `pair-bytes` in an `order`: a `place` in what
    was unpacked before and a `length`, each made of ranges of bits (first, count; the lowest part first). The place is
    counted `back` from where the next byte goes, or is that in a `window` of so many bytes, which `begin`s somewhere and is
    `fill`ed; `place-add` and `shortest` are added to the two. Of the `kind` `runs`: a byte from `mark` on says how often
    the next one stands (`run-least` and more, counted `up` from the mark or `down` from 255), a smaller one how many follow
    as they are (`copy-least` and more); `skip` is one that means nothing. Of the
    kind `blocks`: so many bytes (`block`) are `packed` each for themselves, behind a table of their stored `sizes`; what does
    not become smaller is stored as it is. Of the kind `dictionary`: Zstandard with what the entry `dictionary` holds, which is
    packed otherwise itself.
    """

    name: str = Field(pattern=r"^[a-z][a-z0-9-]*$", max_length=32)
    kind: Literal["window", "runs", "blocks", "dictionary"]
    window: int = Field(4096, ge=16, le=1 << 24)
    begin: int = Field(0, ge=0)
    fill: Byte = 0
    shortest: int = Field(3, ge=1, le=64)
    flags: Literal["low first", "high first"] = "low first"
    literal: Literal[0, 1] = 1
    pair_bytes: int = Field(2, ge=1, le=4)
    order: Order = "little"
    place: tuple[Bits, ...] = ((0, 8), (12, 4))
    length: tuple[Bits, ...] = ((8, 4),)
    place_is: Literal["in the window", "back"] = "in the window"
    place_add: int = Field(0, ge=0, le=1 << 16)
    mark: int = Field(128, ge=1, le=255)
    run_least: int = Field(3, ge=1, le=16)
    copy_least: Literal[0, 1] = 1
    runs: Literal["up", "down"] = "up"
    skip: Byte | None = None
    block: int = Field(1 << 16, ge=64, le=1 << 26)
    packed: Annotated[str, OneOf(name for name in PACKINGS if name != "none")] = "zlib"
    sizes: Literal["u16", "u24", "u32"] = "u32"
    dictionary: str = ""

    @model_validator(mode="after")
    def _can_be(self) -> PackerPart:
        if self.name in PACKINGS:
            raise ValueError(f"{self.name} is a packing that is known already: choose another name")
        if (self.kind == "dictionary") != bool(self.dictionary):
            raise ValueError(
                "a packing of the kind dictionary, and no other, says which entry the dictionary is"
            )
        if self.begin >= self.window:
            raise ValueError("begin is a place in the window")
        taken = [bit for first, count in (*self.place, *self.length) for bit in range(first, first + count)]
        if len(taken) != len(set(taken)) or (taken and max(taken) >= 8 * self.pair_bytes):
            raise ValueError("place and length have bits of the pair, each of them once")
        if sum(count for _, count in self.place) > 30 or sum(count for _, count in self.length) > 16:
            raise ValueError("a place has at most 30 bits, a length 16")
        if self.skip is not None and self.skip not in (
            self.mark - 1,
            255 if self.runs == "up" else self.mark,
        ):
            raise ValueError("skip is the last code of the runs, or the one before the mark")
        return self

    def registered(self) -> str:
        """The key under which this packing is known from now on."""
        told = self.model_dump_json(exclude={"name"})
        key = f"{self.name}#{hashlib.sha256(told.encode()).hexdigest()[:12]}"
        if key not in PACKINGS:
            kinds: dict[str, type[WindowPacking | RunPacking | BlockPacking | DictionaryPacking]] = {
                "window": WindowPacking, "runs": RunPacking, "blocks": BlockPacking, "dictionary": DictionaryPacking,
            }  # fmt: skip
            PACKINGS[key] = kinds[self.kind](self)
        return key


class _Told(PackingType):
    """What the packings have in common whose data does not say where it ends."""

    tells_end = False

    def _unpack(self, source: npt.NDArray[np.uint8], out: npt.NDArray[np.uint8]) -> int:
        raise NotImplementedError

    def unpack(self, data: Data, most: int) -> bytes:
        out = np.empty(most, np.uint8)
        made = self._unpack(np.array(np.frombuffer(data, np.uint8)), out)
        return out[:made].tobytes()

    def start(self, data: Data, size: int) -> bytes:
        return self.unpack(data, size)


class WindowPacking(_Told):
    """A sliding window by its parameters."""

    def __init__(self, part: PackerPart) -> None:
        self.name = part.name  # type: ignore[misc]
        lengths = sum(count for _, count in part.length)
        self.most_ratio = ((1 << lengths) + part.shortest) // part.pair_bytes + 1  # type: ignore[misc]
        self.told = np.array(
            [
                part.window, part.begin, part.fill, part.shortest, part.literal, part.flags == "high first", part.pair_bytes,
                part.order == "big", part.place_is == "back", part.place_add,
            ],
            np.int64,
        )  # fmt: skip
        self._places, self._lengths = (
            np.array(ranges, np.int64).reshape(-1, 2) for ranges in (part.place, part.length)
        )

    def pack(self, data: bytes, longer: int = 0) -> bytes:
        from furnel.containers.packkernels import pack_window

        out = np.empty(len(data) + len(data) // 8 + 16, np.uint8)
        made = pack_window(
            np.array(np.frombuffer(data, np.uint8)), out, self.told, self._places, self._lengths
        )
        return out[:made].tobytes()

    def _unpack(self, source: npt.NDArray[np.uint8], out: npt.NDArray[np.uint8]) -> int:
        from furnel.containers.packkernels import unpack_window

        return int(unpack_window(source, out, self.told, self._places, self._lengths))


class RunPacking(_Told):
    """Run-lengths by their parameters."""

    def __init__(self, part: PackerPart) -> None:
        self.name = part.name  # type: ignore[misc]
        self.most_ratio = part.run_least + 255 - part.mark  # type: ignore[misc]
        skip = -1 if part.skip is None else part.skip
        told = [part.mark, part.run_least, part.copy_least, part.runs == "down", skip]
        self.told = np.array(told, np.int64)

    def pack(self, data: bytes, longer: int = 0) -> bytes:
        from furnel.containers.packkernels import pack_runs

        out = np.empty(2 * len(data) + 16, np.uint8)
        return out[: pack_runs(np.array(np.frombuffer(data, np.uint8)), out, self.told)].tobytes()

    def _unpack(self, source: npt.NDArray[np.uint8], out: npt.NDArray[np.uint8]) -> int:
        from furnel.containers.packkernels import unpack_runs

        return int(unpack_runs(source, out, self.told))


class BlockPacking(PackingType):
    """Blocks that are packed each for itself, behind a table of their stored sizes; one that does not become smaller is stored
    as it is."""

    tells_end = False

    def __init__(self, part: PackerPart) -> None:
        self.name = part.name  # type: ignore[misc]
        self._inner, self._block = PACKINGS[part.packed], part.block
        self._width, self._order = WIDTHS[part.sizes], part.order
        self.most_ratio = self._inner.most_ratio  # type: ignore[misc]
        self.damage = self._inner.damage  # type: ignore[misc]

    def pack(self, data: bytes, longer: int = 0) -> bytes:
        table, out = bytearray(), []
        for at in range(0, len(data), self._block):
            plain = data[at : at + self._block]
            packed = self._inner.pack(plain)
            out.append(packed if len(packed) < len(plain) else plain)
            table += len(out[-1]).to_bytes(self._width, self._order)
        return bytes(table) + b"".join(out)

    def unpack(self, data: Data, most: int) -> bytes:
        return self.span(data, 0, most, most)

    def span(self, data: Data, start: int, end: int, whole: int) -> bytes:
        """Only the blocks that hold something of the span are unpacked."""
        view, count = memoryview(data), -(-whole // self._block)
        table = bytes(view[: count * self._width])
        sizes = [
            int.from_bytes(table[at : at + self._width], self._order)
            for at in range(0, len(table), self._width)
        ]
        if len(table) < count * self._width or sum(sizes) > len(view) - len(table):
            raise ValueError("its blocks run over its end")
        first, last = start // self._block, -(-min(end, whole) // self._block)
        at, out = len(table) + sum(sizes[:first]), []
        for place in range(first, last):
            size = min(self._block, whole - place * self._block)
            piece = view[at : at + sizes[place]]
            at += sizes[place]
            plain = bytes(piece) if len(piece) == size else self._inner.unpack(piece, size)
            if len(plain) != size:
                raise ValueError(f"block {place} unpacks to another size")
            out.append(plain)
        begin = first * self._block
        return b"".join(out)[start - begin : end - begin]


class DictionaryPacking(Zstd):
    """Zstandard with a dictionary that the archive itself holds; without one until it was read."""

    def __init__(self, part: PackerPart, dictionary: bytes = b"") -> None:
        super().__init__(dictionary)
        self.part = part
        self.name = part.name  # type: ignore[misc]

    def _packer(self) -> Any:
        self._check()
        return super()._packer()

    def _unpacker(self) -> Any:
        self._check()
        return super()._unpacker()

    def _check(self) -> None:
        if self.dictionary is None:
            raise FurnelError(
                "Unpacking", where=self.part.name, why=f"its dictionary {self.part.dictionary} is not known yet",
                remedy="The dictionary and the index itself are packed otherwise, or not at all",
            )  # fmt: skip

    def bound(self, dictionary: bytes) -> str:
        """The key of this packing with its dictionary."""
        if not dictionary:
            raise FurnelError("Unpacking", where=self.part.dictionary, why="the dictionary is empty")
        key = f"{self.part.name}@{hashlib.sha256(dictionary).hexdigest()[:16]}"
        if key not in PACKINGS:
            PACKINGS[key] = DictionaryPacking(self.part, dictionary)
        return key


def dictionaries(packings: Iterable[str]) -> dict[str, DictionaryPacking]:
    """Those of some packings that take a dictionary which they do not have yet."""
    found = {name: PACKINGS[name] for name in packings}
    return {
        name: kind for name, kind in found.items()
        if isinstance(kind, DictionaryPacking) and kind.dictionary is None
    }  # fmt: skip


def with_own_packers(told: Any) -> Any:
    """A layout's tables with the names of its own packings turned into the keys under which these are known."""
    packers = told.get("packers") if isinstance(told, dict) else None
    if not isinstance(packers, list | tuple) or not packers:
        return told
    keys = {}
    for packer in packers:
        try:
            part = packer if isinstance(packer, PackerPart) else PackerPart.model_validate(packer)
            keys[part.name] = part.registered()
        except ValueError:  # told where it stands, not where it is used
            keys[str(packer.get("name", "")) if isinstance(packer, dict) else ""] = "none"

    def named(value: Any) -> Any:
        return keys.get(value, value) if isinstance(value, str) else value

    out = dict(told)
    for place in ("entry", "index", "names"):
        if isinstance(part_of := out.get(place), dict):
            turned = {**part_of, **({"packed": named(part_of["packed"])} if "packed" in part_of else {})}
            if isinstance(codes := part_of.get("packings"), dict):
                turned["packings"] = {code: named(packing) for code, packing in codes.items()}
            out[place] = turned
    return out
