"""What a single change is good for, named before it: the figure that is amiss, where, and by how much."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import OK
from fenwick.core.judging.checks import carrying_check
from fenwick.core.line.line import Line
from fenwick.core.search.changes import Candidate
from fenwick.core.search.whatif import ChangeOutcome
from fenwick.units.sentence import inside
from fenwick.wording.rows import times
from fenwick.wording.say import Voice

#: figures in the order in which one looks for what a change mends
LOOKED_AT = ("speed", "folding", "kept", "caught", "flow")


@dataclass(frozen=True)
class PortFound:
    """A line as it stands, at the port that advice is for; a single variant."""

    line: Line
    found: Assessment
    port: int  #: its place among the leaves
    voice: Voice


def cause_words(outcome: ChangeOutcome, at: PortFound) -> str:
    """What is amiss that a change mends; empty where it only makes good better."""
    figure = next((one for one in LOOKED_AT if one in outcome.acting and outcome.helps(one)), None)
    if figure is None:
        figure = next((move.figure for move in outcome.moves if move.gains), None)
    return CAUSES[figure](outcome.candidate, at) if figure in CAUSES else ""


def amiss_words(figure: str, at: PortFound) -> str:
    """What is amiss with a figure that no single change helps; empty where nothing more can be said of it.

    Parameters
    ----------
    figure : flow, caught, speed, kept or folding
    """
    return CAUSES[figure](None, at)


def _slow(_: Candidate | None, at: PortFound) -> str:
    """Where the dust lies."""
    way = at.line.leaves[at.port].parts | {part.id for part in at.line.trunk}
    slow = carrying_check(at.found.carrying, way) if at.found.carrying else []
    if not slow or int(slow[0].level[0]) == OK:
        return ""
    return f"Dust lies in {inside(at.voice.name(slow[0].part))}: {_speed(slow[0].value, at)}"


def _not_caught(_: Candidate | None, at: PortFound) -> str:
    """Where chips fall out of the air in a port that is wide for so little of it, else how little is caught."""
    leaf, dust = at.line.leaves[at.port], at.line.dust
    speed = at.found.point.port_velocity[at.port]
    if dust is not None and one_value(speed) < dust.conveying[0] and dust.longest_chip is not None:
        bore = at.voice.figure(one_value(leaf.port.bore), "bore")
        return f"Chips lie down in the {bore} port: {_speed(speed, at)}"
    own = next((one for one in at.found.captures if one.id == leaf.id), None)
    if own is None:
        return ""
    return f"{at.voice.figure(1.0 - one_value(own.tool_total), 'share')} gets past the port"


def _not_kept(change: Candidate | None, at: PortFound) -> str:
    """What stirs the bin up where that is what the change ends, else how much goes on to the filter."""
    part = at.voice.name(at.line.separators[0].id) if at.line.separators else "the separator"
    for check_id, kinds, words in STIRRED:
        found = next((one for one in at.found.checks if one.id == check_id), None)
        fits = change is None or change.kind in kinds
        if found is not None and fits and int(found.level[0]) > OK:
            return words.format(value=at.voice.figure(one_value(found.value), found.quantity))
    if at.found.kept is None:
        return ""
    past = at.voice.figure(1.0 - one_value(at.found.kept), "share")
    return f"{past} gets past {inside(part)}"


#: checks that say why a bin gives back, the kinds of change that end it, and how it is said
STIRRED = (
    ("bin-leak", ("seal-bin",), "{value} of the air leaks in below"),
    ("bin-full", ("empty",), "Only {value} free over the dust"),
)


def _folds(_: Candidate | None, at: PortFound) -> str:
    if at.found.collapse is None:
        return ""
    return f"A blocked hose folds the bin: {times(one_value(at.found.collapse.ratio))}"


IN_VACUUM = {"vacuum:filter": "The filter's cake", "vacuum:bag": "The bag"}


def _short_of_air(change: Candidate | None, at: PortFound) -> str:
    """What the part that is changed costs."""
    if change is None:
        return ""
    stations = at.found.point.stations
    name = {"clean": "vacuum:filter", "clean-bag": "vacuum:bag"}.get(change.kind, change.part)
    if name not in stations.ids:
        return ""
    loss, made = stations.loss[stations.index(name)], at.found.point.suction
    if not np.all(np.isfinite(loss)) or one_value(loss) <= 0.0:
        return ""
    called = IN_VACUUM.get(name) or at.voice.name(name)
    whole = at.voice.figure(one_value(made), "suction")
    return f"{called} takes {at.voice.figure(one_value(loss), 'suction', unit=False)} of {whole}"


def _speed(values: object, at: PortFound) -> str:
    return at.voice.figure(float(np.ravel(np.asarray(values))[0]), "speed")


CAUSES = {
    "speed": _slow,
    "folding": _folds,
    "kept": _not_kept,
    "caught": _not_caught,
    "in_bin": _not_caught,
    "flow": _short_of_air,
}
