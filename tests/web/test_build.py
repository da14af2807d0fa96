"""Build: its page, parts, steps, what was cut, the plan, its files; and everything that can be typed amiss."""

from __future__ import annotations

import io
import json
import re
import zipfile
from typing import Any

import ezdxf
import pypdfium2 as pdfium
import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient
from PIL import Image
from sqlmodel import Session

from fenwick.data import Database
from fenwick.data.builds import build_state
from fenwick.data.lines import line_state
from fenwick.data.readings import readings_of

HTMX = {"HX-Request": "true"}
PAGE = "/lines/1/build"
SEP = {"what": "sep"}


def soup(response: Any) -> BeautifulSoup:
    return BeautifulSoup(response.text, "html.parser")


def rows(page: BeautifulSoup) -> dict[str, str]:
    """State of every part by its name."""
    return {
        row.select_one("th").text.strip(): row.select("td")[-1].text.strip()  # type: ignore[union-attr]
        for row in page.select(".parts-table tbody tr")
    }


def file_of(shop: Database, what: str = "sep") -> Any:
    with shop.session() as session:
        return build_state(session, 1, what).file


class TestPage:
    def test_the_demo_is_half_way_and_one_part_came_out_too_small(self, client: FlaskClient) -> None:
        page = soup(client.get(PAGE))
        states = rows(page)
        assert states["Slotted disc"] == "−3 mm"
        assert states["Roof"] == "cut"
        assert states["Outlet tube"] == "ready"
        assert page.select_one(".now-card h3").text.startswith("Shim the slotted disc")  # type: ignore[union-attr]
        assert "384 mm was cut, 387 mm wanted" in page.text

    def test_every_part_has_its_number_on_the_drawing(self, client: FlaskClient) -> None:
        page = soup(client.get(PAGE))
        listed = {row.text.strip() for row in page.select(".parts-table tbody td.num")}
        drawn = {one.text.strip() for one in page.select(".exploded .number")}
        assert drawn <= listed
        assert len(drawn) == len(listed)

    @pytest.mark.parametrize("line", [1, 2, 3])
    def test_every_line_of_the_demo_can_be_built(self, client: FlaskClient, line: int) -> None:
        for what in ("sep", "stand"):
            found = client.get(f"/lines/{line}/build", query_string={"what": what})
            if found.status_code == 404:
                continue
            assert found.status_code == 200
            assert soup(found).select_one(".exploded desc") is not None

    @pytest.mark.parametrize("kind", ["cyclone", "slotted-disc", "hung-disc", "elbow-lid", "rim-inlet", "one-body"])
    def test_every_kind_and_both_ways(self, client: FlaskClient, kind: str) -> None:
        client.post("/lines/1/separator/kind", data={"kind": kind, "part": "sep"})
        for ways in ("made", "bought"):
            client.post(f"{PAGE}/choose", data={**SEP, "ways": ways})
            page = client.get(PAGE)
            assert page.status_code == 200, kind
            assert "Traceback" not in page.text
            for name in ("parts", "steps", "sheets"):
                if name != "parts":
                    assert client.get(f"{PAGE}/{name}").status_code == 200
            for row in soup(page).select(".parts-table tbody a"):
                assert client.get(row["href"]).status_code == 200  # type: ignore[arg-type]

    def test_a_line_without_a_separator_says_what_would_be_there(self, client: FlaskClient, shop: Database) -> None:
        client.post("/lines/1/parts/sep/remove")
        found = client.get(PAGE)
        assert found.status_code == 404
        assert "Choose a separator" in found.text
        assert client.get("/lines/1/build?what=stand").status_code == 404

    def test_the_place_leads_to_the_line_in_hand(self, client: FlaskClient) -> None:
        client.get("/lines/3")
        assert client.get("/build").location.endswith("/lines/3/build")

    def test_hours_of_the_build_are_the_finders(self, client: FlaskClient) -> None:
        """Three hours by the rule; what is left is what the steps that are not done take."""
        page = soup(client.get("/lines/3/build"))
        assert "6 h of work left" in page.text
        here = soup(client.get("/lines/3/build/make-or-buy?what=sep")).select_one(".ways-table tr.here")
        assert here is not None
        assert "6 h" in [cell.text.strip() for cell in here.select("td")]


