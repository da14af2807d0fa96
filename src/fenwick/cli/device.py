"""`fenwick device`: simulated devices, each a process of its own."""

from __future__ import annotations

import sys
from pathlib import Path

import click

from fenwick.cli.commands import bytes_of, fail, main
from fenwick.cli.stopping import until_stopped

KINDS = ("scale", "monitor", "manometer")


@main.command()
@click.argument("kind", type=click.Choice(KINDS))
@click.option("--rig", type=click.Path(path_type=Path), help="Rig file of the line it measures; else a demo line.")
@click.option(
    "--tcp", default=0, show_default=True, type=click.IntRange(0, 65535), help="TCP port; 0 takes a free one."
)
@click.option("--rate", default=10.0, show_default=True, type=click.FloatRange(0.1, 1000.0), help="Lines a second.")
@click.option(
    "--speed", default=1.0, show_default=True, type=click.FloatRange(0.1, 100.0), help="How fast its time runs."
)
@click.option("--seed", default=1, show_default=True, help="Of its hidden truth and its noise.")
@click.option("--clean", is_flag=True, help="No noise, drift, drop-outs or garbled lines.")
def device(kind: str, rig: Path | None, tcp: int, rate: float, speed: float, seed: int, clean: bool) -> None:
    """Send the lines of a simulated KIND of device over TCP, from a line whose truth is hidden."""
    from fenwick.core.dust.cakes import settled_point
    from fenwick.core.errors import CoreError
    from fenwick.data.demo import demo_rig
    from fenwick.devices.simulated import CLEAN, DeviceServer, Faults
    from fenwick.devices.worlds import ManometerWorld, MonitorWorld, ScaleWorld, World, hidden_truth
    from fenwick.rig import RigError, read_rig
    from fenwick.rig.to_core.line import build_line

    try:
        line = build_line(read_rig(bytes_of(rig)) if rig else demo_rig("demo_cyclone"))
        truth = hidden_truth(line, seed)
        world: World
        if kind == "scale":
            world = ScaleWorld(truth, seed)
        elif kind == "monitor":
            world = MonitorWorld(truth, seed)
        else:
            world = ManometerWorld(truth, settled_point(truth).stations.ids, seed)
        server = DeviceServer(kind, world, CLEAN if clean else Faults(), seed, rate, speed, tcp)
    except (RigError, CoreError) as error:
        fail(f"{rig}: {error}")
    except OSError as error:
        fail(f"port {tcp} cannot be had: {error.strerror}")
    with until_stopped(), server:
        click.echo(f"A simulated {kind} sends its lines at {server.address} (stop with Ctrl-C)")
        sys.stdout.flush()
        server.serve_forever()
    click.echo("Stopped.")
