"""The devices of a shop: what they are, and where they are plugged in."""

from __future__ import annotations

from dataclasses import dataclass

from sqlmodel import Session, col, select

from fenwick.data.lines import NotFoundError
from fenwick.data.remembered import kept
from fenwick.data.removal import mark_removed
from fenwick.data.tables import Shop
from fenwick.data.trial_tables import Device


@dataclass(frozen=True)
class DeviceState:
    """A device."""

    id: int
    name: str
    kind: str  #: scale, monitor or manometer
    address: str
    baud: int
    unit: str  #: of lines that name none


def devices_of(session: Session) -> list[DeviceState]:
    """Every device that was not taken away."""
    rows = session.exec(select(Device).where(col(Device.removed_at).is_(None)).order_by(col(Device.id))).all()
    return [_state(row) for row in rows]


def device_state(session: Session, device_id: int) -> DeviceState:
    """One device.

    Raises
    ------
    NotFoundError
    """
    row = session.get(Device, device_id)
    if row is None or row.removed_at is not None:
        raise NotFoundError("There is no such device in this shop.")
    return _state(row)


def add_device(session: Session, name: str, kind: str, address: str, baud: int = 9600, unit: str = "") -> int:
    """Record a device; its id.

    Raises
    ------
    NotFoundError
        When there is no shop yet.
    """
    shop = session.exec(select(Shop.id)).first()
    if shop is None:
        raise NotFoundError("There is no shop yet to add a device to.")
    row = Device(shop_id=shop, name=name[:60], kind=kind, address=address[:200], baud=baud, unit=unit[:12])
    session.add(row)
    kept(session)
    assert row.id is not None
    return row.id


def remove_device(session: Session, device_id: int, *, back: bool = False) -> None:
    """Take a device away, or bring it back."""
    row = session.get(Device, device_id)
    if row is None:
        raise NotFoundError("There is no such device in this shop.")
    mark_removed(session, row, back=back)


def _state(row: Device) -> DeviceState:
    assert row.id is not None
    return DeviceState(row.id, row.name, row.kind, row.address, row.baud, row.unit)
