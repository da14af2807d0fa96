"""Devices in words."""

from __future__ import annotations

from fenwick.devices.reader import FLOODS, OPENING, READING, RUBBISH, SILENT, VANISHED, Health

KIND_NAMES = {"scale": "Scale", "monitor": "Particle monitor", "manometer": "Manometer"}
STATES = {
    OPENING: ("being opened", "none"),
    READING: ("reading", "ok"),
    SILENT: ("silent: it is open, and sends nothing", "watch"),
    VANISHED: ("not there: it is tried again by itself", "act"),
    FLOODS: ("it floods: most of its lines are dropped", "watch"),
    RUBBISH: ("rubbish: set its speed, kind or unit", "act"),
}


def health_words(health: Health) -> tuple[str, str]:
    """(how a device does, its state)."""
    words, level = STATES[health.state]
    if health.state == READING and health.bad:
        words += f", {health.bad} of {health.read + health.bad} lines kept apart"
    if health.dropped and health.state != FLOODS:
        words += f", {health.dropped} dropped"
    return words, level
