"""What can be done at a tool's hood, and gates where branches have none."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from fenwick.core.arrays import one_value
from fenwick.core.search.way.options import WayOption
from fenwick.rig import edit_rig
from fenwick.rig.edits.branches import gate_branch
from fenwick.rig.edits.hood_options import HoodChange, hood_changes
from fenwick.rig.format.elements import BranchPart
from fenwick.rig.format.places import path_of
from fenwick.services.moves.move import Move, MoveGround, said
from fenwick.units.sentence import inside
from fenwick.wording.hood import option_words
from fenwick.wording.say import Voice

#: what is done at a hood besides the single changes: rule of its hours, of its price
TAKES = {"plate": ("way.hours-hood", None), "box": ("way.hours-box", "price.box"), "close-in": ("way.hours-hood", None)}
#: in a box no port is moved nearer: what may not be done together has one slot
SLOTS = {"plate": "plate", "box": "nearer", "close-in": "nearer"}


def port_moves(ground: MoveGround) -> Iterator[Move]:
    """At every port that is worked at; a gate at every branch that has none beside others."""
    for port in ground.ports:
        branch = ground.rig.line.ways[port][0]
        for change in hood_changes(branch, ground.line.rules):
            thrown = branch.port is not None and branch.port.hood is not None and branch.port.hood.thrown_share > 0.0
            if change.id in TAKES and (thrown or change.id != "plate"):  # a board turns back what is thrown
                yield _at_hood(ground, branch, change)
    if len(ground.rig.line.ways) > 1:
        yield from _gates(ground)


def _at_hood(ground: MoveGround, branch: BranchPart, change: HoodChange) -> Move:
    assert branch.port is not None
    key = change.id
    name = branch.port.name
    hours, price = TAKES[key]
    root = f"{path_of(ground.rig.model_dump(mode='json'), branch.id)}.port"
    option = WayOption(
        f"{key}~{branch.id}", branch.id, f"{SLOTS[key]}~{branch.id}",
        0.0 if price is None else one_value(ground.rules[price]), one_value(ground.rules[hours]),
    )  # fmt: skip

    def tell(voice: Voice) -> str:
        return f"{name}: {inside(option_words(key, change.value, voice)[0])}"

    edits = {f"{root}.{below}": new for below, new in change.keys.items()}
    return Move(option, tell, partial(edit_rig, changes=edits))


def _gates(ground: MoveGround) -> Iterator[Move]:
    rules = ground.rules
    cost, hours = one_value(rules["price.gate"]), one_value(rules["way.hours-gate"])
    for way in ground.rig.line.ways:
        if all(branch.gate is None for branch in way):
            name = way[0].id
            option = WayOption(f"gate~{name}", name, f"gate~{name}", cost, hours, wide=True)
            words = f"A gate at {ground.voice.name(name)}"
            yield Move(option, said(words), partial(gate_branch, branch=name))
