"""XML 1.0 that keeps every byte: an element is a table of its attributes (`@name`), its children (`tag`) and its `text`.
CDATA and text around comments are read as any reader does; a text among children is one `text` for each piece.

Entities of a document's own are never expanded; lxml, with all of that switched off, says first whether a text is well formed.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from xml.sax.saxutils import escape

from furnel.errors import FurnelError
from furnel.texts.document import (
    DEEPEST,
    Document,
    Found,
    Item,
    Node,
    Value,
    Verbatim,
    indent_at,
    scalar_text,
)

_TOKEN = re.compile(
    r"<!--.*?-->|<!\[CDATA\[.*?\]\]>|<\?.*?\?>|<!DOCTYPE[^\[>]*(?:\[.*?\])?[^>]*>"
    r"|</\s*([^\s>]+)\s*>|<([^\s/>!?]+)((?:\s+[^\s=>/]+\s*=\s*(?:\"[^\"]*\"|'[^']*'))*)\s*(/?)>",
    re.DOTALL,
)
_ATTRIBUTE = re.compile(r"([^\s=]+)\s*=\s*(\"[^\"]*\"|'[^']*')")
_NAME = re.compile(r"[^\W\d][\w.\-:]*")
_ENTITY = re.compile(r"&(?:#x([0-9a-fA-F]+)|#(\d+)|(lt|gt|amp|quot|apos));")
_NAMED = {"lt": "<", "gt": ">", "amp": "&", "quot": '"', "apos": "'"}


_CDATA = re.compile(r"<!\[CDATA\[.*?\]\]>", re.DOTALL)
_NOTE = re.compile(r"<!--.*?-->|<\?.*?\?>", re.DOTALL)


@dataclass(slots=True)
class _Open:
    """An element that is not closed yet: its runs of text, CDATA, comments and elements, and whether blanks in it count."""

    tag: str
    start: int
    items: list[Item]
    blanks: bool
    runs: list[tuple[str, int, int]] = field(default_factory=list)


def _keeps_blanks(items: list[Item], stack: list[_Open]) -> bool:
    said = next((item.node.value for item in items if item.key == "@xml:space"), None)
    return said == "preserve" if said is not None else bool(stack and stack[-1].blanks)


class XmlDocument(Document):
    """An XML definition; all its values are texts. The whole is the outermost element."""

    notation = "XML"
    is_typed = False
    twins = "all"

    def _parse(self) -> Node:
        self._check()
        stack: list[_Open] = []
        root: Node | None = None
        at = 0
        for found in _TOKEN.finditer(self.text):
            closing, opening = found.group(1), found.group(2)
            if stack and at < found.start():
                stack[-1].runs.append(("text", at, found.start()))
            at = found.end()
            if opening is not None:
                items = self._attributes(found)
                if stack:
                    stack[-1].runs.append(("element", *found.span()))
                if found.group(4):
                    root = self._close(stack, opening, found.start(), found.end(), items) or root
                else:
                    if len(stack) >= DEEPEST:
                        raise self._damage(found.start(), f"it is nested more than {DEEPEST} deep")
                    stack.append(_Open(opening, found.start(), items, _keeps_blanks(items, stack)))
            elif closing is not None:
                inner = stack.pop()
                inner.items.extend(self._texts(inner))
                inner.items.sort(key=lambda item: item.start)
                root = self._close(stack, inner.tag, inner.start, found.end(), inner.items) or root
            elif stack:
                kind = "cdata" if found.group().startswith("<![CDATA[") else "note"
                stack[-1].runs.append((kind, *found.span()))
        if root is None:
            raise self._damage(0, "there is no element in it")
        return root

    def _check(self) -> None:
        from lxml import etree

        parser = etree.XMLParser(resolve_entities=False, no_network=True, load_dtd=False, huge_tree=False)
        body = re.sub(
            r"^(\s*<\?xml[^>]*?)\s+encoding\s*=\s*(?:\"[^\"]*\"|'[^']*')", r"\1", self.text, count=1
        )
        try:
            etree.fromstring(body.encode("utf-8"), parser)
        except etree.XMLSyntaxError as error:
            line, _ = error.position
            raise FurnelError(
                "Reading a definition",
                where=self.where,
                line=line or 0,
                why=str(error),
                remedy="Correct it in a text editor",
            ) from error

    def _attributes(self, found: re.Match[str]) -> list[Item]:
        out = []
        for part in _ATTRIBUTE.finditer(self.text, found.start(3), found.end(3)):
            start, end = part.start(2) + 1, part.end(2) - 1
            node = Node("scalar", start, end, _unescaped(self.text[start:end]))
            out.append(Item(f"@{part.group(1)}", node, part.start(), part.end(), part.start(1), part.end(1)))
        return out

    def _texts(self, inner: _Open) -> list[Item]:
        """An element's text: one, with what stands in comments left out; between children one for each piece."""
        pieces = [
            run for run in inner.runs
            if run[0] == "cdata" or (run[0] == "text" and (inner.blanks or self.text[run[1] : run[2]].strip()))
        ]  # fmt: skip
        if not pieces:
            return []
        if any(kind == "element" for kind, *_ in inner.runs):
            return [
                self._text_item(start, end, self._run_text(kind, start, end)) for kind, start, end in pieces
            ]
        start, end = pieces[0][1], pieces[-1][2]
        value = "".join(self._run_text(*run) for run in pieces)
        if not inner.blanks and any(kind == "text" for kind, *_ in pieces):
            if pieces[0][0] == "text":
                start += len(self.text[start:end]) - len(self.text[start:end].lstrip())
                value = value.lstrip()
            if pieces[-1][0] == "text":
                end -= len(self.text[start:end]) - len(self.text[start:end].rstrip())
                value = value.rstrip()
        return [self._text_item(start, end, value)]

    def _run_text(self, kind: str, start: int, end: int) -> str:
        return self.text[start + 9 : end - 3] if kind == "cdata" else _unescaped(self.text[start:end])

    @staticmethod
    def _text_item(start: int, end: int, value: str) -> Item:
        return Item("text", Node("scalar", start, end, value), start, end)

    @staticmethod
    def _close(stack: list[_Open], tag: str, start: int, end: int, items: list[Item]) -> Node | None:
        """Put an element into the one around it; the outermost one is given back."""
        node = Node("table", start, end, None, tuple(items))
        if not stack:
            return node
        stack[-1].items.append(Item(tag, node, start, end, start + 1, start + 1 + len(tag)))
        return None

    def rename(self, address: tuple[object, ...], key: str) -> Document:
        raise self._refusal((), "elements and attributes keep their names: add one and drop the other")

    def same_besides(self, other: Document) -> bool:
        """Whether processing instructions, the document type, and the order of children of several names are the same."""
        if not isinstance(other, XmlDocument) or self._outside() != other._outside():
            return False
        return self._same_order(self.root, other, other.root)

    def _outside(self) -> list[str]:
        return [
            found.group() for found in _TOKEN.finditer(self.text) if found.group()[:2] in ("<?", "<!")
            and not found.group().startswith(("<!--", "<![CDATA[", "<?xml "))
        ]  # fmt: skip

    def _same_order(self, mine: Node, other: XmlDocument, theirs: Node) -> bool:
        own, there = ([item for item in node.items if item.key[:1] != "@"] for node in (mine, theirs))
        tags, others = ([item.key for item in items] for items in (own, there))
        if tags != others:
            return sorted(tags) != sorted(others)  # what came in or went out is told by itself
        return all(self._same_order(one.node, other, two.node) for one, two in zip(own, there, strict=True))

    def moving(self, node: Node) -> Value:
        return Verbatim(self.text[node.start : node.end])

    def _escaped(self, value: Value, signs: dict[str, str]) -> str:
        if isinstance(value, dict | list):
            raise self._refusal((), "an element is changed part by part")
        text = escape(scalar_text(value), {"\r": "&#13;", **signs})
        return text.encode(self.encoding.name, "xmlcharrefreplace").decode(self.encoding.name)

    def _attribute(self, value: Value) -> str:
        """An attribute's value: a reader makes blanks of line ends and tabs that are not written as numbers."""
        return self._escaped(value, {'"': "&quot;", "'": "&apos;", "\n": "&#10;", "\t": "&#9;"})

    def _spelled(self, value: Value, parent: Node, like: str) -> str:
        return self._escaped(value, {})

    def _respelled(self, value: Value, found: Found, old: str) -> str:
        if found.item is not None and found.item.key.startswith("@"):
            return self._attribute(value)
        if _CDATA.fullmatch(old) and isinstance(value, str):
            return "<![CDATA[" + self._storable(value).replace("]]>", "]]]]><![CDATA[>") + "]]>"
        return self._escaped(value, {}) + "".join(_NOTE.findall(_CDATA.sub("", old)))

    def _inserted(self, parent: Node, place: int, key: str, value: Value) -> tuple[int, int, str]:
        if not _NAME.fullmatch(key.removeprefix("@")):
            raise self._refusal((), f"{key!r} is no name in XML")
        head_end = self._head_end(parent)
        closed = self.text[head_end - 2 : head_end] == "/>"
        if key.startswith("@"):
            if any(item.key == key for item in parent.items):
                raise self._refusal((), f"it has a {key} already")
            attributes = [item for item in parent.items if item.key.startswith("@")]
            at = attributes[-1].end if attributes else parent.start + 1 + len(self._tag(parent))
            return at, at, f' {key[1:]}="{self._attribute(value)}"'
        children = [item for item in parent.items if item.key_start > 0 and not item.key.startswith("@")]
        if key == "text" and children and not isinstance(value, dict | list | Verbatim):
            raise self._refusal(
                (), "an element with children gets no text beside them: change it in a text editor"
            )
        inner = (
            indent_at(self.text, children[0].start) if children else self._own_indent(parent) + self._unit()
        )
        element = self._element(key, value, inner)
        end = "\r\n" if "\r\n" in self.text else "\n"
        ahead = [item for item in parent.items[:place] if item in children]
        if ahead:
            return ahead[-1].end, ahead[-1].end, end + inner + element
        if children:
            return children[0].start, children[0].start, element + end + inner
        tag = self._tag(parent)
        if key == "text" and not isinstance(value, dict | list | Verbatim):
            return self._with_first_text(parent, tag, head_end, closed, self._spelled(value, parent, ""))
        if any(item.key == "text" for item in parent.items):
            raise self._refusal((), "an element with text has no children")
        filled = f"{end}{inner}{element}{end}{self._own_indent(parent)}"
        if closed:
            return head_end - 2, head_end, f">{filled}</{tag}>"
        return head_end, self.text.rfind("</", head_end, parent.end), filled

    def _with_first_text(
        self, parent: Node, tag: str, head_end: int, closed: bool, text: str
    ) -> tuple[int, int, str]:
        """An element that has no text yet with one."""
        if any(item.key == "text" for item in parent.items):
            raise self._refusal((), "it has a text already")
        if closed:
            return head_end - 2, head_end, f">{text}</{tag}>"
        blank = re.compile(r"\s*").match(self.text, head_end)
        return head_end, blank.end() if blank is not None else head_end, text

    def _element(self, key: str, value: Value, indent: str) -> str:
        """An element's text; its further lines begin behind `indent`."""
        if isinstance(value, Verbatim):
            return str(value)
        if not isinstance(value, dict):
            return f"<{key}>{self._spelled(value, self.root, '')}</{key}>"
        head = "".join(
            f' {name[1:]}="{self._attribute(part)}"' for name, part in value.items() if name[:1] == "@"
        )
        end, deeper = "\r\n" if "\r\n" in self.text else "\n", indent + self._unit()
        inner = [
            self._element(name, one, deeper)
            for name, part in value.items()
            if name[:1] != "@" and name != "text"
            for one in (part if isinstance(part, list) else [part])
        ]
        if isinstance(value.get("text"), list) or (inner and "text" in value):
            raise self._refusal(
                (), f"{key} has text between its parts, which is not written anew: copy it in a text editor"
            )
        if inner:
            lines = "".join(f"{end}{deeper}{line}" for line in inner)
            return f"<{key}{head}>{lines}{end}{indent}</{key}>"
        if "text" in value:
            return f"<{key}{head}>{self._spelled(value['text'], self.root, '')}</{key}>"
        return f"<{key}{head}/>"

    def _removed(self, parent: Node, place: int) -> tuple[int, int, str]:
        item = parent.items[place]
        start, end = item.start, item.end
        if item.key.startswith("@"):
            while self.text[start - 1 : start].isspace():
                start -= 1
            return start, end, ""
        line = self.text.rfind("\n", 0, start) + 1
        if (
            item.key != "text"
            and not self.text[line:start].strip()
            and self.text[end : end + 2].strip("\r")[:1] == "\n"
        ):
            return line, self.text.index("\n", end) + 1, ""
        return start, end, ""

    def _tag(self, node: Node) -> str:
        found = _NAME.match(self.text, node.start + 1)
        return found.group() if found else ""

    def _head_end(self, node: Node) -> int:
        found = _TOKEN.match(self.text, node.start)
        assert found is not None
        return found.end()

    def _own_indent(self, node: Node) -> str:
        return indent_at(self.text, node.start)

    def _unit(self) -> str:
        for item in self.root.items:
            if not item.key.startswith("@") and (found := indent_at(self.text, item.start)):
                return found
        return "  "


def _unescaped(text: str) -> str:
    def plain(found: re.Match[str]) -> str:
        code = found.group(1) or found.group(2)
        if code is None:
            return _NAMED[found.group(3)]
        number = int(code, 16 if found.group(1) else 10)
        return chr(number) if number < 0x110000 else ""

    return _ENTITY.sub(plain, text)
