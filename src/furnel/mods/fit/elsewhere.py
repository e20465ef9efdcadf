"""Fit points that two specs do not show: what steps did to a source, what a game update moved, what cannot be read."""

from __future__ import annotations

from furnel.mods.fit.point import ALL, SHEETS, SOUNDS, TEXTURES, PointType, same

KIND = PointType(
    key="kind",
    label="Kind",
    kinds=ALL,
    why="The game expects another kind of file here",
)
FILE = PointType(
    key="file",
    label="File",
    kinds=("other",),
    why="",
    compare=lambda original, yours: same(original.file_type, yours.file_type, "differs", ""),
)
CUT = PointType(
    key="cut",
    label="Left out",
    kinds=SOUNDS,
    why="What is cut off is not heard: a word, an echo, an end",
    served_by=("length",),
)
ORDER = PointType(
    key="order",
    label="Order",
    kinds=SHEETS,
    why="The sheet was turned or mirrored as a whole: its last frame comes first, and the animation plays backwards",
)
LEFTOVER = PointType(
    key="leftover",
    label="Left-over colours",
    kinds=SHEETS,
    why="Pixels of a colour that was taken away or changed are still there: nobody can unsee them",
)
STRIP = PointType(
    key="strip",
    label="Strip",
    kinds=TEXTURES,
    why="The game paints the figure with the strip's colours: what the two do not share is not painted as it was meant",
)
DRIFT = PointType(
    key="drift",
    label="Drift",
    kinds=ALL,
    why="The game was updated and this original is no longer the one you matched",
)
NAME = PointType(
    key="name",
    label="Name",
    kinds=ALL,
    why="The game has no asset of this name",
)
SOURCE = PointType(
    key="source",
    label="Source",
    kinds=ALL,
    why="Without its source a swap has no result",
)
ELSEWHERE = (KIND, FILE, CUT, ORDER, LEFTOVER, STRIP, DRIFT, NAME, SOURCE)
