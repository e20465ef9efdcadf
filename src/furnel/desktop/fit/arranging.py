"""What the sheet bench asks for, done: figures into cells, colours changed, pixels painted, frames saved."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path

from PyQt6.QtCore import QObject, QPoint, QPointF

from furnel.desktop.fit.bench import Bench, BenchType, Hands
from furnel.desktop.fit.sheet_bench import CELL_ACTS, SheetBench
from furnel.desktop.fit.sheet_content import SheetContent, load_sheet
from furnel.desktop.language import tr
from furnel.desktop.swapping import Made
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.colours import ask_colour
from furnel.desktop.widgets.menus import Row, menu_under, offers_menu
from furnel.images.picture import Rgb
from furnel.mods.framefiles import frames_in, write_as_animation, write_as_files, write_as_layers
from furnel.mods.onsheet import (
    locked_colours,
    mirror_character,
    recolour_character,
    scale_character,
    with_cells,
    with_colours,
    with_each_mirrored,
    with_layout,
    with_touches,
)
from furnel.mods.project import Project, Swap
from furnel.mods.workspace import Workspace
from furnel.progress import Progress
from furnel.sprites import Placing, filled, ramp_moved, ramp_onto
from furnel.sprites.framemap import MOST_SCALE
from furnel.sprites.touching import Touch
from furnel.words import count


class Arranging(QObject):
    """Carries out the wishes of the sheet bench."""

    def __init__(self, bench: SheetBench, hands: Hands) -> None:
        super().__init__(bench)
        self._bench, self._hands = bench, hands
        bench.source.placed.connect(self._place_chosen)
        bench.source.dropped.connect(self._dropped)
        bench.cells.asked.connect(self._act)
        bench.card.asked.connect(self._act)
        bench.cells.nudged.connect(self._nudge)
        bench.cells.picked.connect(self._picked)
        bench.cells.drawn.connect(self._drawn)
        bench.theirs.picked.connect(self._picked)
        bench.colours.wanted.connect(self._ask_colour)
        bench.colours.changed.connect(self._recolour)
        bench.acted.connect(self._acted)
        offers_menu(bench.cells, self._on_cells)
        offers_menu(bench.source, self._on_figures)
        bench.colour_tray.asked.connect(self._with_colour)

    def _now(self) -> tuple[Swap, SheetContent] | None:
        """The swap on the bench, when what is shown is made of it."""
        swap, content = self._hands.current(), self._bench.content
        return (
            (swap, content)
            if swap is not None and content is not None and content.pictures.path == swap.original
            else None
        )

    # menus

    def _on_cells(self, place: QPoint) -> list[Row]:
        """What can be done with the cell at a place, or with all chosen ones when it is one of them."""
        bench, content = self._bench, self._bench.content
        if content is None or bench.cells.tool:
            return []
        cell = bench.cells.cell_at(QPointF(place))
        if cell >= 0 and cell not in bench.cells.cells:
            bench.cells.choose([cell])
        chosen, found = list(bench.cells.cells), content.figures.found
        figure = bench.source.figure
        pose = self._cells(content)[chosen[-1]].pose if chosen and found is not None else None
        can = bool(chosen) and found is not None and not content.spec.meets
        return [
            (f"Put figure {figure + 1} here", lambda: self._place(figure, chosen), can),
            *((text, partial(self._act, act), can) for act, text, _ in CELL_ACTS),
            ("Show its figure in the source", lambda: bench.show_figure(pose or 0), pose is not None),
            ("Take the colour here", lambda: bench.cells.take_colour(QPointF(place)), cell >= 0),
        ]

    def _on_figures(self, place: QPoint) -> list[Row]:
        """What can be done with the figure at a place."""
        bench, content = self._bench, self._bench.content
        at = bench.source.figure_at(QPointF(place))
        figure = at if at >= 0 else bench.source.figure
        if content is None or content.figures.found is None:
            return []
        has = [cell for cell, one in enumerate(self._cells(content)) if one.pose == figure]
        chosen = bool(bench.cells.cells)
        return [
            (f"Put figure {figure + 1} into the chosen cells", lambda: self._place_chosen(figure), chosen),
            (
                f"Choose the {count(len(has), 'cell')} that it is in",
                lambda: bench.cells.choose(has),
                bool(has),
            ),
        ]

    # figures

    def _cells(self, content: SheetContent) -> list[Placing]:
        """What is in every cell now, or would be."""
        figures = content.figures
        number = len(content.names)
        if figures.found is None:
            return []
        runs = content.runs if content.spec.sheet is not None and content.spec.sheet.layout.animations else ()
        cells = list(
            figures.cells if figures.laid_out else filled(figures.found.poses, content.spec.frames, runs)
        )
        return cells[:number] + [Placing(None)] * (number - len(cells))

    def _set(self, cells: list[Placing], text: str) -> None:
        if (now := self._now()) is not None:
            self._hands.change(with_cells(now[0], now[1].spec, cells), text)

    def _place(self, figure: int, cells: list[int]) -> None:
        now = self._now()
        if now is None or not cells or not (placed := self._cells(now[1])):
            return
        for cell in cells:
            old = placed[cell]
            placed[cell] = Placing(figure, old.flip if old.pose is not None else _flips(placed))
        self._set(placed, f"Figure {figure + 1} into {now[1].names[cells[0]]}")

    def _place_chosen(self, figure: int) -> None:
        """Put a figure into the chosen cells, and go on to the next one."""
        cells = list(self._bench.cells.cells)
        self._place(figure, cells)
        if len(cells) == 1 and (content := self._bench.content) is not None:
            run = next((run.cells for run in content.runs if cells[0] in run.cells), ())
            at = run.index(cells[0]) + 1 if cells[0] in run else 0
            if 0 < at < len(run):
                self._bench.cells.choose([run[at]])

    def _dropped(self, figure: int, everywhere: QPoint) -> None:
        cell = self._bench.cells.aim(everywhere)
        self._bench.cells.target = -1
        self._bench.cells.update()
        if cell >= 0:
            self._bench.cells.choose([cell])
            self._place(figure, [cell])

    def _act(self, act: str) -> None:
        """Do something with the figures of the chosen cells."""
        now, chosen = self._now(), self._bench.cells.cells
        if now is None or now[1].figures.found is None:
            return
        swap, content = now
        if act == "fill":
            self._hands.change(with_layout(swap, content.spec, map=""), "Fill anew")
            return
        placed = self._cells(content)
        usual = max(content.figures.scale, 1)
        if act in ("larger", "smaller") and self._bench.character.isChecked():
            times = min(max(usual + (1 if act == "larger" else -1), 1), MOST_SCALE)
            self._everywhere(
                f"Make it {times} times as large",
                lambda space, _: scale_character(space, swap.original, times),
            )
            return
        for cell in chosen:
            one = placed[cell]
            if act == "hold":
                placed[cell] = placed[cell - 1] if cell else one
            elif act in ("empty", "keep"):
                placed[cell] = Placing(None, keep=act == "keep")
            elif one.pose is not None:
                placed[cell] = _changed(one, act, usual)
        words = {"mirror": "Mirror", "hold": "Hold", "empty": "Empty", "keep": "The original's"}
        if chosen and placed != self._cells(content):
            self._set(placed, f"{words.get(act, 'Resize')} {content.names[chosen[0]]}")

    def _nudge(self, right: int, down: int) -> None:
        now, chosen = self._now(), self._bench.cells.cells
        if now is None or not (placed := self._cells(now[1])):
            return
        for cell in chosen:
            one = placed[cell]
            if one.pose is not None:
                placed[cell] = Placing(one.pose, one.flip, one.right + right, one.down + down, one.scale)
        if placed != self._cells(now[1]):
            self._set(placed, f"Move {now[1].names[chosen[0]]}")

    # colours and pixels

    def _picked(self, colour: Rgb | None) -> None:
        """Take a colour from a sheet: the pencil's while one paints, the chosen one of the strip otherwise."""
        if self._bench.cells.tool:
            self._bench.use_colour(colour)
        else:
            self._bench.show_tray("Colours")
            self._bench.colours.choose(colour)

    def _drawn(self, places: list[tuple[int, int]], fill: bool) -> None:
        now = self._now()
        if now is not None and now[1].fits:
            touches = [Touch(x, y, self._bench.cells.pencil, fill) for x, y in places]
            self._hands.change(
                with_touches(now[0], touches), "Fill" if fill else f"Paint {count(len(touches), 'pixel')}"
            )

    def _ask_colour(self, old: Rgb) -> None:
        now = self._now()
        if now is not None:
            ask_colour(
                self._bench,
                f"Instead of #{bytes(old).hex()}",
                old,
                lambda new: self._recolour({old: new}),
                now[1].families(),
            )

    def _with_colour(self, act: str) -> None:
        """Do something with the colour that is chosen in the strip."""
        now, strip = self._now(), self._bench.colours
        colour = strip.colour
        if now is None or colour is None:
            return
        if act == "colour":
            self._ask_colour(colour)
        elif act == "ramp":
            ramp = strip.ramp
            ask_colour(
                self._bench, f"Instead of #{bytes(colour).hex()} and its ramp", colour,
                lambda new: self._recolour(ramp_moved(ramp, colour, new)), now[1].families(),
            )  # fmt: skip
        elif act == "paint":
            self._bench.use_colour(colour)
            self._bench.use_tool("Pencil")
        else:
            locked = set(locked_colours(now[0])) ^ {colour}
            text = f"{'Lock' if colour in locked else 'Unlock'} #{bytes(colour).hex()}"
            self._hands.change(with_colours(now[0], {}, sorted(locked)), text)

    def _recolour(self, wanted: dict[Rgb, Rgb] | tuple[tuple[Rgb, ...], tuple[Rgb, ...]]) -> None:
        now = self._now()
        if now is None:
            return
        changes = wanted if isinstance(wanted, dict) else ramp_onto(*wanted)
        first = next(iter(changes))
        text = f"Change #{bytes(first).hex()}" if len(changes) == 1 else f"Change {len(changes)} colours"
        if self._bench.character.isChecked():
            self._everywhere(
                text, lambda space, progress: recolour_character(space, now[0].original, changes, progress)
            )
        else:
            self._hands.change(with_colours(now[0], changes), text)

    def _everywhere(
        self, text: str, work: Callable[[Workspace, Progress], tuple[Project, list[str]]]
    ) -> None:
        """Change all pictures of a character in a job, as one change for the undo."""

        def run(space: Workspace, progress: Progress) -> Made:
            project, done = work(space, progress)
            names = ", ".join(path.rpartition("/")[2] for path in done[:4]) + (" …" if len(done) > 4 else "")
            return Made.of(space, project, f"{text} in {count(len(done), 'picture')}", f"Changed in {names}")

        self._hands.session.swaps.change(text, run, key="character")

    # the rest

    def _acted(self, act: str) -> None:
        now = self._now()
        if now is None:
            return
        swap, content = now
        if act == "colour":
            ask_colour(
                self._bench,
                "The pencil's colour",
                self._bench.cells.pencil or (0, 0, 0),
                self._bench.use_colour,
                content.families(),
            )
        elif act == "save":
            self._offer_saving(content)
        elif act == "mirror all" and self._bench.character.isChecked():
            self._everywhere("Mirror", lambda space, _: mirror_character(space, swap.original))
        elif act == "mirror all":
            self._hands.change(with_each_mirrored(swap, content.spec), "Mirror all")

    def _offer_saving(self, content: SheetContent) -> None:
        rows = (
            ("Animation as GIF…", (("GIF", "*.gif"), ".gif")), ("Animation as APNG…", (("APNG", "*.png"), ".png")),
            ("Numbered PNG files…", (("PNG", "*.png"), "")),
            ("OpenRaster, a layer a frame…", (("OpenRaster", "*.ora"), ".ora")),
        )  # fmt: skip
        menu_under(
            self._bench.save,
            ((tr(text), kind) for text, kind in rows),
            lambda kind: self._save(content, *kind),
        )

    def _save(self, content: SheetContent, kind: tuple[str, str], ending: str) -> None:
        run = self._bench.playing.run
        stem = content.pictures.path.rpartition("/")[2].rpartition(".")[0]
        named = Path(f"{stem}_{run.name}{ending or '.png'}")
        file = picking.pick_target(self._bench, "Save frames", "taken out", named, [kind])
        if file:
            self._hands.session.jobs.start(
                "Saving frames", lambda _: save_frames(content, run.cells, run.speed, file, ending),
                lambda said: self._hands.session.tell("calm", said), lane="write",
            )  # fmt: skip


