"""Media as records: what each knows of its files agrees with itself, and a made-up one goes all the way by its record alone."""

from __future__ import annotations

import io
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import pytest
import soundfile
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from furnel import imagefiles, media
from furnel.errors import FurnelError
from furnel.imagefiles import PICTURE_FILES, Note, PictureFile
from furnel.images.picture import Picture
from furnel.images.texture import Texture
from furnel.media import MEDIA, OTHER, Encode, Medium, Spec, encoding_like, facts_of, medium_of, spec_of
from furnel.media.medium import Data, Facts
from furnel.mods.examination import Examination, keep_examination, read_examination
from furnel.mods.fit import compare, fit_all
from furnel.mods.render import encode_media
from furnel.sound import SOUND_FILES, Clip

RNG = np.random.default_rng(4)
WRITTEN = [(one.name, fmt) for one in PICTURE_FILES for fmt in one.formats]
CODECS = [(one.name, codec) for one in SOUND_FILES for codec in one.codecs]


def picture(width: int, height: int) -> Picture:
    pixels = RNG.integers(0, 256, (height, width, 4), np.uint8)
    pixels[..., 3] |= 1
    return Picture(pixels)


@settings(max_examples=40, deadline=None)
@given(
    st.sampled_from(WRITTEN),
    st.integers(1, 21),
    st.integers(1, 21),
    st.integers(1, 4),
    st.binary(max_size=40),
)
def test_a_picture_file_knows_its_own_length_and_its_header_says_what_its_pixels_say(
    kind: tuple[str, str], width: int, height: int, levels: int, behind: bytes
) -> None:
    file, fmt = kind
    record = imagefiles.picture_file(file)
    count = min(levels, max(width, height).bit_length()) if record.has_levels else 1
    data = encode_media(picture(width, height), Encode(file=file, format=fmt, levels=count, quality="fast"))
    assert next(one.name for one in PICTURE_FILES if one.recognises(data)) == file
    if record.length is not None:
        assert record.length(memoryview(data + behind)) == len(data)
        assert record.length(memoryview(data[:40])) in (0, len(data))
    facts, spec = facts_of(data[:256], len(data), f"a.{file.lower()}"), spec_of(data, f"a.{file.lower()}")
    assert isinstance(spec, media.PictureSpec)
    assert (facts.kind, facts.width, facts.height, facts.levels) == (spec.kind, width, height, count)
    again = encoding_like(spec)
    assert again is not None and (again.file, again.format, again.levels) == (file, fmt, count)


@pytest.mark.parametrize(("file", "codec"), CODECS)
def test_a_sound_file_knows_its_own_length(file: str, codec: str) -> None:
    clip = Clip((RNG.random((4800, 1), np.float32) - 0.5) * 0.2, 48000)
    data = encode_media(clip, Encode(file=file, format=codec))
    record = next(one for one in SOUND_FILES if one.name == file)
    if record.length is not None:
        assert record.length(memoryview(data + b"RIFFOggS")) == len(data)
        assert record.length(memoryview(data[:-3])) == 0
    assert soundfile.info(io.BytesIO(data)).samplerate == 48000
    assert medium_of(data, "x").name == "sound" and spec_of(data, "x").file_type == file


def test_no_ending_and_no_kind_belongs_to_two() -> None:
    for values in (
        [suffix for one in MEDIA for suffix in one.suffixes],
        [kind for one in MEDIA for kind in one.kinds],
    ):
        assert len(values) == len(set(values))
    assert sorted(kind for one in MEDIA for kind in one.kinds) == sorted(media.KINDS)
    assert MEDIA[-1] is OTHER and OTHER.recognises(b"", "")


@given(st.binary(max_size=300), st.sampled_from(["a.dds", "b.txt", "c.wav", "d", "e.json", "f.png"]))
def test_anything_has_a_medium_and_damage_is_an_error_of_ours(data: bytes, path: str) -> None:
    medium = medium_of(data, path)
    assert facts_of(data, len(data), path).kind in (*medium.kinds, "other")
    for call in (medium.preview, medium.opened):
        try:
            call(data, path)
        except FurnelError as error:
            assert error.why


def test_the_same_content_is_told_in_whatever_file() -> None:
    shown = picture(9, 7)
    shown.pixels[0, 0, 3] = 0
    hidden = shown.pixels.copy()
    hidden[0, 0, :3] ^= 255  # a colour that nobody sees
    png = io.BytesIO()
    Image.fromarray(hidden).save(png, "PNG")
    tga = encode_media(shown, Encode(file="TGA", format="BGRA8"))
    facts = facts_of(tga, len(tga), "a.tga")
    assert media.PICTURE.same_content(png.getvalue(), tga, facts, "a")
    other = shown.pixels.copy()
    other[3, 3, 0] ^= 1
    assert not media.PICTURE.same_content(
        encode_media(Picture(other), Encode(file="PNG", format="RGBA8")), tga, facts, "a"
    )


