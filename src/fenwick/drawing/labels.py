"""What each part is called and how it does, put where nothing is in the way."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.judging.assess import Assessment
from fenwick.core.line.transport import CARRYING_WORDS
from fenwick.drawing.canvas import Canvas
from fenwick.drawing.run import JOINS
from fenwick.drawing.shapes import Box, DrawnPart, Label
from fenwick.rig import Rig
from fenwick.rig.format.elements import HosePart, LeakPart
from fenwick.rig.format.separator import SeparatorPart, WetStagePart
from fenwick.units.sentence import both_ends
from fenwick.wording.say import Voice

SWEEPS = 3
LONGEST_NAME = 20  #: in a label [characters]
CROWDED = 420.0  #: area over which a label may touch something [px²]
OUTSIDE = 1e5  #: cost of leaving the picture [px²]


def place_labels(
    parts: tuple[DrawnPart, ...], obstacles: list[Box], rig: Rig, found: Assessment, voice: Voice, canvas: Canvas
) -> tuple[Label, ...]:
    """A label for every part that has something to say; each takes its best free place.

    Where a run is too crowded for words, its labels come back as `keyed`: the drawing shows a number instead.
    """
    choices = [choice for choice in (_candidates(part, rig, found, voice) for part in parts) if choice]
    fixed = [_fixed_clash(choice, obstacles, canvas) for choice in choices]
    placed = [choice[int(np.argmin(clash))] for choice, clash in zip(choices, fixed, strict=True)]
    for _ in range(SWEEPS):  # each label takes its best place among the others', until they have settled
        for i, choice in enumerate(choices):
            others = [label.box for j, label in enumerate(placed) if j != i]
            placed[i] = choice[int(np.argmin(fixed[i] + _shared_areas(choice, others)))]
    return _keyed_where_crowded(placed, obstacles)


def _keyed_where_crowded(placed: list[Label], obstacles: list[Box]) -> tuple[Label, ...]:
    """Labels one by one; what would cover much of the drawing or of a label before it becomes a number."""
    kept: list[Label] = []
    for label in placed:
        taken = obstacles + [other.box for other in kept if not other.keyed]
        keyed = float(_shared_areas([label], taken)[0]) > CROWDED
        if not (keyed and label.part.startswith(JOINS)):  # a junction has no number to be found by
            kept.append(replace(label, keyed=keyed))
    return tuple(kept)


def _fixed_clash(choice: list[Label], obstacles: list[Box], canvas: Canvas) -> Array:
    """How much of a label in each place would lie on the drawing [px²]; leaving the picture is worse than anything."""
    inside = [label.box.within(canvas.width, canvas.height - 14) for label in choice]
    return np.where(inside, 0.0, OUTSIDE) + _shared_areas(choice, obstacles)


def _shared_areas(choice: list[Label], boxes: list[Box]) -> Array:
    """Area that each place of a label shares with some boxes, with a little air around it [px²]."""
    if not boxes:
        return np.zeros(len(choice))
    mine = np.array(
        [[b.left - 3, b.top - 1, b.left + b.width + 3, b.top + b.height + 1] for b in (c.box for c in choice)]
    )
    theirs = np.array([[b.left, b.top, b.left + b.width, b.top + b.height] for b in boxes])
    low = np.maximum(mine[:, None, :2], theirs[None, :, :2])
    high = np.minimum(mine[:, None, 2:], theirs[None, :, 2:])
    return np.asarray(np.prod(np.maximum(high - low, 0.0), axis=2).sum(axis=1))


def _candidates(part: DrawnPart, rig: Rig, found: Assessment, voice: Voice) -> list[Label]:
    """A part's label in every place it could take, best first; none for a part that says nothing."""
    words = part_words(part, rig, found, voice)
    if words is None:
        return []
    level = part.level if words.names_state else ""
    return [replace(place, name=words.name, detail=words.detail, level=level, part=part.id) for place in _places(part)]


def _at(x: float, y: float, anchor: str = "middle") -> Label:
    return Label("", "", "", x, y, anchor)


def _places(part: DrawnPart) -> list[Label]:
    """Candidate places, best first."""
    further = [_at(x, y, "start") for x, y in part.aside]
    return [*_usual_places(part), *further]


def _usual_places(part: DrawnPart) -> list[Label]:
    x, y = part.anchor
    if part.kind in ("tool", "vacuum"):
        return [_at(x, y - 6), _at(x, y - 22), _at(x, y - 40)]
    if part.kind == "separator":
        return [_at(x, y + dy, "end") for dy in (0, -14, -28, 14)] + [_at(x + 30, y - 20, "start")]
    half = part.bore / 2
    shifts = (0, -14, 14, -28, 28, -42, 42, -60, 60)
    below = [_at(x + dx, y + half + 16 + dy) for dy in (0, 8) for dx in shifts]
    above = [_at(x + dx, y - half - 21 - dy) for dy in (3, 0, 12, 24, 40) for dx in shifts]
    aside = [_at(x + half + 12, y, "start"), _at(x - half - 12, y, "end")]
    aside += [_at(x + half + 34, y + dy, "start") for dy in (-18, -6, 10)]
    return below + above + aside if part.turn == 0 or abs(part.turn) < 4 else above + aside + below