class TestSteps:
    def test_a_tick_is_kept_and_can_be_taken_back(self, client: FlaskClient, shop: Database) -> None:
        before = file_of(shop)
        step = "shape-block"
        client.post(f"{PAGE}/tick/{step}", data=SEP, headers=HTMX)
        assert [one.step for one in file_of(shop).done][-1] == step
        page = soup(client.post(f"{PAGE}/undo", data=SEP, headers=HTMX))
        assert file_of(shop) == before
        assert page.select_one("#redo").get("disabled") is None  # type: ignore[union-attr]
        client.post(f"{PAGE}/redo", data=SEP, headers=HTMX)
        assert [one.step for one in file_of(shop).done][-1] == step

    def test_a_step_is_not_passed_over_unseen(self, client: FlaskClient, shop: Database) -> None:
        refused = client.post(f"{PAGE}/tick/bore-block", data=SEP)
        assert refused.status_code == 422
        assert "Saw the hollow of the inlet block" in refused.text
        assert "bore-block" not in {one.step for one in file_of(shop).done}
        client.post(f"{PAGE}/tick/bore-block", data={**SEP, "anyway": "1", "from": "step"})
        assert "bore-block" in {one.step for one in file_of(shop).done}

    def test_a_hold_point_cannot_be_passed_over(self, client: FlaskClient, shop: Database) -> None:
        for more in ({}, {"anyway": "1"}):
            refused = client.post(f"{PAGE}/tick/seal-disc", data={**SEP, **more})
            assert refused.status_code == 422
            told = soup(refused).select_one(".build-error")
            assert told is not None
            assert "cannot be passed over" in told.text
            assert "It is done all the same" not in refused.text
            assert client.get(told.select_one("a")["href"]).status_code == 200  # type: ignore[index,arg-type]
            assert "seal-disc" not in {one.step for one in file_of(shop).done}

    def test_a_second_tick_changes_nothing(self, client: FlaskClient, shop: Database) -> None:
        for _ in range(2):
            client.post(f"{PAGE}/tick/shape-block", data=SEP)
        assert [one.step for one in file_of(shop).done].count("shape-block") == 1

    def test_a_cure_keeps_its_clock(self, client: FlaskClient, shop: Database) -> None:
        listed = soup(client.get(f"{PAGE}/steps?what=sep")).select('li a[href*="/steps/"]')
        steps = [str(link["href"]).split("/steps/")[1].split("?")[0] for link in listed]
        for step in steps[: steps.index("close-seam") + 1]:
            client.post(f"{PAGE}/tick/{step}", data=SEP)
        (clock,) = (one for one in file_of(shop).clocks if one.step == "close-seam")
        page = soup(client.get(f"{PAGE}/steps/close-seam?what=sep"))
        shown = page.select_one(".cure-clock")
        assert shown is not None
        assert shown["data-since"] == clock.since
        assert int(shown["data-lasts"]) == pytest.approx(4.0 / 3.5 * 86400.0, abs=1.0)  # type: ignore[arg-type]

    def test_moving_a_step_tells_what_it_breaks(self, client: FlaskClient) -> None:
        page = soup(client.get(f"{PAGE}/steps?what=sep"))
        assert page.select(".breaks") == []
        for _ in range(3):
            page = soup(client.post(f"{PAGE}/move/cut-slot/up", data=SEP, headers=HTMX))
        assert any("Bore the ends of the slot" in one.text for one in page.select(".breaks"))
        assert "The order breaks something" in client.get(PAGE).text
        client.post(f"{PAGE}/choose", data={**SEP, "order": "listed"})
        assert soup(client.get(f"{PAGE}/steps?what=sep")).select(".breaks") == []

    def test_the_page_of_a_step_shows_its_settings(self, client: FlaskClient) -> None:
        page = client.get(f"{PAGE}/steps/groove-disc?what=sep").text
        assert "pivot to the cutter&#39;s middle" in page or "pivot to the cutter's middle" in page
        assert "4 mm deep" in page

    def test_the_last_moment_is_said(self, client: FlaskClient) -> None:
        assert "Last moment to reach the seam inside" in client.get(f"{PAGE}/steps/seal-inlet?what=sep").text

    def test_the_plan_ends_after_the_last_cure_and_goes_by_the_hours(self, client: FlaskClient, shop: Database) -> None:
        ends = []
        for hours in ("days", "20-minutes"):
            page = soup(client.post(f"{PAGE}/choose", data={**SEP, "hours": hours}, headers=HTMX))
            words = page.select_one(".plan-words")
            assert words is not None
            assert "the last cure ends" in words.text
            ends.append(words.text)
        assert ends[0] != ends[1]
        assert file_of(shop).hours == "20-minutes"


