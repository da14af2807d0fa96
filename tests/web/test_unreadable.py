"""One thing that cannot be read, or worked out, says so in its own place and takes no other page with it."""

import json
import re
from collections.abc import Callable

import pytest
from flask.testing import FlaskClient

from fenwick.core.errors import NotConvergedError
from fenwick.data import Database

HX = {"HX-Request": "true"}
OTHERS = ("/lines/2", "/lines/3/tests", "/shop", "/backups", "/start", "/assumptions", "/lines/2/checks")


def damage(shop: Database, statement: str) -> None:
    with shop.engine.begin() as connection:
        connection.exec_driver_sql(statement)


@pytest.fixture
def broken(client: FlaskClient, shop: Database) -> FlaskClient:
    """The first line's last state cannot be read."""
    client.post("/lines/1/name", data={"name": "Broken"})
    damage(shop, "UPDATE revision SET document = '{\"format\": 1}' WHERE line_id = 1 AND number = 2")
    return client


PAGES = (
    "",
    "/separator",
    "/ports",
    "/dust",
    "/ageing",
    "/joints",
    "/vacuum",
    "/checks",
    "/tests",
    "/test",
    "/workings",
)


@pytest.mark.parametrize("page", PAGES)
def test_a_line_that_cannot_be_read_says_so_with_the_way_back(broken: FlaskClient, page: str) -> None:
    answer = broken.get(f"/lines/1{page}")
    assert answer.status_code == 422
    assert "What is stored of this line cannot be read" in answer.text
    assert "Undo: " in answer.text
    for other in OTHERS:
        assert broken.get(other).status_code == 200, other
    assert "The line “Broken” is there, but" in broken.get("/shop").text


def test_the_step_back_leads_out_and_forward_again(broken: FlaskClient) -> None:
    page = broken.get("/lines/1").text
    state = re.search(r'name="line_state" value="(\d+)"', page)
    assert state is not None
    assert broken.post("/lines/1/undo", data={"line_state": state[1]}).status_code == 302
    assert broken.get("/lines/1").status_code == 200
    broken.post("/lines/1/redo")
    assert broken.get("/lines/1").status_code == 422


def test_what_is_stored_can_be_saved(broken: FlaskClient) -> None:
    assert json.loads(broken.get("/lines/1/stored.json").data) == {"format": 1}


def test_a_line_of_which_nothing_is_left_takes_none_with_it(client: FlaskClient, shop: Database) -> None:
    damage(shop, "DELETE FROM revision WHERE line_id = 1")
    assert client.get("/lines/1").status_code == 404
    assert "put a copy of the shop back" in client.get("/lines/1").text
    for other in OTHERS:
        assert client.get(other).status_code == 200, other


def test_a_shop_file_that_cannot_be_read_leaves_the_lines_alone(client: FlaskClient, shop: Database) -> None:
    client.post("/shop/room", data={"name": "Another shed"})
    damage(shop, "UPDATE shop_revision SET document = '[]' WHERE number = 2")
    answer = client.get("/shop")
    assert answer.status_code == 422
    assert "What is stored of the shop cannot be read" in answer.text
    for page in ("/lines/1", "/lines/2/ports", "/lines/1/dust", "/lines/1/drawer", "/backups"):
        assert client.get(page).status_code < 500, page
    assert client.get("/lines/1").status_code == 200
    client.post("/shop/undo")
    assert client.get("/shop").status_code == 200


def test_a_test_whose_plan_cannot_be_read_is_named_in_the_list(client: FlaskClient, shop: Database) -> None:
    with shop.engine.connect() as connection:
        (trial, line, title) = connection.exec_driver_sql("SELECT id, line_id, title FROM trial").first() or (0, 0, "")
    damage(shop, f"UPDATE trial SET plan = '{{' WHERE id = {trial}")
    page = client.get(f"/lines/{line}/tests")
    assert page.status_code == 200
    assert f"The test “{title}” is there, but its plan cannot be read" in page.text
    assert client.get(f"/tests/{trial}").status_code == 422


@pytest.mark.parametrize("where", ["fenwick.web.line.view.solve", "fenwick.services.ports.assess"])
def test_a_stored_line_that_cannot_be_solved_opens_with_the_sentence(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch, where: str
) -> None:
    def never(*_: object) -> None:
        raise NotConvergedError(12.0, 300)

    client.post("/lines/1/name", data={"name": "Stored long ago"})
    monkeypatch.setattr(where, never)
    answer = client.get("/lines/1" if "line" in where else "/lines/1/ports")
    assert answer.status_code == 422
    assert "The flows did not settle" in answer.text
    assert "Undo: " in answer.text


@pytest.mark.parametrize("what", ["late_of"])
def test_a_band_that_cannot_be_worked_out_leaves_the_page(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch, what: str
) -> None:
    def never(*_: object, **__: object) -> Callable[[], None]:
        raise NotConvergedError(12.0, 300)

    monkeypatch.setattr(f"fenwick.web.line.routes.{what}", never)
    assert client.get("/lines/1").status_code == 200
    assert client.get("/lines/1/late", headers=HX).status_code == 422
