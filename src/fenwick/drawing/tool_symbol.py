"""The symbol of a kind of tool by itself."""

from __future__ import annotations

from markupsafe import Markup

from fenwick.drawing.render import render
from fenwick.drawing.tools import OF_KIND


def render_tool(kind: str) -> Markup:
    """The symbol of a kind of tool as SVG."""
    return render("tool_symbol.svg.jinja", kind=OF_KIND.get(kind, kind))
