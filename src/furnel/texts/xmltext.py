"""XML 1.0 that keeps every byte: an element is a table of its attributes (`@name`), its children (`tag`) and its `text`.

Entities of a document's own are never expanded; lxml, with all of that switched off, says first whether a text is well formed.
"""

from __future__ import annotations

import re
from xml.sax.saxutils import escape

from furnel.errors import FurnelError
from furnel.texts.document import DEEPEST, Document, Item, Node, Value, indent_at, scalar_text

_TOKEN = re.compile(
    r"<!--.*?-->|<!\[CDATA\[.*?\]\]>|<\?.*?\?>|<!DOCTYPE[^\[>]*(?:\[.*?\])?[^>]*>"
    r"|</\s*([^\s>]+)\s*>|<([^\s/>!?]+)((?:\s+[^\s=>/]+\s*=\s*(?:\"[^\"]*\"|'[^']*'))*)\s*(/?)>",
    re.DOTALL,
)
_ATTRIBUTE = re.compile(r"([^\s=]+)\s*=\s*(\"[^\"]*\"|'[^']*')")
_NAME = re.compile(r"[^\W\d][\w.\-:]*")
_ENTITY = re.compile(r"&(?:#x([0-9a-fA-F]+)|#(\d+)|(lt|gt|amp|quot|apos));")
_NAMED = {"lt": "<", "gt": ">", "amp": "&", "quot": '"', "apos": "'"}


class XmlDocument(Document):
    """An XML definition; all its values are texts. The whole is the outermost element."""

    notation = "XML"
    is_typed = False
    twins = "all"

    def _parse(self) -> Node:
        self._check()
        stack: list[tuple[str, int, int, list[Item]]] = []
        root: Node | None = None
        for found in _TOKEN.finditer(self.text):
            closing, opening = found.group(1), found.group(2)
            if opening is not None:
                items = self._attributes(found)
                if found.group(4):
                    root = self._close(stack, opening, found.start(), found.end(), items) or root
                else:
                    if len(stack) >= DEEPEST:
                        raise self._damage(found.start(), f"it is nested more than {DEEPEST} deep")
                    stack.append((opening, found.start(), found.end(), items))
            elif closing is not None:
                tag, start, inside, items = stack.pop()
                self._with_text(items, inside, found.start())
                root = self._close(stack, tag, start, found.end(), items) or root
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

    def _with_text(self, items: list[Item], start: int, end: int) -> None:
        """The element's text, where it has no children."""
        raw = self.text[start:end]
        if any(not item.key.startswith("@") for item in items) or "<" in raw or not raw.strip():
            return
        lead, tail = len(raw) - len(raw.lstrip()), len(raw) - len(raw.rstrip())
        node = Node("scalar", start + lead, end - tail, _unescaped(raw.strip()))
        items.append(Item("text", node, node.start, node.end))

    @staticmethod
    def _close(
        stack: list[tuple[str, int, int, list[Item]]], tag: str, start: int, end: int, items: list[Item]
    ) -> Node | None:
        """Put an element into the one around it; the outermost one is given back."""
        node = Node("table", start, end, None, tuple(items))
        if not stack:
            return node
        stack[-1][3].append(Item(tag, node, start, end, start + 1, start + 1 + len(tag)))
        return None

    def rename(self, address: tuple[object, ...], key: str) -> Document:
        raise self._refusal((), "elements and attributes keep their names: add one and drop the other")

    def _spelled(self, value: Value, parent: Node, like: str) -> str:
        if isinstance(value, dict | list):
            raise self._refusal((), "an element is changed part by part")
        return escape(
            scalar_text(value),
            {'"': "&quot;", "'": "&apos;"} if '"' in str(value) or "'" in str(value) else {},
        )

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
            return at, at, f' {key[1:]}="{self._spelled(value, parent, "")}"'
        children = [item for item in parent.items if item.key_start > 0 and not item.key.startswith("@")]
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
        if any(item.key == "text" for item in parent.items):
            raise self._refusal((), "an element with text has no children")
        tag = self._tag(parent)
        filled = f"{end}{inner}{element}{end}{self._own_indent(parent)}"
        if closed:
            return head_end - 2, head_end, f">{filled}</{tag}>"
        return head_end, self.text.rfind("</", head_end, parent.end), filled

    def _element(self, key: str, value: Value, indent: str) -> str:
        """An element's text; its further lines begin behind `indent`."""
        if not isinstance(value, dict):
            return f"<{key}>{self._spelled(value, self.root, '')}</{key}>"
        head = "".join(
            f' {name[1:]}="{self._spelled(part, self.root, "")}"'
            for name, part in value.items()
            if name[:1] == "@"
        )
        end, deeper = "\r\n" if "\r\n" in self.text else "\n", indent + self._unit()
        inner = [
            self._element(name, one, deeper)
            for name, part in value.items()
            if name[:1] != "@" and name != "text"
            for one in (part if isinstance(part, list) else [part])
        ]
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
