"""What a tick on a sound promises: channels where they belong, peaks measured whole, ceilings kept, loops and tempo carried."""

from __future__ import annotations

import io
import itertools
from pathlib import Path

import numpy as np
import pytest
import soundfile
from hypothesis import given
from hypothesis import strategies as st

from furnel.media import SoundSpec, encoding_like, spec_of
from furnel.mods.fit import compare, fit_all
from furnel.mods.levelling import level_folder
from furnel.mods.project import StepUse
from furnel.mods.render import apply_steps, encode_media
from furnel.mods.workspace import Workspace
from furnel.sound import (
    Clip,
    SoundNotes,
    integrated_loudness,
    measures_of,
    read_clip,
    true_peak,
    with_channels,
    with_gain,
    write_clip,
)

RATE = 48000


def tone(hertz: float, seconds: float = 1.0, level: float = 0.5) -> np.ndarray:
    return (level * np.sin(2 * np.pi * hertz * np.arange(round(seconds * RATE)) / RATE)).astype(np.float32)


def spec(clip: Clip, kind: str = "WAV", codec: str = "PCM 16", notes: SoundNotes | None = None) -> SoundSpec:
    found = spec_of(write_clip(clip, kind, codec, notes=notes or SoundNotes()), f"x.{kind.lower()}")
    assert isinstance(found, SoundSpec)
    return found


def fitted(original: SoundSpec, source: SoundSpec, clip: Clip) -> tuple[Clip, SoundSpec]:
    steps, encode = fit_all(original, source)
    done = apply_steps(clip, steps)
    made = done[-1] if done else clip
    assert isinstance(made, Clip) and encode is not None
    result = spec_of(encode_media(made, encode), "x.wav")
    assert isinstance(result, SoundSpec)
    return made, result


SIX = np.stack([tone(100 * (place + 2)) for place in range(6)], 1)  # L R C LFE Ls Rs: 200, 300 … 700 Hz


