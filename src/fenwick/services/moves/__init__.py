"""Everything that a way may be made of, for one line in its shop."""

from __future__ import annotations

from collections.abc import Sequence

from fenwick.rig import Rig
from fenwick.services.moves.at_ports import port_moves
from fenwick.services.moves.hoses import hose_moves
from fenwick.services.moves.move import Move, MoveGround, as_made, with_moves
from fenwick.services.moves.singles import single_moves
from fenwick.services.moves.stages import stage_moves
from fenwick.shop import ShopFile

__all__ = ["Move", "as_made", "moves_for", "with_moves"]


def moves_for(rig: Rig, shop: ShopFile | None, ports: Sequence[int]) -> tuple[Move, ...]:
    """Every move at some ports, what makes the line anew first.

    Parameters
    ----------
    ports : places among the leaves [-]
    """
    ground = MoveGround.of(rig, shop, ports)
    found = [*stage_moves(ground), *port_moves(ground), *hose_moves(ground), *single_moves(ground)]
    return tuple(sorted(found, key=lambda move: not move.option.apart))
