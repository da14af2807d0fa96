"""Routes of Build: parse, call, render."""

from __future__ import annotations

from datetime import UTC, datetime

from flask import Blueprint, abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.builds.edit import choose, decide, forget, get, move, note_cut, remember, tick, untick
from fenwick.builds.model import BuildFile
from fenwick.core.making.steps import holds_before
from fenwick.data.builds import change_build, step_build
from fenwick.data.lines import line_names, line_state
from fenwick.rig import RigError, edit_rig
from fenwick.rig.voice import voice_for
from fenwick.services.builds import HOURS, as_built_edits, made_for
from fenwick.services.making import NothingToBuildError
from fenwick.services.making_files import step_name
from fenwick.services.together import MovedOnError
from fenwick.units import BadNumberError, parse_value
from fenwick.web.build.hand import InHand, in_hand
from fenwick.web.build.joints_view import joints_view
from fenwick.web.build.made_from import made_from_editor
from fenwick.web.build.part_view import part_view
from fenwick.web.build.sheets_view import sheets_view
from fenwick.web.build.step_page import step_page
from fenwick.web.build.view import address, build_view, step_card
from fenwick.web.kit.database import session
from fenwick.web.kit.editor import Editor, read_editor
from fenwick.web.kit.history import form_line, line_now, save
from fenwick.web.kit.numbers import whole
from fenwick.web.kit.page import line_in_hand
from fenwick.web.kit.units import unit_system
from fenwick.wording.making.facts import buy_words
from fenwick.wording.making.names import AS_BUILT, part_name
from fenwick.wording.making.progress import DECISIONS, broken_sentence, dim_name

bp = Blueprint("build", __name__)


@bp.errorhandler(NothingToBuildError)
def nothing(error: NothingToBuildError) -> ResponseReturnValue:
    """What would be here, and the way to it."""
    line_id = int((request.view_args or {})["line_id"])
    state = line_state(session(), line_id)
    lines = line_names(session(), line_id)
    return render_template("build/nothing.html", state=state, lines=lines, sentence=str(error)), 404


@bp.get("/build")
def start() -> ResponseReturnValue:
    """The build of the line in hand."""
    line_id = line_in_hand()
    return redirect(url_for("start.ask") if line_id is None else url_for("build.show", line_id=line_id))


@bp.get("/lines/<int:line_id>/build")
def show(line_id: int) -> ResponseReturnValue:
    """Everything for the bench, and how far it is."""
    return _page(in_hand(line_id))


@bp.get("/lines/<int:line_id>/build/parts/<part>")
def show_part(line_id: int, part: str) -> ResponseReturnValue:
    """One part: its drawing with its dimensions, and what was cut."""
    return _part(in_hand(line_id), part)


@bp.get("/lines/<int:line_id>/build/steps")
def show_steps(line_id: int) -> ResponseReturnValue:
    """The order of the work."""
    return _steps(in_hand(line_id))


@bp.get("/lines/<int:line_id>/build/steps/<step>")
def show_step(line_id: int, step: str) -> ResponseReturnValue:
    """One step, for a phone beside the vice."""
    return step_page(in_hand(line_id), step)


@bp.get("/lines/<int:line_id>/build/sheets")
def show_sheets(line_id: int) -> ResponseReturnValue:
    """The sheets with the parts on them, and the setting for every round edge."""
    hand = in_hand(line_id)
    view = sheets_view(hand)
    return render_template("build/sheets.html", view=view, hand=hand, lines=line_names(session(), line_id))


@bp.get("/lines/<int:line_id>/build/joints")
def show_joints(line_id: int) -> ResponseReturnValue:
    """What is joined with what, and whether it holds."""
    hand = in_hand(line_id)
    view = joints_view(hand, request.args.get("one", ""), request.args.get("other", ""))
    return render_template("build/joints.html", view=view, hand=hand, lines=line_names(session(), line_id))


