"""What a reader of the figures must know before trusting them."""

from __future__ import annotations

from fenwick.core.components.elements import Branch, Element, Hose
from fenwick.core.system.assess import Assessment
from fenwick.core.system.line import Line
from fenwick.wording.say import Voice

LEAST_SUCTION = 500.0  #: of a sealed fan, below which it is no shop vacuum [Pa]
ROUGHEST = 0.05  #: wall roughness over bore that the friction law was tested to [-]


def warnings(line: Line, assessment: Assessment, voice: Voice) -> list[str]:
    """Plain sentences, for the first variant; empty when there is nothing to warn of."""
    return [*_about_flow(line, assessment, voice), *_about_parts(line, assessment, voice), *_unknown(line)]


def least_certain(line: Line, voice: Voice) -> str | None:
    """The figure to trust least; None without a separator."""
    if not line.separators:
        return None
    return f"least certain: {voice.name(line.separators[0].id)}"


def _about_flow(line: Line, assessment: Assessment, voice: Voice) -> list[str]:
    said = []
    several = len(line.leaves) > 1
    for i, leaf in enumerate(line.leaves):
        flow = float(assessment.point.port_flow[i, 0])
        name, figure = voice.name(leaf.id), voice.figure(flow, "flow")
        if not leaf.open:
            if not several:  # with several tools, shut gates are how it is meant
                said.append(f"The gate at {name} is shut; only its leak of {figure} passes.")
        elif flow < float(line.rules["verdict.least-flow"]):
            said.append(
                f"Next to nothing flows at {name} ({figure}): some part of the line is far too narrow or blocked."
            )
    sealed = float(assessment.point.sealed_suction[0])
    if sealed < LEAST_SUCTION:
        said.append(f"The fan has no suction to speak of: {voice.figure(sealed, 'suction')} with everything shut.")
    elif float(assessment.point.suction[0]) < 0.01 * sealed:
        said.append("The fan runs all but open, with no suction left at its inlet: nothing in this line resists it.")
    return said


def _about_parts(line: Line, assessment: Assessment, voice: Voice) -> list[str]:
    said = []
    if line.vacuum.filter is None and line.vacuum.bag is None:
        said.append("No filter and no bag are given: whatever passes the separator is counted as blown into the room.")
    parts = (*_branch_parts(line.branches), *line.trunk)
    hoses = [part for part in parts if isinstance(part, Hose) and part.id not in line.idle_parts]
    for hose in hoses:
        roughness = line.rules[f"wall.{hose.wall}"] if hose.roughness is None else hose.roughness
        if float(roughness / hose.bore) > ROUGHEST:
            said.append(f"{voice.name(hose.id)} is rougher for its bore than the friction law was tested for.")
        if any(float(bend.radius) < float(hose.bore) for bend in hose.bends):
            said.append(f"{voice.name(hose.id)} bends tighter than its own bore: it kinks, and the loss is a guess.")
    for disc in line.separators:
        geometry = disc.geometry
        if float(geometry.outlet_radius + geometry.inlet_width) > float(geometry.body_radius):
            said.append(
                f"The inlet of {voice.name(disc.id)} overlaps its outlet tube: the swirl model is indicative only."
            )
    return said


def _branch_parts(branches: tuple[Branch, ...]) -> list[Element]:
    return [part for branch in branches for part in (*branch.elements, *_branch_parts(branch.branches))]


def _unknown(line: Line) -> list[str]:
    if line.dust is None:
        return ["The dust is not known: carrying, separation and what becomes of the dust are left out."]
    return []
