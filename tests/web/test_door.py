"""Strangers stay out: other names, other sites, and on a network who has not signed in."""

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from flask import Flask
from flask.testing import FlaskClient

from fenwick.data import Database
from fenwick.data.door import CODE_LASTS, Door
from fenwick.web import create_app
from fenwick.web.kit import door as web_door
from fenwick.web.kit.door import Attempts, Entrance
from tests.conftest import OPEN_TO_TESTS

WORDS = "maple under the north light"
Opened = Callable[..., Flask]
OURS = ("localhost", "LOCALHOST:8765", "127.0.0.1:8765", "127.0.0.9", "[::1]:8765", "localhost.")
THEIRS = ("evil.example", "127.0.0.1.evil.example", "192.168.1.7", "10.0.0.1:8765", "", "localhost.evil")


@pytest.fixture
def door(tmp_path: Path) -> Door:
    found = Door(tmp_path / "door.json")
    found.set_passphrase(WORDS)
    return found


@pytest.fixture
def opened(shop: Database) -> Opened:
    """An application with a door of its own."""

    def make(**entrance: object) -> Flask:
        app = create_app(shop, "for tests only", Entrance(**entrance))  # type: ignore[arg-type]
        app.config.update(OPEN_TO_TESTS)
        return app

    return make


@pytest.mark.parametrize("host", OURS)
def test_this_machines_own_names_are_answered(client: FlaskClient, host: str) -> None:
    assert client.get("/lines/1", headers={"Host": host}).status_code == 200


@pytest.mark.parametrize("host", THEIRS)
def test_other_names_are_not(client: FlaskClient, host: str) -> None:
    """A page whose name was made to lead here reads nothing."""
    answer = client.get("/lines/1", headers={"Host": host})
    assert answer.status_code in (400, 403)
    assert "Willow Yard" not in answer.text


def test_a_name_that_was_given_is_answered(opened: Opened) -> None:
    client = opened(names=("shed.example",)).test_client()
    assert client.get("/lines/1", headers={"Host": "Shed.example:8765"}).status_code == 200


