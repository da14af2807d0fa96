"""A particle monitor's log in words."""

from __future__ import annotations

from fenwick.core.bench.trials.monitor import BACK, Cut, Log, Monitored
from fenwick.units import unit_label
from fenwick.wording.say import Voice

MINUTE = 60.0  #: [s]


def cut_figures(cut: Cut, voice: Voice) -> list[str]:
    """(peak, mean while cutting, area, air changes, back to normal) as text; “not known” where it is not."""
    changes = "not known"
    if cut.changes is not None:
        spread = "" if cut.changes_sd is None else f" ± {max(2.0 * cut.changes_sd, 0.1):.1f}"
        changes = f"{cut.changes:.1f}{spread}"
    back = "not within the log" if cut.back_after is None else time_words(cut.back_after)
    return [
        f"{cut.start / MINUTE:.1f}–{cut.stop / MINUTE:.1f}",
        _dust(cut.peak, voice),
        _dust(cut.during, voice),
        _area(cut.area, voice),
        changes,
        back,
    ]


def _dust(value: float | None, voice: Voice) -> str:
    return "not known" if value is None else voice.figure(value, "particles")


def _area(value: float | None, voice: Voice) -> str:
    if value is None:
        return "not known"
    return f"{voice.figure(value / MINUTE, 'particles', unit=False)} {unit_label('particles', voice.system)}·min"


def time_words(seconds: float) -> str:
    """A time as one says it."""
    return f"{seconds:.0f} s" if seconds < 90.0 else f"{seconds / MINUTE:.0f} min"


def log_words(log: Log, found: Monitored, voice: Voice) -> list[str]:
    """What the log says, and what was kept apart of it."""
    said = []
    if found.baseline is None:
        said.append("There is no baseline: nothing was read before the first cut, so what a cut adds is not known.")
    else:
        normal = voice.figure(BACK * found.baseline, "particles")
        said.append(f"Baseline {voice.figure(found.baseline, 'particles')}; back to normal means below {normal}.")
    kept = [
        (log.duplicates, "twice at one time"),
        (log.out_of_order, "out of order, put in order"),
        (log.unreadable, "not to be read, kept apart"),
    ]
    told = [f"{count} rows {words}" if count > 1 else f"1 row {words}" for count, words in kept if count]
    if log.jumps:
        times = "once" if len(log.jumps) == 1 else f"{len(log.jumps)} times"
        rows = "1 row" if log.beyond == 1 else f"{log.beyond} rows"
        told.append(f"the clock jumps {times}: the longest stretch is judged, {rows} beyond it kept apart")
    if told:
        said.append(f"Kept in mind: {'; '.join(told)}.")
    return said
