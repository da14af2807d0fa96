"""Entries of a shop's log as they are written, read and exchanged."""

from fenwick.logged.entry import Logged

__all__ = ["Logged"]
