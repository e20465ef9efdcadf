"""BC2's alpha: four bits a pixel, stored as they are, in front of a block of colours like BC3's."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt


def unpack_alpha(words: npt.NDArray[np.uint32], width: int, height: int) -> npt.NDArray[np.uint8]:
    """Alpha (height, width) from blocks (count, 4 words)."""
    rows, across = -(-height // 4), -(-width // 4)
    nibbles = (words[:, :2, None] >> np.arange(0, 32, 4, dtype=np.uint32)) & np.uint32(15)
    grid = nibbles.reshape(rows, across, 4, 4).swapaxes(1, 2).reshape(rows * 4, across * 4)
    return (grid[:height, :width] * 17).astype(np.uint8)


def pack_alpha(alpha: npt.NDArray[np.uint8], words: npt.NDArray[np.uint32]) -> None:
    """Alpha (height, width) into the first two words of blocks (count, 4 words); edges are repeated."""
    height, width = alpha.shape
    grown = np.pad(alpha, ((0, -height % 4), (0, -width % 4)), mode="edge").astype(np.uint32)
    small = (grown * 15 + 127) // 255
    blocks = small.reshape(grown.shape[0] // 4, 4, grown.shape[1] // 4, 4).swapaxes(1, 2).reshape(-1, 2, 8)
    words[:, :2] = (blocks << np.arange(0, 32, 4, dtype=np.uint32)).sum(axis=2, dtype=np.uint32)
