"""The ends that a line is put together from."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Plastic:
    """What an end is made of."""

    label: str
    stretch: float  #: it may be widened by, warm, as a share of its diameter [-]


#: how far warm ends may be widened: our estimates, shown as such
PLASTICS: dict[str, Plastic] = {
    "pvc-soft": Plastic("Soft PVC", 0.06),
    "pvc-hard": Plastic("Hard PVC", 0.04),
    "pe": Plastic("Polyethylene", 0.05),
    "pp": Plastic("Polypropylene", 0.02),
    "abs": Plastic("ABS", 0.02),
    "eva": Plastic("EVA", 0.10),
    "rubber": Plastic("Rubber", 0.20),
    "metal": Plastic("Metal", 0.0),
}

FITS: dict[str, str] = {
    "push": "Push",
    "screw": "Screw",
    "left-screw": "Left-hand screw",
    "bayonet": "Bayonet",
    "snap": "Snap",
}


@dataclass(frozen=True)
class End:
    """One cuff or port, as measured; None where it was not."""

    inside: float | None = None  #: [m]
    outside: float | None = None  #: [m]
    fit: str = "push"  #: key of FITS
    plastic: str | None = None  #: key of PLASTICS
