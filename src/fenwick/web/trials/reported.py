"""The result page of a test as its report says it."""

from __future__ import annotations

from fenwick.sheets.report import Budget, Report, ReportedRun
from fenwick.web.trials.result_view import ResultView, ShownRun


def report_of(view: ResultView) -> Report:
    """What the page shows, to be printed."""
    where = f"{view.state.shop}, {view.state.rig.name.lower()}; planned {view.trial.on}; read with: {view.way.lower()}"
    badge = f" ({view.badge[0]})" if view.badge else ""
    several = view.trial.plan.compares
    return Report(
        title=view.trial.title,
        kind=view.kind,
        where=where,
        headline=view.headline,
        of_what=view.of_what + badge,
        verdicts=tuple(words for words in (*view.verdicts, view.honest) if words),
        states=tuple(view.states),
        held=tuple(f"{one.name}: {one.words}" for one in view.held) + tuple(view.says),
        scene=view.scene,
        runs=tuple(_run(row) for row in view.rows),
        budgets=tuple(Budget(name if several else "", tuple(rows)) for name, rows in view.budgets),
        resets=tuple(view.resets),
        caution=view.caution,
    )


def _run(row: ShownRun) -> ReportedRun:
    why = row.spoilt or "; ".join(row.faults)
    stands = "counts" if row.counts else f"kept apart: {why}" if row.done or row.spoilt else row.state
    came = ". ".join(part for part in (row.outcome or "-", row.closes, row.note) if part)
    return ReportedRun(row.number, row.variant, came, stands)
