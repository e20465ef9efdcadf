"""Merges this mod with others that change the same files. It needs Python 3.10 or newer and nothing else.

    python3 merge.py                  say which files other mods change, too; nothing is written
    python3 merge.py --over OTHER     put what this mod changes into what OTHER has of those files
    python3 merge.py --back           everything as it was before

It is run where it lies. What it replaces is kept in the folder before-… of the game, and comes back with --back.
"""

from __future__ import annotations

import argparse
import bz2
import gzip
import hashlib
import io
import json
import lzma
import re
import shutil
import struct
import sys
import zipfile
import zlib
from pathlib import Path
from typing import Any

PLAN: dict[str, Any] = {}
CONTEXT = 12
INTEGERS = {"u8": "B", "u16": "H", "u32": "I", "u64": "Q", "i8": "b", "i16": "h", "i32": "i", "i64": "q"}
PACKINGS: dict[str, tuple[Any, Any]] = {
    "none": (bytes, bytes),
    "zlib": (lambda data: zlib.compress(data, 9), zlib.decompress),
    "deflate": (lambda data: zlib.compress(data, 9)[2:-4], lambda data: zlib.decompress(data, -15)),
    "gzip": (lambda data: gzip.compress(data, mtime=0), gzip.decompress),
    "bzip2": (bz2.compress, bz2.decompress),
    "xz": (lzma.compress, lzma.decompress),
}


class CannotMerge(Exception):
    """Why something cannot be merged; nothing was written."""


_WRONG = (
    CannotMerge,
    OSError,
    EOFError,
    ValueError,
    KeyError,
    RuntimeError,
    zipfile.BadZipFile,
    zlib.error,
    struct.error,
)
"""What damaged or encrypted archives raise, too."""


# what files are made of


class Folder:
    """Files that lie open in a folder."""

    def __init__(self, path: Path) -> None:
        self.path = path

    def names(self) -> set[str]:
        return {file.relative_to(self.path).as_posix() for file in self.path.rglob("*") if file.is_file()}

    def read(self, name: str) -> bytes:
        return (self.path / name).read_bytes()


class Zip:
    """A ZIP archive."""

    def __init__(self, path: Path) -> None:
        self.path = path

    def names(self) -> set[str]:
        with zipfile.ZipFile(self.path) as packed:
            return set(packed.namelist())

    def read(self, name: str) -> bytes:
        with zipfile.ZipFile(self.path) as packed:
            return packed.read(name)

    def changed(self, wanted: dict[str, bytes]) -> bytes:
        """The archive with other contents."""
        out = io.BytesIO()
        with zipfile.ZipFile(self.path) as old, zipfile.ZipFile(out, "w") as new:
            for info in old.infolist():
                data = wanted[info.filename] if info.filename in wanted else old.read(info)
                new.writestr(info, data, info.compress_type)
            for name in sorted(set(wanted) - set(old.namelist())):
                fresh = zipfile.ZipInfo(name, (1980, 1, 1, 0, 0, 0))
                new.writestr(fresh, wanted[name], zipfile.ZIP_DEFLATED)
        return out.getvalue()