class TestCut:
    def test_a_figure_within_its_limits_is_kept(self, client: FlaskClient, shop: Database) -> None:
        client.post(f"{PAGE}/parts/slotted-disc", data={**SEP, "d_m": "387.5"})
        states = rows(soup(client.get(PAGE)))
        assert states["Slotted disc"] != "−3 mm"

    def test_typed_in_inches_it_is_the_same(self, client: FlaskClient, shop: Database) -> None:
        client.set_cookie("units", "inch")
        client.post(f"{PAGE}/parts/slotted-disc", data={**SEP, "d_m": "15 1/8"})
        (cut,) = [one for one in file_of(shop).cut if one.dim == "d_m"]
        assert cut.value_m == pytest.approx(15.125 * 0.0254)
        assert "15 15/64 in" in client.get(f"{PAGE}/parts/slotted-disc?what=sep").text

    @pytest.mark.parametrize("text", ["x", "-3", "0", "9" * 30, "1 9**9", "5 furlongs", "4 m", "nan"])
    def test_what_cannot_be_is_said_at_its_field_and_stays_typed(
        self, client: FlaskClient, shop: Database, text: str
    ) -> None:
        before = file_of(shop)
        found = client.post(f"{PAGE}/parts/roof", data={**SEP, "d_m": text, "groove_width_m": "1.8"})
        assert found.status_code == 422
        page = soup(found)
        field = page.select_one('input[name="d_m"]')
        assert field is not None
        assert field["value"] == text
        assert page.select_one("#f-d-m-error") is not None
        assert file_of(shop) == before

    def test_an_empty_field_takes_a_figure_back(self, client: FlaskClient, shop: Database) -> None:
        client.post(f"{PAGE}/parts/slotted-disc", data={**SEP, "d_m": ""})
        assert "d_m" not in {one.dim for one in file_of(shop).cut}

    @pytest.mark.parametrize(("decision", "kept"), [("shim", True), ("keep", True), ("recut", False)])
    def test_what_is_decided_is_not_asked_again(
        self, client: FlaskClient, shop: Database, decision: str, kept: bool
    ) -> None:
        page = soup(client.post(f"{PAGE}/decide/slotted-disc/d_m", data={**SEP, "decision": decision}, headers=HTMX))
        assert "Shim the slotted disc" not in page.text
        assert ("d_m" in {one.dim for one in file_of(shop).cut}) is kept

    def test_as_built_becomes_a_change_of_the_line(self, client: FlaskClient, session: Session) -> None:
        before = line_state(session, 1).rig.line.elements[0]
        found = client.post(f"{PAGE}/take", data=SEP)
        assert found.status_code == 302
        session.expire_all()
        session.rollback()
        after = line_state(session, 1)
        assert after.undo_label == "Slot chamber: as built"
        own = after.rig.line.elements[0]
        assert own.slots[0].width_m == pytest.approx(0.0305)  # type: ignore[union-attr]
        assert own.chamber_d_m > before.chamber_d_m  # type: ignore[union-attr]

    def test_a_figure_that_the_line_cannot_take_is_told(self, client: FlaskClient, session: Session) -> None:
        client.post(f"{PAGE}/parts/outlet-tube", data={**SEP, "reach_m": "900"})
        found = client.post(f"{PAGE}/take", data=SEP)
        assert found.status_code == 422
        assert "disc" in found.text


