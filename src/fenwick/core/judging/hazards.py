"""Dust that must not meet, and dust that harms: facts about the line that no air speed mends. The first variant."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.dust import GLOWING, HELD_BESIDES, Dust
from fenwick.core.components.elements import Hose
from fenwick.core.components.wet import WET_DUSTS, WetStage
from fenwick.core.formulas.sizes import BREATHED, share_below
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import ACT, OK, WATCH, Check, fact, figure
from fenwick.core.line.line import Line

MINERAL = ("plaster", "blasting-media")  #: kinds that neither burn nor spark
FIBRE, ASH = "fibre-composite", "ash"
MDF = ("mdf-routing", "mdf-sanding")


def hazard_checks(line: Line, found: Assessment) -> list[Check]:
    """Everything about the kinds of dust on this line and in its vacuum."""
    kinds = kinds_made(line)
    return [
        *_meet(kinds),
        *_last_held(line, kinds),
        *_in_water(line, kinds),
        *_ash(line, kinds),
        *_fibre(line, kinds),
        *_species(kinds),
        *_static(line, kinds),
        *_filter_class(line, found),
    ]


def kinds_made(line: Line) -> list[Dust]:
    """What the tools of the line make, whether their gates stand open or not; each kind once."""
    usual = line.usual_dust or line.dust
    made = [leaf.port.dust or usual for leaf in line.leaves]
    return list({dust.kind: dust for dust in made if dust is not None}.values())


def burns(kind: str) -> bool:
    """Whether a kind of dust burns."""
    return kind not in (*GLOWING, *MINERAL)


def _meet(kinds: list[Dust]) -> list[Check]:
    """Sparks or hot metal on one line with dust that burns."""
    sparks = [dust.kind for dust in kinds if dust.kind in GLOWING]
    fuel = [dust.kind for dust in kinds if burns(dust.kind)]
    return [fact("dust-meets", ACT, about=(sparks[0], fuel[0]))] if sparks and fuel else []


def _last_held(line: Line, kinds: list[Dust]) -> list[Check]:
    """Wood then sparks, or hot metal then wood; released by emptying and cleaning."""
    held, vacuum = line.vacuum.last_held, line.vacuum
    sparks = [dust.kind for dust in kinds if dust.kind in GLOWING]
    if held is None:
        return [fact("last-held", WATCH, "vacuum", (sparks[0],))] if sparks else []
    clash = [kind for kind in (dust.kind for dust in kinds) if _clash(held, kind)]
    if not clash:
        return []
    return [fact("last-held", OK if vacuum.emptied else ACT, "vacuum", (clash[0], held))]


def _clash(held: str, kind: str) -> bool:
    glows = held in GLOWING or held in HELD_BESIDES
    return (glows and burns(kind)) or (not glows and burns(held) and kind in GLOWING)


def _in_water(line: Line, kinds: list[Dust]) -> list[Check]:
    """Dust that must not reach a wet stage: made at a port, or left in the vacuum and its line."""
    stage = next((one for one in line.stages if isinstance(one, WetStage)), None)
    if stage is None:
        return []
    made = [dust.kind for dust in kinds if dust.kind not in WET_DUSTS]
    held = line.vacuum.last_held
    left = [held] if held is not None and held not in WET_DUSTS and not line.vacuum.emptied else []
    return [fact("wet-dust", ACT, stage.id, (kind, how)) for kind, how in _first(made, left)]


def job_checks(line: Line, jobs: tuple[tuple[str, str], ...]) -> list[Check]:
    """Jobs whose dust must not reach a wet stage of the line on which they are done.

    Parameters
    ----------
    jobs : name of each, and the kind of dust that its tool makes
    """
    stage = next((one for one in line.stages if isinstance(one, WetStage)), None)
    wrong = [(kind, name) for name, kind in jobs if kind not in WET_DUSTS]
    return [fact("wet-job", ACT, stage.id, wrong[0])] if stage is not None and wrong else []


def _first(made: list[str], left: list[str]) -> list[tuple[str, str]]:
    return [(kinds[0], how) for kinds, how in ((made, "made"), (left, "held")) if kinds]


def _ash(line: Line, kinds: list[Dust]) -> list[Check]:
    """Soot and cold ash want a bin of metal; an ember may hide in them for days."""
    if ASH not in [dust.kind for dust in kinds]:
        return []
    metal = [stage.bin.material == "steel" for stage in line.separators]
    unknown = any(stage.bin.made_of is None for stage in line.separators)
    level = OK if metal and all(metal) else WATCH if unknown or not metal else ACT
    return [fact("ash-bin", level, line.separators[0].id if line.separators else "vacuum")]


def _fibre(line: Line, kinds: list[Dust]) -> list[Check]:
    if not any(dust.kind == FIBRE for dust in kinds):
        return []
    own = line.vacuum.filter
    return [fact("fibre", WATCH if own is not None and own.kind == "hepa" else ACT, "vacuum")]


def _species(kinds: list[Dust]) -> list[Check]:
    harmful = [dust for dust in kinds if dust.harmful and dust.kind != FIBRE]
    return [
        fact("species", WATCH, about=(dust.kind, dust.species or ("mdf" if dust.kind in MDF else "")))
        for dust in harmful[:1]
    ]


def _static(line: Line, kinds: list[Dust]) -> list[Check]:
    """Dry dust that burns in plastic hoses."""
    hoses = [part for part in line.trunk if isinstance(part, Hose)]
    hoses += [part for leaf in line.leaves for b in leaf.way for part in b.elements if isinstance(part, Hose)]
    if not hoses or not any(burns(dust.kind) for dust in kinds):
        return []
    return [fact("static", OK if line.earthed else WATCH)]


def _filter_class(line: Line, found: Assessment) -> list[Check]:
    """What of the breathable dust that reaches the vacuum comes out of it."""
    if line.vacuum.filter is None and line.vacuum.bag is None:
        return [fact("no-filter", WATCH if line.vacuum.exhaust_outdoors else ACT, "vacuum")]
    if found.fate is None:
        return []
    fine = share_below(BREATHED)[:, 0]
    ends = {end: float(np.sum(fine * found.fate.by_size[end][:, 0])) for end in ("tank", "bag", "paper", "exhaust")}
    reaches = sum(ends.values())
    if reaches <= 0.0:
        return []
    share, limit = ends["exhaust"] / reaches, one_value(line.rules["filter.class"])
    harmful = line.dust is not None and line.dust.harmful
    indoors = not line.vacuum.exhaust_outdoors
    return [
        figure("filter-class", share > limit and harmful and indoors, share > limit, share, limit, "share", "vacuum")
    ]
