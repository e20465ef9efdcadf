"""A project opened together with its game: everything that can be asked of it or done with it."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass, field, replace
from pathlib import Path

from furnel.atomic import write_text
from furnel.catalogue import Asset, Catalogue
from furnel.catalogue.marks import content_digest
from furnel.errors import Cancelled, FurnelError
from furnel.folders import cache_folder
from furnel.games import Install, Profile, recognise
from furnel.media import Media, PictureSpec, Spec, TextSpec, spec_of
from furnel.mods.credits import known_credit
from furnel.mods.definitions import changes_in, faults_of, own_mark, updated_under, with_changes
from furnel.mods.examination import Examination, keep_examination, read_examination
from furnel.mods.fit import (
    Finding,
    FitPoint,
    Refit,
    State,
    compare,
    fit_all,
    insisting,
    with_encoding,
    worst,
)
from furnel.mods.fit.again import by_fit, mendable, needed, with_more
from furnel.mods.fit.elsewhere import DRIFT, NAME, SOURCE
from furnel.mods.fit.texts import lost_change, meaning_points
from furnel.mods.fromsource import Made, source_points
from furnel.mods.gamewide import GameWide
from furnel.mods.outside import checked, choose
from furnel.mods.project import (
    About,
    GameRef,
    Project,
    Swap,
    mod_id,
    project_file,
    save_project,
)
from furnel.mods.render import (
    Surroundings,
    looks_at_original,
    read_source,
    render,
    result_key,
    staged,
)
from furnel.mods.results import Result
from furnel.mods.songs import as_part
from furnel.mods.store import Store
from furnel.mods.strips import strip_points
from furnel.progress import QUIET, Progress, check
from furnel.texts import document_of, taken_apart


@dataclass(frozen=True, slots=True)
class Examined:
    """A swap looked at: its fit points and how they stand together, and its result when there is one."""

    swap: Swap
    points: tuple[FitPoint, ...]
    kept: Result | None = None
    original: Spec | None = None
    result: Spec | None = None
    key: str = ""
    state: State = field(init=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "state", worst(self.points))

    @property
    def data(self) -> bytes:
        """The result's bytes; none when there is no result. Raises FurnelError when they are gone from the disk."""
        return self.kept.read() if self.kept is not None else b""

    @property
    def size(self) -> int:
        """How many bytes the result has."""
        return self.kept.size if self.kept is not None else 0


_MOST_TEXT = 8 << 20
_ROUNDS = 4  # what one step puts right can bring another point up