class TestMadeFrom:
    KEY = "line.elements[0].make."

    def test_another_sheet_changes_the_parts_and_can_be_undone_on_the_line(self, client: FlaskClient) -> None:
        data = {**SEP, f"{self.KEY}plate": "mdf", f"{self.KEY}plate_m": "16", f"{self.KEY}swirl": "left"}
        page = soup(client.post(f"{PAGE}/made-from", data=data, headers=HTMX))
        assert "MDF 16 mm" in page.text
        assert "counter-clockwise" in page.text
        assert "Left hand" in client.get(f"{PAGE}/files/slotted-disc.svg?what=sep").text
        client.post("/lines/1/undo")
        assert "plywood 12 mm" in client.get(PAGE).text

    def test_a_sheet_that_is_none_is_said_at_its_field(self, client: FlaskClient) -> None:
        found = client.post(f"{PAGE}/made-from", data={**SEP, f"{self.KEY}plate_m": "900"}, headers=HTMX)
        assert found.status_code == 422
        assert "is-invalid" in found.text


class TestFiles:
    def test_the_pack_holds_everything(self, client: FlaskClient) -> None:
        found = client.get(f"{PAGE}/files/pack.zip?what=sep")
        names = set(zipfile.ZipFile(io.BytesIO(found.data)).namelist())
        assert {"parts.json", "templates.pdf", "booklet.pdf", "sheets.dxf", "sheets.svg", "shopping.txt"} <= names
        assert {"roof.svg", "roof.dxf", "wall.svg", "slotted-disc.dxf"} <= names

    def test_its_parts_are_those_of_the_page(self, client: FlaskClient) -> None:
        document = json.loads(client.get(f"{PAGE}/files/parts.json?what=sep").data)
        listed = [a.text for a in soup(client.get(PAGE)).select(".parts-table tbody th a")]
        assert [part["name"] for part in document["parts"]] == listed

    def test_single_files(self, client: FlaskClient) -> None:
        dxf = client.get(f"{PAGE}/files/roof.dxf?what=sep")
        assert not ezdxf.read(io.StringIO(dxf.text)).audit().has_errors
        assert dxf.headers["Content-Disposition"] == 'attachment; filename="roof.dxf"'
        assert len(pdfium.PdfDocument(client.get(f"{PAGE}/files/templates.pdf?what=sep&paper=letter").data)) > 5
        assert client.get(f"{PAGE}/files/nothing.svg?what=sep").status_code == 404
        assert client.get(f"{PAGE}/files/roof.pdf?what=sep").status_code == 404

    def test_the_shopping_list_leaves_out_what_is_there(self, client: FlaskClient) -> None:
        text = client.get(f"{PAGE}/files/shopping.txt?what=sep").text
        assert "Inlet tube" in text
        client.post(f"{PAGE}/got/inlet-tube", data={**SEP, "there": "1"})
        assert "Inlet tube" not in client.get(f"{PAGE}/files/shopping.txt?what=sep").text

    def test_pages_are_counted_as_they_are_printed(self, client: FlaskClient) -> None:
        page = soup(client.get(PAGE))
        small = next(one.text for one in page.select(".downloads small") if "pages of A4" in one.text)
        said = re.search(r"(\d+) pages of A4", small)
        assert said is not None
        pdf = pdfium.PdfDocument(client.get(f"{PAGE}/files/templates.pdf?what=sep").data)
        assert len(pdf) == int(said[1])


