"""The order of work as a graph: what must be done before what, and why."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

from fenwick.core.arrays import one_value
from fenwick.core.making.given import Making

HOUR, DAY = 3600.0, 86400.0


@dataclass(frozen=True)
class Need:
    """Another step that comes before."""

    step: str
    because: str  #: key of the reason


@dataclass(frozen=True)
class WorkStep:
    """One step of the work."""

    id: str
    parts: tuple[str, ...]  #: ids of the parts it is about
    after: Mapping[str, str] = field(default_factory=dict)  #: ids of the steps before it: key of the reason
    share: float = 1.0  #: of the hands-on time, against the other steps [-]
    hands: float = 0.0  #: hands-on time [s]
    cure: float = 0.0  #: that it then waits, hands off [s]
    hold: str | None = None  #: key of what must be true before going on
    cautions: tuple[str, ...] = ()
    tools: tuple[str, ...] = ()
    glue: str | None = None  #: of parts that are glued to each other and sealed against nothing
    figures: Mapping[str, float] = field(default_factory=dict)
    last: str | None = None  #: key of what can be reached for the last time

    @property
    def needs(self) -> tuple[Need, ...]:
        """The steps before it."""
        return tuple(Need(step, because) for step, because in self.after.items())


@dataclass(frozen=True)
class Broken:
    """A need that an order does not keep."""

    step: str
    needs: str  #: the step that should come before
    because: str


def timed(steps: Sequence[WorkStep], hours: float) -> tuple[WorkStep, ...]:
    """The steps with the hands-on time of the whole shared out among them.

    Parameters
    ----------
    hours : of the whole [h]
    """
    whole = sum(step.share for step in steps)
    return tuple(replace(step, hands=hours * HOUR * step.share / whole) for step in steps)


def without_missing(steps: Iterable[WorkStep], there: Iterable[str]) -> tuple[WorkStep, ...]:
    """The steps that have a part left to work on; needs of those that are gone pass to what they needed.

    Parameters
    ----------
    there : ids of the parts that are made or mounted
    """
    listed, found = {step.id: step for step in steps}, set(there)
    gone = {name for name, step in listed.items() if step.parts and not found.intersection(step.parts)}
    return tuple(
        replace(
            step,
            after=_passed_on(step.after, listed, gone),
            parts=tuple(part for part in step.parts if part in found),
        )
        for name, step in listed.items()
        if name not in gone
    )


def _passed_on(after: Mapping[str, str], listed: Mapping[str, WorkStep], gone: set[str]) -> dict[str, str]:
    found: dict[str, str] = {}
    for name, because in after.items():
        if name in gone:
            found |= _passed_on(listed[name].after, listed, gone)
        elif name in listed:
            found[name] = because
    return found


def broken_by(order: Sequence[str], steps: Sequence[WorkStep]) -> tuple[Broken, ...]:
    """Every need that an order of the steps' ids does not keep; steps that it does not name come last."""
    place = {name: i for i, name in enumerate(order)}
    last = len(order)
    found = []
    for step in steps:
        for need in step.needs:
            if place.get(need.step, last) > place.get(step.id, last):
                found.append(Broken(step.id, need.step, need.because))
    return tuple(found)


def holds_before(step: WorkStep, steps: Sequence[WorkStep], done: Iterable[str]) -> tuple[str, ...]:
    """Ids of the hold points anywhere on the way to a step that nobody has passed, in the order of the steps.

    Parameters
    ----------
    done : ids of the steps that are done
    """
    listed, passed = {one.id: one for one in steps}, set(done)
    waiting, seen = list(step.after), set[str]()
    while waiting:
        name = waiting.pop()
        if name not in seen and name in listed:
            seen.add(name)
            waiting += listed[name].after
    return tuple(one.id for one in steps if one.id in seen and one.hold is not None and one.id not in passed)


def ordered(steps: Sequence[WorkStep]) -> tuple[WorkStep, ...]:
    """The steps so that every need is kept, otherwise as they were listed.

    Raises
    ------
    ValueError
        When the needs go round in a circle.
    """
    left, found, done = list(steps), [], set[str]()
    while left:
        ready = next((step for step in left if all(need.step in done for need in step.needs)), None)
        if ready is None:
            raise ValueError(f"the needs go round in a circle: {', '.join(step.id for step in left)}")
        left.remove(ready)
        found.append(ready)
        done.add(ready.id)
    return tuple(found)


def cure_time(sealant: str, making: Making) -> float:
    """How long a sealant or glue waits before it is loaded [s]."""
    if sealant in ("silicone", "hybrid"):
        deep = making.rule("bead") * 1e3
        return deep / one_value(making.rules[f"cure.{sealant}"]) * DAY
    key = {"pva": "pva", "cement": "cement", "construction": "epoxy-slow"}.get(sealant, sealant)
    return 0.0 if sealant == "hot-melt" else one_value(making.rules[f"cure.{key}"]) * HOUR
