"""The strip under the drawing: the picked part, how to hook the line up, or what to measure next."""

from __future__ import annotations

from dataclasses import dataclass, replace

from fenwick.core.line.line import Line
from fenwick.data.lines import LineState
from fenwick.rig import Rig
from fenwick.rig.edits.measure import GuessEffect, measure_next
from fenwick.rig.format.describe import FieldFacts
from fenwick.services.advice import changes_for
from fenwick.units import format_value
from fenwick.web.kit.editor import rig_field
from fenwick.web.kit.fields import Field
from fenwick.web.kit.pieces import Refused
from fenwick.wording.hookup import HookUp, hook_up
from fenwick.wording.measure import how_to_measure, what_hangs_on_it
from fenwick.wording.say import Voice
from fenwick.wording.whatif import TIME_WORDS, suggestion, with_the_time

PART, HOOKUP, MEASURE = "part", "hookup", "measure"
FIRST_MEASURES = 3  #: shown before the rest is asked for


@dataclass(frozen=True)
class MeasureRow:
    """One guess, ready to be replaced by a measurement."""

    part: str
    key: str
    name: str
    field: Field
    range: str
    effect: str
    how: str


@dataclass(frozen=True)
class WayLink:
    """Where the search for the whole way begins."""

    words: str
    spend: str
    hours: str


@dataclass(frozen=True)
class Panel:
    """What the strip shows."""

    key: str
    guesses: int  #: how many values of the line nobody has measured
    hook_up: HookUp | None = None
    rows: tuple[MeasureRow, ...] = ()
    more: int = 0  #: further guesses, not shown
    time: str = ""  #: what to do with the time there is
    way: WayLink | None = None  #: to all that can be done with it, and with the money


@dataclass(frozen=True)
class PanelChoice:
    """Which panel is asked for, and what was just refused in it."""

    key: str = PART
    everything: bool = False  #: all guesses rather than the first few
    time: str | None = None  #: how much there is, a key of TIME_WORDS
    spend: str = ""  #: money there is, as it was said
    hours: str = ""  #: likewise, hours
    refused: Refused | None = None  #: a measurement


def open_panel(choice: PanelChoice, state: LineState, line: Line, port: int, voice: Voice) -> Panel:
    """The panel asked for, at a port."""
    rig = state.rig
    guesses = len(rig.guesses)
    if choice.key == HOOKUP:
        rows, more = _rows(rig, port, voice, choice)
        in_time, way = _in_the_time(choice, state, port, voice), _way(choice, state)
        return Panel(HOOKUP, guesses, hook_up(line, port, voice), rows, more, in_time, way)
    if choice.key == MEASURE and guesses:
        rows, more = _rows(rig, port, voice, choice)
        return Panel(MEASURE, guesses, None, rows, more)
    return Panel(PART, guesses)


def _in_the_time(choice: PanelChoice, state: LineState, port: int, voice: Voice) -> str:
    if choice.time not in TIME_WORDS:
        return ""
    changes = changes_for(state.rig, state.owned, port)
    return with_the_time([suggestion(outcome, voice) for outcome in changes], choice.time)


def _way(choice: PanelChoice, state: LineState) -> WayLink | None:
    if not choice.spend and not choice.hours:
        return None
    money = state.owned.money if state.owned else "€"
    said = [f"{choice.spend} {money}"] if choice.spend else []
    said += [TIME_WORDS[choice.time]] if choice.time in TIME_WORDS else []
    return WayLink(f"What to do with {' and '.join(said) or 'what you have'}", choice.spend, choice.hours)


def _rows(rig: Rig, port: int, voice: Voice, choice: PanelChoice) -> tuple[tuple[MeasureRow, ...], int]:
    effects = measure_next(rig, port) if rig.guesses else []
    shown = effects if choice.everything else effects[:FIRST_MEASURES]
    return tuple(_row(effect, rig, voice, choice) for effect in shown), len(effects) - len(shown)


def _row(effect: GuessEffect, rig: Rig, voice: Voice, choice: PanelChoice) -> MeasureRow:
    guess = effect.guess
    document = rig.model_dump(mode="json")
    field = replace(rig_field(rig, document, effect.path, voice.system), guess=False)
    full = f"{guess.part}.{guess.key}"
    if choice.refused and choice.refused.key == full:
        field = replace(field, text=choice.refused.text, error=choice.refused.error)
    owner = "" if guess.part == "dust" else voice.name(guess.part)
    return MeasureRow(
        part=guess.part,
        key=guess.key,
        name=f"{owner}: {field.label.lower()}" if owner else field.label,
        field=field,
        range=_range(effect, effect.facts, voice),
        effect=what_hangs_on_it(effect.spread, voice) or "hardly anything",
        how=how_to_measure(full),
    )


def _range(effect: GuessEffect, facts: FieldFacts, voice: Voice) -> str:
    guess = effect.guess
    if guess.low is None or guess.high is None:
        return ""
    quantity = facts.quantity or "number"
    low, high = (format_value(end, quantity, voice.system, field=True) for end in (guess.low, guess.high))
    return f"{low} to {high}"
