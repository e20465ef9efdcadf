"""The layout language: a TOML description of one family of archive, checked when it is read. See docs/layouts.md."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Annotated, Literal

from pydantic import Field, model_validator

from furnel.containers.container import Order
from furnel.containers.expressions import expression
from furnel.containers.fields import (
    HEAD_ROLES,
    INDEX_ROLES,
    RAW_ROLES,
    ROW_ROLES,
    CheckedFields,
    ExpressionText,
    FieldName,
    FieldPart,
    Fields,
    Role,
    SumKind,
    fixed_width,
    held,
    only,
    tells_here,
)
from furnel.containers.naming import NamesPart, Packing
from furnel.containers.packers import PackerPart, dictionaries, with_own_packers
from furnel.containers.packing import PACKINGS
from furnel.containers.rawparts import RawPart
from furnel.containers.tableparts import BucketsPart, FoldersPart, VolumesPart
from furnel.schema import OneOf, Part, template

StreamPacking = Annotated[str, OneOf(name for name, kind in PACKINGS.items() if kind.tells_end)]
Suffix = Annotated[str, Field(pattern=r"^\.[A-Za-z0-9_-]{1,16}$")]


class RecordPart(Part):
    """A record of fields one after the other."""

    fields: CheckedFields = Field(min_length=1)

    @model_validator(mode="after")
    def _head_roles(self) -> RecordPart:
        only(held(self.fields), set(HEAD_ROLES), "start or footer record")
        return self


class IndexPart(Part):
    """The table of entries: in the archive or a side file, behind the data or before it, packed as a whole or not."""

    fields: CheckedFields = Field(min_length=1)
    file: Suffix | Literal[""] = ""
    place: Literal["front", "back"] = "front"
    packed: Packing = "none"
    start: CheckedFields = ()
    names: Literal["fields", "table", "hash", "numbers"] = "fields"
    number: Annotated[str, template("number", needs="number")] = "{number:04}"
    sorted_by: Literal["name hash", "path"] | None = None
    empty: ExpressionText | None = None
    last: ExpressionText | None = None

    @property
    def roles(self) -> frozenset[str]:
        """What the entries' records tell."""
        return held(self.fields)

    @property
    def in_front(self) -> bool:
        """Whether it lies in the archive, before the data."""
        return self.place == "front" and not self.file

    @property
    def behind(self) -> bool:
        """Whether it lies in the archive, behind the data."""
        return self.place == "back" and not self.file

    @property
    def tells_places(self) -> bool:
        """Whether offsets are told, or data lies one after the other in the index's order."""
        return "offset" in held(self.fields)

    @property
    def tells_sizes(self) -> bool:
        """Whether sizes are told, or come from where the next entry begins."""
        return bool({"size", "stored size"} & held(self.fields))


class EntryPart(Part):
    """How the entries' bytes are stored. What nobody changed keeps its place when the archive is written where nothing `moves`,
    or where nobody says and there are bytes that nobody explains."""

    packed: Packing = "none"
    packings: dict[int, Packing] = {}
    packing: ExpressionText | None = None
    align: int = Field(1, ge=1, le=1 << 20)
    align_from: Literal["file", "data"] = "file"
    fill: int = Field(0, ge=0, le=255)
    pad_last: bool = False
    moves: bool | None = None
    prefix: str = ""
    suffix: str = ""
    head: CheckedFields = ()

    def path_of(self, name: str) -> str:
        """The path of what the archive calls so."""
        return f"{self.prefix}{name}{self.suffix}"

    def paths_of(self, names: Sequence[str]) -> Sequence[str]:
        """The paths of what the archive calls so."""
        return [self.path_of(name) for name in names] if self.told else names

    def name_of(self, path: str) -> str:
        """What the archive calls a path."""
        return path.removeprefix(self.prefix).removesuffix(self.suffix)

    def padding(self, at: int, data_start: int) -> int:
        """How many bytes there are from a place to the next one at which an entry may begin."""
        return -(at - (data_start if self.align_from == "data" else 0)) % self.align

    @property
    def told(self) -> int:
        """How much of every path is told here."""
        return len(self.prefix) + len(self.suffix)

    def fits(self, path: str) -> bool:
        """Whether a path is one that the archive can have."""
        return path.startswith(self.prefix) and path.endswith(self.suffix)


