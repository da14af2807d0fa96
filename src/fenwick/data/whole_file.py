"""Small files beside a shop: written whole or not at all, and read by their owner alone."""

from __future__ import annotations

import os
import secrets
from pathlib import Path


def write_whole(path: Path, text: str) -> None:
    """Put a text in the place of a file's, on disk when this returns; a stop leaves the old one or the new one.

    Raises
    ------
    OSError
    """
    part = path.with_name(f".{path.name}.{secrets.token_hex(4)}")
    try:
        opened = os.open(part, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        with os.fdopen(opened, "w", encoding="utf-8") as file:
            file.write(text)
            file.flush()
            os.fsync(file.fileno())
        part.replace(path)
        sync_folder(path.parent)
    finally:
        part.unlink(missing_ok=True)


def sync_folder(folder: Path) -> None:
    """Have a file's new name on disk."""
    if os.name == "nt":  # a folder cannot be opened there, and its names need no such care
        return
    opened = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(opened)
    finally:
        os.close(opened)