class Records:
    """An archive with one record of fixed length for each entry, as the plan describes it."""

    def __init__(self, path: Path, told: dict[str, Any]) -> None:
        self.path, self.told = path, told
        self.data = path.read_bytes()
        sign = "<" if told["order"] == "little" else ">"
        start = self._struct(sign, told["start"])
        if len(self.data) < start.size:
            raise CannotMerge(f"{path.name} is too short")
        head = dict(zip((name for name, _, _ in told["start"]), start.unpack_from(self.data), strict=True))
        for name, wanted in told["constants"].items():
            if (list(head[name]) if isinstance(head[name], bytes) else head[name]) != wanted:
                raise CannotMerge(f"{path.name} is another kind of archive")
        self.record = self._struct(sign, told["record"])
        self.at = head[told["index_at"]] if told["index_at"] else start.size
        self.fields = [name for name, _, _ in told["record"]]
        self.roles = {role: name for name, _, role in told["record"] if role}
        count = head[told["count"]]
        if count < 0 or self.at < 0 or self.at + count * self.record.size > len(self.data):
            raise CannotMerge(f"{path.name} is cut short")
        self.rows: dict[str, int] = {}
        for number in range(count):
            place = self.at + number * self.record.size
            values = dict(zip(self.fields, self.record.unpack_from(self.data, place), strict=True))
            self.rows[values[self.roles["path"]].split(b"\0")[0].decode()] = place

    @staticmethod
    def _struct(sign: str, fields: list[tuple[str, Any, str]]) -> struct.Struct:
        return struct.Struct(
            sign + "".join(INTEGERS.get(kind, f"{kind}s") if isinstance(kind, str) else f"{kind}s" for _, kind, _ in fields)
        )  # fmt: skip

    def names(self) -> set[str]:
        return set(self.rows)

    def _values(self, name: str) -> dict[str, Any]:
        return dict(zip(self.fields, self.record.unpack_from(self.data, self.rows[name]), strict=True))

    def read(self, name: str) -> bytes:
        values = self._values(name)
        begin = values[self.roles["offset"]]
        length = values[self.roles.get("stored size") or self.roles["size"]]
        stored = self.data[begin : begin + length]
        return bytes(PACKINGS[self.told["packed"]][1](stored))

    def changed(self, wanted: dict[str, bytes]) -> bytes:
        """The archive with other contents of entries that it has; they go to its end."""
        if lost := sorted(set(wanted) - set(self.rows)):
            raise CannotMerge(f"{self.path.name} has no {lost[0]}, and this script cannot add it")
        out = bytearray(self.data)
        for name, data in wanted.items():
            values, stored = self._values(name), PACKINGS[self.told["packed"]][0](data)
            out += bytes(-len(out) % self.told["align"])
            for role, value in (
                ("offset", len(out)), ("stored size", len(stored)), ("size", len(data)), ("sum", zlib.crc32(data)),
                ("stored sum", zlib.crc32(stored)),
            ):  # fmt: skip
                if role in self.roles:
                    values[self.roles[role]] = value
            out += stored
            self.record.pack_into(out, self.rows[name], *(values[field] for field in self.fields))
        return bytes(out)


def opened(path: Path, kind: Any) -> Any:
    """What holds entries, by its kind: `folder`, `zip`, or how its records are laid out."""
    if kind == "folder":
        return Folder(path)
    try:
        return Zip(path) if kind == "zip" else Records(path, kind)
    except (OSError, zipfile.BadZipFile, struct.error, UnicodeDecodeError) as error:
        raise CannotMerge(f"{path.name} cannot be read ({error})") from error


# texts, line by line


def lines_of(data: bytes, name: str) -> list[str]:
    """A text's lines, without the line feeds between them; JSON is laid out anew, one value a line and without commas."""
    try:
        if not name.endswith(".json"):
            return data.decode().split("\n")
        told = json.loads(data.decode("utf-8-sig"))
    except ValueError as error:
        raise CannotMerge(f"{name} cannot be read ({error})") from error
    if told == {}:
        return ["{", "}"]
    return [line.removesuffix(",") for line in json.dumps(told, indent=1, ensure_ascii=False).split("\n")]


def text_of(lines: list[str], name: str) -> bytes:
    """Lines as the text of a file."""
    if not name.endswith(".json"):
        return "\n".join(lines).encode()
    out = []
    for place, line in enumerate(lines):
        follows = place + 1 < len(lines) and not lines[place + 1].strip().startswith(("}", "]"))
        out.append(line + ("," if follows and not line.endswith(("{", "[")) else ""))
    whole = "\n".join(out) + "\n"
    try:
        json.loads(whole)
    except ValueError as error:
        raise CannotMerge(f"{name} would be no JSON any more ({error})") from error
    return whole.encode()


def applied(hunks: list[dict[str, Any]], lines: list[str], name: str) -> list[str]:
    """Lines with some changes made: each where its old lines stand and those around it are most like."""
    out, shift = list(lines), 0
    for hunk in hunks:
        cut, put, before, behind = hunk["cut"], hunk["put"], hunk["before"], hunk["behind"]
        if put and _stands(out, put, before, behind) and not _stands(out, cut, before, behind):
            continue  # the other one does the same
        best = 0
        places: list[int] = []
        for place in range(len(out) - len(cut) + 1):
            if out[place : place + len(cut)] != cut:
                continue
            rest = out[place + len(cut) :]
            score = sum(
                one == two for one, two in zip(reversed(before), reversed(out[:place]), strict=False)
            ) + sum(one == two for one, two in zip(behind, rest, strict=False))
            near = place == 0 or (bool(before) and out[place - 1] == before[-1])
            near = near or (bool(behind) and rest[:1] == behind[:1])
            if (cut or near) and score >= best:
                places = [*places, place] if score == best else [place]
                best = score
        if not places or (cut and len(places) > 1) or (best == 0 and (before or behind)):
            what = cut[0].strip() if cut else put[0].strip()
            raise CannotMerge(f"both change {name} at “{what}”")
        place = places[-1] if not cut else min(places, key=lambda one: abs(one - hunk["at"] - shift))
        out[place : place + len(cut)] = put
        shift += len(put) - len(cut)
    return out


