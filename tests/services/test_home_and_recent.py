"""Home's figures, and what is kept of slow work: asked for again it is not done again, and the oldest goes."""

import threading
from datetime import datetime

import pytest
from sqlmodel import Session

from fenwick.data.lines import all_line_ids, line_state
from fenwick.data.logbook import add_entries
from fenwick.logged import Logged
from fenwick.services.checks import checked, tally
from fenwick.services.home import MOST_LINES, home_lines, last_held
from fenwick.services.logbook.today import shop_today
from fenwick.services.recent import Recent

NOW = datetime.now().replace(minute=0, second=0, microsecond=0)


def test_every_line_has_the_count_of_its_checks_and_the_worst_of_them(session: Session) -> None:
    lines, left = home_lines(session, all_line_ids(session), shop_today(session, NOW))
    assert left == []
    for line in lines:
        found = checked(session, line_state(session, line.id))
        assert line.tally == tally(found)
        worst = max((one.level for one in found if one.open), default=0)
        assert line.worst is not None
        assert int(line.worst.level[0]) == worst


def test_no_more_lines_than_there_is_room_for(session: Session) -> None:
    lines, _ = home_lines(session, [1] * 40, shop_today(session, NOW))
    assert len(lines) == MOST_LINES


def test_fill_and_mark_are_shares_of_the_bin_and_the_cake_is_the_log_s(session: Session) -> None:
    today = shop_today(session, NOW)
    for line in home_lines(session, all_line_ids(session), today)[0]:
        assert line.fill is not None
        assert 0.0 <= line.fill <= 1.0
        assert line.mark is not None
        assert 0.5 < line.mark < 1.0
        filters = [one for one in today.of_line(line.id) if one.holder.kind == "filter"]
        assert line.cake == (filters[0].used.likely if filters else None)


def test_what_a_vacuum_last_held_is_the_dust_of_the_tool_that_worked_last(session: Session) -> None:
    states = [line_state(session, line) for line in all_line_ids(session)]
    (held,) = last_held(states, shop_today(session, NOW))
    assert (held.vacuum, held.dust, held.tool) == ("Drum vac 1300 W", "sanding-p240", "Finishing sander")
    add_entries(session, [Logged("worked", NOW, 2, "Bandsaw", hours=0.1)], "Sawn")
    (held,) = last_held(states, shop_today(session, NOW))
    assert (held.dust, held.tool) == ("bandsaw", "Bandsaw")


def test_the_same_is_asked_for_twice_and_worked_out_once() -> None:
    made: list[int] = []
    kept: Recent[int] = Recent(2)
    for key in (1, 1, 2, 1, 3, 1, 2):
        assert kept.get(key, lambda key=key: made.append(key) or 10 * key) == 10 * key  # type: ignore[misc]
    assert made == [1, 2, 3, 2]  # what was asked for longest ago went


def test_what_cannot_be_worked_out_is_not_kept() -> None:
    kept: Recent[int] = Recent(2)

    def fails() -> int:
        raise ValueError

    for _ in range(2):
        with pytest.raises(ValueError):  # noqa: PT011 any of them
            kept.get("key", fails)
    assert kept.get("key", lambda: 1) == 1


def test_several_threads_may_ask_at_once() -> None:
    kept: Recent[int] = Recent(3)
    wrong: list[int] = []

    def ask(start: int) -> None:
        for i in range(300):
            key = (start + i) % 7
            if kept.get(key, lambda key=key: key) != key:  # type: ignore[misc]
                wrong.append(key)

    threads = [threading.Thread(target=ask, args=(start,)) for start in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert wrong == []
