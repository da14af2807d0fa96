"""Error pages are no dead ends."""

from flask.testing import FlaskClient


def test_an_error_page_leads_back_and_offers_the_last_step_back(client: FlaskClient) -> None:
    client.post("/lines/2/name", data={"name": "Bench, winter"})
    refused = client.post("/lines/2/name", data={"name": " "}, headers={"Referer": "http://localhost/lines/2?part=sep"})
    assert refused.status_code == 422
    assert 'href="/lines/2?part=sep"' in refused.text
    assert "Undo: Bench line renamed Bench, winter" in refused.text
    foreign = client.get("/lines/99", headers={"Referer": "http://elsewhere.example/lines/2"})
    assert foreign.status_code == 404
    assert "Back to where you were" not in foreign.text
