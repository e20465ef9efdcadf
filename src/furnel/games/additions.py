"""Additions: the kinds of new things that a game takes, as a profile describes them."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from furnel.schema import NameText, Part, PlainText, template

Template = Annotated[str, template("id", "title", "like")]
PathTemplate = Annotated[str, template("id", "number", needs="")]


class PlaceRule(Part):
    """An empty place of a new thing, for an asset of its own.

    Its file goes to the inner path `path` (or to several, for one that is needed at several sizes), is to be like `like`, and
    is named at `value` in the record, as `writes`. In `path` and `writes` `{id}` stands for the new thing's id and `{number}`
    for a number that is free; in `like` `{like}` for the id of what it is like, and with no `like` it is what the
    other record has in that place. A place that is `many` takes several files and writes a list. What is not `needed` may
    stay as the other has it, or is left out of the record when the place takes only its `own`. A `strip` takes a picture of a
    row of colours, which become the `value`; it has no path.
    """

    name: NameText
    path: tuple[PathTemplate, ...] = ()
    like: tuple[Annotated[str, template("like")], ...] = ()
    value: str = ""
    writes: Annotated[str, template("id", "path")] = "{path}"
    many: bool = False
    needed: bool = False
    own: bool = False
    strip: bool = False

    @model_validator(mode="after")
    def _goes_together(self) -> PlaceRule:
        if self.strip == bool(self.path):
            raise ValueError("it needs a path, or is a strip")
        if self.like and len(self.like) != len(self.path):
            raise ValueError("like has as many paths as path")
        if not self.like and not self.value:
            raise ValueError("it needs a value that names the other's asset, or like")
        return self


class JoinRule(Part):
    """A list or a text that a new thing joins: what is added (`to`, under `key` in a table) at an address of a definition.

    Texts of `to` may have `{id}` and `{title}` in them. `called` is for people, who may leave it out when it is `optional`.
    """

    called: NameText
    file: str
    at: str = ""
    key: Template = ""
    to: dict[str, Template] | Template = ""
    optional: bool = False


class AdditionRule(Part):
    """A kind of new thing: the definition whose table takes its `record`, what it writes there, its places, what it joins.

    What is `heard` in its recordings, their tempo or key, is written where nobody says otherwise.
    """

    id: Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]*$")]
    called: NameText
    why: PlainText = ""
    record: str
    values: dict[str, Template] = {}
    heard: dict[str, Literal["tempo", "key"]] = {}
    places: tuple[PlaceRule, ...] = ()
    joins: tuple[JoinRule, ...] = ()

    @property
    def needed(self) -> tuple[PlaceRule, ...]:
        """The places that have to be filled."""
        return tuple(place for place in self.places if place.needed)


def filled(value: Any, **names: str) -> Any:
    """A template, or a table of them, with names in it."""
    if isinstance(value, dict):
        return {key: filled(part, **names) for key, part in value.items()}
    return value.format(**names) if isinstance(value, str) else value
