"""Sounds: loudness by the standard, files through other readers, exact lengths, no clipping."""

from __future__ import annotations

import io
import math
import time

import numpy as np
import pytest
import soundfile
from hypothesis import given
from hypothesis import strategies as st

from furnel.errors import FurnelError
from furnel.sound import (
    Clip,
    LoudnessMeter,
    integrated_loudness,
    peek_info,
    read_clip,
    resampled,
    sound_info,
    waveform,
    with_channels,
    with_gain,
    with_length,
    write_clip,
)
from tarnlight import loaders, sounds, writers


def tone(
    level_db: float, length_s: float = 5.0, rate: int = 48000, hertz: float = 1000.0, channels: int = 2
) -> Clip:
    t = np.arange(round(length_s * rate)) / rate
    wave = (10 ** (level_db / 20) * np.sin(2 * np.pi * hertz * t)).astype(np.float32)
    return Clip(np.repeat(wave[:, None], channels, axis=1), rate)


def join(*clips: Clip) -> Clip:
    return Clip(np.concatenate([clip.samples for clip in clips]), clips[0].rate)


@pytest.mark.parametrize("rate", [44100, 48000, 96000])
@pytest.mark.parametrize(
    ("levels", "expected"),
    [
        ([(-23, 20)], -23.0),  # EBU Tech 3341, test signals 1 to 5
        ([(-33, 20)], -33.0),
        ([(-36, 10), (-23, 60), (-36, 10)], -23.0),
        ([(-72, 10), (-36, 10), (-23, 60), (-36, 10), (-72, 10)], -23.0),
        ([(-26, 20), (-20, 20.1), (-26, 20)], -23.0),
    ],
)
def test_loudness_of_the_standards_test_signals(
    levels: list[tuple[float, float]], expected: float, rate: int
) -> None:
    clip = join(*(tone(level, length, rate) for level, length in levels))
    assert integrated_loudness(clip.samples, rate) == pytest.approx(expected, abs=0.1)


def test_mono_is_three_decibels_quieter_and_silence_is_minus_infinity() -> None:
    stereo, mono = tone(-20), tone(-20, channels=1)
    assert integrated_loudness(stereo.samples, 48000) - integrated_loudness(
        mono.samples, 48000
    ) == pytest.approx(3.01, abs=0.01)
    assert integrated_loudness(np.zeros((48000, 1)), 48000) == -math.inf
    assert integrated_loudness(np.zeros((0, 1)), 48000) == -math.inf


def test_a_sound_shorter_than_a_block_is_measured_all_the_same() -> None:
    assert integrated_loudness(tone(-20, 0.2).samples, 48000) == pytest.approx(-20.0, abs=0.5)


def test_short_term_loudness_follows_the_sound() -> None:
    meter = LoudnessMeter(48000, 2)
    meter.feed(join(tone(-40, 4), tone(-20, 4)).samples)
    curve = meter.short_term(from_start=True)
    assert curve[30] == pytest.approx(-40, abs=0.3)
    assert curve[-1] == pytest.approx(-20, abs=0.3)


@given(st.integers(1, 4000), st.integers(1, 9000), st.sampled_from(["silence", "repeats"]), st.integers(1, 2))
def test_a_length_is_met_to_the_frame(have: int, want: int, fill: str, channels: int) -> None:
    clip = Clip(np.random.default_rng(1).uniform(-1, 1, (have, channels)).astype(np.float32), 8000)
    got = with_length(clip, want, fill)  # type: ignore[arg-type]
    assert got.samples.shape == (want, channels)
    if have >= want:
        np.testing.assert_array_equal(got.samples, clip.samples[:want])


def test_repeats_have_no_hole_and_no_click() -> None:
    clip = tone(-6, 1.0, hertz=440, channels=1)
    got = with_length(clip, 48000 * 5, "repeats").samples[:, 0]
    steps = np.abs(np.diff(got))
    assert steps.max() < 1.6 * np.abs(np.diff(clip.samples[:, 0])).max()
    assert np.sqrt(np.mean(got.reshape(-1, 4800) ** 2, axis=1)).min() > 0.2


@given(st.floats(-30, 60), st.floats(-12, 0))
def test_gain_never_passes_its_ceiling(gain: float, ceiling: float) -> None:
    clip = tone(-18, 0.5, hertz=330)
    got, reduced = with_gain(clip, gain, ceiling)
    assert got.peak <= 10 ** (ceiling / 20) * 1.00001
    assert (reduced == 0) == (clip.peak * 10 ** (gain / 20) <= 10 ** (ceiling / 20))


@pytest.mark.parametrize("rate", [22050, 44100, 96000])
def test_resampling_keeps_length_level_and_pitch(rate: int) -> None:
    got = resampled(tone(-12, 2.0, hertz=997, channels=1), rate)
    assert abs(got.frames - 2 * rate) <= 1
    spectrum = np.abs(np.fft.rfft(got.samples[:, 0] * np.hanning(got.frames)))
    assert np.argmax(spectrum) / 2 == pytest.approx(997, abs=1)
    assert integrated_loudness(got.samples, rate) == pytest.approx(
        integrated_loudness(tone(-12, channels=1).samples, 48000), abs=0.1
    )


