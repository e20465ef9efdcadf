"""Sounds and tunes: what their file is, what is measured of them, and what the game does with them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from furnel import sound
from furnel.games import RoleRule
from furnel.media.encode import Encode
from furnel.media.medium import Data, Facts, Kind, Media, Medium, Preview, Rows, Spec
from furnel.progress import QUIET, Progress
from furnel.sound import Clip, Cue, Measures, Rhythm
from furnel.sound.words import channels_text
from furnel.words import number

_RHYTHM_S = 90.0
_STEADY = 0.6
_MUSIC_S = 10.0
_COLUMNS = 160
_LONG_FRAMES = 1 << 20
_LOSSY_QUALITY = {"fast": 0.3, "good": 0.6, "best": 0.9}
_PLAIN_CODECS = ("PCM 16", "PCM 24", "PCM 32", "float 32")
# tags that say what a recording is and whose: they are not another recording's
DESCRIBING = frozenset({
    "title", "artist", "album", "albumartist", "tracknumber", "discnumber", "date", "year", "genre", "comment", "description",
    "copyright", "license", "composer", "performer", "lyricist", "conductor", "arranger", "organization", "publisher",
    "contact", "isrc", "website", "location", "version",
})  # fmt: skip


@dataclass(frozen=True, slots=True)
class SoundSpec(Spec):
    """A sound or tune of `size` bytes; `loop` the span of frames that repeats.

    `loops` when the game repeats it, `exact` when its length has to be the original's to the frame, `record` when its loop
    stands in a record beside it (`told_tempo` is the tempo that this says). `family` is the lowest and highest loudness
    (LUFS) of its event's other sounds. `rhythm` is only looked for in what loops. `most_bytes` is the role's limit, 0 for
    none; `nominal` what the file says that a second of it takes, in kbit/s, 0 where it says nothing. A part of a song has the
    song's `grid` (beats, and beats a minute) and `told_key`; `pitch` is the key that is heard in it.
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
    grid: tuple[int, float] | None = None
    told_key: str = ""
    pitch: str = ""
    nominal: float = 0.0

    @property
    def kind(self) -> Kind:
        return "sound"

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
    data: Data, path: str, role: RoleRule | None, progress: Progress = QUIET, with_rhythm: bool = False
) -> SoundSpec:
    """The spec of a sound file, read once in pieces; its rhythm when it loops or `with_rhythm`. FurnelError for damage."""
    with sound.SoundStream(data, path) as stream:
        info = stream.info
        loops = role is not None and ("loop" in role.does or role.beats is not None)
        heard = int(_RHYTHM_S * info.rate) if loops or with_rhythm else 0
        measured, head = sound.measures_and_head(stream, heard, progress)
        rhythm = sound.rhythm_of(head) if head is not None else None
        is_part = role is not None and role.beats is not None
        pitch = sound.key_of(head) if head is not None and (is_part or with_rhythm) else ""
    notes = sound.read_notes(data, info.frames)
    return SoundSpec(
        info.file_type, info.codec, info.rate, info.channels, info.frames, measured, len(data), notes.loop,
        tuple(sorted(notes.tags.items())), notes.cues, loops, loops or (role is not None and role.length == "exact"),
        role is not None and role.loop_record is not None, rhythm, None, role.most_bytes if role is not None else 0,
        pitch=pitch, nominal=sound.nominal_kilobits(data),
    )  # fmt: skip


def waveform_preview(clip: Clip) -> Preview:
    """The shape of a clip in memory."""
    return Preview(waveform=np.stack(sound.waveform(clip, _COLUMNS)))


