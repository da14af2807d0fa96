"""Hoses and bins as they are sold, and what they cost: round figures in the shop's money."""

from __future__ import annotations

HOSE_BORES = (0.027, 0.032, 0.035, 0.038, 0.050, 0.0635, 0.076, 0.100)  #: sizes that hoses are sold in [m]

#: price of a metre of hose of 50 mm bore, by wall; it goes with the bore [-]
HOSE_PRICE: dict[str, float] = {"smooth": 14.0, "light-rib": 10.0, "wire-helix": 8.0, "corrugated": 5.0, "pipe": 4.0}
PRICED_BORE = 0.05  #: [m]
ADAPTER_PRICE = 6.0  #: of a bought adapter between two bores [-]

TYPICAL_HOSE_BORE = 0.038  #: taken where no bore is known [m]
TYPICAL_HOSE_LENGTH = 2.5  #: [m]
TYPICAL_LINK_LENGTH = 1.2  #: from separator to vacuum [m]
TYPICAL_BEND = (90.0, 4.0)  #: of a hose lying as it likes: angle [°], radius in bores [-]
TYPICAL_BIN = (0.33, 0.30, 0.40)  #: width at the top and at the floor, height [m]
TYPICAL_WALL = {"steel": 0.6e-3, "plywood": 9e-3, "mdf": 9e-3, "fibre-drum": 4e-3}  #: of a bin [m]; else:
TYPICAL_PLASTIC_WALL = 2.3e-3  #: [m]


def hose_price(bore: float, length: float, wall: str) -> float:
    """Price of a hose in the shop's money [-], from its bore [m], length [m] and wall.

    Parameters
    ----------
    bore : inside diameter [m]
    length : [m]
    """
    return HOSE_PRICE[wall] * length * bore / PRICED_BORE
