"""How a game writes its own texts, guessed from its files: what goes into a profile's `[[notations]]`."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import tomlkit

from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress, steps
from furnel.texts import NOTATIONS, Form, Guess, guess_form, spread

_PROSE = frozenset(
    (".md", ".html", ".htm", ".css", ".js", ".py", ".sh", ".po", ".pot", ".log", ".desktop", ".rst", ".tex", ".bat",
     ".cmake", ".xhtml")
)  # fmt: skip
_MOST, _FEW, _LARGEST = 48, 4, 1 << 20
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
        if (
            guess is None
            and texts
            and not (ending in NOTATIONS and _read_by(NOTATIONS[ending].notation, texts) > 0.7)
        ):
            try:
                guess = guess_form(ending, texts)
            except ValueError:  # an ending that no form has
                continue
        single = guess is not None and guess.form.shape in ("lines", "indented", "nested", "assignments")
        if guess is not None and (len(some) > 1 or not single):
            out.append(GuessedForm(guess.form, len(some), guess.files))
    return tuple(out)


def form_lines(form: Form) -> list[str]:
    """A form as lines of a profile."""
    told: dict[str, Any] = form.model_dump(by_alias=True, exclude_defaults=True)
    table = tomlkit.table()
    for key, value in told.items():
        table.add(key, list(value) if isinstance(value, tuple) else value)
    return ["", "[[notations]]", *table.as_string().strip().splitlines()]


def _texts(folder: Path, paths: Sequence[str]) -> list[str]:
    """Some of the texts; what is not UTF-8 is read letter by letter."""
    out = []
    for path in paths[:: -(-len(paths) // _MOST)]:
        try:
            with (folder / path).open("rb") as stream:
                data = stream.read(_LARGEST + 1)
        except OSError:
            continue
        if len(data) <= _LARGEST:
            try:
                out.append(data.decode("utf-8-sig"))
            except UnicodeDecodeError:
                out.append(data.decode("latin-1"))
    return out


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
