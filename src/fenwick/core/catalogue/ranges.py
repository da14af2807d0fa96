"""How far a guess may be off: what an unmeasured value is believed to lie between."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Range:
    """A believable range as factors on the guess, or, for a choice, the other choices worth fearing."""

    low: float = 1.0
    high: float = 1.0
    others: tuple[str, ...] = ()


#: by the end of the key in the rig file, the longest match first
RANGES: dict[str, Range] = {
    "sealed_suction_pa": Range(0.75, 1.25),
    "open_flow_m3_s": Range(0.75, 1.25),
    "air_watts": Range(0.8, 1.2),
    "filter.area_m2": Range(0.6, 1.6),
    "tank_m3": Range(0.5, 1.5),
    "inlet_bore_m": Range(0.85, 1.15),
    "port.bore_m": Range(0.85, 1.15),
    "port.hood.distance_m": Range(0.5, 2.0),
    "port.hood.thrown_share": Range(0.6, 1.4),
    "port.dust_rate_kg_s": Range(0.3, 3.0),
    "bore_m": Range(0.85, 1.15),
    "length_m": Range(0.6, 1.6),
    "angle_deg": Range(0.5, 2.0),
    "wall": Range(others=("smooth", "corrugated")),
    "width_m": Range(0.7, 1.6),
    "body_d_m": Range(0.9, 1.1),
    "inlet_height_m": Range(0.85, 1.15),
    "inlet_width_m": Range(0.85, 1.15),
    "outlet_d_m": Range(0.85, 1.15),
    "dust_outlet_d_m": Range(0.8, 1.25),
    "cylinder_height_m": Range(0.7, 1.3),
    "total_height_m": Range(0.85, 1.15),
    "chamber_d_m": Range(0.9, 1.1),
    "arc_deg": Range(0.75, 1.25),
    "outlet_length_m": Range(0.5, 1.5),
    "chamber_height_m": Range(0.7, 1.4),
    "bin.wall_m": Range(0.6, 1.5),
    "bin.material": Range(others=("hdpe", "steel")),
    "bin.closure": Range(others=("screwed-gasket", "loose")),
    "d_m": Range(0.85, 1.15),
    "height_m": Range(0.8, 1.2),
    "kind": Range(others=("saw", "sanding-p240")),
}


def range_of(key: str) -> Range:
    """The believable range of a key of the rig file; none where there is no telling."""
    for ending in sorted(RANGES, key=len, reverse=True):
        if key == ending or key.endswith(f".{ending}"):
            return RANGES[ending]
    return Range()