@bp.post("/lines/<int:line_id>/build/tick/<step>")
def tick_step(line_id: int, step: str) -> ResponseReturnValue:
    """A step done, or not done after all."""
    hand = in_hand(line_id)
    found = next((one for one in hand.found.steps if one.id == step), None)
    if found is None:
        abort(404)
    undone = request.form.get("undone") == "1"
    if not undone:
        before = tuple(one for one in found.after if one not in hand.found.done)
        holds = holds_before(found, hand.found.steps, hand.found.done)
        if holds or (before and request.form.get("anyway") != "1"):
            return step_page(hand, step, refused=before, holds=holds), 422
    at = datetime.now(UTC).strftime("%Y-%m-%dT%H:%M:%SZ")
    file = hand.build.file
    if undone:
        changed = untick(file, step)
    else:
        ticked = tick(file, step, at, cures=found.cure > 0.0)
        changed = remember(ticked, made_for(hand.found.pack, found))
    words = f"{step_name(found)}: {'not done' if undone else 'done'}"
    if request.form.get("from") == "step":
        _keep(hand, changed, words)
        fresh = in_hand(line_id)
        following = step if undone or fresh.found.now is None else fresh.found.now.id
        return redirect(address(fresh, "show_step", step=following))
    return _kept(hand, changed, words)


@bp.post("/lines/<int:line_id>/build/got/<thing>")
def get_thing(line_id: int, thing: str) -> ResponseReturnValue:
    """Something bought that is there now, or is not."""
    hand = in_hand(line_id)
    line = next((one for one in hand.found.pack.to_buy if one.key == thing), None)
    if line is None:
        abort(404)
    there = request.form.get("there") == "1"
    words = f"{buy_words(line, voice_for(hand.state.rig, unit_system()))}: {'there' if there else 'not there'}"
    return _kept(hand, get(hand.build.file, thing, there=there), words)


@bp.post("/lines/<int:line_id>/build/parts/<part>")
def cut_part(line_id: int, part: str) -> ResponseReturnValue:
    """What was cut or measured of a part."""
    hand = in_hand(line_id)
    found = hand.found.pack.part(part)
    if found is None:
        abort(404)
    file, errors, said = hand.build.file, {}, []
    for dim in found.dims:
        text = request.form.get(dim)
        if text is None:
            continue
        try:
            value = parse_value(text, "bore", unit_system()) if text.strip() else None
            if value is not None and not 0.0 < value <= 3.0:
                raise BadNumberError(text, "give a measure between 0 and 3 m")
            changed = note_cut(file, part, dim, value)
        except BadNumberError as error:
            errors[dim] = str(error)
            continue
        if _figures(changed) != _figures(file):
            file = changed
            said.append(dim_name(dim))
    if errors:
        return _part(hand, part, errors=errors, typed=request.form.to_dict()), 422
    if said:
        _keep(hand, file, f"{part_name(part)}, as cut: {', '.join(said)}")
    return redirect(address(hand, "show_part", part=part))


def _figures(file: BuildFile) -> set[tuple[str, str, float]]:
    return {(one.part, one.dim, one.value_m) for one in file.cut}


@bp.post("/lines/<int:line_id>/build/decide/<part>/<dim>")
def decide_cut(line_id: int, part: str, dim: str) -> ResponseReturnValue:
    """What is done about a part that came out otherwise."""
    hand = in_hand(line_id)
    decision = request.form.get("decision", "")
    if decision not in DECISIONS or not any((one.part, one.dim) == (part, dim) for one in hand.build.file.cut):
        abort(404)
    file = decide(hand.build.file, part, dim, decision)
    if decision == "recut":  # the new piece has not been measured yet
        file = forget(note_cut(file, part, dim, None), part)
    return _kept(hand, file, f"{part_name(part)}: {DECISIONS[decision].lower()}")


@bp.post("/lines/<int:line_id>/build/anew/<part>")
def make_anew(line_id: int, part: str) -> ResponseReturnValue:
    """A part that was made for an earlier design is made again, or was cut to serve."""
    hand = in_hand(line_id)
    return _kept(hand, forget(hand.build.file, part), f"{part_name(part)}: goes by the design as it is now")


@bp.post("/lines/<int:line_id>/build/choose")
def choose_ways(line_id: int) -> ResponseReturnValue:
    """Made or bought, the hours one has."""
    hand = in_hand(line_id)
    wanted: dict[str, object] = {}
    if request.form.get("hours") in HOURS:
        wanted["hours"] = request.form["hours"]
    if request.form.get("ways") in ("made", "bought"):
        wanted["bought"] = request.form["ways"] == "bought"
    if request.form.get("order") == "listed":
        wanted["order"] = ()
    if not wanted:
        abort(400)
    return _kept(hand, choose(hand.build.file, **wanted), "Choices of the build")


