"""Rules of thumb: how far the model of a line may be off in one's own shop, and how often things are looked after."""

from __future__ import annotations

from fenwick.core.rules.rule import ESTIMATE, Rule


def _opening(closure: str, minutes: float, low: float, high: float, words: str) -> Rule:
    return Rule(f"handle.{closure}", minutes, low, high, "number", "min", f"To open and close {words}", ESTIMATE)


ROWS: tuple[Rule, ...] = (
    _opening("screwed-gasket", 5.0, 3.0, 8.0, "a lid with screws all round"),
    _opening("clamp-ring", 1.0, 0.5, 2.0, "a clamp ring"),
    _opening("foam-strip", 0.5, 0.2, 1.0, "a lid held by its own load"),
    _opening("snap-on", 1.5, 0.5, 3.0, "a lid that snaps on all round"),
    _opening("latch-gasket", 0.5, 0.2, 1.0, "latches"),
    _opening("cam-tray", 0.2, 0.1, 0.5, "cams under the bin"),
    _opening("loose", 0.2, 0.1, 0.5, "a loose lid"),
    Rule("handle.settle", 1.0, 0.5, 3.0, "number", "min", "Until the dust in a bin has settled", ESTIMATE),
    Rule("handle.hose", 0.5, 0.2, 1.5, "number", "min", "To undo a hose and put it back", ESTIMATE),
    Rule("handle.head", 1.5, 0.5, 3.0, "number", "min", "To lift a vacuum off and put it back", ESTIMATE),
    Rule("handle.untie", 1.0, 0.5, 3.0, "number", "min", "To untie what stands tied, and tie it again", ESTIMATE),
    Rule("handle.carry", 3.0, 1.0, 8.0, "number", "min", "To carry a bin out, tip and wipe it", ESTIMATE),
    Rule("handle.seal", 1.0, 0.5, 2.0, "number", "min", "To wipe a rim and look at its seal", ESTIMATE),
    Rule("handle.latch-gap", 0.3, 0.15, 0.5, "length", "", "Of a bin's rim, for each latch of its lid", ESTIMATE),
    Rule("handle.screw-gap", 0.12, 0.08, 0.2, "length", "", "Of a bin's rim, for each screw of its lid", ESTIMATE),
    Rule("handle.front", 0.6, 0.4, 0.9, "length", "", "Room to stand in front of a bin", ESTIMATE),
    Rule("log.unsure-bin", 0.4, 0.2, 0.7, "number", "ln", "How far a bin's modelled filling may be off", ESTIMATE),
    Rule("log.unsure-filter", 0.7, 0.4, 1.0, "number", "ln", "How far a filter's modelled life may be off", ESTIMATE),
    Rule("log.unsure-seal", 0.6, 0.4, 1.0, "number", "ln", "How far the usual life of a seal may be off", ESTIMATE),
    Rule("log.scatter-bin", 0.15, 0.08, 0.3, "number", "ln", "Scatter of a bin's fillings", ESTIMATE),
    Rule("log.scatter-filter", 0.3, 0.15, 0.5, "number", "ln", "Scatter of a filter's lives", ESTIMATE),
    Rule("log.scatter-seal", 0.4, 0.2, 0.6, "number", "ln", "Scatter of a seal's lives", ESTIMATE),
    Rule("log.scatter-week", 0.5, 0.2, 0.9, "number", "ln", "Scatter of work from week to week", ESTIMATE),
    Rule("log.usual-weeks", 3.0, 1.0, 8.0, "number", "weeks", "Logged weeks that outweigh the jobs", ESTIMATE),
    Rule(
        "log.gap-weeks", 4.0, 2.0, 8.0, "number", "weeks", "Without a logged hour, after which that is said", ESTIMATE
    ),
    Rule("log.first-joint", 1.0, 0.5, 3.0, "number", "h", "To the first look at a rigid joint under load"),
    Rule("log.joints-every", 30.0, 14.0, 60.0, "number", "days", "Between looks at joints under load or rigid"),
    Rule("log.seals-every", 60.0, 30.0, 120.0, "number", "days", "Between looks at seals and latches"),
    Rule("log.seal-life", 365.0, 120.0, 900.0, "number", "days", "Life of a gasket on a bin that is opened weekly"),
    Rule("log.seal-unseen", 0.1, 0.05, 0.25, "share", "", "Seals that may let go between two looks", ESTIMATE),
    Rule("log.trend-noticed", 0.04, 0.02, 0.1, "share", "", "Of a figure over the months, what is noticed", ESTIMATE),
    Rule("log.look-least", 0.125, 0.05, 0.3, "share", "", "Of the usual interval, no look comes sooner", ESTIMATE),
    Rule("log.first-look", 5.0, 1.0, 30.0, "number", "days", "To a look at what the log never spoke of", ESTIMATE),
    Rule("log.soon", 7.0, 3.0, 14.0, "number", "days", "Before it is due, that it is said to be soon", ESTIMATE),
    Rule("log.hours-over", 8.0, 4.0, 16.0, "number", "weeks", "Over which the hours of a line are looked at", ESTIMATE),
    Rule("log.brushes-every", 365.0, 180.0, 730.0, "number", "days", "Between looks at a motor's brushes", ESTIMATE),
    Rule("log.cord-every", 180.0, 90.0, 365.0, "number", "days", "Between looks at cords", ESTIMATE),
    Rule("log.test-every", 180.0, 90.0, 365.0, "number", "days", "Between tests of what is kept", ESTIMATE),
    Rule(
        "log.look-over", 730.0, 365.0, 1100.0, "number", "days", "Between looks over a whole line, parts off", ESTIMATE
    ),
)
