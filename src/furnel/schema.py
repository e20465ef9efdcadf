"""Files that people write: one base for their models, one way to read them, one kind of refusal."""

from __future__ import annotations

import tomllib
from typing import TypeVar

from pydantic import BaseModel, ConfigDict, ValidationError

from furnel.errors import FurnelError
from furnel.tomllines import line_of

Model = TypeVar("Model", bound=BaseModel)


def _dashed(name: str) -> str:
    return name.replace("_", "-")


class Part(BaseModel):
    """A table of such a file: frozen, keys with hyphens, nothing that is not declared."""

    model_config = ConfigDict(extra="forbid", frozen=True, alias_generator=_dashed, populate_by_name=True)


def parse_toml(model: type[Model], text: str, what: str, where: object, page: str) -> Model:
    """A model from TOML text. Raises FurnelError that names line and key, what was found, what is allowed, and the page."""
    try:
        return validated(model, tomllib.loads(text), what, where, page, text)
    except (tomllib.TOMLDecodeError, RecursionError) as error:
        raise FurnelError(
            what, where=where, why=str(error), remedy="Correct the TOML in a text editor"
        ) from error


def validated(model: type[Model], raw: object, what: str, where: object, page: str, text: str = "") -> Model:
    """A model from values that were read already; with their TOML text the refusal names the line."""
    try:
        return model.model_validate(raw)
    except ValidationError as error:
        line = line_of(text, error.errors()[0]["loc"]) if text else 0
        raise FurnelError(
            what,
            where=f"{where}, line {line}" if line else where,
            why=_explain(error),
            remedy=f"{page} lists what is allowed",
        ) from error


def _explain(error: ValidationError) -> str:
    """A validation error's first finding as a clause: the key, what was found, what is allowed."""
    first = error.errors()[0]
    key = ".".join(str(part) for part in first["loc"]) or "the file"
    found = first.get("input")
    shown = f", found {found!r:.60}" if isinstance(found, str | int | float | bool) else ""
    return f"{key}: {first['msg'][:1].lower()}{first['msg'][1:]}{shown}"
