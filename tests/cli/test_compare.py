"""`fenwick compare` from outside."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from click.testing import CliRunner, Result

from fenwick.cli import main
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.rig.format.read import write_rig
from fenwick.shop.read import write_shop


def run(*arguments: object) -> Result:
    """Some command."""
    return CliRunner().invoke(main, [str(one) for one in arguments])


@pytest.fixture
def files(tmp_path: Path) -> dict[str, Path]:
    """Lines and a shop as files."""
    found = {name: tmp_path / f"{name}.json" for name in ("demo_line", "demo_bench", "demo_cyclone", "shop")}
    for name, path in found.items():
        path.write_bytes(write_shop(demo_shop()) if name == "shop" else write_rig(demo_rig(name)))
    return found


def test_it_tells_every_figure_its_band_and_what_differs(files: dict[str, Path]) -> None:
    told = json.loads(run("compare", files["demo_line"], files["demo_cyclone"], "--shop", files["shop"]).output)
    assert (told["format"], told["version"]) == ("fenwick-comparison", 1)
    (port,) = told["ports"]
    assert set(port["figures"]) == {"flow_m3_s", "slowest_m_s", "caught", "kept", "in_bin"}
    for one in port["figures"].values():
        for side in (one["left"], one["right"]):
            assert side["low"] <= side["high"]
        assert one["verdict"] in ("better", "worse", "same", "cannot tell")
    solved = json.loads(run("solve", files["demo_line"]).output)
    assert port["figures"]["flow_m3_s"]["left"]["now"] == pytest.approx(solved["ports"][0]["flow_m3_s"])
    assert port["figures"]["kept"]["left"]["now"] == pytest.approx(solved["figures"]["kept"])
    assert told["whole"]["cut_size_m"]["verdict"] == "better"
    kinds = next(one for one in told["differences"] if one["key"] == "type")
    assert (kinds["left"], kinds["right"], kinds["moves_figures"]) == ("slotted-disc", "cyclone", True)
    counted = [one["verdict"] for one in [*port["figures"].values(), *told["whole"].values()]]
    assert told["tally"]["better"] == counted.count("better")


def test_lines_without_a_tool_in_common_are_told_apart_as_such(files: dict[str, Path]) -> None:
    told = json.loads(run("compare", files["demo_bench"], files["demo_cyclone"]).output)
    assert all((port["left"] is None) != (port["right"] is None) for port in told["ports"])
    assert all(one["verdict"] is None for port in told["ports"] for one in port["figures"].values())


def test_bad_input_ends_with_a_sentence(files: dict[str, Path], tmp_path: Path) -> None:
    (tmp_path / "bad.json").write_text('{"format": "fenwick-rig"}')
    for pair in ((files["demo_line"], tmp_path / "bad.json"), (tmp_path / "none.json", files["demo_line"])):
        found = run("compare", *pair)
        assert found.exit_code == 2
        assert "Traceback" not in found.output
