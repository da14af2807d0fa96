"""Sheets to print and to cut by: PDF reports out of results, and later templates out of scenes."""
