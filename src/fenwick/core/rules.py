"""Every rule of thumb the model rests on, in one table.

A rule is a constant that no published equation fixes: shop practice or an engineering assumption. Formulas take its
value as an argument; the system layer reads it from a `RuleBook`, which a calibration or an uncertainty run may replace
value by value, arrays included.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from fenwick.core.arrays import Values


@dataclass(frozen=True)
class Rule:
    """One assumption: what it means, its value and believable range, where it comes from."""

    key: str
    value: float
    low: float
    high: float
    quantity: str  #: key of the units' quantities, or "number"
    unit: str  #: printed after a plain number
    meaning: str
    source: str = "shop practice"


ESTIMATE = "our estimate"

RULES: tuple[Rule, ...] = (
    Rule("wall.smooth", 0.05e-3, 0.01e-3, 0.15e-3, "roughness", "", "Roughness of a smooth-bore hose"),
    Rule("wall.light-rib", 0.3e-3, 0.1e-3, 0.6e-3, "roughness", "", "Roughness of a lightly ribbed hose"),
    Rule("wall.wire-helix", 1.0e-3, 0.5e-3, 2.0e-3, "roughness", "", "Roughness of a wire-helix hose"),
    Rule("wall.corrugated", 2.0e-3, 1.0e-3, 4.0e-3, "roughness", "", "Roughness of a deeply corrugated hose"),
    Rule("wall.pipe", 0.01e-3, 0.0015e-3, 0.05e-3, "roughness", "", "Roughness of rigid plastic pipe"),
    Rule(
        "wall.roughest", 0.05, 0.03, 0.1, "number", "bores", "Roughness to which the friction law was tested", "Moody"
    ),
    Rule(
        "bore.most-step", 20.0, 10.0, 30.0, "number", "to 1", "A change of bore that must be a mistaken unit", ESTIMATE
    ),
    Rule("bend.corrugated", 1.3, 1.0, 1.6, "number", "×", "A bend in a ribbed hose, against a smooth one"),
    Rule("elbow.short", 0.9, 0.7, 1.3, "number", "velocity heads", "Loss of a short right-angled elbow"),
    Rule("elbow.sweep", 1.5, 1.0, 2.5, "number", "bores", "Radius of a long-sweep elbow, where it is not given"),
    Rule("entry.crevice", 1.8, 1.2, 2.5, "number", "velocity heads", "Loss of a crevice nozzle"),
    Rule("entry.brush", 2.0, 1.2, 3.0, "number", "velocity heads", "Loss of a brush nozzle"),
    Rule("hose.slack", 0.3, 0.1, 0.6, "length", "", "Slack that a hose on the floor wants"),
    Rule(
        "floor.footprint", 0.5, 0.4, 0.7, "length", "", "Side of the floor that a separator and its lid want", ESTIMATE
    ),
    Rule("joint.push", 0.4e-3, 0.2e-3, 0.8e-3, "bore", "", "Play that a push fit still holds"),
    Rule("joint.grip", 0.2e-3, 0.1e-3, 0.4e-3, "bore", "", "Oversize that a push fit swallows"),
    Rule("joint.tape", 0.13e-3, 0.1e-3, 0.2e-3, "bore", "", "Thickness of a wrap of tape"),
    Rule("joint.tape-most", 2.5e-3, 1.5e-3, 4e-3, "bore", "", "Play that tape still fills"),
    Rule("joint.sleeve-most", 12e-3, 8e-3, 20e-3, "bore", "", "Difference that a rubber sleeve bridges"),
    Rule("joint.stack", 2.0, 1.0, 3.0, "number", "fittings", "Rigid fittings that may hang on one port"),
    Rule("gate.leak", 10e-6, 2e-6, 30e-6, "gap", "", "Leak of a shut blast gate"),
    Rule("gate.body", 0.2, 0.05, 0.4, "number", "velocity heads", "Loss of a fully open blast gate"),
    Rule("chip.passage", 3.0, 2.0, 4.0, "number", "chip lengths", "Passage below which chips bridge"),
    Rule("chip.lift", 1.5, 1.2, 2.0, "number", "×", "Air speed against the fall of a piece that lifts it surely"),
    Rule("clear.speed", 0.7, 0.5, 0.9, "share", "", "Speed of the dust against that of the air"),
    Rule("clear.extra", 1.0, 0.5, 2.0, "number", "s", "Time a tool goes on making dust when it stops"),
    Rule("fan.believable", 0.45, 0.40, 0.50, "share", "", "Most air power per electrical power", ESTIMATE),
    Rule(
        "fan.low-suction",
        5000.0,
        3000.0,
        8000.0,
        "suction",
        "",
        "Sealed suction of a fan made for wide hoses",
        ESTIMATE,
    ),
    Rule(
        "fan.starved",
        0.35,
        0.25,
        0.5,
        "share",
        "",
        "Share of its open flow below which such a fan is starved",
        ESTIMATE,
    ),
    Rule(
        "swirl.friction-smooth", 0.005, 0.003, 0.02, "number", "", "Wall friction of a moulded smooth cyclone", ESTIMATE
    ),
    Rule("swirl.friction-shop", 0.02, 0.005, 0.03, "number", "", "Wall friction of a shop-built chamber", ESTIMATE),
    Rule("swirl.steepness-shop", 2.5, 2.0, 4.0, "number", "", "Steepness of a shop-built separator's cut", ESTIMATE),
    Rule("swirl.steepness-smooth", 4.0, 2.5, 6.0, "number", "", "Steepness of a moulded cyclone's cut", ESTIMATE),
    Rule("swirl.elbow", 0.6, 0.45, 0.8, "number", "×", "Swirl behind an elbow, against a tangential inlet", ESTIMATE),
    Rule("swirl.rim", 0.85, 0.65, 1.0, "number", "×", "Swirl of an inlet through a bin's rim, likewise", ESTIMATE),
    Rule("swirl.swapped", 0.6, 0.4, 0.8, "number", "×", "What is kept with the hoses on each other's ports", ESTIMATE),
    Rule("swirl.cut", 1.0, 0.6, 1.6, "number", "×", "Factor on the cut size, until a test fixes it", ESTIMATE),
    Rule(
        "bin.exchange-disc",
        0.006,
        0.003,
        0.012,
        "number",
        "",
        "Air a slotted disc lets in and out of the bin",
        ESTIMATE,
    ),
    Rule("bin.exchange-cyclone", 0.02, 0.01, 0.04, "number", "", "Air a cone lets in and out of the bin", ESTIMATE),
    Rule("bin.exchange-open", 0.35, 0.2, 0.5, "share", "", "Share of the air that sweeps an open bin", ESTIMATE),
    Rule("bin.exchange-opposed", 1.15, 1.0, 1.3, "number", "×", "More of it with the outlet aimed away", ESTIMATE),
    Rule("bin.leak-reading", 1.0, 0.7, 1.4, "number", "×", "Leaks against the areas given for them", ESTIMATE),
    Rule("bin.exchange-most", 0.9, 0.8, 1.0, "share", "", "Most of the flow that can dip into the bin", ESTIMATE),
    Rule("bin.ledge", 0.05, 0.02, 0.1, "number", "per 10 mm", "What a ledge adds to that", ESTIMATE),
    Rule(
        "bin.swirl-zone",
        0.5,
        0.25,
        1.0,
        "number",
        "bin widths",
        "How far below the disc the air still swirls",
        ESTIMATE,
    ),
    Rule("bin.stir", 5.0, 2.0, 10.0, "number", "×", "How much more a full bin is stirred than a deep one", ESTIMATE),
    Rule(
        "bin.stir-depth", 0.25, 0.15, 0.4, "number", "bin widths", "Free height over which stirring dies away", ESTIMATE
    ),
    Rule("bin.brim", 0.1, 0.05, 0.2, "number", "bin widths", "Free height from which the bin takes no more", ESTIMATE),
    Rule(
        "bin.leak-weight",
        7.0,
        4.0,
        12.0,
        "number",
        "×",
        "Dust a leak below stirs up, per share of air leaked",
        ESTIMATE,
    ),
    Rule(
        "bin.leak-jet", 4.0, 2.0, 8.0, "number", "×", "Speed of that air through the slot, against its mean", ESTIMATE
    ),
    Rule("bin.tilt-power", 1.5, 0.7, 3.0, "number", "", "How quickly leaning over costs separation", ESTIMATE),
    Rule("swirl.tube", 0.8, 0.5, 1.0, "number", "inlet heights", "Shortest outlet tube without a short cut", ESTIMATE),
    Rule("wet.watch", 0.7, 0.5, 0.9, "share", "", "Share of that rise from which it is to watch", ESTIMATE),
    Rule("wet.cut", 1.2e-6, 0.6e-6, 2.4e-6, "grain", "", "Cut size of a wet stage at 20 m/s in its throat", ESTIMATE),
    Rule("wet.carry-over", 1.5, 1.0, 2.0, "speed", "", "Rise of air over water that takes droplets along", ESTIMATE),
    Rule("dust.size", 1.0, 0.7, 1.4, "number", "×", "Grains against the sizes given for their kind", ESTIMATE),
    Rule("make.hours-cyclone", 6.0, 4.0, 10.0, "number", "h", "Time to make a cyclone from sheet", ESTIMATE),
    Rule("make.hours-slotted-disc", 3.0, 2.0, 5.0, "number", "h", "Time to make a slotted chamber", ESTIMATE),
    Rule("make.hours-hung-disc", 1.5, 1.0, 3.0, "number", "h", "Time to make a disc that hangs in a bin", ESTIMATE),
    Rule("make.hours-elbow-lid", 0.5, 0.3, 1.0, "number", "h", "Time to fit two elbows to a lid", ESTIMATE),
    Rule("make.hours-rim-inlet", 1.0, 0.5, 2.0, "number", "h", "Time to fit an inlet to a bin's rim", ESTIMATE),
    Rule("make.hours-fit", 0.5, 0.3, 1.0, "number", "h", "Time to fit a bought separator to a lid", ESTIMATE),
    Rule("make.sheet", 30.0, 15.0, 60.0, "number", "money/m²", "Price of sheet to make a separator from", ESTIMATE),
    Rule("make.fittings", 12.0, 6.0, 25.0, "number", "money", "Price of the fittings of a made separator", ESTIMATE),
    Rule(
        "make.thickness",
        12e-3,
        6e-3,
        18e-3,
        "bore",
        "",
        "Thickness of the sheet for rings and discs",
        ESTIMATE,
    ),
    Rule("buy.cyclone", 25.0, 10.0, 60.0, "number", "money", "Price of a bought cyclone, size apart", ESTIMATE),
    Rule("buy.slotted-disc", 60.0, 30.0, 120.0, "number", "money", "Price of a bought chamber, likewise", ESTIMATE),
    Rule("buy.hung-disc", 35.0, 20.0, 70.0, "number", "money", "Price of a bought disc, likewise", ESTIMATE),
    Rule("buy.elbow-lid", 30.0, 15.0, 50.0, "number", "money", "Price of a bought lid with elbows, likewise", ESTIMATE),
    Rule("buy.rim-inlet", 25.0, 12.0, 50.0, "number", "money", "Price of a bought rim inlet, likewise", ESTIMATE),
    Rule("buy.size", 120.0, 60.0, 250.0, "number", "money/m", "What each metre of its width adds to that", ESTIMATE),
    Rule("closure.screwed-gasket", 2e-6, 0.0, 5e-6, "gap", "", "Leak of a screwed lid with a gasket"),
    Rule("closure.clamp-ring", 5e-6, 1e-6, 15e-6, "gap", "", "Leak of a clamp-ring lid"),
    Rule("closure.foam-strip", 15e-6, 5e-6, 40e-6, "gap", "", "Leak of a foam strip under load"),
    Rule("closure.snap-on", 20e-6, 5e-6, 60e-6, "gap", "", "Leak of a snap-on lid"),
    Rule("closure.latch-gasket", 8e-6, 2e-6, 20e-6, "gap", "", "Leak of latches on a gasket"),
    Rule("closure.loose", 100e-6, 40e-6, 300e-6, "gap", "", "Leak of a loose lid"),
    Rule("filter.k1-paper", 2e3, 1e3, 4e3, "number", "Pa·s/m", "Resistance of clean filter paper"),
    Rule("filter.k1-hepa", 6e3, 3e3, 12e3, "number", "Pa·s/m", "Resistance of a clean HEPA cartridge"),
    Rule("filter.k1-bag", 1.5e3, 0.7e3, 3e3, "number", "Pa·s/m", "Resistance of a clean bag"),
    Rule("filter.k2", 1e5, 0.5e5, 2e5, "number", "1/s", "Resistance of a cake of 50 µm dust"),
    Rule("filter.k2-least", 2e4, 1e4, 4e4, "number", "1/s", "Resistance of a cake of the coarsest dust"),
    Rule("filter.k2-most", 1e6, 5e5, 2e6, "number", "1/s", "Resistance of a cake of the finest dust"),
    Rule("filter.full", 1.0, 0.5, 2.0, "number", "kg/m²", "Dust that fills a filter's pleats"),
    Rule("filter.cake", 0.05, 0.02, 0.15, "number", "kg/m²", "Cake that lets only 37 % of the fine dust past"),
    Rule("filter.tank-drop", 60e-6, 30e-6, 120e-6, "grain", "", "Size half of which drops in the vacuum's own tank"),
    Rule("bag.base", 0.5, 0.3, 0.6, "share", "", "What a bag passes at its reference size"),
    Rule("bag.size", 2e-6, 1e-6, 4e-6, "grain", "", "Reference size of a bag"),
    Rule("bag.power", 0.7, 0.5, 1.0, "number", "", "How quickly a bag improves with size"),
    Rule("paper.base", 0.1, 0.05, 0.3, "share", "", "What a paper filter passes at its reference size"),
    Rule("paper.size", 1e-6, 0.5e-6, 2e-6, "grain", "", "Reference size of a paper filter"),
    Rule("paper.power", 0.5, 0.3, 0.8, "number", "", "How quickly a paper filter improves with size"),
    Rule("hepa.passes", 0.0005, 0.0001, 0.005, "share", "", "What a HEPA cartridge passes"),
    Rule(
        "capture.airborne-size", 100e-6, 50e-6, 200e-6, "grain", "", "Size half of which floats, half flies", ESTIMATE
    ),
    Rule("capture.missed", 0.1, 0.05, 0.2, "share", "", "Floating dust missed at the needed air speed", ESTIMATE),
    Rule("capture.power", 1.5, 1.0, 2.0, "number", "", "How quickly more air speed catches the rest", ESTIMATE),
    Rule("shell.knock-down", 0.7, 0.5, 0.9, "number", "×", "Real bins against a perfect cylinder", ESTIMATE),
    Rule("shell.nested", 2.0, 1.5, 2.0, "number", "×", "A second nested bucket against one alone", ESTIMATE),
    Rule("verdict.kept-good", 0.95, 0.9, 0.99, "share", "", "Kept share that a good separator reaches", ESTIMATE),
    Rule("verdict.kept-poor", 0.85, 0.8, 0.9, "share", "", "Kept share below which it is to act on", ESTIMATE),
    Rule(
        "verdict.collapse-margin",
        1.5,
        1.3,
        2.0,
        "number",
        "×",
        "Folding over blocked suction that is safe enough",
        ESTIMATE,
    ),
    Rule("verdict.leak-watch", 0.02, 0.01, 0.03, "share", "", "Air leaked in below the separator, to watch", ESTIMATE),
    Rule("verdict.leak-act", 0.05, 0.03, 0.08, "share", "", "Air leaked in below the separator, to act on", ESTIMATE),
    Rule(
        "verdict.far-short", 0.5, 0.3, 0.7, "share", "", "Share of the air wanted below which it is to act on", ESTIMATE
    ),
    Rule("verdict.least-suction", 500.0, 200.0, 1000.0, "suction", "", "Sealed suction of no shop vacuum", ESTIMATE),
    Rule("verdict.all-open", 0.01, 0.005, 0.03, "share", "", "Suction left at the inlet that counts as none", ESTIMATE),
    Rule("verdict.least-flow", 1e-3, 0.5e-3, 2e-3, "flow", "", "Flow at a tool that counts as blocked", ESTIMATE),
)

#: what the first half of a key is about
SUBJECTS = {
    "wall": "Hoses",
    "bend": "Hoses",
    "bore": "Hoses",
    "elbow": "Hoses",
    "entry": "Ports, gates and the vacuum",
    "joint": "Joints",
    "hose": "Floor plan",
    "floor": "Floor plan",
    "gate": "Ports, gates and the vacuum",
    "chip": "Carrying",
    "clear": "Carrying",
    "fan": "Ports, gates and the vacuum",
    "swirl": "Separator",
    "bin": "What the bin gives back",
    "wet": "Wet stage",
    "dust": "Dust",
    "make": "Making and buying",
    "buy": "Making and buying",
    "closure": "Lids",
    "filter": "Filters and bags",
    "bag": "Filters and bags",
    "paper": "Filters and bags",
    "hepa": "Filters and bags",
    "capture": "Capture",
    "shell": "Strength",
    "verdict": "When a figure is to watch or to act on",
}

_BY_KEY = {rule.key: rule for rule in RULES}

#: K of an entry on the port's velocity head [-]; published (ventilation practice) but for the last two
ENTRY_LOSS: dict[str, float | str] = {
    "plain": 0.93,
    "flanged": 0.49,
    "tapered": 0.25,
    "bellmouth": 0.04,
    "crevice": "entry.crevice",
    "brush": "entry.brush",
}

#: air speed needed at the dust by how it is released, (low, high) [m/s]; industrial ventilation practice
RELEASE_VELOCITY: dict[str, tuple[float, float]] = {
    "still": (0.25, 0.5),
    "slow": (0.5, 1.0),
    "active": (1.0, 2.5),
    "fast": (2.5, 10.0),
}

#: flow that contains fine dust at a machine, (low, high) [m^3/h]; industrial ventilation practice
CONTAINMENT_M3_H: dict[str, tuple[float, float]] = {
    "bandsaw": (600, 750),
    "table-saw": (600, 900),
    "planer": (700, 1000),
    "router-table": (350, 600),
    "drum-sander": (600, 1000),
    "mitre-saw": (700, 1000),
    "lathe": (700, 700),
    "hand-held-sander": (100, 150),
    "floor-pick-up": (600, 600),
}


@dataclass(frozen=True)
class RuleBook:
    """The rules in force: the table's values with some replaced; a value may be an array over variants."""

    replaced: dict[str, Values] = field(default_factory=dict)

    def __getitem__(self, key: str) -> Values:
        """Value of a rule, in its own unit; KeyError for an unknown key."""
        return self.replaced.get(key, _BY_KEY[key].value)

    def with_values(self, changes: Mapping[str, Values]) -> RuleBook:
        """A rule book with `changes` on top.

        Raises
        ------
        KeyError
            When there is no such rule.
        """
        unknown = set(changes) - set(_BY_KEY)
        if unknown:
            raise KeyError(f"no such rule: {', '.join(sorted(unknown))}")
        return RuleBook({**self.replaced, **changes})


def rule(key: str) -> Rule:
    """The row of the table with that key."""
    return _BY_KEY[key]
