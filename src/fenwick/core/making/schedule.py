"""When each step is done with the hours that one has, and when the last cure ends."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwick.core.making.steps import WorkStep

SKIN = 1800.0  #: after which the next bead is laid beside one that is still soft [s]
#: reasons for which a step need not wait until the one before it has cured
BESIDE = ("inner-seam-last", "roof-holds-round", "unit-first")
NEVER = 366.0 * 86400.0  #: further ahead nobody plans [s]


@dataclass(frozen=True)
class TimeSlot:
    """A step on the clock; from the beginning of the plan [s]."""

    step: str
    start: float
    end: float  #: of the work
    cured: float  #: when it may be loaded


@dataclass(frozen=True)
class Window:
    """Hours that one has; from the beginning of the plan [s]."""

    start: float
    end: float


def schedule(
    steps: Sequence[WorkStep], windows: Sequence[Window], done: frozenset[str] = frozenset()
) -> tuple[TimeSlot, ...]:
    """Each step as early as it can be: one pair of hands, in the order listed, another step while something cures.

    Parameters
    ----------
    steps : in the order they are to be done
    windows : one after the other; the last one is used again and again, a day later each time
    done : ids of the steps that are done
    """
    clock = _Clock(windows)
    slots: dict[str, TimeSlot] = {}
    left = [step for step in steps if step.id not in done]
    while left:
        ready = [(max(clock.now, _from(step, slots)), i) for i, step in enumerate(left) if _may(step, slots, done)]
        if not ready:  # an order that keeps no need; it is said elsewhere
            ready = [(clock.now, 0)]
        at, i = min(ready, key=lambda one: (one[0] > clock.now, one[0] if one[0] > clock.now else 0.0, one[1]))
        step = left.pop(i)
        start, end = clock.work(at, step.hands)
        slots[step.id] = TimeSlot(step.id, start, end, end + step.cure)
    return tuple(slots.values())


def _may(step: WorkStep, slots: dict[str, TimeSlot], done: frozenset[str]) -> bool:
    return all(name in slots or name in done for name in step.after)


def _from(step: WorkStep, slots: dict[str, TimeSlot]) -> float:
    """When everything before a step is done and hard enough."""
    times = [0.0]
    for name, because in step.after.items():
        if name in slots:
            slot = slots[name]
            soft = slot.end + min(SKIN, slot.cured - slot.end)
            times.append(soft if because in BESIDE else slot.cured)
    if step.id == "first-run":  # what is still soft leaks
        times += [slot.cured for slot in slots.values()]
    return max(times)


class _Clock:
    """One pair of hands within the hours that one has."""

    def __init__(self, windows: Sequence[Window]) -> None:
        self._windows = list(windows) or [Window(0.0, NEVER)]
        self.now = self._windows[0].start

    def work(self, at: float, hands: float) -> tuple[float, float]:
        """Do some work, no earlier than `at`; it goes on in the next window where one is over."""
        start: float | None = None
        now, left = max(at, self.now), hands
        while left > 1e-9 or start is None:
            window = self._window(now)
            now = max(now, window.start)
            start = now if start is None else start
            took = min(left, window.end - now)
            left, now = left - took, now + took
            if left > 1e-9:
                now = max(now, window.end) + 1e-6
        self.now = now
        return start, now

    def _window(self, at: float) -> Window:
        """The one that holds a time, or the next; the last one comes again every day."""
        for window in self._windows:
            if at < window.end:
                return window
        last = self._windows[-1]
        days = int((at - last.end) // 86400.0) + 1
        return Window(last.start + days * 86400.0, last.end + days * 86400.0)
