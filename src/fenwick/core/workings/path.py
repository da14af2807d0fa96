"""The air from every port to the fan, part by part: the operating point as a chain of steps.

What is solved for stands as a plain number in the steps that lead up to it; the step that holds it follows them, with
the balance that it keeps.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.chambers import OneBody
from fenwick.core.components.elements import Element, Leak
from fenwick.core.components.separator import Separator
from fenwick.core.dust.cakes import with_cakes
from fenwick.core.formulas.orifice import DISCHARGE
from fenwick.core.line.catch import Catch
from fenwick.core.line.layout import lay_out
from fenwick.core.line.line import Line
from fenwick.core.line.network import Network, Segment
from fenwick.core.line.operating import OperatingPoint, operating_point
from fenwick.core.line.solver import FASTEST, LEAST_JOINT_SHARE, LEAST_NODE_SHARE, LEAST_PRESSURE_SHARE
from fenwick.core.workings.part_rows import WayPart, row_of, title_of
from fenwick.core.workings.parts import area_of
from fenwick.core.workings.room_air import fan_suction, gas_constant, room_density, room_pressure, temperature
from fenwick.core.workings.sheet import Input, Sheet, WorkedStep

ORIFICE = "sharp-edged gap"


@dataclass(frozen=True)
class AirBehind:
    """The air where a part ends, as steps."""

    mass: WorkedStep
    total: WorkedStep  #: suction, its own velocity counted
    density: WorkedStep
    area: WorkedStep
    bore: WorkedStep
    static: WorkedStep  #: suction on the wall
    speed: WorkedStep


class Path:
    """The chain of a line at its operating point, written on a sheet."""

    def __init__(self, sheet: Sheet, line: Line, port: int) -> None:
        self.sheet, self.line, self.port = sheet, with_cakes(line), port
        self.point: OperatingPoint = operating_point(self.line)
        self.network: Network = lay_out(self.line, Catch(self.line))
        self.parts = _all_parts(self.line)
        self.flows: dict[int, Input] = {i: float(self.point.port_flow[i, 0]) for i in range(len(self.line.leaves))}
        self.load: WorkedStep | None = None  #: c0 at the first stage
        self.ends: dict[str, AirBehind] = {}  #: by part
        self.leaks: dict[str, WorkedStep] = {}  #: mass flow of every leak
        self.air: dict[int, WorkedStep] = {}  #: at every port, solved
        self._segments: list[tuple[AirBehind, tuple[int, ...]]] = []  #: (its end, leaves whose air it holds)

    def walk(self) -> Path:
        """Write every part down, from the ports to the fan, and what is solved."""
        for segment in self.network.segments:
            self._segment(segment)
        end, leaves = self._segments[-1]
        with self.sheet.section("vacuum"):
            flow = self.sheet.step(
                "vacuum.flow", "Q_vac", "Air at the vacuum, at room density", "m / rho", "m³/s", "", m=end.mass,
                rho=room_density(self.sheet, self.line)
            )  # fmt: skip
            fan = fan_suction(self.sheet, self.line, flow)
            others = {f"with{i}": step for i, step in self.air.items()}
            told = "Air at the tool: the fan makes just what the way to it costs"
            self._solve(self.port, told, "(fan - lost) / fan", fan=fan, lost=end.total, **others)
        assert self.port in leaves
        return self

    @property
    def solved(self) -> tuple[WorkedStep, ...]:
        """The air at every port."""
        return tuple(self.air.values())

    def mean_density(self, row: int) -> float:
        """Of the air in a part, as solved [kg/m^3].

        Parameters
        ----------
        row : of the part in the network [-]
        """
        return float(self.point.stations.density_mean[row, 0])

    def _solve(self, leaf: int, told: str, residual: str, **inputs: Input) -> None:
        name = self.line.leaves[leaf].id
        flow = self.flows[leaf]
        assert not isinstance(flow, WorkedStep)
        source = "balance of suction on every open way"
        self.air[leaf] = self.sheet.solved(f"{name}.air", "Q", told, flow, residual, "m³/s", source, **inputs)

    def _segment(self, segment: Segment) -> None:
        if segment.node is None:
            leaf = self._leaf_at(segment.start)
            branch = self.line.leaves[leaf]
            with self.sheet.section(branch.id):
                told = "Air that the port draws, by mass"
                mass = self.sheet.step(
                    f"{branch.id}.mass", "ṁ", told, "rho * Q", "kg/s", "", rho=room_density(self.sheet, self.line),
                    Q=self.flows[leaf]
                )  # fmt: skip
            end = self._rows(segment, mass, None, None)
            self._segments.append((end, (leaf,)))
            return
        begun, leaves = self._node(segment)
        self._segments.append((self._rows(segment, begun.mass, begun, begun.bore), leaves))

    def _leaf_at(self, row: int) -> int:
        name = self.network.ids[row].removesuffix(":entry")
        return next(i for i, leaf in enumerate(self.line.leaves) if leaf.id == name)

    def _rows(self, segment: Segment, mass: WorkedStep, begun: AirBehind | None, bore: WorkedStep | None) -> AirBehind:
        end = begun
        for row in range(segment.start, segment.stop):
            part = row_of(self, row, bore)
            with self.sheet.section(title_of(self.network.ids[row], self.network.kinds[row])):
                end = self._row(row, part, mass, end)
            self.ends[part.name] = end
            bore = part.bore_out
        assert end is not None
        return end

    def _row(self, row: int, part: WayPart, mass: WorkedStep, before: AirBehind | None) -> AirBehind:
        """One part: its loss, and the air where it ends."""
        sheet, name = self.sheet, part.name
        density = self.mean_density(row)
        loss = part.loss(mass, density)
        if loss is None and before is not None:
            total = before.total
        else:
            assert loss is not None
            parts: dict[str, Input] = {"own": loss} if before is None else {"own": loss, "before": before.total}
            total = sheet.step(
                f"{name}.total", "p", "Suction behind it, the air's speed counted", " + ".join(parts), "Pa", "", **parts
            )
        area = part.area_out
        behind = self.density(f"{name}.behind", total, mass, area)
        if before is None:
            entering = room_density(sheet, self.line)
        elif before.area.value == part.area_in.value:
            entering = before.density
        else:
            entering = self.density(f"{name}.before", before.total, mass, part.area_in)
        if loss is not None:
            residual = "(value - (a + b) / 2) / value"
            told = "Density of the air in it: between its ends"
            sheet.solved(f"{name}.density", "ρ", told, density, residual, "kg/m³", "ideal gas", a=entering, b=behind)
        return self._end(name, mass, total, behind, area, part.bore_out)

    def _end(
        self, name: str, mass: WorkedStep, total: WorkedStep, density: WorkedStep, area: WorkedStep, bore: WorkedStep
    ) -> AirBehind:
        sheet, parts = self.sheet, {"m": mass, "rho": density, "A": area}
        speed = sheet.step(f"{name}.speed", "v", "Air speed where it ends", "m / (rho * A)", "m/s", "", **parts)
        law = "p + m ** 2 / (2 * rho * A ** 2)"
        told = "Suction there as a gauge on the wall reads it"
        static = sheet.step(f"{name}.static", "p_wall", told, law, "Pa", "Bernoulli", p=total, **parts)
        return AirBehind(mass, total, density, area, bore, static, speed)

    def density(self, name: str, total: WorkedStep, mass: WorkedStep, area: WorkedStep) -> WorkedStep:
        """Of the air where a suction and a mass flow are known.

        Parameters
        ----------
        name : of the place
        """
        sheet, room = self.sheet, room_pressure(self.sheet, self.line)
        gas = {"R": gas_constant(sheet), "T": temperature(sheet, self.line)}
        law = "2 * R * T * (m / (A * maximum(p - s, 0.2 * p))) ** 2"
        told = "Twice the velocity head over the pressure there"
        head = sheet.step(f"{name}.head", "h", told, law, "-", "", m=mass, A=area, p=room, s=total, **gas)
        law = (
            f"maximum(maximum(p - s, 0.2 * p) * (0.5 + 0.5 * sqrt(1 - minimum(h, {FASTEST}))"
            f" - maximum(h - {FASTEST}, 0) / (4 * sqrt({1 - FASTEST}))), {LEAST_PRESSURE_SHARE} * p) / (R * T)"
        )
        told = "Density of the air there, by the pressure on the wall"
        return sheet.step(f"{name}.density", "ρ", told, law, "kg/m³", "ideal gas", p=room, s=total, h=head, **gas)

    # --- where branches join, and leaks ------------------------------------------------------------------------------

    def _node(self, segment: Segment) -> tuple[AirBehind, tuple[int, ...]]:
        node = segment.node
        assert node is not None
        children = [self._segments[i] for i in node.children]
        leaves = tuple(leaf for _, own in children for leaf in own)
        chosen = next((k for k, (_, own) in enumerate(children) if self.port in own), 0)
        meets = children[chosen][0]
        for k, (end, own) in enumerate(children):
            if k != chosen:
                told = "Air at this tool: where its way joins, the suction is that of the other"
                self._solve(own[0], told, "(own - other) / other", own=end.static, other=meets.static)
        title = "Where they join" if len(children) > 1 else f"{self._title(segment)}: leak"
        with self.sheet.section(title):
            name = f"node-{segment.start}"
            parts: dict[str, Input] = {f"m{k}": end.mass for k, (end, _) in enumerate(children)}
            for k, (leak, _) in enumerate(node.leaks):
                parts[f"l{k}"] = self._leak(leak, meets.static)
            mass = self.sheet.step(f"{name}.mass", "ṁ", "Air that goes on, by mass", " + ".join(parts), "kg/s", **parts)
            return self._begin(segment, name, mass, [end for end, _ in children], meets), leaves

    def _title(self, segment: Segment) -> str:
        return self.network.ids[segment.start - 1]

    def _leak(self, name: str, suction: WorkedStep) -> WorkedStep:
        sheet, line = self.sheet, self.line
        area = self._leak_area(name)
        law = f"{DISCHARGE} * A * sqrt(2 * p * rho)"
        flow = sheet.step(
            f"{name}.flow", "ṁ_leak", "Air that leaks in, by mass", law, "kg/s", ORIFICE, A=area, p=suction,
            rho=room_density(sheet, line)
        )  # fmt: skip
        self.leaks[name] = flow
        return flow

    def _leak_area(self, name: str) -> WorkedStep:
        sheet, part = self.sheet, self.parts.get(name.split(":")[0])
        if isinstance(part, Separator) and name.endswith(":bin"):
            if part.bin.leak_area is None:
                return sheet.rule(f"closure.{part.bin.closure}", "A_leak")
            own = sheet.given(f"{part.id}.bin.leak_area_m2", "A_leak", "Leak below it", part.bin.leak_area, "m²")
            return sheet.step(
                f"{name}.area", "A_leak", "Likewise, as read", "c * A", "m²",
                c=sheet.rule("bin.leak-reading", "c_leak"), A=own
            )  # fmt: skip
        if isinstance(part, OneBody):
            return sheet.given(f"{part.id}.deck_leak_m2", "A_leak", "Leak under its deck", part.deck_leak, "m²")
        assert isinstance(part, Leak)
        own = sheet.given(f"{name}.area_m2", "A_leak", "Area of the leak", part.area, "m²")
        told = "Likewise, as leaks turn out"
        return sheet.step(f"{name}.taken", "A_leak", told, "c * A", "m²", c=sheet.rule("leak.reading", "c_leak"), A=own)

    def _begin(
        self, segment: Segment, name: str, mass: WorkedStep, children: list[AirBehind], meets: AirBehind
    ) -> AirBehind:
        """The air where a segment begins: it recovers of its own velocity head what arrives as momentum."""
        sheet = self.sheet
        bore = self._begin_bore(segment, meets)
        area = area_of(sheet, f"{name}.A", bore) if bore is not meets.bore else meets.area
        assert segment.node is not None
        density = self._begin_density(segment, one_value(mass.value), children, one_value(area.value), meets)
        law = []
        parts: dict[str, Input] = {"m": mass, "rho": density, "A": area}
        for k, (end, cosine) in enumerate(zip(children, segment.node.cosines, strict=True)):
            parts |= {f"m{k}": end.mass, f"r{k}": end.density, f"A{k}": end.area}
            law.append(f"(m{k} / m) ** 2 * (rho * A) / (r{k} * A{k}) * {one_value(cosine):.12g}")
        told = "Momentum that arrives, over that which goes on"
        arrives = sheet.step(f"{name}.momentum", "S", told, " + ".join(law), "-", "momentum", **parts)
        least = LEAST_JOINT_SHARE if len(children) == 1 else LEAST_NODE_SHARE
        law_ = f"p - minimum((2 * S - 1) * m ** 2 / (2 * rho * A ** 2), {1.0 - least} * p)"
        told = "Suction where it goes on, the air's speed counted"
        total = sheet.step(
            f"{name}.total", "p", told, law_, "Pa", "momentum", p=meets.static, S=arrives, m=mass, rho=density, A=area
        )
        if segment.stop > segment.start:
            there = self.density(f"{name}.there", total, mass, area)
            residual = "(value - r) / value"
            told = "Density of the air that goes on"
            solved = sheet.solved(f"{name}.density", "ρ", told, density, residual, "kg/m³", "ideal gas", r=there)
        else:
            solved = children[-1].density
        return self._end(name, mass, total, solved, area, bore)

    def _begin_bore(self, segment: Segment, meets: AirBehind) -> WorkedStep:
        wide = float(np.sqrt(4.0 / np.pi * one_value(np.ravel(segment.area_start)[0])))
        if np.isclose(one_value(meets.bore.value), wide, rtol=1e-9):
            return meets.bore
        return self.sheet.given(f"node-{segment.start}.junction_bore_m", "d", "Bore where they join", wide, "m")

    def _begin_density(
        self, segment: Segment, mass: float, children: list[AirBehind], area: float, meets: AirBehind
    ) -> float:
        """Of the air that goes on, by repeated substitution [kg/m^3]."""
        assert segment.node is not None
        if segment.stop == segment.start:
            return one_value(children[-1].density.value)
        room, gas = one_value(self.line.site.pressure), 287.05 * one_value(self.line.site.temperature)
        least = LEAST_JOINT_SHARE if len(children) == 1 else LEAST_NODE_SHARE
        static, rho = one_value(meets.static.value), one_value(meets.density.value)
        for _ in range(40):
            ratios = [
                (one_value(end.mass.value) / mass) ** 2
                * rho
                * area
                / (one_value(end.density.value) * one_value(end.area.value))
                for end in children
            ]
            arrives = sum(r * one_value(c) for r, c in zip(ratios, segment.node.cosines, strict=True))
            head = mass**2 / (2.0 * rho * area**2)
            total = static - min((2.0 * arrives - 1.0) * head, (1.0 - least) * static)
            rest = max(room - total, 0.2 * room)
            fast = 2.0 * gas * (mass / (area * rest)) ** 2
            share = (
                0.5
                + 0.5 * (1.0 - min(fast, FASTEST)) ** 0.5
                - max(fast - FASTEST, 0.0) / (4.0 * (1.0 - FASTEST) ** 0.5)
            )
            rho = max(rest * share, LEAST_PRESSURE_SHARE * room) / gas
        return rho


def _all_parts(line: Line) -> dict[str, Element]:
    parts = [*line.trunk, *(part for leaf in line.leaves for branch in leaf.way for part in branch.elements)]
    return {part.id: part for part in parts}
