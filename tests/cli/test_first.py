"""`fenwick start`, `fill-shop` and `line-of-shop` from outside."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from click.testing import CliRunner, Result

from fenwick.cli import main
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.rig.format.read import write_rig
from fenwick.shop.read import write_shop


def run(*arguments: object, given: str = "") -> Result:
    """Some command."""
    return CliRunner().invoke(main, [str(one) for one in arguments], input=given)


def test_answers_come_to_lines_that_solve() -> None:
    told = json.loads(run("start", "--tool", "planer", "--tool", "mitre-saw", "--electrical-power", 1000).output)
    assert (told["format"], told["version"]) == ("fenwick-start", 1)
    for rig in (told["planned"], told["as_found"]):
        assert run("solve", "-", given=json.dumps(rig)).exit_code == 0
        assert [branch["port"]["name"] for branch in rig["line"]["branches"]] == ["Planer", "Mitre saw"]
    assert any("1000 W come to" in sentence for sentence in told["said"])


def test_every_figure_of_a_label_moves_the_air() -> None:
    flows = {
        run_flow(*given)
        for given in (
            (), ("--electrical-power", 1000), ("--electrical-power", 1400), ("--electrical-power", 1700),
            ("--sealed-suction", 21e3), ("--open-flow", 0.05), ("--air-watts", 350), ("--current", 5),
        )
    }  # fmt: skip
    assert len(flows) == 8


def run_flow(*given: object) -> float:
    """Air at the tool of the line that some answers come to, rounded [L/s]."""
    told = json.loads(run("start", "--vacuum", "drum", *given).output)
    solved = json.loads(run("solve", "-", given=json.dumps(told["planned"])).output)
    return round(1000.0 * float(solved["ports"][0]["flow_m3_s"]), 3)


@pytest.mark.parametrize(
    "arguments",
    [
        ("--tool", "nosuch"), ("--vacuum", "rocket"), ("--hose-bore", "99"), ("--hose-bore", "nan"),
        ("--sealed-suction", "0", "--electrical-power", "900"), ("--bin-volume", "-1"), ("--dust", "silica"),
        ("--tool", "bench-grinder", "--tool", "lathe"),
    ],
)  # fmt: skip
def test_what_cannot_be_ends_with_a_sentence(arguments: tuple[str, ...]) -> None:
    found = run("start", *arguments)
    assert found.exit_code == 2
    assert "Traceback" not in found.output
    assert found.exception is None or isinstance(found.exception, SystemExit)


def test_a_shop_is_filled_from_a_line_once_and_a_line_made_of_it(tmp_path: Path) -> None:
    (tmp_path / "rig.json").write_bytes(write_rig(demo_rig("demo_bench")))
    filled = run("fill-shop", tmp_path / "rig.json").output
    (tmp_path / "shop.json").write_text(filled)
    again = run("fill-shop", tmp_path / "rig.json", "--shop", tmp_path / "shop.json").output
    assert json.loads(again) == json.loads(filled)
    line = run("line-of-shop", tmp_path / "shop.json")
    names = [branch["port"]["name"] for branch in json.loads(line.output)["line"]["branches"]]
    assert names == ["Bandsaw", "Binding router", "Finishing sander", "Floor sweep"]
    assert run("solve", "-", given=line.output).exit_code == 0


def test_a_shop_without_tools_makes_no_line(tmp_path: Path) -> None:
    bare = demo_shop().model_copy(update={"tools": (), "jobs": ()})
    (tmp_path / "shop.json").write_bytes(write_shop(bare))
    found = run("line-of-shop", tmp_path / "shop.json")
    assert found.exit_code == 2
    assert "the shop has no tool yet" in found.stderr
