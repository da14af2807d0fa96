"""Routes of the finder: parse, start, watch, pick, take over."""

from __future__ import annotations

from dataclasses import dataclass, replace

from flask import Blueprint, abort, current_app, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.builds.edit import choose
from fenwick.core.line.line import Line
from fenwick.core.search.designs import BOUGHT, RANGES
from fenwick.core.search.finder import Search, search
from fenwick.core.search.work import PortWork
from fenwick.data.builds import build_state, change_build
from fenwick.data.lines import LineState, free_name, line_state
from fenwick.data.shops import the_shop
from fenwick.rig import Rig, RigError, build_line, edit_rig
from fenwick.rig.edits.design import mended, with_design
from fenwick.rig.edits.kinds import KINDS
from fenwick.rig.format.separator import SeparatorPart
from fenwick.rig.voice import voice_for
from fenwick.services import lines
from fenwick.services.shop_stock import prices_known
from fenwick.services.way import works_of
from fenwick.shop.into_line import swap
from fenwick.web.kit.browsers import this_browser
from fenwick.web.kit.database import session
from fenwick.web.kit.errors import refusal
from fenwick.web.kit.jobs import BackgroundJob, Jobs
from fenwick.web.kit.numbers import whole
from fenwick.web.kit.units import unit_system
from fenwick.web.separator.fields import separator_of
from fenwick.web.separator.finder.form import FinderAsked, read_asked
from fenwick.web.separator.finder.stock import of_stock
from fenwick.web.separator.finder.view import found_view, way_sentences

bp = Blueprint("finder", __name__, url_prefix="/lines/<int:line_id>/separator/find")


@dataclass(frozen=True)
class Errand:
    """What a job looks for, and where."""

    line_id: int
    part: str
    rig: Rig
    port: int
    form: dict[str, str]
    kinds: list[str]
    works: tuple[PortWork, ...]  #: of the tools that designs are judged for; empty: one tool alone


def jobs() -> Jobs:
    """The running searches of this server."""
    found: Jobs = current_app.extensions["fenwick-jobs"]
    return found


def _found(line_id: int) -> tuple[LineState, SeparatorPart]:
    state = line_state(session(), line_id)
    part = separator_of(state.rig, request.values.get("part", ""))
    if part is None or state.rig.dust is None:
        abort(404)
    return state, part


def _money(state: LineState) -> str:
    return state.owned.money if state.owned else "€"


def _bins(state: LineState) -> list[tuple[str, str]]:
    """The bins that the shop has, as choices."""
    return [(f"bin:{one.id}", one.name) for one in state.owned.bins] if state.owned else []


def _over_its_bin(state: LineState, part: str, bin_: str) -> Rig:
    """The rig over the bin that is asked for: as it is, mended, or one of the shop's."""
    if bin_ == "mended":
        return mended(state.rig, part)
    if state.owned is not None and bin_.startswith("bin:"):
        return swap(state.rig, part, bin_, state.owned)
    return state.rig


def _line_of_shop(line: Line, state: LineState) -> Line:
    """The line with the shop's own prices before any rule."""
    return replace(line, rules=line.rules.with_values(dict(prices_known(state.owned))))


@bp.get("")
def show(line_id: int) -> ResponseReturnValue:
    """Limits and wishes; with a job, what it found."""
    state = line_state(session(), line_id)
    part = separator_of(state.rig, request.args.get("part", ""))
    if part is None:
        return redirect(url_for("separator.show", line_id=line_id))
    if state.rig.dust is None:
        return refusal("Name the dust of this line first: a separator is found for it.")
    job = jobs().get(request.args.get("job", ""))
    if job is not None and isinstance(job.owner, Errand) and job.owner.line_id == line_id:
        asked = read_asked(job.owner.form, job.owner.kinds, unit_system(), _money(state), _bins(state))
        return _render(state, part, asked, job)
    forgotten = "job" in request.args
    stock = of_stock(state.owned, unit_system()) if request.args.get("stock") == "1" else {}
    asked = read_asked(stock, list(RANGES), unit_system(), _money(state), _bins(state))
    return _render(state, part, asked, None, forgotten=forgotten)


