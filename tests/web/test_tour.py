"""The tour: every stop is a page that there is, shows what it speaks of, and is left where one likes."""

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient

from fenwick.web.kit.tour import STOPS


def bar(text: str) -> str:
    """What the tour says on a page; empty without it."""
    found = BeautifulSoup(text, "html.parser").select_one(".tour")
    return "" if found is None else " ".join(found.text.split())


def test_it_goes_from_stop_to_stop_and_every_page_has_what_is_spoken_of(client: FlaskClient) -> None:
    page = client.post("/tour", follow_redirects=True)
    for number, stop in enumerate(STOPS, 1):
        assert page.status_code == 200
        assert page.request.path != "/start"
        told = bar(page.text)
        assert told.startswith(f"{number} of {len(STOPS)} {stop.title}")
        assert stop.try_it in told
        assert BeautifulSoup(page.text, "html.parser").select(stop.shows), stop.title
        page = client.post("/tour/next", follow_redirects=True)
    assert bar(page.text).startswith(f"{len(STOPS)} of")  # there is none behind the last
    back = client.post("/tour/back", follow_redirects=True)
    assert STOPS[-2].title in bar(back.text)


def test_it_waits_on_other_pages_and_leads_back(client: FlaskClient) -> None:
    client.post("/tour")
    client.post("/tour/next")
    told = bar(client.get("/shop").text)
    assert "the tour waits" in told
    assert "Back to it" in told
    assert STOPS[1].title in bar(client.post("/tour/here", follow_redirects=True).text)


def test_it_is_left_on_the_page_that_one_is_on_and_not_offered_again(client: FlaskClient) -> None:
    assert "New here?" in client.get("/").text
    client.post("/tour")
    assert "New here?" not in client.get("/").text
    left = client.post("/tour/leave", data={"next": "/log/due"})
    assert left.location == "/log/due"
    home = client.get("/").text
    assert bar(home) == ""
    assert "New here?" not in home
    assert "A tour in ten minutes" in home  # in the foot


@pytest.mark.parametrize("told", ["", "99", "-1", "x", "1" * 400, "²", "<b>"])
def test_a_cookie_that_makes_no_sense_is_no_tour(client: FlaskClient, told: str) -> None:
    client.set_cookie("fenwick-tour", told)
    page = client.get("/")
    assert page.status_code == 200
    assert bar(page.text) == ""
    assert STOPS[0].title in bar(client.post("/tour/next", follow_redirects=True).text)


def test_a_shop_without_lines_leads_to_the_start(client: FlaskClient) -> None:
    for line in (1, 2, 3):
        client.post(f"/lines/{line}/remove")
    page = client.post("/tour", follow_redirects=True)
    assert page.status_code == 200
    assert page.request.path == "/start"
    for _ in STOPS:
        page = client.post("/tour/next", follow_redirects=True)
        assert page.status_code == 200


def test_nowhere_else_is_gone_to(client: FlaskClient) -> None:
    client.post("/tour")
    for address in ("https://elsewhere.invalid/", "//elsewhere.invalid", "/\\elsewhere.invalid"):
        assert client.post("/tour/leave", data={"next": address}).location == "/lines"
