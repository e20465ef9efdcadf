"""Texts in brackets: `(head value …)` and `head name { key value … }`."""

from __future__ import annotations

from furnel.texts.document import DEEPEST, Item, Node
from furnel.texts.shapes.scan import NUMBER, Scan, Token, head_name

_PAIRS = {"(": ")", "[": "]", "{": "}"}


class Brackets(Scan):
    """The shapes `lists` and `nested`."""

    def read(self) -> list[Item]:
        """Everything in the text."""
        items, _ = self.inside(0, "", 0)
        return items

    def inside(self, at: int, closer: str, depth: int) -> tuple[list[Item], int]:
        """What stands between two brackets (or in the whole): its items, and the number of the closing piece."""
        if depth > DEEPEST:
            raise self.damage(self.tokens[at].start, f"it is nested more than {DEEPEST} deep")
        tokens, items, bare = self.tokens, list[Item](), self.form.shape == "lists"
        while at < len(tokens):
            token = tokens[at]
            if token.sort == "close":
                if token.text != closer:
                    raise self.damage(
                        token.start, f"{token.text} stands here, and {closer or 'nothing'} is open"
                    )
                return items, at
            if token.sort in ("line", "sign"):
                at += 1
            elif bare and token.sort == "open":
                item, at = self._listed(at, depth)
                items.append(item)
            elif bare and not closer:
                raise self.damage(token.start, f"{token.text[:20]!r} stands outside of all brackets")
            else:
                item, at = self._entry(at, depth)
                items.append(item)
        if closer:
            raise self.damage(len(self.text), f"it ends before {closer}")
        return items, at

    def _listed(self, at: int, depth: int) -> tuple[Item, int]:
        """`(head value (head value))`."""
        opened, tokens = self.tokens[at], self.tokens
        if depth > DEEPEST:
            raise self.damage(opened.start, f"it is nested more than {DEEPEST} deep")
        at += 1
        head: Token | None = None
        parts: list[Item | Token] = []
        while True:
            if at >= len(tokens):
                raise self.damage(opened.start, f"{opened.text} is never closed")
            token = tokens[at]
            if token.sort == "close":
                break
            if token.sort == "open":
                part, at = self._listed(at, depth + 1)
                marked = part.key == "_" and part.node.kind == "scalar"
                parts.append(
                    Token(
                        "quoted", self.text[part.node.start : part.node.end], part.node.start, part.node.end
                    )
                    if marked
                    else part
                )
                continue
            if token.sort != "line":
                if head is None and not parts and token.sort == "word":
                    head = token
                elif (
                    token.sort == "run" and parts
                ):  # it stands last: there is nothing but its bracket behind it
                    parts += self.words(token)
                else:
                    parts.append(token)
            at += 1
        end = tokens[at].end
        key = head.text if head is not None else "@list"
        spans = (head.start, head.end) if head is not None else (-1, -1)
        return Item(key, self.of_parts(parts, opened.start, end), opened.start, end, *spans), at + 1

    def _entry(self, at: int, depth: int) -> tuple[Item, int]:
        """`key value`, `key = value`, `head name { … }`, or a value alone."""
        tokens, first, assign = self.tokens, self.tokens[at], self.form.assign
        heads = list[Token]()
        key: Token | None = None
        if (
            first.text == "["
            and [one.sort for one in tokens[at + 2 : at + 3]] == ["close"]
            and self._assigns(at + 3)
        ):
            key, at = tokens[at + 1], at + 3  # [key] = value
        while at < len(tokens) and tokens[at].sort in ("word", "quoted") and key is None:
            heads.append(tokens[at])
            at += 1
            if assign and self._assigns(at):
                break
        after = at
        while after < len(tokens) and tokens[after].sort == "line":
            after += 1
        if (key is not None or len(heads) == 1) and self._assigns(at):
            key = key or heads[0]
            node, at = self._value(at + 1, depth)
            return Item(self.plain(key), node, first.start, self.tokens[at - 1].end, key.start, key.end), at
        opens = at < len(tokens) and tokens[at].sort == "open"
        opens = opens or (bool(heads) and after < len(tokens) and tokens[after].text == "{")
        if opens:
            at = at if tokens[at].sort == "open" else after
            node, at = self.bracket(at, depth)
            end = self.tokens[at - 1].end
            if not heads:
                return Item("@item", node, first.start, end), at
            names = [
                Item(head_name(number), self.scalar(one), one.start, one.end)
                for number, one in enumerate(heads[1:], 1)
            ]
            if names:
                inner = node.items if node.kind == "table" else (Item("@list", node, node.start, node.end),)
                node = Node("table", first.start, end, None, (*names, *inner))
            return Item(self.plain(heads[0]), node, first.start, end, heads[0].start, heads[0].end), at
        if not heads:
            raise self.damage(first.start, f"{first.text[:20]!r} stands where a name should be")
        if len(heads) == 1:
            return Item("@item", self.scalar(heads[0]), first.start, heads[0].end), at
        node = self.of_parts(heads[1:], heads[1].start, heads[-1].end)
        return Item(self.plain(heads[0]), node, first.start, heads[-1].end, heads[0].start, heads[0].end), at

    def _assigns(self, at: int) -> bool:
        return (
            at < len(self.tokens)
            and self.tokens[at].sort == "sign"
            and self.tokens[at].text in self.form.assign
        )

    def _value(self, at: int, depth: int) -> tuple[Node, int]:
        """What stands behind the sign between key and value."""
        tokens = self.tokens
        while at < len(tokens) and tokens[at].sort == "line":
            at += 1
        words = list[Token]()
        while at < len(tokens) and tokens[at].sort in ("word", "quoted"):
            words.append(tokens[at])
            at += 1
        if at < len(tokens) and tokens[at].sort == "open":
            return self.bracket(at, depth)
        if not words:
            raise self.damage(tokens[at].start if at < len(tokens) else len(self.text), "a value is missing")
        if len(words) == 1:
            return self.scalar(words[0]), at
        start, end = words[0].start, words[-1].end
        return Node("scalar", start, end, self.text[start:end]), at

    def bracket(self, at: int, depth: int) -> tuple[Node, int]:
        opened = self.tokens[at]
        items, close = self.inside(at + 1, _PAIRS[opened.text], depth + 1)
        end = self.tokens[close].end
        if not items and opened.text != "{":
            return Node("list", opened.start, end), close + 1
        if items and all(item.key == "@item" for item in items):
            bare = [Item("", item.node, item.start, item.end) for item in items]
            return Node("list", opened.start, end, None, tuple(bare)), close + 1
        if items and all(NUMBER.fullmatch(item.key) or item.key == "@item" for item in items):
            rows = [self._row(item) for item in items]
            return Node("list", opened.start, end, None, tuple(rows)), close + 1
        return Node("table", opened.start, end, None, tuple(items)), close + 1

    def _row(self, item: Item) -> Item:
        """A line of numbers in brackets: the first is no key."""
        words = [token for token in self.pieces(item.start, item.end) if token.sort in ("word", "quoted")]
        cells = [Item("", self.scalar(one), one.start, one.end) for one in words]
        return Item("", Node("list", item.start, item.end, None, tuple(cells)), item.start, item.end)
