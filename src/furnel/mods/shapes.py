"""The shapes of sources: what a long recording looks like as a whole, kept for the next time."""

from __future__ import annotations

import hashlib
import io
from dataclasses import dataclass
from pathlib import Path

import numpy as np

from furnel.atomic import write_bytes
from furnel.errors import FurnelError
from furnel.folders import cache_folder
from furnel.mods.project import StepUse
from furnel.mods.steps import Taken, step_type
from furnel.sound import Overview, SoundStream, overview_of_file

_SILENT = 0.0126  # -38 dB beside the loudest, as trimming takes it
_KEPT = 1500  # columns that are kept of a source


@dataclass(frozen=True, slots=True, eq=False)
class SourceShape:
    """A source as a whole: lowest and highest samples in (2, columns), its length, and the silence at its ends in seconds."""

    wave: np.ndarray
    length_s: float

    @property
    def silence_s(self) -> tuple[float, float]:
        """How long the silence before and behind lasts, as exactly as the columns tell."""
        loud = np.abs(self.wave).max(axis=0)
        heard = np.flatnonzero(loud > _SILENT * float(loud.max(initial=0.0)))
        if not len(heard):
            return self.length_s, 0.0
        column = self.length_s / len(loud)
        return heard[0] * column, (len(loud) - 1 - heard[-1]) * column


def source_shape(file: Path) -> SourceShape:
    """A sound file's shape; read once, then kept. Raises FurnelError when it cannot be read."""
    try:
        stat = file.stat()
    except OSError as error:
        raise FurnelError("Reading a source", where=file, why=str(error)) from error
    name = hashlib.sha256(f"{file.resolve()} {stat.st_size} {stat.st_mtime_ns}".encode()).hexdigest()[:32]
    kept = cache_folder() / "shapes" / f"{name}.npy"
    with SoundStream(file) as stream:
        length_s = stream.info.length_s
        if kept.is_file():
            try:
                return SourceShape(np.load(kept, allow_pickle=False), length_s)
            except (OSError, ValueError):
                kept.unlink(missing_ok=True)
        shape: Overview = overview_of_file(stream)
    wave = shape.columns(0, shape.frames, _KEPT)
    target = io.BytesIO()
    np.save(target, wave)
    write_bytes(kept, target.getvalue())
    return SourceShape(wave, length_s)


def used_part(
    steps: tuple[StepUse, ...], rate: int, length_s: float, silence_s: tuple[float, float] = (0.0, 0.0)
) -> tuple[float, float]:
    """From where to where, in seconds of the source, the steps take from it. `rate` is that of steps after resampling,
    `silence_s` the silence at the source's ends."""
    taken = Taken(0.0, length_s, length_s, silence_s, rate)
    for use in steps:
        takes = step_type(use.do).takes
        if use.on and takes is not None:
            taken = takes(use.checked(), taken)
    return taken.start_s, taken.end_s


def trimmed_ends(
    steps: tuple[StepUse, ...], length_s: float, silence_s: tuple[float, float]
) -> tuple[float, float]:
    """How many seconds of silence at the source's beginning and end are cut off by steps that trim."""
    trims = tuple(use for use in steps if use.do == "trim" and use.on)
    start, end = used_part(trims, 1, length_s, silence_s)
    return start, max(length_s - end, 0.0)


@dataclass(frozen=True, slots=True)
class Layer:
    """A file laid over the sound: the place of its step, its name, where it begins and how long it lasts, in seconds."""

    place: int
    name: str
    at_s: float
    length_s: float


def layers_of(steps: tuple[StepUse, ...], folder: Path) -> tuple[Layer, ...]:
    """The layers that lie in the result where their steps say: no later step moves them. Unreadable files are left out."""
    out = []
    for place, use in enumerate(steps):
        moved = any(later.on and step_type(later.do).moves for later in steps[place + 1 :])
        if not use.on or not step_type(use.do).is_layer or moved:
            continue
        values = use.checked()
        try:
            with SoundStream(folder / str(values["file"])) as stream:
                whole = stream.info.length_s
        except FurnelError:
            continue
        length = min(float(values["length"]) or whole, whole - float(values["start"]))
        out.append(Layer(place, Path(str(values["file"])).name, float(values["at"]), max(length, 0.0)))
    return tuple(out)


def moved_part(steps: tuple[StepUse, ...], rate: int, start_s: float, result_s: float) -> tuple[StepUse, ...]:
    """The steps taking their part from `start_s` on; where none does yet, a first step takes `result_s` of it."""
    place = _taking(steps)
    if place is None:
        fresh = {"start": round(max(start_s, 0.0), 3), "length": round(result_s, 3)}
        return (StepUse(do="part", values=dict(fresh)), *steps)
    use, values = steps[place], steps[place].checked()
    earlier = [(step_type(one.do).begins(one.checked()), one.checked()) for one in steps[:place] if one.on]
    before = sum(float(settings[name]) for name, settings in earlier if name)
    begin = max(start_s - before, 0.0)
    key = step_type(use.do).begins(values)
    in_frames = isinstance(values[key], int)
    moved = use.model_copy(
        update={"values": {**use.values, key: round(begin * rate) if in_frames else round(begin, 3)}}
    )
    return (*steps[:place], moved, *steps[place + 1 :])


def _taking(steps: tuple[StepUse, ...]) -> int | None:
    """The place of the step that says where in the source the result begins: what cuts to bars or a loop, else to a part."""
    found = [
        (not step_type(use.do).leads, place)
        for place, use in enumerate(steps)
        if use.on and step_type(use.do).begins(use.checked())
    ]
    return min(found)[1] if found else None
