"""Whether the bands hold: the truth drawn by other means than our own, evenly over the logarithm of each range."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import replace

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.dust import DUSTS, Dust
from fenwick.core.doubt.assumptions import AGEING, PASSING, assumptions_of
from fenwick.core.doubt.uncertainty import sureness
from fenwick.core.dust.cakes import settled_point
from fenwick.core.dust.capture import capture
from fenwick.core.hours.ageing import ageing_map, without_separators
from fenwick.core.hours.air import Room, clearing, fine_source
from fenwick.core.hours.bands import CUT, Believed, air_bands, caught_band, upkeep_bands
from fenwick.core.hours.lives import LONG, PriceRange, Prices, Reckoned, cost_per_hour, lives, payback_hours
from fenwick.core.hours.march import march
from fenwick.core.hours.upkeep import clean_filters, coated, own_bag, room_in
from fenwick.core.judging.assess import assess
from fenwick.core.line.catch import dust_rate
from fenwick.core.line.line import Line
from fenwick.core.line.ports import with_grains
from fenwick.core.rules import rule
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line

Say = Callable[[str, str, str], None]
TRUTHS = 150
DUST_KINDS = ("sanding-p120", "saw", "mdf-routing", "router", "sanding-p240", "bandsaw", "planer")
PRICES = Prices(PriceRange(25.0, 45.0), PriceRange(5.0, 9.0), PriceRange(60.0, 110.0))
ROOM_KEYS = ("room.shut", "room.height")
JOB = 600.0  #: [s]


def twenty_lines() -> Iterator[Line]:
    """Lines of several kinds, dusts and fills; one port open."""
    for i in range(20):
        line = build_line(demo_rig(("demo_line", "demo_cyclone", "demo_line")[i % 3]))
        dust = DUSTS[DUST_KINDS[i % len(DUST_KINDS)]]
        curve = line.vacuum.curve.at_speed(0.75 + 0.05 * (i % 6))
        vacuum = replace(line.vacuum, curve=curve)
        if vacuum.filter is not None:
            vacuum = replace(vacuum, filter=replace(vacuum.filter, held=0.0, sizes=None))
        trunk = tuple(
            part.changed(bin=replace(part.bin, fill_height=0.05 + 0.04 * (i % 5), leak_area=None if i % 4 else 4e-6))
            if part in line.separators
            else part
            for part in line.trunk
        )
        yield replace(line, dust=dust, usual_dust=None, vacuum=vacuum, trunk=trunk)


def truths(line: Line, random: np.random.Generator) -> tuple[Line, dict[str, Array]]:
    """The line as it may truly be, many times over, and the rules that were drawn."""
    keys = dict.fromkeys((*assumptions_of(line), *AGEING, *PASSING, *ROOM_KEYS))
    if not any(isinstance(stage, Cyclone) for stage in line.stages):
        keys |= dict.fromkeys(CUT)
    drawn = {key: _log_uniform(key, random) for key in keys}

    def grains(dust: Dust) -> Dust:
        return dust.scaled(drawn["dust.size"]).with_fines(drawn["dust.fines"])

    return replace(with_grains(line, grains), rules=line.rules.with_values(drawn)), drawn


def _log_uniform(key: str, random: np.random.Generator) -> Array:
    row = rule(key)
    low = max(row.low, 0.1 * row.value)
    return np.asarray(np.exp(random.uniform(np.log(low), np.log(row.high), TRUTHS)))


def covered(line: Line, random: np.random.Generator) -> dict[str, float]:
    """Share of the truths that lie in the band, by figure."""
    true, drawn = truths(line, random)
    found = assess(true)
    kept, caught = sureness(line).kept, caught_band(line, 0)
    own = capture(true, settled_point(true))
    shares = {}
    if kept is not None and found.kept is not None:
        shares["kept"] = _inside(found.kept, Believed(kept.low, kept.high))
    if caught is not None and own:
        shares["caught"] = _inside(own[0].tool_total, caught)
    room = Room(30.0, rule("room.shut").value / 3600.0, 0.0, rule("room.height").value, True, True)
    air = air_bands(line, room, JOB)
    source = fine_source(true, found, dust_rate(line))
    if air is not None and source is not None:
        there = Room(30.0, drawn["room.shut"] / 3600.0, 0.0, drawn["room.height"])
        truth = clearing(there, source, JOB, line.rules["room.clear"])
        shares["mg/m³"] = _inside(truth.peak, air.peak)
        shares["minutes"] = _inside(truth.clears, air.clears)
    return shares | _over_hours(line, true, random)


def _over_hours(line: Line, true: Line, random: np.random.Generator) -> dict[str, float]:
    told = upkeep_bands(line, 0, PRICES)
    mapped, bare = ageing_map(true, 0, sparse=True), ageing_map(without_separators(true), 0, sparse=True)
    if told is None or mapped is None or bare is None:
        return {}
    reckoned = PRICES.drawn(random.random((4, TRUTHS)))
    costs, firsts = [], []
    for one in (mapped, bare):
        vacuum, bag = line.vacuum, own_bag(line.vacuum)
        filters = clean_filters(vacuum, bag, TRUTHS)
        found = lives(one, march(one, filters, LONG), filters, room_in(vacuum, bag, one.rules), coated(vacuum))
        firsts.append(found.first)
        costs.append(cost_per_hour(found, bag > 0.0, reckoned))
    shares = {"hours": _inside(firsts[0], told.life)}
    pays = payback_hours(costs[0], costs[1], _separator(reckoned))
    if told.payback is not None and pays is not None:
        shares["payback"] = _inside(pays, told.payback)
    return shares


def _separator(prices: Reckoned) -> Array | None:
    return None if prices.separator is None else np.asarray(prices.separator)


def _inside(truth: Array, band: Believed) -> float:
    values = np.broadcast_to(truth, (TRUTHS,))
    return float(np.mean((values >= band.low) & (values <= band.high)))


def bands(say: Say) -> None:
    """The figures, said one by one."""
    random = np.random.default_rng(41)
    every: dict[str, list[float]] = {}
    for line in twenty_lines():
        for name, share in covered(line, random).items():
            every.setdefault(name, []).append(share)
    for name, shares in every.items():
        worst = f"{100 * min(shares):.0f}–{100 * max(shares):.0f} % by line"
        say(f"90 % band of {name} holds the truth, {len(shares)} lines", f"{100 * np.mean(shares):.0f} %", worst)
