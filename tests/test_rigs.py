"""Whole rigs made by hypothesis: whatever the reader accepts is solved, drawn and said without a stumble."""

from __future__ import annotations

import json
import math
from typing import Any

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.dust import DUSTS, GLOWING
from fenwick.core.doubt.uncertainty import sureness
from fenwick.core.dust.fate import ENDS
from fenwick.core.formulas.sizes import all_densities
from fenwick.core.judging.assess import assess
from fenwick.drawing import NARROW, WIDE, lay_out_scene, render_ladder, render_line
from fenwick.rig import Rig, build_line, check_rig, read_rig, write_rig
from fenwick.rig.format.dust import own_from
from fenwick.rig.format.hood import HOOD_KINDS
from fenwick.rig.result import solve_rig
from fenwick.rig.voice import voice_for
from fenwick.units import SYSTEMS
from fenwick.wording import verdict, warnings

BORE = st.floats(0.01, 0.12)
OPTIONAL_BORE = st.none() | BORE


@st.composite
def hoses(draw: st.DrawFn) -> dict[str, Any]:
    """A hose as the file writes it."""
    bends = st.fixed_dictionaries({"angle_deg": st.floats(10, 180), "radius_m": st.floats(0.03, 1)})
    return {
        "kind": "hose",
        "bore_m": draw(BORE),
        "length_m": draw(st.floats(0.05, 15)),
        "wall": draw(st.sampled_from(["smooth", "light-rib", "wire-helix", "corrugated", "pipe"])),
        "roughness_m": draw(st.none() | st.floats(0, 0.002)),
        "bends": draw(st.lists(bends, max_size=3)),
    }


@st.composite
def small_parts(draw: st.DrawFn) -> dict[str, Any]:
    """A reducer, loss, leak, gate or in-line filter."""
    kind = draw(st.sampled_from(["reducer", "loss", "leak", "gate", "filter"]))
    keys: dict[str, dict[str, Any]] = {
        "reducer": {"bore_in_m": draw(BORE), "bore_out_m": draw(BORE), "length_m": draw(st.floats(0, 0.3))},
        "loss": {"bore_m": draw(BORE), "k": draw(st.floats(0, 10))},
        "leak": {"area_m2": draw(st.floats(0, 2e-3))},
        "gate": {"bore_m": draw(BORE), "opening": draw(st.floats(0, 1))},
        "filter": {"bore_m": draw(BORE), "medium": "bag", "area_m2": draw(st.floats(0.05, 1)), "held_kg": 0.1},
    }
    return {"kind": kind, **keys[kind]}


@st.composite
def discs(draw: st.DrawFn) -> dict[str, Any]:
    """A slotted disc that fits together."""
    wide, tall, bin_tall = draw(st.floats(0.2, 0.6)), draw(st.floats(0.06, 0.3)), draw(st.floats(0.2, 0.9))
    slot = {
        "width_m": draw(st.floats(0.01, 0.05)),
        "arc_deg": draw(st.floats(30, 180)),
        "start_deg": draw(st.floats(0, 300)),
    }
    return {
        "kind": "separator",
        "type": "slotted-disc",
        "chamber_d_m": wide,
        "chamber_height_m": tall,
        "inlet_bore_m": draw(st.floats(0.02, min(tall, 0.1))),
        "outlet_d_m": draw(st.floats(0.02, 0.1)),
        "outlet_length_m": draw(st.floats(0, tall)),
        "slots": [slot] * draw(st.integers(1, 2)),
        "tilt_deg": draw(st.floats(0, 45)),
        "bin": {
            "profile": [{"height_m": 0, "d_m": draw(st.floats(0.15, 0.6))}, {"height_m": bin_tall, "d_m": wide}],
            "wall_m": draw(st.none() | st.floats(0.0005, 0.02)),
            "material": draw(st.none() | st.sampled_from(["hdpe", "steel", "plywood"])),
            "closure": draw(st.sampled_from(["screwed-gasket", "clamp-ring", "loose"])),
            "fill_height_m": draw(st.floats(0, bin_tall)),
            "leak_area_m2": draw(st.none() | st.floats(0, 5e-4)),
            "stiffeners": draw(st.sampled_from([[], [{"height_m": bin_tall / 2}]])),
            "ledges": draw(st.sampled_from([[], [{"height_m": bin_tall * 0.9, "depth_m": 0.01}]])),
            "nested": draw(st.booleans()),
        },
    }


