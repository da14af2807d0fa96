"""Designs of every kind, many at once: drawn at random within what can be made, and what each takes to make."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, fields, is_dataclass, replace
from typing import Any

import numpy as np
from scipy.stats import qmc

from fenwick.core.arrays import Array, Values, one_value, take_variants
from fenwick.core.catalogue.parts import ADAPTER_PRICE
from fenwick.core.components.bins import Bin
from fenwick.core.components.chambers import ElbowLid, OneBody, RimInlet
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, Slot, SlottedDisc, square_side
from fenwick.core.formulas.cyclone import CycloneGeometry
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.formulas.pattern import cone_pattern, fits_on, sector_box
from fenwick.core.judging.standing import over_rim
from fenwick.core.rules import RuleBook
from fenwick.core.search.drawer import SAME_BORE

#: ranges of the free numbers of each kind; sizes over the body, or as the function below says
RANGES: dict[str, tuple[tuple[float, float], ...]] = {
    # body over the hose's bore; over the body: a, b, De, S beyond a, h beyond S, H − h, B
    "cyclone": ((1.6, 6.0), (0.3, 0.75), (0.14, 0.36), (0.34, 0.62), (0.0, 0.35), (0.1, 1.0), (0.8, 3.0), (0.25, 0.5)),
    # over the bin's top: chamber; over the bore: height, inlet, outlet; over the height: outlet's reach; slot, its arc
    "slotted-disc": ((0.6, 1.05), (1.0, 3.5), (0.7, 1.2), (0.7, 1.6), (0.1, 0.95), (0.02, 0.05), (2.0, 5.8)),
    "hung-disc": ((0.9, 1.0), (1.0, 3.5), (0.7, 1.2), (0.7, 1.6), (0.1, 0.95), (0.02, 0.05), (2.0, 5.8)),
    "one-body": ((0.6, 1.05), (1.0, 3.5), (0.7, 1.2), (0.7, 1.6), (0.1, 0.95), (0.02, 0.05), (2.0, 5.8)),
    # over the bore: inlet, outlet; over the bin's height: outlet's reach
    "elbow-lid": ((0.7, 1.2), (0.7, 1.6), (0.05, 0.4)),
    "rim-inlet": ((0.7, 1.2), (0.7, 1.6), (0.05, 0.4)),
}
MOST_REACH = 0.95  #: of a chamber's height, that an outlet tube hangs into it [-]
MADE, BOUGHT = "made", "bought"


def sample(kind: str, count: int, seed: int) -> Array:
    """Free numbers of some designs between 0 and 1, spread evenly (Latin hypercube), shape (numbers, count).

    Parameters
    ----------
    count : designs wanted [-]
    seed : of the chances drawn; the same one draws the same again [-]
    """
    return np.asarray(qmc.LatinHypercube(d=len(RANGES[kind]), rng=np.random.default_rng(seed)).random(count).T)


def near(numbers: Array, count: int, spread: float, seed: int) -> Array:
    """Free numbers close to some good designs, shape (numbers, count).

    Parameters
    ----------
    count : designs wanted [-]
    spread : standard deviation of the steps away from them [-]
    seed : of the chances drawn; the same one draws the same again [-]
    numbers : free numbers of the good ones, 0 to 1, shape (numbers, k) [-]
    """
    rng = np.random.default_rng(seed)
    chosen = numbers[:, rng.integers(0, numbers.shape[1], count)]
    return np.asarray(np.clip(chosen + spread * rng.standard_normal(chosen.shape), 0.0, 1.0))


def build(kind: str, numbers: Array, name: str, bin_: Bin, bore: float, finish: str) -> Separator:
    """Designs from their free numbers, as one separator whose sizes are arrays.

    Parameters
    ----------
    kind : key of RANGES
    numbers : from `sample`, shape (numbers, n) [-]
    name : id of the separator
    bin_ : the bin at hand
    bore : of the hose that arrives [m]
    finish : of a cyclone, smooth or shop-built
    """
    low, high = np.array(RANGES[kind]).T[:, :, None]
    return _BUILDERS[kind](low + numbers * (high - low), name, bin_, bore, finish)


def _cyclone(v: Array, name: str, bin_: Bin, bore: float, finish: str) -> Separator:
    body = np.minimum(v[0] * bore, bin_.diameters[-1])
    a, b, outlet = v[1] * body, v[2] * body, v[3] * body
    hangs = a + v[4] * body
    cylinder = hangs + v[5] * body
    shape = CycloneGeometry(a, b, body, outlet, hangs, cylinder, cylinder + v[6] * body, v[7] * body)
    return Cyclone(name, shape, finish, bin_)


def _disc(v: Array, name: str, bin_: Bin, bore: float, _finish: str) -> Separator:
    wide = v[0] * bin_.diameters[-1]
    inlet = np.minimum(v[2] * bore, wide / 2.0)
    high = np.maximum(v[1] * bore, inlet)
    outlet = np.minimum(v[3] * bore, 0.7 * wide)
    return SlottedDisc(name, wide, high, inlet, outlet, _hangs(v[4], high, inlet), (Slot(v[5], v[6]),), bin_)


def _hangs(share: Array, high: Array, inlet: Array) -> Array:
    """How far an outlet tube hangs: no shorter than the inlet is high, where the chamber allows it."""
    return np.asarray(np.minimum(np.maximum(share * high, square_side(inlet)), MOST_REACH * high))


def _hung(v: Array, name: str, bin_: Bin, bore: float, _finish: str) -> Separator:
    inlet = np.minimum(v[2] * bore, bin_.diameters[-1] / 2.0)
    high = np.minimum(np.maximum(v[1] * bore, inlet), 0.8 * bin_.height)
    wide = v[0] * bin_.narrow_at(bin_.height - high)
    outlet = np.minimum(v[3] * bore, 0.7 * wide)
    hangs = _hangs(v[4], high, inlet)
    return SlottedDisc(name, wide, high, inlet, outlet, hangs, (Slot(v[5], v[6]),), bin_, hung=True)


def _one_body(v: Array, name: str, bin_: Bin, bore: float, finish: str) -> Separator:
    """A chamber under the vacuum's own head, its drop pipe's window as wide as the pipe."""
    disc = _disc(v, name, bin_, bore, finish)
    assert isinstance(disc, SlottedDisc)
    sizes = {f.name: getattr(disc, f.name) for f in fields(disc)}
    return OneBody(**sizes, window_area=bore_area(disc.inlet_bore))


def _open_bin(make: type[ElbowLid] | type[RimInlet]) -> Callable[[Array, str, Bin, float, str], Separator]:
    def builder(v: Array, name: str, bin_: Bin, bore: float, _finish: str) -> Separator:
        most = bin_.diameters[-1] / 2.0
        inlet = np.minimum(v[0] * bore, most)
        hangs = np.minimum(np.maximum(v[2] * bin_.height, square_side(inlet)), MOST_REACH * bin_.height)
        return make(name, inlet, np.minimum(v[1] * bore, most), hangs, bin_)

    return builder


_BUILDERS: dict[str, Callable[[Array, str, Bin, float, str], Separator]] = {
    "cyclone": _cyclone,
    "slotted-disc": _disc,
    "hung-disc": _hung,
    "one-body": _one_body,
    "elbow-lid": _open_bin(ElbowLid),
    "rim-inlet": _open_bin(RimInlet),
}


@dataclass(frozen=True)
class Effort:
    """What designs take; arrays of shape (n,)."""

    height: Array  #: of the whole, bin included [m]
    largest_hole: Array  #: that must be cut round [m]
    sheet: Array  #: of the largest flat piece against the sheet at hand [-]
    cost: Array  #: in the shop's money
    hours: Array  #: [h]


@dataclass(frozen=True)
class HoseEnds:
    """The hoses that a design is joined to."""

    arriving: float  #: bore [m]
    leaving: float  #: bore [m]


def hose_ends(stage: Separator) -> HoseEnds:
    """The hoses of a separator that is to be replaced: they fit it as it stands."""
    return HoseEnds(one_value(stage.hose_bore), one_value(stage.outlet_bore))


def transitions(designs: Separator, hoses: HoseEnds | None) -> Array:
    """How many adapters lead from a hose's bore to that of a design [-], shape (n,).

    Parameters
    ----------
    designs : from `build`
    hoses : that it is joined to; None: not known, then none is counted
    """
    if hoses is None:
        return np.zeros(())
    ends = ((designs.hose_bore, hoses.arriving), (designs.outlet_bore, hoses.leaving))
    odd = (np.abs(np.asarray(bore) - hose) > SAME_BORE for bore, hose in ends)
    return np.asarray(sum(one.astype(float) for one in odd))


def effort(
    kind: str, designs: Separator, how: str, sheet: tuple[float, float], rules: RuleBook, hoses: HoseEnds | None = None
) -> Effort:
    """What designs of a kind take to make or to buy.

    Parameters
    ----------
    kind : key of RANGES
    designs : from `build`
    how : made or bought
    sheet : width and height of the sheet at hand [m]
    rules : for hours and prices
    hoses : that it is joined to, whose adapters are counted; None: not known
    """
    geometry = designs.geometry
    n = np.broadcast_shapes(np.shape(geometry.outlet_radius), np.shape(geometry.inlet_width))

    def each(value: object) -> Array:
        return np.broadcast_to(np.asarray(value, dtype=float), n)

    pieces: Values = 0.0
    area: Values = 0.0
    if isinstance(designs, Cyclone):
        s = designs.shape
        area = geometry.wall_area
        barrel = fits_on(np.pi * np.asarray(s.body), s.cylinder, *sheet)
        cone = cone_pattern(s.body, s.dust_outlet, np.asarray(s.height - s.cylinder))
        pieces = np.maximum(barrel, fits_on(*sector_box(cone), *sheet))
    elif isinstance(designs, SlottedDisc):
        rings = 1.0 if designs.hung else 2.0
        pieces = np.asarray(designs.chamber_diameter) / min(sheet)
        area = rings * np.square(np.asarray(designs.chamber_diameter))
        if not designs.hung:
            area = area + np.pi * np.asarray(designs.chamber_diameter) * designs.chamber_height
    hole = np.maximum(designs.outlet_bore, 0.0 if isinstance(designs, Cyclone) else designs.hose_bore)
    if how == BOUGHT:
        size = designs.shape.body if isinstance(designs, Cyclone) else 2.0 * geometry.body_radius
        cost = rules[f"buy.{kind}"] + rules["buy.size"] * np.asarray(size)
        hours, pieces, hole = rules["make.hours-fit"], 0.0, 0.0
    else:
        cost = rules["make.fittings"] + rules["make.sheet"] * area
        hours = rules[f"make.hours-{kind}"]
    cost = cost + ADAPTER_PRICE * transitions(designs, hoses)
    return Effort(
        each(designs.bin.height + over_rim(designs, rules)), each(hole), each(pieces), each(cost), each(hours)
    )


def one_of(designs: Separator, i: int) -> Separator:
    """A single design of many, its sizes plain numbers.

    Parameters
    ----------
    i : its place in the batch [-]
    """
    found: Separator = _plain(take_variants(designs, slice(i, i + 1)))
    return found


def _plain(value: Any) -> Any:
    if isinstance(value, np.ndarray):
        return float(value.reshape(-1)[0])
    if isinstance(value, tuple):
        return tuple(_plain(item) for item in value)
    if isinstance(value, Bin) or not is_dataclass(value) or isinstance(value, type):
        return value
    return replace(value, **{f.name: _plain(getattr(value, f.name)) for f in fields(value)})
