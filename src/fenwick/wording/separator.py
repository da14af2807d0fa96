"""The separator in words: its figures with their bands, what its bin does, and what one sees through the wall."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from math import degrees

import numpy as np

from fenwick.core.arrays import Array, one_value
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.doubt.uncertainty import Band, Sureness, rule_words
from fenwick.core.dust.separation import Separation
from fenwick.core.formulas.cyclone import drops_by_heads, natural_length
from fenwick.core.formulas.sizes import SIZES, over_densities
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.judging.checks import kept_level
from fenwick.core.line.line import Line
from fenwick.core.search.effects import Effect
from fenwick.units.sentence import inside
from fenwick.wording.rows import VerdictRow
from fenwick.wording.say import Voice

LEAST_DRIVER = 0.10  #: share of the spread from which an assumption is named [-]
CROWDED = 0.55  #: share of the grains at the cut size from which the dust itself helps [-]
LITTLE = 0.0005  #: a gain that is not worth a figure [-]


def stage_rows(
    line: Line, stage: Separator, found: Assessment, sure: Sureness | None, voice: Voice
) -> list[VerdictRow]:
    """Kept, cut size, suction spent and inlet speed of one separator, each with what is believable.

    `sure` may be None: then the bands are left out.
    """
    at = [one.id for one in found.separations].index(stage.id)
    result = found.separations[at]
    bands = {} if sure is None else {"cut": sure.cut_size, "drop": sure.pressure_drop, "inlet": sure.inlet_velocity}
    rows = []
    if result.grades is None:
        why = "Name the dust to learn what the bin keeps."
        rows.append(VerdictRow("kept", "Kept in the bin", "not known", "", "", None, None, why))
    else:
        rows.append(_kept_row(line, found, at, sure, voice))
        cut = float(result.grades.cut_size[0])
        assert found.walk is not None
        thrown = over_densities(result.grades.reaches_wall, found.walk.entering[at])
        crowded = float(np.interp(cut, SIZES[:, 0], thrown[:, 0])) > CROWDED
        more = "; with so much dust more of it drops at once" if crowded else ""
        reaches = f"Half of the grains of this size reach the wall{more}{_band(bands.get('cut'), 'grain', voice)}."
        rows.append(_row("cut", "Cut size", cut, "grain", reaches, None, voice))
    drop, made = float(result.pressure_drop[0]), float(found.point.suction[0])
    believable = _band(bands.get("drop"), "suction", voice)
    spent = f"Of {voice.figure(made, 'suction')} that the vacuum makes{believable}."
    if not isinstance(stage, Cyclone):
        spent += " The least certain figure here: let a suction reading correct it."
    rows.append(_row("drop", "Suction it costs", drop, "suction", spent, drop / made if made else None, voice))
    speed = f"It makes the swirl{_band(bands.get('inlet'), 'speed', voice)}."
    rows.append(_row("inlet", "Inlet speed", float(result.inlet_velocity[0]), "speed", speed, None, voice))
    return rows


def _row(
    name: str, title: str, value: float, quantity: str, sentence: str, filled: float | None, voice: Voice
) -> VerdictRow:
    number, _, unit = voice.figure(value, quantity).partition(" ")
    return VerdictRow(name, title, number, unit, "", filled, None, sentence)


def _kept_row(line: Line, found: Assessment, at: int, sure: Sureness | None, voice: Voice) -> VerdictRow:
    kept = found.efficiency[at]
    level = LEVEL_WORDS[int(kept_level(kept, line)[0])]
    share = float(kept[0])
    past = f"{100.0 * (1.0 - share):.1f}"
    sentence = f"{past} g of each 100 g that enter go on{_band(sure.kept if sure else None, 'share', voice)}."
    number, _, unit = voice.figure(share, "share").partition(" ")
    good = one_value(line.rules["verdict.kept-good"])
    return VerdictRow("kept", "Kept in the bin", number, unit, level, share, good, sentence)


def _band(band: Band | None, quantity: str, voice: Voice) -> str:
    """What is believable of a figure, and what that hangs on."""
    if band is None:
        return ""
    low, high = voice.figure(band.low, quantity, unit=False), voice.figure(band.high, quantity)
    words = f"; {low}–{high} is believable"
    if band.drivers and band.drivers[0][1] >= LEAST_DRIVER:
        meaning = rule_words(band.drivers[0][0])
        words += f", most of it for “{inside(meaning)}”"
    return words


@dataclass(frozen=True)
class ModelRow:
    """What one published model says."""

    name: str
    cut: str
    kept: str
    note: str


MODEL_NAMES = {
    "orbit": "Equilibrium orbit with wall friction",
    "lapple": "Lapple",
    "leith-licht": "Leith and Licht",
    "iozia-leith": "Iozia and Leith",
}


def model_rows(found: Separation, kept_by: Mapping[str, Array], voice: Voice) -> list[ModelRow]:
    """Every model side by side, the headline first; `kept_by` each of them, by mass [-]."""
    rows = []
    for name, grades in found.models.items():
        kept = float(kept_by[name][0])
        note = "headline" if name == "orbit" else "outside its range" if grades.extrapolated else ""
        cut = voice.figure(float(grades.cut_size[0]), "grain")
        rows.append(ModelRow(MODEL_NAMES[name], cut, voice.figure(kept, "share"), note))
    return rows


def drop_checks(stage: Separator, found: Separation, air_density: float, voice: Voice) -> str:
    """The cyclone's suction by two simpler formulas; empty for other kinds."""
    if not isinstance(stage, Cyclone):
        return ""
    drops = drops_by_heads(stage.shape, float(found.inlet_velocity[0]), air_density)
    simple, other = float(drops["shepherd-lapple"]), float(drops["casal"])
    return (
        f"Suction by two simpler formulas: {voice.figure(simple, 'suction')} (Shepherd and Lapple), "
        f"{voice.figure(other, 'suction')} (Casal and Martínez-Benet)."
    )


