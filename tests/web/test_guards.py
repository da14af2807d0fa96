"""What surrounds every page: headers, tokens, reference pages, and errors as sentences."""

from pathlib import Path

import pytest
from bs4 import BeautifulSoup
from flask import Flask
from flask.testing import FlaskClient

from fenwick.core.errors import NotConvergedError
from fenwick.core.rules import RULES
from fenwick.data import Database
from fenwick.data.demo import seed_demo
from fenwick.web import create_app

BORE = "line.branches[0].elements[2].bore_m"


@pytest.mark.parametrize("path", ["/lines/1", "/assumptions", "/terms", "/pieces", "/nowhere", "/static/css/theme.css"])
def test_nothing_is_loaded_from_outside(client: FlaskClient, path: str) -> None:
    response = client.get(path)
    policy = response.headers["Content-Security-Policy"]
    assert "default-src 'self'" in policy
    assert "unsafe" not in policy
    assert response.headers["X-Content-Type-Options"] == "nosniff"
    assert "http://" not in response.text.replace("http://www.w3.org/", "")
    assert "https://" not in response.text


@pytest.mark.parametrize("path", ["/lines/1", "/assumptions", "/pieces"])
def test_no_inline_style_or_script(client: FlaskClient, path: str) -> None:
    page = BeautifulSoup(client.get(path).text, "html.parser")
    assert not page.select("[style], style, script:not([src])")
    assert not [tag for tag in page.find_all() if any(name.startswith("on") for name in tag.attrs)]


def test_every_field_has_its_label(client: FlaskClient) -> None:
    for part in ("drum-sander", "hose-b", "sep", "vacuum"):
        page = BeautifulSoup(client.get(f"/lines/1?part={part}").text, "html.parser")
        for field in page.select("#bench input:not([type=hidden]), #bench select"):
            assert page.select_one(f'label[for="{field["id"]}"]'), field["name"]
        ids = [tag["id"] for tag in page.select("[id]")]
        assert len(ids) == len(set(ids))


def test_every_rule_of_thumb_is_shown(client: FlaskClient) -> None:
    text = BeautifulSoup(client.get("/assumptions").text, "html.parser").text
    for rule in RULES:
        assert rule.meaning in text
        assert rule.low <= rule.value <= rule.high


def test_a_form_without_a_token_is_refused_in_words(shop: Database) -> None:
    app = create_app(shop, "key")
    response = app.test_client().post("/lines/1/undo")
    assert response.status_code == 400
    assert "Reload it and try again" in response.text


@pytest.mark.parametrize("path", ["/nowhere", "/lines/99", "/lines/99/rig.json"])
def test_what_is_not_there(client: FlaskClient, path: str) -> None:
    response = client.get(path)
    assert response.status_code == 404
    assert "There is no" in response.text


def test_a_part_that_is_not_there(client: FlaskClient) -> None:
    assert client.post("/lines/1/parts/nothing", data={}).status_code == 404
    assert client.get("/lines/1?part=nothing").status_code == 200


def test_a_read_only_shop_shows_its_line_and_refuses_changes(shop: Database) -> None:
    shop.close()
    app = create_app(Database(shop.path, read_only=True), "key")
    app.config.update(WTF_CSRF_ENABLED=False)
    client = app.test_client()
    assert client.get("/lines/1").status_code == 200
    response = client.post("/lines/1/parts/hose-b", data={BORE: "50"}, headers={"HX-Request": "true"})
    assert response.status_code == 503
    assert response.headers["HX-Retarget"] == "#notice"
    assert "is read-only, so nothing was saved" in response.text


def test_a_shop_that_vanished_while_serving(tmp_path: Path) -> None:
    shop = seed_demo(tmp_path / "shop.db")
    app = create_app(shop, "key")
    shop.close()
    for file in tmp_path.glob("shop.db*"):
        file.unlink()
    response = app.test_client().get("/")
    assert response.status_code == 503
    assert "has gone or was emptied" in response.text


def test_an_unexpected_error_gives_a_reference_and_no_detail(app: Flask, monkeypatch: pytest.MonkeyPatch) -> None:
    def broken(*_args: object) -> None:
        raise RuntimeError("secret detail")

    monkeypatch.setattr("fenwick.web.line.routes.line_state", broken)
    response = app.test_client().get("/lines/1")
    assert response.status_code == 500
    assert "reference " in response.text
    assert "secret" not in response.text


def test_a_line_that_cannot_be_solved_is_not_saved(client: FlaskClient, monkeypatch: pytest.MonkeyPatch) -> None:
    def never(_line: object) -> None:
        raise NotConvergedError(12.0, 60)

    monkeypatch.setattr("fenwick.services.lines.solve", never)
    response = client.post("/lines/1/parts/hose-b", data={BORE: "50"}, headers={"HX-Request": "true"})
    assert "could not be solved, so nothing was saved: the flows did not settle" in response.text
    assert "Nothing to undo" in client.get("/lines/1").text


@pytest.mark.parametrize(
    ("address", "form"),
    [
        ("/lines/1/name", {"name": "Other"}),
        ("/lines/1/separator/schools/cake/first", {}),
        ("/lines/1/drawer", {"index": "0"}),
        ("/start", {}),
        ("/shop/lay/drum-sander/1/drum-sander", {}),
    ],
)
def test_no_route_stores_a_line_that_cannot_be_solved(
    address: str, form: dict[str, str], client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    def never(_line: object) -> None:
        raise NotConvergedError(12.0, 60)

    before = client.get("/lines/1/rig.json").data
    monkeypatch.setattr("fenwick.services.lines.solve", never)
    answer = client.post(address, data=form)
    assert answer.status_code == 422
    assert "could not be solved, so nothing was saved" in answer.text
    assert client.get("/lines/1/rig.json").data == before
    assert client.get("/lines/4/rig.json").status_code == 404  # and none was added


def test_a_stored_line_that_cannot_be_read_is_said(client: FlaskClient, shop: Database) -> None:
    with shop.engine.begin() as connection:
        connection.exec_driver_sql("UPDATE revision SET document = '{}'")
    response = client.get("/lines/1")
    assert response.status_code == 422
    assert "What is stored of this line cannot be read" in response.text
    assert "Format: is missing" in response.text
