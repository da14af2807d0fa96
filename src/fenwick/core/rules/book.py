"""The one table of rules, and the values in force."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from fenwick.core.arrays import Values
from fenwick.core.rules import air_path, dust_path, logbook, making, prices, safety, separation, testing, ways
from fenwick.core.rules.rule import Rule

RULES: tuple[Rule, ...] = (
    *air_path.ROWS,
    *separation.ROWS,
    *dust_path.ROWS,
    *logbook.ROWS,
    *making.ROWS,
    *prices.ROWS,
    *safety.ROWS,
    *testing.ROWS,
    *ways.ROWS,
)

#: what the first half of a key is about
SUBJECTS = {
    "wall": "Hoses",
    "bend": "Hoses",
    "bore": "Hoses",
    "elbow": "Hoses",
    "entry": "Ports, gates and the vacuum",
    "joint": "Joints",
    "leak": "Joints",
    "hose": "Floor plan",
    "floor": "Floor plan",
    "gate": "Ports, gates and the vacuum",
    "chip": "Carrying",
    "bed": "Carrying",
    "clear": "Carrying",
    "fan": "Ports, gates and the vacuum",
    "swirl": "Separator",
    "bin": "What the bin gives back",
    "slot": "What the bin gives back",
    "wet": "Wet stage",
    "dust": "Dust",
    "make": "Making and buying",
    "buy": "Making and buying",
    "price": "Making and buying",
    "way": "Making and buying",
    "start": "A first line",
    "cure": "Making and buying",
    "form": "Making and buying",
    "closure": "Lids",
    "filter": "Filters and bags",
    "bag": "Filters and bags",
    "tank": "Filters and bags",
    "paper": "Filters and bags",
    "hepa": "Filters and bags",
    "capture": "Capture",
    "stock": "Capture",
    "room": "The room's air",
    "work": "Jobs",
    "shell": "Strength",
    "sheet": "Strength",
    "stand": "Standing, lifting",
    "site": "Standing, lifting",
    "circuit": "Circuits",
    "motor": "The vacuum's motor",
    "phone": "Measuring by telephone",
    "test": "Tests",
    "fault": "Faults",
    "log": "The log",
    "handle": "Emptying",
    "verdict": "When a figure is to watch or to act on",
}

_BY_KEY = {rule.key: rule for rule in RULES}


#: what one reading, or several together, tell of rules: by key, how far it moves for one standard deviation of the
#: rule, over its own; a key that is no rule stands for what else moves it and is not drawn
Slopes = tuple[tuple[str, float], ...]


@dataclass(frozen=True)
class RuleBook:
    """The rules in force: the table's values with some replaced; a value may be an array over variants."""

    replaced: dict[str, Values] = field(default_factory=dict)
    left: dict[str, float] = field(default_factory=dict)  #: of some rules' ranges, the share that readings left [-]
    told: tuple[Slopes, ...] = ()  #: what readings tell of rules together; where there is any, `left` is not asked

    def __getitem__(self, key: str) -> Values:
        """Value of a rule, in its own unit; KeyError for an unknown key."""
        return self.replaced.get(key, _BY_KEY[key].value)

    def with_values(self, changes: Mapping[str, Values]) -> RuleBook:
        """A rule book with `changes` on top.

        Parameters
        ----------
        changes : new values by key, each in the rule's own unit

        Raises
        ------
        KeyError
            When there is no such rule.
        """
        unknown = set(changes) - set(_BY_KEY)
        if unknown:
            raise KeyError(f"no such rule: {', '.join(sorted(unknown))}")
        return replace(self, replaced={**self.replaced, **changes})

    def narrowed(self, left: Mapping[str, float]) -> RuleBook:
        """A rule book in which some rules are surer than the table has them, by shares of their ranges [-].

        Parameters
        ----------
        left : by key, the share of its range that is left open [-]
        """
        return replace(self, left={**self.left, **left})

    def told_by(self, readings: tuple[Slopes, ...]) -> RuleBook:
        """A rule book of which readings have told what they tell of rules together."""
        return replace(self, told=readings)


def rule(key: str) -> Rule:
    """The row of the table with that key."""
    return _BY_KEY[key]