class MaskPart(Part):
    """A mask over the bytes of a part as they are stored: the `whole` file behind the record that stays plain, each `entry`,
    the `index`, a name table of its own (`names`).

    `key` are bytes that repeat from the part's beginning (hexadecimal digits), or `value` is an expression over the `position`,
    the part's `size` and those numbers of the start that always stay as they are; the mask is put on `by` exclusive-or (`xor`)
    or addition (`add`). Sums are of what is under it.
    """

    on: Literal["whole", "entry", "index", "names"]
    by: Literal["xor", "add"] = "xor"
    key: Annotated[str, Field(pattern=r"^([0-9a-fA-F]{2}){0,4096}$")] = ""
    value: ExpressionText | None = None

    @model_validator(mode="after")
    def _has_one(self) -> MaskPart:
        if (not self.key) == (self.value is None):
            raise ValueError("a mask has a key of bytes, or a value for each position")
        return self


class SumsPart(Part):
    """A side file with one checksum of each entry's stored bytes, in the order of the index."""

    file: Suffix
    sum: SumKind = "crc32"


class NestPart(Part):
    """A tagged chunk that is itself a chain, behind a record of `fields` (whose constants have to be there); `named-by` is the
    chunk inside that names it, or one of these fields; `parts` are its entries.

    A name of a nest that lies in another goes after that one's, with a slash. One without a name is `plain`: what is in it is
    called as if it lay around it.
    """

    tag: str
    fields: CheckedFields = ()
    plain: bool = False
    named_by: str = ""
    parts: dict[str, Annotated[str, template("name", "number")]] = {}


class ChainPart(Part):
    """Records one after the other, each followed by its data, to the end or to the tag that says so."""

    fields: CheckedFields = Field(min_length=1)
    align: int = Field(1, ge=1, le=65536)
    last: str = ""
    entries: dict[str, Annotated[str, template("number")]] = {}
    nests: tuple[NestPart, ...] = ()
    number: Annotated[str, template("number", needs="number")] = "{number:04}"


class WholePart(Part):
    """Compression around the whole file, after a record that stays plain; the layout describes what is inside."""

    packed: StreamPacking
    fields: CheckedFields = ()


class InsidePart(Part):
    """Entries that are archives themselves: by the pattern of their paths, and the layout (or zip) that they have."""

    files: str
    layout: str


class MorePart(Part):
    """A further index in the same file: `holds` says which fields of start and footer tell of it (what each of them then
    holds), `index`, `names` and `entry` are as the layout's own. What it has goes to the file's end when it grows."""

    holds: dict[FieldName, Role] = {}
    index: IndexPart
    names: NamesPart | None = None
    entry: EntryPart | None = None


