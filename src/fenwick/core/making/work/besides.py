"""Wet vessels, stands and hoods."""

from __future__ import annotations

from fenwick.core.making.given import Making
from fenwick.core.making.steps import WorkStep, cure_time
from fenwick.core.making.work.common import BLADE, SEAL, WOOD, check_print


def wet(making: Making) -> list[WorkStep]:
    """A vessel behind a dry stage."""
    seal = cure_time(making.sealant, making)
    return [
        check_print(),
        WorkStep("edge-lid", ("lid",), share=0.8, cautions=WOOD, tools=("trammel",), after={"check-print": "scale"}),
        WorkStep(
            "bore-lid", ("lid",), share=0.8, cautions=BLADE, tools=("hole-saw",), after={"edge-lid": "pivot-gone"}
        ),
        WorkStep(
            "cut-splash-plate",
            ("splash-plate",),
            share=0.6,
            cautions=WOOD,
            tools=("trammel",),
            after={"check-print": "scale"},
        ),
        WorkStep(
            "dry-assembly",
            ("lid", "throat", "outlet-tube", "vessel"),
            share=0.5,
            hold="throat-depth",
            after={"bore-lid": "edges-before-fit", "cut-splash-plate": "edges-before-fit"},
        ),
        WorkStep(
            "seal-tubes",
            ("throat", "outlet-tube", "splash-plate"),
            share=0.8,
            cure=seal,
            cautions=SEAL,
            after={"dry-assembly": "fit-before-glue"},
        ),
        WorkStep(
            "water-test",
            ("vessel",),
            share=0.5,
            hold="no-drops",
            cautions=("water",),
            after={"seal-tubes": "cured-first"},
        ),
    ]


def stand(making: Making) -> list[WorkStep]:
    """A tray, cart, shelf or deck, what lifts the bin, what holds hose, cord and nozzles."""
    glue = cure_time("pva", making)
    return [
        WorkStep(
            "cut-panels",
            ("tray", "deck-plate", "leg", "shelf", "vacuum-fillet", "nozzle-board", "cam-lever"),
            share=1.0,
            cautions=WOOD,
            tools=("saw",),
        ),
        WorkStep("cut-rest", ("bin-rest", "lift-tray"), share=0.7, cautions=WOOD, tools=("trammel",)),
        WorkStep(
            "bore-nozzles",
            ("nozzle-board",),
            share=0.4,
            cautions=BLADE,
            tools=("hole-saw",),
            after={"cut-panels": "panels-first"},
        ),
        WorkStep(
            "hang-brackets",
            ("wall-brackets",),
            share=0.8,
            hold="brackets-bear",
            cautions=("wall",),
            tools=("drill",),
        ),
        WorkStep(
            "join-legs",
            ("leg", "deck-plate"),
            share=1.2,
            cure=glue,
            glue="pva",
            hold="stands-square",
            tools=("clamps",),
            after={"cut-panels": "panels-first"},
        ),
        WorkStep(
            "fix-rest",
            ("bin-rest", "shelf", "vacuum-fillet", "tray", "deck-plate"),
            share=0.4,
            cure=glue,
            glue="pva",
            after={"cut-rest": "panels-first", "cut-panels": "panels-first", "hang-brackets": "panels-first"},
        ),
        *_cams(),
        WorkStep(
            "fix-casters",
            ("casters",),
            share=0.5,
            hold="bolts-clear",
            after={"fix-rest": "screws-after-cuts", "join-legs": "screws-after-cuts"},
        ),
        WorkStep(
            "fix-to-machine",
            ("machine-brackets",),
            share=0.4,
            cautions=("unplug",),
            after={"fix-casters": "on-its-feet", "fix-rest": "on-its-feet"},
        ),
        WorkStep(
            "fix-straps",
            ("straps", "hose-holder", "cord-cleats", "nozzle-board"),
            share=0.4,
            hold="does-not-tip",
            after={"fix-casters": "on-its-feet", "fix-rest": "on-its-feet", "bore-nozzles": "panels-first"},
        ),
    ]


def _cams() -> list[WorkStep]:
    """Both cams are bored and shaped as one, so that the tray comes up level."""
    return [
        WorkStep(
            "bore-cams",
            ("cam",),
            share=0.4,
            cautions=("small-piece", *BLADE),
            tools=("drill",),
            after={"cut-rest": "panels-first"},
        ),
        WorkStep(
            "shape-cams",
            ("cam",),
            share=0.4,
            cautions=("small-piece", *WOOD),
            tools=("band-saw", "file"),
            after={"bore-cams": "axle-first"},
        ),
        WorkStep(
            "fit-cams",
            ("cam", "cam-axle", "cam-lever", "lift-tray"),
            share=0.6,
            hold="cams-past-top",
            after={"shape-cams": "axle-first", "fix-rest": "on-its-feet"},
        ),
    ]


def hood(making: Making) -> list[WorkStep]:
    """A box round a tool."""
    glue = cure_time("pva", making)
    panels = ("front-panel", "back-panel", "left-panel", "right-panel", "top-panel")
    doors = tuple(f"{name}-{i}" for name in ("door", "rail") for i in range(1, 9))
    return [
        WorkStep("measure-tool", panels, share=0.4, hold="blade-clear", cautions=("unplug",)),
        WorkStep("cut-panels", panels, share=1.0, cautions=WOOD, tools=("saw",), after={"measure-tool": "tool-first"}),
        WorkStep(
            "cut-openings", panels, share=0.8, cautions=WOOD, tools=("jigsaw",), after={"cut-panels": "panels-first"}
        ),
        WorkStep(
            "cut-doors",
            doors,
            share=0.8,
            cautions=WOOD,
            tools=("saw",),
            after={"cut-openings": "doors-follow-openings"},
        ),
        WorkStep(
            "dry-assembly",
            panels,
            share=0.6,
            hold="blade-clear",
            cautions=("unplug",),
            after={"cut-openings": "edges-before-fit", "cut-doors": "edges-before-fit"},
        ),
        WorkStep(
            "join-panels",
            panels,
            share=0.8,
            cure=glue,
            glue="pva",
            tools=("clamps",),
            after={"dry-assembly": "fit-before-glue"},
        ),
        WorkStep("hang-doors", doors, share=0.8, hold="doors-slide", after={"join-panels": "panels-first"}),
        WorkStep("fit-port", ("port-tube",), share=0.4, after={"join-panels": "panels-first"}),
    ]
