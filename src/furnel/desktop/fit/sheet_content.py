"""What the sheet bench shows, worked out in a worker: both sheets and their cells, the figures of the source, the colours."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np
from PyQt6.QtGui import QImage

from furnel.desktop.fit.bench import Loading
from furnel.desktop.fit.picture_content import PictureContent, load_pictures
from furnel.desktop.imaging import to_image
from furnel.errors import FurnelError
from furnel.images import compose
from furnel.images.picture import Picture, Rgb
from furnel.media import PICTURE, PictureSpec
from furnel.mods.onsheet import layout_step, locked_colours
from furnel.mods.outside import checked
from furnel.mods.render import Surroundings, read_source, with_several
from furnel.mods.steps import step_type
from furnel.mods.steps.frames import bed_of, cells_in, figures_in, layout_in, scale_in
from furnel.sprites import Animation, Colour, Found, Grid, Placing, Standing, colours_seen, poses_of
from furnel.sprites.palette import MOST
from furnel.sprites.tiles import built

_DARK = 20, 22, 24, 215  # over what is alike
Box = tuple[int, int, int, int]


@dataclass(frozen=True, slots=True, eq=False)
class Figures:
    """A source with its figures, and which of them stands in which cell; `why` says why there are none."""

    image: QImage | None = None
    picture: Picture | None = None
    found: Found | None = None
    cells: tuple[Placing, ...] = ()
    scale: int = 1
    laid_out: bool = False
    why: str = ""


@dataclass(frozen=True, slots=True, eq=False)
class SheetContent:
    """Both sheets. `pictures` has their images, `spec` and `result` what is known of them, `grid` the cells of both, `names`
    what these are called, `runs` the animations, `marks` places in yours by fit point, `unlike` the cells that differ, `same`
    dark over all pixels that do not, `ground` pieces built of both tiles, `clear` the colour that the game leaves out."""

    pictures: PictureContent
    spec: PictureSpec
    result: PictureSpec | None
    grid: Grid
    names: tuple[str, ...]
    runs: tuple[Animation, ...]
    figures: Figures
    colours: tuple[tuple[Colour, ...], tuple[Colour, ...]]
    marks: dict[str, tuple[Box, ...]] = field(default_factory=dict)
    unlike: frozenset[int] = frozenset()
    ground: tuple[QImage, QImage] | None = None
    clear: Rgb | None = None
    locked: frozenset[Rgb] = frozenset()
    same: QImage | None = None

    @property
    def cell(self) -> tuple[int, int]:
        return self.grid.width, self.grid.height

    @property
    def fits(self) -> bool:
        """Whether yours has the original's cells."""
        return self.pictures.comparable

    def standing(self, place: int, yours: bool) -> Standing | None:
        """How the figure of a cell stands, as far as that is known."""
        known = (self.result if yours else self.spec) or self.spec
        return known.standing[place] if place < len(known.standing) else None

    def families(self) -> list[tuple[str, list[Rgb]]]:
        """The palettes of both, to choose colours from."""
        return [
            (name, [one.rgb for one in part])
            for name, part in zip(("Original", "Yours"), self.colours, strict=True)
        ]


def load_sheet(loading: Loading) -> SheetContent:
    """Decode both sides and look at the source. Raises FurnelError when a side is damaged."""
    pictures = load_pictures(loading)
    spec, result = loading.examined.original, loading.examined.result
    assert isinstance(spec, PictureSpec) and spec.cell is not None
    original, yours = pictures.original.pixels, pictures.yours.pixels
    grid = (
        spec.sheet.grid(original.width)
        if spec.sheet is not None
        else Grid(*spec.cell, max(original.width // spec.cell[0], 1), 0)
    )
    count = grid.columns * grid.rows(original.height)
    layout = spec.sheet.layout if spec.sheet is not None else None
    names = (
        layout.names(count) if layout is not None else tuple(f"frame {place + 1}" for place in range(count))
    )
    runs = layout.animations if layout is not None else ()
    unlike, same = frozenset[int](), None
    if pictures.comparable:
        alike = (_seen(original) == _seen(yours)).all(axis=2)
        unlike = frozenset(place for place in range(count) if not alike[grid.part(place)].all())
        dark = np.zeros((*alike.shape, 4), np.uint8)
        dark[alike] = _DARK
        same = to_image(Picture(dark))
    ground = None
    if spec.meets and pictures.comparable:
        ground = to_image(built(original, grid, spec.meets)), to_image(built(yours, grid, spec.meets))
    marks = {point.key: point.at for point in loading.examined.points if point.at}
    return SheetContent(
        pictures, spec, result if isinstance(result, PictureSpec) else None, grid, names,
        runs or (Animation("all", tuple(range(max(spec.frames, 1)))),), figures_of(loading, original, spec),
        (_colours(original), _colours(yours)), marks, unlike, ground, layout.key if layout is not None else None,
        locked_colours(loading.examined.swap), same,
    )  # fmt: skip


def _seen(picture: Picture) -> np.ndarray[tuple[int, ...], np.dtype[np.uint8]]:
    """Its pixels, all clear ones alike."""
    return np.where(picture.pixels[..., 3:] > 0, picture.pixels, 0)


def _colours(picture: Picture) -> tuple[Colour, ...]:
    found = colours_seen([picture])
    return found if len(found) <= MOST else ()


def figures_of(loading: Loading, original: Picture, spec: PictureSpec) -> Figures:
    """The figures of a swap's source as the step that lays them out finds them, or would."""
    space, swap = loading.space, loading.examined.swap
    if space is None or not swap.source:
        return Figures(why="It has no source with figures")
    path = space.source_path(swap)
    try:
        source = read_source(checked(space.file, path))
        picture = PICTURE.opened(source, path)
        assert isinstance(picture, Picture)
        use = layout_step(swap)
        if use is None or use.do != "frames":
            found = poses_of(picture, 6)
            return Figures(to_image(picture), picture, found)
        values = step_type("frames").complete(use.values)
        around = with_several(
            Surroundings(swap.steps, b"", swap.original, space.folder, space.file).files, source, path
        )
        first = next((one for one in swap.steps if one.on), use)
        if first is not use:
            return Figures(
                to_image(picture), picture, None, why="Other steps come before the one that lays figures out"
            )
        shown, found = figures_in(picture, values, around)
        layout = layout_in(values, original.size)
        bed = bed_of(original, layout)
        cells = cells_in(values, found, layout, bed.grid, original.height)
        return Figures(to_image(shown), shown, found, cells, scale_in(values, found, cells, bed), True)
    except FurnelError as error:
        return Figures(why=error.sentence())


def tinted_images(content: SheetContent, tint: Rgb | None) -> tuple[QImage, QImage]:
    """Both sheets as the game multiplies them with a colour, or as they are stored; the clear colour is left out."""
    out = []
    for side in (content.pictures.original, content.pictures.yours):
        picture = side.pixels
        if content.clear is not None:
            pixels = picture.pixels.copy()
            pixels[(pixels[..., :3] == content.clear).all(axis=2)] = 0
            picture = Picture(pixels)
        out.append(to_image(picture if tint is None else compose.tinted(picture, tint)))
    return out[0], out[1]
