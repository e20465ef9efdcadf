"""Which loudspeaker a channel is for, and how sounds are brought to another number of channels.

The order is that of WAV (Microsoft's multiple channel audio data specification); Ogg has another one (Vorbis I, 4.3.9). Mixing
down follows ITU-R BS.775-3, annex 4; the low-frequency channel is left out, as it says.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

_SPEAKERS = {
    1: "M", 2: "L R", 3: "L R C", 4: "L R BL BR", 5: "L R C BL BR", 6: "L R C LFE BL BR", 7: "L R C LFE BC SL SR",
    8: "L R C LFE BL BR SL SR",
}  # fmt: skip
# the place of each of WAV's channels among Ogg's
_OF_OGG = {
    3: (0, 2, 1),
    5: (0, 2, 1, 3, 4),
    6: (0, 2, 1, 5, 3, 4),
    7: (0, 2, 1, 6, 5, 3, 4),
    8: (0, 2, 1, 7, 5, 6, 3, 4),
}
_HALF = 0.5**0.5
_SURROUND = 1.41


def speakers(channels: int) -> tuple[str, ...]:
    """What the channels are: `L`, `R`, `C`, `LFE`, `BL` (back left), `SL` (side left) …; none for more than eight."""
    return tuple(_SPEAKERS.get(channels, "").split())


def loudness_weights(channels: int) -> tuple[float, ...]:
    """How much each channel counts for the loudness (ITU-R BS.1770-4, tables 3 and 4): not at all for low frequencies."""
    names = speakers(channels)
    sides = {"SL", "SR"} if "SL" in names else {"BL", "BR"}
    return (
        tuple(0.0 if name == "LFE" else _SURROUND if name in sides else 1.0 for name in names)
        or (1.0,) * channels
    )


def from_ogg(channels: int) -> tuple[int, ...] | None:
    """For each channel in WAV's order its place in Ogg's; None where the orders are the same."""
    return _OF_OGG.get(channels)


def to_ogg(channels: int) -> tuple[int, ...] | None:
    """For each channel in Ogg's order its place in WAV's; None where the orders are the same."""
    places = _OF_OGG.get(channels)
    return tuple(int(place) for place in np.argsort(places)) if places is not None else None


def mixing(source: int, target: int) -> npt.NDArray[np.float32] | None:
    """How much of each of `source` channels goes into each of `target` ones, (source, target); None beyond eight.

    No mix can be louder than full scale.
    """
    names, wanted = speakers(source), speakers(target)
    if not names or not wanted:
        return None
    out = np.zeros((source, target), np.float32)
    for row, name in enumerate(names):
        for other, share in _shares(name, wanted):
            out[row, wanted.index(other)] += share
    return out / max(float(out.sum(axis=0).max()), 1.0)


def _shares(name: str, wanted: tuple[str, ...]) -> list[tuple[str, float]]:
    """Where a channel goes, and how much of it."""
    if name in wanted:
        return [(name, 1.0)]
    if name == "LFE":
        return []
    if name == "M":
        return [("C", 1.0)] if "C" in wanted else [("L", 1.0), ("R", 1.0)]
    if wanted == ("M",):
        return [("M", {"C": 1.0, "L": _HALF, "R": _HALF}.get(name, 0.5))]
    if name == "C":
        return [("L", _HALF), ("R", _HALF)]
    if name == "BC":
        behind = next(
            ((left, right) for left, right in (("BL", "BR"), ("SL", "SR")) if left in wanted), ("L", "R")
        )
        return [(side, _HALF if behind != ("L", "R") else 0.5) for side in behind]
    side = name[-1]
    for other in (f"S{side}", f"B{side}"):
        if other in wanted:
            return [(other, 1.0)]
    return [(side, _HALF)]
