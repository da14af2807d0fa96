"""Routes of the Separator: parse, call, render."""

from __future__ import annotations

from flask import Blueprint, abort, jsonify, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.dust.traces import traces
from fenwick.data.lines import LineState, free_name, line_names, line_state
from fenwick.data.shops import the_shop
from fenwick.drawing.section import frame_of
from fenwick.rig import RigError, edit_rig
from fenwick.rig.edits.kinds import KINDS, change_kind, turn_bin, turn_inlet
from fenwick.rig.edits.schools import schools
from fenwick.rig.edits.structure import add_part
from fenwick.rig.format.separator import SeparatorPart
from fenwick.rig.voice import voice_for
from fenwick.services import lines
from fenwick.services.solving import solve
from fenwick.web.kit.database import session
from fenwick.web.kit.editor import read_editor
from fenwick.web.kit.history import form_line, line_now, save
from fenwick.web.kit.history import step as step_history
from fenwick.web.kit.units import unit_system
from fenwick.web.separator.fields import (
    DUST_ROWS,
    ROWS,
    dust_editor,
    new_dust_row,
    new_row,
    separator_of,
    whole_editor,
)
from fenwick.web.separator.motion import motion_of
from fenwick.web.separator.school_view import questions, school_cards
from fenwick.web.separator.view import SeparatorView, picture_of, separator_view

bp = Blueprint("separator", __name__)
#: what changes the shape of something, and what that is called
TURNS = {"inlet": (turn_inlet, "Inlet of another shape"), "bin": (turn_bin, "Bin of another shape")}


@bp.get("/separator")
def start() -> ResponseReturnValue:
    """The separator of the line that the shop opens on; the five questions where there is none."""
    line_id = lines.line_to_open(session())
    if line_id is None:
        return redirect(url_for("start.ask"))
    return redirect(url_for("separator.show", line_id=line_id))


def _found(line_id: int) -> tuple[LineState, SeparatorPart]:
    """The line and the separator that is meant; 404 where it has none."""
    state = form_line(line_id)
    part = separator_of(state.rig, request.values.get("part", ""))
    if part is None:
        abort(404)
    return state, part


@bp.get("/lines/<int:line_id>/separator")
def show(line_id: int) -> ResponseReturnValue:
    """One of the line's separators; an invitation where it has none."""
    state = line_state(session(), line_id)
    part = separator_of(state.rig, request.args.get("part", ""))
    if part is None:
        return render_template("separator/none.html", state=state, kinds=KINDS, lines=line_names(session(), line_id))
    return _render(separator_view(state, part, unit_system()))


@bp.post("/lines/<int:line_id>/separator/begin/<kind>")
def begin(line_id: int, kind: str) -> ResponseReturnValue:
    """Put a separator of a kind before the link to the vacuum."""
    if kind not in KINDS:
        abort(404)
    state = line_state(session(), line_id)
    after = "vacuum"
    rig, new = add_part(state.rig, after, "separator")
    rig = change_kind(rig, new, kind)
    save(line_id, rig, f"{KINDS[kind].label} put in")
    return redirect(url_for("separator.show", line_id=line_id, part=new))


@bp.post("/lines/<int:line_id>/separator")
def change(line_id: int) -> ResponseReturnValue:
    """Take the fields; what is wrong comes back beside what was typed, the drawing stays at the last good state."""
    state, part = _found(line_id)
    system = unit_system()
    editor = whole_editor(state.rig, part, voice_for(state.rig, system).name(part.id), system)
    changed = read_editor(state.rig, editor, request.form, system)
    if changed.editor.error or any(field.error for field in changed.editor.fields):
        return _render(separator_view(state, part, system, changed.editor), 422)
    if changed.rig is not None:
        save(line_id, changed.rig, changed.label)
    return _after(line_id, part.id)


