"""Every joint of a line: which end goes inside which, the gap between them, and what makes it tight."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.joint import PLASTICS, End
from fenwick.core.formulas.joint import diametral_gap, open_ring, stretch_needed, tape_wraps
from fenwick.core.rules import RuleBook

#: fixes, the least trouble first
UNKNOWN, FITS_SO, TAPE, WARM, SLEEVE, ADAPTER = "unknown", "fits", "tape", "warm", "sleeve", "adapter"
TROUBLE = (FITS_SO, TAPE, WARM, SLEEVE, ADAPTER, UNKNOWN)


@dataclass(frozen=True)
class Joint:
    """Two ends that meet, in the direction of the air."""

    before: str  #: id of the part the air comes from
    after: str  #: id of the part it goes to
    leaving: End
    entering: End


@dataclass(frozen=True)
class FittedJoint:
    """How a joint is made."""

    joint: Joint
    fix: str  #: one of TROUBLE
    inner: str | None = None  #: id of the part that goes, or all but goes, inside; None where nothing does
    gap: float | None = None  #: diametral; negative where the inner end is too thick [m]
    wraps: int = 0  #: of tape
    stretch: float | None = None  #: the outer end must give, as a share of its diameter [-]
    limit: float | None = None  #: it may give [-]
    open_area: float | None = None  #: of the ring that leaks until it is sealed [m^2]
    clash: bool = False  #: two kinds of joint that do not go together, such as left and right thread


def fit_joint(joint: Joint, rules: RuleBook) -> FittedJoint:
    """The way to make a joint that takes the least trouble.

    Two ends of the same thread, bayonet or snap are made for each other; all else is a matter of diameters.
    """
    leaving, entering = joint.leaving, joint.entering
    if "push" not in (leaving.fit, entering.fit):
        if leaving.fit == entering.fit:
            return FittedJoint(joint, FITS_SO)
        return FittedJoint(joint, ADAPTER, clash=True)
    ways = [
        _way(joint, joint.before, leaving, entering, rules),  # with the air, so that no edge stops a chip
        _way(joint, joint.after, entering, leaving, rules),
    ]
    known = [way for way in ways if way is not None]
    if not known:
        return FittedJoint(joint, UNKNOWN)
    return min(known, key=lambda way: (TROUBLE.index(way.fix), way.inner != joint.before, abs(way.gap or 0.0)))


def _way(joint: Joint, inner: str, inside: End, outside: End, rules: RuleBook) -> FittedJoint | None:
    """`inside` put into `outside`; None where a diameter is not known."""
    if inside.outside is None or outside.inside is None:
        return None
    rule = {key: one_value(rules[f"joint.{key}"]) for key in ("push", "tape", "tape-most", "sleeve-most", "grip")}
    gap = float(diametral_gap(outside.inside, inside.outside))
    stretch = float(stretch_needed(outside.inside, inside.outside))
    limit = PLASTICS[outside.plastic].stretch if outside.plastic else None
    wraps, fix = 0, SLEEVE
    if -rule["grip"] <= gap <= rule["push"]:
        fix = FITS_SO
    elif 0.0 < gap <= rule["tape-most"]:
        fix, wraps = TAPE, int(tape_wraps(gap, rule["tape"]))
    elif gap < 0.0 and limit is not None and stretch <= limit:
        fix = WARM
    elif abs(gap) > rule["sleeve-most"]:
        fix = ADAPTER
    ring = float(open_ring(outside.inside, inside.outside)) if gap > 0.0 else None
    return FittedJoint(joint, fix, inner, gap, wraps, stretch if gap < 0.0 else None, limit, ring)


def stacks(rigid: list[tuple[str, bool]], rules: RuleBook) -> list[tuple[str, ...]]:
    """Runs of rigid fittings long enough to break what they hang on.

    Parameters
    ----------
    rigid : (id, whether it is a rigid fitting) of every part in the order of the air
    """
    most = int(np.max(rules["joint.stack"]))
    found: list[tuple[str, ...]] = []
    run: list[str] = []
    for name, is_rigid in [*rigid, ("", False)]:
        if is_rigid:
            run.append(name)
            continue
        if len(run) > most:
            found.append(tuple(run))
        run = []
    return found
