"""Strips of an open mod: lists of colours in definitions, and the figures that they are for, compared and taken over."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from fnmatch import fnmatchcase
from pathlib import Path
from typing import TYPE_CHECKING

from furnel.catalogue.marks import content_digest
from furnel.errors import FurnelError
from furnel.imagefiles import write_texture
from furnel.images import Picture, Texture
from furnel.images.picture import Rgb
from furnel.images.strips import coloured, colours_in, palette_of, row_of, strangers
from furnel.media import PICTURE, medium_by_suffix
from furnel.mods.asmade import as_made
from furnel.mods.fit.elsewhere import STRIP
from furnel.mods.fit.point import Finding, FitPoint
from furnel.mods.project import Swap
from furnel.mods.render import read_source
from furnel.texts import Change, Document, Fault, address_text, parse_address, spots
from furnel.texts.address import Address, Step
from furnel.texts.document import Value
from furnel.texts.places import place_of
from furnel.texts.strips import StripRule
from furnel.words import count

if TYPE_CHECKING:
    from furnel.mods.workspace import Workspace

WHAT = "Taking a strip"


@dataclass(frozen=True, slots=True)
class Strip:
    """A strip in a definition: the definition's inner path, its address, its value, its rule, the figures that it is for."""

    path: str
    address: str
    value: Value
    rule: StripRule
    figures: tuple[str, ...]

    @property
    def colours(self) -> list[Rgb]:
        """Its colours; none when it is no strip."""
        return self.rule.read(self.value) or []


def rule_at(space: Workspace, path: str, document: Document, address: Address) -> StripRule | None:
    """The rule for strips at an address of a definition, if there is one."""
    records = space.demands.texts.meanings(path, space.profile.values).records
    place = place_of(address, records, bool(document.twins))
    return next(
        (rule.strip for rule in space.profile.values if rule.strip is not None and rule.is_for(path, place)),
        None,
    )


def strips_of(space: Workspace, path: str, document: Document) -> list[Strip]:
    """Every strip of a definition."""
    rules = [rule for rule in space.profile.values if rule.strip is not None and fnmatchcase(path, rule.file)]
    key = f"strips {path}"
    if rules and key not in document.kept:
        document.kept[key] = [
            (spot.address, spot.value, rule.strip)
            for spot in spots(document)
            if isinstance(spot.value, list | dict)
            for rule in rules
            if rule.is_for(path, spot.place)
        ]
    return [
        Strip(path, address_text(address), value, rule, _figures(space, rule, document, address))
        for address, value, rule in document.kept.get(key, ())
    ]


def _figures(space: Workspace, rule: StripRule, document: Document, address: Address) -> tuple[str, ...]:
    """The figures of the game and the mod that a strip is for."""
    own = [swap.original for swap in space.project.swaps if swap.like]
    if "/" in rule.figure:
        return tuple(path for path in [*space.catalogue.assets.paths, *own] if fnmatchcase(path, rule.figure))
    beside = (*address[:-1], Step(rule.figure))
    if not rule.figure or not document.has(beside):
        return ()
    named = document.look(beside)
    return (named,) if isinstance(named, str) and (named in own or space.catalogue.has(named)) else ()


def figure_bytes(space: Workspace, path: str) -> bytes:
    """A figure as the mod makes it. Raises FurnelError when its source cannot be used."""
    swap = space.project.swap_for(path)
    if swap is None or not swap.source:
        return space.catalogue.bytes_of(path)
    return space.rendered(swap, space.catalogue.bytes_of(swap.base))[2]


def _figure(space: Workspace, path: str) -> Picture | None:
    found = PICTURE.opened(figure_bytes(space, path), path)
    return found if isinstance(found, Picture) else None


def strips_for(space: Workspace, figure: str) -> list[Strip]:
    """The strips that a figure is painted with, as the mod has them; those that cannot be read are left out."""
    files = [rule.file for rule in space.profile.values if rule.strip is not None and rule.strip.figure]
    if not files or medium_by_suffix(Path(figure)) is not PICTURE:
        return []
    out = []
    for path in dict.fromkeys(path for file in files for path in space.demands.texts.matching(file)):
        try:
            out += [
                strip for strip in strips_of(space, path, as_made(space, path)) if figure in strip.figures
            ]
        except FurnelError:
            continue
    return out


def disagreement(strip: Strip, figure: Picture) -> str:
    """What a figure and a strip do not share, in words; nothing when they agree."""
    if not strip.colours:
        return ""
    if strip.rule.has == "greys":
        wrong = coloured(figure)
        return f"{count(wrong, 'pixel')} not grey" if wrong else ""
    lost = strangers(figure, strip.colours)
    if not lost:
        return ""
    named = ", ".join(f"{bytes(colour).hex()} ({count(times, 'pixel')})" for colour, times in lost[:3])
    return f"{count(len(lost), 'colour')} that the strip lacks: {named}" + (" …" if len(lost) > 3 else "")


def strip_faults(space: Workspace, base: str, shipped: Document, yours: Document) -> list[Fault]:
    """What the changed strips of a definition do not share with their figures, as the mod has these."""
    game = {strip.address: strip for strip in strips_of(space, base, shipped)}
    out = []
    for strip in strips_of(space, base, yours):
        if strip == game.get(strip.address):
            continue
        for path in strip.figures:
            try:
                figure = _figure(space, path)
            except FurnelError:
                continue  # its own swap says what is wrong with it
            if figure is not None and (said := disagreement(strip, figure)):
                out.append(
                    Fault("strips", strip.address, f"{path} has {said}", "Take the strip from the figure")
                )
    return out


