"""Wet vessels, stands and hoods."""

from __future__ import annotations

from fenwick.core.making.given import Making
from fenwick.core.making.steps import Step, cure_time
from fenwick.core.making.work.common import BLADE, SEAL, WOOD, check_print


def wet(making: Making) -> list[Step]:
    seal = cure_time(making.sealant, making)
    return [
        check_print(),
        Step("edge-lid", ("lid",), share=0.8, cautions=WOOD, tools=("trammel",), after={"check-print": "scale"}),
        Step("bore-lid", ("lid",), share=0.8, cautions=BLADE, tools=("hole-saw",), after={"edge-lid": "pivot-gone"}),
        Step(
            "cut-splash-plate",
            ("splash-plate",),
            share=0.6,
            cautions=WOOD,
            tools=("trammel",),
            after={"check-print": "scale"},
        ),
        Step(
            "dry-assembly",
            ("lid", "throat", "outlet-tube", "vessel"),
            share=0.5,
            hold="throat-depth",
            after={"bore-lid": "edges-before-fit", "cut-splash-plate": "edges-before-fit"},
        ),
        Step(
            "seal-tubes",
            ("throat", "outlet-tube", "splash-plate"),
            share=0.8,
            cure=seal,
            cautions=SEAL,
            after={"dry-assembly": "fit-before-glue"},
        ),
        Step(
            "water-test",
            ("vessel",),
            share=0.5,
            hold="no-drops",
            cautions=("water",),
            after={"seal-tubes": "cured-first"},
        ),
    ]


def stand(making: Making) -> list[Step]:
    glue = cure_time("pva", making)
    return [
        Step("cut-panels", ("tray", "deck-plate", "leg"), share=1.0, cautions=WOOD, tools=("saw",)),
        Step("cut-rest", ("bin-rest",), share=0.7, cautions=WOOD, tools=("trammel",)),
        Step(
            "join-legs",
            ("leg", "deck-plate", "tray"),
            share=1.2,
            cure=glue,
            hold="stands-square",
            tools=("clamps",),
            after={"cut-panels": "panels-first"},
        ),
        Step(
            "fix-rest",
            ("bin-rest", "tray", "deck-plate"),
            share=0.4,
            cure=glue,
            after={"cut-rest": "panels-first", "cut-panels": "panels-first"},
        ),
        Step(
            "fix-casters",
            ("casters",),
            share=0.5,
            hold="bolts-clear",
            after={"fix-rest": "screws-after-cuts", "join-legs": "screws-after-cuts"},
        ),
        Step(
            "fix-straps",
            ("straps", "hose-holder"),
            share=0.4,
            hold="does-not-tip",
            after={"fix-casters": "on-its-feet", "fix-rest": "on-its-feet"},
        ),
    ]


def hood(making: Making) -> list[Step]:
    glue = cure_time("pva", making)
    panels = ("front-panel", "back-panel", "left-panel", "right-panel", "top-panel")
    doors = tuple(f"{name}-{i}" for name in ("door", "rail") for i in range(1, 9))
    return [
        Step("measure-tool", panels, share=0.4, hold="blade-clear", cautions=("unplug",)),
        Step("cut-panels", panels, share=1.0, cautions=WOOD, tools=("saw",), after={"measure-tool": "tool-first"}),
        Step("cut-openings", panels, share=0.8, cautions=WOOD, tools=("jigsaw",), after={"cut-panels": "panels-first"}),
        Step(
            "cut-doors",
            doors,
            share=0.8,
            cautions=WOOD,
            tools=("saw",),
            after={"cut-openings": "doors-follow-openings"},
        ),
        Step(
            "dry-assembly",
            panels,
            share=0.6,
            hold="blade-clear",
            cautions=("unplug",),
            after={"cut-openings": "edges-before-fit", "cut-doors": "edges-before-fit"},
        ),
        Step("join-panels", panels, share=0.8, cure=glue, tools=("clamps",), after={"dry-assembly": "fit-before-glue"}),
        Step("hang-doors", doors, share=0.8, hold="doors-slide", after={"join-panels": "panels-first"}),
        Step("fit-port", ("port-tube",), share=0.4, after={"join-panels": "panels-first"}),
    ]
