"""Everything that the game plays, synthesised from a seed. Sounds are float arrays (frames,) or (frames, 2), -1..1."""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache

import numpy as np
import numpy.typing as npt

Wave = npt.NDArray[np.float64]
RATE = 48000
MUSIC_RATE = 44100

# event: how many variations
EVENTS = {
    "bell_near": 3, "bell_far": 3, "oar_wet": 6, "gull": 4, "otter": 4, "horn": 2, "creak": 5, "splash": 5, "step_plank": 6,
    "lamp_lit": 3, "rope": 3, "heron": 2,
}  # fmt: skip


def event_sound(event: str, variation: int, seed: int) -> Wave:
    """One variation of an event's sound, 48 kHz mono."""
    rng = np.random.default_rng([seed, *event.encode(), variation])
    wave = _MAKERS[event](rng)
    level = {"bell_far": 0.25, "creak": 0.3, "rope": 0.22, "step_plank": 0.4, "lamp_lit": 0.35}.get(
        event, 0.6
    )
    fade = min(len(wave) // 8, 480)
    wave[-fade:] *= np.linspace(1, 0, fade)
    return np.asarray(wave / max(np.abs(wave).max(), 1e-9) * level * rng.uniform(0.9, 1.0))


def _time(length_s: float) -> Wave:
    return np.arange(int(length_s * RATE)) / RATE


def _shaped(rng: np.random.Generator, frames: int, low: float, high: float) -> Wave:
    spectrum = np.fft.rfft(rng.standard_normal(frames))
    hertz = np.fft.rfftfreq(frames, 1 / RATE)
    spectrum *= np.exp(
        -(((np.log2(np.maximum(hertz, 1)) - np.log2((low * high) ** 0.5)) / (np.log2(high / low) / 2)) ** 2)
    )
    wave = np.fft.irfft(spectrum, frames)
    return np.asarray(wave / np.abs(wave).max())


def _bell(rng: np.random.Generator, base: float, length_s: float, soft: float) -> Wave:
    t = _time(length_s)
    wave = np.zeros_like(t)
    for ratio, strength, decay in (
        (0.5, 0.5, 0.9),
        (1, 1, 1.3),
        (1.19, 0.6, 1.9),
        (1.5, 0.4, 2.3),
        (2, 0.7, 2.6),
        (2.52, 0.3, 4),
        (3.01, 0.3, 5),
        (4.2, 0.2, 8),
    ):
        wave += (
            strength
            * np.exp(-t * decay * (1 + soft))
            * np.sin(2 * np.pi * base * ratio * t + rng.uniform(0, 6))
        )
    strike = _shaped(rng, len(t), 1500, 6000) * np.exp(-t * 90)
    return np.asarray(wave * np.minimum(t * 900, 1) + strike * 0.8 * (1 - soft))


def _burst(
    rng: np.random.Generator, length_s: float, low: float, high: float, attack: float, decay: float
) -> Wave:
    t = _time(length_s)
    return _shaped(rng, len(t), low, high) * np.minimum(t / attack, 1) * np.exp(-t * decay)


def _cry(rng: np.random.Generator, notes: list[tuple[float, float, float]], rough: float) -> Wave:
    parts = []
    for start, end, length_s in notes:
        t = _time(length_s)
        x = t / length_s
        hertz = start + (end - start) * x + 120 * np.sin(x * np.pi)
        phase = 2 * np.pi * np.cumsum(hertz) / RATE
        tone = np.sin(phase) + 0.5 * np.sin(2 * phase) + 0.3 * np.sin(3 * phase)
        tone *= 1 + rough * _shaped(rng, len(t), 60, 300)
        parts += [tone * np.sin(x * np.pi) ** 0.6, np.zeros(int(RATE * 0.05))]
    return np.concatenate(parts)


def _creak(rng: np.random.Generator) -> Wave:
    t = _time(rng.uniform(0.6, 1.1))
    ticks = (np.sin(2 * np.pi * np.cumsum(18 + 26 * np.sin(t * 3) ** 2) / RATE) > 0.93).astype(float)
    body = _shaped(rng, len(t), 250, 1400)
    return np.asarray(
        np.convolve(
            np.diff(ticks, prepend=0), np.exp(-np.arange(900) / 160) * np.sin(np.arange(900) * 0.07), "same"
        )
        + 0.1 * body * ticks
    )


def _lamp(rng: np.random.Generator) -> Wave:
    whoosh = _burst(rng, 0.8, 150, 900, 0.12, 5)
    click = _burst(rng, 0.8, 2000, 7000, 0.001, 120)
    return np.asarray(whoosh + 0.9 * np.roll(click, 2400))


_MAKERS: dict[str, Callable[[np.random.Generator], Wave]] = {
    "bell_near": lambda rng: _bell(rng, 523 * rng.uniform(0.995, 1.005), 2.4, 0.0),
    "bell_far": lambda rng: _bell(rng, 392 * rng.uniform(0.995, 1.005), 2.0, 0.6),
    "oar_wet": lambda rng: (
        _burst(rng, 0.7, 200, 1800, 0.05, 7) + 0.6 * np.roll(_burst(rng, 0.7, 700, 4000, 0.02, 12), 9000)
    ),
    "gull": lambda rng: _cry(
        rng, [(1300 * rng.uniform(0.9, 1.1), 1000, 0.22)] * int(rng.integers(2, 5)), 0.5
    ),
    "otter": lambda rng: _cry(
        rng, [(2100 * rng.uniform(0.9, 1.1), 2700, 0.09)] * int(rng.integers(2, 4)), 0.15
    ),
    "horn": lambda rng: _cry(rng, [(98, 96, 1.6)], 0.1) + 0.7 * _cry(rng, [(147, 146, 1.6)], 0.1),
    "creak": _creak,
    "splash": lambda rng: (
        _burst(rng, 0.9, 300, 5000, 0.01, 6) + 0.5 * np.roll(_burst(rng, 0.9, 100, 600, 0.02, 9), 3000)
    ),
    "step_plank": lambda rng: (
        _burst(rng, 0.28, 90, 420, 0.003, 28) + 0.3 * _burst(rng, 0.28, 900, 3000, 0.002, 60)
    ),
    "lamp_lit": _lamp,
    "rope": lambda rng: (
        _burst(rng, 0.5, 500, 2600, 0.15, 5) * (1 + 0.6 * np.sin(2 * np.pi * 23 * _time(0.5)))
    ),
    "heron": lambda rng: _cry(rng, [(330 * rng.uniform(0.95, 1.05), 270, 0.3)], 0.9),
}

# tune: beats a minute, root (midi), chord roots by bar (scale degrees), lead notes, colour
TUNES = {
    "reel_night": (120, 62, (0, 5, 3, 4, 0, 5, 3, 0, 0, 3, 4, 4, 5, 3, 4, 0) * 2, "bright"),
    "slow_water": (72, 57, (0, 3, 4, 3, 0, 3), "soft"),
    "lantern_waltz": (96, 60, (0, 4, 5, 3, 0, 4, 4, 0), "bright"),
    "fog": (60, 55, (0, 2, 3, 0), "soft"),
}
_DORIAN = (0, 2, 3, 5, 7, 9, 10)


def tune(name: str, seed: int) -> tuple[Wave, int, int]:
    """A tune as stereo at 44.1 kHz, with its loop's first frame and the one after its last."""
    tempo, root, chords, colour = TUNES[name]
    rng = np.random.default_rng([seed, *name.encode()])
    beats = 3 if "waltz" in name else 4
    bar = round(60 / tempo * beats * MUSIC_RATE)
    frames = bar * len(chords)
    out = np.zeros((frames + MUSIC_RATE * 2, 2))
    lead_at = 2
    for number, chord in enumerate(chords):
        start = number * bar
        for part in range(beats):
            at = start + part * bar // beats
            if part == 0:
                _note(out, at, _pitch(root - 12, chord), 60 / tempo * beats * 0.95, 0.22, "low", 0.5)
            else:
                for step, pan in ((0, 0.35), (2, 0.5), (4, 0.65)):
                    _note(out, at, _pitch(root, chord + step), 60 / tempo * 0.9, 0.075, "pluck", pan)
        for part in range(beats * (2 if colour == "bright" else 1)):
            if rng.random() < 0.82:
                lead_at = int(np.clip(lead_at + rng.integers(-2, 3), 0, 9))
                if part == 0:
                    lead_at = chord + 2 * int(rng.integers(0, 3))
                count = beats * (2 if colour == "bright" else 1)
                length_s = 60 / tempo * beats / count * rng.choice([0.9, 1.3])
                _note(
                    out,
                    start + part * bar // count,
                    _pitch(root + 12, lead_at),
                    length_s,
                    0.17,
                    colour,
                    0.42 + 0.16 * rng.random(),
                )
    out[: len(out) - frames] += out[frames:]
    wave = out[:frames]
    return np.asarray(wave / np.abs(wave).max() * 0.7), 0, frames


# crew song: beats a minute, root (midi), chord roots by bar
SONGS: dict[str, tuple[float, int, tuple[int, ...]]] = {
    "evening_crossing": (128, 62, (0, 5, 3, 4, 0, 5, 3, 0)),
    "lamp_round": (112, 57, (0, 3, 0, 4, 0, 3, 4, 0)),
}
PARTS = ("oars", "bass", "reed", "bells")
BEATS = 32


def song_part(name: str, part: str, seed: int) -> Wave:
    """A part of a crew song as stereo at 44.1 kHz: 32 beats that go round."""
    tempo, root, chords = SONGS[name]
    rng = np.random.default_rng([seed, *name.encode(), *part.encode()])
    frames = song_frames(tempo)
    beat = 60 / tempo
    out = np.zeros((frames + MUSIC_RATE, 2))
    for number in range(BEATS):
        at, chord, strong = (
            round(number * beat * MUSIC_RATE),
            chords[number // 4 % len(chords)],
            number % 4 == 0,
        )
        if part == "oars":
            for late, level in ((0, 0.7 if strong else 0.35), (round(beat * MUSIC_RATE / 2), 0.15)):
                thump = _burst(rng, 0.22, 80 if strong else 300, 500 if strong else 2600, 0.002, 24)
                stroke = np.interp(
                    np.arange(int(len(thump) * MUSIC_RATE / RATE)) * RATE / MUSIC_RATE,
                    np.arange(len(thump)),
                    thump,
                )
                out[at + late : at + late + len(stroke)] += level * stroke[:, None]
        elif part == "bass":
            _note(
                out,
                at,
                _pitch(root - 24, chord + (0 if strong else 4 * (number % 2))),
                beat * 0.8,
                0.4,
                "low",
                0.5,
            )
        elif part == "reed":
            for half in range(2):
                degree = chord + (0, 2, 4, 2)[(2 * number + half) % 4] + (7 if strong and half else 0)
                _note(
                    out,
                    at + round(half * beat * MUSIC_RATE / 2),
                    _pitch(root, degree),
                    beat * 0.4,
                    0.25,
                    "bright",
                    0.4,
                )
        elif strong:
            _note(out, at, _pitch(root + 12, chord), beat * 3, 0.3, "soft", 0.7)
    out[: len(out) - frames] += out[frames:]
    wave = out[:frames]
    return np.asarray(wave / np.abs(wave).max() * 0.5)


def song_frames(tempo: float) -> int:
    """How long 32 beats are, in frames."""
    return round(BEATS * 60 / tempo * MUSIC_RATE)


def _pitch(root: int, degree: int) -> float:
    return float(440 * 2 ** ((root + 12 * (degree // 7) + _DORIAN[degree % 7] - 69) / 12))


def _note(out: Wave, at: int, hertz: float, length_s: float, level: float, voice: str, pan: float) -> None:
    whole = (_struck(hertz, length_s, voice) * level)[: max(len(out) - at, 0)]
    out[at : at + len(whole), 0] += whole * np.cos(pan * np.pi / 2)
    out[at : at + len(whole), 1] += whole * np.sin(pan * np.pi / 2)


@lru_cache(maxsize=256)
def _struck(hertz: float, length_s: float, voice: str) -> Wave:
    """One note of a voice at full level."""
    t = np.arange(int((length_s + 0.5) * MUSIC_RATE)) / MUSIC_RATE
    if voice == "pluck":
        wave = sum(np.sin(2 * np.pi * hertz * k * t) / k * np.exp(-t * (3 + 2.2 * k)) for k in range(1, 7))
    elif voice == "low":
        wave = (np.sin(2 * np.pi * hertz * t) + 0.3 * np.sin(4 * np.pi * hertz * t)) * np.exp(-t * 1.4)
    elif voice == "soft":
        shake = 1 + 0.004 * np.sin(2 * np.pi * 5 * t)
        wave = np.sin(2 * np.pi * hertz * np.cumsum(shake) / MUSIC_RATE) * np.exp(-t * 0.9)
    else:
        parts = [
            np.sin(2 * np.pi * hertz * k * t * (1 + d)) / k for k in (1, 2, 3, 4) for d in (-0.0015, 0.0015)
        ]
        wave = sum(parts, np.zeros_like(t)) * 0.5
    envelope = np.minimum(t / 0.012, 1) * np.clip((length_s + 0.3 - t) / 0.3, 0, 1)
    return np.asarray(wave * envelope)
