"""Rules of thumb: what the changes of a way take, in hours and in the shop's money."""

from __future__ import annotations

from fenwick.core.rules.rule import ESTIMATE, Rule


def _stock(machine: str, area: float, low: float, high: float, words: str) -> Rule:
    return Rule(f"stock.{machine}", area, low, high, "opening", "", f"Open for {words} to pass", ESTIMATE)


ROWS: tuple[Rule, ...] = (
    _stock("bandsaw", 0.045, 0.02, 0.09, "boards at a bandsaw"),
    _stock("table-saw", 0.06, 0.03, 0.12, "boards at a table saw"),
    _stock("planer", 0.06, 0.03, 0.1, "boards at a planer, in and out"),
    _stock("router-table", 0.02, 0.008, 0.04, "work at a router table"),
    _stock("drum-sander", 0.03, 0.015, 0.06, "boards at a drum sander, in and out"),
    _stock("mitre-saw", 0.09, 0.05, 0.16, "boards and the saw's arm at a mitre saw"),
    _stock("lathe", 0.06, 0.03, 0.12, "hands and tools at a lathe"),
    Rule("start.agree", 0.03, 0.01, 0.1, "share", "", "Litres and ruler of a bin that still agree", ESTIMATE),
    Rule("start.taper", 2.5, 1.5, 4.0, "number", "×", "One end of a bin over its other, at most", ESTIMATE),
    Rule("way.noticed", 0.005, 0.002, 0.02, "share", "", "Of the dust made, what one would notice", ESTIMATE),
    Rule("way.evening", 3.0, 2.0, 4.0, "number", "h", "An evening at the bench", ESTIMATE),
    Rule("way.weekend", 12.0, 8.0, 16.0, "number", "h", "A weekend at the bench", ESTIMATE),
    Rule("way.spend", 60.0, 30.0, 120.0, "number", "money", "What is looked at where no sum is said", ESTIMATE),
    Rule("way.hours-hose", 0.25, 0.1, 0.5, "number", "h", "Time to change, cut or lay a hose", ESTIMATE),
    Rule("way.hours-joint", 0.5, 0.25, 1.0, "number", "h", "Time to seal a joint or a lid", ESTIMATE),
    Rule("way.hours-hood", 0.75, 0.3, 2.0, "number", "h", "Time to move or refit a port at a tool", ESTIMATE),
    Rule("way.hours-ring", 1.0, 0.5, 2.0, "number", "h", "Time to fit a ring round a bin", ESTIMATE),
    Rule("way.hours-tidy", 0.1, 0.05, 0.3, "number", "h", "Time to empty a bin, tap a filter", ESTIMATE),
    Rule("way.hours-vacuum", 0.2, 0.1, 0.5, "number", "h", "Time to put another vacuum in its place", ESTIMATE),
    Rule("way.hours-box", 3.0, 1.5, 6.0, "number", "h", "Time to box a tool in", ESTIMATE),
    Rule("way.hours-gate", 0.5, 0.25, 1.0, "number", "h", "Time to fit a gate where a branch joins", ESTIMATE),
    Rule("price.unsure", 0.25, 0.1, 0.5, "share", "", "Of a round price, how far off it may be", ESTIMATE),
    Rule("price.gate", 9.0, 4.0, 20.0, "number", "money", "A gate that shuts a branch", ESTIMATE),
    Rule("way.hours-bin", 0.5, 0.25, 1.0, "number", "h", "Time to put another bin under a separator", ESTIMATE),
    Rule("price.box", 15.0, 5.0, 40.0, "number", "money", "Sheet, rails and curtain for a box round a tool", ESTIMATE),
    Rule("price.ring", 8.0, 4.0, 20.0, "number", "money", "A ring that stiffens a bin", ESTIMATE),
    Rule("price.entry", 6.0, 3.0, 15.0, "number", "money", "A flange, cone or bellmouth for a port", ESTIMATE),
)
