"""Mending one point of the fit: the swap with what its remedy says."""

from __future__ import annotations

from collections.abc import Sequence

from furnel.imagefiles import picture_file
from furnel.media import PictureSpec, Spec, encoding_like, medium_of_spec
from furnel.mods.fit.again import place_for
from furnel.mods.fit.registry import point_of
from furnel.mods.project import StepUse, Swap
from furnel.mods.steps import step_type


def mended(swap: Swap, key: str, original: Spec, result: Spec) -> Swap | None:
    """The swap with one point put right, or None when there is no step or setting that does it."""
    medium = medium_of_spec(original)
    point = point_of(key, medium.kinds) if medium is medium_of_spec(result) else None
    if point is None:
        return None
    if point.mend is not None:
        uses = point.mend(original, result)
        return (_with_last if medium.steps_in_order else _with_in_place)(swap, uses) if uses else None
    if not point.encoded:
        return None
    encode = encoding_like(original)
    if encode is None:
        return None
    if point.encoded == "best":
        encode = encode.model_copy(update={"quality": "best"})
    elif swap.encode is not None:
        encode = encode.model_copy(update={"quality": swap.encode.quality})
    return swap.model_copy(update={"encode": encode})


def _with_last(swap: Swap, uses: Sequence[StepUse]) -> Swap:
    """The steps in place of those of their kinds, behind all others but one that always comes last."""
    place = place_for(swap.steps, uses[0])
    kept = [use for use in swap.steps[:place] if use.do not in {new.do for new in uses}]
    return swap.model_copy(update={"steps": (*kept, *uses, *swap.steps[place:])})


def with_encoding(swap: Swap, original: Spec) -> Swap:
    """The swap, and when it has steps but no encoding, one like the original's."""
    if not swap.steps or swap.encode is not None:
        return swap
    return swap.model_copy(update={"encode": encoding_like(original)})


def with_format(swap: Swap, original: Spec, name: str) -> Swap:
    """The swap encoded in a format; where that is not the original's, it is kept against it (with the notes that it needs)."""
    if swap.encode is None or not isinstance(original, PictureSpec):
        return swap
    notes = dict(swap.encode.notes)
    kept = set(swap.insist) - {"format"} | ({"format"} if name != original.format else set())
    file = picture_file(swap.encode.file)
    needed = file.needs(name)
    for note in file.notes:
        if note.by_format:
            notes[note.key] = needed.get(note.key) or original.note(note.key) or note.choices[0]
            kept = kept - {note.key} | ({note.key} if notes[note.key] != original.note(note.key) else set())
    encode = swap.encode.model_copy(update={"format": name, "notes": notes})
    return swap.model_copy(update={"encode": encode, "insist": tuple(sorted(kept))})


def _with_in_place(swap: Swap, uses: Sequence[StepUse]) -> Swap:
    """Each step in place of one of its kind, or added to what that does; else last."""
    steps = list(swap.steps)
    for use in uses:
        place = max((at for at, step in enumerate(steps) if step.do == use.do), default=-1)
        joined = step_type(use.do).joined
        if place < 0:
            steps.append(use)
        elif joined is not None:
            steps[place] = StepUse(do=use.do, values=joined(steps[place].values, use.values))
        else:
            steps[place] = use
    return swap.model_copy(update={"steps": tuple(steps)})
