"""What is taken away is only marked: it is in no list, and comes back as it was, in its place."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from sqlmodel import Session

from fenwick.core.bench.trials.plan import MASSES, Plan
from fenwick.core.tuning.readings import SUCTION, Reading
from fenwick.data.air_logs import begin_log, logs_of, remove_log
from fenwick.data.devices import add_device, devices_of, remove_device
from fenwick.data.lines import NotFoundError
from fenwick.data.readings import readings_of, take, take_away
from fenwick.data.trials import add_trial, remove_trial, trials_of

Listed = Callable[[Session], list[int]]
ADD: dict[str, Callable[[Session], int]] = {
    "log": lambda session: begin_log(session, 1, "A log"),
    "device": lambda session: add_device(session, "Scale", "scale", "COM3"),
    "test": lambda session: add_trial(session, 1, Plan("separation", MASSES), "A test"),
    "reading": lambda session: take(session, 1, Reading(SUCTION, 6000.0, 100.0, "drum-sander", "link")),
}
LISTS: dict[str, Listed] = {
    "log": lambda session: [one.id for one in logs_of(session, 1)],
    "device": lambda session: [one.id for one in devices_of(session)],
    "test": lambda session: [one.id for one in trials_of(session, 1)],
    "reading": lambda session: [one.id for one in readings_of(session, 1)],
}


def move(session: Session, kind: str, one: int, *, back: bool) -> None:
    """Take it away, or bring it back."""
    match kind:
        case "log":
            remove_log(session, one, back=back)
        case "device":
            remove_device(session, one, back=back)
        case "test":
            remove_trial(session, one, back=back)
        case "reading":
            assert take_away(session, 1, one, back=back)


@pytest.mark.parametrize("kind", ADD)
def test_it_leaves_the_list_and_comes_back_in_its_place(session: Session, kind: str) -> None:
    first, second = ADD[kind](session), ADD[kind](session)
    before = LISTS[kind](session)
    assert {first, second} <= set(before)
    move(session, kind, first, back=False)
    assert LISTS[kind](session) == [one for one in before if one != first]
    move(session, kind, first, back=True)
    assert LISTS[kind](session) == before


@pytest.mark.parametrize("kind", ["log", "device", "test"])
def test_what_never_was_cannot_be_taken_away(session: Session, kind: str) -> None:
    with pytest.raises(NotFoundError, match=r"no such|There is no"):
        move(session, kind, 9999, back=False)
    assert not take_away(session, 1, 9999)
