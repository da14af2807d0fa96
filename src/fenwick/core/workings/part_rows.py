"""The parts of a way one by one: how wide each is, and what it costs at an air."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from fenwick.core.arrays import one_value
from fenwick.core.components.chambers import OneBody
from fenwick.core.components.elements import Elbow, FixedLoss, Gate, Hose, InlineFilter, Plate, Reducer
from fenwick.core.components.separator import Separator
from fenwick.core.components.wet import WetStage
from fenwick.core.formulas.sizes import GRAVITY
from fenwick.core.formulas.wet import BUBBLES, THROAT_LOSS, WATER_DENSITY
from fenwick.core.line.catch import MOST_LOAD
from fenwick.core.line.filters import BAG, INLINE, OWN
from fenwick.core.line.layout import VACUUM_ID
from fenwick.core.workings import parts as costs
from fenwick.core.workings.cakes import cake_sizes
from fenwick.core.workings.catches import rate_caught
from fenwick.core.workings.filters import medium_loss
from fenwick.core.workings.parts import Cost, area_of, bore_of
from fenwick.core.workings.sheet import RULE, Input, Sheet, WorkedStep
from fenwick.core.workings.swirl import body_of, swirl_loss

if TYPE_CHECKING:
    from fenwick.core.workings.path import Path

#: of a mass flow [kg/s] and the density in the part [kg/m^3]: the suction it costs; None where it costs none
LossLaw = Callable[[WorkedStep, float], WorkedStep | None]


@dataclass(frozen=True)
class WayPart:
    """One part of the way."""

    name: str
    bore_out: WorkedStep
    area_in: WorkedStep
    area_out: WorkedStep
    loss: LossLaw


def row_of(path: Path, row: int, bore: WorkedStep | None) -> WayPart:
    """The part of a row of the network.

    Parameters
    ----------
    row : its place [-]
    bore : of what is ahead of it; None at a port
    """
    name, kind = path.network.ids[row], path.network.kinds[row]
    with path.sheet.section(title_of(name, kind)):
        return _row_of(path, row, bore)


def title_of(name: str, kind: str) -> str:
    """What the steps of a part stand under: its id, and after a colon what of it.

    Parameters
    ----------
    name : of its row
    kind : likewise
    """
    match kind:
        case "entry":
            return name.removesuffix(":entry")
        case "step":
            return f"Change of bore {name}"
        case "window":
            return f"{name.split(':')[0]}: side window"
        case "inlet":
            return "vacuum"
        case "filter":
            return f"vacuum: {name.split(':')[1]}"
        case "gate" if name.endswith(":gate"):
            return f"{name.removesuffix(':gate')}: gate"
        case _:
            return name


def _row_of(path: Path, row: int, bore: WorkedStep | None) -> WayPart:
    sheet, line = path.sheet, path.line
    name, kind = path.network.ids[row], path.network.kinds[row]
    part = path.parts.get(name)
    match kind:
        case "entry":
            port = next(leaf.port for leaf in line.leaves if f"{leaf.id}:entry" == name)
            leaf = name.removesuffix(":entry")
            cost = costs.entry_cost(sheet, line, leaf, port)
            return _plain(sheet, path, name, bore_of(sheet, f"{leaf}.port", port.bore), cost)
        case "step":
            assert bore is not None
            after = _bore_behind(path, row + 1)
            cost, narrow = costs.change_cost(sheet, name, bore, after, None)
            return _changed(sheet, path, name, bore, after, cost, narrow)
        case "separator":
            assert isinstance(part, Separator)
            return _separator(path, part)
        case "wet-stage":
            assert isinstance(part, WetStage)
            assert bore is not None
            return _wet(sheet, part, bore)
        case "window":
            stage = path.parts[name.split(":")[0]]
            assert isinstance(stage, OneBody)
            assert stage.window_area is not None
            window = sheet.given(f"{stage.id}.window_area_m2", "S", "Area of the side window", stage.window_area, "m²")
            around = _hose_bore(sheet, stage)
            return _plain(sheet, path, name, around, costs.plate_cost(sheet, name, around, window))
        case "inlet":
            inlet = line.vacuum.inlet_bore
            assert inlet is not None
            inside = sheet.given("vacuum.inlet_bore_m", "d", "Bore of the vacuum's inlet", inlet, "m")
            area = area_of(sheet, "vacuum.inlet.A", inside)
            return WayPart(name, inside, area, area, lambda mass, density: None)
        case "filter" | "inline-filter":
            return _medium(path, name, bore)
        case "gate" if part is None:
            assert bore is not None
            branch = next(b for leaf in line.leaves for b in leaf.way if f"{b.id}:gate" == name)
            assert branch.gate_opening is not None
            gate = Gate(f"{branch.id}.gate", one_value(bore.value), branch.gate_opening)
            return _plain(sheet, path, name, bore, costs.gate_cost(sheet, gate))
        case "reducer":
            assert isinstance(part, Reducer)
            taper = costs.taper_of(sheet, part)
            cost, narrow = costs.change_cost(sheet, name, taper.before, taper.behind, taper.length)
            return _changed(sheet, path, name, taper.before, taper.behind, cost, narrow)
        case _:
            return _simple(path, name)


def _simple(path: Path, name: str) -> WayPart:
    part = path.parts[name]
    assert isinstance(part, Hose | FixedLoss | Gate | Elbow | Plate)
    cost = costs.simple_cost(path.sheet, path.line, part)
    return _plain(path.sheet, path, name, bore_of(path.sheet, name, part.bore), cost)


def _bore_behind(path: Path, row: int) -> WorkedStep:
    """Bore at which the part of a row begins."""
    sheet, name, kind = path.sheet, path.network.ids[row], path.network.kinds[row]
    part = path.parts.get(name.split(":")[0] if kind == "window" else name)
    if kind == "inlet":
        inlet = path.line.vacuum.inlet_bore
        assert inlet is not None
        return sheet.given("vacuum.inlet_bore_m", "d", "Bore of the vacuum's inlet", inlet, "m")
    match part:
        case Separator():
            return _hose_bore(sheet, part)
        case Reducer():
            return costs.taper_of(sheet, part).before
        case Hose() | FixedLoss() | Gate() | Elbow() | Plate() | InlineFilter():
            return bore_of(sheet, name, part.bore)
        case _:
            raise TypeError(f"no bore of its own: {part!r}")


def _hose_bore(sheet: Sheet, stage: Separator) -> WorkedStep:
    """Of the round hose whose area a separator's inlet has."""
    body = body_of(sheet, stage)
    told = "Bore of the hose as large as the inlet"
    return sheet.step(
        f"{stage.id}.hose-bore", "d_hose", told, "sqrt(4 / pi * a * b)", "m", "geometry", a=body.inlet_height,
        b=body.inlet_width
    )  # fmt: skip


