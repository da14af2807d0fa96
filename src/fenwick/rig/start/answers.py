"""What a newcomer may answer; None is always “don't know”."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.search.way.options import EVENING, WEEKEND

STANDS = {
    "none": "No separator yet",
    "disc": "A disc with a slot, over a bin",
    "hung": "A disc that hangs in the bin",
    "cyclone": "A cyclone on a bin",
    "elbows": "A lid with two elbows",
    "other": "Another kind of separator",
}

#: as the rig file has it
SHARING = {
    "swap": "One hose, moved from tool to tool",
    "gates": "A hose and a gate at each tool",
}

TIMES = {
    "20-minutes": "20 minutes",
    "evening": "An evening",
    "weekend": "A weekend",
}

HOURS = {"20-minutes": 1.0 / 3.0, "evening": EVENING, "weekend": WEEKEND}  #: in each of them [h]


@dataclass(frozen=True)
class Answers:
    """The five questions, in SI."""

    tools: tuple[str, ...] = ()  #: keys of TOOLS, each once
    share: str | None = None  #: key of SHARING: how several tools share one hose
    dust: str | None = None  #: key of DUSTS
    vacuum: str | None = None  #: key of VACUUMS
    sealed_suction: float | None = None  #: off the label [Pa]
    open_flow: float | None = None  #: off the label [m^3/s]
    air_watts: float | None = None  #: off the label [W]
    electrical_power: float | None = None  #: off the label [W]
    current: float | None = None  #: off the label [A]
    mains: float = 230.0  #: [V]
    hose_bore: float | None = None  #: [m]
    hose_length: float | None = None  #: [m]
    hose_wall: str | None = None  #: key of the rules `wall.*`
    link_bore: float | None = None  #: of the hose from separator to vacuum [m]
    link_length: float | None = None  #: [m]
    bin_top: float | None = None  #: width inside [m]
    bin_bottom: float | None = None  #: width inside [m]
    bin_height: float | None = None  #: inside [m]
    bin_volume: float | None = None  #: to the brim [m^3]
    bin_material: str | None = None  #: key of MATERIALS
    bin_closure: str | None = None  #: key of the rules `closure.*`
    stands: str | None = None  #: key of STANDS
    time: str | None = None  #: key of TIMES
    spend: float | None = None  #: money at hand
