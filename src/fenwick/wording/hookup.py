"""Which hose goes on which port, step by step, and where to mark the bin."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import takewhile

from fenwick.core.arrays import one_value
from fenwick.core.components.elements import Element, Hose, Leak, Port, Reducer
from fenwick.core.components.separator import Separator
from fenwick.core.components.wet import WetStage
from fenwick.core.dust.cakes import settled_point
from fenwick.core.dust.separation import fill_mark
from fenwick.core.judging.passage import clearing_time, run_on_seconds
from fenwick.core.line.line import Line
from fenwick.units.sentence import inside
from fenwick.wording.say import Voice

MOST_RUN_ON = 600.0  #: a line that takes longer never clears [s]
NEAR_ENOUGH = 0.0015  #: bores closer than this go on one another with a wrap of tape [m]


@dataclass(frozen=True)
class HookUp:
    """The card to take to the line."""

    steps: tuple[str, ...]
    mark: str  #: where the bin is marked; empty without a separator
    caution: str  #: what goes wrong when hoses are swapped; empty without a separator
    run_on: str = ""  #: how long the vacuum runs on after the tool; empty where nothing flows


@dataclass(frozen=True)
class _Stop:
    """Something a hose ends on."""

    words: str
    bore: float | None


def hook_up(line: Line, port: int, voice: Voice) -> HookUp:
    """The card for one tool port, by its place among the leaves."""
    leaf = line.leaves[port]
    parts = [part for branch in leaf.way for part in branch.elements] + list(line.trunk)
    parts = [part for part in parts if not isinstance(part, Leak)]
    steps = []
    for i, part in enumerate(parts):
        if isinstance(part, Hose):
            before = _before(parts, i, leaf.port, voice)
            after = _after(parts, i, line, voice)
            bore = voice.figure(one_value(part.bore), "bore")
            steps.append(
                f"{voice.name(part.id)} ({bore}): from {_fitted(before, part, voice)} to {_fitted(after, part, voice)}."
            )
    discs = line.separators
    return HookUp(
        steps=tuple(steps),
        mark=_mark(discs[0], line, voice) if discs else "",
        run_on=_run_on(line, port),
        caution="Tool to the side port, vacuum to the centre port: swapped, the dust goes straight on."
        if discs
        else "",
    )


def _before(parts: list[Element], i: int, port: Port, voice: Voice) -> _Stop:
    """What a hose begins on, adapters passed over and named."""
    adapters = list(takewhile(lambda part: isinstance(part, Reducer), reversed(parts[:i])))
    at = i - len(adapters) - 1
    if at < 0:
        stop = _Stop(f"the port of the {inside(port.name)}", one_value(port.bore))
    else:
        stop = _stop(parts[at], voice, leaving=True)
    return _by_way_of(stop, adapters[::-1], voice)


def _after(parts: list[Element], i: int, line: Line, voice: Voice) -> _Stop:
    """What a hose ends on, adapters passed over and named."""
    adapters = list(takewhile(lambda part: isinstance(part, Reducer), parts[i + 1 :]))
    at = i + len(adapters) + 1
    if at == len(parts):
        bore = line.vacuum.inlet_bore
        stop = _Stop("the vacuum's inlet", None if bore is None else one_value(bore))
    else:
        stop = _stop(parts[at], voice, leaving=False)
    return _by_way_of(stop, adapters, voice)


def _by_way_of(stop: _Stop, adapters: list[Element], voice: Voice) -> _Stop:
    if not adapters:
        return stop
    return _Stop(f"{stop.words} by way of the {' and the '.join(voice.name(part.id) for part in adapters)}", None)


def _stop(part: Element, voice: Voice, *, leaving: bool) -> _Stop:
    name = voice.name(part.id)
    match part:
        case WetStage():
            return _Stop(f"the {inside(name)}", one_value(part.throat_diameter))
        case Separator():
            side, bore = ("centre", part.outlet_bore) if leaving else ("side", part.hose_bore)
            return _Stop(f"the {side} port of the {inside(name)}", one_value(bore))
        case Leak() | Reducer():
            return _Stop(name, None)
        case _:
            return _Stop(name, one_value(part.bore))


def _fitted(stop: _Stop, hose: Hose, voice: Voice) -> str:
    bore = one_value(hose.bore)
    if stop.bore is None or abs(stop.bore - bore) <= NEAR_ENOUGH:
        return stop.words
    return f"{stop.words} (adapter to {voice.figure(stop.bore, 'bore')})"


def _run_on(line: Line, port: int) -> str:
    seconds = float(clearing_time(line, settled_point(line), port)[0])
    if not seconds < MOST_RUN_ON:
        return ""
    return (
        f"Let the vacuum run on {run_on_seconds(seconds):.0f} s after the tool: the last dust is in the separator then."
    )


def _mark(stage: Separator, line: Line, voice: Voice) -> str:
    height, volume = fill_mark(stage, line.rules)
    if height <= 0.0:
        return "This bin is too shallow for its width: the air stirs up whatever lies in it."
    at, below = voice.figure(height, "bore"), voice.figure(volume, "volume")
    return f"Mark the bin {at} above its floor and empty it by that line: {below} lie below it."