class _Sound(Medium):
    name = "sound"
    called = "sound"
    kinds = ("sound", "music")
    titles = ("Sounds", "Music")
    spec_type = SoundSpec
    suffixes = sound.SUFFIXES
    plain = "wav"
    is_heard = True
    steps_in_order = True
    has_likeness = True

    def recognises(self, data: Data, path: str) -> bool:
        return sound.recognises(data)

    def needs_whole(self, head: Data) -> bool:
        return head[:4] != b"RIFF"

    def facts(self, data: Data, size: int, path: str, does: frozenset[str]) -> Facts:
        info = sound.peek_info(data, size) or sound.sound_info(data, path)
        label = "WAV" if info.file_type == "WAV" else info.codec
        kind: Kind = "music" if "loop" in does or info.length_s > _MUSIC_S else "sound"
        return Facts(kind, label, rate=info.rate, channels=info.channels, frames=info.frames)

    def spec(self, data: Data, path: str, role: RoleRule | None) -> SoundSpec:
        return sound_spec(data, path, role)

    def rows(self, facts: Facts, spec: Spec | None) -> Rows:
        rows = [
            ("Length", f"{facts.length_s:.2f} s"),
            ("Format", facts.format),
            ("Rate", f"{number(facts.rate)} Hz"),
            ("Channels", channels_text(facts.channels)),
        ]
        if isinstance(spec, SoundSpec):
            rows.append(("Loudness", f"{spec.loudness:.1f} LUFS" if spec.loudness > -200 else "silent"))
            if spec.loops:
                rows.insert(1, ("Loop", f"{number(spec.frames)} frames, exactly"))
        return rows

    def preview(self, data: Data, where: object) -> Preview:
        with sound.SoundStream(data, where) as stream:
            if stream.info.frames < _LONG_FRAMES:
                return waveform_preview(sound.read_clip(data, where)[0])
            shape = sound.overview_of_file(stream)
        return Preview(waveform=shape.columns(0, shape.frames, _COLUMNS))

    def opened(self, data: Data, where: object) -> Clip:
        return sound.read_clip(data, where)[0]

    def glanced(self, data: Data, where: object, side: int) -> Clip:
        return self.opened(data, where)

    def same_content(self, one: bytes, other: bytes, facts: Facts, where: object) -> bool:
        info = sound.sound_info(one, where)
        if (info.rate, info.channels, info.frames) != (facts.rate, facts.channels, facts.frames):
            return False
        return bool(np.array_equal(self.opened(one, where).samples, self.opened(other, where).samples))

    def written(self, media: Media, encode: Encode, progress: Progress = QUIET) -> bytes:
        assert isinstance(media, Clip)
        notes = _notes(encode.notes, media.frames)
        quality = _LOSSY_QUALITY[encode.quality]
        if encode.format == "Vorbis" and (told := encode.notes.get("nominal", "")).isdecimal():
            quality = max(
                sound.quality_for(int(told), media.rate, media.channels),
                quality if encode.quality == "best" else 0,
            )
        return sound.write_clip(media, encode.file, encode.format, quality, notes)

    def as_plain(self, data: bytes, where: object) -> tuple[bytes, str]:
        clip, info = sound.read_clip(data, where)
        return sound.write_clip(clip, "WAV", info.codec if info.codec in _PLAIN_CODECS else "PCM 16"), ".wav"

    def encoding_like(self, original: SoundSpec) -> Encode:
        file_type, codec = sound.writable_as(original.file_type, original.codec)
        if codec != original.codec:
            return Encode(file=file_type, format=codec, levels=1)
        notes = {f"tag {name}": value for name, value in original.tags if name not in DESCRIBING}
        notes |= {f"cue {cue.frame}": cue.name for cue in original.cues}
        if (
            codec == "Vorbis" and original.nominal and not original.loops
        ):  # a seam is heard before anything else
            notes["nominal"] = str(round(original.nominal))
        return Encode(file=file_type, format=codec, levels=1, notes=notes)

    def encoding_kept(self, encode: Encode, now: Encode, insist: frozenset[str]) -> Encode:
        return now if {"file", "codec"} & insist else encode


def _notes(notes: Mapping[str, str], frames: int) -> sound.SoundNotes:
    """What an encoding says of tags (`tag title`) and marked places (`cue 441`: its name, by the frame)."""
    tags = {key[4:]: value for key, value in notes.items() if key.startswith("tag ")}
    places = {
        int(key[4:]): name for key, name in notes.items() if key.startswith("cue ") and key[4:].isdecimal()
    }
    cues = tuple(sound.Cue(frame, name) for frame, name in sorted(places.items()) if frame <= frames)
    return sound.SoundNotes(None, cues, tags)


SOUND = _Sound()
