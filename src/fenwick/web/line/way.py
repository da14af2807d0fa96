"""Routes of the way: ask, watch, take up, try, do, strike out, put in another order."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from typing import Any

from flask import abort, current_app, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.errors import CoreError
from fenwick.data.lines import LineState, line_state
from fenwick.data.ways import change_way, step_way, way_state
from fenwick.rig import Rig
from fenwick.services.way import FoundWays, WayAsked, WaysState, search_ways
from fenwick.services.way_kept import kept_steps, moves_of, resumed
from fenwick.shop import ShopFile
from fenwick.way_kept import edit
from fenwick.way_kept.model import MOST_STEPS, KeptWay
from fenwick.web.kit.browsers import this_browser
from fenwick.web.kit.database import session
from fenwick.web.kit.history import save
from fenwick.web.kit.jobs import BackgroundJob, Jobs
from fenwick.web.kit.units import unit_system
from fenwick.web.line.routes import bp, on_trial, render
from fenwick.web.line.view import Attempt, Tried
from fenwick.web.line.way_view import asked_titles, found_view, kept_view, read_question, voice_here


@dataclass(frozen=True)
class WayErrand:
    """What a job looks for, and on which line."""

    line_id: int
    rig: Rig
    shop: ShopFile | None
    asked: WayAsked


def _jobs() -> Jobs:
    found: Jobs = current_app.extensions["fenwick-jobs"]
    return found


def _money(state: LineState) -> str:
    return state.owned.money if state.owned else "€"


def _job(line_id: int, name: str) -> BackgroundJob | None:
    """The search of that name, where it is one of this line's."""
    found = _jobs().get(name)
    mine = found is not None and isinstance(found.owner, WayErrand) and found.owner.line_id == line_id
    return found if mine else None


@bp.get("/lines/<int:line_id>/way")
def way(line_id: int) -> ResponseReturnValue:
    """The way that the line is on, and what a search found."""
    return _page(line_state(session(), line_id), _job(line_id, request.args.get("job", "")), dict(request.args))


@bp.post("/lines/<int:line_id>/way")
def find_way(line_id: int) -> ResponseReturnValue:
    """Start looking; a sum that cannot be read comes back beside what was typed."""
    state = line_state(session(), line_id)
    question = read_question(dict(request.form), way_state(session(), line_id).way, _money(state))
    if question.asked is None:
        return _page(state, None, dict(request.form), 422)
    errand = WayErrand(line_id, state.rig, state.owned, question.asked)
    job = _jobs().start(
        errand, lambda stop: search_ways(errand.rig, errand.shop, errand.asked, stop), this_browser()
    )  # fmt: skip
    address = url_for("line.way", line_id=line_id, job=job.id, **_typed())
    if request.headers.get("HX-Request"):
        return "", 200, {"HX-Redirect": address}
    return redirect(address)


def _typed() -> dict[str, Any]:
    return {key: request.values[key].strip()[:20] for key in ("spend", "hours") if request.values.get(key)}


@bp.get("/lines/<int:line_id>/way/<job>")
def watch_way(line_id: int, job: str) -> ResponseReturnValue:
    """Where a search stands, as a fragment; once it is over, the page is asked to come again."""
    found = _job(line_id, job)
    if found is None:
        abort(404)
    if found.over:
        return "", 200, {"HX-Redirect": url_for("line.way", line_id=line_id, job=job, **_typed())}
    return render_template("line/_way_progress.html", line_id=line_id, job=found, typed=_typed())


@bp.post("/lines/<int:line_id>/way/<job>/stop")
def stop_way(line_id: int, job: str) -> ResponseReturnValue:
    """Be content with what was found so far."""
    found = _job(line_id, job)
    if found is None:
        abort(404)
    found.stopping.set()
    return redirect(url_for("line.way", line_id=line_id, job=job, **_typed()))


@bp.post("/lines/<int:line_id>/way/<job>/take/<int:place>")
def take_way(line_id: int, job: str, place: int) -> ResponseReturnValue:
    """Put the line on a way that was found."""
    state, job_ = line_state(session(), line_id), _job(line_id, job)
    found = _found(job_)
    if job_ is None or found is None or place >= len(found.ways):
        abort(404)
    chosen, voice = found.ways[place], voice_here(state, unit_system())
    asked: WayAsked = job_.owner.asked
    steps = kept_steps(chosen.steps, [step.move.tell(voice) for step in chosen.steps])
    taken = edit.take(edit.ask(way_state(session(), line_id).way, asked.spend, asked.hours), steps)
    change_way(session(), line_id, taken, f"A way of {len(steps)} steps taken up")
    return redirect(url_for("line.way", line_id=line_id))


def _found(job: BackgroundJob | None) -> FoundWays | None:
    state: WaysState | None = None if job is None or not job.over else job.state
    return None if state is None else state.found


