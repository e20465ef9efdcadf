"""Definitions taken apart, events changed in them, notes of sounds, grids of sheets; beside readers of others."""

from __future__ import annotations

import io
import json
import struct
import wave

import mutagen
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel import sound
from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.sound import Clip, Cue, SoundNotes
from furnel.sprites import background, crossings, grid_of
from furnel.texts import (
    EventKeys,
    Known,
    SoundEvent,
    check,
    document_of,
    faults,
    meanings,
    read_events,
    taken_apart,
    with_events,
)

KEYS = EventKeys("takes", "loud", "near", "far")
DEFINITION = b"""{
    "bell": {"takes": ["a.wav", "b.wav"], "loud": 0.5, "near": 3, "far": 40, "note": "keep me"},
    "other": {"speed": 3},
    "gull": {"takes": []}
}
"""


def test_events_are_read_and_only_they_are_changed() -> None:
    events = read_events(DEFINITION, KEYS, "e.json")
    assert events == {
        "bell": SoundEvent("bell", ("a.wav", "b.wav"), 0.5, 3.0, 40.0),
        "gull": SoundEvent("gull", ()),
    }
    same = with_events(DEFINITION, KEYS, list(events.values()), "e.json")
    assert same == DEFINITION
    changed = with_events(DEFINITION, KEYS, [SoundEvent("bell", ("c.wav",), 1.0, 3.0, 60.0)], "e.json")
    tree = json.loads(changed)
    assert tree["bell"] == {"takes": ["c.wav"], "loud": 1.0, "near": 3, "far": 60, "note": "keep me"}
    assert tree["other"] == {"speed": 3} and changed.endswith(b"\n") and b'\n    "bell"' in changed
    assert read_events(changed, KEYS, "e.json")["bell"].silent_at == 60.0


@given(st.floats(0, 200), st.floats(0, 100), st.floats(0.1, 100), st.floats(0, 1))
def test_an_event_grows_softer_with_distance(
    distance: float, near: float, more: float, volume: float
) -> None:
    event = SoundEvent("x", (), volume, near, near + more)
    assert event.gain_at(0) == pytest.approx(volume) and event.gain_at(near + more) == 0
    assert 0 <= event.gain_at(distance + 1) <= event.gain_at(distance) + 1e-12 <= volume + 1e-9


@pytest.mark.parametrize("data", [b"[]", b"{", b'"x"', b"\xff", b'{"bell": 3}'])
def test_what_holds_no_events_is_refused_or_empty(data: bytes) -> None:
    try:
        assert read_events(data, KEYS, "e.json") == {}
    except FurnelError as error:
        assert error.why
    with pytest.raises(FurnelError):
        with_events(data, KEYS, [SoundEvent("bell", ("a",))], "e.json")


@given(st.binary(max_size=200), st.sampled_from(["a.json", "a.toml", "a.xml", "a.csv", "a.ini", "a.txt"]))
def test_any_bytes_are_a_definition_or_an_error_of_ours(data: bytes, path: str) -> None:
    try:
        check(data, path)
        if taken_apart(path):
            document = document_of(data, path)
            assert document.data == data
            assert faults(meanings([document], path, Known()), document, document, Known()) == []
    except FurnelError as error:
        assert error.why and error.what


LOOPS = st.tuples(st.integers(0, 400), st.integers(1, 400)).map(
    lambda pair: (pair[0], min(pair[0] + pair[1], 800))
)
TAGS = st.dictionaries(
    st.sampled_from(["title", "artist", "comment"]), st.text("aåz 1", min_size=1).map(str.strip).filter(bool)
)


@given(st.none() | LOOPS, st.lists(st.integers(0, 800), unique=True, max_size=4), TAGS)
def test_notes_go_through_a_wav_and_others_still_read_it(
    loop: tuple[int, int] | None, frames: list[int], tags: dict[str, str]
) -> None:
    clip = Clip(np.linspace(-0.5, 0.5, 800, dtype=np.float32)[:, None], 22050)
    cues = tuple(Cue(frame, f"mark {frame}") for frame in sorted(frames))
    data = sound.write_clip(clip, "WAV", "PCM 16", notes=SoundNotes(loop, cues, tags))
    notes = sound.read_clip(data)[1].notes
    assert (notes.loop, notes.cues, dict(notes.tags)) == (loop, cues, tags)
    with wave.open(io.BytesIO(data)) as other:
        assert (other.getnframes(), other.getframerate(), other.getsampwidth()) == (800, 22050, 2)
        told = np.frombuffer(other.readframes(800), "<i2")
    assert np.abs(told / 32768 - clip.samples[:, 0]).max() < 1e-4


@given(TAGS.filter(bool), st.none() | LOOPS)
def test_notes_go_through_an_ogg_and_others_read_them(
    tags: dict[str, str], loop: tuple[int, int] | None
) -> None:
    clip = Clip(np.zeros((800, 1), np.float32), 22050)
    data = sound.write_clip(clip, "Ogg", "Vorbis", notes=SoundNotes(loop, (), tags))
    other = mutagen.File(io.BytesIO(data))
    assert {key: other[key][0] for key in tags} == tags
    if loop is not None:
        assert int(other["LOOPSTART"][0]) == loop[0]
    assert sound.read_clip(data)[1].notes.loop == loop


@given(st.binary(max_size=120))
def test_notes_of_anything_are_notes(junk: bytes) -> None:
    head = b"RIFF" + struct.pack("<I", len(junk) + 4) + b"WAVE"
    for data in (junk, head + junk, b"OggS" + junk, b"ID3" + junk):
        notes = sound.read_notes(data, 100)
        assert notes.loop is None or 0 <= notes.loop[0] < notes.loop[1] <= 100
        assert all(0 <= cue.frame <= 100 for cue in notes.cues)


def sheet(columns: int, rows: int, cell: tuple[int, int], drawn: list[int]) -> Picture:
    pixels = np.zeros((rows * cell[1], columns * cell[0], 4), np.uint8)
    for number in drawn:
        y, x = divmod(number, columns)
        pixels[y * cell[1] + 1 : (y + 1) * cell[1] - 1, x * cell[0] + 1 : (x + 1) * cell[0] - 1] = 255
    return Picture(pixels)


@given(st.integers(1, 5), st.integers(1, 4), st.integers(3, 9), st.integers(3, 9), st.data())
def test_a_sheet_counts_to_its_last_drawn_cell(
    columns: int, rows: int, wide: int, high: int, data: st.DataObject
) -> None:
    drawn = data.draw(st.lists(st.integers(0, columns * rows - 1), min_size=1, unique=True))
    picture = sheet(columns, rows, (wide, high), drawn)
    grid = grid_of(picture, (wide, high))
    assert (grid.columns, grid.count) == (columns, max(drawn) + 1) and crossings(
        picture.pixels[..., 3] > 0, grid
    ) == 0
    with pytest.raises(FurnelError, match="whole number"):
        grid_of(picture, (wide * columns + 1, high))


def test_what_crosses_a_border_and_what_lies_behind_a_figure_is_seen() -> None:
    picture = sheet(3, 2, (6, 6), [0, 1, 2, 3])
    picture.pixels[2:4, 3:9] = 255
    assert crossings(picture.pixels[..., 3] > 0, grid_of(picture, (6, 6))) == 1
    opaque = np.full((12, 18, 4), (0, 200, 80, 255), np.uint8)
    assert background(Picture(opaque)) == (0, 200, 80) and background(picture) is None
    noisy = np.random.default_rng(1).integers(0, 256, (12, 18, 4), np.uint8)
    noisy[..., 3] = 255
    assert background(Picture(noisy)) is None
