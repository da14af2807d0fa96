"""Random rig files, at the bounds of the schema and within: read off the schema itself, put right where it objects."""

from __future__ import annotations

import math
import random
from collections.abc import Callable
from contextlib import suppress
from functools import cache
from typing import Any

from fenwick.rig import Rig, RigError, check_rig
from fenwick.rig.format.problems import Problem, split_path

MOST_REPAIRS = 25
DEEPEST = 3  #: branches of branches
#: what lines are usually made of: half of the figures are drawn from here, so that air moves at all
USUAL: dict[str, tuple[float, float]] = {
    "bore_m": (0.02, 0.15),
    "bore_in_m": (0.02, 0.15),
    "bore_out_m": (0.02, 0.15),
    "length_m": (0.2, 8.0),
    "radius_m": (0.05, 0.5),
    "inlet_bore_m": (0.03, 0.12),
    "outlet_d_m": (0.03, 0.12),
    "throat_d_m": (0.03, 0.1),
    "water_kg": (1.0, 30.0),
    "vessel_d_m": (0.2, 0.5),
    "immersion_m": (0.01, 0.3),
    "sealed_suction_pa": (5e3, 3e4),
    "open_flow_m3_s": (0.03, 0.12),
    "k": (0.1, 5.0),
    "area_m2": (0.001, 1.0),
    "leak_area_m2": (1e-6, 1e-3),
    "held_kg": (0.0, 1.0),
}
OPTIONAL = ("hood", "extra_fan", "lid", "relief", "bag", "filter", "dust", "gate", "dust_rate_kg_s", "price_to")
NOT_DRAWN = ("tuning", "guesses", "combinations", "claim", "stand", "end", "tool_end", "vacuum_end", "inlet_end")


@cache
def _schema() -> dict[str, Any]:
    return Rig.model_json_schema()


def random_rig(seed: int) -> Rig | None:
    """A rig that the reader accepts; None for the few seeds whose file cannot be put right."""
    rng = random.Random(seed)
    document = _value(rng, _schema(), "", 0)
    document |= {"format": "fenwick-rig", "version": 1}
    _fit(document, rng)
    _name(document, iter(range(10_000)))
    if document.get("dust") is not None:
        document["dust"] = {"kind": rng.choice(_names("DustPart", "kind"))}
    for _ in range(MOST_REPAIRS):
        try:
            return check_rig(document)
        except RigError as error:
            for problem in error.problems:
                with suppress(
                    KeyError, IndexError, TypeError, AttributeError
                ):  # an earlier one has taken its part away
                    _put_right(document, problem, rng)
    return None


def _names(part: str, key: str) -> list[str]:
    return [name for name in _schema()["$defs"][part]["properties"][key]["enum"] if name not in ("mixture", "own")]


def _value(rng: random.Random, schema: dict[str, Any], key: str, depth: int) -> Any:
    if "$ref" in schema:
        return _value(rng, _schema()["$defs"][schema["$ref"].rpartition("/")[2]], key, depth)
    ways = schema.get("anyOf", schema.get("oneOf"))
    if ways is not None:
        return _value(rng, _chosen(rng, ways), key, depth)
    if "const" in schema or "enum" in schema:
        return schema["const"] if "const" in schema else rng.choice(schema["enum"])
    makers: dict[str, Callable[[], Any]] = {
        "object": lambda: _thing(rng, schema, depth),
        "array": lambda: _list(rng, schema, key, depth),
        "boolean": lambda: rng.random() < 0.5,
        "integer": lambda: round(_number(rng, schema, key)),
        "number": lambda: _number(rng, schema, key),
        "string": lambda: "x",
    }
    return makers.get(schema.get("type", ""), lambda: None)()


def _chosen(rng: random.Random, ways: list[dict[str, Any]]) -> dict[str, Any]:
    """Of a union one; what may be absent mostly is."""
    absent = [way for way in ways if way.get("type") == "null"]
    if absent and rng.random() < 0.6:
        return absent[0]
    return rng.choice([way for way in ways if way.get("type") != "null"])


def _thing(rng: random.Random, schema: dict[str, Any], depth: int) -> dict[str, Any]:
    wanted = schema.get("required", [])
    found = {}
    for key, inner in schema["properties"].items():
        if key in NOT_DRAWN or (key not in wanted and rng.random() < 0.4):
            continue
        found[key] = _value(rng, inner, key, depth + (key == "branches"))
    return found


def _list(rng: random.Random, schema: dict[str, Any], key: str, depth: int) -> list[Any]:
    least = schema.get("minItems", 0)
    most = {"elements": 5, "branches": 3 if depth <= DEEPEST else 0, "points": 8, "rows": 6}.get(key, 3)
    return [_value(rng, schema["items"], key, depth) for _ in range(rng.randint(least, max(most, least)))]


