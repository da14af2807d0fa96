"""The form of a plan: what is tested, with what, how often; and the plan it makes."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from fenwick.core.bench.trials.plan import KINDS, MASSES, MOST_VARIANTS, WAYS, Plan, Setup
from fenwick.core.bench.trials.usual import NEEDS, usual_plan
from fenwick.core.components.dust import DUSTS
from fenwick.core.line.line import Line
from fenwick.trials.document import plan_problems
from fenwick.units import BadNumberError, format_value, parse_value, unit_label
from fenwick.web.kit.fields import Field
from fenwick.wording.say import Voice
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
    fields: tuple[Field, ...]  #: of the plan
    states: tuple[Field, ...]  #: names of what is compared
    tools: tuple[Field, ...]  #: of the instruments

    @property
    def wrong(self) -> bool:
        """Whether something in it is."""
        return any(field.error for field in (*self.fields, *self.states, *self.tools))


def plan_form(line: Line, voice: Voice, kinds: Mapping[str, str], typed: Mapping[str, str], seed: int) -> PlanForm:
    """The form with what was typed, each error beside its field.

    Parameters
    ----------
    line, voice, kinds : the line, its words, and the kind of each of its stations
    typed : the fields as they came
    seed : of the order of runs
    """
    kind = typed.get("kind", "separation")
    kind = kind if kind in KINDS else "separation"
    ways = KINDS[kind].ways
    way = typed.get("way", "")
    way = way if way in ways else ways[0]
    usual = usual_plan(line, kind, way, TEST_KINDS[kind].states, seed)
    typed = _of_this_way(typed)
    plan, errors = _read(usual, typed, voice.system)
    problems = plan_problems(plan)
    errors |= {key: words for key, words in problems.items() if key not in errors}
    plan = _without(plan, usual, problems)
    return _laid_out(plan, line, voice, kinds, typed, errors)


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
    names = tuple(
        typed[f"variant_{i}"].strip()[:60] for i in range(MOST_VARIANTS) if typed.get(f"variant_{i}", "").strip()
    )
    if any(f"variant_{i}" in typed for i in range(MOST_VARIANTS)):
        own["variants"] = names
        if KINDS[plan.kind].compares and len(names) < 2:
            errors["variants"] = "Name two states at least: this test compares."
    own |= {key: typed[key] for key in ("port", "station") if key in typed}
    if typed.get("dust") in DUSTS:
        own["dust"] = typed["dust"]
    return replace(plan, setup=setup, **own), errors


def _of_this_way(typed: Mapping[str, str]) -> Mapping[str, str]:
    """What was typed, less a figure whose unit went with another way of reading."""
    if typed.get("way_was", typed.get("way")) == typed.get("way"):
        return typed
    return {key: text for key, text in typed.items() if key not in ("hoped", "repeats")}


def plan_query(plan: Plan, system: str) -> dict[str, str]:
    """A plan as its form would send it, to plan the same again."""
    names = {f"variant_{i}": name for i, name in enumerate(plan.variants)} if KINDS[plan.kind].compares else {}
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
    plan: Plan,
    line: Line,
    voice: Voice,
    kinds: Mapping[str, str],
    typed: Mapping[str, str],
    errors: Mapping[str, str],
) -> PlanForm:
    ways = tuple((key, WAY_WORDS[key]) for key in KINDS[plan.kind].ways)
    first = [Field("way", "Read with", plan.way, choices=ways, error=errors.get("way", ""))]
    if plan.way == MASSES:
        first.append(Field("catch", "For what gets past, weigh", plan.setup.catch, choices=tuple(CATCH_WORDS.items())))
    if plan.way in SUCTION_AT:
        places = stations(kinds, voice)
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
    return PlanForm(plan, tuple(first), _states(plan, typed, errors), tuple(tools))


def _states(plan: Plan, typed: Mapping[str, str], errors: Mapping[str, str]) -> tuple[Field, ...]:
    if not KINDS[plan.kind].compares:
        return ()
    fields = []
    for i in range(MOST_VARIANTS):
        usual = plan.variants[i] if i < len(plan.variants) else ""
        label = "First: the others are held to it" if i == 0 else f"Against it{'' if i == 1 else ', too'}"
        text = typed.get(f"variant_{i}", usual)
        error = errors.get("variants", "") if i == 0 else ""
        fields.append(
            Field(f"variant_{i}", label, text, optional=i > 1, error=error, free_text=True, unknown="nothing more")
        )
    return tuple(fields)


def _number_field(key: str, plan: Plan, system: str, typed: Mapping[str, str], errors: Mapping[str, str]) -> Field:
    quantity = _quantity(key, plan)
    value = getattr(plan, key) if hasattr(plan, key) else getattr(plan.setup, key)
    usual = str(value) if key in COUNTS else format_value(float(value), quantity, system, field=True)
    text = typed.get(key, "") or usual
    return Field(key, NUMBERS[key][0], text, unit_label(quantity, system), error=errors.get(key, ""))
