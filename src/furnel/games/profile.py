"""Profiles: TOML files that describe one game each. See docs/profiles.md."""

from __future__ import annotations

import fnmatch
import hashlib
import logging
import re
from functools import cache, cached_property
from importlib import resources
from importlib.resources.abc import Traversable
from pathlib import Path
from typing import Annotated, Literal, get_args

from pydantic import AfterValidator, Field, PrivateAttr, StringConstraints, field_validator, model_validator

from furnel.containers import RawPart
from furnel.containers.sums import listed_names
from furnel.errors import FurnelError, reason
from furnel.folders import own_place, state_folder
from furnel.games.additions import AdditionRule
from furnel.games.looprecord import LoopRecord
from furnel.games.modfiles import AboutFile, OrderFile
from furnel.remembered import recall, remember
from furnel.schema import (
    Colour,
    GlobText,
    InsidePath,
    ModsPath,
    NameText,
    Part,
    Pixels,
    parse_toml,
    takes_for_ever,
    template,
)
from furnel.sprites.layout import Anchor, Animation, SheetLayout, parse_cells
from furnel.sprites.palette import parse_colours
from furnel.texts import EventKeys, Form, ValueRule

log = logging.getLogger(__name__)
WHAT = "Reading a profile"


def _file_name(name: str) -> str:
    if "/" in name or "\\" in name or name.startswith("."):
        raise ValueError("it is the name of a file, without folders")
    return name


NotNegative = Annotated[int, Field(ge=0)]
AssetTemplate = Annotated[str, template("folder", "stem")]
_MOST_VERSION = 1 << 20

Behaviour = Literal[
    "sheet", "tiles", "gauge", "glow", "emblem", "tint", "mask", "normals", "loop", "event", "definition"
]
"""What a game may do with an asset that Furnel knows how to look at, whatever the game calls it."""


class ArchiveRule(Part):
    """Which files of an install are archives, what layout they have and what goes before their inner paths.

    `layout` is a layout's name, `zip` or `folder`; `{stem}` in `prefix` stands for the file's name without ending. `raw` says
    which entries are bare pixels or samples, and what they are. A prefix that only tells archives `apart` in Furnel is no part
    of the paths in a mod.
    """

    files: GlobText
    layout: str
    prefix: Annotated[str, template("stem")] = ""
    inside: dict[str, str] = {}
    raw: tuple[RawPart, ...] = ()
    carve: bool = False
    apart: bool = False

    @field_validator("raw")
    @classmethod
    def _tells_all(cls, raw: tuple[RawPart, ...]) -> tuple[RawPart, ...]:
        for part in raw:
            part.check_told(frozenset())
        return raw


class VersionRule(Part):
    """How an install tells its version: a file, and a pattern whose first group is the version."""

    file: InsidePath
    pattern: str

    @field_validator("pattern")
    @classmethod
    def _has_a_group(cls, pattern: str) -> str:
        try:
            if takes_for_ever(pattern):
                raise ValueError("a repeat within a repeat can take for ever: write it with one")
            if re.compile(pattern).groups < 1:
                raise ValueError("it has no group in parentheses around the version")
        except re.error as error:
            raise ValueError(f"it is not a regular expression: {error}") from error
        return pattern


class NamesRule(Part):
    """A list of inner paths, one a line, for archives that only have their hashes; for one version of the game, or for all."""

    file: InsidePath
    version: str = ""


class BeatsRule(Part):
    """A part of a song: as long as `count` beats of the song's tempo, to the frame, in step with the other parts of its folder.

    The song's record is in the definition `file`; its `tempo` (beats a minute), `key` and `title` stand at these addresses,
    where `{name}` is the name of the part's folder.
    """

    count: int = Field(ge=1, le=4096)
    file: InsidePath
    tempo: Annotated[str, template("name", needs="name")]
    key: Annotated[str, template("name")] = ""
    title: Annotated[str, template("name")] = ""


