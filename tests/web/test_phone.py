"""Measuring with a telephone on its page: a reading is shown, kept or taken again; nothing is kept by itself."""

import io
import json
import re

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient
from PIL import Image
from sqlmodel import Session
from werkzeug.test import TestResponse

from fenwick.data.lines import add_line
from fenwick.data.logbook import LogWanted, count_of, photos_of
from fenwick.data.shops import the_shop
from fenwick.phone.scenes import scene
from fenwick.phone.words import MEANS
from fenwick.rig import check_rig
from fenwick.services.phone import read_by_phone
from fenwick.web.phone.held import MOST, HeldReading, HeldReadings
from tests.web.test_log import newest


def soup(response: TestResponse) -> BeautifulSoup:
    """A page, parsed."""
    return BeautifulSoup(response.text, "html.parser")


def send(client: FlaskClient, kind: str, *files: bytes, line: int = 2, **more: str) -> TestResponse:
    """Send photos or recordings, and follow to what was read."""
    named = [(io.BytesIO(one), f"{i}.bin") for i, one in enumerate(files)]
    return client.post(f"/lines/{line}/phone/{kind}", data={"files": named, **more}, follow_redirects=True)


@pytest.mark.parametrize("kind", list(MEANS))
def test_every_way_of_measuring_has_its_page_with_an_example(client: FlaskClient, kind: str) -> None:
    page = soup(client.get(f"/lines/2/phone?kind={kind}"))
    assert page.select_one(".phone-take h2").text == MEANS[kind].title  # type: ignore[union-attr]
    assert len(page.select(".phone-how li")) == len(MEANS[kind].steps)
    picture = page.select_one(".phone-example img")
    assert (picture is None) == MEANS[kind].sound
    if picture is not None:
        assert Image.open(io.BytesIO(client.get(str(picture["src"])).data)).format == "JPEG"


def test_a_filter_is_graded_shown_and_kept_with_its_picture(client: FlaskClient, session: Session) -> None:
    raw, before = scene("grey", 21).data, count_of(session, LogWanted())
    page = soup(send(client, "grey", raw, place="filter"))
    found = read_by_phone("grey", [raw])
    assert found.value is not None
    assert f"Grade {found.value:.1f} of 5" in page.select_one(".phone-value").text  # type: ignore[union-attr]
    session.rollback()
    assert count_of(session, LogWanted()) == before  # nothing is kept by itself
    picture = page.select_one(".phone-picture")
    assert picture is not None
    shown = client.get(str(picture["src"]))
    assert Image.open(io.BytesIO(shown.data)).getexif() == {}
    keep = page.select_one(".phone-keep")
    assert keep is not None
    answer = client.post(str(keep["action"]))
    entry = newest(session)
    assert answer.location == f"/log/{entry.id}?just=1"
    assert (entry.kind, entry.thing, entry.grade, entry.line) == ("wiped", "filter", float(round(found.value)), 2)
    assert "L*" in entry.words
    assert entry.id is not None
    assert len(photos_of(session, [entry.id])[entry.id]) == 1
    assert "Graded: filter" in client.get("/log").text


@pytest.mark.parametrize(("kind", "entry"), [("tube", "suction"), ("squares", "remark"), ("pitch", "heard")])
def test_what_is_kept_is_an_entry_of_its_kind(client: FlaskClient, session: Session, kind: str, entry: str) -> None:
    raw = scene(kind, 5).data
    page = soup(send(client, kind, raw))
    client.post(str(page.select_one(".phone-keep")["action"]))  # type: ignore[index]
    kept, found = newest(session), read_by_phone(kind, [raw])
    assert kept.kind == entry
    assert found.value is not None
    if kind == "tube":
        assert kept.suction == pytest.approx(9.80665 * found.value)
    elif kind == "pitch":
        assert kept.pitch == pytest.approx(found.value, abs=0.01)
        assert kept.quiet == pytest.approx(-found.seen["loudness_db"], abs=0.1)
    else:
        assert MEANS[kind].title in kept.words


