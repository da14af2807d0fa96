"""Steps that several types share."""

from __future__ import annotations

from fenwick.core.making.steps import WorkStep

BLADE = ("unplug", "goggles")
WOOD = (*BLADE, "dust-mask")
SHEET = ("gloves", "goggles")
SEAL = ("fumes",)


def check_print() -> WorkStep:
    """Nothing is cut by a sheet that the printer has scaled."""
    return WorkStep("check-print", (), share=0.3, hold="square-measured")


def turned_plate(name: str, key: str) -> list[WorkStep]:
    """A disc that is turned on its centre: groove and edge first, the hole that takes the pivot away last."""
    steps = [
        WorkStep(f"groove-{key}", (name,), share=1.0, cautions=WOOD, tools=("router",), after={"check-print": "scale"})
    ]
    steps.append(
        WorkStep(
            f"edge-{key}",
            (name,),
            share=0.8,
            cautions=WOOD,
            tools=("trammel",),
            after={f"groove-{key}": "land-needs-edge"},
        )
    )
    steps.append(
        WorkStep(
            f"hole-{key}",
            (name,),
            share=0.6,
            cautions=WOOD,
            tools=("hole-saw",),
            after={f"groove-{key}": "pivot-gone", f"edge-{key}": "pivot-gone"},
        )
    )
    return steps


def slot_steps() -> list[WorkStep]:
    """Ends bored, then the slot between them, then its edges, while the disc still has its pivot."""
    disc = ("slotted-disc",)
    return [
        WorkStep(
            "bore-slot-ends",
            disc,
            share=0.6,
            cautions=WOOD,
            tools=("hole-saw", "drill"),
            after={"check-print": "scale", "cut-by-wrap": "disc-follows-wrap"},
        ),
        WorkStep(
            "cut-slot",
            disc,
            share=1.0,
            cautions=WOOD,
            tools=("trammel", "jigsaw"),
            after={"bore-slot-ends": "ends-first"},
        ),
        WorkStep(
            "trim-slot", disc, share=0.6, cautions=WOOD, tools=("router", "file"), after={"cut-slot": "slot-first"}
        ),
    ]


def inlet_steps(after: str, why: str) -> list[WorkStep]:
    """Block, dry fit, outline, cut; sealed only when all of it has been together."""
    block = ("inlet-block",)
    return [
        WorkStep(
            "shape-block",
            block,
            share=1.2,
            cautions=(*WOOD, "small-piece"),
            tools=("band-saw",),
            after={"check-print": "scale"},
        ),
        WorkStep(
            "bore-block",
            block,
            share=0.5,
            cautions=WOOD,
            tools=("hole-saw", "drill"),
            after={"shape-block": "block-first"},
        ),
        WorkStep(
            "dry-fit-inlet",
            ("inlet-block", "inlet-tube"),
            share=0.5,
            hold="block-lies-close",
            after={"bore-block": "block-first", after: why},
        ),
        WorkStep(
            "mark-cut-out",
            ("inlet-block", "wall", "barrel", "wall-template"),
            share=0.3,
            after={"dry-fit-inlet": "outline-from-fit"},
        ),
        WorkStep(
            "cut-cut-out",
            ("wall", "barrel", "wall-template"),
            share=0.7,
            cautions=SHEET,
            tools=("jigsaw",),
            after={"mark-cut-out": "outline-from-fit"},
        ),
    ]


def panel_steps(after: str, why: str) -> list[WorkStep]:
    """A rectangular inlet of panels."""
    names = ("inlet-plate", "inlet-inner-side", "inlet-outer-side")
    return [
        WorkStep("cut-inlet-panels", names, share=0.8, cautions=WOOD, tools=("saw",), after={"check-print": "scale"}),
        WorkStep(
            "join-inlet-panels",
            names,
            share=0.6,
            tools=("clamps",),
            after={"cut-inlet-panels": "block-first", after: why},
        ),
    ]


def closing_steps() -> list[WorkStep]:
    """Whatever it is: the rim is seated and felt before it is sealed, and the first run comes last."""
    return [
        WorkStep(
            "seat-rim",
            ("gasket", "bin", "vessel"),
            share=0.4,
            hold="rim-felt",
            cautions=("no-tape",),
            after={
                "seal-disc": "unit-first",
                "hang-disc": "unit-first",
                "seal-outlet": "unit-first",
                "bolt-up": "unit-first",
                "water-test": "unit-first",
                "fix-seat": "unit-first",
                "seal-inlet": "unit-first",
                "seal-roof": "unit-first",
            },
        ),
        WorkStep(
            "first-run",
            (),
            share=0.5,
            hold="relief-open",
            cautions=("folds", "motor-starves"),
            after={"seat-rim": "rim-first"},
        ),
    ]
