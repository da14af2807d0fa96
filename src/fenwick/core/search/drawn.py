"""A line judged many times over, under draws of what its figures rest on; lines are drawn alike by the seed."""

from __future__ import annotations

from dataclasses import dataclass
from functools import partial

from fenwick.core.doubt.uncertainty import by_models, vary
from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.line.line import Line

STRENGTH = ("shell.knock-down",)  #: rules that only the folding of a bin rests on


@dataclass(frozen=True)
class DrawnLine:
    """A line as it stands, its first variant, and drawn, the others."""

    line: Line
    found: Assessment
    count: int  #: variants, the line as it stands included


def drawn_line(line: Line, draws: int, seed: int) -> DrawnLine:
    """Judge a single line under draws of every rule that its figures rest on, the folding of its bin included.

    Parameters
    ----------
    line : a single variant
    draws : how many, besides the line as it stands [-]
    seed : of the chances drawn; the same one draws the same again [-]
    """
    varied = vary(line, draws, seed, STRENGTH)
    return DrawnLine(varied.line, assess(varied.line, partial(by_models, models=varied.models)), varied.count)
