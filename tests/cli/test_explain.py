"""`fenwick explain` from outside: the list, a working, as text, and what it says of bad input."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from click.testing import CliRunner, Result

from fenwick.cli import main
from fenwick.data.demo import demo_readings, demo_rig, demo_shop
from fenwick.rig.format.read import write_rig
from fenwick.rig.format.readings_csv import read_readings, write_readings
from fenwick.shop.read import write_shop


@pytest.fixture
def folder(tmp_path: Path) -> Path:
    """A folder with the demo's rigs, its shop and its readings."""
    for name in ("demo_line", "demo_bench", "demo_cyclone"):
        (tmp_path / f"{name}.json").write_bytes(write_rig(demo_rig(name)))
    (tmp_path / "shop.json").write_bytes(write_shop(demo_shop()))
    (tmp_path / "readings.csv").write_text(write_readings([reading for reading, _ in demo_readings()]))
    return tmp_path


def run(*arguments: object) -> Result:
    """The command with those arguments."""
    return CliRunner().invoke(main, ["explain", *(str(one) for one in arguments)])


def test_without_a_figure_it_lists_those_that_the_input_allows(folder: Path) -> None:
    alone = json.loads(run(folder / "demo_line.json").output)
    assert (alone["format"], alone["version"]) == ("fenwick-figures", 1)
    names = {row["figure"] for row in alone["figures"]}
    headlines = {"air", "slowest-speed", "kept", "caught", "bin-of-100", "hours", "cost", "payback"}
    assert headlines | {"inlet-speed:sep", "cut-size:sep", "collapse:sep", "lid:sep", "tipping:sep"} <= names
    assert not {"fog", "masked", "factor:cut"} & names
    told = json.loads(run(folder / "demo_line.json", "--shop", folder / "shop.json").output)
    assert {"fog", "masked"} <= {row["figure"] for row in told["figures"]}
    told = json.loads(run(folder / "demo_cyclone.json", "--readings", folder / "readings.csv").output)
    assert {"factor:cut", "factor:fan"} <= {row["figure"] for row in told["figures"]}


def test_a_working_ends_in_its_figure(folder: Path) -> None:
    told = json.loads(run(folder / "demo_line.json", "kept").output)
    assert (told["format"], told["version"], told["figure"], told["unit"]) == ("fenwick-working", 1, "kept", "-")
    last = told["steps"][-1]
    assert last["value"] == told["value"]
    assert 0.5 < told["value"] < 1.0
    ids = [step["id"] for step in told["steps"]]
    assert len(set(ids)) == len(ids)


def test_a_figure_of_which_there_are_several_takes_the_first_where_none_is_named(folder: Path) -> None:
    assert run(folder / "demo_line.json", "inlet-speed").output == run(
        folder / "demo_line.json", "inlet-speed:sep"
    ).output.replace('"figure": "inlet-speed:sep"', '"figure": "inlet-speed:sep"')


def test_the_port_is_the_one_asked_for(folder: Path) -> None:
    ports = [way[0].id for way in demo_rig("demo_bench").line.ways]
    airs = {port: json.loads(run(folder / "demo_bench.json", "air", "--port", port).output) for port in ports}
    for port, told in airs.items():
        assert told["steps"][-1]["id"] == f"{port}.air"
    assert len({round(told["value"], 9) for told in airs.values()}) > 1


def test_as_text_it_reads_from_the_room_to_the_figure(folder: Path) -> None:
    lines = run(folder / "demo_line.json", "air", "--text").output.splitlines()
    assert lines[0] == "The room"
    assert any("Density of the room's air" in line for line in lines)
    assert any("a guess" in line or "given" in line for line in lines)
    assert "Air at the tool" in lines[-1]
    listed = run(folder / "demo_line.json", "--text").output
    assert "Kept by all stages: 0.744" in listed


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (("demo_line.json", "beauty"), "is not told for this input"),
        (("demo_line.json", "masked"), "is not told for this input"),
        (("demo_line.json", "air", "--port", "moon"), "it has drum-sander"),
        (("nowhere.json", "air"), "cannot be read"),
        (("demo_line.json", "air", "--shop", "demo_line.json"), "demo_line.json"),
        (("demo_line.json", "air", "--readings", "shop.json"), "there is no column"),
    ],
)
def test_what_it_cannot_do_it_says_in_a_sentence(folder: Path, arguments: tuple[str, ...], words: str) -> None:
    paths = [str(folder / one) if one.endswith((".json", ".csv")) else one for one in arguments]
    result = run(*paths)
    assert result.exit_code == 2
    assert words in result.output
    assert "Traceback" not in result.output


def test_readings_go_out_as_a_table_and_come_back_the_same() -> None:
    readings = [reading for reading, _ in demo_readings()]
    assert read_readings(write_readings(readings).encode()) == readings


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("kind,value\n", "holds no readings"),
        ("value,sd\n3,1\n", "no column “kind”"),
        ("kind,value\nweight,3\n", "kind “weight” is none of"),
        ("kind,value\nsuction,many\n", "cannot be read"),
        ("kind,value\nsuction,900000\n", "cannot be a suction"),
        ("kind,value,sd\nsuction,900,0\n", "sd must be above 0"),
        ("kind,value,dust\nkept,0.9,moon\n", "dust “moon”"),
    ],
)
def test_a_table_of_readings_that_cannot_be_read_names_its_row(tmp_path: Path, text: str, words: str) -> None:
    table, rig = tmp_path / "r.csv", tmp_path / "rig.json"
    table.write_text(text)
    rig.write_bytes(write_rig(demo_rig()))
    result = run(rig, "air", "--readings", table)
    assert result.exit_code == 2
    assert words in result.output


def test_values_may_carry_their_unit() -> None:
    (reading,) = read_readings(b"kind;value;station\nsuction;3,2 kPa;hose-a\n")
    assert reading.value == pytest.approx(3200.0)
    assert reading.sd > 0.0
    assert reading.station == "hose-a"
