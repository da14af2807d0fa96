"""Lines as pages and commands ask for them: solved before they are stored, worked out once, never half added."""

from typing import Any

import pytest

from fenwick.core.arrays import one_value
from fenwick.core.errors import CoreError
from fenwick.core.search.figures import figures_at
from fenwick.data import Database
from fenwick.data.lines import NotFoundError, all_line_ids, line_state
from fenwick.data.shops import the_shop
from fenwick.rig import Rig, check_rig
from fenwick.services import solving
from fenwick.services.lines import add, store
from fenwick.services.solving import solve, sureness_of


@pytest.fixture
def unsolvable(monkeypatch: pytest.MonkeyPatch, rig: Rig) -> Rig:
    """A rig that the file allows and the core refuses."""
    wrong = rig.model_copy(update={"name": "Impossible"})

    def refuse(line: Any) -> None:
        raise CoreError("no such air")

    build = solving.build_line

    def build_or_refuse(one: Rig) -> Any:
        return refuse(one) if one.name == "Impossible" else build(one)

    monkeypatch.setattr(solving, "build_line", build_or_refuse)
    solving.solve.cache_clear()
    return wrong


def test_a_rig_is_solved_once_however_often_it_is_asked_for(document: dict[str, Any]) -> None:
    solve.cache_clear()
    first, again = solve(check_rig(document)), solve(check_rig(document))
    assert first is again  # by its content: these are two objects
    document["name"] = "Another"
    assert solve(check_rig(document)) is not first


def test_the_headline_is_the_first_of_its_own_draws(rig: Rig) -> None:
    solved = solve(rig)
    headline = figures_at(solved.line, solved.found, solved.first_open).kept
    band = sureness_of(rig).kept
    assert headline is not None
    assert band is not None
    assert band.low <= one_value(headline) <= band.high


def test_what_cannot_be_solved_is_not_stored(shop: Database, unsolvable: Rig) -> None:
    with shop.session() as session:
        before = line_state(session, 1)
        with pytest.raises(CoreError, match="no such air"):
            store(session, 1, unsolvable, "made impossible")
    with shop.session() as session:
        assert line_state(session, 1) == before


def test_none_of_several_lines_is_added_where_one_cannot_be_solved(shop: Database, rig: Rig, unsolvable: Rig) -> None:
    with shop.session() as session:
        before = all_line_ids(session)
        with pytest.raises(CoreError):
            add(session, the_shop(session), rig, unsolvable)
    with shop.session() as session:
        assert all_line_ids(session) == before


def test_a_line_that_has_gone_is_told(shop: Database, rig: Rig) -> None:
    with shop.session() as session, pytest.raises(NotFoundError):
        store(session, 99, rig, "to nowhere")
