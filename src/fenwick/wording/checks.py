"""A sentence for every check: figure, limit, reason, remedy, and the caution that belongs to it."""

from __future__ import annotations

from collections.abc import Callable
from math import isfinite

from fenwick.core.judging.check import OK, WATCH, Check
from fenwick.wording.check_facts import FACTS
from fenwick.wording.check_figures import FIGURES
from fenwick.wording.say import Voice


def check_sentence(check: Check, voice: Voice) -> str:
    """What a check found, for its first variant."""
    if check.id in FACTS:
        return FACTS[check.id](check, voice)
    if not isfinite(check.value[0]):
        return f"A blocked hose pulls {voice.figure(check.limit[0], 'suction')}; this wall is too short to fold at all."
    value = voice.figure(check.value[0], _BORES.get(check.quantity, check.quantity))
    limit = voice.figure(check.limit[0], _BORES.get(check.quantity, check.quantity))
    if check.id in FIGURES:
        return FIGURES[check.id](check, value, limit, voice)
    return _SENTENCES[check.id](int(check.level[0]), value, limit, check.part, voice)


_BORES = {"length": "bore"}  # lengths in checks are of bin and slot: millimetres, not metres


def _air(level: int, value: str, limit: str, part: str | None, voice: Voice) -> str:
    if level == OK:
        return f"{value} reaches {voice.name(part)}."
    return f"Next to nothing reaches {voice.name(part)} ({value}). The line is blocked, shut or far too narrow."


def _containment(level: int, value: str, limit: str, part: str | None, voice: Voice) -> str:
    if level == OK:
        return f"{value} reaches what it takes to contain fine dust at {voice.machine(part)}, {limit}."
    return f"Containing fine dust at {voice.machine(part)} takes {limit} or more. Fine dust escapes: wear a respirator."


def _settling(level: int, value: str, limit: str, part: str | None, voice: Voice) -> str:
    dust = voice.dust or "The dust"
    if level == OK:
        return f"{voice.name(part)} is the slowest run, at {value}; it carries. {dust} settles below {limit}."
    if level == WATCH:
        return f"{dust} is only just carried in {voice.name(part)}, at {value}; below {limit} it settles."
    return f"{dust} settles in {voice.name(part)}: {value}, and it takes {limit}. A narrower bore runs faster."


def _collapse(level: int, value: str, limit: str, part: str | None, voice: Voice) -> str:
    if level == OK:
        return f"A blocked hose pulls {limit}; this wall, if plain and round, folds at {value}."
    return (
        f"A blocked hose pulls {limit}; this wall, if plain and round, folds at {value}, and suddenly: hands off. "
        "Stiffen it, or fit a relief valve."
    )


def _leak(level: int, value: str, limit: str, part: str | None, voice: Voice) -> str:
    if level == OK:
        return f"{value} of the air enters below the separator; under {limit} does little harm."
    return f"{value} of the air enters below the separator and blows dust back up. Seal the bin's lid and seams."


def _full(level: int, value: str, limit: str, part: str | None, voice: Voice) -> str:
    if level == OK:
        return f"The dust stands {value} below where it drops in; from {limit} on the air stirs it up."
    return f"The dust stands {value} below where it drops in: the air stirs it up again. Empty the bin at {limit}."


def _bridging(level: int, value: str, limit: str, part: str | None, voice: Voice) -> str:
    if level == OK:
        return f"The slot, {value}, passes the longest chips of this dust, {limit}."
    return f"Chips of up to {limit} lie across a slot of {value} and block it. Make the slot wider."


def _swapped(level: int, value: str, limit: str, part: str | None, voice: Voice) -> str:
    if level == OK:
        return f"At {voice.name(part)} the vacuum is on the centre port and the tool on the side, as it should be."
    return (
        f"The hoses are on the wrong ports of {voice.name(part)}: the vacuum belongs on the centre port, the "
        f"tool on the side. As it is, about {value} of what it could keep is kept."
    )


def _tail(level: int, value: str, limit: str, part: str | None, voice: Voice) -> str:
    if level == OK:
        return f"The vortex ends {value} below its outlet tube, inside {voice.name(part)} ({limit})."
    return (
        f"The vortex would reach {value} below its outlet tube and {voice.name(part)} has {limit}: its tail stirs the "
        "bin. A taller cone, a narrower outlet tube, or a vortex breaker over the dust."
    )


def _carry_over(level: int, value: str, limit: str, part: str | None, voice: Voice) -> str:
    if level == OK:
        return f"Air rises at {value} over the water; from {limit} on it takes droplets along. Keep it upright."
    return (
        f"Air rises at {value} over the water and takes droplets to the vacuum (from {limit}): water must never "
        "reach a dry vacuum. Use a wider vessel, and never tip or overfill it."
    )


def _believable(level: int, value: str, limit: str, part: str | None, voice: Voice) -> str:
    if level == OK:
        return f"The label's air power is {value} of its electrical power: believable."
    return (
        f"The label promises {value} of its electrical power as air power; no shop vacuum passes {limit}. "
        "Measure the vacuum before trusting these figures."
    )


def _lift(level: int, value: str, limit: str, part: str | None, voice: Voice) -> str:
    if level == OK:
        return f"Air rises at {value} in {voice.name(part)}; the largest pieces fall at {limit}."
    if level == WATCH:
        return f"{voice.name(part)} only just lifts the largest pieces: air at {value}, and they fall at {limit}."
    return f"The largest pieces fall back in {voice.name(part)}: air at {value}, and they fall at {limit}. Narrow it."


def _passage(level: int, value: str, limit: str, part: str | None, voice: Voice) -> str:
    if level == OK:
        return f"The tightest place, {voice.name(part)} at {value}, passes the longest chips; {limit} would do."
    return f"Chips bridge at {voice.name(part)}: it is {value} wide, and {limit} is wanted for the longest of them."


_SENTENCES: dict[str, Callable[[int, str, str, str | None, Voice], str]] = {
    "air-at-tool": _air,
    "containment": _containment,
    "settling": _settling,
    "bin-collapse": _collapse,
    "bin-leak": _leak,
    "bin-full": _full,
    "slot-bridging": _bridging,
    "fan-believable": _believable,
    "swapped-hoses": _swapped,
    "vortex-tail": _tail,
    "carry-over": _carry_over,
    "vertical-lift": _lift,
    "bridging": _passage,
}
