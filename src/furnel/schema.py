"""Files that people write: one base for their models, one way to read them, one kind of refusal."""

from __future__ import annotations

import json
import re
import string
import tomllib
from collections.abc import Iterable, Mapping
from typing import Annotated, Any, TypeVar, get_args

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError
from pydantic_core import ErrorDetails, core_schema

from furnel.errors import FurnelError
from furnel.folders import HOMES, own_place
from furnel.tomllines import line_of
from furnel.words import near

Model = TypeVar("Model", bound=BaseModel)


def _inner(path: str) -> str:
    parts = path.split("/")
    if path.startswith("/") or "\\" in path or any(part in ("", ".", "..") for part in parts):
        raise ValueError("an inner path has no '..', no leading or doubled '/' and no backslash")
    _no_controls(path)
    if any(len(part.encode("utf-8", "surrogatepass")) > 255 for part in parts):
        raise ValueError("a name in a path has at most 255 bytes")
    return path


def _inside(path: str) -> str:
    """A file or folder inside the game's or the profile's own folder; nothing else is ever touched."""
    try:
        return _inner(path.removesuffix("/"))
    except ValueError as error:
        raise ValueError(f"it has to lie inside the game's folder: {error}") from error


def _mods_place(path: str) -> str:
    """A file or folder inside the game's folder, or in the user's own."""
    if own_place(path.removesuffix("/")) is None:
        if path[:1] in ("~", "$"):
            raise ValueError(f"a folder of the user's begins with one of {', '.join(HOMES)}")
        return _inside(path)
    begins = next(one for one in HOMES if path.startswith(one))
    return begins + _inner(path.removeprefix(begins).removesuffix("/"))


def _glob(pattern: str) -> str:
    if pattern == ".":  # the folder itself
        return pattern
    _inside(pattern.replace("**/", "x/"))
    if any("**" in part and part != "**" for part in pattern.split("/")):
        raise ValueError("** stands alone between two '/'")
    if pattern.endswith("**"):
        raise ValueError("it ends with the name of a file, such as **/*.dds")
    return pattern


def _no_controls(text: str) -> str:
    if any(ord(sign) < 32 or ord(sign) == 127 or 0xD800 <= ord(sign) < 0xE000 for sign in text):
        raise ValueError("it has control characters")
    return text


def _lines(text: str) -> str:
    for line in text.split("\n"):
        _no_controls(line.replace("\t", " "))
    return text


def _version(text: str) -> str:
    if not re.fullmatch(r"[0-9A-Za-z][0-9A-Za-z.+_-]{0,39}", text) or ".." in text:
        raise ValueError(
            "a version has letters, digits, dots and hyphens, such as 1.2: it is part of a file's name"
        )
    return text


class OneOf:
    """A text out of some, as an annotation: what a table knows is what a file may say."""

    def __init__(self, names: Iterable[str]) -> None:
        self._names = list(names)

    def __get_pydantic_core_schema__(self, source: object, handler: object) -> core_schema.CoreSchema:
        return core_schema.literal_schema(self._names)


def quoted(text: str) -> str:
    """A text as TOML writes it, in quotes."""
    plain = json.dumps(text.encode("utf-8", "replace").decode(), ensure_ascii=False)
    return plain.replace("\x7f", "\\u007f")


class KnownIn:
    """A text that a growing table knows, as an annotation; `more` says in messages what else there can be."""

    def __init__(self, table: Mapping[str, object], more: str) -> None:
        self._table, self._first, self._more = table, list(table), more

    def __get_pydantic_core_schema__(self, source: object, handler: object) -> core_schema.CoreSchema:
        def checked(text: str) -> str:
            if text not in self._table:
                raise ValueError(f"it can be {', '.join(self._first)}, or {self._more}")
            return text

        return core_schema.no_info_after_validator_function(checked, core_schema.str_schema())

    def __get_pydantic_json_schema__(
        self, schema: core_schema.CoreSchema, handler: object
    ) -> dict[str, object]:
        return {"anyOf": [{"enum": self._first, "type": "string"}, {"type": "string"}]}


def takes_for_ever(pattern: str) -> bool:
    """Whether a regular expression repeats without end what repeats without end itself, which some texts make exponential."""

    def inside(tree: Any, repeated: bool) -> bool:
        for what, told in tree:
            name = str(what)
            if name in ("MAX_REPEAT", "MIN_REPEAT", "POSSESSIVE_REPEAT"):
                endless = told[1] == re._parser.MAXREPEAT or told[1] > _WIDEST  # type: ignore[attr-defined]
                if (endless and repeated) or inside(told[2], repeated or endless):
                    return True
            elif name == "SUBPATTERN":
                if inside(told[3], repeated):
                    return True
            elif name == "BRANCH" and any(inside(part, repeated) for part in told[1]):
                return True
        return False

    return inside(re._parser.parse(pattern), False)  # type: ignore[attr-defined]


_WIDEST = 64  # places of a number


def template(*names: str, needs: str = "") -> AfterValidator:
    """A check that a text has no other placeholders than these, such as `{stem}`; one of them it `needs`."""

    def checked(text: str) -> str:
        try:
            found = [(name, form) for _, name, form, _ in string.Formatter().parse(text) if name is not None]
            if any(
                len(form or "") > 8 or any(int(n) > _WIDEST for n in re.findall(r"\d+", form or ""))
                for _, form in found
            ):
                raise ValueError("it is too wide")
            text.format(**{name: 7 if form else "7" for name, form in found if name in names})
        except (ValueError, KeyError, IndexError, AttributeError) as error:
            allowed = ", ".join(f"{{{name}}}" for name in names)
            raise ValueError(f"what can stand in braces is {allowed}") from error
        if needs and text and needs not in {name for name, _ in found}:
            raise ValueError(f"it needs {{{needs}}} in it")
        return text

    return AfterValidator(checked)


