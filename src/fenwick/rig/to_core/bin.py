"""From the bin in the rig file to the core's."""

from __future__ import annotations

from fenwick.core.components.bins import MATERIALS, OTHER, Bin, Ledge, Lid, Material, Relief, Sides
from fenwick.core.formulas.shell import section_stiffness
from fenwick.rig.format.bin import BinPart, LidPart, StiffenerPart


def build_bin(part: BinPart) -> Bin:
    """The core's bin."""
    own = None
    if part.material == OTHER and part.youngs_modulus_pa is not None and part.poisson_ratio is not None:
        own = Material("Own material", part.youngs_modulus_pa, part.poisson_ratio)
    return Bin(
        heights=tuple(point.height_m for point in part.profile),
        diameters=tuple(point.across_m for point in part.profile),
        sides=sides_of(part),
        ribs=part.ribs,
        sight=part.sight,
        closure=part.closure,
        wall=part.wall_m,
        material=None if part.material == OTHER else part.material,
        fill_height=part.fill_height_m,
        leak_area=part.leak_area_m2,
        stiffeners=tuple(ring.height_m for ring in part.stiffeners),
        ledges=tuple(Ledge(ledge.height_m, ledge.depth_m) for ledge in part.ledges),
        nested=part.nested,
        own_material=own,
        ring_stiffness=tuple(_ring(ring) for ring in part.stiffeners),
        lid=_lid(part.lid) if part.lid else None,
        relief=Relief(part.relief.opens_at_pa, part.relief.area_m2) if part.relief else None,
        mass=part.mass_kg,
    )


def sides_of(part: BinPart) -> tuple[Sides, ...]:
    """The sides of a rectangular bin at its heights; none of a round one."""
    if part.is_round:
        return ()
    return tuple(Sides(point.width_m, point.depth_m) for point in part.profile)


def _ring(part: StiffenerPart) -> float | None:
    """EI of a ring [N m^2]; None where its section is not known."""
    if part.material is None or part.outwards_m is None or part.tall_m is None:
        return None
    return float(section_stiffness(MATERIALS[part.material].youngs_modulus, part.outwards_m, part.tall_m))


def _lid(part: LidPart) -> Lid:
    stiffener = None
    if part.stiffener_material is not None and part.stiffener_m is not None:
        stiffener = (part.stiffener_material, part.stiffener_m)
    return Lid(part.material, part.thickness_m, part.rim_held, stiffener)
