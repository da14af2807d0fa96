"""Rules of thumb: prices of what is bought to make something with, in the shop's money."""

from __future__ import annotations

from fenwick.core.rules.rule import ESTIMATE, Rule

ROWS: tuple[Rule, ...] = (
    Rule("price.gasket", 1.5, 0.5, 4.0, "number", "money/m", "Foam gasket", ESTIMATE),
    Rule("price.tube", 6.0, 2.0, 15.0, "number", "money/m", "Tube for inlets and outlets", ESTIMATE),
    Rule("price.brush-strip", 4.0, 2.0, 8.0, "number", "money/m", "Brush strip round a door", ESTIMATE),
    Rule("price.elbow", 4.0, 2.0, 10.0, "number", "money", "An elbow", ESTIMATE),
    Rule("price.bolt", 0.3, 0.1, 0.8, "number", "money", "A bolt with washers and nut", ESTIMATE),
    Rule("price.rod", 2.0, 1.0, 4.0, "number", "money", "A threaded rod or axle with its nuts", ESTIMATE),
    Rule("price.caster", 4.0, 2.0, 12.0, "number", "money", "A caster", ESTIMATE),
    Rule("price.strap", 4.0, 2.0, 10.0, "number", "money", "A strap", ESTIMATE),
    Rule("price.hook", 1.5, 0.5, 4.0, "number", "money", "A hook or cleat", ESTIMATE),
    Rule("price.bracket", 5.0, 2.0, 12.0, "number", "money", "A shelf bracket", ESTIMATE),
    Rule("price.bin", 25.0, 10.0, 60.0, "number", "money", "A bin with its lid", ESTIMATE),
    Rule("price.vessel", 20.0, 8.0, 50.0, "number", "money", "A vessel that holds water", ESTIMATE),
    Rule("price.sealant", 8.0, 4.0, 15.0, "number", "money", "A cartridge of sealant, a pack of glue", ESTIMATE),
)
