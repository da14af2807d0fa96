"""The result contract: what `fenwick solve` prints for a checked rig. What has not been computed is absent."""

from __future__ import annotations

from math import isfinite
from typing import Any

from fenwick.core.doubt.uncertainty import LineSureness, sureness
from fenwick.core.dust.by_port import in_bin_by_port
from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.judging.check import LEVEL_WORDS, Check
from fenwick.core.judging.line_figures import LineFigures, line_figures
from fenwick.core.judging.passage import clearing_time
from fenwick.core.judging.review import review
from fenwick.core.line.line import Line
from fenwick.core.line.transport import CARRYING_WORDS
from fenwick.rig.format.model import Rig
from fenwick.rig.to_core.line import build_line
from fenwick.rig.voice import voice_for
from fenwick.units import METRIC
from fenwick.wording import check_sentence, least_certain, warnings
from fenwick.wording.say import Voice

FORMAT, VERSION = "fenwick-result", 1


def solve_rig(rig: Rig) -> dict[str, Any]:
    """Solve a rig and lay the answer out as the result contract, plain Python values in SI."""
    line = build_line(rig)
    found = assess(line)
    checked, sure = review(line, found), sureness(line)
    voice = voice_for(rig, METRIC)
    result: dict[str, Any] = {
        "format": FORMAT,
        "version": VERSION,
        "name": rig.name,
        "vacuum": {
            "flow_m3_s": float(found.point.flow[0]),
            "suction_pa": float(found.point.suction[0]),
            "mass_flow_kg_s": float(found.point.mass_flow[0]),
        },
        "figures": figures_document(line_figures(line, found, checked)),
        "ports": _ports(line, found, sure),
        "stations": _stations(found),
        "separators": _separators(found, sure),
    }
    if found.fate is not None:
        keys = ("bin", "filter", "exhaust", "room_air", "floor", "hood")
        result["fate"] = {key: float(getattr(found.fate, key)[0]) for key in keys}
        if any(stage.wet for stage in found.separations):
            result["fate"]["wet"] = float(found.fate.wet[0])
        for key, name in (("inline", "inline"), ("extra", "extra"), ("blown", "extra_exhaust")):
            if float(found.fate.share(key)[0]) > 0.0:
                result["fate"][name] = float(found.fate.share(key)[0])
    result["checks"] = [_check(check, voice) for check in checked]
    doubt = least_certain(line, voice)
    result["warnings"] = [
        *warnings(line, found, voice),
        *([f"{doubt[0].upper()}{doubt[1:]} (take a suction reading)."] if doubt else []),
    ]
    return result


def figures_document(figures: LineFigures) -> dict[str, Any]:
    """The figures of a line as it stands as plain values in SI; what is not known is null."""
    ports = [{"id": p.id, "flow_m3_s": p.flow, "caught": p.caught, "in_bin": p.in_bin} for p in figures.ports]
    return {
        "ports": ports, "slowest_m_s": figures.slowest, "kept": figures.kept, "collapse": figures.collapse,
        "acts": figures.acts,
    }  # fmt: skip


def _check(check: Check, voice: Voice) -> dict[str, Any]:
    figures = {"value": float(check.value[0]), "limit": float(check.limit[0])}
    # a bay too short to fold has no folding suction, a check of facts has no figures at all
    known = {key: value for key, value in figures.items() if isfinite(value)}
    return {
        "id": check.id,
        "level": LEVEL_WORDS[int(check.level[0])],
        **known,
        "part": check.part,
        "text": check_sentence(check, voice),
    }


def _ports(line: Line, found: Assessment, sure: LineSureness) -> list[dict[str, Any]]:
    known = {capture.id: capture for capture in found.captures}
    in_bin = in_bin_by_port(line, found.captures, found.arriving, found.fate)
    ports = []
    for i, leaf in enumerate(line.leaves):
        port: dict[str, Any] = {
            "id": leaf.id,
            "open": leaf.open,
            "flow_m3_s": float(found.point.port_flow[i, 0]),
            "bore_velocity_m_s": float(found.point.port_velocity[i, 0]),
        }
        clears = float(clearing_time(line, found.point, i)[0])
        if leaf.open and isfinite(clears):
            port["clearing_time_s"] = clears
        if leaf.id in known:
            caught = known[leaf.id]
            port["capture"] = {
                "airborne": float(caught.airborne[0]),
                "thrown": float(caught.thrown[0]),
                "total": float(caught.total[0]),
                "tool_total": float(caught.tool_total[0]),
                "tool_total_low": sure.caught[leaf.id].low,
                "tool_total_high": sure.caught[leaf.id].high,
            }
        if leaf.id in in_bin:
            port["in_bin"] = float(in_bin[leaf.id][0])
        ports.append(port)
    return ports


def _stations(found: Assessment) -> list[dict[str, Any]]:
    s = found.point.stations
    judged = {}
    if found.carrying is not None:
        states = found.carrying.carrying[:, 0]
        judged = {name: CARRYING_WORDS[int(state)] for name, state in zip(found.carrying.ids, states, strict=True)}
    stations = []
    for i, name in enumerate(s.ids):
        station: dict[str, Any] = {
            "element": name,
            "kind": s.kinds[i],
            "flow_m3_s": float(s.flow[i, 0]),
            "velocity_m_s": float(s.velocity[i, 0]),
            "loss_pa": float(s.loss[i, 0]),
            "total_suction_pa": float(s.total_suction[i, 0]),
            "static_suction_pa": float(s.static_suction[i, 0]),
        }
        if name in judged:
            station["carrying"] = judged[name]
        bed = found.beds.index(name) if found.beds else None
        if found.beds is not None and bed is not None:
            station["bed_share"] = float(found.beds.share[bed, 0])
            station["bed_m3"] = float(found.beds.volume[bed, 0])
            station["bed_pa"] = float(found.beds.suction[bed, 0])
        stations.append(station)
    return stations


def _separators(found: Assessment, sure: LineSureness) -> list[dict[str, Any]]:
    bands = sure.stages
    separators = []
    for i, stage in enumerate(found.separations):
        one: dict[str, Any] = {
            "id": stage.id,
            "inlet_velocity_m_s": float(stage.inlet_velocity[0]),
            "pressure_drop_pa": float(stage.pressure_drop[0]),
        }
        if stage.grades is not None:
            band = bands[i].kept
            assert band is not None
            one |= {
                "cut_size_m": float(stage.grades.cut_size[0]),
                "efficiency": float(found.efficiency[i][0]),
                "efficiency_low": band.low,
                "efficiency_high": band.high,
            }
            if not stage.wet:
                one["models"] = {
                    name: {"cut_size_m": float(grades.cut_size[0])} for name, grades in stage.models.items()
                }
        separators.append(one)
    return separators
