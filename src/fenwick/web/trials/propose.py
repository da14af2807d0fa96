"""What to test: from what one wants to know and what one has got to the test that tells most for its minutes."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, fields

from fenwick.core.bench.trials.planning import GOALS, LEAST_TIME, MOST_TIME, Owned, Proposal, best_of_each
from fenwick.data.devices import devices_of
from fenwick.data.lines import LineState, line_names
from fenwick.data.variants import VariantLine
from fenwick.services.planning import planned_for, proposed, usual_lines, would_answer
from fenwick.services.trials import TrialBench, bench_of_states, workbench
from fenwick.units import BadNumberError, format_value, parse_value, unit_label
from fenwick.web.kit.database import session
from fenwick.web.kit.fields import Field
from fenwick.web.kit.pieces import Tick
from fenwick.web.trials.plan_form import plan_query
from fenwick.wording.planning import (
    GOAL_WORDS,
    MISSING_WORDS,
    made_how_words,
    tells_words,
    test_time_words,
    title_words,
)
from fenwick.wording.trials import caution

#: step of each instrument to (label, quantity, least, most)
STEPS = {
    "scale_step": ("Kitchen scale, in steps of", "weighed", 1e-6, 0.1),
    "scale_most": ("It carries", "weighed", 0.1, 300.0),
    "fine_step": ("A finer scale, in steps of", "weighed", 1e-6, 0.1),
    "gauge_step": ("Gauge or tube of water, in steps of", "suction", 0.1, 2e3),
    "force_step": ("Hanging scale, in steps of", "force", 1e-3, 50.0),
}
THINGS = {"ruler": "a ruler", "monitor": "a particle monitor", "phone": "a telephone"}
OF_DEVICES = {"scale": "scale_step", "manometer": "gauge_step"}  #: kind of a device of the shop to what it is here
SHOWN = 4  #: proposals


@dataclass(frozen=True)
class ShownProposal:
    """A test that could be made, in words."""

    title: str
    how: str
    tells: str
    answers: bool
    caution: str
    query: dict[str, str]  #: of the form that plans it


@dataclass(frozen=True)
class ProposeView:
    """The page."""

    state: LineState
    goal: str
    goals: Mapping[str, str]
    other: Field | None  #: the other line, where two builds are compared
    steps: tuple[Field, ...]
    things: tuple[Tick, ...]  #: what else one may have
    minutes: Field
    found: list[ShownProposal]
    missing: list[str]  #: what would answer it, in words

    @property
    def wrong(self) -> bool:
        """Whether something of what was typed cannot be."""
        return any(field.error for field in (*self.steps, self.minutes))


def propose_view(state: LineState, typed: Mapping[str, str], system: str) -> ProposeView:
    """Read what one has got, and say which test tells most for its minutes."""
    bench = workbench(state, system)
    shop = line_names(session(), state.id)
    goal = typed.get("want", "kept")
    goal = goal if goal in GOALS else "kept"
    owned, steps, minutes = _owned(typed, system)
    lines = dict(usual_lines(GOALS[goal][0], state.id, shop))
    chosen = typed.get("other", "")
    if 1 in lines and chosen in {str(number) for number, _ in shop}:
        lines[1] = int(chosen)
    plan = planned_for(goal, bench, lines, _told_apart(shop))
    trial = bench_of_states(session(), plan, bench, {k: VariantLine(line) for k, line in lines.items()})
    found = proposed(goal, owned, trial)
    answered = bool(found) and found[0].answers
    missing = [] if answered else would_answer(goal, owned, trial)
    return ProposeView(
        state=state,
        goal=goal,
        goals=GOAL_WORDS,
        other=_other(lines, shop, state.id),
        steps=steps,
        things=tuple(Tick(key, words, getattr(owned, key)) for key, words in THINGS.items()),
        minutes=minutes,
        found=[_shown(one, like, trial, lines, system) for one, like in best_of_each(found)[:SHOWN]],
        missing=[f"{MISSING_WORDS[one.key]} ({test_time_words(one.minutes)})" for one in missing],
    )


def _told_apart(shop: Sequence[tuple[int, str]]) -> dict[int, str]:
    """Names of lines, with their numbers where two are alike."""
    names = [name for _, name in shop]
    return {number: name if names.count(name) == 1 else f"{name} ({number})" for number, name in shop}


def _other(lines: Mapping[int, int], shop: Sequence[tuple[int, str]], here: int) -> Field | None:
    if 0 not in lines:
        return None
    choices = tuple((str(number), name) for number, name in shop if number != here)
    if not choices:
        return None
    return Field("other", "Against which line", str(lines.get(1, "")), choices=choices)


def _owned(typed: Mapping[str, str], system: str) -> tuple[Owned, tuple[Field, ...], Field]:
    """(what one has got, its fields, that of the time); what cannot be counts as not there."""
    asked = "want" in typed
    texts = dict(typed) if asked else _usual_texts(system)
    found: dict[str, float | bool | None] = {}
    rows = []
    for key, (label, quantity, least, most) in STEPS.items():
        value, field = _step(key, label, quantity, (least, most), texts, system)
        rows.append(field)
        if value is not None or key != "scale_most":
            found[key] = value
    found |= {key: (key in typed) if asked else bool(texts.get(key)) for key in THINGS}
    minutes, field = _time(texts)
    found["minutes"] = minutes
    assert set(found) <= {one.name for one in fields(Owned)}
    return Owned(**found), tuple(rows), field  # type: ignore[arg-type]


def _usual_texts(system: str) -> dict[str, str]:
    """What most have got, and what the shop has for devices."""
    kinds = {device.kind for device in devices_of(session())}
    texts = {"scale_step": 1e-3, "scale_most": 5.0}
    if "manometer" in kinds:
        texts["gauge_step"] = 10.0
    said = {key: format_value(value, STEPS[key][1], system, field=True) for key, value in texts.items()}
    return said | {"ruler": "on", "phone": "on", "monitor": "on" if "monitor" in kinds else "", "minutes": "120"}


def _step(
    key: str, label: str, quantity: str, ends: tuple[float, float], texts: Mapping[str, str], system: str
) -> tuple[float | None, Field]:
    text, unit, error = texts.get(key, "").strip(), unit_label(quantity, system), ""
    value = None
    if text:
        try:
            value = parse_value(text, quantity, system)
        except BadNumberError as bad:
            error = f"{str(bad)[:1].upper()}{str(bad)[1:]}"
        else:
            if not ends[0] <= value <= ends[1]:
                low, high = (format_value(end, quantity, system, field=True) for end in ends)
                value, error = None, f"From {low} to {high} {unit}."
    return value, Field(key, label, text, unit, optional=True, unknown=_nothing(key, system), error=error)


def _nothing(key: str, system: str) -> str:
    most = Owned().scale_most
    return format_value(most, "weighed", system, field=True) if key == "scale_most" else "none"


def _time(texts: Mapping[str, str]) -> tuple[float, Field]:
    text, error, value = texts.get("minutes", "").strip(), "", Owned().minutes
    if text:
        try:
            value = parse_value(text, "number", "metric")
        except BadNumberError as bad:
            error = f"{str(bad)[:1].upper()}{str(bad)[1:]}"
        else:
            if not LEAST_TIME <= value <= MOST_TIME:
                value, error = Owned().minutes, f"From {LEAST_TIME:.0f} to {MOST_TIME:.0f} min."
    return value, Field("minutes", "Time there is", text, "min", optional=True, unknown="two hours", error=error)


def _shown(
    one: Proposal, like: Sequence[str], trial: TrialBench, lines: Mapping[int, int], system: str
) -> ShownProposal:
    voice = trial.voice
    query = plan_query(one.plan, lines, system)
    return ShownProposal(
        title_words(one),
        made_how_words(one, voice, like),
        tells_words(one, voice),
        one.answers,
        caution(one.plan),
        query,
    )
