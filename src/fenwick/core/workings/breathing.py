"""The room's air after a job: how much fine dust, and how long until a mask may come off."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.formulas.sizes import BREATHED, SIZE_COUNT, share_below
from fenwick.core.hours.air import DustSource, Room, clearing
from fenwick.core.line.catch import tool_rate, tools_of
from fenwick.core.workings.catches import made_at
from fenwick.core.workings.dusts import falling
from fenwick.core.workings.fates import Dusty
from fenwick.core.workings.filters import passes
from fenwick.core.workings.room_air import room_density
from fenwick.core.workings.sheet import GIVEN, RULE, Input, WorkedStep

ROOM = "The room's air"
CONVENTION = "usual conventions for what reaches the throat"


class Breathing:
    """The air of a room over a job on a line, on a sheet."""

    def __init__(self, dusty: Dusty, room: Room, given: tuple[str, ...], duration: float) -> None:
        """Over a job.

        Parameters
        ----------
        given : keys of the room that are given rather than by rule: height_m, air_changes
        duration : of the job [s]
        """
        self.dusty, self.sheet, self.line = dusty, dusty.sheet, dusty.line
        self.room, self.given = room, given
        self.duration = duration

    def _source(self) -> WorkedStep | None:
        """What gets into the room while the tools work, class by class; None where that is not known."""
        followed, line, sheet = self.dusty.followed(), self.line, self.sheet
        exhaust = self.dusty.exhaust()
        if followed is None or exhaust is None:
            return None
        parts: dict[str, Input] = {}
        laws = []
        for k, (group, tool) in enumerate(self.dusty.tools()):
            if tool is None or tool_rate(line, group) is None:
                return None
            first = line.leaves[group[0]].id
            outdoors = all(line.leaves[i].port.outdoors for leaf in tools_of(line) for i in leaf)
            with sheet.section(ROOM):
                made = made_at(sheet, line, group)
                law = "m * w * f * (1 - a)"
                more: dict[str, Input] = {"m": made, "w": tool.grains.weights, "f": tool.floats, "a": tool.floating}
                for i, port in tool.ports.items():
                    hood = line.leaves[i].port.hood
                    fan = None if hood is None else hood.extra_fan
                    if fan is None:
                        continue
                    pulls = {f"u{j}": other.drawn for j, other in tool.ports.items()}
                    blown = f"m * w * f * a * u{i} / ({' + '.join(pulls)}) * (1 - q{i})"
                    more |= {**pulls, f"q{i}": port.to_line}
                    if fan.medium is not None:
                        key = f"{line.leaves[i].id}.port.hood.extra_fan"
                        more[f"x{i}"] = passes(sheet, key, fan.medium, tool.grains)
                        blown += f" * x{i}"
                    law += f" + {blown}"
                told = "Missed by this tool's ports, and blown out of extra fans, class by class"
                parts[f"p{k}"] = sheet.step(
                    f"{first}.missed", "S", told, f"({law}) * {0.0 if outdoors else 1.0}", "kg/s", **more
                )
                parts[f"m{k}"] = made
            laws.append(f"p{k}")
        out = 0.0 if line.vacuum.exhaust_outdoors else 1.0
        total = " + ".join(name for name in parts if name.startswith("m"))
        with sheet.section(ROOM):
            below = sheet.published(
                "room.below-10", "c_10", "Of each class, below 10 µm: the class that holds it is cut there",
                np.tile(share_below(BREATHED), (np.size(exhaust.value) // SIZE_COUNT, 1)), "-", CONVENTION
            )  # fmt: skip
            law = f"c * ({' + '.join(laws)} + ({total}) * e * {out})"
            told = "Dust below 10 µm that gets into the room, class by class"
            return sheet.step("room.source", "S_i", told, law, "kg/s", c=below, e=exhaust, **parts)

    def _decay(self) -> WorkedStep:
        followed = self.dusty.followed()
        assert followed is not None
        sheet, room = self.sheet, self.room
        with sheet.section(ROOM):
            fall = falling(sheet, self.line, followed.grains, room_density(sheet, self.line), "room.falls")
            high = (
                sheet.given("room.height_m", "H_room", "Height of the room", room.height, "m", GIVEN)
                if "height_m" in self.given
                else sheet.rule("room.height", "H_room")
            )
            volume = self._volume()
            changes = self._changes()
            parts: dict[str, Input] = {"n": changes, "v": fall, "H": high}
            law = "n + v / H"
            if np.any(np.asarray(room.cleaned) > 0.0):
                cleaned = sheet.given(
                    "room.filter_m3_s", "Q_clean", "Air that a room filter cleans", room.cleaned, "m³/s"
                )
                law, parts = "n + q / V + v / H", {**parts, "q": cleaned, "V": volume}
            told = "Rate at which each class leaves the air: by air changes, and by falling"
            return sheet.step("room.decay", "λ_i", told, law, "1/s", "well-mixed room", **parts)

    def _changes(self) -> WorkedStep:
        if "air_changes" in self.given:
            return self.sheet.given(
                "room.air_changes", "n_air", "Air changes with the outside", self.room.changes, "1/s"
            )
        hourly = self.sheet.rule("room.shut", "n_hour")
        return self.sheet.step(
            "room.changes", "n_air", "Air changes of a shut shop", "n / 3600", "1/s", "", RULE, n=hourly
        )

    def _volume(self) -> WorkedStep:
        return self.sheet.given("room.volume_m3", "V", "Air of the room", self.room.volume, "m³")

    def _at_stop(self) -> WorkedStep | None:
        source = self._source()
        if source is None:
            return None
        decay = self._decay()
        with self.sheet.section(ROOM):
            lasts = self.sheet.given("job.duration_s", "D", "Duration of the job", self.duration, "s")
            law = "S / V * (1 - exp(-l * D)) / l" if np.all(np.asarray(decay.value) > 0.0) else "S / V * D"
            told = "In the air of the room when the tool stops, class by class"
            parts: dict[str, Input] = {"S": source, "V": self._volume(), "l": decay, "D": lasts}
            return self.sheet.step("room.at-stop", "C_i", told, law, "kg/m³", "well-mixed room", **parts)

    def fog(self) -> WorkedStep | None:
        """Fine dust in the air when the tool stops [mg/m³]; None where that is not known."""
        there = self._at_stop()
        if there is None:
            return None
        told = "Dust below 10 µm in the room's air when the tool stops"
        return self.sheet.step("room.fog", "C", told, "1e6 * sum(C)", "mg/m³", "well-mixed room", C=there)

    def masked(self, source: DustSource) -> WorkedStep | None:
        """How long a mask stays on after the tool stops [min]; None where that is not known, or the air never clears.

        Parameters
        ----------
        source : as it is told on the pages
        """
        there = self._at_stop()
        if there is None:
            return None
        clears = one_value(clearing(self.room, source, self.duration, self.sheet.rules["room.clear"]).clears)
        with self.sheet.section(ROOM):
            level = self.sheet.rule("room.clear", "C_clear")
            told = "How long a mask stays on after the tool stops"
            if clears == 0.0:
                return self.sheet.step(
                    "room.masked", "t_mask", f"{told}: the air was clear all the time", "where(sum(C) <= L, 0, 1)",
                    "min", C=there, L=level
                )  # fmt: skip
            if not np.isfinite(clears):
                return None
            residual = "(sum(C * exp(-l * value * 60)) - L) / L"
            return self.sheet.solved(
                "room.masked", "t_mask", told, clears / 60.0, residual, "min", "well-mixed room", C=there,
                l=self._decay(), L=level
            )  # fmt: skip
