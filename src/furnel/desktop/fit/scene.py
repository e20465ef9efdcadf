"""The role's own preview: what the game makes of a picture together with others, put together from the game and the mod."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from furnel import imagefiles
from furnel.catalogue import Catalogue
from furnel.errors import FurnelError
from furnel.images import compose
from furnel.images.picture import Picture
from furnel.images.resample import resize

Sort = Literal["gauge", "tint", "glow", "sizes", "normals", "badge"]
_LIT_SIDE = 256


@dataclass(frozen=True, slots=True, eq=False)
class Scene:
    """What a preview is made of, for each side (the game's first): a picture's parts by name, or pictures at their sizes."""

    kind: Sort
    parts: tuple[dict[str, Picture], dict[str, Picture]]
    sizes: tuple[tuple[str, Picture, Picture], ...] = ()
    tints: tuple[tuple[int, int, int], ...] = ()
    keep_out: tuple[tuple[int, int, int, int], ...] = ()

    def shown(self, side: int, amount: float, place: tuple[float, float]) -> list[Picture]:
        """The pictures of one side; `amount` (0 to 1) fills a gauge or weighs a glow, `place` is where the lamp hangs."""
        parts = self.parts[side]
        if self.kind == "gauge":
            return [compose.gauge(parts["base"], parts.get("level"), parts.get("glow"), amount)]
        if self.kind == "tint":
            return [compose.tinted(parts["base"], tint) for tint in self.tints]
        if self.kind == "glow":
            return [compose.added(parts["base"], parts["glow"], amount)]
        if self.kind == "normals":
            return [compose.lit(parts["base"], (*place, 0.05 + 0.6 * amount))]
        if self.kind == "sizes":
            return [(theirs, ours)[side] for _, theirs, ours in self.sizes]
        return [parts["base"]]


def scene_of(
    path: str, original: Picture, yours: Picture, catalogue: Catalogue, results: Mapping[str, bytes]
) -> Scene | None:
    """The preview that goes with an asset's role; None for roles that have none of their own."""
    role = catalogue.install.profile.role_of(path)
    if role is None or original.size != yours.size:
        return None
    game, mine = _Reader(catalogue, {}), _Reader(catalogue, results)
    if "gauge" in role.does:
        return _gauge(path, original, yours, catalogue, game, mine)
    if role.tints:
        return Scene(
            "tint", ({"base": original}, {"base": yours}), tints=tuple(_colour(code) for code in role.tints)
        )
    if role.lights:
        bases = game.picture(role.lights), mine.picture(role.lights)
        if bases[0] is None or bases[1] is None:
            return None
        return Scene("glow", ({"base": bases[0], "glow": original}, {"base": bases[1], "glow": yours}))
    if role.channels == "normals":
        small = tuple({"base": _limited(picture)} for picture in (original, yours))
        return Scene("normals", (small[0], small[1]))
    if "emblem" in role.does:
        return _sizes(path, original, yours, catalogue, game, mine)
    if role.keep_out:
        return Scene("badge", ({"base": original}, {"base": yours}), keep_out=role.keep_out)
    return None


class _Reader:
    """Pictures of assets, as the mod has them where it has them."""

    def __init__(self, catalogue: Catalogue, results: Mapping[str, bytes]) -> None:
        self._catalogue, self._results = catalogue, results

    def picture(self, path: str) -> Picture | None:
        try:
            data = self._results.get(path) or self._catalogue.bytes_of(path)
            return imagefiles.decode_level(imagefiles.read_texture(data, path))
        except FurnelError:
            return None


def _gauge(
    path: str, original: Picture, yours: Picture, catalogue: Catalogue, game: _Reader, mine: _Reader
) -> Scene | None:
    """The gauge that an asset is the base, the level or the glow of."""
    profile = catalogue.install.profile
    roles = dict.fromkeys(rule.role for rule in profile.roles if rule.level)
    for base in (path for role in roles for path in catalogue.assets.with_role(role)):
        rule = profile.role_of(base)
        if rule is None or not rule.level:
            continue
        names = {"base": base, "level": companion(base, rule.level), "glow": companion(base, rule.glow)}
        if path not in names.values():
            continue
        sides = []
        for reader, own in ((game, original), (mine, yours)):
            found = {
                part: own if name == path else reader.picture(name) for part, name in names.items() if name
            }
            sides.append({part: picture for part, picture in found.items() if picture is not None})
        if "base" in sides[0] and "base" in sides[1]:
            return Scene("gauge", (sides[0], sides[1]))
    return None


def _sizes(
    path: str, original: Picture, yours: Picture, catalogue: Catalogue, game: _Reader, mine: _Reader
) -> Scene | None:
    """The same emblem at all its sizes: files of the same name in other folders beside its own."""
    name = path.rpartition("/")[2]
    above = path.rpartition("/")[0].rpartition("/")[0]
    entries = []
    for twin in catalogue.assets.paths:
        if not twin.endswith(f"/{name}") or not twin.startswith(f"{above}/"):
            continue
        theirs = original if twin == path else game.picture(twin)
        ours = yours if twin == path else mine.picture(twin)
        if theirs is not None and ours is not None:
            entries.append((twin.rpartition("/")[0].rpartition("/")[2], theirs, ours))
    entries.sort(key=lambda entry: -entry[1].width)
    return Scene("sizes", ({}, {}), sizes=tuple(entries)) if len(entries) > 1 else None


def companion(path: str, pattern: str) -> str:
    """The inner path that a role's pattern means for an asset; empty when there is no pattern."""
    folder, _, name = path.rpartition("/")
    return pattern.replace("{folder}", folder).replace("{stem}", name.rpartition(".")[0])


def _limited(picture: Picture) -> Picture:
    scale = _LIT_SIDE / max(picture.size)
    if scale >= 1:
        return picture
    return resize(
        picture, max(round(picture.width * scale), 1), max(round(picture.height * scale), 1), "area"
    )


def _colour(code: str) -> tuple[int, int, int]:
    red, green, blue = bytes.fromhex(code)
    return red, green, blue