class AnimationRule(Part):
    """An animation of a sheet: its `cells` in the order in which they are shown (`1-5`, `6,7,6`), its `speed` in frames a
    second, and whether its figures stay with their `feet` or their `centre`."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=40)]
    cells: str
    speed: float = Field(8.0, gt=0, le=120)
    anchor: Anchor = "feet"

    @field_validator("cells")
    @classmethod
    def _are_cells(cls, cells: str) -> str:
        try:
            if not parse_cells(cells):
                raise ValueError("it names no cell")
        except FurnelError as error:
            raise ValueError(f"{error.where} {error.why}") from error
        return cells


class RoleRule(Part):
    """What the game uses assets of these paths for, and what that demands beyond their bytes.

    `role` is the game's own word, `behaves` what of that Furnel knows: a `sheet` of frames, a `gauge` that fills, a `glow`
    that is added to something, an `emblem` that hangs at several sizes, a picture that is multiplied with a `tint`, a `mask` of
    values, `normals`, a `loop`, a sound of an `event`, a `definition`. A role that is called like one of these behaves so.
    `channels` says what the channels mean where that is not told by looking, `keep-out` areas (left, top, width, height)
    that the game covers or never shows. Of a sound, `length` says whether the game counts its frames, `most-bytes` how large
    it may be (0: any), `loop-record` where its loop is told, `beats` that it is a part of a song. Of a definition,
    `partial` says that the game lays a mod's records over its own, so that only changed ones are written. For previews: a
    gauge's `level` that fills and the `glow` over it, a `tints` list of colours (six hex digits) that the game multiplies
    with, and what a glow `lights`; inner paths, where `{folder}` and `{stem}` stand for the asset's own.

    Of a sheet, `margin` and `gutter` are the pixels around and between its cells, `animations` name runs of these, `unused` is
    the colour that cells of no animation are filled with, `key` a colour that is clear, `pixels` how many pixels of the sheet
    are one of the drawing. Of tiles, `meets` has for each cell the sides (n, e, s, w) at which it goes on in another one.
    """

    path: str
    role: Annotated[str, StringConstraints(min_length=1, max_length=40)]
    behaves: tuple[Behaviour, ...] = ()
    cell: tuple[Pixels, Pixels] | None = None
    margin: int = Field(0, ge=0, le=256)
    gutter: int = Field(0, ge=0, le=256)
    animations: tuple[AnimationRule, ...] = ()
    unused: Colour | Literal[""] = ""
    key: Colour | Literal[""] = ""
    pixels: int = Field(1, ge=1, le=16)
    meets: tuple[Annotated[str, StringConstraints(pattern="^n?e?s?w?$")], ...] = ()
    tiles: Literal["no", "across", "down", "both"] = "no"
    channels: Literal["colour", "grey", "normals", "masks"] | None = None
    keep_out: tuple[tuple[NotNegative, NotNegative, Pixels, Pixels], ...] = ()
    level: AssetTemplate = ""
    glow: AssetTemplate = ""
    length: Literal["free", "exact"] = "free"
    most_bytes: int = Field(0, ge=0)
    loop_record: LoopRecord | None = None
    beats: BeatsRule | None = None
    lights: AssetTemplate = ""
    partial: bool = False
    tints: tuple[Colour, ...] = ()
    why: str = ""

    @cached_property
    def layout(self) -> SheetLayout | None:
        """How a sheet is laid out; None for what is none."""
        if self.cell is None:
            return None
        runs = tuple(
            Animation(one.name, parse_cells(one.cells), one.speed, one.anchor) for one in self.animations
        )
        unused, key = (parse_colours(colour)[0] if colour else None for colour in (self.unused, self.key))
        return SheetLayout(self.cell, self.margin, self.gutter, runs, unused, key, self.pixels)

    @cached_property
    def does(self) -> frozenset[str]:
        """Everything that the game is known to do with it: what is said, and what the other settings mean."""
        found: set[str] = {*self.behaves, *({self.role} & set(get_args(Behaviour)))}
        for name, said in (
            ("sheet", self.cell is not None),
            ("tiles", bool(self.meets)),
            ("glow", bool(self.lights)),
            ("tint", bool(self.tints)),
            ("normals", self.channels == "normals"),
            ("mask", self.channels == "masks"),
        ):
            if said:
                found.add(name)
        return frozenset(found)


class PackRule(Part):
    """Files of a mod that go into an archive of their own, those of each folder together: which (`files`, inner paths), the
    `archive` and its `layout` (or `zip`), and where its checksum stands as hexadecimal digits (`sum`, which one: `sum-is`).

    `{folder}` is the inner path of the files' folder, `{name}` its last part.
    """

    files: str
    archive: Annotated[str, template("folder", "name", needs="folder")]
    layout: str = "zip"
    sum: Annotated[str, template("folder", "name")] = ""
    sum_is: Literal["crc32", "adler32", "sha256"] = "crc32"


class ModRule(Part):
    """Where mods go: a folder each, with a file about the mod, and one file with the load order.

    `goes` says how: `loose` files under their inner paths; one `archive` of its own with the same inner paths (`archive` is
    its name, `{id}` the mod's, and `layout` its kind); or `rebuilt` copies of the archives that hold the originals. Where a
    game knows nothing of mods they go `in-place` of its own files, which are kept, or into a folder that is the `mirror` of
    the game's own; there is no file about the mod then, and no load order. `folder` and `order` are in the game's folder, or
    begin with `~/`, `$XDG_DATA_HOME/` or `$XDG_CONFIG_HOME/` where the game looks into the user's own folders.
    `about-file` and `order-file` say how the two files are written, `packs` which loose files go into archives.
    """

    folder: ModsPath = "mods"
    about: InsidePath = "mod.toml"
    order: ModsPath = "mods/order.toml"
    game_version: str = ""
    about_file: AboutFile = AboutFile()
    order_file: OrderFile = OrderFile()
    goes: Literal["loose", "archive", "rebuilt", "in-place", "mirror"] = "loose"
    archive: Annotated[str, template("id"), AfterValidator(_file_name)] = "{id}.zip"
    layout: str = "zip"
    packs: tuple[PackRule, ...] = ()

    @property
    def in_home(self) -> bool:
        """Whether mods go to the user's own folders, outside the game's."""
        return own_place(self.folder) is not None

    @property
    def has_order(self) -> bool:
        """Whether mods have folders of their own and a load order, rather than the places of the game's own files."""
        return self.goes not in ("in-place", "mirror")

    @model_validator(mode="after")
    def _says_where(self) -> ModRule:
        wanted = {"in-place": set[str](), "mirror": {"folder"}}.get(
            self.goes, {"folder", "about", "order", "game_version"}
        )
        if missing := sorted(wanted - self.model_fields_set):
            raise ValueError(f"mods that go {self.goes} need {missing[0].replace('_', '-')}")
        return self


class EventsRule(Part):
    """Where a game says which sounds it plays for what: a JSON `file` with an object for every event, and what it calls
    their parts there.

    An event may have `least` to `most` sounds (0: any number). `new-sound` is the inner path of sounds that a mod adds, with
    `{number}` in it; without it there are none. Distances are in `unit`.
    """

    file: str
    sounds: str = "sounds"
    volume: str = ""
    fade_from: str = ""
    silent_at: str = ""
    unit: str = "m"
    least: int = Field(1, ge=1)
    most: int = Field(0, ge=0)
    new_sound: Annotated[str, template("number", needs="number")] = ""

    @property
    def keys(self) -> EventKeys:
        return EventKeys(self.sounds, self.volume, self.fade_from, self.silent_at)


class Recognise(Part):
    """Files that an install of this game has."""

    files: tuple[GlobText, ...] = Field(min_length=1)


class StartRule(Part):
    """Commands for the game; `{game}`, `{scene}`, `{tick}` and `{out}` are filled in. `python` is Furnel's own.

    The game is started in a `folder` (below its own; empty: where Furnel is) and with more in its `environment`.
    """

    play: tuple[str, ...] = ()
    folder: str = ""
    environment: dict[str, str] = {}
    still: tuple[str, ...] = ()
    still_without_mods: tuple[str, ...] = ()
    report: tuple[str, ...] = ()
    scenes: tuple[str, ...] = ()


SizeText = Annotated[str, Field(pattern=r"^[1-9][0-9]{1,3}x[1-9][0-9]{1,3}$")]


class ShareRule(Part):
    """What a package has for those who show mods of the game: `previews` are the sizes of its picture, the first one's file is
    called `preview.png`."""

    previews: tuple[SizeText, ...] = ()


class Profile(Part):
    """One game."""

    furnel_profile: Literal[1]
    id: str = Field(pattern=r"^[a-z][a-z0-9-]{0,63}$")
    name: NameText
    recognise: Recognise
    archives: tuple[ArchiveRule, ...] = Field(min_length=1)
    version: VersionRule | None = None
    names: tuple[NamesRule, ...] = ()
    roles: tuple[RoleRule, ...] = ()
    events: EventsRule | None = None
    notations: tuple[Form, ...] = ()
    values: tuple[ValueRule, ...] = ()
    additions: tuple[AdditionRule, ...] = ()
    mods: ModRule
    start: StartRule = StartRule()
    share: ShareRule = ShareRule()
    titles: dict[str, str] = {}
    _shipped: bool = PrivateAttr(False)
    _home: Path | Traversable | None = PrivateAttr(None)

    @model_validator(mode="after")
    def _leaves_the_games_files(self) -> Profile:
        theirs = [*self.recognise.files, *([self.version.file] if self.version is not None else [])]
        if self.mods.has_order and any(fnmatch.fnmatchcase(self.mods.order, one) for one in theirs):
            raise ValueError(
                f"mods.order: {self.mods.order} is a file of the game's own, which is never written"
            )
        return self

    def version_of(self, folder: Path) -> str:
        """The version of an install, or nothing when it does not tell."""
        if self.version is None:
            return ""
        try:
            text = (folder / self.version.file).read_bytes()[:_MOST_VERSION].decode("utf-8", "replace")
        except OSError:
            return ""
        found = re.search(self.version.pattern, text)
        return found.group(1) if found else ""

    def known_names(self, version: str) -> list[str]:
        """Every inner path that the lists for a version have; the lists lie beside the profile."""
        out = []
        for rule in self.names:
            if self._home is not None and rule.version in ("", version):
                try:
                    text = (self._home / rule.file).read_text("utf-8")
                except (OSError, UnicodeDecodeError) as error:
                    raise FurnelError(
                        "Reading a list of names",
                        where=rule.file,
                        why=str(error),
                        remedy="Put it beside the profile",
                    ) from error
                out += listed_names(text)
        return out

    def beside(self, home: Path | Traversable) -> Profile:
        """This profile, knowing the folder that it lies in."""
        self._home = home
        return self

    def shipped(self) -> Profile:
        """This profile, known to have come with Furnel."""
        self._shipped = True
        return self

    @property
    def comes_with_furnel(self) -> bool:
        return self._shipped

    def role_of(self, path: str) -> RoleRule | None:
        """The first rule whose pattern matches an inner path."""
        found = self._role_pattern.match(path)
        return self.roles[int((found.lastgroup or "r0")[1:])] if found else None

    @cached_property
    def rules_mark(self) -> str:
        """Something that is another when the rules for archives, roles or notations are others."""
        rules = self.archives, self.roles, self.notations
        return hashlib.sha256(repr(rules).encode()).hexdigest()[:16]

    @cached_property
    def _role_pattern(self) -> re.Pattern[str]:
        """All patterns as one, tried in their order."""
        parts = (f"(?P<r{n}>{fnmatch.translate(rule.path)})" for n, rule in enumerate(self.roles))
        return re.compile("|".join(parts) or r"(?!)")

    def recognises(self, folder: Path) -> bool:
        """Whether a folder has what installs of this game have."""
        return all(any(folder.glob(pattern)) for pattern in self.recognise.files)


def parse_profile(text: str, where: object) -> Profile:
    """A profile from its TOML text. Raises FurnelError that names the key, what was found and what is allowed."""
    return parse_toml(Profile, text, WHAT, where, "docs/profiles.md")


@cache
def shipped_profiles() -> dict[str, Profile]:
    """The profiles that come with Furnel, by id."""
    folder = resources.files("furnel.games") / "profiles"
    found = [
        parse_profile(file.read_text("utf-8"), file.name).beside(folder).shipped()
        for file in folder.iterdir()
        if file.name.endswith(".toml")
    ]
    return {profile.id: profile for profile in found}


def profiles_folder() -> Path:
    """Where the user's own profiles lie, each with its lists of names."""
    return state_folder() / "profiles"


def own_profiles(broken: list[FurnelError] | None = None) -> dict[str, Profile]:
    """The user's profiles, by id. One that cannot be read is left out, and why is put into `broken`."""
    out = {}
    for file in sorted(profiles_folder().glob("*.toml")):
        try:
            profile = parse_profile(file.read_text("utf-8"), file).beside(file.parent)
        except (OSError, UnicodeDecodeError) as error:
            _leave_out(FurnelError(WHAT, where=file, why=str(error)), broken)
        except FurnelError as error:
            _leave_out(error, broken)
        else:
            out[profile.id] = profile
    return out


def _leave_out(error: FurnelError, broken: list[FurnelError] | None) -> None:
    log.warning("%s It is left out.", error)
    if broken is not None:
        broken.append(error)


def known_profiles(broken: list[FurnelError] | None = None) -> dict[str, Profile]:
    """All profiles; the user's own ones come first and stand for shipped ones of the same id. Those that cannot be read are
    left out, and why is put into `broken`."""
    out = own_profiles(broken)
    for name, profile in shipped_profiles().items():
        out.setdefault(name, profile)
    return out


def _stem(error: FurnelError) -> str:
    """What the file of a refusal is called, without its ending."""
    return Path(error.where.partition(", line ")[0]).stem


class UnknownGame(FurnelError):
    """No profile recognises a folder."""


class SeveralGames(FurnelError):
    """More than one profile recognises a folder, and nobody said yet which it is."""


def fitting_profiles(folder: Path) -> list[Profile]:
    """All profiles that recognise a folder."""
    return [profile for profile in known_profiles().values() if profile.recognises(folder)]


def choose_profile(folder: Path, name: str) -> None:
    """Remember which of the profiles that recognise a folder is meant. Raises FurnelError for one that does not."""
    if name not in {one.id for one in fitting_profiles(folder)}:
        raise FurnelError(
            "Choosing a profile", where=name, why=f"it does not recognise {folder}",
            remedy="Correct its [recognise] files, or describe the game with New game",
        )  # fmt: skip
    remember("chosen-profiles", {**_choices(), str(folder.resolve()): name})


def _choices() -> dict[str, str]:
    told = recall("chosen-profiles")
    return {str(key): str(value) for key, value in told.items()} if isinstance(told, dict) else {}


def recognise(folder: Path) -> Profile:
    """The profile of the game in `folder`. Raises FurnelError when none fits."""
    if not folder.is_dir():
        raise FurnelError(
            "Opening a game", where=folder, why="there is no such folder", remedy="Check the path"
        )
    try:
        broken: list[FurnelError] = []
        profiles = known_profiles(broken).values()
        fitting = [profile for profile in profiles if profile.recognises(folder)]
        if len(fitting) > 1:
            chosen = _choices().get(str(folder.resolve()), "")
            fitting = [one for one in fitting if one.id == chosen] or fitting
        if len(fitting) > 1:
            raise SeveralGames(
                "Opening a game", where=folder,
                why=f"{len(fitting)} profiles recognise it: {', '.join(f'{one.name} ({one.id})' for one in fitting)}",
                remedy="Say which it is: `furnel describe GAME --is ID`",
            )  # fmt: skip
        for profile in fitting:
            for error in broken:  # one that is to stand for this profile stops its own game, and no other
                if _stem(error) == profile.id:
                    raise error
            return profile
    except OSError as error:
        raise FurnelError("Opening a game", where=folder, why=reason(error)) from error
    known = ", ".join(profile.name for profile in profiles)
    left_out = f"; {broken[0].where} cannot be read: {broken[0].why}" if broken else ""
    raise UnknownGame(
        "Opening a game",
        where=folder,
        why=f"no profile recognises it{left_out}",
        remedy=f"Describe it with New game, or choose the folder of one of: {known}",
    )