@bp.post("/lines/<int:line_id>/build/made-from")
def change_made_from(line_id: int) -> ResponseReturnValue:
    """What it is made from: a change of the line."""
    hand, state, system = in_hand(line_id), form_line(line_id), unit_system()
    editor = made_from_editor(state.rig, hand.what, hand.found.pack.making, system)
    if editor is None:
        abort(404)
    changed = read_editor(state.rig, editor, request.form, system)
    if changed.editor.error or any(field.error for field in changed.editor.fields):
        return _page(hand, editor=changed.editor), 422
    if changed.rig is not None:
        save(line_id, changed.rig, changed.label)
    line_now(line_id)
    return _page(in_hand(line_id)) if request.headers.get("HX-Request") else redirect(address(hand, "show"))


@bp.post("/lines/<int:line_id>/build/move/<step>/<way>")
def move_step(line_id: int, step: str, way: str) -> ResponseReturnValue:
    """A step earlier or later."""
    hand = in_hand(line_id)
    order = [one.id for one in hand.found.steps]
    if step not in order or way not in ("up", "down"):
        abort(404)
    moved = next(one for one in hand.found.steps if one.id == step)
    words = f"{step_name(moved)}: {'earlier' if way == 'up' else 'later'}"
    _keep(hand, move(hand.build.file, order, step, -1 if way == "up" else 1), words)
    return _steps(in_hand(line_id))


@bp.post("/lines/<int:line_id>/build/take")
def take_into_line(line_id: int) -> ResponseReturnValue:
    """Make the line what was built."""
    hand = in_hand(line_id)
    edits = _as_built(hand)
    if not edits:
        return _part_or_page(hand, "Nothing was measured that the model knows by another figure."), 422
    at = next(i for i, e in enumerate(hand.state.rig.line.elements) if e.id == hand.what)
    try:
        rig = edit_rig(hand.state.rig, {f"line.elements[{at}].{key}": value for key, value in edits.items()})
    except RigError as error:
        return _part_or_page(hand, f"{error.problems[0].sentence(unit_system())}."), 422
    save(line_id, rig, f"{hand.title}: as built")
    return redirect(url_for("line.show", line_id=line_id, part=hand.what))


@bp.post("/lines/<int:line_id>/build/<any(undo, redo):way>")
def step(line_id: int, way: str) -> ResponseReturnValue:
    """Take the last change of the build back, or bring it again."""
    hand = in_hand(line_id)
    shown = request.form.get("build_state", type=whole)
    if shown is not None and shown != hand.build.revision:
        raise MovedOnError(hand.build.undo_label or "")
    step_build(session(), line_id, hand.what, -1 if way == "undo" else +1)
    return _page(in_hand(line_id))


def _keep(hand: InHand, file: BuildFile, words: str) -> None:
    if file != hand.build.file:
        change_build(session(), hand.state.id, hand.what, file, words)


def _kept(hand: InHand, file: BuildFile, words: str) -> ResponseReturnValue:
    _keep(hand, file, words)
    if request.headers.get("HX-Request"):
        return _page(in_hand(hand.state.id))
    return redirect(address(hand, "show"))


def _part_or_page(hand: InHand, sentence: str) -> str:
    return _page(hand, error=sentence)


def _page(hand: InHand, error: str = "", editor: Editor | None = None) -> str:
    view = build_view(hand, datetime.now(), editor)
    template = "build/_build.html" if request.headers.get("HX-Request") else "build/page.html"
    return render_template(template, view=view, lines=line_names(session(), hand.state.id), error=error)


def _part(hand: InHand, part: str, errors: dict[str, str] | None = None, typed: dict[str, str] | None = None) -> str:
    view = part_view(hand, part, errors or {}, typed or {})
    if view is None:
        abort(404)
    takes = ", ".join(AS_BUILT[key.rpartition(".")[2]] for key in _as_built(hand))
    lines = line_names(session(), hand.state.id)
    return render_template("build/part.html", view=view, hand=hand, lines=lines, takes=takes)


def _as_built(hand: InHand) -> dict[str, float]:
    return as_built_edits(hand.state.rig, hand.found)


def _steps(hand: InHand) -> str:
    cards = [step_card(hand, one) for one in hand.found.steps]
    broken: dict[str, list[str]] = {}
    for one in hand.found.broken:
        broken.setdefault(one.step, []).append(broken_sentence(one))
    lines = line_names(session(), hand.state.id)
    template = "build/_steps.html" if request.headers.get("HX-Request") else "build/steps.html"
    return render_template(template, hand=hand, cards=cards, broken=broken, lines=lines, done=hand.found.done)
