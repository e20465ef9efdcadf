"""What stands around a swap: the source as a whole, formats tried, what other files of the game say, what goes with a build."""

from __future__ import annotations

import json
import math
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest
import soundfile
from hypothesis import given
from hypothesis import strategies as st

from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.media import PictureSpec, SoundSpec, TextSpec
from furnel.mods.build import build
from furnel.mods.generated import companions
from furnel.mods.project import StepUse
from furnel.mods.render import apply_steps
from furnel.mods.shapes import layers_of, moved_part, source_shape, used_part
from furnel.mods.steps import STEP_TYPES, Value
from furnel.mods.steps.geometry import SIZE
from furnel.mods.steps.step import Around
from furnel.mods.trials import allowed_formats, around_worst, measure, try_formats
from furnel.mods.workspace import Workspace
from furnel.sound import Clip

RATE = 8000
TUNE, RECORD = "music/slow_water.ogg", "music/slow_water.loop"


def use(do: str, on: bool = True, **values: Value) -> StepUse:
    return StepUse(do=do, on=on, values=dict(values))


def ramp(seconds: float) -> Clip:
    """A clip that says of every frame where in the source it was."""
    frames = round(seconds * RATE)
    return Clip(np.linspace(0.1, 0.9, frames, dtype=np.float32)[:, None], RATE)


PARTS = st.one_of(
    st.builds(lambda a, b: use("part", start=a, length=b), st.floats(0, 2), st.floats(2.5, 3)),
    st.builds(lambda n: use("length", frames=n, fade=0), st.integers(20000, 40000)),
    st.just(use("part", on=False, start=9.0, length=1.0)),
)
LOOPS = st.builds(
    lambda a, n: use("loop", start=a, length=n, search=0.0, fade=0.0, only=True),
    st.integers(0, 3000),
    st.integers(800, 4000),
)
CUTS = st.tuples(st.lists(PARTS, max_size=2), st.lists(LOOPS, max_size=1)).map(
    lambda pair: [*pair[0], *pair[1]]
)


@given(CUTS)
def test_what_steps_take_of_a_source_is_what_they_really_take(steps: list[StepUse]) -> None:
    clip = ramp(10.0)
    start, end = used_part(tuple(steps), RATE, 10.0)
    try:
        done = apply_steps(clip, steps)
    except FurnelError:
        return  # two parts that have nothing in common
    got = (done[-1] if done else clip).samples[:, 0]
    heard = got[got > 0]

    def second(value: float) -> float:
        return (value - 0.1) / 0.8 * 10

    assert second(float(heard[0])) == pytest.approx(start, abs=0.01)
    if not any(step.do == "length" and step.on for step in steps) or len(heard) == len(got):
        assert second(float(heard[-1])) <= end + 0.01


@given(CUTS, st.floats(0, 2))
def test_a_part_that_is_moved_begins_where_it_was_put(steps: list[StepUse], to: float) -> None:
    moved = moved_part(tuple(steps), RATE, to, 1.0)
    parts = [step for step in steps if step.on and step.do in ("part", "loop")]
    if len(parts) < 2:
        assert used_part(moved, RATE, 10.0)[0] == pytest.approx(to, abs=0.002)


def test_every_step_says_of_itself_what_others_ask() -> None:
    for step in STEP_TYPES.values():
        values = step.complete({})
        if step.result_size is not None:
            assert all(side > 0 for side in step.result_size(values))
        if name := step.begins(values):
            assert name in values and step.takes is not None
        if step.takes is not None:
            assert step.domain == "sound"
    assert [name for name, step in STEP_TYPES.items() if step.is_last] == ["touch-up", "loudness"]
    assert [name for name, step in STEP_TYPES.items() if step.crops] == ["crop"]


