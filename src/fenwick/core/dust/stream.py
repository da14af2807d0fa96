"""The dust on its way through the line, size by size: the one walk over the filters and stages of the trunk."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.dust.caught import Arriving, Caught
from fenwick.core.dust.separation import Separation
from fenwick.core.line.filters import passes_before_stages
from fenwick.core.line.line import Line


@dataclass(frozen=True)
class Walk:
    """Dust along the trunk, per dust made, size by size [-]; each array of shape (60, n)."""

    entering: tuple[Array, ...]  #: each stage, what in-line filters ahead of it hold left out
    kept: tuple[Array, ...]  #: by each stage
    inline: Array  #: by the in-line filters of the trunk
    past: Array  #: all of them: what the vacuum gets

    @property
    def by_stage(self) -> tuple[Array, ...]:
        """Kept share by mass of what enters each stage [-], each of shape (n,)."""
        return tuple(_by_mass(kept, entering) for kept, entering in zip(self.kept, self.entering, strict=True))

    @property
    def in_all(self) -> Array | None:
        """Share by mass of what enters the first stage that any of them keeps [-], shape (n,); None without one."""
        return _by_mass(sum(self.kept), self.entering[0]) if self.kept else None

    @property
    def going_on(self) -> Array | None:
        """Share by mass of what enters the first stage that the vacuum gets [-], shape (n,); None without one."""
        return _by_mass(self.past, self.entering[0]) if self.kept else None


def _by_mass(part: object, whole: Array) -> Array:
    return np.asarray(np.sum(np.asarray(part), axis=0) / np.maximum(np.sum(whole, axis=0), 1e-300))


def walk(line: Line, arriving: Array, sizes: Array, keeps: Sequence[Array]) -> Walk:
    """Follow dust from where the branches join to the vacuum.

    Parameters
    ----------
    line : whose in-line filters and stages it passes
    arriving : per dust made, by class of grains, shape (60 k, n) [-]
    sizes : of the classes, shape (60 k, 1) [m]
    keeps : of each size, the share that each stage keeps, in the order of the air, each of shape (60, n) [-]
    """
    *before, last = passes_before_stages(line, sizes)
    entering, kept = [], []
    past, inline = arriving, np.zeros_like(arriving)
    for share, passes in zip(keeps, before, strict=True):
        inline, past = inline + past * (1.0 - passes), past * passes
        entering.append(past)
        kept.append(past * share)
        past = past - kept[-1]
    return Walk(tuple(entering), tuple(kept), inline + past * (1.0 - last), past * last)


def walk_through(line: Line, arriving: Arriving | None, separations: tuple[Separation, ...]) -> Walk | None:
    """The walk of the dust through the stages at work; None where it is not known."""
    if arriving is None or line.dust is None:
        return None
    return walk(line, arriving.entering, line.dust.sizes, kept_of_sizes(separations))


def kept_by_models(found: Separation, entering: Array) -> dict[str, Array]:
    """What a stage keeps by each model that describes it, by mass of what enters [-], each of shape (n,).

    `entering` is the dust by size, shape (60, n) [-].

    Parameters
    ----------
    entering : mass by size class, shape (k, n) [any unit]
    """
    return {name: _by_mass(entering * grades.kept, entering) for name, grades in found.models.items()}


def kept_of_sizes(separations: tuple[Separation, ...]) -> list[Array]:
    """Of each size, the share that each stage keeps [-], each of shape (60, n); the dust has to be known."""
    grades = [stage.grades for stage in separations]
    return [grade.kept for grade in grades if grade is not None]


@dataclass(frozen=True)
class Stream:
    """Shares of all dust made, size by size [-], each of shape (60, n)."""

    together: Caught  #: at the ports
    held: Array  #: in the bins of the separators
    wetted: Array  #: under water
    inline: Array  #: by in-line filters
    past: Array  #: all of them: what the vacuum gets


def stream_through(
    arriving: Arriving | None, walked: Walk | None, separations: tuple[Separation, ...]
) -> Stream | None:
    """The dust from the open ports to the vacuum; None when what is caught there is not known."""
    if arriving is None or arriving.together is None or walked is None:
        return None
    together, real = arriving.together, arriving.real
    held = wetted = np.zeros_like(walked.past)
    for stage, kept in zip(separations, walked.kept, strict=True):
        held, wetted = (held, wetted + kept) if stage.wet else (held + kept, wetted)
    return Stream(together, held * real, wetted * real, together.inline + walked.inline * real, walked.past * real)
