"""Another load order in a game's own file, with every other byte as it was: comments, other keys, spacing, line ends.

Rows that stay keep their text; rows that go are taken out, new ones are written like the others, and the rows are put in their
new order into the places that rows have.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from typing import Any

from furnel.texts import Document, Step, document_of
from furnel.texts.address import Address

Order = Sequence[tuple[str, bool]]
Span = tuple[int, int]


def in_json(text: str, path: list[str], name: str, on: str, order: Order) -> str:
    """A list of rows (tables with the id under `name` and the switch under `on`; without that, ids) in JSON."""
    at = tuple(map(Step, path))
    document = _with_way(document_of(text.encode(), "order.json"), at, [])

    def rows(now: Document) -> list[tuple[str, Span]]:
        return [
            (str(item.node.value if item.node.kind == "scalar" else item.node.plain()[name]), (item.start, item.end))
            for item in now.find(at).node.items
        ]  # fmt: skip

    def row(place: int) -> Address:
        last = at[-1] if at else Step()
        return (*at[:-1], Step(last.key, place=place))

    def switched(now: Document, place: int, want: bool) -> Document:
        there = now.look(row(place))
        if not on or not isinstance(there, dict) or bool(there.get(on, True)) == want:
            return now
        return now.set((*row(place), Step(on)), want) if on in there else now.add(row(place), on, want)

    return _arranged(
        document, order, rows, lambda now, place: now.drop(row(place)), switched,
        lambda now, mod, want: now.add(at, "", {name: mod, on: want} if on else mod),
    )  # fmt: skip


def in_xml(text: str, path: list[str], name: str, on: str, order: Order) -> str:
    """Elements in XML; `path` are the elements that they lie in, from the outermost one, and their own name."""
    _, *above, tag = path
    at = tuple(map(Step, above))
    document = _with_way(document_of(text.encode(), "order.xml"), at, {})

    def rows(now: Document) -> list[tuple[str, Span]]:
        items = (item for item in now.find(at).node.items if item.key == tag)
        return [(str(item.node.plain()[f"@{name}"]), (item.start, item.end)) for item in items]

    def switched(now: Document, place: int, want: bool) -> Document:
        row = (*at, Step(tag, place=place))
        there = now.look(row).get(f"@{on}", "true") if on else ""
        if not on or (there.strip().lower() not in ("0", "false", "no", "off")) == want:
            return now
        value = "true" if want else "false"
        return (
            now.set((*row, Step(f"@{on}")), value)
            if f"@{on}" in now.look(row)
            else now.add(row, f"@{on}", value)
        )

    def added(now: Document, mod: str, want: bool) -> Document:
        row = {f"@{name}": mod} | ({f"@{on}": "true" if want else "false"} if on else {})
        return now.add(at, tag, row)

    return _arranged(
        document, order, rows, lambda now, place: now.drop((*at, Step(tag, place=place))), switched, added
    )


def in_ini(text: str, section: str, order: Order) -> str:
    """A section of INI whose keys are the ids and whose values are 1 or 0."""
    at = (Step(section),)
    document = document_of(text.encode(), "order.ini")
    if not document.has(at):
        document = document.add((), section, {})

    def rows(now: Document) -> list[tuple[str, Span]]:
        return [(item.key, (item.start, item.end)) for item in now.find(at).node.items]

    def switched(now: Document, place: int, want: bool) -> Document:
        item = now.find(at).node.items[place]
        is_on = str(item.node.value).strip().lower() in ("1", "true", "yes", "on")
        return now if is_on == want else now.set((*at, Step(item.key)), int(want))

    return _arranged(
        document, order, rows, lambda now, place: now.drop((*at, Step(now.find(at).node.items[place].key))), switched,
        lambda now, mod, want: now.add(at, mod, int(want)),
    )  # fmt: skip


def in_toml(text: str, path: list[str], name: str, on: str, order: Order) -> str:
    """An array of tables in TOML, or of ids."""
    at = tuple(map(Step, path))
    document = document_of(text.encode(), "order.toml")
    if not on:
        ids = [mod for mod, _ in order]
        return (document.set(at, ids) if document.has(at) else _with_way(document, at, ids)).text
    header = re.compile(rf"^[ \t]*\[\[[ \t]*{re.escape('.'.join(path))}[ \t]*\]\]", re.MULTILINE)
    if document.has(at) and len(header.findall(text)) != len(
        document.look(at)
    ):  # written as a list in one line
        rows = [{name: mod, on: want} for mod, want in order]
        return document.set(at, rows).text
    end = "\r\n" if "\r\n" in text else "\n"
    blocks, rest = _toml_blocks(text, header)
    told: list[str] = []
    for mod, want in order:
        own = next((block for block, row in blocks if row.get(name) == mod), None)
        if own is None:
            own = f"{end}[[{'.'.join(path)}]]{end}{name} = {_quoted(mod)}{end}{on} = {str(want).lower()}{end}"
        else:
            own = _toml_switched(own, on, want, end)
        told.append(own)
    places = [number for number, part in enumerate(rest) if part is None]
    if not places:
        before = rest[0] or ""
        lead = end if before and not before.endswith("\n") else ""
        return before + lead + ("".join(told) if before else "".join(told).removeprefix(end))
    out = list(rest)
    for number in places:
        last = number == places[-1]
        here = told[:] if last else told[:1]
        del told[: len(here)]
        out[number] = "".join(one if one.endswith("\n") else one + end for one in here)
        if not here and number > places[0] and not (out[number - 1] or "").strip():
            out[number - 1] = ""  # the blank line before it goes with it
    return "".join(part or "" for part in out)


def _quoted(text: str) -> str:
    import tomlkit

    return tomlkit.string(text).as_string()


def _toml_blocks(
    text: str, header: re.Pattern[str]
) -> tuple[list[tuple[str, dict[str, Any]]], list[str | None]]:
    """The tables of an array, each with the comments right above it; and the text around them, None where one stands."""
    import tomllib

    starts = []
    for found in header.finditer(text):
        start = found.start()
        while (line := text.rfind("\n", 0, max(start - 1, 0)) + 1) < start and text[
            line:start
        ].lstrip().startswith("#"):
            start = line
        starts.append((start, found.start()))
    nexts = re.compile(r"^(?:[ \t]*#[^\n]*\n)*[ \t]*\[", re.MULTILINE)
    blocks: list[tuple[str, dict[str, Any]]] = []
    rest: list[str | None] = []
    at = 0
    for start, head in starts:
        after = nexts.search(text, text.find("\n", head) + 1) if "\n" in text[head:] else None
        end = after.start() if after is not None else len(text)
        body = text[start:end].rstrip()
        end = min(start + len(body) + len(re.match(r"[ \t\r]*\n?", text[start + len(body) :]).group()), end)  # type: ignore[union-attr]
        rest += [text[at:start], None]
        row = tomllib.loads(text[start:end])
        while isinstance(row, dict) and len(row) == 1 and isinstance(next(iter(row.values())), dict | list):
            inner = next(iter(row.values()))
            row = inner[0] if isinstance(inner, list) else inner
        blocks.append((text[start:end], row))
        at = end
    return blocks, [*rest, text[at:]]


def _toml_switched(block: str, on: str, want: bool, end: str) -> str:
    found = re.search(rf"^([ \t]*{re.escape(on)}[ \t]*=[ \t]*)(true|false)", block, re.MULTILINE)
    if found is None:
        return block if want else f"{block.rstrip()}{end}{on} = false{end}"
    if (found.group(2) == "true") == want:
        return block
    return block[: found.start(2)] + str(want).lower() + block[found.end(2) :]


def in_lines(text: str, off: str, order: Order) -> str:
    """A line for each mod; `off` goes before one that is not on, and before a sentence that is a comment."""
    end = "\r\n" if "\r\n" in text else "\n"
    lines = text.splitlines(keepends=True)
    places = []
    for number, line in enumerate(lines):
        bare = line.strip()
        mod = bare.removeprefix(off).strip() if off and bare.startswith(off) else bare
        if mod and (mod == bare or " " not in mod):
            places.append(number)
    told = [mod if on else off + mod for mod, on in order]
    for place in places[len(told) :]:
        lines[place] = ""
    for place, line in zip(places, told, strict=False):
        if lines[place].strip() != line:
            lines[place] = line + end
    if lines and told[len(places) :] and not lines[-1].endswith("\n"):
        lines[-1] += end
    return "".join([*lines, *(line + end for line in told[len(places) :])])


def _with_way(document: Document, at: Address, empty: Any) -> Document:
    """The document with everything that leads to an address, and `empty` there."""
    for length in range(1, len(at) + 1):
        if not document.has(at[:length]):
            document = document.add(at[: length - 1], at[length - 1].key, empty if length == len(at) else {})
    return document


def _arranged(
    document: Document,
    order: Order,
    rows: Callable[[Document], list[tuple[str, Span]]],
    drop: Callable[[Document, int], Document],
    switched: Callable[[Document, int, bool], Document],
    add: Callable[[Document, str, bool], Document],
) -> str:
    wanted = dict(order)
    seen: set[str] = set()
    gone = []
    for place, (mod, _) in enumerate(rows(document)):
        if mod not in wanted or mod in seen:
            gone.append(place)
        seen.add(mod)
    for place in reversed(gone):
        document = drop(document, place)
    for place, (mod, _) in enumerate(rows(document)):
        document = switched(document, place, wanted[mod])
    there = {mod for mod, _ in rows(document)}
    for mod, on in order:
        if mod not in there:
            document = add(document, mod, on)
    spans = rows(document)
    texts = {mod: document.text[start:end] for mod, (start, end) in spans}
    out, at = [], 0
    for (_, (start, end)), (mod, _) in zip(spans, order, strict=True):
        out += [document.text[at:start], texts[mod]]
        at = end
    return "".join([*out, document.text[at:]])
