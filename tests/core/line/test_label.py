"""What a label tells of a fan: every figure on it moves what the label leaves open."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.catalogue.vacuums import BY_POWER, MOST_SOCKET_POWER, VACUUMS, VacuumClass
from fenwick.core.components.label import LabelFigures, fan_of
from fenwick.core.formulas.fan import peak_air_power_share
from fenwick.core.rules import RuleBook

RULES = RuleBook()
DRUM, COLLECTOR = VACUUMS["drum"], VACUUMS["bag-collector"]


def air_power(suction: float, flow: float, exponent: float = 1.0) -> float:
    """Largest p·Q of a nameplate curve [W]."""
    return suction * flow * float(peak_air_power_share(exponent))


@pytest.mark.parametrize("key", BY_POWER)
def test_a_class_at_its_own_power_is_the_class(key: str) -> None:
    kind = VACUUMS[key]
    for said in (None, kind):
        fan = fan_of(LabelFigures(electrical_power=kind.electrical_power), said, RULES)
        assert fan.kind is kind
        assert (fan.sealed_suction, fan.open_flow) == pytest.approx((kind.sealed_suction, kind.open_flow))


@given(st.floats(100.0, MOST_SOCKET_POWER / 1.002))
def test_more_watts_never_make_less_air_and_there_is_no_jump(power: float) -> None:
    less, more = (fan_of(LabelFigures(electrical_power=one), None, RULES) for one in (power, 1.002 * power))
    assert more.open_flow >= less.open_flow * (1.0 - 1e-9)
    assert more.open_flow <= 1.01 * less.open_flow
    assert abs(more.sealed_suction / less.sealed_suction - 1.0) < 0.01


def test_watts_from_1000_to_1700_and_an_empty_field_all_give_another_fan() -> None:
    fans = [fan_of(LabelFigures(electrical_power=one), DRUM, RULES) for one in (1000.0, 1200.0, 1500.0, 1700.0)]
    fans.append(fan_of(LabelFigures(), DRUM, RULES))
    assert len({round(fan.open_flow, 5) for fan in fans}) == 5
    assert len({round(fan.sealed_suction, 1) for fan in fans}) == 5


def test_a_stronger_motor_shares_its_air_power_between_suction_and_flow() -> None:
    fan = fan_of(LabelFigures(electrical_power=4.0 / 3.0 * 1300.0), DRUM, RULES)
    made = air_power(fan.sealed_suction, fan.open_flow)
    assert made == pytest.approx(4.0 / 3.0 * air_power(DRUM.sealed_suction, DRUM.open_flow))
    assert fan.sealed_suction / DRUM.sealed_suction == pytest.approx(fan.open_flow / DRUM.open_flow)


@pytest.mark.parametrize("kind", [None, DRUM, COLLECTOR])
def test_air_watts_alone_are_what_the_fan_makes(kind: VacuumClass | None) -> None:
    fan = fan_of(LabelFigures(air_watts=310.0), kind, RULES)
    assert air_power(fan.sealed_suction, fan.open_flow, fan.kind.exponent) == pytest.approx(310.0)


@given(st.floats(5e3, 28e3), st.floats(400.0, 2400.0))
def test_one_figure_and_watts_give_the_other_within_reason(suction: float, power: float) -> None:
    fan = fan_of(LabelFigures(sealed_suction=suction, electrical_power=power), None, RULES)
    assert fan.sealed_suction == suction
    assert fan.open_flow <= 3.0 * fan.usual_flow * (1.0 + 1e-9)
    assert fan.air_share is not None
    assert fan.air_share <= 0.45 + 1e-9


def test_no_fan_makes_more_air_than_is_believable_of_its_power() -> None:
    weak = fan_of(LabelFigures(electrical_power=200.0), COLLECTOR, RULES)
    assert weak.bounded
    assert weak.air_share == pytest.approx(0.45)
    plenty = fan_of(LabelFigures(electrical_power=1500.0), COLLECTOR, RULES)
    assert not plenty.bounded
    assert plenty.open_flow == COLLECTOR.open_flow


def test_peak_power_moves_nothing() -> None:
    fan = fan_of(LabelFigures(electrical_power=4500.0), DRUM, RULES)
    assert fan.peak_power
    assert fan.power is None
    assert (fan.sealed_suction, fan.open_flow) == (DRUM.sealed_suction, DRUM.open_flow)


def test_suction_and_flow_say_it_all() -> None:
    label = LabelFigures(sealed_suction=20e3, open_flow=0.05, electrical_power=1000.0)
    fan = fan_of(label, None, RULES)
    assert (fan.sealed_suction, fan.open_flow) == (20e3, 0.05)
    assert fan.air_share == pytest.approx(0.25)
