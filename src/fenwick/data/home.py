"""The folder of a shop, and what lies in it; nobody but its owner may read it."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from fenwick.data.database import ShopDatabaseError

OWNERS_FILE, OWNERS_FOLDER = 0o600, 0o700


@dataclass(frozen=True)
class Home:
    """The folder of a shop."""

    folder: Path

    @classmethod
    def of(cls, shop: Path) -> Home:
        """That of a shop's database file."""
        return cls(shop.parent)

    @property
    def shop(self) -> Path:
        """The database."""
        return self.folder / "shop.db"

    @property
    def key(self) -> Path:
        """What signs cookies."""
        return self.folder / "secret.key"

    @property
    def door(self) -> Path:
        """Who may come in."""
        return self.folder / "door.json"

    @property
    def devices(self) -> Path:
        """Hosts at which devices may be."""
        return self.folder / "devices.json"

    @property
    def backups(self) -> Path:
        """Copies of the shop."""
        return self.folder / "backups"

    @property
    def lock(self) -> Path:
        """Held by who serves the shop."""
        return self.folder / "shop.lock"

    @property
    def card(self) -> Path:
        """Who serves the shop."""
        return self.folder / "served.json"

    def make(self) -> None:
        """Make the folder where there is none.

        Raises
        ------
        ShopDatabaseError
        """
        try:
            self.folder.mkdir(parents=True, exist_ok=True, mode=OWNERS_FOLDER)
        except OSError as error:
            raise ShopDatabaseError(f"The folder {self.folder} cannot be made: {error.strerror}.") from error
