"""Rules of thumb: what the changes of a way take, in hours and in the shop's money."""

from __future__ import annotations

from fenwick.core.rules.rule import ESTIMATE, Rule

ROWS: tuple[Rule, ...] = (
    Rule("way.hours-hose", 0.25, 0.1, 0.5, "number", "h", "Time to change, cut or lay a hose", ESTIMATE),
    Rule("way.hours-joint", 0.5, 0.25, 1.0, "number", "h", "Time to seal a joint or a lid", ESTIMATE),
    Rule("way.hours-hood", 0.75, 0.3, 2.0, "number", "h", "Time to move or refit a port at a tool", ESTIMATE),
    Rule("way.hours-ring", 1.0, 0.5, 2.0, "number", "h", "Time to fit a ring round a bin", ESTIMATE),
    Rule("way.hours-tidy", 0.1, 0.05, 0.3, "number", "h", "Time to empty a bin, tap a filter", ESTIMATE),
    Rule("way.hours-vacuum", 0.2, 0.1, 0.5, "number", "h", "Time to put another vacuum in its place", ESTIMATE),
    Rule("price.ring", 8.0, 4.0, 20.0, "number", "money", "A ring that stiffens a bin", ESTIMATE),
    Rule("price.entry", 6.0, 3.0, 15.0, "number", "money", "A flange, cone or bellmouth for a port", ESTIMATE),
)
