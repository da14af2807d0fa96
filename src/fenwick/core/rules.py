"""Every rule of thumb the model rests on, in one table.

A rule is a constant that no published equation fixes: shop practice or an engineering assumption. Formulas take its
value as an argument; the system layer reads it from a `RuleBook`, which a calibration or an uncertainty run may replace
value by value, arrays included.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from fenwick.core.arrays import Values


@dataclass(frozen=True)
class Rule:
    """One assumption: what it means, its value and believable range, where it comes from."""

    key: str
    value: float
    low: float
    high: float
    unit: str
    meaning: str
    source: str


SHOP = "shop practice, our estimate"
VENTILATION = "industrial ventilation practice"

RULES: tuple[Rule, ...] = (
    Rule("wall.smooth", 0.05e-3, 0.01e-3, 0.15e-3, "m", "Roughness of a smooth-bore hose", SHOP),
    Rule("wall.light-rib", 0.3e-3, 0.1e-3, 0.6e-3, "m", "Roughness of a lightly ribbed hose", SHOP),
    Rule("wall.wire-helix", 1.0e-3, 0.5e-3, 2.0e-3, "m", "Roughness of a wire-helix hose", SHOP),
    Rule("wall.corrugated", 2.0e-3, 1.0e-3, 4.0e-3, "m", "Roughness of a deeply corrugated hose", SHOP),
    Rule("wall.pipe", 0.01e-3, 0.0015e-3, 0.05e-3, "m", "Roughness of rigid plastic pipe", SHOP),
    Rule("bend.corrugated", 1.3, 1.0, 1.6, "×", "A ribbed bend costs this much more than a smooth one", SHOP),
    Rule("entry.crevice", 1.8, 1.2, 2.5, "heads", "Loss of a crevice nozzle", SHOP),
    Rule("entry.brush", 2.0, 1.2, 3.0, "heads", "Loss of a brush nozzle", SHOP),
    Rule("swirl.friction-shop", 0.02, 0.005, 0.03, "-", "Wall friction of a shop-built chamber", SHOP),
    Rule("swirl.steepness-shop", 2.5, 2.0, 4.0, "-", "Steepness of a shop-built separator's cut", SHOP),
    Rule("swirl.cut", 1.0, 0.6, 1.6, "×", "Factor on the cut size, until a test fixes it", SHOP),
    Rule("bin.exchange-disc", 0.006, 0.003, 0.012, "-", "Air a slotted disc lets in and out of the bin", SHOP),
    Rule("bin.tilt-power", 1.5, 0.7, 3.0, "-", "How quickly leaning over costs separation", SHOP),
    Rule("bin.swirl-zone", 0.5, 0.25, 1.0, "bin widths", "How far below the disc the air still swirls", SHOP),
    Rule("closure.screwed-gasket", 2e-6, 0.0, 5e-6, "m²", "Leak of a screwed lid with a gasket", SHOP),
    Rule("closure.clamp-ring", 5e-6, 1e-6, 15e-6, "m²", "Leak of a clamp-ring lid", SHOP),
    Rule("closure.foam-strip", 15e-6, 5e-6, 40e-6, "m²", "Leak of a foam strip under load", SHOP),
    Rule("closure.snap-on", 20e-6, 5e-6, 60e-6, "m²", "Leak of a snap-on lid", SHOP),
    Rule("closure.latch-gasket", 8e-6, 2e-6, 20e-6, "m²", "Leak of latches on a gasket", SHOP),
    Rule("closure.loose", 100e-6, 40e-6, 300e-6, "m²", "Leak of a loose lid", SHOP),
    Rule("filter.k1-bag", 1.5e3, 0.7e3, 3e3, "Pa·s/m", "Resistance of a clean bag", SHOP),
    Rule("filter.k2", 1e5, 0.5e5, 2e5, "1/s", "Resistance of a cake of 50 µm dust", SHOP),
    Rule("filter.cake", 0.05, 0.02, 0.15, "kg/m²", "Cake that lets only 37 % of the fine dust past", SHOP),
    Rule("filter.tank-drop", 60e-6, 30e-6, 120e-6, "m", "Size half of which drops in the vacuum's own tank", SHOP),
    Rule("bag.base", 0.5, 0.3, 0.6, "-", "What a bag passes at its reference size", SHOP),
    Rule("bag.size", 2e-6, 1e-6, 4e-6, "m", "Reference size of a bag", SHOP),
    Rule("bag.power", 0.7, 0.5, 1.0, "-", "How quickly a bag improves with size", SHOP),
    Rule("paper.base", 0.1, 0.05, 0.3, "-", "What a paper filter passes at its reference size", SHOP),
    Rule("paper.size", 1e-6, 0.5e-6, 2e-6, "m", "Reference size of a paper filter", SHOP),
    Rule("paper.power", 0.5, 0.3, 0.8, "-", "How quickly a paper filter improves with size", SHOP),
    Rule("hepa.passes", 0.0005, 0.0001, 0.005, "-", "What a HEPA cartridge passes", SHOP),
    Rule("capture.airborne-size", 100e-6, 50e-6, 200e-6, "m", "Size half of which floats, half flies", SHOP),
    Rule("shell.knock-down", 0.7, 0.5, 0.9, "×", "Real bins against a perfect cylinder", SHOP),
    Rule("shell.nested", 2.0, 1.5, 2.0, "×", "A second nested bucket against one alone", SHOP),
    Rule("verdict.kept-good", 0.95, 0.9, 0.99, "-", "Kept share that a good separator reaches", SHOP),
    Rule("verdict.kept-poor", 0.85, 0.8, 0.9, "-", "Kept share below which a separator is not worth its suction", SHOP),
    Rule("fan.believable", 0.45, 0.40, 0.50, "-", "Most air power per electrical watt", SHOP),
)

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

    def replace(self, **changes: Values) -> RuleBook:
        """A rule book with `changes` on top; keys are spelt with `__` for the dot and `_` for the dash."""
        named = {key.replace("__", ".").replace("_", "-"): value for key, value in changes.items()}
        unknown = set(named) - set(_BY_KEY)
        if unknown:
            raise KeyError(f"no such rule: {', '.join(sorted(unknown))}")
        return RuleBook({**self.replaced, **named})


def rule(key: str) -> Rule:
    """The row of the table with that key."""
    return _BY_KEY[key]
