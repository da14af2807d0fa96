"""What a docstring of the core promises is what its signature takes: numbers with their units, errors by name."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

CORE = Path(__file__).parents[2] / "src" / "fenwick" / "core"
MODULES = sorted(CORE.rglob("*.py"))
NUMERIC = {"float", "int", "Values", "Array"}
#: how a row says what a number is measured in
UNIT = re.compile(r"\[[^\]]+\]|\bunit\b|\bSI\b|OK, WATCH or ACT")


def public_functions(path: Path) -> Iterator[ast.FunctionDef]:
    """Functions of a module and methods of its public classes."""
    for node in ast.parse(path.read_text()).body:
        inside = node.body if isinstance(node, ast.ClassDef) and not node.name.startswith("_") else [node]
        for one in inside:
            if isinstance(one, ast.FunctionDef) and not one.name.startswith("_"):
                yield one


def arguments(function: ast.FunctionDef) -> dict[str, set[str]]:
    """Its arguments, each with the names in its annotation."""
    signature = function.args
    every = [*signature.posonlyargs, *signature.args, *signature.kwonlyargs]
    every += [one for one in (signature.vararg, signature.kwarg) if one is not None]
    return {
        one.arg: {n.id for n in ast.walk(one.annotation) if isinstance(n, ast.Name)}
        for one in every
        if one.annotation is not None
    }


def section(function: ast.FunctionDef, title: str) -> dict[str, str]:
    """Rows of a section of its docstring: what each is of, and what is said of it."""
    words = ast.get_docstring(function) or ""
    found = re.search(rf"^{title}\n-+\n(.*?)(?:\n\n|\Z)", words, re.DOTALL | re.MULTILINE)
    rows: dict[str, str] = {}
    last = ""
    for line in found[1].splitlines() if found else ():
        names, colon, said = line.partition(" : ")
        if line.startswith(" "):
            rows[last] += line
        elif title == "Raises" or colon:
            for last in names.split(", "):
                rows[last] = said
    return rows


def raised(function: ast.FunctionDef) -> set[str]:
    """Errors that it raises itself."""
    calls = [n.exc for n in ast.walk(function) if isinstance(n, ast.Raise) and n.exc is not None]
    named = [call.func if isinstance(call, ast.Call) else call for call in calls]
    return {one.id for one in named if isinstance(one, ast.Name) and one.id[0].isupper()}


@pytest.mark.parametrize("path", MODULES, ids=lambda path: str(path.relative_to(CORE)))
def test_every_number_that_goes_in_is_listed_with_its_unit(path: Path) -> None:
    for function in public_functions(path):
        taken, listed = arguments(function), section(function, "Parameters")
        for name, kinds in taken.items():
            if kinds & NUMERIC:
                assert name in listed, f"{function.name} does not say what {name} is"
                assert UNIT.search(listed[name]), f"{function.name}: {name} has no unit"
        assert set(listed) <= set(taken), f"{function.name} lists what it does not take"


@pytest.mark.parametrize("path", MODULES, ids=lambda path: str(path.relative_to(CORE)))
def test_every_error_is_named(path: Path) -> None:
    for function in public_functions(path):
        assert raised(function) - {"AssertionError"} <= set(section(function, "Raises")), function.name


def test_these_guards_see_what_they_guard() -> None:
    good, bad = ast.parse(
        '''
def good(bore: Values, line: Line):
    """A loss.

    Parameters
    ----------
    bore : inside [m]

    Raises
    ------
    OutsideDomainError
        When it is not above 0.
    """
    raise OutsideDomainError("bore")

def bad(bore: Values | None, speed: Sequence[float]):
    """A loss [m]."""
    raise OutsideDomainError
'''
    ).body
    assert isinstance(good, ast.FunctionDef)
    assert isinstance(bad, ast.FunctionDef)
    assert section(good, "Parameters") == {"bore": "inside [m]"}
    assert "OutsideDomainError" in section(good, "Raises")
    assert raised(good) == raised(bad) == {"OutsideDomainError"}
    assert section(bad, "Parameters") == section(bad, "Raises") == {}
    assert [name for name, kinds in arguments(bad).items() if kinds & NUMERIC] == ["bore", "speed"]
