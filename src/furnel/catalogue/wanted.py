"""What somebody looks for: a colour, a picture or a sound, by which a whole catalogue is ranked."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from furnel.catalogue.likeness import Ranking, like_colour, like_picture, like_sound
from furnel.catalogue.marking import Marks
from furnel.catalogue.marks import sound_marks
from furnel.images.picture import Picture
from furnel.media import medium_of
from furnel.sound import Clip

SIDE = 512


@dataclass(frozen=True, slots=True, eq=False)
class Wanted:
    """One of a picture, a clip or a colour (sRGB), and what to call it."""

    name: str
    picture: Picture | None = None
    clip: Clip | None = None
    colour: tuple[int, int, int] = (0, 0, 0)

    def rank(self, marks: Marks, kin_once: bool = True) -> Ranking:
        """Everything of its kind, the most alike first; of kin only the best is in it when they count `kin_once`."""
        if self.picture is not None:
            ranking = like_picture(marks.pictures, self.picture)
        elif self.clip is not None:
            ranking = like_sound(marks.sounds, sound_marks(self.clip))
        else:
            ranking = like_colour(marks.pictures, self.colour)
        if not kin_once:
            return ranking
        groups = marks.kin.groups[ranking.rows]
        alone = -1 - np.arange(len(groups))
        _, first = np.unique(np.where(groups >= 0, groups, alone), return_index=True)
        kept = np.sort(first)
        return Ranking(ranking.rows[kept], ranking.scores[kept])


def read_wanted(data: bytes, name: str, where: object) -> Wanted:
    """A picture's or a sound's bytes to look for. Raises FurnelError for what is neither."""
    found = medium_of(data, where or name).glanced(data, where, SIDE)
    return Wanted(name, picture=found) if isinstance(found, Picture) else Wanted(name, clip=found)
