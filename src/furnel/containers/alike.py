"""Which old entry a new one is most like: what a description does not tell of entries is taken from it."""

from __future__ import annotations

from collections.abc import Iterable

from furnel.containers.schema import FieldPart, Fields


def most_like(path: str, paths: Iterable[str]) -> int:
    """The place of the old entry that a new one is most like: of the same kind by its name's ending and in the same folder if
    there is one, the last of them; -1 when none has its ending."""
    folder, ending = _folder(path), _ending(path)
    alike = [(_folder(old) == folder, place) for place, old in enumerate(paths) if _ending(old) == ending]
    return max(alike)[1] if alike else -1


def untold(fields: Fields) -> list[FieldPart]:
    """The fields of which a description does not say what they hold, nor what stands in new ones."""
    return [part for part in fields if part.value is None and not part.holds and not part.new]


def _folder(path: str) -> str:
    return path.rpartition("/")[0]


def _ending(path: str) -> str:
    name = path.rpartition("/")[2]
    return name.rpartition(".")[2] if "." in name else ""
