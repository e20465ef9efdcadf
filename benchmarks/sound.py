"""Measuring, matching, stretching and opening sounds beside libsndfile, soxr and SciPy."""

from __future__ import annotations

import io
import tempfile
from pathlib import Path

import numpy as np
import soundfile
import soxr
from scipy.signal import istft, resample_poly, stft

from benchmarks.measure import seconds, table
from furnel.mods.project import StepUse
from furnel.mods.render import apply_steps
from furnel.mods.shapes import source_shape
from furnel.sound import (
    Clip,
    SoundStream,
    integrated_loudness,
    measures_of,
    overview_of_file,
    rhythm_of,
    stretched,
    true_peak,
    with_gain,
    write_clip,
)  # fmt: skip


def main() -> None:
    rate, length = 44100, 600
    rng = np.random.default_rng(3)
    t = np.arange(rate * length) / rate
    wave = (
        0.3 * np.sin(2 * np.pi * 220 * t) * (1 + 0.5 * np.sin(t)) + 0.05 * rng.standard_normal(len(t))
    ).astype(np.float32)
    clip = Clip(np.stack([wave, np.roll(wave, 900)], 1), rate)
    stream = io.BytesIO()
    soundfile.write(stream, clip.samples, rate, format="FLAC", subtype="PCM_16")
    raw = stream.getvalue()
    decode = seconds(lambda: soundfile.read(io.BytesIO(raw), dtype="float32"), 3)
    ours = seconds(lambda: integrated_loudness(clip.samples, rate), 3)
    uses = [StepUse(do="rate", values={"rate": 48000}), StepUse(do="loudness", values={"target": -14.0})]

    def match() -> bytes:
        result = apply_steps(clip, uses)[-1]
        assert isinstance(result, Clip)
        return write_clip(result, "Ogg", "Vorbis")

    def alone() -> None:
        samples = soxr.resample(clip.samples, rate, 48000)
        with soundfile.SoundFile(
            io.BytesIO(), "w", 48000, 2, format="OGG", subtype="VORBIS", compression_level=0.4
        ) as file:
            for at in range(0, len(samples), 65536):
                file.write(samples[at : at + 65536])

    minute = Clip(np.ascontiguousarray(clip.samples[: 60 * rate]), rate)
    louder = Clip(minute.samples * np.float32(2.5), rate)

    def phase_vocoder_alone() -> None:
        spectrum = stft(minute.samples.T, rate, nperseg=2048, noverlap=1536)[2]
        istft(spectrum, rate, nperseg=2048, noverlap=1536)

    over = seconds(lambda: resample_poly(minute.samples, 4, 1, axis=0), 3)
    rows = [
        ("loudness of 10 minutes stereo", "decoding its FLAC with libsndfile", ours / decode),
        ("all measures of 10 minutes stereo", "the same", seconds(lambda: measures_of(clip), 3) / decode),
        ("matching 10 minutes", "soxr and libsndfile alone", seconds(match, 3) / seconds(alone, 3)),
        ("true peak of a minute", "SciPy's resample_poly by 4", seconds(lambda: true_peak(minute.samples), 3) / over),
        ("limiting a minute by 8 dB", "the same", seconds(lambda: with_gain(louder, 0.0, -1.0), 3) / over),
        ("stretching a minute by a tenth", "SciPy's STFT there and back",
         seconds(lambda: stretched(minute, minute.frames * 11 // 10), 3) / seconds(phase_vocoder_alone, 3)),
        ("tempo, beats and bars of a minute", "SciPy's STFT there and back",
         seconds(lambda: rhythm_of(minute), 3) / seconds(phase_vocoder_alone, 3)),
    ]  # fmt: skip
    table("Sounds: times the peer's time", ("what", "peer", "times"), rows)
    _long()


def _long() -> None:
    """A recording of two hours."""
    with tempfile.TemporaryDirectory(prefix="furnel-bench-") as folder:
        file = Path(folder) / "evening.wav"
        piece = (0.1 * np.random.default_rng(4).standard_normal((44100 * 60, 2))).astype(np.float32)
        with soundfile.SoundFile(file, "w", 44100, 2, subtype="PCM_16", format="WAV") as stream:
            for _ in range(120):
                stream.write(piece)

        def header() -> None:
            with SoundStream(file) as one:
                assert one.info.length_s == 7200

        def part() -> None:
            with SoundStream(file) as one:
                one.part(44100 * 6000, 44100 * 6010)

        def shape() -> None:
            with SoundStream(file) as one:
                overview_of_file(one)

        def decode() -> None:
            with soundfile.SoundFile(file) as one:
                for _ in one.blocks(65536, dtype="float32"):
                    pass

        info, whole = seconds(lambda: soundfile.info(str(file)), 5), seconds(decode, 1)
        source_shape(file)
        rows = [
            ("opening it", "libsndfile's own header", seconds(header, 5) / info),
            ("ten seconds out of its middle", "the same", seconds(part, 5) / info),
            ("its shape, the first time", "decoding it with libsndfile", seconds(shape, 1) / whole),
            ("its shape, once known", "the same", seconds(lambda: source_shape(file), 3) / whole),
        ]
    table("A recording of two hours (1.3 GB): times the peer's time", ("what", "peer", "times"), rows)


if __name__ == "__main__":
    main()
