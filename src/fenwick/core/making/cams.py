"""A tray that lifts the bin against its gasket: two cams on an axle, turned by a lever past their highest point."""

from __future__ import annotations

from fenwick.core.components.separator import Separator
from fenwick.core.making.given import Making
from fenwick.core.making.outlines import circle
from fenwick.core.making.parts import Drill, MadePart, MadeParts, Round, Trouble
from fenwick.core.making.pieces import bought, disc, panel

CAM_TRAY = "cam-tray"  #: the closure
CAMS = 2


def cam_parts(stage: Separator, making: Making, foot: float) -> MadeParts:
    """Tray, cams, axle and lever of a bin that is lifted; nothing for another closure.

    A round cam whose axle sits off its centre lifts by twice that distance in half a turn: as far as the bin must
    drop to be pulled out, and what the gasket is pressed.

    Parameters
    ----------
    foot : outside width of the bin's foot [m]
    """
    if stage.bin.closure != CAM_TRAY:
        return MadeParts(())
    lift = making.rule("cam-drop") + making.rule("gasket") / 2.0
    axle, land = making.rule("axle"), making.rule("hole-land")
    off = lift / 2.0
    d = 2.0 * (off + axle / 2.0 + land)
    parts = (
        disc("lift-tray", making.plate, foot + 2.0 * making.rule("ring")),
        _cam(making, d, off, axle, lift),
        panel("cam-lever", making, making.rule("leg-width") / 2.0, making.rule("lever")),
        bought("cam-axle", "rod", length_m=foot + 4.0 * making.plate.thickness, d_m=axle),
    )
    stand = stage.stand
    loose = stand is None or (stand.on == "floor" and not (stand.tied or stand.fixed))
    return MadeParts(parts, (Trouble("cams-want-frame", "lift-tray"),) if loose else ())


def _cam(making: Making, d: float, off: float, axle: float, lift: float) -> MadePart:
    dims = {"d_m": d, "off_centre_m": off, "lift_m": lift}
    bore = Drill(off, 0.0, axle + making.rule("hole-play"), "axle")
    edge = Round("edge", d / 2.0, "outside")
    return MadePart("cam", "disc", making.plate, dims, (circle(d / 2.0),), drills=(bore,), rounds=(edge,), count=CAMS)
