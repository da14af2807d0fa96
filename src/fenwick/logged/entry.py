"""One entry of a shop's log."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime


@dataclass(frozen=True)
class Logged:
    """One entry; None, or empty, where nothing is said."""

    kind: str  #: key of `KINDS`
    at: datetime  #: by the shop's clock
    line: int | None = None  #: number of the line
    thing: str = ""  #: stage of the bin, tool, piece, station, or what money went on
    job: str = ""  #: that was done, of which `count` boards or cuts
    finding: str = ""  #: key of the kind's findings
    words: str = ""
    level: float | None = None  #: of the dust in the bin [m]
    volume: float | None = None  #: [m^3]
    mass: float | None = None  #: [kg]
    hours: float | None = None  #: at the tool [h]
    count: float | None = None  #: boards, cuts or hours of the job [-]
    money: float | None = None  #: in the shop's money
    suction: float | None = None  #: at a station [Pa]
    kept: float | None = None  #: of the dust [-]
    grade: float | None = None  #: place in `GRADES` [-]
    pitch: float | None = None  #: of the motor [Hz]
    quiet: float | None = None  #: how far its sound stayed below the most that a telephone takes [dB]
    id: int | None = None
