"""Sounds: clips in memory, their files, what is measured of them, and what is done to them."""

from furnel.sound.beats import Rhythm, frames_of_bars, key_of, rhythm_of
from furnel.sound.clip import (
    Clip,
    FillWith,
    MixLaw,
    Samples,
    SeamLaw,
    part_of,
    resampled,
    waveform,
    with_channels,
    with_length,
)
from furnel.sound.comparing import Comparison, compare_clips
from furnel.sound.files import (
    LOSSY,
    SUFFIXES,
    WRITTEN_TYPES,
    SoundInfo,
    SoundStream,
    codecs_of,
    open_clip,
    peek_info,
    read_clip,
    recognises,
    sound_info,
    usual_codec,
    writable_as,
    write_clip,
)
from furnel.sound.loops import best_seam, closed_loop, seam_click, with_intro
from furnel.sound.loudness import LoudnessMeter, integrated_loudness, to_lufs
from furnel.sound.measures import (
    Measures,
    measures_and_head,
    measures_of,
    measures_of_file,
)
from furnel.sound.notes import NO_NOTES, Cue, SoundNotes, read_notes
from furnel.sound.overview import Overview, overview_of, overview_of_file
from furnel.sound.peaks import to_decibels, true_peak, with_gain
from furnel.sound.shaping import (
    FADE_CURVES,
    SILENT_DB,
    faded,
    filtered,
    layered,
    sounding_span,
    trimmed,
    without_dc,
)
from furnel.sound.stretch import shifted, stretched

__all__ = [
    "FADE_CURVES", "LOSSY", "NO_NOTES", "SILENT_DB", "SUFFIXES", "WRITTEN_TYPES", "Clip", "Comparison", "Cue",
    "FillWith", "LoudnessMeter", "Measures", "MixLaw", "Overview", "Rhythm", "Samples", "SeamLaw", "SoundInfo",
    "SoundNotes", "SoundStream", "best_seam", "closed_loop", "codecs_of", "compare_clips", "faded",
    "filtered", "frames_of_bars", "integrated_loudness", "key_of", "layered", "measures_and_head", "measures_of",
    "measures_of_file", "open_clip", "overview_of", "overview_of_file", "part_of", "peek_info", "read_clip",
    "read_notes", "recognises", "resampled", "rhythm_of", "seam_click", "shifted",
    "sound_info", "sounding_span", "stretched", "to_decibels", "to_lufs", "trimmed", "true_peak", "usual_codec",
    "waveform", "with_channels", "with_gain", "with_intro", "with_length", "without_dc", "writable_as", "write_clip",
]  # fmt: skip
