"""The table of fit points in docs/points.md, made from their records."""

from __future__ import annotations

import sys
from pathlib import Path

from furnel.mods.fit import POINT_TYPES, PointType
from furnel.mods.fit.point import ALL, SHEETS, SOUNDS, TEXTS, TEXTURES
from furnel.mods.steps import step_type

_KINDS = {
    TEXTURES: "Textures and sheets", SHEETS: "Sheets alone", SOUNDS: "Sounds and music", TEXTS: "Definitions",
    ("other",): "Other files", ALL: "Everything",
}  # fmt: skip
_HEAD = """# Fit points

What Furnel compares of a result and its original. Made from the points' records: `./run python -m demo.points docs/points.md`.
The key is what `insist` in a project names. *Put right by* says what *Fit all* and *Match it* use: steps, or the encoding.
"""


def table() -> str:
    """All points, by the kinds of assets that have them."""
    parts = [_HEAD]
    for kinds, title in _KINDS.items():
        rows = [point for point in POINT_TYPES if point.kinds == kinds]
        parts += [
            f"\n## {title}\n\n| point | key | why it matters | put right by |\n|---|---|---|---|\n",
            *map(_row, rows),
        ]
    return "".join(parts)


def _row(point: PointType) -> str:
    steps = [f"*{step_type(name).title}*" for name in point.served_by]
    means = [
        *steps,
        *(["the encoding"] if point.encoded else []),
        *(["*Match it*"] if point.mend and not steps else []),
    ]
    return f"| {point.label} | `{point.key}` | {point.why or '—'} | {', '.join(means) or '—'} |\n"


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(table(), "utf-8")
