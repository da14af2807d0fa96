"""The catalogues as tables of text, in the user's units."""

from __future__ import annotations

from fenwick.core.catalogue.parts import ADAPTER_PRICE, HOSE_BORES, HOSE_PRICE
from fenwick.core.catalogue.ranges import RANGES, Range
from fenwick.core.catalogue.tools import TOOLS
from fenwick.core.catalogue.vacuums import VACUUMS
from fenwick.core.components.dust import DUSTS
from fenwick.core.components.joint import PLASTICS
from fenwick.core.judging.cases import CASES
from fenwick.units import format_value
from fenwick.web.kit.words import RELEASE_WORDS, choice_word
from fenwick.wording.say import Voice
from fenwick.wording.vacuum import case_words

Table = list[tuple[str, ...]]

#: keys of the rig file in words
KEY_WORDS = {
    "sealed_suction_pa": "Sealed suction",
    "open_flow_m3_s": "Open flow",
    "air_watts": "Air watts",
    "filter.area_m2": "Filter area",
    "tank_m3": "Tank of the vacuum",
    "inlet_bore_m": "Inlet bore of the vacuum",
    "port.bore_m": "Bore of a port",
    "port.hood.distance_m": "Port to dust",
    "port.hood.thrown_share": "Thrown at the port",
    "port.dust_rate_kg_s": "Dust made",
    "bore_m": "Bore of a hose",
    "length_m": "Length of a hose",
    "angle_deg": "Turn of a bend",
    "wall": "Wall of a hose",
    "width_m": "Width of a slot",
    "body_d_m": "Width of a cyclone",
    "inlet_height_m": "Height of an inlet",
    "inlet_width_m": "Width of an inlet",
    "outlet_d_m": "Bore of an outlet tube",
    "dust_outlet_d_m": "Dust outlet of a cyclone",
    "cylinder_height_m": "Straight part of a cyclone",
    "total_height_m": "Height of a cyclone",
    "chamber_d_m": "Width of a chamber",
    "arc_deg": "Arc of a slot",
    "outlet_length_m": "How far the outlet hangs",
    "chamber_height_m": "Height of the chamber",
    "bin.wall_m": "Wall of a bin",
    "bin.material": "Material of a bin",
    "bin.closure": "Lid of a bin",
    "d_m": "Width of a bin",
    "height_m": "Height of a bin",
    "kind": "Kind of dust",
}


def catalogue_tables(system: str) -> dict[str, object]:
    """Every catalogue, by the name its template uses."""

    def figure(value: float, quantity: str) -> str:
        return format_value(value, quantity, system, field=True, unit=True)

    return {
        "vacuums": [
            (
                v.label,
                figure(v.sealed_suction, "suction"),
                figure(v.open_flow, "flow"),
                figure(v.electrical_power, "power") if v.electrical_power else "varies",
                figure(v.inlet_bore, "bore"),
                f"{choice_word('medium', v.filter_kind)}, {figure(v.filter_area, 'area')}",
                figure(v.tank, "volume"),
            )
            for v in VACUUMS.values()
        ],
        "tools": [
            (
                t.label,
                DUSTS[t.dust].label,
                figure(t.port_bore, "bore"),
                figure(t.distance, "bore"),
                RELEASE_WORDS[t.release],
                figure(t.thrown_share, "share"),
                figure(t.dust_rate, "mass_rate"),
            )
            for t in TOOLS.values()
        ],
        "ranges": [(KEY_WORDS[key], _range(key, span)) for key, span in RANGES.items()],
        "plastics": [(p.label, figure(p.stretch, "share")) for p in PLASTICS.values()],
        "bores": [figure(bore, "bore") for bore in HOSE_BORES],
        "prices": [(choice_word("wall", wall), f"{price:g}") for wall, price in HOSE_PRICE.items()],
        "adapter": f"{ADAPTER_PRICE:g}",
        "days": [(case_words(case, Voice(system, {})),) for case in CASES if case.key != "today"],
    }


def _range(key: str, span: Range) -> str:
    if span.others:
        path = "dust.kind" if key == "kind" else key
        return "also " + " or ".join(choice_word(path, other).lower() for other in span.others)
    return f"{span.low:g} and {span.high:g} times the usual"
