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


class _Other(Medium):
    name = "other"
    called = "file of another kind"
    kinds = ("other",)
    titles = ("Other",)
    spec_type = RawSpec

    def recognises(self, data: Data, path: str) -> bool:
        return True

    def facts(self, data: Data, size: int, path: str, does: frozenset[str]) -> Facts:
        return Facts("other", path.rpartition(".")[2].upper() if "." in path else "?")

    def spec(self, data: Data, path: str, role: RoleRule | None) -> RawSpec:
        return RawSpec(path.rpartition(".")[2].upper() or "binary", len(data))


OTHER = _Other()
