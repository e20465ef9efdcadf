"""Sounds in depth: the standards' signals, loops, beats, exact lengths, files with notes, long files in pieces."""

from __future__ import annotations

import io
import math
import struct
import wave
from pathlib import Path

import mutagen
import numpy as np
import pytest
import soundfile
from hypothesis import given
from hypothesis import strategies as st

from furnel import sound
from furnel.errors import FurnelError
from furnel.sound import Clip, Cue, LoudnessMeter, SoundNotes, SoundStream
from tarnlight import sounds

from .test_sound import join, tone


def noise(length_s: float, rate: int = 44100, channels: int = 1, level: float = 0.2) -> Clip:
    rng = np.random.default_rng(8)
    return Clip((level * rng.standard_normal((round(length_s * rate), channels))).astype(np.float32), rate)


def music(bars: int, tempo: float, rate: int = 44100, seed: int = 1) -> Clip:
    """A little piece in four-four time with bass, chords and ticks."""
    rng = np.random.default_rng(seed)
    frames = sound.frames_of_bars(bars, 4, tempo, rate)
    out = np.zeros(frames + rate)
    for beat in range(bars * 4):
        at = round(beat * 60 / tempo * rate)
        t = np.arange(rate // 2) / rate
        pitch = (110, 147, 165, 131)[beat // 4 % 4]
        note = (
            sum(np.sin(2 * np.pi * pitch * k * t) / k for k in (1, 2, 3))
            * np.exp(-5 * t)
            * (0.3 if beat % 4 else 0.5)
        )
        tick = rng.standard_normal(len(t)) * np.exp(-60 * t) * 0.15
        out[at : at + len(t)] += (note + tick)[: len(out) - at]
    return Clip((out[:frames, None] * 0.4).astype(np.float32), rate)


# measures


@pytest.mark.parametrize(
    ("levels", "expected"),
    [
        ([(-20, 20), (-30, 20)], 10.0),  # EBU Tech 3342, test signals 1 to 4
        ([(-20, 20), (-15, 20)], 5.0),
        ([(-40, 20), (-20, 20)], 20.0),
        ([(-50, 20), (-35, 20), (-20, 20), (-35, 20), (-50, 20)], 15.0),
    ],
)
def test_loudness_range_of_the_standards_test_signals(
    levels: list[tuple[float, float]], expected: float
) -> None:
    clip = join(*(tone(level, length) for level, length in levels))
    assert sound.measures_of(clip).loudness_range == pytest.approx(expected, abs=1.0)


def test_momentary_and_short_term_of_the_standards_test_signals() -> None:
    # EBU Tech 3341, signals 9 and 12: patterns whose short-term and momentary loudness stay at -23 LUFS
    short = join(*(tone(level, length) for _ in range(5) for level, length in ((-20, 1.34), (-30, 1.66))))
    meter = LoudnessMeter(48000, 2)
    meter.feed(short.samples)
    assert np.allclose(meter.short_term(), -23, atol=0.1)
    moments = join(*(tone(level, length) for _ in range(25) for level, length in ((-20, 0.18), (-30, 0.22))))
    meter = LoudnessMeter(48000, 2)
    meter.feed(moments.samples)
    assert np.allclose(meter.momentary(), -23, atol=0.1)


@pytest.mark.parametrize(
    ("divisor", "phase", "level", "expected"),
    [(4, 0, 0.5, -6.0), (4, 45, 0.5, -6.0), (6, 60, 0.5, -6.0), (8, 67.5, 0.5, -6.0), (4, 45, 1.41, 3.0)],
)
def test_true_peak_of_the_standards_test_signals(
    divisor: int, phase: float, level: float, expected: float
) -> None:
    # EBU Tech 3341, signals 15 to 19: tolerance +0.2 and -0.4 dB
    t = np.arange(48000)
    samples = (level * np.sin(2 * np.pi * t / divisor + math.radians(phase)))[:, None].astype(np.float32)
    peak = sound.to_decibels(sound.true_peak(samples * np.hanning(48000)[:, None].astype(np.float32) ** 0.05))
    assert expected - 0.4 <= peak <= expected + 0.2


def test_true_peak_is_what_over_sampling_every_frame_gives() -> None:
    from furnel.sound.peaks import _PHASES

    clip = noise(0.3, channels=2)
    plain = max(np.abs(np.convolve(clip.samples[:, c], phase)).max() for c in range(2) for phase in _PHASES)
    assert sound.true_peak(clip.samples) == pytest.approx(max(plain, np.abs(clip.samples).max()), rel=1e-5)


@given(st.floats(-6, 30), st.floats(-9, -0.1), st.integers(0, 5))
def test_the_limiter_never_passes_its_ceiling_between_samples(gain: float, ceiling: float, seed: int) -> None:
    rng = np.random.default_rng(seed)
    clip = Clip((rng.standard_normal((9000, 2)) * 0.3).astype(np.float32), 44100)
    limited, by = sound.with_gain(clip, gain, ceiling)
    assert sound.to_decibels(sound.true_peak(limited.samples)) <= ceiling + 0.01
    assert by >= 0 and limited.frames == clip.frames


def test_feeding_in_pieces_measures_the_same() -> None:
    clip = join(
        noise(2.3), Clip(np.zeros((9000, 1), np.float32), 44100), Clip(np.ones((50, 1), np.float32), 44100)
    )
    whole = sound.measures_of(clip)
    data = sound.write_clip(clip, "WAV", "float 32")
    with SoundStream(data) as stream:
        pieces = sound.measures_of_file(stream)
    assert pieces.loudness == pytest.approx(whole.loudness, abs=1e-6)
    assert (pieces.clipped, pieces.lead_s) == (whole.clipped, whole.lead_s) == (50, 0.0)
    assert pieces.true_peak == pytest.approx(whole.true_peak)
    assert whole.dc == pytest.approx(float(abs(clip.samples.mean())), rel=1e-3)


def test_silence_at_the_ends_correlation_and_nothing_at_all() -> None:
    quiet = np.zeros((44100, 2), np.float32)
    quiet[4410:22050] = noise(0.4, channels=1).samples
    found = sound.measures_of(Clip(quiet, 44100))
    assert (round(found.lead_s, 2), round(found.tail_s, 2), round(found.correlation, 3)) == (0.1, 0.5, 1.0)
    assert sound.measures_of(
        Clip(noise(0.3).samples @ np.array([[1, -1]], np.float32), 44100)
    ).correlation == pytest.approx(-1)
    nothing = sound.measures_of(Clip(np.zeros((100, 1), np.float32), 8000))
    assert nothing.loudness == nothing.loudest_short == -math.inf and nothing.true_peak == 0


@pytest.mark.parametrize(
    ("name", "tempo", "meter"), [("reel_night", 120, 4), ("lantern_waltz", 96, 3), ("fog", 60, 4)]
)
def test_tempo_and_meter_of_the_games_tunes(name: str, tempo: float, meter: int) -> None:
    wave_, _, _ = sounds.tune(name, 1)
    found = sound.rhythm_of(Clip(wave_[: 30 * 44100].astype(np.float32), 44100))
    assert found is not None
    assert (found.tempo, found.meter) == (tempo, meter)
    assert min(found.first_s, abs(60 / tempo - found.first_s)) < 0.02


@pytest.mark.parametrize("tempo", [84.0, 97.5, 132.0, 151.0])
def test_tempo_of_made_music_and_none_of_noise(tempo: float) -> None:
    found = sound.rhythm_of(music(10, tempo))
    assert found is not None and found.tempo == pytest.approx(tempo, rel=0.001)
    assert sound.rhythm_of(Clip(np.zeros((400_000, 1), np.float32), 44100)) is None


def test_key_is_a_fair_hint() -> None:
    t = np.arange(44100 * 6) / 44100
    scale = [220 * 2 ** (step / 12) for step in (0, 0, 2, 4, 5, 7, 7, 9, 11, 12)]
    samples = np.sum([np.sin(2 * np.pi * hertz * t) for hertz in scale], axis=0)[:, None] * 0.05
    assert sound.key_of(Clip(samples.astype(np.float32), 44100)) == "A major"


# files


@pytest.mark.parametrize("codec", sound.codecs_of("WAV"))
def test_every_wav_codec_keeps_loop_places_tags_and_length(codec: str) -> None:
    clip = Clip(tone(-9, 0.5, 44100, channels=2).samples, 44100, (441, 20000))
    notes = SoundNotes(None, (Cue(99, "strike"), Cue(5000)), {"title": "Kvelden", "artist": "Ærend"})
    data = sound.write_clip(clip, "WAV", codec, notes=notes)
    again, info = sound.read_clip(data)
    assert (again.frames, again.loop, info.codec) == (clip.frames, (441, 20000), codec)
    assert info.notes.cues == notes.cues and info.notes.tags == notes.tags
    with soundfile.SoundFile(io.BytesIO(data)) as other:
        assert other.title == "Kvelden"
        assert np.abs(other.read(dtype="float32")[: clip.frames] - clip.samples).mean() < 0.03


def test_a_loop_written_by_hand_and_one_read_by_hand() -> None:
    stream = io.BytesIO()
    with wave.open(stream, "wb") as file:
        file.setparams((1, 2, 22050, 0, "NONE", ""))
        file.writeframes(bytes(2 * 1000))
    smpl = struct.pack("<15I", 0, 0, 0, 60, 0, 0, 0, 1, 0, 0, 0, 100, 899, 0, 0)
    data = stream.getvalue() + b"smpl" + struct.pack("<I", len(smpl)) + smpl
    data = data[:4] + struct.pack("<I", len(data) - 8) + data[8:]
    assert sound.read_clip(data)[0].loop == (100, 900)
    ours = sound.write_clip(sound.read_clip(data)[0], "WAV", "PCM 16")
    at = ours.index(b"smpl")
    assert struct.unpack_from("<II", ours, at + 8 + 44) == (100, 899)


@pytest.mark.parametrize(
    ("kind", "codec"),
    [("Ogg", "Vorbis"), ("Ogg", "Opus"), ("FLAC", "PCM 16"), ("FLAC", "PCM 24"), ("MP3", "MP3")],
)
def test_tags_and_loops_in_comments_are_read_by_mutagen(kind: str, codec: str) -> None:
    clip = Clip(tone(-9, 1.0).samples, 48000, (4800, 40000))
    data = sound.write_clip(clip, kind, codec, notes=SoundNotes(tags={"title": "Fjellvann"}))
    assert data == sound.write_clip(clip, kind, codec, notes=SoundNotes(tags={"title": "Fjellvann"}))
    tags = mutagen.File(io.BytesIO(data), easy=True).tags
    assert tags["title"] == ["Fjellvann"]
    again, info = sound.read_clip(data)
    assert info.notes.tags["title"] == "Fjellvann"
    assert again.frames == clip.frames
    if kind != "MP3":
        assert (tags["loopstart"], tags["looplength"]) == (["4800"], ["35200"])
        assert again.loop == (4800, 40000)


def test_what_a_codec_cannot_do_is_said() -> None:
    with pytest.raises(FurnelError, match="Opus has no 44100 Hz.*48000"):
        sound.write_clip(tone(-9, 0.1, 44100), "Ogg", "Opus")
    with pytest.raises(FurnelError, match="cannot repeat"):
        Clip(np.zeros((10, 1), np.float32), 8000, (5, 11))


@given(st.data())
def test_damaged_notes_are_left_out(data: st.DataObject) -> None:
    clip = Clip(tone(-9, 0.1).samples, 48000, (10, 4000))
    kind = data.draw(st.sampled_from([("WAV", "PCM 16"), ("Ogg", "Vorbis"), ("FLAC", "PCM 16")]))
    raw = bytearray(sound.write_clip(clip, *kind, notes=SoundNotes(None, (Cue(5, "x"),), {"title": "y"})))
    for _ in range(data.draw(st.integers(1, 6))):
        raw[data.draw(st.integers(0, len(raw) - 1))] = data.draw(st.integers(0, 255))
    notes = sound.read_notes(bytes(raw[: data.draw(st.integers(12, len(raw)))]), clip.frames)
    assert notes.loop is None or 0 <= notes.loop[0] < notes.loop[1] <= clip.frames


def test_a_long_file_is_read_in_pieces(tmp_path: Path) -> None:
    file = tmp_path / "long.wav"
    with soundfile.SoundFile(file, "w", 8000, 1, subtype="PCM_16", format="WAV") as stream:
        for minute in range(120):
            stream.write(np.full(8000 * 60, minute / 200, np.float32))
    with SoundStream(file) as long:
        assert long.info.length_s == 7200
        assert float(long.read(8000 * 60 * 100 + 5, 1)[0, 0]) == pytest.approx(0.5, abs=1e-3)
        shape = sound.overview_of_file(long)
    assert shape.frames == 8000 * 7200 and sum(level.nbytes for level in shape.levels) < 12 << 20
    columns = shape.columns(0, shape.frames, 120)
    np.testing.assert_allclose(columns[1], np.arange(120) / 200, atol=0.006)


@given(st.floats(0, 30000), st.floats(1, 30000), st.integers(1, 300))
def test_an_overview_never_loses_a_peak(start: float, length: float, count: int) -> None:
    samples = np.random.default_rng(3).uniform(-1, 1, (30000, 1)).astype(np.float32)
    low, high = sound.overview_of(Clip(samples, 8000)).columns(start, start + length, count, samples)
    inside = samples[int(start) : max(int(start + length), int(start) + 1)]
    if len(inside):
        assert high.max() >= inside.max() and low.min() <= inside.min()


# loops, beats, lengths


@pytest.mark.parametrize(
    ("bars", "meter", "tempo", "rate"), [(8, 4, 97.3, 44100), (5, 3, 151, 48000), (13, 7, 88.88, 22050)]
)
def test_bars_are_exact_through_vorbis_and_back(bars: int, meter: int, tempo: float, rate: int) -> None:
    from furnel.mods.project import StepUse
    from furnel.mods.render import apply_steps

    values: dict[str, int | float | str | bool] = {"tempo": tempo, "first": 0.1, "meter": meter, "bars": bars}
    cut = apply_steps(noise(9.0, rate), [StepUse(do="bars", values=values)])[-1]
    assert isinstance(cut, Clip)
    again, _ = sound.read_clip(sound.write_clip(cut, "Ogg", "Vorbis"))
    assert again.frames == cut.frames == round(bars * meter * 60 / tempo * rate)
    assert again.loop == (0, again.frames)


@pytest.mark.parametrize("law", ["fitting", "power", "straight"])
def test_a_made_loop_does_not_click(law: str) -> None:
    clip = music(12, 100)
    start, end, alike = sound.best_seam(clip, 40_000, 300_000, 30_000)
    looped = sound.closed_loop(clip, start, end, 2000, law)  # type: ignore[arg-type]
    assert looped.loop == (start, end) and -1 <= alike <= 1
    assert sound.seam_click(looped, start, end) <= 1.0
    rough = sound.seam_click(Clip(np.linspace(-1, 1, 5000, dtype=np.float32)[:, None], 8000), 0, 5000)
    assert rough > 100


def test_the_best_seam_is_where_the_music_repeats() -> None:
    clip = music(16, 120)
    bar = 2 * 44100
    start, end, alike = sound.best_seam(clip, bar, 9 * bar + 9000, 20_000)
    assert (start, abs(end - 9 * bar) < 60, alike > 0.9) == (bar, True, True)
    both = sound.best_seam(clip, bar, 9 * bar, 5000, keep_length=True)
    assert both[1] - both[0] == 8 * bar


def test_an_intro_leads_into_its_loop() -> None:
    intro, loop = noise(1.0), music(2, 120)
    made = sound.with_intro(intro, loop, 1000)
    assert made.loop == (44100, 44100 + loop.frames)
    np.testing.assert_array_equal(made.samples[made.loop[0] :], loop.samples)
    with pytest.raises(FurnelError, match="other rates"):
        sound.with_intro(noise(1, 22050), loop, 10)


@given(st.integers(3000, 20000), st.floats(0.4, 2.4))
def test_stretching_meets_its_length_to_the_frame(frames: int, factor: float) -> None:
    clip = noise(frames / 8000, 8000, 2)
    want = round(clip.frames * factor)
    assert sound.stretched(clip, want).samples.shape == (want, 2)


@pytest.mark.parametrize("factor", [0.8, 1.25, 1.7])
def test_stretching_keeps_pitch_level_and_attacks(factor: float) -> None:
    note = tone(-12, 2.0, 44100, 523, 1)
    longer = sound.stretched(note, round(note.frames * factor))
    spectrum = np.abs(np.fft.rfft(longer.samples[:, 0] * np.hanning(longer.frames)))
    assert np.argmax(spectrum) * 44100 / longer.frames == pytest.approx(523, abs=1)
    assert np.sqrt(np.mean(longer.samples[9000:-9000] ** 2)) == pytest.approx(0.1776, rel=0.02)
    clicks = np.zeros((88200, 1), np.float32)
    for at in range(8000, 80000, 12000):
        clicks[at : at + 300, 0] = 0.8 * np.exp(-np.arange(300) / 40)
    sharp = sound.stretched(Clip(clicks, 44100), round(88200 * factor)).samples[:, 0]
    assert np.abs(sharp).max() > 0.6  # an attack that is smeared is lower than it was


def test_pitch_moves_and_length_stays() -> None:
    note = tone(-12, 1.5, 44100, 440, 2)
    higher = sound.shifted(note, 7)
    assert higher.frames == note.frames
    spectrum = np.abs(np.fft.rfft(higher.samples[:, 0] * np.hanning(higher.frames)))
    assert np.argmax(spectrum) / 1.5 == pytest.approx(440 * 2 ** (7 / 12), abs=1.5)


def test_filters_fades_trimming_and_layers() -> None:
    low, high = tone(-12, 1.0, hertz=60, channels=1), tone(-12, 1.0, hertz=6000, channels=1)
    both = Clip(low.samples + high.samples, 48000)
    cut = sound.filtered(both, "highpass", 1000)
    np.testing.assert_allclose(cut.samples[9000:-9000], high.samples[9000:-9000], atol=0.01)
    soft = sound.faded(both, 0.1, 0.2, "even power").samples
    assert soft[0] == 0 and soft[-1] == 0 and np.array_equal(soft[4800:38000], both.samples[4800:38000])
    padded = Clip(
        np.concatenate([np.zeros((4800, 1), np.float32), high.samples, np.zeros((9600, 1), np.float32)]),
        48000,
    )
    assert sound.trimmed(padded, lead_s=0.01).frames == pytest.approx(high.frames + 480, abs=240)
    mixed = sound.layered(low, high, 24000, -6.0)
    assert mixed.frames == 72000
    np.testing.assert_array_equal(mixed.samples[:24000], low.samples[:24000])
    crossed = sound.layered(low, high, 0, 0.0, 2000, 2000, cross=True)
    np.testing.assert_allclose(crossed.samples[3000:-3000], high.samples[3000:-3000], atol=1e-6)


def test_two_sounds_compared() -> None:
    first = music(4, 120)
    late = np.concatenate([np.zeros((2205, 1), np.float32), first.samples * np.float32(0.5)])
    found = sound.compare_clips(first, sound.resampled(Clip(late, 44100), 22050))
    assert found.offset_s == pytest.approx(0.05, abs=1e-3)
    assert found.level_lu == pytest.approx(-6.0, abs=0.2)
    assert found.alike > 0.98 and found.spectral_db < 1.0
    dull = sound.compare_clips(first, sound.filtered(first, "lowpass", 400))
    assert min(value for _, value in dull.bands) < -10 and dull.spectral_db > 3
