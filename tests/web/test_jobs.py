"""Jobs: their last state is kept, errors are said, stopping is heard, the oldest are forgotten."""

import threading
import time
from collections.abc import Callable, Iterator

from fenwick.web.kit.jobs import FORGET_AFTER, GONE_AFTER, MOST_JOBS, BackgroundJob, Jobs


def until_over(job: BackgroundJob) -> BackgroundJob:
    """Wait for it."""
    for _ in range(400):
        if job.over:
            return job
        time.sleep(0.005)
    raise AssertionError("the job does not end")


def counting(_stop: Callable[[], bool]) -> Iterator[int]:
    yield from range(5)


def test_a_job_keeps_what_it_yielded_last() -> None:
    jobs = Jobs()
    job = until_over(jobs.start("me", counting))
    assert (job.state, job.error, job.owner) == (4, "", "me")
    assert jobs.get(job.id) is job
    assert jobs.get("nobody") is None


def test_an_error_ends_it_with_a_sentence() -> None:
    def failing(_stop: Callable[[], bool]) -> Iterator[int]:
        yield 1
        raise ValueError("the hose is blocked")

    job = until_over(Jobs().start(None, failing))
    assert (job.state, job.error) == (1, "the hose is blocked")


def test_stopping_is_heard_and_the_work_may_still_hand_over() -> None:
    begun = threading.Event()

    def patient(stop: Callable[[], bool]) -> Iterator[str]:
        yield "looking"
        begun.set()
        while not stop():
            time.sleep(0.002)
        yield "what there is"

    job = Jobs().start(None, patient)
    begun.wait(2.0)
    assert not job.over
    job.stopping.set()
    assert until_over(job).state == "what there is"


def test_only_so_many_are_kept_and_old_ones_go_first() -> None:
    jobs = Jobs()
    made = [jobs.start(i, counting) for i in range(MOST_JOBS + 3)]
    assert jobs.get(made[0].id) is None
    assert made[0].stopping.is_set()
    assert jobs.get(made[-1].id) is made[-1]
    made[-1].since -= FORGET_AFTER + 1.0
    jobs.start("one more", counting)
    assert jobs.get(made[-1].id) is None


def holding(begun: threading.Event) -> Callable[[Callable[[], bool]], Iterator[str]]:
    """Work that goes on until it is told to stop."""

    def work(stop: Callable[[], bool]) -> Iterator[str]:
        begun.set()
        while not stop():
            time.sleep(0.002)
        yield "stopped"

    return work


def test_two_go_on_at_once_and_the_others_wait_for_their_turn() -> None:
    jobs, begun = Jobs(), [threading.Event() for _ in range(3)]
    made = [jobs.start(None, holding(one), f"browser {i}") for i, one in enumerate(begun)]
    assert begun[0].wait(2.0)
    assert begun[1].wait(2.0)
    assert made[2].waiting
    assert not begun[2].wait(0.3)
    made[0].stopping.set()
    assert begun[2].wait(2.0)
    assert not made[2].waiting
    for one in made:
        one.stopping.set()
        until_over(one)


def test_a_browser_has_one_at_a_time() -> None:
    jobs, begun = Jobs(), [threading.Event() for _ in range(3)]
    first = jobs.start(None, holding(begun[0]), "mine")
    other = jobs.start(None, holding(begun[1]), "yours")
    assert begun[0].wait(2.0)
    second = jobs.start(None, holding(begun[2]), "mine")
    assert until_over(first).state == "stopped"
    assert begun[2].wait(2.0)
    assert not other.stopping.is_set()
    for one in (other, second):
        one.stopping.set()
        until_over(one)


def test_one_whose_page_has_gone_is_stopped_also_while_it_waits() -> None:
    jobs, begun = Jobs(), [threading.Event() for _ in range(3)]
    made = [jobs.start(None, holding(one), f"browser {i}") for i, one in enumerate(begun)]
    assert begun[1].wait(2.0)
    for one in (made[2], made[0]):
        one.asked -= GONE_AFTER + 1.0
        until_over(one)
    assert not begun[2].is_set()
    assert jobs.get(made[1].id) is made[1]
    made[1].stopping.set()
    until_over(made[1])


def test_a_page_that_asks_keeps_it_going() -> None:
    jobs, begun = Jobs(), threading.Event()
    job = jobs.start(None, holding(begun))
    job.asked -= GONE_AFTER - 1.0
    jobs.get(job.id)
    assert not job.stops()
    job.stopping.set()
    until_over(job)