def test_a_depth_is_a_look_into_the_bin_and_one_over_its_rim_is_not_kept(client: FlaskClient, session: Session) -> None:
    seeds = {kind: next(s for s in range(60) if low < scene("depth", s).truth["value"] < high)
             for kind, low, high in (("fits", 60.0, 160.0),)}  # fmt: skip
    page = soup(send(client, "depth", scene("depth", seeds["fits"]).data))
    assert " L" in page.select_one(".phone-result ul").text  # type: ignore[union-attr]
    client.post(str(page.select_one(".phone-keep")["action"]))  # type: ignore[index]
    assert newest(session).kind == "looked"
    assert newest(session).level == pytest.approx(scene("depth", seeds["fits"]).truth["value"] / 1e3, abs=0.003)


def test_what_cannot_be_read_says_why_with_the_picture_and_cannot_be_kept(client: FlaskClient) -> None:
    answer = send(client, "grey", scene("grey", 4, "cut").data)
    assert answer.status_code == 422
    page = soup(answer)
    assert page.select_one(".phone-refused") is not None
    assert page.select_one(".phone-picture") is not None
    assert page.select_one(".phone-keep") is None
    assert client.post(f"{answer.request.path}/keep").status_code == 404
    bad = soup(send(client, "grey", b"no picture at all"))
    assert "no picture that can be read" in bad.select_one(".phone-refused").text  # type: ignore[union-attr]


def test_nothing_chosen_is_said_at_the_field(client: FlaskClient) -> None:
    answer = client.post("/lines/2/phone/pitch", data={})
    assert answer.status_code == 422
    assert "Choose a recording" in soup(answer).select_one("#files-error").text  # type: ignore[union-attr]


def test_a_stand_in_says_its_truth(client: FlaskClient) -> None:
    page = soup(client.post("/lines/2/phone/tube", data={"stand_in": "1"}, follow_redirects=True))
    told = re.search(r"its truth is ([\d.]+) mm", page.text)
    assert told is not None
    assert page.select_one(".phone-value") is not None


def test_three_photos_are_repeats(client: FlaskClient) -> None:
    raw = scene("grey", 21).data
    page = soup(send(client, "grey", raw, raw, raw))
    assert "3 of them, which scatter by 0" in page.text


def test_a_line_knows_its_own_readings_alone(client: FlaskClient) -> None:
    path = send(client, "tube", scene("tube", 5).data).request.path
    assert client.get(path).status_code == 200
    assert client.get(path.replace("/lines/2/", "/lines/1/")).status_code == 404
    assert client.get("/lines/2/phone/read/nothing").status_code == 404
    assert client.get("/lines/2/phone?kind=smell").status_code == 404
    assert client.post("/lines/2/phone/smell", data={"stand_in": "1"}).status_code == 404


def test_readings_that_nobody_keeps_are_forgotten() -> None:
    held = HeldReadings()
    one = HeldReading(1, read_by_phone("grey", [b""]), None, "tank", None)
    names = [held.hold(one) for _ in range(MOST + 1)]
    assert held.get(names[0]) is None
    assert held.get(names[-1]) is one
    old = held.hold(HeldReading(1, one.found, None, "tank", None, since=-1e9))
    assert held.get(old) is None


def test_the_card_is_printed_from_the_page(client: FlaskClient) -> None:
    link = soup(client.get("/lines/2/phone")).select_one(".phone-print a")
    assert link is not None
    answer = client.get(str(link["href"]))
    assert answer.mimetype == "application/pdf"
    assert answer.data.startswith(b"%PDF")


def test_more_files_than_are_read_are_said_and_none_is_read(client: FlaskClient) -> None:
    answer = send(client, "tube", *[b"x"] * 7)
    assert answer.status_code == 422
    assert "At most 6 at once: 7 were sent" in answer.text


def test_a_depth_on_a_line_without_a_bin_is_a_remark(client: FlaskClient, session: Session) -> None:
    document = json.loads(client.get("/lines/3/rig.json").data)
    document["line"]["elements"] = [one for one in document["line"]["elements"] if one["kind"] != "separator"]
    rig = check_rig(document)
    line = add_line(session, the_shop(session), rig)
    session.commit()
    page = soup(send(client, "depth", scene("depth", 7).data, line=line))
    client.post(str(page.select_one(".phone-keep")["action"]))  # type: ignore[index]
    assert newest(session).kind == "remark"
