"""One step a screen, for a phone beside the vice."""

from __future__ import annotations

from flask import abort, render_template

from fenwick.data.builds import photos_of_step
from fenwick.data.lines import line_names
from fenwick.services.making_files import step_name
from fenwick.units import format_value, unit_label
from fenwick.web.build.hand import InHand
from fenwick.web.build.measured_form import MeasuredForm, measured_forms
from fenwick.web.build.plan_view import RUN_STEP
from fenwick.web.build.view import address, step_card, step_reasons
from fenwick.web.kit.database import session
from fenwick.web.kit.fields import Field
from fenwick.web.kit.units import unit_system
from fenwick.wording.making.names import part_name
from fenwick.wording.making.work import FIRST_RUN

RIM_STEP = "seat-rim"
TITLES = {"gap_m": "Gauge that goes in", "length_m": "Over that much of the rim"}


def step_page(
    hand: InHand,
    step: str,
    refused: tuple[str, ...] = (),
    holds: tuple[str, ...] = (),
    rim: tuple[Field, ...] | None = None,
    measured: MeasuredForm | None = None,
    photo_error: str = "",
) -> str:
    """One step as a page.

    Parameters
    ----------
    refused : ids of the steps that come first
    holds : ids of the hold points before it, which cannot be passed over
    rim : what was typed of the rim, where that was refused
    measured : what was typed of a first measurement, where that was refused
    photo_error : why a photo was not kept
    """
    steps = hand.found.steps
    at = next((i for i, one in enumerate(steps) if one.id == step), None)
    if at is None:
        abort(404)
    names = {one.id: step_name(one) for one in steps}
    clock = next((one.since for one in hand.build.file.clocks if one.step == step), None)
    seen = {one.check: one for one in hand.build.file.first_run}
    return render_template(
        "build/step.html", hand=hand, card=step_card(hand, steps[at]), step=steps[at], number=at + 1, of=len(steps),
        before=steps[at - 1].id if at > 0 else None, after=steps[at + 1].id if at + 1 < len(steps) else None,
        done=step in hand.found.done, reasons=step_reasons(hand, steps[at]), refused=[names[one] for one in refused],
        holds=[(names[one], address(hand, "show_step", step=one)) for one in holds],
        parts=[(part_name(one), address(hand, "show_part", part=one)) for one in steps[at].parts],
        clock=clock, lines=line_names(session(), hand.state.id),
        rim=(rim or rim_fields(hand)) if steps[at].id == RIM_STEP else None,
        measured=measured_forms(hand, measured) if steps[at].id == RUN_STEP else (),
        first_run=FIRST_RUN if steps[at].id == RUN_STEP else None, seen=seen,
        photos=photos_of_step(session(), hand.build.id, step), photo_error=photo_error,
    )  # fmt: skip


def rim_fields(hand: InHand) -> tuple[Field, ...]:
    """What is asked of the rim: how thick a gauge went in, and over how much of it."""
    system = unit_system()
    gauge = hand.found.pack.making.rule("gauge")
    texts = {"gap_m": format_value(gauge, "bore", system, field=True), "length_m": ""}
    label = unit_label("bore", system)
    return tuple(Field(key, TITLES[key], text, label) for key, text in texts.items())
