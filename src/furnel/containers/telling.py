"""The fields that a description has, and another meaning given to one of them in the text, which stays as it is otherwise."""

from __future__ import annotations

from typing import Any, NamedTuple

import tomlkit
from tomlkit.exceptions import TOMLKitError

from furnel.containers.fields import FOLDER_ROLES, HEAD_ROLES, RAW_ROLES, ROW_ROLES, FieldPart, Fields
from furnel.containers.schema import Layout
from furnel.errors import FurnelError

_PLACES = {
    "start": (("start", "fields"),), "index start": (("index", "start"),), "folder": (("folders", "fields"),),
    "entry": (("index", "fields"), ("chain", "fields")), "head": (("entry", "head"),), "footer": (("footer", "fields"),),
}  # fmt: skip
_ROLES = {
    "start": HEAD_ROLES, "index start": HEAD_ROLES, "footer": HEAD_ROLES, "folder": FOLDER_ROLES,
    "entry": (*ROW_ROLES, *RAW_ROLES), "head": RAW_ROLES,
}  # fmt: skip


class Told(NamedTuple):
    """A field of a description and the record that it is in: `start`, `index start`, `folder`, `entry` (its record in the
    index or the chain), `head` (the record before its data) or `footer`."""

    group: str
    part: FieldPart

    @property
    def roles(self) -> tuple[str, ...]:
        """What it can hold without more being said: a sum says of which kind it is, too."""
        return tuple(role for role in _ROLES[self.group] if not role.endswith("sum"))


def told_fields(layout: Layout) -> list[Told]:
    """Every field, in the order of the records in most files."""
    index, chain = layout.index, layout.chain
    fields: dict[str, Fields] = {
        "start": layout.start.fields if layout.start else (),
        "index start": index.start if index else (),
        "folder": layout.folders.fields if layout.folders else (),
        "entry": index.fields if index else chain.fields if chain else (),
        "head": layout.entry.head,
        "footer": layout.footer.fields if layout.footer else (),
    }
    return [Told(group, part) for group, parts in fields.items() for part in parts]


def with_role(text: str, group: str, name: str, role: str) -> str:
    """A description in which a field holds `role` (nothing when it is empty), and no other field of its record does.

    Raises FurnelError where the text has no such field.
    """
    try:
        document: Any = tomlkit.parse(text.removeprefix("\ufeff"))
        found: list[Any] = next(
            (
                document[first][second]
                for first, second in _PLACES[group]
                if second in document.get(first, {})
            ),
            [],
        )
        wanted = next(field for field in found if field["name"] == name)
    except (TOMLKitError, StopIteration, KeyError, TypeError, AttributeError) as error:
        raise FurnelError(
            "Describing bytes", where=name, why=f"the description has no such field in its {group}",
            remedy="Mend what is wrong in the text first",
        ) from error  # fmt: skip
    for field in found:
        if field is wanted and role:
            field["holds"] = role
        elif "holds" in field and (field is wanted or field["holds"] == role):
            del field["holds"]
    return tomlkit.dumps(document)
