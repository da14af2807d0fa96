"""Every working, done again from its own inputs by other means than its own, comes to the figure that is shown."""

from __future__ import annotations

import json
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwick.core.hours.air import USUAL_JOB, clearing
from fenwick.core.hours.upkeep import upkeep
from fenwick.core.judging.assess import assess
from fenwick.core.judging.review import review
from fenwick.core.tuning.fit import fit
from fenwick.core.workings.sheet import KINDS
from fenwick.data.demo import demo_readings, demo_rig, demo_shop
from fenwick.rig import Rig, build_line
from fenwick.rig.result import solve_rig
from fenwick.rig.to_core.line import described_line
from fenwick.rig.to_core.prices import prices_of
from fenwick.rig.working import working_document
from fenwick.services.air import source_at
from fenwick.services.solving import solve
from fenwick.services.workings import all_explained, asked_of, explained
from fenwick.shop.work import room_of_shop
from tests.house.test_one_figure import whole_rigs

AGAIN = 1e-6  #: within which a step comes out again [-]
LEFT = 1e-4  #: of its scale, what a solved step may leave [-]
SHOWN = 1e-4  #: of each other: the solver stops at 0.01 Pa, and a working at what its own steps come to [-]
LEFT_PA = 0.02  #: of suctions too small for a share of them to mean anything [Pa]
DEMOS = ("demo_line", "demo_bench", "demo_cyclone")


def _interp(x: Any, xs: Any, ys: Any) -> Any:
    return np.interp(x, np.asarray(xs), np.asarray(ys))


WORDS: dict[str, Any] = {
    "__builtins__": {},
    "pi": 3.141592653589793,
    "sqrt": np.sqrt,
    "exp": np.exp,
    "log": np.log,
    "sin": np.sin,
    "cos": np.cos,
    "tan": np.tan,
    "atan": np.arctan,
    "minimum": np.minimum,
    "maximum": np.maximum,
    "where": np.where,
    "sum": lambda values: np.sum(values),
    "cumsum": np.cumsum,
    "interp": _interp,
    "clip": np.clip,
}


def by_python(expression: str, inputs: dict[str, Any], known: dict[str, Any]) -> Any:
    """What an expression comes to in Python itself."""
    names = {name: known[one] if isinstance(one, str) else np.asarray(one, dtype=float) for name, one in inputs.items()}
    with np.errstate(all="ignore"):
        return eval(expression, WORDS, names)


def done_again(document: dict[str, Any], once: dict[str, Any] | None = None) -> Any:
    """The figure of a printed working, from its inputs alone; every step on the way is compared.

    `once` holds steps of the same sheet that came out already.
    """
    known: dict[str, Any] = {}
    once = {} if once is None else once
    for step in json.loads(json.dumps(document))["steps"]:
        assert step["kind"] in KINDS, step["id"]
        assert step["meaning"], step["id"]
        assert step["symbol"], step["id"]
        assert all(one in known for one in step["inputs"].values() if isinstance(one, str)), step["id"]
        value = known[step["id"]] = np.asarray(step["value"], dtype=float)
        if once.get(step["id"]) == step:
            continue
        once[step["id"]] = step
        if step["expression"] is None:
            assert step["kind"] == "solved"
            left = by_python(step["residual"], step["inputs"], known)
            assert float(np.max(np.abs(left))) <= LEFT, step["id"]
        else:
            assert step["kind"] != "solved", step["id"]
            came_to = by_python(step["expression"], step["inputs"], known)
            assert came_to == pytest.approx(value, rel=AGAIN, abs=1e-30), step["id"]
    assert step["value"] == document["value"]
    return document["value"]


def shown(rig: Rig) -> dict[str, float]:
    """The figures of a rig as its pages and its result tell them."""
    solved, result = solve(rig), solve_rig(rig)
    line, found, port = solved.line, solved.found, solved.first_open
    told = {"air": result["ports"][port]["flow_m3_s"]}
    told |= {f"suction:{one['element']}": one["static_suction_pa"] for one in result["stations"]}
    for one in result["separators"]:
        told[f"inlet-speed:{one['id']}"] = one["inlet_velocity_m_s"]
        if "cut_size_m" in one:
            told[f"cut-size:{one['id']}"] = one["cut_size_m"]
    if found.kept is not None:
        told["kept"] = float(found.kept[0])
    own = next((one for one in found.captures if one.id == line.leaves[port].id), None)
    if own is not None:
        told["caught"] = float(own.tool_total[0])
    if found.fate is not None and any(not stage.wet for stage in found.separations):
        told["bin-of-100"] = 100.0 * result["fate"]["bin"]
    for check in review(line, found):
        kind = {"bin-collapse": "collapse", "lid-bends": "lid", "tips": "tipping"}.get(check.id)
        if kind is not None and np.isfinite(check.value[0]):
            told[f"{kind}:{check.part}"] = float(check.value[0])
    if found.carrying is not None and any(found.carrying.laden):
        told["slowest-speed"] = float(np.min(found.carrying.velocity[np.array(found.carrying.laden)]))
    return told