def test_a_sources_shape_is_kept_until_the_file_changes(tmp_path: Path) -> None:
    file = tmp_path / "long.wav"
    wave = np.concatenate([np.zeros(RATE), 0.5 * np.ones(2 * RATE), np.zeros(RATE // 2)])
    soundfile.write(file, wave, RATE)
    first = source_shape(file)
    assert first.length_s == pytest.approx(3.5) and first.silence_s == pytest.approx((1.0, 0.5), abs=0.01)
    np.testing.assert_array_equal(source_shape(file).wave, first.wave)
    soundfile.write(file, wave[RATE:], RATE)
    assert source_shape(file).silence_s[0] == pytest.approx(0, abs=0.01)
    with pytest.raises(FurnelError):
        source_shape(tmp_path / "gone.wav")


def test_a_layer_is_shown_where_no_later_step_moves_it(tmp_path: Path) -> None:
    soundfile.write(tmp_path / "over.wav", np.zeros(2 * RATE), RATE)
    layer = use("layer", file="over.wav", at=1.5, start=0.5)
    (shown,) = layers_of((use("part", start=1.0), layer, use("gain", gain=3.0)), tmp_path)
    assert (shown.place, shown.name, shown.at_s, shown.length_s) == (1, "over.wav", 1.5, 1.5)
    assert layers_of((layer, use("trim")), tmp_path) == ()
    assert layers_of((use("layer", file="gone.wav"), use("layer", on=False, file="over.wav")), tmp_path) == ()


def noise(side: int = 32, alpha: int = 255) -> Picture:
    pixels = np.random.default_rng(3).integers(0, 256, (side, side, 4), np.uint8)
    pixels[..., 3] = alpha
    return Picture(pixels)


def test_trials_offer_what_can_hold_a_picture_and_measure_what_it_loses() -> None:
    assert "BC1" in allowed_formats("DDS", noise()) and "BC4" not in allowed_formats("DDS", noise())
    soft = noise()
    soft.pixels[..., 3] = np.arange(32, dtype=np.uint8) * 8
    assert not {"BC1", "RGB565", "BGR8"} & set(allowed_formats("DDS", soft))
    grey = Picture(np.repeat(noise().pixels[..., :1], 4, axis=2) | np.array([0, 0, 0, 255], np.uint8))
    assert {"BC4", "L8"} <= set(allowed_formats("DDS", grey)) and allowed_formats("PNG", grey) == ()
    found = {trial.format: trial for trial in try_formats(noise(), ("BC1", "BC7", "BGRA8"), "fast", levels=6)}
    assert math.isinf(found["BGRA8"].psnr_db) and found["BC1"].psnr_db < found["BC7"].psnr_db < 99
    assert found["BC7"].size_bytes == sum(max(side // 4, 1) ** 2 * 16 for side in (32, 16, 8, 4, 2, 1))
    spoiled = noise().pixels.copy()
    spoiled[20:24, 8:12, :3] ^= 128
    worst = measure(noise(), Picture(spoiled), "BC7")
    assert worst.worst == (8, 20) and worst.worst_db < worst.psnr_db
    assert around_worst(noise(64), worst.worst).size == (32, 32)


def test_what_the_game_says_of_a_sound_beside_its_bytes(space: Workspace) -> None:
    demands = space.demands
    spec = demands.spec(TUNE)
    assert isinstance(spec, SoundSpec) and spec.loops and spec.record and spec.loop is not None
    assert spec.told_tempo is not None and demands.loop_record(TUNE) is not None
    assert demands.loop_record("art/hulls/hull_otter.dds") is None
    bell = demands.spec("bank0/000.wav")
    assert isinstance(bell, SoundSpec) and bell.family is not None and bell.family[0] <= bell.family[1]
    assert isinstance(demands.spec("rules/boats.toml"), TextSpec)
    assert isinstance(demands.spec("cast/otter_walk.png"), PictureSpec)
    assert (
        demands.names("hull_otter")
        and demands.names("art/hulls/hull_otter.dds")
        and not demands.names("hull_ott")
    )
    soft_first = demands.loudness(["bank0/000.wav", "bank0/001.wav", "nowhere.wav"])
    assert soft_first == sorted(soft_first) and len(soft_first) == 2


def test_an_examination_is_known_by_all_that_it_depends_on(fitted: Workspace) -> None:
    swap = fitted.project.swap_for("bank0/000.wav")
    assert swap is not None
    demands, shipped = fitted.demands, fitted.catalogue.bytes_of("bank0/000.wav")
    key = demands.examination_key(swap, shipped, "result", "")
    assert key == demands.examination_key(swap, shipped, "result", "")
    others = {
        demands.examination_key(swap, shipped, "other result", ""),
        demands.examination_key(swap, shipped + b"\0", "result", ""),
        demands.examination_key(swap, shipped, "result", "named.wav"),
        demands.examination_key(swap.model_copy(update={"steps": ()}), shipped, "result", ""),
        demands.examination_key(swap.model_copy(update={"original": TUNE}), shipped, "result", ""),
    }
    assert len(others | {key}) == 6


def test_content_that_moved_is_found_where_it_is(space: Workspace) -> None:
    asset = space.catalogue.get("charts/adder_bay.dds")
    mark = space.fingerprint(asset)
    assert space.demands.found_elsewhere("charts/gone.dds", mark) == "charts/adder_bay.dds"
    assert space.demands.found_elsewhere("charts/gone.dds", "0" * 32) == ""
    assert space.demands.found_elsewhere("music/gone.dds", mark) == ""  # another folder is another thing


def test_a_tune_of_another_length_brings_its_record_and_the_build_has_both(
    space: Workspace, tmp_path: Path
) -> None:
    t = np.arange(3 * 44100) / 44100
    soundfile.write(tmp_path / "short.wav", 0.2 * np.sin(2 * np.pi * 220 * t), 44100)
    swap = space.new_swap(TUNE, tmp_path / "short.wav")
    steps = (use("loop", start=4410, length=88200, search=0.0, only=False),)
    swap = space.fitted(swap).model_copy(update={"steps": steps})
    space = space.save(space.project.with_swap(swap))
    examined = space.examine(swap)
    (record,) = companions(space, [examined])
    assert record.path == RECORD
    rule, where = space.demands.loop_record(TUNE) or pytest.fail("the game has no record")
    assert rule.read(record.make(), where)[0] == 4410 and len(record.make()) == len(
        space.catalogue.bytes_of(where)
    )
    assert companions(space, []) == []
    moved = replace(examined, result=replace(examined.result, loop=(0, 44100)))  # type: ignore[type-var]
    assert companions(space, [moved])[0].key != record.key


GOES = ["loose", "archive", "rebuilt"]


@pytest.mark.parametrize("goes", GOES)
def test_a_build_goes_into_the_game_as_its_profile_says(
    fitted_ensign: Workspace, goes: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    space = fitted_ensign
    rule = space.profile.mods.model_copy(update={"goes": goes})
    monkeypatch.setattr(space.catalogue.install, "profile", space.profile.model_copy(update={"mods": rule}))
    made = build(space)
    files = sorted(
        file.relative_to(made.folder).as_posix() for file in made.folder.rglob("*") if file.is_file()
    )
    assert "mod.toml" in files
    if goes == "loose":
        assert "ensigns/small/kettle.tga" in files
    elif goes == "archive":
        from zipfile import ZipFile

        with ZipFile(made.folder / f"{space.project.mod.id}.zip") as other:
            assert other.namelist() == ["ensigns/small/kettle.tga"]
            assert other.read("ensigns/small/kettle.tga") == space.examine(space.project.swaps[0]).data
    else:
        assert any(name.startswith("data/ensigns") for name in files)
    again = build(space)
    assert json.dumps(sorted(row.path for row in again.files)) == json.dumps(
        sorted(row.path for row in made.files)
    )


@given(
    st.tuples(st.integers(2, 60), st.integers(2, 60)),
    st.tuples(st.integers(2, 60), st.integers(2, 60)),
    st.sampled_from(["fill", "inside", "stretch"]),
)
def test_bringing_to_size_says_what_is_cut_off_or_stays_clear(
    source: tuple[int, int], wanted: tuple[int, int], how: str
) -> None:
    """A picture of which every pixel tells where it comes from: what is said is what is not there, or clear."""
    rows, columns = np.indices((source[1], source[0]))
    pixels = np.dstack([columns * 4, rows * 4, rows * 0, rows * 0 + 255]).astype(np.uint8)
    said: list[str] = []
    values = SIZE.complete({"width": wanted[0], "height": wanted[1], "how": how, "filter": "nearest"})
    made = SIZE.apply(Picture(pixels), values, Around(tell=said.append)).pixels
    if how == "stretch":
        assert said == []
        return
    seen = made[made[..., 3] > 0]
    if how == "fill":
        spans = [(int(seen[:, axis].max()) - int(seen[:, axis].min())) / 4 + 1 for axis in (0, 1)]
        lost = [1 - span / side for span, side in zip(spans, source, strict=True)]
    else:
        clear = made[..., 3] == 0
        lost = [clear.all(axis=0).mean(), clear.all(axis=1).mean()]
    told = int(said[0].partition("%")[0].split()[-1]) / 100 if said else 0.0
    side = 0 if said and "left and right" in said[0] else 1
    least = 1.5 / min(*source, *wanted) + 0.01  # whole pixels
    assert abs(lost[side] - told) <= least + (told == 0) * least, (said, lost)
    assert lost[1 - side] <= least
