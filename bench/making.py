"""What a build pack costs: worked out, drawn, written; and cold from the command line."""

from __future__ import annotations

import subprocess
import sys
import tempfile
from collections.abc import Callable
from importlib import resources
from pathlib import Path

from bench.timing import best, median
from fenwick.core.judging.assess import assess
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line
from fenwick.services.make_or_buy import make_or_buy_of
from fenwick.services.making import BuildAsked, build_pack, tolerances
from fenwick.services.making_files import pack_files

Say = Callable[[str, str, str], None]


def making(say: Say) -> None:
    """The figures, said one by one."""
    rig, asked = demo_rig(), BuildAsked()
    line = build_line(rig)
    one = median(lambda: assess(line), 20)

    def fresh() -> None:
        build_pack.cache_clear()
        build_pack(rig, asked)

    def limits() -> None:
        tolerances.cache_clear()
        tolerances(rig, asked)

    pack = build_pack(rig, asked)
    say("parts, steps, sheets of the demo's chamber and stand", f"{median(fresh, 10) * 1e3:.0f} ms", "")
    say("its tolerances through the model", f"{median(limits, 5) * 1e3:.0f} ms", "")
    say("ratio: over one whole assessment", f"{median(limits, 5) / one:.0f} ×", "aim: under 40 ×")
    files = best(lambda: pack_files(pack, tolerances(rig, asked), "2026-11-28", "a4"), 3)
    say("every file of the pack, warm", f"{files:.2f} s", "aim: under 3 s")
    kinds = best(lambda: (make_or_buy_of.cache_clear(), make_or_buy_of(rig, "sep", BuildAsked("sep"))), 2)
    say("made or bought, twelve ways on the line", f"{kinds:.2f} s", "aim: under 1 s")
    demo = str(resources.files("fenwick.data").joinpath("demo_line.json"))
    with tempfile.TemporaryDirectory() as folder:
        command = [sys.executable, "-m", "fenwick", "build", demo, "--force", "--out", str(Path(folder) / "pack")]
        cold = best(lambda: subprocess.run(command, capture_output=True, check=True), 3)
    say("fenwick build, cold", f"{cold:.2f} s", "aim: under 4 s")
