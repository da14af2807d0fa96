"""Where the dust goes: what is caught, what every stage keeps, what comes past, what gets into the room."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.separator import Separator
from fenwick.core.components.wet import WetStage
from fenwick.core.line.catch import tool_rate, tools_of
from fenwick.core.line.rows import bin_leak_id
from fenwick.core.workings.catches import AtTool, caught_share, made_at, stream_of, tool_catch
from fenwick.core.workings.dusts import Grains, grains_of, median_of
from fenwick.core.workings.filters import drops, passes, passes_through
from fenwick.core.workings.in_bin import AirInside
from fenwick.core.workings.path import Path
from fenwick.core.workings.room_air import room_density
from fenwick.core.workings.separation import kept_by_stage, stage_cut
from fenwick.core.workings.sheet import Input, WorkedStep

DUST = "The dust"


@dataclass(frozen=True)
class DustWay:
    """The dust on its way, class by class, per dust made: as steps."""

    grains: Grains
    arrives: WorkedStep  #: where the branches join
    real: bool  #: whether it is caught indeed; else it is the dust as made
    entering: tuple[WorkedStep, ...]  #: each stage
    kept: tuple[WorkedStep, ...]  #: by each stage
    past: WorkedStep  #: what the vacuum gets


class Dusty:
    """The dust of a line, followed on a sheet over its path."""

    def __init__(self, path: Path) -> None:
        self.path, self.sheet, self.line = path, path.sheet, path.line
        self._followed: DustWay | None = None

    def tools(self) -> list[tuple[tuple[int, ...], AtTool | None]]:
        """Every tool at work with what its ports catch."""
        found = []
        for group in tools_of(self.line):
            with self.sheet.section("What is caught"):
                found.append((group, tool_catch(self.sheet, self.line, group, self.path.flows)))
        return found

    def caught(self, port: int) -> WorkedStep | None:
        """Of the dust of a port's tool, what all its ports catch; None where that is not known.

        Parameters
        ----------
        port : its place among the leaves [-]
        """
        for group, tool in self.tools():
            if port in group and tool is not None:
                with self.sheet.section("What is caught"):
                    return caught_share(self.sheet, self.line, tool, f"{self.line.leaves[port].id}.caught")
        return None

    def _shares(self, groups: list[tuple[int, ...]]) -> list[WorkedStep | None] | None:
        """Each tool's share of all the dust made; None where it cannot be told."""
        if len(groups) == 1:
            return [None]
        if any((rate := tool_rate(self.line, group)) is None or one_value(rate) < 0.0 for group in groups):
            return None
        made = {f"m{k}": made_at(self.sheet, self.line, group) for k, group in enumerate(groups)}
        if sum(one_value(step.value) for step in made.values()) <= 0.0:
            return None
        told, total = "Share of this tool in all the dust made", " + ".join(made)
        with self.sheet.section(DUST):
            return [
                self.sheet.step(
                    f"{self.line.leaves[group[0]].id}.share", "s_made", told, f"m{k} / ({total})", "-", **made
                )
                for k, group in enumerate(groups)
            ]

    def arrives(self) -> tuple[WorkedStep, bool] | None:
        """(what arrives where the branches join, whether it is caught indeed); None where the dust is not known."""
        if self.line.dust is None:
            return None
        with self.sheet.section(DUST):
            as_made = grains_of(self.sheet, self.line.dust).weights
        tools = self.tools()
        shares = self._shares([group for group, _ in tools])
        if shares is None or not tools or any(tool is None for _, tool in tools):
            return as_made, False
        parts: dict[str, Input] = {}
        laws = []
        for k, ((_, tool), share) in enumerate(zip(tools, shares, strict=True)):
            assert tool is not None
            with self.sheet.section("What is caught"):
                parts[f"s{k}"] = stream_of(self.sheet, self.line, tool)
            laws.append(f"s{k}" if share is None else f"w{k} * s{k}")
            if share is not None:
                parts[f"w{k}"] = share
        told = "Of all the dust made, what arrives where the ways join, class by class"
        with self.sheet.section(DUST):
            found = self.sheet.step("dust.arrives", "s", told, " + ".join(laws), "-", **parts)
        return (found, True) if float(np.sum(found.value)) > 0.0 else (as_made, False)

    def followed(self) -> DustWay | None:
        """The dust through every stage; None where it is not known."""
        if self._followed is None and self.line.dust is not None:
            self._followed = self._follow()
        return self._followed

    def _follow(self) -> DustWay:
        sheet, line = self.sheet, self.line
        assert line.dust is not None
        arrives = self.arrives()
        grains = grains_of(sheet, line.dust)
        assert arrives is not None
        stream, real = arrives
        entering: list[WorkedStep] = []
        kept: list[WorkedStep] = []
        past, run, at = stream, [], 0
        for part in line.trunk:
            if not isinstance(part, Separator | WetStage):
                run.append(part)
                continue
            past = self._past_filters(past, run, f"ahead-of-{part.id}", grains)
            run = []
            entering.append(past)
            with sheet.section(part.id):
                keeps = kept_by_stage(sheet, line, part, grains, self.air_inside(part, grains, entering[0]))
                told = "Of all the dust made, kept by this stage, class by class"
                kept.append(sheet.step(f"{part.id}.kept", "k", told, "s * e", "-", s=past, e=keeps))
                told = "Likewise, past it"
                past = sheet.step(f"{part.id}.past", "s", told, "s - k", "-", s=past, k=kept[-1])
            at += 1
        past = self._past_filters(past, run, "ahead-of-vacuum", grains)
        return DustWay(grains, stream, real, tuple(entering), tuple(kept), past)

    def _past_filters(self, past: WorkedStep, run: list, name: str, grains: Grains) -> WorkedStep:  # type: ignore[type-arg]
        with self.sheet.section(DUST):
            through = passes_through(self.sheet, self.line, run, grains)
            if through is None:
                return past
            told = "Of all the dust made, past the filters in the run"
            return self.sheet.step(f"dust.{name}", "s", told, "s * P", "-", s=past, P=through)

    def air_inside(self, stage: Separator | WetStage, grains: Grains, enters: WorkedStep | None) -> AirInside:
        """The air in a stage, from the path."""
        sheet, path, name = self.sheet, self.path, stage.id
        mass = path.ends[name].mass
        density = sheet.steps[f"{name}.density"]
        flow = sheet.step(
            f"{name}.flow", "Q", "Air through it, at its own density", "m / rho", "m³/s", m=mass, rho=density
        )
        if isinstance(stage, WetStage):
            return AirInside(flow, density, 0.0, 0.0)
        leaks = path.leaks[bin_leak_id(name)]
        law, told = "m / rho", "Air that leaks in below it, at room density"
        leak = sheet.step(f"{name}.leak", "Q_leak", told, law, "m³/s", m=leaks, rho=room_density(sheet, self.line))
        load = sheet.steps[f"{name}.load"]
        median = None
        if one_value(load.value) > 0.0 and enters is not None:
            median = median_of(sheet, grains, enters, f"{name}.median")
        return AirInside(flow, density, load, leak, median)

    def cut(self, stage: Separator) -> WorkedStep | None:
        """The cut size of a stage; None where the dust is not known."""
        if self.line.dust is None:
            return None
        with self.sheet.section(DUST):
            grains = grains_of(self.sheet, self.line.dust)
        with self.sheet.section(stage.id):
            return stage_cut(self.sheet, self.line, stage, grains, self.air_inside(stage, grains, None))

    def kept(self) -> WorkedStep | None:
        """Of what enters the first stage, what all of them keep; None without one, or for unknown dust."""
        found = self.followed()
        if found is None or not found.kept:
            return None
        parts: dict[str, Input] = {f"k{i}": one for i, one in enumerate(found.kept)}
        law = f"sum({' + '.join(parts)}) / sum(s)"
        told = "Kept of what enters the first stage, by mass"
        return self.sheet.step("kept", "η", told, law, "-", s=found.entering[0], **parts)

    def kept_by(self, stage: str) -> WorkedStep | None:
        """Of what enters a stage, what it keeps; None where the dust is not known.

        Parameters
        ----------
        stage : its id
        """
        found = self.followed()
        at = next((i for i, one in enumerate(self.line.stages) if one.id == stage), None)
        if found is None or at is None:
            return None
        told = "Kept of what enters it, by mass"
        return self.sheet.step(
            f"{stage}.share", "η", told, "sum(k) / sum(s)", "-", k=found.kept[at], s=found.entering[at]
        )

    def binned(self) -> WorkedStep | None:
        """Of 100 g made, what ends in the bins; None where that is not known."""
        found = self.followed()
        if found is None or not found.real:
            return None
        dry = [
            kept for stage, kept in zip(self.line.stages, found.kept, strict=True) if not isinstance(stage, WetStage)
        ]
        if not dry:
            return None
        parts: dict[str, Input] = {f"k{i}": one for i, one in enumerate(dry)}
        told = "Of 100 g made, in the bins"
        return self.sheet.step("bin-of-100", "m_bin", told, f"100 * sum({' + '.join(parts)})", "g", **parts)

    def exhaust(self) -> WorkedStep | None:
        """Of all the dust made, out of the vacuum again, class by class; None where that is not known."""
        found = self.followed()
        if found is None or not found.real:
            return None
        vacuum, sheet, grains = self.line.vacuum, self.sheet, found.grains
        parts: dict[str, Input] = {"s": found.past}
        law = "s"
        with sheet.section("vacuum"):
            if vacuum.bag is not None:
                parts["b"] = passes(sheet, "vacuum.bag", vacuum.bag, grains)
                law += " * b"
            else:
                parts["t"] = drops(sheet, grains.sizes)
                law += " * (1 - t)"
            if vacuum.filter is not None:
                parts["f"] = passes(sheet, "vacuum.filter", vacuum.filter, grains)
                law += " * f"
            told = "Of all the dust made, out of the vacuum again, class by class"
            return sheet.step("dust.exhaust", "e", told, law, "-", **parts)