@st.composite
def separators(draw: st.DrawFn) -> dict[str, Any]:
    """Any kind of separator over the bin of a disc."""
    disc = draw(discs())
    common = {key: disc[key] for key in ("kind", "tilt_deg", "bin")}
    common["hoses_swapped"] = draw(st.booleans())
    top = disc["bin"]["profile"][-1]
    ways = {
        "inlet_bore_m": draw(st.floats(0.02, min(top["height_m"], 0.1))),
        "outlet_d_m": draw(st.floats(0.02, 0.1)),
        "outlet_length_m": draw(st.floats(0.0, 0.9)) * top["height_m"],
    }
    body = draw(st.floats(0.08, 0.4))
    shares = [draw(st.floats(low, high)) for low, high in ((0.2, 0.7), (0.1, 0.45), (0.2, 0.8), (0.0, 1.2), (0.2, 0.9))]
    cyclone = {
        "type": "cyclone",
        "body_d_m": body,
        "inlet_height_m": shares[0] * body,
        "inlet_width_m": shares[1] * body,
        "outlet_d_m": shares[2] * body,
        "outlet_length_m": shares[3] * body,
        "cylinder_height_m": 1.25 * body,
        "total_height_m": draw(st.floats(1.25, 5.0)) * body,
        "dust_outlet_d_m": shares[4] * body,
        "finish": draw(st.sampled_from(["smooth", "shop-built"])),
    }
    kinds: dict[str, dict[str, Any]] = {
        "disc": {**disc, "hoses_swapped": common["hoses_swapped"]},
        "body": {**disc, "type": "one-body", "window_area_m2": draw(st.floats(1e-4, 1e-2)), "deck_leak_m2": 1e-5},
        "elbow": {"type": "elbow-lid", "outlet_aim": draw(st.sampled_from(["opposed", "centre"])), **ways},
        "rim": {"type": "rim-inlet", **ways},
        "cyclone": cyclone,
    }
    return {**common, **kinds[draw(st.sampled_from(sorted(kinds)))]}


@st.composite
def hoods(draw: st.DrawFn) -> dict[str, Any]:
    """Any hood."""
    kind = draw(st.sampled_from(HOOD_KINDS))
    distance, wide = draw(st.floats(0.005, 0.5)), draw(st.floats(0.02, 0.6))
    way = st.fixed_dictionaries({"name": st.just("Cut"), "area_m2": st.floats(1e-4, 0.3), "share": st.floats(0.1, 10)})
    own: dict[str, dict[str, Any]] = {
        "opening": {"distance_m": distance},
        "built-in": {"distance_m": distance},
        "slot": {"distance_m": distance, "length_m": wide, "width_m": 0.1 * wide, "flanged": draw(st.booleans())},
        "enclosure": {"openings": draw(st.lists(way, min_size=1, max_size=3))},
        "floor": {"width_m": wide, "gap_m": draw(st.floats(0.001, 0.02))},
    }
    fan = {"flow_m3_s": draw(st.floats(0.01, 0.3)), "medium": draw(st.sampled_from([None, "paper", "hepa", "bag"]))}
    return {
        "kind": kind,
        "release": draw(st.sampled_from(["still", "slow", "active", "fast"])),
        "thrown_share": draw(st.floats(0, 1)),
        "rebound": draw(st.booleans()),
        "extra_fan": draw(st.none() | st.just(fan)),
        **own[kind],
    }


WOODEN = sorted(set(DUSTS) - set(GLOWING))
PART = st.fixed_dictionaries({"kind": st.sampled_from(WOODEN), "parts": st.floats(0.1, 9.0)})
MIXTURES = st.fixed_dictionaries(
    {
        "kind": st.just("mixture"),
        "kinds": st.lists(PART, min_size=1, max_size=4),
    }
)
OWN = st.sampled_from(sorted(DUSTS)).map(lambda kind: own_from(DUSTS[kind]))


