"""A project opened together with its game: everything that can be asked of it or done with it."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from pathlib import Path

from furnel import imagefiles
from furnel.catalogue import Asset, Catalogue
from furnel.catalogue.marks import content_digest
from furnel.errors import FurnelError
from furnel.folders import cache_folder
from furnel.games import Install, Profile, recognise
from furnel.mods.fit import FitPoint, aspect_point, compare, fit_all, insisting, worst
from furnel.mods.gamewide import GameWide
from furnel.mods.project import (
    About,
    GameRef,
    Project,
    Swap,
    load_project,
    mod_id,
    project_file,
    save_project,
)
from furnel.mods.render import (
    Media,
    Surroundings,
    looks_at_original,
    read_source,
    render,
    result_key,
    staged,
)
from furnel.mods.spec import Spec, spec_of
from furnel.progress import QUIET, Progress


@dataclass(frozen=True, slots=True)
class Examined:
    """A swap looked at: its fit points, and its result when there is one."""

    swap: Swap
    points: tuple[FitPoint, ...]
    data: bytes = b""
    original: Spec | None = None
    result: Spec | None = None
    key: str = ""

    @property
    def state(self) -> str:
        return worst(self.points)


_MOST_PRINTS = 20_000


class Workspace:
    """An open project. The project itself is a frozen value: edits give a new one, which `save` writes."""

    def __init__(self, file: Path, project: Project, catalogue: Catalogue) -> None:
        self.file, self.project, self.catalogue = file, project, catalogue
        self.results = cache_folder() / "results"
        self._prints: dict[str, str] = {}
        self.demands = GameWide(catalogue)

    @property
    def folder(self) -> Path:
        return self.file.parent

    @property
    def profile(self) -> Profile:
        return self.catalogue.install.profile

    @property
    def build_folder(self) -> Path:
        """Where the mod is built, ready to be installed."""
        return self.folder / "build" / self.project.mod.id

    def save(self, project: Project | None = None) -> None:
        """Write the project (a changed one becomes the current one)."""
        self.project = project or self.project
        save_project(self.file, self.project)

    def close(self) -> None:
        self.catalogue.close()

    def source_path(self, swap: Swap) -> Path:
        """Where a swap's source is."""
        return (self.folder / swap.source).resolve()

    def new_swap(self, original: str, source: Path, like: str = "") -> Swap:
        """A swap with no steps yet; `like` is what an asset that the game does not have has to match.

        Raises FurnelError for an unknown original or a source that is not there.
        """
        asset = self.catalogue.get(like or original)
        if not source.is_file():
            raise FurnelError(
                "Adding a swap", where=source, why="there is no such file", remedy="Check the path"
            )
        source = source.resolve()
        inside = source.is_relative_to(self.folder.resolve())
        shown = source.relative_to(self.folder.resolve()).as_posix() if inside else str(source)
        return Swap(original=original, source=shown, like=like, made_for=self.fingerprint(asset))

    def fitted(self, swap: Swap) -> Swap:
        """The swap with the steps and the encoding that make its source fit."""
        original = self.original_spec(swap.base)
        path = self.source_path(swap)
        source = spec_of(read_source(path), str(path), self.profile.role_of(swap.original))
        steps, encode = fit_all(original, source, swap.insist, swap.encode)
        return swap.model_copy(update={"steps": steps, "encode": encode})

    def original_spec(self, path: str) -> Spec:
        """What an original demands."""
        return self.demands.spec(path)

    def fingerprint(self, asset: Asset) -> str:
        """A short hash of an original's bytes: how drift is noticed."""
        return _fingerprint(self.catalogue.read(asset))

    def examine(self, swap: Swap, progress: Progress = QUIET) -> Examined:
        """The swap's result and how it fits. What cannot be read becomes a point that breaks, not an error."""
        try:
            asset = self.catalogue.get(swap.base)
        except FurnelError as error:
            moved = self.moved_to(swap)
            remedy = f"Its content is {moved} now: Match it points the swap there" if moved else error.remedy
            point = FitPoint("name", "Name", "not in the game", swap.original, "breaks", error.why, remedy)
            return Examined(swap, (point,), key=self._key(swap))
        shipped = self.catalogue.read(asset)
        original = self.demands.spec(swap.base, shipped)
        path = self.source_path(swap)
        try:
            source = read_source(path)
            beside = Surroundings(swap.steps, shipped, swap.original, self.folder)
            data = render(swap, source, path, self.results, progress, beside)
            name = swap.original if swap.encode is not None else str(path)
            result = spec_of(data, name, self.profile.role_of(swap.original))
        except FurnelError as error:
            point = FitPoint(
                "source",
                "Source",
                "readable",
                error.why or error.what,
                "breaks",
                error.sentence(),
                error.remedy,
            )
            return Examined(swap, (point,), original=original)
        points = [*compare(original, result), *_proportions(swap, source), *self._drift(swap, shipped)]
        points = insisting(points, swap.insist)
        return Examined(swap, tuple(points), data, original, result, result_key(swap, source, beside))

    def moved_to(self, swap: Swap) -> str:
        """Where the content that a swap was made for is now, when a game update gave it another path; otherwise nothing.

        Looked for among the assets of the same archive or ending, each read once.
        """
        if not swap.made_for:
            return ""
        shelf = self.catalogue.assets
        ending, home = swap.original.rpartition(".")[2], swap.original.partition("/")[0]
        for path in shelf.paths:
            if path.partition("/")[0] == home and path.endswith(f".{ending}"):
                if path not in self._prints and len(self._prints) < _MOST_PRINTS:
                    self._prints[path] = self.fingerprint(self.catalogue.get(path))
                if self._prints.get(path) == swap.made_for and path != swap.original:
                    return path
        return ""

    def followed(self, swap: Swap) -> Swap | None:
        """The swap for the path that its original's content has now, or None when that did not move."""
        moved = self.moved_to(swap)
        return swap.model_copy(update={"original": moved}) if moved else None

    def _drift(self, swap: Swap, shipped: bytes) -> list[FitPoint]:
        if not swap.made_for or swap.made_for == _fingerprint(shipped):
            return []
        moved = self.moved_to(swap)
        why = "The game was updated and this original is no longer the one you matched"
        if moved:
            return [
                FitPoint(
                    "drift", "Drift", f"is {moved} now", "made for the older one", "breaks", f"{why}: it has another path",
                    f"Match it points the swap to {moved}",
                )
            ]  # fmt: skip
        return [
            FitPoint(
                "drift", "Drift", "changed by an update", "made for the older one", "differs", why,
                "Look at both, then fit again",
            )
        ]  # fmt: skip

    def stages(self, swap: Swap, told: dict[int, str] | None = None) -> tuple[Media | None, list[Media]]:
        """A swap's source as media (None when it is neither picture nor sound), and what each step that is on gives.

        What steps say of their work goes into `told` by their place. Raises FurnelError when the source is gone or damaged,
        or a step cannot do its work.
        """
        path = self.source_path(swap)
        original = b""
        if looks_at_original(swap.steps):
            original = self.catalogue.read(self.catalogue.get(swap.base))
        around = Surroundings(swap.steps, original, swap.original, self.folder).around
        return staged(read_source(path), path, swap.steps, around=around, told=told)

    def _key(self, swap: Swap) -> str:
        return hashlib.sha256(repr(swap).encode()).hexdigest()