def _stands(lines: list[str], wanted: list[str], before: list[str], behind: list[str]) -> bool:
    """Whether some lines stand between the two that lie around them."""
    around = [*before[-1:], *wanted, *behind[:1]]
    return any(lines[place : place + len(around)] == around for place in range(len(lines)))


def parts_of(lines: list[str], name: str) -> dict[str, list[str]]:
    """A text's records: the outermost members of JSON; the tables of TOML, each with those in it.

    Refuses TOML that is not made of such tables alone.
    """
    out: dict[str, list[str]] = {"": []}
    here = ""
    for line in lines[1:-1] if name.endswith(".json") else lines:
        table = re.match(r'\[\s*("[^"]*"|[^\s."\[\]]+)', line)
        if name.endswith(".json"):
            here = line.partition(":")[0] if line.startswith(' "') else here
        elif line.startswith("[["):
            raise CannotMerge(f"{name} has several {line.strip()}, and which is which cannot be told")
        elif table:
            here = table[1].strip('"')
        elif not here and line.strip() and not line.startswith("#"):
            raise CannotMerge(f"{name} has “{line.strip()}” before its first record")
        out.setdefault(here, []).append(line)
    return out


def joined(parts: dict[str, list[str]], name: str) -> list[str]:
    """Records as one text again."""
    lines = [line for part in parts.values() for line in part]
    return ["{", *lines, "}"] if name.endswith(".json") else lines


def laid_over(base: list[str], over: list[str], name: str) -> list[str]:
    """A text with those records that another one has."""
    return joined({**parts_of(base, name), **parts_of(over, name)}, name)


def only_changed(base: list[str], text: list[str], name: str) -> list[str]:
    """Those records of a text that are not as in another one."""
    own = parts_of(base, name)

    def bare(lines: list[str] | None) -> list[str] | None:
        return None if lines is None else [line for line in lines if line.strip()]

    parts = parts_of(text, name)
    return joined({key: part for key, part in parts.items() if bare(own.get(key)) != bare(part)}, name)


# the work


