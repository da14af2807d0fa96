"""Routes for choosing ready-made: what a seller prints, typed in."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from flask import abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.lines import line_state
from fenwick.rig import RigError
from fenwick.rig.edits.ready_made import Printed, take_ready_made
from fenwick.units import BadNumberError, parse_value, unit_label
from fenwick.web.kit.database import session
from fenwick.web.kit.fields import Field
from fenwick.web.kit.history import save
from fenwick.web.kit.units import unit_system
from fenwick.web.separator.fields import separator_of
from fenwick.web.separator.routes import bp


@dataclass(frozen=True)
class PrintedField:
    """What a seller may print."""

    label: str
    quantity: str
    wanted: bool
    key: str  #: of the rig, that answers for it


#: by the field of `Printed`
FIELDS = {
    "inlet_bore": PrintedField("Inlet bore", "bore", True, "inlet_bore_m"),
    "body": PrintedField("Body wide", "bore", True, "body_d_m"),
    "height": PrintedField("Cyclone high", "bore", True, "total_height_m"),
    "outlet": PrintedField("Outlet bore", "bore", False, "outlet_d_m"),
    "dust_outlet": PrintedField("Dust outlet", "bore", False, "dust_outlet_d_m"),
    "flow": PrintedField("Claimed airflow", "flow", False, "claim.flow_m3_s"),
    "suction": PrintedField("Claimed suction", "suction", False, "claim.suction_pa"),
    "efficiency": PrintedField("Claimed to keep", "share", False, "claim.efficiency"),
    "bolt_circle": PrintedField("Bolt circle", "bore", False, "claim.bolt_circle_d_m"),
    "bolts": PrintedField("Bolts", "number", False, "claim.bolts"),
    "bolt": PrintedField("Bolt hole", "bore", False, "claim.bolt_d_m"),
}


@bp.get("/lines/<int:line_id>/separator/ready-made")
def ready_made(line_id: int) -> ResponseReturnValue:
    """Ask for what is printed."""
    return _page(line_id, _fields(None, unit_system()))


@bp.post("/lines/<int:line_id>/separator/ready-made")
def take(line_id: int) -> ResponseReturnValue:
    """Put the bought separator in the line; what is wrong stays beside its field."""
    state, system = line_state(session(), line_id), unit_system()
    part = separator_of(state.rig, request.form.get("part", ""))
    if part is None:
        abort(404)
    fields = _fields(request.form, system)
    if any(field.error for field in fields):
        return _page(line_id, fields, 422)
    values = {
        field.path: _value(field.text, FIELDS[field.path].quantity, system) for field in fields if field.path in FIELDS
    }
    bolts = values.pop("bolts")
    named = request.form.get("name", "").strip() or "Bought cyclone"
    try:
        printed = Printed(name=named, bolts=None if bolts is None else int(bolts), **values)  # type: ignore[arg-type]
        rig = take_ready_made(state.rig, part.id, printed)
    except RigError as error:
        return _page(line_id, _beside(fields, error, system), 422)
    save(line_id, rig, f"{named} put in")
    return redirect(url_for("separator.show", line_id=line_id, part=part.id))


def _fields(sent: Mapping[str, str] | None, system: str) -> list[Field]:
    """As they were sent; None: nobody has typed anything yet."""
    form = sent or {}
    found = [Field("name", "Called", form.get("name", ""), free_text=True, optional=True, unknown="not said")]
    for name, asked in FIELDS.items():
        text, unit = form.get(name, "").strip(), unit_label(asked.quantity, system)
        field = Field(name, asked.label, text, unit, optional=not asked.wanted, unknown="not printed")
        if sent is not None:
            field = replace(field, error=_wrong(text, asked, name, system))
        found.append(field)
    return found


def _wrong(text: str, asked: PrintedField, name: str, system: str) -> str:
    if not text:
        return "Is wanted: without it there is nothing to model." if asked.wanted else ""
    try:
        value = parse_value(text, asked.quantity, system)
    except BadNumberError as error:
        return str(error)
    if name == "bolts" and value != int(value):
        return "Must be a whole number."
    return ""


def _value(text: str, quantity: str, system: str) -> float | None:
    return parse_value(text, quantity, system) if text else None


def _beside(fields: list[Field], error: RigError, system: str) -> list[Field]:
    """What the rig refuses, beside the field it came from; what belongs to none at the first."""
    said: dict[str, str] = {}
    for problem in error.problems:
        sentence = problem.sentence(system)
        name = next((name for name, asked in FIELDS.items() if problem.path.endswith(f"].{asked.key}")), "name")
        said[name] = f"{sentence[:1].upper()}{sentence[1:]}."
    return [replace(field, error=said.get(field.path, "")) for field in fields]


def _page(line_id: int, fields: list[Field], status: int = 200) -> ResponseReturnValue:
    state = line_state(session(), line_id)
    part = separator_of(state.rig, request.values.get("part", ""))
    if part is None:
        return redirect(url_for("separator.show", line_id=line_id))
    return render_template("separator/ready_made.html", state=state, part=part, fields=fields, line_id=line_id), status
