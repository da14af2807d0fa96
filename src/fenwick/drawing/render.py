"""Scenes through templates: the only place that makes markup. Everything a user wrote is escaped by the template."""

from __future__ import annotations

import re
from functools import cache
from typing import Any

from jinja2 import Environment, PackageLoader, StrictUndefined
from markupsafe import Markup

from fenwick.drawing.scene import Scene
from fenwick.drawing.tree_scene import TreeScene

LINK = re.compile(r'<a href="[^"]*"')


@cache
def _environment() -> Environment:
    return Environment(
        loader=PackageLoader("fenwick.drawing"),
        autoescape=True,
        undefined=StrictUndefined,
        trim_blocks=True,
        lstrip_blocks=True,
    )


def render(template: str, **values: Any) -> Markup:
    """A template of this package as safe markup."""
    return Markup(_environment().get_template(template).render(**values))


def render_line(scene: Scene, name: str) -> Markup:
    """The line as SVG; `name` makes its ids unique on a page."""
    return render("line.svg.jinja", s=scene, name=name)


def unlinked(drawn: Markup) -> Markup:
    """A drawing as a backdrop: its parts lead nowhere, for what lies over them does."""
    return Markup(LINK.sub("<g", str(drawn)).replace("</a>", "</g>"))


def render_tree(scene: TreeScene, name: str) -> Markup:
    """A line with all its branches as SVG; `name` makes its ids unique on a page."""
    return render("tree.svg.jinja", s=scene, name=name)
