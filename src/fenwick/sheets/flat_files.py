"""Flat drawings as files: SVG for the screen and a laser, DXF for a machine."""

from __future__ import annotations

import io
from html import escape
from itertools import pairwise

from ezdxf.enums import TextEntityAlignment
from ezdxf.filemanagement import new
from ezdxf.units import MM as MILLIMETRES

from fenwick.core.making.outlines import Loop
from fenwick.sheets.flat import FlatDrawing

MARGIN = 5.0  #: round a drawing [mm]
LAYERS = {"CUT": 1, "CREASE": 5, "DRILL": 3, "TEXT": 8}  #: with the colours of their lines
STYLE = (
    "path,circle{fill:none;stroke-width:.25}.CUT{stroke:#c00}.CREASE{stroke:#00c;stroke-dasharray:4 2}"
    ".DRILL{stroke:#080}.TEXT{stroke:#555}text{font-family:sans-serif;fill:#555;stroke:none}"
)


def flat_svg(drawing: FlatDrawing) -> str:
    """A drawing as SVG, 1:1, its units millimetres."""
    wide, high = drawing.width + 2.0 * MARGIN, drawing.height + 2.0 * MARGIN

    def y(up: float) -> float:
        return drawing.height + MARGIN - up

    def path(loop: Loop, *, closed: bool) -> str:
        points = " ".join(f"{px + MARGIN:.4f},{y(py):.4f}" for px, py in loop.tolist())
        return f'<path d="M {points}{" Z" if closed else ""}"/>'

    layers = {
        "CUT": [path(loop, closed=True) for loop in drawing.cut],
        "CREASE": [path(line, closed=False) for line in drawing.creases],
        "DRILL": [f'<circle cx="{d.x + MARGIN:.4f}" cy="{y(d.y):.4f}" r="{d.d / 2.0:.4f}"/>' for d in drawing.drills],
        "TEXT": [
            *(path(loop, closed=True) for loop in drawing.marks),
            *(
                f'<text x="{w.x + MARGIN:.2f}" y="{y(w.y):.2f}" font-size="{w.height:g}">{escape(w.text)}</text>'
                for w in drawing.words
            ),
        ],
    }
    groups = "\n".join(
        f'<g id="{name}" class="{name}">\n{chr(10).join(rows)}\n</g>' for name, rows in layers.items() if rows
    )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.3f}mm" height="{high:.3f}mm" '
        f'viewBox="0 0 {wide:.3f} {high:.3f}">\n<title>{escape(drawing.name)}</title>\n<style>{STYLE}</style>\n'
        f"{groups}\n</svg>\n"
    )


def flat_dxf(drawing: FlatDrawing) -> str:
    """A drawing as DXF, its units millimetres; every line of CUT is closed."""
    document = new("R2010", setup=False, units=MILLIMETRES)
    for name, colour in LAYERS.items():
        document.layers.add(name, color=colour)
    space = document.modelspace()
    for layer, loops in (("CUT", drawing.cut), ("TEXT", drawing.marks)):
        for loop in loops:
            space.add_lwpolyline(loop.tolist(), close=True, dxfattribs={"layer": layer})
    for line in drawing.creases:
        for start, end in pairwise(line.tolist()):
            space.add_line(start, end, dxfattribs={"layer": "CREASE"})
    for drill in drawing.drills:
        space.add_circle((drill.x, drill.y), drill.d / 2.0, dxfattribs={"layer": "DRILL"})
    for words in drawing.words:
        text = space.add_text(words.text, height=words.height, dxfattribs={"layer": "TEXT"})
        text.set_placement((words.x, words.y), align=TextEntityAlignment.LEFT)
    out = io.StringIO()
    document.write(out)
    return out.getvalue()
