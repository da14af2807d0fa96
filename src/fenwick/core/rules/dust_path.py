"""Rules of thumb: filters, bags and capture."""

from __future__ import annotations

from fenwick.core.rules.rule import ESTIMATE, Rule

ROWS: tuple[Rule, ...] = (
    Rule("filter.k1-paper", 2e3, 1e3, 4e3, "number", "Pa·s/m", "Resistance of clean filter paper"),
    Rule("filter.k1-hepa", 6e3, 3e3, 12e3, "number", "Pa·s/m", "Resistance of a clean HEPA cartridge"),
    Rule("filter.k1-bag", 1.5e3, 0.7e3, 3e3, "number", "Pa·s/m", "Resistance of a clean bag"),
    Rule("filter.k2", 1e5, 0.5e5, 2e5, "number", "1/s", "Resistance of a cake of 50 µm dust"),
    Rule("filter.k2-least", 2e4, 1e4, 4e4, "number", "1/s", "Resistance of a cake of the coarsest dust"),
    Rule("filter.k2-most", 1e6, 5e5, 2e6, "number", "1/s", "Resistance of a cake of the finest dust"),
    Rule("filter.full", 1.0, 0.5, 2.0, "number", "kg/m²", "Dust that fills a filter's pleats"),
    Rule("filter.cake", 0.05, 0.02, 0.15, "number", "kg/m²", "Cake that lets only 37 % of the fine dust past"),
    Rule("filter.tank-drop", 60e-6, 30e-6, 120e-6, "grain", "", "Size half of which drops in the vacuum's own tank"),
    Rule("filter.blinds", 0.2, 0.05, 0.4, "share", "", "Of a cake, what cleaning leaves in the filter for good"),
    Rule("filter.worn", 0.5, 0.3, 0.7, "share", "", "Of its first time between cleanings, when a filter is replaced"),
    Rule("filter.down", 0.75, 0.6, 0.9, "share", "", "Of the air with a clean filter, when it is cleaned", ESTIMATE),
    Rule("bag.area", 0.25, 0.1, 0.4, "number", "m²", "A bag, where none is in the vacuum", ESTIMATE),
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
    Rule("room.shut", 0.5, 0.2, 1.0, "number", "an hour", "Air changes of a shut shop"),
    Rule("room.door-open", 3.0, 1.5, 6.0, "number", "an hour", "Air changes with a door open"),
    Rule("room.filter", 0.1, 0.05, 0.3, "flow", "", "Air that a room filter cleans, where none is given", ESTIMATE),
    Rule("work.wood", 600.0, 400.0, 900.0, "density", "", "Solid wood, where its density is not given"),
    Rule("capture.missed", 0.1, 0.05, 0.2, "share", "", "Floating dust missed at the needed air speed", ESTIMATE),
    Rule("capture.power", 1.5, 1.0, 2.0, "number", "", "How quickly more air speed catches the rest", ESTIMATE),
    Rule("capture.rebound", 0.5, 0.2, 0.7, "share", "", "Chips past the port that a plate turns back"),
    Rule(
        "capture.box-holds",
        0.8,
        0.5,
        0.95,
        "share",
        "",
        "Flying dust not taken away that a box keeps in",
        ESTIMATE,
    ),
)
