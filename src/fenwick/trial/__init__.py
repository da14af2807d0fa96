"""Tests on paper: the plan as a document, what a run's texts mean, tables of runs and of particle logs."""
