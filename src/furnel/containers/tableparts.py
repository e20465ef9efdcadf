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
    one part of them beside the number of their `parent`, or beside the `first folder` in each and the `next folder` beside it.
    In the same way entries may tell the `next entry` of their folder; `free` stands where no further one is. As a `tree` each
    folder's record, from the outermost on, is followed by its `entries` and its `folders` (or these first), as many as it
    tells. Where the `path-is` the `ending`, folders are groups of entries that have it in common.
    """

    fields: CheckedFields = Field(min_length=1)
    shape: Literal["table", "tree"] = "table"
    place: Literal["before", "behind"] = "before"
    folders_first: bool = False
    path_is: Literal["folder", "ending"] = "folder"
    free: int | None = None

    @property
    def is_linked(self) -> bool:
        """Whether folders tell which ones are in them, and not in which one they are."""
        return "first folder" in held(self.fields)

    @property
    def in_parts(self) -> bool:
        """Whether a folder's name is one part of its path, and outer folders have records of their own."""
        return self.shape == "tree" or self.is_linked or "parent" in held(self.fields)

    def home(self, name: str) -> str:
        """The path of the folder that an entry of this name is in, or the ending that it has in common with others."""
        if self.path_is == "folder":
            return name.rpartition("/")[0]
        return name.rpartition("/")[2].rpartition(".")[2]

    def leaf(self, name: str) -> str:
        """What is left of an entry's name for its own record."""
        if self.path_is == "folder":
            return name.rpartition("/")[2]
        return name[: len(name) - len(self.home(name))].removesuffix(".")

    def joined(self, home: str, leaf: str) -> str:
        """A name, from the path of its folder and what its own record says."""
        return (f"{home}/{leaf}" if self.path_is == "folder" else f"{leaf}.{home}") if home else leaf

    @model_validator(mode="after")
    def _is_enough(self) -> FoldersPart:
        found = held(self.fields)
        only(found, set(FOLDER_ROLES), "folder")
        if "path" not in found:
            raise ValueError("a folder's record has a field that holds the path")
        if self.shape == "tree" and not {"entries", "folders"} <= found:
            raise ValueError("in a tree each folder tells how many entries and how many folders it has")
        if self.shape == "tree" and {"parent", "first entry", "first folder", "next folder"} & found:
            raise ValueError("in a tree folders tell of no parent, and of no first or next one")
        if ("first folder" in found) != ("next folder" in found) or (self.is_linked and "parent" in found):
            raise ValueError(
                "folders tell their parent, or the first folder in them and the next one beside them"
            )
        if self.is_linked and self.free is None:
            raise ValueError(
                "where folders tell the next one, free is the number that stands where there is none"
            )
        if self.path_is == "ending" and self.in_parts:
            raise ValueError("an ending is in no other: such folders are a table without parents")
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