def _number(rng: random.Random, schema: dict[str, Any], key: str) -> float:
    low = schema.get("minimum", schema.get("exclusiveMinimum", -1e6))
    high = schema.get("maximum", 1e6)
    usual = USUAL.get(key)
    draw = rng.random()
    if usual is not None and draw < 0.55:
        return rng.uniform(*usual)
    if draw > 0.92:
        return float(high)
    if draw > 0.84:
        return float(low) if "minimum" in schema else max(low, 1e-6 * high)
    if low < 0.0:
        return rng.uniform(low, high)
    return math.exp(rng.uniform(math.log(max(low, 1e-5 * high)), math.log(high)))


def _fit(value: Any, rng: random.Random) -> None:
    """What hangs together: a branch has a port or branches, a bin widens upwards, a curve falls."""
    if isinstance(value, list):
        for inner in value:
            _fit(inner, rng)
    if not isinstance(value, dict):
        return
    if "join_angle_deg" in value or "port" in value or {"id", "branches"} <= set(value):
        if value.get("branches"):
            value.pop("port", None)
        else:
            value.pop("branches", None)
            value["port"] = value.get("port") or _value(rng, _schema()["$defs"]["PortPart"], "port", 0)
    if isinstance(value.get("profile"), list):
        heights = sorted(rng.uniform(0.05, 1.0) for _ in value["profile"][1:])
        steps = [0.0, *(height + 1e-3 * i for i, height in enumerate(heights))]
        value["profile"] = [{"height_m": height, "d_m": rng.uniform(0.15, 0.8)} for height in steps]
    if isinstance(value.get("points"), list):
        count = len(value["points"])
        flows = sorted(rng.uniform(0.0, 0.1) + 1e-4 * i for i in range(count))
        most = rng.uniform(100.0, 40e3)
        value["points"] = [{"flow_m3_s": flow, "suction_pa": most * (1.0 - i / count)} for i, flow in enumerate(flows)]
    if isinstance(value.get("rows"), list):
        most = rng.uniform(1e3, 40e3)
        value["rows"] = [
            {"hole_diameter_m": 0.005 * (i + 1), "holes": 1, "suction_pa": most / (1.0 + i) ** 0.5}
            for i in range(len(value["rows"]))
        ]
    for inner in list(value.values()):
        _fit(inner, rng)


def _name(value: Any, numbers: Any) -> None:
    """Give every part an id of its own."""
    if isinstance(value, dict):
        if "id" in value:
            value["id"] = f"p{next(numbers)}"
        for inner in value.values():
            _name(inner, numbers)
    elif isinstance(value, list):
        for inner in value:
            _name(inner, numbers)


def _put_right(document: Any, problem: Problem, rng: random.Random) -> None:
    """Move a figure to the limit that the reader names, or take the part away that it objects to."""
    items = split_path(problem.path) if problem.path else []
    try:
        owner = _at(document, items[:-1])
        last = items[-1]
        if problem.rule.startswith("is missing"):
            if last not in USUAL and not str(last).endswith(("_m", "_d", "_kg", "_pa", "_m2", "_s")):
                raise KeyError(last)
            owner[last] = rng.uniform(*USUAL.get(str(last), (0.05, 0.3)))
        elif problem.limit is not None and isinstance(owner[last], int | float):
            low = "at least" in problem.rule or "above" in problem.rule
            owner[last] = problem.limit * rng.choice((1.0, 1.001, 1.5) if low else (1.0, 0.999, 0.5))
        elif isinstance(owner[last], int | float) and rng.random() < 0.7:
            owner[last] *= rng.choice((0.1, 0.5, 2.0, 10.0))
        else:
            raise KeyError(last)
    except (KeyError, IndexError, TypeError):
        _drop(document, items)


def _at(document: Any, items: list[str | int]) -> Any:
    here = document
    for item in items:
        here = here[item]
    return here


def _drop(document: Any, items: list[str | int]) -> None:
    """Take away the smallest thing around a place that may be missing."""
    for end in range(len(items), 1, -1):
        if isinstance(items[end - 1], int) and items[end - 2] in ("elements", "branches", "ledges", "stiffeners"):
            there = _at(document, items[: end - 1])
            if items[end - 2] != "branches" or len(there) > 1:
                there.pop(items[end - 1])
                return
        elif items[end - 1] in (
            "hood",
            "extra_fan",
            "lid",
            "relief",
            "bag",
            "filter",
            "dust",
            "gate",
            "dust_rate_kg_s",
        ):
            _at(document, items[: end - 1]).pop(items[end - 1], None)
            return
