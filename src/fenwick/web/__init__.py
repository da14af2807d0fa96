"""The pages: one blueprint for each place, the page made of the same fragments that htmx swaps."""

from fenwick.web.app import create_app

__all__ = ["create_app"]
