"""Tests on paper: plans, what the texts of a run mean, tables of runs."""