@dataclass(frozen=True)
class EffectRow:
    """One thing about the bin or the sizes, and what it is worth."""

    id: str
    sentence: str
    points: str  #: of the dust kept, with its sign
    level: str


def effect_row(effect: Effect, voice: Voice) -> EffectRow:
    """An effect in words."""
    points = f"{100.0 * effect.gain:+.1f}".replace("-", "−") if abs(effect.gain) >= LITTLE else "±0"
    level = "ok" if effect.gain > LITTLE else "act" if effect.gain < -LITTLE else ""
    return EffectRow(effect.id, EFFECT_WORDS[effect.id](effect.value, voice), points, level)


NOT_MODELLED = "not modelled"


def unmodelled_rows(stage: Separator) -> list[EffectRow]:
    """What enters no formula, and is told rather than called nothing."""
    if not isinstance(stage, SlottedDisc):
        return []
    words = "Where its slots start, and over how many their arc is shared: only a test on this line tells"
    return [EffectRow("slots-placed", words, NOT_MODELLED, "")]


def _size(words: str) -> Callable[[float, Voice], str]:
    return lambda value, voice: words.format(voice.figure(value, "bore"))


def _plain(words: str) -> Callable[[float, Voice], str]:
    return lambda _value, _voice: words


EFFECT_WORDS: dict[str, Callable[[float, Voice], str]] = {
    "empty": _plain("Empty the bin: a full one is stirred up"),
    "seal": _plain("Seal the bin: air leaking in blows dust back up"),
    "upright": _plain("Stand it upright: leaning gives separation away"),
    "smooth": _plain("Bridge the ledges: dust dances on them"),
    "swap-back": _plain("Swap the hoses: the vacuum belongs in the centre"),
    "deeper-bin": _size("A bin {0} deep: calmer air over the dust"),
    "slot-narrower": _size("A slot {0} wide: less air dips into the bin"),
    "slot-wider": _size("A slot {0} wide: chips pass it more easily"),
    "arc-shorter": lambda value, _voice: f"A slot over {degrees(value):.0f}°: less air dips into the bin",
    "arc-longer": lambda value, _voice: f"A slot over {degrees(value):.0f}°: dust finds it sooner",
    "outlet-shorter": _size("An outlet tube {0} long"),
    "outlet-longer": _size("An outlet tube {0} long"),
}


def through_the_wall(line: Line, stage: Separator, found: Separation, voice: Voice) -> list[str]:
    """What one should see through a clear wall if the line does as computed."""
    said = []
    speed = voice.figure(float(found.inlet_velocity[0]), "speed")
    said.append(f"A band of dust races round the wall (it comes in at {speed}); the middle stays clear.")
    surface = one_value(stage.bin.diameter_at(stage.bin.fill_height))
    free = one_value(stage.free_height)
    calm = one_value(line.rules["bin.stir-depth"]) * surface
    if free <= 0.0:
        said.append("The dust stands where it should drop in: all that comes goes straight on to the vacuum.")
    elif free < calm:
        said.append("The heap is whipped up and a plume rises in its middle: it is time to empty.")
    else:
        said.append("The heap grows as a ring at the wall, hollow in the middle, and lies still.")
    if float(found.leak_share[0]) > one_value(line.rules["verdict.leak-watch"]):
        said.append("Fine dust hangs in the bin like fog: air leaks in below and carries it up.")
    if isinstance(stage, Cyclone):
        tail, room = float(natural_length(stage.shape)), one_value(stage.shape.height - stage.shape.outlet_length)
        if tail > room:
            said.append("A thin rope of dust stands up from the heap into the cone: the vortex reaches the bin.")
        else:
            short = voice.figure(room - tail, "bore")
            said.append(f"The lowest {short} of the cone turn lazily: the vortex ends above them.")
    if stage.swapped:
        said.append("The dust drops into the middle and is drawn off at the wall: the hoses are swapped.")
    return said
