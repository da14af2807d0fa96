"""The work that is left on the days one has."""

from __future__ import annotations

from datetime import datetime, timedelta

from markupsafe import Markup

from fenwick.core.making.schedule import TimeSlot
from fenwick.drawing.timeline import render_timeline
from fenwick.services.making_files import step_name
from fenwick.web.build.hand import InHand
from fenwick.wording.making.progress import PHASE_TITLES, phase_of

RUN_STEP = "first-run"


def plan_picture(hand: InHand, slots: tuple[TimeSlot, ...], now: datetime) -> Markup:
    """The plan as SVG.

    Parameters
    ----------
    now : local time
    """
    midnight = now.replace(hour=0, minute=0, second=0, microsecond=0)
    days = [(midnight + timedelta(days=d)).strftime("%A" if d < 7 else "%-d %b") for d in range(400)]
    phase = {slot.step: phase_of(slot.step) for slot in slots}
    names = {step.id: step_name(step) for step in hand.found.steps}
    since = (now - midnight).total_seconds()
    return render_timeline(
        slots, phase, PHASE_TITLES, names, days, since, f"{_end_word(slots)} {_clock(slots, midnight)}", "plan-of-work"
    )


def _end_word(slots: tuple[TimeSlot, ...]) -> str:
    return "runs" if any(slot.step == RUN_STEP for slot in slots) else "ready"


def _clock(slots: tuple[TimeSlot, ...], midnight: datetime) -> str:
    end = midnight + timedelta(seconds=max(slot.end for slot in slots))
    return end.strftime("%H:%M")


def plan_words(slots: tuple[TimeSlot, ...], now: datetime) -> str:
    """When it is ready, and when the last cure ends; empty where nothing is left.

    Parameters
    ----------
    now : local time
    """
    if not slots:
        return ""
    midnight = now.replace(hour=0, minute=0, second=0, microsecond=0)
    cures = [slot.cured for slot in slots if slot.cured > slot.end]
    end = midnight + timedelta(seconds=max(slot.end for slot in slots))
    words = "It can run" if any(slot.step == RUN_STEP for slot in slots) else "It is ready"
    said = f"{words} on {end.strftime('%A, %-d %B')}"
    if cures:
        last = midnight + timedelta(seconds=max(cures))
        said += f"; the last cure ends on {last.strftime('%A at %H:%M')}"
    return f"{said}."
