"""How a build stands, in words."""

from __future__ import annotations

from fenwick.core.making.as_cut import KEEP, RECUT, SHIM, TRIM, BuiltFigures, Verdict
from fenwick.core.making.changed import PartFate
from fenwick.core.making.parts import MadePart
from fenwick.core.making.steps import Broken
from fenwick.wording.making.names import COSTS, part_name
from fenwick.wording.making.work import REASONS, step_title
from fenwick.wording.say import Voice

#: state of a part: (word, level of its colour)
PART_STATES = {
    "ready": ("ready", "ok"),
    "done": ("done", "ok"),
    "cut": ("cut", "ok"),
    "next": ("next", "watch"),
    "begun": ("begun", "watch"),
    "off": ("look at it", "act"),
    "buy": ("to buy", "none"),
    "make": ("to make", "none"),
}
DIMS = {
    "d_m": "diameter",
    "inner_d_m": "inner diameter",
    "wrap_m": "wrap, once round without overlap",
    "length_m": "length",
    "height_m": "height",
    "width_m": "width",
    "chamber_height_m": "height of the chamber",
    "cylinder_height_m": "height of the barrel",
    "reach_m": "reach below the roof",
    "groove_radius_m": "radius of the groove, to its middle",
    "groove_width_m": "width of the groove",
    "groove_depth_m": "depth of the groove",
    "slot_width_m": "width of the slot",
    "slot_radius_m": "outer radius of the slot",
    "centre_hole_d_m": "centre hole",
    "rim_hole_d_m": "hole at the rim",
    "pipe_hole_d_m": "hole for the drop pipe",
    "outlet_hole_d_m": "hole for the outlet",
    "hole_d_m": "hole",
    "cut_out_m": "cut-out along the wall",
    "cut_out_height_m": "height of the cut-out",
    "depth_m": "depth below the rim",
    "gap_m": "gap all round",
    "bottom_d_m": "diameter below",
    "top_d_m": "diameter above",
    "outer_radius_m": "outer radius of the sheet",
    "inner_radius_m": "inner radius of the sheet",
    "saddle_radius_m": "radius of the hollow",
    "hole_axis_m": "hole's axis from the wall's",
    "outer_d_m": "outer diameter",
    "bore_m": "bore",
    "overlap_m": "overlap",
    "stub_m": "stub for the hose",
    "bolt_circle_d_m": "bolt circle",
    "thickness_m": "thickness",
    "inlet_height_m": "inlet's axis over the disc",
    "inlet_offset_m": "inlet's axis from the middle",
    "immersion_m": "dip",
    "slant_m": "slant",
    "clear_m": "clear height",
    "rim_m": "rim of the bin",
    "rim_d_m": "rim",
    "body_d_m": "body",
    "tangent_m": "from the seam to the tangent",
}
DECISIONS = {"keep": "Left as it is", "shim": "Shimmed", "recut": "To cut again", "trim": "Trimmed"}
ASKS = {"shim": "Shimmed", "recut": "Cut it again", "trim": "Trimmed", "keep": "Leave it"}


def dim_name(dim: str) -> str:
    """What a dimension is called."""
    return DIMS.get(dim, dim.removesuffix("_m").replace("_", " "))


def verdict_title(verdict: Verdict) -> str:
    """What to do with a part that came out otherwise."""
    what = part_name(verdict.part).lower()
    return {
        KEEP: f"Keep the {what}",
        SHIM: f"Shim the {what}",
        RECUT: f"Cut the {what} again",
        TRIM: f"Trim the {what}",
    }[verdict.do]


def verdict_sentences(verdict: Verdict, figures: BuiltFigures | None, voice: Voice) -> list[str]:
    """What was measured, what it costs, and the remedy."""
    measured, wanted = (voice.cut(one) for one in (verdict.measured, verdict.wanted))
    said = [f"{dim_name(verdict.dim).capitalize()}: {measured} was cut, {wanted} wanted."]
    if verdict.do == KEEP:
        said.append("That is within what it may be off.")
    else:
        said.append(
            f"Left as it is, it costs {COSTS[verdict.costs]}." if verdict.costs != "fit" else "It does not fit."
        )
    if verdict.do == SHIM:
        said.append(f"Edge band or a sleeve of {voice.cut(verdict.shim)} all round puts it right.")
    if verdict.do == TRIM:
        said.append("There is still something to take away: trim it to size.")
    if verdict.do == RECUT:
        said.append("Nothing fills that much: cut it again, perhaps from what is left over.")
    if figures is not None and figures.kept is not None:
        before, after = (voice.figure(one, "share") for one in figures.kept)
        if before != after:
            said.append(f"By the model {after} would be kept instead of {before}.")
    for one in verdict.follows:
        said.append(f"{part_name(one.part)} follows: {dim_name(one.dim)} {voice.cut(one.value)}.")
    return said


FATES = {
    "after-cut": "serves after a cut",
    "scrap": "is scrap now, perhaps sheet for a smaller part",
    "not-needed": "is not needed any more",
}


def changed_sentence(change: PartFate, voice: Voice) -> str:
    """What has become of a part that was made for an earlier design."""
    said = f"{part_name(change.part)} {FATES[change.fate]}"
    if change.dim:
        return f"{said}: {dim_name(change.dim)} was {voice.cut(change.was)}, {voice.cut(change.now)} is wanted."
    if change.fate == "scrap":
        return f"{said}: it is of another sheet."
    return f"{said}."


def off_words(verdict: Verdict, voice: Voice) -> str:
    """By how much it is off, with its sign."""
    text = voice.cut(abs(verdict.off), unit=False)
    return f"{'+' if verdict.off > 0 else '−'}{text}"


def broken_sentence(broken: Broken) -> str:
    """What an order breaks."""
    first, then = (step_title(one) for one in (broken.needs, broken.step))
    return f"“{first}” comes before “{then}”: {REASONS[broken.because]}."


def part_state_words(part: MadePart, state: str) -> tuple[str, str]:
    """(word, level of its colour) of a part's state."""
    word, level = PART_STATES[state]
    if state == "make" and part.stock.material == "paper":
        return "to print", level
    return word, level


#: rows of the plan, by the beginnings of their steps' names
PHASES = (
    ("dry fit", ("dry-", "wrap-", "roll-", "cut-by-wrap", "measure-", "trace-", "check-")),
    ("rim, first run", ("seat-", "first-", "water-")),
    ("join and seal", ("glue-", "close-", "seal-", "join-", "fix-", "hang-", "bolt-", "fit-")),
)


CUTTING = "cut and bore"
LAST_PHASE = PHASES[1][0]
PHASE_TITLES = (CUTTING, *(title for title, _ in PHASES if title != LAST_PHASE), LAST_PHASE)


def phase_of(step: str) -> str:
    """Which row of the plan a step is drawn in."""
    name = step.removeprefix("stand-")
    return next((title for title, begins in PHASES if name.startswith(begins)), CUTTING)
