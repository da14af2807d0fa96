"""A joint in words: what goes inside what, how much play there is, and what makes it tight."""

from __future__ import annotations

from fenwick.core.line.joints import ADAPTER, FITS_SO, SLEEVE, TAPE, WARM, FittedJoint
from fenwick.wording.say import Voice


def gap_words(fitted: FittedJoint, voice: Voice) -> str:
    """The gap to a tenth of a millimetre; empty where it is not known."""
    if fitted.gap is None:
        return ""
    size = voice.figure(abs(fitted.gap), "bore")
    return f"{size} of play" if fitted.gap >= 0.0 else f"{size} too tight"


def inside_words(fitted: FittedJoint, voice: Voice) -> str:
    """Which end goes inside; empty where none does, or the ends are made for each other, or not known."""
    if fitted.inner is None or fitted.fix in (SLEEVE, ADAPTER):
        return ""
    joint = fitted.joint
    outer = joint.after if fitted.inner == joint.before else joint.before
    return f"{voice.name(fitted.inner)} goes inside {voice.name(outer)}"


def fix_words(fitted: FittedJoint, voice: Voice) -> str:
    """What to do, in a sentence."""
    match fitted.fix:
        case "fits" if fitted.inner is None:
            return "Made for each other; a smear of grease keeps it tight."
        case "fits":
            return "A push fit as it is."
        case "tape":
            wraps = f"{fitted.wraps} {'wrap' if fitted.wraps == 1 else 'wraps'} of tape"
            leaks = f"; untaped it leaks {voice.figure(fitted.open_area, 'gap')}" if fitted.open_area else ""
            return f"{wraps} round the inner end{leaks}."
        case "warm":
            return f"Warm the outer end in hot water, outdoors or in a draught, and form it: {_stretch(fitted)}."
        case "sleeve":
            why = f" To go over it, the end would have to be {_stretch(fitted)}." if fitted.stretch else ""
            return f"At best {gap_words(fitted, voice)}: butt them and bridge with a rubber sleeve and two clamps.{why}"
        case "adapter" if fitted.clash:
            return "Their kinds do not go together: a turned or printed adapter between them."
        case "adapter":
            return f"At best {gap_words(fitted, voice)}, too far apart for tape or sleeve: a turned or printed adapter."
        case _:
            return "Measure both ends with calipers to learn what fits."


def _stretch(fitted: FittedJoint) -> str:
    needed = f"{100.0 * (fitted.stretch or 0.0):.1f} % wider"
    if fitted.limit is None:
        return f"{needed}; name its plastic to learn whether it takes that"
    return f"{needed}, of {100.0 * fitted.limit:.0f} % it takes"


#: level of each fix on the page
LEVELS = {FITS_SO: "ok", TAPE: "ok", WARM: "watch", SLEEVE: "watch", ADAPTER: "act"}
