"""`make bench`: what Fenwick costs, as ratios in one run; absolute times are for information."""

from __future__ import annotations

import re
import subprocess
import sys
import tempfile
import time
from dataclasses import replace
from importlib import resources
from urllib.request import urlopen

import numpy as np

from bench.ageing import ageing
from bench.bands import bands
from bench.logbook import logbook
from bench.making import making
from bench.pages import pages
from bench.readings import readings
from bench.separators import separators
from bench.timing import best, median
from bench.trees import Maker
from bench.ways import ways
from fenwick.core.components.elements import Hose
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.line.operating import operating_point
from fenwick.core.search.changes import candidates
from fenwick.core.search.whatif import try_all
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.rig import build_line
from fenwick.rig.edits.measure import measure_next
from fenwick.rig.start import Answers, start_line
from fenwick.shop import add_item
from fenwick.shop.drawer import lines_from_drawer, task_for

VARIANTS, SAMPLE = 100_000, 400


def with_bores(line: Line, bores: float | np.ndarray) -> Line:
    """The line with its first hose in other bores."""
    branch = line.branches[0]
    first = branch.elements[0]
    assert isinstance(first, Hose)
    return replace(line, branches=(replace(branch, elements=(replace(first, bore=bores), *branch.elements[1:])),))


def say(what: str, value: str, aim: str = "") -> None:
    """One line of the report."""
    print(f"{what:<64}{value:>14}   {aim}")


def solver() -> None:
    """One solve, a batch, and the ratio between them."""
    line = build_line(demo_rig())
    bores = np.linspace(0.02, 0.08, VARIANTS)
    operating_point(line)
    one = median(lambda: operating_point(line), 50)
    batch = best(lambda: operating_point(with_bores(line, bores)), 3)
    picked = bores[:: VARIANTS // SAMPLE]
    loop = best(lambda: [operating_point(with_bores(line, float(bore))) for bore in picked], 1) / picked.size
    say("one operating point of the demo line", f"{one * 1e3:.2f} ms", "aim: under 5 ms")
    say("one whole assessment (separation, capture, fate, checks)", f"{median(lambda: assess(line), 50) * 1e3:.2f} ms")
    say(f"{VARIANTS:,} operating points in one call", f"{batch:.2f} s", "aim: under 1.2 s")
    say(f"the same one at a time ({picked.size} timed, scaled)", f"{loop * VARIANTS:.0f} s")
    say("ratio: one at a time over one call", f"{loop * VARIANTS / batch:.0f} ×", "aim: at least 200 ×")
    changes = candidates(line, 0)
    say(
        f"the list of {len(changes)} single changes, in one batch",
        f"{median(lambda: try_all(line, 0, changes), 20) * 1e3:.1f} ms",
        "aim: under 100 ms",
    )
    _bigger_questions()
    four = build_line(demo_rig("demo_bench"))
    say("one operating point of the four-tool demo tree", f"{median(lambda: operating_point(four), 50) * 1e3:.2f} ms")
    whole = best(lambda: assess(with_bores(line, bores[::10])), 1)
    say(f"{VARIANTS // 10:,} whole assessments in one call", f"{whole:.2f} s")


def _bigger_questions() -> None:
    """What to measure next, and the best line from a full drawer."""
    first = start_line(Answers()).planned
    say(
        f"what hangs on each of {len(first.guesses)} guesses",
        f"{median(lambda: measure_next(first, 0), 10) * 1e3:.0f} ms",
    )
    shop = demo_shop()
    for i in range(12 - len(shop.hoses)):
        shop, _ = add_item(shop, "hoses", name=f"Hose {i}", bore_m=0.032 + 0.006 * i, length_m=1.0 + 0.7 * i)
    for i in range(20 - len(shop.fittings)):
        shop, _ = add_item(shop, "fittings", name=f"F{i}", one_bore_m=0.03 + 0.002 * i, other_bore_m=0.05)
    rig = demo_rig()
    task = task_for(rig, "drum-sander", shop, 60.0)
    found = best(lambda: lines_from_drawer(rig, "drum-sander", shop, task), 3)
    say(
        f"the best line from {len(shop.hoses)} hoses and {len(shop.fittings)} fittings",
        f"{found:.2f} s",
        "aim: under 2 s",
    )
    trees = [tree for tree in (Maker(seed).line() for seed in range(400)) if len(tree.leaves) == 8]
    times = sorted(best(lambda tree=tree: operating_point(tree), 3) for tree in trees)
    say(
        f"an 8-branch tree, median of {len(trees)} (nine in ten under)",
        f"{times[len(times) // 2] * 1e3:.1f} ({times[9 * len(times) // 10] * 1e3:.1f}) ms",
        "aim: under 15 ms",
    )


def start_up() -> None:
    """From the command to the first page, and a cold solve."""
    with tempfile.TemporaryDirectory() as folder:
        start = time.perf_counter()
        command = [sys.executable, "-m", "fenwick", "demo", "--home", folder, "--port", "0"]
        with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as process:
            assert process.stdout is not None
            found = re.search(r"http://\S+/", process.stdout.readline())
            assert found is not None
            urlopen(found[0]).read()
            say("start-up to first page, seeding the demo shop", f"{time.perf_counter() - start:.2f} s")
            process.terminate()
    demo = str(resources.files("fenwick.data").joinpath("demo_line.json"))
    cold = best(
        lambda: subprocess.run([sys.executable, "-m", "fenwick", "solve", demo], capture_output=True, check=True), 3
    )
    say("fenwick solve, cold", f"{cold:.2f} s", "aim: under 3 s")


if __name__ == "__main__":
    solver()
    separators(say)
    ageing(say)
    bands(say)
    readings(say)
    making(say)
    ways(say)
    logbook(say)
    pages(say)
    start_up()
