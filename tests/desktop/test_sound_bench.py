"""The sound bench worked by mouse, keys and drops: zoom, loops, the part of the source, events, tunes."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pytest
import soundfile
from demo.hands import Hands
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QWheelEvent
from PyQt6.QtWidgets import QApplication, QComboBox, QWidget

from furnel.desktop.build.contents import Contents
from furnel.desktop.fit.sound_bench import SoundBench
from furnel.desktop.playback import Player
from furnel.desktop.widgets import picking
from furnel.mods.events import fill_event
from furnel.mods.project import StepUse
from furnel.mods.workspace import create_project, open_workspace
from tarnlight.world import World

TUNE, BELL = "music/fog.ogg", "bank0/003.wav"


def song(file: Path, length_s: float, tempo: float) -> Path:
    """A song with a beat on every quarter, and a bass at the beginning of every bar."""
    t = np.arange(round(length_s * 44100)) / 44100
    beat, bar = (t * tempo / 60) % 1, (t * tempo / 240) % 1
    wave = 0.4 * np.exp(-6 * beat) * np.sin(2 * np.pi * 330 * t) + 0.5 * np.exp(-9 * bar) * np.sin(
        2 * np.pi * 70 * t
    )
    soundfile.write(file, wave, 44100, subtype="PCM_16")
    return file


@pytest.fixture
def mod(game: Path, sources: Path, tmp_path: Path) -> Path:
    """A mod with a long song for a short tune, five takes for an event of three, a bell and a hull that breaks."""
    space = open_workspace(create_project(tmp_path / "mod", "Evening Post", game))
    takes = [sources / f"bell_take_{number}.wav" for number in range(1, 6)]
    project = fill_event(space, "bell_far", takes)
    project = project.with_event(project.events[0].model_copy(update={"silent_at": 120.0}))
    tune = song(tmp_path / "song.flac", 40.0, 96)
    for original, source in ((TUNE, tune), ("bank0/000.wav", sources / "church_bell.mp3")):
        project = project.with_swap(space.fitted(space.new_swap(original, source)))
    space = space.save(
        project.with_swap(space.new_swap("art/hulls/hull_otter.dds", sources / "dusk_paint.jpg"))
    )
    space.close()
    return tmp_path / "mod" / "furnel.toml"


def bench_with(hands: Hands, mod: Path, original: str) -> SoundBench:
    hands.open(mod)
    hands.station(2)
    hands.window.fit_station.pick(original)
    hands.settle()
    return hands.window.fit_station.benches.of("sound")


def wheel(widget: QWidget, at: QPointF, turns: int) -> None:
    event = QWheelEvent(
        at, widget.mapToGlobal(at), QPoint(), QPoint(0, 120 * turns), Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.NoModifier, Qt.ScrollPhase.NoScrollPhase, False,
    )  # fmt: skip
    QApplication.sendEvent(widget, event)


def test_zooming_goes_down_to_single_samples_and_back(hands: Hands, mod: Path) -> None:
    lanes = bench_with(hands, mod, TUNE).lanes
    at = lanes.lane_box(True).center()
    under = lanes._seconds(at.x())
    for _ in range(90):
        wheel(lanes, at, 1)
    assert (lanes.span[1] - lanes.span[0]) * 44100 == pytest.approx(24, abs=1)
    assert lanes._seconds(at.x()) == pytest.approx(under, abs=1e-3)
    assert not lanes.grab().isNull()
    hands.key("Right", lanes)
    assert lanes.span[0] > under - 24 / 44100
    hands.key("Home", lanes)
    assert lanes.span == (0.0, 16.0)


def test_a_loop_bracket_snaps_to_the_beat_and_undo_takes_it_back(hands: Hands, mod: Path) -> None:
    bench = bench_with(hands, mod, TUNE)
    lanes, session = bench.lanes, hands.window.session
    before = session.swap(TUNE)
    rhythm = bench.content.yours.rhythm
    assert rhythm is not None
    beat = rhythm.first_s + 20 * 60 / rhythm.tempo
    box = lanes.lane_box(True)
    end = QPointF(lanes._x(16.0), box.center().y())
    hands.drag(lanes, end, QPointF(lanes._x(beat) + 3, box.center().y()))
    hands.settle()
    swap = session.swap(TUNE)
    assert swap is not None and swap != before
    use = next(use for use in swap.steps if use.do == "loop")
    assert use.values["length"] == round(beat * 44100)
    result = bench.content.yours.clip
    assert result.loop == (0, result.frames) and result.frames == use.values["length"]
    assert {p.key: p.state for p in session.examined[TUNE].points}["loop"] == "differs"
    hands.key("Ctrl+Z", hands.window)
    hands.settle()
    assert session.swap(TUNE) == before


def test_another_part_of_the_source_is_taken_by_dragging_it(hands: Hands, mod: Path) -> None:
    bench = bench_with(hands, mod, TUNE)
    strip, session = bench.source, hands.window.session
    start = QPointF(strip.x_of(8.0), strip.box().center().y())
    hands.drag(strip, start, start + QPointF(strip.x_of(15.0) - strip.x_of(0.0), 0))
    hands.settle()
    swap = session.swap(TUNE)
    assert swap is not None
    first = next(use for use in swap.steps if use.do == "bars").values["first"]
    assert first == pytest.approx(15, abs=0.5)
    assert session.examined[TUNE].state == "fits"
    assert bench.content.used[0] == pytest.approx(first, abs=0.01)


def test_the_strip_says_what_trimming_takes(hands: Hands, mod: Path, tmp_path: Path) -> None:
    still = [np.zeros(round(seconds * 44100)) for seconds in (0.5, 0.8)]
    tone = 0.5 * np.sin(2 * np.pi * 440 * np.arange(44100) / 44100)
    soundfile.write(tmp_path / "late.wav", np.concatenate([still[0], tone, still[1]]), 44100)
    bench = bench_with(hands, mod, BELL)
    session = hands.window.session
    before = session.swap(BELL)
    assert before is not None
    swap = before.model_copy(update={"source": str(tmp_path / "late.wav"), "steps": ()})
    session.swaps.set_swap(swap, "Another source")
    hands.settle()
    assert bench.source.said() == "source  2.30 s"
    session.swaps.set_swap(swap.model_copy(update={"steps": (StepUse(do="trim"),)}), "Trim it")
    hands.settle()
    before_s, behind_s = bench.content.trimmed
    assert (before_s, behind_s) == pytest.approx((0.5, 0.8), abs=0.01)
    assert (
        bench.source.said()
        == f"source  2.30 s    trimming takes {before_s:.2f} s before and {behind_s:.2f} s behind"
    )


def test_the_distances_are_told_in_numbers(hands: Hands, mod: Path) -> None:
    bench = bench_with(hands, mod, BELL)
    event = bench.content.event
    assert event is not None and event.event.silent_at == 120.0
    game = event.game
    assert bench.panel.curve.accessibleDescription() == (
        f"the game's: {game.volume or 1:.0%}, fades from {game.fade_from:g} m, silent at {game.silent_at:g} m; "
        f"yours: {game.volume or 1:.0%}, fades from {game.fade_from:g} m, silent at 120 m"
    )


def test_a_layer_is_dragged_along_the_time_line(hands: Hands, mod: Path, sources: Path) -> None:
    bench = bench_with(hands, mod, BELL)
    lanes, session = bench.lanes, hands.window.session
    swap = session.swap(BELL)
    layer = StepUse(do="layer", values={"file": str(sources / "gull_loud.wav"), "at": 0.2, "length": 0.5})
    session.swaps.set_swap(swap.model_copy(update={"steps": (*swap.steps, layer)}), "Lay a gull over it")
    hands.settle()
    loud = session.examined[BELL].result.loudness
    box = lanes.layer_box(0)
    hands.drag(lanes, box.center(), box.center() + QPointF(lanes._x(1.0) - lanes._x(0.0), 0))
    hands.settle()
    use = session.swap(BELL).steps[-1]
    assert use.values["at"] == pytest.approx(1.2, abs=0.02)
    clip = bench.content.yours.clip
    quiet, heard = (
        np.abs(clip.samples[int(at * 48000) : int((at + 0.3) * 48000)]).max() for at in (0.8, 1.3)
    )
    assert heard > 2 * quiet and loud > -20


def test_another_file_and_codec_are_chosen_and_said_to_break(hands: Hands, mod: Path) -> None:
    bench_with(hands, mod, BELL)
    session, steps = hands.window.session, hands.window.fit_station.steps
    steps._unfold(-2)
    hands.settle()
    for name, text in (("File", "Ogg"), ("Codec", "Opus"), ("Encoding quality", "best")):
        box = next(
            one for one in steps.findChildren(QComboBox) if one.accessibleName() == name and one.isVisible()
        )
        box.setCurrentText(text)
        box.activated.emit(box.currentIndex())
        hands.settle()
    encode = session.swap(BELL).encode
    assert (encode.file, encode.format, encode.quality) == ("Ogg", "Opus", "best")
    points = {point.key: point for point in session.examined[BELL].points}
    assert (points["file"].state, points["codec"].yours) == ("breaks", "Opus")


def test_the_seam_repeats_and_the_meter_follows(
    hands: Hands, mod: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    bench = bench_with(hands, mod, TUNE)
    played: list[tuple[int, bool]] = []
    monkeypatch.setattr(
        Player, "play",
        lambda self, name, make, start_s=0.0, again=False, volume=1.0: played.append((make().frames, again)) or True,
    )  # fmt: skip
    hands.click(bench._seam)
    assert played == [(2 * 44100, True)]
    bench._moved(0.75)
    assert bench.lanes.head_s == pytest.approx(0.5)
    bench._moved(0.25)
    assert bench.lanes.head_s == pytest.approx(15.5)
    assert -40 < bench.meter._loud < 0 and bench.meter._peak < 0
    bench._stopped()
    assert bench.meter._peak == -np.inf


def test_pitches_and_measures_are_shown_on_demand(hands: Hands, mod: Path) -> None:
    bench = bench_with(hands, mod, TUNE)
    hands.click(bench._spectrum)
    hands.until(lambda: bench.lanes.spectra and len(bench.lanes.spectra) == 2, "the pitches")
    assert bench.lanes.spectra is not None and not bench.lanes.spectra["yours"][1].isNull()
    hands.click(bench._spectrum)
    assert bench.lanes.spectra is None
    hands.click(bench._figures)
    assert bench.measures.isVisible()
    said = bench.measures.accessibleDescription()
    assert "Tempo 60.00 bpm" in said and "Seam smooth, yours smooth" in said


def takes(folder: Path, count: int) -> list[Path]:
    out = []
    for number in range(count):
        t = np.arange(60000) / 48000
        out.append(folder / f"take {number}.wav")
        soundfile.write(
            out[-1],
            (0.1 + 0.2 * number) * np.exp(-4 * t) * np.sin(2 * np.pi * (700 + 40 * number) * t),
            48000,
        )
    return out


@pytest.mark.parametrize("by", ["a click", "a key"])
def test_takes_are_chosen_as_well_as_dropped(
    hands: Hands, mod: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, by: str
) -> None:
    bench = bench_with(hands, mod, "bank0/000.wav")
    sounds, files = bench.panel.sounds, takes(tmp_path, 4)
    answers = iter([[], files])  # called off first
    monkeypatch.setattr(picking, "pick_files", lambda *_: next(answers))
    for wanted in (3, 4):
        if by == "a key":
            hands.key("Ins", sounds)
        else:
            hands.click(sounds, sounds.card(3).center().toPoint())
        hands.until(lambda wanted=wanted: len(bench.panel.paths) == wanted, "the event to be filled")
        hands.settle()
    hands.key("Ctrl+Z", hands.window)
    hands.until(lambda: len(bench.panel.paths) == 3, "the change to be taken back")


def test_takes_dropped_on_an_event_become_its_sounds_in_the_game(
    hands: Hands, mod: Path, game: Path, tmp_path: Path
) -> None:
    bench = bench_with(hands, mod, "bank0/000.wav")
    session, sounds = hands.window.session, bench.panel.sounds
    assert bench.panel.isVisible() and len(bench.panel.paths) == 3
    hands.drop(takes(tmp_path, 4), sounds)
    hands.until(lambda: len(bench.panel.paths) == 4, "the event to be filled")
    hands.settle()
    added = bench.panel.paths[3]
    assert not session.catalogue.has(added) and session.name_of(added) == "bell_near 4"
    assert all(session.examined[path].state == "fits" for path in bench.panel.paths)
    hands.click(sounds, sounds.card(3).center().toPoint())
    hands.settle()
    assert hands.window.fit_station.current == added
    assert hands.window.fit_station.table is not None and bench.content.swap.original == added
    sounds.setFocus()
    hands.key("Backspace", sounds)
    hands.settle()
    assert added not in bench.panel.paths
    assert session.swap(added) is None
    hands.key("Ctrl+Z", hands.window)
    hands.settle()
    assert session.swap(added) is not None
    session.swaps.fit_all(["art/hulls/hull_otter.dds"])
    hands.settle()
    hands.key("Ctrl+B", hands.window)
    hands.until(lambda: session.builds.last is not None and not session.builds.stale, "the build")
    hands.window.run_command("install")
    hands.until(lambda: session.game.installed, "the install")
    shown = hands.window.build_station.findChild(Contents)
    assert shown is not None and shown.names[-1] == "rules/sound-events.json"
    world = World(game)
    assert world.events["bell_near"]["sounds"][3] == added
    assert {v.path: v.verdict for v in world.verdicts()}[added] == "accepted" and not world.strays()


def test_how_far_an_event_is_heard_is_dragged_and_heard(
    hands: Hands, mod: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    bench = bench_with(hands, mod, BELL)
    session, curve = hands.window.session, bench.panel.curve
    volumes: list[float] = []
    monkeypatch.setattr(
        Player,
        "play",
        lambda self, name, make, start_s=0.0, again=False, volume=1.0: volumes.append(volume) or True,
    )
    curve.setFocus()
    hands.key("Left", curve)
    event = bench.content.event
    assert volumes == [pytest.approx(event.event.gain_at(curve.listener))]
    silent = curve._handles()["silent"]
    hands.drag(curve, silent, QPointF(curve.point(60, 0).x(), silent.y()))
    hands.settle()
    use = session.project.event_for("bell_far")
    assert use is not None and use.silent_at == pytest.approx(60, abs=1)
    fade = curve._handles()["fade"]
    hands.drag(curve, fade, curve.point(30, 0.4))
    hands.settle()
    use = session.project.event_for("bell_far")
    assert use is not None and (use.fade_from, use.volume) == (
        pytest.approx(30, abs=1),
        pytest.approx(0.4, abs=0.02),
    )
    assert "rules/sound-events.json" in session.builds.stale
    hands.key("Shift+Right", curve)
    assert use.silent_at is not None
    assert session.project.event_for("bell_far").silent_at == use.silent_at + 1
    hands.key("Ctrl+Z", hands.window)
    hands.key("Ctrl+Z", hands.window)
    hands.key("Ctrl+Z", hands.window)
    assert session.project.event_for("bell_far").silent_at == 120


def test_an_album_is_laid_over_the_tunes(hands: Hands, mod: Path, tmp_path: Path) -> None:
    hands.open(mod)
    hands.key("Ctrl+U", hands.window)
    page = hands.window.pages.tunes_page
    hands.until(lambda: len(page.rows.tunes) == 4, "the tunes")
    album = tmp_path / "album"
    album.mkdir()
    song(album / "1 long.flac", 30.0, 90)
    song(album / "2 short.flac", 3.2, 100)
    (album / "3 broken.ogg").write_bytes(b"OggS nothing")
    (album / "words.txt").write_text("not a song")
    hands.drop([album], page)
    hands.until(lambda: len(page.rows.songs) == 3, "the songs")
    assert [page.rows.forecast_of(row).outlook for row in range(3)] == ["fits", "breaks", "breaks"]
    assert page.apply.text() == "Swap 2"
    rows = page.rows
    hands.drag(rows, QPointF(rows.width() * 0.7, 30), QPointF(rows.width() * 0.7, 74 + 30))
    assert [song.file.stem for song in rows.songs] == ["2 short", "1 long", "3 broken"]
    rows.setFocus()
    hands.key("Alt+Up", rows)
    assert rows.songs[0].file.stem == "1 long"
    rows.current = 1
    hands.key("Backspace", rows)
    rows.current = 1
    hands.key("Backspace", rows)
    assert page.apply.text() == "Swap 1"
    hands.click(page.apply)
    hands.settle()
    assert hands.window.session.swap("music/fog.ogg") is not None
    assert hands.window.session.examined["music/fog.ogg"].state == "fits"
    assert "bars" in [use.do for use in hands.window.session.swap("music/fog.ogg").steps]
