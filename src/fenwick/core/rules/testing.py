"""Rules of thumb: tests, and what their readings scatter by."""

from __future__ import annotations

from fenwick.core.rules.rule import ESTIMATE, Rule

ROWS: tuple[Rule, ...] = (
    Rule("test.bulk-sd", 0.20, 0.1, 0.3, "share", "", "Of a bulk density that nobody has weighed, its uncertainty"),
    Rule("test.level", 0.005, 0.002, 0.01, "bore", "", "How level a heap can be raked by hand", ESTIMATE),
    Rule("test.closes-least", 0.97, 0.95, 0.98, "share", "", "Of what was fed, the least that should be found again"),
    Rule("test.closes-most", 1.03, 1.02, 1.05, "share", "", "Of what was fed, the most that should be found again"),
    Rule("test.scatter-past", 0.15, 0.05, 0.3, "share", "", "Of what gets past, how runs differ", ESTIMATE),
    Rule("test.scatter-suction", 0.02, 0.01, 0.05, "share", "", "Of a suction, how runs differ", ESTIMATE),
    Rule("test.scatter-air", 0.30, 0.15, 0.5, "share", "", "Of a particle reading, how cuts differ", ESTIMATE),
    Rule("test.scatter-sheet", 0.20, 0.1, 0.4, "share", "", "Of the marked squares hit, how cuts differ", ESTIMATE),
    Rule("test.scatter-force", 0.10, 0.05, 0.2, "share", "", "Of a pull-off force, how samples differ", ESTIMATE),
    Rule("test.scatter-carry", 0.30, 0.1, 0.5, "share", "", "Of water carried over, how runs differ", ESTIMATE),
    Rule("test.scatter-look", 0.5, 0.3, 1.0, "number", "grades", "How two looks at one filter differ", ESTIMATE),
    Rule("test.pitch-sd", 0.15, 0.1, 0.25, "share", "", "Of its open flow, how sure a motor's pitch is"),
    Rule("test.shut", 3.0, 2.0, 5.0, "seconds", "", "How long a hose is shut by hand for a reading", ESTIMATE),
    Rule("test.cool", 120.0, 60.0, 300.0, "seconds", "", "How long a motor cools after it was shut", ESTIMATE),
    Rule("test.run-on", 15.0, 10.0, 30.0, "seconds", "", "How long the vacuum runs on, to clear the hose", ESTIMATE),
    Rule("test.still-air", 300.0, 120.0, 600.0, "seconds", "", "Of still air before a cut, for its baseline", ESTIMATE),
    Rule("test.back", 1.2, 1.1, 1.5, "number", "×", "Of its baseline, at which air is back to normal"),
    Rule("test.decay-from", 0.9, 0.8, 1.0, "share", "", "Of the peak, from which its decay is fitted", ESTIMATE),
    Rule("test.decay-to", 0.1, 0.05, 0.2, "share", "", "Of the peak, down to which its decay is fitted", ESTIMATE),
    Rule("test.nearly-all", 0.985, 0.98, 0.99, "share", "", "Kept, from which people say “99 %”", ESTIMATE),
    Rule("test.minutes-fed", 12.0, 8.0, 20.0, "number", "min", "A run in which something is weighed and fed", ESTIMATE),
    Rule("test.minutes-air", 25.0, 15.0, 40.0, "number", "min", "A run with a particle monitor", ESTIMATE),
    Rule("test.minutes-shut", 6.0, 5.0, 10.0, "number", "min", "A run in which the motor must cool", ESTIMATE),
    Rule("test.minutes-else", 5.0, 3.0, 8.0, "number", "min", "Any other run", ESTIMATE),
    Rule("test.repeats", 3.0, 2.0, 10.0, "number", "runs", "How often a test is done with each state", ESTIMATE),
    Rule("test.repeats-graded", 5.0, 4.0, 10.0, "number", "runs", "The same where it is graded by eye", ESTIMATE),
    Rule("test.worth-share", 0.02, 0.01, 0.05, "share", "", "Of what is kept, a difference worth knowing", ESTIMATE),
    Rule("test.worth-counted", 0.1, 0.05, 0.2, "share", "", "Of squares or of a pitch, likewise", ESTIMATE),
    Rule("test.worth-suction", 200.0, 100.0, 500.0, "suction", "", "Of suction, likewise", ESTIMATE),
    Rule("test.worth-particles", 100e-9, 50e-9, 200e-9, "particles", "", "Of dust in the air, likewise", ESTIMATE),
    Rule("test.worth-number", 1.0, 0.5, 2.0, "number", "grades", "Of grades by eye, likewise", ESTIMATE),
    Rule("test.worth-force", 10.0, 5.0, 20.0, "force", "", "Of a pull-off force, likewise", ESTIMATE),
    Rule("test.worth-weighed", 0.002, 0.001, 0.005, "mass", "", "Of a weighed mass, likewise", ESTIMATE),
    Rule("test.dry", 0.001, 0.0005, 0.002, "mass", "", "Water in a cloth that still counts as dry", ESTIMATE),
)