class Layout(Part):
    """One family of archive: `index` or `chain` says where its entries are; or a loose file that is one picture or sound,
    which `single` describes."""

    furnel_layout: Literal[1]
    name: str = Field(pattern=r"^[a-z][a-z0-9-]*$")
    title: str
    files: tuple[str, ...] = Field(min_length=1)
    byte_order: Order = "little"
    whole: WholePart | None = None
    start: RecordPart | None = None
    footer: RecordPart | None = None
    index: IndexPart | None = None
    names: NamesPart = NamesPart()
    entry: EntryPart = Field(default_factory=lambda: EntryPart.model_validate({}))
    sums: SumsPart | None = None
    chain: ChainPart | None = None
    inside: tuple[InsidePart, ...] = ()
    masks: tuple[MaskPart, ...] = ()
    packers: tuple[PackerPart, ...] = ()
    folders: FoldersPart | None = None
    buckets: BucketsPart | None = None
    volumes: VolumesPart | None = None
    more: tuple[MorePart, ...] = ()
    raw: tuple[RawPart, ...] = ()
    single: RawPart | None = None

    @model_validator(mode="before")
    @classmethod
    def _own_packers(cls, told: object) -> object:
        return with_own_packers(told)

    @model_validator(mode="after")
    def _agrees(self) -> Layout:
        self._check()
        return self

    def _check(self) -> None:
        if [self.index, self.chain, self.single].count(None) != 2:
            raise ValueError("a layout has either an [index] or a [chain], or is a [single] file")
        self._check_raw()
        if self.footer is not None and fixed_width(self.footer.fields) is None:
            raise ValueError("the footer is found from the file's end, so its fields need fixed lengths")
        if self.index is not None:
            self._check_index(self.index)
        if self.chain is not None:
            self._check_chain(self.chain)
        if self.names.is_wide and any(
            part.holds == "path" and part.ends == "zero" for fields in self._row_fields() for part in fields
        ):
            raise ValueError(f"a zero byte ends no name in {self.names.encoding}: give it a length")
        if (
            self.names.is_wide
            and self.index is not None
            and self.index.names == "table"
            and self.names.ends == "zero"
        ):
            raise ValueError(
                f"a zero byte ends no name in {self.names.encoding}: names in a table need a length before them"
            )
        if self.names.shares and (
            self.index is None or self.index.names != "table" or self._tells_name_places(self.index)
        ):
            raise ValueError(
                "names that share letters lie one after the other in a table, without fields that tell their places"
            )
        self._check_masks()
        self._check_folders()
        self._check_buckets()
        self._check_volumes()
        if self.more:
            self._check_more()
        if self.dictionary_entries and (
            self.index is None or self.more or "none" not in self.entry.packings.values()
        ):
            raise ValueError(
                "a dictionary goes with one [index], and with packings of which one is none: it is not packed with itself"
            )
        told = self.entry.packing or any("packing" in held(fields) for fields in self._row_fields())
        if told and not self.entry.packings:
            raise ValueError("a field holds the packing: [entry] packings says which number means which")

    def _tells_name_places(self, index: IndexPart) -> bool:
        return "name offset" in held(index.fields)

    def _check_folders(self) -> None:
        rows = held(self.index.fields) if self.index is not None else frozenset[str]()
        if (part := self.folders) is None:
            if "folder" in rows:
                raise ValueError("a field holds the folder: [folders] says what these are")
            return
        index = self.index
        if (
            index is None
            or index.names not in ("fields", "table")
            or index.sorted_by
            or index.empty
            or index.last
        ):
            raise ValueError(
                "folders go with an index that has names, and is neither sorted nor has empty or last records"
            )
        if self.names.drop:
            raise ValueError("where there are folders names have no part to drop")
        told = ("folder" in rows, "entries" in held(part.fields), "next entry" in rows)
        if part.shape == "table" and sum(told) != 1:
            raise ValueError(
                "either entries tell their folder, or folders tell how many entries they have, or entries tell the next one"
            )
        if "next entry" in rows and ("first entry" not in held(part.fields) or part.free is None):
            raise ValueError(
                "where entries tell the next one, folders tell the first, and free is the number that ends them"
            )
        if part.shape == "tree" and index.names == "table" and not self._tells_name_places(index):
            raise ValueError("in a tree names are fields, or their places in a name table are told")

    def _check_buckets(self) -> None:
        rows = self.index.roles if self.index is not None else frozenset[str]()
        if (part := self.buckets) is None:
            if "next entry" in rows and self.folders is None:
                raise ValueError(
                    "a field holds the next entry: [buckets] says what is looked for in this way"
                )
            return
        index = self.index
        if (
            index is None
            or index.sorted_by
            or index.last
            or self.folders is not None
            or index.names == "numbers"
        ):
            raise ValueError(
                "buckets go with an index of named entries that is not sorted without a last record and folders"
            )
        if self.names.hash is None:
            raise ValueError("buckets are of hashes of the names: [names] hash says which one")
        if part.fields and index.empty:
            raise ValueError("an index that has a table of buckets has no empty records")
        if not part.fields and not index.empty:
            raise ValueError(
                "[index] empty says which slots are free, or [buckets] fields what each bucket tells"
            )
        if "next entry" in rows and (not part.fields or part.free is None):
            raise ValueError(
                "entries that tell the next one need a table of buckets, and the number that is free in it"
            )

    def _check_volumes(self) -> None:
        index = self.index
        told = index is not None and "volume" in index.roles
        if (part := self.volumes) is None:
            if told:
                raise ValueError("a field holds the volume: [volumes] says which files these are")
            return
        if index is None or index.file or not (index.tells_places and index.tells_sizes):
            raise ValueError("volumes go with an index that lies in the archive and tells offsets and sizes")
        if self.entry.align_from != "file":
            raise ValueError("where there are volumes alignment is counted from the beginning of each")
        if self.sums is not None or self.whole is not None or self.more:
            raise ValueError("volumes go without [whole], [sums] and [[more]]")
        if told == (part.size is not None):
            raise ValueError(
                "either entries tell their volume, or all are one stream, cut into files of a size"
            )
        apart = {"data offset", "data size"}
        if wrong := sorted(apart & {role for one in self._head_fields() for role in one.roles}):
            raise ValueError(f"where there are volumes no field holds the {wrong[0]}")
        if any(one.means and "data_start" in one.means for one in index.fields):
            raise ValueError("where there are volumes offsets are not counted from data_start")

    def _check_more(self) -> None:
        if self.index is None or self.sums is not None:
            raise ValueError("further indexes go with an [index], and without a side file of sums")
        names = {part.name for part in self._head_fields()}
        for part in self.more:
            if wrong := sorted({*part.holds} - names):
                raise ValueError(f"there is no field {wrong[0]!r} in start or footer")
            only(frozenset(part.holds.values()), set(INDEX_ROLES), "further index")
        for layout in self.with_one_index:
            index = layout.index
            assert index is not None
            if index.file or index.place != "front" or not (index.tells_places and index.tells_sizes):
                raise ValueError(
                    "where there are several indexes all lie in the archive (wherever their index offset says, so without "
                    "place or file), and tell offsets and sizes"
                )
            if any(part.means and "data_start" in part.means for part in index.fields):
                raise ValueError("where there are several indexes offsets are not counted from data_start")
            apart = {"names offset", "names size", "data offset", "data size"}
            if told := sorted(apart & {role for part in layout._head_fields() for role in part.roles}):
                raise ValueError(f"where there are several indexes no field holds the {told[0]}")
            if layout is not self:
                layout._check()

    def _head_fields(self) -> Fields:
        return tuple(
            part for record in (self.start, self.footer) if record is not None for part in record.fields
        )

    @property
    def with_one_index(self) -> tuple[Layout, ...]:
        """For each index the layout that has only that one."""
        whole = {"more": (), "inside": (), "raw": ()}
        out = [self.model_copy(update=whole)]
        for part in self.more:
            heads = {}
            for name, record in (("start", self.start), ("footer", self.footer)):
                if record is not None:
                    fields = tuple(_holding(one, part.holds) for one in record.fields)
                    heads[name] = record.model_copy(update={"fields": fields})
            own = {"index": part.index, "names": part.names or self.names, "entry": part.entry or self.entry}
            out.append(self.model_copy(update={**whole, **heads, **own, "folders": None, "buckets": None}))
        return tuple(out)

    @property
    def told_of_indexes(self) -> frozenset[str]:
        """The fields of start and footer that tell of an index, when there are several."""
        mine = {part.name for part in self._head_fields() if part.roles & INDEX_ROLES}
        return frozenset(mine.union(*(part.holds for part in self.more)))

    @property
    def dictionary_entries(self) -> frozenset[str]:
        """The entries that are dictionaries of others, which have to be read before these."""
        return frozenset(part.dictionary for part in self.packers if part.dictionary)

    def with_dictionaries(self, read: Callable[[str], bytes]) -> Layout:
        """The layout whose packings have the dictionaries that `read` gives by their paths. Raises FurnelError."""
        part = self.entry
        unbound = dictionaries({part.packed, *part.packings.values()})
        keys = {key: kind.bound(read(kind.part.dictionary)) for key, kind in unbound.items()}
        if not keys:
            return self
        packings = {code: keys.get(packing, packing) for code, packing in part.packings.items()}
        told = {"packed": keys.get(part.packed, part.packed), "packings": packings}
        return self.model_copy(update={"entry": part.model_copy(update=told)})

    def leaf(self, path: str) -> str:
        """What an entry of that path is called in its record."""
        name = self.entry.name_of(path)
        return self.folders.leaf(name) if self.folders is not None else name

    def _tells_size(self, on: str) -> bool:
        """Whether the size of the index or of a name table of its own is told, or the index fills what is left."""
        if self.index is None or on not in ("index", "names"):
            return True
        told = self._told_in_heads(self.index)
        if on == "names":
            return "names size" in told
        return not self.index.in_front or bool({"index size", "index stored size"} & told)

    def _check_masks(self) -> None:
        start = self.start.fields if self.start is not None else ()
        steady = {part.name for part in start if not part.roles and not part.bits and part.is_number}
        for mask in self.masks:
            known = {"position", "size", *(steady if mask.on in ("entry", "index", "names") else ())}
            if mask.value is not None and (wrong := sorted(expression(mask.value).names - known)):
                raise ValueError(
                    f"the mask on {mask.on} cannot depend on {wrong[0]}: it knows {', '.join(sorted(known))}"
                )
            if (
                mask.value is not None
                and "size" in expression(mask.value).names
                and not self._tells_size(mask.on)
            ):
                raise ValueError(f"the mask on the {mask.on} depends on its size, and no field tells that")
        masked = any(mask.on == "whole" for mask in self.masks)
        if masked and self.whole is None:
            raise ValueError(
                'a mask on the whole file goes with [whole] (packed = "none" where it is not packed)'
            )
        if self.whole is not None and self.whole.packed == "none" and not masked:
            raise ValueError("[whole] packs the file or has a mask")

    @property
    def footer_width(self) -> int:
        return (fixed_width(self.footer.fields) or 0) if self.footer is not None else 0

    def _check_raw(self) -> None:
        for part in (*self.raw, *((self.single,) if self.single is not None else ())):
            part.check_told(self.told_roles)
        if self.single is not None and (self.raw or self.whole or self.start or self.footer or self.masks):
            raise ValueError("a [single] file has nothing around it: its fields are those of [single]")

    @property
    def told_roles(self) -> frozenset[str]:
        """What of bare data the fields around it tell."""
        further = [
            fields for one in self.more for fields in (one.index.fields, one.entry.head if one.entry else ())
        ]
        around = (*self._row_fields(), self.entry.head, *further)
        return frozenset[str]().union(*(held(fields) for fields in around)) & set(RAW_ROLES)

    def _row_fields(self) -> tuple[Fields, ...]:
        return tuple(part.fields for part in (self.index, self.chain) if part is not None)

    def _check_index(self, index: IndexPart) -> None:
        roles = held(index.fields)
        only(roles, {*ROW_ROLES, *RAW_ROLES}, "index")
        only(held(index.start), set(HEAD_ROLES), "index's start")
        here = {part.name for part in index.fields if tells_here(part)}
        around = (self.folders, self.buckets)
        if here and (
            fixed_width(index.fields) is None
            or index.packed != "none"
            or any(part is not None and (part.place == "before" or part.fields == ()) for part in around)
            or (self.folders is not None and self.folders.shape == "tree")
        ):
            raise ValueError(
                f"the field {min(here)} counts from here: that takes records of a fixed length in an index that is not packed, "
                "with no folders or buckets before them"
            )
        wanted = {"fields": "path", "table": None, "hash": "name hash", "numbers": None}[index.names]
        if index.last is not None and (
            fixed_width(index.fields) is None
            or index.names == "table"
            or "entry count" in self._told_in_heads(index)
        ):
            raise ValueError(
                "records up to a last one have a fixed length, no name table behind them, and no entry count elsewhere"
            )
        if wanted and wanted not in roles:
            raise ValueError(f"the index has no field that holds the {wanted}")
        if not index.tells_places and not {"size", "stored size"} & roles:
            raise ValueError(
                "the index has no field that holds the offset, and none that holds a size to reckon it from"
            )
        if not index.tells_places and (
            index.sorted_by or index.empty or ("stored size" not in roles and self.entry.packings)
        ):
            raise ValueError(
                "without a field that holds the offset, data lies in the index's order: it cannot be sorted, has no empty "
                "records, and packed entries need a field that holds the stored size"
            )
        if "name hash" in roles and self.names.hash is None:
            raise ValueError("a field holds the name hash: [names] hash says which one")
        if self.sums is not None and index.names != "numbers" and index.sorted_by:
            raise ValueError("a side file of sums follows the index's order, which cannot be sorted then")
        head = held(self.start.fields if self.start else ()) | held(self.footer.fields if self.footer else ())
        if index.packed != "none" and index.in_front and "index stored size" not in head:
            raise ValueError("a packed index in front needs a start field that holds the index stored size")
        ends = {"index size", "index stored size", "names size", "names offset"}
        if index.names == "table" and index.in_front and not ends & (head | held(index.start)):
            raise ValueError(
                "names behind an index in front need a start field that holds the names size or the index size"
            )
        if index.behind and "index offset" not in head:
            raise ValueError(
                "an index behind the data needs a start or footer field that holds the index offset"
            )
        if (
            fixed_width(index.fields) is None
            and "entry count" not in head | held(index.start)
            and index.names == "table"
        ):
            raise ValueError(
                "names behind records of no fixed length need a field that holds the entry count"
            )

    def _told_in_heads(self, index: IndexPart) -> frozenset[str]:
        records = (
            self.start.fields if self.start else (),
            self.footer.fields if self.footer else (),
            index.start,
        )
        return frozenset[str]().union(*(held(fields) for fields in records))

    def _check_chain(self, chain: ChainPart) -> None:
        roles = held(chain.fields)
        only(roles, {*ROW_ROLES, *RAW_ROLES, "tag"} - {"offset", "name offset"}, "chain")
        if not {"size", "stored size"} & roles:
            raise ValueError("a chain's fields hold the size or the stored size")
        if (chain.entries or chain.nests or chain.last) and "tag" not in roles:
            raise ValueError("a chain with entries, nests or last by tag has a field that holds the tag")
        if self.whole is None and self.sums is not None:
            raise ValueError("a side file of sums belongs to an index")


def _holding(part: FieldPart, holds: Mapping[str, str]) -> FieldPart:
    """A field of start or footer as it is for a further index."""
    if part.name in holds:
        return part.model_copy(update={"holds": holds[part.name]})
    bits = tuple(
        one.model_copy(update={"holds": None}) if one.holds in INDEX_ROLES else one for one in part.bits
    )
    return part.model_copy(update={"holds": None if part.holds in INDEX_ROLES else part.holds, "bits": bits})