def _fingerprint(data: bytes) -> str:
    return content_digest(data).hex()


def _proportions(swap: Swap, source: bytes) -> list[FitPoint]:
    """Whether a step that brings the picture to a size distorts it."""
    if not imagefiles.recognises(source):
        return []
    header = imagefiles.read_header(source, swap.source)
    size = (header.width, header.height)
    for use in swap.steps:
        if use.on and use.do == "crop":
            size = (int(use.values["width"]), int(use.values["height"]))
        elif use.on and use.do == "size" and use.values.get("how") == "stretch":
            return [aspect_point(size, (int(use.values["width"]), int(use.values["height"])))]
    return []


def create_project(folder: Path, name: str, game: Path, author: str = "") -> Path:
    """A new project in `folder`; its file. Refuses a folder that has one already."""
    file = folder / "furnel.toml"
    if file.exists():
        raise FurnelError(
            "Starting a mod",
            where=file,
            why="there is a project already",
            remedy="Open it, or choose another folder",
        )
    profile = recognise(game)
    about = About(id=mod_id(name), name=name, author=author)
    ref = GameRef(profile=profile.id, folder=_game_reference(folder, game))
    save_project(file, Project(mod=about, game=ref))
    return file


def open_workspace(path: Path, progress: Progress = QUIET, game: Path | None = None) -> Workspace:
    """A project and its game, scanned. `game` says where the game is when it is not where the project says."""
    file = project_file(path)
    project = load_project(file)
    folder = game or (file.parent / project.game.folder).resolve()
    if not folder.is_dir():
        raise FurnelError(
            "Opening a mod",
            where=file,
            why=f"its game is not at {folder}",
            remedy="Say where the game is now with --game, or edit game.folder",
        )
    install = Install(folder)
    if install.profile.id != project.game.profile:
        raise FurnelError(
            "Opening a mod",
            where=file,
            why=f"it is for {project.game.profile}, and {folder} is {install.profile.id}",
        )
    catalogue = Catalogue(install)
    catalogue.refresh(progress)
    if game is not None:
        project = project.model_copy(
            update={"game": GameRef(profile=project.game.profile, folder=_game_reference(file.parent, game))}
        )
    return Workspace(file, project, catalogue)


def _game_reference(folder: Path, game: Path) -> str:
    """Relative when the game lies beside the project, so that both can move together; absolute otherwise."""
    folder, game = folder.resolve(), game.resolve()
    if game.is_relative_to(folder.parent):
        return (
            Path("..", game.relative_to(folder.parent)).as_posix()
            if not game.is_relative_to(folder)
            else game.relative_to(folder).as_posix()
        )
    return str(game)
