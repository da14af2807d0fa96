"""Variants of a line: copied, changed apart, compared side by side."""

import re

from bs4 import BeautifulSoup
from flask.testing import FlaskClient

from fenwick.data.demo import demo_rig
from fenwick.rig import edit_rig
from fenwick.rig.compare import differences
from fenwick.rig.edits.structure import add_part

HTMX = {"HX-Request": "true"}
BORE = "line.branches[0].elements[2].bore_m"


def test_a_variant_starts_equal_and_changes_alone(client: FlaskClient) -> None:
    made = client.post("/lines/1/copy")
    assert made.location == "/lines/4"
    page = BeautifulSoup(client.get("/lines/4").text, "html.parser")
    assert [a.text for a in page.select(".lines > a:not(.pale)")] == ["Drum sander, cyclone", "Drum sander line 2"]
    assert len(page.select(".all-lines a")) == 4
    same = BeautifulSoup(client.get("/lines/1/compare/4").text, "html.parser")
    assert "Nothing but the name." in same.text
    assert not same.select("tr.differs, td.differs, .badge.mark")
    client.post("/lines/4/parts/hose-b", data={BORE: "50"}, headers=HTMX)
    apart = BeautifulSoup(client.get("/lines/1/compare/4").text, "html.parser")
    cells = [" ".join(cell.text.split()) for cell in apart.select(".compare-parts tbody tr > *")]
    assert cells == ["1Hose B", "Bore", "63 mm", "50 mm"]
    assert "Slowest hose" in [str(cell["data-title"]) for cell in apart.select("td.differs")]
    assert len(apart.select(".compare-drawings .badge.mark")) == 4, "on both lines, wide and narrow"
    assert client.post("/lines/1/copy").location == "/lines/5"  # under a name of its own


def test_lines_of_quite_different_parts_are_compared(client: FlaskClient) -> None:
    page = BeautifulSoup(client.get("/lines/1/compare/2").text, "html.parser")
    text = " ".join(table.text for table in page.select(".compare-parts"))
    assert "not there" in text
    assert "Sanding dust P120" in text
    assert "only in Bench line" in page.select_one(".compare-ports").text  # type: ignore[union-attr]
    assert client.get("/lines/1/compare/99").status_code == 404
    assert client.post("/lines/99/copy").status_code == 404


def test_differences_name_part_key_and_unit() -> None:
    rig = demo_rig()
    changed = edit_rig(rig, {BORE: 0.05, "site.altitude_m": 0.0, "vacuum.filter.held_kg": 0.0, "dust.kind": "saw"})
    found = {(d.part, d.title): d for d in differences(rig, changed)}
    assert set(found) == {("hose-b", "Bore"), ("site", "Altitude"), ("vacuum", "Dust on it"), ("dust", "Dust")}
    assert found["hose-b", "Bore"].values == (0.063, 0.05)
    assert found["hose-b", "Bore"].quantity == "bore"
    assert differences(rig, rig) == []


def test_no_difference_is_told_by_a_key_of_the_file(client: FlaskClient) -> None:
    """What stands on the page of any two lines is words: no choice or part as the file spells it."""
    spelled = re.compile(r"\b[a-z]+(?:-[a-z]+)+\b|\b[a-z]+_[a-z_]+\b")
    for pair in ("1/compare/2", "1/compare/3", "3/compare/2"):
        page = BeautifulSoup(client.get(f"/lines/{pair}").text, "html.parser")
        cells = [cell.text.strip() for cell in page.select(".compare-parts td")]
        assert cells
        assert not [text for text in cells if spelled.fullmatch(text)]


def test_what_changes_no_figure_is_quiet() -> None:
    rig = demo_rig()
    changed = edit_rig(
        rig, {"line.elements[0].price": 99.0, "vacuum.last_held": "planer", "vacuum.filter.kind": "hepa"}
    )
    found = {d.key: d.quiet for d in differences(rig, changed)}
    assert found == {"price": True, "last_held": True, "filter.kind": False}


def test_another_kind_of_separator_comes_first_and_keeps_its_own_sizes_quiet() -> None:
    found = [d for d in differences(demo_rig(), demo_rig("demo_cyclone")) if d.part == "sep"]
    assert found[0].key == "type"
    quiet = {d.key for d in found if d.quiet}
    assert {"slots.width_m", "body_d_m"} <= quiet
    assert "bin.closure" not in quiet


def test_a_part_that_only_one_has_is_one_difference() -> None:
    rig = demo_rig()
    more, new = add_part(rig, "link", "elbow")
    (difference,) = differences(rig, more)
    assert (difference.part, difference.absent) == (new, (True, False))
    (back,) = differences(more, rig)
    assert back.absent == (False, True)


def test_a_line_is_renamed_removed_and_brought_back(client: FlaskClient) -> None:
    assert client.post("/lines/2/name", data={"name": "Bench, winter"}).status_code == 302
    page = client.get("/lines/2").text
    assert "Bench, winter" in page
    assert "Bench line renamed Bench, winter" in page
    refused = client.post("/lines/2/name", data={"name": " "})
    assert refused.status_code == 422
    assert "must not be empty" in refused.text
    gone = client.post("/lines/2/remove")
    said = client.get(gone.headers["Location"]).text
    assert "Bench, winter is removed" in said
    assert "Bench, winter" not in client.get("/lines/1").text
    client.post("/lines/2/restore")
    assert "Bench, winter" in client.get("/lines/1").text
    client.post("/lines/2/undo")
    assert "Bench line" in client.get("/lines/1").text
    assert client.post("/lines/99/remove").status_code == 404
