"""Lines of devices: what is written is read again, and what is garbled is refused, never guessed at."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.devices.address import why_not
from fenwick.devices.lines import LineBuffer
from fenwick.devices.protocol import LONGEST, PROTOCOLS, BadLineError, check_sum, known_units, parse_line, write_line

MOST = {"scale": 50.0, "monitor": 5e-3, "manometer": 40e3}


@given(
    st.sampled_from(sorted(PROTOCOLS)), st.floats(0.0, 1.0), st.floats(0.0, 1e5), st.sampled_from((None, True, False))
)
def test_what_is_written_is_read_again(kind: str, share: float, time: float, still: bool | None) -> None:
    value = share * MOST[kind]
    found = parse_line(write_line(kind, value, time=time, still=still), kind)
    assert found is not None
    unit = {"scale": 1e-3, "monitor": 1e-9, "manometer": 1e3}[kind]
    assert found.value == pytest.approx(value, abs=0.6e-4 * unit, rel=1e-12)
    assert found.time == pytest.approx(time, abs=0.006)
    assert found.still is still


@pytest.mark.parametrize(
    ("line", "kind", "value"),
    [
        ("1834.5 g", "scale", 1.8345),  # hand
        ("1834.5", "scale", 1.8345),
        ("mass 1.5 kg still", "scale", 1.5),
        ("mass -2 g", "scale", -0.002),
        ("1 lb", "scale", 0.45359237),  # published
        ("2.45kPa", "manometer", 2450.0),
        ("suction 10 inH2O", "manometer", 2490.9),  # published, water at 4 °C
        ("dust 0.5 mg/m3", "monitor", 5e-7),
        ("@12.5 dust 23 ug/m3", "monitor", 23e-9),
    ],
)
def test_lines_as_devices_write_them(line: str, kind: str, value: float) -> None:
    found = parse_line(line, kind)
    assert found is not None
    assert found.value == pytest.approx(value, rel=1e-3)


@pytest.mark.parametrize(
    ("line", "kind", "why"),
    [
        ("mass 18e4.5 g", "scale", "no figure"),
        ("mass 12 kPa", "scale", "no unit"),
        ("suction 2 kPa", "scale", "not of mass"),
        ("ERR 7", "scale", "no figure"),
        ("mass 12 g ~00", "scale", "check sum"),
        ("mass 999999 kg", "scale", "more than the device can show"),
        ("\ufffd\ufffd 3", "monitor", "no figure"),
        ("12,5 g", "scale", "no figure"),
    ],
)
def test_what_cannot_be_trusted_is_refused_with_the_reason(line: str, kind: str, why: str) -> None:
    with pytest.raises(BadLineError, match=why):
        parse_line(line, kind)


def test_empty_lines_and_comments_say_nothing() -> None:
    assert parse_line("", "scale") is None
    assert parse_line("# simulated scale", "scale") is None


@given(st.floats(0.001, 20.0), st.data())
def test_a_line_with_a_character_changed_is_never_read_as_another_figure(value: float, data: st.DataObject) -> None:
    line = write_line("scale", value, time=3.0, still=True)
    at = data.draw(st.integers(0, len(line) - 1))
    letter = data.draw(st.characters(min_codepoint=33, max_codepoint=125).filter(lambda c: c != line[at]))
    garbled = line[:at] + letter + line[at + 1 :]
    try:
        found = parse_line(garbled, "scale")
    except BadLineError:
        return
    # only where the mark of the check sum itself is hit can a line still be read, and then it is no figure with a unit
    assert found is None or found.value == parse_line(line, "scale").value  # type: ignore[union-attr]


def test_units_of_every_kind_are_known() -> None:
    for kind in PROTOCOLS:
        for unit in known_units(kind):
            assert parse_line(f"1 {unit}", kind) is not None
    assert len(check_sum("x")) == 2


@given(st.lists(st.binary(max_size=40), max_size=30))
def test_lines_do_not_depend_on_how_the_bytes_came(parts: list[bytes]) -> None:
    together = LineBuffer().feed(b"".join(parts))
    piecewise = LineBuffer()
    apart = [line for part in parts for line in piecewise.feed(part)]
    if all(len(line) <= LONGEST for line in together) and piecewise.overlong == 0:
        assert apart == together


def test_a_line_without_an_end_is_thrown_away_and_the_next_one_read() -> None:
    buffer = LineBuffer()
    for _ in range(1000):
        assert buffer.feed(b"x" * 1000) == []
    assert buffer.feed(b"tail\nmass 3 g\n") == ["mass 3 g"]
    assert buffer.overlong >= 1
    assert len(buffer._part) <= LONGEST


@pytest.mark.parametrize(
    "address", ["/dev/ttyUSB0", "/dev/serial/by-id/usb-a_b-if00", "COM3", "socket://localhost:4001"]
)
def test_ports_that_may_be_opened(address: str) -> None:
    assert why_not(address) == ""


@pytest.mark.parametrize(
    "address",
    [
        "spy://COM1?file=/etc/passwd",
        "/etc/passwd",
        "hwgrep://.*",
        "socket://a:1/?logging=debug",
        "alt://x",
        "",
        "/dev/sda",
    ],
)
def test_ports_that_may_not(address: str) -> None:
    assert why_not(address)
