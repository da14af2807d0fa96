"""Measuring with a telephone."""