def save_frames(content: SheetContent, cells: tuple[int, ...], speed: float, file: Path, ending: str) -> str:
    """Write some cells of yours: as an animation, as layers, or (without an ending) as numbered files; what is to be said."""
    frames = frames_in(content.pictures.yours.pixels, content.grid, content.names, cells)
    if ending == ".ora":
        write_as_layers(frames, file)
    elif ending:
        write_as_animation(frames, speed, file)
    else:
        files = write_as_files(frames, file.parent, file.stem)
        return f"{count(len(files), 'file')}, the first is {files[0].name}"
    return f"{file.name} has {count(len(frames), 'frame')}"


def _flips(cells: list[Placing]) -> bool:
    """Whether the figures that stand so far are mirrored, most of them."""
    flips = [cell.flip for cell in cells if cell.pose is not None]
    return sum(flips) * 2 > len(flips)


def _changed(one: Placing, act: str, usual: int) -> Placing:
    if act == "mirror":
        return one.mirrored()
    scale = min(max((one.scale or usual) + (1 if act == "larger" else -1), 1), MOST_SCALE)
    return Placing(one.pose, one.flip, one.right, one.down, scale)


def _make(hands: Hands) -> Bench:
    bench = SheetBench(hands.look)
    Arranging(bench, hands)
    return bench


SHEET_BENCH = BenchType(("sheet",), _make, load_sheet)