@pytest.mark.parametrize(
    ("address", "data"),
    [
        ("tick/nothing", {}),
        ("got/nothing", {}),
        ("parts/nothing", {}),
        ("decide/roof/d_m", {"decision": "shim"}),
        ("decide/slotted-disc/d_m", {"decision": "burn"}),
        ("choose", {"hours": "never"}),
        ("move/nothing/up", {}),
        ("move/cut-slot/sideways", {}),
    ],
)
def test_what_is_not_there_is_refused_and_changes_nothing(
    client: FlaskClient, shop: Database, address: str, data: dict[str, str]
) -> None:
    before = file_of(shop)
    assert client.post(f"{PAGE}/{address}", data={**SEP, **data}).status_code in (400, 404)
    assert file_of(shop) == before


def test_two_windows_tick_two_steps_and_both_arrive(client: FlaskClient, shop: Database) -> None:
    page = soup(client.get(PAGE))
    state = page.select_one('input[name="build_state"]')["value"]  # type: ignore[index]
    for step in ("shape-block", "cut-ring"):
        client.post(f"{PAGE}/tick/{step}", data={**SEP, "build_state": state})
    assert {"shape-block", "cut-ring"} <= {one.step for one in file_of(shop).done}
    moved = client.post(f"{PAGE}/undo", data={**SEP, "build_state": state})
    assert moved.status_code == 409
    assert "shape-block" in {one.step for one in file_of(shop).done}


class TestFirstRun:
    def test_a_gap_at_the_rim_becomes_the_leak_of_the_bin(self, client: FlaskClient, session: Session) -> None:
        """0.5 mm over 40 mm is 20 mm², and a clamp ring starts from 5."""
        client.post(f"{PAGE}/rim", data={**SEP, "gap_m": "0.5", "length_m": "40"})
        session.rollback()
        after = line_state(session, 1)
        assert after.rig.line.elements[0].bin.leak_area_m2 == pytest.approx(25e-6)  # type: ignore[union-attr]
        assert "leak at the rim as felt, 25 mm²" in (after.undo_label or "")

    @pytest.mark.parametrize(("gap", "length"), [("x", "40"), ("0.5", ""), ("50", "40"), ("0.5", "99 m"), ("-1", "4")])
    def test_a_gap_that_is_none_is_said_at_its_field(self, client: FlaskClient, gap: str, length: str) -> None:
        found = client.post(f"{PAGE}/rim", data={**SEP, "gap_m": gap, "length_m": length})
        assert found.status_code == 422
        page = soup(found)
        assert page.select(".has-error .error")
        assert page.select_one('input[name="gap_m"]')["value"] == gap  # type: ignore[index]

    def test_what_was_seen_is_kept_with_its_words(self, client: FlaskClient, shop: Database) -> None:
        client.post(f"{PAGE}/seen/listen", data={**SEP, "fine": "no", "note": "hisses  at the inlet"})
        (seen,) = file_of(shop).first_run
        assert (seen.check, seen.fine, seen.note) == ("listen", False, "hisses at the inlet")
        assert "hisses at the inlet" in client.get(f"{PAGE}/steps/first-run?what=sep").text
        assert client.post(f"{PAGE}/seen/nothing", data={**SEP, "fine": "yes"}).status_code == 404
        assert client.post(f"{PAGE}/seen/listen", data={**SEP, "fine": "maybe"}).status_code == 404


