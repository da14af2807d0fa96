"""Factors that readings gave a line, in its rig file."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field, Strict

from fenwick.core.rules.book import Slopes
from fenwick.core.tuning.factors import FACTORS
from fenwick.rig.format import fields as f

OF_VACUUM = ("fan", "cake")  #: factors that say nothing of another vacuum
GONE = "gone."  #: before what a reading told of something that is no longer there, and that still moved the reading
MOST_ROWS, MOST_SLOPES, STEEPEST = 16, 80, 1e4  #: of what readings told together
Slope = Annotated[float, Strict(), Field(ge=-STEEPEST, le=STEEPEST), f.Measure("number")]
LEAST, MOST = 0.02, 50.0  #: that a factor may be [-]: beyond, the description is wrong, not off
FactorValue = Annotated[float, Strict(), Field(ge=LEAST, le=MOST), f.Measure("number")]


class LeftPart(f.Part):
    """Of what was believed possible of each factor, the share that the readings left; 1 is all of it."""

    fan: f.Share = 1.0
    roughness: f.Share = 1.0
    entry: f.Share = 1.0
    leak: f.Share = 1.0
    cake: f.Share = 1.0
    cut: f.Share = 1.0
    exchange: f.Share = 1.0


class SlopePart(f.Part):
    """How far readings move for one standard deviation of one rule, over their own."""

    of: Annotated[str, Field(max_length=60)]
    slope: Slope


class ToldPart(f.Part):
    """What readings told of rules together: one direction."""

    slopes: Annotated[tuple[SlopePart, ...], Field(max_length=MOST_SLOPES)] = ()


class TuningPart(f.Part):
    """How the line differs from its description, as its readings say; 1 is as described."""

    on: f.Flag = Field(True, title="Tuned")
    fan: FactorValue = Field(1.0, title="Suction of the fan")
    roughness: FactorValue = Field(1.0, title="Roughness of the hoses")
    entry: FactorValue = Field(1.0, title="Loss at the tool")
    leak: FactorValue = Field(1.0, title="Leaks")
    cake: FactorValue = Field(1.0, title="Cake on the filter")
    cut: FactorValue = Field(1.0, title="Cut size of the separator")
    exchange: FactorValue = Field(1.0, title="What the bin gives back")
    slot: FactorValue = Field(1.0, title="What its slots give back")

    unsure: LeftPart | None = None
    told: Annotated[tuple[ToldPart, ...], Field(max_length=MOST_ROWS)] = ()

    @property
    def left(self) -> dict[str, float]:
        """By the core's names, the share of its spread that each factor has left."""
        return self.unsure.model_dump() if self.unsure else {}

    @property
    def factors(self) -> dict[str, float]:
        """By the core's names, those that are not 1."""
        given = self.model_dump(exclude={"on", "unsure", "told"})
        return {key: value for key, value in given.items() if value != 1.0}

    @property
    def slopes(self) -> tuple[Slopes, ...]:
        """What the readings told of rules together, as the core takes it."""
        return tuple(tuple((one.of, one.slope) for one in row.slopes) for row in self.told)


def without_factors(document: dict[str, Any], keys: tuple[str, ...]) -> dict[str, Any]:
    """A rig's document with some factors forgotten: as described, and as unsure as before any reading.

    What readings told of the others stays what it was: what is gone moved those readings, and is kept as that.
    """
    tuning = document.get("tuning")
    if tuning is None:
        return document
    unsure = {**tuning["unsure"], **dict.fromkeys(keys, 1.0)} if tuning.get("unsure") else tuning.get("unsure")
    gone = {rule for key in keys for rule in FACTORS[key].rules}
    told = [
        {"slopes": [{**one, "of": f"{GONE}{one['of']}" if one["of"] in gone else one["of"]} for one in row["slopes"]]}
        for row in tuning.get("told", ())
    ]
    return {**document, "tuning": {**tuning, **dict.fromkeys(keys, 1.0), "unsure": unsure, "told": told}}
