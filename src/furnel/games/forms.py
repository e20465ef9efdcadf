"""How a game writes its own texts, guessed from its files: what goes into a profile's `[[notations]]`."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import tomlkit

from furnel.errors import FurnelError
from furnel.games.ownprofiles import edit_profile
from furnel.games.profile import Profile
from furnel.progress import QUIET, Progress, steps
from furnel.texts import NOTATIONS, Document, Form, Guess, document_as, guess_form, guesses, spread

_PROSE = frozenset(
    (
        ".md",
        ".html",
        ".htm",
        ".css",
        ".js",
        ".py",
        ".sh",
        ".po",
        ".pot",
        ".log",
        ".desktop",
        ".rst",
        ".tex",
        ".bat",
        ".cmake",
        ".xhtml",
    )
)
_MOST, _FEW, _LARGEST = 48, 4, 1 << 20
_LOOKED_INTO = 64 << 10  # bytes of a text that may tell sheets
_KNOWN = ("XML", "JSON", "TOML")


@dataclass(frozen=True, slots=True)
class GuessedForm:
    """How texts of one ending are written, how many there are, and the share of those that were tried that it reads."""

    form: Form
    files: int
    share: float

    @property
    def words(self) -> str:
        """What it is, in a few words."""
        return f"{self.files} {self.form.ending}"


def guess_forms(folder: Path, paths: Sequence[str], progress: Progress = QUIET) -> tuple[GuessedForm, ...]:
    """Forms for the texts below a folder (`paths`) whose endings say nothing, or something wrong."""
    by_ending: dict[str, list[str]] = defaultdict(list)
    for path in paths:
        ending = Path(path).suffix.lower()
        if ending and ending not in _PROSE:
            by_ending[ending].append(path)
    out = []
    for ending, some in steps(
        sorted(by_ending.items()), len(by_ending), progress, "Looking at how texts are written"
    ):
        texts = spread(_texts(folder, some))
        guess = _known(ending, texts) if texts else None
        known = ending in NOTATIONS and (
            len(texts) < _FEW or _read_by(NOTATIONS[ending].notation, texts) > 0.7
        )
        if guess is None and texts and not known:
            try:
                guess = guess_form(ending, texts)
            except ValueError:  # an ending that no form has
                continue
        single = guess is not None and guess.form.shape in ("lines", "indented", "nested", "assignments")
        if guess is not None and (len(some) > 1 or not single):
            out.append(GuessedForm(guess.form, len(some), guess.files))
    return tuple(out)


def read_with(
    folder: Path, paths: Iterable[str], forms: Sequence[GuessedForm], having: re.Pattern[str]
) -> Iterator[tuple[str, Document]]:
    """The texts of a folder with a word in them that are read by guessed or known forms, without those that do not fit."""
    by_ending = {form.form.ending: form.form for form in forms}
    known = {ending: Form(ending=ending, written_as=kind.notation) for ending, kind in NOTATIONS.items()}  # type: ignore[arg-type]
    for path in paths:
        form = by_ending.get(ending := Path(path).suffix.lower()) or known.get(ending)
        if form is None:
            continue
        try:
            file = folder / path
            if file.stat().st_size <= _LOOKED_INTO:
                text = _decoded(file.read_bytes())
                if having.search(text):
                    yield path, document_as(form, text, path)
        except (OSError, FurnelError):
            continue


def tried_forms(read: Callable[[str], bytes], paths: Sequence[str]) -> list[Guess]:
    """Every way in which some of a game's texts (of one ending; `read` gives their bytes) can be read, the best first."""
    ending = Path(paths[0]).suffix.lower()
    texts = []
    for path in paths[:: -(-len(paths) // _MOST)]:
        with suppress(FurnelError):  # a damaged one tells nothing
            data = read(path)
            texts += [_decoded(data)] if len(data) <= _LARGEST else []
    texts = spread(texts)
    if not texts:
        return []
    known = _known(ending, texts)
    return [*([known] if known is not None else []), *guesses(ending, texts)]


def keep_form(profile: Profile, ending: str, form: Form | None) -> Profile:
    """Write into the user's own profile how texts of an ending are read; as plain text with None. All else stays."""

    def change(document: Any) -> None:
        known = document.setdefault("notations", tomlkit.aot())
        for place in reversed(range(len(known))):
            if str(known[place].get("ending", "")).lower() == ending and "files" not in known[place]:
                del known[place]
        if form is not None:
            known.append(_table(form))
        if not known:
            del document["notations"]

    return edit_profile(profile, "Changing how texts are read", change)


def form_lines(form: Form) -> list[str]:
    """A form as lines of a profile."""
    return ["", "[[notations]]", *_table(form).as_string().strip().splitlines()]


def _table(form: Form) -> tomlkit.items.Table:
    table = tomlkit.table()
    for key, value in form.model_dump(by_alias=True, exclude_defaults=True).items():
        table.add(key, list(value) if isinstance(value, tuple) else value)
    return table


def _texts(folder: Path, paths: Sequence[str]) -> list[str]:
    """Some of the texts."""
    out = []
    for path in paths[:: -(-len(paths) // _MOST)]:
        try:
            with (folder / path).open("rb") as stream:
                data = stream.read(_LARGEST + 1)
        except OSError:
            continue
        if len(data) <= _LARGEST:
            out.append(_decoded(data))
    return out


def _decoded(data: bytes) -> str:
    """A text; what is not UTF-8 is read letter by letter."""
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        return data.decode("latin-1")


def _known(ending: str, texts: Sequence[str]) -> Guess | None:
    """A notation that everybody knows, under another ending."""
    if ending in NOTATIONS:
        return None
    for name in _KNOWN:
        begins = {"XML": ("<",), "JSON": ("{", "[")}.get(name, ())
        if begins and sum(text.lstrip().startswith(begins) for text in texts) < 0.7 * len(texts):
            continue
        if (share := _read_by(name, texts)) > 0.7:
            return Guess(Form(ending=ending, written_as=name), share, 1.0)  # type: ignore[arg-type]
    return None


def _read_by(name: str, texts: Sequence[str]) -> float:
    """The share of texts that a known notation reads, with something in it."""
    kind = next(one for one in NOTATIONS.values() if one.notation == name)
    read = 0
    for text in texts:
        try:
            read += bool(kind(text).root.items)
        except FurnelError:
            continue
    return read / len(texts)
