"""`fenwick serve --name`: the shop is called so, new or not."""

from __future__ import annotations

from pathlib import Path

import pytest

from fenwick.cli.server import BadNameError, named
from fenwick.data import create_database
from fenwick.data.demo import seed_demo
from fenwick.data.shops import shop_state, the_shop


def test_a_new_shop_is_called_as_asked(tmp_path: Path) -> None:
    shop = named(create_database(tmp_path / "shop.db"), "Shed")
    with shop.session() as session:
        assert shop_state(session).file.name == "Shed"
        assert the_shop(session).name == "Shed"


def test_a_described_shop_is_renamed_and_undo_gives_its_name_back(tmp_path: Path) -> None:
    shop = named(seed_demo(tmp_path / "shop.db"), "Shed")
    with shop.session() as session:
        state = shop_state(session)
        assert state.file.name == "Shed"
        assert state.undo_label == "Shop renamed Shed"


def test_without_a_name_nothing_changes(tmp_path: Path) -> None:
    shop = named(seed_demo(tmp_path / "shop.db"), None)
    with shop.session() as session:
        assert shop_state(session).file.name == "Willow Yard Ukuleles"


@pytest.mark.parametrize("name", ["", "   ", "x" * 121, "two\nlines"])
def test_a_name_that_no_shop_can_have_is_refused(tmp_path: Path, name: str) -> None:
    with pytest.raises(BadNameError, match=r"^--name "):
        named(create_database(tmp_path / "shop.db"), name)
