"""Names inside sentences, and names that are too long."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from fenwick.units.sentence import both_ends


@given(name=st.text(max_size=120), most=st.integers(4, 60))
def test_a_shortened_name_fits_and_keeps_both_its_ends(name: str, most: int) -> None:
    short = both_ends(name, most)
    assert len(short) <= most
    if len(name) <= most:
        assert short == name
    else:
        head, tail = short.rsplit("…", 1) if "…" not in name else (short[0:0], "")
        assert name.startswith(head)
        assert name.endswith(tail)


def test_hoses_that_begin_alike_are_told_apart_at_their_ends() -> None:
    names = ["Flexible hose from the wall to the planer", "Flexible hose from the wall to the drum sander"]
    assert len({both_ends(name, 20) for name in names}) == 2
