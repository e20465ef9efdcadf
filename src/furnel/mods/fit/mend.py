"""Mending one point of the fit: the swap with what its remedy says."""

from __future__ import annotations

from collections.abc import Sequence

from furnel.catalogue import Kind
from furnel.imagefiles.dds import has_legacy_code
from furnel.mods.fit.encoding import encoding_like
from furnel.mods.fit.pictures import brightness_step
from furnel.mods.fit.registry import point_of
from furnel.mods.project import StepUse, Swap
from furnel.mods.soundspec import SoundSpec
from furnel.mods.spec import PictureSpec, Spec


def mended(swap: Swap, key: str, original: Spec, result: Spec) -> Swap | None:
    """The swap with one point put right, or None when there is no step or setting that does it."""
    sounds = isinstance(original, SoundSpec)
    if type(original) is not type(result) or not (sounds or isinstance(original, PictureSpec)):
        return None
    kind: Kind = "sound" if sounds else "sheet"  # sheets have the points of textures, too
    point = point_of(key, kind)
    if point is None:
        return None
    if point.mend is not None:
        uses = point.mend(original, result)
        return (_with_sound_steps if sounds else _with_picture_steps)(swap, uses) if uses else None
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


def _with_sound_steps(swap: Swap, uses: Sequence[StepUse]) -> Swap:
    """The steps in place of those of their kinds, last but for one that matches the loudness."""
    matching = swap.steps and swap.steps[-1].do == "loudness" and uses[0].do != "loudness"
    last = swap.steps[-1:] if matching else ()
    kept = [
        use for use in swap.steps[: len(swap.steps) - len(last)] if use.do not in {new.do for new in uses}
    ]
    return swap.model_copy(update={"steps": (*kept, *uses, *last)})


def with_encoding(swap: Swap, original: Spec) -> Swap:
    """The swap, and when it has steps but no encoding, one like the original's."""
    if not swap.steps or swap.encode is not None:
        return swap
    return swap.model_copy(update={"encode": encoding_like(original)})


def with_format(swap: Swap, original: Spec, name: str) -> Swap:
    """The swap encoded in a format; where that is not the original's, it is kept against it (with the header it needs)."""
    if swap.encode is None or not isinstance(original, PictureSpec):
        return swap
    notes = dict(swap.encode.notes)
    kept = {key for key in swap.insist if key not in ("format", "header")}
    if name != original.format:
        kept.add("format")
    if swap.encode.file == "DDS":
        notes["header"] = "DX10" if not has_legacy_code(name) else original.note("header") or "legacy"
        if notes["header"] != original.note("header"):
            kept.add("header")
    encode = swap.encode.model_copy(update={"format": name, "notes": notes})
    return swap.model_copy(update={"encode": encode, "insist": tuple(sorted(kept))})


def _with_picture_steps(swap: Swap, uses: Sequence[StepUse]) -> Swap:
    """Each step in place of one of its kind, else last; a brightness adds to what is there."""
    steps = list(swap.steps)
    for use in uses:
        place = max((at for at, step in enumerate(steps) if step.do == use.do), default=-1)
        if place < 0:
            steps.append(use)
        elif use.do == "brightness":
            before = float(steps[place].values.get("stops", 0.0))
            steps[place] = brightness_step(before + float(use.values["stops"]))
        else:
            steps[place] = use
    return swap.model_copy(update={"steps": tuple(steps)})
