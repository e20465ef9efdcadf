"""Fit points of definitions: whether they can be read, and what in them the game's own file does not know."""

from __future__ import annotations

from furnel.errors import FurnelError
from furnel.media import TextSpec
from furnel.mods.fit.point import TEXTS, Finding, FitPoint, PointType, same
from furnel.states import State
from furnel.texts import Misfits

_WELL = "it parses"


def _form(_: TextSpec, yours: TextSpec) -> Finding:
    return (
        Finding(_WELL, yours.fault, "breaks", "Correct it in your text editor")
        if yours.fault
        else Finding(_WELL, _WELL)
    )


TEXT_POINTS = (
    PointType(
        key="file",
        label="File",
        kinds=TEXTS,
        why="The game reads this kind of text only",
        compare=lambda original, yours: same(original.file_type, yours.file_type, "breaks", "Save it so"),
    ),
    PointType(
        key="form",
        label="Form",
        kinds=TEXTS,
        why="A text that cannot be read is ignored, or stops the game; what its values mean is compared below, as far as the"
        " game's own file shows it",
        compare=_form,
    ),
)
_KEYS = PointType(
    key="keys",
    label="Keys",
    kinds=TEXTS,
    why="The game may not know this key: it is ignored, or misspelt",
)
_TYPES = PointType(
    key="types",
    label="Values",
    kinds=TEXTS,
    why="The game reads something else here, and stops or guesses",
)
_ASSETS = PointType(
    key="assets",
    label="Assets",
    kinds=TEXTS,
    why="It names something that neither the game nor the mod has",
)
_CHANGES = PointType(
    key="changes",
    label="Changes",
    kinds=TEXTS,
    why="The place of a change is gone: the game was updated, or an earlier change took it away",
)
MEANING_POINTS = (_CHANGES, _KEYS, _TYPES, _ASSETS)


def lost_change(error: FurnelError) -> FitPoint:
    """A change that does not apply to what the game has now."""
    where = f"{error.where}: " if error.where else ""
    return _CHANGES.point(Finding("their places", f"{where}{error.why}", "breaks", error.remedy))


def meaning_points(found: Misfits) -> list[FitPoint]:
    """Keys, types and assets of a definition against the game's own file."""
    rows: tuple[tuple[PointType, str, tuple[str, ...], State, str], ...] = (
        (
            _KEYS,
            "those that it has",
            found.keys,
            "differs",
            "Check the spelling against the game's own records",
        ),
        (
            _TYPES,
            "of the same types",
            found.types,
            "breaks",
            "Write what the game's own records have in this place",
        ),
        (_ASSETS, "all there", found.assets, "breaks", "Correct the name, or add the asset"),
    )
    return [
        kind.point(
            Finding(original, _listed(faults), state, remedy) if faults else Finding(original, original)
        )
        for kind, original, faults, state, remedy in rows
    ]


def _listed(faults: tuple[str, ...]) -> str:
    more = f" and {len(faults) - 3} more" if len(faults) > 3 else ""
    return ", ".join(faults[:3]) + more
