"""A game's tunes as a set: their lengths and loops, and what becomes of an album that is laid over them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from furnel import sound
from furnel.errors import FurnelError
from furnel.media import SoundSpec, sound_spec
from furnel.mods.fit import fit_all
from furnel.mods.project import StepUse
from furnel.mods.render import read_source
from furnel.mods.shapes import SourceShape, source_shape
from furnel.mods.workspace import Workspace
from furnel.parallel import each
from furnel.progress import QUIET, Progress, check
from furnel.sound.words import length_text
from furnel.states import State


@dataclass(frozen=True, slots=True)
class Tune:
    """One of the game's tunes."""

    path: str
    spec: SoundSpec

    @property
    def name(self) -> str:
        return self.path.rpartition("/")[2].rpartition(".")[0]


@dataclass(frozen=True, slots=True, eq=False)
class Song:
    """A song of an album: its file, what it is (None when it cannot be read, and why), what it looks like as a whole."""

    file: Path
    spec: SoundSpec | None
    shape: SourceShape | None
    why: str = ""


@dataclass(frozen=True, slots=True)
class Forecast:
    """What would become of a song in a tune's place: `says` in words, and whether that is worth a look."""

    outlook: State
    says: str


def tunes_of(space: Workspace, progress: Progress = QUIET) -> list[Tune]:
    """The game's tunes: what its profile calls loops, or what is music, but for parts of songs; in the order of their paths."""
    found = []
    music = [asset.path for asset in space.catalogue.assets if asset.facts.kind == "music"]
    paths = [path for path in music if (role := space.profile.role_of(path)) is None or role.beats is None]
    for number, path in enumerate(sorted(paths)):
        check(progress, "Listing tunes")
        progress.report(number / len(paths), f"Listening to {path}")
        spec = space.original_spec(path)
        if isinstance(spec, SoundSpec):
            found.append(Tune(path, spec))
    return found


def read_songs(files: Sequence[Path], progress: Progress = QUIET) -> list[Song]:
    """Songs with their rhythms, in their order, on all cores; a file that cannot be read says why."""
    return each(files, lambda file, _: _read_song(file), progress, "Listening to", lambda file: file.name)


def _read_song(file: Path) -> Song:
    try:
        return Song(
            file, sound_spec(read_source(file), str(file), None, with_rhythm=True), source_shape(file)
        )
    except FurnelError as error:
        return Song(file, None, None, error.why)


def forecast(tune: Tune, one: Song) -> Forecast:
    """What a song would become in a tune's place."""
    song = one.spec
    if song is None:
        return Forecast("breaks", one.why)
    steps, _ = fit_all(tune.spec, song)
    by_name = {use.do: use for use in steps}
    ratio = song.length_s / max(tune.spec.length_s, 1e-6)
    if "bars" in by_name:
        says = _bars_words(by_name, tune.spec, ratio)
        return Forecast("fits" if ratio >= 1 else "differs" if ratio >= 0.25 else "breaks", says)
    if "loop" in by_name:
        return Forecast(
            "differs",
            f"no steady beat: {length_text(tune.spec.length_s)} of it, cross-faded where they are most alike",
        )
    if "length" in by_name:
        if ratio < 1:
            return Forecast(
                "breaks" if ratio < 0.25 else "differs",
                f"too short: repeated {1 / ratio:.1f} times, the joins may be heard",
            )
        return Forecast("differs", f"too long: cut to {length_text(tune.spec.length_s)}")
    return Forecast("fits", "as long as the tune")


def _bars_words(uses: dict[str, StepUse], tune: SoundSpec, ratio: float) -> str:
    bars = uses["bars"].values
    part = sound.frames_of_bars(int(bars["bars"]), int(bars["meter"]), float(bars["tempo"]), tune.rate)
    out = f"{bars['bars']} bars at {float(bars['tempo']):g} bpm"
    change = tune.frames / part - 1
    if "stretch" in uses and abs(change) >= 0.0005:
        out += f", made {abs(change):.1%} {'longer' if change > 0 else 'shorter'}"
    return out + (", repeated: it is too short" if ratio < 1 else "")
