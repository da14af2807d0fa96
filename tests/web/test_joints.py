"""The page of joints."""

from flask.testing import FlaskClient

PAGE = "/lines/1/joints"
END = "line.branches[0].elements[0].tool_end"


def test_every_joint_of_the_way_is_there_with_its_fix(client: FlaskClient) -> None:
    page = client.get(PAGE).text
    assert page.count("data-joint=") == 6
    assert "7 wraps of tape round the inner end; untaped it leaks 114 mm²" in page
    assert "2.6 % wider, of 6 % it takes" in page
    assert "12.9 % wider, of 10 % it takes" in page
    assert "Measure both ends" in page
    assert client.get("/lines/2/joints?port=sander").text.count("data-joint=") > 6


def test_a_measure_is_taken_undone_and_refused(client: FlaskClient) -> None:
    taken = client.post(f"{PAGE}/6", data={"vacuum.inlet_end.inside_d_m": "60.8"}, headers={"HX-Request": "true"})
    assert taken.status_code == 200
    client.post(f"{PAGE}/6", data={"line.elements[1].vacuum_end.outside_d_m": "60.5", "vacuum.inlet_end.fit": "push"})
    page = client.get(PAGE).text
    assert "Link hose goes inside Drum vac 1300 W" in page
    assert "0.3 mm of play" in page
    assert "Joint of Link hose and Drum vac 1300 W measured" in client.get("/lines/1").text
    client.post("/lines/1/undo")
    assert "Link hose goes inside Drum vac 1300 W" not in client.get(PAGE).text
    for text, sentence in (("wide", "is not a number in mm"), ("-3", "ust be at least 1 mm")):
        refused = client.post(f"{PAGE}/1", data={f"{END}.inside_d_m": text})
        assert refused.status_code == 422
        assert sentence in refused.text
        assert f'value="{text}"' in refused.text
    assert client.post(f"{PAGE}/99").status_code == 404


def test_a_stack_of_adapters_is_flagged_with_its_cost(client: FlaskClient) -> None:
    for _ in range(2):
        client.post("/lines/1/parts/cuff/duplicate")
    page = client.get(PAGE).text
    assert "3 rigid fittings hang on one another" in page
    assert "kPa" in page
