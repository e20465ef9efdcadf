"""The Find station: the sieve beside the wall beside the spec card."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

import numpy as np
import numpy.typing as npt
from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from furnel import mods
from furnel.catalogue import (
    Asset,
    Catalogue,
    Facets,
    Group,
    Grouper,
    Ranking,
    Sieve,
    count_facets,
    read_wanted,
)
from furnel.catalogue.shelf import Shelf
from furnel.desktop.actions import key_of, with_key
from furnel.desktop.find.card import SpecCard
from furnel.desktop.find.drops import Drops
from furnel.desktop.find.head import WallHead
from furnel.desktop.find.sieve import SievePanel
from furnel.desktop.find.wall import Wall
from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.playback import Player
from furnel.desktop.session import Session
from furnel.desktop.tiles import TileStore
from furnel.desktop.widgets.basics import button, label, scrolling
from furnel.desktop.widgets.panes import SidePane
from furnel.media import medium_of_kind, spec_of
from furnel.sound import read_clip
from furnel.texts import taken_apart

_MOST_ALIKE = 400
_OUR_WORDS = ("kind", "format", "size", "nothing")  # groupings with names of ours; the others have the game's


class FindStation(QWidget):
    """Find an asset. `wanted` asks the window for a command."""

    sieve: SievePanel
    wanted = pyqtSignal(str)
    files_dropped = pyqtSignal(object)
    definition_wanted = pyqtSignal(str)

    def __init__(self, look: Look, session: Session, tiles: TileStore, player: Player) -> None:
        super().__init__()
        self._session, self._player = session, player
        self._ranking: Ranking | None = None
        self._ranked: object = None
        self._kin_of = ""
        self.sieve, self.wall, self.card = SievePanel(look), Wall(look, tiles), SpecCard(look, tiles)
        self._facets: Facets | None = None
        self._kept: npt.NDArray[np.bool_] = np.zeros(0, bool)
        self._grouper: Grouper | None = None
        self.head = WallHead(look)
        self._whole = QWidget()
        middle = QVBoxLayout(self._whole)
        middle.setContentsMargins(0, 0, 0, 0)
        middle.setSpacing(0)
        middle.addWidget(self.head)
        middle.addWidget(self.wall, 1)
        self._welcome = self._make_welcome()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        self.sides = (
            SidePane(look, "sieve", "The sieve", self.sieve, "left", 207),
            SidePane(look, "card", "The spec card", scrolling(self.card, fills=True), "right", 267),
        )
        left, right = self.sides
        for part, stretch in ((left, 0), (self._whole, 1), (right, 0), (self._welcome, 1)):
            row.addWidget(part, stretch)
        self._show_parts()
        self._connect()

    def _connect(self) -> None:
        self.setFocusProxy(self.wall)
        session, player = self._session, self._player
        self.sieve.changed.connect(self._changed)
        self.sieve.like.file_wanted.connect(self._read_likeness)
        session.learned.marked.connect(self._marked)
        self.head.changed.connect(self._regroup)
        self.head.zoomed.connect(self.wall.set_zoom)
        self.head.formed.connect(self.wall.set_form)
        self.head.recall()
        self.sieve.left.connect(self._to_wall)
        self.wall.selected.connect(self._select)
        self.wall.let_go.connect(self._show_card)
        self.wall.opened.connect(self._open)
        self._drops = Drops(session, self.wall)
        self._drops.swapped.connect(lambda: self.wanted.emit("go-fit"))
        self._drops.unknown.connect(self.files_dropped)
        self.card.wanted.connect(self.wanted)
        self.card.definition_wanted.connect(self.definition_wanted)
        session.opened.connect(self._opened)
        session.project_changed.connect(self._marks)
        session.game.changed.connect(self._show_card)
        player.started.connect(lambda: self.card.set_playing(True))
        player.stopped.connect(lambda: self.card.set_playing(False))

    def _make_welcome(self) -> QWidget:
        """What stands here before a game is open."""
        page = QWidget()
        column = QVBoxLayout(page)
        column.setSpacing(8)
        column.addStretch(3)
        title = label("Which game do you want to change?", "title")
        words = "Point Furnel at the game's folder once. It reads what is there and never writes to the game's own files."
        for line in (title, label(words, "caption")):
            line.setAlignment(Qt.AlignmentFlag.AlignCenter)
            column.addWidget(line)
        row = QHBoxLayout()
        row.setSpacing(8)
        row.addStretch(1)
        for text, tip, style, name in (
            ("Open a game…", with_key("Point at a game's folder", "open-game"), "next", "open-game"),
            ("Open a mod…", with_key("Go on with a mod that you began", "open-mod"), "", "open-mod"),
        ):
            part = button(text, tip, style)
            part.clicked.connect(lambda _=False, name=name: self.wanted.emit(name))
            row.addWidget(part)
        row.addStretch(1)
        column.addSpacing(6)
        column.addLayout(row)
        column.addStretch(4)
        return page

    def _show_parts(self) -> None:
        """The sieve, the wall and the card once a game is open, the welcome before."""
        opened = self._session.catalogue is not None
        for part in (*self.sides, self._whole):
            part.setVisible(opened)
        self._welcome.setVisible(not opened)

    def _to_wall(self) -> None:
        """From the search to the first tile that it found."""
        self.wall.setFocus()
        self.wall.begin()

    def hear(self) -> None:
        """Play the selected sound, or stop."""
        asset = self.wall.current()
        catalogue = self._session.catalogue
        if self._player.playing:
            self._player.stop()
        elif asset is not None and catalogue is not None and medium_of_kind(asset.facts.kind).is_heard:
            name = f"{catalogue.install.folder} {asset.path}"
            if not self._player.play(name, lambda: read_clip(catalogue.read(asset), asset.path)[0]):
                self._session.tell("calm", "There is no sound device: everything but hearing works")

    def _opened(self) -> None:
        """Another game or mod: nothing of the one before stays."""
        catalogue = self._session.catalogue
        self._facets = self._grouper = None  # until they are counted, nothing is sifted
        self._ranking = self._ranked = None
        self._kin_of = ""
        self.sieve.reset()
        if catalogue is not None:
            self._facets, self._grouper = count_facets(catalogue.assets), Grouper(catalogue.assets)
            self._kept = np.ones(len(catalogue.assets), bool)
        self._show_parts()
        self.wall.set_swapped(self._swapped())
        self._sift()
        self.wall.to_top()
        self.card.show_asset(None, False, "")
        if (space := self._session.space) is not None:
            texts = space.demands.texts
            self._session.jobs.start(
                "Reading the definitions",
                lambda _: texts.prepare(),
                lambda _: None,
                lambda _: None,
                lane="eye",
                shown=False,
            )

    def _marks(self) -> None:
        swapped = self._swapped()
        self._show_card()
        if swapped == self.wall.swapped:
            return
        self.wall.set_swapped(swapped)
        if self.sieve.swapped.isChecked() or self.head.ordered == "changed":
            self._sift()
        elif self._facets is not None:
            self._sift_counts()

    def _swapped(self) -> frozenset[str]:
        return frozenset(_latest(self._session))

    def _sift(self) -> None:
        catalogue = self._session.catalogue
        if catalogue is None or self._grouper is None:
            return
        shelf, marks = catalogue.assets, self._session.learned.marks
        sieve = self.sieve.sieve(self._swapped())
        self._kept = _told_in(self._session, sieve).mask(shelf)
        self.head.show_mended("")
        if sieve.text.strip() and not self._kept.any():
            self._mend(sieve.text, catalogue)
        if self.sieve.with_kin.isChecked() and marks is not None:
            self._kept = self._kept & (marks.kin.groups >= 0)
        self._show_kept(shelf)

    def _show_kept(self, shelf: Shelf) -> None:
        """Show on the wall what the sieve leaves."""
        self.wall.show_groups(shelf, self._groups(shelf), self._empty(), self._degrees())
        self._sift_counts()

    def _degrees(self) -> dict[int, float]:
        """How alike what is looked for the most alike are, by row; nothing when nothing is looked for."""
        ranking = self._ranking
        if ranking is None or self._ranked is not self.sieve.like.likeness:
            return {}
        most, kept = max(float(ranking.scores.max(initial=0)), 1e-9), self._kept[ranking.rows]
        scores = np.maximum(ranking.scores[kept][:_MOST_ALIKE], 0) / most
        return dict(zip(ranking.rows[kept][:_MOST_ALIKE].tolist(), scores.tolist(), strict=True))

    def _mend(self, text: str, catalogue: Catalogue) -> None:
        """Look for what comes nearest to words that nothing has."""

        def done(near: str) -> None:
            sieve = self.sieve.sieve(self._swapped())
            if not near or sieve.text != text or self._session.catalogue is not catalogue:
                return
            kept = replace(sieve, text=near).mask(catalogue.assets)
            if kept.any():
                self._kept = kept
                self.head.show_mended(f"Nothing has “{text.strip()}”. This is what has “{near}”:")
                self._show_kept(catalogue.assets)

        self._session.jobs.start(
            "Looking for the nearest", lambda _: catalogue.assets.mended(text), done, lambda _: None,
            key="mend", lane="eye", shown=False,
        )  # fmt: skip

    def _groups(self, shelf: Shelf) -> list[Group]:
        """What the sieve leaves: ranked when something is looked for, one family when that was asked for, or in groups."""
        assert self._grouper is not None
        marks, likeness = self._session.learned.marks, self.sieve.like.likeness
        if likeness is not None and self._ranking is not None and self._ranked is likeness:
            rows = self._ranking.rows[self._kept[self._ranking.rows]][:_MOST_ALIKE]
            return [Group(tr(f"most like {likeness.name}"), rows)] if len(rows) else []
        if self._kin_of and marks is not None:
            row = shelf.row(self._kin_of)
            rows = np.array([row, *marks.kin.of(row)], np.int64)
            return [Group(tr(f"{shelf.name(row)} and its kin"), rows[self._kept[rows]])]
        by, order = self.head.by, self.head.ordered
        if by == "kin" and marks is None:
            return []
        codes = marks.kin.codes(shelf) if by == "kin" and marks is not None else None
        groups = self._grouper.groups(self._kept, by, order, codes, _latest(self._session))
        return [replace(group, name=tr(group.name)) for group in groups] if by in _OUR_WORDS else groups

    def _empty(self) -> str:
        """What to say when the wall has nothing."""
        if self._session.learned.marks is None and (self.head.by == "kin" or self.sieve.with_kin.isChecked()):
            return "Furnel is still learning what everything looks like."
        return f"Nothing passes the sieve. Clear it with {key_of('clear-sieve')}."

    # likeness and kin

    def show_kin(self) -> None:
        """Show the selected asset with its kin alone; once more, show everything."""
        asset = self.wall.current()
        if asset is not None and self._session.learned.kin(asset.path) and not self._kin_of:
            self._kin_of = asset.path
        else:
            self._kin_of = ""
        self._sift()
        if asset is not None:
            self.wall.select(asset.path)

    def find_alike(self) -> None:
        """Rank the wall by likeness to the selected asset."""
        asset, catalogue = self.wall.current(), self._session.catalogue
        if asset is None or catalogue is None:
            return
        self._session.jobs.start(
            f"Looking at {asset.name}",
            lambda _: read_wanted(bytes(catalogue.view(asset)), asset.name, asset.path),
            self.sieve.like.set,
            key="like",
        )

    def _read_likeness(self, file: Path) -> None:
        self._session.jobs.start(
            f"Looking at {file.name}",
            lambda _: read_wanted(mods.render.read_source(file), file.name, file),
            self.sieve.like.set,
            key="like",
        )

    def _changed(self) -> None:
        self._kin_of = ""
        if self.sieve.like.likeness is not self._ranked:
            self._rank()
        else:
            self._sift()

    def _rank(self) -> None:
        """Rank by what is looked for, in the background; when the marks are not there yet, as soon as they are."""
        likeness, marks = self.sieve.like.likeness, self._session.learned.marks
        self._ranking, self._ranked = None, likeness
        if likeness is None:
            self._sift()
            return
        if marks is None:
            self._ranked = None
            self._session.learned.learn()
            self._session.tell(
                "calm", "Furnel is still learning what everything looks like; the wall follows"
            )
            return

        def done(found: Ranking) -> None:
            if self.sieve.like.likeness is likeness:
                self._ranking = found
                self._sift()
                self.wall.to_top()

        self._session.jobs.start(
            f"Looking for {likeness.name}", lambda _: likeness.rank(marks), done, key="rank"
        )

    def _marked(self) -> None:
        self._show_card()
        if self.sieve.like.likeness is not None:
            self._rank()
        elif self.head.by == "kin" or self.sieve.with_kin.isChecked():
            self._sift()

    def _regroup(self) -> None:
        if self.head.by == "kin":
            self._session.learned.learn()
        self._kin_of = ""
        self._sift()

    def _sift_counts(self) -> None:
        catalogue = self._session.catalogue
        if catalogue is None or self._facets is None:
            return
        kept, every = int(self._kept.sum()), len(catalogue.assets)
        self.head.show_count(kept, every)
        self.head.show_held(self.sieve.held())
        self.sieve.show_facets(self._facets, count_facets(catalogue.assets, self._kept), len(self._swapped()))

    def _select(self, asset: Asset) -> None:
        self._show_card()
        catalogue = self._session.catalogue
        if catalogue is None:
            return
        role = catalogue.install.profile.role_of(asset.path)

        def done(spec: object) -> None:
            if self.wall.current() == asset:
                self.card.show_spec(spec)  # type: ignore[arg-type]

        self._session.jobs.start(
            "Reading the spec",
            lambda _: spec_of(catalogue.read(asset), asset.path, role),
            done,
            lambda _: None,
            key="spec",
            lane="eye",
            shown=False,
        )
        if self._player.playing:
            self._player.stop()
        if asset.facts.kind == "sound" and self._player.device:
            self.hear()

    def _show_card(self) -> None:
        asset = self.wall.current()
        if asset is None:
            self.card.show_asset(None, False, "")
            return
        winner = next(
            (mod.name for mod in reversed(self._session.game.stack) if mod.on and asset.path in mod.paths), ""
        )
        self.card.show_asset(
            asset,
            self._session.swap(asset.path) is not None,
            winner,
            len(self._session.learned.kin(asset.path)),
            _why(self._session, asset.path),
        )
        _look_for_uses(
            self._session,
            asset.path,
            lambda uses: self.card.show_uses(uses) if self.wall.current() == asset else None,
        )

    def _open(self, asset: Asset) -> None:
        swapped = self._session.swap(asset.path) is not None
        self.wanted.emit("go-fit" if swapped else "values" if taken_apart(asset.path) else "swap")


def _latest(session: Session) -> list[str]:
    """What the open mod changes, what was begun last first."""
    return [swap.original for swap in reversed(session.project.made)] if session.project else []


def _why(session: Session, path: str) -> str:
    """What the game's profile says of an asset's role."""
    catalogue = session.catalogue
    rule = catalogue.install.profile.role_of(path) if catalogue is not None else None
    return rule.why if rule is not None else ""


def _told_in(session: Session, sieve: Sieve) -> Sieve:
    """A sieve whose text is looked for in definitions, too."""
    space = session.space
    if space is None or not sieve.text.strip():
        return sieve
    return replace(sieve, told_in=space.demands.texts.containing(sieve.text))


def _look_for_uses(session: Session, path: str, done: Callable[[list[tuple[str, str]]], None]) -> None:
    """Where the game's definitions name an asset: their paths, and the addresses in them."""
    space = session.space
    if space is None:
        return
    texts = space.demands.texts
    session.jobs.start(
        "Looking for its uses",
        lambda _: [(use.path, use.address) for use in texts.uses_of_asset(path)],
        done,
        lambda _: None,
        key="uses",
        lane="eye",
        shown=False,
    )
