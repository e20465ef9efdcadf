"""The sieve: narrowing a catalogue by text, kind, format and sizes, and counting what each choice would leave."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from furnel.catalogue.index import Asset


@dataclass(frozen=True, slots=True)
class Sieve:
    """What to keep. Empty sets keep everything; ranges are inclusive, in pixels (the longer side) and bytes."""

    text: str = ""
    kinds: frozenset[str] = frozenset()
    formats: frozenset[str] = frozenset()
    pixels: tuple[int, int] | None = None
    size_bytes: tuple[int, int] | None = None
    only: frozenset[str] | None = None

    def keeps(self, asset: Asset) -> bool:
        """Whether an asset passes."""
        facts = asset.facts
        if self.kinds and facts.kind not in self.kinds:
            return False
        if self.formats and facts.format not in self.formats:
            return False
        if self.pixels is not None and not self.pixels[0] <= max(facts.width, facts.height) <= self.pixels[1]:
            return False
        if self.size_bytes is not None and not self.size_bytes[0] <= asset.size <= self.size_bytes[1]:
            return False
        if self.only is not None and asset.path not in self.only:
            return False
        if self.text:
            whole = f"{asset.path} {asset.title}".casefold()
            return all(word in whole for word in self.text.casefold().split())
        return True

    @property
    def open(self) -> bool:
        """Whether it keeps everything."""
        return self == Sieve()


@dataclass(frozen=True, slots=True)
class Facets:
    """How many of some assets there are by kind, by format, and by powers of two of pixels and bytes."""

    kinds: dict[str, int]
    formats: dict[str, int]
    pixels: dict[int, int]
    size_bytes: dict[int, int]


def count_facets(assets: Iterable[Asset]) -> Facets:
    """The facets of `assets`; keys of the sizes are the exponent of the power of two at or below."""
    kinds: Counter[str] = Counter()
    formats: Counter[str] = Counter()
    pixels: Counter[int] = Counter()
    sizes: Counter[int] = Counter()
    for asset in assets:
        kinds[asset.facts.kind] += 1
        formats[asset.facts.format] += 1
        side = max(asset.facts.width, asset.facts.height)
        if side:
            pixels[side.bit_length() - 1] += 1
        if asset.size:
            sizes[asset.size.bit_length() - 1] += 1
    return Facets(
        dict(kinds.most_common()),
        dict(formats.most_common()),
        dict(sorted(pixels.items())),
        dict(sorted(sizes.items())),
    )


GROUPINGS = ("folder", "archive", "kind", "format", "size")


def grouped(assets: Sequence[Asset], by: str, largest_first: bool = True) -> list[tuple[str, list[Asset]]]:
    """Assets in named groups, in the groups' order of names; within one by size or by name."""
    groups: dict[str, list[Asset]] = {}
    for asset in assets:
        groups.setdefault(_group(asset, by), []).append(asset)
    for members in groups.values():
        if largest_first:
            members.sort(key=lambda asset: (-asset.facts.width * asset.facts.height, asset.path))
        else:
            members.sort(key=lambda asset: asset.path)
    return sorted(groups.items())


def _group(asset: Asset, by: str) -> str:
    if by == "archive":
        return asset.archive.name
    if by == "kind":
        return asset.facts.kind
    if by == "format":
        return asset.facts.format
    if by == "size":
        return f"{asset.facts.width:5} × {asset.facts.height}" if asset.facts.width else "no pixels"
    return asset.folder