InnerPath = Annotated[str, AfterValidator(_inner)]
InsidePath = Annotated[str, AfterValidator(_inside)]
ModsPath = Annotated[str, AfterValidator(_mods_place)]
GlobText = Annotated[str, AfterValidator(_glob)]
PlainText = Annotated[str, AfterValidator(_no_controls)]
LongText = Annotated[str, Field(max_length=20_000), AfterValidator(_lines)]
NameText = Annotated[str, Field(min_length=1, max_length=120), AfterValidator(_no_controls)]
VersionText = Annotated[str, AfterValidator(_version)]
Colour = Annotated[str, Field(pattern=r"^[0-9a-fA-F]{6}$")]
Pixels = Annotated[int, Field(ge=1, le=32768)]
IdText = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9_-]{0,63}$")]


def _dashed(name: str) -> str:
    return name.replace("_", "-")


class Part(BaseModel):
    """A table of such a file: frozen, keys with hyphens, nothing that is not declared."""

    model_config = ConfigDict(
        extra="forbid", frozen=True, alias_generator=_dashed, populate_by_name=True, defer_build=True
    )


_DOTS = re.compile(r"(?:[\w\"\'-]+[ \t]*\.[ \t]*){32}")


def read_toml(text: str) -> dict[str, Any]:
    """TOML that people or strangers wrote. Raises ValueError (tomllib.TOMLDecodeError) for damage, for keys of very many parts,
    which would cost memory by the square of them, for endless numbers and for what is nested without end."""
    for number, line in enumerate(text.split("\n"), start=1):
        if line.count(".") >= 32 and _DOTS.match(line.lstrip(" \t[")):
            raise ValueError(f"a key has too many parts (at line {number})")
    try:
        return tomllib.loads(text)
    except RecursionError as error:
        raise ValueError("it is nested too deep") from error


def parse_toml(model: type[Model], text: str, what: str, where: object, page: str) -> Model:
    """A model from TOML text, which may begin with a byte-order mark. Raises FurnelError that names line and key, what was
    found, what is allowed, and the page."""
    text = text.removeprefix("\ufeff")
    try:
        return validated(model, read_toml(text), what, where, page, text)
    except (ValueError, RecursionError) as error:
        told = re.search(r"at line (\d+)", str(error))
        raise FurnelError(
            what,
            where=where,
            why=str(error),
            remedy="Correct the TOML in a text editor",
            line=int(told.group(1)) if told else 0,
        ) from error


def validated(model: type[Model], raw: object, what: str, where: object, page: str, text: str = "") -> Model:
    """A model from values that were read already; with their TOML text the refusal names the line."""
    try:
        return model.model_validate(raw)
    except ValidationError as error:
        line = line_of(text, _first(error)["loc"]) if text else 0
        raise FurnelError(
            what,
            where=where,
            why=_explain(error, model),
            remedy=f"{page} lists what is allowed",
            line=line,
        ) from error


_OF_WORDS = ("literal_error", "string_type", "int_type")


def _first(error: ValidationError) -> ErrorDetails:
    """The first finding that says what is wrong: a table is not told that it could have been a word instead."""
    found = error.errors()
    return next(
        (one for one in found if not (isinstance(one.get("input"), dict) and one["type"] in _OF_WORDS)),
        found[0],
    )


def _is_alternative(part: str | int) -> bool:
    """Whether a part of a finding's place is no key but one of several forms that a value can have."""
    return isinstance(part, str) and (part.endswith("Part") or "[" in part)


def _models(annotation: object) -> list[type[BaseModel]]:
    """The tables that a value of this type can be, or can be made of."""
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return [annotation]
    return [one for part in get_args(annotation) for one in _models(part)]


def _allowed(model: type[BaseModel], first: ErrorDetails) -> list[str]:
    """The keys, or the words, of which a finding misses one."""
    if first["type"] == "literal_error":
        return re.findall("'([^']*)'", str(first.get("ctx", {}).get("expected", "")))
    if first["type"] != "extra_forbidden":
        return []
    models: list[type[BaseModel]] = [model]
    for part in first["loc"][:-1]:
        fields = [one.model_fields.values() for one in models]
        below = [field.annotation for each in fields for field in each if field.alias == part]
        named = [one for one in models if one.__name__ == part]
        models = [one for each in below for one in _models(each)] or named or models
    return [str(field.alias or name) for one in models for name, field in one.model_fields.items()]


def _explain(error: ValidationError, model: type[BaseModel]) -> str:
    """A validation error's first finding as a clause: the key, what was found, what is allowed, what was perhaps meant."""
    first = _first(error)
    key = ".".join(str(part) for part in first["loc"] if not _is_alternative(part)) or "the file"
    found = first.get("input")
    shown = f", found {found!r:.60}" if isinstance(found, str | int | float | bool) else ""
    said = first["msg"].removeprefix("Value error, ")
    if first["type"] == "extra_forbidden":
        said = "there is no such key"
    begins = said[:1] if said[:2].isupper() else said[:1].lower()  # a name such as WAV stays one
    wrong = str(first["loc"][-1] if first["type"] == "extra_forbidden" else found)
    meant = near(wrong, _allowed(model, first))
    return f"{key}: {begins}{said[1:]}{shown}" + (f". {meant}" if meant else "")