@dataclass(frozen=True, slots=True)
class ScoreSpec(Spec):
    """Sheet music, made up for this test."""

    file_type: str
    bars: int

    @property
    def kind(self) -> str:  # type: ignore[override]
        return "score"


class _Score(Medium):
    name = "score"
    called = "score"
    kinds = ("score",)  # type: ignore[assignment]
    titles = ("Scores",)
    spec_type = ScoreSpec
    suffixes = (".score",)

    def recognises(self, data: Data, path: str) -> bool:
        return bytes(data[:5]) == b"SCORE"

    def facts(self, data: Data, size: int, path: str, does: frozenset[str]) -> Facts:
        return Facts("score", "Score")  # type: ignore[arg-type]

    def spec(self, data: Data, path: str, role: object) -> ScoreSpec:
        return ScoreSpec("Score", len(data) - 5)


def test_a_new_medium_is_one_record(
    monkeypatch: pytest.MonkeyPatch, tmp_path_factory: pytest.TempPathFactory
) -> None:
    score = _Score()
    monkeypatch.setattr(media, "MEDIA", (score, *MEDIA))
    monkeypatch.setitem(media._BY_SPEC, ScoreSpec, score)
    monkeypatch.setattr("furnel.mods.examination.MEDIA", (score, *MEDIA))
    original, yours = spec_of(b"SCORE1234", "a.score"), spec_of(b"SCORE12", "b.bin")
    assert facts_of(b"SCORE", 5, "x").kind == "score"
    assert [point.state for point in compare(original, yours)] == []
    (point,) = compare(original, spec_of(b"{}", "a.json"))
    assert (point.original, point.yours, point.state) == ("score", "text", "breaks")
    assert fit_all(original, yours) == ((), None)
    folder = tmp_path_factory.mktemp("kept")
    keep_examination(folder, "k", Examination((), original, yours))
    assert read_examination(folder, "k") == Examination((), original, yours)


def test_a_new_picture_file_is_one_record(monkeypatch: pytest.MonkeyPatch) -> None:
    def read(data: Data, where: object) -> Texture:
        width = data[4]
        if len(data) < 6 + width * data[5]:
            raise FurnelError(
                "Reading a MOSS picture", where=where, why="it is cut short", remedy="Take another"
            )
        notes = (("growth", "slow" if data[3] == 49 else "fast"),)
        return Texture(width, data[5], "L8", (bytes(data[6 : 6 + width * data[5]]),), "MOSS", None, notes)

    def write(texture: Texture) -> bytes:
        mark = b"1" if texture.note("growth") == "slow" else b"0"
        return b"MOS" + mark + bytes([texture.width, texture.height]) + bytes(texture.levels[0])

    moss = PictureFile(
        name="MOSS", suffixes=(".moss",), signature=b"MOS[01]", read=read, read_header=read, write=write, formats=("L8",),
        notes=(Note(key="growth", label="Growth", choices=("fast", "slow"), offered=True),),
    )  # fmt: skip
    monkeypatch.setattr(imagefiles, "PICTURE_FILES", (moss, *PICTURE_FILES))
    monkeypatch.setitem(imagefiles._BY_NAME, "MOSS", moss)
    monkeypatch.setattr(imagefiles, "WRITTEN", (*imagefiles.WRITTEN, "MOSS"))
    data = b"MOS1\x02\x02" + bytes([0, 80, 160, 240])
    spec = spec_of(data, "a.moss")
    encode = encoding_like(spec)
    assert encode is not None and (encode.file, encode.notes) == ("MOSS", {"growth": "slow"})
    opened = medium_of(data, "a.moss").opened(data, "a.moss")
    assert isinstance(opened, Picture) and encode_media(opened, encode) == data
    points = {point.key: point.state for point in compare(spec, spec)}
    assert set(points.values()) == {"fits"} and points["format"] == "fits"
    with pytest.raises(FurnelError, match="cut short"):
        spec_of(data[:-1], "a.moss")


def test_the_order_of_recognition_is_written_once() -> None:
    for first, second in pairwise(MEDIA):
        assert first is not second
    wav = encode_media(Clip(np.zeros((100, 1), np.float32), 8000), Encode(file="WAV", format="PCM 16"))
    assert (
        medium_of(wav, "mislabelled.json").name == "sound"
    )  # bytes that say what they are come before a name
    assert medium_of(b"\0" * 300, "a.json").name == "text"
