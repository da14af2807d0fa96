"""Guards of the house: who may import what, how long a module may be, and what every public name owes its reader."""

import ast
import re
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
PACKAGE = ROOT / "src" / "fenwick"
CORE = sorted((PACKAGE / "core").rglob("*.py"))
MODULES = sorted(path for path in PACKAGE.rglob("*.py") if "migrations" not in path.parts)
ALLOWED_IN_CORE = {
    "__future__",
    "abc",
    "ast",
    "collections",
    "dataclasses",
    "fluids",
    "contextlib",
    "functools",
    "heapq",
    "operator",
    "itertools",
    "math",
    "numpy",
    "rectpack",
    "scipy",
    "shapely",
    "typing",
}


def imported(path: Path) -> set[str]:
    """Every module that a file imports, at any depth of nesting."""
    found: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom):
            assert node.level == 0, f"{path}: write the full name"
            found.add(node.module or "")
    return found


@pytest.mark.parametrize("path", CORE, ids=lambda path: path.stem)
def test_the_core_is_pure(path: Path) -> None:
    for name in imported(path):
        inside = name.startswith("fenwick.core")
        assert inside or name.split(".")[0] in ALLOWED_IN_CORE, f"{path.name} imports {name}"
    called = {
        n.func.id
        for n in ast.walk(ast.parse(path.read_text()))
        if isinstance(n, ast.Call) and isinstance(n.func, ast.Name)
    }
    assert not called & {"open", "print", "input", "exec", "eval"}


@pytest.mark.parametrize("path", MODULES, ids=lambda path: str(path.relative_to(PACKAGE)))
def test_modules_stay_short_and_say_what_they_are(path: Path) -> None:
    text = path.read_text()
    assert len(text.splitlines()) <= 320
    assert ast.get_docstring(ast.parse(text)), f"{path} has no docstring"


@pytest.mark.parametrize("path", MODULES, ids=lambda path: str(path.relative_to(PACKAGE)))
def test_public_names_are_explained(path: Path) -> None:
    for node in ast.parse(path.read_text()).body:
        if isinstance(node, ast.FunctionDef | ast.ClassDef) and not node.name.startswith("_"):
            assert ast.get_docstring(node), f"{path.name}: {node.name} has no docstring"


@pytest.mark.parametrize("path", sorted((PACKAGE / "core" / "formulas").glob("[!_]*.py")), ids=lambda path: path.stem)
def test_formulas_give_units(path: Path) -> None:
    for node in ast.parse(path.read_text()).body:
        if isinstance(node, ast.FunctionDef) and not node.name.startswith("_"):
            words = ast.get_docstring(node) or ""
            assert re.search(r"\[[^\]]+\]", words), f"{node.name} gives no unit"


def test_no_lock_or_page_names_a_host() -> None:
    files = [
        *ROOT.glob("requirements/*.txt"),
        *PACKAGE.glob("web/templates/**/*.html"),
        *PACKAGE.glob("web/static/*/*.css"),
    ]
    assert len(files) > 10
    for path in files:
        assert not re.search(r"https?://(?!www\.w3\.org)", path.read_text()), path


def test_every_vendored_folder_has_its_licence() -> None:
    for folder in (PACKAGE / "web/static/vendor").iterdir():
        assert folder.is_file() or (folder / "LICENSE").is_file(), folder


def test_every_dependency_is_pinned_with_its_hash() -> None:
    for name in ("app", "test"):
        text = (ROOT / "requirements" / f"{name}.txt").read_text()
        pinned = re.findall(r"^([a-z0-9][a-z0-9._-]*)==\S+ \\\n\s+--hash=sha256:", text, re.MULTILINE)
        assert len(pinned) == len(re.findall(r"^[a-z0-9].*==", text, re.MULTILINE)) > 5


@pytest.mark.parametrize("word", ["Start", "Line", "Separator", "Build", "Test", "Log", "Shop", "Checks"])
def test_the_architecture_says_where_every_place_lives(word: str) -> None:
    assert f"**{word}**" in (ROOT / "docs" / "architecture.md").read_text()


def test_the_readme_shows_pictures_that_exist() -> None:
    pictures = re.findall(r"\((docs/screenshots/[^)]+\.png)\)", (ROOT / "README.md").read_text())
    assert pictures
    for picture in pictures:
        assert (ROOT / picture).is_file(), picture
