"""How long a filter lasts, what an hour of work costs, when a separator has paid: the march, in steps."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, one_value
from fenwick.core.components.elements import InlineFilter
from fenwick.core.hours.ageing import (
    HOUR,
    INLINE,
    LOADS,
    AgeingMap,
    ageing_map,
    followed_filter,
    without_separators,
)
from fenwick.core.hours.course import Course
from fenwick.core.hours.lives import LONG, MOST_CLEANINGS, PriceRange, Prices
from fenwick.core.hours.march import traced
from fenwick.core.hours.upkeep import clean_filters, coated, own_bag
from fenwick.core.line.catch import tool_rate, tools_of
from fenwick.core.line.line import Line
from fenwick.core.workings.catches import made_at
from fenwick.core.workings.sheet import RULE, Input, Sheet, WorkedStep

SOLVED_SO = "each solved like the air at the tool, over three fills of the bin"
WITH, WITHOUT = "with.", "without."


class Ageing:
    """A line with clean filters, marched over the hours on a sheet; with its separators, or without."""

    def __init__(self, sheet: Sheet, line: Line, port: int, way: str) -> None:
        self.sheet, self.line, self.way = sheet, line, way
        self.title = "With the separator" if way == WITH else "Without it"
        looked_at = line if way == WITH else without_separators(line)
        self.mapped: AgeingMap | None = ageing_map(looked_at, port)
        self.inline = followed_filter(looked_at)
        self.bag = own_bag(line.vacuum)
        self.course: Course | None = None
        if self.mapped is not None:
            self.filters = clean_filters(line.vacuum, self.bag)
            self.course, self.trace = traced(self.mapped, self.filters, LONG)

    @property
    def known(self) -> bool:
        """Whether the line can be followed."""
        return self.mapped is not None

    def _name(self, name: str) -> str:
        return f"{self.way}{name}"

    def _time(self) -> WorkedStep:
        assert self.course is not None
        told = "Hours of work at which the march looks"
        return self.sheet.published("march.hours", "t_k", told, self.course.hours, "h", "steps that grow with time")

    def _made(self) -> WorkedStep:
        parts = {}
        for group in tools_of(self.line):
            if tool_rate(self.line, group) is not None:
                parts[f"m{group[0]}"] = made_at(self.sheet, self.line, group)
        return self.sheet.step("made", "ṁ_made", "Dust made by all tools at work", " + ".join(parts), "kg/s", **parts)

    def _grown(
        self, name: str, symbol: str, told: str, per_dust: Array, area: WorkedStep | None, unit: str
    ) -> WorkedStep:
        """What has come together up to each hour: the mean rate of every step, per dust made, times its length."""
        hours = self._time()
        assert isinstance(hours.value, np.ndarray)
        spans, means = np.diff(hours.value, prepend=0.0), np.concatenate([[0.0], per_dust])
        parts: dict[str, Input] = {"m": self._made(), "dt": spans, "s": means}
        law = f"cumsum(m * s * dt * {HOUR:g})"
        if area is not None:
            law, parts = f"cumsum(m / A * s * dt * {HOUR:g})", {**parts, "A": area}
        return self.sheet.step(self._name(name), symbol, told, law, unit, f"Heun's method; s {SOLVED_SO}", **parts)

    def _area(self) -> WorkedStep:
        filter_ = self.line.vacuum.filter
        assert filter_ is not None
        return self.sheet.given("vacuum.filter.area_m2", "A_f", "Area of the filter", filter_.area, "m²")

    def _bag_area(self) -> WorkedStep:
        bag = self.line.vacuum.bag
        assert bag is not None
        return self.sheet.given("vacuum.bag.area_m2", "A_bag", "Area of the bag", bag.area, "m²")

    def _cake(self) -> WorkedStep:
        told = "Resistance of the cake up to each hour"
        return self._grown("cake", "K_2W", told, self.trace.cake, self._area(), "Pa s/m")

    def _coefficient(self) -> WorkedStep:
        """What filter and bag cost, over the air through them."""
        sheet, vacuum = self.sheet, self.line.vacuum
        parts: dict[str, Input] = {}
        laws = []
        if vacuum.filter is not None:
            kind = vacuum.filter.kind
            load = self._grown(
                "load", "W", "Dust on the filter up to each hour", self.trace.load, self._area(), "kg/m²"
            )
            clean, full = sheet.rule(f"filter.k1-{kind}", "K_1"), sheet.rule("filter.full", "W_full")
            parts |= {"c": self._cake(), "k": clean, "W": load, "F": full, "A": self._area()}
            laws.append("(c + k * maximum(W / F - 1, 0)) / A")
        if vacuum.bag is not None:
            told = "Resistance of the cake on the bag's wall"
            cake = self._grown("bag-cake", "K_2W", told, self.trace.bag_cake, self._bag_area(), "Pa s/m")
            parts |= {"K": sheet.rule("filter.k1-bag", "K_1"), "b": cake, "B": self._bag_area()}
            laws.append("(K + b) / B")
        told = "Suction that filter and bag cost beyond a clean filter, over the air through them"
        return sheet.step(self._name("coefficient"), "c", told, " + ".join(laws), "Pa s/m³", "Darcy", **parts)

    def flow(self) -> WorkedStep:
        """Air at the tool up to each hour."""
        sheet, mapped, curve = self.sheet, self.mapped, self.line.vacuum.curve
        assert mapped is not None
        p0 = sheet.given(
            "vacuum.curve.sealed_suction_pa", "p_0", "Sealed suction, at the reference density",
            curve.sealed_suction, "Pa"
        )  # fmt: skip
        q0 = sheet.given("vacuum.curve.open_flow_m3_s", "Q_0", "Open flow", curve.open_flow, "m³/s")
        half = sheet.step(
            "march.half", "c_half", "Cost that halves the air of the vacuum alone, nearly", "p / q", "Pa s/m³",
            p=p0, q=q0
        )  # fmt: skip
        parts: dict[str, Input] = {"c": self._coefficient(), "h": half, "C": LOADS, "most": float(LOADS[-1])}
        laws = []
        for i, flow in enumerate(mapped.flow[:, :, 0]):
            parts[f"Q{i}"] = flow
            laws.append(f"interp(-1 / (minimum(c, most) + h), -1 / (C + h), Q{i})")
        told = "Air at the tool up to each hour, drawn between the loads it was solved for"
        if self.inline is not None:
            parts |= {"k": self._on_inline(self.inline), "K": INLINE}
            parts |= {f"e{i}": row for i, row in enumerate(np.eye(INLINE.size))}
            laws = [f"interp(k, K, e{i}) * {law}" for i, law in enumerate(laws)]
        return sheet.step(self._name("flow"), "Q_k", told, " + ".join(laws), "m³/s", SOLVED_SO, **parts)

    def _on_inline(self, part: InlineFilter) -> WorkedStep:
        """Resistance of what lies on the in-line filter up to each hour."""
        sheet = self.sheet
        area = sheet.given(f"{part.id}.area_m2", "A_in", "Area of the in-line filter", part.medium.area, "m²")
        told = "Dust on the in-line filter up to each hour"
        load = self._grown("inline-load", "W_in", told, self.trace.inline_load, area, "kg/m²")
        told = "Resistance of its cake up to each hour"
        cake = self._grown("inline-cake", "K_2W,in", told, self.trace.inline_cake, area, "Pa s/m")
        clean, full = sheet.rule(f"filter.k1-{part.medium.kind}", "K_1"), sheet.rule("filter.full", "W_full")
        law = "c + k * maximum(W / F - 1, 0)"
        told = "Resistance of all that lies on the in-line filter"
        return sheet.step(self._name("inline"), "k_in", told, law, "Pa s/m", "Darcy", c=cake, k=clean, W=load, F=full)

    def down(self) -> WorkedStep | None:
        """Hours until the air is down by a quarter; None where it never is."""
        assert self.course is not None
        assert self.mapped is not None
        share = self.mapped.rules["filter.down"]
        if not np.isfinite(self.course.life(share)[0]):
            return None
        with self.sheet.section(self.title):
            law = "interp(-s * interp(0, t, Q), -Q, t)"
            return self.sheet.step(
                self._name("down"), "t_down", "Hours until the air is down by a quarter", law, "h", "",
                s=self.sheet.rule("filter.down", "s_down"), t=self._time(), Q=self.flow()
            )  # fmt: skip

    def first_life(self) -> WorkedStep | None:
        """Hours until the air is down by a quarter, or the bag is full before; None where neither ever is."""
        down = self.down()
        if self.bag <= 0.0:
            return down
        with self.sheet.section(self.title):
            full = self._bag_full()
            if full is None or down is None:
                return full or down
            return self.sheet.step(
                self._name("life"), "t_life", "Hours until the bag is full, or the air down by a quarter",
                "minimum(d, f)", "h", d=down, f=full
            )  # fmt: skip

    def _first(self) -> WorkedStep:
        """Until the air is down by a quarter, or as long as anything is followed."""
        down = self.down()
        if down is not None:
            return down
        told = "As long as anything is followed: the air is not down by a quarter before"
        return self.sheet.published(self._name("first"), "t_down", told, LONG, "h", "")

    def _bag_full(self) -> WorkedStep | None:
        """Hours until the bag is full; None where it is not, or how the dust lies is not known."""
        mapped, vacuum, sheet = self.mapped, self.line.vacuum, self.sheet
        assert mapped is not None
        assert self.course is not None
        if mapped.bulk is None:
            return None
        if vacuum.bag_volume is None:
            tank = (
                sheet.rule("tank.volume", "V_tank")
                if vacuum.tank is None
                else sheet.given("vacuum.tank_m3", "V_tank", "Of the vacuum's tank", vacuum.tank, "m³")
            )
            volume = sheet.step(
                "vacuum.bag.holds", "V_bag", "Of the bag", "s * V", "m³", "", RULE,
                s=sheet.rule("bag.share", "s_bag"), V=tank
            )  # fmt: skip
        else:
            volume = sheet.given("vacuum.bag.volume_m3", "V_bag", "Of the bag", vacuum.bag_volume, "m³")
        if one_value(volume.value) * mapped.bulk > float(self.course.bagged[-1, 0]):
            return None
        bulk = sheet.given("dust.bulk_density_kg_m3", "ρ_bulk", "Density of the dust as it lies", mapped.bulk, "kg/m³")
        mass = self._grown("bagged", "m_bag", "Dust in the bag up to each hour", self.trace.bagged, None, "kg")
        return sheet.step(
            self._name("bag-full"), "t_full", "Hours until the bag is full", "interp(V * r, m, t)", "h", V=volume,
            r=bulk, m=mass, t=self._time()
        )  # fmt: skip

    def _lasts(self) -> WorkedStep:
        """Hours that a filter lasts, cleaned as long as that is worth it."""
        sheet, first = self.sheet, self._first()
        counted = np.arange(MOST_CLEANINGS + 1, dtype=float)
        n = sheet.published("march.cleanings", "n", "Cleanings, 0 for a new filter", counted, "-", "counted")
        most = sheet.rule("filter.stays-coated" if coated(self.line.vacuum) else "filter.stays", "r_∞")
        stays = sheet.step(
            "march.stays", "r_n", "Of a cake, what stays after each cleaning", "r * (1 - exp(-n / o))", "-", "",
            RULE, r=most, n=n, o=sheet.rule("filter.blinds-over", "n_0")
        )  # fmt: skip
        law = "maximum(f - interp(r * interp(f, t, c), c, t), 0)"
        lasts = sheet.step(
            self._name("lasts"), "t_n", "Hours until the next cleaning", law, "h", f=first, r=stays, c=self._cake(),
            t=self._time()
        )  # fmt: skip
        law = "sum(where(l >= w * f, l, 0) * where(n <= m, 1, 0))"
        told = "Hours that a filter lasts: cleaned until that comes too soon, or often enough"
        return sheet.step(
            self._name("total"), "t_total", told, law, "h", "", RULE, l=lasts, f=first, n=n,
            w=sheet.rule("filter.worn", "s_worn"), m=sheet.rule("filter.cleanings", "n_most")
        )  # fmt: skip

    def cost(self, prices: Prices) -> WorkedStep | None:
        """What filters and bags cost for an hour of work; None where a price is not known."""
        bagged = self.bag > 0.0
        key, price = ("vacuum.bag", prices.bag) if bagged else ("vacuum.filter", prices.filter)
        if price is None or self.mapped is None:
            return None
        with self.sheet.section(self.title):
            lasts = self._bag_lasts() if bagged else self._lasts()
            if one_value(lasts.value) <= 0.0:
                return None
            told = "What filters and bags cost for an hour of work"
            law, parts = "p / t", {"p": middle_price(self.sheet, key, price), "t": lasts}
            if prices.inline is not None and self.inline is not None:
                law = "p / t + q / d"  # renewed whenever the air is down
                parts |= {"q": middle_price(self.sheet, self.inline.id, prices.inline), "d": self._first()}
            return self.sheet.step(self._name("cost"), "c_hour", told, law, "money/h", "", **parts)

    def _bag_lasts(self) -> WorkedStep:
        """Hours that a bag lasts: until it is full, or the air is down by a quarter."""
        first, full = self._first(), self._bag_full()
        if full is None:
            return first
        return self.sheet.step(
            self._name("bag-lasts"), "t_bag", "Hours that a bag lasts", "minimum(d, f)", "h", d=first, f=full
        )


def middle_price(sheet: Sheet, key: str, price: PriceRange) -> WorkedStep:
    """What something is reckoned at.

    Parameters
    ----------
    key : of it in the rig
    """
    low = sheet.given(f"{key}.price", "p_low", "Its price, or the least of it", price.low, "money")
    if price.low == price.high:
        return low
    high = sheet.given(f"{key}.price_to", "p_high", "The most of its price", price.high, "money")
    return sheet.step(f"{key}.reckoned", "p", "What it is reckoned at", "(a + b) / 2", "money", a=low, b=high)


def payback_step(sheet: Sheet, with_it: WorkedStep, without: WorkedStep, price: PriceRange) -> WorkedStep | None:
    """Hours of work after which the separator has paid; None where it never does."""
    if one_value(without.value) <= one_value(with_it.value):
        return None
    told = "Hours of work after which the separator has paid"
    return sheet.step(
        "payback", "t_pays", told, "p / (b - a)", "h", p=middle_price(sheet, "separator", price), a=with_it, b=without
    )
