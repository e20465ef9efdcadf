"""Levelling: all sounds of a folder brought to one loudness."""

from __future__ import annotations

import math
from dataclasses import dataclass
from pathlib import Path

from furnel import sound
from furnel.atomic import write_bytes
from furnel.errors import FurnelError
from furnel.media import SOUND, medium_by_suffix
from furnel.mods.project import StepUse
from furnel.mods.render import apply_steps, read_source
from furnel.parallel import each
from furnel.progress import QUIET, Part, Progress

WHAT = "Levelling"


@dataclass(frozen=True, slots=True)
class Levelled:
    """A sound that was levelled: its file below the folder, its loudness before and after in LUFS, what the step said."""

    file: Path
    before: float
    after: float
    said: str


def level_folder(
    folder: Path, target: Path, loudness: float | None, ceiling_db: float, progress: Progress = QUIET
) -> list[Levelled]:
    """Bring all sounds below `folder` to `loudness` (LUFS; None: the middle one of them) and write them below `target`.

    Each stays the kind of file that it is, where that can be written; true peaks stay below `ceiling_db`. On all cores.
    Raises FurnelError when there is no sound, one is damaged, or the target is the folder itself.
    """
    files = sorted(file for file in folder.rglob("*") if medium_by_suffix(file) is SOUND)
    if not files:
        raise FurnelError(WHAT, where=folder, why="there is no sound in it", remedy="Choose another folder")
    if target.resolve() == folder.resolve():
        raise FurnelError(
            WHAT, where=target, why="the sources are there", remedy="Choose another folder to write to"
        )
    before = each(
        files, lambda file, _: _loudness(file), Part(progress, 0, 0.4), "Listening to", lambda file: file.name
    )
    heard = sorted(value for value in before if math.isfinite(value))
    if loudness is None:
        loudness = round(heard[len(heard) // 2], 1) if heard else -20.0
    use = StepUse(do="loudness", values={"target": loudness, "ceiling": ceiling_db})

    def work(file: Path, _: Progress) -> tuple[Path, float, str]:
        written, after, said = _level(file, target / file.relative_to(folder), use)
        return written.relative_to(target), after, said

    done = each(files, work, Part(progress, 0.4, 1), "Levelling", lambda file: file.name)
    return [Levelled(name, was, after, said) for was, (name, after, said) in zip(before, done, strict=True)]


def _loudness(file: Path) -> float:
    with sound.SoundStream(file) as stream:
        return sound.measures_of_file(stream).loudness


def _level(file: Path, target: Path, use: StepUse) -> tuple[Path, float, str]:
    clip, info = sound.read_clip(read_source(file), file)
    told: dict[int, str] = {}
    done = apply_steps(clip, [use], told=told)[-1]
    assert isinstance(done, sound.Clip)
    kind = sound.writable_as(info.file_type, info.codec)
    if kind[0] != info.file_type:
        target = target.with_suffix(f".{kind[0].lower()}")  # what it is has to be what it is called
        if target.relative_to(target.parent).name in {file.name for file in file.parent.iterdir()}:
            raise FurnelError(
                WHAT, where=file, why=f"{info.file_type} is not written, and {target.name} is another of the sounds",
                remedy="Give one of the two another name",
            )  # fmt: skip
    write_bytes(target, sound.write_clip(done, *kind, notes=info.notes))
    return target, sound.integrated_loudness(done.samples, done.rate), told.get(0, "")
