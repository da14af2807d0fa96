"""The assumptions: everything that is a rule of thumb is on the page, in the user's units."""

import pytest
from flask.testing import FlaskClient

from fenwick.core.catalogue.ranges import RANGES, range_of
from fenwick.core.catalogue.tools import HAZARDS, TOOLS
from fenwick.core.catalogue.vacuums import VACUUMS
from fenwick.core.components.dust import DUSTS
from fenwick.core.components.joint import PLASTICS
from fenwick.core.rules import CONTAINMENT_M3_H, RELEASE_VELOCITY, RULES, SUBJECTS
from fenwick.web.reference.catalogues import KEY_WORDS


def test_every_rule_and_catalogue_entry_is_shown(client: FlaskClient) -> None:
    page = client.get("/assumptions").text.replace("&#39;", "'")
    for rule in RULES:
        assert rule.meaning in page, rule.key
    for entry in (*VACUUMS.values(), *TOOLS.values(), *DUSTS.values(), *PLASTICS.values()):
        assert entry.label in page
    for key in RANGES:
        assert KEY_WORDS[key] in page


@pytest.mark.parametrize("rule", RULES, ids=lambda rule: rule.key)
def test_every_rule_lies_in_its_range_and_has_a_subject(rule) -> None:  # type: ignore[no-untyped-def]
    assert rule.low <= rule.value <= rule.high
    assert rule.key.split(".")[0] in SUBJECTS
    assert rule.source


def test_the_units_of_the_catalogues_follow(client: FlaskClient) -> None:
    assert "18 kPa" in client.get("/assumptions").text
    client.set_cookie("units", "inch")
    page = client.get("/assumptions").text
    assert "18 kPa" not in page
    assert "inH2O" in page


def test_the_catalogue_speaks_of_what_the_core_knows() -> None:
    for tool in TOOLS.values():
        assert tool.dust in DUSTS
        assert tool.release in RELEASE_VELOCITY
        assert tool.machine is None or tool.machine in CONTAINMENT_M3_H
        assert 0.0 < tool.thrown_share <= 1.0
    for vacuum in VACUUMS.values():
        assert vacuum.filter_kind in ("paper", "hepa", "bag")
        power = vacuum.sealed_suction * vacuum.open_flow / 4.0
        assert vacuum.electrical_power is None or power < 0.45 * vacuum.electrical_power
    assert all(len(why) > 40 for _, why in HAZARDS.values())


@pytest.mark.parametrize(
    ("key", "low"),
    [("curve.open_flow_m3_s", 0.75), ("port.bore_m", 0.85), ("bin.profile[1].d_m", 0.85), ("nothing", 1.0)],
)
def test_the_range_of_a_key_is_that_of_its_ending(key: str, low: float) -> None:
    assert range_of(key).low == low


def test_beliefs_of_tuning_and_faults_are_shown(client: FlaskClient) -> None:
    text = client.get("/assumptions").text
    assert "Suction of the fan" in text
    assert "0.85 to 1.18 ×" in text  # exp(∓1.645·0.1), by hand
    assert "the filter is caked 80" in text
    assert "Of a bulk density that nobody has weighed" in text