def _plain(sheet: Sheet, path: Path, name: str, bore: WorkedStep, cost: Cost) -> WayPart:
    area = area_of(sheet, f"{name}.area", bore)
    return WayPart(name, bore, area, area, lambda mass, density: _head_loss(path, name, cost, mass, density, area))


def _changed(
    sheet: Sheet, path: Path, name: str, before: WorkedStep, after: WorkedStep, cost: Cost, narrow: WorkedStep
) -> WayPart:
    first, last = area_of(sheet, f"{name}.area-in", before), area_of(sheet, f"{name}.area-out", after)
    ref = first if narrow is before else last
    return WayPart(name, after, first, last, lambda mass, density: _head_loss(path, name, cost, mass, density, ref))


def _head_loss(path: Path, name: str, cost: Cost, mass: WorkedStep, density: float, area: WorkedStep) -> WorkedStep:
    """K velocity heads of an area."""
    sheet, told, law = path.sheet, "Suction that it costs", "{} * m ** 2 / (2 * rho * A ** 2)"
    inputs: dict[str, Input] = {"m": mass, "rho": density, "A": area}
    if cost.per_friction is None:
        assert cost.fixed is not None
        return sheet.step(f"{name}.loss", "Δp", told, law.format("K"), "Pa", "", K=cost.fixed, **inputs)
    f = costs.friction(sheet, path.line, name, cost, mass, area)
    if cost.fixed is None:
        return sheet.step(
            f"{name}.loss", "Δp", told, law.format("k1 * f"), "Pa", "Darcy–Weisbach", k1=cost.per_friction, f=f,
            **inputs
        )  # fmt: skip
    return sheet.step(
        f"{name}.loss", "Δp", told, law.format("(k0 + k1 * f)"), "Pa", "Darcy–Weisbach", k0=cost.fixed,
        k1=cost.per_friction, f=f, **inputs
    )  # fmt: skip


