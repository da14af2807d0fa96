"""Arithmetic written out: the small language that the steps of a working are told in.

It is Python's syntax with numbers, names, + - * / **, comparisons and a few functions. Lists are handled element by
element; `sum` and `cumsum` run along one, `interp(x, xs, ys)` draws straight lines between its points.
"""

from __future__ import annotations

import ast
import operator
from collections.abc import Callable, Mapping
from functools import lru_cache
from typing import Any, TypeAlias

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.errors import OutsideDomainError

Number: TypeAlias = float | Array

FUNCTIONS: dict[str, Callable[..., Any]] = {
    "sqrt": np.sqrt,
    "exp": np.exp,
    "log": np.log,
    "sin": np.sin,
    "cos": np.cos,
    "tan": np.tan,
    "atan": np.arctan,
    "minimum": np.minimum,
    "maximum": np.maximum,
    "where": np.where,
    "sum": np.sum,
    "cumsum": np.cumsum,
    "interp": np.interp,
    "clip": np.clip,
}
CONSTANTS = {"pi": float(np.pi)}

_BINARY: dict[type[ast.operator], Callable[[Any, Any], Any]] = {
    ast.Add: operator.add,
    ast.Sub: operator.sub,
    ast.Mult: operator.mul,
    ast.Div: operator.truediv,
    ast.Pow: operator.pow,
}
_COMPARED: dict[type[ast.cmpop], Callable[[Any, Any], Any]] = {
    ast.Lt: operator.lt,
    ast.LtE: operator.le,
    ast.Gt: operator.gt,
    ast.GtE: operator.ge,
}


@lru_cache(maxsize=512)
def parsed(expression: str) -> ast.expr:
    """The tree of an expression.

    Parameters
    ----------
    expression : in the language above

    Raises
    ------
    OutsideDomainError
        When it is written in anything else.
    """
    try:
        tree = ast.parse(expression, mode="eval").body
    except SyntaxError as error:
        raise OutsideDomainError("expression", f"cannot be read: {expression}") from error
    for node in ast.walk(tree):
        if not isinstance(node, _ALLOWED):
            raise OutsideDomainError("expression", f"may not hold {type(node).__name__}: {expression}")
    return tree


_ALLOWED = (
    *(ast.Name, ast.Load, ast.Constant, ast.Call, ast.BinOp, ast.UnaryOp, ast.USub, ast.Compare),
    *_BINARY,
    *_COMPARED,
)


def evaluate(expression: str, names: Mapping[str, Number]) -> Number:
    """What an expression comes to: a number, or a list of them.

    Parameters
    ----------
    expression : in the language above
    names : what its names stand for

    Raises
    ------
    OutsideDomainError
        For a name that stands for nothing, or an expression in another language.
    """
    # one branch of a `where` may divide by nothing, or meet a logarithm of it
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
        found = np.asarray(_value(parsed(expression), names), dtype=float)
    return float(found) if found.ndim == 0 else found


def _value(node: ast.expr, names: Mapping[str, Number]) -> Any:
    match node:
        case ast.Constant(value=int() | float() as value):
            return float(value)
        case ast.Name(id=name) if name in names:
            return names[name]
        case ast.Name(id=name) if name in CONSTANTS:
            return CONSTANTS[name]
        case ast.UnaryOp(operand=operand):
            return -_value(operand, names)
        case ast.BinOp(left=left, op=op, right=right):
            return _BINARY[type(op)](np.asarray(_value(left, names)), _value(right, names))
        case ast.Compare(left=left, ops=[op], comparators=[right]):
            return _COMPARED[type(op)](_value(left, names), _value(right, names))
        case ast.Call(func=ast.Name(id=name), args=args, keywords=[]) if name in FUNCTIONS:
            return FUNCTIONS[name](*(_value(one, names) for one in args))
        case _:
            raise OutsideDomainError("expression", f"holds what stands for nothing: {ast.unparse(node)}")
