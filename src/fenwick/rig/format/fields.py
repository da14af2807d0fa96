"""Field types of the rig file: a strict number, its limits, and the quantity it measures.

The quantity is metadata: it names the unit in error messages and on the page. Limits are in the key's own unit.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, Strict, StringConstraints


@dataclass(frozen=True)
class Measure:
    """What a number in the rig file measures: a key of `fenwick.units.QUANTITIES`."""

    quantity: str


class Part(BaseModel):
    """Base of every object in the file: immutable, no unknown keys, finite numbers only."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False)


Bore = Annotated[float, Strict(), Field(ge=0.001, le=1.0), Measure("bore")]
HoleBore = Annotated[float, Strict(), Field(ge=0.0005, le=0.5), Measure("bore")]
Count = Annotated[int, Strict(), Field(ge=1, le=10000), Measure("number")]
Bolts = Annotated[int, Strict(), Field(ge=2, le=48), Measure("number")]
Size = Annotated[float, Strict(), Field(gt=0, le=3.0), Measure("bore")]
Depth = Annotated[float, Strict(), Field(ge=0, le=3.0), Measure("bore")]
Length = Annotated[float, Strict(), Field(gt=0, le=200.0), Measure("length")]
Rise = Annotated[float, Strict(), Field(ge=0, le=30.0), Measure("length")]
Taper = Annotated[float, Strict(), Field(ge=0, le=10.0), Measure("bore")]
BendRadius = Annotated[float, Strict(), Field(gt=0, le=10.0), Measure("bore")]
Distance = Annotated[float, Strict(), Field(gt=0, le=5.0), Measure("bore")]
OpenArea = Annotated[float, Strict(), Field(gt=0, le=5.0), Measure("opening")]
Often = Annotated[float, Strict(), Field(ge=0, le=1000.0), Measure("number")]
Roughness = Annotated[float, Strict(), Field(ge=0, le=0.01), Measure("roughness")]
Wall = Annotated[float, Strict(), Field(gt=0, le=0.1), Measure("bore")]
Modulus = Annotated[float, Strict(), Field(ge=1e6, le=1e12), Measure("stress")]
Poisson = Annotated[float, Strict(), Field(ge=0.0, le=0.499), Measure("number")]
Wiring = Literal["as-made", "rewired", "rewired-tested"]
Water = Annotated[float, Strict(), Field(ge=0, le=500.0), Measure("heap")]
Heap = Annotated[float, Strict(), Field(gt=0, le=500.0), Measure("heap")]
Turn = Annotated[float, Strict(), Field(gt=0, le=360.0), Measure("angle")]
StartAngle = Annotated[float, Strict(), Field(ge=-360.0, le=360.0), Measure("angle")]
BendAngle = Annotated[float, Strict(), Field(gt=0, le=180.0), Measure("angle")]
JoinAngle = Annotated[float, Strict(), Field(ge=0, le=180.0), Measure("angle")]
Tilt = Annotated[float, Strict(), Field(ge=0, le=90.0), Measure("angle")]
Coefficient = Annotated[float, Strict(), Field(ge=0, le=10000.0), Measure("number")]
Exponent = Annotated[float, Strict(), Field(ge=0.5, le=4.0), Measure("number")]
Share = Annotated[float, Strict(), Field(ge=0, le=1.0), Measure("share")]
SpeedShare = Annotated[float, Strict(), Field(ge=0.3, le=1.1), Measure("share")]
Price = Annotated[float, Strict(), Field(ge=0, le=10000.0), Measure("number")]
Suction = Annotated[float, Strict(), Field(gt=0, le=60000.0), Measure("suction")]
SuctionFromZero = Annotated[float, Strict(), Field(ge=0, le=60000.0), Measure("suction")]
FlowFromZero = Annotated[float, Strict(), Field(ge=0, le=2.0), Measure("flow")]
Flow = Annotated[float, Strict(), Field(gt=0, le=2.0), Measure("flow")]
Power = Annotated[float, Strict(), Field(gt=0, le=20000.0), Measure("power")]
Current = Annotated[float, Strict(), Field(gt=0, le=100.0), Measure("current")]
Loudness = Annotated[float, Strict(), Field(ge=20.0, le=140.0), Measure("loudness")]
FilterArea = Annotated[float, Strict(), Field(gt=0, le=50.0), Measure("area")]
TankVolume = Annotated[float, Strict(), Field(ge=0.0005, le=1.0), Measure("volume")]
HeldMass = Annotated[float, Strict(), Field(ge=0, le=50.0), Measure("mass")]
GapArea = Annotated[float, Strict(), Field(ge=0, le=0.1), Measure("gap")]
Grain = Annotated[float, Strict(), Field(ge=1e-7, le=0.05), Measure("grain")]
GeometricSpread = Annotated[float, Strict(), Field(ge=1.05, le=10.0), Measure("number")]
Parts = Annotated[float, Strict(), Field(gt=0, le=1000.0), Measure("number")]
Density = Annotated[float, Strict(), Field(ge=5.0, le=20000.0), Measure("density")]
ChipLength = Annotated[float, Strict(), Field(gt=0, le=0.5), Measure("bore")]
Speed = Annotated[float, Strict(), Field(gt=0, le=100.0), Measure("speed")]
DustRate = Annotated[float, Strict(), Field(ge=0, le=1.0), Measure("mass_rate")]
Celsius = Annotated[float, Strict(), Field(ge=-40.0, le=60.0), Measure("temperature")]
Altitude = Annotated[float, Strict(), Field(ge=-430.0, le=9000.0), Measure("altitude")]
Flag = Annotated[bool, Strict()]
Name = Annotated[
    str,
    Strict(),
    StringConstraints(min_length=1, max_length=120, pattern=r"^[^\x00-\x1f\x7f]+$", strip_whitespace=True),
]
Id = Annotated[str, Strict(), StringConstraints(min_length=1, max_length=60, pattern=r"^[A-Za-z0-9][A-Za-z0-9_.-]*$")]