def test_addresses_of_this_machine_are_answered_where_it_serves_the_network(
    opened: Opened, door: Door, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(web_door, "own_addresses", lambda **_: ("192.168.1.7",))
    here, alone = opened(door=door).test_client(), opened().test_client()
    assert here.get("/sign-in", headers={"Host": "192.168.1.7:8765"}).status_code == 200
    assert here.get("/sign-in", headers={"Host": "192.168.1.8:8765"}).status_code == 403
    assert alone.get("/lines/1", headers={"Host": "192.168.1.7:8765"}).status_code == 403


@pytest.mark.parametrize("site", ["cross-site", "same-site"])
@pytest.mark.parametrize("method", ["get", "post"])
def test_requests_of_other_sites_are_refused(client: FlaskClient, site: str, method: str) -> None:
    answer = getattr(client, method)(
        "/lines/1/undo" if method == "post" else "/lines/1", headers={"Sec-Fetch-Site": site}
    )
    assert answer.status_code == 403
    assert "Another site has sent this request" in answer.text
    assert "Willow Yard" not in answer.text


def test_an_older_browser_is_judged_by_its_origin(client: FlaskClient) -> None:
    ours, theirs = {"Origin": "http://localhost"}, {"Origin": "http://evil.example"}
    assert client.post("/lines/1/undo", headers=ours).status_code == 302
    for origin in (theirs, {"Origin": "null"}, {"Origin": "http://localhost:9999"}):
        assert client.post("/lines/1/undo", headers=origin).status_code == 403


def test_our_own_pages_and_the_address_line_go_on(client: FlaskClient) -> None:
    for site in ("same-origin", "none"):
        assert client.get("/lines/1", headers={"Sec-Fetch-Site": site}).status_code == 200


def test_on_a_network_nobody_sees_anything_before_signing_in(opened: Opened, door: Door) -> None:
    app = opened(door=door)
    client = app.test_client()
    for rule in app.url_map.iter_rules():
        address = re.sub(r"<[^>]*>", "1", rule.rule)
        if rule.endpoint in ("static", "door.ask", "door.enter"):
            continue
        answer = client.get(address) if "GET" in (rule.methods or ()) else client.post(address)
        assert answer.status_code in (302, 401, 404, 405), address
        assert "Willow Yard" not in answer.text
        if answer.status_code == 302:
            assert answer.headers["Location"].startswith("/sign-in")


def signed_in(app: Flask, words: str = WORDS) -> FlaskClient:
    client = app.test_client()
    answer = client.post("/sign-in", data={"passphrase": words, "next": "/lines/2"})
    assert answer.headers["Location"] == "/lines/2"
    return client


def test_who_knows_the_passphrase_comes_in_and_goes(opened: Opened, door: Door) -> None:
    client = signed_in(opened(door=door))
    assert client.get("/lines/1").status_code == 200
    assert "Computer at 127.0.0.1" in client.get("/sign-ins").text
    client.post("/sign-out")
    assert client.get("/lines/1").status_code == 302
    assert door.sign_ins() == ()


def test_one_browser_ends_the_sign_in_of_another(opened: Opened, door: Door) -> None:
    app = opened(door=door)
    one, other = signed_in(app), signed_in(app)
    newest = door.sign_ins()[0]
    one.post(f"/sign-ins/{newest.id}/end")
    assert other.get("/lines/1").status_code == 302
    assert one.get("/lines/1").status_code == 200


def test_a_copied_token_is_worth_nothing_once_it_was_ended(opened: Opened, door: Door) -> None:
    app = opened(door=door)
    client = signed_in(app)
    cookie = client.get_cookie("fenwick")
    assert cookie is not None
    client.post("/sign-out")
    thief = app.test_client()
    thief.set_cookie("fenwick", cookie.value)
    assert thief.get("/lines/1").status_code == 302


def test_attempts_are_limited_even_with_the_right_words_at_last(opened: Opened, door: Door) -> None:
    client = opened(door=door).test_client()
    for _ in range(5):
        assert client.post("/sign-in", data={"passphrase": "wrong words"}).status_code == 422
    for words in ("wrong words", WORDS):
        answer = client.post("/sign-in", data={"passphrase": words})
        assert answer.status_code == 429
        assert "Too many attempts: try again in" in answer.text


def test_who_mistypes_on_many_addresses_is_slowed_down_too() -> None:
    attempts = Attempts(most=5, most_of_all=10)
    for i in range(10):
        attempts.wrong(f"10.0.0.{i}")
    assert attempts.wait("10.9.9.9") > 0.0
    assert Attempts().wait("10.9.9.9") == 0.0


def test_a_code_lets_one_browser_in_once(opened: Opened, door: Door) -> None:
    app, code = opened(door=door), door.new_code()
    page = app.test_client().get(f"/sign-in?code={code}")
    assert code in page.text
    assert door.sign_ins() == ()  # to look at the page is not to come in
    phone = app.test_client()
    assert phone.post("/sign-in", data={"code": f"{code[:4]}-{code[4:]}".lower()}).status_code == 302
    assert phone.get("/lines/1").status_code == 200
    assert app.test_client().post("/sign-in", data={"code": code}).status_code == 422


def test_a_code_is_forgotten_after_a_while(tmp_path: Path) -> None:
    now = [0.0]
    door = Door(tmp_path / "door.json", lambda: now[0])
    code = door.new_code()
    now[0] = CODE_LASTS + 1.0
    assert not door.takes_code(code)


def test_a_browser_that_is_in_shows_a_code_to_scan(opened: Opened, door: Door) -> None:
    app = opened(door=door, port=8765)
    page = signed_in(app).post("/sign-ins/pair").text
    assert "<svg" in page
    found = re.search(r'door-code">([A-Z0-9]{4}-[A-Z0-9]{4})<', page)
    assert found is not None
    assert app.test_client().post("/sign-in", data={"code": found[1]}).status_code == 302


def test_a_new_passphrase_ends_every_sign_in_of_a_running_server(opened: Opened, door: Door, tmp_path: Path) -> None:
    client = signed_in(opened(door=door))
    Door(tmp_path / "door.json").set_passphrase("another one altogether")
    assert client.get("/lines/1").status_code == 302
    assert not door.fits(WORDS)


@pytest.mark.parametrize("words", ["", "short", "x" * 201])
def test_a_passphrase_that_is_none(tmp_path: Path, words: str) -> None:
    with pytest.raises(ValueError, match="takes 8 to 200 characters"):
        Door(tmp_path / "door.json").set_passphrase(words)


def test_what_is_kept_of_a_sign_in_opens_nothing(door: Door, tmp_path: Path) -> None:
    token = door.sign_in("Phone")
    kept = (tmp_path / "door.json").read_text()
    assert token not in kept
    assert WORDS not in kept
    assert (tmp_path / "door.json").stat().st_mode & 0o077 == 0


@pytest.mark.parametrize("wanted", ["//evil.example", "https://evil.example", "/\\evil.example", "javascript:alert(1)"])
def test_signing_in_leads_to_no_other_site(opened: Opened, door: Door, wanted: str) -> None:
    answer = opened(door=door).test_client().post("/sign-in", data={"passphrase": WORDS, "next": wanted})
    assert answer.headers["Location"] == "/"


def test_behind_tls_the_cookie_goes_over_it_alone_and_bears_the_shops_name(opened: Opened, door: Door) -> None:
    client = opened(door=door, behind_tls=True, cookie="fenwick-1a2b3c4d-8765").test_client()
    answer = client.post("/sign-in", data={"passphrase": WORDS}, headers={"X-Forwarded-Proto": "https"})
    kept = next(one for one in answer.headers.getlist("Set-Cookie") if one.startswith("fenwick-1a2b3c4d-8765="))
    assert "Secure" in kept
    assert "HttpOnly" in kept
    assert "SameSite=Lax" in kept


def test_without_a_door_there_is_nothing_to_sign_in_to(client: FlaskClient) -> None:
    for address in ("/sign-in", "/sign-ins"):
        assert client.get(address).status_code == 404


def test_error_pages_name_no_place_on_this_machine(client: FlaskClient, shop: Database) -> None:
    with shop.engine.begin() as connection:
        connection.exec_driver_sql("DROP TABLE revision")
    answer = client.get("/lines/1")
    assert answer.status_code == 503
    assert str(shop.path.parent) not in answer.text
