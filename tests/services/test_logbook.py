"""The log worked out: shared holders, jobs where no hours are logged, the line as the log has it, what is stored."""

from collections.abc import Iterator
from datetime import datetime, timedelta

import pytest
from sqlmodel import Session

from fenwick.data import Database
from fenwick.data.by_log import shows_by_log, stored_rig
from fenwick.data.lines import line_state, show_lines_by
from fenwick.data.logbook import LogWanted, add_entries, entries_of, remove_entries
from fenwick.logged import Logged
from fenwick.rig import Rig, edit_rig
from fenwick.services.lines import store
from fenwick.services.logbook.due import FIRST_LOOK, due_in
from fenwick.services.logbook.estimate import HolderToday
from fenwick.services.logbook.holders import first_separator, height_of_share, holders_of, vacuum_key
from fenwick.services.logbook.money import money_today, one_off_on
from fenwick.services.logbook.shown import as_the_log_has_it
from fenwick.services.logbook.today import shop_today
from fenwick.services.logbook.trend import KEPT, trends_in
from fenwick.shop.into_line import put_bin, put_vacuum

NOW = datetime.now().replace(minute=0, second=0, microsecond=0)


def ago(days: float) -> datetime:
    """So many days ago."""
    return NOW - timedelta(days=days)


@pytest.fixture
def log(shop: Database) -> Iterator[Session]:
    """A session that writes, in a demo shop whose log is empty."""
    session = shop.open_session(to_write=True)
    remove_entries(session, [one.id for one in entries_of(session, LogWanted()) if one.id is not None], "All of it")
    yield session
    session.close()


def holder(session: Session, kind: str, line: int = 2) -> HolderToday:
    """A holder of a line."""
    return next(one for one in shop_today(session, NOW).of_line(line) if one.holder.kind == kind)


def fill(rig: Rig) -> float:
    """Height of the dust in the first bin."""
    part = first_separator(rig)
    assert part is not None
    return part.bin.fill_height_m


def test_a_log_that_says_nothing_makes_no_figure(log: Session) -> None:
    assert shop_today(log, NOW).holders == ()
    assert due_in(log, NOW) == ()
    assert trends_in(log, NOW) == []
    assert money_today(log, NOW).lines == ()


def test_until_a_bin_was_emptied_nobody_knows_how_full_it_is(log: Session) -> None:
    add_entries(log, [Logged("worked", ago(1), 2, "Bandsaw", hours=3.0)], "Worked")
    assert not holder(log, "bin").known
    add_entries(log, [Logged("emptied", ago(2), 2)], "Emptied")
    assert holder(log, "bin").known
    assert holder(log, "bin").used.likely == pytest.approx(3.0 / 6.27, rel=0.05)


def test_hours_at_a_tool_that_is_not_there_any_more_count_for_nothing(log: Session) -> None:
    add_entries(log, [Logged("emptied", ago(2), 2), Logged("worked", ago(1), 2, "Moon saw", hours=300.0)], "Worked")
    assert holder(log, "bin").used.likely == 0.0


def test_where_no_hours_are_logged_the_jobs_of_the_week_stand_for_them(log: Session) -> None:
    add_entries(log, [Logged("emptied", ago(7), 2)], "Emptied")
    week = holder(log, "bin")
    assert 0.3 < week.used.likely < 1.2
    add_entries(log, [Logged("worked", ago(7), 2, "Bandsaw", hours=0.1)], "Worked")
    assert holder(log, "bin").used.likely < 0.1 * week.used.likely


def test_lines_with_the_same_vacuum_share_the_history_of_its_filter(log: Session) -> None:
    add_entries(log, [Logged("replaced", ago(9), 2), Logged("emptied", ago(9), 1)], "Begin")
    add_entries(log, [Logged("worked", ago(3), 1, "Drum sander", hours=8.0)], "Worked")
    add_entries(log, [Logged("worked", ago(8), 2, "Bandsaw", hours=0.0)], "Hardly worked")
    assert holder(log, "filter", 1) == holder(log, "filter", 2)
    assert holder(log, "filter", 2).used.likely == pytest.approx(8.0 / 15.99, rel=0.1)


