"""What the sound bench asks for, as changes of the mod: loops, the part of the source, the event's sounds and distances."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import QObject

from furnel.desktop.fit.bench import Bench, BenchType, Hands
from furnel.desktop.fit.sound_bench import SoundBench
from furnel.desktop.fit.sound_content import load_sounds
from furnel.media import SOUND
from furnel.mods.events import event_of, mod_events, set_event
from furnel.mods.project import StepUse
from furnel.mods.shapes import moved_part
from furnel.mods.songs import parts_of
from furnel.mods.steps import step_type
from furnel.mods.workspace import Workspace
from furnel.texts import SoundEvent
from furnel.words import count


class Hearing(QObject):
    """Carries out the wishes of the sound bench."""

    def __init__(self, bench: SoundBench, hands: Hands) -> None:
        super().__init__(bench)
        self._bench, self._hands, self._session = bench, hands, hands.session
        self._current, self._pick, self._change = hands.current, hands.pick, hands.change
        session = hands.session
        bench.silent.connect(
            lambda: session.tell("calm", "There is no sound device: everything but hearing works")
        )
        bench.spectrum_wanted.connect(
            lambda work: session.jobs.start(
                "Drawing the pitches", work, bench.take_spectra, lambda _: None, key="pitches", shown=False
            )
        )
        bench.lanes.looped.connect(self._loop)
        bench.source.taken.connect(self._take)
        bench.lanes.laid.connect(self._lay)
        bench.panel.picked.connect(self._picked)
        bench.song.picked.connect(self._picked)
        bench.panel.filled.connect(self.fill)
        bench.panel.removed.connect(self._remove)
        bench.panel.changed.connect(self._set_event)

    def _loop(self, start: int, end: int) -> None:
        """Let a loop of the result, in its frames, be made by a step: the last loop step, or a new one before the loudness."""
        swap = self._current()
        if swap is None:
            return
        steps = list(swap.steps)
        place = next((n for n in reversed(range(len(steps))) if steps[n].on and steps[n].do == "loop"), None)
        if place is None:
            use = StepUse(do="loop", values={"start": start, "length": end - start, "search": 0.0})
            levels = [n for n, step in enumerate(steps) if step_type(step.do).is_last]
            steps.insert(levels[-1] if levels else len(steps), use)
        else:
            values = steps[place].checked()
            first = start + int(values["start"]) if values["only"] else start
            fresh = {**steps[place].values, "start": first, "length": end - start}
            steps[place] = steps[place].model_copy(update={"values": fresh})
        self._change(swap.model_copy(update={"steps": tuple(steps)}), "Move the loop")

    def _take(self, start_s: float) -> None:
        """Take the part of the source that begins at a second."""
        swap, content = self._current(), self._bench.content
        if swap is None or content is None:
            return
        rate = content.yours.clip.rate
        steps = moved_part(swap.steps, rate, start_s, content.original.clip.length_s)
        if steps != swap.steps:
            self._change(swap.model_copy(update={"steps": steps}), "Take another part of the source")

    def _lay(self, place: int, at_s: float) -> None:
        """Let a layer begin somewhere else."""
        swap = self._current()
        if swap is None or not 0 <= place < len(swap.steps):
            return
        steps = list(swap.steps)
        steps[place] = steps[place].model_copy(
            update={"values": {**steps[place].values, "at": round(at_s, 3)}}
        )
        self._change(swap.model_copy(update={"steps": tuple(steps)}), "Move a layer")

    def _picked(self, path: str) -> None:
        if self._session.swap(path) is not None:
            self._pick(path)
        else:
            self._session.tell(
                "calm", f"{path} is the game's own: drop a file on it in Find, or all takes on the event"
            )

    def fill(self, name: str, files: list[Path]) -> None:
        """Fill an event from files, one sound each."""
        self._session.swaps.fill_event(name, files, self._pick)

    def _remove(self, name: str, path: str) -> None:
        """Take a sound out of an event; one that the mod added leaves the mod, too."""
        space = self._session.space
        rule = space.profile.events if space is not None else None
        if space is None or rule is None:
            return
        event = mod_events(space)[name]
        left = tuple(one for one in event.sounds if one != path)
        if len(left) < rule.least:
            self._session.tell("wrong", f"{name} needs {count(rule.least, 'sound')} at least")
            return
        project = set_event(
            space.project, space.demands.events[name], _with_sounds(event, left)
        ).without_swap(path)
        self._session.edit(project, f"Take {path.rpartition('/')[2]} out of {name}")
        for other in left:
            if project.swap_for(other) is not None:
                self._pick(other)
                break

    def _set_event(self, event: SoundEvent) -> None:
        space = self._session.space
        if space is not None:
            game = space.demands.events[event.name]
            self._session.edit(set_event(space.project, game, event), f"Change how far {event.name} is heard")


def _with_sounds(event: SoundEvent, sounds: tuple[str, ...]) -> SoundEvent:
    return SoundEvent(event.name, sounds, event.volume, event.fade_from, event.silent_at)


def _beside(space: Workspace, original: str) -> tuple[str, ...]:
    """The sounds of the event, or the parts of the song, that a swap belongs to."""
    event = event_of(space, original)
    return event.sounds if event is not None else parts_of(space, original)


def _make(hands: Hands) -> Bench:
    bench = SoundBench(hands.look, hands.player)
    Hearing(bench, hands)
    return bench


SOUND_BENCH = BenchType(SOUND.kinds, _make, load_sounds, _beside)
