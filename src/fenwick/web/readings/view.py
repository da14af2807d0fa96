"""What the page of readings and tuning shows, prepared as plain values."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from markupsafe import Markup

from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.line.line import Line
from fenwick.core.tuning.candidates import FED, readable
from fenwick.core.tuning.fit import (
    Fit,
    Worth,
    believed_before,
    figures_at,
    miss_level,
    next_readings,
    stretched,
    stretched_share,
)
from fenwick.core.tuning.readings import FLOW, KEPT, KINDS, Reading
from fenwick.data.devices import DeviceState, devices_of
from fenwick.data.lines import LineState
from fenwick.data.readings import Taken
from fenwick.drawing.factor_bars import render_factor
from fenwick.rig import Rig
from fenwick.rig.to_core.line import described_line
from fenwick.rig.voice import voice_for
from fenwick.services.readings import station_kinds, tune, tuned_figures, tuned_rig
from fenwick.units import unit_label
from fenwick.web.kit.database import session
from fenwick.web.kit.paging import Paging
from fenwick.web.kit.pieces import BeforeAfter
from fenwick.web.readings.form import ReadingForm, reading_form
from fenwick.web.readings.holes import drawn_holes
from fenwick.wording.say import Voice
from fenwick.wording.tuning import (
    HOW,
    FactorRow,
    doubt_words,
    factor_rows,
    next_words,
    reading_figure,
    reading_words,
    stations,
)

MOST_NEXT = 3
FIGURES = {KEPT: ("Kept in the bin", "share"), FLOW: ("Air at the tool", "flow")}


@dataclass(frozen=True)
class ShownReading:
    """One reading."""

    id: int
    words: str
    value: str
    before: str
    after: str
    miss: str
    others: str  #: what the line would show by all the other readings
    level: str
    note: str
    on: str
    left_out: str


ON_A_PAGE = 50  #: readings


@dataclass(frozen=True)
class ReadingsView:
    """The page."""

    state: LineState
    form: ReadingForm
    how: str
    rows: list[ShownReading]
    factors: list[tuple[FactorRow, Markup]]
    fixed: int
    doubt: str
    next: list[tuple[str, str]]
    holes: dict[str, Markup]  #: the line with its gauges, wide and narrow
    hole_unit: str  #: of the gauges
    devices: list[DeviceState]  #: that can tell the reading asked for
    expected: str  #: what the reading that is typed should show; empty: not known
    asked: str
    figures: list[tuple[str, str]]
    tuned: bool | None  #: whether the line is tuned; None: it has no factors
    can_tune: bool
    changed: list[BeforeAfter]  #: as described, and tuned
    pages: Paging  #: of the readings, the last ones first


def readings_view(
    state: LineState, taken: list[Taken], system: str, typed: Mapping[str, str], asked: str, pages: Paging
) -> ReadingsView:
    """Fit the line and prepare the page."""
    rig = state.rig
    voice, line = voice_for(rig, system), described_line(rig)
    kinds = station_kinds(line)
    form = reading_form(line, voice, kinds, typed)
    fitted = tune(rig, taken)
    asked = asked if asked in FIGURES else KEPT
    bars = {one.key: render_factor(one) for one in fitted.fitted()} if fitted else {}
    rows = factor_rows(fitted, voice) if fitted else []
    so_far = fitted or believed_before(line)
    worth = _worth(so_far, line, kinds, asked, voice)
    best = next((one.reading for one in worth if one.reading.kind != KEPT), None)  # a mass is read at no hole
    return ReadingsView(
        state=state,
        form=form,
        how=HOW.get(form.fields[0].text, ""),
        rows=_rows(taken, fitted, voice, slice(max(0, len(taken) - pages.skip - ON_A_PAGE), len(taken) - pages.skip)),
        pages=pages,
        factors=[(row, bars[row.key]) for row in rows],
        fixed=sum(row.fixed for row in rows),
        doubt=doubt_words(fitted, voice) if fitted else "",
        next=[next_words(one, voice) for one in worth[:MOST_NEXT]],
        holes=drawn_holes(state, so_far, taken, stations(kinds, voice), picked_in(form), best, voice),
        hole_unit=unit_label("suction", system),
        devices=_devices(form),
        expected=_expected(so_far, form, voice),
        asked=asked,
        figures=[(key, words) for key, (words, _) in FIGURES.items()],
        tuned=None if rig.tuning is None else rig.tuning.on,
        can_tune=fitted is not None and not fitted.doubted and rig != tuned_rig(rig, fitted),
        changed=_changed(rig, fitted, line, voice) if fitted else [],
    )


def _rows(taken: list[Taken], fitted: Fit | None, voice: Voice, shown: slice) -> list[ShownReading]:
    rows, counted = [], -1
    places = {place: at for at, place in enumerate(fitted.used)} if fitted else {}
    wanted = range(len(taken))[shown]
    for i, one in enumerate(taken):
        counted += not one.left_out
        if i not in wanted:
            continue
        before = after = miss = level = others = ""
        if not one.left_out:
            if fitted is not None and counted in places:
                at = places[counted]
                before = reading_figure(one.reading, float(fitted.before[at]), voice)
                after = reading_figure(one.reading, float(fitted.after[at]), voice)
                off = float(fitted.misses[at])
                miss = f"{abs(off):.1f} × its uncertainty {'above' if off > 0 else 'below'}"
                if len(fitted.used) > 1:
                    alone = one.reading.value - float(fitted.left_out[at]) * one.reading.sd
                    others = f"the others alone say {reading_figure(one.reading, max(alone, 0.0), voice)}"
                level = LEVEL_WORDS[miss_level(off)]
            elif fitted is not None:
                miss = "the model cannot speak of it"
        rows.append(
            ShownReading(
                one.id,
                reading_words(one.reading, voice),
                f"{reading_figure(one.reading, one.reading.value, voice)} ± {_plain(one.reading, voice)}",
                before,
                after,
                miss,
                others,
                level,
                one.note,
                one.on,
                one.left_out,
            )
        )
    return rows


def _plain(reading: Reading, voice: Voice) -> str:
    return reading_figure(reading, reading.sd, voice)


def _devices(form: ReadingForm) -> list[DeviceState]:
    """The shop's gauges, where a suction is asked for."""
    if KINDS.get(form.fields[0].text) != "suction":
        return []
    return [device for device in devices_of(session()) if device.kind == "manometer"]