def strip_points(space: Workspace, swap: Swap, result: bytes) -> list[FitPoint]:
    """What a swapped figure does not share with the strips that it is painted with."""
    found = strips_for(space, swap.original)
    if not found:
        return []
    figure = PICTURE.opened(result, swap.original)
    wrong = [(strip, disagreement(strip, figure)) for strip in found] if isinstance(figure, Picture) else []
    told = [f"{said} ({strip.path.rpartition('/')[2]} {strip.address})" for strip, said in wrong if said]
    names = "its strip" if len(found) == 1 else f"its {len(found)} strips"
    if not told:
        return [STRIP.point(Finding(f"as {names}", f"as {names}"))]
    remedy = "Take the strip from the figure, or the figure's colours from the strip"
    return [STRIP.point(Finding(f"as {names}", "; ".join(told[:2]), "differs", remedy))]


def figures_mark(space: Workspace, swap: Swap) -> str:
    """Something that is another when a figure of a definition's strips is."""
    try:
        strips = strips_of(space, swap.base, as_made(space, swap.original))
        figures = sorted({path for strip in strips for path in strip.figures if space.project.swap_for(path)})
        return repr([(path, content_digest(figure_bytes(space, path))) for path in figures])
    except FurnelError as error:
        return error.sentence()


def strips_mark(space: Workspace, swap: Swap) -> str:
    """Something that is another when a strip that a figure is painted with is."""
    found = strips_for(space, swap.original)
    return repr([(strip.path, strip.address, strip.value) for strip in found]) if found else ""


# both ways


def from_picture(space: Workspace, path: str, address: str, file: Path) -> list[Change]:
    """The changes that give a strip the colours of a picture's middle row, in the game's order. Raises FurnelError."""
    picture = PICTURE.opened(read_source(file), file)
    if not isinstance(picture, Picture):
        raise FurnelError(WHAT, where=file, why="it is no picture", remedy="Give a PNG, TGA or DDS")
    document, rule = _at(space, path, address)
    return _written(document, address, rule.arranged(colours_in(picture, rule.colours, file)), rule)


def from_figure(space: Workspace, path: str, address: str) -> list[Change]:
    """The changes that give a strip the colours of its figure, dark ones first unless it says otherwise.

    Raises FurnelError for another number of colours, and for a table whose colours have names.
    """
    document, rule = _at(space, path, address)
    if document.has(parse_address(address)) and isinstance(document.look(parse_address(address)), dict):
        raise FurnelError(
            WHAT, where=address, why="its colours have names, and the figure does not tell which is which",
            remedy="Take it from a picture of the row, in the order of the names",
        )  # fmt: skip
    figures = _figures(space, rule, document, parse_address(address))
    times: dict[Rgb, int] = {}
    for figure in figures:
        picture = _figure(space, figure)
        for colour, seen in palette_of(picture) if picture is not None else ():
            times[colour] = times.get(colour, 0) + seen
    found = sorted(times, key=lambda colour: (sum(colour), colour))
    if not found or (rule.colours and len(found) != rule.colours):
        raise FurnelError(
            WHAT, where=", ".join(figures) or address,
            why=f"the figure has {count(len(found), 'colour')}" + (f", not {rule.colours}" if rule.colours else ""),
            remedy="Take it from a picture of the row of colours",
        )  # fmt: skip
    return _written(document, address, rule.arranged(found), rule)


def recoloured(space: Workspace, strip: Strip, changes: Mapping[Rgb, Rgb]) -> list[Change]:
    """The changes that give a strip other colours as a figure's are changed; none when it has none of them."""
    if strip.rule.has != "these" or not any(colour in changes for colour in strip.colours):
        return []
    document, rule = _at(space, strip.path, strip.address)
    return _written(document, strip.address, [changes.get(colour, colour) for colour in strip.colours], rule)


def as_png(space: Workspace, path: str, address: str) -> bytes:
    """A strip as a PNG of a row of fields. Raises FurnelError when there are no colours at an address."""
    document, rule = _at(space, path, address)
    at = parse_address(address)
    colours = rule.read(document.look(at)) if document.has(at) else None
    if not colours:
        why, remedy = "there are no colours in it", "Take it from a picture first"
        raise FurnelError(WHAT, where=address, why=why, remedy=remedy)
    row = row_of(colours)
    return write_texture(Texture(row.width, row.height, "RGBA8", (row.pixels.tobytes(),), "PNG", True))


def _at(space: Workspace, path: str, address: str) -> tuple[Document, StripRule]:
    document = as_made(space, path)
    rule = rule_at(space, path, document, parse_address(address))
    if rule is None:
        raise FurnelError(
            WHAT, where=f"{path} {address}", why="the game's profile does not say that it is a strip",
            remedy="Say so with [[values]] and strip",
        )  # fmt: skip
    return document, rule


def _written(document: Document, address: str, colours: list[Rgb], rule: StripRule) -> list[Change]:
    """A strip's new value; of a table of colours the values, in their order."""
    at, values = parse_address(address), rule.write(colours)
    if not document.has(at):
        return [Change(do="add", at=address_text(at[:-1]), key=at[-1].key, to=values)]
    old = document.look(at)
    if not isinstance(old, dict):
        return [] if old == values else [Change(do="set", at=address, to=values)]
    if len(old) != len(values):
        raise FurnelError(
            WHAT, where=address, why=f"it has {count(len(old), 'name')} for {count(len(values), 'colour')}",
            remedy="Give a picture with as many colours as it has names",
        )  # fmt: skip
    return [
        Change(do="set", at=address_text((*at, Step(str(key)))), to=value)
        for (key, before), value in zip(old.items(), values, strict=True)
        if before != value
    ]
