"""Integer expressions in layouts: `value * 2048 + data_start`, over fields that were read before.

They are read with Python's own parser and evaluated here, node by node, so that nothing but arithmetic can be said. The same
expression serves writing: `solve` finds the number to store from the number that it has to mean.
"""

from __future__ import annotations

import ast
from collections.abc import Mapping
from functools import cache
from typing import Any

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError

Columns = npt.NDArray[np.int64]
Number = int | Columns

_WHAT = "Working out an expression"
_LONGEST = 400
_SIZE = 1 << 62
_BINARY: dict[type[ast.operator], str] = {
    ast.Add: "+", ast.Sub: "-", ast.Mult: "*", ast.FloorDiv: "//", ast.Mod: "%",
    ast.LShift: "<<", ast.RShift: ">>", ast.BitAnd: "&", ast.BitOr: "|", ast.BitXor: "^",
}  # fmt: skip
_COMPARE: dict[type[ast.cmpop], str] = {
    ast.Eq: "==", ast.NotEq: "!=", ast.Lt: "<", ast.LtE: "<=", ast.Gt: ">", ast.GtE: ">=",
}  # fmt: skip
_CALLS = {"align": 2, "min": 2, "max": 2}


class Expression:
    """A parsed expression; `names` are the fields that it needs."""

    def __init__(self, text: str) -> None:
        self.text = text
        self._tree = _parse(text)
        self.names = frozenset(
            node.id for node in ast.walk(self._tree) if isinstance(node, ast.Name) and node.id not in _CALLS
        )

    def evaluate(self, values: Mapping[str, Number]) -> Number:
        """The number, or a column of numbers when a value is one. Raises FurnelError for what is not there."""
        try:
            return _evaluate(self._tree, values)  # type: ignore[no-any-return]
        except KeyError as error:
            known = ", ".join(sorted(values)) or "none"
            raise FurnelError(
                _WHAT,
                where=self.text,
                why=f"there is no field {error.args[0]!r} before it",
                remedy=f"What is known there: {known}",
            ) from error
        except (ZeroDivisionError, OverflowError, ValueError) as error:
            raise FurnelError(_WHAT, where=self.text, why=str(error)) from error

    def solve(self, wanted: Number, values: Mapping[str, Number], unknown: str = "value") -> Number:
        """The number called `unknown` for which the expression is `wanted`. Raises FurnelError when none is found.

        Expressions that are straight lines in it, or turn it over bit by bit, can be solved.
        """

        def at(value: Number) -> Number:
            return self.evaluate({**values, unknown: value})

        zero = at(0)
        slope = at(1) - zero
        steps = np.where(slope == 0, 1, slope) if isinstance(slope, np.ndarray) else slope or 1
        straight: Number = (wanted - zero) // steps
        right = np.equal(at(straight), wanted)
        if np.all(right):
            return straight
        turned = at(wanted)
        if np.all(right | np.equal(at(turned), wanted)):  # some of a column one way, some the other
            return np.where(right, straight, turned) if isinstance(turned, np.ndarray) else turned
        raise FurnelError(
            "Writing an archive",
            where=self.text,
            why=f"no number can be stored there that means {_first_wrong(at, wanted)}",
            remedy="Set [entry] align to the size of the archive's units, or write the expression as a straight line",
        )


@cache
def expression(text: str) -> Expression:
    """The expression with this text, parsed once."""
    return Expression(text)


def _first_wrong(at: Any, wanted: Number) -> int:
    for number in np.atleast_1d(np.asarray(wanted)).tolist():
        zero = at(0)
        zero = int(np.atleast_1d(zero)[0])
        slope = int(np.atleast_1d(at(1))[0]) - zero
        if slope == 0 or (number - zero) % slope:
            return int(number)
    return int(np.atleast_1d(np.asarray(wanted))[0])


def _parse(text: str) -> ast.expr:
    try:
        if len(text) > _LONGEST:
            raise SyntaxError("it is too long")
        tree = ast.parse(text.strip(), mode="eval").body
        for node in ast.walk(tree):
            _check(node)
        return tree
    except (SyntaxError, ValueError, RecursionError, MemoryError) as error:
        why = error.msg if isinstance(error, SyntaxError) else str(error)
        raise FurnelError(
            "Reading an expression",
            where=text,
            why=why,
            remedy="Use whole numbers, field names, + - * // % << >> & | ^, comparisons, and, or, not, align(x, n), min, max",
        ) from error


