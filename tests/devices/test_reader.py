"""A device that vanishes, floods, falls silent or sends rubbish is read on; simulated ones speak through TCP."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

import numpy as np
import pytest

from fenwick.core.tuning.readings import KEPT, Reading, expected
from fenwick.data.demo import demo_rig
from fenwick.devices.hub import Hub, at_rest
from fenwick.devices.protocol import parse_line
from fenwick.devices.reader import FLOODS, MOST_A_SECOND, READING, RUBBISH, VANISHED, LivePoint, Reader, open_port
from fenwick.devices.reader import KEPT as KEPT_POINTS
from fenwick.devices.simulated import CLEAN, DeviceServer, DeviceVoice, Faults
from fenwick.devices.worlds import ManometerWorld, MonitorWorld, ScaleWorld, hidden_truth
from fenwick.rig import build_line

LINE = build_line(demo_rig("demo_cyclone"))


class FakePort:
    """Gives out chunks of bytes, then nothing; an exception among them is raised."""

    def __init__(self, chunks: list[bytes | Exception], every: float = 0.002) -> None:
        self.chunks, self.every, self.written = list(chunks), every, b""

    def read(self, _: int) -> bytes:
        time.sleep(self.every)
        if not self.chunks:
            return b""
        chunk = self.chunks.pop(0)
        if isinstance(chunk, Exception):
            raise chunk
        return chunk

    def write(self, data: bytes) -> None:
        self.written += data

    def close(self) -> None:
        """Nothing to close."""


def until(true: Callable[[], bool], patience: float = 5.0) -> None:
    """Wait for something to become so."""
    end = time.monotonic() + patience
    while not true():
        assert time.monotonic() < end, "it never came"
        time.sleep(0.01)


@contextmanager
def reading(kind: str, *ports: FakePort) -> Iterator[Reader]:
    """A reader of ports that are opened one after the other."""
    left = list(ports)

    def opened(_: str, __: int) -> FakePort:
        if not left:
            raise OSError("no such device")
        return left.pop(0)

    reader = Reader(kind, "COM1", 9600, "", opened)
    yield reader
    reader.close()


def test_garbled_lines_are_counted_and_kept_apart() -> None:
    port = FakePort([b"mass 1 g\nmass 2 ", b"g\n\xff\xfe?!\nmass 3 g ~00\r\nmass 4 g\r\n"])
    with reading("scale", port) as reader:
        until(lambda: reader.health.read == 3)
        assert [point.value for point in reader.since(0)] == pytest.approx([1e-3, 2e-3, 4e-3])
        assert [point.number for point in reader.since(1)] == [2, 3]
        assert reader.health.bad == 2
        assert "check sum" in reader.health.last_bad


def test_a_device_that_vanishes_is_tried_again_and_nothing_read_is_lost() -> None:
    with reading("scale", FakePort([b"mass 1 g\n", OSError("gone")]), FakePort([b"mass 2 g\n"])) as reader:
        until(lambda: reader.health.state == VANISHED)
        until(lambda: reader.health.read == 2)
        assert reader.health.state == READING
        assert [point.value for point in reader.since(0)] == pytest.approx([1e-3, 2e-3])


def test_a_flood_is_bounded() -> None:
    with reading("scale", FakePort([b"mass 1 g\n" * 500] * 200, every=0.0)) as reader:
        until(lambda: reader.health.dropped > 50_000)
        assert reader.health.state == FLOODS
        assert reader.health.read <= 20 * MOST_A_SECOND
        assert len(reader.since(0)) <= KEPT_POINTS


def test_rubbish_is_called_so() -> None:
    with reading("scale", FakePort([b"\x00\x81\x93\n"] * 20)) as reader:
        until(lambda: reader.health.state == RUBBISH)
        assert reader.since(0) == []


def test_a_real_device_is_never_written_to() -> None:
    real, simulated = FakePort([b"mass 1 g\n"]), FakePort([b"# simulated scale\nmass 1 g\n"])
    for port, written in ((real, b""), (simulated, b"put bin\n")):
        with reading("scale", port) as reader:
            until(lambda reader=reader: reader.health.read == 1)  # type: ignore[misc]
            reader.say("put bin")
            assert port.written == written


def test_a_sink_gets_every_point_once() -> None:
    taken: list[LivePoint] = []
    release = threading.Event()

    class Held(FakePort):
        def read(self, size: int) -> bytes:
            release.wait(2.0)
            return super().read(size)

    with reading("scale", Held([f"mass {i} g\n".encode() for i in range(40)], every=0.0)) as reader:
        reader.add_sink(lambda points, _: taken.extend(points))
        release.set()
        until(lambda: reader.health.read == 40)
        assert [point.number for point in taken] == list(range(1, 41))


def test_only_a_figure_at_rest_is_taken() -> None:
    moving = FakePort([f"mass {100 + 7 * i} g moving\n".encode() for i in range(400)], every=0.05)
    with reading("scale", moving) as reader:
        value, wrong = at_rest(reader, 2e-3, patience=1.5)
        assert value is None
        assert "rest" in wrong
    still = FakePort([f"mass {100 + i % 2} g still\n".encode() for i in range(400)], every=0.05)
    with reading("scale", still) as reader:
        value, wrong = at_rest(reader, 2e-3, patience=3.0)
        assert wrong == ""
        assert value == pytest.approx(0.1005, abs=0.6e-3)
    with reading("scale", FakePort([])) as reader:
        assert at_rest(reader, 2e-3, patience=0.4)[1].startswith("It sends nothing")


def test_a_simulated_scale_weighs_what_the_model_keeps() -> None:
    truth = hidden_truth(LINE, 4)
    share = float(expected(truth, [Reading(KEPT, 0.0, 1.0)])[0, 0])
    world = ScaleWorld(truth, 4)
    empty = {}
    for when, thing in ((0.0, "bin"), (10.0, "vacuum"), (20.0, "hose")):
        world.tell(["put", thing], when)
        empty[thing] = world.value(when + 9.0)[0]
    for _ in range(40):
        world.tell(["feed", "0.1"], 30.0)
    gained = {}
    for when, thing in ((40.0, "bin"), (50.0, "vacuum"), (60.0, "hose")):
        world.tell(["put", thing], when)
        gained[thing] = world.value(when + 9.0)[0] - empty[thing]
    assert sum(gained.values()) == pytest.approx(4.0, rel=1e-9)  # nothing is lost
    assert gained["bin"] / (gained["bin"] + gained["vacuum"]) == pytest.approx(share, abs=0.03)
    moving, still = world.value(60.1)
    assert not still
    assert moving != world.value(69.0)[0]
    with pytest.raises(ValueError, match="it knows"):
        world.tell(["dance"], 0.0)


def test_a_simulated_manometer_and_monitor_obey_the_same_physics() -> None:
    tube = ManometerWorld(LINE, ("hose-a", "link"), 1)
    tube.tell(["at", "hose-a"], 0.0)
    near = tube.value(0.0)[0]
    tube.tell(["at", "link"], 0.0)
    far = tube.value(0.0)[0]
    tube.tell(["shut"], 0.0)
    shut = tube.value(0.0)[0]
    tube.tell(["alone"], 0.0)
    assert 0.0 < near < far < shut < tube.value(0.0)[0]
    air = MonitorWorld(LINE, 1)
    before = air.value(0.0)[0]
    air.tell(["cut", "60"], 10.0)
    peak = air.value(70.0)[0]
    assert air.value(9.0)[0] == before
    assert before < air.value(40.0)[0] < peak
    assert before < air.value(4000.0)[0] < peak


def test_simulated_lines_are_noisy_sometimes_garbled_sometimes_missing_and_clean_on_demand() -> None:
    world = ScaleWorld(LINE, 2)
    world.tell(["put", "bin"], -10.0)
    voice = DeviceVoice("scale", world, Faults(garbled=0.1, dropped=0.1), 2)
    lines = [voice.line(0.1 * i) for i in range(2000)]
    missing = sum(line is None for line in lines)
    bad = 0
    for line in lines:
        try:
            parse_line(line or "", "scale")
        except ValueError:
            bad += 1
    assert 120 < missing < 280
    assert 100 < bad < 260
    clean = DeviceVoice("scale", world, CLEAN, 2)
    values = {round(parse_line(clean.line(100.0 + i) or "", "scale").value, 6) for i in range(50)}  # type: ignore[union-attr]
    assert values == {2.143}


def test_the_reading_code_reads_a_simulated_device_over_tcp() -> None:
    server = DeviceServer("scale", ScaleWorld(LINE, 1), Faults(), 1, 40.0, 1.0, 0)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    hub = Hub()
    try:
        reader = hub.reader(1, "scale", server.address, 9600, "")
        until(lambda: reader.health.simulated and reader.health.read > 5)
        assert hub.reader(1, "scale", server.address, 9600, "") is reader
        reader.say("put bin")
        value, wrong = at_rest(reader, 2.5e-3, patience=6.0)
        assert wrong == ""
        assert value == pytest.approx(2.143, abs=3e-3)
        times = np.array([point.time for point in reader.since(0)])
        assert np.all(np.diff(times) >= 0.0)
    finally:
        hub.close(1)
        server.shutdown()
        server.server_close()


def test_a_simulated_device_is_known_though_its_first_greeting_is_thrown_away() -> None:
    """The serial library empties its buffer once it has connected: what came before that is lost."""
    server = DeviceServer("scale", ScaleWorld(LINE, 1), CLEAN, 1, 40.0, 1.0, 0)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    port = open_port(server.address, 9600)
    late = Reader("scale", server.address, 9600, "", lambda *_: _drained(port))
    try:
        until(lambda: late.health.simulated)
        reader_heard = late.comments
        late.say("put bin", wait=3.0)
        assert late.comments == reader_heard + 1
    finally:
        late.close()
        server.shutdown()
        server.server_close()


def _drained(port: Any) -> Any:
    time.sleep(0.2)
    assert b"# simulated" in port.read(4096)
    return port
