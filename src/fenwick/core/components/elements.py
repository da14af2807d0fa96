"""The parts of a line between the tool port and the vacuum."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TypeAlias

from fenwick.core.arrays import Values
from fenwick.core.components.dust import Dust
from fenwick.core.components.hood import Hood
from fenwick.core.components.separator import Separator
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.components.wet import WetStage


@dataclass(frozen=True)
class Bend:
    """A bend within a hose; the hose's length includes it."""

    angle: Values  #: [rad]
    radius: Values  #: of the centre line [m]


@dataclass(frozen=True)
class Hose:
    """A hose or a rigid pipe."""

    id: str
    bore: Values  #: [m]
    length: Values  #: along the centre line, bends included [m]
    wall: str = "smooth"  #: key of the rules `wall.*`
    bends: tuple[Bend, ...] = ()
    roughness: Values | None = None  #: measured, instead of the wall's rule [m]
    rise: Values = 0.0  #: height it lifts the dust, 0 where it lies or falls [m]
    bend_factor: Values | None = None  #: loss of its bends against smooth ones, instead of the wall's rule [-]
    wall_thickness: Values | None = None  #: [m]; None: not known
    clear: bool | None = None  #: whether one sees into it; None: not said


@dataclass(frozen=True)
class Reducer:
    """A change of bore, sharp or over a length."""

    id: str
    bore_in: Values  #: [m]
    bore_out: Values  #: [m]
    length: Values = 0.0  #: of the taper; 0 is a step [m]


@dataclass(frozen=True)
class FixedLoss:
    """Anything with a known loss coefficient."""

    id: str
    bore: Values  #: [m]
    k: Values  #: on the velocity head of `bore` [-]


@dataclass(frozen=True)
class Gate:
    """A blast gate."""

    id: str
    bore: Values  #: [m]
    opening: Values  #: open share of the area, 0 … 1 [-]


@dataclass(frozen=True)
class Leak:
    """A sharp gap to the room at a joint."""

    id: str
    area: Values  #: [m^2]


@dataclass(frozen=True)
class Elbow:
    """A rigid elbow."""

    id: str
    bore: Values  #: [m]
    angle: Values  #: [rad]
    style: str  #: long-sweep, short or mitre
    radius: Values | None = None  #: of a long sweep's centre line; None: by rule [m]


@dataclass(frozen=True)
class Plate:
    """A plate drilled with holes, such as a filter's seat."""

    id: str
    bore: Values  #: [m]
    open_area: Values  #: of all its holes [m^2]


@dataclass(frozen=True)
class InlineFilter:
    """A filter in the run: a sleeve, a mesh, a re-used bag."""

    id: str
    bore: Values  #: of the hoses it sits between [m]
    medium: FilterMedium


Element: TypeAlias = Hose | Reducer | FixedLoss | Gate | Leak | Elbow | Plate | InlineFilter | WetStage | Separator


@dataclass(frozen=True)
class Port:
    """Where the air comes in at a tool."""

    name: str
    bore: Values  #: [m]
    entry: str = "plain"
    hood: Hood | None = None
    dust_rate: Values | None = None  #: made by the tool [kg/s]
    machine: str | None = None  #: key of the containment flows
    entry_loss: Values | None = None  #: K of the entry, instead of that of its kind [-]
    tool: str | None = None  #: ports of the same tool share the dust it makes; None: a tool of its own
    dust: Dust | None = None  #: what is made here; None: that of the line
    outdoors: bool = False  #: what it does not catch blows away instead of filling the room


@dataclass(frozen=True)
class Branch:
    """From a tool port, or from where further branches join, to the next junction; elements run with the air."""

    id: str
    port: Port | None  #: None where `branches` join instead
    elements: tuple[Element, ...] = ()
    gate_opening: Values | None = None  #: of a gate where the branch joins; None: no gate
    join_angle: Values = 0.7853981633974483  #: to the trunk [rad]
    branches: tuple[Branch, ...] = ()  #: that join at its start
    junction_bore: Values | None = None  #: where they join; None: as wide as what follows [m]
