"""A name means one thing in the whole project, and what goes from module to module is told by names, not by places."""

from __future__ import annotations

import ast
from collections import defaultdict
from collections.abc import Iterator
from pathlib import Path

import pytest

PACKAGE = Path(__file__).parents[2] / "src" / "fenwick"
MODULES = sorted(PACKAGE.rglob("*.py"))
#: of geometry, where every place means what it always does: corners of a curve; x, y, width, height
BY_PLACE = {("drawing/shapes.py", "pieces"), ("drawing/stages.py", "Rect")}


def name_of(path: Path) -> str:
    return str(path.relative_to(PACKAGE))


def types_of(tree: ast.Module) -> Iterator[str]:
    """Names of the classes of a module, and of the types that it gives a name."""
    for node in tree.body:
        if isinstance(node, ast.ClassDef):
            yield node.name
        elif isinstance(node, ast.Assign) and isinstance(node.value, ast.Subscript):
            yield from (one.id for one in node.targets if isinstance(one, ast.Name) and not one.id.isupper())


def said_outside(node: ast.AST) -> Iterator[tuple[str, ast.expr]]:
    """The types that other modules see of a module or a class: (whose, type)."""
    for part in ast.iter_child_nodes(node):
        match part:
            case ast.ClassDef():
                yield from said_outside(part)
            case ast.FunctionDef(returns=ast.expr() as returns, args=args):
                yield part.name, returns
                yield from ((part.name, one.annotation) for one in (*args.args, *args.kwonlyargs) if one.annotation)
            case ast.AnnAssign(target=ast.Name(id=whose)):
                yield whose, part.annotation
            case ast.Assign(targets=[ast.Name(id=whose)], value=ast.Subscript() as value):
                yield whose, value


def places(annotation: ast.expr) -> int:
    """How many places the longest tuple in a type has, each of which may mean something else."""
    found = [0]
    for node in ast.walk(annotation):
        if isinstance(node, ast.Subscript) and isinstance(node.value, ast.Name) and node.value.id == "tuple":
            found.append(len(node.slice.elts) if isinstance(node.slice, ast.Tuple) else 1)
    return max(found)


def test_no_two_modules_give_one_name_to_different_types() -> None:
    homes = defaultdict(list)
    for path in MODULES:
        for name in types_of(ast.parse(path.read_text())):
            if not name.startswith("_"):
                homes[name].append(name_of(path))
    assert {name: where for name, where in homes.items() if len(where) > 1} == {}


@pytest.mark.parametrize("path", MODULES, ids=name_of)
def test_nothing_that_other_modules_see_is_told_by_three_places(path: Path) -> None:
    by_place = {
        whose
        for whose, annotation in said_outside(ast.parse(path.read_text()))
        if not whose.startswith("_") and places(annotation) >= 3
    }
    assert {whose for whose in by_place if (name_of(path), whose) not in BY_PLACE} == set()


def test_places_are_counted() -> None:
    def said(source: str) -> int:
        return max(places(annotation) for _, annotation in said_outside(ast.parse(source)))

    assert said("def f(x: int) -> tuple[str, int, float]: ...") == 3
    assert said("class A:\n    rows: list[tuple[str, str, str, bool]]") == 4
    assert said("def f(x: tuple[float, ...]) -> tuple[str, int]: ...") == 2
    assert list(types_of(ast.parse("class A: ...\nPair = tuple[int, int]\nALL = x[0]"))) == ["A", "Pair"]
