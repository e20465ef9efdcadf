"""Alpha: keys, masks, and the colour under clear pixels."""

from __future__ import annotations

from typing import Literal

import numpy as np
import numpy.typing as npt

from furnel.images.picture import Picture
from furnel.images.resample import resize

Under = Literal["none", "spread", "black", "white", "mixed"]


def keyed(picture: Picture, colour: tuple[int, int, int], tolerance: float, softness: float) -> Picture:
    """Pixels within `tolerance` of a colour (0 to 255 in the channel that is farthest) made clear, fading over `softness`."""
    distance = np.abs(picture.pixels[..., :3].astype(np.int32) - np.array(colour, np.int32)).max(axis=2)
    keep = np.clip((distance - tolerance) / max(softness, 1e-6), 0.0, 1.0)
    out = picture.pixels.copy()
    out[..., 3] = np.round(out[..., 3] * keep)
    out[out[..., 3] == 0] = 0
    return Picture(out)


def unblended(picture: Picture, colour: tuple[int, int, int]) -> Picture:
    """As much of a colour as possible turned into transparency: over that colour the result looks like the picture."""
    back = np.array(colour, np.float32)
    values = picture.pixels[..., :3].astype(np.float32)
    room = np.where(values > back, 255 - back, back)
    needed = np.where(room > 0, np.abs(values - back) / np.maximum(room, 1e-6), 0.0)
    alpha = needed.max(axis=2)
    clean = back + (values - back) / np.maximum(alpha, 1e-6)[..., None]
    out = np.empty_like(picture.pixels)
    out[..., :3] = np.round(np.clip(clean, 0, 255))
    out[..., 3] = np.round(alpha * picture.pixels[..., 3])
    out[out[..., 3] == 0] = 0
    return Picture(out)


def hardened(picture: Picture, threshold: int) -> Picture:
    """Every pixel clear or opaque, opaque from an alpha of `threshold` on."""
    out = picture.pixels.copy()
    out[..., 3] = np.where(out[..., 3] >= threshold, 255, 0)
    return Picture(out)


def masked(picture: Picture, mask: npt.NDArray[np.float32], outside: Picture | None = None) -> Picture:
    """A picture where `mask` (height, width) is 1; elsewhere clear, or `outside` (of the same size)."""
    share = mask[..., None]
    out = picture.pixels.astype(np.float32)
    if outside is None:
        out[..., 3:] *= share
    else:
        out = outside.pixels + (out - outside.pixels) * share
    return Picture(np.round(out).astype(np.uint8))


def with_alpha_of(picture: Picture, original: Picture) -> Picture:
    """A picture with another's alpha, brought to its size."""
    alpha = resize(original, *picture.size, "area").pixels[..., 3]
    out = picture.pixels.copy()
    out[..., 3] = alpha
    return Picture(out)


def spread_under(picture: Picture, threshold: int = 1) -> Picture:
    """Clear pixels (alpha below `threshold`) given the colour of the nearest one that is seen; alpha stays."""
    seen = picture.pixels[..., 3] >= threshold
    if seen.all() or not seen.any():
        return picture
    from scipy.ndimage import distance_transform_edt

    rows, columns = distance_transform_edt(~seen, return_distances=False, return_indices=True)
    out = picture.pixels.copy()
    out[..., :3] = picture.pixels[rows, columns, :3]
    return Picture(out)


def filled_under(picture: Picture, colour: tuple[int, int, int]) -> Picture:
    """Wholly clear pixels given one colour; alpha stays."""
    out = picture.pixels.copy()
    out[out[..., 3] == 0, :3] = colour
    return Picture(out)


def under_alpha(pixels: npt.NDArray[np.uint8]) -> Under:
    """What lies under wholly clear pixels beside seen ones: `none` when there are none, else black, white, the colour of
    their neighbours (`spread`), or something else (`mixed`).
    """
    clear = pixels[..., 3] == 0
    if not clear.any() or clear.all():
        return "none"
    from scipy.ndimage import binary_dilation

    rim = clear & binary_dilation(~clear, np.ones((3, 3), bool))
    under = pixels[rim][:, :3].astype(int)
    if np.mean(under.max(axis=1) <= 4) > 0.95:
        return "black"
    if np.mean(under.min(axis=1) >= 251) > 0.95:
        return "white"
    spread = spread_under(Picture(np.ascontiguousarray(pixels))).pixels[rim][:, :3].astype(int)
    return "spread" if np.mean(np.abs(under - spread).max(axis=1) <= 48) > 0.8 else "mixed"