def test_an_exchanged_vacuum_or_bin_remembers_which_of_the_shop_s_it_is(log: Session) -> None:
    state = line_state(log, 1)
    assert state.owned is not None
    canister = next(one for one in state.owned.vacuums if one.id == "canister")
    renamed = edit_rig(put_vacuum(state.rig, canister), {"vacuum.name": "The little one"})
    assert vacuum_key(renamed, state.owned) == "canister"
    tapered = next(one for one in state.owned.bins if one.id == "tapered-40")
    several = [(line, put_bin(line_state(log, line).rig, "sep", tapered)) for line in (1, 2)]
    shared = [one for one in holders_of(several, state.owned) if one.kind == "bin"]
    assert [(one.key, one.lines) for one in shared] == [("bin:tapered-40", (1, 2))]


def test_what_the_filter_really_lasted_moves_its_next_date(log: Session) -> None:
    def with_life(hours: float) -> float:
        entries = [Logged("replaced", ago(40), 2)]
        for n in range(5):
            entries.append(Logged("worked", ago(39.5 - 6 * n), 2, "Finishing sander", hours=hours))
            entries.append(Logged("tapped", ago(39 - 6 * n), 2, finding="due"))
        added = add_entries(log, entries, "Lives")
        found = holder(log, "filter").typical
        remove_entries(log, added, "Away")
        return found

    assert with_life(2.0) < 0.6 < 1.4 < with_life(10.0)


def test_the_last_life_is_told_in_the_hours_that_were_logged_against_the_model_at_that_work(log: Session) -> None:
    entries = [Logged("replaced", ago(9), 2), Logged("tapped", ago(5), 2, finding="due")]
    entries += [Logged("worked", ago(day), 2, "Finishing sander", hours=1.5) for day in (8, 7, 3)]
    add_entries(log, entries, "One life")
    told = holder(log, "filter")
    assert told.last_hours == pytest.approx(3.0)
    assert told.last_modelled == pytest.approx(5.67, rel=0.01)


@pytest.fixture
def shown(log: Session) -> Session:
    """The same, its lines shown as the log has them; the bench bin is some two thirds full."""
    show_lines_by(log, as_the_log_has_it(lambda: NOW))
    add_entries(log, [Logged("emptied", ago(3), 2), Logged("worked", ago(2), 2, "Bandsaw", hours=4.0)], "Worked")
    return log


def test_the_line_shows_the_estimate_and_stores_what_was_described(shown: Session) -> None:
    rig = line_state(shown, 2).rig
    assert fill(rig) == pytest.approx(height_of_share(rig, holder(shown, "bin").used.likely), abs=6e-4)
    store(shown, 2, edit_rig(rig, {"line.elements[0].length_m": 2.1}), "Longer")
    assert fill(stored_rig(shown, 2)) == 0.05
    assert fill(line_state(shown, 2).rig) == fill(rig)


def test_a_level_that_is_typed_is_an_entry_and_an_empty_bin_is_an_emptying(shown: Session) -> None:
    store(shown, 2, edit_rig(line_state(shown, 2).rig, {"line.elements[1].bin.fill_height_m": 0.11}), "Seen")
    newest = max(entries_of(shown, LogWanted()), key=lambda one: one.id or 0)
    assert (newest.kind, newest.level) == ("looked", 0.11)
    assert fill(line_state(shown, 2).rig) == pytest.approx(0.11, abs=2e-3)
    store(shown, 2, edit_rig(line_state(shown, 2).rig, {"line.elements[1].bin.fill_height_m": 0.0}), "Emptied")
    newest = max(entries_of(shown, LogWanted()), key=lambda one: one.id or 0)
    assert (newest.kind, newest.level) == ("emptied", None)  # nobody saw how full it was
    assert fill(line_state(shown, 2).rig) == 0.0
    assert fill(stored_rig(shown, 2)) == 0.05


def test_another_load_of_the_filter_switches_the_log_off_for_that_line(shown: Session) -> None:
    add_entries(shown, [Logged("replaced", ago(3), 2)], "New filter")
    rig = line_state(shown, 2).rig
    assert rig.vacuum.filter is not None
    assert rig.vacuum.filter.held_kg != 0.01
    store(shown, 2, edit_rig(rig, {"vacuum.filter.held_kg": 0.2}), "Weighed")
    assert not shows_by_log(shown, 2)
    assert stored_rig(shown, 2).vacuum.filter.held_kg == 0.2  # type: ignore[union-attr]