@dataclass(frozen=True)
class PartWords:
    """What a part is called and how it does."""

    name: str
    detail: str
    names_state: bool  #: whether the detail names the state


def part_words(part: DrawnPart, rig: Rig, found: Assessment, voice: Voice) -> PartWords | None:
    """The words of a part; None for parts that stay unlabelled."""
    words = _words(part, rig, found, voice)
    return None if words is None else PartWords(*words)


def _words(part: DrawnPart, rig: Rig, found: Assessment, voice: Voice) -> tuple[str, str, bool] | None:
    stations = found.point.stations
    if part.kind == "tool":
        port = next(branch.port for _, branch in rig.line.walk() if branch.id == part.id)
        assert port is not None
        return shortened(part.title), f"{voice.figure(port.bore_m, 'bore')} port", False
    if part.kind == "vacuum":
        pulls, sealed = found.point.suction[0], found.point.sealed_suction[0]
        pull = f"{voice.figure(pulls, 'suction', unit=False)} of {voice.figure(sealed, 'suction')}"
        return shortened(part.title), *_with_fault(pull, part.id, found)
    if part.kind == "junction":
        return _joining(part.id.removeprefix(JOINS), rig)
    element = _element(rig, part.id)
    if isinstance(element, HosePart):
        speed = voice.figure(stations.velocity[stations.index(part.id), 0], "speed")
        size = f"{voice.figure(element.bore_m, 'bore')} × {voice.figure(element.length_m, 'length')}"
        word = carrying_word(part.id, found)
        return f"{shortened(part.title)} · {size}", f"{speed} · {word}" if word else speed, bool(word)
    if isinstance(element, SeparatorPart | WetStagePart):
        stage = next(s for s in found.separations if s.id == part.id)
        inlet = f"{'throat' if stage.wet else 'inlet'} {voice.figure(stage.inlet_velocity[0], 'speed')}"
        cut = f" · cut {voice.figure(stage.grades.cut_size[0], 'grain')}" if stage.grades else ""
        return shortened(part.title), *_with_fault(inlet + cut, part.id, found)
    if isinstance(element, LeakPart):
        return part.title, f"gap {voice.figure(element.area_m2, 'gap')}", False
    return None


def _joining(branch: str, rig: Rig) -> tuple[str, str, bool]:
    """What joins a branch at its junction."""
    groups = [rig.line.branches, *(inner.branches for _, inner in rig.line.walk())]
    group = next(group for group in groups if any(member.id == branch for member in group))
    others = [way[0].port.name for member in group if member.id != branch for way in member.ways if way[0].port]
    more = f" and {len(others) - 1} more" if len(others) > 1 else ""
    return f"{shortened(others[0])}{more}", "joins here", False


FAULT_WORDS = {
    "snags": "snags",
    "cord-crossed": "cord crossed",
    "bin-collapse": "bin folds",
    "bin-leak": "leaks below",
    "caught": "catches little",
    "kept": "keeps little",
    "bin-full": "bin full",
    "slot-bridging": "slot may block",
    "slot-narrow": "slot too narrow",
    "elbow-clear": "elbow too close",
    "tube-in-cone": "tube too wide",
    "bed": "bed",
    "swapped-hoses": "hoses swapped",
    "vortex-tail": "vortex reaches the bin",
    "carry-over": "takes water along",
    "wet-overfull": "too much water",
    "wet-lean": "may not lean",
    "bridging": "chips bridge",
    "fan-believable": "label doubtful",
}


def _with_fault(detail: str, part: str, found: Assessment) -> tuple[str, bool]:
    """A detail with the word for the part's worst fault, and whether there is one."""
    faults = [check for check in found.checks if check.part == part and int(check.level[0]) > 0]
    if not faults:
        return detail, False
    return f"{detail} · {FAULT_WORDS[max(faults, key=lambda check: int(check.level[0])).id]}", True


def shortened(name: str) -> str:
    """A name that fits a label."""
    return both_ends(name, LONGEST_NAME)


def carrying_word(name: str, found: Assessment) -> str:
    """The carrying word of a dust-laden hose; none for cleaned air."""
    if found.carrying is None or name not in found.carrying.ids:
        return ""
    i = found.carrying.ids.index(name)
    return CARRYING_WORDS[int(found.carrying.carrying[i, 0])] if found.carrying.laden[i] else ""


def _element(rig: Rig, name: str) -> object | None:
    every = [*rig.line.elements, *(e for _, branch in rig.line.walk() for e in branch.elements)]
    return next((element for element in every if element.id == name), None)