class Merging:
    """This mod's files in a game, and what others have of them."""

    def __init__(self, home: Path, game: Path) -> None:
        self.home, self.game = home, game
        self.kept = game / f"before-{PLAN['id']}"
        self.note = self.kept / "merged.json"

    def _other(self, part: dict[str, Any], other: str) -> Path:
        if PLAN["in_place"]:
            return self.game / str(part["file"])
        return self.home.parent / other / str(part["file"]).replace("{id}", other)

    def _own(self, part: dict[str, Any]) -> Path:
        return self.home / str(part["file"]).replace("{id}", str(PLAN["id"]))

    def others(self) -> dict[str, list[str]]:
        """The files that others change, too, by mod; in games without a mods folder there is only the game itself."""
        if PLAN["in_place"]:
            return {"the game": [part["file"] for part in PLAN["parts"] if self._other(part, "").exists()]}
        out: dict[str, list[str]] = {}
        for folder in sorted(self.home.parent.iterdir()):
            if folder.is_dir() and folder != self.home:
                found = [name for part in PLAN["parts"] for name in self._shared(part, folder.name)]
                if found:
                    out[folder.name] = found
        return out

    def _shared(self, part: dict[str, Any], other: str) -> list[str]:
        path = self._other(part, other)
        if not path.exists():
            return []
        if part["whole"]:
            return [part["file"]]
        return sorted(set(part["entries"]) & opened(path, part["kind"]).names())

    def merged(self, other: str) -> dict[Path, bytes]:
        """What files become when what this mod changes is put into what another one has."""
        out: dict[Path, bytes] = {}
        for part in PLAN["parts"]:
            shared = self._shared(part, other)
            if not shared:
                continue
            theirs = opened(self._other(part, other), part["kind"])
            own = opened(self._own(part), part["kind"])
            names = part["entries"] if part["whole"] else shared
            wanted = {name: self._entry(part, name, own, theirs) for name in names}
            if part["kind"] == "folder":
                root = self._other(part, other) if PLAN["in_place"] else self._own(part)
                out.update({root / name: data for name, data in wanted.items()})
            elif PLAN["in_place"]:
                out[self._other(part, other)] = theirs.changed(wanted)
            else:  # the whole archive of the other one with this mod's entries, or this mod's with what both want
                out[self._own(part)] = (theirs if part["whole"] else own).changed(wanted)
        return out

    def _entry(self, part: dict[str, Any], name: str, own: Any, theirs: Any) -> bytes:
        told = part["entries"][name]
        if told is None or name not in theirs.names():
            return bytes(own.read(name))
        lines = lines_of(theirs.read(name), name)
        if told["game"] is None:
            return text_of(applied(told["hunks"], lines, name), name)
        source = opened(self.game / told["game"][0], told["game"][1])
        base = lines_of(source.read(told["game"][2]), name)
        together = applied(told["hunks"], laid_over(base, lines, name), name)
        return text_of(only_changed(base, together, name), name)

    def write(self, files: dict[Path, bytes]) -> None:
        """Put files in their places, all of them or none; what was there is kept, and what was kept before stays."""
        fresh = {path: path.with_name(path.name + ".part") for path in files}
        try:
            for path, data in files.items():
                aside = self.kept / path.relative_to(self.game)
                if path.exists() and not aside.exists():
                    aside.parent.mkdir(parents=True, exist_ok=True)
                    shutil.copyfile(path, aside.with_name(aside.name + ".part"))
                    aside.with_name(aside.name + ".part").replace(aside)
                fresh[path].write_bytes(data)
            told = {path.relative_to(self.game).as_posix(): digest(data) for path, data in files.items()}
            self.note.write_text(json.dumps({**self._written(), **told}, indent=1))
        except OSError:
            for part in fresh.values():
                part.unlink(missing_ok=True)
            raise
        for path, part in fresh.items():
            part.replace(path)

    def _written(self) -> dict[str, str]:
        try:
            return dict(json.loads(self.note.read_text()))
        except (OSError, ValueError):
            return {}

    def back(self) -> list[str]:
        """Everything as it was before; the paths that came back. Refuses where somebody changed a merged file since."""
        kept = [file for file in sorted(self.kept.rglob("*")) if file.is_file() and file.suffix != ".part"]
        asides = {file.relative_to(self.kept).as_posix(): file for file in kept if file != self.note}
        written = self._written()
        for inside, aside in asides.items():
            now = self.game / inside
            if now.exists() and digest(now.read_bytes()) not in (
                written.get(inside),
                digest(aside.read_bytes()),
            ):
                raise CannotMerge(
                    f"{inside} was changed since it was merged; what was there before is {aside}"
                )
        for inside, aside in asides.items():
            aside.replace(self.game / inside)
        shutil.rmtree(self.kept, ignore_errors=True)
        return list(asides)


def digest(data: bytes) -> str:
    """What tells one content from another."""
    return hashlib.sha256(data).hexdigest()


def main(words: list[str]) -> int:
    parser = argparse.ArgumentParser(
        description=f"Merges {PLAN['name']} with other mods that change the same files."
    )
    parser.add_argument("game", nargs="?", type=Path, help="the game's folder, where this is not in it")
    parser.add_argument("--over", metavar="MOD", help="the folder's name of the mod to merge with")
    parser.add_argument("--back", action="store_true", help="bring back what was there before")
    told = parser.parse_args(words)
    home = Path(__file__).resolve().parent
    game = told.game.resolve() if told.game else home.parents[len(Path(PLAN["mods"]).parts)]
    if PLAN["in_place"] and told.game is None:
        parser.error("say where the game is")
    work = Merging(home, game)
    try:
        if told.back:
            print("\n".join(f"as before: {path}" for path in work.back()) or "nothing was merged")
            return 0
        others = work.others()
        if not others:
            print("no other mod changes the same files")
            return 0
        if told.over is None and not PLAN["in_place"]:
            for mod, names in others.items():
                print(f"{mod} changes, too: {', '.join(names)}")
            print("python3 merge.py --over MOD merges with one of them")
            return 0
        if told.over is not None and told.over not in others and not PLAN["in_place"]:
            raise CannotMerge(f"no mod called {told.over} changes the same files: {', '.join(others)} do")
        files = work.merged(told.over or "")
        work.write(files)
    except _WRONG as error:
        print(f"Not merged: {error}", file=sys.stderr)
        return 1
    for path in files:
        print(f"merged: {path.relative_to(game).as_posix()}")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
