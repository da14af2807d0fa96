"""Lessons: what is right is worked out; an answer is marked and remembered; the line can be gone on with."""

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient
from sqlmodel import Session
from werkzeug.test import TestResponse

from fenwick.core.search.figures import figures_at
from fenwick.data.lines import all_line_ids, line_state
from fenwick.services.lessons import LESSONS, SHARES, lived, rigs_of
from fenwick.services.solving import solve
from fenwick.wording.lessons import FIGURE_WORDS, LESSON_WORDS

KEYS = [one.key for one in LESSONS]


def soup(response: TestResponse) -> BeautifulSoup:
    """A page, parsed."""
    return BeautifulSoup(response.text, "html.parser")


def test_there_are_ten_and_each_has_its_words() -> None:
    assert len(LESSONS) == 10
    assert set(LESSON_WORDS) == set(KEYS)
    for words in LESSON_WORDS.values():
        assert words.question.endswith("?")
        assert len(set(words.answers)) == 3


@pytest.mark.parametrize("key", KEYS)
def test_what_is_right_is_what_the_line_does(key: str) -> None:
    lesson, found = next(one for one in LESSONS if one.key == key), lived(key)
    before, after = rigs_of(lesson)
    values = []
    for rig in (before, after):
        solved = solve(rig)
        figures = figures_at(solved.line, solved.found, solved.first_open)
        kept = figures.kept
        assert kept is not None
        values.append(1.0 - float(kept[0]) if lesson.figure == "past" else float(getattr(figures, lesson.figure)[0]))
    change = values[1] - values[0] if lesson.figure in SHARES else values[1] / values[0] - 1.0
    assert found.change == pytest.approx(change)
    low, high = lesson.edges
    assert found.right == (0 if change < low else 1 if change < high else 2)
    # far enough from the edges that no small change of the model turns the answer round
    assert min(abs(change - low), abs(change - high)) > 0.01
    assert {one.figure for one in found.figures} <= set(FIGURE_WORDS)


def test_the_answer_is_not_told_before_one_is_given_and_marked_afterwards(client: FlaskClient) -> None:
    page = soup(client.get("/lessons/leak-below"))
    assert page.select_one(".lesson-seen") is None
    assert not page.select(".is-right")
    assert client.post("/lessons/leak-below", data={}).status_code == 422
    wrong = (lived("leak-below").right + 1) % 3
    page = soup(client.post("/lessons/leak-below", data={"answer": str(wrong)}, follow_redirects=True))
    assert page.select_one("#seen").text == "No."  # type: ignore[union-attr]
    assert LESSON_WORDS["leak-below"].why in page.text
    assert page.select_one(".is-right")["value"] == str(lived("leak-below").right)  # type: ignore[index]
    assert page.select_one(".is-wrong")["value"] == str(wrong)  # type: ignore[index]
    assert page.select_one(".asked th").text == "Kept in the bin"  # type: ignore[union-attr]


def test_answers_are_remembered_counted_and_forgotten(client: FlaskClient) -> None:
    for key in KEYS:
        client.post(f"/lessons/{key}", data={"answer": str(lived(key).right)})
    page = soup(client.get("/lessons"))
    assert "10 of 10 right" in page.text
    client.post("/lessons/anew")
    assert "a minute each" in client.get("/lessons").text


@pytest.mark.parametrize("told", ["", "x", "tape~9", "tape~1.tape~2", "~" * 500, "<b>~1", "leaning~²"])
def test_a_cookie_that_makes_no_sense_is_no_answer(client: FlaskClient, told: str) -> None:
    client.set_cookie("fenwick-lessons", told)
    assert client.get("/lessons").status_code == 200
    assert client.get("/lessons/leaning").status_code == 200


def test_what_is_no_lesson_is_not_found(client: FlaskClient) -> None:
    assert client.get("/lessons/nothing").status_code == 404
    assert client.post("/lessons/nothing", data={"answer": "1"}).status_code == 404
    assert client.post("/lessons/nothing/line").status_code == 404


def test_a_lesson_is_gone_on_with_as_a_line_of_the_shop(client: FlaskClient, session: Session) -> None:
    before = all_line_ids(session)
    for _ in range(2):
        assert client.post("/lessons/wide-hose/line").status_code == 302
    session.rollback()
    new = [line for line in all_line_ids(session) if line not in before]
    names = [line_state(session, line).rig.name for line in new]
    assert len(set(names)) == 2
    solved = solve(line_state(session, new[0]).rig)
    speed = figures_at(solved.line, solved.found, solved.first_open).speed
    assert speed is not None
    told = next(one for one in lived("wide-hose").figures if one.figure == "speed")
    assert float(speed[0]) == pytest.approx(told.after)
