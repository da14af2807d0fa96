"""A formula as it is written on paper, in MathML, from the arithmetic of a step."""

from __future__ import annotations

import ast
from collections.abc import Mapping

from markupsafe import Markup, escape

from fenwick.core.workings.arithmetic import parsed

GUARD = 1e-5  #: a `maximum` or `minimum` against less only keeps a division from failing: it is not shown
SUM, PRODUCT, POWER, ATOM = range(4)
SIGNS = {ast.Add: "+", ast.Sub: "−", ast.Lt: "<", ast.LtE: "≤", ast.Gt: ">", ast.GtE: "≥"}
NAMES = {"log": "ln", "minimum": "min", "maximum": "max", "atan": "arctan", "where": "where"}


def render_formula(expression: str, symbols: Mapping[str, str]) -> Markup:
    """The right side of a step.

    Parameters
    ----------
    expression : its arithmetic
    symbols : of its names; a name without one stands for itself
    """
    return Markup("<math>{}</math>").format(_Writer(symbols).write(parsed(expression)))


def render_symbol(symbol: str) -> Markup:
    """A symbol by itself; what follows an underscore is set lower."""
    return Markup("<math>{}</math>").format(symbol_of(symbol))


def symbol_of(symbol: str) -> Markup:
    """A symbol inside a formula."""
    base, _, below = symbol.partition("_")
    if not below:
        return _tag("mi", base)
    return Markup("<msub>{}{}</msub>").format(_tag("mi", base), _tag("mtext", below))


def _tag(name: str, text: str) -> Markup:
    return Markup(f"<{name}>{escape(text)}</{name}>")


def _row(*parts: Markup) -> Markup:
    return Markup("<mrow>{}</mrow>").format(Markup("").join(parts))


def _sign(text: str) -> Markup:
    return _tag("mo", text)


def _fenced(inside: Markup, left: str = "(", right: str = ")") -> Markup:
    return _row(_sign(left), inside, _sign(right))


#: between factors, seen but not written
TIMES = Markup('<mo lspace="0.1em" rspace="0.1em">\u2062</mo>')


class _Writer:
    def __init__(self, symbols: Mapping[str, str]) -> None:
        self.symbols = symbols

    def write(self, node: ast.expr) -> Markup:
        match node:
            case ast.Constant(value=value):
                return _number(float(str(value)))
            case ast.Name(id="pi"):
                return _tag("mi", "π")
            case ast.Name(id=name):
                return symbol_of(self.symbols.get(name, name))
            case ast.UnaryOp(operand=operand):
                return _row(_sign("−"), self._at(operand, PRODUCT))
            case ast.Compare(left=left, ops=[op], comparators=[right]):
                return _row(self.write(left), _sign(SIGNS[type(op)]), self.write(right))
            case ast.BinOp():
                return self._binary(node)
            case ast.Call(func=ast.Name(id=name), args=args):
                return self._call(name, args)
            case _:
                raise ValueError(ast.dump(node))

    def _at(self, node: ast.expr, least: int) -> Markup:
        """In brackets where it binds less than is needed there."""
        written = self.write(node)
        return written if _binds(node) >= least else _fenced(written)

    def _binary(self, node: ast.BinOp) -> Markup:
        match node.op:
            case ast.Div():
                return Markup("<mfrac>{}{}</mfrac>").format(_row(self.write(node.left)), _row(self.write(node.right)))
            case ast.Pow():
                if isinstance(node.right, ast.Constant) and node.right.value == 0.5:
                    return Markup("<msqrt>{}</msqrt>").format(self.write(node.left))
                return Markup("<msup>{}{}</msup>").format(_row(self._at(node.left, ATOM)), _row(self.write(node.right)))
            case ast.Mult():
                between = _sign("·") if isinstance(node.right, ast.Constant) else TIMES
                return _row(self._at(node.left, PRODUCT), between, self._at(node.right, PRODUCT))
            case _:
                least = SUM if isinstance(node.op, ast.Add) else PRODUCT
                return _row(self.write(node.left), _sign(SIGNS[type(node.op)]), self._at(node.right, least))

    def _call(self, name: str, args: list[ast.expr]) -> Markup:
        match name:
            case "sqrt":
                return Markup("<msqrt>{}</msqrt>").format(self.write(args[0]))
            case "exp":
                return Markup("<msup><mi>e</mi>{}</msup>").format(_row(self.write(args[0])))
            case "sum":
                return _row(_sign("∑"), self._at(args[0], PRODUCT))
            case "cumsum":
                sign = Markup("<munder>{}{}</munder>").format(_sign("∑"), _tag("mtext", "so far"))
                return _row(sign, self._at(args[0], PRODUCT))
            case "interp":
                return self._looked_up(args)
            case "clip":
                inside = _fenced(self.write(args[0]), "[", "]")
                ends = _row(self.write(args[1])), _row(self.write(args[2]))
                return Markup("<msubsup>{}{}{}</msubsup>").format(inside, *ends)
            case "where":
                return self._cases(args)
            case "maximum" | "minimum" if any(_is_guard(one) for one in args):
                return self.write(next(one for one in args if not _is_guard(one)))
            case _:
                listed = [self.write(args[0])]
                for one in args[1:]:
                    listed += [_sign(","), self.write(one)]
                return _row(_tag("mi", NAMES.get(name, name)), _fenced(_row(*listed)))

    def _looked_up(self, args: list[ast.expr]) -> Markup:
        """A value read off a curve: that of the third where the second is the first."""
        at, along, values = (self.write(one) for one in args)
        return Markup("<msub>{}{}</msub>").format(_row(values, _sign("|")), _row(along, _sign("="), at))

    def _cases(self, args: list[ast.expr]) -> Markup:
        when, then, otherwise = (self.write(one) for one in args)
        row = Markup("<mtr><mtd>{}</mtd><mtd>{}</mtd></mtr>")
        rows = row.format(then, _row(_tag("mtext", "if\u00a0"), when)) + row.format(otherwise, _tag("mtext", "else"))
        return _row(_sign("{"), Markup("<mtable>{}</mtable>").format(rows))


def _binds(node: ast.expr) -> int:
    match node:
        case ast.BinOp(op=ast.Add() | ast.Sub()):
            return SUM
        case ast.BinOp(op=ast.Mult()) | ast.UnaryOp():
            return PRODUCT
        case ast.BinOp(op=ast.Div()):
            return POWER
        case ast.Call(func=ast.Name(id="sum" | "cumsum")):
            return PRODUCT
        case ast.Call(func=ast.Name(id="exp")) | ast.BinOp(op=ast.Pow()):
            return POWER
        case _:
            return ATOM


def _is_guard(node: ast.expr) -> bool:
    return isinstance(node, ast.Constant) and 0.0 < abs(float(str(node.value))) < GUARD


def _number(value: float) -> Markup:
    if value == 0.0 or 1e-3 <= abs(value) < 1e5:
        return _tag("mn", f"{value:.6g}".replace("-", "−"))
    mantissa, power = f"{value:.4e}".split("e")
    ten = Markup("<msup><mn>10</mn><mn>{}</mn></msup>").format(str(int(power)).replace("-", "−"))
    return _row(_tag("mn", f"{float(mantissa):g}".replace("-", "−")), _sign("·"), ten)
