"""Tests of how readings are judged."""
