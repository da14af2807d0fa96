"""The states of a plan on its form: what each is called, which line of the shop it is, and how it stands."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import degrees, radians

from fenwick.core.bench.trials.plan import KINDS, MOST_VARIANTS, Condition, Plan
from fenwick.core.bench.trials.usual import USUAL_CONDITIONS
from fenwick.core.components.dust import DUSTS
from fenwick.services.planning import usual_lines
from fenwick.units import BadNumberError, format_value, parse_value, unit_label
from fenwick.web.kit.fields import Field
from fenwick.wording.trials import TEST_KINDS

#: kinds of test whose states may be other lines of the shop
LINES_OF = ("builds", "tilt", "slot", "hose", "hood")


@dataclass(frozen=True)
class PlannedStates:
    """What the form says of the states of a plan."""

    names: tuple[str, ...]
    lines: Mapping[int, int]  #: ids of those that are lines of the shop, by their places
    conditions: tuple[Condition, ...]
    rows: tuple[tuple[Field, ...], ...]  #: fields of each state; none where nothing is compared
    wrong: bool


def planned_states(
    kind: str, typed: Mapping[str, str], here: int, shop: Sequence[tuple[int, str]], system: str
) -> PlannedStates:
    """The states as they were typed, each error beside its field.

    Parameters
    ----------
    kind : of the test
    typed : the fields as they came
    here : id of the line that it is planned on
    shop : (id, name) of every line of the shop
    system : of units
    """
    if not KINDS[kind].compares:
        return PlannedStates(TEST_KINDS[kind].states, {}, (), (), wrong=False)
    given = any(f"variant_{i}" in typed for i in range(MOST_VARIANTS)) and typed.get("kind_was", kind) == kind
    texts = dict(typed) if given else _usual_texts(kind, here, shop, system)
    names: list[str] = []
    lines: dict[int, int] = {}
    conditions: list[Condition] = []
    rows: list[tuple[Field, ...]] = []
    wrong = False
    for i in range(MOST_VARIANTS):
        row, named, line, condition = _state(kind, i, texts, shop, system)
        rows.append(row)
        if not named:
            continue
        if line is not None:
            lines[len(names)] = line
        names.append(named)
        conditions.append(condition)
        wrong = wrong or any(field.error for field in row)
    return PlannedStates(_told_apart(names, lines), lines, tuple(conditions), tuple(rows), wrong)


def state_query(plan: Plan, lines: Mapping[int, int], system: str) -> dict[str, str]:
    """The states of a plan as their fields would send them."""
    if not KINDS[plan.kind].compares:
        return {}
    texts = {f"variant_{i}": name for i, name in enumerate(plan.variants)}
    texts |= {f"line_{i}": str(number) for i, number in lines.items()}
    for i in range(len(plan.variants)):
        texts |= _condition_texts(plan.condition(i), i, system)
    return texts


def _condition_texts(condition: Condition, i: int, system: str) -> dict[str, str]:
    texts = {f"dust_{i}": condition.dust} if condition.dust else {}
    if condition.lean is not None:
        texts[f"lean_{i}"] = format_value(degrees(condition.lean), "angle", system, field=True)
    if condition.level is not None:
        texts[f"level_{i}"] = format_value(condition.level, "share", system, field=True)
    return texts


def _told_apart(names: list[str], lines: Mapping[int, int]) -> tuple[str, ...]:
    """Two states that are one line, and called after it, are told apart by their number."""
    return tuple(
        f"{name} ({names[:i].count(name) + 1})" if i in lines and name in names[:i] else name
        for i, name in enumerate(names)
    )


def _usual_texts(kind: str, here: int, shop: Sequence[tuple[int, str]], system: str) -> dict[str, str]:
    """What the fields begin as."""
    texts = {f"variant_{i}": name for i, name in enumerate(TEST_KINDS[kind].states)}
    for i, condition in enumerate(USUAL_CONDITIONS.get(kind, ())):
        texts |= _condition_texts(condition, i, system)
    names = dict(shop)
    for i, number in usual_lines(kind, here, shop).items():
        texts |= {f"line_{i}": str(number), f"variant_{i}": names.get(number, "")}
    return texts


def _state(
    kind: str, i: int, texts: Mapping[str, str], shop: Sequence[tuple[int, str]], system: str
) -> tuple[tuple[Field, ...], str, int | None, Condition]:
    """(fields, name, line, condition) of one state."""
    names = {str(number): name for number, name in shop}
    line = texts.get(f"line_{i}", "") if kind in LINES_OF else ""
    line = line if line in names else ""
    name = texts.get(f"variant_{i}", "").strip()[:60]
    if line and (not name or name in (*names.values(), *TEST_KINDS[kind].states)):
        name = names[line][:60]  # a state that is a line is called what the line is called, unless one says otherwise
    label = "First: the others are held to it" if i == 0 else f"Against it{'' if i == 1 else ', too'}"
    fields = [Field(f"variant_{i}", label, name, optional=i > 1, free_text=True, unknown="nothing more")]
    if kind in LINES_OF and len(shop) > 1:
        unknown = "only named" if i and kind != "tilt" else "this line"
        choices = tuple(names.items())
        fields.append(Field(f"line_{i}", "Line of the shop", line, choices=choices, optional=True, unknown=unknown))
    lean = level = None
    dust = ""
    if kind == "tilt":
        lean, field = _figure(texts, f"lean_{i}", "Leaning by", "angle", 90.0, system, bool(name))
        fields.append(field)
    if kind == "fill":
        level, field = _figure(texts, f"level_{i}", "Filled to", "share", 1.0, system, bool(name))
        fields.append(field)
    if kind == "dust":
        dust = texts.get(f"dust_{i}", "") if texts.get(f"dust_{i}", "") in DUSTS else ""
        dusts = tuple((key, one.label) for key, one in DUSTS.items())
        fields.append(Field(f"dust_{i}", "Dust fed", dust, choices=dusts, optional=True, unknown="that of the line"))
    condition = Condition(None if lean is None else radians(lean), level, dust)
    return tuple(fields), name, int(line) if line else None, condition


def _figure(
    texts: Mapping[str, str], key: str, label: str, quantity: str, most: float, system: str, there: bool
) -> tuple[float | None, Field]:
    """(figure as it is stored, its field); None where nothing, or nothing that can be, was typed."""
    text = texts.get(key, "").strip()
    unit, error, value = unit_label(quantity, system), "", None
    if text:
        try:
            value = parse_value(text, quantity, system)
        except BadNumberError as bad:
            error = f"{str(bad)[:1].upper()}{str(bad)[1:]}"
        else:
            if not 0.0 <= value <= most:
                top = format_value(most, quantity, system, field=True)
                value, error = None, f"From 0 to {top} {unit}."
    if error and not there:
        error = ""
    return value, Field(key, label, text, unit, optional=True, unknown="as its line stands", error=error)
