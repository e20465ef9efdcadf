"""Sounds: clips in memory, their files, their loudness."""

from furnel.sound.clip import (
    Clip,
    FillWith,
    Samples,
    resampled,
    waveform,
    with_channels,
    with_gain,
    with_length,
)
from furnel.sound.files import (
    SUFFIXES,
    SoundInfo,
    open_clip,
    peek_info,
    read_clip,
    recognises,
    sound_info,
    write_clip,
)
from furnel.sound.loudness import integrated_loudness, short_term_loudness

__all__ = [
    "SUFFIXES",
    "Clip",
    "FillWith",
    "Samples",
    "SoundInfo",
    "integrated_loudness",
    "open_clip",
    "peek_info",
    "read_clip",
    "recognises",
    "resampled",
    "short_term_loudness",
    "sound_info",
    "waveform",
    "with_channels",
    "with_gain",
    "with_length",
    "write_clip",
]
