"""Rules of thumb: strength, and when a figure is to watch or to act on."""

from __future__ import annotations

from fenwick.core.rules.rule import ESTIMATE, Rule

ROWS: tuple[Rule, ...] = (
    Rule("shell.knock-down", 0.7, 0.5, 0.9, "number", "×", "Real bins against a perfect cylinder", ESTIMATE),
    Rule("shell.nested", 2.0, 1.5, 2.0, "number", "×", "A second nested bucket against one alone", ESTIMATE),
    Rule("shell.lid-bends", 50.0, 30.0, 100.0, "number", "parts of its width", "How far a lid may be drawn in"),
    Rule("shell.lid-watch", 0.7, 0.5, 0.9, "share", "", "Of that, from which a lid is to watch", ESTIMATE),
    Rule("sheet.acrylic", 5e6, 3e6, 8e6, "stress", "", "Acrylic bent cold, what it holds for years", ESTIMATE),
    Rule("sheet.hdpe", 3e6, 2e6, 5e6, "stress", "", "HDPE bent cold, what it holds for years", ESTIMATE),
    Rule("sheet.breaks", 3.5, 2.5, 5.0, "number", "×", "Of that, at which it cracks or buckles", ESTIMATE),
    Rule("sheet.plywood", 50.0, 40.0, 70.0, "number", "× its thickness", "Radius that plywood bends to", ESTIMATE),
    Rule("stand.sure", 2.0, 1.5, 3.0, "number", "×", "Of a hose's pull, that tips nothing for sure", ESTIMATE),
    Rule("stand.lift", 0.15, 0.1, 0.3, "bore", "", "Room to lift a lid or a head off", ESTIMATE),
    Rule("stand.bend", 2.0, 1.5, 3.0, "number", "bores", "Room that a hose wants to bend over a lid", ESTIMATE),
    Rule("stand.rolls", 0.03, 0.015, 0.06, "number", "× its weight", "Pull that rolls it away on its wheels", ESTIMATE),
    Rule("stand.climb", 0.25, 0.15, 0.35, "number", "× a wheel", "Step that a wheel is pulled over", ESTIMATE),
    Rule("site.brittle", 5.0, 0.0, 10.0, "temperature", "", "Below which plastic bins turn brittle", ESTIMATE),
    Rule("stand.caster-sure", 1.5, 1.2, 2.0, "number", "×", "Rating of a caster over its share, for sills", ESTIMATE),
    Rule("stand.head", 0.25, 0.18, 0.35, "bore", "", "Height of a vacuum's head, where it is not given", ESTIMATE),
    Rule("stand.pull", 40.0, 20.0, 80.0, "force", "", "Pull of a hose on what it is joined to", ESTIMATE),
    Rule("stand.heavy", 15.0, 10.0, 20.0, "heap", "", "Weight that one lifts with care"),
    Rule("stand.too-heavy", 25.0, 20.0, 30.0, "heap", "", "Weight that one does not lift alone"),
    Rule("circuit.continuous", 0.8, 0.7, 0.9, "share", "", "Of a breaker's rating, what may run for long"),
    Rule("circuit.start", 5.0, 3.0, 8.0, "number", "×", "Current of a motor that starts, against running"),
    Rule("circuit.trip", 5.0, 3.0, 10.0, "number", "×", "Of its rating, what trips a breaker at once"),
    Rule("motor.cooling", 0.15, 0.1, 0.25, "share", "", "Of its open flow, what cools a fan's motor", ESTIMATE),
    Rule("motor.near", 1.5, 1.2, 2.0, "number", "×", "Of that air, from which it is to watch", ESTIMATE),
    Rule("motor.blocked", 10.0, 5.0, 20.0, "seconds", "", "How long a hose may be blocked for a test", ESTIMATE),
    Rule("filter.class", 0.01, 0.005, 0.05, "share", "", "Of breathable dust, what a filter may let past", ESTIMATE),
    Rule("verdict.caught-good", 0.8, 0.7, 0.9, "share", "", "Caught share that a good hood reaches", ESTIMATE),
    Rule("verdict.caught-poor", 0.4, 0.3, 0.6, "share", "", "Caught share below which it is to act on", ESTIMATE),
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
