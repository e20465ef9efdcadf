"""Sounds in a mod: families, loops with their records, events with more or fewer sounds; the game has the last word."""

from __future__ import annotations

import json
import tracemalloc
from pathlib import Path

import numpy as np
import pytest
import soundfile

from furnel import sound
from furnel.errors import FurnelError
from furnel.media import SoundSpec
from furnel.mods.build import build, stale
from furnel.mods.deploy import install_mod
from furnel.mods.events import event_of, fill_event, lost_sounds, mod_events, set_event
from furnel.mods.fit import mended, with_encoding
from furnel.mods.project import EventUse, StepUse, load_project
from furnel.mods.render import encode_media
from furnel.mods.workspace import Workspace
from furnel.sound import Clip, Cue
from tarnlight.world import World

TUNE = "music/reel_night.ogg"


def song(file: Path, length_s: float, tempo: float, rate: int = 48000) -> Path:
    """A song with a beat on every quarter."""
    t = np.arange(round(length_s * rate)) / rate
    beat = (t * tempo / 60) % 1
    bar = np.floor(t * tempo / 240).astype(int) % 4
    hertz = np.array([110.0, 130.8, 98.0, 146.8])[bar]
    wave = 0.4 * np.exp(-5 * beat) * np.sin(2 * np.pi * hertz * t) + 0.1 * np.sin(4 * np.pi * hertz * t)
    soundfile.write(file, np.stack([wave, 0.9 * wave], 1), rate, subtype="PCM_16")
    return file


def takes(folder: Path, count: int) -> list[Path]:
    """Recordings of a bell by a phone: late, quiet, each at another level."""
    out = []
    for number in range(count):
        t = np.arange(44100 * 2) / 44100
        wave = np.exp(-2 * t) * np.sin(2 * np.pi * (500 + 9 * number) * t) * (0.03 + 0.05 * number)
        late = np.concatenate([np.zeros(9000), wave])
        file = folder / f"bell_take_{number + 1}.wav"
        soundfile.write(file, late, 44100, subtype="PCM_16")
        out.append(file)
    return out


def spec(space: Workspace, path: str) -> SoundSpec:
    found = space.original_spec(path)
    assert isinstance(found, SoundSpec)
    return found


def report(space: Workspace) -> dict[str, str]:
    install_mod(space.catalogue.install, space.project.mod.id, build(space).folder)
    world = World(space.catalogue.install.folder)
    assert not world.strays()
    return {
        verdict.path: f"{verdict.verdict} {verdict.effect}{verdict.reason}" for verdict in world.verdicts()
    }


def test_a_tunes_spec_knows_its_record_and_a_sounds_its_family(space: Workspace) -> None:
    tune = spec(space, TUNE)
    assert (tune.loop, tune.record, tune.exact) == ((0, 64 * 44100), True, True)
    assert tune.rhythm is not None and tune.rhythm.tempo == 120
    bell = spec(space, "bank0/000.wav")
    assert bell.family is not None and bell.family[0] <= bell.family[1] < 0


def test_a_long_song_becomes_the_short_looping_tune(space: Workspace, tmp_path: Path) -> None:
    swap = space.fitted(space.new_swap(TUNE, song(tmp_path / "song.wav", 197, 96)))
    assert [use.do for use in swap.steps] == ["rate", "bars", "stretch", "loudness"]
    assert swap.steps[1].values["bars"] == 26
    examined = space.examine(swap)
    assert examined.state == "fits", [p for p in examined.points if p.state != "fits"]
    clip, _ = sound.read_clip(examined.data)
    assert (clip.frames, clip.loop) == (64 * 44100, (0, 64 * 44100))
    assert sound.seam_click(clip, 0, clip.frames) <= 1.0
    space = space.save(space.project.with_swap(swap))
    assert report(space)[TUNE] == "accepted plays for 64.00 s and loops"


def test_another_length_brings_its_own_record(space: Workspace, tmp_path: Path) -> None:
    swap = space.fitted(space.new_swap(TUNE, song(tmp_path / "song.wav", 40, 120)))
    bars = StepUse(do="bars", values={"tempo": 120, "meter": 4, "bars": 12})
    swap = swap.model_copy(update={"steps": (StepUse(do="rate", values={"rate": 44100}), bars)})
    examined = space.examine(swap)
    assert {p.key: p.state for p in examined.points}["loop"] == "differs" and examined.state == "differs"
    space = space.save(space.project.with_swap(swap))
    said = report(space)
    assert said["music/reel_night.loop"] == "accepted loops from 0.00 s to 24.00 s"
    assert said[TUNE].startswith("accepted plays for 24.00 s")
    built = build(space)
    items = [space.examine(one) for one in space.project.swaps]
    assert not stale(space, built, items)
    space = space.save(space.project.without_swap(TUNE))
    assert set(stale(space, built, [])) == {TUNE, "music/reel_night.loop"}


