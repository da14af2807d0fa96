"""Headers that keep the page to itself: everything comes from here, nothing is framed, nothing is sniffed."""

from __future__ import annotations

from flask import Flask, Response

HEADERS = {
    "Content-Security-Policy": (
        "default-src 'self'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; "
        "frame-ancestors 'none'"
    ),
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
}


def init_app(app: Flask) -> None:
    """Set them on every response."""

    @app.after_request
    def _add(response: Response) -> Response:
        for name, value in HEADERS.items():
            response.headers.setdefault(name, value)
        if response.mimetype == "text/html":
            response.headers["Cache-Control"] = "no-store"  # the back button must not show an undone line
        return response
