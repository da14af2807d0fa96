"""What hangs in a bin or goes through its lid."""

from __future__ import annotations

from fenwick.core.making.given import Making
from fenwick.core.making.steps import WorkStep, cure_time
from fenwick.core.making.work.common import BLADE, SEAL, WOOD, check_print, inlet_steps


def hung(making: Making) -> list[WorkStep]:
    """A disc that hangs in its bin."""
    seal = cure_time(making.sealant, making)
    disc = ("slotted-disc",)
    return [
        check_print(),
        WorkStep("measure-bin", ("bin",), share=0.2, hold="bin-measured"),
        WorkStep(
            "edge-disc",
            disc,
            share=0.8,
            cautions=WOOD,
            tools=("trammel",),
            after={"check-print": "scale", "measure-bin": "disc-follows-bin"},
        ),
        WorkStep("cut-slot", disc, share=1.0, cautions=WOOD, tools=("jigsaw",), after={"edge-disc": "pivot-gone"}),
        WorkStep("trim-slot", disc, share=0.6, cautions=WOOD, tools=("file",), after={"cut-slot": "slot-first"}),
        WorkStep(
            "bore-lid", ("lid",), share=0.6, cautions=BLADE, tools=("hole-saw", "drill"), after={"check-print": "scale"}
        ),
        WorkStep(
            "drill-rods",
            ("lid", "slotted-disc"),
            share=0.4,
            cautions=BLADE,
            tools=("drill",),
            after={"trim-slot": "screws-after-cuts", "bore-lid": "screws-after-cuts"},
        ),
        *inlet_steps("measure-bin", "wall-needed"),
        WorkStep(
            "dry-assembly",
            ("lid", "slotted-disc", "rods", "bin"),
            share=0.6,
            hold="disc-passes-rim",
            after={
                "drill-rods": "edges-before-fit",
                "trim-slot": "edges-before-fit",
                "cut-cut-out": "edges-before-fit",
            },
        ),
        WorkStep(
            "seal-inlet",
            ("inlet-block", "inlet-tube", "inlet-elbow"),
            share=0.5,
            cure=seal,
            cautions=SEAL,
            after={"dry-assembly": "fit-before-glue"},
        ),
        WorkStep(
            "seal-outlet",
            ("outlet-tube", "lid"),
            share=0.4,
            cure=seal,
            cautions=SEAL,
            after={"dry-assembly": "fit-before-glue"},
        ),
        WorkStep(
            "hang-disc",
            ("slotted-disc", "rods"),
            share=0.5,
            after={"seal-outlet": "lid-first", "seal-inlet": "lid-first"},
        ),
    ]


def open_bin(making: Making) -> list[WorkStep]:
    """Tubes through a lid or a wall."""
    seal = cure_time(making.sealant, making)
    return [
        check_print(),
        WorkStep(
            "cut-stiffener",
            ("stiffener",),
            share=0.6,
            cautions=WOOD,
            tools=("trammel",),
            after={"check-print": "scale"},
        ),
        WorkStep(
            "bore-lid",
            ("lid", "stiffener"),
            share=0.8,
            cautions=BLADE,
            tools=("hole-saw", "drill"),
            after={"check-print": "scale", "cut-stiffener": "holes-together"},
        ),
        *inlet_steps("check-print", "scale"),
        WorkStep(
            "dry-assembly",
            ("lid", "bin"),
            share=0.4,
            hold="all-fits",
            after={"bore-lid": "edges-before-fit", "cut-cut-out": "edges-before-fit"},
        ),
        WorkStep(
            "seal-inlet",
            ("inlet-block", "inlet-tube", "inlet-elbow"),
            share=0.5,
            cure=seal,
            cautions=SEAL,
            after={"dry-assembly": "fit-before-glue"},
        ),
        WorkStep(
            "seal-outlet",
            ("outlet-tube", "outlet-elbow"),
            share=0.4,
            cure=seal,
            cautions=SEAL,
            after={"dry-assembly": "fit-before-glue"},
        ),
    ]