def _check(node: ast.AST) -> None:
    if isinstance(node, ast.Constant):
        if type(node.value) is not int:
            raise SyntaxError(f"{node.value!r} is not a whole number")
    elif isinstance(node, ast.Call):
        name = node.func.id if isinstance(node.func, ast.Name) else "?"
        if name not in _CALLS or len(node.args) != _CALLS[name] or node.keywords:
            raise SyntaxError(f"{name}(…) is not known, or takes another number of values")
    elif isinstance(node, ast.BinOp):
        if type(node.op) not in _BINARY:
            raise SyntaxError("only + - * // % << >> & | ^ are known")
    elif not isinstance(
        node,
        ast.Name | ast.UnaryOp | ast.Compare | ast.BoolOp | ast.IfExp | ast.operator | ast.unaryop | ast.cmpop
        | ast.boolop | ast.expr_context,
    ):  # fmt: skip
        raise SyntaxError(f"{type(node).__name__} is not known")


def _evaluate(node: ast.expr, values: Mapping[str, Number]) -> Any:
    if isinstance(node, ast.Constant):
        return node.value
    if isinstance(node, ast.Name):
        return values[node.id]
    if isinstance(node, ast.BinOp):
        return _binary(_BINARY[type(node.op)], _evaluate(node.left, values), _evaluate(node.right, values))
    if isinstance(node, ast.UnaryOp):
        inner = _evaluate(node.operand, values)
        if isinstance(node.op, ast.Not):
            return _whole(inner == 0)
        return (
            -inner if isinstance(node.op, ast.USub) else ~inner if isinstance(node.op, ast.Invert) else inner
        )
    if isinstance(node, ast.Compare):
        left, found = _evaluate(node.left, values), 1
        for operator, part in zip(node.ops, node.comparators, strict=True):
            right = _evaluate(part, values)
            found = found & _compare(_COMPARE[type(operator)], left, right)
            left = right
        return found
    if isinstance(node, ast.BoolOp):
        parts = [_whole(_evaluate(part, values) != 0) for part in node.values]
        joined = parts[0]
        for part in parts[1:]:
            joined = joined & part if isinstance(node.op, ast.And) else joined | part
        return joined
    if isinstance(node, ast.IfExp):
        test, yes, no = (_evaluate(part, values) for part in (node.test, node.body, node.orelse))
        return np.where(test, yes, no) if isinstance(test, np.ndarray) else yes if test else no
    assert isinstance(node, ast.Call) and isinstance(node.func, ast.Name)
    first, second = (_evaluate(part, values) for part in node.args)
    if node.func.id == "align":
        return first + (-first) % second
    if isinstance(first, np.ndarray) or isinstance(second, np.ndarray):
        return (np.minimum if node.func.id == "min" else np.maximum)(first, second)
    return min(first, second) if node.func.id == "min" else max(first, second)


def _binary(sign: str, left: Any, right: Any) -> Any:
    if sign in ("<<", ">>") and (np.any(np.less(right, 0)) or np.any(np.greater(right, 62))):
        raise ValueError("it shifts by less than 0 or more than 62 bits")
    if sign in ("//", "%") and np.any(np.equal(right, 0)):
        raise ZeroDivisionError("it divides by zero")
    with np.errstate(over="ignore"):
        found = {
            "+": lambda: left + right, "-": lambda: left - right, "*": lambda: left * right, "//": lambda: left // right,
            "%": lambda: left % right, "<<": lambda: left << right, ">>": lambda: left >> right,
            "&": lambda: left & right, "|": lambda: left | right, "^": lambda: left ^ right,
        }[sign]()  # fmt: skip
    if isinstance(found, int) and abs(found) > _SIZE << 2:
        raise OverflowError("its numbers grow beyond 64 bits")
    return found


def _compare(sign: str, left: Any, right: Any) -> Any:
    return _whole(
        {
            "==": lambda: left == right, "!=": lambda: left != right, "<": lambda: left < right,
            "<=": lambda: left <= right, ">": lambda: left > right, ">=": lambda: left >= right,
        }[sign]()
    )  # fmt: skip


def _whole(truth: Any) -> Any:
    return truth.astype(np.int64) if isinstance(truth, np.ndarray) else int(truth)