class TestJoints:
    def test_what_does_not_hold_is_told_with_what_does(self, client: FlaskClient) -> None:
        client.post(f"{PAGE}/made-from", data={**SEP, "line.elements[0].make.sealant": "construction"})
        page = client.get(PAGE).text
        assert "construction adhesive does not hold on clear polycarbonate" in page
        assert "hybrid sealant" in page
        joints = soup(client.get(f"{PAGE}/joints?what=sep"))
        assert any("crazes" in row.text for row in joints.select("tbody tr"))

    def test_every_cure_is_that_of_the_table(self, client: FlaskClient) -> None:
        page = soup(client.get(f"{PAGE}/joints?what=sep"))
        cures = {row.select_one("th").text: row.select("td")[-1].text for row in page.select(".grip-table tbody tr")}  # type: ignore[union-attr]
        assert cures["five-minute epoxy"] == "1 h"
        assert cures["slow epoxy"] == "1 day"
        assert cures["hybrid sealant"] == "1 day 3 h"


class TestChangedDesign:
    def test_finished_parts_are_told_what_they_are_worth_now(self, client: FlaskClient) -> None:
        for step in ("cut-ring", "shape-block"):
            client.post(f"{PAGE}/tick/{step}", data=SEP)
        assert "The design has changed" not in client.get(PAGE).text
        client.post("/lines/1/separator", data={"line.elements[0].bin.profile[1].d_m": "370", "part": "sep"})
        page = soup(client.get(PAGE))
        told = [one.text for one in page.select(".trouble-card li")]
        assert any("Seat ring serves after a cut: diameter was 379.5 mm, 369.5 mm is wanted" in one for one in told)
        client.post(f"{PAGE}/anew/seat-ring", data=SEP)
        assert "Seat ring serves after a cut" not in client.get(PAGE).text
        client.post("/lines/1/undo")


class TestPairs:
    def test_a_joint_that_lets_go_is_said_by_the_checks_and_by_build(self, client: FlaskClient) -> None:
        assert "peels off" not in client.get("/lines/1/checks").text
        client.post(f"{PAGE}/made-from", data={**SEP, "line.elements[0].make.sealant": "silicone"})
        for page in ("/lines/1/checks", f"{PAGE}/joints?what=sep"):
            assert "Silicone: it peels off clear polycarbonate in one piece" in client.get(page).text

    @pytest.mark.parametrize(
        ("one", "other", "said"),
        [
            ("hdpe", "plywood", "bolts or rivets through both, with washers and a gasket"),
            ("polycarbonate", "plywood", "Hybrid sealant holds on both."),
            ("chipboard", "board", "White glue holds on both."),
            ("pvc", "pvc", "Solvent cement holds on both."),
            ("acrylic", "steel", "Construction adhesive: its solvent crazes acrylic"),
            ("cheese", "nonsense", "Hybrid sealant holds on both."),
        ],
    )
    def test_any_two_materials_can_be_asked_about(self, client: FlaskClient, one: str, other: str, said: str) -> None:
        page = soup(client.get(f"{PAGE}/joints", query_string={"what": "sep", "one": one, "other": other}))
        told = [row.text for row in page.select(".pair-table tr")]
        assert len(told) == 8
        assert any(said in row for row in told)