@bp.post("/lines/<int:line_id>/separator/preview")
def preview(line_id: int) -> ResponseReturnValue:
    """Drawing and figures as they would be; nothing is saved, and what does not fit changes nothing."""
    state, part = _found(line_id)
    system = unit_system()
    editor = whole_editor(state.rig, part, part.id, system)
    changed = read_editor(state.rig, editor, request.form, system)
    wrong = changed.editor.error or next((field.error for field in changed.editor.fields if field.error), "")
    if wrong:
        beside = {"HX-Retarget": "#drag-note", "HX-Reswap": "outerHTML"}  # the drawing stays as it is
        return render_template("separator/_refused.html", sentence=wrong), 422, beside
    rig = changed.rig or state.rig
    moved = separator_of(rig, part.id)
    assert moved is not None
    return render_template("separator/_preview.html", picture=picture_of(rig, moved, system, bands=False))


@bp.post("/lines/<int:line_id>/separator/kind")
def choose_kind(line_id: int) -> ResponseReturnValue:
    """Another kind of separator over the same bin."""
    state, part = _found(line_id)
    kind = request.form.get("kind", "")
    if kind not in KINDS:
        abort(404)
    try:
        rig = change_kind(state.rig, part.id, kind)
    except RigError as error:
        return _refused(state, part, error, "This bin does not take that kind: ")
    save(line_id, rig, f"Separator: {KINDS[kind].label.lower()}")
    return _after(line_id, part.id)


@bp.post("/lines/<int:line_id>/separator/<any(inlet, bin):what>")
def turn(line_id: int, what: str) -> ResponseReturnValue:
    """A round inlet or bin instead of a rectangle, or the reverse."""
    state, part = _found(line_id)
    turned, words = TURNS[what]
    try:
        rig = turned(state.rig, part.id)
    except RigError as error:
        return _refused(state, part, error)
    save(line_id, rig, words)
    return _after(line_id, part.id)


@bp.post("/lines/<int:line_id>/separator/rows/<rows>/<any(add, remove):way>")
def change_rows(line_id: int, rows: str, way: str) -> ResponseReturnValue:
    """A slot, a height of the bin, a ledge or a ring more, or the last of them less."""
    state, part = _found(line_id)
    if rows not in ROWS:
        abort(404)
    word, key = ROWS[rows]
    document = part.model_dump(mode="json")
    owner = document["bin"] if key.startswith("bin.") else document
    listed = list(owner.get(key.removeprefix("bin.")) or [])
    listed = [*listed, new_row(part, rows)] if way == "add" else listed[:-1]
    at = next(i for i, element in enumerate(state.rig.line.elements) if element.id == part.id)
    try:
        rig = edit_rig(state.rig, {f"line.elements[{at}].{key}": listed})
    except RigError as error:
        return _refused(state, part, error)
    save(line_id, rig, f"{word.capitalize()} {'added' if way == 'add' else 'removed'}")
    return _after(line_id, part.id)


@bp.post("/lines/<int:line_id>/separator/dust")
def change_dust(line_id: int) -> ResponseReturnValue:
    """Take the fields of the dust."""
    state, part = _found(line_id)
    system = unit_system()
    editor = dust_editor(state.rig, system)
    changed = read_editor(state.rig, editor, request.form, system)
    if changed.editor.error or any(field.error for field in changed.editor.fields):
        return _render(separator_view(state, part, system, dust=changed.editor), 422)
    if changed.rig is not None:
        save(line_id, changed.rig, changed.label)
    return _after(line_id, part.id)


@bp.post("/lines/<int:line_id>/separator/dust/<any(add, remove):way>")
def change_dust_rows(line_id: int, way: str) -> ResponseReturnValue:
    """A kind of the mixture, or a mode, more or less."""
    state, part = _found(line_id)
    dust = state.rig.dust
    if dust is None or dust.kind not in DUST_ROWS:
        abort(404)
    word, key = DUST_ROWS[dust.kind]
    listed = list(dust.model_dump(mode="json")[key])
    listed = [*listed, new_dust_row(dust.kind)] if way == "add" else listed[:-1]
    try:
        rig = edit_rig(state.rig, {f"dust.{key}": listed})
    except RigError as error:
        return _refused(state, part, error)
    save(line_id, rig, f"Dust: {word} {'added' if way == 'add' else 'removed'}")
    return _after(line_id, part.id)


