"""What the picture bench asks for: images that are not made yet, the role's preview, formats to be tried and used."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QObject
from PyQt6.QtGui import QImage

from furnel.desktop.fit.bench import Bench, BenchType, Hands
from furnel.desktop.fit.picture_bench import PictureBench
from furnel.desktop.fit.picture_content import channel_images, difference_image, load_pictures
from furnel.images.picture import Picture
from furnel.media import PictureSpec
from furnel.mods.fit import with_format
from furnel.mods.trials import Trial, allowed_formats, try_formats
from furnel.progress import Progress


class Seeing(QObject):
    """Carries out the wishes of the picture bench."""

    def __init__(self, bench: PictureBench, hands: Hands) -> None:
        super().__init__(bench)
        self._bench, self._hands, self._jobs = bench, hands, hands.session.jobs
        steps, view = hands.steps, bench.view
        steps.area_open.connect(view.set_area)
        view.area_moving.connect(lambda box: steps.move_area(box, False))
        view.area_moved.connect(lambda box: steps.move_area(box, True))
        steps.tell_area()
        bench.wanted.connect(self._make_images)
        bench.scene.wanted.connect(self._draw_scene)
        bench.formats_wanted.connect(self._try_formats)
        bench.formats.used.connect(self._use_format)

    def _make_images(self, wanted: tuple[str, int]) -> None:
        content = self._bench.content
        if content is None:
            return
        what, number = wanted

        def work(_: object) -> None:
            if what == "difference":
                difference_image(content, number)
            else:
                channel_images(content, number, what)

        self._jobs.start(
            "Preparing the picture",
            work,
            lambda _: self._bench.images_came(),
            key=f"bench {what}",
            lane="eye",
            shown=False,
        )

    def _draw_scene(self, make: Callable[[], tuple[list[QImage], list[QImage]]]) -> None:
        """Put the role's preview together; of several wishes the newest counts."""
        self._jobs.start(
            "Putting the preview together",
            lambda _: make(),
            self._bench.scene.show_images,
            key="scene",
            lane="eye",
            shown=False,
        )

    def _use_format(self, name: str) -> None:
        """Encode with a format; one that is not the original's is kept against it."""
        swap = self._hands.current()
        examined = self._hands.session.examined.get(swap.original) if swap is not None else None
        if swap is not None and examined is not None and examined.original is not None:
            self._hands.session.swaps.set_swap(
                with_format(swap, examined.original, name), f"Encode as {name}"
            )

    def _try_formats(self) -> None:
        """Try the formats on what the steps give, one after the other."""
        bench, space, swap = self._bench, self._hands.session.space, self._hands.current()
        content = bench.content
        if space is None or swap is None or content is None:
            return
        quality = swap.encode.quality if swap.encode else "good"
        examined = self._hands.session.examined.get(swap.original)
        wanted = examined.original.format if examined and isinstance(examined.original, PictureSpec) else ""
        bench.formats.start(swap.encode.format if swap.encode else "", wanted, "Trying the formats…")

        def work(progress: Progress) -> list[Trial]:
            media, done = space.stages(swap)
            picture = done[-1] if done else media
            if not isinstance(picture, Picture):
                return []
            names = allowed_formats(content.file_type, picture)
            return list(try_formats(picture, names, quality, content.levels, progress))

        def done(found: list[Trial]) -> None:
            if bench.content is not content:
                return
            for trial in found:
                bench.formats.add(trial)
            bench.formats.finish("" if found else f"{content.file_type} has no formats to choose from")

        self._jobs.start(f"Trying formats for {swap.original.rpartition('/')[2]}", work, done, key="formats")


def _make(hands: Hands) -> Bench:
    bench = PictureBench(hands.look)
    Seeing(bench, hands)
    return bench


PICTURE_BENCH = BenchType(("texture",), _make, load_pictures)