@bp.get("/lines/<int:line_id>/way/try")
def try_way(line_id: int) -> ResponseReturnValue:
    """The line as it would be after some steps; nothing is saved."""
    state, keys = line_state(session(), line_id), request.args.getlist("step")[:MOST_STEPS]
    changed, voice = on_trial(state, keys), voice_here(state, unit_system())
    known = moves_of(state.rig, state.owned)
    words = known[keys[0]].tell(voice) if len(keys) == 1 else f"{len(keys)} steps of the way"
    port = request.args.get("port")
    trial = Tried(
        words,
        url_for("line.keep_way", line_id=line_id),
        url_for("line.late", line_id=line_id, port=port, step=keys),
        url_for("line.way", line_id=line_id),
        tuple(("step", key) for key in keys),
    )
    part = known[keys[0]].option.part if len(keys) == 1 else None
    return render(changed, part, port, Attempt(trial=trial))


@bp.post("/lines/<int:line_id>/way/keep")
def keep_way(line_id: int) -> ResponseReturnValue:
    """Make some steps on the line, in one change that one undo takes back, and tick them off."""
    state, keys = line_state(session(), line_id), request.form.getlist("step")[:MOST_STEPS]
    changed = on_trial(state, keys).rig
    known, voice = moves_of(state.rig, state.owned), voice_here(state, unit_system())
    words = known[keys[0]].tell(voice) if len(keys) == 1 else f"{len(keys)} steps of the way"
    save(line_id, changed, words)
    kept = way_state(session(), line_id).way
    for key in keys:
        kept = edit.tick(kept, key, date.today().isoformat())
    _store(line_id, kept, f"Done: {words}")
    return redirect(url_for("line.way", line_id=line_id))


def _store(line_id: int, kept: KeptWay, label: str) -> None:
    if kept != way_state(session(), line_id).way:
        change_way(session(), line_id, kept, label)


CHANGES: dict[str, tuple[Callable[[KeptWay, str], KeptWay], str]] = {
    "strike": (edit.strike, "Struck out"),
    "unstrike": (edit.unstrike, "Thought of again"),
    "tick": (lambda kept, key: edit.tick(kept, key, date.today().isoformat()), "Ticked off"),
    "untick": (edit.untick, "Not done"),
    "earlier": (lambda kept, key: edit.move(kept, key, -1), "Put earlier"),
    "later": (lambda kept, key: edit.move(kept, key, 1), "Put later"),
}


@bp.post("/lines/<int:line_id>/way/change/<how>")
def change_kept_way(line_id: int, how: str) -> ResponseReturnValue:
    """Change one step of the way that the line is on, or what is out of the question."""
    key = request.form.get("step", "")[:200]
    if how not in CHANGES or not key:
        abort(404)
    state, (change, label) = line_state(session(), line_id), CHANGES[how]
    kept = way_state(session(), line_id).way
    known = {step.key for step in kept.steps} | set(kept.struck)
    if key not in known and key not in moves_of(state.rig, state.owned):
        abort(404)
    _store(line_id, change(kept, key), label)
    again: dict[str, Any] = (
        {"job": request.form["job"], **_typed()} if how == "strike" and request.form.get("job") else {}
    )
    return redirect(url_for("line.way", line_id=line_id, **again))


@bp.post("/lines/<int:line_id>/way/leave")
def leave_way(line_id: int) -> ResponseReturnValue:
    """Give the way up; what is done stays on record."""
    _store(line_id, edit.leave(way_state(session(), line_id).way), "The way left")
    return redirect(url_for("line.way", line_id=line_id))


@bp.post("/lines/<int:line_id>/way/<any(undo, redo):how>")
def step_kept_way(line_id: int, how: str) -> ResponseReturnValue:
    """Take the last change of the way back, or bring it again; the line itself has its own."""
    line_state(session(), line_id)
    step_way(session(), line_id, -1 if how == "undo" else 1)
    return redirect(url_for("line.way", line_id=line_id))


def _page(
    state: LineState, job: BackgroundJob | None, typed: dict[str, str], status: int = 200
) -> ResponseReturnValue:  # fmt: skip
    kept, money, voice = way_state(session(), state.id), _money(state), voice_here(state, unit_system())
    question = read_question(typed, kept.way, money)
    found, here, trouble = _found(job), None, ""
    try:
        resume = resumed(state.rig, state.owned, tuple(step.key for step in kept.way.to_do))
        here = kept_view(state, kept.way, resume, voice, money)
    except CoreError as error:
        trouble = str(error)
    stale = job is not None and (job.owner.rig != state.rig or job.owner.asked.struck != kept.way.struck)
    return (
        render_template(
            "line/way.html",
            state=state,
            job=job,
            found=None if found is None or stale else found_view(state, found, voice, money),
            kept=here,
            history=kept,
            question=question,
            titles=[] if question.asked is None else asked_titles(question.asked, money),
            trouble=trouble,
            stale=stale,
            typed={key: typed[key] for key in ("spend", "hours") if typed.get(key)},
            begins=status == 200 and not trouble and (stale or job is None) and not kept.way.to_do,
        ),
        status,
    )
