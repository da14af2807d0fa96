"""Every address of the app with whatever may stand in it: an answer in words, never an error nobody foresaw."""

from __future__ import annotations

import re
from collections.abc import Iterator
from io import BytesIO
from urllib.parse import quote

import pytest
from flask import Flask
from flask.testing import FlaskClient

from fenwick.data import Database
from fenwick.data.lines import line_state

NUMBERS = (1, 99, 2**40, 2)
WORDS = ("hose-a", "..", "x" * 300, "ü / ?~b~c")
QUERY = {
    "part": "nowhere",
    "port": "-1",
    "kind": "nonsense",
    "of": "x",
    "way": "?",
    "seed": "many",
    "s": "no-such-sign",
    "r": "~~",
    "list": "attic",
    "panel": "none",
    "all": "maybe",
    "step": "1e9",
}
FORM = {
    "name": "\x00\u202e" + "n" * 400,
    "value": "NaN",
    "kind": "nonsense",
    "index": "-5",
    "to": "1e400",
    "reason": "",
    "after": "hose-a",
    "key": "bore~hose-a~inf",
    "change": "entry~drum-sander~0.3",
    "x": "1e999",
    "y": "left",
    "units": "furlongs",
    "part": "vacuum",
    "port": "99999999999999999999",
    "station": "moon",
    "minutes": "-1",
    "variant": "2.5",
    "document": "{",
}
FILES = (b"", b"{", b"[]", b"null", b"\xff\xfe\x00\x01", b'{"format": "x"}', b"1;2\n3;4\n", b"%PDF-1.7", b"[" * 5000)
PLACES = ("lines", "shop", "tests", "runs", "air-logs", "")  #: what an address begins with; the last is all the rest


def addresses(app: Flask, place: str, method: str) -> Iterator[str]:
    """Every address of a place that takes a method, with each of several things in its gaps."""
    for rule in app.url_map.iter_rules():
        first = rule.rule.split("/")[1]
        if (
            rule.endpoint == "static"
            or (first if first in PLACES else "") != place
            or method not in (rule.methods or ())
        ):
            continue
        for number, word in zip(NUMBERS, WORDS, strict=True):
            yield re.sub("<[^>]+>", quote(word, safe=""), re.sub("<int:[^>]+>", str(number), rule.rule))
            if not rule.arguments:
                break


def answered(client: FlaskClient, method: str, address: str, **sent: object) -> None:
    """In words: found, gone elsewhere, or refused."""
    answer = client.open(address, method=method, **sent)  # type: ignore[arg-type]
    assert answer.status_code < 500, (method, address, answer.text[-300:])
    if answer.status_code == 404:
        assert "There is no" in answer.text or "html" in answer.text, address
    answer.close()


@pytest.mark.parametrize("place", PLACES)
def test_whatever_stands_in_an_address_is_answered(app: Flask, client: FlaskClient, place: str) -> None:
    every = list(addresses(app, place, "GET"))
    assert every
    for address in every:
        answered(client, "GET", address, query_string=QUERY)


@pytest.mark.parametrize("place", PLACES)
def test_whatever_is_sent_is_answered_and_leaves_every_line_readable(
    app: Flask, client: FlaskClient, shop: Database, place: str
) -> None:
    for address in addresses(app, place, "POST"):
        answered(client, "POST", address, data=FORM, headers={"HX-Request": "true"})
        answered(client, "POST", address, data={})
    with shop.session() as session:
        for line_id in (1, 2, 3):
            assert line_state(session, line_id).rig.line.ways


@pytest.mark.parametrize(
    ("address", "field"),
    [
        ("/lines/1/rig", "rig"),
        ("/shop/file", "shop"),
        ("/tests/2/runs.csv", "runs"),
        ("/runs/62/photos", "photo"),
        ("/lines/1/air", "log"),
        ("/lines/1/vacuum/csv", "file"),
    ],
)
@pytest.mark.parametrize("body", FILES, ids=range(len(FILES)))
def test_a_file_that_is_something_else_is_refused_and_changes_nothing(
    client: FlaskClient, address: str, field: str, body: bytes
) -> None:
    before = [client.get(page).data for page in ("/lines/1/rig.json", "/shop/shop.json", "/tests/2/runs.csv")]
    answer = client.post(address, data={field: (BytesIO(body), "thing.bin"), "kind": "points"}, follow_redirects=True)
    assert answer.status_code < 500
    assert "reference " not in answer.text
    assert [client.get(page).data for page in ("/lines/1/rig.json", "/shop/shop.json", "/tests/2/runs.csv")] == before
