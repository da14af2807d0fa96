"""Variants of a line in one batch: what each change touches becomes an array, everything else stays as it is."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import replace
from typing import Any

import numpy as np

from fenwick.core.arrays import Values
from fenwick.core.components.elements import Branch
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.strength import weakest_bin
from fenwick.core.line.line import Line
from fenwick.core.search.changes import KINDS, OF_ANOTHER_HOSE, STIFFEN, VACUUM, Candidate, Column
from fenwick.core.search.effects import with_stage


class VariantBatch:
    """Builds the batch: every value that some change touches becomes an array over variants, the rest stays."""

    def __init__(self, line: Line, variants: Sequence[Collection[Candidate]]) -> None:
        self.given, self.count = line, len(variants)
        self.hits: dict[str, dict[str, list[tuple[int, float]]]] = {}
        for i, changes in enumerate(variants):
            for change in changes:
                self.hits.setdefault(change.part, {}).setdefault(change.kind, []).append((i, change.value))

    def line(self) -> Line:
        """The whole batch."""
        given = self.given
        return replace(
            given,
            vacuum=self.changed(given.vacuum, VACUUM),
            branches=tuple(self.branch(branch) for branch in given.branches),
            trunk=tuple(self.changed(part, part.id) for part in given.trunk),
        )

    def branch(self, branch: Branch) -> Branch:
        """A branch with everything on it."""
        whole = replace(
            branch,
            port=self.changed(branch.port, branch.id) if branch.port else None,
            elements=tuple(self.changed(part, part.id) for part in branch.elements),
            branches=tuple(self.branch(inner) for inner in branch.branches),
        )
        changed: Branch = self.changed(whole, branch.id)
        return changed

    def changed(self, part: Any, name: str) -> Any:
        """A part with each of its changes in a variant of its own."""
        for key, hits in self.hits.get(name, {}).items():
            kind = KINDS[key] if key in KINDS else OF_ANOTHER_HOSE[key]
            if isinstance(part, kind.to):
                part = kind.make(part, self.column(hits), self.given.rules)
        return part

    def column(self, hits: list[tuple[int, float]]) -> Column:
        """What puts the new values of some changes into a column.

        Parameters
        ----------
        hits : place of the variant [-] and new value, in the unit of what is changed
        """

        def column(base: Values, new: float | None = None) -> Values:
            values = np.array(np.broadcast_to(np.asarray(base, dtype=float), (self.count,)))
            for i, value in hits:
                values[i] = value if new is None else new
            return values

        return column


def with_rings(batch: Line, found: Assessment, variants: Sequence[Collection[Candidate]]) -> Assessment:
    """The assessment with the strength that new rings give in their variants.

    Parameters
    ----------
    batch : with every change but the rings
    found : its assessment
    variants : what is changed in each
    """
    whole = found.collapse
    ringed: dict[Candidate, list[int]] = {}
    for i, changes in enumerate(variants):
        for change in (one for one in changes if one.kind == STIFFEN):
            ringed.setdefault(change, []).append(i)
    if whole is None or not ringed:
        return found
    folds, stands = (np.array(np.broadcast_to(v, (len(variants),))) for v in (whole.folds, whole.stands))
    for change, at in ringed.items():
        stage = next(one for one in batch.separators if one.id == change.part)
        stiffer = stage.changed(bin=replace(stage.bin, stiffeners=(*stage.bin.stiffeners, change.value)))
        stronger = weakest_bin(with_stage(batch, stiffer), found.point)
        assert stronger is not None
        folds[at] = np.broadcast_to(stronger.folds, folds.shape)[at]
        stands[at] = np.broadcast_to(stronger.stands, stands.shape)[at]
    return replace(found, collapse=replace(whole, folds=folds, stands=stands))
