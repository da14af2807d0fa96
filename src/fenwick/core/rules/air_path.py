"""Rules of thumb: hoses, ports, joints, floor plan and carrying."""

from __future__ import annotations

from fenwick.core.rules.rule import ESTIMATE, Rule

ROWS: tuple[Rule, ...] = (
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
    Rule("entry.reading", 1.0, 0.6, 1.6, "number", "×", "Loss at a tool's port against that of its kind", ESTIMATE),
    Rule("leak.reading", 1.0, 0.3, 3.7, "number", "×", "Leaks at joints against the areas given for them", ESTIMATE),
    Rule("hose.modulus", 30e6, 10e6, 100e6, "stress", "", "Stiffness of a soft hose's plastic", ESTIMATE),
    Rule("floor.swing", 50.0, 40.0, 60.0, "angle", "", "How far to either side a swinging head turns", ESTIMATE),
    Rule("floor.beside", 0.25, 0.15, 0.4, "length", "", "Free floor that a hose wants beside a tool", ESTIMATE),
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
    Rule("bed.most", 0.9, 0.8, 0.95, "share", "", "Most of a bore that dust at rest fills", ESTIMATE),
    Rule("bed.plugs", 0.7, 0.5, 0.8, "share", "", "Share of the bore filled from which a run plugs", ESTIMATE),
    Rule("chip.lift", 1.5, 1.2, 2.0, "number", "×", "Air speed against the fall of a piece that lifts it surely"),
    Rule("clear.speed", 0.7, 0.5, 0.9, "share", "", "Speed of the dust against that of the air"),
    Rule("clear.extra", 1.0, 0.5, 2.0, "number", "s", "Time a tool goes on making dust when it stops"),
    Rule("fan.power-suction", 0.5, 0.2, 0.8, "share", "", "Of a stronger motor's air power, into suction", ESTIMATE),
    Rule("fan.apart", 3.0, 2.0, 4.0, "number", "×", "What follows from a label, over its class, at most", ESTIMATE),
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
)