@dataclass(frozen=True, slots=True)
class Workspace:
    """An open project as it is at one moment: a job that captures it sees no later edit. `with_project` gives the next one.

    The game's catalogue, what was learned of the game (`demands`) and the file on disk (`store`) are shared between the moments
    of one opening.
    """

    file: Path
    project: Project
    catalogue: Catalogue
    demands: GameWide
    store: Store

    @property
    def folder(self) -> Path:
        return self.file.parent

    @property
    def results(self) -> Path:
        """Where results are kept, by what they are made from."""
        return cache_folder() / "results"

    @property
    def profile(self) -> Profile:
        return self.catalogue.install.profile

    @property
    def build_folder(self) -> Path:
        """Where the mod is built, ready to be installed."""
        return self.folder / "build" / self.project.mod.id

    def with_project(self, project: Project) -> Workspace:
        """The same opening with another state of the project; nothing is written."""
        return replace(self, project=project)

    def save(self, project: Project | None = None, text: str = "") -> Workspace:
        """Write the project, or another state of it, with what others changed in its file meanwhile; with a `text` it is
        noted so in the mod's history. The workspace of what was written."""
        return self.with_project(self.store.save(self.project if project is None else project, text).project)

    def close(self) -> None:
        self.catalogue.close()

    def source_path(self, swap: Swap) -> Path:
        """Where a swap's source is."""
        return (self.folder / swap.source).resolve()

    def new_swap(self, original: str, source: Path, like: str = "", whole: bool = False) -> Swap:
        """A swap with no steps yet; `like` is what an asset that the game does not have has to match.

        Of an edited definition it has what is changed, not the file, where that can be told (unless `whole`).
        Raises FurnelError for an unknown original or a source that is not there.
        """
        asset = self.catalogue.get(like or original)
        if not source.is_file():
            raise FurnelError(
                "Adding a swap", where=source, why="there is no such file", remedy="Check the path"
            )
        source = source.resolve()
        if not whole and (changes := changes_in(self.catalogue, asset, source)):
            return Swap(original=original, like=like, made_for=self.fingerprint(asset), changes=changes)
        choose(self.file, [source])
        inside = source.is_relative_to(self.folder.resolve())
        shown = source.relative_to(self.folder.resolve()).as_posix() if inside else str(source)
        return Swap(
            original=original, source=shown, like=like, made_for=self.fingerprint(asset), credit=known_credit(source)
        )  # fmt: skip

    def swapped(self, original: str, source: Path, instead: bool = False) -> Project:
        """The project with an original swapped for a file; a swap that is there keeps its steps, and its credit where the file
        is the same. What an edited definition changes is laid over the changes that are there, or put `instead` of them.

        Raises FurnelError as `new_swap` does.
        """
        old = self.project.swap_for(original)
        fresh = self.new_swap(original, source, old.like if old is not None else "")
        if old is None:
            return self.project.with_swap(fresh)
        credit = old.credit if fresh.source in ("", old.source) else fresh.credit
        kept: dict[str, object] = {"credit": credit}
        if fresh.changes and old.changes and not instead:
            return with_changes(self, original, fresh.changes)
        if fresh.changes or old.changes:
            return self.project.with_swap(fresh.model_copy(update=kept | {"insist": old.insist}))
        kept |= {"source": fresh.source, "made_for": fresh.made_for}
        return self.project.with_swap(old.model_copy(update=kept))

    def fitted(self, swap: Swap, progress: Progress = QUIET) -> Swap:
        """The swap with the steps and the encoding that make its source fit."""
        return self.refitted(swap, progress).swap

    def refitted(self, swap: Swap, progress: Progress = QUIET) -> Refit:
        """The swap with what it lacks to fit; steps made or changed by hand stay, in their order.

        When all fits nothing changes. Steps that Fit all chose are chosen anew where no other ones are among them.
        Raises FurnelError when the source cannot be used, or one of its steps cannot do its work.
        """
        original = self.wanted_spec(swap)
        if all(use.auto for use in swap.steps):
            return self._fitted_afresh(swap, original, progress)
        whole = Refit(with_encoding(swap, original), len(swap.steps), encoded=swap.encode is None)
        for number in range(_ROUNDS):
            examined = self.examine(whole.swap, progress)
            if examined.result is None:
                point = examined.points[0]
                raise FurnelError("Fitting", where=swap.original, why=point.why, remedy=point.remedy)
            needs = needed(examined.points)
            if not mendable(needs):
                break
            steps, encode = fit_all(original, examined.result, swap.insist, whole.swap.encode)
            more = with_more(whole.swap, steps, encode, needs, adjust=number == 0)
            if not more.changed:
                break
            whole = Refit(
                more.swap, whole.kept - more.adjusted, whole.adjusted + more.adjusted, whole.added + more.added,
                whole.encoded or more.encoded,
            )  # fmt: skip
        return whole

    def _fitted_afresh(self, swap: Swap, original: Spec, progress: Progress) -> Refit:
        examined = self.examine(swap, progress)
        if examined.result is not None and not mendable(needed(examined.points)):
            return Refit(swap, len(swap.steps))
        if swap.steps or swap.encode is not None:
            examined = self.examine(swap.model_copy(update={"steps": (), "encode": None}), progress)
        source = examined.result
        if source is None:
            point = examined.points[0]
            raise FurnelError("Fitting", where=swap.original, why=point.why, remedy=point.remedy)
        steps, encode = fit_all(original, source, swap.insist, swap.encode)
        fresh = swap.model_copy(update={"steps": by_fit(steps), "encode": encode})
        same = sum(use in swap.steps for use in fresh.steps)
        return Refit(fresh, same, 0, len(fresh.steps) - same, encode != swap.encode)

    def original_spec(self, path: str) -> Spec:
        """What an original demands."""
        return self.demands.spec(path)

    def wanted_spec(self, swap: Swap, shipped: bytes | None = None) -> Spec:
        """What a swap has to be: what its original is, and of a part of a song what the song says."""
        return as_part(self, swap.original, self.demands.spec(swap.base, shipped))

    def fingerprint(self, asset: Asset) -> str:
        """A short hash of an original's bytes: how drift is noticed."""
        return _fingerprint(self.catalogue.read(asset))

    def examine(self, swap: Swap, progress: Progress = QUIET) -> Examined:
        """The swap's result and how it fits. What cannot be read becomes a point that breaks, not an error.

        What was examined before is known again by everything it was worked out from, and not worked out anew.
        """
        try:
            asset = self.catalogue.get(swap.base)
        except FurnelError as error:
            moved = self.moved_to(swap, progress)
            remedy = f"Its content is {moved} now: Match it points the swap there" if moved else error.remedy
            point = NAME.point(Finding("not in the game", swap.original, "breaks", remedy, error.why, moved))
            return Examined(swap, (point,), key=self._key(swap))
        shipped = self.catalogue.read(asset)
        path = self.source_path(swap)
        original = None
        try:
            try:
                source, key, data = self.rendered(swap, shipped, progress)
            except FurnelError as error:
                if not swap.changes:
                    raise
                return Examined(swap, (lost_change(error),), original=self.wanted_spec(swap, shipped))
            name = "" if swap.keeps_name else path.name
            seen_key = self.demands.examination_key(swap, shipped, key, name, own_mark(self, swap))
            known = read_examination(self.results, seen_key)
            if known is None:
                original = self.wanted_spec(swap, shipped)
                known = self._compare(swap, original, source, data, path)
                check(progress, "Examining")
                keep_examination(self.results, seen_key, known)
        except Cancelled:
            raise
        except FurnelError as error:
            found = Finding(
                "readable", error.why or error.what, "breaks", error.remedy, error.sentence().rstrip(".")
            )
            point = SOURCE.point(found)
            original = original or self.wanted_spec(swap, shipped)
            return Examined(swap, (point,), original=original)
        points = insisting([*known.points, *self._drift(swap, shipped, progress)], swap.insist)
        as_is = not swap.keeps_name and not any(use.on for use in swap.steps)
        kept = Result.of(path if as_is else self.results / key, data)
        return Examined(swap, tuple(points), kept, known.original, known.result, key)

    def rendered(self, swap: Swap, shipped: bytes, progress: Progress = QUIET) -> tuple[bytes, str, bytes]:
        """A swap's source, a name for its result that changes with all it is made from, and the result.

        `shipped` are the bytes of what it has to match. Raises FurnelError when the source or a step cannot be used, or a
        change finds no place.
        """
        path = self.source_path(swap)
        source = read_source(checked(self.file, path)) if swap.source else shipped
        beside = Surroundings(swap.steps, shipped, swap.original, self.folder, self.file)
        data = render(
            swap, source, path, self.results, progress, beside,
            lambda: self.demands.texts.changed(swap.base, swap.changes).data,
        )  # fmt: skip
        return source, result_key(swap, source, beside), data

    def _compare(self, swap: Swap, original: Spec, source: bytes, data: bytes, path: Path) -> Examination:
        name = swap.original if swap.keeps_name else str(path)
        result = spec_of(data, name, self.profile.role_of(swap.original))
        beside = source_points(Made(swap, source, path, original, result, data))
        if (
            isinstance(original, TextSpec)
            and isinstance(result, TextSpec)
            and not original.fault
            and not result.fault
        ):
            beside += self._meaning(swap, data)
        elif isinstance(result, PictureSpec):
            beside += strip_points(self, swap, data)
        return Examination((*compare(original, result), *beside), original, result)

    def _meaning(self, swap: Swap, data: bytes) -> list[FitPoint]:
        """What a definition says, against the game's own."""
        if not taken_apart(swap.base) or len(data) > _MOST_TEXT:
            return []
        changed = self.demands.texts.changed
        yours = document_of(data, swap.base) if swap.source else changed(swap.base, swap.changes)
        return meaning_points(faults_of(self, swap, yours))

    def moved_to(self, swap: Swap, progress: Progress = QUIET) -> str:
        """Where the content that a swap was made for is now, when a game update gave it another path; otherwise nothing."""
        return self.demands.found_elsewhere(swap.original, swap.made_for, progress) if swap.made_for else ""

    def followed(self, swap: Swap, progress: Progress = QUIET) -> Swap | None:
        """The swap for the path that its original's content has now, or None when that did not move."""
        moved = self.moved_to(swap, progress)
        return swap.model_copy(update={"original": moved}) if moved else None

    def _drift(self, swap: Swap, shipped: bytes, progress: Progress) -> list[FitPoint]:
        if not swap.made_for or swap.made_for == _fingerprint(shipped):
            return []
        if not swap.source:
            return updated_under(swap, shipped)
        moved = self.moved_to(swap, progress)
        if moved:
            where, remedy = f"is {moved} now", f"Match it points the swap to {moved}"
            why = f"{DRIFT.why}: it has another path"
            return [DRIFT.point(Finding(where, "made for the older one", "breaks", remedy, why, moved))]
        remedy = "Look at both, then fit again"
        return [DRIFT.point(Finding("changed by an update", "made for the older one", "differs", remedy))]

    def stages(
        self, swap: Swap, told: dict[int, str] | None = None, progress: Progress = QUIET
    ) -> tuple[Media | None, list[Media]]:
        """A swap's source as media (None when it is neither picture nor sound), and what each step that is on gives.

        What steps say of their work goes into `told` by their place. Raises FurnelError when the source is gone or damaged,
        or a step cannot do its work.
        """
        if not swap.source:
            return None, []
        path = self.source_path(swap)
        original = b""
        if looks_at_original(swap.steps):
            original = self.catalogue.bytes_of(swap.base)
        around = Surroundings(swap.steps, original, swap.original, self.folder, self.file).around
        return staged(read_source(checked(self.file, path)), path, swap.steps, progress, around, told)

    def _key(self, swap: Swap) -> str:
        return hashlib.sha256(repr(swap).encode()).hexdigest()


def _fingerprint(data: bytes) -> str:
    return content_digest(data).hex()


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
    ignored = folder / ".gitignore"
    if not ignored.exists():
        write_text(ignored, "# what Furnel makes anew\n/build/\n")
    return file


def open_workspace(path: Path, progress: Progress = QUIET, game: Path | None = None) -> Workspace:
    """A project and its game, scanned. `game` says where the game is when it is not where the project says."""
    file = project_file(path).resolve()
    store, loaded = Store.opened(file)
    project = _kept_relative(file, loaded)
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
    return Workspace(file, project, catalogue, GameWide(catalogue), store)


def _kept_relative(file: Path, project: Project) -> Project:
    """Sources that lie in the project's folder, by their place in it, so that both can move together."""
    swaps = []
    for swap in project.swaps:
        path = Path(swap.source)
        if path.is_absolute() and path.resolve().is_relative_to(file.parent):
            swap = swap.model_copy(update={"source": path.resolve().relative_to(file.parent).as_posix()})
        swaps.append(swap)
    return project.model_copy(update={"swaps": tuple(swaps)})


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
