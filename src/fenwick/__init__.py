"""Fenwick: a workbench for the dust line of a shop vacuum."""

__version__ = "0.1.0"