@st.composite
def rigs(draw: st.DrawFn) -> Rig:
    """A rig of any shape this version reads."""
    parts = draw(st.lists(hoses() | small_parts(), max_size=6))
    split = draw(st.integers(0, len(parts)))
    trunk = parts[split:]
    for _ in range(draw(st.sampled_from([0, 1, 1, 2]))):
        trunk.insert(draw(st.integers(0, len(trunk))), draw(separators()))
    held = st.fixed_dictionaries({"area_m2": st.floats(0.05, 3), "held_kg": st.floats(0, 2)})
    document = {
        "format": "fenwick-rig",
        "version": 1,
        "name": draw(st.text("abc <&>\"'é", min_size=1, max_size=20).filter(str.strip)),
        "site": {"temperature_c": draw(st.floats(-10, 45)), "altitude_m": draw(st.floats(0, 3000))},
        "vacuum": {
            "inlet_bore_m": draw(OPTIONAL_BORE),
            "electrical_power_w": draw(st.none() | st.floats(300, 3000)),
            "curve": {
                "kind": "nameplate",
                "sealed_suction_pa": draw(st.floats(500, 40e3)),
                "open_flow_m3_s": draw(st.floats(0.01, 0.3)),
                "exponent": draw(st.none() | st.floats(0.5, 4)),
            },
            "filter": draw(st.none() | held),
            "bag": draw(st.none() | held),
        },
        "dust": draw(st.none() | st.fixed_dictionaries({"kind": st.sampled_from(sorted(DUSTS))}) | MIXTURES | OWN),
        "line": {
            "elements": [{"id": f"t{i}", **part} for i, part in enumerate(trunk)],
            "branches": [
                {
                    "id": "tool",
                    "gate": draw(st.none() | st.fixed_dictionaries({"opening": st.floats(0, 1)})),
                    "elements": [{"id": f"b{i}", **part} for i, part in enumerate(parts[:split])],
                    "port": {
                        "name": "Tool",
                        "bore_m": draw(BORE),
                        "hood": draw(st.none() | hoods()),
                        "dust_rate_kg_s": draw(st.none() | st.floats(0, 0.01)),
                        "machine": draw(st.none() | st.just("bandsaw")),
                    },
                }
            ],
        },
    }
    return check_rig(document)


@given(rigs())
def test_fates_add_up_size_by_size(rig: Rig) -> None:
    line = build_line(rig)
    found = assess(line)
    if found.fate is None or line.dust is None:
        return
    together = sum(found.fate.by_size[end] for end in ENDS)
    assert np.allclose(together, all_densities(line.dust.weights), rtol=0.0, atol=1e-12)
    assert all(np.all(share >= -1e-15) for share in found.fate.by_size.values())
    for port in found.captures:
        assert np.all((port.airborne >= 0.0) & (port.airborne <= 1.0))
        assert np.all((port.total >= 0.0) & (port.total <= 1.0 + 1e-12))


def every_number(value: Any) -> list[float]:
    """All numbers of a parsed JSON value."""
    if isinstance(value, dict):
        return [n for item in value.values() for n in every_number(item)]
    if isinstance(value, list):
        return [n for item in value for n in every_number(item)]
    return [float(value)] if isinstance(value, int | float) and not isinstance(value, bool) else []


@given(rigs())
def test_every_rig_is_solved_into_finite_figures_that_add_up(rig: Rig) -> None:
    result = solve_rig(rig)
    assert json.loads(json.dumps(result, allow_nan=False)) == result
    assert all(math.isfinite(number) for number in every_number(result))
    assert result["vacuum"]["flow_m3_s"] > 0
    if "fate" in result:
        assert math.isclose(sum(result["fate"].values()), 1.0, abs_tol=1e-9)
    for separator in result["separators"]:
        if "efficiency" in separator:
            assert 0 <= separator["efficiency_low"] <= separator["efficiency"] + 1e-9
            assert separator["efficiency"] <= separator["efficiency_high"] + 1e-9 <= 1 + 2e-9


@given(rigs())
def test_every_rig_survives_its_file(rig: Rig) -> None:
    again = read_rig(write_rig(rig))
    assert again == rig
    assert json.loads(write_rig(again)) == json.loads(write_rig(rig))


@given(rigs(), st.sampled_from(SYSTEMS))
def test_every_rig_is_drawn_and_said(rig: Rig, system: str) -> None:
    line, voice = build_line(rig), voice_for(rig, system)
    found = assess(line)
    for canvas in (WIDE, NARROW):
        scene = lay_out_scene(rig, found, voice, canvas, lambda part: f"?part={part}", None)
        picture = render_line(scene, "line") + render_ladder(scene, found, voice, 120.0, "ladder")
        assert "nan" not in picture
        assert "inf" not in picture.replace("in front", "")
    rows = verdict(line, found, sureness(line).kept, voice)
    said = [row.sentence for row in rows] + warnings(line, found, voice)
    assert all(sentence.endswith(".") for sentence in said)
    assert all(row.filled is None or 0 <= row.filled <= 1 for row in rows)
