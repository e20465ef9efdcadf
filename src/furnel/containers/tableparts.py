"""How a layout says what lies beside the entries' records: folders that they are in, buckets of a hash table."""

from __future__ import annotations

from pathlib import PurePath
from typing import Annotated, Literal

from pydantic import Field, model_validator

from furnel.containers.fields import FOLDER_ROLES, CheckedFields, ExpressionText, fixed_width, held, only
from furnel.schema import Part, template


class FoldersPart(Part):
    """The folders that entries are in. As a `table` of records `place`d before the entries' or behind them: entries tell the
    number of their `folder`, or folders their `first entry` and how many `entries` they have; their names are whole paths, or
    one part of them beside the number of their `parent`. As a `tree` each folder's record, from the outermost on, is followed
    by its `entries` and its `folders` (or these first), as many as it tells.
    """

    fields: CheckedFields = Field(min_length=1)
    shape: Literal["table", "tree"] = "table"
    place: Literal["before", "behind"] = "before"
    folders_first: bool = False

    @model_validator(mode="after")
    def _is_enough(self) -> FoldersPart:
        found = held(self.fields)
        only(found, set(FOLDER_ROLES), "folder")
        if "path" not in found:
            raise ValueError("a folder's record has a field that holds the path")
        if self.shape == "tree" and not {"entries", "folders"} <= found:
            raise ValueError("in a tree each folder tells how many entries and how many folders it has")
        if self.shape == "tree" and {"parent", "first entry"} & found:
            raise ValueError("in a tree folders have no number of a parent and no first entry")
        return self


class VolumesPart(Part):
    """Numbered files beside the archive that the entries' bytes lie in: `files` is what they are called (`{stem}` is the
    archive's name without its ending and what `drop` says, `{number}` counts from `first`).

    Each entry tells its `volume`, and offsets are counted in that; or all are one stream, cut into files of `size` bytes.
    """

    files: Annotated[str, Field(pattern=r"^[^/\\\\]{1,120}$"), template("stem", "number", needs="number")]
    first: int = Field(0, ge=0, le=1000)
    drop: str = ""
    size: int | None = Field(None, ge=1)

    def file_name(self, archive: str, number: int) -> str:
        """What the volume with a number (from 0) of an archive is called."""
        stem = PurePath(archive).stem.removesuffix(self.drop)
        return self.files.format(stem=stem, number=self.first + number)


class BucketsPart(Part):
    """A hash table over the names: an entry is in bucket `of` its name's `hash`, of as many `buckets` as `count` says.

    With `fields` there is a table of buckets `place`d before the entries' records or behind them, which tells each bucket's
    `first entry`; the bucket's other entries follow it in the index, or each tells the `next entry`. `free` stands in an empty
    bucket, and where no next one is. Without `fields` the records themselves are the slots: an entry is in that of its bucket,
    or the next one that is free.
    """

    count: ExpressionText
    of: ExpressionText = "hash % buckets"
    place: Literal["before", "behind"] = "before"
    fields: CheckedFields = ()
    free: int | None = None

    @model_validator(mode="after")
    def _is_enough(self) -> BucketsPart:
        only(held(self.fields), {"first entry", "entries"}, "bucket")
        if self.fields and (fixed_width(self.fields) is None or "first entry" not in held(self.fields)):
            raise ValueError("a bucket has a fixed length and a field that holds the first entry")
        return self
