"""The page of copies: one by hand, what it would change, put back, brought and kept elsewhere."""

import io
import re

from flask.testing import FlaskClient

from fenwick.data import Database
from fenwick.data.backups import backups_of


def made(client: FlaskClient, shop: Database) -> str:
    answer = client.post("/backups")
    assert answer.status_code == 302
    return backups_of(shop.path)[0].name


def test_without_any_the_page_shows_what_would_be_there(client: FlaskClient) -> None:
    assert "There is none yet" in client.get("/backups").text


def test_made_looked_at_and_put_back(client: FlaskClient, shop: Database) -> None:
    name = made(client, shop)
    before = client.get("/lines/1/rig.json").data
    assert "would change nothing" in client.get(f"/backups/{name}").text
    client.post("/lines/1/name", data={"name": "Renamed"})
    look = client.get(f"/backups/{name}").text
    assert "would stand as it did then" in look
    assert "Renamed" in look
    answer = client.post(f"/backups/{name}/restore", follow_redirects=True)
    assert "As it was before" in answer.text
    assert client.get("/lines/1/rig.json").data == before
    assert client.get("/").status_code in (200, 302)
    again = re.search(r'href="/backups/([^"/]+-restore\.db)"', answer.text)
    assert again is not None
    client.post(f"/backups/{again[1]}/restore")
    assert b"Renamed" in client.get("/lines/1/rig.json").data


def test_kept_elsewhere_and_brought_back(client: FlaskClient, shop: Database) -> None:
    file = client.get(f"/backups/{made(client, shop)}/file").data
    answer = client.post("/backups/bring", data={"copy": (io.BytesIO(file), "stick.db")}, follow_redirects=True)
    assert "brought from elsewhere" in answer.text
    assert "would change nothing" in answer.text


def test_what_is_no_copy_is_refused_by_its_name(client: FlaskClient, shop: Database) -> None:
    answer = client.post("/backups/bring", data={"copy": (io.BytesIO(b"holiday"), "beach.jpg")})
    assert answer.status_code == 422
    assert "beach.jpg is not a copy of a Fenwick shop." in answer.text
    assert client.post("/backups/bring").status_code == 422
    assert backups_of(shop.path) == []


def test_a_copy_that_is_not_there(client: FlaskClient) -> None:
    for name in ("20260101-000000-daily.db", "..%2Fshop.db", "shop.db"):
        for address in (f"/backups/{name}", f"/backups/{name}/file"):
            assert client.get(address).status_code == 404
        assert client.post(f"/backups/{name}/restore").status_code == 404


def test_a_damaged_copy_is_said_and_changes_nothing(client: FlaskClient, shop: Database) -> None:
    name = made(client, shop)
    (copy,) = backups_of(shop.path)
    copy.path.write_bytes(copy.path.read_bytes()[:5000])
    before = client.get("/lines/1/rig.json").data
    for answer in (client.get(f"/backups/{name}"), client.post(f"/backups/{name}/restore")):
        assert answer.status_code == 422
        assert "cannot be read, or is damaged" in answer.text
    assert client.get("/lines/1/rig.json").data == before


def test_nothing_is_put_back_while_a_monitor_is_recorded(client: FlaskClient, shop: Database) -> None:
    name = made(client, shop)
    client.application.extensions["fenwick-recordings"][1] = object()
    assert "A monitor is being recorded" in client.post(f"/backups/{name}/restore").text
