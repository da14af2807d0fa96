"""Routes of the joints: every end measured, every gap named, every fix said."""

from __future__ import annotations

from dataclasses import dataclass, replace

from flask import abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from markupsafe import Markup

from fenwick.core.components.joint import FITS, PLASTICS
from fenwick.core.dust.cakes import settled_point
from fenwick.core.line.joints import fit_joint, stacks
from fenwick.core.line.operating import OperatingPoint
from fenwick.core.rules import RuleBook
from fenwick.data.lines import LineState, line_state
from fenwick.drawing.joint import render_joint
from fenwick.rig import Rig, RigError, build_line, edit_rig
from fenwick.rig.format.places import document_value
from fenwick.rig.to_core.joints import PlacedJoint, joints_of, rigid_along
from fenwick.rig.voice import voice_for
from fenwick.units import BadNumberError, format_value, parse_value, unit_label
from fenwick.web.kit.database import session
from fenwick.web.kit.fields import Field
from fenwick.web.kit.history import form_line, line_now, save
from fenwick.web.kit.units import unit_system
from fenwick.web.line.routes import bp
from fenwick.wording.joints import LEVELS, fix_words, gap_words, inside_words
from fenwick.wording.say import Voice

DIAMETERS = (("inside_d_m", "inside"), ("outside_d_m", "outside"))


@dataclass(frozen=True)
class JointRow:
    """One joint on the page."""

    number: int
    leaving: str
    entering: str
    picture: Markup
    leaving_fields: tuple[Field, ...]
    entering_fields: tuple[Field, ...]
    inside: str
    gap: str
    fix: str
    level: str


@bp.get("/lines/<int:line_id>/joints")
def joints(line_id: int) -> ResponseReturnValue:
    """The joints along one tool's way."""
    return _page(line_state(session(), line_id), {}, {})


@bp.post("/lines/<int:line_id>/joints/<int:number>")
def measure_joint(line_id: int, number: int) -> ResponseReturnValue:
    """Take the measures of one joint's two ends."""
    state, system = form_line(line_id), unit_system()
    placed = joints_of(state.rig, _port(state.rig))
    if not 1 <= number <= len(placed):
        abort(404)
    joint = placed[number - 1]
    fields = [f for path in (joint.leaving_path, joint.entering_path) for f in _fields(state.rig, path, system)]
    changes: dict[str, object] = {}
    errors: dict[str, str] = {}
    for field in fields:
        text = request.form.get(field.path, field.text).strip()
        if text == field.text:
            continue
        try:
            changes[field.path] = _value(field, text, system)
        except BadNumberError as error:
            errors[field.path] = str(error)
    if changes and not errors:
        try:
            rig = edit_rig(state.rig, changes)
            voice = voice_for(rig, system)
            save(
                line_id, rig, f"Joint of {voice.name(joint.joint.before)} and {voice.name(joint.joint.after)} measured"
            )
        except RigError as error:
            errors = {problem.path: problem.sentence(system).capitalize() + "." for problem in error.problems}
    if errors:
        return _page(state, dict(request.form), errors)
    if request.headers.get("HX-Request"):
        return _page(line_now(line_id), {}, {})
    return redirect(url_for("line.joints", line_id=line_id, port=request.form.get("port")))


def _value(field: Field, text: str, system: str) -> float | str | None:
    if not text:
        return None
    return text if field.choices else parse_value(text, "bore", system)


def _port(rig: Rig) -> int:
    ids = [way[0].id for way in rig.line.ways]
    asked = request.values.get("port")
    return ids.index(asked) if asked in ids else 0


def _page(state: LineState, typed: dict[str, str], errors: dict[str, str]) -> ResponseReturnValue:
    rig, system = state.rig, unit_system()
    voice, port = voice_for(rig, system), _port(rig)
    line = build_line(rig)
    rows = [
        _row(number, placed, rig, voice, line.rules, typed, errors)
        for number, placed in enumerate(joints_of(rig, port), start=1)
    ]
    chains = _chains(rig, port, settled_point(line), line.rules, voice)
    template = "line/_joints.html" if request.headers.get("HX-Request") else "line/joints.html"
    ports = [(way[0].id, way[0].port.name) for way in rig.line.ways if way[0].port]
    page = render_template(
        template, state=state, rows=rows, chains=chains, ports=ports, here=ports[port][0], errors=errors
    )
    return page, 422 if errors else 200


def _row(
    number: int,
    placed: PlacedJoint,
    rig: Rig,
    voice: Voice,
    rules: RuleBook,
    typed: dict[str, str],
    errors: dict[str, str],
) -> JointRow:
    fitted = fit_joint(placed.joint, rules)
    fix, inside = fix_words(fitted, voice), inside_words(fitted, voice)

    def fields(path: str | None) -> tuple[Field, ...]:
        return tuple(
            replace(f, text=typed.get(f.path, f.text), error=errors.get(f.path, ""))
            for f in _fields(rig, path, voice.system)
        )

    return JointRow(
        number=number,
        leaving=voice.name(placed.joint.before),
        entering=voice.name(placed.joint.after),
        picture=render_joint(fitted, f"joint-{number}", f"{inside or 'The two ends'}. {fix}"),
        leaving_fields=fields(placed.leaving_path),
        entering_fields=fields(placed.entering_path),
        inside=inside,
        gap=gap_words(fitted, voice),
        fix=fix,
        level=LEVELS.get(fitted.fix, ""),
    )


def _fields(rig: Rig, path: str | None, system: str) -> tuple[Field, ...]:
    if path is None:
        return ()
    document = rig.model_dump(mode="json")
    end = document_value(document, path) or {}
    unit = unit_label("bore", system)
    numbers = [
        Field(
            f"{path}.{key}",
            label,
            "" if end.get(key) is None else format_value(end[key], "bore", system, field=True),
            unit,
            optional=True,
        )
        for key, label in DIAMETERS
    ]
    plastics = tuple((key, plastic.label) for key, plastic in PLASTICS.items())
    return (
        *numbers,
        Field(f"{path}.fit", "joins by", end.get("fit", "push"), choices=tuple(FITS.items())),
        Field(f"{path}.plastic", "made of", end.get("plastic") or "", choices=plastics, optional=True),
    )


def _chains(rig: Rig, port: int, point: OperatingPoint, rules: RuleBook, voice: Voice) -> list[str]:
    """Stacks of rigid fittings, each with what it weighs on the port and costs in suction."""
    said = []
    for chain in stacks(rigid_along(rig, port), rules):
        cost = sum(float(point.stations.loss[i, 0]) for i, name in enumerate(point.stations.ids) if _of(name, chain))
        names = ", ".join(voice.name(name) for name in chain)
        said.append(
            f"{len(chain)} rigid fittings hang on one another ({names}): they cost {voice.figure(cost, 'suction')} and "
            "lever on the port. One adapter in their place, or a strap, is better."
        )
    return said


def _of(station: str, chain: tuple[str, ...]) -> bool:
    """Whether a station is a fitting of the chain, or the step into or within it."""
    return station in chain or (">" in station and station.split(">")[1] in chain)
