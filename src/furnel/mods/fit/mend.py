"""Mending one point of the fit: the swap with what its remedy says."""

from __future__ import annotations

from furnel.imagefiles.dds import has_legacy_code
from furnel.mods.fit.pictures import clear_step, encode_like, seam_step, seams_of, size_step, stops_between
from furnel.mods.fit.sounds import encode_sound_like, mend_sound
from furnel.mods.project import StepUse, Swap
from furnel.mods.soundspec import SoundSpec
from furnel.mods.spec import PictureSpec, Spec

_ENCODING = {
    "file", "format", "levels", "header", "supercompression", "rows", "run-length", "row alignment", "premultiplied",
    "colour space", "range", "pictures",
}  # fmt: skip


def mended(swap: Swap, key: str, original: Spec, result: Spec) -> Swap | None:
    """The swap with one point put right, or None when there is no step or setting that does it."""
    if isinstance(original, SoundSpec):
        return _mended_sound(swap, key, original, result) if isinstance(result, SoundSpec) else None
    if not isinstance(original, PictureSpec) or not isinstance(result, PictureSpec):
        return None
    if key in _ENCODING:
        encode = encode_like(original)
        if swap.encode is not None:
            encode = encode.model_copy(update={"quality": swap.encode.quality})
        return swap.model_copy(update={"encode": encode})
    use = _step(key, original, result)
    return _with_step(swap, use) if use is not None else None


def _mended_sound(swap: Swap, key: str, original: SoundSpec, result: SoundSpec) -> Swap | None:
    if key in ("file", "codec", "tags", "cues", "bit rate"):
        encode = encode_sound_like(original)
        if key == "bit rate":
            encode = encode.model_copy(update={"quality": "best"})
        elif swap.encode is not None:
            encode = encode.model_copy(update={"quality": swap.encode.quality})
        return swap.model_copy(update={"encode": encode})
    uses = mend_sound(key, original, result)
    if not uses:
        return None
    last = (
        swap.steps[-1:] if swap.steps and swap.steps[-1].do == "loudness" and uses[0].do != "loudness" else ()
    )
    steps = [
        use for use in swap.steps[: len(swap.steps) - len(last)] if use.do not in {new.do for new in uses}
    ]
    return swap.model_copy(update={"steps": (*steps, *uses, *last)})


def with_encoding(swap: Swap, original: Spec) -> Swap:
    """The swap, and when it has steps but no encoding, one like the original's."""
    if not swap.steps or swap.encode is not None:
        return swap
    if isinstance(original, PictureSpec):
        return swap.model_copy(update={"encode": encode_like(original)})
    if isinstance(original, SoundSpec):
        return swap.model_copy(update={"encode": encode_sound_like(original)})
    return swap


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


def _step(key: str, original: PictureSpec, result: PictureSpec) -> StepUse | None:
    if key in ("size", "power of two", "multiple of four", "aspect"):
        return size_step(original, "fill")
    if key == "brightness":
        return _brightness_step(stops_between(original, result))
    if key == "contrast":
        return StepUse(do="match-tones")
    if key == "alpha":
        if original.alpha == "none":
            return StepUse(do="opaque")
        if result.background is not None and result.alpha == "none":
            return clear_step(result.background)
        return StepUse(do="keep-alpha" if result.alpha == "none" else "hard-alpha")
    if key == "channels" and original.meaning == "grey":
        return StepUse(do="grey")
    if key == "under alpha":
        return StepUse(do="spread")
    if key == "tiling" and (where := seams_of(original, result)):
        return seam_step(where)
    if key == "palette":
        return StepUse(do="few-colours", values={"from": "the original's"})
    return None


def _brightness_step(stops: float) -> StepUse:
    return StepUse(do="brightness", values={"stops": max(-4.0, min(round(stops, 1), 4.0))})


def _with_step(swap: Swap, use: StepUse) -> Swap:
    """The step in place of one of its kind, else last; a brightness adds to what is there."""
    places = [place for place, step in enumerate(swap.steps) if step.do == use.do]
    steps = list(swap.steps)
    if not places:
        steps.append(use)
    elif use.do == "brightness":
        before = float(steps[places[-1]].values.get("stops", 0.0))
        steps[places[-1]] = _brightness_step(before + float(use.values["stops"]))
    else:
        steps[places[-1]] = use
    return swap.model_copy(update={"steps": tuple(steps)})
