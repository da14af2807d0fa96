"""`make soak`: a shop that is killed, raced, flooded and grown old; ends with status 1 where something was lost."""

from __future__ import annotations

import argparse
import logging
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from bench.soak.decade import decade, page_times
from bench.soak.fuzz import fuzz
from bench.soak.kills import kills
from bench.soak.owners import best_named
from bench.soak.phone import soak_all
from bench.soak.races import races
from bench.soak.streams import memory, streams
from bench.soak.trees import trees
from bench.soak.ways import compared
from fenwick.data.demo import seed_demo
from fenwick.web import create_app

PAGE_WITHIN, STREAM_WITHIN, GROWS = 0.3, 2.0, 1.1  #: [s], [s], [-]
FINDS = 0.95  #: of small cases, in which the search finds the best way there is [-]
NAMES = 0.9  #: of simulated owners, for whom the best test is named [-]
Outcome = tuple[bool, str]


def main() -> None:
    """Run all of them, or those that are named."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("which", nargs="*", choices=list(TRIALS), help="only these")
    parser.add_argument("--share", type=float, default=1.0, help="of the usual amount")
    asked = parser.parse_args()
    logging.disable(logging.CRITICAL)
    failed = False
    for name in asked.which or TRIALS:
        began = time.perf_counter()
        with tempfile.TemporaryDirectory() as folder:
            good, words = TRIALS[name](Path(folder), asked.share)
        print(f"{'ok  ' if good else 'FAIL'} {name:<8} {time.perf_counter() - began:6.0f} s  {words}", flush=True)
        failed = failed or not good
    sys.exit(1 if failed else 0)


def _kills(folder: Path, share: float) -> Outcome:
    found = kills(folder, round(200 * share) or 1)
    words = f"{found.kills} kills, {found.acknowledged} changes acknowledged, {len(found.lost)} lost"
    return not found.lost and not found.damaged, f"{words}, {len(found.damaged)} damaged {found.lost} {found.damaged}"


def _races(folder: Path, share: float) -> Outcome:
    app = create_app(seed_demo(folder / "shop.db"), "soak")
    app.config.update(WTF_CSRF_ENABLED=False)
    found = races(app, 6, round(200 * share) or 2)
    return found.acknowledged == found.sent == found.kept and not found.holes + found.unopened, str(found)


def _fuzz(folder: Path, share: float) -> Outcome:
    app = create_app(seed_demo(folder / "shop.db"), "soak")
    app.config.update(WTF_CSRF_ENABLED=False)
    found = fuzz(app, round(20_000 * share) or 10)
    words = f"{found.asked} requests, {len(found.failures)} × 500, {len(found.slow)} over 5 s"
    return not found.failures and not found.slow, f"{words} {found.statuses} {found.failures[:5]} {found.slow[:5]}"


def _trees(_folder: Path, share: float) -> Outcome:
    found = trees(round(20_000 * share) or 50, round(400 * share) or 5)
    words = f"{found.valid} valid trees, {found.solved} solved, {len(found.told)} told why not"
    return not found.tracebacks, f"{words}, {len(found.tracebacks)} tracebacks {found.told[:3]} {found.tracebacks[:3]}"


def _ways(_folder: Path, share: float) -> Outcome:
    same, of = compared(round(200 * share) or 5)
    return same >= FINDS * of, f"{same} of {of} ways as good as the best of all there are"


def _owners(_folder: Path, share: float) -> Outcome:
    of = round(100 * share) or 5
    named = best_named(of)
    return named >= NAMES * of, f"the best test was named for {named} of {of} owners"


def _decade(folder: Path, share: float) -> Outcome:
    times = page_times(create_app(decade(folder / "shop.db", share), "soak"))
    slowest = sorted(times.items(), key=lambda pair: -pair[1])[:4]
    told = ", ".join(f"{page} {took * 1e3:.0f} ms" for page, took in slowest)
    return slowest[0][1] <= PAGE_WITHIN, f"slowest pages, at the median: {told}"


def _streams(folder: Path, _share: float) -> Outcome:
    times = streams(folder)
    return max(times) <= STREAM_WITHIN, f"{len(times)} pages beside 16 streams, the slowest {max(times):.2f} s"


def _memory(folder: Path, share: float) -> Outcome:
    before, after = memory(folder, round(2000 * share) or 40)
    return after <= GROWS * before, f"{before:.0f} MB after a tenth of the loads, {after:.0f} MB after all"


TRIALS: dict[str, Callable[[Path, float], Outcome]] = {
    "kills": _kills,
    "races": _races,
    "fuzz": _fuzz,
    "trees": _trees,
    "ways": _ways,
    "owners": _owners,
    "decade": _decade,
    "streams": _streams,
    "memory": _memory,
    "phone": lambda _folder, share: soak_all(round(300 * share) or 3),
}

if __name__ == "__main__":
    main()
