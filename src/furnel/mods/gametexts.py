"""What all definitions of a game say together: the ids of their records, and where anything is named."""

from __future__ import annotations

import threading
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from fnmatch import fnmatchcase
from functools import cached_property

from furnel.catalogue import Catalogue
from furnel.catalogue.marks import content_digest
from furnel.errors import FurnelError
from furnel.texts import (
    Change,
    Document,
    Known,
    Meanings,
    ValueRule,
    address_text,
    applied,
    document_of,
    ids_of,
    meanings,
    spots,
    tables,
    taken_apart,
)
from furnel.texts.meaning import table_name
from furnel.words import near

_LARGEST, _MOST = 2 << 20, 4000
_MOST_NEAR = 4000
_SHORTEST = 3
_REMEMBERED = 24


@dataclass(frozen=True, slots=True)
class Use:
    """A place in a definition that names something: the definition's inner path, and the address in it."""

    path: str
    address: str


class GameTexts:
    """A game's definitions, each read once. Those that cannot be read or are very large are left out.

    `has` says whether a text names an asset.
    """

    def __init__(self, catalogue: Catalogue, has: Callable[[str], bool]) -> None:
        self._catalogue, self._has = catalogue, has
        self._lock = threading.Lock()
        self._made: dict[tuple[str, bytes, str], Document] = {}
        self._meanings: dict[tuple[str, bytes], Meanings] = {}
        self._matching: dict[str, tuple[object, list[str]]] = {}
        self._read: dict[str, tuple[bytes, Document]] = {}

    @property
    def paths(self) -> list[str]:
        """The definitions that are taken apart."""
        return [path for path in self._catalogue.assets.paths if taken_apart(path)][:_MOST]

    def matching(self, pattern: str) -> list[str]:
        """The definitions whose paths match a pattern."""
        assets = self._catalogue.assets
        known = self._matching.get(pattern)
        if known is None or known[0] is not assets:
            known = self._matching[pattern] = (
                assets,
                [path for path in self.paths if fnmatchcase(path, pattern)],
            )
        return known[1]

    def document(self, path: str) -> Document:
        """A definition of the game. Raises FurnelError for damage."""
        data = self._catalogue.bytes_of(path)
        digest = content_digest(data)
        known = self._read.get(path)
        if known is None or known[0] != digest:
            known = self._read[path] = (digest, document_of(data, path))
        return known[1]

    def changed(self, path: str, changes: tuple[Change, ...]) -> Document:
        """A definition with changes; the last ones are remembered. Raises FurnelError for what does not apply."""
        key = self._key(path, changes)
        made = self._made.get(key)
        if made is None:
            made = applied(self.document(path), changes)
            self.remember(path, changes, made)
        return made

    def remember(self, path: str, changes: tuple[Change, ...], made: Document) -> None:
        """Keep what changes make of a definition, for `changed`."""
        with self._lock:
            self._made[self._key(path, changes)] = made
            while len(self._made) > _REMEMBERED:
                self._made.pop(next(iter(self._made)))

    def _key(self, path: str, changes: tuple[Change, ...]) -> tuple[str, bytes, str]:
        said = [(one.do, one.at, one.key, one.to, one.like, one.place) for one in changes]
        return path, content_digest(self._catalogue.bytes_of(path)), repr(said)

    def meanings(self, path: str, rules: tuple[ValueRule, ...]) -> Meanings:
        """What is known of the values of a definition. Raises FurnelError for damage."""
        known = Known(self._has, self.nearest, self.tables)
        key = path, content_digest(self._catalogue.bytes_of(path))
        if key not in self._meanings:
            self._meanings[key] = meanings(self.siblings(path), path, known, rules)
        return self._meanings[key]

    @cached_property
    def _documents(self) -> dict[str, Document]:
        out = {}
        for path in self.paths:
            try:
                if self._catalogue.get(path).size <= _LARGEST:
                    out[path] = self.document(path)
            except FurnelError:
                continue
        return out

    @property
    def mark(self) -> str:
        """Something that is another when a definition is; nothing is read for it."""
        return self._catalogue.mark

    @cached_property
    def tables(self) -> Mapping[str, frozenset[str]]:
        """The ids of every table of records, by its name."""
        out: dict[str, frozenset[str]] = {}
        for path, document in self._documents.items():
            out |= ids_of(document, path)
        return out

    def containing(self, text: str) -> frozenset[str]:
        """The definitions in whose text all words of a text stand; those that were read already (`prepare`)."""
        words = text.casefold().split()
        if not words or max(map(len, words)) < _SHORTEST or "_documents" not in self.__dict__:
            return frozenset()
        return frozenset(path for path, own in self._lower.items() if all(word in own for word in words))

    def prepare(self) -> None:
        """Read all definitions, so that looking into them is quick afterwards."""
        assert self._lower is not None and self._uses is not None

    @cached_property
    def _lower(self) -> dict[str, str]:
        return {path: document.text.casefold() for path, document in self._documents.items()}

    @cached_property
    def _uses(self) -> dict[str, list[Use]]:
        out: dict[str, list[Use]] = {}
        for path, document in self._documents.items():
            for spot in spots(document):
                if isinstance(spot.value, str) and spot.value:
                    out.setdefault(spot.value, []).append(Use(path, address_text(spot.address)))
        return out

    def uses(self, *names: str) -> list[Use]:
        """Every place in the game's definitions whose text is one of these names."""
        return [use for name in dict.fromkeys(names) for use in self._uses.get(name, ())]

    def words_of(self, table: str, name: str) -> str:
        """What a text's key stands for, in all languages that its table has."""
        path, _, _ = table.partition("#")
        document = self._documents.get(path)
        if document is None or name not in self.tables.get(table, ()) or document.is_typed:
            return ""
        found = next(
            (one for one in tables(document) if name in one.records and table_name(path, one.place) == table),
            None,
        )
        row = document.look(found.records[name]) if found is not None else {}
        return (
            ", ".join(f"{key}: {text}" for key, text in row.items() if text != name)
            if isinstance(row, dict)
            and all(isinstance(text, str) and key[:1] != "@" for key, text in row.items())
            else ""
        )

    def uses_of_asset(self, path: str) -> list[Use]:
        """Every place that names an asset: by its path, its file name, or that without the ending."""
        name = path.rpartition("/")[2]
        return self.uses(path, name, name.rpartition(".")[0] or name)

    def siblings(self, path: str) -> list[Document]:
        """The definition, and those of its kind: where each record has a file of its own, the others of its folder."""
        own = self.document(path)
        if ids_of(own, path) or not isinstance(own.plain(), dict):
            return [own]
        folder, ending = path.rpartition("/")[0], path.rpartition(".")[2]
        keys = set(own.plain())
        others = [
            other
            for name, other in self._documents.items()
            if name != path and name.rpartition("/")[0] == folder and name.endswith(f".{ending}")
            and isinstance(other.plain(), dict) and len(keys & set(other.plain())) * 2 >= len(keys)
        ]  # fmt: skip
        return [own, *others]

    def nearest(self, name: str) -> str:
        """The assets whose names come nearest to one, as the end of a sentence."""
        tail = name.rpartition("/")[2]
        ending, folder = tail.rpartition(".")[2], name.rpartition("/")[0]
        paths = self._catalogue.assets.paths
        if "/" not in name:
            return near(name, [path.rpartition("/")[2].rpartition(".")[0] for path in paths[:_MOST_NEAR]])
        some = [path for path in paths if path.startswith(f"{folder}/")] or [
            path for path in paths if path.endswith(f".{ending}")
        ]
        return near(name, some[:_MOST_NEAR])
