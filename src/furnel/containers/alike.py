"""Which old entry a new one is most like: what a description does not tell of entries is taken from it."""

from __future__ import annotations

from collections.abc import Iterable

from furnel.containers.fields import Fields


class Likeness:
    """The old entries of an archive by what is alike in their paths."""

    def __init__(self, paths: Iterable[str]) -> None:
        self._places: dict[tuple[str, ...], int] = {}
        for place, path in enumerate(paths):
            folder, ending = _parts(path)
            self._places[folder, ending] = self._places[(ending,)] = place

    def most_like(self, path: str) -> int:
        """The place of the old entry that a new one is most like: of the same kind by its name's ending and in the same folder
        if there is one, the last of them; -1 when none has its ending."""
        folder, ending = _parts(path)
        return self._places.get((folder, ending), self._places.get((ending,), -1))


def untold(fields: Fields) -> list[str]:
    """The names of fields and of their bits of which a description does not say what they hold, nor what stands in new ones."""
    free = [part for part in fields if part.value is None and not part.holds and not part.new]
    return [
        name for part in free for name in (part.name, *(bits.name for bits in part.bits if not bits.holds))
    ]


def _parts(path: str) -> tuple[str, str]:
    """The folder, and the ending of the name in it."""
    folder, _, name = path.rpartition("/")
    return folder, name.rpartition(".")[2] if "." in name else ""
