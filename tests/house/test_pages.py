"""Guards of what pages are made of: lines that a person can read, and addresses that only the server knows."""

import re
from pathlib import Path

import pytest

WEB = Path(__file__).parents[2] / "src" / "fenwick" / "web"
DRAWING = WEB.parent / "drawing" / "templates"
TEMPLATES = sorted([*(WEB / "templates").rglob("*.*"), *DRAWING.glob("*.jinja")])
SCRIPTS = sorted((WEB / "static" / "js").glob("*.js"))
STYLES = sorted((WEB / "static" / "css").glob("*.css"))
WIDEST = 120


@pytest.mark.parametrize("path", [*TEMPLATES, *SCRIPTS, *STYLES], ids=lambda path: path.name)
def test_no_line_is_wider_than_an_editor(path: Path) -> None:
    wide = [number for number, line in enumerate(path.read_text().splitlines(), 1) if len(line) > WIDEST]
    assert wide == []


@pytest.mark.parametrize("path", SCRIPTS, ids=lambda path: path.name)
def test_no_script_knows_an_address(path: Path) -> None:
    """A path that moves is moved in one place: pages carry it to the script in an attribute."""
    assert re.findall(r"""["'`]/[a-z]\S*""", path.read_text()) == []


@pytest.mark.parametrize("path", TEMPLATES, ids=lambda path: path.name)
def test_where_a_form_leads_is_written_once(path: Path) -> None:
    """And its token, too: both are macros."""
    if path.name == "_macros.html":
        return
    text = path.read_text()
    assert 'method="post"' not in text
    assert "csrf_token" not in text.replace("X-CSRFToken", "").replace('"{{ csrf_token() }}"}', "")
