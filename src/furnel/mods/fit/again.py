"""Fitting a swap that has steps already: what a person made stays, only what points need is added or adjusted."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from furnel.media import Encode
from furnel.mods.fit.elsewhere import KIND
from furnel.mods.fit.point import FitPoint
from furnel.mods.fit.registry import encoded_keys, served_by, served_keys
from furnel.mods.project import StepUse, Swap
from furnel.mods.steps import step_type


@dataclass(frozen=True, slots=True)
class Refit:
    """A swap fitted again: how many steps were kept as they were, adjusted, and added."""

    swap: Swap
    kept: int = 0
    adjusted: int = 0
    added: int = 0
    encoded: bool = False

    @property
    def changed(self) -> bool:
        return bool(self.adjusted or self.added or self.encoded)

    def sentence(self) -> str:
        """What was done, in a few words."""
        if not self.changed:
            return "nothing to change"
        parts = [
            f"{verb} {count}"
            for verb, count in (("kept", self.kept), ("adjusted", self.adjusted), ("added", self.added))
            if count
        ]
        return ", ".join(parts) if self.adjusted or self.added else "written like the original"


def needed(points: Iterable[FitPoint]) -> frozenset[str]:
    """The points that want something done and are not insisted on."""
    return frozenset(point.key for point in points if point.state != "fits" and not point.insisted)


def mendable(needs: frozenset[str]) -> bool:
    """Whether any step or setting that Fit all knows serves one of these points (or has to say why none does)."""
    return bool(needs & (encoded_keys() | served_keys() | {KIND.key}))


def by_fit(steps: Iterable[StepUse]) -> tuple[StepUse, ...]:
    """Steps, marked as chosen by Fit all."""
    return tuple(use.model_copy(update={"auto": True}) for use in steps)


def place_for(steps: Sequence[StepUse], use: StepUse) -> int:
    """Where a step is added: at the end, but before one that always comes last."""
    before_last = steps and step_type(steps[-1].do).is_last and not step_type(use.do).is_last
    return len(steps) - 1 if before_last else len(steps)


def with_more(
    swap: Swap, wanted: Iterable[StepUse], encode: Encode | None, needs: frozenset[str], adjust: bool
) -> Refit:
    """The swap with those of the `wanted` steps that serve a point in need, behind what is there.

    With `adjust` a step of the same kind that is there gets the new settings instead (how a picture is brought to a size
    stays as it was); one that matches the loudness stays the last. The encoding follows where a point needs it.
    """
    steps = list(swap.steps)
    added = adjusted = 0
    for use in wanted:
        if not served_by(use.do) & needs:
            continue
        place = max((at for at, old in enumerate(steps) if old.on and old.do == use.do), default=-1)
        if adjust and place >= 0:
            values = {
                **steps[place].values,
                **{key: value for key, value in use.values.items() if key != "how"},
            }
            if values != steps[place].values:
                steps[place] = steps[place].model_copy(update={"values": values})
                adjusted += 1
            continue
        steps.insert(place_for(steps, use), use.model_copy(update={"auto": True}))
        added += 1
    renew = (
        encode is not None and (swap.encode is None or bool(needs & encoded_keys())) and encode != swap.encode
    )
    update: dict[str, object] = {"steps": tuple(steps)}
    if renew:
        update["encode"] = encode
    return Refit(swap.model_copy(update=update), len(swap.steps) - adjusted, adjusted, added, renew)


def touched(swap: Swap, before: Swap | None) -> Swap:
    """A swap as a person edited it: steps of Fit all that were changed, switched or moved are the person's now."""
    known = before.steps if before is not None else ()
    left = iter(known)
    in_order = all(any(old == use for old in left) for use in swap.steps if use in known)
    if in_order and all(not use.auto or use in known for use in swap.steps):
        return swap
    steps = tuple(
        use if in_order and use in known else use.model_copy(update={"auto": False}) for use in swap.steps
    )
    return swap.model_copy(update={"steps": steps})