@pytest.mark.parametrize(("count", "added"), [(5, ["bank0/046.wav", "bank0/047.wav"]), (2, [])])
def test_an_event_is_filled_with_more_or_fewer_takes(
    space: Workspace, tmp_path: Path, count: int, added: list[str]
) -> None:
    project = fill_event(space, "bell_near", takes(tmp_path, count))
    space = space.save(project)
    assert load_project(space.file) == project
    events = mod_events(space)
    game = [f"bank0/00{number}.wav" for number in range(min(count, 3))]
    assert list(events["bell_near"].sounds) == game + added
    examined = [space.examine(swap) for swap in project.swaps]
    assert all(item.state == "fits" for item in examined), [
        p for i in examined for p in i.points if p.state != "fits"
    ]
    results = [item.result for item in examined if isinstance(item.result, SoundSpec)]
    loud = [result.loudness for result in results]
    assert max(loud) - min(loud) < 1.0
    assert all(result.measures.lead_s < 0.03 for result in results)
    said = report(space)
    assert all(said[path].startswith("accepted plays for") for path in game + added)
    assert said["rules/sound-events.json"].startswith("accepted")
    text = (
        space.catalogue.install.folder / "mods" / space.project.mod.id / "rules/sound-events.json"
    ).read_text()
    assert '\n  "bell_near"' in text and len(json.loads(text)["bell_near"]["sounds"]) == count


def test_an_event_never_plays_what_is_nowhere(space: Workspace, tmp_path: Path) -> None:
    space = space.save(fill_event(space, "bell_near", takes(tmp_path, 4)))
    fewer = space.project.without_swap("bank0/046.wav")
    use = fewer.event_for("bell_near")
    assert use is None or "bank0/046.wav" not in use.sounds
    lost = space.project.with_event(EventUse(name="horn", sounds=("bank0/099.wav",)))
    assert lost_sounds(space, lost) == {"horn": ["bank0/099.wav"]}
    space = space.save(lost)
    with pytest.raises(FurnelError, match="horn.*plays bank0/099.wav"):
        build(space)
    with pytest.raises(FurnelError, match="9 files for 1 to 8 sounds"):
        fill_event(space, "bell_near", takes(tmp_path, 9))
    with pytest.raises(FurnelError, match="no such event"):
        fill_event(space, "thunder", takes(tmp_path, 1))


def test_volume_and_distances_go_into_the_definition(space: Workspace) -> None:
    game = space.demands.events["bell_near"]
    assert (game.volume, game.fade_from, game.silent_at) == (0.8, 12, 80)
    from dataclasses import replace

    nearer = replace(game, volume=0.5, fade_from=5.0, silent_at=25.0)
    space = space.save(set_event(space.project, game, nearer))
    assert event_of(space, "bank0/001.wav") == nearer
    assert (nearer.gain_at(0), nearer.gain_at(15), nearer.gain_at(99)) == (0.5, 0.25, 0)
    report(space)
    world = World(space.catalogue.install.folder)
    assert world.loudness("bell_near", 15) == pytest.approx(nearer.gain_at(15))
    assert world.loudness("gull", 46) == pytest.approx(space.demands.events["gull"].gain_at(46))
    assert not set_event(space.project, game, game).events


def test_a_sound_too_loud_for_its_family_is_said_and_mended(space: Workspace, tmp_path: Path) -> None:
    file = tmp_path / "loud.wav"
    t = np.arange(40000) / 48000
    wave = np.clip(np.sin(2 * np.pi * 900 * t) * 4, -1, 1)
    soundfile.write(file, np.concatenate([np.zeros(6000), wave]), 48000, subtype="PCM_16")
    swap = space.new_swap("bank0/012.wav", file)
    examined = space.examine(swap)
    states = {point.key: point.state for point in examined.points}
    assert {key for key, state in states.items() if state == "differs"} >= {
        "loudness",
        "family",
        "lead-in",
        "clipping",
    }
    assert examined.original is not None and examined.result is not None
    for key in ("family", "lead-in"):
        better = mended(swap, key, examined.original, examined.result)
        assert better is not None
        swap = with_encoding(better, examined.original)
    states = {point.key: point.state for point in space.examine(swap).points}
    assert states["family"] == states["lead-in"] == states["loudness"] == "fits"