class TestMeasured:
    """What is read at the first switch-on is a reading of the line, beside what the line expects."""

    def test_it_goes_into_the_readings(self, client: FlaskClient, session: Session) -> None:
        before = len(readings_of(session, 1))
        client.post(f"{PAGE}/measured/blocked", data={**SEP, "suction_pa": "15.2"})
        client.post(f"{PAGE}/measured/kept", data={**SEP, "in_bin_kg": "460", "past_kg": "40"})
        session.rollback()
        new = readings_of(session, 1)[before:]
        assert [(one.reading.kind, one.note) for one in new] == [
            ("blocked", "first switch-on"), ("kept", "first switch-on"),
        ]  # fmt: skip
        assert new[0].reading.value == pytest.approx(15200.0)
        assert new[1].reading.value == pytest.approx(0.92)
        page = client.get(f"{PAGE}/steps/first-run?what=sep").text
        assert "Read: 15.2 kPa; the line expects" in page
        assert re.search(r"Read: 92(\.0)? %; the line expects", page)

    def test_the_line_expects_what_the_readings_page_says(self, client: FlaskClient) -> None:
        client.post(f"{PAGE}/measured/blocked", data={**SEP, "suction_pa": "15.2"})
        told = re.search(r"the line expects ([\d.]+)", client.get(f"{PAGE}/steps/first-run?what=sep").text)
        assert told is not None
        assert told[1] in client.get("/lines/1/test").text

    @pytest.mark.parametrize(
        ("kind", "typed", "said"),
        [
            ("blocked", {"suction_pa": ""}, "Type what was read."),
            ("blocked", {"suction_pa": "900"}, "more than can be"),
            ("blocked", {"suction_pa": "9**9"}, "9**9"),
            ("kept", {"in_bin_kg": "0", "past_kg": "0"}, "Nothing was fed."),
            ("kept", {"in_bin_kg": "-3", "past_kg": "1"}, "Below 0"),
            ("kept", {"in_bin_kg": "900000", "past_kg": "1"}, "more than a first heap"),
        ],
    )
    def test_what_cannot_be_is_said_beside_what_was_typed(
        self, client: FlaskClient, session: Session, kind: str, typed: dict[str, str], said: str
    ) -> None:
        before = len(readings_of(session, 1))
        found = client.post(f"{PAGE}/measured/{kind}", data={**SEP, **typed})
        assert found.status_code == 422
        assert said in found.text
        for text in typed.values():
            assert f'value="{text}"' in found.text
        session.rollback()
        assert len(readings_of(session, 1)) == before

    def test_only_a_separator_is_measured(self, client: FlaskClient) -> None:
        assert client.post(f"{PAGE}/measured/blocked", data={"what": "stand", "suction_pa": "1"}).status_code == 404
        assert client.post(f"{PAGE}/measured/luck", data=SEP).status_code == 404


class TestMakeOrBuy:
    def test_made_and_bought_stand_beside_each_other_with_the_figures_of_other_pages(self, client: FlaskClient) -> None:
        page = soup(client.get(f"{PAGE}/make-or-buy?what=sep"))
        here = page.select_one(".ways-table tr.here")
        assert here is not None
        cells = [cell.text.strip() for cell in here.select("td")]
        kept = soup(client.get("/lines/1")).select_one('[data-row="kept"] .figure b')
        assert kept is not None
        assert cells[:2] == ["made", f"{kept.text.strip()} %"]
        client.post(f"{PAGE}/got/gasket", data={**SEP, "there": "0"})
        shown = soup(client.get(PAGE))
        own, other = (
            shown.select_one(place).text.split("about ")[1].split(" €")[0]  # type: ignore[union-attr]
            for place in (".buy-box small", ".buy-words")
        )
        assert cells[2:4] == [f"{own} €", "3 h"]
        assert [cell.text.strip() for cell in page.select(".ways-table tr.here + tr td")][2] == f"{other} €"

    def test_time_and_tools_filter(self, client: FlaskClient) -> None:
        def count(query: str) -> int:
            return len(soup(client.get(f"{PAGE}/make-or-buy?what=sep&{query}")).select(".ways-table tbody tr"))

        assert count("") >= count("time=weekend") >= count("time=evening") > count("time=20-minutes") == 0
        assert count("tools=1") <= count("")
        assert count("time=nonsense&tools=x") == count("")

    def test_taking_one_puts_it_on_the_line(self, client: FlaskClient, session: Session, shop: Database) -> None:
        client.post(f"{PAGE}/make-or-buy/cyclone/bought", data=SEP)
        session.rollback()
        assert line_state(session, 1).rig.line.elements[0].type == "cyclone"  # type: ignore[union-attr]
        assert file_of(shop).bought
        assert client.post(f"{PAGE}/make-or-buy/teapot/made", data=SEP).status_code == 404
        assert client.post(f"{PAGE}/make-or-buy/cyclone/stolen", data=SEP).status_code == 404


