"""Logs of particle monitors on paper: tables and their cuts."""
