"""What of the dust made at each tool port ends in the bins."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.dust.capture import Capture
from fenwick.core.dust.caught import Arriving, arriving_by_port
from fenwick.core.dust.fate import Fate
from fenwick.core.line.line import Line


def in_bin_by_port(
    line: Line, captures: tuple[Capture, ...], arriving: Arriving | None, found: Fate | None
) -> dict[str, Array]:
    """By the id of each open port, of the dust made at its tool [-], shape (n,); empty where that is not known.

    A grain does not know which port it came by: of each class, the bins keep the same share of every port's.

    Parameters
    ----------
    captures : at the open ports
    arriving : all of them together
    found : where all of it ends
    """
    if found is None or arriving is None or arriving.together is None:
        return {}
    all_of_it = arriving.together.caught
    kept = np.divide(found.by_grains["bin"], all_of_it, out=np.zeros_like(found.by_grains["bin"] + all_of_it),
                     where=all_of_it > 0.0)  # fmt: skip
    return {name: np.asarray(np.sum(own * kept, axis=0)) for name, own in arriving_by_port(line, captures).items()}
