"""The form of a plan: what is tested, with what, how often; and the plan it makes."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from fenwick.core.bench.trials.amount import amount_to_feed, seconds_to_feed
from fenwick.core.bench.trials.judge import Lies
from fenwick.core.bench.trials.plan import KINDS, MASSES, WAYS, Plan, Setup
from fenwick.core.bench.trials.usual import NEEDS, usual_plan, worth_knowing
from fenwick.core.components.dust import DUSTS
from fenwick.services.trials import Workbench
from fenwick.trials.document import plan_problems
from fenwick.units import BadNumberError, format_value, parse_value, unit_label
from fenwick.web.kit.fields import Field
from fenwick.web.trials.state_fields import PlannedStates, planned_states, state_query
from fenwick.wording.trials import CATCH_WORDS, TEST_KINDS, WAY_WORDS
from fenwick.wording.tuning import stations

#: number of the plan to (label, quantity)
NUMBERS = {
    "repeats": ("Runs of each", "number"),
    "hoped": ("Worth knowing of", ""),
    "fed": ("Fed in each run", "weighed"),
    "feed_seconds": ("Fed over", "seconds"),
    "bin_step": ("Step of the scale, bin", "weighed"),
    "past_step": ("Step of the scale, the rest", "weighed"),
    "repeat_sd": ("Same weighing scatters by", "weighed"),
    "ruler_step": ("Step of the ruler", "bore"),
    "gauge_step": ("Step of the gauge", "suction"),
    "force_step": ("Step of the scale", "force"),
    "squares": ("Squares on the sheet", "number"),
}
COUNTS = ("repeats", "squares")
ALWAYS = ("repeats", "hoped")
SUCTION_AT = ("suction", "drop")


@dataclass(frozen=True)
class PlanForm:
    """The form as it was typed."""

    plan: Plan  #: what could be read of it; the usual elsewhere
    lines: Mapping[int, int]  #: ids of the lines that its states are, by their places
    fields: tuple[Field, ...]  #: of the plan
    states: tuple[tuple[Field, ...], ...]  #: of each state that is compared
    tools: tuple[Field, ...]  #: of the instruments

    @property
    def wrong(self) -> bool:
        """Whether something in it is."""
        return any(f.error for f in (*self.fields, *self.tools)) or any(f.error for row in self.states for f in row)


def plan_form(bench: Workbench, shop: Sequence[tuple[int, str]], typed: Mapping[str, str], seed: int) -> PlanForm:
    """The form with what was typed, each error beside its field.

    Parameters
    ----------
    bench : the line that it is planned on
    shop : (id, name) of every line of the shop
    typed : the fields as they came
    seed : of the order of runs
    """
    voice = bench.voice
    kind = typed.get("kind", "separation")
    kind = kind if kind in KINDS else "separation"
    ways = KINDS[kind].ways
    way = typed.get("way", "")
    way = way if way in ways else ways[0]
    states = planned_states(kind, typed, bench.state.id, shop, voice.system)
    usual = _usual(bench, kind, way, states, seed)
    typed = _of_this_way(typed)
    plan, errors = _read(usual, typed, voice.system)
    plan = replace(plan, variants=states.names, conditions=states.conditions)
    if KINDS[kind].compares and len(states.names) < 2:
        errors["variants"] = "Name two states at least: this test compares."
    problems = plan_problems(plan)
    errors |= {key: words for key, words in problems.items() if key not in errors}
    plan = _without(plan, usual, problems)
    return _laid_out(plan, states, bench, typed, errors)


def _usual(bench: Workbench, kind: str, way: str, states: PlannedStates, seed: int) -> Plan:
    """What the plan begins as: how much is fed and what is worth knowing follow what the model expects."""
    plan = usual_plan(bench.line, kind, way, TEST_KINDS[kind].states, seed)
    plan = replace(plan, variants=states.names or plan.variants, conditions=states.conditions)
    found = bench.expects(plan)
    expected = None if found is None else found.value
    plan = replace(plan, hoped=worth_knowing(way, expected))
    if not WAYS[way].feeds:
        return plan
    fed = amount_to_feed(plan, expected, Lies(bench.bin, bench.bulk_density(plan)))
    return replace(plan, fed=fed, feed_seconds=seconds_to_feed(fed))


def _without(plan: Plan, usual: Plan, wrong: Mapping[str, str]) -> Plan:
    """The plan with what cannot be in it as it usually is, so that the page can still say what the rest will tell."""
    setup: dict[str, Any] = {key: getattr(usual.setup, key) for key in wrong if hasattr(Setup, key)}
    own: dict[str, Any] = {key: getattr(usual, key) for key in wrong if key not in setup and hasattr(usual, key)}
    return replace(plan, **own, setup=replace(plan.setup, **setup))


def _read(plan: Plan, typed: Mapping[str, str], system: str) -> tuple[Plan, dict[str, str]]:
    errors: dict[str, str] = {}
    found: dict[str, float] = {}
    for key in (*ALWAYS, *NEEDS.get(plan.way, ())):
        text = typed.get(key, "").strip()
        if not text:
            continue
        try:
            found[key] = _number(key, text, plan, system)
        except BadNumberError as error:
            errors[key] = f"{str(error)[:1].upper()}{str(error)[1:]}"
    steps: dict[str, Any] = {k: _as(k, v) for k, v in found.items() if hasattr(Setup, k)}
    setup = replace(plan.setup, catch=typed.get("catch", plan.setup.catch), **steps)
    own: dict[str, Any] = {k: _as(k, v) for k, v in found.items() if not hasattr(Setup, k)}
    own |= {key: typed[key] for key in ("port", "station") if key in typed}
    if typed.get("dust") in DUSTS:
        own["dust"] = typed["dust"]
    return replace(plan, setup=setup, **own), errors


def _of_this_way(typed: Mapping[str, str]) -> Mapping[str, str]:
    """What was typed, less a figure whose unit went with another way of reading."""
    if typed.get("way_was", typed.get("way")) == typed.get("way"):
        return typed
    return {key: text for key, text in typed.items() if key not in ("hoped", "repeats")}


def plan_query(plan: Plan, lines: Mapping[int, int], system: str) -> dict[str, str]:
    """A plan as its form would send it, to plan the same again."""
    names = state_query(plan, lines, system)
    words = {"kind": plan.kind, "way": plan.way, "port": plan.port, "station": plan.station, "dust": plan.dust}
    numbers = {key: _number_field(key, plan, system, {}, {}).text for key in (*ALWAYS, *NEEDS.get(plan.way, ()))}
    return {**words, "catch": plan.setup.catch, **names, **numbers}


def _quantity(key: str, plan: Plan) -> str:
    return NUMBERS[key][1] or WAYS[plan.way].quantity


def _number(key: str, text: str, plan: Plan, system: str) -> float:
    value = parse_value(text, _quantity(key, plan), system)
    if key in COUNTS and value != int(value):
        raise BadNumberError(text, "A whole number.")
    return value


def _as(key: str, value: float) -> float:
    return int(value) if key in COUNTS else value


def _laid_out(
    plan: Plan, states: PlannedStates, bench: Workbench, typed: Mapping[str, str], errors: Mapping[str, str]
) -> PlanForm:
    line, voice = bench.line, bench.voice
    ways = tuple((key, WAY_WORDS[key]) for key in KINDS[plan.kind].ways)
    first = [Field("way", "Read with", plan.way, choices=ways, error=errors.get("way", ""))]
    if plan.way == MASSES:
        first.append(Field("catch", "For what gets past, weigh", plan.setup.catch, choices=tuple(CATCH_WORDS.items())))
    if plan.way in SUCTION_AT:
        places = stations(bench.kinds, voice)
        first.append(Field("station", "Read", plan.station, choices=places, optional=True, unknown="as you name it"))
    ports = tuple((leaf.id, leaf.port.name) for leaf in line.leaves)
    if len(ports) > 1:
        first.append(Field("port", "At the port of", plan.port, choices=ports))
    if WAYS[plan.way].feeds and plan.way != "carry" and plan.kind != "dust":
        dusts = tuple((key, dust.label) for key, dust in DUSTS.items())
        first.append(Field("dust", "Dust fed", plan.dust, choices=dusts, optional=True, unknown="that of the line"))
    # grades have no distance, so that no difference of them is worth more than another
    always = ("repeats",) if WAYS[plan.way].ordinal else ALWAYS
    first += [_number_field(key, plan, voice.system, typed, errors) for key in always]
    tools = [_number_field(key, plan, voice.system, typed, errors) for key in NEEDS.get(plan.way, ())]
    first += [field for field in tools if field.path in ("fed", "feed_seconds")]
    tools = [field for field in tools if field.path not in ("fed", "feed_seconds")]
    rows = tuple(
        tuple(replace(f, error=f.error or (errors.get("variants", "") if f.path == "variant_0" else "")) for f in row)
        for row in states.rows
    )
    return PlanForm(plan, states.lines, tuple(first), rows, tuple(tools))


def _number_field(key: str, plan: Plan, system: str, typed: Mapping[str, str], errors: Mapping[str, str]) -> Field:
    quantity = _quantity(key, plan)
    value = getattr(plan, key) if hasattr(plan, key) else getattr(plan.setup, key)
    usual = str(value) if key in COUNTS else format_value(float(value), quantity, system, field=True)
    text = typed.get(key, "") or usual
    return Field(key, NUMBERS[key][0], text, unit_label(quantity, system), error=errors.get(key, ""))
