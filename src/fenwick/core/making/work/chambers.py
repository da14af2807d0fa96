"""Chambers on top of a bin, a vacuum's head on one of them."""

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
    slot_steps,
    turned_plate,
)


def chamber(making: Making) -> list[WorkStep]:
    """A chamber on top of its bin."""
    seal = cure_time(making.sealant, making)
    disc = ("slotted-disc",)
    return [
        check_print(),
        *turned_plate("roof", "roof"),
        WorkStep("cut-wall", ("wall",), share=0.5, cautions=SHEET, tools=("snips",), after={"check-print": "scale"}),
        WorkStep(
            "wrap-dry",
            ("wall", "roof"),
            share=0.6,
            cautions=SHEET,
            hold="wrap-measured",
            after={"cut-wall": "wall-first", "groove-roof": "groove-first"},
        ),
        WorkStep("cut-by-wrap", disc, share=0.2, hold="disc-by-wrap", after={"wrap-dry": "disc-follows-wrap"}),
        *slot_steps(),
        WorkStep(
            "groove-disc",
            disc,
            share=1.0,
            cautions=WOOD,
            tools=("router",),
            after={"cut-by-wrap": "disc-follows-wrap", "trim-slot": "slot-before-groove"},
        ),
        WorkStep(
            "edge-disc", disc, share=0.8, cautions=WOOD, tools=("trammel",), after={"groove-disc": "land-needs-edge"}
        ),
        *inlet_steps("wrap-dry", "wall-needed"),
        *panel_steps("wrap-dry", "wall-needed"),
        WorkStep(
            "cut-ring", ("seat-ring",), share=0.8, cautions=WOOD, tools=("trammel",), after={"check-print": "scale"}
        ),
        WorkStep(
            "drill-ring",
            ("seat-ring", "slotted-disc"),
            share=0.4,
            cautions=BLADE,
            tools=("drill",),
            after={"cut-ring": "ring-first", "edge-disc": "screws-after-cuts", "trim-slot": "screws-after-cuts"},
        ),
        WorkStep(
            "dry-assembly",
            ("wall", "roof", "slotted-disc", "seat-ring"),
            share=0.6,
            hold="all-fits",
            after={
                "trim-slot": "edges-before-fit",
                "edge-disc": "edges-before-fit",
                "hole-roof": "edges-before-fit",
                "drill-ring": "edges-before-fit",
                "cut-cut-out": "edges-before-fit",
                "join-inlet-panels": "edges-before-fit",
            },
        ),
        WorkStep(
            "glue-ring",
            ("seat-ring", "slotted-disc"),
            share=0.4,
            cure=cure_time("pva", making),
            after={"dry-assembly": "fit-before-glue"},
        ),
        WorkStep(
            "close-seam",
            ("wall",),
            share=0.5,
            cure=seal,
            cautions=SEAL,
            tools=("clamps",),
            after={"dry-assembly": "fit-before-glue"},
        ),
        WorkStep(
            "seal-roof",
            ("roof", "wall", "outlet-tube"),
            share=0.7,
            cure=seal,
            cautions=SEAL,
            after={"close-seam": "seam-first"},
        ),
        WorkStep(
            "seal-inlet",
            ("inlet-block", "inlet-tube", "inlet-plate", "wall"),
            share=0.6,
            cure=seal,
            cautions=SEAL,
            last="inner-seam",
            after={"seal-roof": "roof-holds-round"},
        ),
        WorkStep(
            "seal-disc",
            ("slotted-disc", "wall"),
            share=0.5,
            cure=seal,
            cautions=SEAL,
            after={"seal-inlet": "inner-seam-last", "close-seam": "inner-seam-last", "glue-ring": "ring-first"},
        ),
    ]


def one_body(making: Making) -> list[WorkStep]:
    """A chamber under a vacuum's own head."""
    seal = cure_time(making.sealant, making)
    disc = ("slotted-disc",)
    return [
        check_print(),
        *turned_plate("deck", "deck"),
        WorkStep(
            "bore-deck",
            ("deck",),
            share=0.5,
            cautions=WOOD,
            tools=("hole-saw", "drill"),
            after={"groove-deck": "pivot-gone", "edge-deck": "pivot-gone"},
        ),
        WorkStep(
            "drill-seat", ("filter-seat",), share=1.5, cautions=BLADE, tools=("drill",), after={"check-print": "scale"}
        ),
        WorkStep("cut-wall", ("wall",), share=0.5, cautions=SHEET, tools=("snips",), after={"check-print": "scale"}),
        WorkStep(
            "wrap-dry",
            ("wall", "deck"),
            share=0.6,
            cautions=SHEET,
            hold="wrap-measured",
            after={"cut-wall": "wall-first", "groove-deck": "groove-first"},
        ),
        WorkStep("cut-by-wrap", disc, share=0.2, hold="disc-by-wrap", after={"wrap-dry": "disc-follows-wrap"}),
        *slot_steps(),
        WorkStep(
            "groove-disc",
            disc,
            share=1.0,
            cautions=WOOD,
            tools=("router",),
            after={"cut-by-wrap": "disc-follows-wrap", "trim-slot": "slot-before-groove"},
        ),
        WorkStep(
            "edge-disc", disc, share=0.8, cautions=WOOD, tools=("trammel",), after={"groove-disc": "land-needs-edge"}
        ),
        WorkStep(
            "cut-window", ("drop-pipe",), share=0.8, cautions=SHEET, tools=("saw",), after={"check-print": "scale"}
        ),
        WorkStep(
            "cut-ring", ("seat-ring",), share=0.8, cautions=WOOD, tools=("trammel",), after={"check-print": "scale"}
        ),
        WorkStep(
            "drill-ring",
            ("seat-ring", "slotted-disc"),
            share=0.4,
            cautions=BLADE,
            tools=("drill",),
            after={"cut-ring": "ring-first", "edge-disc": "screws-after-cuts"},
        ),
        WorkStep(
            "dry-assembly",
            ("wall", "deck", "slotted-disc", "drop-pipe", "head"),
            share=0.8,
            hold="all-fits",
            after={
                "trim-slot": "edges-before-fit",
                "edge-disc": "edges-before-fit",
                "hole-deck": "edges-before-fit",
                "bore-deck": "edges-before-fit",
                "cut-window": "edges-before-fit",
                "drill-ring": "edges-before-fit",
            },
        ),
        WorkStep(
            "close-seam",
            ("wall",),
            share=0.5,
            cure=seal,
            cautions=SEAL,
            tools=("clamps",),
            after={"dry-assembly": "fit-before-glue"},
        ),
        WorkStep(
            "seal-deck",
            ("deck", "wall", "drop-pipe"),
            share=0.7,
            cure=seal,
            cautions=SEAL,
            last="inner-seam",
            after={"close-seam": "seam-first"},
        ),
        WorkStep(
            "seal-disc",
            ("slotted-disc", "wall"),
            share=0.5,
            cure=seal,
            cautions=SEAL,
            after={"seal-deck": "inner-seam-last", "close-seam": "inner-seam-last", "drill-ring": "ring-first"},
        ),
        WorkStep(
            "fix-seat", ("filter-seat", "deck"), share=0.4, cautions=("no-tape",), after={"seal-deck": "deck-first"}
        ),
    ]
