"""Bytes that Furnel cannot look into: taken as they are."""

from __future__ import annotations

from dataclasses import dataclass

from furnel.games import RoleRule
from furnel.media.medium import Data, Facts, Kind, Medium, Spec


@dataclass(frozen=True, slots=True)
class RawSpec(Spec):
    """Bytes that Furnel cannot look into."""

    file_type: str
    size: int

    @property
    def kind(self) -> Kind:
        return "other"


def _ending(path: str) -> str:
    """What stands behind the last dot of a file's name, in capitals; nothing where there is none."""
    name = path.replace("\\", "/").rpartition("/")[2]
    return name.rpartition(".")[2].upper() if "." in name else ""


class _Other(Medium):
    name = "other"
    called = "file of another kind"
    kinds = ("other",)
    titles = ("Other",)
    spec_type = RawSpec

    def recognises(self, data: Data, path: str) -> bool:
        return True

    def facts(self, data: Data, size: int, path: str, does: frozenset[str]) -> Facts:
        return Facts("other", _ending(path) or "?")

    def spec(self, data: Data, path: str, role: RoleRule | None) -> RawSpec:
        return RawSpec(_ending(path) or "binary", len(data))


OTHER = _Other()