class TestPhotos:
    def upload(self, client: FlaskClient, raw: bytes, step: str = "wrap-dry") -> Any:
        data = {**SEP, "step": step, "photo": (io.BytesIO(raw), "a.jpg")}
        return client.post(f"{PAGE}/photos", data=data, content_type="multipart/form-data")

    def test_a_photo_of_a_step_comes_and_goes(self, client: FlaskClient) -> None:
        out = io.BytesIO()
        Image.new("RGB", (2400, 1200), "red").save(out, "PNG")
        assert self.upload(client, out.getvalue()).status_code == 302
        page = soup(client.get(f"{PAGE}/steps/wrap-dry?what=sep"))
        address = page.select_one(".step-photos img")["src"]  # type: ignore[index]
        small = Image.open(io.BytesIO(client.get(address).data))
        assert (small.format, small.size) == ("JPEG", (1600, 800))
        assert client.get(str(address).replace("/lines/1/", "/lines/2/")).status_code == 404
        client.post(f"{str(address).removesuffix('.jpg')}/remove", data=SEP)
        assert client.get(address).status_code == 404

    def test_what_is_no_photo_is_refused_in_a_sentence(self, client: FlaskClient) -> None:
        found = self.upload(client, b"hello")
        assert found.status_code == 422
        assert "no picture that can be read" in found.text
        assert self.upload(client, b"", "nothing").status_code == 404


class TestStand:
    KEY = "line.elements[0].stand."

    def put(self, client: FlaskClient, **values: str) -> BeautifulSoup:
        typed = {"wheels": "no" if values.get("stands_on") == "shelf" else "yes", **values}
        data = {"what": "stand", **{f"{self.KEY}{key}": text for key, text in typed.items()}}
        return soup(client.post(f"{PAGE}/made-from", data=data, headers=HTMX))

    @pytest.mark.parametrize(
        ("on", "height", "part"),
        [("floor", "", "Tray"), ("cart", "", "Tray"), ("shelf", "800", "Shelf"), ("deck", "800", "Leg × 4")],
    )
    def test_how_it_stands_is_chosen_where_it_is_built(
        self, client: FlaskClient, on: str, height: str, part: str
    ) -> None:
        page = self.put(client, stands_on=on, base_height_m=height)
        assert part in rows(page)
        again = soup(client.get(f"{PAGE}?what=stand"))
        chosen = again.select_one(f'select[name="{self.KEY}stands_on"] option[selected]')
        assert chosen is not None
        assert chosen["value"] == on

    def test_a_cart_takes_the_vacuum_once_its_width_is_known(self, client: FlaskClient) -> None:
        page = self.put(client, stands_on="cart")
        assert "The vacuum's width is not known" in page.text or "vacuum's width is not known" in page.text
        page = self.put(client, vacuum_d_m="400")
        assert "width is not known" not in page.text
        assert "Fillet at the vacuum × 2" in rows(page)

    def test_what_cannot_stand_is_said_at_its_field(self, client: FlaskClient) -> None:
        page = self.put(client, stands_on="shelf")
        assert "stands at a height" in page.text
        page = self.put(client, nozzles="900")
        assert page.select_one(f'[name="{self.KEY}nozzles"]')["value"] == "900"  # type: ignore[index]

    def test_the_checks_say_the_same_of_its_casters(self, client: FlaskClient) -> None:
        self.put(client, stands_on="cart", wheels="yes", vacuum_mass_kg="9", caster_kg="2")
        client.post("/lines/1/checks/edit", data={"line.elements[0].bin.mass_kg": "2"})
        told = soup(client.get(f"{PAGE}?what=stand"))
        assert "Casters × 4" in rows(told)