def _separator(path: Path, stage: Separator) -> WayPart:
    sheet, name = path.sheet, stage.id
    body = body_of(sheet, stage)
    bore = sheet.step(f"{name}.outlet-bore", "d_out", "Bore of its outlet", "2 * R", "m", "", R=body.outlet)
    inside = area_of(sheet, f"{name}.area-in", _hose_bore(sheet, stage))
    outside = area_of(sheet, f"{name}.area-out", bore)

    def loss(mass: WorkedStep, density: float) -> WorkedStep:
        flow = sheet.step(
            f"{name}.flow", "Q", "Air through it, at its own density", "m / rho", "m³/s", m=mass, rho=density
        )
        load = _load(path, stage, mass)
        k = swirl_loss(sheet, stage, flow, load)
        return sheet.step(
            f"{name}.loss", "Δp", "Suction that it costs", "K * m ** 2 / (2 * rho * A ** 2)", "Pa", K=k, m=mass,
            rho=density, A=outside
        )  # fmt: skip

    return WayPart(name, bore, inside, outside, loss)


def _load(path: Path, stage: Separator, mass: WorkedStep) -> WorkedStep:
    """Dust per air at a stage; behind the first one the air counts as clean."""
    sheet = path.sheet
    if path.line.stages[0].id == stage.id:
        with sheet.section("What is caught"):
            rate = rate_caught(sheet, path.line, path.flows)
        if rate is not None:
            law = f"minimum(r / maximum(m, 1e-9), {MOST_LOAD})"
            path.load = sheet.step(f"{stage.id}.load", "c_0", "Dust per air that enters", law, "kg/kg", r=rate, m=mass)
            return path.load
    return sheet.published(f"{stage.id}.load", "c_0", "Dust per air that enters: it counts as clean", 0.0, "kg/kg", "")


def _wet(sheet: Sheet, stage: WetStage, bore: WorkedStep) -> WayPart:
    name = stage.id
    area = area_of(sheet, f"{name}.area", bore)

    def loss(mass: WorkedStep, density: float) -> WorkedStep:
        throat = sheet.given(f"{name}.throat_d_m", "d_t", "Diameter of the throat", stage.throat_diameter, "m")
        deep = sheet.given(f"{name}.immersion_m", "h_w", "Depth of the throat under water", stage.immersion, "m")
        wide = area_of(sheet, f"{name}.throat-area", throat, "A_t")
        law = (
            f"{WATER_DENSITY} * {GRAVITY} * h * minimum(1, m / {BUBBLES}) + {THROAT_LOSS} * m ** 2 / (2 * rho * A ** 2)"
        )
        return sheet.step(
            f"{name}.loss", "Δp", "Suction that the water and the throat cost", law, "Pa", "hydrostatics", RULE,
            h=deep, m=mass, rho=density, A=wide
        )  # fmt: skip

    return WayPart(name, bore, area, area, loss)


def _medium(path: Path, name: str, bore: WorkedStep | None) -> WayPart:
    sheet, line, part = path.sheet, path.line, path.parts.get(name)
    if isinstance(part, InlineFilter):
        medium, place, key = part.medium, INLINE, part.id
        bore = bore_of(sheet, part.id, part.bore)
    else:
        place = OWN if name == f"{VACUUM_ID}:{OWN}" else BAG
        found = line.vacuum.filter if place == OWN else line.vacuum.bag
        assert found is not None
        medium, key = found, f"vacuum.{place}"
    assert bore is not None
    area = area_of(sheet, f"{name}.area", bore)

    def loss(mass: WorkedStep, density: float) -> WorkedStep:
        flow = sheet.step(
            f"{name}.flow", "Q", "Air through it, at its own density", "m / rho", "m³/s", m=mass, rho=density
        )
        return medium_loss(sheet, line, key, medium, place, flow, cake_sizes(sheet, line, key, medium, place))

    return WayPart(name, bore, area, area, loss)
