"""Loudness and matching beside libsndfile and soxr."""

from __future__ import annotations

import io

import numpy as np
import soundfile
import soxr

from benchmarks.measure import seconds, table
from furnel.mods.project import StepUse
from furnel.mods.render import apply_steps
from furnel.sound import Clip, integrated_loudness, write_clip


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

    rows = [
        ("loudness of 10 minutes stereo", "decoding its FLAC with libsndfile", ours / decode),
        ("matching 10 minutes", "soxr and libsndfile alone", seconds(match, 1) / seconds(alone, 1)),
    ]
    table("Sounds: times the peer's time", ("what", "peer", "times"), rows)
