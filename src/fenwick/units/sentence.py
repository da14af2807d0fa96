"""How a name that stands alone is written within a sentence."""

from __future__ import annotations


def inside(name: str) -> str:
    """A name or a sentence as it stands within another: its first letter small, unless it is written in capitals."""
    return name if name[:2].isupper() and name[1:2].isalpha() else name[:1].lower() + name[1:]