def compare(rig: Rig) -> None:
    """Every figure that a rig allows, done again, against what is shown of it."""
    told, found, once = shown(rig), all_explained(rig, asked_of(rig)), {}
    assert set(told) <= set(found), set(told) - set(found)
    for name, working in found.items():
        value = done_again(working_document(working), once)
        if name in told:
            near = LEFT_PA if working.root.unit == "Pa" else 1e-7
            assert value == pytest.approx(told[name], rel=SHOWN, abs=near), name


@pytest.mark.parametrize("name", DEMOS)
def test_every_figure_of_the_demo_can_be_worked_out_again_from_its_working(name: str) -> None:
    compare(demo_rig(name))


@given(whole_rigs())
@settings(max_examples=15)
def test_so_can_every_figure_of_any_rig(rig: Rig) -> None:
    compare(rig)


@given(whole_rigs(), st.sampled_from([None, 0.05, 1.4]))
@settings(max_examples=6)
def test_hours_cost_and_payback_come_out_as_ageing_tells_them(rig: Rig, load: float | None) -> None:
    line, document = build_line(rig), rig.model_dump(mode="json")
    if document["vacuum"]["filter"] is not None:
        document["vacuum"]["filter"] |= {"price": 30.0, "price_to": 40.0, "held_kg": load or 0.0}
    if document["vacuum"]["bag"] is not None:
        document["vacuum"]["bag"] |= {"price": 6.0}
    for element in document["line"]["elements"]:
        if element["kind"] == "separator":
            element["price"] = 80.0
        if element["kind"] == "filter":
            element |= {"price": 12.0, "price_to": 18.0}
    rig = Rig.model_validate(document)
    port = solve(rig).first_open
    del line
    told = upkeep(build_line(rig), port, 10.0, prices_of(rig))
    found = all_explained(rig, asked_of(rig))
    if told is None:
        return
    expected = {"hours": told.with_it.life, "cost": told.with_it.cost, "payback": told.payback}
    for name, value in expected.items():
        known = value is not None and np.isfinite(value)
        assert (name in found) == known, name
        if known:
            assert done_again(working_document(found[name])) == pytest.approx(value, rel=SHOWN)


@pytest.mark.parametrize("name", DEMOS)
def test_the_rooms_air_comes_out_as_the_page_tells_it(name: str) -> None:
    rig, shop = demo_rig(name), demo_shop()
    solved = solve(rig)
    asked = asked_of(rig, shop=shop)
    port = solved.line.leaves[asked.port].id
    source = source_at(solved, port)
    assert source is not None
    rules = solved.line.rules
    told = clearing(room_of_shop(shop, rules), source, USUAL_JOB, rules["room.clear"])
    for figure, value in (("fog", 1e6 * told.peak[0]), ("masked", told.clears[0] / 60.0)):
        working = explained(rig, asked, figure)
        assert working is not None
        assert done_again(working_document(working)) == pytest.approx(value, rel=SHOWN)


def test_a_tuned_factor_shows_the_readings_that_it_comes_from() -> None:
    rig = demo_rig("demo_cyclone")
    readings = [reading for reading, _ in demo_readings()]
    fitted = fit(described_line(rig), readings)
    assert fitted is not None
    asked = asked_of(rig, readings=readings)
    for key, value in fitted.factors.items():
        working = explained(rig, asked, f"factor:{key}")
        assert working is not None
        assert done_again(working_document(working)) == pytest.approx(value, rel=1e-6)


def test_a_value_that_is_a_guess_or_was_tuned_is_told_as_such() -> None:
    document = demo_rig().model_dump(mode="json")
    document["guesses"] = [{"part": "vacuum", "key": "curve.open_flow_m3_s", "low": 0.05, "high": 0.07, "others": []}]
    document["tuning"] = {"on": True, "fan": 0.8, "cut": 1.2}
    rig = Rig.model_validate(document)
    working = explained(rig, asked_of(rig), "cut-size:sep")
    assert working is not None
    steps = {step.id: step for step in working.steps}
    guess = steps["vacuum.curve.open_flow_m3_s"]
    assert (guess.kind, guess.low, guess.high) == ("guessed", 0.05, 0.07)
    assert steps["vacuum.curve.sealed_suction_pa"].kind == "measured"
    assert "18000" in steps["vacuum.curve.sealed_suction_pa"].source
    assert steps["swirl.cut"].kind == "measured"
    assert steps["swirl.friction-shop"].kind == "rule"
    assert steps["swirl.friction-shop"].low is not None
    assert steps["sep.chamber_d_m"].kind == "given"


def test_an_operating_point_of_a_measured_fan_shows_the_points_beside_it() -> None:
    document = demo_rig().model_dump(mode="json")
    points = [(0.01, 15e3), (0.03, 9e3), (0.045, 4.2e3), (0.06, 1e3)]
    document["vacuum"]["curve"] = {
        "kind": "points",
        "points": [{"flow_m3_s": flow, "suction_pa": suction} for flow, suction in points],
    }
    rig = Rig.model_validate(document)
    working = explained(rig, asked_of(rig), "air")
    assert working is not None
    assert done_again(working_document(working)) == pytest.approx(assess(build_line(rig)).point.port_flow[0, 0])
