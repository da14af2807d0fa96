"""The vacuum's page: four ways to give its curve, and what becomes of bad ones."""

import io
import re
from typing import Any

import pytest
from flask.testing import FlaskClient

PAGE = "/lines/2/vacuum"
HX = {"HX-Request": "true"}


def label(client: FlaskClient, **fields: str) -> Any:
    return client.post(f"{PAGE}/label", data={f"vacuum.{key}": text for key, text in fields.items()}, headers=HX)


def table(kind: str, *rows: tuple[str, ...], use: bool = False) -> dict[str, Any]:
    keys = {"points": ("flow_m3_s", "suction_pa"), "holes": ("hole_diameter_m", "holes", "suction_pa")}[kind]
    data = {f"{key}-{i}": text for i, row in enumerate(rows) for key, text in zip(keys, row, strict=True)}
    return {**data, **({"use": "1"} if use else {})}


def flows(page: str) -> list[float]:
    """Air at every tool today."""
    row = re.search(r'data-case="today".*?</tr>', page, re.S)
    assert row
    return [float(text) for text in re.findall(r">([\d.]+) L/s<", row[0])]


def test_every_tool_stands_on_the_curve(client: FlaskClient) -> None:
    page = client.get(PAGE).text
    assert page.count('class="runs') == 4
    assert len(flows(page)) == 4
    assert "275 W at its best" in page
    for case in ("hot", "high", "worn", "caked"):
        assert f'data-case="{case}"' in page


def test_air_watts_that_cannot_be_are_named_with_what_could(client: FlaskClient) -> None:
    refused = label(client, **{"curve.air_watts": "900"})
    assert refused.status_code == 422
    assert "which allow 165 to 597 W" in refused.text
    assert 'value="900"' in refused.text
    assert label(client, **{"curve.air_watts": "330"}).status_code == 200
    shown = re.search(r"(\d+) W at its best", client.get(PAGE).text)
    assert shown
    assert int(shown[1]) == pytest.approx(330 * 1.18 / 1.2, rel=0.01)  # the room's air is thinner than the label's


def test_a_worn_motor_moves_less_air_and_is_drawn_beside_the_new_one(client: FlaskClient) -> None:
    before = flows(client.get(PAGE).text)
    page = label(client, motor_speed="85").text
    after = flows(page)
    assert all(0.8 * old < new < 0.9 * old for old, new in zip(before, after, strict=True))
    assert 'class="as-new"' in page
    assert "dashed: as new" in page


def test_points_are_previewed_then_used_and_taken_back(client: FlaskClient) -> None:
    rows = (("0", "18"), ("30", "13"), ("55", "2"))
    two = client.post(f"{PAGE}/table/points", data=table("points", *rows[:2]), headers=HX).text
    assert "1 more to make a curve" in two
    assert two.count('class="measured"') == 2  # the chart grows as rows arrive
    three = client.post(f"{PAGE}/table/points", data=table("points", *rows), headers=HX).text
    assert "the line does not use them yet" in three
    assert 'value="13"' not in client.get(f"{PAGE}?way=points").text  # nothing is saved by looking
    used = client.post(f"{PAGE}/table/points", data=table("points", *rows, use=True), headers=HX).text
    assert "In force." in used
    assert "curve by measured points, 3 rows" in used
    client.post("/lines/2/undo", data={"vacuum": "1"})
    assert "275 W at its best" in client.get(PAGE).text


def test_the_hole_plate_gives_flows_by_the_orifice_equation(client: FlaskClient) -> None:
    rows = (("20", "1", "14"), ("20", "2", "10"), ("20", "3", "6.5"))
    page = client.post(f"{PAGE}/table/holes", data=table("holes", *rows, use=True), headers=HX).text
    assert "curve by hole-plate test" in page
    density = 101325 * (1 - 2.25577e-5 * 210) ** 5.25588 / (287.05 * 291.15)
    flow = 1e3 * 0.61 * 2 * 3.14159265 / 4 * 0.02**2 * (2 * 10e3 / density) ** 0.5
    assert f"{flow:.1f} L/s at 10" in page


@pytest.mark.parametrize(
    ("kind", "rows", "sentence"),
    [
        ("points", (("0", "18"), ("30", "19"), ("55", "2")), "Must fall in suction as flow rises, against point 1."),
        ("points", (("0", "18"), ("30", "13"), ("30", "2")), "Stands at the same flow as point 2."),
        ("points", (("0", "18"), ("30", "much"), ("55", "2")), "is not a number in kPa"),
        ("points", (("0", "18"), ("", "13"), ("55", "2")), "Enter the air flow."),
        ("holes", (("20", "1", "14"), ("20", "1.5", "10"), ("20", "3", "6")), "must be a whole number"),
        ("holes", (("20", "1", "14"), ("20", "2", "10")), "A curve takes three rows or more."),
    ],
)
def test_a_bad_table_keeps_what_was_typed_and_saves_nothing(
    client: FlaskClient, kind: str, rows: tuple[tuple[str, ...], ...], sentence: str
) -> None:
    refused = client.post(f"{PAGE}/table/{kind}", data=table(kind, *rows, use=True), headers=HX)
    assert refused.status_code == 422
    assert sentence.lower() in refused.text.lower()
    for text in {cell for row in rows for cell in row if cell}:
        assert f'value="{text}"' in refused.text
    assert "275 W at its best" in client.get(PAGE).text


def test_a_pasted_table_and_a_file_are_read_whole_or_not_at_all(client: FlaskClient) -> None:
    good = "Durchfluss flow (L/s);suction (kPa)\n0;18,0\n30;13,0\n55;2,0\n"
    assert client.post(f"{PAGE}/csv", data={"pasted": good}).status_code == 302
    assert "curve from a table, 3 points" in client.get(PAGE).text
    bad = "flow;suction\n0;18\n30;thirteen\n55;2\n"
    refused = client.post(f"{PAGE}/csv", data={"pasted": bad})
    assert refused.status_code == 422
    assert "line 3, column 2" in refused.text
    assert "30;thirteen" in refused.text
    log = "\n".join(f"{q / 1000:.3f},{18 - 18 * q / 62000:.4f}" for q in range(0, 60000, 1)).encode()
    assert len(log) < 12_000_000
    data = {"file": (io.BytesIO(log), "log.csv")}
    assert client.post(f"{PAGE}/csv", data=data).status_code == 302
    assert "60000 rows averaged into 60 points" in client.get(PAGE).text


def test_a_class_is_taken_with_every_figure_a_guess(client: FlaskClient) -> None:
    page = client.get(f"{PAGE}?way=class").text
    assert len(re.findall(r"<li>\s*<form", page)) == 8
    assert client.post(f"{PAGE}/class/bag-collector").status_code == 302
    page = client.get(f"{PAGE}?way=label").text
    assert page.count('class="guess"') >= 3
    assert "starves it" in page  # a wide-hose fan behind 50 mm
    assert "guesses" in client.get("/lines/2").text
    assert client.post(f"{PAGE}/class/turbine").status_code == 404


def test_from_a_measured_curve_back_to_a_label(client: FlaskClient) -> None:
    rows = (("0", "18"), ("30", "13"), ("55", "2"))
    client.post(f"{PAGE}/table/points", data=table("points", *rows, use=True), headers=HX)
    assert "worth more than a label" in client.get(f"{PAGE}?way=label").text
    client.post(f"{PAGE}/nameplate")
    page = client.get(PAGE).text
    assert 'value="18"' in page
    assert "curve by its label" in page