def test_an_hour_costs_no_memory_to_speak_of(space: Workspace, tmp_path: Path) -> None:
    from furnel.desktop.fit.bench import Loading
    from furnel.desktop.fit.sound_content import load_sounds
    from furnel.media import preview_of

    file = tmp_path / "evening.wav"
    t = np.arange(8000 * 60) / 8000
    minute = (0.3 * np.exp(-5 * (2 * t % 1)) * np.sin(2 * np.pi * 220 * t)).astype(np.float32)
    with soundfile.SoundFile(file, "w", 8000, 1, subtype="PCM_16", format="WAV") as stream:
        for _ in range(60):
            stream.write(minute)
    raw = space.new_swap("music/fog.ogg", file)
    original = space.catalogue.read(space.catalogue.get("music/fog.ogg"))
    tracemalloc.start()
    try:
        examined = space.examine(raw)
        content = load_sounds(
            Loading(original, examined.data, str(file), examined, space.catalogue, {}, space)
        )
        preview_of(examined.data, "music", file)
        swap = space.fitted(raw)
        fitted = space.examine(swap)
        most = tracemalloc.get_traced_memory()[1]
    finally:
        tracemalloc.stop()
    assert (
        content.source is not None and content.source.length_s == 3600 and content.yours.clip.length_s == 900
    )
    assert swap.steps[0].do == "part" and fitted.state == "fits", fitted.points
    assert most < 130 << 20  # decoded whole it would be 115 MB, several times over


def test_a_loop_record_that_makes_no_sense_is_refused(space: Workspace) -> None:
    known = space.demands.loop_record(TUNE)
    assert known is not None
    record, where = known
    shipped = space.catalogue.read(space.catalogue.get(where))
    assert record.write(shipped, 0, 64 * 44100, 44100, where) == shipped
    changed = record.write(shipped, 441, 44100, 48000, where)
    assert (record.read(changed, where), changed[12:]) == ((441, 44100), shipped[12:])
    for bad in (shipped[:7], b"", shipped[4:8] + shipped[:4] + shipped[8:]):
        with pytest.raises(FurnelError):
            record.read(bad, where)


def test_what_the_role_limits_and_what_is_insisted_on(space: Workspace, tmp_path: Path) -> None:
    from dataclasses import replace

    from furnel.mods.fit import compare, fit_all

    original = spec(space, "bank0/000.wav")
    small = replace(
        original, most_bytes=1000, exact=True, tags=(("software", "Yard"),), cues=(Cue(441, "strike"),)
    )
    keys = {point.key: point.state for point in compare(small, replace(original, frames=original.frames - 5))}
    assert (keys["size"], keys["length"], keys["tags"], keys["cues"]) == (
        "breaks",
        "breaks",
        "differs",
        "differs",
    )
    longer = replace(original, frames=original.frames * 3, rate=24000)
    steps, encode = fit_all(small, longer)
    assert {use.do for use in steps} >= {"rate", "length", "loudness"}
    assert encode is not None and encode.notes == {"tag software": "Yard", "cue 441": "strike"}
    clip = Clip(np.full((4800, 1), 0.1, np.float32), 48000)
    notes = sound.read_clip(encode_media(clip, encode))[1].notes
    assert (notes.cues, dict(notes.tags)) == (small.cues, dict(small.tags))
    flac = encode.model_copy(update={"file": "FLAC"})
    assert fit_all(small, longer, ("file",), flac)[1] == flac
    for kind, codec, wanted in (
        ("MP3", "MPEG_LAYER_II", ("MP3", "MP3")),
        ("AIFF", "PCM 24", ("WAV", "PCM 24")),
    ):
        other = fit_all(replace(original, file_type=kind, codec=codec), longer)[1]
        assert other is not None and (other.file, other.format) == wanted
    assert "loudness" not in {use.do for use in fit_all(small, longer, ("loudness",))[0]}


def test_only_the_part_that_is_taken_is_decoded(
    space: Workspace, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    file = song(tmp_path / "evening.wav", 60, 120)
    part = StepUse(do="part", values={"start": 30.0, "length": 2.0})
    swap = space.new_swap("bank0/000.wav", file).model_copy(update={"steps": (part,)})
    read: list[int] = []
    plain = sound.SoundStream.read

    def counted(self: sound.SoundStream, start: int, frames: int) -> np.ndarray:
        read.append(frames)
        return plain(self, start, frames)

    monkeypatch.setattr(sound.SoundStream, "read", counted)
    media, _ = space.stages(swap)
    assert isinstance(media, Clip) and media.frames == 96000
    assert sum(read) == 96000
