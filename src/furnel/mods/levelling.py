"""Levelling: all sounds of a folder brought to one loudness."""

from __future__ import annotations

import math
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

from furnel import sound
from furnel.atomic import write_bytes
from furnel.errors import FurnelError
from furnel.mods.project import StepUse
from furnel.mods.render import apply_steps, read_source
from furnel.parallel import cores

WHAT = "Levelling"


@dataclass(frozen=True, slots=True)
class Levelled:
    """A sound that was levelled: its file below the folder, its loudness before and after in LUFS, what the step said."""

    file: Path
    before: float
    after: float
    said: str


def level_folder(folder: Path, target: Path, loudness: float | None, ceiling_db: float) -> list[Levelled]:
    """Bring all sounds below `folder` to `loudness` (LUFS; None: the middle one of them) and write them below `target`.

    Each stays the kind of file that it is, where that can be written; true peaks stay below `ceiling_db`. On all cores.
    Raises FurnelError when there is no sound, one is damaged, or the target is the folder itself.
    """
    files = sorted(file for file in folder.rglob("*") if file.suffix.lower() in sound.SUFFIXES)
    if not files:
        raise FurnelError(WHAT, where=folder, why="there is no sound in it", remedy="Choose another folder")
    if target.resolve() == folder.resolve():
        raise FurnelError(
            WHAT, where=target, why="the sources are there", remedy="Choose another folder to write to"
        )
    with ThreadPoolExecutor(max_workers=cores(), thread_name_prefix="furnel-level") as pool:
        before = list(pool.map(_loudness, files))
        heard = sorted(value for value in before if math.isfinite(value))
        if loudness is None:
            loudness = round(heard[len(heard) // 2], 1) if heard else -20.0
        use = StepUse(do="loudness", values={"target": loudness, "ceiling": ceiling_db})
        names = [file.relative_to(folder) for file in files]
        done = pool.map(lambda file, name: _level(file, target / name, use), files, names)
        return [Levelled(name, was, *now) for name, was, now in zip(names, before, done, strict=True)]


def _loudness(file: Path) -> float:
    with sound.SoundStream(file) as stream:
        return sound.measures_of_file(stream).loudness


def _level(file: Path, target: Path, use: StepUse) -> tuple[float, str]:
    clip, info = sound.read_clip(read_source(file), file)
    told: dict[int, str] = {}
    done = apply_steps(clip, [use], told=told)[-1]
    assert isinstance(done, sound.Clip)
    kind = sound.writable_as(info.file_type, info.codec)
    write_bytes(target, sound.write_clip(done, *kind, notes=info.notes))
    return sound.integrated_loudness(done.samples, done.rate), told.get(0, "")