def test_what_the_log_says_is_never_learned_as_if_it_had_been_seen(shown: Session) -> None:
    before = holder(shown, "bin").story.ratios
    store(shown, 2, edit_rig(line_state(shown, 2).rig, {"line.elements[1].bin.fill_height_m": 0.0}), "Emptied")
    assert holder(shown, "bin").story.ratios == before


def test_a_filter_that_is_clean_by_the_log_is_not_tapped_by_every_edit(shown: Session) -> None:
    add_entries(shown, [Logged("replaced", ago(1 / 24), 2)], "New filter")
    rig = line_state(shown, 2).rig
    assert rig.vacuum.filter is not None
    assert rig.vacuum.filter.held_kg == 0.0
    count = len(entries_of(shown, LogWanted()))
    store(shown, 2, edit_rig(rig, {"line.elements[0].length_m": 2.3}), "Longer")
    assert len(entries_of(shown, LogWanted())) == count


def test_what_was_never_looked_at_is_one_first_look_for_each_line(log: Session) -> None:
    add_entries(log, [Logged("emptied", ago(200), 2), Logged("emptied", ago(200), 1)], "Long ago")
    firsts = [one for one in due_in(log, NOW) if one.what == FIRST_LOOK]
    assert {one.line for one in firsts} == {1, 2}
    assert all("joint" in one.pieces and not one.overdue for one in firsts)


def test_what_has_let_go_comes_first_until_it_is_mended(log: Session) -> None:
    add_entries(
        log,
        [Logged("renewed", ago(120), 2, "gasket"), Logged("inspected", ago(1), 2, "gasket", finding="let-go")],
        "Seal",
    )
    first = due_in(log, NOW)[0]
    assert (first.what, first.let_go, first.overdue) == ("gasket", True, True)
    assert first.lived == pytest.approx(119.0, abs=0.1)
    add_entries(log, [Logged("renewed", ago(0.5), 2, "gasket")], "New")
    assert not any(one.let_go for one in due_in(log, NOW))


def test_a_joint_made_anew_is_looked_at_after_an_hour_under_load(log: Session) -> None:
    add_entries(log, [Logged("emptied", ago(30), 2), Logged("renewed", ago(5), 2, "joint")], "Joint")
    add_entries(log, [Logged("worked", ago(20), 2, "Bandsaw", hours=4.0)], "Before")
    joint = next(one for one in due_in(log, NOW) if one.what == "joint")
    assert joint.first_hour
    assert joint.days.likely > 0.0
    add_entries(log, [Logged("worked", ago(1), 2, "Bandsaw", hours=1.5)], "After")
    assert next(one for one in due_in(log, NOW) if one.what == "joint").overdue


def test_the_demo_s_seal_shows_in_what_is_kept_and_is_mended(session: Session) -> None:
    (bench,) = [one for one in trends_in(session, NOW) if one.line == 2]
    assert bench.series[0].kind == KEPT
    assert bench.worst is not None
    assert bench.worst.found.word == "recovered"
    assert any(one.let_go for one in bench.happened)


def test_the_demo_s_money_is_what_was_logged(session: Session) -> None:
    found = money_today(session, NOW)
    told = sum(one.money or 0.0 for one in entries_of(session, LogWanted()))
    assert sum(one.booked for one in found.lines) == pytest.approx(told)
    assert found.without is not None
    assert found.without.low < found.without.likely < found.without.high
    assert found.without.likely > found.upkeep


def test_a_job_that_comes_once_fills_the_bin_so_often(session: Session) -> None:
    rig = stored_rig(session, 2)
    once = one_off_on(rig, "Floor sweep", 10.0, [])
    twice = one_off_on(rig, "Floor sweep", 20.0, [])
    assert once is not None
    assert twice is not None
    assert once.emptyings == pytest.approx(10.0 / 1.9677, rel=0.01)
    assert twice.emptyings == pytest.approx(2.0 * (once.emptyings or 0.0))
    assert one_off_on(rig, "Moon saw", 10.0, []) is None