@bp.post("/lines/<int:line_id>/separator/<any(undo, redo):way>")
def step(line_id: int, way: str) -> ResponseReturnValue:
    """Take the last change back, or bring it again."""
    step_history(line_id, way)
    return _after(line_id, request.form.get("part", ""))


@bp.get("/lines/<int:line_id>/separator/motion")
def motion(line_id: int) -> ResponseReturnValue:
    """Ways of grains through the separator, for the canvas over its drawing."""
    state, part = _found(line_id)
    solved = solve(state.rig)
    line, found = solved.line, solved.found
    stage = next(one for one in line.separators if one.id == part.id)
    result = next(one for one in found.separations if one.id == part.id)
    followed = traces(stage, line, found.point, result)
    return jsonify(motion_of(followed, frame_of(part), voice_for(state.rig, unit_system())))


@bp.get("/lines/<int:line_id>/separator/schools")
def show_schools(line_id: int) -> ResponseReturnValue:
    """Where makers disagree: both ways on this line, with what the model can tell."""
    state, part = _found(line_id)
    cards = school_cards(state.rig, part, unit_system()) if "all" in request.args else questions(state.rig, part)
    title = voice_for(state.rig, unit_system()).name(part.id)
    return render_template("separator/schools.html", state=state, part=part, cards=cards, title=title, line_id=line_id)


@bp.get("/lines/<int:line_id>/separator/schools/<school>")
def show_school(line_id: int, school: str) -> ResponseReturnValue:
    """One question, worked out."""
    state, part = _found(line_id)
    cards = school_cards(state.rig, part, unit_system(), school)
    if not cards:
        abort(404)
    return render_template("separator/_school.html", card=cards[0], line_id=line_id, part=part)


@bp.post("/lines/<int:line_id>/separator/schools/<school>/<any(first, second):side>")
def take_school(line_id: int, school: str, side: str) -> ResponseReturnValue:
    """One school's way as a variant of the line."""
    state, part = _found(line_id)
    found = next((one for one in schools(state.rig, part.id) if one.id == school), None)
    if found is None:
        abort(404)
    words = found.first if side == "first" else found.second
    name = free_name(session(), line_id, f"{state.rig.name[:70]}, {words}")
    rig = edit_rig(found.rigs[0 if side == "first" else 1], {"name": name})
    (new,) = lines.add(session(), the_shop(session()), rig)
    return redirect(url_for("separator.show", line_id=new, part=part.id))


def _after(line_id: int, part: str) -> ResponseReturnValue:
    """The page again: the fragment for htmx, a fresh page otherwise."""
    if not request.headers.get("HX-Request"):
        return redirect(url_for("separator.show", line_id=line_id, part=part or None))
    state = line_now(line_id)
    found = separator_of(state.rig, part)
    if found is None:
        return "", 200, {"HX-Redirect": url_for("separator.show", line_id=line_id)}
    return _render(separator_view(state, found, unit_system()))


def _refused(state: LineState, part: SeparatorPart, error: RigError, before: str = "") -> ResponseReturnValue:
    """The page as it stands, with what was refused at its head."""
    sentence = f"{before}{error.problems[0].sentence(unit_system())}."
    return _render(separator_view(state, part, unit_system(), error=sentence[:1].upper() + sentence[1:]), 422)


def _render(view: SeparatorView, status: int = 200) -> ResponseReturnValue:
    template = "separator/_separator.html" if request.headers.get("HX-Request") else "separator/page.html"
    return render_template(template, view=view, lines=line_names(session(), view.state.id)), status
