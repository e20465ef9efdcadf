"""The spec of a sound: what its file is, what is measured of it, and what the game does with it."""

from __future__ import annotations

from dataclasses import dataclass

from furnel import sound
from furnel.games import RoleRule
from furnel.progress import QUIET, Progress
from furnel.sound import Cue, Measures, Rhythm

_RHYTHM_S = 90.0
_STEADY = 0.6


@dataclass(frozen=True, slots=True)
class SoundSpec:
    """A sound or tune of `size` bytes; `loop` the span of frames that repeats.

    `loops` when the game repeats it, `exact` when its length has to be the original's to the frame, `record` when its loop
    stands in a record beside it (`told_tempo` is the tempo that this says). `family` is the lowest and highest loudness
    (LUFS) of its event's other sounds. `rhythm` is only looked for in what loops. `most_bytes` is the role's limit, 0 for
    none.
    """

    file_type: str
    codec: str
    rate: int
    channels: int
    frames: int
    measures: Measures
    size: int = 0
    loop: tuple[int, int] | None = None
    tags: tuple[tuple[str, str], ...] = ()
    cues: tuple[Cue, ...] = ()
    loops: bool = False
    exact: bool = False
    record: bool = False
    rhythm: Rhythm | None = None
    family: tuple[float, float] | None = None
    most_bytes: int = 0
    told_tempo: float | None = None

    @property
    def length_s(self) -> float:
        return self.frames / self.rate

    @property
    def beats(self) -> Rhythm | None:
        """Its rhythm, when that is steady enough to cut by."""
        return self.rhythm if self.rhythm is not None and self.rhythm.steady >= _STEADY else None

    @property
    def loudness(self) -> float:
        """Integrated, in LUFS; minus infinity for silence."""
        return self.measures.loudness

    @property
    def kilobits(self) -> float:
        """What a second of it takes, in kbit/s."""
        return self.size * 8 / 1000 / max(self.length_s, 1e-6)


def sound_spec(
    data: bytes, path: str, role: RoleRule | None, progress: Progress = QUIET, with_rhythm: bool = False
) -> SoundSpec:
    """The spec of a sound file, read once in pieces; its rhythm when it loops or `with_rhythm`. FurnelError for damage."""
    with sound.SoundStream(data, path) as stream:
        info = stream.info
        loops = role is not None and role.role == "loop"
        heard = int(_RHYTHM_S * info.rate) if loops or with_rhythm else 0
        measured, head = sound.measures_and_head(stream, heard, progress)
        rhythm = sound.rhythm_of(head) if head is not None else None
    notes = sound.read_notes(data, info.frames)
    return SoundSpec(
        info.file_type, info.codec, info.rate, info.channels, info.frames, measured, len(data), notes.loop,
        tuple(sorted(notes.tags.items())), notes.cues, loops, loops or (role is not None and role.length == "exact"),
        role is not None and role.loop_record is not None, rhythm, None, role.most_bytes if role is not None else 0,
    )  # fmt: skip
