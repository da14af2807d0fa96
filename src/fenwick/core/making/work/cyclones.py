"""A cyclone rolled from sheet, or a bought separator mounted."""

from __future__ import annotations

from fenwick.core.making.given import Making
from fenwick.core.making.steps import WorkStep, cure_time
from fenwick.core.making.work.common import (
    BLADE,
    SEAL,
    SHEET,
    WOOD,
    check_print,
    inlet_steps,
    panel_steps,
    turned_plate,
)


def cyclone(making: Making) -> list[WorkStep]:
    """A cyclone rolled from sheet."""
    seal = cure_time(making.sealant, making)
    return [
        check_print(),
        *turned_plate("roof", "roof"),
        WorkStep(
            "cut-barrel", ("barrel",), share=0.6, cautions=SHEET, tools=("snips",), after={"check-print": "scale"}
        ),
        WorkStep(
            "cut-cone", ("cone", "band"), share=0.8, cautions=SHEET, tools=("snips",), after={"check-print": "scale"}
        ),
        WorkStep(
            "wrap-dry",
            ("barrel", "roof"),
            share=0.7,
            cautions=SHEET,
            hold="wrap-measured",
            after={"cut-barrel": "wall-first", "groove-roof": "groove-first"},
        ),
        WorkStep(
            "roll-cone",
            ("cone",),
            share=0.9,
            cautions=SHEET,
            hold="cone-meets-barrel",
            after={"cut-cone": "wall-first", "wrap-dry": "cone-follows-barrel"},
        ),
        *inlet_steps("wrap-dry", "wall-needed"),
        *panel_steps("wrap-dry", "wall-needed"),
        WorkStep(
            "cut-rings",
            ("flange", "backing-ring"),
            share=0.8,
            cautions=WOOD,
            tools=("trammel",),
            after={"check-print": "scale", "roll-cone": "ring-follows-cone"},
        ),
        WorkStep("bore-lid", ("lid",), share=0.6, cautions=BLADE, tools=("hole-saw",), after={"check-print": "scale"}),
        WorkStep(
            "drill-bolts",
            ("lid", "flange", "backing-ring"),
            share=0.5,
            cautions=BLADE,
            tools=("drill",),
            after={"cut-rings": "screws-after-cuts", "bore-lid": "screws-after-cuts"},
        ),
        WorkStep(
            "dry-assembly",
            ("barrel", "cone", "roof", "flange"),
            share=0.6,
            hold="all-fits",
            after={
                "roll-cone": "edges-before-fit",
                "cut-cut-out": "edges-before-fit",
                "join-inlet-panels": "edges-before-fit",
                "cut-rings": "edges-before-fit",
                "hole-roof": "edges-before-fit",
                "drill-bolts": "edges-before-fit",
            },
        ),
        WorkStep(
            "close-seams",
            ("barrel", "cone"),
            share=0.8,
            cure=seal,
            cautions=(*SEAL, "gloves"),
            tools=("rivets",),
            after={"dry-assembly": "fit-before-glue"},
        ),
        WorkStep(
            "seal-inlet",
            ("inlet-block", "inlet-tube", "inlet-plate"),
            share=0.6,
            cure=seal,
            cautions=SEAL,
            after={"close-seams": "seam-first"},
        ),
        WorkStep(
            "join-cone",
            ("cone", "barrel", "band"),
            share=0.7,
            cure=seal,
            cautions=SEAL,
            last="inner-seam",
            after={"close-seams": "seam-first", "seal-inlet": "inner-seam-last"},
        ),
        WorkStep(
            "seal-roof",
            ("roof", "barrel", "outlet-tube"),
            share=0.6,
            cure=seal,
            cautions=SEAL,
            after={"join-cone": "inner-seam-last", "seal-inlet": "inner-seam-last"},
        ),
        WorkStep(
            "seal-flange", ("flange", "cone"), share=0.5, cure=seal, cautions=SEAL, after={"join-cone": "cone-first"}
        ),
        WorkStep(
            "bolt-up",
            ("flange", "lid", "backing-ring"),
            share=0.4,
            hold="pressed-evenly",
            cautions=("no-tape",),
            after={"seal-flange": "flange-first", "drill-bolts": "flange-first"},
        ),
    ]


def mounting() -> list[WorkStep]:
    """A bought one: traced, cut, backed, drilled, its gasket pressed evenly."""
    return [
        check_print(),
        WorkStep("trace-foot", ("cyclone", "chamber", "kit"), share=0.3, hold="trace-compared"),
        WorkStep(
            "cut-ring",
            ("seat-ring", "backing-ring"),
            share=0.6,
            cautions=WOOD,
            tools=("trammel",),
            after={"check-print": "scale", "trace-foot": "trace-first"},
        ),
        WorkStep(
            "bore-lid",
            ("lid",),
            share=0.6,
            cautions=BLADE,
            tools=("hole-saw",),
            after={"check-print": "scale", "trace-foot": "trace-first"},
        ),
        WorkStep(
            "drill-bolts",
            ("lid", "backing-ring", "seat-ring"),
            share=0.4,
            cautions=BLADE,
            tools=("drill",),
            after={"bore-lid": "screws-after-cuts", "cut-ring": "screws-after-cuts"},
        ),
        WorkStep(
            "dry-assembly",
            ("lid", "seat-ring", "cyclone", "chamber", "kit"),
            share=0.3,
            hold="all-fits",
            after={"drill-bolts": "edges-before-fit"},
        ),
        WorkStep(
            "bolt-up",
            ("bolts", "flange-gasket", "kit", "chamber"),
            share=0.4,
            hold="pressed-evenly",
            cautions=("no-tape",),
            after={"dry-assembly": "fit-before-glue"},
        ),
    ]
