"""Pixels in memory: pictures, textures, colour, alpha, sizes and levels."""

from furnel.images.formats import FORMATS, PixelFormat, full_levels, level_size
from furnel.images.picture import Picture
from furnel.images.texture import Texture

__all__ = ["FORMATS", "Picture", "PixelFormat", "Texture", "full_levels", "level_size"]
