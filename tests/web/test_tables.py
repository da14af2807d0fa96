"""Tables leave as numbers: units in the headings, bare figures below; the same as JSON."""

import csv
import io
import json

import pytest
from flask.testing import FlaskClient

from fenwick.core.tuning.readings import Reading
from fenwick.rig.format.readings_csv import read_readings, write_readings

BARE = ("run", "stands", "state", "spoilt", "note", "id", "name", "dust", "slowest_run", "carrying", "helps")


@pytest.mark.parametrize("address", ["/tests/1/runs", "/air-logs/1", "/lines/2/ports"])
def test_every_figure_is_bare_and_its_unit_in_the_heading(client: FlaskClient, address: str) -> None:
    rows = list(csv.DictReader(io.StringIO(client.get(f"{address}.csv").text)))
    assert rows
    for row in rows:
        for heading, text in row.items():
            if heading not in BARE and text and not heading.startswith("flow at"):
                float(text)
                assert "(" in heading or "[" in heading, heading


@pytest.mark.parametrize("address", ["/tests/1/runs", "/air-logs/1", "/lines/2/ports", "/lines/1/test/readings"])
def test_every_table_is_there_as_json(client: FlaskClient, address: str) -> None:
    answer = client.get(f"{address}.json")
    assert answer.status_code == 200
    assert answer.mimetype == "application/json"
    json.loads(answer.text, parse_constant=lambda name: pytest.fail(f"{name} is no JSON"))


def test_runs_as_json_are_those_of_the_table(client: FlaskClient) -> None:
    rows = list(csv.DictReader(io.StringIO(client.get("/tests/1/runs.csv").text)))
    told = json.loads(client.get("/tests/1/runs.json").text)
    assert len(told) == len(rows)
    for one, row in zip(told, rows, strict=True):
        for heading, text in row.items():
            assert one[heading] == (
                float(text) if "(" in heading and text else None if "(" in heading else one[heading]
            )
        assert one["note"] == row["note"]


def test_a_reading_carries_its_unit_in_a_column_of_its_own(client: FlaskClient) -> None:
    rows = list(csv.DictReader(io.StringIO(client.get("/lines/3/test/readings.csv").text)))
    units = {"suction": "Pa", "blocked": "Pa", "sealed": "Pa", "flow": "m³/s", "kept": ""}
    assert rows
    assert all(units[row["kind"]] == row["unit"] for row in rows)
    assert [float(row["value"]) for row in rows] == [
        one["value"] for one in json.loads(client.get("/lines/3/test/readings.json").text)
    ]


@pytest.mark.parametrize(
    ("value", "unit"), [("2500", "Pa"), ("2.5", "kPa"), ("2.5 kPa", ""), ("2.5 kPa", "Pa"), ("2500", "")]
)
def test_a_reading_is_read_in_the_unit_of_its_row(value: str, unit: str) -> None:
    (reading,) = read_readings(f"kind,value,unit\nsuction,{value},{unit}\n".encode())
    assert reading.value == pytest.approx(2500.0)


def test_what_is_written_is_read_back_to_the_last_bit() -> None:
    taken = [Reading("suction", 2512.3456789, 31.0, "tool", "hose", ""), Reading("kept", 0.91234567891, 0.01, "tool")]
    assert read_readings(write_readings(taken).encode()) == taken
