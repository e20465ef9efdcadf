"""What comparing a result with its original gave, kept on disk by everything that it was worked out from."""

from __future__ import annotations

import contextlib
import json
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from furnel.atomic import write_text
from furnel.errors import FurnelError
from furnel.media import MEDIA, Spec
from furnel.mods.fit import FitPoint


@dataclass(frozen=True, slots=True)
class Examination:
    """The fit points (drift and kept points left aside), the original's spec and the result's."""

    points: tuple[FitPoint, ...]
    original: Spec
    result: Spec


def read_examination(folder: Path, key: str) -> Examination | None:
    """What was kept under a key, or None."""
    with contextlib.suppress(OSError, ValueError, KeyError, TypeError):
        found = json.loads((folder / f"{key}.fit").read_bytes())
        points = tuple(_adapter("FitPoint").validate_python(point) for point in found["points"])
        return Examination(points, _loaded(found["original"]), _loaded(found["result"]))
    return None


def keep_examination(folder: Path, key: str, found: Examination) -> None:
    """Keep it; that it cannot be kept is no reason to stop anything."""
    points = [_adapter("FitPoint").dump_python(point) for point in found.points]
    row = {"points": points, "original": _dumped(found.original), "result": _dumped(found.result)}
    with contextlib.suppress(FurnelError):
        write_text(folder / f"{key}.fit", json.dumps(row))


def _dumped(spec: Spec) -> list[Any]:
    return [type(spec).__name__, _adapter(spec.__class__.__name__).dump_python(spec)]


def _loaded(row: list[Any]) -> Spec:
    spec: Spec = _adapter(row[0]).validate_python(row[1])
    return spec


@lru_cache(maxsize=8)
def _adapter(name: str) -> TypeAdapter[Any]:
    known: tuple[type, ...] = (FitPoint, *(medium.spec_type for medium in MEDIA))
    return TypeAdapter(next(kind for kind in known if kind.__name__ == name))