@bp.post("")
def begin(line_id: int) -> ResponseReturnValue:
    """Start looking; bad limits come back beside what was typed."""
    state, part = _found(line_id)
    form, kinds = {key: value for key, value in request.form.items() if key != "kinds"}, request.form.getlist("kinds")
    asked = read_asked({**form, "asked": "1"}, kinds, unit_system(), _money(state), _bins(state))
    if asked.bad:
        return _render(state, part, asked, None, status=422)
    line = build_line(state.rig)
    port = next((i for i, leaf in enumerate(line.leaves) if leaf.open), 0)
    try:
        rig = _over_its_bin(state, part.id, asked.bin)
    except RigError as error:
        told = replace(asked, error=f"{error.problems[0].sentence(unit_system())}.")
        return _render(state, part, told, None, status=422)
    line = _line_of_shop(build_line(rig), state)
    stage = next(one for one in line.separators if one.id == part.id)
    works = works_of(rig, state.owned, line) if len(line.leaves) > 1 else ()
    errand = Errand(line_id, part.id, rig, port, {**form, "asked": "1"}, kinds, works)
    job = jobs().start(
        errand,
        lambda stop: search(line, stage, port, asked.limits, asked.wishes, asked.count, asked.seed, stop, works),
        this_browser(),
    )
    address = url_for("finder.show", line_id=line_id, part=part.id, job=job.id)
    return ("", 200, {"HX-Redirect": address}) if request.headers.get("HX-Request") else redirect(address)


@bp.get("/<job>")
def watch(line_id: int, job: str) -> ResponseReturnValue:
    """Where a search stands, as a fragment; once it is over, the page is asked to come again."""
    found = jobs().get(job)
    if found is None:
        abort(404)
    if found.over:
        owner: Errand = found.owner
        return "", 200, {"HX-Redirect": url_for("finder.show", line_id=line_id, part=owner.part, job=job)}
    return render_template("separator/finder/_progress.html", line_id=line_id, job=found)


@bp.post("/<job>/stop")
def stop(line_id: int, job: str) -> ResponseReturnValue:
    """Be content with what was found so far."""
    found = jobs().get(job)
    if found is None:
        abort(404)
    found.stopping.set()
    return redirect(url_for("finder.show", line_id=line_id, part=found.owner.part, job=job))


@bp.post("/<job>/take/<int:place>")
def take(line_id: int, job: str, place: int) -> ResponseReturnValue:
    """A variant of the line with a design that was found."""
    found = jobs().get(job)
    state: Search | None = found.state if found else None
    if found is None or state is None or place >= len(state.designs):
        abort(404)
    owner: Errand = found.owner
    design = state.designs[place]
    name = free_name(session(), line_id, f"{owner.rig.name[:70]}, {KINDS[design.kind].label.lower()}")
    try:
        rig = edit_rig(with_design(owner.rig, owner.part, design), {"name": name})
    except RigError as error:
        return refusal(f"Rounded to what can be measured, it no longer fits: {error}.")
    (new,) = lines.add(session(), the_shop(session()), rig)
    if request.form.get("then") == "build":
        if owner.form.get("how") == BOUGHT:
            file = choose(build_state(session(), new, owner.part).file, bought=True)
            change_build(session(), new, owner.part, file, "Bought")
        return redirect(url_for("build.show", line_id=new, what=owner.part))
    return redirect(url_for("separator.show", line_id=new, part=owner.part))


def _render(
    state: LineState,
    part: SeparatorPart,
    asked: FinderAsked,
    job: BackgroundJob | None,
    *,
    forgotten: bool = False,
    status: int = 200,
) -> ResponseReturnValue:
    system = unit_system()
    found, ways = None, []
    if job is not None and job.over and job.state is not None:
        owner: Errand = job.owner
        at = request.args.get("pick", type=whole)
        then = separator_of(owner.rig, owner.part)
        assert then is not None
        found = found_view(owner.rig, then, owner.port, owner.works, job.state, job.id, owner.line_id, at, system)
        if found is None:
            ways = way_sentences(job.state.in_the_way, _money(state), voice_for(owner.rig, system))
    return (
        render_template(
            "separator/finder/page.html",
            state=state,
            part=part,
            title=voice_for(state.rig, system).name(part.id),
            asked=asked,
            job=job,
            found=found,
            ways=ways,
            forgotten=forgotten,
            begins=request.args.get("begin") == "1" and job is None and not asked.error,
            money=_money(state),
            line_id=state.id,
        ),
        status,
    )
