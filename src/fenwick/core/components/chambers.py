"""Separators whose bin is the chamber, and the one-body build with the vacuum's head on its deck."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Values
from fenwick.core.components.bins import Bin
from fenwick.core.components.separator import FlatChamber, Manner, Separator, SlottedDisc, Stand, square_side
from fenwick.core.formulas.swirl import SwirlGeometry

OPPOSED = "opposed"
ELBOW = Manner(exchange="bin.exchange-open", exchange_fixed=True, swirl="swirl.elbow")
ELBOW_OPPOSED = Manner(
    exchange="bin.exchange-open", exchange_fixed=True, exchange_more="bin.exchange-opposed", swirl="swirl.elbow"
)
RIM = Manner(exchange="bin.exchange-open", exchange_fixed=True, swirl="swirl.rim")


@dataclass(frozen=True)
class OpenBin(Separator):
    """A lid or rim with an inlet and an outlet and no disc: the bin above its dust is the chamber."""

    id: str
    inlet_bore: Values  #: [m]
    outlet_diameter: Values  #: De [m]
    outlet_length: Values  #: S, below the lid [m]
    bin: Bin
    tilt: Values = 0.0  #: from upright [rad]
    swapped: bool = False
    stand: Stand | None = None
    body: tuple[str, Values] | None = None

    @property
    def geometry(self) -> SwirlGeometry:
        """What the orbit model needs: the bin down to its dust, an orbit no taller than the outlet is wide."""
        side = square_side(self.inlet_bore)
        room = np.maximum(self.bin.height - np.asarray(self.bin.fill_height), self.outlet_length)
        top = float(self.bin.narrow_at(self.bin.height))
        chamber = FlatChamber(top, room, side, side, self.outlet_diameter, self.outlet_length)
        return chamber.geometry(most_orbit=self.outlet_diameter)

    @property
    def rise_above_rim(self) -> Values:
        """Its elbows [m]."""
        return 1.5 * np.asarray(self.inlet_bore)

    @property
    def opening(self) -> Values:
        """The whole bin is open to the swirl [m^2]."""
        return self.bin.area_at(self.bin.height)

    @property
    def drop_below_rim(self) -> Values:
        """Dust counts as left alone below the outlet tube's mouth [m]."""
        return self.outlet_length


@dataclass(frozen=True)
class ElbowLid(OpenBin):
    """Two elbows through a lid: the inlet's along the wall, the outlet's aimed away from it or to the centre."""

    aim: str = "centre"  #: opposed or centre

    @property
    def manner(self) -> Manner:
        """An elbow makes a poorer swirl than a tangential inlet."""
        return ELBOW_OPPOSED if self.aim == OPPOSED else ELBOW


@dataclass(frozen=True)
class RimInlet(OpenBin):
    """A tall bin with a tangential inlet at its rim."""

    @property
    def manner(self) -> Manner:
        """The inlet meets the wall as it should; the open bin gives dust back all the same."""
        return RIM


@dataclass(frozen=True)
class OneBody(SlottedDisc):
    """The vacuum's own head on a deck over the chamber, its filter hanging inside; a drop pipe with a side window."""

    window_area: Values | None = None  #: of the drop pipe's side window; None: as wide as the pipe [m^2]
    deck_leak: Values = 0.0  #: at the joint between head and deck [m^2]
    head_width: Values | None = None  #: of the vacuum's head on the deck [m]; None: not known
    head_height: Values | None = None  #: of it over the deck [m]; None: by rule