def test_channels_are_mixed_by_their_mean() -> None:
    pair = Clip(np.array([[1.0, 0.0], [0.5, 0.5]], np.float32), 8000)
    np.testing.assert_allclose(with_channels(pair, 1).samples[:, 0], [0.5, 0.5])
    assert with_channels(with_channels(pair, 1), 2).samples.shape == (2, 2)


def test_waveform_holds_every_peak() -> None:
    clip = Clip(np.zeros((1000, 1), np.float32), 8000)
    clip.samples[777] = 0.9
    clip.samples[3] = -0.7
    low, high = waveform(clip, 50)
    assert (low.min(), high.max()) == (np.float32(-0.7), np.float32(0.9))
    assert np.argmax(high) == 777 * 50 // 1000


@pytest.mark.parametrize("codec", ["PCM 8", "PCM 16", "PCM 24", "PCM 32", "float 32"])
def test_wav_is_read_by_libsndfile_as_it_was_meant(codec: str) -> None:
    clip = tone(-6, 0.3)
    data = write_clip(clip, "WAV", codec)
    samples, rate = soundfile.read(io.BytesIO(data), dtype="float32", always_2d=True)
    assert rate == 48000
    np.testing.assert_allclose(samples, clip.samples, atol=0.02 if codec == "PCM 8" else 4e-5)
    assert sound_info(data).codec == codec


def test_the_game_takes_both_kinds_that_are_written() -> None:
    clip = tone(-6, 0.5, channels=1)
    assert loaders.wav_format(write_clip(clip, "WAV", "PCM 16")) == (48000, 1, 16, 24000)
    stereo = tone(-6, 1.0, 44100)
    assert loaders.ogg_format(write_clip(stereo, "Ogg", "Vorbis")) == (44100, 2, 44100)


def test_ogg_is_the_same_bytes_every_time_and_its_pages_are_sound() -> None:
    clip = tone(-6, 3.0)
    first = write_clip(clip, "Ogg", "Vorbis")
    assert first == write_clip(clip, "Ogg", "Vorbis")
    crc = int.from_bytes(first[22:26], "little")
    page = bytearray(first[: 27 + first[26] + sum(first[27 : 27 + first[26]])])
    page[22:26] = bytes(4)
    assert writers._ogg_crc(bytes(page)) == crc
    assert read_clip(first)[0].frames == clip.frames


@pytest.mark.parametrize(
    ("kind", "subtype"),
    [("WAV", "PCM_16"), ("FLAC", "PCM_16"), ("OGG", "VORBIS"), ("MP3", "MPEG_LAYER_III"), ("AIFF", "PCM_16")],
)
def test_files_made_elsewhere_are_read(kind: str, subtype: str) -> None:
    stream = io.BytesIO()
    soundfile.write(stream, tone(-12, 0.6, 44100).samples, 44100, format=kind, subtype=subtype)
    clip, info = read_clip(stream.getvalue(), f"x.{kind}")
    assert (info.rate, info.channels) == (44100, 2)
    assert integrated_loudness(clip.samples, 44100) == pytest.approx(-12, abs=0.6)


def test_a_headers_word_is_enough_for_a_wav() -> None:
    data = writers.wav(sounds.event_sound("horn", 0, 1), 48000)
    assert peek_info(data[:64], len(data)) == sound_info(data)
    assert peek_info(b"RIFF", 4) is None


@given(kind=st.sampled_from(["wav", "ogg"]), data=st.data())
def test_damaged_sounds_are_refused_or_read(kind: str, data: st.DataObject) -> None:
    clip = tone(-6, 0.2)
    whole = bytearray(
        write_clip(clip, "WAV", "PCM 16") if kind == "wav" else write_clip(clip, "Ogg", "Vorbis")
    )
    for _ in range(data.draw(st.integers(0, 4))):
        whole[data.draw(st.integers(0, min(len(whole) - 1, 200)))] = data.draw(st.integers(0, 255))
    started = time.monotonic()
    try:
        read, _ = read_clip(bytes(whole[: data.draw(st.integers(0, len(whole)))]), "damaged")
        assert np.isfinite(read.samples).all()
    except FurnelError as error:
        assert error.why
    assert time.monotonic() - started < 2


def test_what_is_no_sound_or_not_written_is_refused() -> None:
    with pytest.raises(FurnelError, match="not a WAV"):
        read_clip(b"words", "notes.txt")
    with pytest.raises(FurnelError, match="not written"):
        write_clip(tone(-6, 0.1), "AIFF", "PCM 16")
    with pytest.raises(FurnelError, match="no sample rate"):
        Clip(np.zeros((1, 1), np.float32), 0)
