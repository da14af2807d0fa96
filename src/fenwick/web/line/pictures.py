"""The pictures of the Line page, and the few words that stand beside them."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from fenwick.core.judging.assess import Assessment
from fenwick.core.line.line import Line
from fenwick.drawing import render_curve, render_fate, render_ladder, render_line, render_plan, render_tree
from fenwick.drawing.labels import part_words
from fenwick.drawing.scene import MARKS, Scene
from fenwick.drawing.tree_scene import TreeScene
from fenwick.rig import Rig
from fenwick.rig.format.dust import build_dust
from fenwick.rig.format.separator import ChamberPart, SeparatorPart
from fenwick.units import METRIC, format_value, unit_label
from fenwick.units.convert import from_display, water_column
from fenwick.units.sentence import inside
from fenwick.wording.say import Voice

LADDER_HEIGHT, NARROW_LADDER_HEIGHT = 101.0, 130.0


def drawings(
    scenes: dict[str, Scene], trees: dict[str, TreeScene], found: Assessment, voice: Voice
) -> dict[str, Markup]:
    """Every picture of the page, by name; a line with several tools is drawn whole."""
    pictures = {f"line_{name}": render_tree(tree, f"tree-{name}") for name, tree in trees.items()}
    if not trees:
        pictures = {f"line_{name}": render_line(scene, f"line-{name}") for name, scene in scenes.items()}
    for name, height in (("wide", LADDER_HEIGHT), ("narrow", NARROW_LADDER_HEIGHT)):
        pictures[f"ladder_{name}"] = render_ladder(scenes[name], found, voice, height, f"ladder-{name}")
    if found.fate is not None:
        pictures["fate_wide"] = render_fate(found.fate, 690.0)
        pictures["fate_narrow"] = render_fate(found.fate, 340.0)
    return pictures


def ladder_unit(system: str) -> str:
    """The unit of the ladder's axis, and how to read it with a tube of water."""
    unit = unit_label("suction", system)
    one = from_display(1.0, "suction", system)
    return f"{unit} (1 {unit} is {water_column(one, system)})" if system == METRIC else "inches of water"


def ladder_head(found: Assessment, voice: Voice) -> str:
    """What the fan makes, of what it could."""
    pulls = voice.figure(found.point.suction[0], "suction", unit=False)
    return f"{pulls} of {voice.figure(found.point.sealed_suction[0], 'suction')} at the vacuum"


def fate_title(rig: Rig) -> str:
    """What the dust's whereabouts are counted per."""
    kind = rig.dust.kind if rig.dust else ""
    verb = next(
        (verb for stem, verb in (("sand", "sanded"), ("saw", "sawn"), ("rout", "routed")) if stem in kind), "made"
    )
    return f"Of 100 g {'planed' if kind == 'planer' else verb}"


def status_of(rig: Rig, scene: Scene, system: str) -> str:
    """How full, how dirty, how upright, which dust."""
    said = []
    stage = next((e for e in rig.line.elements if isinstance(e, SeparatorPart)), None)
    if stage:
        said.append(f"Bin {100 * scene.stage(stage.id).fill_share:.0f} % full")
    if rig.vacuum.filter:
        held = format_value(rig.vacuum.filter.held_kg, "mass", system, unit=True)
        said.append("filter clean" if rig.vacuum.filter.held_kg == 0 else f"filter holds {held}")
    if stage:
        said.append("upright" if stage.tilt_deg == 0 else f"leans {stage.tilt_deg:g}°")
    if rig.dust:
        said.append(inside(build_dust(rig.dust).label))
    return " · ".join(said)


@dataclass(frozen=True)
class PartRow:
    """A part in a list beside the drawing."""

    number: int
    id: str
    title: str
    detail: str
    level: str  #: ok, watch, act; empty where there is nothing to judge


def parts_of(scene: Scene) -> list[PartRow]:
    """Every part."""
    labels = {label.part: label for label in scene.labels}
    listed = []
    for part in scene.parts:
        if part.kind in MARKS:
            continue
        label = labels.get(part.id)
        words = (label.name, label.detail, label.level) if label else (part.title, "", "")
        listed.append(PartRow(part.number, part.id, *words))
    return listed


def parts_of_tree(tree: TreeScene, rig: Rig, found: Assessment, voice: Voice) -> list[PartRow]:
    """Every part of a line that is drawn whole; its tools are named on the drawing."""
    listed = []
    for part in (one for one in tree.parts if one.number):
        words = part_words(part, rig, found, voice)
        told = (part.title, "", "") if words is None else (
            words.name, words.detail, part.level if words.names_state else ""
        )  # fmt: skip
        listed.append(PartRow(part.number, part.id, *told))
    return listed


def key_of(scene: Scene | TreeScene) -> list[PartRow]:
    """The parts that the drawing has no room to label."""
    numbers = {part.id: part.number for part in scene.parts}
    keyed = [label for label in scene.labels if label.keyed]
    rows = [PartRow(numbers[one.part], one.part, one.name, one.detail, one.level) for one in keyed]
    return sorted(rows, key=lambda row: row.number)


def plan_of(rig: Rig, line: Line, found: Assessment, voice: Voice, part: str) -> tuple[Markup, str] | None:
    """The small picture beside the fields of a part, and its caption."""
    if part == "vacuum":
        return render_curve(line, found, voice, "curve"), "suction, air power"
    chamber = next((e for e in rig.line.elements if isinstance(e, ChamberPart) and e.id == part), None)
    return (render_plan(chamber, "plan"), "from above") if chamber else None
