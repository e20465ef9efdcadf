"""Fit points of definitions: whether they can be read, and what in them the game's own file does not know."""

from __future__ import annotations

from collections.abc import Sequence

from furnel.errors import FurnelError
from furnel.media import TextSpec
from furnel.mods.fit.point import TEXTS, Finding, FitPoint, PointType, same
from furnel.states import State
from furnel.texts import Fault
from furnel.texts.meaning import Sort


def _form(original: TextSpec, yours: TextSpec) -> Finding:
    well = "it parses" if original.taken_apart else "any text"
    if yours.fault:
        return Finding(well, yours.fault, "breaks", "Correct it in your text editor")
    return Finding(well, well)


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
    label="Key names",
    kinds=TEXTS,
    why="The game may not know this key: it is ignored, or misspelt",
)
_TYPES = PointType(
    key="types",
    label="Values",
    kinds=TEXTS,
    why="The game reads something else here, and stops or guesses",
)
_RANGE = PointType(
    key="range",
    label="Usual range",
    kinds=TEXTS,
    why="No other of the game's own goes so far: it may be meant, or a slip",
)
_NAMES = PointType(
    key="assets",
    label="Names",
    kinds=TEXTS,
    why="It names something that neither the game nor the mod has",
)
_RULES = PointType(
    key="rules",
    label="Allowed",
    kinds=TEXTS,
    why="The game does not take this value",
)
_TWINS = PointType(
    key="ids",
    label="Ids",
    kinds=TEXTS,
    why="Two records of one id: the game takes one of them, or stops",
)
_CHANGES = PointType(
    key="changes",
    label="Changes",
    kinds=TEXTS,
    why="The place of a change is gone: the game was updated, or an earlier change took it away",
)
_STRIPS = PointType(
    key="strip",
    label="Strip",
    kinds=TEXTS,
    why="The game paints the figure with the strip's colours: what the two do not share is not painted as it was meant",
)
MEANING_POINTS = (_KEYS, _TYPES, _RANGE, _NAMES, _RULES, _TWINS, _STRIPS, _CHANGES)
_BY_SORT: dict[Sort, tuple[PointType, str, State]] = {
    "keys": (_KEYS, "those that it has", "differs"),
    "types": (_TYPES, "of the same types", "breaks"),
    "range": (_RANGE, "among its own", "differs"),
    "names": (_NAMES, "all there", "breaks"),
    "rules": (_RULES, "what it takes", "breaks"),
    "twins": (_TWINS, "one of each", "breaks"),
    "strips": (_STRIPS, "as their figures", "differs"),
}


def fault_state(fault: Fault) -> State:
    """How bad a fault is."""
    return _BY_SORT[fault.sort][2]


def lost_change(error: FurnelError) -> FitPoint:
    """A change that does not apply to what the game has now."""
    where = f"{error.where}: " if error.where else ""
    return _CHANGES.point(Finding("their places", f"{where}{error.why}", "breaks", error.remedy))


def meaning_points(found: Sequence[Fault]) -> list[FitPoint]:
    """A definition's values against what is known of the game's own; a point for each sort of fault, the first ones named."""
    out = []
    for sort, (kind, original, state) in _BY_SORT.items():
        some = [fault for fault in found if fault.sort == sort]
        if some:
            why = "; ".join(dict.fromkeys(fault.why for fault in some if fault.why))
            remedy = next(
                (fault.remedy for fault in some if fault.remedy), "Check it against the game's own records"
            )
            out.append(kind.point(Finding(original, _listed(some), state, remedy, why)))
        elif sort not in ("twins", "strips"):
            out.append(kind.point(Finding(original, original)))
    return out


def _listed(faults: Sequence[Fault]) -> str:
    more = f" and {len(faults) - 3} more" if len(faults) > 3 else ""
    return ", ".join(f"{fault.address}: {fault.said}" for fault in faults[:3]) + more
