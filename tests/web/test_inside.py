"""Photos of the inside of a bin on its section; a motor's loudness kept and compared; a print that came out small."""

from __future__ import annotations

import io
import json
from datetime import datetime

import pytest
from bs4 import BeautifulSoup
from click.testing import CliRunner
from flask.testing import FlaskClient
from PIL import Image
from sqlmodel import Session

from fenwick.cli import main
from fenwick.data.lines import line_state
from fenwick.data.logbook import LogWanted, add_entries, entries_of
from fenwick.logged import Logged
from fenwick.phone.scenes import scene
from fenwick.services.inside import kept_by_height, pinned_photos
from fenwick.services.phone import read_by_phone
from fenwick.wording.heard import Heard, heard_words

PAGE = "/lines/1/phone/inside"


def photo(kind: str = "JPEG") -> io.BytesIO:
    """A picture of nothing in particular."""
    out = io.BytesIO()
    Image.new("RGB", (60, 40), (120, 90, 60)).save(out, kind)
    out.seek(0)
    return out


def pinned(client: FlaskClient, height: str, words: str = "") -> BeautifulSoup:
    """Pin a photo; the page that comes."""
    data = {"photo": (photo(), "in.jpg"), "height": height, "words": words}
    answer = client.post(PAGE, data=data, follow_redirects=True)
    return BeautifulSoup(answer.text, "html.parser")


def test_a_photo_is_pinned_to_its_height_beside_what_the_model_says(client: FlaskClient, session: Session) -> None:
    assert "None yet" in client.get(PAGE).text
    pinned(client, "120", "a ring of fines")
    page = pinned(client, "410", "<b>dust under the lid</b>")
    rows = page.select(".inside-photos li")
    assert [row.b.text for row in rows if row.b] == ["410\u2009mm", "120\u2009mm"] or len(rows) == 2
    assert "thrown back" in rows[0].text
    assert "no more is thrown back" in rows[1].text
    assert "<b>dust under the lid</b>" in rows[0].text  # as it was typed, harmless
    assert len(page.select(".bin-pins circle.bin-pin")) == 2
    image = rows[0].select_one("img")
    assert image is not None
    assert client.get(str(image["src"])).data.startswith(b"\xff\xd8")
    session.rollback()
    assert [one.height for one in pinned_photos(session, 1)] == [0.41, 0.12]
    assert [one.kind for one in entries_of(session, LogWanted(kinds=("inside",)))] == ["inside", "inside"]
    assert pinned_photos(session, 2) == []


@pytest.mark.parametrize("height", ["", "many", "-5", "9000", "nan"])
def test_a_height_that_cannot_be_comes_back_with_what_was_typed(
    client: FlaskClient, session: Session, height: str
) -> None:
    answer = client.post(PAGE, data={"photo": (photo(), "in.jpg"), "height": height, "words": "as I saw it"})
    assert answer.status_code == 422
    page = BeautifulSoup(answer.text, "html.parser")
    assert page.select_one("#f-height-error") is not None
    assert page.select_one("#f-height")["value"] == height  # type: ignore[index]
    assert page.select_one("#inside-words")["value"] == "as I saw it"  # type: ignore[index]
    assert pinned_photos(session, 1) == []


@pytest.mark.parametrize("raw", [b"", b"no picture", b"\xff\xd8\xff broken"])
def test_what_is_no_photo_is_refused_in_a_sentence(client: FlaskClient, session: Session, raw: bytes) -> None:
    answer = client.post(PAGE, data={"photo": (io.BytesIO(raw), "in.jpg"), "height": "120"})
    assert answer.status_code == 422
    assert BeautifulSoup(answer.text, "html.parser").select_one("#photo-error") is not None
    assert pinned_photos(session, 1) == []


def test_what_is_kept_falls_with_the_dust_and_is_nothing_at_the_rim(session: Session) -> None:
    for line in (1, 2, 3):
        rig = line_state(session, line).rig
        found = kept_by_height(rig)
        assert found is not None
        assert all(b <= a + 1e-9 for a, b in zip(found.kept, found.kept[1:], strict=False))
        assert found.at(0.0) == found.empty
        assert found.kept[-1] < 0.05
        assert found.heights[0] == 0.0


def test_a_loudness_is_kept_with_its_line_and_shown_where_two_are_compared(
    client: FlaskClient, session: Session
) -> None:
    assert "telephone" not in client.get("/lines/1/compare/3").text
    at = datetime(2026, 11, 1, 10, 0)
    add_entries(session, [Logged("heard", at, 1, pitch=400.0, quiet=20.0)], "heard")
    session.commit()
    assert "in one place" not in client.get("/lines/1/compare/3").text
    add_entries(session, [Logged("heard", at, 3, pitch=430.0, quiet=26.0)], "heard")
    session.commit()
    assert "6 dB quieter" in client.get("/lines/1/compare/3").text
    assert "6 dB louder" in client.get("/lines/3/compare/1").text


def test_a_difference_nobody_hears_is_none() -> None:
    one, other = Heard(20.0, None, "1 May"), Heard(20.4, None, "2 May")
    assert "as loud as" in heard_words("a", "b", one, other)
    assert "1 May and 2 May" in heard_words("a", "b", one, other)
    assert heard_words("a", "b", one, None) == heard_words("a", "b", None, other) == ""


def test_a_print_that_came_out_small_is_reckoned_with_and_one_far_off_is_refused() -> None:
    drawn = scene("depth", 7)
    plain, small = (read_by_phone("depth", [drawn.data], None, bar) for bar in (50.0, 48.5))
    assert plain.value is not None
    assert small.value == pytest.approx(0.97 * plain.value)
    assert small.high == pytest.approx(0.97 * plain.high)  # type: ignore[operator]
    assert small.seen["print_scale"] == 0.97
    off = read_by_phone("depth", [drawn.data], None, 40.0)
    assert off.value is None
    assert "measures 40.0 mm" in str(off.refused)
    grey = scene("grey", 7)
    assert read_by_phone("grey", [grey.data], None, 48.5).value == read_by_phone("grey", [grey.data]).value


def test_what_the_bar_measures_is_typed_on_the_page_and_by_command(client: FlaskClient, tmp_path) -> None:  # type: ignore[no-untyped-def]
    drawn = scene("tube", 7)
    data = {"files": (io.BytesIO(drawn.data), "u.jpg"), "bar": "45"}
    refused = client.post("/lines/1/phone/tube", data=data, follow_redirects=True)
    assert "The 50 mm bar measures 45.0 mm" in refused.text
    bad = client.post("/lines/1/phone/tube", data={"files": (io.BytesIO(drawn.data), "u.jpg"), "bar": "wide"})
    assert bad.status_code == 422
    page = BeautifulSoup(bad.text, "html.parser")
    assert page.select_one("#f-bar-error") is not None
    assert page.select_one("#f-bar")["value"] == "wide"  # type: ignore[index]
    file = tmp_path / "u.jpg"
    file.write_bytes(drawn.data)
    told = CliRunner().invoke(main, ["read", "tube", str(file), "--bar", "49"])
    assert told.exit_code == 0
    assert json.loads(told.output)["seen"]["print_scale"] == 0.98
    assert CliRunner().invoke(main, ["read", "tube", str(file), "--bar", "40"]).exit_code == 2
