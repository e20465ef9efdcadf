"""Fitting definitions: whether they can be read, and what in them the game's own file does not know."""

from __future__ import annotations

from typing import cast

from furnel.mods.fit.point import FitPoint, State, same_or
from furnel.mods.spec import TextSpec
from furnel.texts import Misfits


def compare_texts(original: TextSpec, yours: TextSpec) -> list[FitPoint]:
    """The fit table of a text."""
    well = "it parses"
    return [
        same_or(
            "file",
            "File",
            original.file_type,
            yours.file_type,
            "breaks",
            "The game reads this kind of text only",
            "Save it so",
        ),
        FitPoint(
            "form",
            "Form",
            well,
            yours.fault or well,
            "breaks" if yours.fault else "fits",
            "A text that cannot be read is ignored, or stops the game; what its values mean is compared below, as far as the"
            " game's own file shows it",
            yours.fault and "Correct it in your text editor",
        ),
    ]


def meaning_points(found: Misfits) -> list[FitPoint]:
    """Keys, types and assets of a definition against the game's own file."""
    rows = (
        (
            "keys", "Keys", "those that it has", found.keys, "differs",
            "The game may not know this key: it is ignored, or misspelt", "Check the spelling against the game's own records",
        ),
        (
            "types", "Values", "of the same types", found.types, "breaks",
            "The game reads something else here, and stops or guesses", "Write what the game's own records have in this place",
        ),
        (
            "assets", "Assets", "all there", found.assets, "breaks",
            "It names something that neither the game nor the mod has", "Correct the name, or add the asset",
        ),
    )  # fmt: skip
    return [
        FitPoint(key, label, original, _listed(faults), cast(State, state), why, remedy)
        if faults
        else FitPoint(key, label, original, original, "fits", why)
        for key, label, original, faults, state, why, remedy in rows
    ]


def _listed(faults: tuple[str, ...]) -> str:
    more = f" and {len(faults) - 3} more" if len(faults) > 3 else ""
    return ", ".join(faults[:3]) + more
