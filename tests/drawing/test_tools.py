"""Symbols of tools: each its own, a hose leaving it where its stub is drawn."""

import re

import pytest

from fenwick.data.demo import demo_rig
from fenwick.drawing.bodies import Tool
from fenwick.drawing.canvas import WIDE
from fenwick.drawing.tool_symbol import render_tool
from fenwick.drawing.tools import STUBS, SYMBOLS


@pytest.mark.parametrize("kind", sorted(STUBS))
def test_a_hose_leaves_a_tool_where_its_stub_is_drawn(kind: str) -> None:
    drawn = str(render_tool(kind))
    stub = re.search(r"M [\d.]+ ([\d.]+) H 58 v 8", drawn)
    assert stub, kind
    assert float(stub[1]) + 4.0 == STUBS[kind]


def test_every_symbol_is_another_picture() -> None:
    assert len({str(render_tool(kind)) for kind in SYMBOLS}) == len(SYMBOLS)


@pytest.mark.parametrize(("rig", "symbol"), [("demo_line", "drum-sander"), ("demo_cyclone", "drum-sander")])
def test_the_tool_of_a_line_with_one_is_drawn_as_its_kind(rig: str, symbol: str) -> None:
    port = demo_rig(rig).line.ways[0][0].port
    assert port is not None
    tool = Tool.place(port, WIDE, 266.0, 400.0)
    assert tool.symbol == symbol
    assert tool.outlet[1] == pytest.approx(tool.top + STUBS[symbol] * tool.size)
    assert tool.box.top + tool.box.height == pytest.approx(tool.floor)