def heard(samples: np.ndarray) -> dict[int, float]:
    """How much of each of the six tones a channel has."""
    wave = np.abs(np.fft.rfft(samples)) / len(samples) * 2
    return {hertz: round(float(wave[hertz * len(samples) // RATE]), 2) for hertz in range(200, 800, 100)}


def test_five_and_one_to_stereo_keeps_the_centre_and_drops_the_lows() -> None:
    left, right = (heard(with_channels(Clip(SIX, RATE), 2).samples[:, side]) for side in (0, 1))
    assert left[200] == pytest.approx(right[300], abs=0.01) and left[200] > 0.15
    assert left[400] == pytest.approx(left[200] * 0.7071, abs=0.01) == right[400]
    assert left[500] == right[500] == 0
    assert left[600] == pytest.approx(left[200] * 0.7071, abs=0.01) and left[700] == 0


def test_five_and_one_to_mono_has_no_lows_and_the_centre_loudest() -> None:
    mono = heard(with_channels(Clip(SIX, RATE), 1).samples[:, 0])
    assert mono[500] == 0 and mono[400] == max(mono.values())
    assert with_channels(Clip(np.ones((10, 6), np.float32), RATE), 1).peak <= 1.0001


@pytest.mark.parametrize(("source", "target"), list(itertools.product(range(1, 9), repeat=2)))
def test_no_mix_is_louder_than_full_scale(source: int, target: int) -> None:
    made = with_channels(Clip(np.ones((4, source), np.float32), RATE), target)
    assert made.channels == target and 0.49 < made.peak <= 1.0001


@pytest.mark.parametrize("codec", ["Vorbis", "Opus"])
def test_oggs_order_of_channels_is_its_own(codec: str) -> None:
    data = write_clip(Clip(SIX, RATE), "Ogg", codec, 1.0)
    raw, _ = soundfile.read(io.BytesIO(data))  # left, centre, right, left and right surround, lows
    order = [400, 200, 300, 600, 700, 500]
    assert [max(heard(raw[:, place]), key=heard(raw[:, place]).get) for place in (1, 0, 2, 3, 4)] == order[:5]  # type: ignore[arg-type]
    back, _ = read_clip(data)
    for place in (0, 1, 2, 4, 5):
        wave = heard(back.samples[:, place])
        assert max(wave, key=wave.get) == 200 + 100 * place  # type: ignore[arg-type]


def test_loudness_of_five_and_one_ignores_the_lows() -> None:
    """Each channel alone, against the standard's weights (BS.1770-4, table 3)."""
    alone = [
        integrated_loudness(np.stack([tone(997) * (place == here) for here in range(6)], 1), RATE)
        for place in range(6)
    ]
    assert alone[0] == pytest.approx(alone[1]) == pytest.approx(alone[2])
    assert alone[3] == -np.inf
    assert alone[4] - alone[0] == pytest.approx(10 * np.log10(1.41), abs=0.01) == alone[5] - alone[0]


@given(st.integers(0, 2**31), st.integers(60_000, 140_000))
def test_the_true_peak_in_pieces_is_that_of_the_whole(seed: int, frames: int) -> None:
    chance = np.random.default_rng(seed)
    wave = np.cumsum(chance.standard_normal((frames, 1)), 0).astype(np.float32)
    wave *= np.float32(0.9) / np.abs(wave).max()
    wave += np.float32(0.3)  # a wave that is nowhere near zero where pieces meet
    assert measures_of(Clip(wave, RATE)).true_peak == pytest.approx(true_peak(wave), rel=1e-5)
    data = write_clip(Clip(np.clip(wave, -1, 1), RATE), "WAV", "float 32")
    found = spec_of(data, "x.wav")
    assert isinstance(found, SoundSpec)
    assert found.measures.true_peak == pytest.approx(true_peak(np.clip(wave, -1, 1)), rel=1e-4)


def test_the_ceiling_holds_where_the_loudness_is_right_already() -> None:
    quiet = tone(440, 4.0, 0.05)
    quiet[RATE : RATE + 40] = 1.0  # full-scale clicks in a quiet sound
    quiet[2 * RATE : 2 * RATE + 40] = -1.0
    clip = Clip(np.clip(quiet, -1, 1)[:, None], RATE)
    step = StepUse(
        do="loudness", values={"target": round(integrated_loudness(clip.samples, RATE), 1), "ceiling": -1.0}
    )
    made = apply_steps(clip, [step])[-1]
    assert isinstance(made, Clip) and true_peak(made.samples) <= 10 ** (-1 / 20) * 1.001


def test_a_loud_source_for_a_silent_original_is_held_below_full_scale() -> None:
    silent = spec(Clip(np.zeros((RATE, 1), np.float32), RATE))
    loud = Clip(np.sign(tone(300))[:, None] * np.float32(1.0), RATE)
    made, result = fitted(silent, spec(loud, codec="float 32"), loud)
    assert true_peak(made.samples) <= 10 ** (-1 / 20) * 1.001
    assert {point.key: point.state for point in compare(silent, result)}["loudness"] == "differs"


def test_opposite_channels_do_not_cancel_each_other() -> None:
    wave = tone(500)
    clip = Clip(np.stack([wave, -wave], 1), RATE)
    original = spec(Clip(tone(400)[:, None], RATE))
    made, result = fitted(original, spec(clip), clip)
    assert made.channels == 1 and made.peak > 0.3
    silent = spec(Clip(np.zeros((RATE, 1), np.float32), RATE))
    told = next(point for point in compare(original, silent) if point.key == "loudness")
    assert told.state == "differs" and "silent" in told.remedy and "99" not in told.remedy
    assert next(point for point in compare(original, result) if point.key == "loudness").state == "fits"


@pytest.mark.parametrize("whole", [True, False])
def test_a_loop_in_the_originals_file_is_carried_over(whole: bool) -> None:
    span = (0, RATE) if whole else (4800, 43200)
    original = spec(Clip(tone(300)[:, None], RATE, span))
    assert original.loop == span
    clip = Clip(tone(330, 1.7)[:, None], RATE)
    bare = spec(Clip(tone(330)[:, None], RATE))
    assert next(point for point in compare(original, bare) if point.key == "loop").state == "breaks"
    _, result = fitted(original, spec(clip), clip)
    assert result.loop == span
    assert next(point for point in compare(original, result) if point.key == "loop").state == "fits"


def test_whose_song_it_is_is_not_stamped_on_another() -> None:
    tags = {"title": "Slow Water", "artist": "The Yard", "mood": "calm"}
    clip = Clip(np.stack([tone(300)] * 2, 1), RATE)
    original = spec(clip, "Ogg", "Vorbis", SoundNotes(None, (), tags))
    encode = encoding_like(original)
    assert encode is not None and {key for key in encode.notes if key.startswith("tag")} == {"tag mood"}
    points = {point.key: point for point in compare(original, spec(clip, "Ogg", "Vorbis"))}
    assert points["tags"].original == "mood"


def test_a_sound_of_no_frames_breaks() -> None:
    original = spec(Clip(tone(300)[:, None], RATE))
    data = write_clip(Clip(tone(300)[:, None], RATE), "WAV", "PCM 16")
    empty = spec_of(data[:40] + bytes(4), "x.wav")
    assert isinstance(empty, SoundSpec) and empty.frames == 0
    assert next(point for point in compare(original, empty) if point.key == "length").state == "breaks"


@pytest.mark.parametrize("length_s", [0.2, 5.5])
def test_a_length_that_nothing_counts_is_the_modders(
    space: Workspace, tmp_path: Path, length_s: float
) -> None:
    line = tmp_path / "line.wav"
    line.write_bytes(write_clip(Clip(tone(300, length_s)[:, None], RATE), "WAV", "PCM 16"))
    swap = space.fitted(space.new_swap("bank0/012.wav", line))
    made = space.examine(swap)
    assert made.state == "fits" and soundfile.info(io.BytesIO(made.data)).duration == pytest.approx(
        length_s, abs=1e-3
    )
    assert not [point for point in made.points if point.key == "cut"]


def test_what_a_step_cuts_off_or_fills_up_is_said(space: Workspace, tmp_path: Path) -> None:
    line = tmp_path / "line.wav"
    line.write_bytes(write_clip(Clip(tone(300, 5.5)[:, None], RATE), "WAV", "PCM 16"))
    for frames, words in ((RATE, "cut off"), (RATE * 7, "silence behind it")):
        step = StepUse(do="length", values={"frames": frames})
        swap = space.fitted(space.new_swap("bank0/012.wav", line))
        swap = swap.model_copy(update={"steps": (step, *swap.steps)})
        told: dict[int, str] = {}
        space.stages(swap, told)
        assert words in told[0]
        cut = [point for point in space.examine(swap).points if point.key == "cut"]
        assert bool(cut) == (words == "cut off")
        assert all("of 5.5" in point.yours for point in cut)
        kept = swap.model_copy(update={"insist": ("cut",)})
        assert all(point.insisted for point in space.examine(kept).points if point.key == "cut")


def test_levelled_files_are_what_they_are_called(tmp_path: Path) -> None:
    folder, out = tmp_path / "in", tmp_path / "out"
    folder.mkdir()
    soundfile.write(folder / "low.aiff", tone(300, 2, 0.1), RATE, subtype="PCM_16")
    soundfile.write(folder / "high.wav", tone(300, 2, 0.8), RATE, subtype="PCM_16")
    rows = level_folder(folder, out, None, -1.0)
    assert sorted(str(row.file) for row in rows) == ["high.wav", "low.wav"]
    for file in out.iterdir():
        assert soundfile.info(file).format == "WAV"
    soundfile.write(folder / "low.wav", tone(200, 2), RATE, subtype="PCM_16")
    with pytest.raises(Exception, match="another of the sounds"):
        level_folder(folder, tmp_path / "again", None, -1.0)


def test_a_limited_peak_never_passes_the_ceiling_by_encoding_nothing() -> None:
    clip = Clip(np.clip(tone(997, 1, 1.4), -1, 1)[:, None], RATE)
    held, limited = with_gain(clip, 0.0, -2.0)
    assert true_peak(held.samples) <= 10 ** (-2 / 20) * 1.001 and limited > 0


@pytest.mark.parametrize("quality", [0.1, 0.4, 0.9])
@pytest.mark.parametrize("channels", [1, 2])
def test_vorbis_keeps_the_rate_that_the_original_says(quality: float, channels: int) -> None:
    wave = np.tile(tone(300, 1)[:, None], (1, channels))
    stream = io.BytesIO()  # written by another library
    soundfile.write(stream, wave, RATE, format="OGG", subtype="VORBIS", compression_level=1 - quality)
    game = spec_of(stream.getvalue(), "a.ogg")
    assert isinstance(game, SoundSpec) and game.nominal > 40
    encode = encoding_like(game)
    assert encode is not None
    made = spec_of(encode_media(Clip(tone(500, 2)[:, None].repeat(channels, 1), RATE), encode), "b.ogg")
    assert isinstance(made, SoundSpec) and made.nominal == pytest.approx(game.nominal, rel=0.12)
    assert next(point for point in compare(game, made) if point.key == "bit rate").state == "fits"


def test_microsofts_adpcm_stays_what_it_is() -> None:
    stream = io.BytesIO()
    soundfile.write(stream, tone(300, 1), RATE, format="WAV", subtype="MS_ADPCM")
    encode = encoding_like(spec_of(stream.getvalue(), "a.wav"))
    assert encode is not None
    made = encode_media(Clip(tone(300, 1)[:, None], RATE), encode)
    info = soundfile.info(io.BytesIO(made))
    assert info.subtype == "MS_ADPCM" and spec_of(made, "b.wav").frames == RATE  # type: ignore[attr-defined]