def _worth(fitted: Fit, line: Line, kinds: Mapping[str, str], asked: str, voice: Voice) -> list[Worth]:
    """The readings worth taking for a figure, the one that tells most first."""
    port = next((leaf.id for leaf in line.leaves if leaf.open), line.leaves[0].id)
    places = [name for name, _ in stations(kinds, voice)]
    candidates = readable(line, places, FED)
    figure_asked = Reading(asked, 0.0, 1.0, port)
    found = [one for one in next_readings(fitted, candidates, figure_asked) if one.before > 0.0]
    return [one for one in found if one.after < 0.98 * one.before]


def _changed(rig: Rig, fitted: Fit, line: Line, voice: Voice) -> list[BeforeAfter]:
    """The figures that matter, as described and as tuned, with their 90 % intervals."""
    port = next((leaf.id for leaf in line.leaves if leaf.open), line.leaves[0].id)
    told = []
    for one in tuned_figures(rig, fitted, port):
        words, quantity = FIGURES[one.kind]
        was, now = (
            f"{voice.figure(found.value, quantity)}, {voice.figure(found.low, quantity, unit=False)} to "
            f"{voice.figure(found.high, quantity)}"
            for found in (one.described, one.tuned)
        )
        told.append(BeforeAfter(words, was, now))
    return told


def picked_in(form: ReadingForm) -> Reading:
    """What the form asks for; its value nothing yet."""
    given = {one.path: one.text for one in form.fields}
    places = [code for one in form.fields if one.path == "station" for code, _ in one.choices]
    station = given.get("station") or (places[0] if places else "")
    where = "" if given["kind"] in (FLOW, KEPT) else station
    return Reading(given["kind"], 0.0, 1.0, given.get("port", ""), where, given.get("dust", ""))


def _expected(fitted: Fit, form: ReadingForm, voice: Voice) -> str:
    """What the line should show where the form asks, by what is known of it so far."""
    asked = picked_in(form)
    places = [code for one in form.fields if one.path == "station" for code, _ in one.choices]
    if asked.kind not in KINDS or (asked.station and asked.station not in places):
        return ""
    found = figures_at(fitted, asked)
    if found is None:
        return ""
    value, sd = found[1]
    low, high = stretched_share(value, sd) if asked.kind == KEPT else stretched(value, sd)
    return (
        f"This line should show {reading_figure(asked, value, voice)}; "
        f"{reading_figure(asked, low, voice)} to {reading_figure(asked, high, voice)} would be no surprise."
    )
