"""`fenwick propose`: which test tells most for its minutes, and what the model expects of it."""

from __future__ import annotations

import json
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from fenwick.cli.commands import fail, main, rig_and_shop

if TYPE_CHECKING:
    from fenwick.core.bench.trials.planning import Owned, Proposal
    from fenwick.services.trials import TrialBench

#: option to (field of what is owned, quantity)
INSTRUMENTS = {
    "scale": ("scale_step", "weighed"),
    "scale_most": ("scale_most", "weighed"),
    "fine": ("fine_step", "weighed"),
    "gauge": ("gauge_step", "suction"),
    "force": ("force_step", "force"),
}


@main.command()
@click.argument("rigs", nargs=-1, required=True, type=click.Path(path_type=Path, allow_dash=True))
@click.option("--want", default="kept", help="What you want to know; a wrong word lists them.")
@click.option("--scale", help="Step of the kitchen scale, as in 1 g; without it there is none.")
@click.option("--scale-most", help="What it carries, as in 5 kg.")
@click.option("--fine", help="Step of a finer scale, as in 0.1 g.")
@click.option("--gauge", help="Step of the gauge or the tube of water, as in 50 Pa.")
@click.option("--force", help="Step of a hanging scale, as in 0.5 N.")
@click.option("--no-ruler", is_flag=True)
@click.option("--no-phone", is_flag=True)
@click.option("--monitor", is_flag=True, help="There is a particle monitor.")
@click.option("--minutes", type=click.FloatRange(1.0, 1440.0), default=120.0, show_default=True)
def propose(rigs: tuple[Path, ...], want: str, **given: Any) -> None:
    """Print the tests of the line in the first RIG that tell it, the best first; others are compared with it."""
    from fenwick.core.bench.trials.planning import GOALS
    from fenwick.data.lines import LineState
    from fenwick.services.planning import planned_for, proposed, would_answer
    from fenwick.services.trials import bench_of, workbench
    from fenwick.units import METRIC

    if want not in GOALS:
        fail(f"“{want[:40]}” is none of {', '.join(GOALS)}")
    owned = _owned(given)
    states = [LineState(i, 0, "", rig_and_shop(path, None)[0], None, None) for i, path in enumerate(rigs)]
    benches = {state.id: workbench(state, METRIC) for state in states}
    lines = dict(enumerate(benches)) if len(benches) > 1 else {}
    plan = planned_for(want, benches[0], lines, {state.id: state.rig.name for state in states})
    trial = bench_of(plan, benches[0], {k: benches[number] for k, number in lines.items() if k < len(plan.variants)})
    found = proposed(want, owned, trial)
    document = {
        "format": "fenwick-proposals",
        "version": 1,
        "want": want,
        "tests": [_told(one, trial) for one in found],
        "would_answer": [] if found and found[0].answers else [one.key for one in would_answer(want, owned, trial)],
    }
    click.echo(json.dumps(document, indent=2, allow_nan=False, ensure_ascii=False))


def _owned(given: dict[str, Any]) -> Owned:
    from fenwick.core.bench.trials.planning import Owned
    from fenwick.units import METRIC, BadNumberError, parse_value

    steps: dict[str, Any] = {}
    for option, (name, quantity) in INSTRUMENTS.items():
        if given[option] is None:
            continue
        try:
            steps[name] = parse_value(given[option], quantity, METRIC)
        except BadNumberError as error:
            fail(f"--{option.replace('_', '-')} “{given[option][:40]}”: {error}")
        if steps[name] <= 0.0:
            fail(f"--{option.replace('_', '-')} must be above 0")
    things = {"ruler": not given["no_ruler"], "phone": not given["no_phone"], "monitor": given["monitor"]}
    return Owned(**steps, **things, minutes=given["minutes"])


def _told(one: Proposal, trial: TrialBench) -> dict[str, Any]:
    from fenwick.core.bench.trials.expect import expected_band
    from fenwick.core.bench.trials.plan import WAYS
    from fenwick.wording.planning import made_how_words, tells_words

    plan = one.plan
    expects = [None if drawn is None else expected_band(drawn) for drawn in trial.with_plan(plan).drawn]
    return {
        "kind": plan.kind,
        "way": plan.way,
        "catch": plan.setup.catch,
        "answers": one.answers,
        "bits": round(one.tells, 3),
        "minutes": plan.minutes,
        "repeats": plan.repeats,
        "worth_knowing": plan.hoped,
        "reach": one.reach,
        "fed_kg": plan.fed if WAYS[plan.way].feeds else None,
        "feed_seconds": plan.feed_seconds if WAYS[plan.way].feeds else None,
        "states": [
            {
                "name": name,
                "expected": None if band is None else {"value": band.value, "low": band.low, "high": band.high},
            }
            for name, band in zip(plan.variants, expects, strict=True)
        ],
        "words": f"{made_how_words(one, trial.voice)}. {tells_words(one, trial.voice)}",
    }
