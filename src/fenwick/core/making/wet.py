"""A wet vessel behind a dry stage: a throat that dips into the water, an outlet over it, a plate against splashes."""

from __future__ import annotations

from math import pi

from fenwick.core.arrays import one_value
from fenwick.core.components.wet import WetStage
from fenwick.core.making.given import Making
from fenwick.core.making.parts import MadeParts, SawnHole, Trouble
from fenwick.core.making.pieces import bolt_circle, bought, disc, ring, tube, tube_outside
from fenwick.core.making.rims import bolt_hole, holes_apart

SPLASH_SHARE = 0.8  #: of the vessel's width, that the plate against splashes has [-]


def wet_parts(stage: WetStage, making: Making) -> MadeParts:
    """Lid, throat, outlet, plate, vessel."""
    vessel, throat = one_value(stage.vessel_diameter), one_value(stage.throat_diameter)
    level, land = one_value(stage.level), making.rule("hole-land")
    outlet_at = level + making.rule("splash") if stage.outlet_height is None else one_value(stage.outlet_height)
    d = tube_outside(making, throat)
    wide = vessel + 2.0 * (land + making.rule("land"))
    holes = [SawnHole("centre_hole", d), SawnHole("outlet_hole", d, vessel / 2.0 - land - d / 2.0)]
    screws = bolt_circle(wide / 2.0 - land / 2.0, making.rule("bolt-pitch"), bolt_hole(making), "screw", least=6)
    lid = disc("lid", making.plate, wide, holes=holes, drills=screws)
    above = outlet_at - level
    dips = one_value(stage.immersion)
    high = level + above
    troubles = list(holes_apart(holes, lid, making))
    across, mouth = SPLASH_SHARE * vessel, d + making.rule("hole-play")
    splash = [ring("splash-plate", making.plate, across, mouth)] if mouth < across else []
    if not splash:
        troubles.append(Trouble("ring-gone", "splash-plate", mouth, across, stops=True))
    parts = (
        tube(
            "throat", making, throat, making.stub + making.plate.thickness + above + dips, "tool",
            immersion_m=dips, stub_m=making.stub, above_water_m=above,
        ),
        tube("outlet-tube", making, throat, 2.0 * making.stub + making.plate.thickness, "vacuum", stub_m=making.stub),
        lid,
        *splash,
        bought("gasket", "gasket", length_m=pi * vessel, thickness_m=making.rule("gasket")),
        bought("vessel", "vessel", d_m=vessel, height_m=high, water_m=level),
    )  # fmt: skip
    if above < making.rule("splash"):
        troubles.append(Trouble("splash", "vessel", above, making.rule("splash")))
    if dips >= level:
        troubles.append(Trouble("throat-on-floor", "throat", dips, level))
    return MadeParts(parts, tuple(troubles))
