"""Fitting definitions."""

from __future__ import annotations

from furnel.mods.fit.point import FitPoint, same_or
from furnel.mods.spec import TextSpec


def compare_texts(original: TextSpec, yours: TextSpec) -> list[FitPoint]:
    """The fit table of a text."""
    well = "well formed"
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
            "A text that cannot be read is ignored, or stops the game",
            yours.fault and "Correct it in your text editor",
        ),
    ]
