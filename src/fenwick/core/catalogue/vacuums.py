"""Generic classes of vacuum. None is a product: take one only until the label or a test says more."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class VacuumClass:
    """A class of vacuum with clean filter, at reference density."""

    key: str
    label: str
    sealed_suction: float  #: [Pa]
    open_flow: float  #: [m^3/s]
    inlet_bore: float  #: [m]
    filter_kind: str  #: paper, hepa or bag
    filter_area: float  #: [m^2]
    filter_price: float  #: of a new filter or bag, in the shop's money [-]
    tank: float  #: volume of its tank, or of the bag it comes with [m^3]
    electrical_power: float | None = None  #: [W]; None: it varies too much to say
    exponent: float = 1.0  #: of the nameplate curve [-]
    note: str = ""


VACUUMS: dict[str, VacuumClass] = {
    kind.key: kind
    for kind in (
        VacuumClass("canister", "Compact canister", 20e3, 0.035, 0.032, "bag", 0.12, 4.0, 3e-3, 700.0),
        VacuumClass("small-drum", "Small drum vacuum", 17e3, 0.048, 0.0508, "paper", 0.3, 15.0, 20e-3, 1200.0),
        VacuumClass("drum", "Drum vacuum", 18e3, 0.062, 0.0635, "paper", 0.6, 20.0, 40e-3, 1300.0),
        VacuumClass("tired-drum", "Tired old drum vacuum", 11e3, 0.044, 0.0635, "paper", 0.6, 20.0, 40e-3),
        VacuumClass("site", "Site extractor", 23e3, 0.062, 0.0508, "hepa", 0.5, 45.0, 25e-3, 1150.0),
        VacuumClass("twin-drum", "Twin-motor drum vacuum", 21e3, 0.105, 0.0635, "paper", 0.8, 25.0, 70e-3, 2300.0),
        VacuumClass("battery", "Battery can", 9e3, 0.028, 0.0381, "paper", 0.1, 12.0, 10e-3),
        VacuumClass(
            "bag-collector",
            "Large-impeller bag collector",
            2.4e3,
            0.330,
            0.100,
            "bag",
            1.5,
            30.0,
            70e-3,
            exponent=2.0,
            note="Much air at little suction: a hose narrower than its own starves it.",
        ),
    )
}

#: taken when nothing at all is known of the vacuum
COMMONEST = "drum"
#: classes that are told apart by the electrical power on their label
BY_POWER = ("canister", "small-drum", "drum", "twin-drum")
MOST_SOCKET_POWER = 2600.0  #: above this a label shows peak power, which says nothing about air [W]
